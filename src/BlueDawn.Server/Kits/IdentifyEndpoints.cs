using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Server.People;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Kits;

/// <summary>A number on record that the one read may be.</summary>
/// <param name="Reading">Both numbers side by side.</param>
/// <param name="Maker">Who made the carburetor or engine.</param>
/// <param name="SpecCode">The spec sheet it is on, or null.</param>
/// <param name="Items">Items of the catalogue that are listed for it.</param>
internal sealed record NumberCandidate(StampReading Reading, string Maker, string? SpecCode, int Items);

/// <summary>What one maker's date code says.</summary>
/// <param name="Maker">The maker.</param>
/// <param name="Pattern">How the maker writes it, in words.</param>
/// <param name="Made">The days it can mean.</param>
/// <param name="Problem">Why it says nothing, or null.</param>
internal sealed record DateReading(string Maker, string Pattern, IReadOnlyList<MadeOn> Made, string? Problem);

/// <summary>A spec sheet in a line.</summary>
internal sealed record SheetLine(string Code, string Maker, CarburetorFamily Family, IReadOnlyList<string> StampedNumbers);

/// <summary>Everything that what is legible leads to.</summary>
/// <param name="Stamped">Stamped numbers, surest first.</param>
/// <param name="Plates">Engine plates, surest first.</param>
/// <param name="Dates">What the date code says, by maker.</param>
/// <param name="Measured">What the measures say.</param>
/// <param name="Problems">Answers that could not be read, by question.</param>
/// <param name="Sheets">Every sheet on file.</param>
internal sealed record IdentifyView(
    IReadOnlyList<NumberCandidate> Stamped,
    IReadOnlyList<NumberCandidate> Plates,
    IReadOnlyList<DateReading> Dates,
    Identification Measured,
    IReadOnlyDictionary<Trait, string> Problems,
    IReadOnlyList<SheetLine> Sheets
);

internal static class IdentifyEndpoints
{
    private const int MostCandidates = 12;

    public static void MapIdentify(this RouteGroupBuilder api) =>
        api.MapGet("/identify", IdentifyAsync)
            .WithName("identify")
            .WithSummary("Spec sheets that fit what is stamped")
            .WithTags("Kits")
            .WithDescription(
                "Answers are written trait=value, such as boltSpacing=48 or family=diaphragm; numbers without a unit are in the units of who asks."
            );

    private static async Task<Ok<IdentifyView>> IdentifyAsync(
        string? stamped,
        string? plate,
        string? date,
        string? maker,
        [FromQuery] string[]? answer,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        var sheets = await db
            .SpecSheets.AsNoTracking()
            .Where(row => row.Current)
            .OrderBy(row => row.Code)
            .Select(row => row.Sheet)
            .ToListAsync(cancel);
        var (answers, problems) = ReadAnswers(answer ?? [], me.Units, sheets);
        var stamps = await NumbersAsync(db, MarkKind.Stamp, stamped, sheets, sheet => sheet.StampedNumbers, cancel);
        return TypedResults.Ok(
            new IdentifyView(
                stamps,
                await NumbersAsync(db, MarkKind.Plate, plate, sheets, sheet => sheet.Plates ?? [], cancel),
                await DatesAsync(db, date, maker ?? (stamps.Count > 0 ? stamps[0].Maker : null), cancel),
                Identification.Of(sheets, answers),
                problems,
                [.. sheets.Select(sheet => new SheetLine(sheet.Code, sheet.Maker, sheet.Family, sheet.StampedNumbers))]
            )
        );
    }

    private static async Task<IReadOnlyList<NumberCandidate>> NumbersAsync(
        BlueDawnDb db,
        MarkKind kind,
        string? read,
        List<SpecSheet> sheets,
        Func<SpecSheet, IReadOnlyList<string>> on,
        CancellationToken cancel
    )
    {
        if (string.IsNullOrWhiteSpace(read) || read.Length > StampedNumber.Longest)
        {
            return [];
        }

        var listed = (await CatalogueSearch.NumbersAsync(db, kind, read, cancel)).ToLookup(number => number.Number);
        var bySheet = sheets
            .SelectMany(sheet => on(sheet).Select(number => (number, sheet)))
            .ToLookup(pair => pair.number, pair => pair.sheet);
        return
        [
            .. Stamp
                .Rank(read, listed.Select(group => group.Key).Union(bySheet.Select(group => group.Key)))
                .Take(MostCandidates)
                .Select(reading => new NumberCandidate(
                    reading,
                    bySheet[reading.OnRecord].Select(sheet => sheet.Maker).FirstOrDefault() ?? listed[reading.OnRecord].First().Maker,
                    bySheet[reading.OnRecord].Select(sheet => sheet.Code).FirstOrDefault(),
                    listed[reading.OnRecord].Sum(number => number.Items)
                )),
        ];
    }

    private static async Task<IReadOnlyList<DateReading>> DatesAsync(BlueDawnDb db, string? date, string? maker, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(date) || date.Length > StampedNumber.Longest)
        {
            return [];
        }

        var codes = await db.DateCodes.AsNoTracking().OrderBy(row => row.Maker).Select(row => row.Code).ToListAsync(cancel);
        var read = codes.Select(code => (Code: code, Read: DateCode.Read(date, code))).ToList();
        // One maker is known: its word counts, even when it is that the code cannot be one of theirs.
        return
        [
            .. read.Where(pair => maker is null || codes.All(code => code.Maker != maker) ? pair.Read.IsRight : pair.Code.Maker == maker)
                .Select(pair => new DateReading(pair.Code.Maker, DateCode.Say(pair.Code), pair.Read.Value ?? [], pair.Read.Problem)),
        ];
    }

    private static (List<TraitAnswer> Answers, Dictionary<Trait, string> Problems) ReadAnswers(
        string[] texts,
        UnitSystem units,
        List<SpecSheet> sheets
    )
    {
        List<TraitAnswer> answers = [];
        Dictionary<Trait, string> problems = [];
        foreach (var text in texts)
        {
            var at = text.IndexOf('=', StringComparison.Ordinal);
            if (at < 1 || !Enum.TryParse<Trait>(text[..at], true, out var trait) || text[(at + 1)..].Trim().Length == 0)
            {
                continue;
            }

            var read = Identification.ReadAnswer(trait, text[(at + 1)..], units, sheets);
            if (read.IsRight)
            {
                answers.Add(new TraitAnswer(trait, read.Value!));
            }
            else
            {
                problems[trait] = read.Problem!;
            }
        }

        return (answers, problems);
    }
}
