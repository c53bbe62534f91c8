using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Chokes;

/// <summary>How far a heat choke had opened at a time.</summary>
/// <param name="TimeS">Seconds from the start, above 0.</param>
/// <param name="Opening">0 as it begins to open, 1 fully open.</param>
public sealed record OpeningAt(double TimeS, double Opening);

/// <summary>What opens a heat choke: a pellet or strip that works over a window of temperatures.</summary>
/// <param name="BeginsC">Where it begins, in °C.</param>
/// <param name="FullC">Where it has fully opened, above <paramref name="BeginsC"/>.</param>
public sealed record OpeningWindow(double BeginsC, double FullC)
{
    /// <summary>How far a plate turns from shut to open, in degrees. Own judgement.</summary>
    private const double PlateDeg = 75;

    /// <summary>The window of a choke: what the sheet says, what follows from its strip, what is usual in the shop.</summary>
    /// <param name="limits">What the sheet says, or null.</param>
    /// <param name="usual">The shop's defaults.</param>
    public static OpeningWindow Of(ChokeLimits? limits, ChokeDefaults usual)
    {
        var strip = limits?.Element == HeatElement.Bimetal;
        var begins = limits?.BeginsC ?? (strip ? usual.StripBeginsC : usual.WaxBeginsC);
        var full = limits?.FullC
            ?? (
                strip && limits?.Strip is { } known ? begins + (PlateDeg / Bimetal.DegreesPerK(known))
                : strip ? usual.StripFullC
                : usual.WaxFullC
            );
        return new OpeningWindow(begins, Math.Max(full, begins + 1));
    }

    /// <summary>The window as an eye or an instrument sees it: from where it has visibly begun to where it seems fully open.</summary>
    [JsonIgnore]
    public OpeningWindow Seen => new(AtOpeningC(OpeningSeries.Edge), AtOpeningC(1 - OpeningSeries.Edge));

    /// <summary>Temperature at an opening from 0 to 1: the stroke goes evenly over the window.</summary>
    public double AtOpeningC(double opening) => BeginsC + (opening * (FullC - BeginsC));
}

/// <summary>Seconds, with the least and the most they may be; the truth lies between in 95 of 100.</summary>
/// <param name="BestS">The best guess.</param>
/// <param name="LeastS">The least.</param>
/// <param name="MostS">The most; null when what was read leaves it open.</param>
public sealed record PredictedTime(double BestS, double LeastS, double? MostS);

/// <summary>
/// How a heat choke warms up with its exhaust: T(t) = end − (end − ambient)·e^(−t/τ), the first-order response of a body to
/// a hot surrounding (Newton's law of cooling). Fitted to the times at which it had opened so far, it says when it opens on
/// another day.
/// </summary>
/// <remarks>
/// The end temperature is searched over a grid, the time constant follows by least squares at each; all end temperatures whose
/// squares lie within χ² (1 degree of freedom, 0.95) of the least are possible (profile likelihood), and with each the time
/// constant's own uncertainty. Two times leave one of the two nearly open: the interval says so.
/// </remarks>
public sealed class WarmUp
{
    /// <summary>Standard uncertainty of a time taken by hand at an event that comes on slowly, in seconds. Own judgement.</summary>
    public const double TimingS = 1;

    private const double ChiSquared95 = 3.841;
    private const double Normal95 = 1.96;
    private const int Steps = 240;
    private const double LeastAboveC = 2,
        MostAboveC = 600;

    private readonly OpeningWindow window;
    private readonly IReadOnlyList<(double EndC, double TauS, double SigmaTauS)> possible;
    private readonly (double EndC, double TauS) best;

    private WarmUp(OpeningWindow window, (double, double) best, IReadOnlyList<(double, double, double)> possible) =>
        (this.window, this.best, this.possible) = (window, best, possible);

    /// <summary>Time constant in seconds, the best guess.</summary>
    public double TauS => best.TauS;

    /// <summary>Temperature it would warm up to, in °C, the best guess.</summary>
    public double EndC => best.EndC;

    /// <summary>Seconds a body takes to a temperature.</summary>
    /// <param name="ambientC">Where it begins.</param>
    /// <param name="endC">Where it would end, above <paramref name="temperatureC"/>.</param>
    /// <param name="tauS">Time constant.</param>
    /// <param name="temperatureC">The temperature.</param>
    public static double SecondsTo(double ambientC, double endC, double tauS, double temperatureC) =>
        temperatureC <= ambientC ? 0 : tauS * SteadyMath.Log((endC - ambientC) / (endC - temperatureC));

    /// <summary>Fits the warm-up to the times of a start; null when there are fewer than two openings or the day is as warm as the
    /// window.</summary>
    /// <param name="ambientC">Temperature at the start, below the window.</param>
    /// <param name="times">Openings in time.</param>
    /// <param name="window">What opens it.</param>
    public static WarmUp? Fit(double ambientC, IReadOnlyList<OpeningAt> times, OpeningWindow window)
    {
        if (times.Count < 2 || ambientC >= window.BeginsC)
        {
            return null;
        }

        var tried = new List<(double EndC, double TauS, double SigmaTauS, double Squares)>();
        for (var step = 0; step <= Steps; step++)
        {
            var endC = window.FullC + (LeastAboveC * SteadyMath.Pow(MostAboveC / LeastAboveC, (double)step / Steps));
            // Linear in the time constant once the end is fixed: t = τ·u.
            var unit = times.Select(at => SecondsTo(ambientC, endC, 1, window.AtOpeningC(at.Opening))).ToList();
            var sum = unit.Sum(u => u * u);
            var tauS = times.Zip(unit, (at, u) => at.TimeS * u).Sum() / sum;
            var squares = times.Zip(unit, (at, u) => (at.TimeS - (tauS * u)) * (at.TimeS - (tauS * u))).Sum() / (TimingS * TimingS);
            tried.Add((endC, tauS, TimingS / Math.Sqrt(sum), squares));
        }

        var least = tried.MinBy(one => one.Squares);
        return new WarmUp(
            window,
            (least.EndC, least.TauS),
            [.. tried.Where(one => one.Squares <= least.Squares + ChiSquared95).Select(one => (one.EndC, one.TauS, one.SigmaTauS))]
        );
    }

    /// <summary>When it will be fully open on a day of another temperature.</summary>
    /// <param name="ambientC">Temperature of that day, below the window.</param>
    public PredictedTime FullyOpen(double ambientC)
    {
        double At(double endC) => SecondsTo(ambientC, endC, 1, window.FullC);
        var bestS = TauS * At(EndC);
        var leastS = possible.Min(one => (one.TauS - (Normal95 * one.SigmaTauS)) * At(one.EndC));
        var mostS = possible.Max(one => (one.TauS + (Normal95 * one.SigmaTauS)) * At(one.EndC));
        return new PredictedTime(bestS, Math.Max(0, leastS), mostS <= 20 * Math.Max(1, bestS) ? mostS : null);
    }
}
