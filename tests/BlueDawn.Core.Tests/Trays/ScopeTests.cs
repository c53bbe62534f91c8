using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>What came out decides what is asked: what nobody opened stands aside, and can be read all the same.</summary>
public class ScopeTests
{
    private static TestTray On(CarburetorFamily family, string job, ChokeKind choke = ChokeKind.Manual)
    {
        var sheet = Sheets.Spec with { Family = family };
        return new TestTray(
            family == CarburetorFamily.FloatBowl ? sheet : sheet with { Float = null, Jets = [], EmulsionRows = [] },
            new CarburetorKind(family, EngineKind.FourStroke, choke)
        ).Does(new JobNote(job));
    }

    private static string[] Owed(TestTray tray, Station station) =>
        [.. tray.Book.Lines.Where(line => line.Line.Station == station && line.IsOpen).Select(line => line.Line.Key)];

    /// <summary>Written by hand, a job a row: what a technician who did just that owes at Gauge and Set.</summary>
    [Theory]
    [InlineData(CarburetorFamily.FloatBowl, "closed", "")]
    [InlineData(CarburetorFamily.FloatBowl, "bowl", "")]
    [InlineData(CarburetorFamily.FloatBowl, "idle-jet", "gauging/idle-jet")]
    [InlineData(CarburetorFamily.FloatBowl, "main-jet", "gauging/main-jet gauging/emulsion-row-1")]
    [InlineData(CarburetorFamily.FloatBowl, "inlet", "setting/float-mass setting/float-height setting/hold-test")]
    [InlineData(CarburetorFamily.Diaphragm, "pump", "setting/inlet-passes setting/pump-flaps")]
    [InlineData(CarburetorFamily.Diaphragm, "metering", "setting/metering-diaphragm setting/diaphragm-centre setting/plate-side")]
    [InlineData(CarburetorFamily.SuctionTank, "closed", "")]
    [InlineData(CarburetorFamily.SuctionTank, "off-tank", "setting/pickup-screens setting/tank-gasket setting/tank-top")]
    public void A_part_job_owes_what_it_opened_and_no_more(CarburetorFamily family, string job, string owed)
    {
        var tray = On(family, job);
        Assert.Equal(
            owed.Split(' ', StringSplitOptions.RemoveEmptyEntries).Order(),
            Owed(tray, Station.Gauging).Concat(Owed(tray, Station.Setting)).Order()
        );
        // What stands aside is offered all the same, and can be read.
        Assert.All(tray.Book.Lines.Where(line => line.Line.Required && !line.InScope), line =>
            Assert.True(line.StandsAside && !line.IsOpen && line.Judgement.Verdict == Verdict.NotRead)
        );
    }

    [Fact]
    public void What_is_read_though_nobody_asked_counts_when_it_is_bad()
    {
        var tray = On(CarburetorFamily.FloatBowl, "bowl").Does(new ReadingNote("setting/float-mass", TypedReading.Of(("mass", "8"))));
        Assert.Equal(["setting/float-mass"], Owed(tray, Station.Setting));
    }

    [Fact]
    public void What_stays_in_stands_aside_and_what_comes_out_besides_is_asked()
    {
        var whole = On(CarburetorFamily.FloatBowl, "full");
        Assert.Contains("gauging/idle-jet", Owed(whole, Station.Gauging));
        Assert.DoesNotContain("gauging/idle-jet", Owed(whole.Does(new StaysNote("idle-jet")), Station.Gauging));
        var bowl = On(CarburetorFamily.FloatBowl, "bowl").Does(new OutNote("main-jet", LineVerdict.Clean));
        Assert.Contains("gauging/main-jet", Owed(bowl, Station.Gauging));
    }

    [Fact]
    public void While_nobody_said_how_far_it_comes_apart_all_is_asked() =>
        Assert.Equal(
            Sheets.Lines.Where(line => line.Required).Select(line => line.Key),
            new TestTray(Sheets.Spec).Book.Lines.Where(line => line.IsOpen).Select(line => line.Line.Key)
        );

    /// <summary>A choke nobody touched is not tried on a part job, unless the owner came with what a choke does.</summary>
    [Fact]
    public void A_choke_is_tried_where_it_was_opened_or_complained_of()
    {
        Assert.NotEmpty(Owed(On(CarburetorFamily.FloatBowl, "full", ChokeKind.Heat), Station.Chokes));
        var bowl = On(CarburetorFamily.FloatBowl, "bowl", ChokeKind.Heat);
        Assert.Empty(Owed(bowl, Station.Chokes));
        bowl.Facts = bowl.Facts with { Complaints = [new Complaint("choke-hangs", "Choke hangs")] };
        Assert.NotEmpty(Owed(bowl, Station.Chokes));
    }

    /// <summary>Written by hand: a machine whose carburetor was not taken apart, what was done on it, and what of Prove that leaves to do.</summary>
    [Theory]
    [InlineData("", "", "", "fuel-on idle-speed governed-speed")]
    [InlineData("", "", "said", "fuel-on idle-speed governed-speed")]
    [InlineData("", "", "wont-start", "")]
    [InlineData("plug-loose", "", "", "")]
    [InlineData("fuel-filter-clogged", "", "", "fuel-on")]
    [InlineData("governor-spring-weak", "", "", "governed-speed")]
    [InlineData("mixture-set-lean", "", "", "idle-speed")]
    [InlineData("", "filter-housing", "", "")]
    [InlineData("", "fuel-hose", "", "fuel-on")]
    [InlineData("", "governor-spring", "", "governed-speed")]
    [InlineData("", "bowl", "", "fuel-on idle-speed governed-speed")]
    [InlineData("", "", "leaks-fuel", "fuel-on")]
    [InlineData("", "", "hunts", "governed-speed")]
    public void Of_a_carburetor_that_was_not_opened_what_was_touched_is_proven(string mended, string off, string told, string owed)
    {
        var tray = On(CarburetorFamily.FloatBowl, "closed");
        if (mended.Length > 0)
        {
            tray.Does(new Core.Faults.FaultNote(mended, Core.Faults.FaultOutcome.Fixed));
        }

        if (off.Length > 0)
        {
            tray.Does(new OutNote(off, LineVerdict.Refit));
        }

        if (told.Length > 0)
        {
            tray.Facts = tray.Facts with { Complaints = [new Complaint(told, told)] };
        }

        Assert.Equal(
            owed.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(line => "proving/" + line).Order(),
            Owed(tray, Station.Proving).Where(line => !line.StartsWith("proving/complaint-", StringComparison.Ordinal)).Order()
        );
    }

    [Fact]
    public void A_fix_that_was_taken_back_a_screw_that_was_turned_and_what_was_measured_count()
    {
        var tray = On(CarburetorFamily.FloatBowl, "closed");
        tray.Does(new Core.Faults.FaultNote("fuel-filter-clogged", Core.Faults.FaultOutcome.Fixed));
        tray.Does(new Core.Faults.FaultNote("fuel-filter-clogged", Core.Faults.FaultOutcome.NotIt));
        tray.Facts = tray.Facts with { Complaints = [new Complaint("wont-start", "Will not start")] };
        Assert.Equal(["proving/complaint-wont-start"], Owed(tray, Station.Proving));
        tray.Does(new Core.Build.TurnsNote("idle-needle", 12, 10, "Best idle"));
        Assert.Equal(["proving/complaint-wont-start", "proving/idle-speed", "proving/governed-speed"], Owed(tray, Station.Proving));
        tray.Does(new ReadingNote("gauging/idle-jet", Sheets.AllGood()["gauging/idle-jet"]));
        Assert.Contains("proving/fuel-on", Owed(tray, Station.Proving));
    }

    /// <summary>What the owner came with is gone: the choke it might have been needs no trying. Opened, it does.</summary>
    [Fact]
    public void A_choke_that_the_owner_came_with_stands_aside_once_it_is_gone()
    {
        var tray = On(CarburetorFamily.FloatBowl, "closed", ChokeKind.Lever);
        tray.Facts = tray.Facts with { Complaints = [new Complaint("choke-hangs", "Choke hangs"), new Complaint("hunts", "Hunts")] };
        Assert.NotEmpty(Owed(tray, Station.Chokes));
        tray.Does(new ReadingNote("proving/complaint-hunts", TypedReading.Of(("state", "gone"))));
        Assert.NotEmpty(Owed(tray, Station.Chokes));
        tray.Does(new ReadingNote("proving/complaint-choke-hangs", TypedReading.Of(("state", "gone"))));
        Assert.Empty(Owed(tray, Station.Chokes));
        Assert.NotEmpty(Owed(tray.Does(new OutNote("choke-link", LineVerdict.Refit)), Station.Chokes));
    }

    [Fact]
    public void A_choke_that_was_mended_is_tried_whatever_was_told()
    {
        var tray = On(CarburetorFamily.FloatBowl, "closed", ChokeKind.Lever);
        // While nobody knows what it came for, it may be the choke.
        Assert.NotEmpty(Owed(tray, Station.Chokes));
        tray.Facts = tray.Facts with { Complaints = [new Complaint("leaks-fuel", "Leaks fuel")] };
        Assert.Empty(Owed(tray, Station.Chokes));
        Assert.NotEmpty(
            Owed(tray.Does(new Core.Faults.FaultNote("choke-rod-misadjusted", Core.Faults.FaultOutcome.Fixed)), Station.Chokes)
        );
    }

    [Fact]
    public void What_a_choke_brings_about_is_trouble_that_an_owner_can_come_with() =>
        Assert.All(Core.Chokes.ChokesStation.OfTheChoke, id =>
            Assert.Equal(Core.Faults.FindingRole.Trouble, Core.Faults.FaultKnowledge.Shipped.FindFinding(id)?.Role)
        );

    /// <summary>An even gap on the engine says what a height says; the bulb test says what a pump says.</summary>
    [Theory]
    [InlineData("setting/float-gap", "even", "tilted", "setting/float-height")]
    [InlineData("setting/turn-test", "turns", "always", "setting/hold-test")]
    public void A_look_that_says_the_same_stands_for_a_measurement(string look, string good, string bad, string measured)
    {
        TestTray Seen(string what) => On(CarburetorFamily.FloatBowl, "inlet").Does(new ReadingNote(look, TypedReading.Of(("seen", what))));
        Assert.DoesNotContain(measured, Owed(Seen(good), Station.Setting));
        Assert.Contains(measured, Owed(Seen(bad), Station.Setting));
    }

    [Fact]
    public void A_carburetor_that_was_exchanged_owes_nothing_of_the_old_one()
    {
        var tray = On(CarburetorFamily.FloatBowl, "full").Does(new OutNote("carburetor", LineVerdict.Renew));
        Assert.NotEmpty(Owed(tray, Station.Gauging));
        tray.Does(new BackNote("carburetor", Fate.Renewed));
        Assert.Empty(Owed(tray, Station.Gauging).Concat(Owed(tray, Station.Setting)));
        Assert.Contains("proving/fuel-on", Owed(tray, Station.Proving));
    }

    [Fact]
    public void A_bowl_that_was_dropped_is_handed_back_without_a_signature_and_without_what_nobody_touched()
    {
        var tray = On(CarburetorFamily.FloatBowl, "bowl");
        foreach (var part in new[] { "bowl-nut", "bowl", "bowl-gasket" })
        {
            tray.Does(new OutNote(part, LineVerdict.Refit, Way: part == "bowl" ? "under-float" : null));
        }

        foreach (var part in new[] { "bowl-gasket", "bowl", "bowl-nut" })
        {
            tray.Does(
                new BackNote(
                    part,
                    Fate.Refitted,
                    part == "bowl" ? "under-float" : null,
                    Reason: part == "bowl-gasket" ? "Sound, a year old" : null
                )
            );
        }

        foreach (var line in new[] { "proving/fuel-on", "proving/idle-speed", "proving/governed-speed" })
        {
            tray.Does(new ReadingNote(line, Sheets.AllGood()[line]));
        }

        Assert.Empty(Policy.Obstacles(tray.Book));
        Assert.Empty(Policy.NotDone(tray.Book));
    }

    /// <summary>A bowl that was dropped and put back wants nothing of Kit; a torn gasket does.</summary>
    [Theory]
    [InlineData("bowl", LineVerdict.Refit, 0)]
    [InlineData("bowl", LineVerdict.Broken, 1)]
    [InlineData("full", LineVerdict.Refit, 1)]
    public void A_part_job_that_needs_nothing_new_leaves_kit_nothing_to_decide(string job, LineVerdict gasket, int open)
    {
        var tray = On(CarburetorFamily.FloatBowl, job);
        foreach (var part in tray.Book.Ledger.ToStrip.Select(line => line.Part.Key))
        {
            Assert.Equal(1, tray.Book.State(Station.Kits).Progress.Open);
            tray.Does(new OutNote(part, part == "bowl-gasket" ? gasket : LineVerdict.Refit, NotCounted: true));
        }

        Assert.Equal(open, tray.Book.State(Station.Kits).Progress.Open);
        Assert.Equal(open == 1 ? "1 of 2 open" : "nothing to renew", tray.Book.State(Station.Kits).Progress.Words);
    }

    [Fact]
    public void Clean_and_refit_is_a_decision_it_costs_nothing_and_makes_nothing_new()
    {
        var tray = On(CarburetorFamily.FloatBowl, "bowl");
        Assert.Equal(1, tray.Book.State(Station.Kits).Progress.Open);
        tray.Fits(new(FitOption.CleanAndRefit, "nothing new goes in", [], [], null, 0));
        Assert.Equal(0, tray.Book.State(Station.Kits).Progress.Open);
        // Nothing is new: no new part can weep.
        Assert.False(tray.Book.Lines.Select(line => line.Line).OfType<FuelWatchLine>().Single().NewFitted);
        string[] Parts() =>
            [.. tray.Book.State(Station.Kits).Report.OfType<PointsSection>().SelectMany(one => one.Points).Select(one => one.Words.Text)];
        Assert.Equal(["Nothing new went in."], Parts());
        // A gasket cut here all the same: then it is not said.
        tray.Does(new OutNote("bowl-gasket", LineVerdict.Broken)).Does(new BackNote("bowl-gasket", Fate.Made));
        Assert.Empty(Parts());
    }
}
