using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Store.Stock;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Catalogue;

/// <summary>A number on record with the items listed for it.</summary>
/// <param name="Maker">Who made the carburetor or engine.</param>
/// <param name="Number">The number.</param>
/// <param name="Items">How many items are listed for it.</param>
public sealed record ListedNumber(string Maker, string Number, int Items);

/// <summary>Finds candidates in a catalogue of any size; Core judges what is found.</summary>
public static class CatalogueSearch
{
    private const int MostNumbers = 300;
    private const int MostItems = 60;
    private const int FewestLetters = 2;
    private const int RowsWorthReading = 20_000;

    /// <summary>
    /// Numbers on record that a number as read may stand for. Look-alikes are folded to one text on both sides. Every
    /// number within one further difference is found: then its first or its second half is intact. So is every number
    /// that holds what was read. Farther ones come by trigram likeness.
    /// </summary>
    /// <param name="db">The store.</param>
    /// <param name="kind">Where the number is found.</param>
    /// <param name="read">The number as read; <see cref="StampedNumber.Unreadable"/> for what could not be.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task<IReadOnlyList<ListedNumber>> NumbersAsync(BlueDawnDb db, MarkKind kind, string? read, CancellationToken cancel)
    {
        var folded = Stamp.Fold(read);
        if (folded.Count(c => c != StampedNumber.Unreadable) < FewestLetters)
        {
            return [];
        }

        if (
            !folded.Contains(StampedNumber.Unreadable)
            && await ListedAsync(db, kind, db.ItemFits.Where(fit => fit.Kind == kind && fit.Folded == folded), cancel)
                is { Count: > 0 } exact
        )
        {
            return exact;
        }

        var pieces = folded.Split(StampedNumber.Unreadable);
        var (first, last) = (pieces[0], pieces[^1]);
        var half = folded.Length / 2;
        // A half of a single letter says nothing: the whole readable end takes its place.
        string[] starts = [pieces.Length > 1 ? first : folded[..half], folded.Contains(StampedNumber.Unreadable) ? "" : folded];
        string[] ends = [pieces.Length > 1 ? last : folded[half..]];
        var longest = pieces.MaxBy(piece => piece.Length)!;
        var patterns = starts
            .Where(start => start.Length >= FewestLetters)
            .Select(start => start + "%")
            .Concat(ends.Where(end => end.Length >= FewestLetters).Select(end => "%" + end))
            .Append($"%{longest}%")
            .Distinct()
            .ToArray();
        return await ListedAsync(
            db,
            kind,
            db.ItemFits.FromSql(
                $"""
                select f.* from item_fits f join (
                    select distinct folded, similarity(folded, {longest}) as likeness
                    from item_fits where kind = {Written(kind)} and (folded like any ({patterns}) or (folded % {folded}))
                    order by likeness desc limit {MostNumbers}) near on near.folded = f.folded
                where f.kind = {Written(kind)}
                """
            ),
            cancel
        );
    }

    /// <summary>Items listed for any of these numbers, look-alikes taken as one.</summary>
    public static async Task<IReadOnlyList<Guid>> ListedForAsync(
        BlueDawnDb db,
        IReadOnlyCollection<string> numbers,
        CancellationToken cancel
    )
    {
        var folded = numbers.Select(Stamp.Fold).Where(number => number.Length >= FewestLetters).Distinct().ToList();
        return folded.Count == 0
            ? []
            : await db
                .ItemFits.Where(fit => folded.Contains(fit.Folded))
                .Select(fit => fit.ItemId)
                .Distinct()
                .OrderBy(id => id)
                .Take(MostItems * 4)
                .ToListAsync(cancel);
    }

    /// <summary>
    /// Items that bring parts which fit, those that bring most first. What fits is judged once for every part there is;
    /// the rarest parts are looked up, at least two, so that an item which fails in one of them is still found.
    /// </summary>
    public static async Task<IReadOnlyList<Guid>> WithPartsAsync(
        BlueDawnDb db,
        IReadOnlyList<WantedPart> wanted,
        PartKnowledge knowledge,
        CancellationToken cancel
    )
    {
        var asked = wanted.Where(part => part.Features.Count > 0).ToDictionary(part => part.Part);
        var names = asked.Keys.ToList();
        var variants = await db
            .PartVariants.AsNoTracking()
            .Where(variant => names.Contains(variant.Part) && variant.Uses > 0)
            .ToListAsync(cancel);
        var fitting = variants
            .Where(variant =>
                PartMatch
                    .Of(
                        asked[variant.Part] with
                        {
                            Quantity = 1,
                        },
                        new ItemPart(variant.Part, 1, FeatureText.Stored(variant.Part, variant.Features)),
                        knowledge
                    )
                    .Verdict
                    is PartVerdict.Fits
                        or PartVerdict.CannotTell
            )
            .GroupBy(variant => variant.Part)
            .OrderBy(group => group.Sum(variant => variant.Uses))
            .ToList();
        var chosen = new List<int>();
        var rows = 0;
        foreach (var (group, place) in fitting.Select((group, place) => (group, place)))
        {
            rows += group.Sum(variant => variant.Uses);
            if (place >= 2 && rows > RowsWorthReading)
            {
                break;
            }

            chosen.AddRange(group.Select(variant => variant.Id));
        }

        return chosen.Count == 0
            ? []
            : await db
                .ItemContents.Where(content => chosen.Contains(content.VariantId))
                .GroupBy(content => content.ItemId)
                .OrderByDescending(group => group.Count())
                .ThenBy(group => group.Key)
                .Select(group => group.Key)
                .Take(MostItems)
                .ToListAsync(cancel);
    }

    /// <summary>Items in full, with what is on hand and who sells them.</summary>
    public static async Task<IReadOnlyList<StockedItem>> ItemsAsync(BlueDawnDb db, IReadOnlyCollection<Guid> ids, CancellationToken cancel)
    {
        var rows = await db
            .Items.AsNoTracking()
            .AsSplitQuery()
            .Where(item => ids.Contains(item.Id))
            .Include(item => item.Contents)
                .ThenInclude(content => content.Variant)
            .Include(item => item.Fits)
            .Include(item => item.Offers)
            .OrderBy(item => item.Number)
            .ToListAsync(cancel);
        var onHand = await Shelf.OnHandAsync(db, ids, cancel);
        return
        [
            .. rows.Select(row => new StockedItem(
                Read(row),
                onHand.GetValueOrDefault(row.Id),
                [
                    .. row
                        .Offers.OrderBy(offer => offer.PackPrice / offer.PackPieces)
                        .ThenBy(offer => offer.Supplier, StringComparer.Ordinal)
                        .Select(offer => new ItemOffer(offer.Supplier, offer.PackPieces, offer.PackPrice, offer.LeadDays)),
                ]
            )),
        ];
    }

    /// <summary>An item as Core knows it.</summary>
    public static CatalogueItem Read(ItemRow row) =>
        new(
            row.Number,
            row.Kind,
            row.Name,
            row.Maker,
            [
                .. row
                    .Fits.OrderBy(fit => fit.Number, StringComparer.Ordinal)
                    .ThenBy(fit => fit.Maker, StringComparer.Ordinal)
                    .Select(fit => new ListedMark(fit.Kind, fit.Maker, fit.Number)),
            ],
            [
                .. row
                    .Contents.OrderBy(content => content.Variant.Part, StringComparer.Ordinal)
                    .ThenBy(content => content.Variant.Features, StringComparer.Ordinal)
                    .Select(content => new ItemPart(
                        content.Variant.Part,
                        content.Quantity,
                        FeatureText.Stored(content.Variant.Part, content.Variant.Features)
                    )),
            ]
        );

    /// <summary>Every supersession that begins at one of these numbers or leads on from there.</summary>
    public static async Task<IReadOnlyDictionary<string, Supersession>> SupersessionsAsync(
        BlueDawnDb db,
        IReadOnlyCollection<string> numbers,
        CancellationToken cancel
    )
    {
        var found = new Dictionary<string, Supersession>();
        for (IReadOnlyCollection<string> ask = numbers; ask.Count > 0; )
        {
            var steps = await db.Supersessions.AsNoTracking().Where(row => ask.Contains(row.Old)).ToListAsync(cancel);
            ask = [.. steps.Where(row => found.TryAdd(row.Old, new Supersession(row.Old, row.New, row.Changed))).Select(row => row.New)];
        }

        return found;
    }

    private static string Written(MarkKind kind) => kind == MarkKind.Stamp ? "stamp" : "plate";

    private static async Task<IReadOnlyList<ListedNumber>> ListedAsync(
        BlueDawnDb db,
        MarkKind kind,
        IQueryable<ItemFit> fits,
        CancellationToken cancel
    ) =>
        await fits.Where(fit => fit.Kind == kind)
            .GroupBy(fit => new { fit.Maker, fit.Number })
            .OrderBy(group => group.Key.Number)
            .Select(group => new ListedNumber(group.Key.Maker, group.Key.Number, group.Count()))
            .Take(MostNumbers)
            .ToListAsync(cancel);
}
