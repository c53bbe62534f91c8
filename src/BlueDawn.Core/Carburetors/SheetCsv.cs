using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Carburetors;

/// <summary>A row of a file of spec sheets.</summary>
/// <param name="Line">Its line in the file.</param>
/// <param name="Code">The sheet's code as it stands there.</param>
/// <param name="Read">What it says, with what is wrong.</param>
/// <param name="Comma">A number of it with a comma that nobody has said the meaning of, or null.</param>
public sealed record SheetRow(int Line, string Code, ReadSheet Read, string? Comma);

/// <summary>
/// Spec sheets as a table, a row each: what its boxes hold, in mm, kPa, g, s, °C and rpm. Jets are written
/// <c>Main jet = 0.72 ± 0.015; Idle jet = 0.315 ± 0.01</c>, rows of an emulsion tube from the top
/// <c>4 × 0.6 ± 0.02 at 5; 2 × 0.6 ± 0.02 at 9</c>. A column that a file does not have leaves that part of the sheet as it
/// is on file; an empty cell says that it is not known.
/// </summary>
public static partial class SheetCsv
{
    private static readonly string[] Words =
    [
        "code",
        "maker",
        "family",
        "engine",
        "choke",
        "stamped",
        "source",
        "lever.datum",
        "jets",
        "emulsion_rows",
    ];
    private static readonly string[] Boxes = [.. SheetForm.Groups.SelectMany(group => group.Boxes.Select(box => $"{group.At}.{box.Name}"))];

    /// <summary>The columns, in the order they are written.</summary>
    public static IReadOnlyList<string> Columns { get; } = [.. Words, .. Boxes];

    /// <summary>A sheet as a row of <see cref="Columns"/>.</summary>
    /// <param name="sheet">The sheet.</param>
    public static IReadOnlyList<string> Write(SpecSheet sheet)
    {
        var numbers = SheetForm.Numbers(sheet);
        return
        [
            sheet.Code,
            sheet.Maker,
            Word(sheet.Family),
            sheet.Engine is { } engine ? Word(engine) : "",
            sheet.Choke is { } choke ? Word(choke) : "",
            string.Join(", ", sheet.StampedNumbers),
            sheet.Source,
            sheet.Lever is { } lever ? Word(lever.Datum) : "",
            string.Join(
                "; ",
                sheet.Jets.Select(jet => string.Create(CultureInfo.InvariantCulture, $"{jet.Label} = {jet.BoreMm} ± {jet.ToleranceMm}"))
            ),
            string.Join(
                "; ",
                sheet.EmulsionRows.Select(row =>
                    string.Create(CultureInfo.InvariantCulture, $"{row.Holes} × {row.BoreMm} ± {row.ToleranceMm} at {row.HeightMm}")
                )
            ),
            .. Boxes.Select(box => numbers.TryGetValue(box, out var number) ? number.ToString("R", CultureInfo.InvariantCulture) : ""),
        ];
    }

    /// <summary>Reads a file of sheets.</summary>
    /// <param name="reader">Its text, as <see cref="SentCsv"/> takes it.</param>
    /// <param name="decimalComma">Whether somebody has said that its commas are decimal commas.</param>
    /// <param name="onFile">The sheet on file under a code, or null.</param>
    /// <returns>Every row. A wrong heading is one row without a code, and ends it.</returns>
    public static IEnumerable<SheetRow> Read(TextReader reader, bool decimalComma, Func<string, SpecSheet?> onFile)
    {
        foreach (var row in SentCsv.Read(reader, Columns, ["code"]))
        {
            var cells =
                row.Cells.Count == 0
                    ? []
                    : Columns.Zip(row.Cells).Where(cell => cell.Second is not null).ToDictionary(cell => cell.First, cell => cell.Second!);
            yield return row.Problem is { } problem
                ? new SheetRow(
                    row.Line,
                    cells.GetValueOrDefault("code", ""),
                    new ReadSheet(
                        SpecSheet.NoneYet(new(CarburetorFamily.FloatBowl, null, null)),
                        [new FieldProblem($"line {row.Line}", problem)]
                    ),
                    null
                )
                : Read(row.Line, cells, decimalComma, onFile(cells["code"].ToUpperInvariant()));
        }
    }

    private static SheetRow Read(int line, Dictionary<string, string> cells, bool decimalComma, SpecSheet? from)
    {
        var problems = new List<FieldProblem>();
        string? comma = null;
        string? Numbers(string column)
        {
            if (!cells.TryGetValue(column, out var cell))
            {
                return null;
            }

            if (SentCsv.WithComma(cell, decimalComma) is { } read)
            {
                return read;
            }

            comma ??= cell;
            problems.Add(new(column, $"“{cell}” has a comma: say first whether it is a decimal comma."));
            return cell;
        }

        T? One<T>(string column, T? before)
            where T : struct, Enum
        {
            if (!cells.TryGetValue(column, out var cell))
            {
                return before;
            }

            var word = cell.Replace(" ", "", StringComparison.Ordinal).Replace("-", "", StringComparison.Ordinal);
            if (word.Length == 0)
            {
                return null;
            }

            if (word.All(char.IsAsciiLetter) && Enum.TryParse<T>(word, true, out var known))
            {
                return known;
            }

            problems.Add(new(column, $"“{cell}” is not one of {string.Join(", ", Enum.GetValues<T>().Select(Word))}."));
            return before;
        }

        var family = One<CarburetorFamily>("family", from?.Family);
        if (family is null && problems.Count == 0)
        {
            problems.Add(new("family", $"Say which it is: {string.Join(", ", Enum.GetValues<CarburetorFamily>().Select(Word))}."));
        }

        var typed = new TypedSheet(
            UnitSystem.Metric,
            cells["code"],
            cells.GetValueOrDefault("maker", from?.Maker ?? ""),
            family ?? CarburetorFamily.FloatBowl,
            One("engine", from?.Engine),
            One("choke", from?.Choke),
            cells.GetValueOrDefault("stamped", string.Join(", ", from?.StampedNumbers ?? [])),
            cells.GetValueOrDefault("source", from?.Source ?? ""),
            One("lever.datum", from?.Lever?.Datum) ?? LeverDatum.GaugeLeg,
            Boxes
                .Select(box => (box, Text: Numbers(box)))
                .Where(one => one.Text is not null)
                .ToDictionary(one => one.box, one => one.Text!),
            Numbers("jets") is { } jets
                ? Jets(jets, from, problems)
                : [.. (from?.Jets ?? []).Select(jet => new TypedJet(jet.Key, null, null, null))],
            Numbers("emulsion_rows") is { } rows
                ? Rows(rows, problems)
                : [.. (from?.EmulsionRows ?? []).Select(one => new TypedRow(one.Row, null, null, null, null))]
        );
        var read = SheetForm.Read(typed, from);
        return new SheetRow(line, typed.Code, read with { Problems = problems.Count > 0 ? problems : read.Problems }, comma);
    }

    private static List<TypedJet> Jets(string cell, SpecSheet? from, List<FieldProblem> problems) =>
        Parts(cell, JetText(), "jets", "Main jet = 0.72 ± 0.015", problems, match =>
        {
            var label = match.Groups["label"].Value;
            return new TypedJet(
                from?.Jets.FirstOrDefault(jet => string.Equals(jet.Label, label, StringComparison.OrdinalIgnoreCase))?.Key,
                label,
                match.Groups["bore"].Value,
                match.Groups["either"].Value
            );
        });

    private static List<TypedRow> Rows(string cell, List<FieldProblem> problems) =>
        Parts(cell, RowText(), "emulsion_rows", "4 × 0.6 ± 0.02 at 5", problems, match => new TypedRow(
            null,
            match.Groups["holes"].Value,
            match.Groups["bore"].Value,
            match.Groups["either"].Value,
            match.Groups["height"].Value
        ));

    private static List<T> Parts<T>(
        string cell,
        Regex text,
        string column,
        string example,
        List<FieldProblem> problems,
        Func<Match, T> make
    )
    {
        var parts = new List<T>();
        foreach (
            var part in cell.Replace("+/-", "±", StringComparison.Ordinal)
                .Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
        )
        {
            if (text.Match(part) is { Success: true } match)
            {
                parts.Add(make(match));
            }
            else
            {
                problems.Add(new(column, $"“{part}” is not written like {example}."));
            }
        }

        return parts;
    }

    private static string Word<T>(T value)
        where T : struct, Enum => char.ToLowerInvariant(value.ToString()[0]) + value.ToString()[1..];

    [GeneratedRegex(@"^(?<label>[^=]+?)\s*=\s*(?<bore>[^±]+?)\s*(?:±\s*(?<either>.+?)\s*)?$")]
    private static partial Regex JetText();

    [GeneratedRegex(@"^(?<holes>\d+)\s*[x×]\s*(?<bore>[^±]+?)\s*(?:±\s*(?<either>.+?)\s*)?(?:\s(?:at|@)\s*(?<height>.+?)\s*)?$")]
    private static partial Regex RowText();
}
