using BlueDawn.Core.Setting;
using CsCheck;

namespace BlueDawn.Core.Tests.Setting;

public class HoldTestTests
{
    private static HoldTestInput Input(IEnumerable<(double S, double KPa)> samples, double resolution = 1, double? drift = null, double limit = 1.5) => new(
        [.. samples.Select(p => new PressureSample(p.S, p.KPa))], 48, 10, limit, 2, 20, resolution, drift, null, null);

    private static IEnumerable<(double S, double KPa)> Decay(double start, double tau, double end = 14) =>
        Enumerable.Range(0, (int)end + 1).Select(s => ((double)s, start * Math.Exp(-s / tau)));

    private static HoldTestResult Judge(params (double S, double KPa)[] samples) => HoldTest.Judge(Input(samples));

    [Fact]
    public void A_steady_gauge_has_held()
    {
        var result = Judge((2, 48), (7, 48), (12, 48));
        Assert.Equal(HoldVerdict.Held, result.Verdict);
        Assert.Equal(0, result.DropKPa!.Value, 9);
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
        Assert.Equal(69.3147, result.HalfLifeS!.Value, 3);
        Assert.Equal(47.0495, result.StartKPa!.Value, 3);
        Assert.Equal(4.4773, result.DropKPa!.Value, 3);
        Assert.Equal(5.5721, result.LeakMLPerMin!.Value, 3);
        Assert.Equal(13, result.SamplesUsed); // seconds 2 to 14
    }

    [Fact]
    public void What_happens_while_it_settles_does_not_count() =>
        Assert.Equal(HoldVerdict.Held, Judge((0, 55), (1, 51), (2, 48), (7, 48), (12, 48)).Verdict);

    [Theory]
    [InlineData(HoldDoubt.TooFewSamples, 1, 0, new double[] { 2, 48, 12, 48 })]
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
    public void An_emptied_line_is_a_leak_and_not_a_crash() =>
        Assert.Equal(HoldVerdict.Leaks, Judge((2, 48), (7, 0), (12, 0)).Verdict);

    /// <summary>Gas law by hand: (48 + 101.325) kPa ÷ 293.15 K = 0.5094 kPa a degree.</summary>
    [Fact]
    public void One_degree_moves_a_sealed_48_kPa_by_half_a_kPa() =>
        Assert.Equal(0.5094, HoldTest.TemperatureEffectKPa(48, 1), 4);

    /// <summary>Gas law: what leaked, as free air, is what the volume lost: V·Δp/p_air, for any decay.</summary>
    [Fact]
    public void The_leak_integrated_over_time_is_the_air_the_volume_lost() =>
        Gen.Select(Gen.Double[20, 400], Gen.Double[5, 100]).Sample((tau, volume) =>
        {
            double p = 48, dt = 0.01, leaked = 0;
            for (var t = 0.0; t < 60; t += dt)
            {
                var middle = p * Math.Exp(-dt / 2 / tau);
                leaked += HoldTest.LeakMLPerMin(volume, middle / tau) * dt / 60;
                p *= Math.Exp(-dt / tau);
            }

            Assert.Equal(volume * (48 - p) / HoldTest.StandardAirKPa, leaked, 1e-5 * leaked);
        });

    [Fact]
    public void A_faster_leak_is_never_judged_tighter() =>
        Gen.Select(Gen.Double[20, 5000], Gen.Double[0.2, 1]).Sample((tau, faster) =>
        {
            static int Rank(HoldVerdict verdict) => verdict switch { HoldVerdict.Held => 0, HoldVerdict.CannotTell => 1, _ => 2 };
            var slow = HoldTest.Judge(Input(Decay(50, tau), resolution: 0.5));
            var quick = HoldTest.Judge(Input(Decay(50, tau * faster), resolution: 0.5));
            Assert.True(Rank(quick.Verdict) >= Rank(slow.Verdict));
            Assert.True(quick.DropKPa >= slow.DropKPa - 1e-9);
        });

    [Fact]
    public void The_order_of_the_samples_does_not_matter() =>
        Gen.Shuffle(Decay(48, 200).ToArray()).Sample(shuffled =>
            Assert.Equal(HoldTest.Judge(Input(Decay(48, 200))).DropKPa!.Value, HoldTest.Judge(Input(shuffled)).DropKPa!.Value, 9));

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
}
