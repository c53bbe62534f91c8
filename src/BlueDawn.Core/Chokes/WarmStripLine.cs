using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>A heat choke's bimetal coil, cold and warm.</summary>
/// <param name="ColdC">Temperature before, in °C.</param>
/// <param name="WarmC">Temperature after, in °C.</param>
/// <param name="TurnedDeg">How far its end turned, in degrees.</param>
/// <param name="LengthMm">Length of the strip, unrolled; null when not measured.</param>
/// <param name="ThicknessMm">Its thickness; null when not measured.</param>
public sealed record WarmStripReading(double ColdC, double WarmC, double TurnedDeg, double? LengthMm, double? ThicknessMm) : Reading;

/// <summary>The bench check of a heat choke's bimetal coil: warmed, it turns as far as a strip of its size has to.</summary>
/// <param name="Strip">The strip by the sheet, or null.</param>
/// <param name="SourceName">Where the strip is from.</param>
public sealed record WarmStripLine(BimetalStrip? Strip, string SourceName)
    : GaugeLine<WarmStripReading>("chokes/warm-strip", Station.Chokes, "Plate", "Bimetal coil, warmed")
{
    private static readonly LineFinding UndecidedBelow = LineFinding.Open("cannotTell", Lean.Below);
    private static readonly LineFinding CoilSpent = LineFinding.Bad("coilSpent", "Hardly turns", Lean.Below);
    private static readonly LineFinding CoilTurns = LineFinding.Good("coilTurns", "Turns");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, UndecidedBelow, CoilSpent, CoilTurns];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>A coil that turns less than this share of what its size says is spent. Own judgement.</summary>
    private const double LeastShare = 0.7;

    /// <summary>An angle read by eye is right to this, in degrees, a temperature to this, in kelvins. Own judgement.</summary>
    private const double AngleToDeg = 2,
        TemperatureToC = 1;

    /// <summary>Least difference in temperature that says anything, in kelvins. Own judgement.</summary>
    private const double LeastDifferenceC = 15;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Strip is { } strip
                ? Sentence.Of(
                    "turns {0} or more when it is {1} warmer",
                    Quantity.Deg(Math.Round(LeastShare * Bimetal.DegreesPerK(strip) * 40)),
                    Quantity.DegC(40)
                )
                : Sentence.Of("turns as far as its length and thickness say"),
            null,
            SourceName
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.HotWater;

    private static readonly LineBox<double> ColdBox = Box.Number("cold", "cold", Dimension.Temperature, -40, 150);
    private static readonly LineBox<double> WarmBox = Box.Number("warm", "warm", Dimension.Temperature, -40, 200);
    private static readonly LineBox<double> TurnedBox = Box.Number("turned", "turned", Dimension.Angle, 0, 720);
    private static readonly LineBox<double?> LengthBox = Box.Optional("length", "strip, long", Dimension.Length, 10, 2000).About(200);
    private static readonly LineBox<double?> ThicknessBox = Box.Optional("thickness", "thick", Dimension.Length, 0.1m, 3).About(0.5);

    /// <inheritdoc/>
    protected override LineForm<WarmStripReading> Boxes =>
        new(
            new BoxGroup(
                "coil",
                "Coil",
                [ColdBox, WarmBox, TurnedBox, .. Strip is null ? [LengthBox, ThicknessBox] : Array.Empty<LineBox>()]
            ),
            boxes =>
            {
                var (cold, warm) = (boxes.Get(ColdBox), boxes.Get(WarmBox));
                var turned = boxes.Get(TurnedBox);
                var (length, thickness) = Strip is null ? (boxes.Get(LengthBox), boxes.Get(ThicknessBox)) : (null, null);
                if (boxes.IsRight)
                {
                    if (warm <= cold)
                    {
                        boxes.Wrong(WarmBox, "Warm must be above cold.");
                    }

                    if (length is null != thickness is null)
                    {
                        boxes.Wrong(
                            length is null ? LengthBox : ThicknessBox,
                            "It takes the strip’s length and its thickness, or neither."
                        );
                    }
                }

                return new WarmStripReading(cold, warm, turned, length, thickness);
            }
        );

    /// <inheritdoc/>
    protected override Sentence Describe(WarmStripReading coil) =>
        Sentence.Of("turned {0} from {1} to {2}", Quantity.Deg(coil.TurnedDeg), Quantity.AtC(coil.ColdC), Quantity.AtC(coil.WarmC));

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of(
            "Note its end, warm the coil by {0} or more in water, and read how far the end has turned.",
            Quantity.DegC(2 * LeastDifferenceC)
        );

    /// <inheritdoc/>
    protected override Judgement Judge(WarmStripReading coil, PinSet pins)
    {
        var difference = coil.WarmC - coil.ColdC;
        var perK = coil.TurnedDeg / difference;
        // Both temperatures are off on their own: √2 of one.
        var off = Math.Sqrt(2) * TemperatureToC;
        var (least, most) = (
            Math.Max(0, coil.TurnedDeg - AngleToDeg) / (difference + off),
            (coil.TurnedDeg + AngleToDeg) / Math.Max(1, difference - off)
        );
        var strip = Strip
            ?? (
                coil is { LengthMm: { } length, ThicknessMm: { } thickness }
                    ? new BimetalStrip(length, thickness, Bimetal.UsualLowPerK)
                    : null
            );
        var wanted = strip is null ? null : (double?)(LeastShare * Bimetal.DegreesPerK(strip));
        var (finding, next) =
            difference < LeastDifferenceC
                ? (
                    LineFinding.CannotTell,
                    Sentence.Of("Too small a difference to say: warm it by {0} or more.", Quantity.DegC(2 * LeastDifferenceC))
                )
            : coil.TurnedDeg <= AngleToDeg || most < wanted
                ? (CoilSpent, Sentence.Of("Renew the coil, or clean it where its turns stick together, and try again."))
            : wanted is null
                ? (
                    LineFinding.CannotTell,
                    Sentence.Of("It turns. Measure the strip’s length and thickness: they say whether it is enough.")
                )
            : least >= wanted ? (CoilTurns, Sentence.Of("The coil works: look at link, spring and plate instead."))
            : (UndecidedBelow, Sentence.Of("Too near to say: warm it further, and read the angle against a mark."));
        return finding.Judged(
            next,
            figures:
            [
                new("perTenC", "Turns in 10 °C", Quantity.Deg(Math.Round(10 * perK, 1))),
                .. wanted is { } enough
                    ? [new Figure("wantedPerTenC", "Wanted in 10 °C, at least", Quantity.Deg(Math.Round(10 * enough, 1)))]
                    : Array.Empty<Figure>(),
            ],
            why:
            [
                Sentence.Of(
                    "Two layers of equal thickness: degrees a kelvin = 86 × length × difference of "
                        + "expansion ÷ thickness (Timoshenko 1925); {0} of that is wanted (own judgement).",
                    Quantity.Percent(100 * LeastShare)
                ),
                Sentence.Of(
                    Strip is null
                        ? "The layers’ difference is taken as the least of usual bimetals, 12 millionths a kelvin (from memory)."
                        : $"The strip: {SourceName}."
                ),
            ]
        );
    }
}
