namespace BlueDawn.Server.Tests.Trays;

/// <summary>Two at one tray in the same moment: whichever comes first, what is decided is decided on what stands.</summary>
public class RaceTests(Shop shop)
{
    private const string Main = "gauging/main-jet";

    [Fact]
    public async Task A_tray_never_leaves_unsigned_over_a_reading_made_meanwhile()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var (before, after) = (0, 0);
        for (var i = 0; i < 12; i++)
        {
            var number = await ReadyAsync(jory);
            var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
            var release = jory.SendNotesAsync(number, Visitor.Entry(new { kind = "release" }, version: version));
            var reading = ilse.SendNotesAsync(number, Visitor.Entry(Visitor.Reading(Main, new { go = "0.60", noGo = "0.62" })));
            var statuses = ((await release).Status, (await reading).Status);
            var tray = (await jory.GetAsync($"/api/trays/{number}")).Body;
            var gone = tray.GetProperty("facts").GetProperty("waitsFor").GetString() == "handedBack";
            if (gone)
            {
                // It left first, with everything good; the reading found it gone.
                Assert.Equal((HttpStatusCode.OK, HttpStatusCode.Conflict), statuses);
                Assert.Equal("inGauge", tray.Finding(Main));
                before++;
            }
            else
            {
                Assert.Equal((HttpStatusCode.UnprocessableEntity, HttpStatusCode.OK), statuses);
                Assert.Equal("restricted", tray.Finding(Main));
                after++;
            }
        }

        Assert.Equal(12, before + after);
    }

    [Fact]
    public async Task A_part_that_comes_out_meanwhile_closes_Prove()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        for (var i = 0; i < 8; i++)
        {
            var number = await ReadyAsync(jory, proven: false);
            var like = (await jory.GetAsync("/api/trays/17")).Body.Line("proving/fuel-on").GetProperty("standing").GetProperty("typed");
            var proof = jory.SendNotesAsync(
                number,
                Visitor.Entry(
                    new
                    {
                        kind = "reading",
                        line = "proving/fuel-on",
                        typed = like,
                    }
                )
            );
            var part = ilse.SendNotesAsync(
                number,
                Visitor.Entry(
                    new
                    {
                        kind = "out",
                        part = "bowl-gasket",
                        verdict = "refit",
                    }
                )
            );
            var (proven, taken) = ((await proof).Status, (await part).Status);
            Assert.Equal(HttpStatusCode.OK, taken);
            var order = (await jory.GetAsync($"/api/trays/{number}"))
                .Body.Log("reading", "out")
                .Select(entry => entry.GetProperty("lineKey").GetString() ?? "out")
                .Take(2);
            if (proven == HttpStatusCode.OK)
            {
                // It was proven while it was whole, and taken apart afterwards.
                Assert.Equal(["out", "proving/fuel-on"], order);
            }
            else
            {
                Assert.Equal(HttpStatusCode.Conflict, proven);
                Assert.DoesNotContain("proving/fuel-on", order);
            }
        }
    }

    [Fact]
    public async Task An_id_that_another_tray_has_or_that_comes_again_with_other_content_is_a_conflict()
    {
        var jory = await shop.SignInAsync("jory");
        var (one, other) = (await jory.NewTrayAsync(), await jory.NewTrayAsync());
        object[] notes =
        [
            new { kind = "job", job = "full" },
            Visitor.Reading(Main, new { go = "0.71", noGo = "0.73" }),
            new
            {
                kind = "out",
                part = "bowl-gasket",
                verdict = "refit",
            },
            new
            {
                kind = "oldPart",
                part = "needle",
                quantity = 1,
                features = new { tip = "rubber" },
            },
            new
            {
                kind = "findings",
                checkId = (string?)null,
                answers = new[] { new { findingId = "hunts", said = "present" } },
            },
        ];
        foreach (var note in notes)
        {
            var id = Guid.CreateVersion7();
            Assert.Equal("recorded", Outcome(await jory.SendNotesAsync(one, Visitor.Entry(note, id))));
            Assert.Equal("already", Outcome(await jory.SendNotesAsync(one, Visitor.Entry(note, id))));
            Assert.Equal(HttpStatusCode.Conflict, (await jory.SendNotesAsync(other, Visitor.Entry(note, id))).Status);
            Assert.Equal(
                HttpStatusCode.Conflict,
                (await jory.SendNotesAsync(one, Visitor.Entry(new { kind = "job", job = "closed" }, id))).Status
            );
        }
    }

    [Fact]
    public async Task One_id_sent_to_two_trays_at_once_lands_on_one()
    {
        var jory = await shop.SignInAsync("jory");
        for (var i = 0; i < 8; i++)
        {
            var (one, other) = (await jory.NewTrayAsync(), await jory.NewTrayAsync());
            var id = Guid.CreateVersion7();
            var entry = Visitor.Entry(Visitor.Reading(Main, new { go = "0.71", noGo = "0.73" }), id);
            var answers = await Task.WhenAll(jory.SendNotesAsync(one, entry), jory.SendNotesAsync(other, entry));
            Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], answers.Select(answer => answer.Status).Order());
        }
    }

    [Fact]
    public async Task What_one_entry_of_a_sending_is_refused_for_does_not_stop_the_others()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var good = Visitor.Entry(Visitor.Reading(Main, new { go = "0.71", noGo = "0.73" }));
        var answer = await jory.SendNotesAsync(
            number,
            Visitor.Entry(Visitor.Reading(Main, new { go = "abc" })),
            good,
            good,
            Visitor.Entry(Visitor.Reading("gauging/none", new { go = "0.7" }))
        );
        Assert.Equal(HttpStatusCode.OK, answer.Status);
        var outcomes = answer.Body.GetProperty("outcomes").EnumerateArray().ToList();
        Assert.Equal(["refused", "recorded", "already", "refused"], outcomes.Select(one => one.GetProperty("outcome").GetString()));
        Assert.Equal(
            [400, 404],
            new[] { outcomes[0], outcomes[3] }.Select(one => one.GetProperty("problem").GetProperty("status").GetInt32())
        );
        Assert.Single((await jory.GetAsync($"/api/trays/{number}")).Body.Log("reading"));
        Assert.Equal(HttpStatusCode.BadRequest, (await jory.SendNotesAsync(number)).Status);
    }

    [Fact]
    public async Task Nobody_signs_for_what_another_took()
    {
        var (jory, marit) = (await shop.SignInAsync("jory"), await shop.SignInAsync("marit"));
        var number = await jory.NewTrayAsync();
        var joryId = (await jory.GetAsync("/api/session")).Body.GetProperty("person").GetProperty("id").GetGuid();
        object entry = new
        {
            id = Guid.CreateVersion7(),
            takenAt = DateTimeOffset.UtcNow,
            note = Visitor.Reading(Main, new { go = "0.71" }),
            takenBy = joryId,
        };
        var others = await marit.SendNotesAsync(number, entry);
        Assert.Equal("others", Outcome(others));
        Assert.Empty((await jory.GetAsync($"/api/trays/{number}")).Body.Log("reading"));
        Assert.Equal("recorded", Outcome(await jory.SendNotesAsync(number, entry)));

        // A page that believes somebody else is signed in writes nothing at all.
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/me")
        {
            Content = new StringContent("""{"units":"metric","pins":""}""", null, "application/json"),
        };
        request.Headers.Add("X-Blue-Dawn-Person", joryId.ToString());
        var refused = await marit.SendAsync(request);
        Assert.Equal((HttpStatusCode.Conflict, true), (refused.Status, refused.Body.GetProperty("otherPerson").GetBoolean()));
    }

    [Fact]
    public async Task A_device_with_a_slow_clock_does_not_hide_its_new_readings()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var number = await jory.NewTrayAsync();
        await ilse.RecordAsync(number, Main, new { go = "0.60", noGo = "0.62" });
        var slow = DateTimeOffset.UtcNow.AddHours(-3);
        var answer = await jory.PostAsync(
            $"/api/trays/{number}/notes",
            new
            {
                entries = new[]
                {
                    new
                    {
                        id = Guid.CreateVersion7(),
                        takenAt = slow,
                        note = Visitor.Reading(Main, new { go = "0.71", noGo = "0.73" }),
                    },
                },
                sentAt = slow,
            }
        );
        Assert.Equal(HttpStatusCode.OK, answer.Status);
        Assert.InRange(answer.Body.GetProperty("clockOffSeconds").GetInt32(), 10_790, 10_810);
        Assert.Equal("inGauge", (await jory.GetAsync($"/api/trays/{number}")).Body.Finding(Main));
    }

    private static string Outcome(Answer answer) =>
        answer.Body.TryGetProperty("outcomes", out var outcomes)
            ? outcomes[0].GetProperty("outcome").GetString()!
            : throw new InvalidOperationException(answer.Body.GetRawText());

    /// <summary>A tray with every line good: what was read on the demo's tray 17, read again on a fresh one.</summary>
    private static async Task<int> ReadyAsync(Visitor visitor, bool proven = true)
    {
        var like = (await visitor.GetAsync("/api/trays/17")).Body;
        var number = await visitor.NewTrayAsync(like.GetProperty("facts").GetProperty("stampedNumber").GetString()!);
        var notes = like.GetProperty("lines")
            .EnumerateArray()
            .Where(line => !Visitor.IsComplaint(line) && (proven || line.GetProperty("station").GetString() != "proving"))
            .Select(line =>
                (object)
                    new
                    {
                        kind = "reading",
                        line = line.GetProperty("key").GetString(),
                        typed = line.GetProperty("standing").GetProperty("typed"),
                    }
            )
            .Concat(proven ? [Visitor.Reading("proving/complaint-said", new { state = "gone" })] : []);
        var answer = await visitor.SendNotesAsync(
            number,
            [.. notes.Prepend(new { kind = "job", job = "closed" }).Select(note => Visitor.Entry(note))]
        );
        Assert.All(answer.Body.GetProperty("outcomes").EnumerateArray(), one =>
            Assert.Equal("recorded", one.GetProperty("outcome").GetString())
        );
        return number;
    }
}
