using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Holding;

/// <summary>A pressure that falls evenly: a straight line through pressures, by least squares.</summary>
/// <param name="DropKPa">Drop over the window in kPa.</param>
/// <param name="DropUncertaintyKPa">Give or take on it, in kPa: 95 times in 100 (Student's t for the readings less two), and the gauge's
/// step.</param>
/// <param name="SquaresKPa2">Sum of squares of the readings about the line, in kPa².</param>
internal sealed record EvenFall(double DropKPa, double DropUncertaintyKPa, double SquaresKPa2)
{
    /// <summary>Fits.</summary>
    /// <param name="samples">Three pressures or more at different times.</param>
    /// <param name="windowS">Length of the window in seconds.</param>
    /// <param name="stepKPa">The gauge's step.</param>
    public static EvenFall Of(IReadOnlyList<PressureSample> samples, double windowS, double stepKPa)
    {
        var (meanS, meanKPa) = (samples.Average(sample => sample.TimeS), samples.Average(sample => sample.PressureKPa));
        var (spread, together) = (0.0, 0.0);
        foreach (var (time, pressure) in samples)
        {
            spread += (time - meanS) * (time - meanS);
            together += (time - meanS) * (pressure - meanKPa);
        }

        var slope = together / spread;
        var squares = samples.Sum(sample => Square(sample.PressureKPa - meanKPa - (slope * (sample.TimeS - meanS))));
        var scatter = Math.Sqrt(squares / (samples.Count - 2));
        var reach = windowS / Math.Sqrt(spread);
        var byStep = Math.Max(DecayFit.StepUncertaintyKPa(stepKPa), 2 * stepKPa * reach / Math.Sqrt(12));
        return new EvenFall(
            -slope * windowS,
            (StudentT.InvCDF(0, 1, samples.Count - 2, DecayFit.Confidence) * scatter * reach) + byStep,
            squares
        );
    }

    private static double Square(double number) => number * number;
}
