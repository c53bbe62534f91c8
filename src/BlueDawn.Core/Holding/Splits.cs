using BlueDawn.Core.Measures;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Holding;

/// <summary>
/// A pressure that held and let go once: a mean before and a mean after, at every place between two readings. What such
/// an account loses, and whether the readings rule it out.
/// </summary>
/// <remarks>
/// Two accounts are compared by their likelihood for scatter that is not known: n·ln(S₁ / S₂) of their sums of squares. One
/// is ruled out that is worse by more than a bound; the bounds are own judgement, tried by drawing (HoldTestTests).
/// </remarks>
internal sealed class Splits
{
    /// <summary>A place is ruled out that is worse than the best account by this.</summary>
    private const double PlaceBound = 9;

    /// <summary>A curve or an even fall is ruled out by more, since the best of many places is the better by chance.</summary>
    private const double AccountBound = 14;

    private readonly double[] before;
    private readonly double[] after;
    private readonly double[] meanBefore;
    private readonly double[] meanAfter;
    private readonly double stepKPa;

    private Splits(IReadOnlyList<PressureSample> samples, double stepKPa)
    {
        (before, meanBefore) = SquaresSoFar(samples);
        (after, meanAfter) = SquaresSoFar([.. samples.Reverse()]);
        this.stepKPa = stepKPa;
        var best = Enumerable.Range(1, Count - 1).MinBy(Squares);
        (LeastSquares, BestFallKPa) = (Squares(best), Fell(best));
    }

    /// <summary>Sum of squares about the two means at the best place, in kPa².</summary>
    public double LeastSquares { get; }

    /// <summary>What was lost at the best place, in kPa; negative for a rise.</summary>
    public double BestFallKPa { get; }

    private int Count => before.Length;

    /// <summary>Every place of a series.</summary>
    /// <param name="samples">Two pressures or more, in time.</param>
    /// <param name="stepKPa">The gauge's step.</param>
    public static Splits Of(IReadOnlyList<PressureSample> samples, double stepKPa) => new(samples, stepKPa);

    /// <summary>Whether an account is so much worse than the best that it is none.</summary>
    /// <param name="squares">Sum of squares about it.</param>
    /// <param name="best">Sum of squares about the best account.</param>
    public bool RulesOut(double squares, double best) => Worse(squares, best) > AccountBound;

    /// <summary>What was lost at every place where it may have let go, in kPa from and to: none where another account is so much better.</summary>
    /// <param name="best">Sum of squares about the best account.</param>
    public IEnumerable<(double LowKPa, double HighKPa)> Ranges(double best)
    {
        var freedom = Math.Max(Count - 3, 1);
        var spread = StudentT.InvCDF(0, 1, freedom, 0.99);
        for (var split = 1; split < Count; split++)
        {
            var squares = Squares(split);
            var fell = Fell(split);
            if (fell <= 0 || Worse(squares, best) > PlaceBound)
            {
                continue;
            }

            var give =
                (spread * Math.Sqrt(squares / freedom * ((1.0 / split) + (1.0 / (Count - split))))) + DecayFit.StepUncertaintyKPa(stepKPa);
            yield return (fell - give, fell + give);
        }
    }

    private double Fell(int split) => meanBefore[split - 1] - meanAfter[Count - split - 1];

    private double Squares(int split) => before[split - 1] + after[Count - split - 1];

    /// <summary>By how much one sum of squares is the less likely; rounding to the gauge's step is scatter that is always there.</summary>
    private double Worse(double squares, double best)
    {
        var rounding = Count * stepKPa * stepKPa / 12;
        return Count * SteadyMath.Log((squares + rounding) / (best + rounding));
    }

    /// <summary>Sums of squares of the first so many readings about their mean, and that mean, one reading after the other (Welford, 1962,
    /// from memory).</summary>
    private static (double[] Squares, double[] Means) SquaresSoFar(IReadOnlyList<PressureSample> samples)
    {
        var (squares, means) = (new double[samples.Count], new double[samples.Count]);
        var (mean, sum) = (0.0, 0.0);
        for (var i = 0; i < samples.Count; i++)
        {
            var off = samples[i].PressureKPa - mean;
            mean += off / (i + 1);
            sum += off * (samples[i].PressureKPa - mean);
            (squares[i], means[i]) = (sum, mean);
        }

        return (squares, means);
    }
}
