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
    /// <inheritdoc/>
    public override string Part => "needle";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Pressure;

    /// <inheritdoc/>
    protected override Sentence HowTo =>
        Sentence.Of("Pump the inlet to {0}, shut it in and note the pressure as it stands.", Quantity.KPa(Hold.PressureKPa));

    /// <inheritdoc/>
    protected override (string Finding, Sentence Next) Held => ("held", Sentence.Of("Needle and seat are good. Go on."));

    /// <inheritdoc/>
    protected override (string Finding, Sentence Next) Leaks(Quantity dropKPa) =>
        (
            "leaks",
            Sentence.Of(
                "Clean needle and seat and test again; if it still drops, renew both. {0} lost in {1}.",
                dropKPa,
                Quantity.S(Hold.WindowS)
            )
        );
}
