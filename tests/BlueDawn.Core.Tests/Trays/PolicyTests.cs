using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>The rules between stations, each tried on a tray.</summary>
public sealed class PolicyTests
{
    private static readonly Fitting Kit = new(FitOption.Kit, "kit", [], [], null, 0);

    private static TestTray Measured(Action<Dictionary<string, TypedReading>>? change = null)
    {
        var readings = Sheets.AllGood();
        change?.Invoke(readings);
        return new TestTray(Sheets.Spec).Fits(Kit).Reads(readings);
    }

    [Fact]
    public void All_good_is_free_to_go()
    {
        var tray = Measured();
        Assert.Empty(Policy.Obstacles(tray.Book));
        Assert.Equal(Station.Handover, tray.Next.Station);
        Assert.Equal("ready", tray.Book.State(Station.Handover).Progress.Words);
    }

    [Fact]
    public void A_missing_spec_sheet_is_said_and_stands_in_nobodys_way()
    {
        var tray = new TestTray(null).Does(new JobNote("closed"));
        Assert.DoesNotContain(Policy.Obstacles(tray.Book), obstacle => obstacle.Station == Station.Kits);
        Assert.Contains(tray.Book.State(Station.Kits).Report.OfType<PointsSection>().SelectMany(section => section.Points), point =>
            point is { Chapter: ReportChapter.Found } && point.Words.Text.StartsWith("No spec sheet", StringComparison.Ordinal)
        );
        Assert.Equal(Station.Kits, tray.Next.Station);
    }

    [Theory]
    [InlineData(CarburetorFamily.FloatBowl, "setting/hold-test")]
    [InlineData(CarburetorFamily.Diaphragm, "setting/lever-height")]
    [InlineData(CarburetorFamily.SuctionTank, "proving/fuel-on")]
    public void Without_a_sheet_what_is_usual_is_asked_and_work_goes_on(CarburetorFamily family, string asked)
    {
        var tray = new TestTray(null, new CarburetorKind(family, null, null));
        Assert.Contains(tray.Book.Lines, line => line.Line.Key == asked && line.IsOpen && line.Line.LimitSource.Length > 0);
        Assert.Equal("Find its spec sheet by the stamped number, or make one.", tray.Next.Do.Text);
        Assert.NotEqual(tray.Next.Do, tray.Does(new JobNote("full")).Next.Do);
    }

    [Fact]
    public void What_has_no_limit_is_kept_and_judged_once_a_sheet_gives_one()
    {
        var typed = TypedReading.Of(("go", "0.65"), ("noGo", "0.68"));
        var without = new TestTray(null).Does(new ReadingNote("gauging/main-jet", typed));
        var line = without.Book.Lines.Single(one => one.Line.Key == "gauging/main-jet");
        Assert.Equal((Verdict.CannotTell, "noLimit", false), (line.Judgement.Verdict, line.Judgement.Finding, line.IsOpen));
        Assert.Equal("0.65 mm goes, 0.68 mm stops", line.Line.Describe(line.Reading!).ToString());
        Assert.DoesNotContain(Policy.Obstacles(without.Book), obstacle => obstacle.LineKey == "gauging/main-jet");
        // The sheet of these tests wants 0.72 mm.
        without.Facts = without.Facts with { Sheet = Sheets.Spec };
        Assert.Equal("restricted", without.Book.Lines.Single(one => one.Line.Key == "gauging/main-jet").Judgement.Finding);
        Assert.Equal(
            RefusalKind.Wrong,
            new TestTray(null).Refuses(new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.7"), ("noGo", "0.6"))))?.Kind
        );
    }

    [Fact]
    public void Missing_failing_and_undecided_each_stand_in_the_way()
    {
        var tray = Measured(readings =>
        {
            readings.Remove("gauging/main-jet");
            readings["setting/float-height"] = Sheets.Rows("height", "angle", ("0", "16"), ("120", "16"), ("240", "16"));
            readings["gauging/idle-jet"] = TypedReading.Of(("go", "0.30"), ("noGo", "0.34"));
        });
        Assert.Equal(
            [
                ("gauging/main-jet", ObstacleKind.Missing),
                ("gauging/idle-jet", ObstacleKind.Undecided),
                ("setting/float-height", ObstacleKind.Failing),
            ],
            Policy.Obstacles(tray.Book).Select(obstacle => (obstacle.LineKey, obstacle.Kind))
        );
    }

    [Fact]
    public void Obstacles_stand_in_bench_order()
    {
        var tray = new TestTray(null).Does(new JobNote("full")).Does(new OutNote("bowl", LineVerdict.Clean));
        Assert.Equal(
            [Station.Setting, Station.Build, Station.Proving],
            Policy.Obstacles(tray.Book).Select(obstacle => obstacle.Station).Distinct()
        );
    }

    [Theory]
    [InlineData(null, RefusalKind.StillOpen)]
    [InlineData("   ok   ", RefusalKind.Wrong)]
    [InlineData("Owner wants it as it is", null)]
    public void What_is_open_goes_only_with_a_reason_that_says_something(string? reason, RefusalKind? refused) =>
        Assert.Equal(refused, new TestTray(Sheets.Spec).Refuses(new ReleaseNote(reason))?.Kind);

    [Fact]
    public void The_next_step_is_the_undecided_before_the_failing_before_the_unread()
    {
        Assert.Equal("gauging/main-jet", Measured(readings => readings.Remove("gauging/main-jet")).Next.LineKey);
        var undecided = Measured(readings =>
        {
            readings.Remove("gauging/main-jet");
            readings["gauging/idle-jet"] = TypedReading.Of(("go", "0.30"), ("noGo", "0.34"));
        });
        Assert.Equal("gauging/idle-jet", undecided.Next.LineKey);
        Assert.Equal(Station.Kits, TestTray.Untouched().Next.Station);
    }

    [Fact]
    public void Half_taken_apart_it_is_taken_apart_before_anything_is_decided() =>
        Assert.Equal(Station.Strip, new TestTray(Sheets.Spec).Does(new JobNote("full")).Next.Station);

    [Fact]
    public void Nobody_who_has_measured_is_asked_to_take_it_apart()
    {
        var fresh = new TestTray(Sheets.Spec).Fits(Kit);
        Assert.Equal(Station.Strip, fresh.Next.Station);
        fresh.Does(new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.715"), ("noGo", "0.73"))));
        Assert.Equal(Station.Gauging, fresh.Next.Station);
    }

    [Fact]
    public void An_open_trace_leads_until_something_after_it_has_been_started()
    {
        var tray = new TestTray(Sheets.Spec).Does(new FindingsNote("owner-story", [new("hunts", Said.Present)], true));
        Assert.Equal(Station.Faults, tray.Next.Station);
        Assert.NotEqual(Station.Faults, new TestTray(Sheets.Spec).Next.Station);
        Assert.Equal(Station.Strip, tray.Does(new JobNote("full")).Next.Station);
        Assert.NotEqual(
            Station.Faults,
            new TestTray(Sheets.Spec)
                .Does(new FindingsNote("owner-story", [new("hunts", Said.Present)], true))
                .Does(new FaultNote("fuel-stale", FaultOutcome.Fixed))
                .Next.Station
        );
    }

    [Fact]
    public void What_is_next_on_an_open_trace_hangs_on_the_shops_history_and_nothing_else_does()
    {
        Assert.True(
            Policy.AsksHistory(new TestTray(Sheets.Spec).Does(new FindingsNote("owner-story", [new("hunts", Said.Present)], true)).Book)
        );
        Assert.False(Policy.AsksHistory(Measured().Book));
        Assert.False(Policy.AsksHistory(new TestTray(Sheets.Spec).Book));
    }

    [Fact]
    public void Prove_waits_for_build()
    {
        var tray = TestTray.Untouched();
        var fuelOn = new ReadingNote("proving/fuel-on", Sheets.AllGood()["proving/fuel-on"]);
        Assert.Null(tray.Refuses(fuelOn));
        tray.Does(new JobNote("full")).Does(new OutNote("bowl", LineVerdict.Clean));
        Assert.Equal("Not to be proven yet.", tray.Refuses(fuelOn)?.Title);
        tray.Does(new BackNote("bowl", Fate.Refitted, "under-float"));
        Assert.Null(tray.Refuses(fuelOn));
    }

    [Fact]
    public void A_declined_machine_goes_back_unread()
    {
        var tray = new TestTray(Sheets.Spec).Fits(Kit with { Option = FitOption.Decline });
        Assert.Empty(Policy.Obstacles(tray.Book));
        Assert.StartsWith("Hand it back as it came", tray.Next.Do.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void A_tray_that_was_handed_back_takes_nothing_but_what_brings_it_back()
    {
        var tray = Measured().Does(new ReleaseNote());
        Assert.Equal(WaitsFor.HandedBack, tray.Facts.WaitsFor);
        Assert.Equal("Handed back.", tray.Next.Do.Text);
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(new OutNote("bowl", LineVerdict.Clean))?.Kind);
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(new FactsNote(Complaint: "Hunts again"))?.Kind);
        Assert.Null(tray.Refuses(new FactsNote(WaitsFor: WaitsFor.Hands)));
        Assert.NotEqual("Handed back.", tray.Does(new FactsNote(WaitsFor: WaitsFor.Hands)).Next.Do.Text);
    }

    /// <summary>Nobody who has begun a ledger is asked to begin it, and nobody who has measured is asked to take it apart first.</summary>
    [Fact]
    public void Strip_is_asked_for_once_it_is_begun_until_it_is_done_and_not_after_measuring()
    {
        var begun = new TestTray(Sheets.Spec)
            .Fits(new Fitting(FitOption.SingleParts, "Needle", [], ["needle"], null, 0))
            .Does(new JobNote("bowl"));
        Assert.Equal((Station.Strip, "Take off: "), (begun.Next.Station, begun.Next.Do.Text[.."Take off: ".Length]));
        var measured = new TestTray(Sheets.Spec)
            .Fits(new Fitting(FitOption.SingleParts, "Needle", [], ["needle"], null, 0))
            .Does(new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.715"), ("noGo", "0.73"))));
        Assert.NotEqual(Station.Strip, measured.Next.Station);
    }

    /// <summary>What stands in the way is listed as the bench goes: gauge before set before build before prove.</summary>
    [Fact]
    public void Every_obstacle_stands_in_bench_order()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("bowl", LineVerdict.Clean));
        var stations = Policy.Obstacles(tray.Book).Select(obstacle => obstacle.Station).ToList();
        Assert.Equal([Station.Gauging, Station.Setting, Station.Build, Station.Proving], stations.Distinct());
        Assert.Equal(stations.Order(), stations);
        Assert.Equal(
            ["gauging/main-jet", "gauging/idle-jet", "gauging/emulsion-row-1"],
            Policy.Obstacles(tray.Book).Where(obstacle => obstacle.Station == Station.Gauging).Select(obstacle => obstacle.LineKey)
        );
    }

    /// <summary>Everything read and good is not everything done: complaint, trace and cleaning are named before it goes, and no longer
    /// once they are done.</summary>
    [Fact]
    public void What_was_not_done_is_named_before_a_tray_goes()
    {
        var tray = Measured(_ => { })
            .Does(
                new FindingsNote(
                    "owner-story",
                    [new FindingAnswer("wont-start", Said.Present), new FindingAnswer("stood-unused", Said.Present)],
                    true
                )
            );
        Assert.Equal(
            [
                "The owner’s complaint was not tried again: will not start.",
                "The trace is open: what was wrong has not been settled.",
                "Nothing was cleaned.",
            ],
            Policy.NotDone(tray.Book)
        );
        Assert.Equal(
            (Station.Handover, "Read and good, but look what was not done before it goes."),
            (tray.Next.Station, tray.Next.Do.Text)
        );
        Assert.Contains("Nothing was cleaned.", tray.Next.Why.Text, StringComparison.Ordinal);

        tray.Does(new FindingsNote(null, [new FindingAnswer("wont-start", Said.Absent)]))
            .Does(new FaultNote("fuel-stale", FaultOutcome.Fixed))
            .Does(new Core.Cleaning.MethodNote("brush", Core.Cleaning.MethodStep.Done))
            .Does(new Core.Cleaning.DryNote());
        Assert.Empty(Policy.NotDone(tray.Book));
        Assert.Empty(Policy.NotDone(Measured(_ => { }).Fits(new Fitting(FitOption.Decline, "Not repaired", [], [], null, 0)).Book));
    }

    /// <summary>Oil thinned by fuel does not carry a crankshaft: no speed is read before it is changed, whichever page asks. Common
    /// practice, no source.</summary>
    [Fact]
    public void With_fuel_in_the_oil_no_running_speed_is_taken()
    {
        var speed = new ReadingNote("proving/governed-speed", TypedReading.Of(("speed", "3400")));
        var tray = TestTray.Untouched();
        Assert.Null(tray.Refuses(speed));
        tray.Does(new FindingsNote(null, [new FindingAnswer("fuel-in-oil", Said.Present)]));
        Assert.Equal((RefusalKind.Conflict, "This engine must not run yet."), (tray.Refuses(speed)!.Kind, tray.Refuses(speed)!.Title));
        Assert.Null(
            tray.Refuses(new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "dry"))))
        ); // standing still
        Assert.StartsWith("Fuel in the oil", Policy.WhyNotRun(tray.Book), StringComparison.Ordinal);
        tray.Does(new SafetyNote(SafetyCondition.OilChanged));
        Assert.Null(tray.Refuses(speed));
    }

    [Fact]
    public void A_reading_of_a_line_that_is_not_asked_for_is_not_found() =>
        Assert.Equal(
            RefusalKind.NotFound,
            new TestTray(null).Refuses(new ReadingNote("gauging/emulsion-row-1", TypedReading.Of(("go", "0.7"))))?.Kind
        );

    [Fact]
    public void The_watch_list_remembers_what_was_cured_and_what_was_not()
    {
        var readings = Sheets.AllGood();
        readings.Remove("proving/idle-speed");
        var tray = TestTray
            .Untouched()
            .Does(new ReadingNote("gauging/idle-jet", TypedReading.Of(("go", "0.30"), ("noGo", "0.31"))))
            .Reads(readings);
        var points = WatchList.Of(
            tray.Book.Lines,
            new Dictionary<string, Core.Parts.Fate>(),
            false,
            CarburetorFamily.FloatBowl,
            new HashSet<string>()
        );
        Assert.Contains(points, point => point.StartsWith("Idle jet was restricted", StringComparison.Ordinal));
        Assert.Contains(points, point => point.StartsWith("Idle speed: was not read", StringComparison.Ordinal));
        Assert.Equal(3, points.Count); // and how to store it
    }
}
