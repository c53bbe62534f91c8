using BlueDawn.Core.Gauging;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Setting;

namespace BlueDawn.Core.Tests.Setting;

/// <summary>What is believed of an input and what is not: each limit itself is taken, a hair past it is not. Limits are own
/// judgement.</summary>
public class LimitsTests
{
    private static readonly HoldTestInput Hold = new([new(2, 48), new(7, 48), new(12, 48)], 48, 10, 1.5, 2, 20, 1);
    private static readonly FloatLevelInput Level = new([new(14, 0), new(14, 120), new(14, 240)], 14, 0.5, 0.4, 8, 24);
    private static readonly FloatMassInput Mass = new(6.2, 6.2, 0.3, 0.1);

    [Theory]
    [InlineData("testPressureKPa", 1e-9, 500)]
    [InlineData("windowS", 1e-9, 3600)]
    [InlineData("dropLimitKPa", 1e-9, 500)]
    [InlineData("testVolumeML", 1e-9, 100_000)]
    [InlineData("gaugeResolutionKPa", 1e-9, 100)]
    [InlineData("airPressureKPa", 1e-9, 120)]
    [InlineData("settlingS", 0, 600)]
    [InlineData("temperatureDriftC", -60, 60)]
    [InlineData("airTemperatureC", -40, 60)]
    [InlineData("samples[0].timeS", 0, 7200)]
    [InlineData("samples[0].pressureKPa", 0, 700)]
    public void Limits_of_a_hold_test(string field, double least, double most) => Limits(field, least, most, value => HoldTest.Check(
                field switch
                {
                    "testPressureKPa" => Hold with { TestPressureKPa = value },
                    "windowS" => Hold with { WindowS = value },
                    "dropLimitKPa" => Hold with { DropLimitKPa = value },
                    "testVolumeML" => Hold with { TestVolumeML = value },
                    "gaugeResolutionKPa" => Hold with { GaugeResolutionKPa = value },
                    "airPressureKPa" => Hold with { AirPressureKPa = value },
                    "settlingS" => Hold with { SettlingS = value },
                    "temperatureDriftC" => Hold with { TemperatureDriftC = value },
                    "airTemperatureC" => Hold with { AirTemperatureC = value },
                    "samples[0].timeS" => Hold with { Samples = [new(value, 48)] },
                    _ => Hold with { Samples = [new(2, value)] },
                }
            ));

    [Theory]
    [InlineData("points[0].heightMm", 0, 100)]
    [InlineData("points[0].angleDeg", -360, 360)]
    [InlineData("nominalHeightMm", 1e-9, 200)]
    [InlineData("toleranceMm", 0, 50)]
    [InlineData("unevennessLimitMm", 0, 50)]
    [InlineData("tabArmMm", 1e-9, 200)]
    [InlineData("measuringArmMm", 1e-9, 200)]
    public void Limits_of_a_float_level(string field, double least, double most) => Limits(field, least, most, value => FloatLevel.Check(
                field switch
                {
                    "points[0].heightMm" => Level with { Points = [new(value, 0), new(14, 120)] },
                    "points[0].angleDeg" => Level with { Points = [new(14, value), new(14, 120)] },
                    "nominalHeightMm" => Level with { NominalHeightMm = value },
                    "toleranceMm" => Level with { ToleranceMm = value },
                    "unevennessLimitMm" => Level with { UnevennessLimitMm = value },
                    "tabArmMm" => Level with { TabArmMm = value },
                    _ => Level with { MeasuringArmMm = value },
                }
            ));

    [Theory]
    [InlineData("massG", 1e-9, 1000)]
    [InlineData("dryMassG", 1e-9, 1000)]
    [InlineData("toleranceG", 0, 100)]
    [InlineData("resolutionG", 1e-9, 10)]
    public void Limits_of_a_float_mass(string field, double least, double most) => Limits(field, least, most, value => FloatMass.Check(
                field switch
                {
                    "massG" => Mass with { MassG = value },
                    "dryMassG" => Mass with { DryMassG = value },
                    "toleranceG" => Mass with { ToleranceG = value },
                    _ => Mass with { ResolutionG = value },
                }
            ));

    [Theory]
    [InlineData(0, true)]
    [InlineData(80, true)]
    [InlineData(-1, false)]
    [InlineData(81, false)]
    public void Turns_are_believed_up_to_ten(int eighths, bool taken) => Assert.Equal(taken, Turns.Check(eighths) is null);

    [Fact]
    public void Heights_have_angles_all_or_none_and_there_is_at_least_one()
    {
        Assert.Equal("points[1].angleDeg", Assert.Single(FloatLevel.Check(Level with { Points = [new(14, 0), new(14)] })).Field);
        Assert.Equal("points", Assert.Single(FloatLevel.Check(Level with { Points = [] })).Field);
    }

    [Fact]
    public void A_pin_that_goes_is_smaller_than_one_that_stops_and_a_tolerance_smaller_than_its_bore()
    {
        static string[] Fields(JetGaugeInput input) => [.. JetGauge.Check(input).Select(problem => problem.Field)];
        var right = new JetGaugeInput(0.72m, 0.01m, 0.71m, 0.73m);
        Assert.Empty(Fields(right));
        Assert.Equal(["noGoPinMm"], Fields(right with { GoPinMm = 0.73m }));
        Assert.Equal(["toleranceMm"], Fields(right with { ToleranceMm = 0.72m }));
        Assert.Empty(Fields(right with { ToleranceMm = 0 }));
        Assert.Empty(Fields(right with { GoPinMm = null, NoGoPinMm = null, BoreMm = 0.72m, ResolutionMm = 1 }));
        Assert.Equal(["resolutionMm"], Fields(right with { GoPinMm = null, NoGoPinMm = null, BoreMm = 0.72m, ResolutionMm = 1.001m }));
        Assert.Equal(["resolutionMm"], Fields(right with { GoPinMm = null, NoGoPinMm = null, BoreMm = 0.72m, ResolutionMm = 0 }));
        Assert.Equal(["goPinMm"], Fields(right with { GoPinMm = null, NoGoPinMm = null }));
        Assert.Empty(Fields(right with { PinsMm = [0.01m, 25] }));
        Assert.Single(Fields(right with { PinsMm = [0.7m, 0] }));
        Assert.Single(Fields(right with { PinsMm = [0.7m, 25.01m] }));
    }

    private static void Limits(string field, double least, double most, Func<double, IReadOnlyList<Core.Measures.FieldProblem>> check)
    {
        Assert.DoesNotContain(check(least), problem => problem.Field == field);
        Assert.DoesNotContain(check(most), problem => problem.Field == field);
        Assert.Contains(check(least > 0 ? 0 : least - 1e-9), problem => problem.Field == field);
        Assert.Contains(check(most + 1e-9), problem => problem.Field == field);
        Assert.Contains(check(double.NaN), problem => problem.Field == field);
    }
}
