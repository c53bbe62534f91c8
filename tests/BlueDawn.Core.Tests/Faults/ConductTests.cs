using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>How a trace behaves, whatever the numbers say: nothing that cannot or must not be done, nothing forgotten. Common practice,
/// no source.</summary>
public sealed class ConductTests
{
    private static readonly FaultKnowledge Shipped = FaultKnowledge.Shipped;

    public static IEnumerable<CarburetorKind> Kinds =>
        [
            .. new[] { ChokeKind.Manual, ChokeKind.Heat, ChokeKind.Lever }.Select(choke => new CarburetorKind(
                CarburetorFamily.FloatBowl,
                EngineKind.FourStroke,
                choke
            )),
            new(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, ChokeKind.Manual),
            new(CarburetorFamily.Diaphragm, EngineKind.FourStroke, ChokeKind.Manual),
            new(CarburetorFamily.SuctionTank, EngineKind.FourStroke, ChokeKind.Vacuum),
            new(CarburetorFamily.SuctionTank, EngineKind.FourStroke, ChokeKind.Manual),
        ];

    private static readonly CarburetorKind FloatBowl = new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Manual);

    /// <summary>Seven findings named here, and every other row of the table: each alone puts its cause above nine in ten.</summary>
    [Fact]
    public void A_finding_that_all_but_is_the_fault_decides()
    {
        string[] named =
        [
            "drips-from-plunger",
            "engine-locked",
            "valve-shut",
            "float-has-fuel",
            "fuel-in-oil",
            "insulator-wrong-way",
            "diaphragm-torn",
        ];
        Assert.Subset(Shipped.Decisive.Keys.ToHashSet(), named.ToHashSet());
        var tried = 0;
        foreach (var kind in Kinds)
        {
            foreach (
                var (finding, cause) in Shipped.Decisive.Where(one =>
                    Shipped.FindFinding(one.Key)!.Applies.Matches(kind) && Shipped.FindCause(one.Value)!.Applies.Matches(kind)
                )
            )
            {
                tried++;
                var trace = new Tray(kind).Yes(finding).Trace();
                Assert.True(
                    trace.Causes[0].Cause.Id == cause && trace.Causes[0].Probability > 0.9,
                    $"{kind}: {finding} gives {cause} {new Tray(kind).Yes(finding).P(cause):0.00}"
                );
                // An owner's word alone does not decide: they may be mistaken, or shade it.
                Assert.True(new Tray(kind).Owner(finding).P(cause) < trace.Causes[0].Probability, finding);
            }
        }

        Assert.True(tried > 2 * Shipped.Decisive.Count, $"{tried} tried");
    }

    [Fact]
    public void Every_trouble_has_at_least_two_causes_wherever_it_applies()
    {
        var lonely =
            from kind in Kinds
            from finding in Shipped.Findings
            where finding.Role == FindingRole.Trouble && finding.Applies.Matches(kind)
            where Shipped.Links.Count(link => link.FindingId == finding.Id && Shipped.FindCause(link.CauseId)!.Applies.Matches(kind)) < 2
            select $"{kind.Family} {kind.Engine} {kind.Choke}: {finding.Id}";
        Assert.Equal("", string.Join("; ", lonely));
    }

    [Theory]
    [InlineData("wet-at-bowl-joint")]
    [InlineData("fuel-from-overflow")]
    [InlineData("leaks-fuel")]
    [InlineData("drips-from-plunger")]
    [InlineData("throttle-wont-return")]
    [InlineData("stop-switch-dead")]
    [InlineData("engine-locked")]
    public void What_must_not_run_is_not_run_and_what_is_stuck_is_not_pulled(string finding)
    {
        var trace = new Tray(FloatBowl).Owner("hunts").Yes(finding).Trace();
        Assert.DoesNotContain(trace.Checks, value => value.Check.State == CheckState.Running);
        Assert.Equal(finding == "engine-locked", trace.Checks.All(value => value.Check.Id != "compression"));
        // Once it was put right, what can be seen standing is looked at before it runs again.
        if (Shipped.Needs.Any(need => need.Id == "dry-outside" && need.RuledOutBy.Contains(finding)))
        {
            var cause = Shipped
                .Links.First(link =>
                    link.FindingId == finding && link.Probability > 0.6 && Shipped.FindCause(link.CauseId)!.Applies.Matches(FloatBowl)
                )
                .CauseId;
            var again = new Tray(FloatBowl).Owner("hunts").Yes(finding).Fixed(cause).Trace().Next;
            Assert.Equal((StepKind.Recheck, Core.Safety.Caution.Vapour), (again.Kind, again.Caution));
            Assert.Equal([finding], again.Asks);
        }
    }

    [Fact]
    public void What_is_not_known_yet_is_asked_before_it_runs_and_asked_once()
    {
        var tray = new Tray(FloatBowl).Owner("wont-start");
        var prime = tray.Trace().Checks.Single(value => value.Check.Id == "throat-prime");
        Assert.Equal("turn-by-hand", prime.Before?.Id);
        Assert.Equal(3 + 1, prime.Minutes);
        tray.Note(new FindingsNote("turn-by-hand", [new("engine-locked", Said.Absent)]));
        Assert.Equal("before-it-runs", tray.Trace().Checks.Single(value => value.Check.Id == "throat-prime").Before?.Id);
        tray.Note(new FindingsNote("before-it-runs", [new("throttle-wont-return", Said.CouldNotTell)]));
        Assert.Null(tray.Trace().Checks.Single(value => value.Check.Id == "throat-prime").Before);
        // One that hunts turns over: nobody is asked.
        Assert.DoesNotContain(new Tray(FloatBowl).Owner("hunts").Trace().Checks, value => value.Before?.Id == "turn-by-hand");
    }

    /// <summary>The needle is mended, the oil is not changed: it is as thin as before, and nobody is asked to read it for news.</summary>
    [Fact]
    public void Thin_oil_is_changed_before_it_is_read_again()
    {
        var tray = new Tray(FloatBowl).Owner("oil-smoke").Yes("fuel-in-oil").Fixed("inlet-needle-leaking");
        var next = tray.Trace().Next;
        Assert.Equal((StepKind.Recheck, SafetyCondition.OilChanged), (next.Kind, next.First));
        Assert.Null(tray.Note(new SafetyNote(SafetyCondition.OilChanged)).Trace().Next.First);
    }

    [Theory]
    [InlineData("oil-smoke")]
    [InlineData("tank-lost-fuel")]
    [InlineData("liquid-in-intake")]
    public void One_that_smokes_or_lost_its_fuel_has_its_oil_read_first(string finding) =>
        Assert.Equal(SafetyCondition.OilRead, new Tray(FloatBowl).Yes(finding).Evidence().Safety.BeforeRunning?.Condition);

    [Fact]
    public void A_bad_part_in_the_hand_is_put_right_before_anything_goes_back()
    {
        var tray = new Tray(FloatBowl)
            .Owner("hunts", "low-power")
            .Note(new FindingsNote("intake-look", [new("intake-gasket-torn", Said.Present), new("liquid-in-intake", Said.Absent)]));
        Assert.Equal((StepKind.Fix, "intake-joint-leaking"), (tray.Trace().Next.Kind, tray.Trace().Next.CauseId));
        // Something else was mended meanwhile: the torn gasket is as torn as before, and nothing is called done.
        tray = new Tray(FloatBowl)
            .Owner("dies-after-minutes")
            .Note(new FindingsNote("intake-look", [new("insulator-wrong-way", Said.Present)]))
            .Fixed("tank-vent-blocked");
        Assert.True(tray.Evidence().IsThere("insulator-wrong-way"));
        tray.No("dies-after-minutes");
        Assert.Equal((StepKind.Fix, "insulator-reversed"), (tray.Trace().Next.Kind, tray.Trace().Next.CauseId));
        Assert.NotEqual(StepKind.Done, tray.Trace().Next.Kind);
    }

    [Fact]
    public void After_a_fix_what_it_could_not_touch_stays_known_and_trouble_is_tried_again()
    {
        var tray = new Tray(FloatBowl)
            .Owner("dies-after-minutes")
            .Note(new FindingsNote("air-filter-look", [new("air-filter-dirty", Said.Absent)]))
            .Note(new FindingsNote("vent-look", [new("vent-dark", Said.Present)]))
            .Fixed("tank-vent-blocked");
        var evidence = tray.Evidence();
        Assert.Equal(["dies-after-minutes"], evidence.Recheck);
        Assert.Contains("air-filter-look", evidence.DoneChecks);
        Assert.DoesNotContain("vent-look", evidence.DoneChecks);
        Assert.DoesNotContain(tray.Trace().Checks, value => value.Check.Id == "air-filter-look");
    }

    [Theory]
    [InlineData("vent-dark", "tank-vent-blocked", "vapour")]
    [InlineData("plug-loose", "plug-loose", "leadOff")]
    [InlineData("idle-jet-dark", "idle-jet-blocked", "vapour")]
    public void A_fix_carries_its_caution_on_the_machine_too(string finding, string cause, string caution)
    {
        var next = new Tray(FloatBowl).Owner("low-power").Note(new ApartNote(Shipped.FindCause(cause)!.Apart)).Yes(finding).Trace().Next;
        Assert.Equal((StepKind.Fix, cause, caution), (next.Kind, next.CauseId, next.Caution?.Key));
    }

    /// <summary>A needle that must be mended, a joint behind it: each is found and kept apart.</summary>
    [Fact]
    public void A_second_and_a_third_fault_are_followed_to_the_end()
    {
        foreach (var story in Story.All.Where(story => story.Faults.Count > 1))
        {
            var run = StoryRunner.Run(story);
            Assert.Empty(run.Left);
            Assert.Equal(
                story.Faults.Keys.Order(),
                run.Steps.Where(step => step.StartsWith("mended ", StringComparison.Ordinal))
                    .Select(step => step["mended ".Length..])
                    .Order()
            );
        }
    }

    [Fact]
    public void Every_fix_that_ships_says_what_it_needs_and_endangers() =>
        Assert.Equal(Shipped.Causes.Select(cause => cause.Id).Order(), Shipped.Fixes.Keys.Order());

    /// <summary>A mixture is set on a running engine: not while it drips, nor before anybody has looked whether its throttle
    /// returns.</summary>
    [Fact]
    public void A_fix_that_runs_the_engine_waits_for_what_a_run_needs()
    {
        var sure = new Tray(FloatBowl)
            .Owner("hunts", "wont-idle")
            .Note(new ApartNote(ApartLevel.Strip))
            .Note(
                new FindingsNote(
                    "screws-count",
                    [new("screws-in", Said.Present), new("screws-out", Said.Absent), new("screw-seal-flat", Said.Absent)]
                )
            )
            .Note(
                new FindingsNote(
                    "gauge-jets",
                    [new("idle-jet-dark", Said.Absent), new("main-jet-small", Said.Absent), new("tube-holes-dark", Said.Absent)]
                )
            )
            .Note(new FindingsNote("blow-passages", [new("idle-ports-dark", Said.Absent)]))
            .Note(new ApartNote(ApartLevel.Together));
        TraceStep Until(Tray tray)
        {
            for (var step = 0; step < 40; step++)
            {
                var next = tray.Trace().Next;
                if (next.Kind != StepKind.Check)
                {
                    return next;
                }

                Assert.DoesNotContain(next.CheckId!, tray.Evidence().DoneChecks);
                tray.Note(new FindingsNote(next.CheckId, [.. next.Asks.Select(id => new FindingAnswer(id, Said.Absent))]));
            }

            throw new InvalidOperationException("It asks on and on.");
        }

        // It was asked before: "before it runs" is among what was done, and then the fix is told.
        var fix = Until(sure);
        Assert.Equal((StepKind.Fix, "mixture-set-lean", "running"), (fix.Kind, fix.CauseId, fix.Caution?.Key));
        Assert.Contains("before-it-runs", sure.Evidence().DoneChecks);
        // The throttle hangs: whatever is likeliest, what a run needs stands with a fix that runs it.
        var hangs = sure.Yes("throttle-wont-return").Trace().Next;
        Assert.True(
            hangs.Kind != StepKind.Fix || hangs.CauseId != "mixture-set-lean" || hangs.FirstWords == "The throttle has to spring shut",
            $"{hangs.CauseId} {hangs.FirstWords}"
        );
    }

    /// <summary>One that does not start cannot hunt: that it does not is no news, and lifts nothing.</summary>
    [Fact]
    public void What_a_machine_cannot_show_is_not_held_against_a_cause()
    {
        var story = new Tray(FloatBowl).Owner("wont-start");
        var said = new Tray(FloatBowl)
            .Owner("wont-start")
            .Note(
                new FindingsNote(
                    "owner-story",
                    [
                        new("hunts", Said.Absent),
                        new("low-power", Said.Absent),
                        new("dies-after-minutes", Said.Absent),
                        new("leaks-fuel", Said.Absent),
                    ],
                    true
                )
            );
        Assert.Equal(3, said.Evidence().Items.Count(item => item.CannotShow));
        var without = new Tray(FloatBowl).Owner("wont-start").Note(new FindingsNote("owner-story", [new("leaks-fuel", Said.Absent)], true));
        Assert.Equal(without.P("idle-jet-blocked"), said.P("idle-jet-blocked"), 12);
        Assert.Equal(without.Trace().NoneProbability, said.Trace().NoneProbability, 12);
        // One that runs can: there it counts.
        Assert.DoesNotContain(new Tray(FloatBowl).Owner("low-power").No("hunts").Evidence().Items, item => item.CannotShow);
        Assert.NotEmpty(story.Trace().Checks);
    }

    [Fact]
    public void It_does_not_give_up_while_a_cheap_look_is_left()
    {
        // Giving up made cheaper than anything: the looks come first all the same, one by one, and then it is sent on.
        var tray = new Tray(FloatBowl).Owner("low-power");
        var (shop, looks) = (new Core.Shop.TraceDefaults(48, 5, 1), 0);
        for (; looks < 30; looks++)
        {
            var next = Trace.Of(Shipped, FloatBowl, shop, Core.Shop.FaultHistory.None, tray.Evidence()).Next;
            if (next.Kind == StepKind.Refer)
            {
                break;
            }

            Assert.True(next is { Kind: StepKind.Check, Minutes: <= 4 }, $"{next.Kind} {next.CheckId} {next.Minutes}");
            tray.Note(new FindingsNote(next.CheckId, [.. next.Asks.Select(id => new FindingAnswer(id, Said.Absent))]));
        }

        Assert.InRange(looks, 2, 20);
    }

    [Fact]
    public void Where_story_and_parts_do_not_go_together_the_bench_is_told_gently()
    {
        Assert.Empty(new Tray(FloatBowl).Owner("hunts").Trace().Doubts);
        Assert.StartsWith(
            "It was said to run, and it will not turn by hand",
            Assert.Single(new Tray(FloatBowl).Owner("hunts").Yes("engine-locked").Trace().Doubts),
            StringComparison.Ordinal
        );
        Assert.Single(new Tray(FloatBowl).Owner("hunts").Yes("part-not-listed").Trace().Doubts);
        // The same finding told not to be there and seen: the last of them stands, and both are remembered.
        var inside = new Tray(FloatBowl)
            .Note(new FindingsNote("owner-story", [new("hunts", Said.Present), new("earlier-work", Said.Absent)], true))
            .Yes("earlier-work");
        Assert.StartsWith("Nobody is said to have been inside", Assert.Single(inside.Trace().Doubts), StringComparison.Ordinal);
        // Nothing that does not run is said to have run.
        Assert.Empty(new Tray(FloatBowl).Owner("wont-start").Yes("engine-locked").Trace().Doubts);
    }
}
