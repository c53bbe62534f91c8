using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Tests.Chokes;

/// <summary>
/// A bimetal coil against S. Timoshenko, Analysis of bi-metal thermostats (1925): his equation for equal layers, worked by
/// hand here, and a composite beam solved from equilibrium and equal strain.
/// </summary>
public sealed class BimetalTests
{
    [Theory]
    [InlineData(1, 1.5)] // equal stiffness: three halves
    [InlineData(2, 24 / 16.5)] // 24 / (14 + n + 1/n)
    [InlineData(0.5, 24 / 16.5)]
    public void Equal_layers_bend_as_his_equation_5_says(double stiffnessRatio, double factor)
    {
        // h = 1 mm, difference 10⁻⁵ per kelvin: curvature per kelvin is factor × 10⁻⁵ / mm. That stiffness hardly matters is his remark.
        Assert.Equal(factor * 1e-5, Bimetal.CurvaturePerK(1, 1e-5, 1, stiffnessRatio), 1e-12);
    }

    [Theory]
    [InlineData(0.4, 0.6, 140, 210)]
    [InlineData(0.5, 0.5, 200, 100)]
    [InlineData(0.2, 0.8, 70, 190)]
    public void Any_two_layers_bend_as_equilibrium_and_equal_strain_say(double first, double second, double modulus, double otherModulus)
    {
        // Unit width, 1 K, difference 1. Equal and opposite forces P; moments P·h/2 = κ(E1 I1 + E2 I2); where they join the strains are
        // equal: P/(E1 a1) + P/(E2 a2) + κ h/2 = 1. Solved for κ.
        var h = first + second;
        var bending = ((modulus * Math.Pow(first, 3)) + (otherModulus * Math.Pow(second, 3))) / 12;
        var curvature = 1 / ((h / 2) + (2 * bending / h * ((1 / (modulus * first)) + (1 / (otherModulus * second)))));
        Assert.Equal(curvature, Bimetal.CurvaturePerK(h, 1, first / second, modulus / otherModulus), 1e-9);
    }

    [Fact]
    public void A_coil_turns_by_its_length_times_the_curvature()
    {
        // 200 mm of 0.8 mm, 14·10⁻⁶: 1.5 × 14e-6 / 0.8 × 200 = 0.00525 rad = 0.3008 degrees a kelvin, worked by hand.
        Assert.Equal(0.3008, Bimetal.DegreesPerK(new BimetalStrip(200, 0.8, 14e-6)), 0.0001);
        // A plate of 75 degrees on it opens over 75 / 0.3008 = 249 K: too little for a choke; three times the length opens over 83 K.
        var sheet = new ChokeLimits(Element: HeatElement.Bimetal, Strip: new BimetalStrip(600, 0.8, 14e-6));
        Assert.Equal(35 + 83.1, OpeningWindow.Of(sheet, new ChokeDefaults()).FullC, 0.1);
    }

    private static readonly WarmStripLine Known = new(new BimetalStrip(400, 0.6, 18e-6), "Spec sheet X");

    private static Judgement Judged(WarmStripLine line, params (string, string)[] typed)
    {
        var read = line.Read(TypedReading.Of(typed));
        Assert.Empty(read.Problems);
        return line.Judge(read.Reading, PinSet.Empty);
    }

    [Theory]
    [InlineData("20", "60", "41", "coilTurns")] // 1.03 degrees a kelvin by its size; 0.72 are wanted
    [InlineData("20", "60", "15", "coilSpent")]
    [InlineData("20", "60", "29", "cannotTell")]
    [InlineData("20", "60", "1", "coilSpent")]
    [InlineData("20", "30", "3", "cannotTell")] // too small a difference
    [InlineData("68 F", "140 F", "41", "coilTurns")]
    public void A_coil_is_held_against_what_its_size_says(string cold, string warm, string turned, string finding) =>
        Assert.Equal(finding, Judged(Known, ("cold", cold), ("warm", warm), ("turned", turned)).Finding);

    [Fact]
    public void Without_a_sheet_its_length_and_thickness_are_asked_for()
    {
        var unknown = new WarmStripLine(null, "usual");
        Assert.Equal("cannotTell", Judged(unknown, ("cold", "20"), ("warm", "60"), ("turned", "30")).Finding);
        Assert.Equal(
            "coilTurns",
            Judged(unknown, ("cold", "20"), ("warm", "60"), ("turned", "30"), ("length", "400"), ("thickness", "0.6")).Finding
        );
        Assert.Equal(
            "thickness",
            Assert.Single(unknown.Read(TypedReading.Of(("cold", "20"), ("warm", "60"), ("turned", "30"), ("length", "400"))).Problems).Field
        );
        Assert.Equal("warm", Assert.Single(Known.Read(TypedReading.Of(("cold", "60"), ("warm", "20"), ("turned", "30"))).Problems).Field);
    }

    [Fact]
    public void A_good_coil_read_with_error_is_hardly_ever_called_spent()
    {
        // 400 noisy readings of a coil that turns just as its share wants: errors of half a degree of arc and half a kelvin each.
        var random = new Random(7);
        var truth = 0.7 * Bimetal.DegreesPerK(Known.Strip!);
        string Shown(double value, double sigma) => Normal.Sample(random, value, sigma).ToString("0.0");
        var wrong = Enumerable
            .Range(0, 400)
            .Count(_ =>
                Judged(Known, ("cold", Shown(20, 0.5)), ("warm", Shown(70, 0.5)), ("turned", Shown(50 * truth, 1))).Finding != "cannotTell"
            );
        Assert.True(wrong <= 20, $"{wrong} of 400");
    }
}
