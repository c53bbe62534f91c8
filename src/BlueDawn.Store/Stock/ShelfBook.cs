using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stock;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Stock;

/// <summary>An item as it stands on the shelf.</summary>
/// <param name="Stocked">The item, what is on hand and who sells it.</param>
/// <param name="Standing">What is on hand, on order and used lately.</param>
/// <param name="Reorder">When to order more.</param>
/// <param name="Against">How it stands against that.</param>
public sealed record ShelfLine(StockedItem Stocked, StockStanding Standing, Reorder Reorder, ShelfStanding Against);

/// <summary>The shelf's book: every item that was ever moved, and what open trays need.</summary>
public static class ShelfBook
{
    // Own judgement: an item that nobody sells is reckoned with as long as a slow supplier takes.
    private const int LeadDaysUnknown = 7;
    private const int RefillDays = 365;

    /// <summary>Every item that was ever moved.</summary>
    public static async Task<IReadOnlyList<ShelfLine>> LinesAsync(
        BlueDawnDb db,
        StockDefaults defaults,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var rows = await db.ShelfRows.AsNoTracking().ToDictionaryAsync(row => row.ItemId, cancel);
        var used = await Shelf.UsedAsync(db, now.AddDays(-defaults.LookBackDays), cancel);
        var ids = rows.Keys.ToList();
        var items = await CatalogueSearch.ItemsAsync(db, ids, cancel);
        var numbers = await db.Items.Where(item => ids.Contains(item.Id)).ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        return
        [
            .. items
                .Select(stocked => (Stocked: stocked, Row: rows[numbers[stocked.Item.Number]]))
                .Select(pair =>
                    Line(
                        pair.Stocked,
                        new StockStanding(pair.Row.OnHand, pair.Row.OnOrder, used.GetValueOrDefault(pair.Row.ItemId)),
                        defaults
                    )
                ),
        ];
    }

    /// <summary>Everything a buying plan is made from.</summary>
    /// <param name="db">The store.</param>
    /// <param name="desk">What trays are judged by.</param>
    /// <param name="refill">Whether items down to their reorder point are bought as well.</param>
    /// <param name="now">Now.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task<(BuyingBook Book, IReadOnlyDictionary<string, StockedItem> Items)> BuyingAsync(
        BlueDawnDb db,
        JudgingContext desk,
        bool refill,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var (shop, today) = (desk.Shop, desk.Today);
        var lines = await LinesAsync(db, shop.Stock, now, cancel);
        var files = (await TrayFile.OpenBenchAsync(db, 0, desk, cancel))
            .Where(file => file.Tray.Fitting is { ToOrder: true })
            .OrderBy(file => file.Tray.Number)
            .ToList();
        var needs = new List<(TrayFile File, FittedItem? Item, WantedPart? Part)>();
        foreach (var file in files)
        {
            var fitting = file.Tray.Fitting!;
            if (fitting.Option == FitOption.SingleParts)
            {
                var wanted = file.Kits.Wanted;
                // What has come off the shelf already is no longer needed.
                var there = fitting
                    .Items.Where(item => item.FromShelf)
                    .SelectMany(item => item.Parts.Select(part => part.Part))
                    .ToHashSet();
                needs.AddRange(
                    wanted
                        .Where(part => fitting.Parts.Contains(part.Part) && !there.Contains(part.Part))
                        .Select(part => (file, (FittedItem?)null, (WantedPart?)part))
                );
            }
            else
            {
                needs.AddRange(fitting.Items.Where(item => !item.FromShelf).Select(item => (file, (FittedItem?)item, (WantedPart?)null)));
            }
        }

        var items = (
            await CandidatesAsync(
                db,
                needs.Select(need => need.Part).OfType<WantedPart>().ToList(),
                [.. needs.Select(need => need.Item?.Number).OfType<string>()],
                lines,
                cancel
            )
        ).ToDictionary(stocked => stocked.Item.Number);
        List<BuyingNeed> all = [.. needs.Select(need => Need(need.File, need.Item, need.Part, items, today))];
        if (refill)
        {
            all.AddRange(
                lines
                    .Where(line => line.Against is ShelfStanding.Out or ShelfStanding.Reorder)
                    .Select(line => new BuyingNeed(
                        0,
                        $"{line.Stocked.Item.Number} for the shelf",
                        line.Reorder.Point + 1 - line.Standing.OnHand - line.Standing.OnOrder,
                        RefillDays,
                        [new NeedSource(line.Stocked.Item.Number, null)],
                        Refill: true
                    ))
            );
        }

        return (
            new BuyingBook(
                all,
                [
                    .. items.Values.SelectMany(stocked =>
                        stocked.Offers.Select(offer => new SupplyOffer(
                            offer.Supplier,
                            stocked.Item.Number,
                            offer.PackPieces,
                            offer.PackMoney,
                            offer.LeadDays
                        ))
                    ),
                ],
                [
                    .. (await db.Suppliers.AsNoTracking().OrderBy(supplier => supplier.Name).ToListAsync(cancel)).Select(
                        supplier => new SupplierTerms(supplier.Name, supplier.Freight)
                    ),
                ],
                // What is on its way is as good as there: it is not ordered twice.
                [
                    .. lines
                        .Where(line => line.Standing.OnHand + line.Standing.OnOrder > 0)
                        .Select(line => new ShelfLot(
                            line.Stocked.Item.Number,
                            line.Standing.OnHand + line.Standing.OnOrder,
                            line.Stocked.EachMoney
                        )),
                ],
                items.Values.ToDictionary(
                    stocked => stocked.Item.Number,
                    stocked => (IReadOnlyList<int>)[.. stocked.Item.Parts.Select(part => part.Quantity)]
                ),
                shop.Stock.LatePerDay
            ),
            items
        );
    }

    /// <summary>The lead time an item is reckoned with: its soonest offer's.</summary>
    public static int LeadDays(StockedItem stocked) => stocked.Offers.Select(offer => offer.LeadDays).DefaultIfEmpty(LeadDaysUnknown).Min();

    /// <summary>An item against its reorder point.</summary>
    public static ShelfLine Line(StockedItem stocked, StockStanding standing, StockDefaults defaults)
    {
        var reorder = Reorder.Of(standing.UsedLately / (double)defaults.LookBackDays, LeadDays(stocked), defaults.ServiceLevel);
        return new ShelfLine(stocked with { OnHand = standing.OnHand }, standing, reorder, standing.Against(reorder));
    }

    private static BuyingNeed Need(TrayFile file, FittedItem? item, WantedPart? part, Dictionary<string, StockedItem> items, DateOnly today)
    {
        var days = file.Tray.PromisedDay.DayNumber - today.DayNumber;
        return part is null
            ? new BuyingNeed(file.Tray.Number, $"{item!.Number} {item.Name}", item.Pieces, days, [new NeedSource(item.Number, null)])
            : new BuyingNeed(
                file.Tray.Number,
                part.Part,
                part.Quantity,
                days,
                [
                    .. items.Values.SelectMany(stocked =>
                        stocked
                            .Item.Parts.Select((brought, place) => (brought, place))
                            .Where(pair =>
                                pair.brought.Part == part.Part
                                && PartMatch.Of(part with { Quantity = 1 }, pair.brought, PartKnowledge.Shipped).Verdict
                                    is PartVerdict.Fits
                                        or PartVerdict.NotMeasured
                            )
                            .Select(pair => new NeedSource(stocked.Item.Number, pair.place))
                    ),
                ]
            );
    }

    private static async Task<IReadOnlyList<StockedItem>> CandidatesAsync(
        BlueDawnDb db,
        List<WantedPart> parts,
        IReadOnlyCollection<string> numbers,
        IReadOnlyList<ShelfLine> lines,
        CancellationToken cancel
    )
    {
        var shelf = lines.Select(line => line.Stocked.Item.Number);
        var wanted = numbers.Union(shelf).ToList();
        var ids = (await db.Items.Where(item => wanted.Contains(item.Number)).Select(item => item.Id).ToListAsync(cancel)).ToHashSet();
        foreach (var part in parts)
        {
            ids.UnionWith(await CatalogueSearch.WithPartsAsync(db, [part], PartKnowledge.Shipped, cancel));
        }

        return await CatalogueSearch.ItemsAsync(db, ids, cancel);
    }
}
