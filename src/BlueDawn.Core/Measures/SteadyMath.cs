namespace BlueDawn.Core.Measures;

/// <summary>
/// Logarithm and exponential out of additions, multiplications and divisions alone. Those come out the same on every
/// machine (IEEE 754); the platform's own functions differ in the last digit between the server and the browser, and a
/// tie that falls one way here and the other way there is another answer. The method and its constants are those of
/// fdlibm (Sun Microsystems, 1993), from memory; exact to within 1 unit in the last place of the platform's own.
/// </summary>
public static class SteadyMath
{
    private const double Ln2High = 6.93147180369123816490e-01;
    private const double Ln2Low = 1.90821492927058770002e-10;
    private const double Ln2 = 6.93147180559945286227e-01;
    private const double Root2 = 1.41421356237309514547;

    /// <summary>Natural logarithm.</summary>
    /// <param name="x">Above 0; minus infinity for 0, not a number below.</param>
    public static double Log(double x)
    {
        if (x <= 0 || !double.IsFinite(x))
        {
            return x == 0 ? double.NegativeInfinity
                : x > 0 ? x
                : double.NaN;
        }

        var (power, part) = Split(x);
        var (f, tail) = LogOfPart(part);
        return (power * Ln2High) - ((tail - (power * Ln2Low)) - f);
    }

    /// <summary>Logarithm to the base of 2; exact for powers of 2.</summary>
    /// <param name="x">Above 0.</param>
    public static double Log2(double x)
    {
        if (x <= 0 || !double.IsFinite(x))
        {
            return Log(x);
        }

        var (power, part) = Split(x);
        var (f, tail) = LogOfPart(part);
        return power + ((f - tail) / Ln2);
    }

    /// <summary>e to the power of x.</summary>
    public static double Exp(double x)
    {
        if (double.IsNaN(x) || x > 709.782712893384 || x < -745.133219101941)
        {
            return double.IsNaN(x) ? x
                : x > 0 ? double.PositiveInfinity
                : 0;
        }

        var power = Math.Round(x / Ln2);
        var (high, low) = (x - (power * Ln2High), power * Ln2Low);
        var rest = high - low;
        var t = rest * rest;
        var c =
            rest
            - (
                t
                * (
                    1.66666666666666019037e-01
                    + (
                        t
                        * (
                            -2.77777777770155933842e-03
                            + (t * (6.61375632143793436117e-05 + (t * (-1.65339022054652515390e-06 + (t * 4.13813679705723846039e-08)))))
                        )
                    )
                )
            );
        return Math.ScaleB(1 - ((low - (rest * c / (2 - c))) - high), (int)power);
    }

    /// <summary>x to the power of y.</summary>
    /// <param name="x">Above 0.</param>
    /// <param name="y">The power.</param>
    public static double Pow(double x, double y) =>
        x == 0
            ? y == 0
                ? 1
                : 0
            : Exp(y * Log(x));

    /// <summary>x as a part between half the root of 2 and the root of 2, times a power of 2.</summary>
    private static (int Power, double Part) Split(double x)
    {
        var power = Math.ILogB(x);
        var part = Math.ScaleB(x, -power);
        return part > Root2 ? (power + 1, part / 2) : (power, part);
    }

    /// <summary>The logarithm of a part near 1 as f less a tail.</summary>
    private static (double F, double Tail) LogOfPart(double part)
    {
        var f = part - 1;
        var s = f / (2 + f);
        var z = s * s;
        var r =
            z
            * (
                6.666666666666735130e-01
                + (
                    z
                    * (
                        3.999999999940941908e-01
                        + (
                            z
                            * (
                                2.857142874366239149e-01
                                + (
                                    z
                                    * (
                                        2.222219843214978396e-01
                                        + (
                                            z
                                            * (1.818357216161805012e-01 + (z * (1.531383769920937332e-01 + (z * 1.479819860511658591e-01))))
                                        )
                                    )
                                )
                            )
                        )
                    )
                )
            );
        var half = 0.5 * f * f;
        return (f, half - (s * (half + r)));
    }
}
