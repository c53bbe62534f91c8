using System.Diagnostics;
using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Catalogue;

/// <summary>The files a catalogue is exchanged in.</summary>
public enum CatalogueFile
{
    /// <summary>What is sold: kits, parts, assortments, carburetors.</summary>
    Items,

    /// <summary>What is in them.</summary>
    Contents,

    /// <summary>What they are listed for.</summary>
    Fits,

    /// <summary>Numbers that took another's place.</summary>
    Supersessions,

    /// <summary>Suppliers and their freight.</summary>
    Suppliers,

    /// <summary>Who sells what, for how much and how soon.</summary>
    Offers,
}

/// <summary>A row of a catalogue file, in one form for all six files.</summary>
/// <param name="Line">Its line in the file, the heading is line 1.</param>
/// <param name="Cells">Its cells in the file's columns, each in its one written form.</param>
/// <param name="Problem">What is wrong with it, or null.</param>
/// <param name="Comma">A number of it with a comma that nobody has said the meaning of, or null.</param>
public sealed record CatalogueLine(int Line, IReadOnlyList<string> Cells, string? Problem, string? Comma = null);

/// <summary>
/// The catalogue as CSV (RFC 4180): the columns of every file, and reading and writing them. Numbers have a point and
/// no grouping; features are written <c>name=value; name=value</c>; remarks begin with #.
/// </summary>
public static class CatalogueCsv
{
    private const int LongestCell = 200;

    /// <summary>The columns of a file, in order.</summary>
    public static IReadOnlyList<string> Columns(CatalogueFile file) =>
        file switch
        {
            CatalogueFile.Items => ["number", "kind", "name", "maker"],
            CatalogueFile.Contents => ["item", "part", "quantity", "features"],
            CatalogueFile.Fits => ["item", "kind", "maker", "number"],
            CatalogueFile.Supersessions => ["old", "new", "changed"],
            CatalogueFile.Suppliers => ["supplier", "freight"],
            CatalogueFile.Offers => ["supplier", "item", "pack_pieces", "pack_price", "lead_days"],
        };

    /// <summary>The places of the columns that say what a row is about: two rows with the same there are the same row.</summary>
    public static IReadOnlyList<int> Key(CatalogueFile file) =>
        file switch
        {
            CatalogueFile.Contents => [0, 1, 3],
            CatalogueFile.Fits => [0, 1, 3],
            CatalogueFile.Offers => [0, 1],
            CatalogueFile.Items or CatalogueFile.Supersessions or CatalogueFile.Suppliers => [0],
        };

    /// <summary>Reads a file row by row without keeping it in memory.</summary>
    /// <param name="file">Which file.</param>
    /// <param name="reader">Its text, as <see cref="SentCsv"/> takes it.</param>
    /// <param name="decimalComma">Whether somebody has said that its commas are decimal commas.</param>
    /// <returns>Every row; a wrong one with what is wrong. A wrong heading is one problem on line 1 and ends it.</returns>
    public static IEnumerable<CatalogueLine> Read(CatalogueFile file, TextReader reader, bool decimalComma = false)
    {
        var columns = Columns(file);
        foreach (var row in SentCsv.Read(reader, columns, columns))
        {
            string[] cells = [.. row.Cells.Select(cell => cell!)];
            if (row.Problem is { } broken)
            {
                yield return new CatalogueLine(row.Line, cells, broken);
                continue;
            }

            var comma = cells
                .Zip(columns)
                .FirstOrDefault(pair => HasNumbers(pair.Second) && SentCsv.WithComma(pair.First, decimalComma) is null)
                .First;
            var problem = cells
                .Zip(columns)
                .Where(pair => pair.First.Length > LongestCell)
                .Select(pair => $"{pair.Second} is longer than {LongestCell} characters.")
                .FirstOrDefault()
                ?? (comma is null ? null : $"“{comma}” has a comma: say first whether it is a decimal comma.");
            if (problem is null)
            {
                cells =
                [
                    .. cells
                        .Zip(columns)
                        .Select(pair => HasNumbers(pair.Second) ? SentCsv.WithComma(pair.First, decimalComma)! : pair.First),
                ];
                problem = Check(file, cells);
            }

            yield return new CatalogueLine(row.Line, cells, problem, comma);
        }
    }

    private static bool HasNumbers(string column) =>
        column is "quantity" or "features" or "freight" or "pack_pieces" or "pack_price" or "lead_days";

    /// <summary>The kind of an item as it is written.</summary>
    public static string Write(ItemKind kind) =>
        kind switch
        {
            ItemKind.Kit => "kit",
            ItemKind.Part => "part",
            ItemKind.Assortment => "assortment",
            ItemKind.MakersCarburetor => "maker's carburetor",
            ItemKind.PatternCarburetor => "pattern carburetor",
        };

    /// <summary>The kind of an item from how it is written, or null.</summary>
    public static ItemKind? ReadKind(string text) =>
        Enum.GetValues<ItemKind>()
            .Cast<ItemKind?>()
            .FirstOrDefault(kind => string.Equals(Write(kind!.Value), text, StringComparison.OrdinalIgnoreCase));

    private static string? Check(CatalogueFile file, string[] cells)
    {
        if (
            Columns(file).Zip(cells).FirstOrDefault(pair => pair.Second.Length == 0 && MustBeFilled(file, pair.First)) is
            { First: { } empty }
        )
        {
            return $"{empty} is empty.";
        }

        switch (file)
        {
            case CatalogueFile.Items:
                if (ReadKind(cells[1]) is not { } kind)
                {
                    return $"kind “{cells[1]}” is not one of {string.Join(", ", Enum.GetValues<ItemKind>().Select(Write))}.";
                }

                cells[1] = Write(kind);
                return null;
            case CatalogueFile.Contents:
                var features = FeatureText.ReadShipped(cells[1], cells[3]);
                if (!features.IsRight)
                {
                    return features.Problem;
                }

                cells[3] = FeatureText.Write(features.Value!);
                return Whole(cells, 2, "quantity", 1, 9999);
            case CatalogueFile.Fits:
                if (!Enum.TryParse<MarkKind>(cells[1], true, out var mark) || !Enum.IsDefined(mark))
                {
                    return $"kind “{cells[1]}” is neither stamp nor plate.";
                }

                cells[1] = mark == MarkKind.Stamp ? "stamp" : "plate";
                return StampedNumber.Tidy(cells[3]).Length is 0 or > StampedNumber.Longest
                    ? $"number “{cells[3]}” must have 1 to {StampedNumber.Longest} letters and digits."
                    : null;
            case CatalogueFile.Supersessions:
                return cells[0] == cells[1] ? "An item cannot take its own place." : null;
            case CatalogueFile.Suppliers:
                return Money(cells, 1, "freight");
            case CatalogueFile.Offers:
                return Whole(cells, 2, "pack_pieces", 1, 9999) ?? Money(cells, 3, "pack_price") ?? Whole(cells, 4, "lead_days", 0, 365);
        }

        throw new UnreachableException();
    }

    private static bool MustBeFilled(CatalogueFile file, string column) =>
        (file, column) is not ((CatalogueFile.Contents, "features") or (CatalogueFile.Items, "maker"));

    private static string? Whole(string[] cells, int place, string column, int least, int most)
    {
        if (!int.TryParse(cells[place], NumberStyles.None, CultureInfo.InvariantCulture, out var number) || number < least || number > most)
        {
            return $"{column} “{cells[place]}” is not a whole number from {least} to {most}.";
        }

        cells[place] = number.ToString(CultureInfo.InvariantCulture);
        return null;
    }

    private static string? Money(string[] cells, int place, string column)
    {
        if (
            !decimal.TryParse(cells[place], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var money)
            || money > 100_000
            || decimal.Round(money, 2) != money
        )
        {
            return $"{column} “{cells[place]}” is not an amount such as 12.50.";
        }

        cells[place] = money.ToString("0.00", CultureInfo.InvariantCulture);
        return null;
    }
}
