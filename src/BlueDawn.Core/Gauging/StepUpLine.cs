using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Gauging;

/// <summary>That an idle jet was opened, or that a new one went in since.</summary>
/// <param name="DrillMm">The drill it was opened with, in millimetres; null for a new jet.</param>
public sealed record StepUpReading(decimal? DrillMm) : Reading;

/// <summary>
/// The school of one step up: an idle jet in gauge that still starves is opened one number drill. What was cut once is in
/// the book for good. Common practice, no source; the change of area is geometry.
/// </summary>
/// <param name="Jet">The jet's own line.</param>
/// <param name="Sheet">What its sheet says of it.</param>
public sealed record StepUpLine(BoreLine Jet, BoreLimits Sheet)
    : GaugeLine<StepUpReading>(Jet.Key + Ending, Station.Gauging, "One step up", $"{Jet.Label}, one step up")
{
    private static readonly LineFinding OpenedOneStep = LineFinding.Good("openedOneStep", "Opened one step", Lean.Above);
    private static readonly LineFinding NewJet = LineFinding.Good("newJet", "New jet since");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [OpenedOneStep, NewJet];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    private const string Ending = "/step-up";

    /// <summary>The drill one size above the sheet's bore, or null when there is none.</summary>
    public NumberDrill? Next => NumberDrills.NextAbove(Sheet.NominalMm + SameBoreMm);

    /// <summary>How much more area that is, in percent of the sheet's.</summary>
    public double MorePercent => Next is null ? 0 : JetGauge.AreaPercent(Next.DiameterMm, Sheet.NominalMm) - 100;

    /// <summary>What the air-fuel ratio that idles at the sheet's bore is multiplied by: fuel goes with the area while the air
    /// stays.</summary>
    public double RatioFactor => 100 / (100 + MorePercent);

    /// <inheritdoc/>
    public override bool IsOffered => Jet.School == JetSchool.OneStepUp && Next is not null;

    /// <inheritdoc/>
    public override bool ForGood => true;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override string? Part => Jet.Part;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Emission;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Next is { } next
                ? Sentence.Of(
                    $"from {{0}} to {next.Label} {{1}}: {{2}} more area",
                    Quantity.Mm(Sheet.NominalMm),
                    Quantity.Mm(next.DiameterMm),
                    Quantity.Percent(Math.Round(MorePercent, 1))
                )
                : Sentence.Of("no number drill is larger"),
            null,
            $"{Sheet.SpecName}, opened by the shop’s rule"
        );

    private LineBox<decimal?> DrillBox =>
        Box.OptionalExact("drill", "drill", Dimension.Length, 0.001m, JetGauge.LargestMm).About((double)Sheet.NominalMm);
    private static readonly LineBox<bool> LawBox = Box.Said("law", "law", "lookedUp", "Local rule looked up: it may be");
    private static readonly LineBox<bool> JetBox = Box.Said("jet", "jet", "new", "A new jet went in since");

    /// <inheritdoc/>
    protected override LineForm<StepUpReading> Boxes => new(new BoxGroup("opened", "Opened", [DrillBox, LawBox, JetBox]), boxes =>
        {
            _ = boxes.Get(JetBox);
            if (boxes.IsFilled(JetBox))
            {
                if (boxes.IsFilled(DrillBox))
                {
                    boxes.Wrong(DrillBox, "Either it was opened or a new jet went in. Take one of them out.");
                }

                return new StepUpReading(null);
            }

            var drill = boxes.Get(DrillBox);
            if (drill is null && boxes.IsRight)
            {
                boxes.Wrong(DrillBox, MeasureEntry.Empty);
            }

            if (!boxes.Get(LawBox) && !boxes.IsFilled(LawBox))
            {
                boxes.Wrong(LawBox, TypedReader.NotChosen);
            }

            if (drill is { } size && Math.Abs(size - (Next?.DiameterMm ?? 0)) > SameDrillMm)
            {
                boxes.Wrong(
                    DrillBox,
                    Next is { } next
                        ? $"One size up from {MetricText.Of(Quantity.Mm(Sheet.NominalMm))} is {next.Label}, "
                            + $"{MetricText.Of(Quantity.Mm(next.DiameterMm))}. Anything larger is no step: fit a new jet."
                        : "No number drill is larger."
                );
            }

            return new StepUpReading(Next?.DiameterMm);
        });

    /// <summary>The last that was recorded for a jet, or null.</summary>
    /// <param name="jetKey">The key of the jet's line.</param>
    /// <param name="log">The tray's logbook.</param>
    public static Logged<ReadingNote>? LastOn(string jetKey, Log log) =>
        log.Notes<ReadingNote>().LastOrDefault(logged => logged.Note.Line == jetKey + Ending);

    /// <inheritdoc/>
    protected override Sentence Describe(StepUpReading reading) =>
        reading switch
        {
            { DrillMm: { } mm } => Sentence.Of(
                "opened on purpose, from {0} to {1}; local rule looked up",
                Quantity.Mm(Sheet.NominalMm),
                Quantity.Mm(mm)
            ),
            _ => Sentence.Of("a new jet went in"),
        };

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Clear it and gauge it first. It takes {0} more fuel at idle.", Quantity.Percent(Math.Round(MorePercent, 1)));

    /// <inheritdoc/>
    protected override IReadOnlyList<Figure> FiguresBefore =>
        [
            new("areaMore", "More area", Quantity.Percent(Math.Round(MorePercent, 1))),
            new("ratioFactor", "Air-fuel ratio at idle falls to", Quantity.Percent(Math.Round(100 * RatioFactor, 1))),
        ];

    /// <inheritdoc/>
    protected override IReadOnlyList<Sentence> WhyBefore =>
        [
            Sentence.Of(
                "Fuel through a jet goes with its area: {0} more at the same air, so an idle "
                    + "of 14.7 to 1 becomes about {1} to 1 before the mixture screw is set again.",
                Quantity.Percent(Math.Round(MorePercent, 1)),
                Quantity.Count(Math.Round(14.7 * RatioFactor, 1))
            ),
            Sentence.Of(
                "Only for a jet that is clean, in gauge, and hunts on a lean setting all the "
                    + "same. Three schools: common practice, no source. Drill sizes: ASME B94.11M."
            ),
        ];

    /// <inheritdoc/>
    protected override Judgement Judge(StepUpReading reading, PinSet pins) =>
        reading.DrillMm is null
            ? NewJet.Judged(Sentence.Of("It is judged by the sheet again. That the old one was cut stays in the book."), why: WhyBefore)
            : OpenedOneStep.Judged(
                Sentence.Of("It stays in the book and on the report. Gauge the jet again."),
                figures: FiguresBefore,
                why: WhyBefore
            );

    /// <summary>Only a jet that is in gauge is opened.</summary>
    protected override IReadOnlyList<FieldProblem> CheckOn(StepUpReading reading, TrayBook tray) =>
        reading.DrillMm is not null && tray.Lines.First(line => line.Line.Key == Jet.Key).Judgement.Verdict != Verdict.Good
            ? [new FieldProblem(DrillBox.Name, "Clear the jet and gauge it first: only one in gauge is opened.")]
            : [];

    /// <summary>A drill that is larger by no more than this is the sheet's bore in other units, and no step. Own judgement.</summary>
    private const decimal SameBoreMm = 0.005m;

    /// <summary>How near a typed size has to be to count as that drill: inches are typed to four places.</summary>
    private const decimal SameDrillMm = 0.0026m;
}
