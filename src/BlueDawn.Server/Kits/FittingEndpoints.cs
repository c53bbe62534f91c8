using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace BlueDawn.Server.Kits;

/// <summary>The ways to renew a tray's parts, side by side.</summary>
internal sealed record FittingView(
    FitDecision Decision,
    IReadOnlyDictionary<FitOption, IReadOnlyList<FittedItem>> Items,
    IReadOnlyList<string> Renew,
    FitTerms Terms,
    IReadOnlyList<ReturnRate> Rates,
    string Currency
);

internal static class FittingEndpoints
{
    public static void MapFitting(this RouteGroupBuilder api) =>
        api.MapGet("/trays/{number:int}/fitting", ShowAsync)
            .WithName("getFitting")
            .WithSummary("Ways to renew a tray's parts")
            .WithTags("Kits");

    private static async Task<Results<Ok<FittingView>, ProblemHttpResult>> ShowAsync(
        int number,
        [FromQuery] string[]? renew,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var asked = renew is { Length: > 0 } ? renew : null;
        var (priced, decision) = await FittingChoice.DecideAsync(db, file, asked, me.Context.Today, cancel);
        return TypedResults.Ok(
            new FittingView(
                decision,
                priced.ToDictionary(option => option.Offer.Option, option => option.Items),
                [.. file.Kits.Wanted.Select(part => part.Part).Where(part => asked is null || asked.Contains(part))],
                FittingChoice.Terms(file, me.Context.Today),
                await Shelf.ReturnRatesAsync(db, me.Context.Shop.Fit, cancel),
                me.Context.Shop.Currency
            )
        );
    }
}
