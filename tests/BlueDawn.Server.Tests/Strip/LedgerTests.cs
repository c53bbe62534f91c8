namespace BlueDawn.Server.Tests.Strip;

public class LedgerTests(Shop shop)
{
    [Fact]
    public async Task A_part_is_a_line_from_coming_out_to_going_back()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        Assert.Equal(JsonValueKind.Null, (await LedgerAsync(jory, number)).GetProperty("job").ValueKind);
        await NoteAsync(jory, number, new { kind = "job", job = "full" });
        var found = await NoteAsync(
            jory,
            number,
            new
            {
                kind = "out",
                part = "idle-needle",
                verdict = "clean",
                turnsEighths = 10,
            }
        );
        Assert.Equal("out", Line(found.Body, "idle-needle").GetProperty("state").GetString());
        var back = await NoteAsync(
            jory,
            number,
            new
            {
                kind = "back",
                part = "idle-needle",
                fate = "refitted",
                turnsEighths = 10,
            }
        );
        Assert.Equal("back", Line(back.Body, "idle-needle").GetProperty("state").GetString());
        var log = (await jory.GetAsync($"/api/trays/{number}")).Body.Log("job", "out", "back");
        Assert.Equal(3, log.Count);
        Assert.Contains(log, entry =>
            entry.GetProperty("what").GetProperty("text").GetString()!.Contains("1¼ turns from the seat", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task The_same_entry_sent_twice_is_one_and_its_id_cannot_stand_for_another()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var id = Guid.CreateVersion7();
        await NoteAsync(jory, number, new { kind = "job", job = "bowl" }, id);
        Assert.Equal(HttpStatusCode.OK, (await NoteAsync(jory, number, new { kind = "job", job = "bowl" }, id)).Status);
        Assert.Single((await jory.GetAsync($"/api/trays/{number}")).Body.Log("job"));
        Assert.Equal(HttpStatusCode.Conflict, (await NoteAsync(jory, number, new { kind = "job", job = "full" }, id)).Status);
        var other = await jory.NewTrayAsync();
        Assert.Equal(HttpStatusCode.Conflict, (await NoteAsync(jory, other, new { kind = "job", job = "bowl" }, id)).Status);
    }

    [Fact]
    public async Task Two_people_who_take_the_same_part_back_in_do_it_once()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var number = await jory.NewTrayAsync();
        await NoteAsync(jory, number, new { kind = "job", job = "bowl" });
        await NoteAsync(
            jory,
            number,
            new
            {
                kind = "out",
                part = "bowl-nut",
                verdict = "clean",
            }
        );
        var answers = await Task.WhenAll(
            ((Visitor[])[jory, ilse]).Select(visitor =>
                NoteAsync(
                    visitor,
                    number,
                    new
                    {
                        kind = "back",
                        part = "bowl-nut",
                        fate = "refitted",
                    }
                )
            )
        );
        Assert.Single(answers, answer => answer.Status == HttpStatusCode.OK);
        Assert.Contains(
            "back in already",
            Assert.Single(answers, answer => answer.Status == HttpStatusCode.BadRequest).Error("note.part"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Nothing_is_proven_or_handed_back_while_a_part_lies_on_the_bench()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        await NoteAsync(jory, number, new { kind = "job", job = "bowl" });
        await NoteAsync(
            jory,
            number,
            new
            {
                kind = "out",
                part = "bowl",
                verdict = "clean",
            }
        );
        var refused = await jory.RecordAsync(number, "proving/idle-speed", new { speed = "1600" });
        Assert.Equal((HttpStatusCode.Conflict, "Not to be proven yet."), (refused.Status, refused.Title));
        var tray = (await jory.GetAsync($"/api/trays/{number}")).Body;
        Assert.Contains(tray.GetProperty("obstacles").EnumerateArray(), obstacle =>
            obstacle.GetProperty("lineKey").GetString() == "build/bowl"
        );
        // Everything else can be measured meanwhile.
        Assert.Equal(HttpStatusCode.OK, (await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71", noGo = "0.73" })).Status);

        Assert.Contains(
            "which way round",
            (
                await NoteAsync(
                    jory,
                    number,
                    new
                    {
                        kind = "back",
                        part = "bowl",
                        fate = "refitted",
                    }
                )
            ).Error("note.way"),
            StringComparison.Ordinal
        );
        var wrong = await NoteAsync(
            jory,
            number,
            new
            {
                kind = "back",
                part = "bowl",
                fate = "refitted",
                way = "away",
            }
        );
        Assert.Equal("wrongWay", wrong.Body.GetProperty("problems")[0].GetProperty("fault").GetString());
        Assert.Equal(HttpStatusCode.Conflict, (await jory.RecordAsync(number, "proving/idle-speed", new { speed = "1600" })).Status);
        await NoteAsync(jory, number, new { kind = "undo", part = "bowl" });
        await NoteAsync(
            jory,
            number,
            new
            {
                kind = "back",
                part = "bowl",
                fate = "refitted",
                way = "under-float",
            }
        );
        Assert.Equal(HttpStatusCode.OK, (await jory.RecordAsync(number, "proving/idle-speed", new { speed = "1600" })).Status);
    }

    [Fact]
    public async Task A_new_part_off_the_shelf_moves_stock_and_the_last_one_goes_once()
    {
        var jory = await shop.SignInAsync("jory");
        int[] numbers = [await jory.NewTrayAsync(), await jory.NewTrayAsync()];
        foreach (var number in numbers)
        {
            await NoteAsync(jory, number, new { kind = "job", job = "bowl" });
            await NoteAsync(
                jory,
                number,
                new
                {
                    kind = "out",
                    part = "bowl-gasket",
                    verdict = "renew",
                }
            );
        }

        var sources = (await jory.GetAsync($"/api/trays/{numbers[0]}/ledger/new-parts?part=bowl-gasket")).Body.EnumerateArray().ToList();
        var item = sources
            .First(source => source.GetProperty("fromShelf").GetBoolean() && source.GetProperty("verdict").GetString() != "differs")
            .GetProperty("number")
            .GetString()!;
        await jory.PostAsync(
            "/api/stock/moves",
            new
            {
                id = Guid.CreateVersion7(),
                item,
                kind = "counted",
                pieces = 1,
            }
        );
        var answers = await Task.WhenAll(
            numbers.Select(number =>
                NoteAsync(
                    jory,
                    number,
                    new
                    {
                        kind = "back",
                        part = "bowl-gasket",
                        fate = "renewed",
                        item,
                        fromShelf = true,
                    }
                )
            )
        );
        Assert.Single(answers, answer => answer.Status == HttpStatusCode.OK);
        Assert.Contains(
            "left on the shelf",
            Assert.Single(answers, answer => answer.Status == HttpStatusCode.BadRequest).Error("note.item"),
            StringComparison.Ordinal
        );
        Assert.Equal(0, await OnHandAsync(jory, item));
        var fitted = numbers[answers[0].Status == HttpStatusCode.OK ? 0 : 1];
        await NoteAsync(jory, fitted, new { kind = "undo", part = "bowl-gasket" });
        Assert.Equal(1, await OnHandAsync(jory, item));
        Assert.Contains(
            "not what was decided",
            (
                await NoteAsync(
                    jory,
                    fitted,
                    new
                    {
                        kind = "back",
                        part = "bowl-gasket",
                        fate = "renewed",
                        item,
                    }
                )
            ).Error("note.item"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_one_of_a_sheet_had_the_next_one_starts_with()
    {
        var jory = await shop.SignInAsync("jory");
        var (first, next, other) = (
            await jory.NewTrayAsync("7-0312"),
            await jory.NewTrayAsync("7-0312"),
            await jory.NewTrayAsync("11-0520")
        );
        foreach (var (number, code) in new[] { (first, "TK7"), (next, "TK7"), (other, "TK11") })
        {
            await jory.DecideAsync(number, new { kind = "sheet", specCode = code });
        }

        Assert.Equal(HttpStatusCode.OK, (await NoteAsync(jory, first, new { kind = "job", job = "full" })).Status);
        await NoteAsync(
            jory,
            first,
            new
            {
                kind = "has",
                has = new[] { "choke-link" },
                hasNot = new[] { "insulator" },
            }
        );
        // What a device says of others is not taken: the bench looks.
        await NoteAsync(
            jory,
            next,
            new
            {
                kind = "job",
                job = "full",
                has = new[] { "drain-bolt" },
            }
        );
        await NoteAsync(jory, other, new { kind = "job", job = "full" });
        async Task<JsonElement> Has(int number) => (await jory.GetAsync($"/api/trays/{number}/ledger")).Body.GetProperty("has");
        Assert.True((await Has(next)).GetProperty("choke-link").GetBoolean());
        Assert.False((await Has(next)).GetProperty("insulator").GetBoolean());
        Assert.False((await Has(next)).TryGetProperty("drain-bolt", out _));
        Assert.Empty((await Has(other)).EnumerateObject());
    }

    [Fact]
    public async Task A_piece_that_came_bad_is_off_the_shelf_and_held_against_whoever_it_came_from()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        await NoteAsync(jory, number, new { kind = "job", job = "bowl" });
        await NoteAsync(
            jory,
            number,
            new
            {
                kind = "out",
                part = "bowl-gasket",
                verdict = "renew",
            }
        );
        var item = (await jory.GetAsync($"/api/trays/{number}/ledger/new-parts?part=bowl-gasket"))
            .Body.EnumerateArray()
            .First(source => source.GetProperty("fromShelf").GetBoolean() && source.GetProperty("verdict").GetString() != "differs")
            .GetProperty("number")
            .GetString()!;
        object Move(string kind, int pieces, string note = "", string? supplier = null) =>
            new
            {
                id = Guid.CreateVersion7(),
                item,
                kind,
                pieces,
                note,
                supplier,
            };
        await jory.PostAsync("/api/stock/moves", Move("counted", 3));
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await NoteAsync(
                    jory,
                    number,
                    new
                    {
                        kind = "back",
                        part = "bowl-gasket",
                        fate = "renewed",
                        item,
                        fromShelf = true,
                    }
                )
            ).Status
        );
        Assert.Equal(2, await OnHandAsync(jory, item));
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await NoteAsync(
                    jory,
                    number,
                    new
                    {
                        kind = "cameBad",
                        part = "bowl-gasket",
                        what = "cut on one side",
                        supplier = "Fairlead Parts",
                    }
                )
            ).Status
        );
        Assert.Equal(2, await OnHandAsync(jory, item));
        // At the shelf as well; what is wrong is said, and nobody knows who this one came from.
        Assert.Equal("Say what is wrong with it.", (await jory.PostAsync("/api/stock/moves", Move("cameBad", 1))).Error("note"));
        var bad = (await jory.PostAsync("/api/stock/moves", Move("cameBad", 1, "too thin"))).Body.GetProperty("bad");
        Assert.Equal(1, await OnHandAsync(jory, item));
        Assert.Equal(2, bad.GetArrayLength());
        Assert.Contains(bad.EnumerateArray(), from =>
            from.GetProperty("supplier").GetString() == "Fairlead Parts" && from.GetProperty("bad").GetInt32() == 1
        );
    }

    [Fact]
    public async Task How_a_part_was_found_counts_at_trace_and_what_was_left_off_stands_on_the_report()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        await NoteAsync(jory, number, new { kind = "job", job = "full" });
        await NoteAsync(
            jory,
            number,
            new
            {
                kind = "out",
                part = "insulator",
                verdict = "clean",
                way = "down",
            }
        );
        var items = (await jory.GetAsync($"/api/trays/{number}/trace"))
            .Body.GetProperty("trace")
            .GetProperty("evidence")
            .GetProperty("items")
            .EnumerateArray();
        var found = items.Single(item => item.GetProperty("findingId").GetString() == "insulator-wrong-way");
        Assert.Equal(("strip", "strip/insulator"), (found.GetProperty("from").GetString(), found.GetProperty("lineKey").GetString()));
        await NoteAsync(
            jory,
            number,
            new
            {
                kind = "back",
                part = "insulator",
                fate = "leftOff",
                reason = "Cracked; owner brings a new one",
            }
        );
        var part = (await jory.GetAsync($"/api/trays/{number}/report")).Body.GetProperty("parts")[0];
        Assert.Equal(("leftOff", "Jory Tamblyn"), (part.GetProperty("fate").GetString(), part.GetProperty("by").GetString()));
    }

    [Fact]
    public async Task The_front_desk_reads_along_and_writes_nothing()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var desk = await shop.SignInAsync("tam");
        Assert.Equal(HttpStatusCode.OK, (await desk.GetAsync($"/api/trays/{number}/ledger")).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await NoteAsync(desk, number, new { kind = "job", job = "full" })).Status);
    }

    [Fact]
    public async Task Unknown_jobs_parts_and_kinds_are_named()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        Assert.NotEmpty((await NoteAsync(jory, number, new { kind = "job", job = "half" })).Error("note.job"));
        Assert.NotEmpty(
            (
                await NoteAsync(
                    jory,
                    number,
                    new
                    {
                        kind = "out",
                        part = "no-such",
                        verdict = "clean",
                    }
                )
            ).Error("note.label")
        );
        Assert.Equal(HttpStatusCode.BadRequest, (await NoteAsync(jory, number, new { kind = "thrown" })).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await jory.GetAsync("/api/trays/99999/ledger")).Status);
    }

    /// <summary>Records a note; the answer is the ledger as it is then, or the problem.</summary>
    internal static async Task<Answer> NoteAsync(Visitor visitor, int number, object note, Guid? id = null)
    {
        var answer = await visitor.SendNotesAsync(number, Visitor.Entry(note, id));
        return answer.Status == HttpStatusCode.OK ? await visitor.GetAsync($"/api/trays/{number}/ledger") : answer;
    }

    private static async Task<JsonElement> LedgerAsync(Visitor visitor, int number) =>
        (await visitor.GetAsync($"/api/trays/{number}/ledger")).Body;

    private static JsonElement Line(JsonElement ledger, string part) =>
        ledger.GetProperty("lines").EnumerateArray().Single(line => line.GetProperty("part").GetProperty("key").GetString() == part);

    private static async Task<int> OnHandAsync(Visitor visitor, string item) =>
        (await visitor.GetAsync($"/api/stock/items/{item}"))
            .Body.GetProperty("line")
            .GetProperty("standing")
            .GetProperty("onHand")
            .GetInt32();
}
