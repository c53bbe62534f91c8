using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Tables;
using Npgsql;
using NpgsqlTypes;

namespace BlueDawn.Store.Catalogue;

/// <summary>A row that cannot be taken.</summary>
/// <param name="Line">Its line in the file.</param>
/// <param name="Text">The row, shortened.</param>
/// <param name="Reason">What is wrong and what to do.</param>
public sealed record RejectedRow(int Line, string Text, string Reason);

/// <summary>What an import would do, or did.</summary>
/// <param name="Rows">Rows in the file.</param>
/// <param name="Added">New ones.</param>
/// <param name="Changed">Ones that change.</param>
/// <param name="Same">Ones that are there already.</param>
/// <param name="Removed">Rows on file that go, because the file says all there is about the items it names.</param>
/// <param name="Rejected">Rows that cannot be taken; with any of them nothing is imported.</param>
/// <param name="FirstRejected">The first of them.</param>
/// <param name="Examples">A few of the changes, in words.</param>
/// <param name="Applied">True when it was done.</param>
/// <param name="Comma">The first number with a comma that nobody has said the meaning of, or null.</param>
public sealed record ImportReport(
    int Rows,
    int Added,
    int Changed,
    int Same,
    int Removed,
    int Rejected,
    IReadOnlyList<RejectedRow> FirstRejected,
    IReadOnlyList<string> Examples,
    bool Applied,
    string? Comma = null
);

/// <summary>Where an import stands.</summary>
public enum ImportPhase
{
    /// <summary>Reading rows.</summary>
    Reading,

    /// <summary>Holding them against the catalogue.</summary>
    Comparing,

    /// <summary>Writing.</summary>
    Writing,
}

/// <summary>Imports and exports catalogue files, set by set: 100,000 rows never sit in memory.</summary>
public static class CatalogueImport
{
    private const int MostRejected = 200;
    private const int MostExamples = 8;
    private const int TellEvery = 2000;
    private static readonly string[] Places = ["c0", "c1", "c2", "c3", "c4"];

    /// <summary>Runs a file: all of it or nothing. A dry run does the same work and takes it back.</summary>
    /// <param name="connection">An open connection without a transaction.</param>
    /// <param name="file">Which file.</param>
    /// <param name="text">The file.</param>
    /// <param name="decimalComma">Whether somebody has said that its commas are decimal commas.</param>
    /// <param name="apply">False for a dry run.</param>
    /// <param name="told">Called with the phase and the rows read so far.</param>
    /// <param name="cancel">Cancels; nothing is changed then.</param>
    public static async Task<ImportReport> RunAsync(
        NpgsqlConnection connection,
        CatalogueFile file,
        TextReader text,
        bool decimalComma,
        bool apply,
        Action<ImportPhase, int>? told,
        CancellationToken cancel
    )
    {
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        async Task<int> DoAsync(string sql)
        {
            await using var command = new NpgsqlCommand(sql, connection, transaction) { CommandTimeout = 0 };
            return await command.ExecuteNonQueryAsync(cancel);
        }

        // Sorting and joining a million rows on disk takes minutes; this is for this transaction alone.
        await DoAsync("set local work_mem = '128MB'");
        await DoAsync(
            "create temp table incoming (line int not null, c0 text, c1 text, c2 text, c3 text, c4 text, folded text) on commit drop"
        );
        var rejected = new List<RejectedRow>();
        var (rows, wrong, comma) = await CopyAsync(connection, file, text, decimalComma, rejected, told, cancel);
        told?.Invoke(ImportPhase.Comparing, rows);
        await DoAsync("analyze incoming");
        wrong += await RejectUnknownAsync(connection, file, rejected, cancel);
        var columns = Places.Take(CatalogueCsv.Columns(file).Count).ToList();
        var key = CatalogueCsv.Key(file).Select(place => Places[place]).ToList();
        var same = string.Join(" and ", columns.Select(place => $"i.{place} = l.{place}"));
        var matches = string.Join(" and ", key.Select(place => $"i.{place} = l.{place}"));
        await DoAsync(
            "create temp table live on commit drop as "
                + $"{CatalogueSql.Live(file)}{(CatalogueSql.SaysAll(file) ? $" where i.number in (select c0 from incoming)" : "")}"
        );
        await DoAsync("analyze live");
        await DoAsync(
            "create temp table leaving on commit drop as select l.* from live l where "
                + $"{(CatalogueSql.SaysAll(file) ? $"not exists (select 1 from incoming i where {matches})" : "false")}"
        );
        await DoAsync(
            "create temp table judged on commit drop as select i.*, case when l.c0 is null then 'added' when "
                + $"{same} then 'same' else 'changed' end as state from incoming i left join live l on {matches}"
        );
        await DoAsync("analyze judged");
        var counts = await CountAsync(connection, cancel);
        var examples = await ExamplesAsync(connection, columns, matches, cancel);
        if (apply && wrong == 0)
        {
            told?.Invoke(ImportPhase.Writing, rows);
            foreach (var sql in CatalogueSql.Apply(file))
            {
                await DoAsync(sql);
            }

            await transaction.CommitAsync(cancel);
        }
        else
        {
            await transaction.RollbackAsync(cancel);
        }

        return new ImportReport(
            rows,
            counts.Added,
            counts.Changed,
            counts.Same,
            counts.Removed,
            wrong,
            [.. rejected.OrderBy(row => row.Line).Take(MostRejected)],
            examples,
            apply && wrong == 0,
            comma
        );
    }

    /// <summary>Writes a file as it stands.</summary>
    /// <param name="connection">An open connection.</param>
    /// <param name="file">Which file.</param>
    /// <param name="writer">Where to.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task ExportAsync(NpgsqlConnection connection, CatalogueFile file, TextWriter writer, CancellationToken cancel)
    {
        var columns = CatalogueCsv.Columns(file);
        var places = string.Join(", ", Places.Take(columns.Count).Select(place => $"live.{place}"));
        await using var command = new NpgsqlCommand($"select {places} from ({CatalogueSql.Live(file)}) live order by {places}", connection)
        {
            CommandTimeout = 0,
        };
        await using var reader = await command.ExecuteReaderAsync(cancel);
        async IAsyncEnumerable<IReadOnlyList<string>> Rows()
        {
            while (await reader.ReadAsync(cancel))
            {
                yield return [.. Enumerable.Range(0, columns.Count).Select(reader.GetString)];
            }
        }

        await CsvOut.WriteAsync(columns, Rows(), writer, cancel);
    }

    private static async Task<(int Rows, int Wrong, string? Comma)> CopyAsync(
        NpgsqlConnection connection,
        CatalogueFile file,
        TextReader text,
        bool decimalComma,
        List<RejectedRow> rejected,
        Action<ImportPhase, int>? told,
        CancellationToken cancel
    )
    {
        var (rows, wrong) = (0, 0);
        string? comma = null;
        await using var copy = await connection.BeginBinaryImportAsync(
            "copy incoming (line, c0, c1, c2, c3, c4, folded) from stdin (format binary)",
            cancel
        );
        foreach (var line in CatalogueCsv.Read(file, text, decimalComma))
        {
            rows++;
            if (rows % TellEvery == 0)
            {
                cancel.ThrowIfCancellationRequested();
                told?.Invoke(ImportPhase.Reading, rows);
            }

            if (line.Problem is { } problem)
            {
                wrong++;
                comma ??= line.Comma;
                if (rejected.Count < MostRejected)
                {
                    rejected.Add(new RejectedRow(line.Line, Shorten(string.Join(",", line.Cells)), problem));
                }

                continue;
            }

            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(line.Line, NpgsqlDbType.Integer, cancel);
            for (var place = 0; place < Places.Length; place++)
            {
                await copy.WriteAsync(place < line.Cells.Count ? line.Cells[place] : "", NpgsqlDbType.Text, cancel);
            }

            await copy.WriteAsync(file == CatalogueFile.Fits ? Stamp.Fold(line.Cells[3]) : "", NpgsqlDbType.Text, cancel);
        }

        await copy.CompleteAsync(cancel);
        return (rows, wrong, comma);
    }

    private static async Task<int> RejectUnknownAsync(
        NpgsqlConnection connection,
        CatalogueFile file,
        List<RejectedRow> rejected,
        CancellationToken cancel
    )
    {
        var key = string.Join(", ", CatalogueCsv.Key(file).Select(place => Places[place]));
        List<(string From, string Reason)> checks =
        [
            (
                $"(select line, c0, c1, c2, c3, first_value(line) over (partition by {key} order by line) as first from incoming) i where i.line <> i.first",
                "says the same thing again as line {first}. Keep one of them."
            ),
            .. CatalogueSql
                .Unknown(file)
                .Select(check => ($"(select line, c0, c1, c2, c3, line as first from incoming) i where {check.Condition}", check.Reason)),
        ];
        var wrong = 0;
        foreach (var (from, reason) in checks)
        {
            await using var command = new NpgsqlCommand(
                $"select count(*) over (), i.line, concat_ws(',', i.c0, i.c1, i.c2, i.c3), i.first from {from} order by i.line limit {MostRejected}",
                connection
            )
            {
                CommandTimeout = 0,
            };
            await using var reader = await command.ExecuteReaderAsync(cancel);
            var counted = false;
            while (await reader.ReadAsync(cancel))
            {
                wrong += counted ? 0 : (int)reader.GetInt64(0);
                counted = true;
                rejected.Add(
                    new RejectedRow(
                        reader.GetInt32(1),
                        Shorten(reader.GetString(2)),
                        reason.Replace(
                            "{first}",
                            reader.GetInt32(3).ToString(System.Globalization.CultureInfo.InvariantCulture),
                            StringComparison.Ordinal
                        )
                    )
                );
            }
        }

        return wrong;
    }

    private static async Task<(int Added, int Changed, int Same, int Removed)> CountAsync(
        NpgsqlConnection connection,
        CancellationToken cancel
    )
    {
        await using var command = new NpgsqlCommand(
            """
            select count(*) filter (where state = 'added')::int, count(*) filter (where state = 'changed')::int, count(*) filter (where state = 'same')::int,
                   (select count(*)::int from leaving)
            from judged
            """,
            connection
        )
        {
            CommandTimeout = 0,
        };
        await using var reader = await command.ExecuteReaderAsync(cancel);
        await reader.ReadAsync(cancel);
        return (reader.GetInt32(0), reader.GetInt32(1), reader.GetInt32(2), reader.GetInt32(3));
    }

    private static async Task<IReadOnlyList<string>> ExamplesAsync(
        NpgsqlConnection connection,
        List<string> columns,
        string matches,
        CancellationToken cancel
    )
    {
        string Text(string row) => $"concat_ws(', ', {string.Join(", ", columns.Select(place => $"nullif({row}.{place}, '')"))})";
        await using var command = new NpgsqlCommand(
            $"""
            (select 'changed: ' || {Text("l")} || ' → ' || {Text(
                "i"
            )} from judged i join live l on {matches} where i.state = 'changed' order by i.line limit {MostExamples / 2})
            union all (select 'goes: ' || {Text("l")} from leaving l limit {MostExamples / 4})
            union all (select 'new: ' || {Text("i")} from judged i where i.state = 'added' order by i.line limit {MostExamples / 4})
            """,
            connection
        )
        {
            CommandTimeout = 0,
        };
        await using var reader = await command.ExecuteReaderAsync(cancel);
        var examples = new List<string>();
        while (await reader.ReadAsync(cancel))
        {
            examples.Add(Shorten(reader.GetString(0)));
        }

        return examples;
    }

    private static string Shorten(string text) => text.Length <= 160 ? text : text[..159] + "…";
}
