using BlueDawn.Core.Holding;
using BlueDawn.Core.Measures;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Setting;

/// <summary>The needle letting go once.</summary>
/// <param name="Index">Which sample was the last before it let go.</param>
/// <param name="PopKPa">Pressure at which it let go, gauge.</param>
/// <param name="ReseatKPa">Pressure at which it shut again, gauge.</param>
public sealed record Pop(int Index, double PopKPa, double ReseatKPa);

/// <summary>A series of pressures to look through.</summary>
/// <param name="PressuresKPa">Gauge pressures in kPa, in time; 2 to 200 000 of them, each from 0 to 700.</param>
/// <param name="GaugeResolutionKPa">The gauge's step in kPa, above 0; when not given, the least step there is in the series.</param>
/// <param name="TimesS">When each was read, in seconds, rising; null when that is not known: then nothing can be said of a hold.</param>
public sealed record PopOffInput(
    IReadOnlyList<double> PressuresKPa,
    double? GaugeResolutionKPa = null,
    IReadOnlyList<double>? TimesS = null
);

/// <summary>What was found in a series.</summary>
/// <param name="Pops">Every pop, in time.</param>
/// <param name="LimitKPa">How far the pressure had to fall at once to count.</param>
/// <param name="Hold">What stood after the last pop, from the highest pressure on, in seconds from there; empty without times or when
/// nothing stood.</param>
public sealed record PopOffResult(IReadOnlyList<Pop> Pops, double LimitKPa, IReadOnlyList<PressureSample> Hold);

/// <summary>
/// Finds where a needle lets go in a series of pressures: it is pumped up until it opens, the pressure falls at once,
/// and it shuts again.
/// </summary>
/// <remarks>
/// A fall counts when it is larger than scatter and the gauge's step explain: the scatter is taken from the second
/// differences of the series (their lower quarter, so that falls and the slope of pumping do not count), and the limit is that
/// of a normal error for as many places as there are samples (Bonferroni), so that a series without any fall gives one
/// by chance no more than <see cref="FalseAlarms"/> of the time.
/// </remarks>
public static class PopOff
{
    /// <summary>How often a series in which nothing lets go may still give a pop, at most.</summary>
    public const double FalseAlarms = 0.01;

    /// <summary>A fall smaller than this is no pop, whatever the gauge: the pump's own valve does that. Own judgement.</summary>
    public const double LeastFallKPa = 4;

    /// <summary>Samples over which a fall may stretch: a gauge's needle takes a moment.</summary>
    private const int LongestFall = 6;

    /// <summary>The same in seconds, where the times are known.</summary>
    private const double LongestFallS = 0.6;

    /// <summary>Readings nearer to each other than this are taken together, in seconds. Own judgement: no gauge's needle is quicker.</summary>
    private const double BlockS = 0.05;

    /// <summary>A series of fewer readings does not show its gauge's step.</summary>
    private const int FewestForStep = 8;

    /// <summary>
    /// A quarter of the absolute second differences of independent normal errors are less than this many standard deviations:
    /// 0.3186·√6. A quarter, since in a short series more than half of them may belong to pops.
    /// </summary>
    private const double QuarterOfSecondDifferences = 0.7804;

    private const int MostSamples = 200_000;

    /// <summary>So many pressures of a hold are handed on: more of them say little more, and each is a box on the page.</summary>
    private const int HoldSamples = 12;

    /// <summary>What is wrong with an input, field by field; empty when it can be looked through.</summary>
    public static IReadOnlyList<FieldProblem> Check(PopOffInput input)
    {
        var problems = new List<FieldProblem>();
        if (input.PressuresKPa.Count is < 2 or > MostSamples)
        {
            problems.Add(new("pressuresKPa", $"Give 2 to {MostSamples} pressures."));
        }
        else if (input.PressuresKPa.Any(pressure => !double.IsFinite(pressure) || pressure < 0 || pressure > 700))
        {
            problems.Add(new("pressuresKPa", "A gauge pressure is from 0 to 700 kPa. Check the unit."));
        }

        if (
            input.TimesS is { } times
            && (
                times.Count != input.PressuresKPa.Count
                || times.Any(time => !double.IsFinite(time))
                || times.Zip(times.Skip(1)).Any(pair => pair.Second <= pair.First)
            )
        )
        {
            problems.Add(new("timesS", "Give a time for each pressure, each later than the one before."));
        }

        if (input.GaugeResolutionKPa is { } step && (!double.IsFinite(step) || step <= 0 || step > 100))
        {
            problems.Add(new("gaugeResolutionKPa", "Must be above 0 and no more than 100 kPa."));
        }

        return problems;
    }

    /// <summary>Looks through a checked input.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with it.</exception>
    public static PopOffResult Look(PopOffInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var step = input.GaugeResolutionKPa ?? StepKPa(input.PressuresKPa);
        var (pressures, places, longest) = InSeconds(input);
        IReadOnlyList<Pop> pops = [.. Find(pressures, step, longest).Select(pop => pop with { Index = places[pop.Index] })];
        return new PopOffResult(
            pops,
            LimitKPa(pressures, step, longest),
            input.TimesS is { } times ? HoldAfter(pops, input.PressuresKPa, times, step) : []
        );
    }

    /// <summary>A series as it is looked through: where its times are known, one pressure for each <see cref="BlockS"/> seconds (the middle
    /// one of those read meanwhile), whatever the rate it was read at.</summary>
    /// <returns>The pressures, the place of each in the series, and how many of them a fall may stretch over.</returns>
    private static (IReadOnlyList<double> Pressures, IReadOnlyList<int> Places, int Longest) InSeconds(PopOffInput input)
    {
        var all = Enumerable.Range(0, input.PressuresKPa.Count).ToList();
        if (input.TimesS is not { } times)
        {
            return (input.PressuresKPa, all, LongestFall);
        }

        var apart = (times[^1] - times[0]) / (times.Count - 1);
        var block = (int)((BlockS / apart) + 1e-9);
        if (block <= 1)
        {
            return (input.PressuresKPa, all, Math.Max(LongestFall, (int)Math.Ceiling(LongestFallS / apart)));
        }

        var blocks = all.Chunk(block).ToList();
        var middles = blocks.Select(places => Middle(places.Select(place => input.PressuresKPa[place]))).ToList();
        return (
            middles,
            // The last reading of a block that still stands as high as its middle: there the fall may begin.
            [.. blocks.Select((places, at) => places.Last(place => input.PressuresKPa[place] >= middles[at]))],
            (int)Math.Ceiling(LongestFallS / (block * apart))
        );
    }

    private static double Middle(IEnumerable<double> pressures)
    {
        var sorted = pressures.Order().ToList();
        return sorted[sorted.Count / 2];
    }

    /// <summary>The pressures that stood after the last pop, pumped up again or not: from the first on that is as high as any, step and
    /// scatter allowed for.</summary>
    private static IReadOnlyList<PressureSample> HoldAfter(
        IReadOnlyList<Pop> pops,
        IReadOnlyList<double> pressures,
        IReadOnlyList<double> times,
        double step
    )
    {
        var from = 0;
        if (pops is [.., var last])
        {
            // The fall itself is over where the pressure no longer stands above where it came to rest.
            from = Enumerable
                .Range(last.Index, pressures.Count - last.Index)
                .FirstOrDefault(i => pressures[i] <= last.ReseatKPa, pressures.Count - 1);
        }

        var tail = Enumerable.Range(from, pressures.Count - from).ToList();
        var highest = tail.Max(i => pressures[i]) - Math.Max(step, 3 * ScatterKPa(pressures));
        var top = tail.First(i => pressures[i] >= highest);
        var left = pressures.Count - top;
        return left < 3
            ? []
            :
            [
                .. Enumerable
                    .Range(0, Math.Min(HoldSamples, left))
                    .Select(k => top + (int)((long)k * (left - 1) / (Math.Min(HoldSamples, left) - 1)))
                    .Select(i => new PressureSample(Math.Round(times[i] - times[top], 3), pressures[i])),
            ];
    }

    /// <summary>The step a gauge writes down in: the least difference between two pressures of the series; of few readings 1 kPa at
    /// most.</summary>
    /// <param name="pressuresKPa">The series.</param>
    public static double StepKPa(IReadOnlyList<double> pressuresKPa)
    {
        var sorted = pressuresKPa.Distinct().Order().ToList();
        var apart = sorted.Zip(sorted.Skip(1), (low, high) => high - low).ToList();
        return apart.Count == 0 ? 1
            : pressuresKPa.Count < FewestForStep ? Math.Min(1, apart.Min())
            : apart.Min();
    }

    /// <summary>Every pop in a series.</summary>
    /// <param name="pressuresKPa">Gauge pressures in kPa, in time.</param>
    /// <param name="stepKPa">The gauge's step in kPa.</param>
    /// <param name="longest">Readings over which a fall may stretch.</param>
    public static IReadOnlyList<Pop> Find(IReadOnlyList<double> pressuresKPa, double stepKPa, int longest = LongestFall)
    {
        var limit = LimitKPa(pressuresKPa, stepKPa, longest);
        var pops = new List<Pop>();
        var at = 0;
        while (at < pressuresKPa.Count - 1)
        {
            var low = LowestSoon(pressuresKPa, at, limit, longest);
            if (pressuresKPa[at] - pressuresKPa[low] <= limit)
            {
                at++;
                continue;
            }

            // The highest sample before the fall, and the place where the fall ends.
            var top = Enumerable.Range(at, low - at).MaxBy(i => pressuresKPa[i]);
            var bottom = low;
            while (bottom + 1 < pressuresKPa.Count && pressuresKPa[bottom + 1] < pressuresKPa[bottom] - (limit / 4))
            {
                bottom++;
            }

            pops.Add(new Pop(top, pressuresKPa[top], Resting(pressuresKPa, bottom, limit / 2)));
            at = bottom;
        }

        return pops;
    }

    /// <summary>How far the pressure has to fall at once to count, in kPa.</summary>
    /// <param name="pressuresKPa">The series.</param>
    /// <param name="stepKPa">The gauge's step in kPa.</param>
    /// <param name="longest">Readings over which a fall may stretch.</param>
    public static double LimitKPa(IReadOnlyList<double> pressuresKPa, double stepKPa, int longest = LongestFall)
    {
        var places = Math.Max(1, pressuresKPa.Count) * longest;
        var scatter = ScatterKPa(pressuresKPa);
        var sigma = Math.Sqrt(2 * ((scatter * scatter) + (stepKPa * stepKPa / 12)));
        return Math.Max(Math.Max(LeastFallKPa, 2 * stepKPa), Normal.InvCDF(0, 1, 1 - (FalseAlarms / places)) * sigma);
    }

    /// <summary>Where it came to rest: the middle one of the samples that stay near the bottom of the fall.</summary>
    private static double Resting(IReadOnlyList<double> pressures, int bottom, double near)
    {
        var resting = new List<double> { pressures[bottom] };
        for (
            var i = bottom + 1;
            i < pressures.Count && resting.Count < LongestFall && Math.Abs(pressures[i] - pressures[bottom]) <= near;
            i++
        )
        {
            resting.Add(pressures[i]);
        }

        resting.Sort();
        return resting[resting.Count / 2];
    }

    private static double ScatterKPa(IReadOnlyList<double> pressures)
    {
        if (pressures.Count < 8)
        {
            // Too few to show it.
            return 0;
        }

        var second = new double[pressures.Count - 2];
        for (var i = 0; i < second.Length; i++)
        {
            second[i] = Math.Abs(pressures[i] - (2 * pressures[i + 1]) + pressures[i + 2]);
        }

        Array.Sort(second);
        // Of few the quarter itself scatters: as much is added as it may be short of the truth.
        return second[second.Length / 4] / QuarterOfSecondDifferences * (1 + (3.5 / Math.Sqrt(second.Length)));
    }

    /// <summary>The lowest sample soon after another, before it is pumped up again.</summary>
    private static int LowestSoon(IReadOnlyList<double> pressures, int from, double limit, int longest)
    {
        var lowest = from;
        for (var i = from + 1; i < pressures.Count && i <= from + longest && pressures[i] <= pressures[lowest] + limit; i++)
        {
            if (pressures[i] < pressures[lowest])
            {
                lowest = i;
            }
        }

        return lowest;
    }
}
