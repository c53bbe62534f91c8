using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>Stories of the trade and what they lead to: common practice, no source. Each is written here as it is told at the
/// bench.</summary>
public class TradeStoriesTests
{
    [Theory]
    [InlineData("starts-then-dies", "hot-run", false)]
    [InlineData("wont-start", "joint-test", false)]
    [InlineData("engine-locked", "throat-prime", false)]
    [InlineData("wont-start", "throat-prime", true)]
    [InlineData("dies-after-minutes", "hot-run", true)]
    public void An_engine_that_dies_at_once_is_not_run_for_ten_minutes_and_one_that_is_stuck_is_not_pulled(
        string complaint,
        string check,
        bool offered
    ) => Assert.Equal(offered, Tray.FloatBowl().Owner(complaint).Trace().Checks.Any(value => value.Check.Id == check));

    /// <summary>One that flooded may have its sump full: nothing runs before somebody has read the oil. A two-stroke has no sump.</summary>
    [Fact]
    public void After_flooding_the_oil_is_read_before_anything_runs()
    {
        var tray = Tray.FloatBowl().Owner("fuel-from-overflow");
        Assert.Equal(SafetyCondition.OilRead, tray.Evidence().Safety.BeforeRunning?.Condition);
        Assert.All(tray.Trace().Checks.Where(value => value.Check.State == CheckState.Running), value =>
            Assert.Equal(SafetyCondition.OilRead, value.First)
        );
        Assert.Equal(
            SafetyCondition.OilChanged,
            Tray.FloatBowl().Owner("fuel-from-overflow").Yes("fuel-in-oil").Evidence().Safety.BeforeRunning?.Condition
        );
        Assert.Null(Tray.FloatBowl().Owner("fuel-from-overflow").No("fuel-in-oil").Evidence().Safety.BeforeRunning);
        Assert.Null(
            Tray.FloatBowl().Owner("fuel-from-overflow").Note(new SafetyNote(SafetyCondition.OilRead)).Evidence().Safety.BeforeRunning
        );
        Assert.Null(Tray.FloatBowl().Owner("hunts").Evidence().Safety.BeforeRunning);
        Assert.Null(
            new Tray(new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null))
                .Owner("fuel-from-overflow")
                .Evidence()
                .Safety.BeforeRunning
        );
        var leaks = Trays
            .TestTray.Untouched()
            .Does(new ReadingNote("setting/hold-test", Trays.Sheets.Rows("pressure", "time", ("2", "48"), ("7", "40"), ("12", "33"))));
        Assert.Contains("Read the oil", Core.Trays.Policy.WhyNotRun(leaks.Book), StringComparison.Ordinal);
    }

    /// <summary>Stuck out, the plunger shuts the fuel off: it dies after a shot at the throat.</summary>
    [Fact]
    public void A_shut_off_plunger_stuck_out_gives_no_fuel()
    {
        var tray = Tray.FloatBowl().Owner("wont-start").Yes("fires-on-prime", "solenoid-stuck");
        Assert.Equal("shutoff-solenoid-shut", tray.Trace().Causes[0].Cause.Id);
    }

    /// <summary>Stuck in, it does not stop the fuel; that it will not start is then not its doing.</summary>
    [Fact]
    public void A_lazy_shut_off_plunger_runs_on_and_does_not_keep_it_from_starting()
    {
        Assert.Equal("shutoff-plunger-lazy", Tray.FloatBowl().Owner("runs-on").Yes("solenoid-lazy").Trace().Causes[0].Cause.Id);
        var starts = Tray.FloatBowl().Owner("wont-start");
        var before = starts.P("shutoff-plunger-lazy");
        Assert.True(starts.Yes("fires-on-prime").P("shutoff-plunger-lazy") <= before * 1.05);
    }

    /// <summary>Both hunt alike: shaken by hand a loose manifold rocks, and a governor that is off is off with it firm.</summary>
    [Fact]
    public void A_loose_manifold_is_told_from_a_governor()
    {
        Assert.Equal(
            "intake-joint-leaking",
            Tray.FloatBowl().Owner("hunts").Read("proving/manifold-shake", "rocks").Trace().Causes[0].Cause.Id
        );
        Assert.Equal(
            "governor-spring-weak",
            Tray.FloatBowl().Owner("hunts").Read("proving/manifold-shake", "firm").Yes("governor-off").Trace().Causes[0].Cause.Id
        );
    }

    [Fact]
    public void The_jet_beside_the_plunger_falls_out_unseen() =>
        Assert.Equal("main-jet-lost", Tray.FloatBowl().Owner("black-smoke").Yes("plunger-jet-gone", "plug-wet").Trace().Causes[0].Cause.Id);

    [Fact]
    public void Flooding_without_end_with_a_good_needle_leads_to_the_rings_inside()
    {
        var tray = Tray.FloatBowl().Owner("fuel-from-overflow");
        var before = tray.P("inner-rings-leaking");
        var after = tray.Read("setting/hold-test", "held").No("float-has-fuel", "float-sticks", "float-level-high");
        Assert.True(
            after.P("inner-rings-leaking") > 2 * before,
            $"{before:0.000} then {string.Join(", ", after.Trace().Causes.Take(6).Select(standing => $"{standing.Cause.Id} {standing.Probability:0.000}"))}"
        );
        Assert.Equal("inner-rings-leaking", tray.Yes("inner-rings-flat").Trace().Causes[0].Cause.Id);
    }

    /// <summary>Two springs, two stories: the large one in the wrong pocket races and smokes, the small one crooked keeps the plate part
    /// open.</summary>
    [Fact]
    public void The_two_springs_of_a_suction_choke_show_differently()
    {
        var kind = new CarburetorKind(CarburetorFamily.SuctionTank, EngineKind.FourStroke, ChokeKind.Vacuum);
        double P(string cause, params string[] yes) => new Tray(kind).Owner(yes).P(cause);
        Assert.True(P("choke-spring-misplaced", "hunts", "black-smoke") > P("choke-small-spring-crooked", "hunts", "black-smoke"));
        var open = new Tray(kind).Owner("hard-cold-start").Yes("choke-open-at-rest");
        Assert.True(open.P("choke-small-spring-crooked") > open.P("choke-spring-misplaced"));
    }

    /// <summary>A bulb that will not draw: blocked inside the carburetor, hoses crossed, or a split line. One that fills shows the hoses
    /// are right.</summary>
    [Fact]
    public void A_bulb_that_will_not_draw_and_one_that_fills()
    {
        var kind = new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null);
        string[] causes =
        [
            "inlet-needle-stuck-shut",
            "inlet-screen-clogged",
            "fuel-lines-swapped",
            "fuel-line-perished",
            "primer-bulb-failed",
        ];
        Tray Told() => new Tray(kind).Owner("wont-start").Yes("fires-on-prime", "earlier-work");
        var (asked, dry, fills) = (Told(), Told().Yes("primer-wont-fill"), Told().No("primer-wont-fill"));
        Assert.All(causes, cause => Assert.True(dry.P(cause) > asked.P(cause), cause));
        Assert.True(asked.P("fuel-lines-swapped") > 0.03);
        Assert.True(fills.P("fuel-lines-swapped") < 0.2 * asked.P("fuel-lines-swapped"));
    }

    /// <summary>A high screw that changes nothing: exhaust or throttle cable before the jet.</summary>
    [Fact]
    public void A_high_screw_that_does_nothing_leads_to_the_exhaust_first()
    {
        var tray = new Tray(new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null))
            .Owner("low-power")
            .Yes("high-screw-dead");
        Assert.Equal("exhaust-restricted", tray.Trace().Causes[0].Cause.Id);
    }

    /// <summary>Broken, torn or the wrong way round speaks for a fault; renewed because it is renewed each time does not.</summary>
    [Theory]
    [InlineData("intake-gasket", LineVerdict.Broken, null, "intake-gasket-torn", true)]
    [InlineData("intake-gasket", LineVerdict.Renew, null, "intake-gasket-torn", false)]
    [InlineData("bowl-gasket", LineVerdict.Broken, null, "bowl-gasket-poor", true)]
    [InlineData("bowl-gasket", LineVerdict.Renew, null, "bowl-gasket-poor", false)]
    [InlineData("seat", LineVerdict.Clean, "outward", "seat-wrong-way", true)]
    [InlineData("seat", LineVerdict.Clean, "into-body", "seat-wrong-way", false)]
    public void What_is_found_broken_or_the_wrong_way_round_counts_at_Trace(
        string part,
        LineVerdict verdict,
        string? way,
        string finding,
        bool counts
    )
    {
        var bench = Strip.Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote(part, verdict, Way: way));
        Assert.Equal(counts, bench.Signs.Any(sign => sign.FindingId == finding));
    }

    [Fact]
    public void A_seat_the_wrong_way_round_is_a_leaking_inlet()
    {
        var tray = Tray.FloatBowl().Owner("fuel-from-overflow");
        var before = tray.P("inlet-needle-leaking");
        Assert.True(tray.Yes("seat-wrong-way").P("inlet-needle-leaking") > before);
    }

    [Fact]
    public void What_was_found_broken_does_not_go_back_without_a_reason()
    {
        var bench = Strip.Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote("bowl-gasket", LineVerdict.Broken));
        Assert.Contains("no good", bench.Refuses(new BackNote("bowl-gasket", Fate.Refitted)), StringComparison.Ordinal);
    }

    /// <summary>A bowl nut has a hole up the middle and one on each side, with a jet in it or without: they are looked through on every
    /// float bowl, whether the sheet has a main jet of its own or there is no sheet. Common practice, no source.</summary>
    [Fact]
    public void The_holes_of_the_bowl_nut_are_passages_of_every_float_bowl()
    {
        foreach (var sheet in (SpecSheet?[])[Trays.Sheets.Spec, Trays.Sheets.Spec with { Jets = [] }, null])
        {
            Assert.Contains(
                "nut-holes",
                CleaningKnowledge.Shipped.Passages(CarburetorFamily.FloatBowl, sheet).Select(passage => passage.Key)
            );
        }

        Assert.DoesNotContain(
            "nut-holes",
            CleaningKnowledge.Shipped.Passages(CarburetorFamily.SuctionTank, null).Select(passage => passage.Key)
        );
    }

    /// <summary>What settles in a bowl is brushed out with petrol or with soap and water.</summary>
    [Fact]
    public void Sediment_is_something_to_come_off() =>
        Assert.Equal(
            ["brush", "soap"],
            CleaningKnowledge.Shipped.Recipes.Where(recipe => recipe.Soils.Contains("sediment")).Select(recipe => recipe.Key).Order()
        );

    [Fact]
    public void A_wire_brush_has_its_rinse_and_keeps_off_soft_parts()
    {
        var brush = CleaningKnowledge.Shipped.Find("wire-brush")!;
        Assert.Contains("spray", brush.Rinse, StringComparison.OrdinalIgnoreCase);
        Assert.Contains(Material.Rubber, brush.OutFirst);
        Assert.NotNull(CleaningKnowledge.Shipped.Clash(brush, CleaningKnowledge.Shipped.Find("bath")!)); // spray cleaner and heat
    }
}
