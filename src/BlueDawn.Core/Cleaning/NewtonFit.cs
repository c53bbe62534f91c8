using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Cleaning;

/// <summary>A temperature as it was read off a thermometer.</summary>
/// <param name="Minute">Minutes from any start, the same for all.</param>
/// <param name="TemperatureC">Degrees Celsius.</param>
public readonly record struct TemperatureSample(double Minute, double TemperatureC);

/// <summary>
/// First-order heating or cooling (Newton): T(t) = end + (start − end)·e^(−t/τ), fitted to logged temperatures by least
/// squares.
/// </summary>
/// <param name="EndC">Where it is heading, degrees Celsius.</param>
/// <param name="StartC">Where it was at the first sample, degrees Celsius.</param>
/// <param name="TimeConstantMin">τ, minutes: after each, 63 % of the way that is left has been gone.</param>
/// <param name="RmsC">Root mean square of what the curve leaves over, degrees Celsius.</param>
public sealed record NewtonFit(double EndC, double StartC, double TimeConstantMin, double RmsC)
{
    /// <summary>Fewest samples: three numbers are sought, and one more shows whether they fit.</summary>
    public const int FewestSamples = 4;

    // A curve that has hardly bent yet says nothing of where it ends: own judgement.
    private const double LongestInSpans = 5;
    private const int Grid = 160;

    /// <summary>
    /// The curve nearest to the samples, or null when they are too few, lie on one moment, do not change, or have not
    /// bent enough to say where they are heading.
    /// </summary>
    /// <param name="samples">At least <see cref="FewestSamples"/>, in the order of time.</param>
    public static NewtonFit? Of(IReadOnlyList<TemperatureSample> samples)
    {
        if (samples.Count < FewestSamples)
        {
            return null;
        }

        var span = samples[^1].Minute - samples[0].Minute;
        if (span <= 0 || samples.Max(one => one.TemperatureC) - samples.Min(one => one.TemperatureC) < 1e-9)
        {
            return null;
        }

        // For a given τ the rest is a straight line in e^(−t/τ), so only τ has to be searched for: first on a grid of
        // its logarithm, then by golden section around the best.
        var low = SteadyMath.Log(span / 100);
        var high = SteadyMath.Log(span * LongestInSpans * 4);
        double At(int place) => low + (high - low) * place / Grid;
        var best = Enumerable.Range(0, Grid + 1).MinBy(place => Fit(samples, SteadyMath.Exp(At(place))).RmsC);
        var (left, right) = (At(Math.Max(0, best - 1)), At(Math.Min(Grid, best + 1)));
        var golden = (Math.Sqrt(5) - 1) / 2;
        for (var step = 0; step < 80; step++)
        {
            var (inner, outer) = (right - golden * (right - left), left + golden * (right - left));
            if (Fit(samples, SteadyMath.Exp(inner)).RmsC <= Fit(samples, SteadyMath.Exp(outer)).RmsC)
            {
                right = outer;
            }
            else
            {
                left = inner;
            }
        }

        var fit = Fit(samples, SteadyMath.Exp((left + right) / 2));
        return fit.TimeConstantMin > LongestInSpans * span ? null : fit;
    }

    /// <summary>Temperature a number of minutes after the first sample.</summary>
    public double TemperatureC(double minutes) => EndC + (StartC - EndC) * SteadyMath.Exp(-minutes / TimeConstantMin);

    /// <summary>
    /// Minutes from one temperature to another along a first-order curve; null when it never gets there.
    /// </summary>
    /// <param name="fromC">Temperature now.</param>
    /// <param name="toC">Temperature to reach.</param>
    /// <param name="endC">Where it is heading.</param>
    /// <param name="timeConstantMin">τ in minutes.</param>
    public static double? MinutesTo(double fromC, double toC, double endC, double timeConstantMin)
    {
        if (fromC == toC)
        {
            return 0;
        }

        var share = (fromC - endC) / (toC - endC);
        return share > 1 ? timeConstantMin * SteadyMath.Log(share) : null;
    }

    private static NewtonFit Fit(IReadOnlyList<TemperatureSample> samples, double timeConstant)
    {
        double n = samples.Count,
            sumX = 0,
            sumY = 0,
            sumXX = 0,
            sumXY = 0;
        foreach (var sample in samples)
        {
            var x = SteadyMath.Exp(-(sample.Minute - samples[0].Minute) / timeConstant);
            sumX += x;
            sumY += sample.TemperatureC;
            sumXX += x * x;
            sumXY += x * sample.TemperatureC;
        }

        var spread = sumXX - sumX * sumX / n;
        var slope = spread > 1e-15 ? (sumXY - sumX * sumY / n) / spread : 0;
        var end = (sumY - slope * sumX) / n;
        var left = samples.Sum(sample =>
            Math.Pow(sample.TemperatureC - end - slope * SteadyMath.Exp(-(sample.Minute - samples[0].Minute) / timeConstant), 2)
        );
        return new NewtonFit(end, end + slope, timeConstant, Math.Sqrt(left / n));
    }
}
