using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace BlueDawn.Core.Tables;

/// <summary>A row of a table that a shop has written, changed or taken out.</summary>
/// <param name="Table">The table's name, such as <c>faults/causes.csv</c>.</param>
/// <param name="Key">Which row; see <see cref="KnowledgeTable.KeyOf"/>.</param>
/// <param name="Row">Its cells, in the order of the table's columns; null when it is taken out.</param>
/// <param name="Shipped">The cells it shipped with when it was changed; null for a row of the shop's own.</param>
public sealed record TableChange(string Table, string Key, IReadOnlyList<string>? Row, IReadOnlyList<string>? Shipped)
{
    /// <summary>All of it in one line: equal changes have equal stamps.</summary>
    internal string Stamp => string.Join('\u001f', [Table, Key, .. Row ?? ["\u0018"]]).Replace('\n', '\u001e');
}

/// <summary>How a row of a table came to be.</summary>
public enum RowStanding
{
    /// <summary>As it ships.</summary>
    Shipped,

    /// <summary>Changed by the shop.</summary>
    Changed,

    /// <summary>Changed by the shop; a later version of the product ships it changed as well.</summary>
    ChangedTwice,

    /// <summary>The shop's own.</summary>
    Own,

    /// <summary>It ships, and the shop has taken it out.</summary>
    TakenOut,
}

/// <summary>A row of a table as it stands in a shop.</summary>
/// <param name="Key">Which row.</param>
/// <param name="Cells">Its cells, in the order of the table's columns.</param>
/// <param name="Standing">How it came to be.</param>
/// <param name="Shipped">The cells it ships with, where it ships and is changed.</param>
public sealed record StandingRow(string Key, IReadOnlyList<string> Cells, RowStanding Standing, IReadOnlyList<string>? Shipped);

/// <summary>Tables as they ship with a shop's changes laid over them.</summary>
/// <param name="changes">The changes.</param>
public sealed class TableChanges(IReadOnlyList<TableChange> changes)
{
    private readonly ILookup<string, TableChange> changed = changes.ToLookup(change => change.Table);

    /// <summary>A table's rows as they stand: those that ship in their order, then the shop's own.</summary>
    /// <param name="table">The table.</param>
    public IReadOnlyList<StandingRow> Rows(KnowledgeTable table)
    {
        var mine = changed[table.Name].ToDictionary(change => change.Key);
        var shipped = table.Shipped;
        return
        [
            .. shipped.Select(row =>
                !mine.TryGetValue(table.KeyOf(row), out var change) ? new StandingRow(table.KeyOf(row), row, RowStanding.Shipped, null)
                : change.Row is null ? new StandingRow(change.Key, row, RowStanding.TakenOut, row)
                : new StandingRow(
                    change.Key,
                    Widened(change.Row, row),
                    change.Shipped is { } then && then.SequenceEqual(row.Take(then.Count)) ? RowStanding.Changed : RowStanding.ChangedTwice,
                    row
                )
            ),
            .. changed[table.Name]
                .Where(change => change.Row is not null && !shipped.Any(row => table.KeyOf(row) == change.Key))
                .Select(change => new StandingRow(
                    change.Key,
                    Widened(change.Row!, [.. table.Columns.Select(_ => "")]),
                    RowStanding.Own,
                    null
                )),
        ];
    }

    /// <summary>A row that was kept before the table got another column at its end: there it has what the shipped row has.</summary>
    private static IReadOnlyList<string> Widened(IReadOnlyList<string> row, IReadOnlyList<string> shipped) =>
        row.Count >= shipped.Count ? row : [.. row, .. shipped.Skip(row.Count)];

    /// <summary>Opens a table with the changes in it.</summary>
    /// <param name="name">Its name.</param>
    public TextReader Open(string name)
    {
        if (!changed.Contains(name) || KnowledgeTable.Find(name) is not { } table)
        {
            return CsvTable.OpenShipped(name);
        }

        return new StringReader(
            Csv(table.Columns, Rows(table).Where(row => row.Standing != RowStanding.TakenOut).Select(row => row.Cells))
        );
    }

    /// <summary>A table in one text.</summary>
    /// <param name="columns">Its heading.</param>
    /// <param name="rows">Its rows.</param>
    internal static string Csv(IReadOnlyList<string> columns, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\n" });
        foreach (var row in rows.Prepend(columns))
        {
            foreach (var cell in row)
            {
                csv.WriteField(cell);
            }

            csv.NextRecord();
        }

        csv.Flush();
        return text.ToString();
    }
}
