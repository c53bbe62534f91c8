using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Kits;

/// <summary>Brings together what Core needs to price the ways to renew a tray's parts.</summary>
public static class FittingChoice
{
    /// <summary>Every option priced and held side by side.</summary>
    /// <param name="db">The store.</param>
    /// <param name="file">The tray.</param>
    /// <param name="renew">Parts to renew; null for all that are wanted.</param>
    /// <param name="today">Today by the shop's clock.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task<(IReadOnlyList<PricedOption> Priced, FitDecision Decision)> DecideAsync(
        BlueDawnDb db,
        TrayFile file,
        IReadOnlyCollection<string>? renew,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var parts = file.Kits.Wanted.Where(part => renew is null || renew.Contains(part.Part)).ToList();
        var ids = (await CatalogueSearch.ListedForAsync(db, file.Kits.Numbers, cancel))
            .Union(await CatalogueSearch.WithPartsAsync(db, file.Kits.Wanted, PartKnowledge.Shipped, cancel))
            .ToList();
        var offers = await OffersAsync(db, file, parts, ids, today, cancel);
        var priced = offers.Price();
        var rates = await Shelf.ReturnRatesAsync(db, file.Book.Shop.Fit, cancel);
        return (priced, FitDecision.Of([.. priced.Select(option => option.Offer)], rates, Terms(file, today)));
    }

    /// <summary>A kit picked by hand, or null when there is none of that number.</summary>
    public static async Task<Fitting?> KitAsync(BlueDawnDb db, TrayFile file, string number, DateOnly today, CancellationToken cancel)
    {
        var id = await db.Items.Where(item => item.Number == number).Select(item => (Guid?)item.Id).SingleOrDefaultAsync(cancel);
        if (id is not { } found)
        {
            return null;
        }

        var offers = await OffersAsync(db, file, file.Kits.Wanted, [found], today, cancel);
        var kit = offers.Items[0];
        return ToFitting(offers.PriceKit(kit), [.. kit.Item.Parts.Select(part => part.Part).Distinct()]);
    }

    /// <summary>
    /// What was decided, out of what is on the shelf now; null while something is not there. Single parts may come out of
    /// anything that holds them, an opened kit too.
    /// </summary>
    public static async Task<Fitting?> FromShelfAsync(
        BlueDawnDb db,
        TrayFile file,
        Fitting decided,
        DateOnly today,
        CancellationToken cancel
    )
    {
        if (decided.Option != FitOption.SingleParts)
        {
            return decided;
        }

        var parts = file.Kits.Wanted.Where(part => decided.Parts.Contains(part.Part)).ToList();
        var shelf = (await Shelf.OnHandAsync(db, null, cancel)).Where(pair => pair.Value > 0).Select(pair => pair.Key).ToList();
        var priced = (await OffersAsync(db, file, parts, shelf, today, cancel)).FromShelf();
        return priced.Offer.Obstacle is null ? ToFitting(priced, decided.Parts) : null;
    }

    /// <summary>A priced option as it is kept on the tray.</summary>
    public static Fitting ToFitting(PricedOption priced, IReadOnlyList<string> parts) =>
        new(
            priced.Offer.Option,
            priced.Offer.What,
            priced.Items,
            priced.Offer.Renews ? parts : [],
            priced.DonorId,
            priced.Offer.PartsMoney
        );

    /// <summary>What the sums go by for a tray.</summary>
    public static FitTerms Terms(TrayFile file, DateOnly today) =>
        new(
            (decimal)file.Book.Shop.Trace.LabourPerHour,
            file.Book.Shop.Fit.ComebackMinutes,
            file.Book.Shop.Fit.InspectMinutes,
            file.Book.Shop.Fit.WorthShare,
            file.Book.Facts.OwnerLimit,
            file.Book.Facts.MachineWorth,
            file.Book.Facts.PromisedDay.DayNumber - today.DayNumber,
            file.Book.Shop.Stock.LatePerDay
        );

    private static async Task<FitOffers> OffersAsync(
        BlueDawnDb db,
        TrayFile file,
        IReadOnlyList<WantedPart> parts,
        IReadOnlyCollection<Guid> ids,
        DateOnly today,
        CancellationToken cancel
    ) =>
        new(
            file.Kits.Wanted,
            parts,
            file.Kits.Numbers,
            [.. (await CatalogueSearch.ItemsAsync(db, ids, cancel)).Select(stocked => Awaited(stocked, file.Kits.Order, today))],
            await Shelf.DonorsAsync(db, cancel),
            file.Book.Shop.Fit,
            Terms(file, today).DaysToPromise,
            PartKnowledge.Shipped
        );

    /// <summary>An item with the days until what was ordered of it for the tray is due.</summary>
    private static StockedItem Awaited(StockedItem stocked, OrderedNote? order, DateOnly today) =>
        order?.Items.Contains(stocked.Item.Number) == true
            ? stocked with
            {
                ComesInDays = Math.Max(0, order.Due.DayNumber - today.DayNumber),
            }
            : stocked;
}
