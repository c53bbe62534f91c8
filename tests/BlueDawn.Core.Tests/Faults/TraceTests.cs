using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>What the shipped knowledge makes of cases every bench knows. Common practice, no source.</summary>
public class TraceTests
{
    [Fact]
    public void Nothing_known_asks_for_the_story_first() => Assert.Equal("owner-story", Tray.FloatBowl().Trace().Next.CheckId);

    [Fact]
    public void Hunting_that_is_better_on_part_choke_is_a_lean_cause()
    {
        var trace = Tray.FloatBowl().Owner("hunts", "stood-unused").Yes("better-part-choke").Trace();
        Assert.Contains(trace.Causes[0].Cause.Id, (string[])["idle-jet-blocked", "main-jet-restricted"]);
        Assert.All(trace.Causes.Take(3), standing => Assert.DoesNotContain("rich", standing.Cause.Id, StringComparison.Ordinal));
        Assert.Contains(trace.Causes.First(c => c.Cause.Id == "idle-jet-blocked").Weighings, w =>
            w.FindingId == "better-part-choke" && w.LogOdds > 0
        );
    }

    [Fact]
    public void A_reading_at_another_station_moves_the_ranking_and_says_where_it_is_from()
    {
        var tray = Tray.FloatBowl().Owner("hunts").Yes("better-part-choke");
        var before = tray.P("idle-jet-blocked");
        tray.Read("gauging/idle-jet", "restricted");
        Assert.True(tray.P("idle-jet-blocked") > 0.9 && tray.P("idle-jet-blocked") > before);
        var item = tray.Evidence().Items.Single(item => item.FindingId == "idle-jet-dark");
        Assert.Equal((EvidenceFrom.Gauge, "gauging/idle-jet", true), (item.From, item.LineKey, item.Present));
        Assert.Equal((StepKind.Fix, "idle-jet-blocked"), (tray.Trace().Next.Kind, tray.Trace().Next.CauseId));
    }

    public static readonly TheoryData<string, string> GoodReadings = new()
    {
        { "gauging/main-jet", "inGauge" },
        { "gauging/idle-jet", "inGauge" },
        { "gauging/emulsion-row-1", "inGauge" },
        { "setting/float-mass", "dry" },
        { "setting/float-height", "level" },
        { "setting/hold-test", "held" },
        { "proving/fuel-on", "dry" },
        { "gauging/main-jet", "openedUp" },
    };

    /// <summary>A part that is found good is less likely to blame, whatever is complained of: no cause the line could have shown
    /// rises.</summary>
    [Theory]
    [MemberData(nameof(GoodReadings))]
    public void A_good_reading_never_raises_a_cause_of_its_part(string line, string judged)
    {
        var knowledge = FaultKnowledge.Shipped;
        var told = knowledge.StationFindings.Where(row => row.Matches(line)).Select(row => row.FindingId).ToHashSet();
        var causes = knowledge
            .Links.Where(link => told.Contains(link.FindingId) && link.Strength is "always" or "usually")
            .Select(link => link.CauseId)
            .Where(id => judged != "openedUp" || id == "main-jet-blocked")
            .ToHashSet();
        string[][] stories =
        [
            ["hunts"],
            ["wont-start", "stood-unused"],
            ["starts-then-dies"],
            ["runs-only-choked"],
            ["black-smoke"],
            ["fuel-from-overflow"],
            ["low-power", "dies-after-minutes"],
        ];
        foreach (var story in stories)
        {
            var tray = Tray.FloatBowl().Owner(story).Yes("fires-on-prime");
            var before = tray.All();
            tray.Read(line, judged);
            foreach (
                var row in Trays.Sheets.Lines.Where(row =>
                    row.Key != line
                    && line.StartsWith("gauging/emulsion-row", StringComparison.Ordinal)
                    && row.Key.StartsWith("gauging/emulsion-row", StringComparison.Ordinal)
                )
            )
            {
                tray.Read(row.Key, judged); // every row of the tube
            }

            var after = tray.All();
            Assert.NotEmpty(causes);
            Assert.All(causes, id =>
                Assert.True(
                    after.GetValueOrDefault(id) <= before.GetValueOrDefault(id) + 1e-9,
                    $"{id}: {before.GetValueOrDefault(id):P1} before, {after.GetValueOrDefault(id):P1} after, {string.Join(' ', story)}"
                )
            );
        }
    }

    /// <summary>What contradicts the cause that leads is said beside it; that no check would change it is not.</summary>
    [Fact]
    public void A_cause_that_a_finding_contradicts_is_never_called_settled()
    {
        // Everything else is ruled out, so that the one contradicted cause leads.
        var tray = Tray.FloatBowl()
            .Owner("starts-then-dies", "runs-only-choked")
            .Yes("fires-on-prime", "better-part-choke")
            .No("main-jet-dark");
        foreach (
            var cause in FaultKnowledge.Shipped.Causes.Where(cause => cause.Applies.Matches(tray.Kind) && cause.Id != "main-jet-blocked")
        )
        {
            tray.Note(new FaultNote(cause.Id, FaultOutcome.NotIt));
        }

        for (var asked = 0; tray.Trace().Next is { Kind: StepKind.Check } check && asked < 60; asked++)
        {
            tray.No([.. check.Asks]);
        }

        var next = tray.Trace().Next;
        Assert.Equal((StepKind.Fix, "main-jet-blocked"), (next.Kind, next.CauseId));
        Assert.Contains("but no light", next.Why.Text, StringComparison.Ordinal);
        Assert.Contains("Look again before anything is put right", next.Why.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("no check", next.Why.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void A_second_fault_is_kept_apart()
    {
        var tray = Tray.FloatBowl()
            .Owner("hunts")
            .Yes("better-part-choke")
            .Read("gauging/idle-jet", "restricted")
            .Yes("intake-gasket-torn", "speed-shifts-at-joint");
        var trace = tray.Trace();
        Assert.True(tray.P("idle-jet-blocked") > 0.8);
        Assert.True(tray.P("intake-joint-leaking") > 0.8);
        Assert.True(trace.SeveralProbability > 0.7);
    }

    [Fact]
    public void What_a_mended_fault_explains_does_not_count_twice()
    {
        var tray = Tray.FloatBowl().Owner("hunts", "wont-idle").Yes("better-part-choke").Read("gauging/idle-jet", "restricted");
        var jointBefore = Tray.FloatBowl().Owner("hunts", "wont-idle").Yes("better-part-choke").P("intake-joint-leaking");
        tray.Read("gauging/idle-jet", "inGauge");
        var trace = tray.Trace();
        Assert.Equal("idle-jet-blocked", Assert.Single(trace.Evidence.Found).CauseId);
        Assert.DoesNotContain(trace.Causes, standing => standing.Cause.Id == "idle-jet-blocked");
        Assert.True(tray.P("intake-joint-leaking") < jointBefore / 2, "hunting is explained by the jet");
        // What has to be so before it runs is looked at first.
        Assert.Equal("before-it-runs", trace.Next.CheckId);
        var again = tray.Note(
                new FindingsNote(
                    "before-it-runs",
                    [new("throttle-wont-return", Said.Absent), new("stop-switch-dead", Said.Absent), new("wet-at-bowl-joint", Said.Absent)]
                )
            )
            .Trace()
            .Next;
        Assert.Equal(StepKind.Recheck, again.Kind);
        Assert.Contains("hunts", again.Asks);

        // It still hunts: now something else has to answer for it.
        tray.Yes("hunts", "wont-idle");
        Assert.True(tray.P("intake-joint-leaking") > jointBefore);
        Assert.Equal(StepKind.Check, tray.Trace().Next.Kind);
    }

    [Fact]
    public void When_all_is_well_after_the_fix_the_trace_is_done()
    {
        var tray = Tray.FloatBowl().Owner("hunts").Yes("better-part-choke", "idle-jet-dark").Fixed("idle-jet-blocked");
        tray.No([.. tray.Evidence().Recheck]);
        Assert.Equal(StepKind.Done, tray.Trace().Next.Kind);
    }

    [Fact]
    public void A_fix_that_made_no_difference_leaves_the_ranking()
    {
        var tray = Tray.FloatBowl().Owner("hunts").Yes("better-part-choke").Note(new FaultNote("idle-jet-blocked", FaultOutcome.NotIt));
        Assert.DoesNotContain(tray.Trace().Causes, standing => standing.Cause.Id == "idle-jet-blocked");
        Assert.Empty(tray.Evidence().Found);
        tray.Note(new FaultNote("idle-jet-blocked", FaultOutcome.Open));
        Assert.Contains(tray.Trace().Causes, standing => standing.Cause.Id == "idle-jet-blocked");
    }

    [Fact]
    public void The_owners_word_weighs_less_than_a_look_and_a_doubt_less_than_either()
    {
        double P(TraceNote note) => Tray.FloatBowl().Note(note).P("bowl-joint-leaking");
        var seen = P(new FindingsNote(null, [new FindingAnswer("wet-at-bowl-joint", Said.Present)]));
        var said = P(new FindingsNote(null, [new FindingAnswer("wet-at-bowl-joint", Said.Present)], true));
        var doubted = P(new FindingsNote(null, [new FindingAnswer("wet-at-bowl-joint", Said.Present, true)]));
        Assert.True(seen > said && said > doubted);
    }

    [Fact]
    public void What_is_doubtful_is_worth_a_look_of_ones_own_and_what_was_seen_is_not()
    {
        bool AsksForTheFuel(Tray tray) => tray.Trace().Checks.Any(value => value.Check.Id == "fuel-sniff");
        Assert.True(AsksForTheFuel(Tray.FloatBowl().Owner("wont-start", "fuel-smells-stale")));
        Assert.False(AsksForTheFuel(Tray.FloatBowl().Owner("wont-start").Yes("fuel-smells-stale")));
    }

    [Fact]
    public void Could_not_tell_counts_for_nothing_and_takes_an_answer_back()
    {
        var tray = Tray.FloatBowl().Owner("hunts");
        var before = tray.P("air-filter-plugged");
        tray.Yes("air-filter-dirty").Note(new FindingsNote(null, [new FindingAnswer("air-filter-dirty", Said.CouldNotTell)]));
        Assert.Equal(before, tray.P("air-filter-plugged"), 9);
    }

    [Fact]
    public void Tube_holes_are_clear_only_when_every_row_has_been_read()
    {
        var kind = Tray.FloatBowl().Kind;
        string[] lines = ["gauging/emulsion-row-1", "gauging/emulsion-row-2"];
        JudgedReading Row(int row, string judged, int minute) =>
            new(Guid.CreateVersion7(), $"gauging/emulsion-row-{row}", judged, DateTimeOffset.UnixEpoch.AddMinutes(minute), false);
        EvidenceItem? Tube(params JudgedReading[] readings) =>
            Evidence
                .Gather(FaultKnowledge.Shipped, kind, [], readings, lines, [])
                .Items.FirstOrDefault(item => item.FindingId == "tube-holes-dark");
        Assert.Null(Tube(Row(1, "inGauge", 1)));
        Assert.False(Tube(Row(1, "inGauge", 1), Row(2, "inGauge", 2))!.Present);
        Assert.True(Tube(Row(1, "inGauge", 1), Row(2, "blocked", 2))!.Present);
    }

    [Fact]
    public void Fuel_in_the_oil_blocks_every_running_check_until_it_is_changed()
    {
        var tray = Tray.FloatBowl().Yes("fuel-in-oil");
        var running = FaultKnowledge.Shipped.FindCheck("hot-run")!;
        Assert.Equal(SafetyCondition.OilChanged, tray.Evidence().Safety.Before(running, FaultKnowledge.Shipped)?.Condition);
        tray.Note(new SafetyNote(SafetyCondition.OilChanged));
        Assert.Null(tray.Evidence().Safety.Before(running, FaultKnowledge.Shipped));
    }

    [Fact]
    public void A_two_stroke_has_no_sump_to_be_thinned() =>
        Assert.False(
            new Tray(new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null))
                .Yes("fuel-in-oil")
                .Evidence()
                .Safety.OilThinned
        );

    [Fact]
    public void The_plug_lead_comes_off_first_and_again_after_a_run()
    {
        var plug = FaultKnowledge.Shipped.FindCheck("plug-out")!;
        var tray = Tray.FloatBowl();
        SafetyCondition? First() => tray.Evidence().Safety.Before(plug, FaultKnowledge.Shipped)?.Condition;
        Assert.Equal(SafetyCondition.LeadOff, First());
        tray.Note(new SafetyNote(SafetyCondition.LeadOff));
        Assert.Null(First());
        tray.Note(new FindingsNote("hot-run", [new FindingAnswer("hunts", Said.Present)]));
        Assert.Equal(SafetyCondition.LeadOff, First());
    }

    [Fact]
    public void What_is_apart_costs_nothing_more_and_a_run_costs_putting_it_together()
    {
        var trace = Tray.FloatBowl().Owner("hunts").Note(new ApartNote(ApartLevel.Strip)).Trace();
        var gauge = trace.Checks.Single(value => value.Check.Id == "gauge-jets");
        var run = trace.Checks.Single(value => value.Check.Id == "hot-run");
        Assert.Equal(gauge.Check.Minutes, gauge.Minutes);
        // Fifteen to put it together, two to look whether it may run.
        Assert.Equal((run.Check.Minutes + 15 + 2, "before-it-runs"), (run.Minutes, run.Before?.Id));
    }

    [Fact]
    public void No_part_is_bought_before_a_cheaper_check_could_rule_it_out()
    {
        // Whatever is found, a fix that needs a part is recommended only when nothing cheaper could rule it out.
        string[][] stories =
        [
            ["wont-start"],
            ["dies-after-minutes", "hard-hot-start"],
            ["low-power"],
            ["hunts"],
            ["fuel-from-overflow"],
            ["wet-at-bowl-joint"],
            ["black-smoke"],
        ];
        foreach (var story in stories)
        {
            var trace = Tray.FloatBowl().Owner(story).Trace();
            if (trace.Next is { Kind: StepKind.Fix, CauseId: { } id } && FaultKnowledge.Shipped.FindCause(id) is { PartsMoney: > 0 } cause)
            {
                var links = FaultKnowledge
                    .Shipped.Links.Where(link => link.CauseId == id && link.Probability >= 0.7)
                    .Select(link => link.FindingId)
                    .ToList();
                Assert.DoesNotContain(trace.Checks, value =>
                    value.Minutes < cause.FixMinutes + (cause.PartsMoney * 60 / Tray.Shop.LabourPerHour)
                    && value.Tells.Any(tells => links.Contains(tells.FindingId))
                );
            }
        }
    }

    [Fact]
    public void Trouble_that_is_not_in_the_carburetor_is_said_to_be_elsewhere()
    {
        var trace = Tray.FloatBowl().Owner("dies-after-minutes", "hard-hot-start").Yes("spark-lost-hot").No("better-cap-loose").Trace();
        Assert.Equal("coil-heat-fade", trace.Causes[0].Cause.Id);
        Assert.True(trace.ElsewhereProbability > 0.65);
        Assert.Contains("ignition coil", trace.ElsewhereAdvice!.Text, StringComparison.Ordinal);
        Assert.Null(Tray.FloatBowl().Owner("wet-at-bowl-joint").Trace().ElsewhereAdvice);
        Assert.Equal(StepKind.Refer, trace.Next.Kind);
        Assert.EndsWith("Probably not in the carburetor.", trace.Next.Why.Text, StringComparison.Ordinal);
        var inside = Tray.FloatBowl().Owner("hunts").Yes("idle-jet-dark", "better-part-choke").Trace();
        Assert.Equal("idle-jet-blocked", inside.Next.CauseId);
        Assert.DoesNotContain("Probably not", inside.Next.Why.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void What_no_cause_explains_is_left_outside_the_table()
    {
        var nothing = Tray.FloatBowl().No("hunts", "low-power", "wont-start", "black-smoke", "fuel-from-overflow", "wont-idle").Trace();
        var odd = Tray.FloatBowl().Owner("hunts").Trace();
        Assert.True(nothing.NoneProbability > odd.NoneProbability);
        Assert.InRange(odd.NoneProbability, 0.001, 0.5);
    }

    [Fact]
    public void The_shops_own_history_shifts_the_odds_by_a_weight_that_can_be_seen()
    {
        var plain = Tray.FloatBowl().Owner("hunts");
        var seven = new Dictionary<string, int> { ["idle-jet-blocked"] = 6 };
        var schooled = Tray.FloatBowl().Owner("hunts");
        schooled.History = new FaultHistory(7, seven, 0, new Dictionary<string, int>());
        Assert.True(schooled.P("idle-jet-blocked") > 1.4 * plain.P("idle-jet-blocked"));
        Assert.Equal(7 / 37.0, schooled.History.Weight, 9);

        // Mean of a Beta, by hand: (30·0.1 + 6) / (30 + 7) = 0.243243.
        Assert.Equal(0.243243, schooled.History.Shift("idle-jet-blocked", 0.1), 6);
        Assert.Equal(0.1, FaultHistory.None.Shift("idle-jet-blocked", 0.1), 12);
    }

    /// <summary>A bad reading followed by a good one was put right; followed by one that cannot tell it was not.</summary>
    [Fact]
    public void Only_a_good_reading_after_a_bad_one_says_that_it_was_put_right()
    {
        var tray = Tray.FloatBowl().Read("gauging/main-jet", "restricted").Read("gauging/main-jet", "cannotTell");
        Assert.Empty(tray.Evidence().Found);
        Assert.Equal("main-jet-restricted", Assert.Single(tray.Read("gauging/main-jet", "inGauge").Evidence().Found).CauseId);
    }

    [Fact]
    public void With_every_cause_ruled_out_nothing_is_left_and_nothing_is_divided_by_it()
    {
        var tray = Tray.FloatBowl().Owner("hunts");
        foreach (var cause in FaultKnowledge.Shipped.Causes.Where(cause => cause.Applies.Matches(tray.Kind)))
        {
            tray.Note(new FaultNote(cause.Id, FaultOutcome.NotIt));
        }

        Assert.Equal((1.0, 0.0), (tray.Trace().NoneProbability, tray.Trace().ElsewhereProbability));
    }

    /// <summary>What is seen at the very moment of a fix is seen after it.</summary>
    [Fact]
    public void An_answer_at_the_moment_of_the_fix_is_after_it()
    {
        var at = DateTimeOffset.UnixEpoch;
        Core.Logbook.Logged<TraceNote> Note(int minute, TraceNote note) => new(Guid.CreateVersion7(), at.AddMinutes(minute), "Ilse", note);
        var items = Evidence
            .Gather(
                FaultKnowledge.Shipped,
                Tray.FloatBowl().Kind,
                [
                    Note(0, new FindingsNote(null, [new("hunts", Said.Present)])),
                    Note(1, new FaultNote("idle-jet-blocked", FaultOutcome.Fixed)),
                    Note(1, new FindingsNote(null, [new("hunts", Said.Absent)])),
                ],
                [],
                [],
                []
            )
            .Items;
        Assert.Equal([(true, true), (false, false)], items.Select(item => (item.Present, item.BeforeFix)));
    }

    [Fact]
    public void A_diaphragm_carburetor_is_never_asked_about_its_float()
    {
        var trace = new Tray(new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null))
            .Owner("wont-rev", "four-strokes-at-full")
            .Trace();
        Assert.DoesNotContain(trace.Checks, value => value.Check.Id is "float-look" or "bowl-off" or "oil-check");
        Assert.DoesNotContain(trace.Causes, standing => standing.Cause.Id.StartsWith("float-", StringComparison.Ordinal));
    }

    [Fact]
    public void Closed_without_a_cause_is_an_answer_too()
    {
        var trace = Tray.FloatBowl().Owner("hunts").Note(new FaultNote(null, FaultOutcome.NothingFound)).Trace();
        Assert.Equal(StepKind.Done, trace.Next.Kind);
        var again = Tray.FloatBowl()
            .Owner("hunts")
            .Note(new FaultNote(null, FaultOutcome.NothingFound))
            .Note(new FaultNote(null, FaultOutcome.Open));
        Assert.Equal(StepKind.Check, again.Trace().Next.Kind);
    }
}
