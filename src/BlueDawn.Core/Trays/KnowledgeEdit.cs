using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Trays;

/// <summary>What is wrong with tables that somebody wants to change.</summary>
/// <param name="Table">The table's name.</param>
/// <param name="Row">The line of the file that was sent, or of the table as it is saved; null for the row that was written.</param>
/// <param name="Column">The column; empty for the whole row.</param>
/// <param name="What">What is wrong, and what to do.</param>
public sealed record TableProblem(string Table, int? Row, string Column, string What);

/// <summary>A shop's tables as somebody wants them.</summary>
/// <param name="Changes">Everything that is not as it ships, once this is taken.</param>
/// <param name="Problems">What is wrong with it; with one problem none of it is taken.</param>
/// <param name="Rows">The rows that become other than they stand now.</param>
public sealed record KnowledgeEdit(IReadOnlyList<TableChange> Changes, IReadOnlyList<TableProblem> Problems, IReadOnlyList<RowEdit> Rows)
{
    private const int LongestCell = 2000;
    private const int MostRows = 5000;

    /// <summary>One row written, changed or taken out.</summary>
    /// <param name="now">The changes that stand.</param>
    /// <param name="table">The table.</param>
    /// <param name="key">The row that is changed, or null for a new one.</param>
    /// <param name="cells">Its cells; null to take it out, or to put a row back that was taken out.</param>
    public static KnowledgeEdit OfRow(IReadOnlyList<TableChange> now, KnowledgeTable table, string? key, IReadOnlyList<string>? cells)
    {
        var before = new TableChanges(now).Rows(table);
        var rows = before.Where(row => row.Standing != RowStanding.TakenOut).Select(row => (Line: (int?)null, row.Cells)).ToList();
        var at = key is null ? -1 : rows.FindIndex(row => table.KeyOf(row.Cells) == key);
        if (key is not null && at < 0)
        {
            return Wrong(now, table, "", "There is no such row any more. Look at the table again.");
        }

        if (cells is null)
        {
            rows.RemoveAt(at);
        }
        else if (cells.Count != table.Columns.Count)
        {
            return Wrong(now, table, "", $"A row has {table.Columns.Count} cells.");
        }
        else if (at < 0)
        {
            rows.Add((null, [.. cells.Select(cell => cell.Trim())]));
        }
        else
        {
            rows[at] = (null, [.. cells.Select(cell => cell.Trim())]);
        }

        return Of(now, table, rows, cells is null ? null : table.KeyOf([.. cells.Select(cell => cell.Trim())]));
    }

    /// <summary>A row as it ships again.</summary>
    /// <param name="now">The changes that stand.</param>
    /// <param name="table">The table.</param>
    /// <param name="key">The row.</param>
    public static KnowledgeEdit Back(IReadOnlyList<TableChange> now, KnowledgeTable table, string key) =>
        To(now, [.. now.Where(change => change.Table != table.Name || change.Key != key)]);

    /// <summary>A whole table as a spreadsheet sends it.</summary>
    /// <param name="now">The changes that stand.</param>
    /// <param name="table">The table.</param>
    /// <param name="file">The file's text.</param>
    public static KnowledgeEdit OfFile(IReadOnlyList<TableChange> now, KnowledgeTable table, TextReader file)
    {
        var sent = SentCsv.Read(file, table.Columns, table.Columns).Take(MostRows + 1).ToList();
        List<TableProblem> problems =
        [
            .. sent.Where(row => row.Problem is not null).Select(row => new TableProblem(table.Name, row.Line, "", row.Problem!)),
            .. sent.Count > MostRows
                ? [new TableProblem(table.Name, MostRows, "", $"More than {MostRows} rows. Is this the right file?")]
                : Array.Empty<TableProblem>(),
        ];
        return problems.Count > 0
            ? new KnowledgeEdit(now, problems, [])
            : Of(
                now,
                table,
                [.. sent.Select(row => ((int?)row.Line, (IReadOnlyList<string>)[.. row.Cells.Select(cell => cell ?? "")]))],
                null
            );
    }

    /// <summary>Other changes in place of those that stand: an earlier version, or none.</summary>
    /// <param name="now">The changes that stand.</param>
    /// <param name="then">The changes wanted.</param>
    public static KnowledgeEdit To(IReadOnlyList<TableChange> now, IReadOnlyList<TableChange> then) =>
        new(then, Check(then), Differences(now, then));

    /// <summary>Whether tables hold together, all of them.</summary>
    /// <param name="changes">What a shop has changed.</param>
    public static IReadOnlyList<TableProblem> Check(IReadOnlyList<TableChange> changes)
    {
        // What comes from elsewhere, or from before the product shipped other rows, is held against what ships now.
        var problems = changes.SelectMany(Misfits).ToList();
        if (problems.Count > 0)
        {
            return problems;
        }

        var knowledge = Knowledge.With(changes);
        Read<LedgerKnowledge>(knowledge, problems);
        Read<StackKnowledge>(knowledge, problems);
        Read<CleaningKnowledge>(knowledge, problems);
        Read<FaultKnowledge>(knowledge, problems);
        if (problems.Count > 0)
        {
            return problems;
        }

        // What one room's table says of another's.
        var faults = knowledge.Of<FaultKnowledge>();
        problems.AddRange(
            knowledge
                .Rows("strip/signs.csv", row => (row.Line, Finding: row.Text("finding")))
                .Where(row => faults.FindFinding(row.Finding) is null)
                .Select(row => new TableProblem("strip/signs.csv", row.Line, "finding", $"“{row.Finding}” is not in faults/findings.csv."))
        );
        problems.AddRange(
            Enum.GetValues<Vessel>()
                .Where(vessel => knowledge.Of<CleaningKnowledge>().Recipes.All(recipe => recipe.Vessel != vessel))
                .Select(vessel => new TableProblem(
                    "cleaning/recipes.csv",
                    null,
                    "vessel",
                    $"No way to clean in the vessel “{vessel}” is left: a bath of the shop may be one."
                ))
        );
        return problems;
    }

    private static IEnumerable<TableProblem> Misfits(TableChange change)
    {
        if (KnowledgeTable.Find(change.Table) is not { } table)
        {
            yield return new(change.Table, null, "", "There is no such table that a shop may change.");
        }
        else if (change.Row is { } cells && (cells.Count != table.Columns.Count || table.KeyOf(cells) != change.Key))
        {
            yield return new(
                table.Name,
                null,
                table.Keys[0],
                $"“{change.Key}” has not the {table.Columns.Count} cells of its table, or another key."
            );
        }
        else if (table.Shipped.FirstOrDefault(row => table.KeyOf(row) == change.Key) is { } ships)
        {
            if (change.Row is null && table.Stays)
            {
                yield return new(table.Name, null, table.Keys[0], Stay(change.Key));
            }
            else if (
                change.Row is { } row
                && table.Cautions is { } column
                && Fewer(ships[table.Place(column)], row[table.Place(column)]) is { } gone
            )
            {
                yield return new(table.Name, null, column, Kept(gone));
            }
        }
    }

    private static string Stay(string key) =>
        $"“{key}” came with the product and stays: other tables and the program rest on it. Change it instead.";

    private static string Kept(string caution) =>
        $"The caution “{caution}” came with it and stays: where work can hurt, it is said. Add others, or write a row of your own.";

    private static void Read<T>(Knowledge knowledge, List<TableProblem> problems)
        where T : class, IKnowledge<T>
    {
        try
        {
            knowledge.Of<T>();
        }
        catch (TableException wrong)
        {
            // A room that rests on another says the same once more.
            var problem = new TableProblem(wrong.Table, wrong.Line, wrong.Column, wrong.What);
            if (!problems.Contains(problem))
            {
                problems.Add(problem);
            }
        }
    }

    private static KnowledgeEdit Of(
        IReadOnlyList<TableChange> now,
        KnowledgeTable table,
        IReadOnlyList<(int? Line, IReadOnlyList<string> Cells)> rows,
        string? written
    )
    {
        var problems = new List<TableProblem>();
        var seen = new HashSet<string>();
        var shipped = table.Shipped.ToDictionary(table.KeyOf);
        foreach (var (line, cells) in rows)
        {
            var key = table.KeyOf(cells);
            foreach (
                var column in table.Keys.Where(column =>
                    cells[table.Place(column)] is var cell && (cell.Length == 0 || cell.Contains(' ', StringComparison.Ordinal))
                )
            )
            {
                problems.Add(new(table.Name, line, column, "It names the row: one word without a blank."));
            }

            if (!seen.Add(key))
            {
                problems.Add(
                    new(
                        table.Name,
                        line,
                        table.Keys[^1],
                        $"There is a row “{key}” already. No two rows may have the same {string.Join(" and ", table.Keys)}."
                    )
                );
            }

            problems.AddRange(
                cells
                    .Select((cell, i) => (cell, i))
                    .Where(pair => pair.cell.Length > LongestCell || pair.cell.Any(char.IsControl))
                    .Select(pair => new TableProblem(
                        table.Name,
                        line,
                        table.Columns[pair.i],
                        $"One line of no more than {LongestCell} characters."
                    ))
            );
            if (
                table.Cautions is { } column1
                && shipped.TryGetValue(key, out var ships)
                && Fewer(ships[table.Place(column1)], cells[table.Place(column1)]) is { } gone
            )
            {
                problems.Add(new(table.Name, line, column1, Kept(gone)));
            }
        }

        problems.AddRange(
            table.Stays
                ? shipped.Keys.Where(key => !seen.Contains(key)).Select(key => new TableProblem(table.Name, null, table.Keys[0], Stay(key)))
                : []
        );
        if (problems.Count > 0)
        {
            return new KnowledgeEdit(now, problems, []);
        }

        var before = now.Where(change => change.Table == table.Name).ToDictionary(change => change.Key);
        List<TableChange> changes =
        [
            .. now.Where(change => change.Table != table.Name),
            .. rows.Select(row => (Key: table.KeyOf(row.Cells), row.Cells))
                .Where(row => !(shipped.TryGetValue(row.Key, out var ships) && ships.SequenceEqual(row.Cells)))
                .Select(row =>
                    before.TryGetValue(row.Key, out var old) && old.Row?.SequenceEqual(row.Cells) == true
                        ? old
                        : new TableChange(table.Name, row.Key, row.Cells, shipped.GetValueOrDefault(row.Key))
                ),
            .. shipped.Where(pair => !seen.Contains(pair.Key)).Select(pair => new TableChange(table.Name, pair.Key, null, pair.Value)),
        ];
        var edit = To(now, changes);
        // The check counts the lines of the table as it is saved; the sender counts those of the file.
        var standing = new TableChanges(changes)
            .Rows(table)
            .Where(row => row.Standing != RowStanding.TakenOut)
            .Select(row => row.Key)
            .ToList();
        var lines = rows.ToDictionary(row => table.KeyOf(row.Cells), row => row.Line);
        return edit with
        {
            Problems =
            [
                .. edit.Problems.Select(problem =>
                    problem.Table != table.Name || problem.Row is not { } row || row - 2 >= standing.Count
                        ? problem
                        : problem with
                        {
                            Row = lines[standing[row - 2]] ?? (standing[row - 2] == written ? null : row),
                        }
                ),
            ],
        };
    }

    private static string? Fewer(string before, string after)
    {
        var kept = after.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return before
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .FirstOrDefault(caution => caution != "none" && !kept.Contains(caution));
    }

    private static KnowledgeEdit Wrong(IReadOnlyList<TableChange> now, KnowledgeTable table, string column, string what) =>
        new(now, [new TableProblem(table.Name, null, column, what)], []);

    private static List<RowEdit> Differences(IReadOnlyList<TableChange> now, IReadOnlyList<TableChange> then)
    {
        var edits = new List<RowEdit>();
        foreach (var table in KnowledgeTable.All.Where(table => now.Concat(then).Any(change => change.Table == table.Name)))
        {
            Dictionary<string, IReadOnlyList<string>> Standing(IReadOnlyList<TableChange> changes) =>
                new TableChanges(changes)
                    .Rows(table)
                    .Where(row => row.Standing != RowStanding.TakenOut)
                    .ToDictionary(row => row.Key, row => row.Cells);
            var (before, after) = (Standing(now), Standing(then));
            edits.AddRange(
                before.Where(pair => !after.ContainsKey(pair.Key)).Select(pair => new RowEdit(table.Name, pair.Key, pair.Value, null))
            );
            edits.AddRange(
                after
                    .Where(pair => !before.TryGetValue(pair.Key, out var was) || !was.SequenceEqual(pair.Value))
                    .Select(pair => new RowEdit(table.Name, pair.Key, before.GetValueOrDefault(pair.Key), pair.Value))
            );
        }

        return edits;
    }
}

/// <summary>A row before and after.</summary>
/// <param name="Table">The table's name.</param>
/// <param name="Key">Which row.</param>
/// <param name="Before">Its cells before; null for a new row.</param>
/// <param name="After">Its cells after; null for one that is taken out.</param>
public sealed record RowEdit(string Table, string Key, IReadOnlyList<string>? Before, IReadOnlyList<string>? After);
