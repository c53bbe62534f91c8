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
/// <param name="Jet">The jet's own line, by its sheet.</param>
public sealed record StepUpLine(BoreLine Jet) : GaugeLine(Jet.Key + Ending, Station.Gauging, "One step up", $"{Jet.Label}, one step up")
{
    private const string Ending = "/step-up";

    /// <summary>The drill one size above the sheet's bore, or null when there is none.</summary>
    public NumberDrill? Next => NumberDrills.NextAbove(Jet.NominalMm + SameBoreMm);

    /// <summary>How much more area that is, in percent of the sheet's.</summary>
    public double MorePercent => Next is null ? 0 : JetGauge.AreaPercent(Next.DiameterMm, Jet.NominalMm) - 100;

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
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => $"{Jet.SpecName}, opened by the shop’s rule";

    /// <inheritdoc/>
    public override Sentence Target =>
        Next is { } next
            ? Sentence.Of(
                $"from {{0}} to {next.Label} {{1}}: {{2}} more area",
                Quantity.Mm(Jet.NominalMm),
                Quantity.Mm(next.DiameterMm),
                Quantity.Percent(Math.Round(MorePercent, 1))
            )
            : Sentence.Of("no number drill is larger");

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "opened",
                    "Opened",
                    [
                        EntryField.Measure("drill", "drill", Dimension.Length, optional: true),
                        EntryField.Choice("law", "law", true, new EntryChoice("lookedUp", "Local rule looked up: it may be")),
                        EntryField.Choice("jet", "jet", true, new EntryChoice("new", "A new jet went in since")),
                    ]
                ),
            ],
            null
        );

    /// <summary>The last that was recorded for a jet, or null.</summary>
    /// <param name="jetKey">The key of the jet's line.</param>
    /// <param name="log">The tray's logbook.</param>
    public static Logged<ReadingNote>? LastOn(string jetKey, Log log) =>
        log.Notes<ReadingNote>().LastOrDefault(logged => logged.Note.Line == jetKey + Ending);

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        if (reader.Text("jet").Length > 0)
        {
            reader.Choice("jet", "new");
            if (reader.Text("drill").Length > 0)
            {
                reader.Wrong("drill", "Either it was opened or a new jet went in. Take one of them out.");
            }

            return Result(reader, () => new StepUpReading(null));
        }

        var drill = reader.Required("drill", Dimension.Length, 0.001m, JetGauge.LargestMm);
        reader.Choice("law", "lookedUp");
        if (reader.Problems.All(problem => problem.Field != "drill") && Math.Abs(drill - (Next?.DiameterMm ?? 0)) > SameDrillMm)
        {
            reader.Wrong(
                "drill",
                Next is { } next
                    ? $"One size up from {MetricText.Of(Quantity.Mm(Jet.NominalMm))} is {next.Label}, "
                        + $"{MetricText.Of(Quantity.Mm(next.DiameterMm))}. Anything larger is no step: fit a new jet."
                    : "No number drill is larger."
            );
        }

        return Result(reader, () => new StepUpReading(Next!.DiameterMm));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading switch
        {
            StepUpReading { DrillMm: { } mm } => Sentence.Of(
                "opened on purpose, from {0} to {1}; local rule looked up",
                Quantity.Mm(Jet.NominalMm),
                Quantity.Mm(mm)
            ),
            StepUpReading => Sentence.Of("a new jet went in"),
            _ => Sentence.None,
        };

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        Figure[] figures =
        [
            new("areaMore", "More area", Quantity.Percent(Math.Round(MorePercent, 1))),
            new("ratioFactor", "Air-fuel ratio at idle falls to", Quantity.Percent(Math.Round(100 * RatioFactor, 1))),
        ];
        Sentence[] why =
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
        var first = Sentence.Of(
            "Clear it and gauge it first. It takes {0} more fuel at idle.",
            Quantity.Percent(Math.Round(MorePercent, 1))
        );
        return reading switch
        {
            StepUpReading { DrillMm: { } } => new Judgement(
                Verdict.Good,
                "openedOneStep",
                "Opened one step",
                Lean.Above,
                Sentence.Of("It stays in the book and on the report. Gauge the jet again."),
                null,
                figures,
                why,
                []
            ),
            StepUpReading => new Judgement(
                Verdict.Good,
                "newJet",
                "New jet since",
                Lean.None,
                Sentence.Of("It is judged by the sheet again. That the old one was cut stays in the book."),
                null,
                [],
                why,
                []
            ),
            _ => Judgement.NotRead(first) with { Figures = figures, Why = why },
        };
    }

    /// <summary>A drill that is larger by no more than this is the sheet's bore in other units, and no step. Own judgement.</summary>
    private const decimal SameBoreMm = 0.005m;

    /// <summary>How near a typed size has to be to count as that drill: inches are typed to four places.</summary>
    private const decimal SameDrillMm = 0.0026m;
}
