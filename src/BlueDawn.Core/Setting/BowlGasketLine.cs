using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>A bowl gasket and the groove it lies in.</summary>
/// <param name="ThicknessMm">Its thickness, or an O-ring's cord, in millimetres.</param>
/// <param name="GrooveMm">Depth of the groove in millimetres.</param>
public sealed record BowlGasketReading(double ThicknessMm, double GrooveMm) : Reading;

/// <summary>How much a bowl gasket or O-ring is squeezed in its groove.</summary>
public sealed record BowlGasketLine() : GaugeLine("setting/bowl-squeeze", Station.Setting, "Bowl", "Bowl gasket’s thickness")
{
    /// <summary>A calliper on rubber is read to this either way, in millimetres. Own judgement.</summary>
    private const double ReadToMm = 0.05;

    /// <inheritdoc/>
    public override string Part => "bowl-gasket";

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target =>
        Sentence.Of("squeezed by {0} to {1}", Quantity.Percent(Squeeze.FewestPercent), Quantity.Percent(Squeeze.MaxPercent));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Percent, Squeeze.FewestPercent, Squeeze.MaxPercent);

    /// <inheritdoc/>
    public override string LimitSource => "Common practice";

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "gasket",
                    "Gasket",
                    [EntryField.Measure("thickness", "thick", Dimension.Length), EntryField.Measure("groove", "groove", Dimension.Length)]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var thickness = (double)reader.Required("thickness", Dimension.Length, 0.2m, 20);
        var groove = (double)reader.Required("groove", Dimension.Length, 0.1m, 20);
        return Result(reader, () => new BowlGasketReading(thickness, groove));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is BowlGasketReading gasket
            ? Sentence.Of("{0} in a groove of {1}", Quantity.Mm(gasket.ThicknessMm), Quantity.Mm(gasket.GrooveMm))
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not BowlGasketReading gasket)
        {
            return Judgement.NotRead(Sentence.Of("Measure the gasket or the ring’s cord as it lies, and how deep its groove is."));
        }

        static double Percent(double thick, double deep) => 100 * (thick - deep) / thick;
        var (squeeze, least, most) = (
            Percent(gasket.ThicknessMm, gasket.GrooveMm),
            Percent(gasket.ThicknessMm - ReadToMm, gasket.GrooveMm + ReadToMm),
            Percent(gasket.ThicknessMm + ReadToMm, Math.Max(0, gasket.GrooveMm - ReadToMm))
        );
        var right = Quantity.Mm(Math.Round(gasket.GrooveMm / (1 - (Squeeze.FewestPercent + Squeeze.MaxPercent) / 200), 1));
        var (verdict, finding, word, lean, next) =
            most < Squeeze.FewestPercent
                ? (
                    Verdict.NotGood,
                    "gasketThin",
                    "Too thin",
                    Lean.Below,
                    Sentence.Of(
                        "It stands {0} out of its groove and will weep: fit one of about {1}.",
                        Quantity.Mm(Math.Round(gasket.ThicknessMm - gasket.GrooveMm, 2)),
                        right
                    )
                )
            : least > Squeeze.MaxPercent
                ? (
                    Verdict.NotGood,
                    "gasketThick",
                    "Too thick",
                    Lean.Above,
                    Sentence.Of("It cannot go down into its groove and pinches: fit one of about {0}.", right)
                )
            : least < Squeeze.FewestPercent || most > Squeeze.MaxPercent
                ? (
                    Verdict.CannotTell,
                    "cannotTell",
                    "Cannot tell yet",
                    Lean.None,
                    Sentence.Of("On the edge: measure both once more, or compare with the one that came out.")
                )
            : (Verdict.Good, "gasketFits", "Fits", Lean.None, Sentence.Of("Lay it in dry, snug the nut. Go on."));
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Percent, least, most),
            [
                new("squeeze", "Squeezed by", Quantity.Percent(Math.Round(squeeze, 1))),
                new("proud", "Stands out of its groove", Quantity.Mm(Math.Round(gasket.ThicknessMm - gasket.GrooveMm, 2))),
            ],
            [
                Sentence.Of(
                    "Squeeze = (thickness − groove) ÷ thickness; each read to {0} either way. Window for small static seals: common practice, no source.",
                    Quantity.Mm(ReadToMm)
                ),
            ],
            []
        );
    }
}
