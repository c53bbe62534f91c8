using BlueDawn.Core.Carburetors;

namespace BlueDawn.Core.Parts;

/// <summary>
/// Which way round a part goes in: the sheet says it; where it does not, how it was found; where nobody looked, the
/// family's usual way. Common practice, no source.
/// </summary>
public static class WayRound
{
    /// <summary>The feature of a part on a spec sheet by which it may go in either way.</summary>
    public const string Feature = "way in";

    /// <summary>The sheet's word for a part that may go in either way.</summary>
    public const string Either = "either";

    /// <summary>The way round of a part that is the same both ways, such as a flat gasket or a round bowl.</summary>
    public const string Alike = "alike";

    /// <summary>The right way round of a part; null when there is none, nobody looked, or what was found and what is usual differ and no
    /// sheet decides.</summary>
    /// <param name="layer">Its layer in a stack.</param>
    /// <param name="line">The part.</param>
    /// <param name="sheet">The spec sheet, or null.</param>
    public static string? Right(StackLayer layer, LedgerLine line, SpecSheet? sheet) =>
        BySheet(line.Part, sheet) is { } said ? said.Way
        : IsAlike(line) ? null
        : layer.Way == StackLayer.AsFound ? line.Found?.Way
        : IsOpen(layer, line, sheet) ? null
        : layer.Way;

    /// <summary>True when it came out another way round than is usual, and no sheet says which is right: worth a look, not an
    /// error.</summary>
    /// <param name="layer">Its layer in a stack.</param>
    /// <param name="line">The part.</param>
    /// <param name="sheet">The spec sheet, or null.</param>
    public static bool IsOpen(StackLayer layer, LedgerLine line, SpecSheet? sheet) =>
        layer.Way is { } usual
        && usual != StackLayer.AsFound
        && BySheet(line.Part, sheet) is null
        && !IsAlike(line)
        && line.Found?.Way is { } found
        && found != usual;

    /// <summary>Whether it came out the wrong way round: against the sheet, or against what is usual where the sheet is silent.</summary>
    /// <param name="layer">Its layer in a stack.</param>
    /// <param name="line">The part.</param>
    /// <param name="sheet">The spec sheet, or null.</param>
    public static bool CameOutWrong(StackLayer layer, LedgerLine line, SpecSheet? sheet) =>
        layer.Way is { } usual
        && usual != StackLayer.AsFound
        && line.Found?.Way is { } found
        && (BySheet(line.Part, sheet) is { } said ? said.Way is { } right && found != right : found != usual && !IsAlike(line));

    /// <summary>Whether somebody saw that it is the same both ways.</summary>
    private static bool IsAlike(LedgerLine line) => line.Found?.Way == Alike || line.Fitted?.Way == Alike;

    /// <summary>What the sheet says; null when it is silent. A part that may go in either way has no right one.</summary>
    private static (string? Way, bool Said)? BySheet(StripPart part, SpecSheet? sheet)
    {
        if (part.Key == "emulsion-tube" && MoreHoles(sheet) is { } end)
        {
            return (end, true);
        }

        var features = sheet?.Needs.FirstOrDefault(need => need.Part == part.KitPart)?.Features;
        return features is null ? null
            : features.GetValueOrDefault(Feature) == Either ? (null, true)
            : part.Ways.FirstOrDefault(way => way.Sheet is { } word && features.Values.Contains(word)) is { } said ? (said.Key, true)
            : null;
    }

    /// <summary>At which end of an emulsion tube the sheet has more holes; null when it gives no rows, or as many at both ends.</summary>
    private static string? MoreHoles(SpecSheet? sheet)
    {
        var rows = (sheet?.EmulsionRows ?? []).OrderBy(row => row.Row).Select(row => row.Holes).ToList();
        var half = rows.Count / 2;
        return rows.Take(half).Sum().CompareTo(rows.TakeLast(half).Sum()) switch
        {
            > 0 => "more-up",
            < 0 => "more-down",
            0 => null,
        };
    }
}
