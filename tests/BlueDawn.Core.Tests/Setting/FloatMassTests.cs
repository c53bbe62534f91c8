using BlueDawn.Core.Setting;
using CsCheck;

namespace BlueDawn.Core.Tests.Setting;

public class FloatMassTests
{
    [Theory]
    [InlineData(6.2, 0.1, MassVerdict.Dry)]
    [InlineData(6.4, 0.1, MassVerdict.Dry)]
    [InlineData(6.5, 0.1, MassVerdict.CannotTell)] // 0.3 over, give or take 0.05, limit 0.3
    [InlineData(6.6, 0.1, MassVerdict.TakenOnFuel)]
    [InlineData(5.5, 0.1, MassVerdict.CannotTell)] // lighter than dry: wrong float or wrong zero
    [InlineData(6.2, 1, MassVerdict.CannotTell)] // the scale is coarser than the limit
    [InlineData(9, 1, MassVerdict.TakenOnFuel)] // but a heavy float is heavy on any scale
    public void The_scale_decides_only_what_its_step_allows(double mass, double step, MassVerdict verdict) =>
        Assert.Equal(verdict, FloatMass.Judge(new FloatMassInput(mass, 6.2, 0.3, step)).Verdict);

    /// <summary>Worked by hand with the middle of the EN 228 density range, 0.7475 g/mL: 1.495 g is 2 mL.</summary>
    [Fact]
    public void Fuel_taken_on_is_given_in_grams_and_millilitres()
    {
        var result = FloatMass.Judge(new FloatMassInput(7.695, 6.2, 0.3, 0.001));
        Assert.Equal(1.495, result.FuelTakenOnG, tolerance: 5e-10);
        Assert.Equal(2, result.FuelTakenOnML, tolerance: 5e-10);
    }

    [Fact]
    public void A_heavier_float_is_never_judged_drier() =>
        Gen.Select(Gen.Double[5, 9], Gen.Double[0, 1], Gen.Double[0.01, 0.5])
            .Sample(
                (mass, more, step) =>
                {
                    var first = FloatMass.Judge(new FloatMassInput(mass, 6.2, 0.3, step)).Verdict;
                    var second = FloatMass.Judge(new FloatMassInput(mass + more, 6.2, 0.3, step)).Verdict;
                    Assert.False(first == MassVerdict.TakenOnFuel && second != MassVerdict.TakenOnFuel);
                }
            );

    [Theory]
    [InlineData(0, "massG")]
    [InlineData(-2, "massG")]
    [InlineData(double.PositiveInfinity, "massG")]
    public void Impossible_masses_are_named(double mass, string field) =>
        Assert.Equal(field, Assert.Single(FloatMass.Check(new FloatMassInput(mass, 6.2, 0.3, null))).Field);
}
