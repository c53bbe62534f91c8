using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Kits;

/// <summary>Kits for a tray, best fit first.</summary>
internal sealed record MatchView(string Currency, IReadOnlyList<ItemOffered> Items);

internal static class MatchEndpoints
{
    public static void MapMatch(this RouteGroupBuilder api)
    {
        api.MapGet("/parts", () => TypedResults.Ok(PartKnowledge.Shipped.Parts))
            .WithName("getParts")
            .WithSummary("The parts a carburetor can have")
            .WithTags("Kits");
        api.MapGet("/trays/{number:int}/kits", ShowAsync).WithName("matchKits").WithSummary("Kits that fit a tray").WithTags("Kits");
    }

    private static async Task<Results<Ok<MatchView>, ProblemHttpResult>> ShowAsync(
        int number,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var knowledge = PartKnowledge.Shipped;
        var wanted = file.Kits.Wanted;
        var listed = await CatalogueSearch.ListedForAsync(db, file.Kits.Numbers, cancel);
        var ids = listed.Union(await CatalogueSearch.WithPartsAsync(db, wanted, knowledge, cancel)).ToList();
        var numbers = await db.Items.Where(item => ids.Contains(item.Id)).Select(item => item.Number).ToListAsync(cancel);
        var supersessions = await CatalogueSearch.SupersessionsAsync(db, numbers, cancel);
        var successors = supersessions.Values.Select(step => step.New).Except(numbers).ToList();
        ids.AddRange(await db.Items.Where(item => successors.Contains(item.Number)).Select(item => item.Id).ToListAsync(cancel));
        var before = await db
            .Supersessions.AsNoTracking()
            .Where(row => numbers.Contains(row.New))
            .OrderBy(row => row.Old)
            .Select(row => new Supersession(row.Old, row.New, row.Changed))
            .ToListAsync(cancel);
        var items = await CatalogueSearch.ItemsAsync(db, ids, cancel);
        return TypedResults.Ok(
            new MatchView(me.Context.Shop.Currency, KitOffers.Rank(items, wanted, file.Kits.Numbers, supersessions, before, knowledge))
        );
    }
}
