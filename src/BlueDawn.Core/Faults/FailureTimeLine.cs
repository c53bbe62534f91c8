using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>Under which condition it ran.</summary>
public enum RunUnder
{
    /// <summary>As it is used.</summary>
    Plain,

    /// <summary>The tank's cap cracked open.</summary>
    CapCracked,

    /// <summary>The cap off.</summary>
    CapOff,

    /// <summary>The choke plate held part shut, once it would stand open.</summary>
    PlateHeld,
}

/// <summary>How long it ran from a cold start.</summary>
/// <param name="Minutes">Minutes from the start until it died, or until it was stopped.</param>
/// <param name="Died">Whether it died by itself.</param>
/// <param name="ChokeOpenMin">When the choke stood fully open, in minutes from the start; null when nobody watched it.</param>
/// <param name="AirML">Air above the fuel in the tank; null when not known.</param>
/// <param name="BurnMLPerMin">What it drinks; null when not known.</param>
/// <param name="Under">Under which condition it ran.</param>
public sealed record FailureTimeReading(
    double Minutes,
    bool Died,
    double? ChokeOpenMin,
    double? AirML,
    double? BurnMLPerMin,
    RunUnder Under = RunUnder.Plain
) : Reading
{
    /// <summary>Whether the tank could draw air past its vent.</summary>
    [JsonIgnore]
    public bool CapOpen => Under is RunUnder.CapCracked or RunUnder.CapOff;

    /// <inheritdoc/>
    [JsonIgnore]
    public override double? DiedAfterMin => Died ? Minutes : null;

    /// <inheritdoc/>
    [JsonIgnore]
    public override double? RanForMin => Minutes;
}

/// <summary>Whether a time fits what would take that long.</summary>
public enum TimeFit
{
    /// <summary>Not enough is known.</summary>
    Unknown,

    /// <summary>It fits.</summary>
    Fits,

    /// <summary>It is too early or too late for it.</summary>
    DoesNotFit,
}

/// <summary>
/// Minutes to failure, held against what takes minutes: a heat choke to open, a tank without a vent to pull a vacuum, a coil
/// to heat.
/// </summary>
/// <param name="Kind">The carburetor.</param>
/// <param name="ChokeLowMin">Earliest its heat choke is fully open; 0 for another choke.</param>
/// <param name="ChokeHighMin">Latest it is.</param>
/// <param name="CoilTauMin">Time constant of a coil that heats on a running engine, in minutes.</param>
/// <param name="EnoughMin">Minutes without dying after which it is said to run on.</param>
public sealed record FailureTimeLine(CarburetorKind Kind, double ChokeLowMin, double ChokeHighMin, double CoilTauMin, double EnoughMin)
    : GaugeLine<FailureTimeReading>(LineKey, Station.Faults, CompressionLine.Quick, "Minutes to failure")
{
    private static readonly LineFinding RunsOn = LineFinding.Good("runsOn", "Runs on");
    private static readonly LineFinding RanShort = LineFinding.Open("ranShort", Lean.Below);
    private static readonly LineFinding WithTheChoke = LineFinding.Bad("withChoke", "Dies as the choke opens", Lean.Below);
    private static readonly LineFinding AsShutVent = LineFinding.Bad("asTankSeals", "As a shut vent would", Lean.Below);
    private static readonly LineFinding TankOrCoil = LineFinding.Bad("tankOrCoil", "Vent or coil", Lean.Below);
    private static readonly LineFinding Late = LineFinding.Bad("late", "Late", Lean.Below);
    private static readonly LineFinding LateEnough = Late with { Word = "Late enough for a coil" };
    private static readonly LineFinding Early = LineFinding.Bad("early", "Too early for either", Lean.Below);
    private static readonly LineFinding LivesWithCap = LineFinding.Bad("livesWithCapOpen", "Lives with the cap open", Lean.Below);
    private static readonly LineFinding NotTheVent = LineFinding.Bad("diesWithCapOpen", "Not the vent", Lean.Below);
    private static readonly LineFinding LivesWithPlate = LineFinding.Bad("livesWithPlateHeld", "Lives on choke", Lean.Below);
    private static readonly LineFinding EarlyForCoil = Early with { Word = "Too early for a coil" };

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [
        RunsOn,
        RanShort,
        WithTheChoke,
        AsShutVent,
        TankOrCoil,
        Late,
        LateEnough,
        Early,
        EarlyForCoil,
        LivesWithCap,
        NotTheVent,
        LivesWithPlate,
    ];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Its key.</summary>
    public const string LineKey = "faults/minutes-to-failure";

    /// <summary>What it times, as the trace knows it.</summary>
    internal const string DiesAfterMinutes = "dies-after-minutes";

    /// <summary>The findings of the trace that minutes to failure tell.</summary>
    public static IReadOnlyList<string> Tells { get; } = [DiesAfterMinutes, AtChoke, AtTank, AtCoil, WithCapLoose];

    private const string AtChoke = "falters-as-choke-opens",
        AtTank = "dies-as-tank-seals",
        AtCoil = "dies-late",
        WithCapLoose = "better-cap-loose";

    /// <summary>A coil that fails hot does so between these shares of its rise. Own judgement.</summary>
    private const double ColdestShare = 0.6,
        HottestShare = 0.98;

    /// <summary>Two times are the same within this many minutes, or this share. Own judgement: a start and a stop by hand and
    /// ear.</summary>
    private const double SameMin = 0.5,
        SameShare = 0.1;

    /// <summary>The line of a carburetor.</summary>
    /// <param name="kind">The carburetor.</param>
    /// <param name="sheet">Its sheet.</param>
    /// <param name="usual">What it is held against where the sheet says nothing.</param>
    /// <param name="chokes">What chokes are.</param>
    /// <param name="saidMin">Minutes after which it is said to fail: it has to run twice as long. Null when nobody said: then until every coil
    /// that fails hot has failed.</param>
    public static FailureTimeLine Of(CarburetorKind kind, SpecSheet sheet, QuickTestDefaults usual, ChokeDefaults chokes, double? saidMin)
    {
        var heat = kind.Choke == ChokeKind.Heat;
        return new FailureTimeLine(
            kind,
            heat ? (sheet.Opens?.OpensLowS ?? chokes.HeatLowS) / 60 : 0,
            heat ? (sheet.Opens?.OpensHighS ?? chokes.HeatHighS) / 60 : 0,
            usual.CoilTauMin,
            Math.Max(usual.RunsOnMin, saidMin is { } said ? 2 * said : Math.Ceiling(CoilWindow(usual.CoilTauMin).High))
        );
    }

    /// <inheritdoc/>
    public override bool Running => true;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(Sentence.Of("runs {0} and more", Quantity.Min(EnoughMin)), new Span(Dimension.Minutes, EnoughMin, null), "Shop default");

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Running;

    private static readonly LineBox<double> MinutesBox = Box.Number("minutes", "ran for", Dimension.Minutes, 0.05m, 240);
    private static readonly LineBox<double?> ChokeBox = Box.Detail("choke", "choke at", Dimension.Minutes, 0, 60);
    private static readonly LineBox<double?> AirBox = Box.Detail("air", "tank air", Dimension.Volume, 1, 50_000);
    private static readonly LineBox<double?> BurnBox = Box.Detail("burn", "it drinks", Dimension.VolumeFlow, 0.1m, 500);
    private static readonly LineBox<bool> EndedBox = Box.Choice(
        "ended",
        "ended",
        (true, "died", "Died by itself"),
        (false, "stopped", "Still ran")
    );

    private static readonly (RunUnder Means, string Value, string Words)[] Conditions =
    [
        (RunUnder.Plain, "plain", "As it is used"),
        (RunUnder.CapCracked, "capCracked", "Cap cracked open"),
        (RunUnder.CapOff, "capOff", "Cap off"),
        (RunUnder.PlateHeld, "plateHeld", "Plate held part shut"),
    ];

    private static readonly LineBox<RunUnder> UnderBox = new(
        EntryField.Choice("under", "how", true, [.. Conditions.Select(one => new EntryChoice(one.Value, one.Words))]),
        typed =>
            typed.Text("under").Length == 0 ? RunUnder.Plain
            : typed.Choice("under", [.. Conditions.Select(one => one.Value)]) is var said
            && Conditions.FirstOrDefault(one => one.Value == said) is var found
                ? found.Means
            : RunUnder.Plain
    );

    /// <inheritdoc/>
    protected override LineForm<FailureTimeReading> Boxes =>
        new(new BoxGroup("clock", "Clock", [MinutesBox, ChokeBox, AirBox, BurnBox, UnderBox, EndedBox]), boxes => new FailureTimeReading(
            boxes.Get(MinutesBox),
            boxes.Get(EndedBox),
            boxes.Get(ChokeBox),
            boxes.Get(AirBox),
            boxes.Get(BurnBox),
            boxes.Get(UnderBox)
        ));

    /// <summary>Earliest and latest minutes at which a coil that fails hot does: first-order heating, t = −τ ln(1 − share).</summary>
    /// <param name="tauMin">Its time constant.</param>
    public static (double Low, double High) CoilWindow(double tauMin) =>
        (-tauMin * SteadyMath.Log(1 - ColdestShare), -tauMin * SteadyMath.Log(1 - HottestShare));

    /// <inheritdoc/>
    protected override Sentence Describe(FailureTimeReading read)
    {
        var under = read.Under switch
        {
            RunUnder.Plain => "",
            RunUnder.CapCracked => ", cap cracked open",
            RunUnder.CapOff => ", cap off",
            RunUnder.PlateHeld => ", plate held part shut",
        };
        return read.ChokeOpenMin is { } open
            ? Sentence.Of(
                $"{(read.Died ? "died" : "still ran")} after {{0}}, choke open at {{1}}{under}",
                Quantity.Min(read.Minutes),
                Quantity.Min(open)
            )
            : Sentence.Of($"{(read.Died ? "died" : "still ran")} after {{0}}{under}", Quantity.Min(read.Minutes));
    }

    /// <summary>Whether it died just as the choke stood open.</summary>
    /// <param name="read">The reading.</param>
    public static TimeFit WithChoke(FailureTimeReading read) =>
        read is { ChokeOpenMin: { } open, Under: not RunUnder.PlateHeld }
            ? Fit(Math.Abs(read.Minutes - open) <= Slack(open))
            : TimeFit.Unknown;

    /// <summary>Whether it died when a tank without a vent would have starved it.</summary>
    /// <param name="read">The reading.</param>
    public TimeFit AsTankSeals(FailureTimeReading read) =>
        !read.CapOpen && Tank(read) is { } tank ? Fit(Within(read.Minutes, tank)) : TimeFit.Unknown;

    /// <summary>Minutes from which on one that lives is good: none at which what takes minutes could still come.</summary>
    private double Enough(FailureTimeReading read) => Math.Max(EnoughMin, Tank(read)?.High ?? 0);

    /// <summary>Whether it died when a coil could have been hot.</summary>
    /// <param name="read">The reading.</param>
    public TimeFit CoilHot(FailureTimeReading read) => Fit(read.Minutes >= CoilWindow(CoilTauMin).Low - Slack(read.Minutes));

    /// <summary>What the times say, as signs for the trace.</summary>
    /// <param name="reading">The reading that counts, or null.</param>
    /// <param name="entryId">Its entry.</param>
    /// <param name="at">When it was taken.</param>
    public IReadOnlyList<FindingSign> Signs(Reading? reading, Guid entryId, DateTimeOffset at) =>
        [.. Shown(reading).Select(found => new FindingSign(found.Finding, Key, entryId, at, found.Present))];

    /// <summary>What the times say, as findings of the trace and whether each is there.</summary>
    private List<(string Finding, bool Present)> Shown(Reading? reading)
    {
        if (reading is not FailureTimeReading read)
        {
            return [];
        }

        if (!read.Died)
        {
            return read.Minutes < Enough(read)
                ? []
                : read.Under switch
                {
                    RunUnder.Plain => [(DiesAfterMinutes, false)],
                    // It lives because the tank draws air: that is the vent's proof, and no all-clear.
                    RunUnder.CapCracked or RunUnder.CapOff => [(WithCapLoose, true)],
                    // It lives on a richer mixture: the main circuit is short of fuel.
                    RunUnder.PlateHeld => [(AtChoke, true)],
                };
        }

        var found = new List<(string, bool)> { (DiesAfterMinutes, true) };
        if (read.CapOpen)
        {
            found.Add((WithCapLoose, false));
        }

        void Add(string finding, TimeFit fit)
        {
            if (fit != TimeFit.Unknown)
            {
                found.Add((finding, fit == TimeFit.Fits));
            }
        }

        Add(AtChoke, WithChoke(read));
        Add(AtTank, AsTankSeals(read));
        Add(AtCoil, CoilHot(read));
        return found;
    }

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Cold start, clock on, and watch the choke: how long until it dies?");

    /// <inheritdoc/>
    protected override Judgement Judge(FailureTimeReading read, PinSet pins)
    {
        var found = new Span(Dimension.Minutes, read.Minutes, read.Minutes);
        var (low, high) = CoilWindow(CoilTauMin);
        List<Sentence> why =
        [
            Sentence.Of(
                "A coil that fails hot does so after {0} to {1}: heating of the first order with {2}, which is own judgement.",
                Min(low),
                Min(high),
                Min(CoilTauMin)
            ),
            Tank(read) is { } tank
                ? Sentence.Of(
                    "A tank with {0} of air and no vent starves an engine that drinks {1} after {2} to {3}: Boyle’s law, over cold and hot fuel.",
                    Quantity.ML(read.AirML!.Value),
                    Quantity.MLPerMin(read.BurnMLPerMin!.Value),
                    Min(tank.Low),
                    Min(tank.High)
                )
                : Sentence.Of("With the air in the tank and what it drinks, the time a shut vent takes could be told."),
            read.ChokeOpenMin is { } open ? Sentence.Of("The choke stood open at {0}.", Min(open))
            : Kind.Choke == ChokeKind.Heat
                ? Sentence.Of(
                    "Its choke is open after {0} to {1} on a day of 20 °C; nobody watched it.",
                    Min(ChokeLowMin),
                    Min(ChokeHighMin)
                )
            : Sentence.Of("Nobody noted when the choke stood open."),
        ];
        if (!read.Died)
        {
            if (read.Minutes < Enough(read))
            {
                return RanShort.Judged(
                    Sentence.Of("It still ran when it was stopped: run it {0} and more.", Min(Enough(read))),
                    found: found,
                    why: why
                );
            }

            var (lives, then) = read.Under switch
            {
                RunUnder.Plain => (RunsOn, Sentence.Of("It did not die this time. Go on.")),
                RunUnder.CapCracked or RunUnder.CapOff => (
                    LivesWithCap,
                    Sentence.Of("With the cap open it lives: the vent is shut. Clear or renew it, then run it with the cap shut.")
                ),
                RunUnder.PlateHeld => (
                    LivesWithPlate,
                    Sentence.Of(
                        "On a richer mixture it lives: the main circuit is short of fuel. Bowl or cover off, look through the main jet."
                    )
                ),
            };
            return lives.Judged(then, found: found, why: why);
        }

        var (choke, vent, coil) = (WithChoke(read), AsTankSeals(read), CoilHot(read));
        if (read.CapOpen && choke != TimeFit.Fits)
        {
            return NotTheVent.Judged(
                coil == TimeFit.Fits
                    ? Sentence.Of(
                        "It dies with the cap open too: not the vent. A coil is hot by then: spark light on at the moment it dies."
                    )
                    : Sentence.Of("It dies with the cap open too: not the vent, and no coil is hot that soon. Filter, needle, main jet."),
                found: found,
                why: why
            );
        }

        var (finding, next) = (choke, vent, coil) switch
        {
            (TimeFit.Fits, _, _) => (
                WithTheChoke,
                Sentence.Of("The choke hid a main circuit short of fuel. Not the coil, not the cap: bowl off, look through the main jet.")
            ),
            (_, TimeFit.Fits, TimeFit.DoesNotFit) => (
                AsShutVent,
                Sentence.Of(
                    "A tank without a vent starves it about then, and no coil is hot that soon: "
                        + "blow through the vent, then run with the cap cracked open to the same time."
                )
            ),
            (_, TimeFit.Fits, _) => (
                TankOrCoil,
                Sentence.Of(
                    "A shut vent takes that long, and so does a coil: run with the cap cracked open to the same time, spark light on."
                )
            ),
            (_, TimeFit.DoesNotFit, TimeFit.Fits) => (
                Late,
                Sentence.Of("Too long for the tank; a coil is hot by then. Spark light on at the moment it dies.")
            ),
            (_, TimeFit.DoesNotFit, _) => (
                Early,
                Sentence.Of("Neither vent nor coil: too little fuel comes, or too much. Main jet, filter, needle.")
            ),
            (TimeFit.Unknown, _, TimeFit.DoesNotFit) => (
                EarlyForCoil,
                Sentence.Of(
                    "No coil is hot that soon. Start it cold once more and note when the choke "
                        + "stands open: if it dies just then, the main circuit is short of fuel."
                )
            ),
            (_, _, TimeFit.DoesNotFit) => (
                EarlyForCoil,
                Sentence.Of("The choke had been open for a while and no coil is hot that soon: vent and fuel next. Blow through the vent.")
            ),
            _ => (
                LateEnough,
                Sentence.Of(
                    "A coil is hot by then. Crack the cap open first, which costs least; then the spark light at the moment it dies."
                )
            ),
        };
        return finding.Judged(
            next,
            found: found,
            figures:
            [
                new("coilLow", "A coil, from", Quantity.Min(low)),
                new("coilHigh", "A coil, to", Quantity.Min(high)),
                .. Tank(read) is { } shut
                    ?
                    [
                        new Figure("ventLow", "A shut vent, from", Quantity.Min(shut.Low)),
                        new Figure("ventHigh", "A shut vent, to", Quantity.Min(shut.High)),
                    ]
                    : Array.Empty<Figure>(),
            ],
            why: why
        );
    }

    private static Quantity Min(double minutes) => Quantity.Min(Math.Round(minutes, 1));

    private static TimeFit Fit(bool fits) => fits ? TimeFit.Fits : TimeFit.DoesNotFit;

    private static double Slack(double minutes) => Math.Max(SameMin, SameShare * minutes);

    private static bool Within(double minutes, (double Low, double High) window) =>
        minutes >= window.Low - Slack(window.Low) && minutes <= window.High + Slack(window.High);

    private (double Low, double High)? Tank(FailureTimeReading read) =>
        read is { AirML: { } air, BurnMLPerMin: { } burn } ? SealedTank.Window(Kind.Family, air, burn) : null;
}
