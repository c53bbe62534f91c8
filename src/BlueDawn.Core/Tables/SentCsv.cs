using System.Globalization;
using System.Text.RegularExpressions;
using CsvHelper;
using CsvHelper.Configuration;

namespace BlueDawn.Core.Tables;

/// <summary>A row of a file somebody sent.</summary>
/// <param name="Line">Its line in the file, as an editor counts them; the heading is the first.</param>
/// <param name="Cells">Its cells in the order of the columns asked for; null where the file has no such column.</param>
/// <param name="Problem">What is wrong with it, or null.</param>
public sealed record SentRow(int Line, IReadOnlyList<string?> Cells, string? Problem);

/// <summary>
/// CSV as spreadsheets write it: with or without a byte order mark; commas, semicolons or tabs between the cells, whichever
/// the heading has; any capitals, spaces or dashes in the heading; columns in any order and others between them. Remarks begin
/// with #. What a comma in a number means is not guessed: see <see cref="WithComma"/>.
/// </summary>
public static partial class SentCsv
{
    private const int LongestCell = 2000;
    private static readonly string[] Delimiters = [",", ";", "\t"];

    /// <summary>Reads a file row by row without keeping it in memory.</summary>
    /// <param name="reader">Its text.</param>
    /// <param name="columns">The columns asked for.</param>
    /// <param name="needed">Those of them that the file must have.</param>
    /// <returns>Every row; a wrong one with what is wrong. A wrong heading is one problem on line 1 without cells, and ends it.</returns>
    public static IEnumerable<SentRow> Read(TextReader reader, IReadOnlyList<string> columns, IReadOnlyList<string> needed)
    {
        string? broken = null;
        using var csv = new CsvReader(
            reader,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                AllowComments = true,
                Comment = '#',
                DetectDelimiter = true,
                GetDelimiter = args => Delimiters.MaxBy(delimiter => Hits(args.Text, delimiter, columns))!,
                MissingFieldFound = null,
                TrimOptions = TrimOptions.Trim,
                BadDataFound = args => broken = "A quote mark is not closed or stands where none may be.",
            },
            leaveOpen: true
        );
        if (!csv.Read() || !csv.ReadHeader())
        {
            yield return new SentRow(1, [], $"The file is empty. Its first line must be: {string.Join(",", needed)}");
            yield break;
        }

        var heading = csv.HeaderRecord!.Select(Tidy).ToList();
        if (needed.Where(column => !heading.Contains(Tidy(column))).ToList() is { Count: > 0 } missing)
        {
            yield return new SentRow(1, [], $"The heading lacks {string.Join(", ", missing)}. It must have: {string.Join(",", needed)}");
            yield break;
        }

        var places = columns.Select(column => heading.IndexOf(Tidy(column))).ToArray();
        while (csv.Read())
        {
            var cells = places.Select(place => place < 0 ? null : CsvText.Unguard((csv.GetField(place) ?? "").Trim())).ToArray();
            // The parser counts to the row's end; a cell with line breaks in it begins further up.
            var line = csv.Context.Parser!.RawRow - csv.Context.Parser.RawRecord.TrimEnd('\r', '\n').Count(c => c == '\n');
            var problem = broken
                ?? cells.Zip(columns).Select(pair => Wrong(pair.Second, pair.First)).FirstOrDefault(wrong => wrong is not null);
            broken = null;
            // Spreadsheets write rows of nothing but delimiters where something once stood.
            if (problem is not null || cells.Any(cell => cell is { Length: > 0 }))
            {
                yield return new SentRow(line, cells, problem);
            }
        }
    }

    /// <summary>A number as it stands in a file, with a point; a comma in it is read only when somebody has said what it means.</summary>
    /// <param name="cell">The number.</param>
    /// <param name="decimalComma">Whether somebody has said that the file's commas are decimal commas.</param>
    /// <returns>The number with a point, or null when it has a comma and nobody has said.</returns>
    public static string? WithComma(string cell, bool decimalComma) =>
        !CommaNumber().IsMatch(cell) ? cell
        : decimalComma ? CommaNumber().Replace(cell, "$1.$2")
        : null;

    private static string? Wrong(string column, string? cell) =>
        cell is null ? null
        : cell.Length > LongestCell ? $"{column} is longer than {LongestCell} characters."
        : cell.Contains('\uFFFD', StringComparison.Ordinal)
            ? $"{column} has letters that cannot be read. Save the file as CSV in UTF-8 and send it again."
        : null;

    /// <summary>How many of the columns asked for the heading has when it is cut by a delimiter.</summary>
    private static int Hits(string text, string delimiter, IReadOnlyList<string> columns) =>
        text.Split('\n').FirstOrDefault(line => line.Trim('\r', ' ', '\uFEFF') is { Length: > 0 } said && said[0] != '#') is { } heading
            ? heading.Split(delimiter).Select(Tidy).Count(columns.Select(Tidy).Contains)
            : 0;

    private static string Tidy(string column) =>
        new([.. column.Trim('\uFEFF', ' ', '\t', '\r', '"').ToUpperInvariant().Select(letter => letter is ' ' or '-' ? '_' : letter)]);

    [GeneratedRegex(@"(?<![\d.,])(\d+),(\d+)(?![\d.,])")]
    private static partial Regex CommaNumber();
}
