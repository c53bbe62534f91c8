using System.Globalization;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Cleaning;

/// <summary>A tool that goes into a hole.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="DiameterMm">Its diameter in millimetres.</param>
public sealed record ClearingTool(string Label, double DiameterMm);

/// <summary>What of one kind may go into a hole, and what would spoil it.</summary>
/// <param name="Kind">Wire, tip file or drill.</param>
/// <param name="Label">The kind in words.</param>
/// <param name="Touching">What it does to the wall when it touches: <c>wedges</c>, <c>abrades</c>, <c>cuts</c>.</param>
/// <param name="Largest">The largest that goes in without touching, or null when all are too thick.</param>
/// <param name="Spoils">The next one up, which would touch, or null when there is none.</param>
public sealed record ClearingChoice(string Kind, string Label, string Touching, ClearingTool? Largest, ClearingTool? Spoils);

/// <summary>
/// Which tool clears which hole without cutting it. Wire after ASTM B258, drills after ASME B94.11M; the table is
/// data/reference/clearing-tools.csv.
/// </summary>
public static class ClearingTools
{
    private const int ThickestWire = 10;

    private sealed record Kind(string Key, string Label, string Touching, double PlayMm, IReadOnlyList<ClearingTool> Sizes);

    private static readonly IReadOnlyList<Kind> Kinds = CsvTable.Rows(CsvTable.OpenShipped, "clearing-tools.csv", row => new Kind(
        row.Text("kind"),
        row.Text("label"),
        row.Text("touching"),
        row.Number("play_mm"),
        [.. Sizes(row).OrderBy(tool => tool.DiameterMm)]
    ));

    /// <summary>The choice of each kind for a hole.</summary>
    /// <param name="boreMm">Nominal bore in millimetres, above 0.</param>
    /// <param name="toleranceMm">Allowed either way; the tool has to pass the smallest hole that is still good.</param>
    /// <exception cref="ArgumentOutOfRangeException">The bore is not above 0, or the tolerance below 0.</exception>
    public static IReadOnlyList<ClearingChoice> For(double boreMm, double toleranceMm)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(boreMm);
        ArgumentOutOfRangeException.ThrowIfNegative(toleranceMm);
        return
        [
            .. Kinds.Select(kind =>
            {
                var limit = boreMm - toleranceMm - kind.PlayMm;
                return new ClearingChoice(
                    kind.Key,
                    kind.Label,
                    kind.Touching,
                    kind.Sizes.LastOrDefault(tool => tool.DiameterMm <= limit),
                    kind.Sizes.FirstOrDefault(tool => tool.DiameterMm > limit)
                );
            }),
        ];
    }

    private static IEnumerable<ClearingTool> Sizes(TableRow row) =>
        row.Text("kind") switch
        {
            "wire" => Enumerable
                .Range(ThickestWire, WireGauge.Thinnest - ThickestWire + 1)
                .Select(gauge => new ClearingTool($"{gauge} gauge", WireGauge.DiameterMm(gauge))),
            "drill" => NumberDrills.All.Select(drill => new ClearingTool(drill.Label, (double)drill.DiameterMm)),
            _ => row.Text("sizes_mm")
                .Split(' ')
                .Select(size => new ClearingTool($"{size} mm", double.Parse(size, CultureInfo.InvariantCulture))),
        };
}
