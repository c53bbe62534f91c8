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

/// <summary>An item and how it fits.</summary>
/// <param name="Item">The item with what is in it.</param>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="Offers">Who sells it, cheapest piece first.</param>
/// <param name="Match">How it fits.</param>
/// <param name="Instead">Numbers that took this one's place, in order; empty when it is current.</param>
/// <param name="TakesPlaceOf">Numbers whose place it took.</param>
internal sealed record ItemOffered(
    CatalogueItem Item, int OnHand, IReadOnlyList<ItemOffer> Offers, ItemMatch Match, IReadOnlyList<Supersession> Instead, IReadOnlyList<Supersession> TakesPlaceOf);

/// <summary>Kits for a tray, best fit first.</summary>
internal sealed record MatchView(string Currency, IReadOnlyList<ItemOffered> Items);

internal static class MatchEndpoints
{
    private const int MostOffered = 24;

    public static void MapMatch(this RouteGroupBuilder api)
    {
        api.MapGet("/parts", () => TypedResults.Ok(PartKnowledge.Shipped.Parts)).WithName("getParts").WithTags("Kits");
        api.MapGet("/trays/{number:int}/kits", ShowAsync).WithName("matchKits").WithTags("Kits");
    }

    private static async Task<Results<Ok<MatchView>, ProblemHttpResult>> ShowAsync(int number, BlueDawnDb db, Me me, CancellationToken cancel)
    {
        if (await TrayFile.OpenAsync(db, number, me.Desk, cancel) is not { } file)
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
        var before = await db.Supersessions.AsNoTracking().Where(row => numbers.Contains(row.New)).Select(row => new Supersession(row.Old, row.New, row.Changed)).ToListAsync(cancel);
        var items = await CatalogueSearch.ItemsAsync(db, ids, cancel);
        return TypedResults.Ok(new MatchView(me.Desk.Shop.Currency, [.. items
            .Where(stocked => stocked.Item.Kind is ItemKind.Kit or ItemKind.Assortment)
            .Select(stocked => new ItemOffered(
                stocked.Item,
                stocked.OnHand,
                stocked.Offers,
                ItemMatch.Of(stocked.Item, wanted, file.Kits.Numbers, knowledge),
                Supersessions.Follow(stocked.Item.Number, supersessions),
                [.. before.Where(step => step.New == stocked.Item.Number)]))
            .Where(offered => offered.Match.Listed is not null || offered.Match.Agreeing * 2 > offered.Match.Parts.Count)
            .OrderByDescending(offered => offered.Match.Verdict)
            .ThenBy(offered => offered.Instead.Count)
            .ThenByDescending(offered => offered.Match.Listed is not null)
            .ThenByDescending(offered => offered.Match.Agreeing)
            .ThenByDescending(offered => offered.OnHand > 0)
            .ThenBy(offered => offered.Offers.Select(offer => offer.EachMoney).DefaultIfEmpty(decimal.MaxValue).First())
            .ThenBy(offered => offered.Item.Number, StringComparer.Ordinal)
            .Take(MostOffered)]));
    }
}
