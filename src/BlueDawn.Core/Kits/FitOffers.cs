using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Kits;

/// <summary>What a supplier asks for an item.</summary>
/// <param name="Supplier">The supplier.</param>
/// <param name="PackPieces">Pieces in a pack, 1 or more.</param>
/// <param name="PackMoney">Price of a pack.</param>
/// <param name="LeadDays">Days until it comes.</param>
public sealed record ItemOffer(string Supplier, int PackPieces, decimal PackMoney, int LeadDays)
{
    /// <summary>What one piece comes to.</summary>
    public decimal EachMoney => Math.Round(PackMoney / PackPieces, 2, MidpointRounding.AwayFromZero);
}

/// <summary>An item with what is on hand and what suppliers ask.</summary>
/// <param name="Item">The item.</param>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="Offers">Who sells it.</param>
public sealed record StockedItem(CatalogueItem Item, int OnHand, IReadOnlyList<ItemOffer> Offers)
{
    /// <summary>What one piece is worth: the cheapest piece price, 0 when nobody sells it.</summary>
    public decimal EachMoney => Offers.Count == 0 ? 0 : Offers.Min(offer => offer.EachMoney);

    /// <summary>Days until pieces that are on order for the tray come, 0 or more; null when none is.</summary>
    public int? ComesInDays { get; init; }

    /// <summary>Whether it can be had at all.</summary>
    public bool CanBeHad => OnHand > 0 || Offers.Count > 0;
}

/// <summary>A carburetor kept for its parts.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called on the shelf.</param>
/// <param name="SpecCode">Its spec sheet, or null.</param>
/// <param name="PartsLeft">Parts that are still on it.</param>
public sealed record Donor(Guid Id, string Name, string? SpecCode, IReadOnlyList<ItemPart> PartsLeft);

/// <summary>An option that was priced, with what it would take out of the catalogue.</summary>
/// <param name="Offer">What the option takes.</param>
/// <param name="Items">Items and pieces.</param>
/// <param name="DonorId">The donor, or null.</param>
public sealed record PricedOption(FitOffer Offer, IReadOnlyList<FittedItem> Items, Guid? DonorId);

/// <summary>Prices every option for one tray.</summary>
/// <param name="Wanted">Every part as it is wanted: a kit must not be wrong in any of them.</param>
/// <param name="Renew">Those of them that are to be renewed.</param>
/// <param name="Numbers">Numbers the carburetor goes by.</param>
/// <param name="Items">Items of the catalogue that may come in.</param>
/// <param name="Donors">Donors on the shelf.</param>
/// <param name="Defaults">The shop's settings.</param>
/// <param name="DaysToPromise">Days until the promised day.</param>
/// <param name="Knowledge">What is known of parts.</param>
public sealed record FitOffers(
    IReadOnlyList<WantedPart> Wanted,
    IReadOnlyList<WantedPart> Renew,
    IReadOnlyList<string> Numbers,
    IReadOnlyList<StockedItem> Items,
    IReadOnlyList<Donor> Donors,
    FitDefaults Defaults,
    int DaysToPromise,
    PartKnowledge Knowledge
)
{
    private const string NothingToRenew = "Say first which parts are to be renewed.";

    /// <summary>Every option priced.</summary>
    public IReadOnlyList<PricedOption> Price() =>
        [
            NothingNew(),
            Kit(),
            SingleParts(stocked => stocked.Item.Kind is ItemKind.Part or ItemKind.Assortment && stocked.CanBeHad),
            Carburetor(FitOption.MakersCarburetor, ItemKind.MakersCarburetor),
            Carburetor(FitOption.PatternCarburetor, ItemKind.PatternCarburetor),
            FromDonor(),
            MakeIt(),
            Stopgap(),
            new PricedOption(new FitOffer(FitOption.Decline, "nothing is fitted", 0, 0, 0, null), [], null),
        ];

    /// <summary>Prices one kit that was picked by hand, whether it fits or not: near misses are said to be so where they are
    /// picked.</summary>
    public PricedOption PriceKit(StockedItem kit) => Take(FitOption.Kit, [(kit, 1)], Defaults.KitMinutes, null);

    /// <summary>Prices the parts to renew out of what is on the shelf now: single parts, assortments, and kits opened for them.</summary>
    public PricedOption FromShelf() => SingleParts(stocked => stocked.OnHand > 0 && stocked.Item.Parts.Count > 0);

    private static PricedOption Not(FitOption option, string obstacle) => new(FitOffer.Not(option, obstacle), [], null);

    /// <summary>Always to be had; advised only where nothing is marked to be renewed.</summary>
    private PricedOption NothingNew() =>
        new(
            new FitOffer(FitOption.CleanAndRefit, Renew.Count == 0 ? "it goes back as it is" : $"as they are: {List()}", 0, 0, 0, null)
            {
                Advisable = Renew.Count == 0,
            },
            [],
            null
        );

    private PricedOption Kit()
    {
        if (Renew.Count == 0)
        {
            return Not(FitOption.Kit, NothingToRenew);
        }

        var kits = Items
            .Where(stocked => stocked.Item.Kind == ItemKind.Kit && stocked.CanBeHad)
            .Select(stocked =>
                (
                    Stocked: stocked,
                    Match: ItemMatch.Of(stocked.Item, Renew, Numbers, Knowledge),
                    Whole: ItemMatch.Of(stocked.Item, Wanted, Numbers, Knowledge)
                )
            )
            .ToList();
        var fitting = kits.Where(pair =>
                pair.Match.Verdict is FitVerdict.Fits or FitVerdict.SoFar && pair.Whole.Verdict != FitVerdict.NearMiss
            )
            .ToList();
        if (fitting.Count > 0)
        {
            var best = fitting
                .OrderByDescending(pair => pair.Match.Verdict)
                .ThenByDescending(pair => pair.Stocked.OnHand > 0)
                .ThenBy(pair => Cost(pair.Stocked, 1).Money)
                .First();
            return PriceKit(best.Stocked);
        }

        var near = kits.Where(pair => pair.Match.Listed is not null)
            .OrderByDescending(pair => pair.Match.Verdict)
            .ThenByDescending(pair => pair.Match.Parts.Count(part => part.Verdict == PartVerdict.Fits))
            .FirstOrDefault();
        return Not(
            FitOption.Kit,
            near.Stocked is null
                ? "No kit is known that brings these parts."
                : $"No kit fits. Nearest is {near.Stocked.Item.Number}. {near.Whole.Reason}"
        );
    }

    private PricedOption SingleParts(Func<StockedItem, bool> from)
    {
        if (Renew.Count == 0)
        {
            return Not(FitOption.SingleParts, NothingToRenew);
        }

        var chosen = Renew
            .Select(part =>
                (
                    Part: part,
                    Best: Items
                        .Where(from)
                        .Select(stocked =>
                            (Stocked: stocked, Match: PartMatch.Of(part with { Quantity = 1 }, stocked.Item.Parts, Knowledge))
                        )
                        .Where(pair => pair.Match.Verdict is PartVerdict.Fits or PartVerdict.NotMeasured)
                        .Select(pair => (pair.Stocked, Pieces: (int)Math.Ceiling(part.Quantity / (double)pair.Match.Brought)))
                        .OrderBy(pair => Cost(pair.Stocked, pair.Pieces).Money)
                        .ThenBy(pair => Cost(pair.Stocked, pair.Pieces).WaitDays)
                        .Cast<(StockedItem Stocked, int Pieces)?>()
                        .FirstOrDefault()
                )
            )
            .ToList();
        var none = chosen.Where(pair => pair.Best is null).Select(pair => pair.Part.Part).ToList();
        if (none.Count > 0)
        {
            return Not(FitOption.SingleParts, $"Not to be had alone: {string.Join(", ", none)}.");
        }

        // One assortment or opened kit can bring several of the parts.
        var items = chosen
            .GroupBy(pair => pair.Best!.Value.Stocked)
            .Select(group =>
                (
                    group.Key,
                    group.Key.Item.Kind != ItemKind.Part
                        ? group.Max(pair => pair.Best!.Value.Pieces)
                        : group.Sum(pair => pair.Best!.Value.Pieces)
                )
            )
            .ToList();
        return Take(FitOption.SingleParts, items, RenewMinutes(), null);
    }

    private PricedOption Carburetor(FitOption option, ItemKind kind)
    {
        var listed = Items
            .Where(stocked =>
                stocked.Item.Kind == kind
                && stocked.CanBeHad
                && stocked.Item.ListedFor.Any(mark => Numbers.Any(number => Stamp.Compare(number, mark.Number).Match == StampMatch.Exact))
            )
            .OrderBy(stocked => Cost(stocked, 1).Money)
            .FirstOrDefault();
        return listed is null
            ? Not(option, "None is listed for this number.")
            : Take(option, [(listed, 1)], Defaults.CarburetorMinutes, null);
    }

    private PricedOption FromDonor()
    {
        if (Renew.Count == 0)
        {
            return Not(FitOption.DonorPart, NothingToRenew);
        }

        var donor = Donors.FirstOrDefault(donor =>
            Renew.All(part => PartMatch.Of(part, donor.PartsLeft, Knowledge).Verdict is PartVerdict.Fits or PartVerdict.NotMeasured)
        );
        return donor is null
            ? Not(
                FitOption.DonorPart,
                Donors.Count == 0
                    ? "No donor is on the shelf."
                    : $"No donor on the shelf still has {string.Join(", ", Renew.Select(part => part.Part))} that would fit."
            )
            : new PricedOption(
                new FitOffer(
                    FitOption.DonorPart,
                    $"{List()} off {donor.Name}",
                    0,
                    RenewMinutes() + Defaults.DonorMinutes * Renew.Count,
                    0,
                    null
                ),
                [],
                donor.Id
            );
    }

    private PricedOption MakeIt()
    {
        var work = Renew.Select(part => (part.Part, part.Quantity, Knowledge.Find(part.Part)?.Make)).ToList();
        var cannot = work.Where(pair => pair.Make is null).Select(pair => pair.Part).ToList();
        return work.Count == 0 ? Not(FitOption.MakeIt, NothingToRenew)
            : cannot.Count > 0 ? Not(FitOption.MakeIt, $"Cannot be made here: {string.Join(", ", cannot)}.")
            : new PricedOption(
                new FitOffer(
                    FitOption.MakeIt,
                    string.Join(", ", work.Select(pair => $"{pair.Part} from {pair.Make!.What}")),
                    work.Sum(pair => pair.Make!.Money * pair.Quantity),
                    RenewMinutes() + work.Sum(pair => pair.Make!.Minutes * pair.Quantity),
                    0,
                    null
                ),
                [],
                null
            );
    }

    private PricedOption Stopgap()
    {
        var gap = Renew.Select(part => Knowledge.Find(part.Part)?.Stopgap).OfType<BenchWork>().FirstOrDefault();
        return Renew.Count == 0 ? Not(FitOption.Stopgap, NothingToRenew)
            : gap is null ? Not(FitOption.Stopgap, $"There is nothing to get by with for {List()}.")
            : new PricedOption(new FitOffer(FitOption.Stopgap, $"{gap.What}; the fault stays", gap.Money, gap.Minutes, 0, null), [], null);
    }

    private string List() => string.Join(", ", Renew.Select(part => part.Quantity > 1 ? $"{part.Quantity} {part.Part}" : part.Part));

    private static string Counted(int pieces, CatalogueItem item) => $"{(pieces > 1 ? $"{pieces} " : "")}{item.Number} {item.Name}";

    private double RenewMinutes() => Renew.Sum(part => Knowledge.Find(part.Part)?.RenewMinutes ?? 0);

    private PricedOption Take(FitOption option, IReadOnlyList<(StockedItem Stocked, int Pieces)> items, double minutes, Guid? donor)
    {
        var costs = items.Select(pair => Cost(pair.Stocked, pair.Pieces)).ToList();
        return new PricedOption(
            new FitOffer(
                option,
                string.Join(
                    "; ",
                    items
                        .Zip(costs)
                        .GroupBy(pair => pair.Second.From)
                        .Select(group =>
                            $"{string.Join(", ", group.Select(pair => Counted(pair.First.Pieces, pair.First.Stocked.Item)))} {group.Key}"
                        )
                ),
                costs.Sum(cost => cost.Money),
                minutes,
                costs.Max(cost => cost.WaitDays),
                null
            ),
            [
                .. items.Select(pair => new FittedItem(
                    pair.Stocked.Item.Number,
                    pair.Stocked.Item.Name,
                    pair.Pieces,
                    pair.Stocked.OnHand >= pair.Pieces,
                    pair.Stocked.Item.Parts
                )),
            ],
            donor
        );
    }

    /// <summary>
    /// What pieces of an item cost here: their piece price from the shelf, or whole packs from the cheapest supplier who
    /// has them by the promised day, from the cheapest of all when none has. What is on order is waited for only as long as
    /// it still takes.
    /// </summary>
    private (decimal Money, int WaitDays, string From) Cost(StockedItem stocked, int pieces)
    {
        if (stocked.OnHand >= pieces)
        {
            return (stocked.EachMoney * pieces, 0, "from the shelf");
        }

        if (stocked.Offers.Count == 0)
        {
            return (decimal.MaxValue / 4, int.MaxValue / 4, "not to be had");
        }

        decimal Packs(ItemOffer offer) => Math.Ceiling(pieces / (decimal)offer.PackPieces) * offer.PackMoney;
        var inTime = stocked.Offers.Where(offer => offer.LeadDays <= DaysToPromise).ToList();
        var best = (inTime.Count > 0 ? inTime : stocked.Offers).OrderBy(Packs).ThenBy(offer => offer.LeadDays).First();
        if (stocked.ComesInDays is { } days)
        {
            return (Packs(best), days, "on order");
        }

        return (
            Packs(best),
            best.LeadDays,
            best.PackPieces > 1 ? $"a pack of {best.PackPieces} from {best.Supplier}" : $"from {best.Supplier}"
        );
    }
}
