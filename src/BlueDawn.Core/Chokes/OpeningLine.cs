using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
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
/// <param name="SteadyS">When the engine ran evenly, or null.</param>
/// <param name="StoppedS">When it was stopped, or null.</param>
/// <param name="ClosedS">When the plate was shut again after that, or null.</param>
/// <param name="Foretold">When an earlier start of this carburetor said that it would be fully open; worked out when it is
/// recorded.</param>
public sealed record OpeningReading(
    StartEnd End,
    double? BeginsS,
    double? HalfS,
    double? OpenS,
    double? FalteredS,
    double? AmbientC,
    double? SteadyS = null,
    double? StoppedS = null,
    double? ClosedS = null,
    PredictedTime? Foretold = null
) : Reading;

/// <summary>What the start of an automatic choke is held against.</summary>
/// <param name="LowS">Earliest it may be fully open on a day of 20 °C; null where there is none.</param>
/// <param name="HighS">Latest it may be.</param>
/// <param name="Works">Temperatures over which a heat choke opens.</param>
/// <param name="SourceName">Where they are from.</param>
public sealed record OpeningLimits(double? LowS, double HighS, OpeningWindow Works, string SourceName)
{
    /// <summary>Where limits are from that no sheet gives.</summary>
    public const string ShopDefault = "Shop default for chokes";

    /// <summary>What a choke is held against by sheet and shop.</summary>
    /// <param name="choke">Vacuum or heat.</param>
    /// <param name="sheet">The sheet.</param>
    /// <param name="usual">The shop's defaults.</param>
    public static OpeningLimits Of(ChokeKind choke, SpecSheet sheet, ChokeDefaults usual)
    {
        var (says, heat) = (sheet.Opens, choke == ChokeKind.Heat);
        var works = OpeningWindow.Of(says, usual);
        // A sheet that gives the latest alone says nothing of an earliest: the shop's may lie behind it.
        return says?.OpensHighS is { } high
            ? new OpeningLimits(says.OpensLowS, high, works, sheet.Name)
            : new OpeningLimits(heat ? usual.HeatLowS : null, heat ? usual.HeatHighS : usual.VacuumOpenS, works, ShopDefault);
    }
}

/// <summary>A start of an engine with an automatic choke, timed.</summary>
/// <param name="Choke">Vacuum or heat.</param>
/// <param name="Opens">What it is held against.</param>
public sealed record OpeningLine(ChokeKind Choke, OpeningLimits Opens)
    : GaugeLine<OpeningReading>("chokes/opening", Station.Chokes, "Start", "Choke timed from the start")
{
    private static readonly LineFinding NeverOpened = LineFinding.Bad("neverOpened", "Does not open", Lean.Above);
    private static readonly LineFinding StarvedAsItOpens = LineFinding.Bad("starvedAsItOpens", "Choke right, fuel short");
    private static readonly LineFinding OpensLate = LineFinding.Bad("opensLate", "Late", Lean.Above);
    private static readonly LineFinding OpenedEarly = LineFinding.Open("openedEarly", Lean.Below, word: "Early");
    private static readonly LineFinding OpensRight = LineFinding.Good("opensRight", "In time");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [LineFinding.CannotTell, NeverOpened, StarvedAsItOpens, OpensLate, OpenedEarly, OpensRight];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>A hand on a key is this late or early at most, in seconds. Own judgement.</summary>
    private const double HandS = 0.4;

    /// <summary>The day a heat choke's times are given for, in °C.</summary>
    private const double UsualC = 20;

    /// <summary>What the exhaust would warm a heat choke to, in °C, for how the window moves with the day. Own judgement.</summary>
    private const double UsualEndC = 130;

    /// <summary>A stumble this near to fully open, as a share of the time, is the choke uncovering an engine short of fuel. Own
    /// judgement.</summary>
    private const double NearShare = 0.25,
        NearS = 3;

    /// <summary>Days a heat choke's next start is told for, in °C.</summary>
    private static readonly double[] OtherDaysC = [0, 10, 20, 30];

    /// <summary>Longest a start is timed, in seconds.</summary>
    private const int LongestS = 3600;

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
    public override LineLimits? Limits =>
        new(
            Heat
                ? Opens.LowS is { } low
                    ? Sentence.Of("open after {0} to {1} at {2}", Quantity.S(low), Quantity.S(Opens.HighS), Quantity.AtC(UsualC))
                    : Sentence.Of("open within {0} at {1}", Quantity.S(Opens.HighS), Quantity.AtC(UsualC))
                : Sentence.Of("open within {0}", Quantity.S(Opens.HighS)),
            new Span(Dimension.Time, Opens.LowS, Opens.HighS),
            Opens.SourceName
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Running;

    private static readonly LineBox<double?> BeginsBox = Seen("begins", "begins");
    private static readonly LineBox<double?> HalfBox = Seen("half", "half open");
    private static readonly LineBox<double?> OpenBox = Seen("open", "open");
    private static readonly LineBox<double?> FalteredBox = Seen("faltered", "falters");
    private static readonly LineBox<double?> AmbientBox = Box.Optional("ambient", "outside", Dimension.Temperature, -40, 50);
    private static readonly LineBox<double?> SteadyBox = Noted("steady", "steady");
    private static readonly LineBox<double?> StoppedBox = Noted("stopped", "stopped");
    private static readonly LineBox<double?> ClosedBox = Noted("closed", "shut again");
    private static readonly LineBox<StartEnd> EndBox = Box.Choice("end", "then", Ends);

    private static LineBox<double?> Seen(string name, string label) => Box.Optional(name, label, Dimension.Time, 0, LongestS);

    private static LineBox<double?> Noted(string name, string label) => Box.Noted(name, label, Dimension.Time, 0, LongestS);

    /// <inheritdoc/>
    protected override LineForm<OpeningReading> Boxes =>
        new(
            new BoxGroup(
                "start",
                "Start",
                [
                    BeginsBox,
                    .. Heat ? [HalfBox] : Array.Empty<LineBox>(),
                    OpenBox,
                    FalteredBox,
                    .. Heat ? [AmbientBox] : Array.Empty<LineBox>(),
                    SteadyBox,
                    StoppedBox,
                    ClosedBox,
                    EndBox,
                ]
            ),
            boxes =>
            {
                var (begins, half, open) = (boxes.Get(BeginsBox), Heat ? boxes.Get(HalfBox) : null, boxes.Get(OpenBox));
                var (faltered, ambient) = (boxes.Get(FalteredBox), Heat ? boxes.Get(AmbientBox) : null);
                var (steady, stopped, closed) = (boxes.Get(SteadyBox), boxes.Get(StoppedBox), boxes.Get(ClosedBox));
                var end = boxes.Get(EndBox);
                if (boxes.IsRight)
                {
                    if (end == StartEnd.NotOpened && open is not null)
                    {
                        boxes.Wrong(OpenBox, "It did not open: take the time out, or say how it ended.");
                    }
                    else if (end == StartEnd.RanOn && open is null)
                    {
                        boxes.Wrong(OpenBox, "When was it fully open?");
                    }
                    else if (end == StartEnd.Faltered && open is null && faltered is null)
                    {
                        boxes.Wrong(FalteredBox, "When did it falter, or when was it open?");
                    }

                    if (half < begins)
                    {
                        boxes.Wrong(HalfBox, "Half open must come after it begins.");
                    }
                    else if (open < (half ?? begins))
                    {
                        boxes.Wrong(OpenBox, "Fully open must come last.");
                    }

                    if (stopped < (open ?? begins))
                    {
                        boxes.Wrong(StoppedBox, "It must be stopped after it has opened.");
                    }
                    else if (closed is not null && !(closed >= stopped))
                    {
                        boxes.Wrong(ClosedBox, "Note both: when it was stopped and when it shut again.");
                    }
                }

                return new OpeningReading(end, begins, half, open, faltered, ambient, steady, stopped, closed);
            }
        );

    /// <inheritdoc/>
    protected override Sentence Describe(OpeningReading start) =>
        start.OpenS is { } open
            ? Sentence.Of($"open after {{0}}, {Ends.First(end => end.End == start.End).Label.ToLowerInvariant()}", Quantity.S(open))
            : Sentence.Of(Ends.First(end => end.End == start.End).Label.ToLowerInvariant());

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of(
            Heat
                ? "Cold start, air cleaner off: start the clock as it runs, press at each thing you see."
                : "Air cleaner’s screw in: start the clock as it runs, press when the plate is open."
        );

    /// <inheritdoc/>
    protected override Judgement Judge(OpeningReading start, PinSet pins)
    {
        var (low, high) = LimitsOn(start.AmbientC);
        var (finding, next) = Said(start, low, high);
        return finding.Judged(
            next,
            found: start.OpenS is { } open ? new Span(Dimension.Time, Math.Max(0, open - HandS), open + HandS) : null,
            figures:
            [
                .. start.OpenS is { } opened ? [new Figure("open", "Fully open after", Quantity.S(opened))] : Array.Empty<Figure>(),
                .. start.FalteredS is { } faltered
                    ? [new Figure("faltered", "Faltered after", Quantity.S(faltered))]
                    : Array.Empty<Figure>(),
                .. start.SteadyS is { } steady ? [new Figure("steady", "Ran evenly after", Quantity.S(steady))] : Array.Empty<Figure>(),
                .. start is { StoppedS: { } stopped, ClosedS: { } closed }
                    ? [new Figure("closed", "Shut again, after it was stopped", Quantity.S(Math.Round(closed - stopped, 1)))]
                    : Array.Empty<Figure>(),
                .. WarmUpFigures(start),
            ],
            why: Why(start, low, high)
        );
    }

    /// <summary>Nothing that is timed without the air cleaner's screw counts.</summary>
    protected override IReadOnlyList<FieldProblem> CheckOn(OpeningReading reading, TrayBook tray) =>
        tray.Lines.Any(line => line.Line.Key == ChokesStation.ScrewLook && line.Judgement.Verdict == Verdict.NotGood)
            ?
            [
                new FieldProblem(
                    OpenBox.Name,
                    "The air cleaner’s screw is not in: nothing that is timed now counts. Put it in, say so, and time it again."
                ),
            ]
            : [];

    /// <summary>An earlier start says when this one had to be open: whether it was tells an actuator from something that hangs.</summary>
    protected override OpeningReading Complete(OpeningReading reading, TrayBook tray) =>
        reading.AmbientC is { } ambient
        && tray
            .Log.Notes<ReadingNote>()
            .Select(logged => logged.Note.Reading is OpeningReading earlier ? WarmUpOf(earlier) : null)
            .LastOrDefault(warm => warm is not null)
            ?.FullyOpen(ambient)
            is { } foretold
            ? reading with
            {
                Foretold = foretold,
            }
            : reading;

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

        return WarmUp.Fit(ambient, times, Opens.Works.Seen);
    }

    /// <summary>The window in seconds on a day of this temperature: warming up takes longer from further down.</summary>
    private (double? Low, double High) LimitsOn(double? ambientC)
    {
        if (!Heat)
        {
            return (Opens.LowS, Opens.HighS);
        }

        double To(double ambient) => WarmUp.SecondsTo(ambient, Math.Max(UsualEndC, Opens.Works.FullC + 20), 1, Opens.Works.FullC);
        var share = ambientC is { } day ? To(day) / To(UsualC) : 1;
        return (Opens.LowS * share, Opens.HighS * share);
    }

    private (LineFinding Finding, Sentence Next) Said(OpeningReading start, double? low, double high)
    {
        // The engine runs short as the plate uncovers it: the choke has done its work.
        var uncovered =
            start.End == StartEnd.Faltered
            && (
                start.OpenS is not { } stood
                || start.FalteredS is not { } fell
                || Math.Abs(fell - stood) <= Math.Max(NearS, NearShare * stood)
            );
        return start.End switch
        {
            StartEnd.NotOpened => (
                NeverOpened,
                Sentence.Of(
                    Heat
                        ? "Look at link and spring by hand, then hold the pin in warm water: if it does not move there, renew it."
                        : "Look at the chamber’s diaphragm, its springs and the passage to it; the screw has to be in."
                )
            ),
            StartEnd.Faltered when uncovered => (
                StarvedAsItOpens,
                Sentence.Of(
                    "Leave the choke: it only hid that the main circuit is short of fuel. Back to Clean and Gauge for main jet and tube, not to coil or cap."
                )
            ),
            StartEnd.Faltered => (
                LineFinding.CannotTell,
                Sentence.Of("It faltered long before or after the plate was open: time it once more, and look what else changes then.")
            ),
            StartEnd.RanOn when start.OpenS - HandS > high => (
                OpensLate,
                Sentence.Of(
                    Heat
                        ? AsForetold(start) switch
                        {
                            true => "Open {0} too late, and as the earlier start foretold: what warms it is slow, "
                                + "nothing hangs. Look at its place on the exhaust, then warm it in water.",
                            false =>
                                "Open {0} too late, and not as the earlier start foretold: link, spring or shaft hangs. Free them and time it again.",
                            null => "Open {0} too late: link and spring free by hand? Then what moves it, in warm water.",
                        }
                        : "Open {0} too late: fuel in its chamber, a hard diaphragm, a leaking cover, the screw not in.",
                    Quantity.S(Math.Round(start.OpenS!.Value - high, 1))
                )
            ),
            StartEnd.RanOn when start.OpenS + HandS > high => (
                LineFinding.CannotTell,
                Sentence.Of("Too near the limit for a hand on a key: time it twice more.")
            ),
            StartEnd.RanOn when low is { } early && start.OpenS < early => (
                OpenedEarly,
                Sentence.Of("Was it cold? Let it stand until it is as cold as the day, and time it again.")
            ),
            StartEnd.RanOn when AsForetold(start) == false => (
                LineFinding.CannotTell with
                {
                    Lean = start.OpenS > start.Foretold!.BestS ? Lean.Above : Lean.Below,
                },
                Sentence.Of(
                    "In time, but not as the earlier start foretold: does it stand cold, and is the link free end to end? Time it once more."
                )
            ),
            StartEnd.RanOn => (OpensRight, Sentence.Of("The choke works. Stop it, let it stand, and see that it shuts again.")),
        };
    }

    /// <summary>Whether it opened when an earlier start said that it would; null when none did.</summary>
    private static bool? AsForetold(OpeningReading start) =>
        start is not { Foretold: { } told, OpenS: { } open }
            ? null
            : open >= told.LeastS - (2 * WarmUp.TimingS) && !(open > told.MostS + (2 * WarmUp.TimingS));

    private IEnumerable<Figure> WarmUpFigures(OpeningReading start)
    {
        if (start.Foretold is { } told)
        {
            yield return new("foretold", "Foretold by the earlier start", Quantity.S(Math.Round(told.BestS)));
            yield return new("foretoldLeast", "Foretold, at least", Quantity.S(Math.Floor(told.LeastS)));
            if (told.MostS is { } atMost)
            {
                yield return new("foretoldMost", "Foretold, at most", Quantity.S(Math.Ceiling(atMost)));
            }
        }

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
            why.Add(
                low is { } early
                    ? Sentence.Of(
                        "{0} to {1} on such a day, longer the colder it is (first-order warm-up).",
                        Quantity.S(Math.Round(early)),
                        Quantity.S(Math.Round(high))
                    )
                    : Sentence.Of("Within {0} on such a day, longer the colder it is (first-order warm-up).", Quantity.S(Math.Round(high)))
            );
            if (AsForetold(start) is { } alike)
            {
                why.Add(
                    Sentence.Of(
                        alike
                            ? "An earlier start foretold {0}: it opened when it had to."
                            : "An earlier start foretold {0}; outside what it may be in 95 of 100.",
                        Quantity.S(Math.Round(start.Foretold!.BestS))
                    )
                );
            }

            why.Add(
                start.AmbientC is null
                    ? Sentence.Of("Note the temperature outside, and it says when it will open on other days.")
                    : Sentence.Of(
                        "Other days: T = end − (end − outside) × e^(−t/τ) fitted to the times, "
                            + "the choke working from {0} to {1}; times by hand to {2}.",
                        Quantity.AtC(Opens.Works.BeginsC),
                        Quantity.AtC(Opens.Works.FullC),
                        Quantity.S(WarmUp.TimingS)
                    )
            );
        }
        else
        {
            why.Add(
                Sentence.Of(
                    "Suction opens it within {0} of the start; a hand on a key is good to {1}.",
                    Quantity.S(Opens.HighS),
                    Quantity.S(HandS)
                )
            );
        }

        why.Add(
            Sentence.Of(
                "An engine that falters just as the plate is fully open runs short of fuel: the shut plate made up for it. Common practice, no source."
            )
        );
        return why;
    }
}
