using System.Globalization;

namespace BlueDawn.Server.Tests.Stock;

/// <summary>What is on order: placed, taken back, booked in whole; trays that wait for it say how it stands.</summary>
public sealed class OrderTests(Shop shop)
{
    private const string Supplier = "Quay Supplies";

    [Fact]
    public async Task A_tray_goes_from_to_order_over_ordered_to_here_and_takes_it()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var jory = await place.Server.SignInAsync("jory");
        var (tray, item) = await WaitingTrayAsync(jory);
        async Task<JsonElement> TrayAsync() => (await jory.GetAsync($"/api/trays/{tray}")).Body;
        Assert.Equal("toOrder", (await TrayAsync()).GetProperty("partsStage").GetString());

        var order = await PlaceAsync(jory, item, 2, tray);
        var ordered = await TrayAsync();
        Assert.Equal("ordered", ordered.GetProperty("partsStage").GetString());
        Assert.StartsWith(
            $"{item} ordered from {Supplier}, due ",
            ordered.GetProperty("facts").GetProperty("waitNote").GetString(),
            StringComparison.Ordinal
        );
        var open = (await jory.GetAsync("/api/stock/orders"))
            .Body.GetProperty("orders")
            .EnumerateArray()
            .Single(one => one.GetProperty("order").GetProperty("id").GetGuid() == order);
        Assert.Equal([tray], open.GetProperty("trays").EnumerateArray().Select(one => one.GetInt32()));
        // Its page says the day that the tray says.
        var due = DateOnly.Parse(open.GetProperty("due").GetString()!, CultureInfo.InvariantCulture);
        Assert.EndsWith(
            due.ToString("d MMM", CultureInfo.InvariantCulture),
            ordered.GetProperty("facts").GetProperty("waitNote").GetString(),
            StringComparison.Ordinal
        );
        // The plan shows what its note says.
        Assert.Equal(HttpStatusCode.OK, (await jory.GetAsync("/api/stock/buying")).Status);

        var act = new { id = Guid.CreateVersion7() };
        Assert.Equal(HttpStatusCode.OK, (await jory.PostAsync($"/api/stock/orders/{order}/came", act)).Status);
        var here = await TrayAsync();
        Assert.Equal(
            ("here", "hands", $"{item} is here: take it"),
            (
                here.GetProperty("partsStage").GetString(),
                here.GetProperty("facts").GetProperty("waitsFor").GetString(),
                here.GetProperty("facts").GetProperty("waitNote").GetString()
            )
        );
        Assert.Equal($"Take {item} off the shelf.", here.GetProperty("next").GetProperty("do").GetProperty("text").GetString());

        await jory.DecideAsync(tray, new { kind = "partsHere" });
        var taken = await TrayAsync();
        Assert.Equal(
            ("taken", ""),
            (taken.GetProperty("partsStage").GetString(), taken.GetProperty("facts").GetProperty("waitNote").GetString())
        );
        await Shop.SumsAgreeAsync(place.Database);
    }

    [Fact]
    public async Task Nothing_is_booked_in_twice_by_a_second_press_or_by_two_people_at_once()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var (jory, marit) = (await place.Server.SignInAsync("jory"), await place.Server.SignInAsync("marit"));
        for (var round = 0; round < 6; round++)
        {
            var before = await OnHandAsync(jory, "OR-01");
            var order = await PlaceAsync(jory, "OR-01", 3);
            var act = new { id = Guid.CreateVersion7() };
            // The same press twice, and somebody else's at the same moment: pieces come once.
            var answers = await Task.WhenAll(
                jory.PostAsync($"/api/stock/orders/{order}/came", act),
                jory.PostAsync($"/api/stock/orders/{order}/came", act),
                marit.PostAsync($"/api/stock/orders/{order}/{(round % 2 == 0 ? "came" : "undo")}", new { id = Guid.CreateVersion7() })
            );
            Assert.All(answers, answer =>
                Assert.True(answer.Status is HttpStatusCode.OK or HttpStatusCode.Conflict, answer.Body.ToString())
            );
            Assert.Contains(answers, answer => answer.Status == HttpStatusCode.Conflict);
            var came = await OnHandAsync(jory, "OR-01") - before;
            Assert.True(round % 2 == 0 ? came == 3 : came is 0 or 3, $"{came} came");
            Assert.DoesNotContain((await jory.GetAsync("/api/stock/orders")).Body.GetProperty("orders").EnumerateArray(), one =>
                one.GetProperty("order").GetProperty("id").GetGuid() == order
            );
        }

        await Shop.SumsAgreeAsync(place.Database);
    }

    [Fact]
    public async Task An_order_taken_back_stands_on_its_tray_and_can_be_placed_again()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var jory = await place.Server.SignInAsync("jory");
        var (tray, item) = await WaitingTrayAsync(jory);
        var order = await PlaceAsync(jory, item, 1, tray);
        Assert.Equal(
            HttpStatusCode.OK,
            (await jory.PostAsync($"/api/stock/orders/{order}/undo", new { id = Guid.CreateVersion7() })).Status
        );
        var back = (await jory.GetAsync($"/api/trays/{tray}")).Body;
        Assert.Equal(
            ("toOrder", $"{item} to order"),
            (back.GetProperty("partsStage").GetString(), back.GetProperty("facts").GetProperty("waitNote").GetString())
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await jory.PostAsync($"/api/stock/orders/{order}/came", new { id = Guid.CreateVersion7() })).Status
        );
        await PlaceAsync(jory, item, 1, tray);
        Assert.Equal("ordered", (await jory.GetAsync($"/api/trays/{tray}")).Body.GetProperty("partsStage").GetString());
    }

    /// <summary>A piece that came bad, of an item whose last order says who it is from.</summary>
    [Fact]
    public async Task What_came_bad_is_held_against_whoever_it_was_last_received_from()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var jory = await place.Server.SignInAsync("jory");
        var (tray, item) = await WaitingTrayAsync(jory);
        var order = await PlaceAsync(jory, item, 3, tray);
        Assert.Equal(
            HttpStatusCode.OK,
            (await jory.PostAsync($"/api/stock/orders/{order}/came", new { id = Guid.CreateVersion7() })).Status
        );
        var id = Guid.CreateVersion7();
        Task<Answer> Bad(string? supplier) =>
            jory.PostAsync(
                "/api/stock/moves",
                new
                {
                    id,
                    item,
                    kind = "cameBad",
                    pieces = 1,
                    note = "its needle is too short",
                    supplier,
                }
            );
        await Bad(null);
        // Sent again it is the same one; from somebody else it is another.
        Assert.Equal(HttpStatusCode.Conflict, (await Bad("Somebody else")).Status);
        var answer = await Bad(null);
        var from = Assert.Single(answer.Body.GetProperty("bad").EnumerateArray());
        Assert.Equal(
            (Supplier, 1, 3),
            (from.GetProperty("supplier").GetString(), from.GetProperty("bad").GetInt32(), from.GetProperty("received").GetInt32())
        );
    }

    [Fact]
    public async Task What_is_booked_in_by_hand_reaches_the_tray_promised_first_and_no_further_than_the_pieces_go()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var jory = await place.Server.SignInAsync("jory");
        var (first, item) = await WaitingTrayAsync(jory);
        var (second, _) = await WaitingTrayAsync(jory);
        await jory.DecideAsync(second, new { kind = "facts", promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(1)) });
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await jory.PostAsync(
                    "/api/stock/moves",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        item,
                        kind = "received",
                        pieces = 1,
                        note = "",
                    }
                )
            ).Status
        );
        async Task<string> StageAsync(int tray) => (await jory.GetAsync($"/api/trays/{tray}")).Body.GetProperty("partsStage").GetString()!;
        Assert.Equal(("toOrder", "here"), (await StageAsync(first), await StageAsync(second)));
    }

    [Fact]
    public async Task A_kit_that_was_chosen_by_mistake_goes_back_to_the_shelf_unless_it_is_built_in()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var jory = await place.Server.SignInAsync("jory");
        var tray = await jory.NewTrayAsync("3088-A");
        var before = await OnHandAsync(jory, "OK-118");
        Assert.Contains(
            "Nothing is chosen",
            (await jory.DecideAsync(tray, new { kind = "unfit" })).Error("note.kind"),
            StringComparison.Ordinal
        );
        await jory.DecideAsync(
            tray,
            new
            {
                kind = "fitting",
                option = "kit",
                kitNumber = "OK-118",
            }
        );
        Assert.Equal(before - 1, await OnHandAsync(jory, "OK-118"));
        Assert.Equal(HttpStatusCode.OK, (await jory.DecideAsync(tray, new { kind = "unfit" })).Status);
        Assert.Equal(before, await OnHandAsync(jory, "OK-118"));
        Assert.Equal("notChosen", (await jory.GetAsync($"/api/trays/{tray}")).Body.GetProperty("partsStage").GetString());

        await jory.DecideAsync(
            tray,
            new
            {
                kind = "fitting",
                option = "kit",
                kitNumber = "OK-118",
            }
        );
        await jory.NoteAsync(tray, new { kind = "job", job = "full" });
        await jory.NoteAsync(
            tray,
            new
            {
                kind = "out",
                part = "bowl-gasket",
                verdict = "renew",
            }
        );
        await jory.NoteAsync(
            tray,
            new
            {
                kind = "back",
                part = "bowl-gasket",
                fate = "renewed",
                item = "OK-118",
            }
        );
        Assert.Contains("in already", (await jory.DecideAsync(tray, new { kind = "unfit" })).Error("note.kind"), StringComparison.Ordinal);
        Assert.Equal(before - 1, await OnHandAsync(jory, "OK-118"));
    }

    [Theory]
    [InlineData(0, 5, "lines")]
    [InlineData(2, 400, "for")]
    public async Task An_order_that_makes_no_sense_is_refused(int pieces, int days, string field)
    {
        var jory = await shop.SignInAsync("jory");
        var answer = await jory.PostAsync(
            "/api/stock/orders",
            new
            {
                id = Guid.CreateVersion7(),
                supplier = Supplier,
                lines = new Dictionary<string, int> { ["OR-01"] = pieces },
                @for = new[]
                {
                    new
                    {
                        tray = 1,
                        items = new[] { "OR-01" },
                        days,
                    },
                },
            }
        );
        Assert.NotEmpty(answer.Error(field));
    }

    /// <summary>A tray with something chosen that is not on the shelf; its number and the item.</summary>
    private static async Task<(int Tray, string Item)> WaitingTrayAsync(Visitor visitor)
    {
        var tray = await visitor.NewTrayAsync("B2-770");
        await visitor.DecideAsync(tray, new { kind = "sheet", specCode = "BT2" });
        var chosen = await visitor.DecideAsync(
            tray,
            new
            {
                kind = "fitting",
                option = "singleParts",
                renew = new[] { "tank gasket" },
            }
        );
        var fitting = (await visitor.GetAsync($"/api/trays/{tray}")).Body.GetProperty("fitting");
        Assert.Equal("parts", chosen.Body.GetProperty("facts").GetProperty("waitsFor").GetString());
        return (tray, fitting.GetProperty("items")[0].GetProperty("number").GetString()!);
    }

    private static async Task<Guid> PlaceAsync(Visitor visitor, string item, int pieces, params int[] trays)
    {
        var id = Guid.CreateVersion7();
        var answer = await visitor.PostAsync(
            "/api/stock/orders",
            new
            {
                id,
                supplier = Supplier,
                lines = new Dictionary<string, int> { [item] = pieces },
                @for = trays.Select(tray => new
                {
                    tray,
                    items = new[] { item },
                    days = 4,
                }),
            }
        );
        Assert.True(answer.Status == HttpStatusCode.OK, answer.Body.ToString());
        return id;
    }

    private static async Task<int> OnHandAsync(Visitor visitor, string item) =>
        (await visitor.GetAsync($"/api/stock/items/{item}"))
            .Body.GetProperty("line")
            .GetProperty("standing")
            .GetProperty("onHand")
            .GetInt32();
}
