using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Setting;

/// <summary>Pops found in series whose truth is known, and what is said of them.</summary>
public sealed class PopOffTests
{
    private static readonly PopOffLine Line = new(new PopOffSpec(85, 135, 55), 1, "a sheet");

    private static TypedReading Typed(params double[] pressures) =>
        new(
            UnitSystem.Metric,
            new Dictionary<string, string>(),
            [
                .. pressures
                    .Chunk(2)
                    .Select(p => new Dictionary<string, string> { ["opened"] = p[0].ToString("0.##"), ["shut"] = p[1].ToString("0.##") }),
            ]
        );

    private static Judgement Judged(params double[] pressures) => Line.Judge(Line.Read(Typed(pressures)).Reading, PinSet.Empty);

    /// <summary>The lever pressed and let go by one touch: it seals, and where it lets go by itself stays open where a sheet asks it.</summary>
    [Theory]
    [InlineData(true, "cannotTell")]
    [InlineData(false, "sealsAgain")]
    public void Pressed_and_let_go_is_one_touch(bool window, string finding)
    {
        var line = Line with { Spec = window ? Line.Spec : null };
        var answer = Assert.Single(line.Judge(null, PinSet.Empty).Answers);
        var read = line.Read(new TypedReading(UnitSystem.Metric, answer.Values, []));
        Assert.Empty(read.Problems);
        Assert.Equal(finding, line.Judge(read.Reading, PinSet.Empty).Finding);
    }

    /// <summary>Held and the gauge's needle did not move: judged by the gauge's step, as two equal pressures are.</summary>
    [Theory]
    [InlineData(1, "held")]
    [InlineData(1.5, "held")]
    [InlineData(1.6, "cannotTell")]
    public void Held_without_a_drop_is_one_touch(double step, string finding)
    {
        var line = new NeedleHoldLine(new HoldSpec(48, 10, 1.5, 2, 20, step), "a sheet");
        var answers = line.Judge(null, PinSet.Empty).Answers;
        Assert.Equal(["Held 12 s, no drop", "Held 60 s, no drop"], answers.Select(answer => answer.Label));
        Assert.All(answers, answer =>
        {
            var read = line.Read(new TypedReading(UnitSystem.Metric, answer.Values, []));
            Assert.Empty(read.Problems);
            Assert.Equal(finding, line.Judge(read.Reading, PinSet.Empty).Finding);
        });
    }

    /// <summary>Pumped up at a rate, let go at a pressure, shut at another, some times over; drawn with noise and a gauge's step.</summary>
    private static List<double> Series(
        Random random,
        int pops,
        double popKPa,
        double reseatKPa,
        double rateKPa,
        double noiseKPa,
        double stepKPa
    )
    {
        var (series, now) = (new List<double>(), 0.0);
        double Seen(double p) => Math.Round((p + (noiseKPa * Normal(random))) / stepKPa) * stepKPa;
        for (var pop = 0; pop < pops; pop++)
        {
            for (; now < popKPa; now += rateKPa)
            {
                series.Add(Seen(now));
            }

            series.Add(Seen(popKPa));
            for (var i = 1; i <= 3; i++)
            {
                series.Add(Seen(popKPa + ((reseatKPa - popKPa) * i / 3)));
            }

            for (var i = 0; i < 4; i++)
            {
                series.Add(Seen(reseatKPa));
            }

            now = reseatKPa;
        }

        return series;
    }

    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    [Theory]
    [InlineData(0.2, 0.1, 0.5)]
    [InlineData(0.5, 1, 1)]
    [InlineData(1.0, 1, 2)]
    [InlineData(1.0, 2, 5)]
    public void Three_pops_are_found_where_they_are_whatever_noise_step_and_pumping(double noise, double step, double rate)
    {
        var random = new Random(7);
        var (right, near) = (0, 0);
        const int draws = 400;
        for (var draw = 0; draw < draws; draw++)
        {
            var (pop, reseat) = (90 + (random.NextDouble() * 40), 50 + (random.NextDouble() * 20));
            var found = PopOff.Find(Series(random, 3, pop, reseat, rate, noise, step), step);
            right += found.Count == 3 ? 1 : 0;
            near += found.All(one =>
                Math.Abs(one.PopKPa - pop) < (4 * noise) + step + rate && Math.Abs(one.ReseatKPa - reseat) < (4 * noise) + step
            )
                ? 1
                : 0;
        }

        Assert.True(right >= 0.97 * draws, $"three found in {right} of {draws}");
        Assert.True(near >= 0.97 * draws, $"near in {near} of {draws}");
    }

    [Theory]
    [InlineData(0.5, 0.1)]
    [InlineData(2, 1)]
    [InlineData(4, 0.5)]
    public void A_series_in_which_nothing_lets_go_gives_a_pop_no_more_often_than_stated(double noise, double step)
    {
        var random = new Random(3);
        const int draws = 3000;
        var alarms = 0;
        for (var draw = 0; draw < draws; draw++)
        {
            var series = Enumerable.Range(0, 120).Select(i => Math.Round(((i * 0.4) + (noise * Normal(random))) / step) * step).ToList();
            alarms += PopOff.Find(series, step).Count > 0 ? 1 : 0;
        }

        // Stated 1 in 100; three standard deviations of 3000 draws above it.
        Assert.True(alarms <= draws * (PopOff.FalseAlarms + (3 * Math.Sqrt(PopOff.FalseAlarms / draws))), $"{alarms} of {draws}");
    }

    [Theory]
    [InlineData("popsRight", "110 70 112 71 109 69")]
    [InlineData("popsLow", "70 60 71 60 70 59")]
    [InlineData("popsHigh", "160 70 162 71 161 70")]
    [InlineData("popsDiffer", "90 60 130 70 105 60")]
    [InlineData("shutsLate", "110 30 112 31 109 30")]
    [InlineData("cannotTell", "110 70")]
    [InlineData("cannotTell", "84 60 86 60 85 61")]
    public void What_is_typed_pop_by_pop_is_judged(string finding, string pressures) =>
        Assert.Equal(finding, Judged([.. pressures.Split(' ').Select(double.Parse)]).Finding);

    /// <summary>The same three pops, read off at five rates: the needle lets go at 110, 112 and 109 kPa and falls within a tenth of a
    /// second; drawn with noise and a gauge's step.</summary>
    [Theory]
    [InlineData(0.1, 0.5)]
    [InlineData(0.3, 1)]
    [InlineData(0.5, 0.1)]
    public void The_same_series_at_any_rate_gives_the_same_pops(double noise, double step)
    {
        double[] tops = [110, 112, 109];
        double Pressure(double s)
        {
            // Each pump takes 8 s, the last second of it at rest.
            var (pump, at) = ((int)(s / 8), s % 8);
            var (from, top) = (pump == 0 ? 0 : 70.0, tops[Math.Min(pump, 2)]);
            return at < 6 ? from + ((top - from) * at / 6)
                : at < 6.1 ? top - ((top - 70) * (at - 6) / 0.1)
                : 70;
        }

        foreach (var rate in (int[])[10, 50, 100, 200, 500])
        {
            var random = new Random(rate);
            for (var draw = 0; draw < 20; draw++)
            {
                var times = Enumerable.Range(0, 24 * rate).Select(i => (double)i / rate).ToList();
                var series = times.Select(s => Math.Max(0, Math.Round((Pressure(s) + (noise * Normal(random))) / step) * step)).ToList();
                var pops = PopOff.Look(new PopOffInput(series, null, times)).Pops;
                Assert.Equal(3, pops.Count);
                Assert.All(pops.Zip(tops), pair => Assert.InRange(pair.First.PopKPa, pair.Second - 2.5, pair.Second + 2.5));
                Assert.All(pops, pop => Assert.InRange(pop.ReseatKPa, 68.5, 71.5));
            }
        }
    }

    /// <summary>A coarse gauge that flickers between two of its marks lets nothing go: its step is worked out from the series.</summary>
    [Theory]
    [InlineData(6.894757)]
    [InlineData(5)]
    [InlineData(2)]
    public void A_coarse_gauge_that_flickers_gives_no_pop(double step)
    {
        foreach (var rate in (int[])[4, 10, 100])
        {
            var random = new Random(rate);
            for (var draw = 0; draw < 50; draw++)
            {
                var times = Enumerable.Range(0, 30 * rate).Select(i => (double)i / rate).ToList();
                // It stands near an edge between two marks, and creeps over it.
                var series = times.Select(s => Math.Round((95 + (0.02 * s) + (0.2 * step * Normal(random))) / step) * step).ToList();
                Assert.Empty(PopOff.Look(new PopOffInput(series, null, times)).Pops);
            }
        }
    }

    [Fact]
    public void A_series_says_its_own_step()
    {
        Assert.Equal(0.2, PopOff.StepKPa([10, 10.5, 12, 12.2]), 1e-9);
        Assert.Equal(1, PopOff.StepKPa([10, 20, 30]));
        Assert.Equal(1, PopOff.StepKPa([10]));
        double[] series = [40, 60, 80, 100, 110, 70, 70, 90, 112, 71, 71, 90, 109, 69];
        Assert.Equal([110, 112, 109], PopOff.Look(new PopOffInput(series)).Pops.Select(pop => pop.PopKPa));
        Assert.Equal("gaugeResolutionKPa", Assert.Single(PopOff.Check(new PopOffInput(series, 0))).Field);
        Assert.Equal("pressuresKPa", Assert.Single(PopOff.Check(new PopOffInput([1]))).Field);
    }

    [Fact]
    public void What_stands_after_the_last_pop_is_handed_on_as_a_hold()
    {
        // Two pops, then pumped up once more to 69 and left: 40 samples of a quarter of a second that fall by 1 kPa in all.
        var random = new Random(5);
        List<double> series = [.. Series(random, 2, 110, 70, 2, 0, 0.5), 72, 74, 74];
        var from = series.Count - 2;
        series.AddRange(Enumerable.Range(1, 40).Select(i => 74 - (i / 40.0)));
        var result = PopOff.Look(new PopOffInput(series, 0.5, [.. Enumerable.Range(0, series.Count).Select(i => i * 0.25)]));
        Assert.Equal(2, result.Pops.Count);
        Assert.Equal(new PressureSample(0, 74), result.Hold[0]);
        Assert.Equal(new PressureSample((series.Count - 1 - from) * 0.25, 73), result.Hold[^1]);
        Assert.InRange(result.Hold.Count, 3, 12);
        // Without times nothing is said of a hold.
        Assert.Empty(PopOff.Look(new PopOffInput(series)).Hold);
        Assert.Equal("timesS", Assert.Single(PopOff.Check(new PopOffInput(series, 1, [1, 2]))).Field);
    }

    [Fact]
    public void A_hold_that_does_not_fall_at_all_is_a_hold_and_one_in_noise_begins_where_pumping_ended()
    {
        double[] times = [.. Enumerable.Range(0, 60).Select(i => i * 0.25)];
        var steady = PopOff.Look(new PopOffInput([.. Enumerable.Range(0, 60).Select(i => Math.Min(70.0, i * 5))], 0.5, times)).Hold;
        Assert.Equal((14 * 0.25, 45 * 0.25), (times[14], steady[^1].TimeS));
        Assert.All(steady, sample => Assert.Equal(70, sample.PressureKPa));
        var random = new Random(9);
        for (var draw = 0; draw < 200; draw++)
        {
            var hold = PopOff
                .Look(
                    new PopOffInput(
                        [.. Enumerable.Range(0, 60).Select(i => Math.Max(0, Math.Min(70.0, i * 5) + (0.3 * Normal(random))))],
                        0.1,
                        times
                    )
                )
                .Hold;
            Assert.InRange(hold[^1].TimeS, 41 * 0.25, 46 * 0.25);
        }
    }

    [Fact]
    public void A_hold_alone_is_taken_from_its_highest_pressure_on()
    {
        double[] series = [10, 30, 50, 69, 69, 68.5, 68, 68, 67.5];
        var hold = PopOff.Look(new PopOffInput(series, 0.5, [.. Enumerable.Range(0, 9).Select(i => (double)i)])).Hold;
        Assert.Equal([69, 69, 68.5, 68, 68, 67.5], hold.Select(sample => sample.PressureKPa));
        Assert.Equal([0.0, 1, 2, 3, 4, 5], hold.Select(sample => sample.TimeS));
    }

    [Fact]
    public void A_spring_opens_the_needle_at_its_force_over_the_seat()
    {
        // Hooke: 0.6 N/mm pressed 0.2 mm is 0.12 N; arms 6 and 4 mm make 0.18 N; on a seat of 1.5 mm, 1.767 mm², that is 101.86 kPa.
        var spring = new MeteringSpring(0.6, 0.2, 6, 4, 12, 1.5);
        Assert.Equal(101.86, SpringForce.PopOffKPa(spring), 0.01);
        // Half a tenth shorter is a quarter of the preload; the seat's area goes with the square: (1.5 / 1.6)² = 0.8789.
        Assert.Equal(-25.46, SpringForce.LongerSpringKPa(spring, -0.05), 0.01);
        Assert.Equal(101.86 * (0.8789 - 1), SpringForce.LargerSeatKPa(spring, 0.1), 0.01);
        // A tenth up at the diaphragm's end is half of it at the spring, as far out.
        Assert.Equal(-25.46, SpringForce.BentUpAtPivotKPa(spring, 0.1), 0.01);
        Assert.Equal(0.2 * 85 / 101.86, SpringForce.PreloadForMm(spring, 85), 0.001);
    }

    [Theory]
    [InlineData(LeverDatum.GaugeLeg, 0, "0", "leverRight")]
    [InlineData(LeverDatum.GaugeLeg, 0, "-0.4", "leverLow")]
    [InlineData(LeverDatum.GaugeLeg, 0, "0.4", "leverHigh")]
    [InlineData(LeverDatum.BodyFace, 1.65, "2.1", "leverLow")]
    [InlineData(LeverDatum.BodyFace, 1.65, "1.2", "leverHigh")]
    [InlineData(LeverDatum.ChamberFloor, 0.4, "0.1", "leverLow")]
    [InlineData(LeverDatum.ChamberFloor, 0.4, "0.54", "cannotTell")]
    public void A_lever_is_low_or_high_by_whatever_it_is_measured_from(LeverDatum datum, double height, string typed, string finding)
    {
        var line = new LeverHeightLine(new LeverSpec(datum, (decimal)height, 0.15m), "a sheet");
        Assert.Equal(finding, line.Judge(line.Read(TypedReading.Of(("height", typed))).Reading, PinSet.Empty).Finding);
    }

    [Fact]
    public void A_suction_tank_is_only_looked_at_and_every_look_is_about_a_part_it_has()
    {
        var sheet = Sheets.Spec with { Family = CarburetorFamily.SuctionTank, Float = null };
        foreach (var choke in Enum.GetValues<ChokeKind>())
        {
            var lines = new SettingStation()
                .Lines(
                    Sheets.FactsOf(sheet, new CarburetorKind(CarburetorFamily.SuctionTank, EngineKind.FourStroke, choke)),
                    sheet,
                    Sheets.Shop
                )
                .ToList();
            Assert.All(lines, line => Assert.IsType<LookLine>(line));
            Assert.Equal(choke == ChokeKind.Vacuum, lines.Any(line => line.Key == "setting/choke-chamber"));
        }

        foreach (var look in SettingStation.ShippedLooks)
        {
            foreach (var family in look.Families)
            {
                Assert.Contains(look.Part, Core.Parts.LedgerKnowledge.Shipped.All(family).Select(part => part.Key));
            }
        }
    }
}
