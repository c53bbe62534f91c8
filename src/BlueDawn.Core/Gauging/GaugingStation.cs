using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Gauging;

/// <summary>Gauge: jets and the emulsion tube.</summary>
public sealed class GaugingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Gauging;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes => ReadingNotes;

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } = [new(typeof(BoreReading), "bore")];

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop) =>
    [
        .. sheet.Jets.Select(jet => new BoreLine($"gauging/{jet.Key}", "Jets", jet.Label, jet.BoreMm, jet.ToleranceMm, null, sheet.Name)),
        .. sheet.EmulsionRows.OrderBy(row => row.Row).Select(row =>
            new BoreLine($"gauging/emulsion-row-{row.Row}", "Emulsion tube, from the top", $"Row {row.Row}", row.BoreMm, row.ToleranceMm, row.Holes, sheet.Name)),
    ];
}
