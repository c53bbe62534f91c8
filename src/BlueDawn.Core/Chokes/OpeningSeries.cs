using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Chokes;

/// <summary>A start as instruments wrote it down.</summary>
/// <param name="TimesS">Seconds from when the engine ran, rising; 4 to 20 000 of them.</param>
/// <param name="AnglesDeg">The plate's angle at each; it may be measured from any side.</param>
/// <param name="SpeedsRpm">The engine's speed, or null when it was not read: at each of the times, or at times of its own.</param>
/// <param name="ShutDeg">The plate's angle shut; the first of the series when not given.</param>
/// <param name="OpenDeg">Its angle fully open; when not given the one furthest from shut, where that is as far as plates swing, else what is
/// usual.</param>
/// <param name="SpeedTimesS">Seconds at which the speed was read, rising; null when they are those of the angle.</param>
public sealed record OpeningSeriesInput(
    IReadOnlyList<double> TimesS,
    IReadOnlyList<double> AnglesDeg,
    IReadOnlyList<double>? SpeedsRpm = null,
    double? ShutDeg = null,
    double? OpenDeg = null,
    IReadOnlyList<double>? SpeedTimesS = null
);

/// <summary>What happened in it, in seconds; null where it did not.</summary>
/// <param name="BeginsS">When the plate began to open.</param>
/// <param name="HalfS">When it stood half open.</param>
/// <param name="OpenS">When it was fully open.</param>
/// <param name="FalteredS">When the engine faltered.</param>
/// <param name="Ended">How it ended.</param>
/// <param name="StoodOpen">True when the plate stood open from the start: nothing was timed, and it should have been shut.</param>
public sealed record OpeningEvents(
    double? BeginsS,
    double? HalfS,
    double? OpenS,
    double? FalteredS,
    StartEnd Ended,
    bool StoodOpen = false
);

/// <summary>Finds in a series of plate angle and engine speed what a hand on a key would have noted.</summary>
public static class OpeningSeries
{
    /// <summary>Opened by less than this it has not begun; by more than the rest of it, it is open. Own judgement: what an eye
    /// sees.</summary>
    internal const double Edge = 0.05;

    /// <summary>A plate that swings by less has not been seen fully open. Own judgement.</summary>
    private const double LeastSwingDeg = 60;

    /// <summary>How far a plate swings as a rule from shut to open. Common practice, no source.</summary>
    private const double UsualSwingDeg = 75;

    /// <summary>An angle sensor that moves by less than this shows a plate that stands. Own judgement.</summary>
    private const double StandsDeg = 4;

    /// <summary>A speed that falls below this share of what it was running at is a stumble. Own judgement.</summary>
    private const double StumbleShare = 0.7;

    /// <summary>Samples below which nothing is said, of a series or of the speed it ran at before a stumble.</summary>
    private const int Fewest = 4;

    private const int Most = 20_000;

    private static readonly TimeSpan SameStart = TimeSpan.FromMinutes(1);

    /// <summary>What is wrong with an input, field by field; empty when it can be looked through.</summary>
    public static IReadOnlyList<FieldProblem> Check(OpeningSeriesInput input)
    {
        var problems = new List<FieldProblem>();
        if (!Rises(input.TimesS))
        {
            problems.Add(new("timesS", $"Give {Fewest} to {Most} times, each later than the one before."));
        }

        if (input.SpeedTimesS is { } own && !Rises(own))
        {
            problems.Add(new("speedTimesS", $"Give {Fewest} to {Most} times, each later than the one before."));
        }

        if (input.AnglesDeg.Count != input.TimesS.Count || input.AnglesDeg.Any(angle => !double.IsFinite(angle) || Math.Abs(angle) > 360))
        {
            problems.Add(new("anglesDeg", "Give an angle for each time, from -360 to 360."));
        }

        if (
            input.SpeedsRpm is { } speeds
            && (speeds.Count != (input.SpeedTimesS ?? input.TimesS).Count || speeds.Any(speed => !double.IsFinite(speed) || speed < 0))
        )
        {
            problems.Add(new("speedsRpm", "Give a speed for each time, 0 or more."));
        }

        if (input is { ShutDeg: { } shut, OpenDeg: { } open } && shut == open)
        {
            problems.Add(new("openDeg", "Shut and open must differ."));
        }

        return problems;
    }

    /// <summary>What happened in a checked series.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with it.</exception>
    public static OpeningEvents Look(OpeningSeriesInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var first = input.AnglesDeg[0];
        var stumble = Stumble(input);
        if (
            input.OpenDeg is { } said
            && Math.Abs(first - said) <= StandsDeg
            && Math.Abs(input.AnglesDeg[1] - said) <= StandsDeg
            && (input.ShutDeg is not { } other || Math.Abs(first - said) < Math.Abs(first - other))
        )
        {
            return new OpeningEvents(null, null, null, stumble, stumble is null ? StartEnd.RanOn : StartEnd.Faltered, true);
        }

        var shut = input.ShutDeg ?? first;
        var furthest = input.AnglesDeg.MaxBy(angle => Math.Abs(angle - shut));
        if (Math.Abs(furthest - shut) <= StandsDeg)
        {
            return new OpeningEvents(null, null, null, stumble, stumble is null ? StartEnd.NotOpened : StartEnd.Faltered);
        }

        // One that stops half way is not open: only a swing as plates have it is taken for all of it.
        var full = input.OpenDeg
            ?? (Math.Abs(furthest - shut) >= LeastSwingDeg ? furthest : shut + (Math.Sign(furthest - shut) * UsualSwingDeg));
        var opening = input.AnglesDeg.Select(angle => (angle - shut) / (full - shut)).ToList();
        var (begins, half, open) = (
            Crossed(input.TimesS, opening, Edge),
            Crossed(input.TimesS, opening, 0.5),
            Crossed(input.TimesS, opening, 1 - Edge)
        );
        return new OpeningEvents(
            begins,
            half,
            open,
            stumble,
            stumble is not null ? StartEnd.Faltered
                : open is null ? StartEnd.NotOpened
                : StartEnd.RanOn
        );
    }

    /// <summary>
    /// A start from an angle sensor and a tachometer that each sent on their own: the speed belongs to it when both sent within
    /// a minute of each other. Own judgement.
    /// </summary>
    /// <param name="angleAt">When the angle sensor sent last.</param>
    /// <param name="timesS">Its times.</param>
    /// <param name="anglesDeg">Its angles.</param>
    /// <param name="speedAt">When the tachometer sent last, or null when it never did.</param>
    /// <param name="speedTimesS">Its times, or null.</param>
    /// <param name="speedsRpm">Its speeds, or null.</param>
    public static OpeningSeriesInput Together(
        DateTimeOffset angleAt,
        IReadOnlyList<double> timesS,
        IReadOnlyList<double> anglesDeg,
        DateTimeOffset? speedAt,
        IReadOnlyList<double>? speedTimesS,
        IReadOnlyList<double>? speedsRpm
    ) =>
        speedAt is { } at && (angleAt - at).Duration() <= SameStart
            ? new(timesS, anglesDeg, speedsRpm, SpeedTimesS: speedTimesS)
            : new(timesS, anglesDeg);

    private static bool Rises(IReadOnlyList<double> times) =>
        times.Count is >= Fewest and <= Most
        && times.All(double.IsFinite)
        && times.Zip(times.Skip(1)).All(pair => pair.Second > pair.First);

    /// <summary>When it first crossed a height and stayed above it for the next sample too, between two samples by a straight
    /// line.</summary>
    private static double? Crossed(IReadOnlyList<double> times, List<double> values, double height)
    {
        for (var i = 1; i < values.Count; i++)
        {
            if (values[i - 1] < height && values[i] >= height && (i + 1 == values.Count || values[i + 1] >= height))
            {
                return times[i - 1] + ((times[i] - times[i - 1]) * (height - values[i - 1]) / (values[i] - values[i - 1]));
            }
        }

        return null;
    }

    /// <summary>When the speed fell for two samples below a share of what it had been running at: the middle of all before.</summary>
    private static double? Stumble(OpeningSeriesInput input)
    {
        if (input.SpeedsRpm is not { } speeds)
        {
            return null;
        }

        var before = new List<double>();
        for (var i = 0; i < speeds.Count; i++)
        {
            if (before.Count >= Fewest)
            {
                var running = before[before.Count / 2];
                if (running > 0 && speeds[i] < StumbleShare * running && (i + 1 == speeds.Count || speeds[i + 1] < StumbleShare * running))
                {
                    return (input.SpeedTimesS ?? input.TimesS)[i];
                }
            }

            if (speeds[i] > 0)
            {
                var place = before.BinarySearch(speeds[i]);
                before.Insert(place < 0 ? ~place : place, speeds[i]);
            }
        }

        return null;
    }
}
