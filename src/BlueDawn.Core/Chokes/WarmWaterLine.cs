using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>A heat choke's pin in warm water.</summary>
/// <param name="WaterC">Temperature of the water in °C.</param>
/// <param name="StrokeMm">How far the pin came out, in millimetres.</param>
public sealed record WarmWaterReading(double WaterC, double StrokeMm) : Reading;

/// <summary>The bench check of a heat choke's pin: in warm water it comes out, or it has failed.</summary>
/// <param name="StrokeMm">Least stroke of a pin that works once its wax is all molten, in millimetres.</param>
/// <param name="Melts">From where to where the wax melts.</param>
/// <param name="SourceName">Where the limits are from.</param>
public sealed record WarmWaterLine(double StrokeMm, OpeningWindow Melts, string SourceName)
    : GaugeLine("chokes/warm-water", Station.Chokes, "Plate", "Heat pin in warm water")
{
    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("{0} or more in water of {1}", Quantity.Mm(StrokeMm), Quantity.AtC(Melts.FullC));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Length, StrokeMm, null);

    /// <inheritdoc/>
    public override string LimitSource => SourceName;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.HotWater;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "water",
                    "Water",
                    [EntryField.Measure("water", "water", Dimension.Temperature), EntryField.Measure("stroke", "stroke", Dimension.Length)]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var (water, stroke) = (
            (double)reader.Required("water", Dimension.Temperature, 0, 100),
            (double)reader.Required("stroke", Dimension.Length, 0, 50)
        );
        return Result(reader, () => new WarmWaterReading(water, stroke));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is WarmWaterReading pin
            ? Sentence.Of("{0} in water of {1}", Quantity.Mm(pin.StrokeMm), Quantity.AtC(pin.WaterC))
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not WarmWaterReading pin)
        {
            return Judgement.NotRead(Sentence.Of("Actuator off, two minutes in a cup of hot water: how far does its pin come out?"));
        }

        var (verdict, finding, word, lean, next) =
            pin.StrokeMm >= StrokeMm
                ? (Verdict.Good, "pinMoves", "Moves", Lean.None, Sentence.Of("The pin works: look at link, spring and plate instead."))
            : pin.WaterC < Melts.FullC
                ? (
                    Verdict.CannotTell,
                    "cannotTell",
                    "Cannot tell yet",
                    Lean.Below,
                    Sentence.Of("The water is not warm enough to say: once more at {0}.", Quantity.AtC(Melts.FullC))
                )
            : (Verdict.NotGood, "pinStays", "Does not move", Lean.Below, Sentence.Of("Renew the heat actuator."));
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Length, pin.StrokeMm, pin.StrokeMm),
            [new("stroke", "Stroke", Quantity.Mm(pin.StrokeMm))],
            [
                Sentence.Of(
                    "A wax pellet grows by about a tenth as it melts, here from about {0} to {1} (paraffins, from memory).",
                    Quantity.AtC(Melts.BeginsC),
                    Quantity.AtC(Melts.FullC)
                ),
            ],
            []
        );
    }
}
