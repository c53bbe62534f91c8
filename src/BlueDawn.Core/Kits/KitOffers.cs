using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Kits;

/// <summary>An item and how it fits.</summary>
/// <param name="Item">The item with what is in it.</param>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="Offers">Who sells it, cheapest piece first.</param>
/// <param name="Match">How it fits.</param>
/// <param name="Instead">Numbers that took this one's place, in order; empty when it is current.</param>
/// <param name="TakesPlaceOf">Numbers whose place it took.</param>
public sealed record ItemOffered(
    CatalogueItem Item,
    int OnHand,
    IReadOnlyList<ItemOffer> Offers,
    ItemMatch Match,
    IReadOnlyList<Supersession> Instead,
    IReadOnlyList<Supersession> TakesPlaceOf
);

/// <summary>Which kits are offered for a carburetor, and in what order.</summary>
public static class KitOffers
{
    /// <summary>Most kits that are offered at once.</summary>
    public const int Most = 24;

    /// <summary>
    /// Kits and assortments that are listed for the carburetor or bring more than half of what is wanted: what fits
    /// before what cannot be told, numbers that are current, listed ones, those that agree in most, those on the
    /// shelf, and the cheapest first.
    /// </summary>
    /// <param name="found">Candidates, in any order.</param>
    /// <param name="wanted">What the carburetor needs.</param>
    /// <param name="numbers">Numbers it is known by.</param>
    /// <param name="later">What took each number's place, by the old number.</param>
    /// <param name="before">What each number took the place of.</param>
    /// <param name="knowledge">The kinds of part there are.</param>
    public static IReadOnlyList<ItemOffered> Rank(
        IReadOnlyList<StockedItem> found,
        IReadOnlyList<WantedPart> wanted,
        IReadOnlyList<string> numbers,
        IReadOnlyDictionary<string, Supersession> later,
        IReadOnlyList<Supersession> before,
        PartKnowledge knowledge
    ) =>
        [
            .. found
                .Where(stocked => stocked.Item.Kind is ItemKind.Kit or ItemKind.Assortment)
                .Select(stocked => new ItemOffered(
                    stocked.Item,
                    stocked.OnHand,
                    stocked.Offers,
                    ItemMatch.Of(stocked.Item, wanted, numbers, knowledge),
                    Supersessions.Follow(stocked.Item.Number, later),
                    [.. before.Where(step => step.New == stocked.Item.Number)]
                ))
                .Where(offered => offered.Match.Listed is not null || offered.Match.Agreeing * 2 > offered.Match.Parts.Count)
                .OrderByDescending(offered => offered.Match.Verdict)
                .ThenBy(offered => offered.Instead.Count)
                .ThenByDescending(offered => offered.Match.Listed is not null)
                .ThenByDescending(offered => offered.Match.Agreeing)
                .ThenByDescending(offered => offered.OnHand > 0)
                .ThenBy(offered => offered.Offers.Select(offer => offer.EachMoney).DefaultIfEmpty(decimal.MaxValue).First())
                .ThenBy(offered => offered.Item.Number, StringComparer.Ordinal)
                .Take(Most),
        ];
}

/// <summary>Something a new part can come from.</summary>
/// <param name="Number">The item's number.</param>
/// <param name="Name">What it is.</param>
/// <param name="FromShelf">True when it is taken from the shelf; false when it came with what was decided on at Kit.</param>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="Verdict">Whether it fits.</param>
/// <param name="Why">What is wrong with it, or null.</param>
public sealed record NewPartSource(string Number, string Name, bool FromShelf, int OnHand, PartVerdict Verdict, Measures.Sentence? Why)
{
    /// <summary>What a new part can come from: what was decided on first, then the shelf, what fits first.</summary>
    /// <param name="part">The part's name in the catalogue.</param>
    /// <param name="fitting">What was decided to fit, or null.</param>
    /// <param name="wanted">What the carburetor needs.</param>
    /// <param name="shelf">What is on the shelf.</param>
    /// <param name="knowledge">The kinds of part there are.</param>
    public static IReadOnlyList<NewPartSource> Of(
        string part,
        Fitting? fitting,
        IReadOnlyList<WantedPart> wanted,
        IReadOnlyList<StockedItem> shelf,
        PartKnowledge knowledge
    )
    {
        var decided = (fitting?.Items ?? [])
            .Where(item => item.FromShelf && item.Parts.Any(one => one.Part == part))
            .Select(item => new NewPartSource(item.Number, item.Name, false, 0, PartVerdict.Fits, null));
        var need = wanted.FirstOrDefault(one => one.Part == part);
        var there = shelf
            .Where(stocked => stocked.OnHand > 0 && stocked.Item.Kind == ItemKind.Part)
            .SelectMany(stocked =>
                stocked
                    .Item.Parts.Where(one => one.Part == part)
                    .Take(1)
                    .Select(brought =>
                    {
                        var match = need is null ? null : PartMatch.Of(need with { Quantity = 1 }, brought, knowledge);
                        return new NewPartSource(
                            stocked.Item.Number,
                            stocked.Item.Name,
                            true,
                            stocked.OnHand,
                            match?.Verdict ?? PartVerdict.NotMeasured,
                            match is { Verdict: PartVerdict.Differs } ? match.Note : null
                        );
                    })
            );
        return
        [
            .. decided
                .Concat(there)
                .OrderBy(source => source.FromShelf)
                .ThenByDescending(source => source.Verdict)
                .ThenBy(source => source.Number, StringComparer.Ordinal),
        ];
    }
}
