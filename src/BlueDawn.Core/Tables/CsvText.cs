using System.Globalization;

namespace BlueDawn.Core.Tables;

/// <summary>
/// Text in a cell of CSV that a spreadsheet would take for a formula is written with an apostrophe in front (OWASP, "CSV
/// Injection"), and read without it. Numbers stay numbers.
/// </summary>
public static class CsvText
{
    private const string Starts = "=+-@\t\r";

    /// <summary>A cell as it is written.</summary>
    public static string Guard(string cell) => IsFormula(cell) || (cell.StartsWith('\'') && IsFormula(cell[1..])) ? "'" + cell : cell;

    /// <summary>A cell as it was before it was written.</summary>
    public static string Unguard(string cell) =>
        cell.StartsWith('\'') && (IsFormula(cell[1..]) || (cell.Length > 1 && cell[1] == '\'' && IsFormula(cell[2..]))) ? cell[1..] : cell;

    private static bool IsFormula(string cell) =>
        cell.Length > 0
        && Starts.Contains(cell[0], StringComparison.Ordinal)
        && !double.TryParse(cell, NumberStyles.Float, CultureInfo.InvariantCulture, out _);
}
