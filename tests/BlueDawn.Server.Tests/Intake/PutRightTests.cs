namespace BlueDawn.Server.Tests.Intake;

/// <summary>Everything that is typed at check-in can be put right, and one boat is one owner however it is written.</summary>
public sealed class PutRightTests(Shop shop)
{
    private static string Mark() => Guid.NewGuid().ToString("N")[..8];

    private static async Task<List<JsonElement>> OwnersAsync(Visitor visitor, string text) =>
        [.. (await visitor.GetAsync($"/api/owners/all?text={Uri.EscapeDataString(text)}")).Body.GetProperty("owners").EnumerateArray()];

    [Fact]
    public async Task The_wrong_machine_and_owner_are_put_right_and_the_slip_leaves_nothing_behind()
    {
        var jory = await shop.SignInAsync("jory");
        var (wrong, right) = ($"Boat Wrongly {Mark()}", $"Boat Rightly {Mark()}");
        var tray = await jory.NewTrayOfAsync(wrong, "Bow winch");
        var version = (await jory.GetAsync($"/api/trays/{tray}")).Body.Version();
        var answer = await jory.PutAsync(
            $"/api/trays/{tray}/whose",
            new
            {
                ownerName = right,
                ownerContact = "0550 117",
                machineName = "Stern winch",
                version,
            }
        );
        var facts = answer.Body.GetProperty("facts");
        Assert.Equal(
            (right, "0550 117", "Stern winch"),
            (
                facts.GetProperty("ownerName").GetString(),
                facts.GetProperty("ownerContact").GetString(),
                facts.GetProperty("machineName").GetString()
            )
        );
        Assert.Contains(
            $"Owner {wrong} → {right}; How to reach them: 0550 117; Machine Bow winch → Stern winch",
            Assert.Single(answer.Body.Log("putRight")).GetProperty("what").GetProperty("text").GetString(),
            StringComparison.Ordinal
        );
        Assert.Empty(await OwnersAsync(jory, wrong));
        // What was seen before somebody else changed it is not written over.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await jory.PutAsync(
                    $"/api/trays/{tray}/whose",
                    new
                    {
                        ownerName = wrong,
                        ownerContact = "",
                        machineName = "Bow winch",
                        version,
                    }
                )
            ).Status
        );
        version = answer.Body.Version();
        Assert.NotEmpty(
            (
                await jory.PutAsync(
                    $"/api/trays/{tray}/whose",
                    new
                    {
                        ownerName = " ",
                        ownerContact = "",
                        machineName = "Bow winch",
                        version,
                    }
                )
            ).Error("ownerName")
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await jory.PutAsync(
                    "/api/trays/999999/whose",
                    new
                    {
                        ownerName = right,
                        ownerContact = "",
                        machineName = "Bow winch",
                        version,
                    }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_machine_that_another_tray_came_off_stays_when_one_tray_is_put_right()
    {
        var jory = await shop.SignInAsync("jory");
        var owner = $"Boat Two {Mark()}";
        var (first, second) = (await jory.NewTrayOfAsync(owner, "Pump"), await jory.NewTrayOfAsync(owner, "Pump"));
        var version = (await jory.GetAsync($"/api/trays/{second}")).Body.Version();
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await jory.PutAsync(
                    $"/api/trays/{second}/whose",
                    new
                    {
                        ownerName = owner,
                        ownerContact = "",
                        machineName = "Winch",
                        version,
                    }
                )
            ).Status
        );
        Assert.Equal("Pump", (await jory.GetAsync($"/api/trays/{first}")).Body.GetProperty("facts").GetProperty("machineName").GetString());
    }

    [Fact]
    public async Task Capitals_spaces_and_signs_make_no_other_owner_and_no_other_machine()
    {
        var jory = await shop.SignInAsync("jory");
        var mark = Mark();
        var first = await jory.NewTrayOfAsync($"Boat Kittiwake-{mark}", "Bow winch");
        var second = await jory.NewTrayOfAsync($"boat  kittiwake {mark}", "BOW-WINCH");
        var owners = await OwnersAsync(jory, mark);
        Assert.Equal(
            [second, first],
            Assert.Single(owners).GetProperty("trays").EnumerateArray().Select(tray => tray.GetProperty("number").GetInt32())
        );
        var known = (await jory.GetAsync("/api/owners"))
            .Body.EnumerateArray()
            .Single(owner => owner.GetProperty("name").GetString()!.Contains(mark, StringComparison.Ordinal));
        Assert.Equal(
            ("Bow winch", second),
            known
                .GetProperty("machines")
                .EnumerateArray()
                .Select(machine => (machine.GetProperty("name").GetString(), machine.GetProperty("tray").GetInt32()))
                .Single()
        );
        async Task<JsonElement> AlikeAsync(string owner, string machine) =>
            (await jory.GetAsync($"/api/owners/alike?owner={Uri.EscapeDataString(owner)}&machine={Uri.EscapeDataString(machine)}")).Body;
        var almost = await AlikeAsync($"Kittiwake {mark}", "");
        Assert.Equal(
            (JsonValueKind.Null, $"Boat Kittiwake-{mark}"),
            (almost.GetProperty("owner").ValueKind, almost.GetProperty("likeOwner").GetProperty("name").GetString())
        );
        Assert.Equal(
            second,
            (await AlikeAsync($"boat kittiwake {mark}", "Bow winchs")).GetProperty("likeMachine").GetProperty("tray").GetInt32()
        );
        Assert.Equal(JsonValueKind.Null, (await AlikeAsync($"boat kittiwake {mark}", "bow winch")).GetProperty("likeMachine").ValueKind);
        Assert.Equal(
            [second, first],
            (await jory.GetAsync($"/api/earlier?owner={Uri.EscapeDataString($"BOAT KITTIWAKE {mark}")}&machine=bowwinch"))
                .Body.EnumerateArray()
                .Select(tray => tray.GetProperty("number").GetInt32())
        );
    }

    [Fact]
    public async Task Two_machines_that_are_one_are_made_one_by_a_lead_and_it_is_written_down()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var name = $"Boat Twice {Mark()}";
        var (first, second) = (await jory.NewTrayOfAsync(name, "Winch forward"), await jory.NewTrayOfAsync(name, "Forward winch"));
        var id = Assert.Single(await OwnersAsync(jory, name)).GetProperty("id").GetGuid();
        var pair = new { from = "Winch forward", into = "Forward winch" };
        Assert.Equal(HttpStatusCode.Forbidden, (await jory.PostAsync($"/api/owners/{id}/machines", pair)).Status);
        Assert.NotEmpty(
            (await ilse.PostAsync($"/api/owners/{id}/machines", new { from = "Winch forward", into = "Nothing of theirs" })).Error("into")
        );
        Assert.Equal(HttpStatusCode.OK, (await ilse.PostAsync($"/api/owners/{id}/machines", pair)).Status);
        foreach (var tray in new[] { first, second })
        {
            Assert.Equal(
                "Forward winch",
                (await jory.GetAsync($"/api/trays/{tray}")).Body.GetProperty("facts").GetProperty("machineName").GetString()
            );
        }

        Assert.Equal(
            1L,
            await Shop.ExecuteAsync(
                shop.Database,
                $"select count(*) from shop_changes where what like 'Winch forward and Forward winch of {name}%'"
            )
        );
    }

    [Fact]
    public async Task What_was_told_is_put_right_and_what_makes_no_sense_is_refused()
    {
        var jory = await shop.SignInAsync("jory");
        var tray = await jory.NewTrayAsync();
        var version = (await jory.GetAsync($"/api/trays/{tray}")).Body.Version();
        object Told(double? hours, int at) =>
            new
            {
                version = at,
                whose = "toSell",
                failsAfterMin = 12.5,
                fuelKind = "withAlcohol",
                tankThenML = 3000,
                tankNowML = 1000,
                oilThen = "atMark",
                ageYears = 9,
                hours,
            };
        var story = (await jory.PutAsync($"/api/trays/{tray}/story", Told(400, version))).Body.GetProperty("story");
        Assert.Equal(
            ("toSell", 12.5, 400.0),
            (story.GetProperty("whose").GetString(), story.GetProperty("failsAfterMin").GetDouble(), story.GetProperty("hours").GetDouble())
        );
        Assert.Equal(HttpStatusCode.Conflict, (await jory.PutAsync($"/api/trays/{tray}/story", Told(401, version))).Status);
        version = (await jory.GetAsync($"/api/trays/{tray}")).Body.Version();
        Assert.NotEmpty((await jory.PutAsync($"/api/trays/{tray}/story", Told(-3, version))).Error("story.hours"));

        // Two at once: one of them is told that the other was first.
        var ilse = await shop.SignInAsync("ilse");
        var both = await Task.WhenAll(
            jory.PutAsync($"/api/trays/{tray}/story", Told(500, version)),
            ilse.PutAsync($"/api/trays/{tray}/story", Told(600, version))
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(one => one.Status).Order());
        Assert.Equal(
            both[0].Status == HttpStatusCode.OK ? 500 : 600,
            (await jory.GetAsync($"/api/trays/{tray}")).Body.GetProperty("story").GetProperty("hours").GetDouble()
        );
    }

    /// <summary>What went back to its owner went as it was: whoever puts something right brings it back first.</summary>
    [Fact]
    public async Task A_tray_that_was_handed_back_takes_no_story_owner_or_basket_before_it_is_brought_back()
    {
        var ilse = await shop.SignInAsync("ilse");
        var tray = await ilse.NewTrayAsync();
        var released = await ilse.DecideAsync(
            tray,
            new { kind = "release", reason = "The owner takes it as it is" },
            new { userName = "ilse", password = "sandrigg-quay" }
        );
        Assert.Equal(HttpStatusCode.OK, released.Status);
        var before = released.Body;
        var version = before.Version();
        Task<Answer> Story(int at) =>
            ilse.PutAsync(
                $"/api/trays/{tray}/story",
                new
                {
                    version = at,
                    whose = "toSell",
                    failsAfterMin = (double?)null,
                    fuelKind = "withAlcohol",
                    tankThenML = (double?)null,
                    tankNowML = (double?)null,
                    oilThen = "atMark",
                    ageYears = 9,
                    hours = (double?)null,
                }
            );
        Task<Answer> Whose(int at) =>
            ilse.PutAsync(
                $"/api/trays/{tray}/whose",
                new
                {
                    ownerName = $"Boat Later {Mark()}",
                    ownerContact = "",
                    machineName = "Stern winch",
                    version = at,
                }
            );
        Assert.Equal(HttpStatusCode.Conflict, (await Story(version)).Status);
        Assert.Equal(HttpStatusCode.Conflict, (await Whose(version)).Status);
        var basket = await ilse.PostAsync(
            "/api/baths/heated/events",
            new
            {
                id = Guid.CreateVersion7(),
                kind = "placed",
                trayNumber = tray,
            }
        );
        Assert.Contains("has been handed back", basket.Error("trayNumber"), StringComparison.Ordinal);
        var after = (await ilse.GetAsync($"/api/trays/{tray}")).Body;
        Assert.Equal(before.GetProperty("revision").GetInt32(), after.GetProperty("revision").GetInt32());
        Assert.Equal(before.GetProperty("facts").ToString(), after.GetProperty("facts").ToString());

        var back = await ilse.DecideAsync(tray, new { kind = "facts", waitsFor = "hands" });
        Assert.Equal(HttpStatusCode.OK, (await Story(back.Body.Version())).Status);
    }

    [Fact]
    public async Task A_tray_is_found_by_the_plate_of_its_engine_however_it_is_written()
    {
        var jory = await shop.SignInAsync("jory");
        var tray = await jory.NewTrayAsync();
        var mark = Mark();
        await jory.NoteAsync(
            tray,
            new
            {
                kind = "marks",
                dateCode = "",
                plate = $"Q7 {mark[..4]}/{mark[4..]}",
            }
        );
        Assert.Equal(
            [tray],
            (await jory.GetAsync($"/api/find?text=q7{mark}"))
                .Body.GetProperty("trays")
                .EnumerateArray()
                .Select(found => found.GetProperty("number").GetInt32())
        );
    }

    [Fact]
    public async Task What_is_there_is_found_while_somebody_puts_right_whose_it_is()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var tray = await jory.NewTrayAsync();
        for (var i = 0; i < 12; i++)
        {
            var version = (await ilse.GetAsync($"/api/trays/{tray}")).Body.Version();
            // The machine and the owner that it leaves have nothing else, and go.
            var whose = ilse.PutAsync(
                $"/api/trays/{tray}/whose",
                new
                {
                    ownerName = $"Boat {i} {Mark()}",
                    ownerContact = "",
                    machineName = $"Winch {i}",
                    version,
                }
            );
            var readings = Enumerable
                .Range(0, 5)
                .Select(_ => jory.RecordAsync(tray, "gauging/main-jet", new { go = "0.71", noGo = "0.73" }))
                .ToList();
            Assert.All(await Task.WhenAll(readings), answer => Assert.Equal(HttpStatusCode.OK, answer.Status));
            Assert.Equal(HttpStatusCode.OK, (await whose).Status);
        }
    }

    [Fact]
    public async Task Two_counters_that_check_the_same_new_owner_in_at_once_make_one()
    {
        var (jory, tam) = (await shop.SignInAsync("jory"), await shop.SignInAsync("tam"));
        for (var i = 0; i < 8; i++)
        {
            var name = $"Boat Together {Mark()}";
            await Task.WhenAll(jory.NewTrayOfAsync(name, "Bow winch"), tam.NewTrayOfAsync(name.ToUpperInvariant(), "bow winch"));
            var owner = Assert.Single(await OwnersAsync(jory, name));
            Assert.Equal((1, 2), (owner.GetProperty("machines").GetArrayLength(), owner.GetProperty("trays").GetArrayLength()));
        }
    }
}
