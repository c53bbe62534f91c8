using BlueDawn.Core.Measures;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Holding;

/// <summary>A falling exponential p = p₀·e^(−r·t) through pressures, by least squares (Gauss and Newton), with the covariance of the
/// fit.</summary>
internal sealed class DecayFit
{
    /// <summary>One end of what is stated: 96 times in 100 between both, a little more than the 95 that are promised.</summary>
    internal const double Confidence = 0.98;

    private const int MostRounds = 60;

    private readonly double windowS;
    private readonly int count;

    /// <summary>The drop's share of the fit's covariance: its variance for a scatter of 1 kPa.</summary>
    private readonly double dropFactor;

    private DecayFit(double startKPa, double ratePerS, double windowS, int count, double dropFactor, double squares)
    {
        (StartKPa, RatePerS, SquaresKPa2) = (startKPa, ratePerS, squares);
        (this.windowS, this.count, this.dropFactor) = (windowS, count, dropFactor);
        ScatterKPa = count > 2 ? Math.Sqrt(squares / (count - 2)) : 0;
    }

    /// <summary>Fitted pressure at the start of the window in kPa.</summary>
    public double StartKPa { get; }

    /// <summary>Share of the pressure lost a second; negative for a rise.</summary>
    public double RatePerS { get; }

    /// <summary>Sum of squares of the readings about the curve, in kPa².</summary>
    public double SquaresKPa2 { get; }

    /// <summary>Whether it falls at all.</summary>
    public bool Falls => RatePerS * StartKPa > 1e-9;

    /// <summary>Fitted drop over the window in kPa.</summary>
    public double DropKPa => StartKPa * (1 - SteadyMath.Exp(-RatePerS * windowS));

    /// <summary>Standard deviation of the readings about the curve, in kPa; 0 while two readings leave it open.</summary>
    public double ScatterKPa { get; }

    /// <summary>Give or take on the drop by the step of a gauge alone, in kPa: two readings, each off by half a step at most.</summary>
    public static double StepUncertaintyKPa(double resolutionKPa) => 2 * Math.Sqrt(2.0 / 12) * resolutionKPa;

    /// <summary>Give or take on the drop in kPa, for a gauge of a step; null with two readings, which leave it open.</summary>
    public double? DropUncertaintyKPa(double resolutionKPa)
    {
        if (count < 3)
        {
            return null;
        }

        var byScatter = StudentT.InvCDF(0, 1, count - 2, Confidence) * ScatterKPa * Math.Sqrt(dropFactor);
        var byStep = Math.Max(StepUncertaintyKPa(resolutionKPa), 2 * resolutionKPa * Math.Sqrt(dropFactor / 12));
        // Added, not squared: of few readings the scatter that was seen may be small by luck, and the step is there all the same.
        return byScatter + byStep;
    }

    /// <summary>Fits.</summary>
    /// <param name="samples">Two pressures or more at different times, in time.</param>
    /// <param name="fromS">Start of the window in seconds.</param>
    /// <param name="windowS">Length of the window in seconds.</param>
    public static DecayFit Of(IReadOnlyList<PressureSample> samples, double fromS, double windowS)
    {
        var span = samples[^1].TimeS - samples[0].TimeS;
        // Beyond this a curve has nothing left at the second reading: it could fall any faster without a difference.
        var fastest = 30 / span;
        var start = Math.Max(samples[0].PressureKPa, 0);
        var rate =
            start > 0 && samples[^1].PressureKPa > 0 ? Math.Clamp(SteadyMath.Log(start / samples[^1].PressureKPa) / span, -fastest, fastest)
            : start > 0 ? 1 / span
            : 0;
        var at = samples.Select(sample => sample.TimeS - fromS).ToArray();
        start *= SteadyMath.Exp(rate * at[0]);
        var damping = 1e-6;
        var squares = Squares(samples, at, start, rate);
        for (var round = 0; round < MostRounds; round++)
        {
            var (ss, sr, rr, gs, gr) = Normal(samples, at, start, rate);
            var (a, c) = (ss * (1 + damping), (rr * (1 + damping)) + 1e-12);
            var whole = (a * c) - (sr * sr);
            var (newStart, newRate) = (
                start + (((c * gs) - (sr * gr)) / whole),
                Math.Clamp(rate + (((a * gr) - (sr * gs)) / whole), -fastest, fastest)
            );
            var better = Squares(samples, at, newStart, newRate);
            if (better > squares || !double.IsFinite(better))
            {
                damping *= 10;
                continue;
            }

            var done = squares - better < 1e-12 * (1e-12 + squares);
            (start, rate, squares, damping) = (newStart, newRate, better, Math.Max(damping / 10, 1e-12));
            if (done)
            {
                break;
            }
        }

        return new DecayFit(start, rate, windowS, samples.Count, DropFactor(samples, at, start, rate, windowS), squares);
    }

    private static double Squares(IReadOnlyList<PressureSample> samples, double[] at, double start, double rate)
    {
        double sum = 0;
        for (var i = 0; i < at.Length; i++)
        {
            var off = samples[i].PressureKPa - (start * SteadyMath.Exp(-rate * at[i]));
            sum += off * off;
        }

        return sum;
    }

    /// <summary>JᵀJ and Jᵀ·residual for start and rate.</summary>
    private static (double StartStart, double StartRate, double RateRate, double Start, double Rate) Normal(
        IReadOnlyList<PressureSample> samples,
        double[] at,
        double start,
        double rate
    )
    {
        double ss = 0,
            sr = 0,
            rr = 0,
            gs = 0,
            gr = 0;
        for (var i = 0; i < at.Length; i++)
        {
            var share = SteadyMath.Exp(-rate * at[i]);
            var (byStart, byRate) = (share, -at[i] * start * share);
            var off = samples[i].PressureKPa - (start * share);
            ss += byStart * byStart;
            sr += byStart * byRate;
            rr += byRate * byRate;
            gs += byStart * off;
            gr += byRate * off;
        }

        return (ss, sr, rr, gs, gr);
    }

    /// <summary>gᵀ(JᵀJ)⁻¹g for the gradient g of the drop.</summary>
    private static double DropFactor(IReadOnlyList<PressureSample> samples, double[] at, double start, double rate, double windowS)
    {
        var (ss, sr, rr, _, _) = Normal(samples, at, start, rate);
        var left = SteadyMath.Exp(-rate * windowS);
        var (byStart, byRate) = (1 - left, windowS * start * left);
        var whole = (ss * rr) - (sr * sr);
        // Without a fall to speak of by the rate (nothing in the line, or nothing left of it) only the start counts.
        return whole > 1e-9 * ss * rr && rr > 1e-9
            ? ((byStart * byStart * rr) - (2 * byStart * byRate * sr) + (byRate * byRate * ss)) / whole
            : Math.Max(byStart * byStart / ss, 2);
    }
}
