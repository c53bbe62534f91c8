using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Proving;

/// <summary>Prove: fuel on and rocked, then idle and governed speed.</summary>
public sealed class ProvingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Proving;

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } = [new(typeof(FuelWatchReading), "fuelWatch"), new(typeof(SpeedReading), "speed")];

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(CarburetorKind kind, SpecSheet sheet, ShopDefaults shop)
    {
        yield return new FuelWatchLine(shop.FuelWatchMin);
        if (sheet.IdleSpeed is { } idle)
        {
            yield return new SpeedLine(
                "proving/idle-speed", "Idle speed", idle, "Turn the idle-speed screw in a little and read again.", "Turn the idle-speed screw out a little and read again.", sheet.Name);
        }

        if (sheet.GovernedSpeed is { } governed)
        {
            yield return new SpeedLine(
                "proving/governed-speed",
                "Governed speed",
                governed,
                "Move the spring tang for more tension, never the governor arm, and read again.",
                "Move the spring tang for less tension, never the governor arm, and read again.",
                sheet.Name);
        }
    }
}
