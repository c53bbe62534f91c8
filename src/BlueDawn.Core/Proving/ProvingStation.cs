using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Proving;

/// <summary>Prove: fuel on and rocked, what the owner complained of tried again, then idle and governed speed.</summary>
public sealed class ProvingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Proving;

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } = [new(typeof(FuelWatchReading), "fuelWatch"), new(typeof(SpeedReading), "speed"), new(typeof(ComplaintReading), "complaint")];

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop)
    {
        yield return new FuelWatchLine(shop.FuelWatchMin);
        foreach (var complaint in tray.Complaints)
        {
            if (ComplaintTry.Shipped.TryGetValue(complaint.Id, out var how) && how.TriedBy is null)
            {
                yield return new ComplaintLine(complaint, how);
            }
        }

        var hunted = tray.Complaints.Any(complaint => complaint.Id == "hunts");
        if (sheet.IdleSpeed is { } idle)
        {
            yield return new SpeedLine(
                "proving/idle-speed", "Idle speed", idle, "Turn the idle-speed screw in a little and read again.", "Turn the idle-speed screw out a little and read again.", sheet.Name, hunted);
        }

        if (sheet.GovernedSpeed is { } governed)
        {
            yield return new SpeedLine(
                "proving/governed-speed",
                "Governed speed",
                governed,
                "Move the spring tang for more tension, never the governor arm, and read again.",
                "Move the spring tang for less tension, never the governor arm, and read again.",
                sheet.Name,
                hunted);
        }
    }
}
