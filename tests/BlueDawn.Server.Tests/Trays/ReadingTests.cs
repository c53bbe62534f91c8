namespace BlueDawn.Server.Tests.Trays;

public class ReadingTests(Shop shop)
{
    private const string Main = "gauging/main-jet";

    [Fact]
    public async Task A_reading_is_judged_signed_and_dated()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var before = DateTimeOffset.UtcNow.AddSeconds(-5);
        var tray = (await jory.RecordAsync(number, Main, new { go = "0.65", noGo = "0.67 mm" })).Body;
        Assert.Equal("restricted", tray.Finding(Main));
        var entry = Assert.Single(tray.Log("reading"));
        Assert.Equal("Jory Tamblyn", entry.GetProperty("by").GetString());
        Assert.InRange(entry.GetProperty("takenAt").GetDateTimeOffset(), before, DateTimeOffset.UtcNow.AddSeconds(1));
    }

    [Fact]
    public async Task The_same_entry_sent_twice_is_one_entry()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var id = Guid.CreateVersion7();
        var sendings = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => jory.RecordAsync(number, Main, new { go = "0.71", noGo = "0.73" }, id))
        );
        Assert.All(sendings, answer => Assert.Equal(HttpStatusCode.OK, answer.Status));
        Assert.Single((await jory.GetAsync($"/api/trays/{number}")).Body.Log("reading"));
        var other = await jory.RecordAsync(number, Main, new { go = "0.60" }, id);
        Assert.Equal(HttpStatusCode.Conflict, other.Status);
    }

    [Fact]
    public async Task A_correction_supersedes_and_both_stay_visible()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var wrong = (await jory.RecordAsync(number, Main, new { go = "0.37", noGo = "0.73" })).Body;
        var tray = (await jory.RecordAsync(number, Main, new { go = "0.71", noGo = "0.73" }, supersedes: wrong.StandingId(Main))).Body;
        Assert.Equal("inGauge", tray.Finding(Main));
        var log = tray.Log("reading");
        Assert.Equal(2, log.Count);
        Assert.Equal([false, true], log.Select(entry => entry.GetProperty("superseded").GetBoolean()));
    }

    [Fact]
    public async Task Of_two_people_correcting_one_reading_the_second_is_told()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var number = await jory.NewTrayAsync();
        var standing = (await jory.RecordAsync(number, Main, new { go = "0.37", noGo = "0.73" })).Body.StandingId(Main);
        var first = await ilse.RecordAsync(number, Main, new { go = "0.71", noGo = "0.73" }, supersedes: standing);
        var second = await jory.RecordAsync(number, Main, new { go = "0.70", noGo = "0.73" }, supersedes: standing);
        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.Conflict), (first.Status, second.Status));
        Assert.Equal("Ilse Brandt", second.Body.GetProperty("theirsBy").GetString());
    }

    [Fact]
    public async Task A_withdrawn_reading_gives_way_to_the_one_before()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        await jory.RecordAsync(number, Main, new { go = "0.71", noGo = "0.73" });
        var stray = (await jory.RecordAsync(number, Main, new { go = "0.95", noGo = "1.0" })).Body;
        Assert.Equal("openedUp", stray.Finding(Main));
        var tray = (await jory.NoteAsync(number, new { kind = "withdrawal" }, supersedes: stray.StandingId(Main))).Body;
        Assert.Equal("inGauge", tray.Finding(Main));
        Assert.Single(tray.Log("withdrawal"));
    }

    [Theory]
    [InlineData("abc", "", "go")]
    [InlineData("-0.3", "", "go")]
    [InlineData("0.4", "0.3", "noGo")]
    [InlineData("0.3 parsecs", "", "go")]
    public async Task Bad_readings_name_their_field_and_leave_nothing_behind(string go, string noGo, string field)
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var answer = await jory.RecordAsync(number, Main, new { go, noGo });
        Assert.Equal(HttpStatusCode.BadRequest, answer.Status);
        Assert.NotEmpty(answer.Error(field));
        Assert.Empty((await jory.GetAsync($"/api/trays/{number}")).Body.Log("reading"));
    }

    [Fact]
    public async Task A_draft_is_judged_and_not_kept()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var draft = await jory.PostAsync(
            $"/api/trays/{number}/draft",
            new
            {
                lineKey = Main,
                typed = new
                {
                    units = "inch",
                    values = new { go = ".0284", noGo = ".0286" },
                    rows = Array.Empty<object>(),
                },
            }
        );
        Assert.Equal("inGauge", draft.Body.GetProperty("judgement").GetProperty("finding").GetString());
        Assert.Empty((await jory.GetAsync($"/api/trays/{number}")).Body.Log("reading"));
    }

    [Fact]
    public async Task Unknown_trays_and_lines_are_named()
    {
        var jory = await shop.SignInAsync("jory");
        Assert.Equal("There is no tray 9999.", (await jory.GetAsync("/api/trays/9999")).Title);
        var number = await jory.NewTrayAsync();
        Assert.Equal(HttpStatusCode.NotFound, (await jory.RecordAsync(number, "gauging/no-such", new { go = "0.3" })).Status);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await jory.RecordAsync(number, Main, new { go = "0.3" }, supersedes: Guid.CreateVersion7())).Status
        );
        Assert.Equal(HttpStatusCode.NotFound, (await jory.GetAsync("/api/nothing")).Status);
    }

    [Theory]
    [InlineData("update logbook_entries set words = 'changed'")]
    [InlineData("delete from logbook_entries")]
    [InlineData("update stock_moves set pieces = 99")]
    public async Task The_database_itself_refuses_to_change_the_books(string sql)
    {
        var refused = await Assert.ThrowsAsync<Npgsql.PostgresException>(() => Shop.ExecuteAsync(shop.Database, sql));
        Assert.Contains("append-only", refused.MessageText, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_endless_number_is_refused()
    {
        // Bodies over 1 MB are turned away by the web server itself; the end-to-end tests send one.
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var answer = await jory.RecordAsync(number, Main, new { go = new string('9', 200_000) });
        Assert.Contains("too long", answer.Error("entries.note.typed.values.go"), StringComparison.Ordinal);
    }
}
