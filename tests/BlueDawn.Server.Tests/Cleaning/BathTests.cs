using BlueDawn.Server.Tests.Strip;

namespace BlueDawn.Server.Tests.Cleaning;

public class BathTests(Shop shop)
{
    [Fact]
    public async Task A_tray_goes_in_waits_for_the_bath_and_comes_out_wet()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await StrippedAsync(jory);
        var placed = await EventAsync(jory, "tub", new { kind = "placed", trayNumber = number });
        var basket = Basket(placed.Body, "tub", number);
        Assert.Equal("running", basket.GetProperty("standing").GetString());
        var tray = (await jory.GetAsync($"/api/trays/{number}")).Body;
        Assert.Equal("bath", tray.GetProperty("facts").GetProperty("waitsFor").GetString());
        Assert.Contains(
            "already",
            (await EventAsync(jory, "tub", new { kind = "placed", trayNumber = number })).Error("trayNumber"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "still in the bath",
            (await LedgerTests.NoteAsync(jory, number, new { kind = "dry" })).Error("note"),
            StringComparison.Ordinal
        );

        await EventAsync(jory, "tub", new { kind = "longer", trayNumber = number });
        await EventAsync(jory, "tub", new { kind = "takenOut", trayNumber = number });
        var cleaning = (await jory.GetAsync($"/api/trays/{number}/cleaning")).Body.GetProperty("plan");
        Assert.True(cleaning.GetProperty("wet").GetBoolean());
        // After seconds of twelve hours it is wet and not clean.
        var soak = cleaning
            .GetProperty("offers")
            .EnumerateArray()
            .Single(offer => offer.GetProperty("recipe").GetProperty("vessel").GetString() == "tub");
        Assert.Equal((true, false), (soak.GetProperty("chosen").GetBoolean(), soak.GetProperty("done").GetBoolean()));
        tray = (await jory.GetAsync($"/api/trays/{number}")).Body;
        Assert.Equal("hands", tray.GetProperty("facts").GetProperty("waitsFor").GetString());
        Assert.Contains(tray.Log("basket"), entry =>
            entry.GetProperty("what").GetProperty("text").GetString()!.EndsWith("early", StringComparison.Ordinal)
        );
        Assert.Equal(HttpStatusCode.OK, (await LedgerTests.NoteAsync(jory, number, new { kind = "dry" })).Status);
    }

    [Fact]
    public async Task An_id_stands_for_what_happened_under_it_and_for_nothing_else()
    {
        var jory = await shop.SignInAsync("jory");
        var id = Guid.CreateVersion7();
        Task<Answer> ReadAsync(string bath, string temperature) =>
            jory.PostAsync(
                $"/api/baths/{bath}/events",
                new
                {
                    id,
                    kind = "temperature",
                    temperature,
                }
            );
        Assert.Equal(HttpStatusCode.OK, (await ReadAsync("heated", "61")).Status);
        Assert.Equal(HttpStatusCode.OK, (await ReadAsync("heated", "61")).Status);
        Assert.Equal(HttpStatusCode.Conflict, (await ReadAsync("heated", "62")).Status);
        Assert.Equal(HttpStatusCode.Conflict, (await ReadAsync("tub", "61")).Status);
        Assert.Equal(HttpStatusCode.Conflict, (await jory.PostAsync("/api/baths/heated/events", new { id, kind = "heaterOn" })).Status);
    }

    [Fact]
    public async Task A_bath_holds_what_it_holds_even_when_all_come_at_once()
    {
        var jory = await shop.SignInAsync("jory");
        var free = Bath((await jory.GetAsync("/api/baths")).Body, "heated")
            .GetProperty("state")
            .GetProperty("freeBaskets")
            .GetArrayLength();
        var numbers = new List<int>();
        for (var i = 0; i <= free; i++)
        {
            numbers.Add(await StrippedAsync(jory));
        }

        var answers = await Task.WhenAll(
            numbers.Select(number => EventAsync(jory, "heated", new { kind = "placed", trayNumber = number }))
        );
        Assert.Equal(free, answers.Count(answer => answer.Status == HttpStatusCode.OK));
        Assert.Contains(
            "baskets are in",
            Assert.Single(answers, answer => answer.Status == HttpStatusCode.BadRequest).Error("basket"),
            StringComparison.Ordinal
        );
        foreach (var number in numbers.Where((_, i) => answers[i].Status == HttpStatusCode.OK))
        {
            await EventAsync(jory, "heated", new { kind = "takenOut", trayNumber = number });
        }
    }

    [Fact]
    public async Task Solvent_never_goes_into_the_heated_bath_nor_does_plastic()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await StrippedAsync(jory);
        await LedgerTests.NoteAsync(
            jory,
            number,
            new
            {
                kind = "method",
                recipe = "brush",
                step = "done",
            }
        );
        Assert.Contains(
            "can catch fire",
            (await EventAsync(jory, "heated", new { kind = "placed", trayNumber = number })).Error("trayNumber"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "can catch fire",
            (
                await LedgerTests.NoteAsync(
                    jory,
                    number,
                    new
                    {
                        kind = "method",
                        recipe = "bath",
                        step = "chosen",
                    }
                )
            ).Error("note.recipe"),
            StringComparison.Ordinal
        );

        var shut = await jory.NewTrayAsync();
        await LedgerTests.NoteAsync(jory, shut, new { kind = "job", job = "bowl" });
        Assert.Contains(
            "Take out first",
            (await EventAsync(jory, "heated", new { kind = "placed", trayNumber = shut })).Error("trayNumber"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Temperatures_are_read_in_the_persons_units_and_an_event_counts_once()
    {
        var marit = await shop.SignInAsync("marit"); // works in inches
        var id = Guid.CreateVersion7();
        var before = Readings((await marit.GetAsync("/api/baths")).Body);
        var read = await EventAsync(marit, "heated", new { kind = "temperature", temperature = "176" }, id);
        Assert.Equal(80, Bath(read.Body, "heated").GetProperty("state").GetProperty("temperatureC").GetDouble(), 1);
        await EventAsync(marit, "heated", new { kind = "temperature", temperature = "176" }, id);
        Assert.Equal(before + 1, Readings((await marit.GetAsync("/api/baths")).Body));
        Assert.NotEmpty((await EventAsync(marit, "heated", new { kind = "temperature", temperature = "warm" })).Error("temperature"));
        Assert.NotEmpty((await EventAsync(marit, "tub", new { kind = "heaterOn" })).Error("kind"));
        Assert.Equal(HttpStatusCode.NotFound, (await EventAsync(marit, "pond", new { kind = "heaterOn" })).Status);
    }

    [Fact]
    public async Task What_happened_at_a_bath_is_never_edited()
    {
        var jory = await shop.SignInAsync("jory");
        await EventAsync(jory, "heated", new { kind = "temperature", temperature = "79" });
        await Assert.ThrowsAsync<Npgsql.PostgresException>(() =>
            Shop.ExecuteAsync(shop.Database, "update bath_events set temperature_c = 80")
        );
        await Assert.ThrowsAsync<Npgsql.PostgresException>(() => Shop.ExecuteAsync(shop.Database, "delete from bath_events"));
    }

    [Fact]
    public async Task Scripts_choose_tools_and_fit_curves()
    {
        var script = shop.Visit();
        var tools = await script.PostAsync("/api/compute/clearing-tools", new { boreMm = 0.33, toleranceMm = 0.015 });
        Assert.Equal("29 gauge", tools.Body[0].GetProperty("largest").GetProperty("label").GetString());
        Assert.NotEmpty((await script.PostAsync("/api/compute/clearing-tools", new { boreMm = 0, toleranceMm = 0 })).Error("boreMm"));
        var samples = Enumerable.Range(0, 8).Select(i => new { minute = i * 5.0, temperatureC = 82 - 60 * Math.Exp(-i * 5 / 18.0) });
        var fit = (await script.PostAsync("/api/compute/bath-curve", new { samples })).Body.GetProperty("fit");
        Assert.Equal(18, fit.GetProperty("timeConstantMin").GetDouble(), 3);
        Assert.NotEmpty((await script.PostAsync("/api/compute/bath-curve", new { samples = samples.Take(2) })).Error("samples"));
    }

    internal static async Task<int> StrippedAsync(Visitor visitor)
    {
        var number = await visitor.NewTrayAsync();
        await LedgerTests.NoteAsync(visitor, number, new { kind = "job", job = "full" });
        var lines = (await visitor.GetAsync($"/api/trays/{number}/ledger")).Body.GetProperty("lines");
        foreach (var line in lines.EnumerateArray())
        {
            await LedgerTests.NoteAsync(
                visitor,
                number,
                new
                {
                    kind = "out",
                    part = line.GetProperty("part").GetProperty("key").GetString(),
                    verdict = "clean",
                }
            );
        }

        return number;
    }

    private static Task<Answer> EventAsync(Visitor visitor, string bath, object happened, Guid? id = null)
    {
        var body = JsonSerializer.SerializeToNode(happened)!.AsObject();
        body["id"] = id ?? Guid.CreateVersion7();
        return visitor.PostAsync($"/api/baths/{bath}/events", body);
    }

    private static JsonElement Bath(JsonElement baths, string key) =>
        baths
            .GetProperty("baths")
            .EnumerateArray()
            .Single(bath => bath.GetProperty("state").GetProperty("bath").GetProperty("key").GetString() == key);

    private static JsonElement Basket(JsonElement baths, string key, int tray) =>
        Bath(baths, key)
            .GetProperty("state")
            .GetProperty("baskets")
            .EnumerateArray()
            .Single(basket => basket.GetProperty("tray").GetInt32() == tray);

    private static int Readings(JsonElement baths) => Bath(baths, "heated").GetProperty("readings").GetArrayLength();
}
