using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Pages;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Strip;

internal static class LedgerEndpoints
{
    public static void MapLedger(this RouteGroupBuilder api)
    {
        var ledger = api.MapGroup("/trays/{number:int}/ledger").WithTags("Strip and build");
        ledger.MapGet("", ShowAsync).WithName("getLedger").WithSummary("A tray's strip ledger");
        ledger.MapGet("/new-parts", SourcesAsync).WithName("getNewParts").WithSummary("Parts on their way into a tray");
    }

    private static async Task<Results<Ok<LedgerView>, ProblemHttpResult>> ShowAsync(
        int number,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    ) =>
        await TrayFile.OpenAsync(db, number, me.Context, cancel) is { } file
            ? TypedResults.Ok(LedgerView.Of(file.Book))
            : Problem.NoTray(number);

    /// <summary>What a new part can come from: the kit that was decided on first, then the shelf.</summary>
    private static async Task<Results<Ok<IReadOnlyList<NewPartSource>>, ProblemHttpResult>> SourcesAsync(
        int number,
        string part,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (file.Book.Ledger.Find(part)?.Part.KitPart is not { } wanted)
        {
            return TypedResults.Ok<IReadOnlyList<NewPartSource>>([]);
        }

        var onHand = (await Shelf.OnHandAsync(db, null, cancel)).Where(pair => pair.Value > 0).Select(pair => pair.Key).ToList();
        var shelf = await CatalogueSearch.ItemsAsync(db, onHand, cancel);
        return TypedResults.Ok(NewPartSource.Of(wanted, file.Book.Fitting, file.Kits.Wanted, shelf, PartKnowledge.Shipped));
    }
}
