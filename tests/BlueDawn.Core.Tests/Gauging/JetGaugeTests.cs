using BlueDawn.Core.Gauging;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;
using CsCheck;

namespace BlueDawn.Core.Tests.Gauging;

public class JetGaugeTests
{
    private static readonly PinSet Pins = PinSet.Parse("0.30, 0.315, 0.33, 0.34, 0.345, 0.36").Value!;

    private static JetGaugeResult Judge(decimal? go, decimal? noGo, decimal nominal = 0.33m, decimal tolerance = 0.015m) =>
        JetGauge.Judge(BoreBounds.FromPins(go, noGo), nominal, tolerance, Pins);

    [Theory]
    [InlineData(0.315, 0.345, BoreVerdict.InGauge)] // bore in [0.315, 0.345), window [0.315, 0.345]
    [InlineData(0.33, 0.34, BoreVerdict.InGauge)]
    [InlineData(0.30, 0.315, BoreVerdict.Restricted)] // the stopping pin is the window's edge: every bore is below
    [InlineData(0.345, 0.36, BoreVerdict.CannotTell)] // the going pin is the edge itself, which is still inside
    [InlineData(0.346, 0.36, BoreVerdict.OpenedUp)]
    [InlineData(0.30, 0.34, BoreVerdict.CannotTell)]
    [InlineData(0.33, 0.36, BoreVerdict.CannotTell)]
    [InlineData(0.20, 0.50, BoreVerdict.CannotTell)]
    public void Two_pins_give_the_verdict_of_the_whole_interval(double go, double noGo, BoreVerdict verdict) =>
        Assert.Equal(verdict, Judge((decimal)go, (decimal)noGo).Verdict);

    [Fact]
    public void One_pin_alone_proves_only_one_side()
    {
        Assert.Equal(BoreVerdict.OpenedUp, Judge(0.36m, null).Verdict);
        Assert.Equal(BoreVerdict.CannotTell, Judge(0.33m, null).Verdict);
        Assert.Equal(BoreVerdict.Restricted, Judge(null, 0.30m).Verdict);
        Assert.Equal(BoreVerdict.CannotTell, Judge(null, 0.33m).Verdict);
    }

    [Fact]
    public void The_deciding_pin_settles_both_ways_when_one_lies_on_the_edge()
    {
        var pin = Judge(0.30m, 0.34m).DecidingPin!;
        Assert.Equal((0.315m, BoreVerdict.InGauge, BoreVerdict.Restricted), (pin.DiameterMm, pin.IfItGoes, pin.IfItStops));
    }

    [Fact]
    public void Without_a_pin_between_the_edge_itself_is_named()
    {
        var result = JetGauge.Judge(BoreBounds.FromPins(0.30m, 0.34m), 0.33m, 0.015m, PinSet.Empty);
        Assert.Null(result.DecidingPin);
        Assert.Equal(0.315m, result.DecidingSizeMm);
    }

    /// <summary>Worked by hand: 0.65/0.72 squared is 0.81501…, 0.67/0.72 squared is 0.86594….</summary>
    [Fact]
    public void Area_is_the_square_of_the_ratio_of_bores()
    {
        var result = Judge(0.65m, 0.67m, 0.72m, 0.01m);
        Assert.Equal(BoreVerdict.Restricted, result.Verdict);
        Assert.Equal(81.5008, result.AreaLowPercent, tolerance: 5e-4);
        Assert.Equal(86.5934, result.AreaHighPercent!.Value, tolerance: 5e-4);
        Assert.Equal(71, result.NearestDrill); // 0.66 mm; #71 is 0.6604 mm
    }

    [Fact]
    public void A_direct_bore_spreads_over_half_its_instruments_step_each_way()
    {
        Assert.Equal(BoreVerdict.InGauge, JetGauge.Judge(BoreBounds.FromDirect(0.34m, 0.01m), 0.33m, 0.015m, Pins).Verdict);
        Assert.Equal(BoreVerdict.CannotTell, JetGauge.Judge(BoreBounds.FromDirect(0.35m, 0.01m), 0.33m, 0.015m, Pins).Verdict);
        Assert.Equal(BoreVerdict.OpenedUp, JetGauge.Judge(BoreBounds.FromDirect(0.351m, 0.01m), 0.33m, 0.015m, Pins).Verdict);
        Assert.Equal(BoreVerdict.CannotTell, JetGauge.Judge(BoreBounds.FromDirect(0.31m, 0.01m), 0.33m, 0.015m, Pins).Verdict); // reaches 0.315 itself
        Assert.Equal(BoreVerdict.Restricted, JetGauge.Judge(BoreBounds.FromDirect(0.309m, 0.01m), 0.33m, 0.015m, Pins).Verdict);
    }

    private static readonly Gen<decimal> Size = Gen.Int[1, 200].Select(n => n / 100m);

    [Fact]
    public void A_verdict_never_contradicts_any_bore_it_allows() =>
        Gen.Select(Size, Size, Size, Gen.Int[0, 30], Gen.Decimal[0m, 1m])
            .Sample(
                (a, b, nominal, tolerance, share) =>
                {
                    if (a == b)
                    {
                        return;
                    }

                    var (go, noGo) = (Math.Min(a, b), Math.Max(a, b));
                    var tol = Math.Min(tolerance / 100m, nominal - 0.001m);
                    var bore = go + ((noGo - go) * share * 0.9999m); // any bore in [go, noGo)
                    var inside = bore >= nominal - tol && bore <= nominal + tol;
                    var result = JetGauge.Judge(BoreBounds.FromPins(go, noGo), nominal, tol, PinSet.Empty);
                    Assert.True(
                        result.Verdict switch
                        {
                            BoreVerdict.InGauge => inside,
                            BoreVerdict.Restricted => bore < nominal - tol,
                            BoreVerdict.OpenedUp => bore > nominal + tol,
                            _ => true,
                        }
                    );
                }
            );

    [Fact]
    public void Following_the_deciding_pin_always_ends_and_ends_at_the_truth() =>
        Gen.Select(Gen.Int[20, 60], Gen.Int[0, 999])
            .Sample(
                (nominalStep, offset) =>
                {
                    var nominal = nominalStep / 100m;
                    var bore = nominal - 0.06m + (offset * 0.00012m);
                    var pins = PinSet.Parse("0.10-1.00 by 0.005").Value!;
                    var bounds = BoreBounds.FromPins(0.05m, 1.10m);
                    for (var tries = 0; ; tries++)
                    {
                        var result = JetGauge.Judge(bounds, nominal, 0.02m, pins);
                        if (result.DecidingPin is not { } pin)
                        {
                            var inside = bore >= nominal - 0.02m && bore <= nominal + 0.02m;
                            Assert.True(result.Verdict != BoreVerdict.InGauge || inside);
                            Assert.True(result.Verdict is not (BoreVerdict.Restricted or BoreVerdict.OpenedUp) || !inside);
                            return;
                        }

                        Assert.True(tries < 200, "the deciding pin must narrow the bounds every time");
                        bounds =
                            pin.DiameterMm <= bore
                                ? bounds with
                                {
                                    LowMm = pin.DiameterMm,
                                }
                                : BoreBounds.FromPins(bounds.LowMm, pin.DiameterMm);
                    }
                }
            );

    [Fact]
    public void A_wider_bore_never_gets_a_narrower_verdict() =>
        Gen.Select(Size, Size, Gen.Int[1, 10])
            .Sample(
                (bore, nominal, tolerance) =>
                {
                    static int Rank(BoreVerdict verdict) =>
                        verdict switch
                        {
                            BoreVerdict.Restricted => 0,
                            BoreVerdict.OpenedUp => 2,
                            _ => 1,
                        };
                    var tol = Math.Min(tolerance / 100m, nominal / 2);
                    var narrow = JetGauge.Judge(BoreBounds.FromDirect(bore, 0.01m), nominal, tol, Pins);
                    var wide = JetGauge.Judge(BoreBounds.FromDirect(bore + 0.05m, 0.01m), nominal, tol, Pins);
                    Assert.True(Rank(wide.Verdict) >= Rank(narrow.Verdict));
                    Assert.True(wide.AreaLowPercent >= narrow.AreaLowPercent);
                }
            );

    [Fact]
    public void Inches_and_millimetres_give_the_same_verdict() =>
        Gen.Select(Gen.Int[100, 900], Gen.Int[1, 50], Gen.Int[100, 900], Gen.Int[0, 30])
            .Sample(
                (go, step, nominal, tolerance) =>
                {
                    // Tenths of a thou, once as inches through the entry, once as exact millimetres.
                    var line = new BoreLine("gauging/x", "", "", new BoreLimits(nominal * 0.00254m, tolerance * 0.00254m, ""), null);
                    Reading? Read(string a, string b) => line.Read(TypedReading.Of(("go", a), ("noGo", b))).Reading;
                    var inch = Read($"{go / 10000m} in", $"{(go + step) / 10000m} in");
                    var thou = Read($"{go / 10m} thou", $"{(go + step) / 10m} thou");
                    var mm = Read($"{go * 0.00254m} mm", $"{(go + step) * 0.00254m} mm");
                    Assert.Equal(mm, inch);
                    Assert.Equal(mm, thou);
                    Assert.Equal(line.Judge(mm, Pins).Finding, line.Judge(inch, Pins).Finding);
                }
            );

    [Theory]
    [InlineData(0.40, 0.30, "noGoPinMm")]
    [InlineData(0.30, 0.30, "noGoPinMm")]
    [InlineData(-0.3, 0.4, "goPinMm")]
    [InlineData(0.3, 99.0, "noGoPinMm")]
    public void Impossible_pins_are_named(double go, double noGo, string field)
    {
        var input = new JetGaugeInput(0.33m, 0.015m, (decimal)go, (decimal)noGo);
        Assert.Contains(JetGauge.Check(input), problem => problem.Field == field);
        Assert.Throws<ArgumentException>(() => JetGauge.Judge(input));
    }

    [Fact]
    public void Pins_and_a_direct_bore_together_are_refused() =>
        Assert.Contains(JetGauge.Check(new JetGaugeInput(0.33m, 0.015m, GoPinMm: 0.3m, BoreMm: 0.31m)), p => p.Field == "boreMm");

    [Fact]
    public void A_tolerance_that_swallows_the_bore_is_refused() =>
        Assert.Contains(JetGauge.Check(new JetGaugeInput(0.33m, 0.33m, GoPinMm: 0.3m)), p => p.Field == "toleranceMm");
}
