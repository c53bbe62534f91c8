using System.Globalization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Gauging;

/// <summary>What was seen of a bore without measuring it.</summary>
public enum BoreSeen
{
    /// <summary>Nothing goes through it.</summary>
    Blocked,

    /// <summary>Clear all through; how wide, nobody knows.</summary>
    Clear,
}

/// <summary>A reading of a bore, or of the holes of one emulsion tube row; lengths in millimetres.</summary>
/// <param name="GoPinMm">Largest pin that goes.</param>
/// <param name="NoGoPinMm">Smallest pin that stops.</param>
/// <param name="BoreMm">A direct reading instead.</param>
/// <param name="ResolutionMm">The instrument's smallest step.</param>
/// <param name="OpenHoles">For a row of holes: how many are open.</param>
/// <param name="Seen">What was seen instead of a size; null when one was measured.</param>
public sealed record BoreReading(
    decimal? GoPinMm,
    decimal? NoGoPinMm,
    decimal? BoreMm,
    decimal? ResolutionMm,
    int? OpenHoles,
    BoreSeen? Seen = null
) : Reading;

/// <summary>What a bore should be.</summary>
/// <param name="NominalMm">Nominal bore in millimetres.</param>
/// <param name="ToleranceMm">Allowed either way.</param>
/// <param name="SpecName">The spec sheet the limits are from.</param>
public sealed record BoreLimits(decimal NominalMm, decimal ToleranceMm, string SpecName);

/// <summary>A jet, or one row of holes of an emulsion tube.</summary>
/// <param name="Key">Stable name.</param>
/// <param name="Section">Heading on the sheet.</param>
/// <param name="Label">What is gauged.</param>
/// <param name="Bore">What it should be; null where no sheet says.</param>
/// <param name="Holes">Holes in the row; null for a jet.</param>
public sealed record BoreLine(string Key, string Section, string Label, BoreLimits? Bore, int? Holes)
    : GaugeLine<BoreReading>(Key, Station.Gauging, Section, Label)
{
    private static readonly LineFinding InGauge = LineFinding.Good("inGauge", "In gauge");
    private static readonly LineFinding Restricted = LineFinding.Bad("restricted", "Restricted", Lean.Below);
    private static readonly LineFinding OpenedUp = LineFinding.Bad("openedUp", "Opened up", Lean.Above);
    private static readonly LineFinding Clear = LineFinding.Open("clear", word: "Not pinned");
    private static readonly LineFinding Blocked = LineFinding.Bad("blocked", "Holes blocked", Lean.Below);

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [LineFinding.CannotTell, InGauge, Restricted, OpenedUp, Blocked, Clear, LineFinding.NoLimit];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    private const decimal LeastMm = 0.001m;

    /// <summary>What the shop does with a jet that starves.</summary>
    public JetSchool School { get; init; } = JetSchool.ClearOnly;

    /// <summary>The sheet's bore in millimetres, when it was opened beyond it on purpose; null when it is as the sheet says.</summary>
    public decimal? OpenedFromMm { get; init; }

    /// <summary>When it was opened, or a new one fitted.</summary>
    public DateTimeOffset? ChangedAt { get; init; }

    /// <inheritdoc/>
    public override DateTimeOffset? MadeAnotherAt => ChangedAt;

    /// <inheritdoc/>
    public override GaugeLine After(Log log) =>
        Holes is null && Bore is { } sheet && StepUpLine.LastOn(Key, log) is { Note.Reading: StepUpReading step } logged
            ? this with
            {
                Bore = sheet with { NominalMm = step.DrillMm ?? sheet.NominalMm },
                OpenedFromMm = step.DrillMm is null ? null : sheet.NominalMm,
                ChangedAt = logged.TakenAt,
            }
            : this;

    /// <inheritdoc/>
    public override string Part => Holes is null ? Key[(Key.IndexOf('/', StringComparison.Ordinal) + 1)..] : "emulsion-tube";

    /// <inheritdoc/>
    public override bool Required => Bore is not null;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => Bore is null;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        Bore is not { } bore
            ? null
            : new LineLimits(
                Holes is { } holes
                        ? Sentence.Of(
                            "{0} holes, {1} ± {2}",
                            Quantity.Count(holes),
                            Quantity.Mm(bore.NominalMm),
                            Quantity.Mm(bore.ToleranceMm)
                        )
                    : OpenedFromMm is { } before
                        ? Sentence.Of(
                            "{0} ± {1}, opened from {2}",
                            Quantity.Mm(bore.NominalMm),
                            Quantity.Mm(bore.ToleranceMm),
                            Quantity.Mm(before)
                        )
                    : Sentence.Of("{0} ± {1}", Quantity.Mm(bore.NominalMm), Quantity.Mm(bore.ToleranceMm)),
                new Span(Dimension.Length, (double)(bore.NominalMm - bore.ToleranceMm), (double)(bore.NominalMm + bore.ToleranceMm)),
                bore.SpecName
            );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.NeverForce;

    private LineBox<int> OpenHolesBox => Box.Count("openHoles", $"open of {Holes}", 0, Holes ?? 0);

    private LineBox<decimal?> GoBox => Size("go", "goes");

    private LineBox<decimal?> NoGoBox => Size("noGo", "stops");

    // It stands among the boxes as one to be filled; what is missing is said once for all three.
    private LineBox<decimal?> DirectBox =>
        new LineBox<decimal?>(EntryField.Measure("bore", "bore", Dimension.Length), typed =>
            typed.Optional("bore", Dimension.Length, 0, JetGauge.LargestMm)
        ).About((double?)Bore?.NominalMm);

    private static readonly LineBox<decimal?> ResolutionBox = new(EntryField.MeasureDetail("resolution", "step", Dimension.Length), typed =>
        typed.Optional("resolution", Dimension.Length, 0.0001m, 1m)
    );

    private LineBox<decimal?> Size(string name, string label) =>
        Box.OptionalExact(name, label, Dimension.Length, LeastMm, JetGauge.LargestMm).About((double?)Bore?.NominalMm);

    /// <inheritdoc/>
    protected override LineForm<BoreReading> Boxes
    {
        get
        {
            LineBox[] open = Holes is null ? [] : [OpenHolesBox];
            return new LineForm<BoreReading>(
                [
                    new BoxGroup("pins", "Pins", [.. open, GoBox, NoGoBox]),
                    new BoxGroup("direct", "Direct bore", [.. open, DirectBox, ResolutionBox]),
                ],
                Take
            )
            {
                Besides = [SeenBox],
            };
        }
    }

    private static readonly LineBox<BoreSeen?> SeenBox = new(
        EntryField.Choice("seen", "seen", true, new EntryChoice("blocked", "Blocked"), new EntryChoice("clear", "Clear")),
        typed =>
            typed.Text("seen").Length == 0 ? null
            : typed.Choice("seen", "blocked", "clear") == "blocked" ? BoreSeen.Blocked
            : BoreSeen.Clear
    );

    /// <inheritdoc/>
    protected override IReadOnlyList<QuickAnswer> AnswersBefore
    {
        get
        {
            Dictionary<string, string> Seen(string what, int open) =>
                Holes is null
                    ? new() { ["seen"] = what }
                    : new() { ["seen"] = what, ["openHoles"] = open.ToString(CultureInfo.InvariantCulture) };
            return
            [
                new QuickAnswer(Holes is null ? "Blocked, nothing goes" : "All blocked", Seen("blocked", 0), "not good"),
                new QuickAnswer(Holes is null ? "Clear, not pinned" : "All clear, not pinned", Seen("clear", Holes ?? 0), "size not known"),
            ];
        }
    }

    private BoreReading Take(TypedReader boxes)
    {
        int? open = Holes is null ? null : boxes.Get(OpenHolesBox);
        var (go, noGo) = (boxes.Get(GoBox), boxes.Get(NoGoBox));
        var (bore, resolution) = (boxes.Get(DirectBox), boxes.Get(ResolutionBox));
        if (bore == 0)
        {
            // A bore of nothing is no size: nothing goes.
            return new BoreReading(null, null, null, null, Holes is null ? null : 0, BoreSeen.Blocked);
        }

        var sized = go is not null || noGo is not null || bore is not null;
        // A size that was measured says more than a look.
        if (!sized && boxes.Get(SeenBox) is { } seen && (open is null || open == (seen == BoreSeen.Clear ? Holes : 0)))
        {
            return new BoreReading(null, null, null, null, open, seen);
        }

        if (boxes.IsRight && (sized || open is null || open == Holes))
        {
            foreach (var problem in JetGauge.CheckReading(go, noGo, bore, resolution))
            {
                boxes.Wrong(FieldOf(problem.Field), problem.Message);
            }
        }

        return new BoreReading(go, noGo, bore, bore is null ? null : resolution ?? JetGauge.DefaultResolutionMm, open);
    }

    /// <inheritdoc/>
    protected override Sentence Describe(BoreReading bore)
    {
        var parts = new List<string>();
        var quantities = new List<Quantity>();
        void Add(string words, Quantity quantity)
        {
            parts.Add(words.Replace("{}", "{" + quantities.Count + "}", StringComparison.Ordinal));
            quantities.Add(quantity);
        }

        if (Holes is { } holes)
        {
            Add($"{{}} of {holes} open", Quantity.Count(bore.OpenHoles ?? 0));
        }

        if (bore.Seen is { } seen)
        {
            parts.Add(seen == BoreSeen.Clear ? "clear, not pinned" : "nothing goes");
        }

        if (bore.GoPinMm is { } go)
        {
            Add("{} goes", Quantity.Mm(go));
        }

        if (bore.NoGoPinMm is { } noGo)
        {
            Add("{} stops", Quantity.Mm(noGo));
        }

        if (bore.BoreMm is { } direct)
        {
            Add("bore {}", Quantity.Mm(direct));
        }

        return new Sentence(string.Join(", ", parts), quantities);
    }

    /// <inheritdoc/>
    protected override Sentence Ask =>
        OpenedFromMm is null || Bore is not { } opened
            ? Sentence.Of("Pass pins: the largest that goes, the smallest that stops.")
            : Sentence.Of("It was opened to {0}: pass pins again.", Quantity.Mm(opened.NominalMm));

    /// <inheritdoc/>
    protected override Judgement Judge(BoreReading bore, PinSet pins)
    {
        if (Holes is { } holes && bore.OpenHoles < holes)
        {
            return TooFew(holes, bore.OpenHoles ?? 0);
        }

        if (bore.Seen is { } seen)
        {
            return Unmeasured(seen);
        }

        var bounds = bore.BoreMm is { } direct
            ? BoreBounds.FromDirect(direct, bore.ResolutionMm ?? JetGauge.DefaultResolutionMm)
            : BoreBounds.FromPins(bore.GoPinMm, bore.NoGoPinMm);
        if (Bore is not { } limits)
        {
            return WithoutLimit(new Span(Dimension.Length, bounds.LowMm == 0 ? null : (double)bounds.LowMm, (double?)bounds.HighMm));
        }

        var result = JetGauge.Judge(bounds, limits.NominalMm, limits.ToleranceMm, pins);
        var finding = result.Verdict switch
        {
            BoreVerdict.InGauge => InGauge,
            BoreVerdict.Restricted => Restricted,
            BoreVerdict.OpenedUp => OpenedUp,
            BoreVerdict.CannotTell => LineFinding.CannotTell,
        };
        return finding.Judged(
            DoNext(result),
            found: new Span(Dimension.Length, result.BoreLowMm == 0 ? null : (double)result.BoreLowMm, (double?)result.BoreHighMm),
            figures: Figures(result, limits),
            why: Why(result, bore, limits),
            answers: Answers(result, bore)
        );
    }

    /// <summary>Light through a hole is no proof of its size: varnish narrows one that still shows light. Common practice, no source.</summary>
    private static Judgement Unmeasured(BoreSeen seen) =>
        seen switch
        {
            BoreSeen.Blocked => (Blocked with { Word = "Blocked" }).Judged(
                Sentence.Of("Soak it, clear it with a soft strand and blow through, then gauge it."),
                why: [Sentence.Of("Nothing goes through it.")]
            ),
            BoreSeen.Clear => Clear.Judged(
                Sentence.Of("It is clear. Pass pins to know its size: varnish narrows a hole that still shows light."),
                why: [Sentence.Of("It is clear. How wide it is was not measured.")]
            ),
        };

    private static string FieldOf(string computeField) =>
        computeField switch
        {
            "goPinMm" => "go",
            "noGoPinMm" => "noGo",
            "boreMm" => "bore",
            "resolutionMm" => "resolution",
            _ => computeField,
        };

    private static Judgement TooFew(int holes, int open) =>
        (Blocked with { Word = holes - open == 1 ? "1 hole blocked" : $"{holes - open} holes blocked" }).Judged(
            Sentence.Of("Clear every hole, then count and gauge again: blocked air holes enrich the mixture."),
            figures:
            [
                new Figure("openHoles", "Open holes", Quantity.Count(open)),
                new Figure("holes", "Holes in the row", Quantity.Count(holes)),
            ],
            why:
            [
                Sentence.Of(
                    "{0} of {1} holes are open. The row is judged by pins only when all of them are.",
                    Quantity.Count(open),
                    Quantity.Count(holes)
                ),
            ]
        );

    private Sentence DoNext(JetGaugeResult result) =>
        result.Verdict switch
        {
            BoreVerdict.InGauge => Sentence.Of("Leave it. Go on."),
            BoreVerdict.OpenedUp => Sentence.Of(
                $"At least {{0}} too wide: {(Holes is null ? "fit a new jet" : "renew the tube")}.",
                Quantity.Mm(result.BoreLowMm - result.WindowHighMm)
            ),
            BoreVerdict.Restricted when Holes is null && School == JetSchool.Renew => Sentence.Of(
                "Fit a new jet, then gauge it: this shop renews a jet that starves."
            ),
            BoreVerdict.Restricted when WireGauge.ThickestWithin(result.WindowLowMm) is { } gauge => Sentence.Of(
                "Clear with a soft strand no thicker than {0}, then gauge again.",
                Quantity.Mm(WireGauge.DiameterMm(gauge), $"AWG {gauge} ({WireGauge.DiameterMm(gauge):0.00} mm)")
            ),
            BoreVerdict.Restricted => Sentence.Of("Soak and blow through, then gauge again."),
            BoreVerdict.CannotTell when result.DecidingPin is { } pin => Sentence.Of(
                "Try the {0} pin.",
                Quantity.Mm(pin.DiameterMm, pin.Label.StartsWith('#') ? pin.Label : null)
            ),
            BoreVerdict.CannotTell when result.DecidingSizeMm is { } size => Sentence.Of(
                "No pin of yours lies between: borrow one near {0} or measure the bore directly.",
                Quantity.Mm(size)
            ),
            BoreVerdict.CannotTell => Sentence.Of("Measure again with a finer instrument."),
        };

    private List<Figure> Figures(JetGaugeResult result, BoreLimits limits)
    {
        var figures = new List<Figure>();
        if (result.BoreLowMm > 0)
        {
            figures.Add(new Figure("boreLow", "Bore at least", Quantity.Mm(result.BoreLowMm)));
            figures.Add(new Figure("areaLow", "Area at least", Quantity.Percent(result.AreaLowPercent)));
        }

        if (result.BoreHighMm is { } high)
        {
            figures.Add(new Figure("boreHigh", "Bore below", Quantity.Mm(high)));
            figures.Add(new Figure("areaHigh", "Area below", Quantity.Percent(result.AreaHighPercent!.Value)));
        }

        figures.Add(
            new Figure(
                "nearestDrill",
                "Nearest number drill",
                Quantity.Mm(result.NearestDrillMm, $"#{result.NearestDrill} ({result.NearestDrillMm:0.000} mm)")
            )
        );
        figures.Add(
            new Figure("nominal", OpenedFromMm is null ? "Bore on the spec sheet" : "Bore it was opened to", Quantity.Mm(limits.NominalMm))
        );
        return figures;
    }

    private List<Sentence> Why(JetGaugeResult result, BoreReading bore, BoreLimits limits)
    {
        var why = new List<Sentence>();
        if (bore.BoreMm is { } direct)
        {
            why.Add(
                Sentence.Of(
                    "The instrument reads {0} in steps of {1}, so the bore is from {2} to {3}.",
                    Quantity.Mm(direct),
                    Quantity.Mm(bore.ResolutionMm ?? JetGauge.DefaultResolutionMm),
                    Quantity.Mm(result.BoreLowMm),
                    Quantity.Mm(result.BoreHighMm!.Value)
                )
            );
        }
        else
        {
            why.Add(
                (bore.GoPinMm, bore.NoGoPinMm) switch
                {
                    ({ } go, { } noGo) => Sentence.Of(
                        "{0} goes and {1} stops, so the bore is at least the first and less than the second.",
                        Quantity.Mm(go),
                        Quantity.Mm(noGo)
                    ),
                    ({ } go, null) => Sentence.Of("{0} goes, so the bore is at least that; nothing bounds it above yet.", Quantity.Mm(go)),
                    (null, { } noGo) => Sentence.Of(
                        "{0} stops, so the bore is less than that; nothing bounds it below yet.",
                        Quantity.Mm(noGo)
                    ),
                    _ => Sentence.None,
                }
            );
        }

        why.Add(
            Sentence.Of("The window is {0} to {1}, edges included.", Quantity.Mm(result.WindowLowMm), Quantity.Mm(result.WindowHighMm))
        );
        why.Add(
            result.Verdict switch
            {
                BoreVerdict.InGauge => Sentence.Of("Every bore the reading allows is inside it."),
                BoreVerdict.Restricted => Sentence.Of("Every bore the reading allows is below it."),
                BoreVerdict.OpenedUp => Sentence.Of("Every bore the reading allows is above it. A jet never grows by itself: it was cut."),
                BoreVerdict.CannotTell => Sentence.Of("The reading lies across an edge of it, so both answers are still possible."),
            }
        );
        if (result.DecidingPin is { } pin)
        {
            why.Add(
                Sentence.Of(
                    $"If {{0}} goes: {Word(pin.IfItGoes)}. If it stops: {Word(pin.IfItStops)}.",
                    Quantity.Mm(pin.DiameterMm, pin.Label.StartsWith('#') ? pin.Label : null)
                )
            );
        }

        if (OpenedFromMm is { } before)
        {
            why.Add(
                Sentence.Of(
                    "The sheet says {0}. It was opened one drill size on purpose, and the window moved with it.",
                    Quantity.Mm(before)
                )
            );
        }

        why.Add(Sentence.Of("Area goes with the square of the bore. Number drills: ASME B94.11M."));
        return why;
    }

    private static List<QuickAnswer> Answers(JetGaugeResult result, BoreReading bore)
    {
        if (bore.BoreMm is not null || result.DecidingPin is not { } pin)
        {
            return [];
        }

        QuickAnswer Answer(string said, decimal? go, decimal? noGo, BoreVerdict leads)
        {
            var values = new Dictionary<string, string>();
            void Put(string name, decimal? mm)
            {
                if (mm is { } size)
                {
                    values[name] = size.ToString("0.######") + " mm";
                }
            }

            Put("go", go);
            Put("noGo", noGo);
            if (bore.OpenHoles is { } open)
            {
                values["openHoles"] = open.ToString();
            }

            return new QuickAnswer($"{pin.Label} {said}", values, Word(leads));
        }

        return [Answer("goes", pin.DiameterMm, bore.NoGoPinMm, pin.IfItGoes), Answer("stops", bore.GoPinMm, pin.DiameterMm, pin.IfItStops)];
    }

    private static string Word(BoreVerdict verdict) =>
        verdict switch
        {
            BoreVerdict.InGauge => "in gauge",
            BoreVerdict.Restricted => "restricted",
            BoreVerdict.OpenedUp => "opened up",
            BoreVerdict.CannotTell => "closer",
        };
}
