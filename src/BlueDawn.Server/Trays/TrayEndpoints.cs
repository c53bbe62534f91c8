using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Trays;

/// <summary>What is being typed.</summary>
internal sealed record ReadingDraft(string LineKey, TypedReading Typed);

/// <summary>What a draft would say.</summary>
/// <param name="Reading">What it was understood as; null when it could not be.</param>
/// <param name="Judgement">What it says.</param>
/// <param name="Problems">What is wrong with it, box by box.</param>
/// <param name="Slips">Numbers so far from the sheet that they are asked about before they are recorded.</param>
internal sealed record DraftJudgement(Reading? Reading, Judgement? Judgement, IReadOnlyList<FieldProblem> Problems, IReadOnlyList<Slip> Slips);

internal static class TrayEndpoints
{
    public static void MapTrays(this RouteGroupBuilder api)
    {
        var trays = api.MapGroup("/trays/{number:int}").WithTags("Trays");
        trays.MapGet("", ShowAsync).WithName("getTray").WithSummary("A tray").Produces<TrayView>().Produces(304).ProducesProblem(404);
        trays.MapPost("/draft", JudgeDraftAsync).WithName("judgeDraft").WithSummary("Judge a reading that is not recorded yet").RequireAuthorization(nameof(May.WorkAtTheBench));
    }

    private static async Task<IResult> ShowAsync(int number, HttpContext context, BlueDawnDb db, Me me, CancellationToken cancel)
    {
        var seen = await db.Trays.Where(tray => tray.Number == number).Select(tray => new { tray.Revision, tray.Version, Sheet = (uint?)tray.Spec!.Version }).SingleOrDefaultAsync(cancel);
        return seen is null ? Problem.NoTray(number)
            : Etag.IsFresh(context, $"{seen.Revision}.{seen.Version}.{seen.Sheet}.{me.Stamp}") ? TypedResults.StatusCode(304)
            : await TrayFile.OpenAsync(db, number, me.Desk, cancel) is { } file ? TypedResults.Ok(TrayView.Of(file))
            : Problem.NoTray(number);
    }

    private static async Task<Results<Ok<DraftJudgement>, ProblemHttpResult>> JudgeDraftAsync(int number, ReadingDraft draft, BlueDawnDb db, Me me, CancellationToken cancel)
    {
        var row = await db.Trays.Where(tray => tray.Number == number).Include(tray => tray.Spec).AsNoTracking().SingleOrDefaultAsync(cancel);
        var line = row?.Spec is null ? null : StationList.All.SelectMany(station => station.Lines(row.Facts(), row.Spec.Sheet, me.Desk.Shop)).FirstOrDefault(one => one.Key == draft.LineKey);
        if (line is null)
        {
            return TypedResults.Problem(statusCode: 404, title: $"Tray {number} has no such line.", detail: "Choose its spec sheet first; the sheet says what is measured.");
        }

        var read = line.Read(draft.Typed);
        return TypedResults.Ok(new DraftJudgement(read.Reading, read.Reading is null ? null : line.Judge(read.Reading, me.Desk.Pins), read.Problems, read.Problems.Count > 0 ? [] : Slip.Find(line, draft.Typed)));
    }
}

/// <summary>Answers that say which version they are of, so that asking again for what has not changed costs next to nothing.</summary>
internal static class Etag
{
    // Another build may judge differently.
    private static readonly string Build = typeof(Etag).Assembly.ManifestModule.ModuleVersionId.ToString("N")[..8];

    /// <summary>Puts the version on the answer; true when whoever asks has it already.</summary>
    public static bool IsFresh(HttpContext context, string version)
    {
        var tag = $"\"{Build}.{version}\"";
        context.Response.Headers.ETag = tag;
        context.Response.Headers.CacheControl = "private, no-cache";
        return context.Request.Headers.IfNoneMatch.Contains(tag);
    }
}
