using BlueDawn.Core.Holding;
using CsCheck;

namespace BlueDawn.Core.Tests.Holding;

public class HoldTestTests
{
    private static HoldTestInput Input(
        IEnumerable<(double S, double KPa)> samples,
        double resolution = 1,
        double? drift = null,
        double limit = 1.5
    ) => new([.. samples.Select(p => new PressureSample(p.S, p.KPa))], 48, 10, limit, 2, 20, resolution, drift, null, null);

    private static IEnumerable<(double S, double KPa)> Decay(double start, double tau, double end = 14) =>
        Enumerable.Range(0, (int)end + 1).Select(s => ((double)s, start * Math.Exp(-s / tau)));

    private static HoldTestResult Judge(params (double S, double KPa)[] samples) => HoldTest.Judge(Input(samples));

    [Fact]
    public void A_steady_gauge_has_held()
    {
        var result = Judge((2, 48), (7, 48), (12, 48));
        Assert.Equal(HoldVerdict.Held, result.Verdict);
        Assert.Equal(0, result.DropKPa!.Value, tolerance: 5e-10);
        Assert.Null(result.HalfLifeS);
        Assert.Equal(0, result.LeakMLPerMin!.Value);
    }

    [Fact]
    public void A_falling_gauge_leaks() => Assert.Equal(HoldVerdict.Leaks, Judge((2, 48), (7, 44), (12, 40)).Verdict);

    /// <summary>
    /// Worked by hand: τ = 100 s halves in 69.31 s; from 48·e^(−0.02) = 47.0495 it loses 47.0495·(1 − e^(−0.1)) = 4.4773
    /// in 10 s; the leak is 20 mL × 0.470495 kPa/s × 60 ÷ 101.325 kPa = 5.5721 mL/min.
    /// </summary>
    [Fact]
    public void Drop_half_life_and_leak_of_a_known_decay_are_found()
    {
        var result = HoldTest.Judge(Input(Decay(48, 100), resolution: 0.1));
        Assert.Equal(69.3147, result.HalfLifeS!.Value, tolerance: 5e-4);
        Assert.Equal(47.0495, result.StartKPa!.Value, tolerance: 5e-4);
        Assert.Equal(4.4773, result.DropKPa!.Value, tolerance: 5e-4);
        Assert.Equal(5.5721, result.LeakMLPerMin!.Value, tolerance: 5e-4);
        Assert.Equal(13, result.SamplesUsed); // seconds 2 to 14
    }

    /// <summary>A steady valve that lets go loses what it lost at once, whatever a curve through everything would say.</summary>
    [Theory]
    [InlineData(new double[] { 2, 48, 12, 48, 22, 48, 30, 48, 31, 40 }, 30, 31)]
    [InlineData(new double[] { 2, 48, 5, 48, 7, 48, 9, 48, 12, 40 }, 9, 12)]
    public void A_valve_that_lets_go_leaks_and_it_is_said_when(double[] flat, double from, double to)
    {
        var result = HoldTest.Judge(Input(Enumerable.Range(0, flat.Length / 2).Select(i => (flat[2 * i], flat[(2 * i) + 1]))));
        Assert.Equal(HoldVerdict.Leaks, result.Verdict);
        Assert.Equal((from, to, 8), (result.Fall!.FromS, result.Fall.ToS, result.DropKPa));
    }

    [Fact]
    public void A_fall_too_small_to_prove_is_not_called_held()
    {
        var result = HoldTest.Judge(Input([(2, 48), (8, 48), (14, 48), (20, 48), (26, 48), (30, 48), (31, 46)]));
        Assert.Equal((HoldVerdict.CannotTell, HoldDoubt.FellAtOnce), (result.Verdict, result.Doubts[0]));
    }

    /// <summary>
    /// Drawn tests: a known decay, read with a known scatter and rounded to the gauge's step. The interval holds the true
    /// drop in at least 95 of 100, and the opposite of the truth is said in at most 2 of 100.
    /// </summary>
    [Theory]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(8)]
    [InlineData(20)]
    public void The_stated_uncertainty_holds_the_truth(int readings)
    {
        const int Draws = 4000;
        var random = new Random(20261127 + readings);
        var (held, opposite, decided) = (0, 0, 0);
        for (var draw = 0; draw < Draws; draw++)
        {
            var step = 0.1 * Math.Pow(20, random.NextDouble());
            var noise = 2 * random.NextDouble() * step;
            const double Limit = 1.5;
            var drop = 4 * random.NextDouble() * Limit;
            var start = 48 + (4 * random.NextDouble());
            var rate = -Math.Log(1 - (drop / start)) / 10;
            var samples = Enumerable
                .Range(0, readings)
                .Select(i => 10.0 * i / (readings - 1))
                .Select(at =>
                    (
                        2 + at,
                        Math.Max(
                            0,
                            Math.Round(
                                ((start * Math.Exp(-rate * at)) + (noise * MathNet.Numerics.Distributions.Normal.Sample(random, 0, 1)))
                                    / step
                            ) * step
                        )
                    )
                );
            var result = HoldTest.Judge(Input(samples, step));
            held += Math.Abs(result.DropKPa!.Value - drop) <= result.DropUncertaintyKPa!.Value ? 1 : 0;
            decided += result.Verdict != HoldVerdict.CannotTell ? 1 : 0;
            opposite += result.Verdict == (drop > Limit ? HoldVerdict.Held : HoldVerdict.Leaks) ? 1 : 0;
        }

        TestContext.Current.TestOutputHelper!.WriteLine($"{readings}: {held} of {Draws} held, {opposite} opposite, {decided} decided");
        Assert.True(held >= 0.95 * Draws, $"{held} of {Draws} held, {opposite} opposite, {decided} decided");
        Assert.True(opposite <= 0.02 * Draws, $"{opposite} opposite of {Draws}, {decided} decided");
        Assert.True(decided >= 0.2 * Draws, $"only {decided} of {Draws} decided");
    }

    /// <summary>How a pressure goes: held, evenly down, down a curve, let go once.</summary>
    public enum Course
    {
        Held,
        Ramp,
        Curve,
        LetGo,
    }

    /// <summary>
    /// Drawn in every cell of course, scatter and number of readings: the interval holds what was lost within any window in 93
    /// of 100, and the opposite of the truth is said in at most 3 of 100.
    /// </summary>
    [Theory]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(10)]
    [InlineData(20)]
    [InlineData(60)]
    public void In_every_cell_the_interval_holds_what_was_lost(int readings)
    {
        const int Draws = 1500;
        const double Step = 0.5;
        const double Limit = 1.5;
        const double Window = 10;
        var wrong = new List<string>();
        foreach (var course in Enum.GetValues<Course>())
        {
            foreach (var noise in (double[])[0.1, 0.3, 1, 3, 10])
            {
                foreach (var length in (double[])[10, 30])
                {
                    var random = new Random(20261202);
                    var (held, opposite, decided) = (0, 0, 0);
                    for (var draw = 0; draw < Draws; draw++)
                    {
                        var start = 48 + (4 * random.NextDouble());
                        var drop = course == Course.Held ? 0 : 4 * random.NextDouble() * Limit;
                        var at = length * random.NextDouble();
                        var rate = -Math.Log(1 - (drop / start)) / Window;
                        double Pressure(double s) =>
                            course switch
                            {
                                Course.Held => start,
                                Course.Ramp => start - (drop * s / Window),
                                Course.Curve => start * Math.Exp(-rate * s),
                                Course.LetGo => s < at ? start : start - drop,
                                _ => throw new ArgumentOutOfRangeException(nameof(s)),
                            };
                        var times = Enumerable.Range(0, readings).Select(i => length * i / (readings - 1)).ToList();
                        var samples = times.Select(s =>
                            (
                                2 + s,
                                Math.Max(
                                    0,
                                    Math.Round(
                                        (Pressure(s) + (noise * Step * MathNet.Numerics.Distributions.Normal.Sample(random, 0, 1))) / Step
                                    ) * Step
                                )
                            )
                        );
                        var result = HoldTest.Judge(Input(samples, Step, limit: Limit));
                        held += Math.Abs(result.DropKPa!.Value - drop) <= result.DropUncertaintyKPa!.Value + 1e-9 ? 1 : 0;
                        decided += result.Verdict != HoldVerdict.CannotTell ? 1 : 0;
                        opposite += result.Verdict == (drop > Limit ? HoldVerdict.Held : HoldVerdict.Leaks) ? 1 : 0;
                    }

                    var cell =
                        $"{course}, {noise} steps, {readings} in {length} s: {held} of {Draws} held, {opposite} opposite, {decided} decided";
                    TestContext.Current.TestOutputHelper!.WriteLine(cell);
                    if (held < 0.93 * Draws || opposite > 0.03 * Draws)
                    {
                        wrong.Add(cell);
                    }
                }
            }
        }

        Assert.Empty(wrong);
    }

    private static IEnumerable<(double S, double KPa)> Readings(int count, Func<int, double> pressure) =>
        Enumerable.Range(0, count).Select(i => (2.0 + i, pressure(i)));

    /// <summary>Two kPa were lost at once between two long rests: no number says that it held, however long it rested.</summary>
    [Fact]
    public void What_let_go_between_two_rests_is_what_was_lost()
    {
        var fine = HoldTest.Judge(Input(Readings(60, i => i < 30 ? (i % 7 == 6 ? 50.0 : 50.5)
                    : i % 5 == 4 ? 49.0
                    : 48.5), resolution: 0.5));
        Assert.NotEqual(HoldVerdict.Held, fine.Verdict);
        Assert.InRange(2.0, fine.DropKPa!.Value - fine.DropUncertaintyKPa!.Value, fine.DropKPa.Value + fine.DropUncertaintyKPa.Value);

        // 51 and 48 on a gauge of 1 kPa: at least 2.0 was lost, more than 1.5.
        var coarse = HoldTest.Judge(Input(Readings(60, i => i < 30 ? 51 : 48), resolution: 1));
        Assert.Equal(HoldVerdict.Leaks, coarse.Verdict);
        Assert.True(coarse.DropKPa - coarse.DropUncertaintyKPa > 1.5);
    }

    /// <summary>Nothing fell, from the first look to the last: that is enough where the gauge's step leaves no doubt, also while it
    /// settled.</summary>
    [Theory]
    [InlineData(1, HoldVerdict.Held, new double[] { 0, 48, 3, 48, 6, 48, 10, 48 })]
    [InlineData(1, HoldVerdict.Held, new double[] { 0, 48, 60, 48 })]
    [InlineData(2, HoldVerdict.CannotTell, new double[] { 0, 48, 60, 48 })]
    [InlineData(1, HoldVerdict.CannotTell, new double[] { 0, 48, 60, 47 })]
    [InlineData(0.5, HoldVerdict.Held, new double[] { 0, 48, 60, 47.5 })]
    [InlineData(1, HoldVerdict.CannotTell, new double[] { 0, 48, 9, 48 })]
    [InlineData(1, HoldVerdict.CannotTell, new double[] { 0, 40, 60, 40 })]
    public void Nothing_fell_from_the_first_look_to_the_last(double step, HoldVerdict verdict, double[] flat) =>
        Assert.Equal(
            verdict,
            HoldTest.Judge(Input(Enumerable.Range(0, flat.Length / 2).Select(i => (flat[2 * i], flat[(2 * i) + 1])), step)).Verdict
        );

    [Fact]
    public void The_start_is_where_settling_ends() =>
        Assert.Equal(
            48,
            HoldTest.Judge(Input(Decay(48 * Math.Exp(0.02), 100).Where(sample => sample.S >= 4), resolution: 0.1)).StartKPa!.Value,
            3
        );

    [Fact]
    public void A_gauge_at_nothing_starts_at_nothing_and_says_nothing_of_the_valve()
    {
        var result = Judge((2, 0), (7, 0), (12, 0));
        Assert.Equal((HoldVerdict.CannotTell, 0), (result.Verdict, Math.Round(result.StartKPa!.Value, 6)));
        Assert.Contains(HoldDoubt.PressureTooLow, result.Doubts);
    }

    [Fact]
    public void An_emptied_line_is_sure_to_have_lost_what_it_had()
    {
        var result = Judge((2, 48), (7, 0), (12, 0));
        Assert.InRange(result.DropKPa!.Value, 46, 50);
        Assert.InRange(result.DropUncertaintyKPa!.Value, 0.5, 10);
    }

    /// <summary>48 and 46 on a gauge of 1 kPa can be 48.49 and 45.51: 2.98 lost, more than 2.5.</summary>
    [Fact]
    public void What_the_gauge_may_have_hidden_is_not_held() =>
        Assert.Equal(HoldVerdict.CannotTell, HoldTest.Judge(Input([(2, 48), (7, 47), (12, 46)], limit: 2.5)).Verdict);

    /// <summary>Gas law by hand: (20 + 101.325) ÷ 293.15 × 4 = 1.65547 kPa at the 20 kPa that were there, not 2.0376 at 48.</summary>
    [Fact]
    public void Temperature_counts_at_the_pressure_that_was_there() =>
        Assert.Equal(1.65547, HoldTest.Judge(Input([(2, 20), (7, 20), (12, 20)], drift: 4)).TemperatureEffectKPa, tolerance: 5e-5);

    [Fact]
    public void What_happens_while_it_settles_does_not_count() =>
        Assert.Equal(HoldVerdict.Held, Judge((0, 55), (1, 51), (2, 48), (7, 48), (12, 48)).Verdict);

    [Theory]
    [InlineData(HoldDoubt.TooFewSamples, 1, 0, new double[] { 2, 48, 12, 46 })]
    [InlineData(HoldDoubt.Borderline, 1, 0, new double[] { 2, 48, 7, 48, 12, 40 })] // three readings, one of them may be misread
    [InlineData(HoldDoubt.TooShort, 1, 0, new double[] { 2, 48, 5, 48, 8, 48 })]
    [InlineData(HoldDoubt.GaugeTooCoarse, 5, 0, new double[] { 2, 50, 7, 50, 12, 50 })]
    [InlineData(HoldDoubt.PressureTooLow, 1, 0, new double[] { 2, 30, 7, 30, 12, 30 })]
    [InlineData(HoldDoubt.PressureRose, 1, 0, new double[] { 2, 48, 7, 50, 12, 52 })]
    [InlineData(HoldDoubt.TemperatureDrift, 0.1, 4, new double[] { 2, 48, 7, 47, 12, 46 })] // 2 kPa lost, 4 °C explain 2.04
    [InlineData(HoldDoubt.TemperatureDrift, 0.1, 4, new double[] { 2, 48, 7, 48, 12, 48 })] // or hide as much
    [InlineData(HoldDoubt.Borderline, 1, 0, new double[] { 2, 48, 7, 47.3, 12, 46.6 })]
    public void Each_doubt_is_named(HoldDoubt doubt, double resolution, double drift, double[] flat)
    {
        var samples = Enumerable.Range(0, flat.Length / 2).Select(i => (flat[2 * i], flat[(2 * i) + 1]));
        var result = HoldTest.Judge(Input(samples, resolution, drift));
        Assert.Equal(HoldVerdict.CannotTell, result.Verdict);
        Assert.Equal(doubt, result.Doubts[0]);
    }

    [Fact]
    public void A_plain_leak_is_a_leak_on_any_gauge_and_in_any_time()
    {
        Assert.Equal(HoldVerdict.Leaks, Judge((2, 48), (4, 30), (6, 15)).Verdict); // too short, but plainly leaking
        Assert.Equal(HoldVerdict.Leaks, HoldTest.Judge(Input([(2, 50), (7, 30), (12, 10)], resolution: 5)).Verdict);
        Assert.Equal(HoldVerdict.Leaks, HoldTest.Judge(Input([(2, 48), (7, 30), (12, 20)], drift: 4)).Verdict);
    }

    [Fact]
    public void An_emptied_line_is_a_leak_and_not_a_crash() => Assert.Equal(HoldVerdict.Leaks, Judge((2, 48), (7, 0), (12, 0)).Verdict);

    /// <summary>Gas law by hand: (48 + 101.325) kPa ÷ 293.15 K = 0.5094 kPa a degree.</summary>
    [Fact]
    public void One_degree_moves_a_sealed_48_kPa_by_half_a_kPa() =>
        Assert.Equal(0.5094, HoldTest.TemperatureEffectKPa(48, 1), tolerance: 5e-5);

    /// <summary>Gas law: what leaked, as free air, is what the volume lost: V·Δp/p_air, for any decay.</summary>
    [Fact]
    public void The_leak_integrated_over_time_is_the_air_the_volume_lost() =>
        Gen.Select(Gen.Double[20, 400], Gen.Double[5, 100])
            .Sample(
                (tau, volume) =>
                {
                    double p = 48,
                        dt = 0.01,
                        leaked = 0;
                    for (var t = 0.0; t < 60; t += dt)
                    {
                        var middle = p * Math.Exp(-dt / 2 / tau);
                        leaked += HoldTest.LeakMLPerMin(volume, middle / tau) * dt / 60;
                        p *= Math.Exp(-dt / tau);
                    }

                    Assert.Equal(volume * (48 - p) / HoldTest.StandardAirKPa, leaked, 1e-5 * leaked);
                }
            );

    [Fact]
    public void A_faster_leak_is_never_judged_tighter() =>
        Gen.Select(Gen.Double[20, 5000], Gen.Double[0.2, 1])
            .Sample(
                (tau, faster) =>
                {
                    static int Rank(HoldVerdict verdict) =>
                        verdict switch
                        {
                            HoldVerdict.Held => 0,
                            HoldVerdict.CannotTell => 1,
                            _ => 2,
                        };
                    var slow = HoldTest.Judge(Input(Decay(50, tau), resolution: 0.5));
                    var quick = HoldTest.Judge(Input(Decay(50, tau * faster), resolution: 0.5));
                    Assert.True(Rank(quick.Verdict) >= Rank(slow.Verdict));
                    Assert.True(quick.DropKPa >= slow.DropKPa - 1e-9);
                }
            );

    [Fact]
    public void The_order_of_the_samples_does_not_matter() =>
        Gen.Shuffle(Decay(48, 200).ToArray())
            .Sample(shuffled =>
                Assert.Equal(HoldTest.Judge(Input(Decay(48, 200))).DropKPa!.Value, HoldTest.Judge(Input(shuffled)).DropKPa!.Value, 9)
            );

    [Theory]
    [InlineData(-1, 48, "samples[0].timeS")]
    [InlineData(1, -3, "samples[0].pressureKPa")]
    [InlineData(1, double.NaN, "samples[0].pressureKPa")]
    [InlineData(1, 4800, "samples[0].pressureKPa")]
    public void Impossible_samples_are_named(double time, double pressure, string field) =>
        Assert.Equal(field, Assert.Single(HoldTest.Check(Input([(time, pressure)]))).Field);

    [Fact]
    public void Two_pressures_at_one_time_are_refused() =>
        Assert.Contains(HoldTest.Check(Input([(2, 48), (2, 40)])), problem => problem.Field == "samples");

    /// <summary>The largest fall is looked for in one pass; here among all pairs.</summary>
    [Fact]
    public void The_largest_fall_within_the_window_is_the_largest_of_all_pairs()
    {
        var random = new Random(27);
        var letGo = 0;
        for (var i = 0; i < 400; i++)
        {
            var at = random.Next(4, 26);
            var samples = Enumerable
                .Range(0, 30)
                .Select(s => (S: (double)s, KPa: (s < at ? 48.0 : 36 + random.Next(3)) + (random.Next(3) * 0.5)))
                .ToList();
            var result = HoldTest.Judge(Input(samples, resolution: 0.5));
            if (result.Fall is null)
            {
                continue;
            }

            letGo++;
            var used = samples.Where(sample => sample.S >= 2).ToList();
            var largest = used.Max(late =>
                used.Where(early => early.S < late.S && late.S - early.S <= 10)
                    .Select(early => early.KPa - late.KPa)
                    .DefaultIfEmpty(0)
                    .Max()
            );
            Assert.Equal(largest, result.DropKPa!.Value, tolerance: 1e-9);
        }

        Assert.True(letGo > 200, $"only {letGo} of 400 let go");
    }

    [Fact]
    public void A_long_log_is_judged_and_a_longer_one_than_two_hours_is_refused()
    {
        HoldTestInput Log(int count) => Input(Enumerable.Range(0, count).Select(i => (i * 0.14, 48.0)));
        Assert.Equal(HoldVerdict.Held, HoldTest.Judge(Log(50_000)).Verdict);
        Assert.Equal("samples", Assert.Single(HoldTest.Check(Log(50_001))).Field);
    }
}
