using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>A bowl gasket and the groove it lies in.</summary>
/// <param name="ThicknessMm">Its thickness, or an O-ring's cord, in millimetres.</param>
/// <param name="GrooveMm">Depth of the groove in millimetres.</param>
public sealed record BowlGasketReading(double ThicknessMm, double GrooveMm) : Reading;

/// <summary>How much a bowl gasket or O-ring is squeezed in its groove.</summary>
public sealed record BowlGasketLine()
    : GaugeLine<BowlGasketReading>("setting/bowl-squeeze", Station.Setting, "Bowl", "Bowl gasket’s thickness")
{
    private static readonly LineFinding GasketThin = LineFinding.Bad("gasketThin", "Too thin", Lean.Below);
    private static readonly LineFinding GasketThick = LineFinding.Bad("gasketThick", "Too thick", Lean.Above);
    private static readonly LineFinding GasketFits = LineFinding.Good("gasketFits", "Fits");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, GasketThin, GasketThick, GasketFits];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>A caliper on rubber is read to this either way, in millimetres. Own judgement.</summary>
    private const double ReadToMm = 0.05;

    /// <inheritdoc/>
    public override string Part => "bowl-gasket";

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of("squeezed by {0} to {1}", Quantity.Percent(Squeeze.FewestPercent), Quantity.Percent(Squeeze.MaxPercent)),
            new Span(Dimension.Percent, Squeeze.FewestPercent, Squeeze.MaxPercent),
            "Common practice"
        );

    private static readonly LineBox<double> ThicknessBox = Box.Number("thickness", "thick", Dimension.Length, 0.2m, 20).About(UsualMm);
    private static readonly LineBox<double> GrooveBox = Box.Number("groove", "groove", Dimension.Length, 0.1m, 20).About(UsualMm);

    /// <summary>About what a bowl gasket and its groove measure, in millimetres. Common practice, no source.</summary>
    private const double UsualMm = 2;

    /// <inheritdoc/>
    protected override LineForm<BowlGasketReading> Boxes =>
        new(new BoxGroup("gasket", "Gasket", [ThicknessBox, GrooveBox]), boxes => new BowlGasketReading(
            boxes.Get(ThicknessBox),
            boxes.Get(GrooveBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(BowlGasketReading gasket) =>
        Sentence.Of("{0} in a groove of {1}", Quantity.Mm(gasket.ThicknessMm), Quantity.Mm(gasket.GrooveMm));

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Measure the gasket or the ring’s cord as it lies, and how deep its groove is.");

    /// <inheritdoc/>
    protected override Judgement Judge(BowlGasketReading gasket, PinSet pins)
    {
        static double Percent(double thick, double deep) => 100 * (thick - deep) / thick;
        var (squeeze, least, most) = (
            Percent(gasket.ThicknessMm, gasket.GrooveMm),
            Percent(gasket.ThicknessMm - ReadToMm, gasket.GrooveMm + ReadToMm),
            Percent(gasket.ThicknessMm + ReadToMm, Math.Max(0, gasket.GrooveMm - ReadToMm))
        );
        var right = Quantity.Mm(Math.Round(gasket.GrooveMm / (1 - (Squeeze.FewestPercent + Squeeze.MaxPercent) / 200), 1));
        var (finding, next) =
            most < Squeeze.FewestPercent
                ? (
                    GasketThin,
                    Sentence.Of(
                        "It stands {0} out of its groove and will weep: fit one of about {1}.",
                        Quantity.Mm(Math.Round(gasket.ThicknessMm - gasket.GrooveMm, 2)),
                        right
                    )
                )
            : least > Squeeze.MaxPercent
                ? (GasketThick, Sentence.Of("It cannot go down into its groove and pinches: fit one of about {0}.", right))
            : least < Squeeze.FewestPercent || most > Squeeze.MaxPercent
                ? (LineFinding.CannotTell, Sentence.Of("On the edge: measure both once more, or compare with the one that came out."))
            : (GasketFits, Sentence.Of("Lay it in dry, snug the nut. Go on."));
        return finding.Judged(
            next,
            found: new Span(Dimension.Percent, least, most),
            figures:
            [
                new("squeeze", "Squeezed by", Quantity.Percent(Math.Round(squeeze, 1))),
                new("proud", "Stands out of its groove", Quantity.Mm(Math.Round(gasket.ThicknessMm - gasket.GrooveMm, 2))),
            ],
            why:
            [
                Sentence.Of(
                    "Squeeze = (thickness − groove) ÷ thickness; each read to {0} either way. Window for small static seals: common practice, no source.",
                    Quantity.Mm(ReadToMm)
                ),
            ]
        );
    }
}
