using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Chokes;

/// <summary>What is said of each kind of choke. Common practice, no source.</summary>
public sealed class ChokesTests
{
    private static OpeningLine Opening(ChokeKind choke) => new(choke, OpeningLimits.Of(choke, Sheets.Spec, new()));

    private static Judgement Judged(GaugeLine line, params (string, string)[] typed)
    {
        var read = line.Read(TypedReading.Of(typed));
        Assert.Empty(read.Problems);
        return line.Judge(read.Reading, PinSet.Empty);
    }

    [Theory]
    [InlineData("2.4", "", "ranOn", "opensRight")]
    [InlineData("2.8", "", "ranOn", "cannotTell")]
    [InlineData("6", "", "ranOn", "opensLate")]
    [InlineData("", "", "notOpened", "neverOpened")]
    [InlineData("2.4", "3", "faltered", "starvedAsItOpens")]
    [InlineData("2.4", "40", "faltered", "cannotTell")]
    public void A_vacuum_choke_is_open_within_three_seconds(string open, string faltered, string end, string finding) =>
        Assert.Equal(finding, Judged(Opening(ChokeKind.Vacuum), ("open", open), ("faltered", faltered), ("end", end)).Finding);

    [Theory]
    [InlineData("120", "20", "ranOn", "opensRight")]
    [InlineData("300", "20", "ranOn", "opensLate")]
    [InlineData("300", "-10", "ranOn", "opensRight")] // colder: longer
    [InlineData("20", "20", "ranOn", "openedEarly")]
    public void A_heat_choke_has_a_window_that_moves_with_the_day(string open, string ambient, string end, string finding) =>
        Assert.Equal(finding, Judged(Opening(ChokeKind.Heat), ("open", open), ("ambient", ambient), ("end", end)).Finding);

    [Fact]
    public void An_engine_that_dies_after_four_minutes_as_its_choke_opens_is_starved_and_neither_choked_nor_electrical()
    {
        var said = Judged(
            Opening(ChokeKind.Heat),
            ("begins", "150"),
            ("open", "236"),
            ("faltered", "240"),
            ("ambient", "4"),
            ("end", "faltered")
        );
        Assert.Equal((Verdict.NotGood, "starvedAsItOpens"), (said.Verdict, said.Finding));
        Assert.Contains("not to coil or cap", said.DoNext.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void A_heat_choke_tells_when_it_opens_on_another_day()
    {
        var said = Judged(Opening(ChokeKind.Heat), ("begins", "60"), ("half", "76"), ("open", "96"), ("ambient", "18"), ("end", "ranOn"));
        var (at, least, most) = (Figure(said, "at0"), Figure(said, "at0Least"), Figure(said, "at0Most"));
        Assert.True(least <= at && at <= most && at > 96, $"{least} {at} {most}");
        // Without the day's temperature nothing is foretold.
        Assert.DoesNotContain(Judged(Opening(ChokeKind.Heat), ("begins", "60"), ("open", "96"), ("end", "ranOn")).Figures, figure =>
            figure.Key == "at0"
        );
    }

    [Fact]
    public void What_was_seen_after_it_was_stopped_belongs_to_the_same_start()
    {
        var said = Judged(
            Opening(ChokeKind.Vacuum),
            ("open", "2.2"),
            ("steady", "6"),
            ("stopped", "30"),
            ("closed", "31.5"),
            ("end", "ranOn")
        );
        Assert.Equal((6, 1.5), (Figure(said, "steady"), Figure(said, "closed")));
        string Wrong(params (string, string)[] typed) =>
            Assert.Single(Opening(ChokeKind.Vacuum).Read(TypedReading.Of([("open", "2.2"), ("end", "ranOn"), .. typed])).Problems).Field;
        Assert.Equal("stopped", Wrong(("stopped", "1")));
        Assert.Equal("closed", Wrong(("closed", "31")));
    }

    private static double Figure(Judgement said, string key) => said.Figures.Single(figure => figure.Key == key).Quantity.Value;

    [Theory]
    [InlineData("open", "", "ranOn", "")]
    [InlineData("open", "5", "notOpened", "")]
    [InlineData("faltered", "", "faltered", "")]
    [InlineData("open", "3", "ranOn", "4")]
    public void What_does_not_go_together_is_said_at_its_box(string field, string open, string end, string begins) =>
        Assert.Equal(
            field,
            Assert.Single(Opening(ChokeKind.Vacuum).Read(TypedReading.Of(("open", open), ("begins", begins), ("end", end))).Problems).Field
        );

    [Theory]
    [InlineData("8", "10", "rodRight", "")]
    [InlineData("8", "8.2", "cannotTell", "")]
    [InlineData("8", "6", "rodShort", "3")]
    public void A_rod_that_gives_too_little_is_bent_shorter(string needed, string given, string finding, string shorter)
    {
        var said = Judged(new RodTravelLine(1), ("needed", needed), ("given", given));
        Assert.Equal(finding, said.Finding);
        Assert.True(shorter == "" || said.DoNext.Quantities[0].Value == double.Parse(shorter));
    }

    [Theory]
    [InlineData("4", "8", "6", "springRight", "")]
    [InlineData("4", "8", "9", "springTight", "3")]
    [InlineData("4", "8", "3", "springSlack", "3")]
    [InlineData("4", "5", "5", "springTight", "")]
    public void A_spring_goes_midway_between_slack_and_tight(string slack, string tight, string now, string finding, string halfTurns)
    {
        var said = Judged(new ReturnSpringLine(), ("slack", slack), ("tight", tight), ("now", now));
        Assert.Equal(finding, said.Finding);
        Assert.True(halfTurns == "" || said.DoNext.Quantities[0].Value == double.Parse(halfTurns));
        Assert.True(finding == "springRight" || halfTurns != "" || said.DoNext.Text.Contains("nearer hole", StringComparison.Ordinal));
    }

    [Fact]
    public void What_the_sheet_says_of_a_choke_stands_before_the_shops_defaults()
    {
        var sheet = Sheets.Spec with
        {
            Opens = new ChokeLimits(OpensLowS: 20, OpensHighS: 60, Element: HeatElement.Wax, BeginsC: 40, FullC: 60, StrokeMm: 3),
        };
        IReadOnlyList<GaugeLine> Lines(SpecSheet of) =>
            [
                .. new ChokesStation().Lines(
                    Sheets.FactsOf(of, new CarburetorKind(of.Family, EngineKind.FourStroke, ChokeKind.Heat)),
                    of,
                    Sheets.Shop
                ),
            ];
        var (own, usual) = (Lines(sheet), Lines(Sheets.Spec));
        Assert.Equal(
            (20, 60, sheet.Name),
            (
                own.OfType<OpeningLine>().Single().Opens.LowS,
                own.OfType<OpeningLine>().Single().Opens.HighS,
                own.OfType<OpeningLine>().Single().LimitSource
            )
        );
        Assert.Equal((3, 60), (own.OfType<WarmWaterLine>().Single().StrokeMm, own.OfType<WarmWaterLine>().Single().Melts.FullC));
        // It is wax: no coil is asked for. Where nobody has said, both are offered.
        Assert.Empty(own.OfType<WarmStripLine>());
        Assert.Single(usual.OfType<WarmStripLine>());
        Assert.Equal("Shop default for chokes", usual.OfType<OpeningLine>().Single().LimitSource);
    }

    /// <summary>
    /// Melting points of n-alkanes: CRC Handbook of Chemistry and Physics, from memory. Hexacosane 56.4, octacosane 61.4,
    /// triacontane 65.8, dotriacontane 69.7, tetratriacontane 72.9, hexatriacontane 76.2 °C: waxes a pellet can be made of.
    /// </summary>
    [Fact]
    public void A_wax_pellet_works_where_paraffins_melt()
    {
        double[] meltsC = [56.4, 61.4, 65.8, 69.7, 72.9, 76.2];
        var usual = new ChokeDefaults();
        Assert.InRange(usual.WaxBeginsC, meltsC[0] - 3, meltsC[1]);
        Assert.InRange(usual.WaxFullC, meltsC[3], meltsC[^1]);
    }

    [Fact]
    public void A_sheet_that_gives_only_the_latest_has_no_earliest_and_says_so()
    {
        var sheet = Sheets.Spec with { Opens = new ChokeLimits(OpensHighS: 30) };
        var line = new OpeningLine(ChokeKind.Heat, OpeningLimits.Of(ChokeKind.Heat, sheet, new()));
        Assert.Equal("open within 30 s at 20 °C", line.Target.ToString());
        // 25 s is before the shop's earliest of 40 s, which does not count here.
        Assert.Equal("opensRight", Judged(line, ("open", "25"), ("ambient", "20"), ("end", "ranOn")).Finding);
        Assert.Equal("opensLate", Judged(line, ("open", "50"), ("ambient", "20"), ("end", "ranOn")).Finding);
    }

    [Fact]
    public void A_chamber_is_held_only_where_there_is_one()
    {
        bool Asked(CarburetorFamily family) =>
            new ChokesStation()
                .Lines(
                    Sheets.FactsOf(Sheets.Spec, new CarburetorKind(family, EngineKind.FourStroke, ChokeKind.Vacuum)),
                    Sheets.Spec,
                    Sheets.Shop
                )
                .OfType<ChamberHoldLine>()
                .Any();
        Assert.True(Asked(CarburetorFamily.SuctionTank));
        Assert.False(Asked(CarburetorFamily.FloatBowl));
    }

    [Fact]
    public void Two_instruments_that_sent_on_their_own_are_one_start_when_they_sent_together()
    {
        var at = new DateTimeOffset(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);
        double[] times = [.. Enumerable.Range(0, 201).Select(i => i / 2.0)],
            angles = [.. times.Select(t => 78 * (1 - Math.Clamp((t - 40) / 40, 0, 1)))];
        // The tachometer reads every second; the engine stumbles at 81 s.
        double[] speedTimes = [.. Enumerable.Range(0, 101).Select(i => (double)i)],
            speeds = [.. speedTimes.Select(t => t < 81 ? 3000.0 : 900)];
        OpeningEvents Looked(int secondsLater) =>
            OpeningSeries.Look(OpeningSeries.Together(at, times, angles, at.AddSeconds(secondsLater), speedTimes, speeds));
        Assert.Equal((81, StartEnd.Faltered), (Looked(20).FalteredS, Looked(20).Ended));
        Assert.Equal((null, StartEnd.RanOn), (Looked(90).FalteredS, Looked(90).Ended));
        Assert.Null(OpeningSeries.Together(at, times, angles, null, null, null).SpeedsRpm);
        Assert.Equal(
            "speedTimesS",
            Assert.Single(OpeningSeries.Check(new OpeningSeriesInput(times, angles, speeds, SpeedTimesS: [.. speedTimes.Reverse()]))).Field
        );
    }

    [Theory]
    [InlineData("10 9.9 9.8", "chamberHolds")]
    [InlineData("10 7 4.9", "chamberLeaks")]
    public void A_chamber_keeps_its_suction_or_its_diaphragm_leaks(string suctions, string finding)
    {
        var line = new ChamberHoldLine(new ChokeDefaults().ChamberHold, "shop");
        var read = line.Read(Sheets.Rows("pressure", "time", [.. suctions.Split(' ').Select((kPa, i) => ((2 + (5 * i)).ToString(), kPa))]));
        Assert.Empty(read.Problems);
        Assert.Equal(finding, line.Judge(read.Reading, PinSet.Empty).Finding);
    }

    [Theory]
    [InlineData("80", "4", "pinMoves")]
    [InlineData("50", "0.5", "cannotTell")]
    [InlineData("80", "0.5", "pinStays")]
    [InlineData("176 F", "0.5", "pinStays")] // 80 °C
    public void A_pin_that_stays_in_hot_water_has_failed(string water, string stroke, string finding) =>
        Assert.Equal(
            finding,
            Judged(new WarmWaterLine(2, new OpeningWindow(55, 75), "shop"), ("water", water), ("stroke", stroke)).Finding
        );

    [Fact]
    public void Suction_pulls_with_pressure_times_area()
    {
        // A stiff piston is the whole circle, a bare membrane a third of it: 10 kPa on 36 mm, 1017.9 mm², is 10.179 N.
        Assert.Equal(10.179, SuctionForceLine.PullN(10, 36, 36), 0.001);
        Assert.Equal(10.179 / 3, SuctionForceLine.PullN(10, 36, 0), 0.001);
        Assert.True(SuctionForceLine.PullN(10, 42, 20) > SuctionForceLine.PullN(10, 36, 20));
        Assert.Equal(
            "cannotTell",
            Judged(new SuctionForceLine(), ("suction", "5"), ("diaphragm", "36"), ("plate", "20"), ("spring", "300")).Finding
        );
    }

    [Fact]
    public void A_series_of_angle_and_speed_says_what_a_hand_on_a_key_would_have()
    {
        // Shut at 80 degrees until 40 s, open at 0 by 60 s; the speed drops at 61 s. Every 0.5 s, noise of half a degree.
        var random = new Random(2);
        var times = Enumerable.Range(0, 160).Select(i => i * 0.5).ToList();
        List<double> Angles() => [.. times.Select(t => 80 - (80 * Math.Clamp((t - 40) / 20, 0, 1)) + (random.NextDouble() - 0.5))];
        for (var draw = 0; draw < 50; draw++)
        {
            var seen = OpeningSeries.Look(
                new OpeningSeriesInput(times, Angles(), [.. times.Select(t => t < 61 ? 3000 + (40 * random.NextDouble()) : 1200)], 80, 0)
            );
            Assert.InRange(seen.BeginsS!.Value, 40, 42.5);
            Assert.InRange(seen.HalfS!.Value, 49, 51);
            Assert.InRange(seen.OpenS!.Value, 57.5, 60.5);
            Assert.Equal((61.0, StartEnd.Faltered), (seen.FalteredS!.Value, seen.Ended));
            Assert.Equal(StartEnd.RanOn, OpeningSeries.Look(new OpeningSeriesInput(times, Angles(), null, 80, 0)).Ended);
        }

        Assert.Equal(StartEnd.NotOpened, OpeningSeries.Look(new OpeningSeriesInput([0, 1, 2, 3], [80, 80, 80, 80])).Ended);
        Assert.Equal("anglesDeg", Assert.Single(OpeningSeries.Check(new OpeningSeriesInput([0, 1, 2, 3], [80, 80]))).Field);
    }

    private static readonly double[] Ten = [0, 10, 20, 30, 40, 50, 60, 70, 80, 90];

    /// <summary>A plate swings some 75 degrees from shut to open (common practice, no source): half of that is not open.</summary>
    [Fact]
    public void A_plate_that_stops_half_way_is_not_open()
    {
        double[] half = [0, 0, 8, 20, 32, 40, 40, 40, 40, 40];
        var seen = OpeningSeries.Look(new OpeningSeriesInput(Ten, half));
        Assert.Equal((null, StartEnd.NotOpened), (seen.OpenS, seen.Ended));
        Assert.NotNull(seen.BeginsS);
        Assert.NotNull(seen.HalfS);
        // Measured from the other side, and with the sheet's open angle.
        Assert.Null(OpeningSeries.Look(new OpeningSeriesInput(Ten, [.. half.Select(angle => 90 - angle)])).OpenS);
        Assert.NotNull(OpeningSeries.Look(new OpeningSeriesInput(Ten, half, OpenDeg: 40)).OpenS);
        // As far as plates swing is open.
        Assert.Equal(StartEnd.RanOn, OpeningSeries.Look(new OpeningSeriesInput(Ten, [0, 0, 10, 30, 50, 65, 70, 70, 70, 70])).Ended);
    }

    [Fact]
    public void A_plate_that_never_moved_has_no_times()
    {
        double[] still = [10, 10.5, 9.6, 10.2, 11, 10.4, 9.5, 10, 10.8, 10.1];
        foreach (var input in new OpeningSeriesInput[] { new(Ten, still), new(Ten, still, ShutDeg: 10, OpenDeg: 85) })
        {
            var seen = OpeningSeries.Look(input);
            Assert.Equal((null, null, null, StartEnd.NotOpened, false), (seen.BeginsS, seen.HalfS, seen.OpenS, seen.Ended, seen.StoodOpen));
        }
    }

    [Theory]
    [InlineData(null)]
    [InlineData(0.0)]
    public void A_plate_that_stood_open_from_the_start_is_told_so(double? shut)
    {
        double[] open = [84, 85, 85, 85, 86, 85, 85, 84, 85, 85];
        var seen = OpeningSeries.Look(new OpeningSeriesInput(Ten, open, ShutDeg: shut, OpenDeg: 85));
        Assert.Equal((true, null, null), (seen.StoodOpen, seen.BeginsS, seen.OpenS));
        Assert.False(
            OpeningSeries.Look(new OpeningSeriesInput(Ten, [0, 0, 20, 40, 60, 80, 85, 85, 85, 85], ShutDeg: shut, OpenDeg: 85)).StoodOpen
        );
    }

    [Fact]
    public void Each_choke_is_asked_for_its_own_and_an_unknown_one_only_for_what_holds_for_all()
    {
        string[] Keys(ChokeKind? choke) =>
            [
                .. new ChokesStation()
                    .Lines(
                        Sheets.FactsOf(Sheets.Spec, new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, choke)),
                        Sheets.Spec,
                        Sheets.Shop
                    )
                    .Select(line => line.Key[7..]),
            ];
        Assert.Equal(["plate-moves", "choke-held", "throttle-returns", "runs-open"], Keys(null));
        Assert.Equal(["plate-moves", "choke-held", "throttle-returns", "knob-ends", "runs-open"], Keys(ChokeKind.Manual));
        Assert.Contains("opening", Keys(ChokeKind.Vacuum));
        Assert.Contains("warm-water", Keys(ChokeKind.Heat));
        Assert.Contains("return-spring", Keys(ChokeKind.Lever));
    }

    private static TestTray Vacuum() =>
        new TestTray(Sheets.Spec, new CarburetorKind(CarburetorFamily.SuctionTank, EngineKind.FourStroke, ChokeKind.Vacuum)).Does(
            new Core.Parts.JobNote("closed")
        );

    private static ReadingNote Look(string key, string seen) => new($"chokes/{key}", TypedReading.Of(("seen", seen)));

    private static ReadingNote Timed { get; } = new("chokes/opening", TypedReading.Of(("open", "2.4"), ("end", "ranOn")));

    [Fact]
    public void Nothing_that_is_timed_without_the_cleaners_screw_counts()
    {
        var tray = Vacuum().Does(Look("cleaner-screw", "out"));
        Assert.Contains("screw is not in", Assert.Single(tray.Refuses(Timed)!.Fields).Message, StringComparison.Ordinal);
        Assert.Null(tray.Does(Look("cleaner-screw", "in")).Refuses(Timed));
    }

    [Fact]
    public void An_engine_whose_throttle_hangs_does_not_run()
    {
        var tray = Vacuum().Does(Look("throttle-returns", "hangs"));
        Assert.Contains("throttle does not return", tray.Refuses(Timed)!.Detail, StringComparison.Ordinal);
        Assert.NotNull(tray.Refuses(new ReadingNote("proving/idle-speed", TypedReading.Of(("speed", "1600")))));
        Assert.Null(tray.Does(Look("throttle-returns", "returns")).Refuses(Timed));
    }

    [Fact]
    public void Every_look_is_about_a_part_its_families_have()
    {
        foreach (var look in ChokesStation.ShippedLooks.Where(look => look.Part is not null))
        {
            Assert.All(look.Families, family =>
                Assert.Contains(look.Part, Core.Parts.LedgerKnowledge.Shipped.All(family).Select(part => part.Key))
            );
        }
    }

    [Fact]
    public void No_engine_runs_to_time_its_choke_while_a_part_lies_on_the_bench()
    {
        var tray = new TestTray(Sheets.Spec, new CarburetorKind(CarburetorFamily.SuctionTank, EngineKind.FourStroke, ChokeKind.Vacuum))
            .Does(new Core.Parts.JobNote("full"))
            .Adds(new Core.Parts.OutNote("air-cleaner", Core.Parts.LineVerdict.Refit));
        Assert.NotNull(tray.Refuses(Timed));
        Assert.Null(Vacuum().Refuses(Timed));
    }
}
