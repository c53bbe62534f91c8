using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>How a timed start ended.</summary>
public enum StartEnd
{
    /// <summary>It ran on with the choke open.</summary>
    RanOn,

    /// <summary>It faltered or died as the choke opened.</summary>
    Faltered,

    /// <summary>The choke did not open fully.</summary>
    NotOpened,
}

/// <summary>A timed start: seconds from when the engine ran.</summary>
/// <param name="End">How it ended.</param>
/// <param name="BeginsS">When the plate began to open, or null.</param>
/// <param name="HalfS">When it stood half open, or null.</param>
/// <param name="OpenS">When it was fully open, or null when it was not.</param>
/// <param name="FalteredS">When the engine faltered, or null.</param>
/// <param name="AmbientC">Temperature outside in °C; null when not noted.</param>
public sealed record OpeningReading(StartEnd End, double? BeginsS, double? HalfS, double? OpenS, double? FalteredS, double? AmbientC) : Reading;

/// <summary>A start of an engine with an automatic choke, timed.</summary>
/// <param name="Choke">Vacuum or heat.</param>
public sealed record OpeningLine(ChokeKind Choke) : GaugeLine("chokes/opening", Station.Chokes, "Start", "Choke timed from the start")
{
    /// <summary>A hand on a key is this late or early at most, in seconds. Own judgement.</summary>
    private const double HandS = 0.4;

    /// <summary>Latest a vacuum choke is open: 2 to 3 s. Common practice, no source.</summary>
    private const double VacuumS = 3;

    /// <summary>A heat choke opens over a couple of minutes at this temperature. Common practice, no source; the edges are own judgement.</summary>
    private const double UsualC = 20, UsualLowS = 40, UsualHighS = 240;

    /// <summary>What the exhaust would warm a heat choke to, in °C, for how the window moves with the day. Own judgement.</summary>
    private const double UsualEndC = 130;

    /// <summary>A stumble this near to fully open, as a share of the time, is the choke uncovering an engine short of fuel. Own judgement.</summary>
    private const double NearShare = 0.25, NearS = 3;

    /// <summary>Days a heat choke's next start is told for, in °C.</summary>
    private static readonly double[] OtherDaysC = [0, 10, 20, 30];

    private static readonly (StartEnd End, string Value, string Label)[] Ends =
    [
        (StartEnd.RanOn, "ranOn", "Runs on, choke open"),
        (StartEnd.Faltered, "faltered", "Falters or dies as it opens"),
        (StartEnd.NotOpened, "notOpened", "Did not open"),
    ];

    private bool Heat => Choke == ChokeKind.Heat;

    /// <inheritdoc/>
    public override bool Running => true;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override string NotReadWords => "was not timed";

    /// <inheritdoc/>
    public override Sentence Target => Heat
        ? Sentence.Of("open after {0} to {1} at {2}", Quantity.S(UsualLowS), Quantity.S(UsualHighS), Quantity.AtC(UsualC))
        : Sentence.Of("open within {0}", Quantity.S(VacuumS));

    /// <inheritdoc/>
    public override Span? Window => Heat ? new(Dimension.Time, UsualLowS, UsualHighS) : new(Dimension.Time, null, VacuumS);

    /// <inheritdoc/>
    public override string LimitSource => "Common practice";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Running;

    /// <inheritdoc/>
    public override EntryForm Form => new(
        [
            new EntryGroup("start", "Start",
            [
                EntryField.Measure("begins", "begins", Dimension.Time, optional: true),
                .. Heat ? [EntryField.Measure("half", "half open", Dimension.Time, optional: true)] : Array.Empty<EntryField>(),
                EntryField.Measure("open", "open", Dimension.Time, optional: true),
                EntryField.Measure("faltered", "falters", Dimension.Time, optional: true),
                .. Heat ? [EntryField.Measure("ambient", "outside", Dimension.Temperature, optional: true)] : Array.Empty<EntryField>(),
                EntryField.Choice("end", "then", false, [.. Ends.Select(end => new EntryChoice(end.Value, end.Label))]),
            ]),
        ],
        null);

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        double? Seconds(string field) => (double?)reader.Optional(field, Dimension.Time, 0, 3600);
        var (begins, half, open, faltered) = (Seconds("begins"), Seconds("half"), Seconds("open"), Seconds("faltered"));
        var ambient = (double?)reader.Optional("ambient", Dimension.Temperature, -40, 50);
        var end = Ends.First(one => one.Value == (reader.Choice("end", [.. Ends.Select(one => one.Value)]) is { Length: > 0 } said ? said : "ranOn")).End;
        if (reader.Problems.Count == 0)
        {
            if (end == StartEnd.NotOpened && open is not null)
            {
                reader.Wrong("open", "It did not open: take the time out, or say how it ended.");
            }
            else if (end == StartEnd.RanOn && open is null)
            {
                reader.Wrong("open", "When was it fully open?");
            }
            else if (end == StartEnd.Faltered && open is null && faltered is null)
            {
                reader.Wrong("faltered", "When did it falter, or when was it open?");
            }

            if (half < begins)
            {
                reader.Wrong("half", "Half open comes after it begins.");
            }
            else if (open < (half ?? begins))
            {
                reader.Wrong("open", "Fully open comes last.");
            }
        }

        return Result(reader, () => new OpeningReading(end, begins, half, open, faltered, ambient));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) => reading is not OpeningReading start ? Sentence.None
        : start.OpenS is { } open ? Sentence.Of($"open after {{0}}, {Ends.First(end => end.End == start.End).Label.ToLowerInvariant()}", Quantity.S(open))
        : Sentence.Of(Ends.First(end => end.End == start.End).Label.ToLowerInvariant());

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not OpeningReading start)
        {
            return Judgement.NotRead(Sentence.Of(Heat
                ? "Cold start, air cleaner off: start the clock as it runs, press at each thing you see."
                : "Air cleaner’s screw in: start the clock as it runs, press when the plate is open."));
        }

        var (low, high) = Limits(start.AmbientC);
        var (verdict, finding, word, lean, next) = Said(start, low, high);
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            start.OpenS is { } open ? new Span(Dimension.Time, Math.Max(0, open - HandS), open + HandS) : null,
            [
                .. start.OpenS is { } opened ? [new Figure("open", "Fully open after", Quantity.S(opened))] : Array.Empty<Figure>(),
                .. start.FalteredS is { } faltered ? [new Figure("faltered", "Faltered after", Quantity.S(faltered))] : Array.Empty<Figure>(),
                .. WarmUpFigures(start),
            ],
            Why(start, low, high),
            []);
    }

    /// <summary>How the warm-up was fitted; null for a vacuum choke, or when too little was timed.</summary>
    /// <param name="start">The timed start.</param>
    public WarmUp? WarmUpOf(OpeningReading start)
    {
        if (!Heat || start.AmbientC is not { } ambient)
        {
            return null;
        }

        List<OpeningAt> times = [];
        foreach (var (time, opening) in new[] { (start.BeginsS, 0.0), (start.HalfS, 0.5), (start.OpenS, 1.0) })
        {
            if (time is > 0)
            {
                times.Add(new OpeningAt(time.Value, opening));
            }
        }

        return WarmUp.Fit(ambient, times, OpeningWindow.Usual);
    }

    /// <summary>The window in seconds on a day of this temperature: warming up takes longer from further down.</summary>
    private (double? Low, double High) Limits(double? ambientC)
    {
        if (!Heat)
        {
            return (null, VacuumS);
        }

        double To(double ambient) => WarmUp.SecondsTo(ambient, UsualEndC, 1, OpeningWindow.Usual.FullC);
        var share = ambientC is { } day ? To(day) / To(UsualC) : 1;
        return (UsualLowS * share, UsualHighS * share);
    }

    private (Verdict Verdict, string Finding, string Word, Lean Lean, Sentence Next) Said(OpeningReading start, double? low, double high)
    {
        // The engine runs short as the plate uncovers it: the choke has done its work.
        var uncovered = start.End == StartEnd.Faltered
            && (start.OpenS is not { } stood || start.FalteredS is not { } fell || Math.Abs(fell - stood) <= Math.Max(NearS, NearShare * stood));
        return start.End switch
        {
            StartEnd.NotOpened => (Verdict.NotGood, "neverOpened", "Does not open", Lean.Above, Sentence.Of(Heat
                ? "Look at link and spring by hand, then hold the pin in warm water: if it does not move there, renew it."
                : "Look at the chamber’s diaphragm, its springs and the passage to it; the screw has to be in.")),
            StartEnd.Faltered when uncovered => (Verdict.NotGood, "starvedAsItOpens", "Choke right, fuel short", Lean.None, Sentence.Of(
                "Leave the choke: it only hid that the main circuit is short of fuel. Back to Clean and Gauge for main jet and tube, not to coil or cap.")),
            StartEnd.Faltered => (Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, Sentence.Of(
                "It faltered long before or after the plate was open: time it once more, and look what else changes then.")),
            StartEnd.RanOn when start.OpenS - HandS > high => (Verdict.NotGood, "opensLate", "Late", Lean.Above, Sentence.Of(Heat
                ? "Open {0} too late: link and spring free by hand? Then the pin, in warm water."
                : "Open {0} too late: fuel in its chamber, a hard diaphragm, a leaking cover, the screw not in.", Quantity.S(Math.Round(start.OpenS!.Value - high, 1)))),
            StartEnd.RanOn when start.OpenS + HandS > high => (Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, Sentence.Of("Too near the limit for a hand on a key: time it twice more.")),
            StartEnd.RanOn when low is { } early && start.OpenS < early => (Verdict.CannotTell, "openedEarly", "Early", Lean.Below, Sentence.Of("Was it cold? Let it stand until it is as cold as the day, and time it again.")),
            StartEnd.RanOn => (Verdict.Good, "opensRight", "In time", Lean.None, Sentence.Of("The choke works. Stop it, let it stand, and see that it shuts again.")),
        };
    }

    private IEnumerable<Figure> WarmUpFigures(OpeningReading start)
    {
        if (WarmUpOf(start) is not { } warm)
        {
            yield break;
        }

        yield return new("warmUp", "Warm-up, time constant", Quantity.S(Math.Round(warm.TauS)));
        foreach (var day in OtherDaysC.Where(day => Math.Abs(day - start.AmbientC!.Value) > 5))
        {
            var next = warm.FullyOpen(day);
            var name = $"Fully open at {day:0} °C";
            yield return new($"at{day:0}", name, Quantity.S(Math.Round(next.BestS)));
            yield return new($"at{day:0}Least", $"{name}, at least", Quantity.S(Math.Floor(next.LeastS)));
            if (next.MostS is { } most)
            {
                yield return new($"at{day:0}Most", $"{name}, at most", Quantity.S(Math.Ceiling(most)));
            }
        }
    }

    private List<Sentence> Why(OpeningReading start, double? low, double high)
    {
        var why = new List<Sentence>();
        if (Heat)
        {
            why.Add(Sentence.Of("{0} to {1} on such a day: a couple of minutes at {2}, longer the colder it is (first-order warm-up).", Quantity.S(Math.Round(low!.Value)), Quantity.S(Math.Round(high)), Quantity.AtC(UsualC)));
            why.Add(start.AmbientC is null
                ? Sentence.Of("Note the temperature outside, and it says when it will open on other days.")
                : Sentence.Of("Other days: T = end − (end − outside) × e^(−t/τ) fitted to the times, the pellet working from {0} to {1} (from memory); times by hand to {2}.", Quantity.AtC(OpeningWindow.Usual.BeginsC), Quantity.AtC(OpeningWindow.Usual.FullC), Quantity.S(WarmUp.TimingS)));
        }
        else
        {
            why.Add(Sentence.Of("Suction opens it within 2 to {0} of the start; a hand on a key is good to {1}.", Quantity.S(VacuumS), Quantity.S(HandS)));
        }

        why.Add(Sentence.Of("An engine that falters just as the plate is fully open runs short of fuel: the shut plate made up for it. Common practice, no source."));
        return why;
    }
}
