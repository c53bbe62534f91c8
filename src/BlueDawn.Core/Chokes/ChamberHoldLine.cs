using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>Hold test of a vacuum choke's chamber, under suction at its passage.</summary>
/// <param name="Hold">The limits; its pressures are suctions.</param>
/// <param name="SourceName">Where they are from.</param>
public sealed record ChamberHoldLine(HoldSpec Hold, string SourceName)
    : HoldLine("chokes/chamber-hold", Station.Chokes, "Plate", "Chamber’s hold under suction", Hold, SourceName)
{
    private static readonly LineFinding ChamberHolds = LineFinding.Good("chamberHolds", "Held");
    private static readonly LineFinding ChamberLeaks = LineFinding.Bad("chamberLeaks", "Leaks", Lean.Below);

    /// <summary>Everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, ChamberHolds, ChamberLeaks];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <inheritdoc/>
    public override string Part => "choke-diaphragm";

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of(
            "Hand pump on the chamber’s passage, any bleed hole under a finger: draw {0}, shut it in and note the suction as it stands.",
            Quantity.KPa(Hold.PressureKPa)
        );

    /// <inheritdoc/>
    protected override (LineFinding Finding, Sentence Next) Held => (ChamberHolds, Sentence.Of("Diaphragm and cover are tight. Go on."));

    /// <inheritdoc/>
    protected override (LineFinding Finding, Sentence Next) Leaks(Quantity dropKPa) =>
        (
            ChamberLeaks,
            Sentence.Of(
                "{0} lost in {1}: hold the diaphragm against a light for a hole, look at the cover’s face, then renew the choke diaphragm.",
                dropKPa,
                Quantity.S(Hold.WindowS)
            )
        );
}
