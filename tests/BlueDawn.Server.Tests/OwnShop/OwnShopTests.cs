using System.Reflection;
using System.Text.Json.Serialization;
using BlueDawn.Server.People;
using BlueDawn.Server.Tests.Cleaning;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;

namespace BlueDawn.Server.Tests.OwnShop;

/// <summary>A shop of its own: its first start, its people and their passwords, and every race that could leave it without a
/// lead.</summary>
public sealed class OwnShopTests(EmptyShop shop) : IClassFixture<EmptyShop>
{
    [Fact]
    public async Task Suppliers_and_open_days_are_changed_whole_and_of_two_at_once_one_is_told()
    {
        var (one, other) = (await shop.LeadAsync(), await shop.LeadAsync());
        var was = (await one.GetAsync("/api/shop")).Body;
        object Suppliers(string freight) =>
            new { suppliers = new[] { new { name = "Ferry post", freight } }, was = was.GetProperty("suppliers") };
        var answers = await Task.WhenAll(
            one.PutAsync("/api/shop/suppliers", Suppliers("6,50")),
            other.PutAsync("/api/shop/suppliers", Suppliers("7"))
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], answers.Select(answer => answer.Status).Order());
        var now = (await one.GetAsync("/api/shop")).Body.GetProperty("suppliers");
        Assert.Equal("Ferry post", now[0].GetProperty("name").GetString());
        Assert.Equal(
            HttpStatusCode.OK,
            (await one.PutAsync("/api/shop/suppliers", new { suppliers = Array.Empty<object>(), was = now })).Status
        );
        var open = await one.PutAsync(
            "/api/shop/open",
            new { open = new { week = "Mon-Sat 8-17", shut = "1 May" }, was = was.GetProperty("open") }
        );
        Assert.Equal("Mon-Sat 8:00-17:00", open.Body.GetProperty("open").GetProperty("week").GetString());
        Assert.All(open.Body.GetProperty("shutDays").EnumerateArray(), day =>
            Assert.True(
                day.GetProperty("why").GetString() == "Sunday"
                    || day.GetProperty("day").GetString()!.EndsWith("-05-01", StringComparison.Ordinal)
            )
        );
        var promised = (await one.GetAsync("/api/bench")).Body.GetProperty("promisedDay").GetString()!;
        Assert.NotEqual(DayOfWeek.Sunday, DateOnly.Parse(promised, System.Globalization.CultureInfo.InvariantCulture).DayOfWeek);
        var (hand, _, _) = await shop.AddAsync("technician");
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await hand.PutAsync("/api/shop/open", new { open = new { week = "", shut = "" }, was = open.Body.GetProperty("open") })).Status
        );
        await one.PutAsync("/api/shop/open", new { open = was.GetProperty("open"), was = open.Body.GetProperty("open") });
    }

    [Fact]
    public async Task The_shops_pins_are_anybodys_who_has_none_and_what_was_cut_by_the_shops_school_stays_in_the_book()
    {
        await using var own = new EmptyShop();
        await own.InitializeAsync();
        var lead = await own.LeadAsync();
        var none = Array.Empty<object>();
        var wrong = await lead.PutAsync(
            "/api/shop/pin-sets",
            new { sets = new[] { new { name = "bench 1", pins = "#61-0.3" } }, was = none }
        );
        Assert.NotEmpty(wrong.Error("sets[0].pins"));
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await lead.PutAsync(
                    "/api/shop/pin-sets",
                    new { sets = new[] { new { name = " bench 1", pins = "0.315-0.33 by 0.005" } }, was = none }
                )
            ).Status
        );
        Assert.Equal(HttpStatusCode.Conflict, (await lead.PutAsync("/api/shop/pin-sets", new { sets = none, was = none })).Status);
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await lead.PutAsync(
                    "/api/shop/rules/jetSchool",
                    new
                    {
                        typed = "one step up",
                        units = "metric",
                        was = 0,
                        why = "they hunt",
                    }
                )
            ).Status
        );

        var (hand, _, _) = await own.AddAsync("technician");
        Assert.Equal(HttpStatusCode.Forbidden, (await hand.PutAsync("/api/shop/pin-sets", new { sets = none, was = none })).Status);
        object Sheet(string screws) =>
            new
            {
                typed = new
                {
                    units = "metric",
                    code = "CUT",
                    maker = "unknown",
                    family = "floatBowl",
                    engine = (string?)null,
                    choke = (string?)null,
                    stamped = "CUT",
                    source = "measured here",
                    leverDatum = "gaugeLeg",
                    numbers = new { },
                    jets = new[]
                    {
                        new
                        {
                            key = (string?)null,
                            label = "Idle jet",
                            bore = "0.33",
                            tolerance = "",
                        },
                    },
                    rows = none,
                    screws,
                },
                from = (object?)null,
                needs = (string?)null,
                basedOn = 0,
                why = "",
            };
        Assert.Contains(
            "is no part of such a carburetor",
            (await hand.PutAsync("/api/sheets/CUT/typed", Sheet("sail: 2 turns"))).Error("screws"),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.OK, (await hand.PutAsync("/api/sheets/CUT/typed", Sheet("idle needle: 1 1/4 turns"))).Status);
        var tray = await hand.NewTrayAsync("CUT");
        async Task<Answer> ReadAsync(string line, object values, Guid? supersedes = null) =>
            await hand.PostAsync(
                $"/api/trays/{tray}/notes",
                new
                {
                    entries = new[]
                    {
                        new
                        {
                            id = Guid.CreateVersion7(),
                            takenAt = DateTimeOffset.UtcNow,
                            supersedes,
                            note = new
                            {
                                kind = "reading",
                                line,
                                typed = new
                                {
                                    units = "metric",
                                    values,
                                    rows = none,
                                },
                            },
                        },
                    },
                }
            );
        // The pins named are the shop's: between 0.30 and 0.34 the next one is 0.315.
        var draft = await hand.PostAsync(
            $"/api/trays/{tray}/draft",
            new
            {
                lineKey = "gauging/idle-jet",
                typed = new
                {
                    units = "metric",
                    values = new { go = "0.30", noGo = "0.34" },
                    rows = none,
                },
            }
        );
        Assert.Contains("0.315 mm goes", draft.Body.GetProperty("judgement").GetProperty("answers").ToString(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await ReadAsync("gauging/idle-jet", new { go = "0.32", noGo = "0.34" })).Status);
        Assert.Equal(HttpStatusCode.OK, (await ReadAsync("gauging/idle-jet/step-up", new { drill = "#80", law = "lookedUp" })).Status);
        var cut = (await hand.GetAsync($"/api/trays/{tray}"))
            .Body.GetProperty("lines")
            .EnumerateArray()
            .Single(line => line.GetProperty("key").GetString() == "gauging/idle-jet/step-up")
            .GetProperty("standing")
            .GetProperty("entryId")
            .GetGuid();
        Assert.Equal(HttpStatusCode.Conflict, (await ReadAsync("gauging/idle-jet/step-up", new { jet = "new" }, cut)).Status);
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await lead.PutAsync(
                    "/api/shop/rules/jetSchool",
                    new
                    {
                        typed = "clear only",
                        units = "metric",
                        was = 1,
                        why = "enough",
                    }
                )
            ).Status
        );
        var report = (await lead.GetAsync($"/api/trays/{tray}/report")).Body.ToString();
        Assert.Contains("opened one drill size on purpose", report, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Of_two_first_starts_at_once_one_makes_the_lead()
    {
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], shop.Starts.Select(answer => answer.Status).Order());
        var session = (await shop.Visit().GetAsync("/api/session")).Body;
        Assert.False(session.GetProperty("toSetUp").GetBoolean());
        Assert.Equal(("Lee Shore", 0), (session.GetProperty("shopName").GetString(), session.GetProperty("demoAccounts").GetArrayLength()));
        // Nobody's names stand on its sign-in page; its clock and its money are its own.
        var lead = await shop.LeadAsync();
        Assert.Equal(
            DateOnly.FromDateTime(DateTime.UtcNow.AddHours(14)).ToString("yyyy-MM-dd"),
            (await lead.GetAsync("/api/bench")).Body.GetProperty("today").GetString()
        );
        Assert.Equal("NOK", (await lead.GetAsync("/api/stock/buying")).Body.GetProperty("currency").GetString());
        Assert.Equal(HttpStatusCode.Conflict, (await lead.PostAsync("/api/session/first", EmptyShop.First("eve"))).Status);
    }

    [Fact]
    public async Task Two_leads_who_step_down_at_once_leave_one()
    {
        // A shop of its own: a third lead, left there by another test, would let both step down.
        await using var two = new EmptyShop();
        await two.InitializeAsync();
        var (other, id, _) = await two.AddAsync("lead");
        var first = await two.LeadAsync();
        var firstId = (await first.GetAsync("/api/session")).Body.GetProperty("person").GetProperty("id").GetGuid();
        object StepDown() =>
            new
            {
                displayName = "Stepped down",
                initials = "SD",
                role = "technician",
                lockedOut = false,
            };
        var answers = await Task.WhenAll(
            first.PutAsync($"/api/people/{firstId}", StepDown()),
            other.PutAsync($"/api/people/{id}", StepDown())
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.BadRequest], answers.Select(answer => answer.Status).Order());
        Assert.Contains(
            "last lead",
            answers.Single(answer => answer.Status == HttpStatusCode.BadRequest).Error("role"),
            StringComparison.Ordinal
        );
        // Whoever is left may not lock themselves out either.
        var left = answers[0].Status == HttpStatusCode.OK ? (Lead: other, Id: id) : (Lead: first, Id: firstId);
        Assert.Contains(
            "last lead",
            (
                await left.Lead.PutAsync(
                    $"/api/people/{left.Id}",
                    new
                    {
                        displayName = "X",
                        initials = "X",
                        role = "lead",
                        lockedOut = true,
                    }
                )
            ).Error("lockedOut"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_code_counts_once_also_when_it_is_used_twice_at_once()
    {
        var (lead, id) = (await shop.LeadAsync(), Guid.CreateVersion7());
        var code = (
            await lead.PostAsync(
                "/api/people",
                new
                {
                    id,
                    userName = "twice",
                    displayName = "Twice",
                    initials = "TW",
                    role = "technician",
                }
            )
        ).Body.GetProperty("code").GetString();
        var visitors = Enumerable.Range(0, 4).Select(_ => shop.Visit()).ToList();
        await Task.WhenAll(visitors.Select(visitor => visitor.RefreshAsync()));
        var answers = await Task.WhenAll(
            visitors.Select(
                (visitor, i) =>
                    visitor.PostAsync(
                        "/api/session/code",
                        new
                        {
                            userName = "twice",
                            code,
                            password = $"the wind of day {i} is fair",
                        }
                    )
            )
        );
        Assert.Single(answers, answer => answer.Status == HttpStatusCode.OK);
        Assert.Equal(3, answers.Count(answer => answer.Status == HttpStatusCode.Unauthorized));
        // A code that is a day old does not count, nor does a name that nobody has.
        await lead.PostAsync($"/api/people/{id}/code", new { });
        await Shop.ExecuteAsync(shop.Database, "update people set code_until = now() - interval '1 minute' where user_name = 'twice'");
        Assert.Equal(
            "Name and code do not go together.",
            (
                await visitors[0]
                    .PostAsync(
                        "/api/session/code",
                        new
                        {
                            userName = "twice",
                            code,
                            password = EmptyShop.Password,
                        }
                    )
            ).Title
        );
        Assert.Equal(
            "Name and code do not go together.",
            (
                await visitors[0]
                    .PostAsync(
                        "/api/session/code",
                        new
                        {
                            userName = "nobody",
                            code,
                            password = EmptyShop.Password,
                        }
                    )
            ).Title
        );
    }

    [Fact]
    public async Task A_new_code_ends_the_old_password_and_whoever_uses_one_ends_who_was_signed_in_there()
    {
        var (person, id, userName) = await shop.AddAsync("technician");
        var (other, _, _) = await shop.AddAsync("technician");
        var others = await other.CookieAsync();
        var lead = await shop.LeadAsync();
        var code = (await lead.PostAsync($"/api/people/{id}/code", new { })).Body.GetProperty("code").GetString();
        Assert.Equal(HttpStatusCode.Unauthorized, (await person.GetAsync("/api/bench")).Status);
        Assert.Equal("Name and password do not go together.", (await shop.Visit().SignInAsync(userName, EmptyShop.Password)).Title);

        // A lead who gives themselves one and does not read it still has their password.
        var self = (await lead.GetAsync("/api/session")).Body.GetProperty("person").GetProperty("id").GetGuid();
        Assert.Equal(HttpStatusCode.OK, (await lead.PostAsync($"/api/people/{self}/code", new { })).Status);
        Assert.Equal(HttpStatusCode.OK, (await (await shop.LeadAsync()).GetAsync("/api/people")).Status);

        // On a device where somebody else is signed in.
        var used = await other.PostAsync(
            "/api/session/code",
            new
            {
                userName,
                code,
                password = "the wind of the new day is fair",
            }
        );
        Assert.Equal(HttpStatusCode.OK, used.Status);
        Assert.Equal(HttpStatusCode.OK, (await other.GetAsync("/api/bench")).Status);
        Assert.Equal(HttpStatusCode.Unauthorized, (await shop.Visit().WithCookieAsync(others, "/api/bench")).Status);
        Assert.Equal(HttpStatusCode.OK, (await shop.Visit().SignInAsync(userName, "the wind of the new day is fair")).Status);
    }

    /// <summary>A lead sees who was refused, when and from where; what was typed is nowhere.</summary>
    [Fact]
    public async Task Tries_that_were_refused_are_shown_to_the_lead_without_what_was_typed()
    {
        var (person, _, userName) = await shop.AddAsync("technician");
        await shop.Visit().SignInAsync(userName, "the wrong word of today");
        await shop.Visit().SignInAsync("my secret in the wrong box", "x");
        var visitor = shop.Visit();
        await visitor.RefreshAsync();
        await visitor.PostAsync(
            "/api/session/code",
            new
            {
                userName,
                code = "AAAA-BBBB-CCCC",
                password = EmptyShop.Password,
            }
        );
        var refused = (await (await shop.LeadAsync()).GetAsync("/api/people/refused")).Body;
        var told = refused.EnumerateArray().Select(one => one.GetProperty("what").GetString()).Take(3).ToList();
        Assert.Equal(
            [
                $"Code refused for Somebody {userName}",
                "Password refused for a name nobody has",
                $"Password refused for Somebody {userName}",
            ],
            told
        );
        Assert.DoesNotContain("secret", refused.GetRawText(), StringComparison.Ordinal);
        Assert.DoesNotContain("wrong word", refused.GetRawText(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Forbidden, (await person.GetAsync("/api/people/refused")).Status);
        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
    }

    /// <summary>Tries are counted by where they come from: a stranger's do not shut a code for whoever has it.</summary>
    [Fact]
    public async Task A_code_is_not_shut_by_tries_from_elsewhere()
    {
        using var scope = shop.Services.CreateScope();
        var door = scope.ServiceProvider.GetRequiredService<SignInLimiter>();
        async Task<bool> IsGuessing(string address) =>
            await door.IsGuessingAsync(
                "somebody-new",
                new DefaultHttpContext { Connection = { RemoteIpAddress = IPAddress.Parse(address) } },
                TestContext.Current.CancellationToken
            );
        for (var i = 0; i < 70; i++)
        {
            await IsGuessing("192.0.2.7");
        }

        Assert.True(await IsGuessing("192.0.2.7"));
        Assert.False(await IsGuessing("192.0.2.8"));
        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
    }

    [Fact]
    public async Task Somebody_who_is_locked_out_is_out_at_once_and_what_they_did_stays()
    {
        var (person, id, userName) = await shop.AddAsync("technician");
        var tray = await person.NewTrayAsync("");
        var lead = await shop.LeadAsync();
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await lead.PutAsync(
                    $"/api/people/{id}",
                    new
                    {
                        displayName = "Somebody " + userName,
                        initials = "SB",
                        role = "technician",
                        lockedOut = true,
                    }
                )
            ).Status
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await person.GetAsync("/api/bench")).Status);
        Assert.Equal(HttpStatusCode.Unauthorized, (await shop.Visit().SignInAsync(userName, EmptyShop.Password)).Status);
        Assert.Contains(
            userName,
            (await lead.GetAsync($"/api/trays/{tray}")).Body.GetProperty("logbook")[0].ToString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_new_password_signs_the_other_devices_out_and_the_old_one_is_asked_for()
    {
        var (here, _, userName) = await shop.AddAsync("front-desk");
        var there = await shop.SignInAsync(userName, EmptyShop.Password);
        Assert.Equal(
            "That is not your password now.",
            (await here.PutAsync("/api/me/password", new { now = "something else", next = "north by north east" })).Error("now")
        );
        Assert.NotEmpty((await here.PutAsync("/api/me/password", new { now = EmptyShop.Password, next = "password1234" })).Error("next"));
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await here.PutAsync("/api/me/password", new { now = EmptyShop.Password, next = "north by north east" })).Status
        );
        Assert.Equal(HttpStatusCode.OK, (await here.GetAsync("/api/bench")).Status);
        Assert.Equal(HttpStatusCode.Unauthorized, (await there.GetAsync("/api/bench")).Status);
        await shop.SignInAsync(userName, "north by north east");
    }

    [Fact]
    public async Task People_and_shop_are_for_leads_sheets_for_whoever_works_at_the_bench()
    {
        var sheet = Sheet("ROLES");
        foreach (
            var (role, people, make, retire) in new[]
            {
                ("front-desk", 403, 403, 403),
                ("technician", 403, 200, 403),
                ("lead", 200, 200, 200),
            }
        )
        {
            var (person, _, _) = await shop.AddAsync(role);
            Assert.Equal(people, (int)(await person.GetAsync("/api/people")).Status);
            var issue = (await person.GetAsync("/api/sheets/ROLES")).Body is { ValueKind: JsonValueKind.Array } issues
                ? issues.GetArrayLength()
                : 0;
            Assert.Equal(
                make,
                (int)
                    (
                        await person.PutAsync(
                            "/api/sheets/ROLES",
                            new
                            {
                                sheet,
                                basedOn = issue,
                                why = "tried",
                            }
                        )
                    ).Status
            );
            Assert.Equal(retire, (int)(await person.DeleteAsync("/api/sheets/ROLES")).Status);
        }
    }

    [Fact]
    public async Task Of_two_corrections_of_one_issue_the_second_is_told_and_trays_keep_theirs()
    {
        var lead = await shop.LeadAsync();
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await lead.PutAsync(
                    "/api/sheets/RACE",
                    new
                    {
                        sheet = Sheet("RACE"),
                        basedOn = 0,
                        why = "",
                    }
                )
            ).Status
        );
        var tray = await lead.NewTrayAsync("RACE-1");
        Assert.Equal("RACE", (await lead.GetAsync($"/api/trays/{tray}")).Body.GetProperty("spec").GetProperty("code").GetString());
        var other = await shop.LeadAsync();
        var answers = await Task.WhenAll(
            new[] { (Who: lead, Bore: 0.74), (Who: other, Bore: 0.76) }.Select(one =>
                one.Who.PutAsync(
                    "/api/sheets/RACE",
                    new
                    {
                        sheet = Sheet("RACE", one.Bore),
                        basedOn = 1,
                        why = "a better measure",
                    }
                )
            )
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], answers.Select(answer => answer.Status).Order());
        Assert.Equal(2, answers.Single(answer => answer.Status == HttpStatusCode.Conflict).Body.GetProperty("issues").GetArrayLength());
        Assert.Equal(
            [2, 1],
            (await lead.GetAsync("/api/sheets/RACE"))
                .Body.EnumerateArray()
                .Select(issue => issue.GetProperty("sheet").GetProperty("issue").GetInt32())
        );
        var papers = (await lead.GetAsync($"/api/trays/{tray}/snapshot")).Body;
        Assert.Contains("\"issue\":1", papers.ToString(), StringComparison.Ordinal);
        // A device counts days as the shop does, fourteen hours ahead.
        Assert.Equal(14 * 60, papers.GetProperty("aheadOfUtcMin").GetInt32());
        // Retired, it is offered to nobody; who has it keeps it.
        await lead.DeleteAsync("/api/sheets/RACE");
        Assert.Equal(
            0,
            (await lead.GetAsync("/api/identify?stamped=RACE-1"))
                .Body.GetProperty("sheets")
                .EnumerateArray()
                .Count(one => one.GetProperty("code").GetString() == "RACE")
        );
        Assert.Equal("RACE", (await lead.GetAsync($"/api/trays/{tray}")).Body.GetProperty("spec").GetProperty("code").GetString());
        await lead.PostAsync("/api/sheets/RACE/again", new { });
        Assert.Equal(
            1,
            (await lead.GetAsync("/api/identify?stamped=RACE-1"))
                .Body.GetProperty("sheets")
                .EnumerateArray()
                .Count(one => one.GetProperty("code").GetString() == "RACE")
        );
    }

    [Fact]
    public async Task A_sheet_that_cannot_be_is_refused_at_its_boxes()
    {
        var lead = await shop.LeadAsync();
        var answer = await lead.PutAsync(
            "/api/sheets/WRONG",
            new
            {
                sheet = Sheet("WRONG", bore: 72),
                basedOn = 0,
                why = "",
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.Status);
        Assert.Contains("0.1 to 6 mm", answer.Error("sheet.jets[0].boreMm"), StringComparison.Ordinal);
        Assert.Contains(
            "two codes",
            (
                await lead.PutAsync(
                    "/api/sheets/WRONG",
                    new
                    {
                        sheet = Sheet("OTHER"),
                        basedOn = 0,
                        why = "",
                    }
                )
            ).Error("code"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_sheet_sent_twice_is_one_issue_and_an_id_of_somebody_else_is_refused()
    {
        var lead = await shop.LeadAsync();
        var sent = new
        {
            sheet = Sheet("AGAIN"),
            basedOn = 0,
            why = "",
        };
        Assert.Equal(HttpStatusCode.OK, (await lead.PutAsync("/api/sheets/AGAIN", sent)).Status);
        Assert.Equal(1, (await lead.PutAsync("/api/sheets/AGAIN", sent)).Body.GetArrayLength());
        Assert.Equal(HttpStatusCode.Conflict, (await lead.PutAsync("/api/sheets/AGAIN", sent with { sheet = Sheet("AGAIN", 0.9) })).Status);
        var id = Guid.CreateVersion7();
        object Person(string userName) =>
            new
            {
                id,
                userName,
                displayName = userName,
                initials = "",
                role = "technician",
            };
        Assert.Equal(HttpStatusCode.OK, (await lead.PostAsync("/api/people", Person("again"))).Status);
        Assert.Contains("already", (await lead.PostAsync("/api/people", Person("again"))).Error("userName"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Conflict, (await lead.PostAsync("/api/people", Person("another"))).Status);
    }

    [Fact]
    public async Task A_sheet_is_read_as_it_is_typed_and_looked_at_before_it_is_on_file()
    {
        var lead = await shop.LeadAsync();
        object Typed(string bore) =>
            new
            {
                units = "inch",
                code = "typed",
                maker = "unknown",
                family = "floatBowl",
                engine = (string?)null,
                choke = (string?)null,
                stamped = "",
                source = "measured here",
                leverDatum = "gaugeLeg",
                numbers = new Dictionary<string, string>(),
                jets = new[]
                {
                    new
                    {
                        key = (string?)null,
                        label = "Main jet",
                        bore,
                        tolerance = "",
                    },
                },
                rows = Array.Empty<object>(),
            };
        var look = (await lead.PostAsync("/api/sheets/look", new { typed = Typed("#70"), from = (object?)null })).Body;
        Assert.Equal(0.6962, look.GetProperty("windows").GetProperty("jets[0]").GetProperty("low").GetDouble(), 0.0001);
        var wrong = await lead.PutAsync(
            "/api/sheets/TYPED/typed",
            new
            {
                typed = Typed("wide"),
                from = (object?)null,
                basedOn = 0,
                why = "",
            }
        );
        Assert.Contains("not a number", wrong.Error("jets[0].boreMm"), StringComparison.Ordinal);
        Assert.Contains(
            "Line 1: “flux” is no part",
            (
                await lead.PostAsync(
                    "/api/sheets/look",
                    new
                    {
                        typed = Typed("#70"),
                        from = (object?)null,
                        needs = "flux",
                    }
                )
            ).Body.ToString(),
            StringComparison.Ordinal
        );
        var typed = await lead.PutAsync(
            "/api/sheets/TYPED/typed",
            new
            {
                typed = Typed(".028"),
                from = (object?)null,
                basedOn = 0,
                why = "",
                needs = "2 O-ring: size=6 × 1 mm\nbowl gasket: inner=2",
            }
        );
        Assert.Equal("2 O-ring: size=6 × 1 mm\nbowl gasket: inner=50.8 mm", typed.Body[0].GetProperty("needs").GetString());
        Assert.Equal(
            0.7112,
            (await lead.GetAsync("/api/sheets/TYPED"))
                .Body[0]
                .GetProperty("sheet")
                .GetProperty("jets")[0]
                .GetProperty("boreMm")
                .GetDouble(),
            1e-9
        );
    }

    [Fact]
    public async Task Of_two_changes_of_one_rule_the_second_is_told_and_counts_stay_as_they_were_typed()
    {
        var lead = await shop.LeadAsync();
        var other = await shop.LeadAsync();
        object Change(string typed, double was) =>
            new
            {
                typed,
                units = "metric",
                was,
                why = "dearer",
            };
        Assert.Contains(
            "whole",
            (await lead.PutAsync("/api/shop/rules/bedInDays", Change("2.5", 2))).Error("typed"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "after the earliest",
            (await lead.PutAsync("/api/shop/rules/chokes.heatHighS", Change("30", 240))).Error("typed"),
            StringComparison.Ordinal
        );
        var answers = await Task.WhenAll(
            lead.PutAsync("/api/shop/rules/labourPerHour", Change("620.50", 612.5)),
            other.PutAsync("/api/shop/rules/labourPerHour", Change("650", 612.5))
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], answers.Select(answer => answer.Status).Order());
        var rule = answers
            .Single(answer => answer.Status == HttpStatusCode.OK)
            .Body.EnumerateArray()
            .Single(one => one.GetProperty("key").GetString() == "labourPerHour");
        Assert.Equal("NOK", rule.GetProperty("counts").GetString());
        Assert.StartsWith(
            "An hour at the bench: 612.5 NOK → 6",
            rule.GetProperty("changed").GetProperty("what").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task The_schema_of_a_sheet_names_every_property_a_sheet_has()
    {
        var lead = await shop.LeadAsync();
        var schema = (await lead.GetAsync("/api/sheets/schema")).Body;
        Assert.Equal(
            typeof(Core.Carburetors.SpecSheet)
                .GetProperties()
                .Where(property => property.GetCustomAttribute<JsonIgnoreAttribute>() is null)
                .Select(property => JsonNamingPolicy.CamelCase.ConvertName(property.Name))
                .Order(),
            schema.GetProperty("properties").EnumerateObject().Select(property => property.Name).Order()
        );
        Assert.Contains("code", schema.GetProperty("required").EnumerateArray().Select(name => name.GetString()));
    }

    [Fact]
    public async Task A_file_of_sheets_is_looked_through_and_then_taken_whole_or_not_at_all()
    {
        var lead = await shop.LeadAsync();
        await lead.PutAsync(
            "/api/sheets/FILE-A",
            new
            {
                sheet = Sheet("FILE-A"),
                basedOn = 0,
                why = "",
            }
        );
        string[] Becomes(Answer answer) =>
            [.. answer.Body.GetProperty("sheets").EnumerateArray().Select(one => one.GetProperty("becomes").GetString()!)];
        // One wrong: nothing of it is taken, also when it is asked for.
        var wrong = await lead.PostAsync(
            "/api/sheets/file?take=true",
            new[] { Sheet("FILE-B"), Sheet("FILE-C", 72), Sheet("FILE-D"), Sheet("FILE-D") }
        );
        Assert.Equal(["new", "refused", "refused", "refused"], Becomes(wrong));
        Assert.Equal(HttpStatusCode.NotFound, (await lead.GetAsync("/api/sheets/FILE-B")).Status);
        object[] file = [Sheet("FILE-A", 0.8), Sheet("FILE-B")];
        Assert.Equal(["issue", "new"], Becomes(await lead.PostAsync("/api/sheets/file", file)));
        Assert.Equal(HttpStatusCode.NotFound, (await lead.GetAsync("/api/sheets/FILE-B")).Status);
        Assert.Equal(["issue", "new"], Becomes(await lead.PostAsync("/api/sheets/file?take=true", file)));
        Assert.Equal(
            [true, false],
            (await lead.GetAsync("/api/sheets/FILE-A")).Body.EnumerateArray().Select(issue => issue.GetProperty("current").GetBoolean())
        );
        Assert.Equal(["same", "same"], Becomes(await lead.PostAsync("/api/sheets/file?take=true", file)));
        // What goes out comes in again as the same.
        var all = (await lead.GetAsync("/api/sheets/file")).Body;
        Assert.All(Becomes(await lead.PostAsync("/api/sheets/file", all)), what => Assert.Equal("same", what));
        Assert.All(
            Becomes(await TableAsync(lead, await lead.Http.GetStringAsync("/api/sheets/file.csv", TestContext.Current.CancellationToken))),
            what => Assert.Equal("same", what)
        );
    }

    [Fact]
    public async Task A_table_of_sheets_comes_in_as_a_spreadsheet_writes_it_and_its_commas_are_asked_about()
    {
        var lead = await shop.LeadAsync();
        await lead.PutAsync(
            "/api/sheets/TABLE-A",
            new
            {
                sheet = Sheet("TABLE-A"),
                basedOn = 0,
                why = "",
            }
        );
        const string Table =
            "\uFEFFCode;Family;Source;Jets;MAKER\r\ntable-a;;;Main jet = 0,8 ± "
            + "0,02;unknown\r\nTABLE-B;float bowl;measured here;Main jet = 0,7;unknown\r\n;;;;\r\n";
        var asked = (await TableAsync(lead, Table)).Body;
        Assert.Equal("Main jet = 0,8 ± 0,02", asked.GetProperty("comma").GetString());
        Assert.All(asked.GetProperty("sheets").EnumerateArray(), one => Assert.Equal("refused", one.GetProperty("becomes").GetString()));
        var wrong = (await TableAsync(lead, "code,family\nTABLE-C,float bowl\nTABLE-D,\n", "&take=true")).Body.GetProperty("sheets");
        Assert.StartsWith("line 3, family", wrong[1].GetProperty("problems")[0].GetProperty("field").GetString(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await lead.GetAsync("/api/sheets/TABLE-C")).Status);
        var taken = await TableAsync(
            lead,
            Table.Replace("table-a;;;", "table-a;floatBowl;measured again;", StringComparison.Ordinal),
            "&take=true&decimalComma=true"
        );
        Assert.Equal(
            ["issue", "new"],
            taken
                .Body.GetProperty("sheets")
                .EnumerateArray()
                .Select(one => one.GetProperty("problems").ToString() is "[]" ? one.GetProperty("becomes").GetString() : one.ToString())
        );
        var issues = (await lead.GetAsync("/api/sheets/TABLE-A")).Body;
        // The columns that were there changed it; what has no column stayed.
        Assert.Equal(
            (2, 0.8, 0.02),
            (
                issues.GetArrayLength(),
                issues[0].GetProperty("sheet").GetProperty("jets")[0].GetProperty("boreMm").GetDouble(),
                issues[0].GetProperty("sheet").GetProperty("jets")[0].GetProperty("toleranceMm").GetDouble()
            )
        );
        Assert.Equal(
            issues[1].GetProperty("sheet").GetProperty("stampedNumbers").ToString(),
            issues[0].GetProperty("sheet").GetProperty("stampedNumbers").ToString()
        );
        Assert.Equal(
            0.7,
            (await lead.GetAsync("/api/sheets/TABLE-B"))
                .Body[0]
                .GetProperty("sheet")
                .GetProperty("jets")[0]
                .GetProperty("boreMm")
                .GetDouble()
        );
    }

    [Fact]
    public async Task Baths_date_codes_and_facts_are_the_shops_own_and_of_two_changes_the_second_is_told()
    {
        var (lead, other) = (await shop.LeadAsync(), await shop.LeadAsync());
        var was = (await lead.GetAsync("/api/shop")).Body;
        object Tub(string label) =>
            new
            {
                key = (string?)null,
                label,
                vessel = "tub",
                baskets = "2",
                room = "15",
                timeConstant = "60",
            };
        object Baths(object was, params object[] baths) =>
            new
            {
                baths,
                units = "metric",
                was,
            };
        var answers = await Task.WhenAll(
            new[] { (Who: lead, Label: "Yard tub"), (Who: other, Label: "Shed tub") }.Select(one =>
                one.Who.PutAsync("/api/shop/baths", Baths(was.GetProperty("baths"), Tub(one.Label)))
            )
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], answers.Select(answer => answer.Status).Order());
        var now = answers.Single(answer => answer.Status == HttpStatusCode.OK).Body.GetProperty("baths");
        Assert.Equal(
            now.ToString(),
            answers.Single(answer => answer.Status == HttpStatusCode.Conflict).Body.GetProperty("shop").GetProperty("baths").ToString()
        );
        // It stands on the page Baths, and with a tray in it it stays.
        var bath = Assert
            .Single((await lead.GetAsync("/api/baths")).Body.GetProperty("baths").EnumerateArray())
            .GetProperty("state")
            .GetProperty("bath")
            .GetProperty("key")
            .GetString();
        var tray = await BathTests.StrippedAsync(lead);
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await lead.PostAsync(
                    $"/api/baths/{bath}/events",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        kind = "placed",
                        trayNumber = tray,
                    }
                )
            ).Status
        );
        Assert.Contains(
            "something is in it",
            (await lead.PutAsync("/api/shop/baths", Baths(now))).Error("baths"),
            StringComparison.Ordinal
        );
        await lead.PostAsync(
            $"/api/baths/{bath}/events",
            new
            {
                id = Guid.CreateVersion7(),
                kind = "takenOut",
                trayNumber = tray,
            }
        );
        Assert.Empty((await lead.PutAsync("/api/shop/baths", Baths(now))).Body.GetProperty("baths").EnumerateArray());

        object Codes(object was, string pattern) =>
            new
            {
                was,
                patterns = new[]
                {
                    new
                    {
                        maker = "Ostrel",
                        pattern,
                        firstYear = 1998,
                        lastYear = 2026,
                        source = "seen here",
                    },
                },
            };
        Assert.Contains(
            "letter by letter",
            (await lead.PutAsync("/api/shop/date-codes", Codes(was.GetProperty("dateCodes"), "XX"))).Error("patterns[0].pattern"),
            StringComparison.Ordinal
        );
        var codes = (await lead.PutAsync("/api/shop/date-codes", Codes(was.GetProperty("dateCodes"), "yddd"))).Body.GetProperty(
            "dateCodes"
        );
        Assert.Equal("YDDD", Assert.Single(codes.EnumerateArray()).GetProperty("pattern").GetString());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await lead.PutAsync("/api/shop/date-codes", Codes(was.GetProperty("dateCodes"), "Y"))).Status
        );

        var facts = was.GetProperty("facts");
        Assert.Contains(
            "Three letters",
            (
                await lead.PutAsync(
                    "/api/shop/facts",
                    new
                    {
                        was = facts,
                        facts = new
                        {
                            name = "Lee Shore",
                            timeZone = "Europe/Oslo",
                            currency = "kroner",
                        },
                    }
                )
            ).Error("currency"),
            StringComparison.Ordinal
        );
        Assert.Equal("SEK", (
                await lead.PutAsync(
                    "/api/shop/facts",
                    new
                    {
                        was = facts,
                        facts = new
                        {
                            name = "Lee Shore",
                            timeZone = "Pacific/Kiritimati",
                            currency = "sek",
                        },
                    }
                )
            ).Body.GetProperty("facts").GetProperty("currency").GetString());
        await lead.PutAsync(
            "/api/shop/facts",
            new
            {
                was = new
                {
                    name = "Lee Shore",
                    timeZone = "Pacific/Kiritimati",
                    currency = "SEK",
                },
                facts,
            }
        );
        var (bench, _, _) = await shop.AddAsync("technician");
        Assert.Equal(HttpStatusCode.Forbidden, (await bench.PutAsync("/api/shop/baths", Baths(now))).Status);
    }

    private static Task<Answer> TableAsync(Visitor lead, string text, string query = "") =>
        lead.SendAsync(
            new HttpRequestMessage(HttpMethod.Post, $"/api/sheets/file.csv?x=1{query}")
            {
                Content = new StringContent(text, System.Text.Encoding.UTF8, "text/csv"),
            }
        );

    private static object Sheet(string code, double bore = 0.72) =>
        new
        {
            code,
            maker = "unknown",
            family = "floatBowl",
            issue = 1,
            stampedNumbers = new[] { code + "-1" },
            jets = new[]
            {
                new
                {
                    key = "main-jet",
                    label = "Main jet",
                    boreMm = bore,
                    toleranceMm = 0.01,
                },
            },
            emulsionRows = Array.Empty<object>(),
            @float = (object?)null,
            hold = (object?)null,
            idleSpeed = (object?)null,
            governedSpeed = (object?)null,
            needs = Array.Empty<object>(),
            source = "measured here",
        };
}
