using BlueDawn.Core.Pages;
using BlueDawn.Core.Shop;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Trays;

internal static class TrayEndpoints
{
    public static void MapTrays(this RouteGroupBuilder api)
    {
        var trays = api.MapGroup("/trays/{number:int}").WithTags("Trays");
        trays.MapGet("", ShowAsync).WithName("getTray").WithSummary("A tray").Produces<TrayView>().Produces(304).ProducesProblem(404);
        trays
            .MapGet("/snapshot", ShowSnapshotAsync)
            .WithName("getSnapshot")
            .WithSummary("All that a tray is judged from, to judge it without the server")
            .Produces<TraySnapshot>()
            .Produces(304);
        trays
            .MapPost("/draft", JudgeDraftAsync)
            .WithName("judgeDraft")
            .WithSummary("Judge a reading that is not recorded yet")
            .RequireAuthorization(nameof(Permission.WorkAtTheBench));
    }

    private static async Task<IResult> ShowAsync(
        int number,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        AnswerMemory memory,
        CancellationToken cancel
    ) =>
        await TrayFile.StampAsync(db, number, cancel) is { } stamp
            ? await memory.AnswerAsync(context, $"{stamp}.{me.Stamp}", async () =>
                await TrayFile.OpenAsync(db, number, me.Context, cancel) is { } file ? TrayView.Of(file.Head, file.Book) : null
            )
            : Problem.NoTray(number);

    private static async Task<IResult> ShowSnapshotAsync(
        int number,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        AnswerMemory memory,
        CancellationToken cancel
    ) =>
        await TrayFile.StampAsync(db, number, cancel) is { } stamp
            ? await memory.AnswerAsync(context, $"{stamp}.{me.Stamp}", async () =>
                await TrayFile.OpenAsync(db, number, me.Context, cancel) is { } file
                    ? (await file.WithHistoryAsync(db, cancel)).Snapshot(me.Pins)
                    : null
            )
            : Problem.NoTray(number);

    private static async Task<Results<Ok<DraftJudgement>, ProblemHttpResult>> JudgeDraftAsync(
        int number,
        ReadingDraft draft,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        return await TrayFile.OpenAsync(db, number, me.Context, cancel) is { } file && DraftJudgement.Of(draft, file.Book) is { } judged
            ? TypedResults.Ok(judged)
            : TypedResults.Problem(
                statusCode: 404,
                title: $"Tray {number} has no such line.",
                detail: "Choose its spec sheet first; the sheet says what is measured."
            );
    }
}
