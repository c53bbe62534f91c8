using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace BlueDawn.Core.Tables;

/// <summary>Tables of knowledge: CSV with a heading, lines beginning with # are remarks.</summary>
public static class CsvTable
{
    /// <summary>Opens a table that ships inside the product.</summary>
    /// <param name="name">Its name among the embedded resources.</param>
    /// <exception cref="InvalidDataException">It is missing from the build.</exception>
    public static TextReader OpenShipped(string name) =>
        new StreamReader(
            typeof(CsvTable).Assembly.GetManifestResourceStream(name)
                ?? throw new InvalidDataException($"{name} is missing from the build.")
        );

    /// <summary>Reads every row of a table.</summary>
    /// <param name="open">Opens a table by its file name.</param>
    /// <param name="table">The table's file name, for what is said about a wrong row.</param>
    /// <param name="read">Reads one row.</param>
    /// <exception cref="TableException">A row is wrong; the message says which.</exception>
    public static List<T> Rows<T>(Func<string, TextReader> open, string table, Func<TableRow, T> read)
    {
        using var reader = open(table);
        using var csv = new CsvReader(reader, new CsvConfiguration(CultureInfo.InvariantCulture) { AllowComments = true, Comment = '#' });
        var rows = new List<T>();
        csv.Read();
        csv.ReadHeader();
        while (csv.Read())
        {
            var row = new TableRow(csv, table);
            // A comma that is not quoted cuts a sentence and pushes its rest into the next column.
            if (csv.Parser.Count != csv.HeaderRecord!.Length)
            {
                throw row.Wrong(csv.HeaderRecord[0], $"has {csv.Parser.Count} cells, and the heading {csv.HeaderRecord.Length}");
            }

            rows.Add(read(row));
        }

        return rows;
    }

    /// <summary>A table that ships inside the product, cell by cell.</summary>
    /// <param name="name">Its name among the embedded resources.</param>
    internal static (IReadOnlyList<string> Columns, IReadOnlyList<IReadOnlyList<string>> Rows) Cells(string name)
    {
        string[] columns = [];
        var rows = Rows(OpenShipped, name, row =>
        {
            columns = row.Csv.HeaderRecord!;
            return (IReadOnlyList<string>)[.. columns.Select(row.MayBeEmpty)];
        });
        return (columns, rows);
    }
}

/// <summary>A row of a table that does not hold together.</summary>
/// <param name="table">The table's name.</param>
/// <param name="line">Its line; the heading is the first.</param>
/// <param name="column">The column.</param>
/// <param name="what">What is wrong with it.</param>
public sealed class TableException(string table, int line, string column, string what) : Exception($"{table}, row {line}, {column}: {what}")
{
    /// <summary>The table's name.</summary>
    public string Table { get; } = table;

    /// <summary>Its line; the heading is the first.</summary>
    public int Line { get; } = line;

    /// <summary>The column.</summary>
    public string Column { get; } = column;

    /// <summary>What is wrong with it.</summary>
    public string What { get; } = what;
}

/// <summary>One row of a table that is being read.</summary>
/// <param name="Csv">The reader, standing on the row.</param>
/// <param name="Table">The table's file name.</param>
public readonly record struct TableRow(CsvReader Csv, string Table)
{
    /// <summary>What is wrong with a cell, saying where it stands.</summary>
    public TableException Wrong(string column, string what) => new(Table, Line, column, $"“{MayBeEmpty(column)}” {what}.");

    /// <summary>Its line in the table; the heading is the first.</summary>
    public int Line => Csv.Context.Parser!.Row;

    /// <summary>A cell's text that no row before has.</summary>
    /// <param name="column">The column.</param>
    /// <param name="seen">What the rows before have; it is added.</param>
    /// <exception cref="TableException">A row before has it.</exception>
    public string Once(string column, HashSet<string> seen) =>
        seen.Add(Text(column)) ? Text(column) : throw Wrong(column, "stands there already");

    /// <summary>A cell's text that another table has.</summary>
    /// <param name="column">The column.</param>
    /// <param name="known">What the other table has.</param>
    /// <param name="table">The other table's name.</param>
    /// <exception cref="TableException">It has not.</exception>
    public string In(string column, IReadOnlySet<string> known, string table) =>
        known.Contains(Text(column)) ? Text(column) : throw Wrong(column, $"is not in {table}");

    /// <summary>A cell's text; may be empty.</summary>
    public string MayBeEmpty(string column) => (Csv.GetField(column) ?? "").Trim();

    /// <summary>The words of a cell; none when it is empty or the table has no such column.</summary>
    public string[] WordsOf(string column) =>
        Csv.HeaderRecord!.Contains(column) ? MayBeEmpty(column).Split(' ', StringSplitOptions.RemoveEmptyEntries) : [];

    /// <summary>A cell's text, or null when it is empty.</summary>
    public string? TextOrNull(string column) => MayBeEmpty(column) is { Length: > 0 } text ? text : null;

    /// <summary>A cell's text.</summary>
    /// <exception cref="TableException">It is empty.</exception>
    public string Text(string column) => TextOrNull(column) ?? throw Wrong(column, "must not be empty");

    /// <summary>A number of 0 or more.</summary>
    /// <exception cref="TableException">It is not one.</exception>
    public double Number(string column) =>
        double.TryParse(Text(column), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && number >= 0
            ? number
            : throw Wrong(column, "is not a number of 0 or more");

    /// <summary>A decimal number of 0 or more, or null when the cell is empty.</summary>
    /// <exception cref="TableException">It is something else.</exception>
    public decimal? DecimalOrNull(string column) =>
        TextOrNull(column) is not { } text ? null
        : decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? number
        : throw Wrong(column, "is not a number of 0 or more");

    /// <summary>A share: 0 or more and below 1.</summary>
    /// <exception cref="TableException">It is not one.</exception>
    public double Share(string column) => Number(column) is var number && number < 1 ? number : throw Wrong(column, "must be below 1");

    /// <summary>One of the words of an enumeration.</summary>
    /// <exception cref="TableException">It is not one of them.</exception>
    public T Word<T>(string column)
        where T : struct, Enum =>
        Enum.TryParse<T>(Text(column), true, out var word)
            ? word
            : throw Wrong(column, $"is not one of {string.Join(", ", Enum.GetNames<T>())}");
}
