namespace BlueDawn.Server.Tests.Trays;

public class TrayTests(Shop shop)
{
    [Fact]
    public async Task Of_two_people_changing_one_tray_the_second_sees_both_versions()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var number = await jory.NewTrayAsync();
        var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
        var first = await ilse.NoteAsync(
            number,
            new
            {
                kind = "facts",
                waitsFor = "owner",
                waitNote = "asked about the price",
            },
            version: version
        );
        Assert.Equal(HttpStatusCode.OK, first.Status);
        var second = await jory.NoteAsync(
            number,
            new
            {
                kind = "facts",
                waitsFor = "bath",
                waitNote = "basket 1",
            },
            version: version
        );
        Assert.Equal(HttpStatusCode.Conflict, second.Status);
        Assert.Equal("owner", second.Body.GetProperty("theirs").GetProperty("waitsFor").GetString());
        Assert.Equal("Ilse Brandt", second.Body.GetProperty("theirsBy").GetString());
        var again = await jory.NoteAsync(
            number,
            new { kind = "facts", waitsFor = "bath" },
            version: second.Body.GetProperty("version").GetInt32()
        );
        Assert.Equal(HttpStatusCode.OK, again.Status);
        Assert.Equal(2, again.Body.Log("facts").Count);
    }

    [Fact]
    public async Task A_reading_never_conflicts_with_a_change_of_the_tray()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
        Assert.Equal(HttpStatusCode.OK, (await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71" })).Status);
        Assert.Equal(HttpStatusCode.OK, (await jory.NoteAsync(number, new { kind = "facts", waitsFor = "bath" }, version: version)).Status);
    }

    [Fact]
    public async Task A_past_promise_and_a_handing_back_by_the_back_door_are_refused()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
        var answer = await jory.NoteAsync(
            number,
            new
            {
                kind = "facts",
                waitsFor = "handedBack",
                promisedDay = "2020-01-01",
            },
            version: version
        );
        Assert.NotEmpty(answer.Error("note.promisedDay"));
        Assert.NotEmpty(answer.Error("note.waitsFor"));
    }

    [Fact]
    public async Task Checking_in_twice_with_one_id_makes_one_tray_and_the_exact_stamp_finds_its_sheet()
    {
        var jory = await shop.SignInAsync("jory");
        var body = Visitor.NewTray(Guid.CreateVersion7(), "4107-b");
        var answers = await Task.WhenAll(
            jory.PostAsync("/api/trays", body),
            jory.PostAsync("/api/trays", body),
            jory.PostAsync("/api/trays", body)
        );
        Assert.Single(answers.Select(answer => answer.Body.GetProperty("number").GetInt32()).Distinct());
        Assert.Equal("FB18", answers[0].Body.GetProperty("spec").GetProperty("code").GetString());
        var wrong = await jory.PostAsync("/api/trays", Visitor.NewTray(Guid.CreateVersion7(), complaint: " "));
        Assert.NotEmpty(wrong.Error("complaint"));
    }

    [Fact]
    public async Task The_bench_lists_every_tray_with_what_it_waits_for_and_its_next_step()
    {
        var bench = (await (await shop.SignInAsync("ilse")).GetAsync("/api/bench")).Body;
        var trays = bench.GetProperty("trays").EnumerateArray().ToDictionary(tray => tray.GetProperty("number").GetInt32());
        Assert.True(trays.Count >= 12);
        Assert.Equal("bath", trays[24].GetProperty("waitsFor").GetString());
        Assert.Equal("Try the {0} pin.", trays[27].GetProperty("do").GetProperty("text").GetString());
        Assert.Equal("handover", trays[28].GetProperty("station").GetString());
    }
}
