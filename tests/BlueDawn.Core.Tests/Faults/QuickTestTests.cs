using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using MathNet.Numerics.OdeSolvers;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>Quick tests that give a number, and what they say to the trace.</summary>
public sealed class QuickTestTests
{
    private const double Psi = 6.894757;

    private static readonly CarburetorKind TwoStroke = new(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, ChokeKind.Manual);
    private static readonly CarburetorKind HeatChoke = new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Heat);

    private static TestTray Bench(CarburetorKind kind) => new(null, kind);

    private static ReadingNote Reads(string line, params (string, string)[] typed) => new("faults/" + line, TypedReading.Of(typed));

    private static ReadingNote Compression(double psi, int pulls = 10, string throttle = "open") =>
        Reads(
            "compression",
            ("pressure", $"{psi.ToString(System.Globalization.CultureInfo.InvariantCulture)} psi"),
            ("pulls", $"{pulls}"),
            ("throttle", throttle)
        );

    private static JudgedLine On(TestTray tray, string line) =>
        Assert.Single(tray.Book.Lines, judged => judged.Line.Key == "faults/" + line);

    private static Evidence Evidence(TestTray tray) => tray.Book.State<FaultsState>().Evidence;

    /// <summary>A small two-stroke: low below 50 psi, good from 90, 55 neither clears nor condemns; ten pulls, throttle open. Common
    /// practice, no source.</summary>
    [Theory]
    [InlineData(45, 10, "open", Verdict.NotGood)]
    [InlineData(49, 14, "open", Verdict.NotGood)]
    [InlineData(55, 10, "open", Verdict.CannotTell)]
    [InlineData(89, 10, "open", Verdict.CannotTell)]
    [InlineData(90, 10, "open", Verdict.Good)]
    [InlineData(45, 9, "open", Verdict.CannotTell)]
    [InlineData(45, 10, "shut", Verdict.CannotTell)]
    // Few pulls and a shut throttle only read low: what is good with them is good.
    [InlineData(95, 4, "shut", Verdict.Good)]
    public void Compression_is_low_good_or_neither(double psi, int pulls, string throttle, Verdict verdict) =>
        Assert.Equal(verdict, On(Bench(TwoStroke).Does(Compression(psi, pulls, throttle)), "compression").Judgement.Verdict);

    /// <summary>A low reading and one with oil beside it: the rise is worked out, and says rings or not. 30 to 45 psi is half as much again,
    /// 30 to 33 a tenth.</summary>
    [Theory]
    [InlineData("45 psi", 50, "rings or bore")]
    [InlineData("34.6 psi", 15, "rings or bore")]
    [InlineData("33 psi", 10, "a valve, a gasket or a seal")]
    public void A_wet_reading_beside_the_dry_one_says_what_leaks(string wet, double rise, string what)
    {
        var tray = Bench(TwoStroke).Does(Reads("compression", ("pressure", "30 psi"), ("pulls", "10"), ("throttle", "open"), ("wet", wet)));
        var judged = On(tray, "compression").Judgement;
        Assert.Equal("compressionLow", judged.Finding);
        Assert.Equal(rise, judged.Figures.Single(figure => figure.Key == "rise").Quantity.Value, 0.5);
        Assert.Contains(what, judged.DoNext.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void The_sheets_own_band_stands_before_the_shops_and_an_engine_nobody_named_has_the_widest()
    {
        var own = new TestTray(Sheets.Spec with { Compression = new CompressionBand(500, 800) }).Does(Compression(100));
        Assert.Equal(
            (Verdict.CannotTell, "Spec sheet"),
            (On(own, "compression").Judgement.Verdict, On(own, "compression").Line.LimitSource[..10])
        );
        var unnamed = (CompressionLine)On(Bench(new(CarburetorFamily.FloatBowl, null, null)), "compression").Line;
        Assert.Equal((207.0, 620.0), (unnamed.FloorKPa, unnamed.GoodKPa));
        // The shop's marks are whole psi: 50 and 90.
        Assert.Equal(
            (50, 90),
            (
                (int)Math.Round(CompressionLine.Of(TwoStroke, SpecSheet.NoneYet(TwoStroke), new()).FloorKPa / Psi),
                (int)Math.Round(CompressionLine.Of(TwoStroke, SpecSheet.NoneYet(TwoStroke), new()).GoodKPa / Psi)
            )
        );
    }

    [Fact]
    public void A_number_is_a_finding_and_is_not_asked_for_again()
    {
        var tray = Bench(TwoStroke).Does(new FindingsNote("owner-story", [new("low-power", Said.Present)], true));
        var before = tray.Book.State<FaultsState>().Trace;
        Assert.Contains(before.Checks, value => value.Check.Id == "compression");
        double Low(Trace trace) => trace.Causes.FirstOrDefault(one => one.Cause.Id == "compression-low")?.Probability ?? 0;
        var between = new TestTray(null, TwoStroke)
            .Does(new FindingsNote("owner-story", [new("low-power", Said.Present)], true))
            .Does(Compression(60))
            .Book.State<FaultsState>()
            .Trace;
        Assert.Equal(Low(before), Low(between), 12);
        Assert.DoesNotContain(between.Checks, value => value.Check.Id == "compression");
        tray.Does(Compression(30));
        var low = tray.Book.State<FaultsState>().Trace;
        Assert.True(Low(low) > 3 * Low(before), $"{Low(before)} {Low(low)}");
        Assert.Contains(low.Evidence.Items, item => item is { FindingId: "pull-weak", Present: true, From: EvidenceFrom.Gauge });
        // A quick test is no hand on the carburetor, and stands in no one's way.
        Assert.False(tray.Book.IsWorkedOn);
        Assert.Empty(tray.Book.State(Station.Faults).Obstacles);
    }

    [Theory]
    [InlineData(6, "yes", "again", "bulbFills")]
    [InlineData(60, "yes", "dry", "bulbOnce")]
    [InlineData(60, "yes", "again", "bulbSlow")]
    [InlineData(20, "yes", "again", "bulbOnce")]
    [InlineData(60, "no", "dry", "bulbEmpty")]
    [InlineData(12, "no", "dry", "bulbOnce")]
    public void A_bulb_that_takes_tens_of_strokes_once_is_only_dry(int strokes, string fills, string dry, string finding) =>
        Assert.Equal(
            finding,
            On(
                Bench(TwoStroke).Does(Reads("bulb-strokes", ("strokes", $"{strokes}"), ("fills", fills), ("dry", dry))),
                "bulb-strokes"
            ).Judgement.Finding
        );

    [Theory]
    [InlineData("0 ml", "20 ml", "noneMissing")]
    [InlineData("0.6 l", "0.55 l", "inSump")]
    [InlineData("2 l", "0.5 l", "partInSump")]
    [InlineData("1 l", "0 l", "goneOutside")]
    [InlineData("0.2 l", "0.8 l", "moreOil")]
    public void What_is_missing_agrees_with_what_has_risen_or_says_where_it_went(string missing, string risen, string finding) =>
        Assert.Equal(
            finding,
            On(Bench(HeatChoke).Does(Reads("missing-fuel", ("missing", missing), ("risen", risen))), "missing-fuel").Judgement.Finding
        );

    /// <summary>By hand: 0.6 l in 30 days is 600 / (30 × 24 × 60) = 0.0139 ml a minute, 16.7 drops an hour at 20 drops a
    /// millilitre.</summary>
    [Fact]
    public void The_litres_say_how_fast_it_leaked_and_forbid_a_run()
    {
        var tray = Bench(HeatChoke).Does(Reads("missing-fuel", ("missing", "600"), ("risen", "600"), ("days", "30")));
        var judged = On(tray, "missing-fuel").Judgement;
        Assert.Equal(600.0 / (30 * 24 * 60), judged.Figures.Single(figure => figure.Key == "rate").Quantity.Value, 9);
        Assert.Contains(judged.Why, why => why.Quantities.Any(quantity => quantity.Value == 16.7));
        Assert.Equal(SafetyCondition.OilChanged, Evidence(tray).Safety.BeforeRunning?.Condition);
        Assert.True(tray.Book.State<FaultsState>().Trace.Causes[0] is { Cause.Id: "inlet-needle-leaking", Probability: > 0.9 });
        tray.Does(new SafetyNote(SafetyCondition.OilChanged));
        Assert.NotEqual(SafetyCondition.OilChanged, Evidence(tray).Safety.BeforeRunning?.Condition);
        // A two-stroke has no sump.
        Assert.DoesNotContain(Bench(TwoStroke).Book.Lines, line => line.Line.Key == "faults/missing-fuel");
    }

    /// <summary>
    /// Against the tank worked out drop by drop: the moles of air in it stay, the fuel's vapour refills to its pressure, and
    /// a drop leaves at a time. Source: the ideal gas law, Dalton's law.
    /// </summary>
    [Theory]
    [InlineData(300, 8, 5, 30)]
    [InlineData(1500, 12, 0.7, 45)]
    [InlineData(200, 3, 15, 15)]
    public void A_shut_tank_starves_when_its_air_is_stretched(double airML, double burn, double heldBack, double vapour)
    {
        var moles = (SealedTank.OutsideKPa - vapour) * airML;
        var (drawn, drop) = (0.0, 0.001);
        while (SealedTank.OutsideKPa - (vapour + (moles / (airML + drawn))) < heldBack)
        {
            drawn += drop;
        }

        Assert.Equal(drawn / burn, SealedTank.MinutesToStarve(airML, burn, heldBack, vapour, 0), 2);
        Assert.Equal(heldBack, SealedTank.SuctionKPa(airML, drawn, vapour), 2);
        // Fuller tanks starve sooner, and a bowl lasts a while longer.
        Assert.True(
            SealedTank.MinutesToStarve(airML / 2, burn, heldBack, vapour, 0) < SealedTank.MinutesToStarve(airML, burn, heldBack, vapour, 0)
        );
        Assert.Equal(
            20 / burn,
            SealedTank.MinutesToStarve(airML, burn, heldBack, vapour, 20) - SealedTank.MinutesToStarve(airML, burn, heldBack, vapour, 0),
            9
        );
        Assert.Equal(double.PositiveInfinity, SealedTank.MinutesToStarve(airML, burn, 100, 20, 0));
    }

    /// <summary>A blocked one-way vent let a small two-stroke run for about three minutes: common practice, no source. Its tank's air
    /// and thirst are own guesses.</summary>
    [Fact]
    public void Three_minutes_are_inside_a_small_two_strokes_window()
    {
        var (low, high) = SealedTank.Window(CarburetorFamily.Diaphragm, 300, 8);
        Assert.InRange(3, low, high);
        Assert.True(high < 60, $"{high}");
    }

    /// <summary>First-order heating against MathNet.Numerics' Runge-Kutta: after the window's edges a coil has 60 and 98 % of its
    /// rise.</summary>
    [Fact]
    public void A_coil_heats_by_the_first_order()
    {
        const double Tau = 8;
        var (low, high) = FailureTimeLine.CoilWindow(Tau);
        double After(double minutes) => RungeKutta.FourthOrder(0.0, 0, minutes, 2000, (_, rise) => (1 - rise) / Tau)[^1];
        Assert.Equal(0.6, After(low), 3);
        Assert.Equal(0.98, After(high), 3);
    }

    public static TheoryData<string, string, string, string, string, string> Times =>
        new()
        {
            // Minutes, choke open at, air, burn; judged; findings.
            { "4.2", "4", "", "", "withChoke", "dies-after-minutes+ falters-as-choke-opens+ dies-late-" },
            { "5", "2", "", "", "early", "dies-after-minutes+ falters-as-choke-opens- dies-late-" },
            {
                "4",
                "1.5",
                "500 ml",
                "6 ml/min",
                "asTankSeals",
                "dies-after-minutes+ falters-as-choke-opens- dies-as-tank-seals+ dies-late-"
            },
            // Nobody watched the choke: nothing is said of it, however late.
            { "20", "", "500 ml", "6 ml/min", "late", "dies-after-minutes+ dies-as-tank-seals- dies-late+" },
            { "9", "", "500 ml", "6 ml/min", "tankOrCoil", "dies-after-minutes+ dies-as-tank-seals+ dies-late+" },
            { "1", "", "3 l", "2 ml/min", "early", "dies-after-minutes+ dies-as-tank-seals- dies-late-" },
            { "2", "", "", "", "early", "dies-after-minutes+ dies-late-" },
        };

    [Theory]
    [MemberData(nameof(Times))]
    public void Minutes_are_held_against_choke_tank_and_coil(
        string minutes,
        string choke,
        string air,
        string burn,
        string judged,
        string findings
    )
    {
        var tray = Bench(HeatChoke)
            .Does(Reads("minutes-to-failure", ("minutes", minutes), ("choke", choke), ("air", air), ("burn", burn), ("ended", "died")));
        Assert.Equal(judged, On(tray, "minutes-to-failure").Judgement.Finding);
        Assert.Equal(findings.Split(' ').Order(), Evidence(tray).Items.Select(item => item.FindingId + (item.Present ? '+' : '-')).Order());
    }

    [Fact]
    public void One_that_dies_as_its_choke_opens_is_starved_and_neither_cap_nor_coil()
    {
        var tray = Bench(HeatChoke).Does(new FindingsNote("owner-story", [new("dies-after-minutes", Said.Present)], true));
        double P(string cause) =>
            tray.Book.State<FaultsState>().Trace.Causes.FirstOrDefault(one => one.Cause.Id == cause)?.Probability ?? 0;
        var (coil, vent, jet) = (P("coil-heat-fade"), P("tank-vent-blocked"), P("main-jet-restricted"));
        tray.Does(Reads("minutes-to-failure", ("minutes", "4"), ("choke", "4"), ("ended", "died")));
        Assert.True(
            P("coil-heat-fade") < coil / 3 && P("tank-vent-blocked") < vent && P("main-jet-restricted") > jet,
            $"{P("coil-heat-fade")} {P("tank-vent-blocked")} {P("main-jet-restricted")}"
        );
    }

    /// <summary>8 min of time constant: a coil that fails hot has done so by 31.3 min (98 % of its rise). Where it was said when it fails,
    /// twice that time.</summary>
    [Fact]
    public void A_run_that_was_stopped_says_nothing_while_what_takes_minutes_may_still_come()
    {
        TestTray After(string minutes) => Bench(HeatChoke).Does(Reads("minutes-to-failure", ("minutes", minutes), ("ended", "stopped")));
        foreach (var early in (string[])["5", "12", "31"])
        {
            Assert.Equal(Verdict.CannotTell, On(After(early), "minutes-to-failure").Judgement.Verdict);
            Assert.Empty(Evidence(After(early)).Items);
        }

        Assert.Equal(Verdict.Good, On(After("32"), "minutes-to-failure").Judgement.Verdict);
        Assert.Equal([("dies-after-minutes", false)], Evidence(After("32")).Items.Select(item => (item.FindingId, item.Present)));

        var said = Bench(HeatChoke);
        said.Facts = said.Facts with { FailsAfterMin = 6 };
        said.Does(Reads("minutes-to-failure", ("minutes", "12"), ("ended", "stopped")));
        Assert.Equal(Verdict.Good, On(said, "minutes-to-failure").Judgement.Verdict);
        // A tank that takes longer to seal than that is still to come.
        said.Does(Reads("minutes-to-failure", ("minutes", "12"), ("air", "3 l"), ("burn", "2 ml/min"), ("ended", "stopped")));
        Assert.Equal("ranShort", On(said, "minutes-to-failure").Judgement.Finding);
    }

    /// <summary>One that lives with the cap open is the vent's proof, not an all-clear; one that dies with it open is not the vent. Common
    /// practice, no source.</summary>
    [Theory]
    [InlineData("capCracked", "stopped", "40", "livesWithCapOpen", "better-cap-loose+")]
    [InlineData("capOff", "stopped", "40", "livesWithCapOpen", "better-cap-loose+")]
    [InlineData("capCracked", "stopped", "9", "ranShort", "")]
    [InlineData("capCracked", "died", "20", "diesWithCapOpen", "better-cap-loose- dies-after-minutes+ dies-late+")]
    [InlineData("capCracked", "died", "3", "diesWithCapOpen", "better-cap-loose- dies-after-minutes+ dies-late-")]
    [InlineData("plateHeld", "stopped", "40", "livesWithPlateHeld", "falters-as-choke-opens+")]
    [InlineData("plain", "stopped", "40", "runsOn", "dies-after-minutes-")]
    public void It_counts_under_which_condition_it_ran(string under, string ended, string minutes, string judged, string findings)
    {
        var tray = Bench(HeatChoke).Does(Reads("minutes-to-failure", ("minutes", minutes), ("under", under), ("ended", ended)));
        Assert.Equal(judged, On(tray, "minutes-to-failure").Judgement.Finding);
        Assert.Equal(
            findings.Split(' ', StringSplitOptions.RemoveEmptyEntries).Order(),
            Evidence(tray).Items.Select(item => item.FindingId + (item.Present ? '+' : '-')).Order()
        );
    }

    [Fact]
    public void One_that_lives_with_the_cap_open_has_a_shut_vent()
    {
        var tray = Bench(HeatChoke).Does(new FindingsNote("owner-story", [new("dies-after-minutes", Said.Present)], true));
        double Vent() =>
            tray.Book.State<FaultsState>().Trace.Causes.FirstOrDefault(one => one.Cause.Id == "tank-vent-blocked")?.Probability ?? 0;
        var before = Vent();
        tray.Does(Reads("minutes-to-failure", ("minutes", "40"), ("under", "capCracked"), ("ended", "stopped")));
        Assert.True(Vent() > Math.Max(0.5, before), $"{before} then {Vent()}");
    }
}
