using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Tests.Measures;

/// <summary>Held against the platform's own functions, over many sizes.</summary>
public class SteadyMathTests
{
    private static double Units(double a, double b) =>
        a.Equals(b) ? 0 : Math.Abs(a - b) / Math.Max(Math.BitIncrement(Math.Abs(b)) - Math.Abs(b), double.Epsilon);

    [Fact]
    public void Logarithm_and_exponential_are_the_platforms_to_within_two_units_of_the_last_place()
    {
        var random = new Random(4107);
        for (var i = 0; i < 200_000; i++)
        {
            var x = Math.Exp((random.NextDouble() - 0.5) * 600);
            Assert.True(Units(SteadyMath.Log(x), Math.Log(x)) <= 2, $"log {x:R}: {SteadyMath.Log(x):R} for {Math.Log(x):R}");
            Assert.True(Units(SteadyMath.Log2(x), Math.Log2(x)) <= 4, $"log2 {x:R}");
            var y = (random.NextDouble() - 0.5) * 1400;
            Assert.True(Units(SteadyMath.Exp(y), Math.Exp(y)) <= 2, $"exp {y:R}");
            var near = 1 + ((random.NextDouble() - 0.5) * 1e-3);
            Assert.True(Units(SteadyMath.Log(near), Math.Log(near)) <= 2, $"log {near:R}");
        }
    }

    [Fact]
    public void The_ends_are_as_they_are()
    {
        Assert.Equal(double.NegativeInfinity, SteadyMath.Log(0));
        Assert.True(double.IsNaN(SteadyMath.Log(-1)));
        Assert.Equal(0, SteadyMath.Log(1));
        Assert.Equal(1, SteadyMath.Exp(0));
        Assert.Equal(double.PositiveInfinity, SteadyMath.Exp(800));
        Assert.Equal(0, SteadyMath.Exp(-800));
        for (var power = -40; power <= 40; power++)
        {
            Assert.Equal(power, SteadyMath.Log2(Math.ScaleB(1, power)));
        }

        Assert.Equal(Math.Pow(92, 1 / 39.0), SteadyMath.Pow(92, 1 / 39.0), 1e-14);
    }
}
