using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>Hold test of needle and seat, under pressure at the inlet.</summary>
/// <param name="Hold">The limits.</param>
/// <param name="SourceName">The spec sheet, or the shop's defaults.</param>
public sealed record NeedleHoldLine(HoldSpec Hold, string SourceName)
    : HoldLine("setting/hold-test", Station.Setting, "Needle and seat", "Hold test", Hold, SourceName)
{
    private static readonly LineFinding Holds = LineFinding.Good("held", "Held");
    private static readonly LineFinding Leaking = LineFinding.Bad("leaks", "Leaks", Lean.Below);

    /// <summary>Everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, Holds, Leaking];

    /// <summary>Where no pump is at hand, the bulb test says whether it shuts; the fuel is watched at Prove all the same.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<string> StoodForBy => ["setting/turn-test"];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <inheritdoc/>
    public override string Part => "needle";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Pressure;

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Pump the inlet to {0}, shut it in and note the pressure as it stands.", Quantity.KPa(Hold.PressureKPa));

    /// <inheritdoc/>
    protected override (LineFinding Finding, Sentence Next) Held => (Holds, Sentence.Of("Needle and seat are good. Go on."));

    /// <inheritdoc/>
    protected override (LineFinding Finding, Sentence Next) Leaks(Quantity dropKPa) =>
        (
            Leaking,
            Sentence.Of(
                "Clean needle and seat and test again; if it still drops, renew both. {0} lost in {1}.",
                dropKPa,
                Quantity.S(Hold.WindowS)
            )
        );
}
