using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>Set: float, needle and seat.</summary>
public sealed class SettingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Setting;

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
        [new(typeof(FloatHeightReading), "floatHeight"), new(typeof(FloatMassReading), "floatMass"), new(typeof(HoldReading), "hold")];

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop)
    {
        if (sheet.Float is { } limits)
        {
            if (limits.DryMassG is { } dry)
            {
                yield return new FloatMassLine(dry, limits.MassToleranceG, sheet.Name);
            }

            yield return new FloatHeightLine(limits, sheet.Name);
        }

        // A suction-tank carburetor has no needle and no seat: there is nothing to hold.
        if (tray.Kind.Family is CarburetorFamily.SuctionTank)
        {
            yield break;
        }

        yield return new HoldLine(sheet.Hold ?? shop.Hold, sheet.Hold is null ? "Shop default for float types" : sheet.Name);
    }
}
