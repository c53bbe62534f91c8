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
    : GaugeLine("setting/float-drop", Station.Setting, "Float", "Float drop")
{
    /// <summary>A float is read to this with a rule or calliper, either way, in millimetres. Own judgement.</summary>
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
    public override Sentence Target => Sentence.Of("{0} or more, hanging", Quantity.Mm(Math.Round(LeastMm, 1)));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Length, LeastMm, null);

    /// <inheritdoc/>
    public override string LimitSource => Float.DropMm is null ? "Worked out from the seat’s bore" : SpecName;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.OffTheNeedle;

    /// <inheritdoc/>
    public override EntryForm Form => new([new EntryGroup("drop", "Drop", [EntryField.Measure("drop", "drop", Dimension.Length)])], null);

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var drop = (double)reader.Required("drop", Dimension.Length, 0, 100);
        return Result(reader, () => new FloatDropReading(drop));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is FloatDropReading drop ? Sentence.Of("{0} hanging", Quantity.Mm(drop.DropMm)) : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not FloatDropReading drop)
        {
            return Judgement.NotRead(Sentence.Of("Body upright, float hanging: measure from body to float where the height was measured."));
        }

        var off = drop.DropMm - LeastMm;
        var (verdict, finding, word, lean, next) =
            off < -ReadToMm
                ? (
                    Verdict.NotGood,
                    "dropShort",
                    "Too short",
                    Lean.Below,
                    Sentence.Of(
                        "Bend the drop stop back by {0}, so that the float hangs {1} lower; then measure the height again.",
                        Quantity.Mm(Math.Round(-off * Arms, 2)),
                        Quantity.Mm(Math.Round(-off, 1))
                    )
                )
            : off < ReadToMm
                ? (
                    Verdict.CannotTell,
                    "cannotTell",
                    "Cannot tell yet",
                    Lean.None,
                    Sentence.Of("Too near the limit to say: measure once more, float just hanging.")
                )
            : (Verdict.Good, "dropEnough", "Hangs free", Lean.None, Sentence.Of("Leave the stop. Go on."));
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Length, drop.DropMm - ReadToMm, drop.DropMm + ReadToMm),
            [
                new("drop", "Drop", Quantity.Mm(drop.DropMm)),
                new(
                    "needleLift",
                    "Lifts the needle by",
                    Quantity.Mm(Math.Round(Math.Max(0, drop.DropMm - (double)Float.HeightMm) * Arms, 2))
                ),
            ],
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
            ],
            []
        );
    }
}
