using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>How far down a float hangs.</summary>
/// <param name="DropMm">Millimetres from body to float, carburetor upright, where the height is measured.</param>
public sealed record FloatDropReading(double DropMm) : Reading;

/// <summary>Float drop: whether the needle comes off its seat far enough to let all of the bore through.</summary>
/// <param name="Float">The limits.</param>
/// <param name="SeatBoreMm">Bore of the seat, or null when it is not known.</param>
/// <param name="SpecName">Where they are from.</param>
public sealed record FloatDropLine(FloatSpec Float, double? SeatBoreMm, string SpecName)
    : GaugeLine<FloatDropReading>("setting/float-drop", Station.Setting, "Float", "Float drop")
{
    private static readonly LineFinding DropShort = LineFinding.Bad("dropShort", "Too short", Lean.Below);
    private static readonly LineFinding DropEnough = LineFinding.Good("dropEnough", "Hangs free");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, DropShort, DropEnough];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>A float is read to this with a rule or caliper, either way, in millimetres. Own judgement.</summary>
    private const double ReadToMm = 0.25;

    private double Arms => (double)Float.TabArmMm / (double)Float.MeasuringArmMm;

    /// <summary>
    /// Least drop in millimetres: the sheet's, else the one that lifts the needle by a quarter of the bore. Then the gap around
    /// the needle, π × bore × lift, is as large as the bore.
    /// </summary>
    public double LeastMm => Float.DropMm is { } given ? (double)given : (double)Float.HeightMm + (SeatBoreMm!.Value / 4 / Arms);

    /// <inheritdoc/>
    public override string Part => "float";

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of("{0} or more, hanging", Quantity.Mm(Math.Round(LeastMm, 1))),
            new Span(Dimension.Length, LeastMm, null),
            Float.DropMm is null ? "Worked out from the seat’s bore" : SpecName
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.OffTheNeedle;

    private LineBox<double> DropBox => Box.Number("drop", "drop", Dimension.Length, 0, 100).About(LeastMm);

    /// <inheritdoc/>
    protected override LineForm<FloatDropReading> Boxes =>
        new(new BoxGroup("drop", "Drop", [DropBox]), boxes => new FloatDropReading(boxes.Get(DropBox)));

    /// <inheritdoc/>
    protected override Sentence Describe(FloatDropReading drop) => Sentence.Of("{0} hanging", Quantity.Mm(drop.DropMm));

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Body upright, float hanging: measure from body to float where the height was measured.");

    /// <inheritdoc/>
    protected override Judgement Judge(FloatDropReading drop, PinSet pins)
    {
        var off = drop.DropMm - LeastMm;
        var (finding, next) =
            off < -ReadToMm
                ? (
                    DropShort,
                    Sentence.Of(
                        "Bend the drop stop back by {0}, so that the float hangs {1} lower; then measure the height again.",
                        Quantity.Mm(Math.Round(-off * Arms, 2)),
                        Quantity.Mm(Math.Round(-off, 1))
                    )
                )
            : off < ReadToMm ? (LineFinding.CannotTell, Sentence.Of("Too near the limit to say: measure once more, float just hanging."))
            : (DropEnough, Sentence.Of("Leave the stop. Go on."));
        return finding.Judged(
            next,
            found: new Span(Dimension.Length, drop.DropMm - ReadToMm, drop.DropMm + ReadToMm),
            figures:
            [
                new("drop", "Drop", Quantity.Mm(drop.DropMm)),
                new(
                    "needleLift",
                    "Lifts the needle by",
                    Quantity.Mm(Math.Round(Math.Max(0, drop.DropMm - (double)Float.HeightMm) * Arms, 2))
                ),
            ],
            why:
            [
                Float.DropMm is null
                    ? Sentence.Of(
                        "The needle has to lift a quarter of the seat’s bore of {0}: from there on the gap around it is as large as the bore.",
                        Quantity.Mm(SeatBoreMm!.Value)
                    )
                    : Sentence.Of($"Limit: {SpecName}."),
                Sentence.Of(
                    "Lift = (drop − height) × tab arm {0} ÷ measuring arm {1}. Read to {2} either way.",
                    Quantity.Mm(Float.TabArmMm),
                    Quantity.Mm(Float.MeasuringArmMm),
                    Quantity.Mm(ReadToMm)
                ),
            ]
        );
    }
}
