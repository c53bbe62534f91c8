namespace BlueDawn.Server.Tests.OwnShop;

/// <summary>A shop changes what the bench knows: it sees what that does, accepts it, goes back.</summary>
public sealed class KnowledgeTests(EmptyShop shop) : IClassFixture<EmptyShop>
{
    private const string Recipes = "cleaning/recipes.csv",
        Causes = "faults/causes.csv";

    [Fact]
    public async Task What_a_change_does_is_seen_first_and_counts_only_once_accepted_and_is_taken_back()
    {
        var lead = await shop.LeadAsync();
        var tray = await lead.NewTrayAsync("");
        await lead.NoteAsync(
            tray,
            new
            {
                kind = "findings",
                checkId = "owner-story",
                answers = new[] { new { findingId = "dies-after-minutes", said = "present" } },
                fromOwner = true,
            }
        );
        var before = await NextAsync(lead, tray);
        // Here it is always the vent: nothing is looked at before it is cleared.
        var cells = await CellsAsync(lead, Causes, "tank-vent-blocked", ("prior_weight", "500"));
        var wish = new
        {
            act = "write",
            table = Causes,
            key = "tank-vent-blocked",
            cells,
        };
        var looked = (await lead.PostAsync("/api/shop/knowledge/look", wish)).Body;
        Assert.Empty(looked.GetProperty("problems").EnumerateArray());
        Assert.Equal("tank-vent-blocked", looked.GetProperty("rows")[0].GetProperty("key").GetString());
        var led = looked.GetProperty("trays").EnumerateArray().Single(one => one.GetProperty("number").GetInt32() == tray);
        Assert.Equal(before, led.GetProperty("before").GetProperty("do").GetProperty("text").GetString());
        Assert.Equal(before, await NextAsync(lead, tray));

        Assert.Contains("Say why", (await AcceptAsync(lead, wish, " ")).Error("why"), StringComparison.Ordinal);
        var view = (await AcceptAsync(lead, wish, "our caps always clog")).Body;
        var number = view.GetProperty("version").GetInt32();
        Assert.Equal("our caps always clog", view.GetProperty("versions")[0].GetProperty("why").GetString());
        Assert.Equal(led.GetProperty("after").GetProperty("do").GetProperty("text").GetString(), await NextAsync(lead, tray));
        Assert.Equal("changed", (await RowAsync(lead, Causes, "tank-vent-blocked")).GetProperty("standing").GetString());
        // The bench says the same as the tray; the browser's papers carry the change.
        var listed = (await lead.GetAsync("/api/bench"))
            .Body.GetProperty("trays")
            .EnumerateArray()
            .Single(one => one.GetProperty("number").GetInt32() == tray);
        Assert.Equal(await NextAsync(lead, tray), listed.GetProperty("do").GetProperty("text").GetString());
        Assert.Contains((await lead.GetAsync($"/api/trays/{tray}/snapshot")).Body.GetProperty("tables").EnumerateArray(), one =>
            one.GetProperty("key").GetString() == "tank-vent-blocked"
        );

        Assert.Equal(HttpStatusCode.OK, (await AcceptAsync(lead, new { act = "goBack", version = 0 }, "tried it")).Status);
        Assert.Equal(before, await NextAsync(lead, tray));
        Assert.Equal(HttpStatusCode.OK, (await AcceptAsync(lead, new { act = "goBack", version = number }, "it was right")).Status);
        Assert.Equal("changed", (await RowAsync(lead, Causes, "tank-vent-blocked")).GetProperty("standing").GetString());
        Assert.Equal(HttpStatusCode.NotFound, (await AcceptAsync(lead, new { act = "goBack", version = 999 }, "a slip")).Status);
    }

    [Fact]
    public async Task What_has_been_handed_back_stays_judged_by_what_was_known_then()
    {
        var lead = await shop.LeadAsync();
        var (gone, here) = (await lead.NewTrayAsync(""), await lead.NewTrayAsync(""));
        await Shop.ExecuteAsync(shop.Database, $"update trays set waits_for = 'HandedBack', released = true where number = {gone}");
        var was = await MinutesAsync(lead, here);
        var cells = await CellsAsync(lead, Recipes, "soap", ("minutes", "47"));
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await AcceptAsync(
                    lead,
                    new
                    {
                        act = "write",
                        table = Recipes,
                        key = "soap",
                        cells,
                    },
                    "measured here"
                )
            ).Status
        );
        Assert.Equal((was, 47.0), (await MinutesAsync(lead, gone), await MinutesAsync(lead, here)));
    }

    [Fact]
    public async Task What_does_not_hold_together_or_orphans_a_tray_is_refused_whole()
    {
        var lead = await shop.LeadAsync();
        var tray = await lead.NewTrayAsync("");
        Assert.Equal(HttpStatusCode.OK, (await lead.NoteAsync(tray, new { kind = "job", job = "bowl" })).Status);
        var version = (await lead.GetAsync("/api/shop/knowledge")).Body.GetProperty("version").GetInt32();
        var jobs = new
        {
            act = "takeOut",
            table = "strip/jobs.csv",
            key = "F bowl",
        };
        Assert.Contains(
            $"“bowl” stands in the logbook of",
            (await AcceptAsync(lead, jobs, "never done here")).Error("key"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "speaks of nothing-such",
            (
                await AcceptAsync(
                    lead,
                    new
                    {
                        act = "write",
                        table = Causes,
                        key = "fuel-stale",
                        cells = await CellsAsync(lead, Causes, "fuel-stale", ("parts", "nothing-such")),
                    },
                    "a slip"
                )
            ).Error("parts"),
            StringComparison.Ordinal
        );
        var problems = (await FileAsync(lead, Causes, "no;table\n1;2")).Body.GetProperty("problems");
        Assert.Contains("The heading lacks", problems[0].GetProperty("what").GetString(), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await lead.PostAsync(
                    "/api/shop/knowledge/look",
                    new
                    {
                        act = "takeOut",
                        table = "faults/cautions.csv",
                        key = "lead-off",
                    }
                )
            ).Status
        );
        Assert.Equal(version, (await lead.GetAsync("/api/shop/knowledge")).Body.GetProperty("version").GetInt32());
    }

    [Fact]
    public async Task Of_two_leads_at_once_one_is_told_to_look_again()
    {
        var (one, other) = (await shop.LeadAsync(), await shop.LeadAsync());
        var version = (await one.GetAsync("/api/shop/knowledge")).Body.GetProperty("version").GetInt32();
        async Task<Answer> WriteAsync(Visitor lead, string minutes) =>
            await lead.PostAsync(
                "/api/shop/knowledge/accept",
                new
                {
                    act = "write",
                    was = version,
                    table = Recipes,
                    key = "alcohol",
                    cells = await CellsAsync(lead, Recipes, "alcohol", ("minutes", minutes)),
                    why = "measured",
                }
            );
        var answers = await Task.WhenAll(WriteAsync(one, "6"), WriteAsync(other, "7"));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], answers.Select(answer => answer.Status).Order());
        Assert.Equal(version + 1, (await one.GetAsync("/api/shop/knowledge")).Body.GetProperty("version").GetInt32());
        // Whoever is no lead reads, and changes nothing.
        var (hand, _, _) = await shop.AddAsync("technician");
        Assert.Equal(HttpStatusCode.OK, (await hand.GetAsync("/api/shop/knowledge")).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await WriteAsync(hand, "8")).Status);
    }

    [Fact]
    public async Task Every_table_comes_back_from_its_own_file_as_it_went()
    {
        var lead = await shop.LeadAsync();
        foreach (
            var table in (await lead.GetAsync("/api/shop/knowledge"))
                .Body.GetProperty("tables")
                .EnumerateArray()
                .Select(one => one.GetProperty("name").GetString()!)
        )
        {
            var file = await lead.Http.GetStringAsync(
                new Uri($"/api/shop/knowledge/table.csv?name={table}", UriKind.Relative),
                TestContext.Current.CancellationToken
            );
            var looked = (await FileAsync(lead, table, file)).Body;
            Assert.Empty(looked.GetProperty("problems").EnumerateArray());
            Assert.Empty(looked.GetProperty("rows").EnumerateArray());
        }

        // One with a change in it, as a spreadsheet of another country saves it.
        var passages = await lead.Http.GetStringAsync(
            new Uri("/api/shop/knowledge/table.csv?name=build/settings.csv", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        var changed = passages.Replace("F,main-needle,1.5", "F,main-needle,1.75", StringComparison.Ordinal);
        Assert.NotEqual(passages, changed);
        var was = (await lead.GetAsync("/api/shop/knowledge")).Body.GetProperty("version").GetInt32();
        var view = (await FileAsync(lead, "build/settings.csv", "\uFEFF" + changed, was, "as we set them")).Body;
        Assert.Equal("Starting settings from a file: F main-needle", view.GetProperty("versions")[0].GetProperty("what").GetString());
        Assert.Equal(HttpStatusCode.Conflict, (await FileAsync(lead, "build/settings.csv", passages, was, "once more")).Status);
    }

    [Fact]
    public async Task Changes_that_do_not_fit_a_newer_version_are_set_aside_and_said()
    {
        await using var older = new EmptyShop();
        await older.InitializeAsync();
        var lead = await older.LeadAsync();
        await Shop.ExecuteAsync(
            older.Database,
            """
            insert into knowledge_versions (number, at, by, what, why, changes) values (1, now(), 'Somebody', 'Links', 'long ago',
            '[{"table": "faults/cause-findings.csv", "key": "fuel-stale once-there",
              "row": ["fuel-stale", "once-there", "usually", "ours"], "shipped": null}]');
            update shop set knowledge_version = 1
            """
        );
        var view = (await lead.GetAsync("/api/shop/knowledge")).Body;
        Assert.Equal(
            (1, "finding"),
            (view.GetProperty("version").GetInt32(), view.GetProperty("problems")[0].GetProperty("column").GetString())
        );
        // Everything goes on as it ships.
        Assert.Equal(HttpStatusCode.OK, (await lead.GetAsync($"/api/trays/{await lead.NewTrayAsync("")}/trace")).Status);
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await AcceptAsync(
                    lead,
                    new
                    {
                        act = "write",
                        table = Recipes,
                        key = "soap",
                        cells = await CellsAsync(lead, Recipes, "soap", ("minutes", "12")),
                    },
                    "anew"
                )
            ).Status
        );
        Assert.Empty((await lead.GetAsync("/api/shop/knowledge")).Body.GetProperty("problems").EnumerateArray());
    }

    private static async Task<string> NextAsync(Visitor visitor, int tray) =>
        (await visitor.GetAsync($"/api/trays/{tray}")).Body.GetProperty("next").GetProperty("do").GetProperty("text").GetString()!;

    private static async Task<double> MinutesAsync(Visitor visitor, int tray) =>
        (await visitor.GetAsync($"/api/trays/{tray}/cleaning"))
            .Body.GetProperty("plan")
            .GetProperty("offers")
            .EnumerateArray()
            .Select(offer => offer.GetProperty("recipe"))
            .Single(recipe => recipe.GetProperty("key").GetString() == "soap")
            .GetProperty("minutes")
            .GetDouble();

    private static async Task<JsonElement> RowAsync(Visitor visitor, string table, string key) =>
        (await visitor.GetAsync($"/api/shop/knowledge/table?name={table}"))
            .Body.GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.GetProperty("key").GetString() == key);

    private static async Task<string[]> CellsAsync(Visitor visitor, string table, string key, params (string Column, string Cell)[] changes)
    {
        var columns = (await visitor.GetAsync($"/api/shop/knowledge/table?name={table}"))
            .Body.GetProperty("columns")
            .EnumerateArray()
            .Select(column => column.GetString()!)
            .ToList();
        var cells = (await RowAsync(visitor, table, key)).GetProperty("cells").EnumerateArray().Select(cell => cell.GetString()!).ToArray();
        foreach (var (column, cell) in changes)
        {
            cells[columns.IndexOf(column)] = cell;
        }

        return cells;
    }

    private static Task<Answer> FileAsync(Visitor lead, string table, string file, int? was = null, string why = "")
    {
        var path = $"/api/shop/knowledge/table.csv?name={table}" + (was is null ? "" : $"&was={was}&why={Uri.EscapeDataString(why)}");
        return lead.SendAsync(
            new HttpRequestMessage(was is null ? HttpMethod.Post : HttpMethod.Put, path)
            {
                Content = new StringContent(file, System.Text.Encoding.UTF8, "text/csv"),
            }
        );
    }

    private static async Task<Answer> AcceptAsync(Visitor lead, object wish, string why)
    {
        var body = JsonSerializer.SerializeToNode(wish)!.AsObject();
        body["was"] = (await lead.GetAsync("/api/shop/knowledge")).Body.GetProperty("version").GetInt32();
        body["why"] = why;
        return await lead.PostAsync("/api/shop/knowledge/accept", body);
    }
}
