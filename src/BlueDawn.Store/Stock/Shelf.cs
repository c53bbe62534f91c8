using BlueDawn.Core.Kits;
using BlueDawn.Core.Stock;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Stock;

/// <summary>The shelf: what is on hand, and moving it.</summary>
public static class Shelf
{
    /// <summary>Pieces on hand by item, of the items asked for; an item that was never moved is absent.</summary>
    /// <param name="db">The store.</param>
    /// <param name="items">The items, or null for all.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task<Dictionary<Guid, int>> OnHandAsync(BlueDawnDb db, IReadOnlyCollection<Guid>? items, CancellationToken cancel)
    {
        var moves = items is null ? db.StockMoves : db.StockMoves.Where(move => items.Contains(move.ItemId));
        var sums = await moves.GroupBy(move => new { move.ItemId, move.Kind })
            .Select(group => new { group.Key.ItemId, group.Key.Kind, Pieces = group.Sum(move => move.Pieces) })
            .ToListAsync(cancel);
        return sums.GroupBy(sum => sum.ItemId).ToDictionary(group => group.Key, group => group.Sum(sum => StockStanding.Effect(sum.Kind, sum.Pieces)));
    }

    /// <summary>How one item stands, its row locked until the transaction ends so that nobody moves it meanwhile.</summary>
    public static async Task<StockStanding> LockAsync(BlueDawnDb db, Guid itemId, DateTimeOffset since, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlAsync($"select 1 from catalogue_items where id = {itemId} for update", cancel);
        return StockStanding.Of(
            await db.StockMoves.Where(move => move.ItemId == itemId).Select(move => new LedgerMove(move.Kind, move.Pieces, move.At)).ToListAsync(cancel),
            since);
    }

    /// <summary>
    /// Fits what was decided to a tray: what it had before goes back first, then items come off the shelf as far as they
    /// are there. Call inside a transaction.
    /// </summary>
    /// <returns>The fitting as it is then; items that are not on the shelf stay to be ordered.</returns>
    public static async Task<Fitting> FitAsync(
        BlueDawnDb db, Tray tray, Fitting fitting, Guid personId, DateTimeOffset at, CancellationToken cancel)
    {
        await PutBackAsync(db, tray, personId, at, cancel);
        var numbers = fitting.Items.Select(item => item.Number).ToList();
        var ids = await db.Items.Where(item => numbers.Contains(item.Number)).ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        var items = new List<FittedItem>();
        // In the order of their numbers, so that two trays never wait for each other.
        foreach (var item in fitting.Items.OrderBy(item => item.Number, StringComparer.Ordinal))
        {
            var standing = await LockAsync(db, ids[item.Number], at, cancel);
            var there = standing.Check(StockMoveKind.Fitted, item.Pieces).Count == 0;
            if (there)
            {
                Move(db, ids[item.Number], StockMoveKind.Fitted, item.Pieces, tray.Id, personId, at);
            }

            items.Add(item with { FromShelf = there });
        }

        if (fitting.DonorId is { } donor)
        {
            db.DonorTakings.AddRange(fitting.Parts.Select(part => new DonorTaking
            {
                Id = Guid.CreateVersion7(at),
                DonorId = donor,
                Part = part,
                Quantity = 1,
                TrayId = tray.Id,
                PersonId = personId,
                At = at,
            }));
        }

        tray.Fitting = fitting with { Items = items };
        await db.SaveChangesAsync(cancel);
        return tray.Fitting;
    }

    /// <summary>Adds a stock move.</summary>
    public static StockMove Move(BlueDawnDb db, Guid itemId, StockMoveKind kind, int pieces, Guid? trayId, Guid personId, DateTimeOffset at, string note = "") =>
        db.StockMoves.Add(new StockMove
        {
            Id = Guid.CreateVersion7(at),
            ItemId = itemId,
            Kind = kind,
            Pieces = pieces,
            TrayId = trayId,
            PersonId = personId,
            At = at,
            Note = note,
        }).Entity;

    /// <summary>Donors with the parts that are still on them.</summary>
    public static async Task<IReadOnlyList<Donor>> DonorsAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var donors = await db.Donors.AsNoTracking().OrderBy(donor => donor.Name).ToListAsync(cancel);
        var taken = (await db.DonorTakings.GroupBy(taking => new { taking.DonorId, taking.Part })
            .Select(group => new { group.Key.DonorId, group.Key.Part, Quantity = group.Sum(taking => taking.Quantity) })
            .ToListAsync(cancel)).ToDictionary(row => (row.DonorId, row.Part), row => row.Quantity);
        return [.. donors.Select(donor => new Donor(donor.Id, donor.Name, donor.SpecCode,
            [.. donor.Parts.Select(part => part with { Quantity = part.Quantity - taken.GetValueOrDefault((donor.Id, part.Part)) }).Where(part => part.Quantity > 0)]))];
    }

    /// <summary>How often each option came back: the shop's earlier count and what this book says.</summary>
    public static async Task<IReadOnlyList<ReturnRate>> ReturnRatesAsync(BlueDawnDb db, FitDefaults defaults, CancellationToken cancel)
    {
        var earlier = await db.EarlierReturns.AsNoTracking().ToListAsync(cancel);
        var released = await db.Trays.Where(tray => tray.Fitting != null && db.LogbookEntries.Any(entry => entry.TrayId == tray.Id && entry.Kind == Logbook.EntryKind.Released))
            .Select(tray => new { tray.Fitting, CameBack = db.LogbookEntries.Any(entry => entry.TrayId == tray.Id && entry.Kind == Logbook.EntryKind.BroughtBack) })
            .AsNoTracking()
            .ToListAsync(cancel);
        return [.. defaults.Returns.OrderBy(pair => pair.Key).Select(pair =>
        {
            var before = earlier.Where(row => row.Option == pair.Key).ToList();
            var here = released.Where(row => row.Fitting!.Option == pair.Key).ToList();
            return new ReturnRate(
                pair.Key, pair.Value, defaults.ReturnsWeight, before.Sum(row => row.Fitted) + here.Count, before.Sum(row => row.CameBack) + here.Count(row => row.CameBack));
        })];
    }

    private static async Task PutBackAsync(BlueDawnDb db, Tray tray, Guid personId, DateTimeOffset at, CancellationToken cancel)
    {
        if (tray.Fitting is not { } before)
        {
            return;
        }

        var numbers = before.Items.Where(item => item.FromShelf).Select(item => item.Number).ToList();
        var ids = await db.Items.Where(item => numbers.Contains(item.Number)).ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        foreach (var item in before.Items.Where(item => item.FromShelf && ids.ContainsKey(item.Number)))
        {
            Move(db, ids[item.Number], StockMoveKind.Returned, item.Pieces, tray.Id, personId, at);
        }

        if (before.DonorId is { } donor)
        {
            db.DonorTakings.AddRange(before.Parts.Select(part => new DonorTaking
            {
                Id = Guid.CreateVersion7(at),
                DonorId = donor,
                Part = part,
                Quantity = -1,
                TrayId = tray.Id,
                PersonId = personId,
                At = at,
            }));
        }

        tray.Fitting = null;
        await db.SaveChangesAsync(cancel);
    }
}
