using BlueDawn.Core.Pages;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Cleaning;

internal static class CleaningEndpoints
{
    public static void MapCleaning(this RouteGroupBuilder api) =>
        api.MapGet("/trays/{number:int}/cleaning", ShowAsync)
            .WithName("getCleaning")
            .WithSummary("How a tray is to be cleaned")
            .WithTags("Cleaning");

    private static async Task<Results<Ok<CleaningView>, ProblemHttpResult>> ShowAsync(
        int number,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    ) =>
        await TrayFile.OpenAsync(db, number, me.Context, cancel) is { } file
            ? TypedResults.Ok(CleaningView.Of(file.Book))
            : Problem.NoTray(number);
}
