using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace BlueDawn.Core.Tables;

/// <summary>CSV as it is written (RFC 4180): commas, a point in numbers, no formulas for a spreadsheet to run.</summary>
public static class CsvOut
{
    /// <summary>Writes a heading and rows, row by row.</summary>
    /// <param name="columns">The heading.</param>
    /// <param name="rows">The rows, cells in the order of the columns.</param>
    /// <param name="writer">Where to.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task WriteAsync(
        IReadOnlyList<string> columns,
        IAsyncEnumerable<IReadOnlyList<string>> rows,
        TextWriter writer,
        CancellationToken cancel = default
    )
    {
        await using var csv = new CsvWriter(
            writer,
            new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n" },
            leaveOpen: true
        );
        await WriteAsync(csv, columns);
        await foreach (var row in rows.WithCancellation(cancel))
        {
            await WriteAsync(csv, row);
        }
    }

    private static Task WriteAsync(CsvWriter csv, IReadOnlyList<string> row)
    {
        foreach (var cell in row)
        {
            csv.WriteField(CsvText.Guard(cell));
        }

        return csv.NextRecordAsync();
    }
}
