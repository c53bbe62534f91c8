using System.Text.Json;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Trays;

/// <summary>A tray whose next step becomes another when tables are changed.</summary>
/// <param name="Number">The tray's number.</param>
/// <param name="Before">What it asks for now.</param>
/// <param name="After">What it would ask for.</param>
public sealed record TrayEffect(int Number, NextStep Before, NextStep After);

/// <summary>What other tables do to the trays on the bench.</summary>
public static class KnowledgeEffect
{
    /// <summary>The trays whose next step becomes another, by number.</summary>
    /// <param name="trays">The open trays as they stand, and as they would.</param>
    public static IReadOnlyList<TrayEffect> Of(IEnumerable<(TrayBook Now, TrayBook Then)> trays) =>
        [
            .. trays
                .AsParallel()
                .AsOrdered()
                .Select(pair => new TrayEffect(pair.Now.Facts.Number, Policy.Next(pair.Now), Policy.Next(pair.Then)))
                .Where(effect => !Same(effect.Before, effect.After))
                .OrderBy(effect => effect.Number),
        ];

    /// <summary>Rows that would be taken out though a tray on the bench speaks of them: what is in the logbook must go on meaning
    /// something.</summary>
    /// <param name="edit">What is wanted.</param>
    /// <param name="trays">The open trays.</param>
    public static IReadOnlyList<TableProblem> Orphans(KnowledgeEdit edit, IReadOnlyList<TrayBook> trays)
    {
        var gone = edit
            .Rows.Where(row => row.After is null)
            .Select(row => (row, Table: KnowledgeTable.Find(row.Table)!))
            .Where(pair => pair.Table.NamedBy is not null)
            .ToList();
        if (gone.Count == 0)
        {
            return [];
        }

        var spoken = trays.ToDictionary(tray => tray.Facts.Number, Words);
        return
        [
            .. gone.Select(pair => (pair.row, pair.Table, Id: pair.row.Before![pair.Table.Place(pair.Table.NamedBy!)]))
                .Where(one =>
                    !edit.Rows.Any(other => other.Table == one.row.Table && other.After?[one.Table.Place(one.Table.NamedBy!)] == one.Id)
                )
                .Select(one =>
                    (one.Table, one.Id, By: spoken.Where(tray => tray.Value.Contains(one.Id)).Select(tray => tray.Key).Order().ToList())
                )
                .Where(one => one.By.Count > 0)
                .Select(one => new TableProblem(
                    one.Table.Name,
                    null,
                    one.Table.NamedBy!,
                    $"“{one.Id}” stands in the logbook of {(one.By.Count == 1 ? "tray" : "trays")} {string.Join(", ", one.By)}. "
                        + $"Take it out once {(one.By.Count == 1 ? "it has" : "they have")} been handed back."
                )),
        ];
    }

    private static bool Same(NextStep one, NextStep other) =>
        one.Station == other.Station
        && one.LineKey == other.LineKey
        && one.Do.Text == other.Do.Text
        && one.Do.Quantities.SequenceEqual(other.Do.Quantities);

    /// <summary>Every word that stands by itself in the notes of a tray.</summary>
    private static HashSet<string> Words(TrayBook tray)
    {
        var words = new HashSet<string>();
        foreach (var logged in tray.Log.Notes<Note>())
        {
            Gather(JsonSerializer.SerializeToElement(logged.Note, CoreJson.Options), words);
        }

        return words;
    }

    private static void Gather(JsonElement element, HashSet<string> words)
    {
        if (element.ValueKind == JsonValueKind.String)
        {
            words.Add(element.GetString()!);
        }

        foreach (
            var inner in element.ValueKind == JsonValueKind.Object ? element.EnumerateObject().Select(one => one.Value)
            : element.ValueKind == JsonValueKind.Array ? element.EnumerateArray()
            : []
        )
        {
            Gather(inner, words);
        }
    }
}
