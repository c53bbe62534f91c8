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
    : GaugeLine<WarmWaterReading>("chokes/warm-water", Station.Chokes, "Plate", "Heat pin in warm water")
{
    private static readonly LineFinding UndecidedBelow = LineFinding.Open("cannotTell", Lean.Below);
    private static readonly LineFinding PinMoves = LineFinding.Good("pinMoves", "Moves");
    private static readonly LineFinding PinStays = LineFinding.Bad("pinStays", "Does not move", Lean.Below);

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [UndecidedBelow, PinMoves, PinStays];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of("{0} or more in water of {1}", Quantity.Mm(StrokeMm), Quantity.AtC(Melts.FullC)),
            new Span(Dimension.Length, StrokeMm, null),
            SourceName
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.HotWater;

    private static readonly LineBox<double> WaterBox = Box.Number("water", "water", Dimension.Temperature, 0, 100);
    private static readonly LineBox<double> StrokeBox = Box.Number("stroke", "stroke", Dimension.Length, 0, 50).About(8);

    /// <inheritdoc/>
    protected override LineForm<WarmWaterReading> Boxes => new(new BoxGroup("water", "Water", [WaterBox, StrokeBox]), boxes =>
        {
            var (water, stroke) = (boxes.Get(WaterBox), boxes.Get(StrokeBox));
            return new WarmWaterReading(water, stroke);
        });

    /// <inheritdoc/>
    protected override Sentence Describe(WarmWaterReading pin) =>
        Sentence.Of("{0} in water of {1}", Quantity.Mm(pin.StrokeMm), Quantity.AtC(pin.WaterC));

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Actuator off, two minutes in a cup of hot water: how far does its pin come out?");

    /// <inheritdoc/>
    protected override Judgement Judge(WarmWaterReading pin, PinSet pins)
    {
        var (finding, next) =
            pin.StrokeMm >= StrokeMm ? (PinMoves, Sentence.Of("The pin works: look at link, spring and plate instead."))
            : pin.WaterC < Melts.FullC
                ? (UndecidedBelow, Sentence.Of("The water is not warm enough to say: once more at {0}.", Quantity.AtC(Melts.FullC)))
            : (PinStays, Sentence.Of("Renew the heat actuator."));
        return finding.Judged(
            next,
            found: new Span(Dimension.Length, pin.StrokeMm, pin.StrokeMm),
            figures: [new("stroke", "Stroke", Quantity.Mm(pin.StrokeMm))],
            why:
            [
                Sentence.Of(
                    "A wax pellet grows by about a tenth as it melts, here from about {0} to {1} (paraffins, from memory).",
                    Quantity.AtC(Melts.BeginsC),
                    Quantity.AtC(Melts.FullC)
                ),
            ]
        );
    }
}
