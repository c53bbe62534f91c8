using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Strip;

/// <summary>Signs of earlier work and of the fault itself, as parts come out.</summary>
public static class LedgerSigns
{
    /// <summary>The findings that a ledger's lines amount to, one a finding, the first that showed it.</summary>
    /// <param name="strip">What the bench knows about taking apart.</param>
    /// <param name="build">What it knows about putting together: the right ways round and starting settings.</param>
    /// <param name="family">The carburetor's family.</param>
    /// <param name="spec">Its spec sheet, or null.</param>
    /// <param name="ledger">The ledger.</param>
    public static IReadOnlyList<FindingSign> Of(
        LedgerKnowledge strip,
        StackKnowledge build,
        CarburetorFamily family,
        SpecSheet? spec,
        Ledger ledger
    )
    {
        var signs = new List<FindingSign>();
        // By the entry that came out: what happens to the part later does not unsay how it was found.
        var came = ledger
            .Notes.Where(logged => logged.Note is OutNote)
            .GroupBy(logged => ((OutNote)logged.Note).Part)
            .ToDictionary(group => group.Key, group => group.Last());
        foreach (var line in ledger.Taken.Where(line => came.ContainsKey(line.Part.Key)))
        {
            var logged = came[line.Part.Key];
            signs.AddRange(
                strip
                    .Signs.Where(sign => (sign.Part == "*" || sign.Part == line.Part.Key) && Shows(sign, line, build, family, spec))
                    .Select(sign => new FindingSign(
                        sign.FindingId,
                        $"strip/{line.Part.Key}",
                        logged.EntryId,
                        logged.TakenAt,
                        MendedAt: Mended(sign, line) ? line.At : null
                    ))
            );
        }

        // Of several parts that show the same, one that was not put right speaks; put right it is when the last of them was.
        return
        [
            .. signs
                .GroupBy(sign => sign.FindingId)
                .Select(group => group.FirstOrDefault(sign => sign.MendedAt is null) ?? group.MaxBy(sign => sign.MendedAt)!),
        ];
    }

    /// <summary>Whether what went back is not what was found: a new part, or the same the other way round.</summary>
    private static bool Mended(StripSign sign, LedgerLine line) =>
        line.Fitted switch
        {
            { Fate: Fate.Renewed or Fate.Made } => true,
            { Fate: Fate.Refitted, Way: { } way } => sign.Sign == StripSign.WrongWay && way != line.Found!.Way,
            { Fate: Fate.Refitted or Fate.LeftOff or Fate.Scrapped } or null => false,
        };

    private static bool Shows(StripSign sign, LedgerLine line, StackKnowledge build, CarburetorFamily family, SpecSheet? spec)
    {
        var found = line.Found!;
        return sign.Sign switch
        {
            StripSign.WrongWay => build.Layer(family, line.Part.Key) is { } layer && WayRound.CameOutWrong(layer, line, spec),
            "turns-low" => Off(found, line, build, family, spec) is { } off && off <= -sign.TurnsOff,
            "turns-high" => Off(found, line, build, family, spec) is { } off && off >= sign.TurnsOff,
            _ => sign.Sign.Equals(found.Verdict.ToString(), StringComparison.OrdinalIgnoreCase),
        };
    }

    /// <summary>Turns away from the starting setting, or null when one of them is not known.</summary>
    private static double? Off(OutNote found, LedgerLine line, StackKnowledge build, CarburetorFamily family, SpecSheet? spec) =>
        found.TurnsEighths is { } eighths && build.StartOf(line.Part.Key, family, spec) is { } start ? eighths / 8.0 - start.Turns : null;
}
