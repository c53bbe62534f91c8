using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stock;
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
        var rows = items is null ? db.ShelfRows : db.ShelfRows.Where(row => items.Contains(row.ItemId));
        return await rows.ToDictionaryAsync(row => row.ItemId, row => row.OnHand, cancel);
    }

    /// <summary>Holds the id of a move until the transaction ends: the same id sent twice at once is looked at one after the other.
    /// Before any item is locked.</summary>
    public static Task LockMoveAsync(BlueDawnDb db, Guid moveId, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({moveId}::text, 0))", cancel);

    /// <summary>Holds every donor until the transaction ends: a part is on it once, however many want it. Before any item is
    /// locked.</summary>
    public static Task LockDonorsAsync(BlueDawnDb db, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync($"select 1 from donors order by id for update", cancel);

    /// <summary>What one item has on hand and on order, its row locked until the transaction ends so that nobody moves it
    /// meanwhile.</summary>
    public static async Task<StockStanding> LockAsync(BlueDawnDb db, Guid itemId, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlAsync($"select 1 from catalogue_items where id = {itemId} for update", cancel);
        return await db
            .ShelfRows.Where(row => row.ItemId == itemId)
            .Select(row => new StockStanding(row.OnHand, row.OnOrder, 0))
            .SingleOrDefaultAsync(cancel)
            ?? new StockStanding(0, 0, 0);
    }

    /// <summary>Pieces used since a day by item; an item that was not used is absent.</summary>
    public static async Task<Dictionary<Guid, int>> UsedAsync(BlueDawnDb db, DateTimeOffset since, CancellationToken cancel)
    {
        var sums = await db
            .StockMoves.Where(move => move.At >= since)
            .GroupBy(move => new { move.ItemId, move.Kind })
            .Select(group => new
            {
                group.Key.ItemId,
                group.Key.Kind,
                Pieces = group.Sum(move => move.Pieces),
            })
            .ToListAsync(cancel);
        return sums.GroupBy(sum => sum.ItemId)
            .ToDictionary(group => group.Key, group => Math.Max(0, group.Sum(sum => StockStanding.Used(sum.Kind, sum.Pieces))));
    }

    /// <summary>Adds moves to the running sum, items in one order so that two savers never wait for each other.</summary>
    internal static async Task SumAsync(BlueDawnDb db, IEnumerable<StockMove> moves, CancellationToken cancel)
    {
        foreach (var item in moves.GroupBy(move => move.ItemId).OrderBy(group => group.Key))
        {
            var hand = item.Sum(move => StockStanding.Effect(move.Kind, move.Pieces));
            var order = item.Sum(move => StockStanding.OrderEffect(move.Kind, move.Pieces));
            await db.Database.ExecuteSqlAsync(
                $"""
                insert into shelf (item_id, on_hand, on_order) values ({item.Key}, {hand}, greatest(0, {order}))
                on conflict (item_id) do update set on_hand = shelf.on_hand + {hand}, on_order = greatest(0, shelf.on_order + {order})
                """,
                cancel
            );
        }
    }

    /// <summary>Makes the running sum of a book that was written before there was one.</summary>
    public static async Task EnsureSumAsync(BlueDawnDb db, CancellationToken cancel)
    {
        if (await db.ShelfRows.AnyAsync(cancel))
        {
            return;
        }

        var moves = await db
            .StockMoves.AsNoTracking()
            .Select(move => new { move.ItemId, Move = new LedgerMove(move.Kind, move.Pieces, move.At) })
            .ToListAsync(cancel);
        foreach (var item in moves.GroupBy(row => row.ItemId, row => row.Move))
        {
            var standing = StockStanding.Of(item, DateTimeOffset.MaxValue);
            db.ShelfRows.Add(
                new ShelfRow
                {
                    ItemId = item.Key,
                    OnHand = standing.OnHand,
                    OnOrder = standing.OnOrder,
                }
            );
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>
    /// Fits what was decided to a tray: what it had before goes back first, then items come off the shelf as far as they
    /// are there. Call inside a transaction that holds the tray.
    /// </summary>
    /// <param name="db">The store.</param>
    /// <param name="trayId">The tray.</param>
    /// <param name="before">What it had before, or null.</param>
    /// <param name="fitting">What is fitted.</param>
    /// <param name="personId">Who decided.</param>
    /// <param name="at">When.</param>
    /// <param name="cancel">Cancellation.</param>
    /// <returns>The fitting as it is then; items that are not on the shelf stay to be ordered.</returns>
    public static async Task<Fitting> FitAsync(
        BlueDawnDb db,
        Guid trayId,
        Fitting? before,
        Fitting fitting,
        Guid personId,
        DateTimeOffset at,
        CancellationToken cancel
    )
    {
        var numbers = fitting.Items.Concat(before?.Items ?? []).Select(item => item.Number).Distinct().ToArray();
        // All of them at once and in one order, so that two trays never wait for each other.
        var ids = (
            await db
                .Items.FromSql($"select * from catalogue_items where number = any({numbers}) order by id for update")
                .AsNoTracking()
                .ToListAsync(cancel)
        ).ToDictionary(item => item.Number, item => item.Id);
        PutBack(db, trayId, before, ids, personId, at);
        await db.SaveChangesAsync(cancel);
        var items = new List<FittedItem>();
        foreach (var item in fitting.Items.OrderBy(item => item.Number, StringComparer.Ordinal))
        {
            var standing = await LockAsync(db, ids[item.Number], cancel);
            var there = standing.Check(StockMoveKind.Fitted, item.Pieces).Count == 0;
            if (there)
            {
                Move(db, ids[item.Number], StockMoveKind.Fitted, item.Pieces, trayId, personId, at);
            }

            items.Add(item with { FromShelf = there });
        }

        if (fitting.DonorId is { } donor)
        {
            Take(db, donor, fitting.Parts, 1, trayId, personId, at);
        }

        await db.SaveChangesAsync(cancel);
        return fitting with { Items = items };
    }

    /// <summary>Puts back what was fitted to a tray. Call inside a transaction that holds the tray.</summary>
    public static async Task UnfitAsync(
        BlueDawnDb db,
        Guid trayId,
        Fitting? fitting,
        Guid personId,
        DateTimeOffset at,
        CancellationToken cancel
    )
    {
        var numbers = (fitting?.Items ?? []).Select(item => item.Number).Distinct().ToArray();
        await LockDonorsAsync(db, cancel);
        var ids = (
            await db
                .Items.FromSql($"select * from catalogue_items where number = any({numbers}) order by id for update")
                .AsNoTracking()
                .ToListAsync(cancel)
        ).ToDictionary(item => item.Number, item => item.Id);
        PutBack(db, trayId, fitting, ids, personId, at);
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Adds a stock move.</summary>
    public static StockMove Move(
        BlueDawnDb db,
        Guid itemId,
        StockMoveKind kind,
        int pieces,
        Guid? trayId,
        Guid personId,
        DateTimeOffset at,
        string note = ""
    ) =>
        db
            .StockMoves.Add(
                new StockMove
                {
                    Id = Guid.CreateVersion7(at),
                    ItemId = itemId,
                    Kind = kind,
                    Pieces = pieces,
                    TrayId = trayId,
                    PersonId = personId,
                    At = at,
                    Note = note,
                }
            )
            .Entity;

    /// <summary>Donors with the parts that are still on them.</summary>
    public static async Task<IReadOnlyList<Donor>> DonorsAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var donors = await db.Donors.AsNoTracking().OrderBy(donor => donor.Name).ToListAsync(cancel);
        var taken = (
            await db
                .DonorTakings.GroupBy(taking => new { taking.DonorId, taking.Part })
                .Select(group => new
                {
                    group.Key.DonorId,
                    group.Key.Part,
                    Quantity = group.Sum(taking => taking.Quantity),
                })
                .ToListAsync(cancel)
        ).ToDictionary(row => (row.DonorId, row.Part), row => row.Quantity);
        return
        [
            .. donors.Select(donor => new Donor(
                donor.Id,
                donor.Name,
                donor.SpecCode,
                [
                    .. donor
                        .Parts.Select(part => part with { Quantity = part.Quantity - taken.GetValueOrDefault((donor.Id, part.Part)) })
                        .Where(part => part.Quantity > 0),
                ]
            )),
        ];
    }

    /// <summary>How often each option came back: the shop's earlier count and what this book says.</summary>
    public static async Task<IReadOnlyList<ReturnRate>> ReturnRatesAsync(BlueDawnDb db, FitDefaults defaults, CancellationToken cancel)
    {
        var earlier = await db.EarlierReturns.AsNoTracking().ToListAsync(cancel);
        var released = await db
            .Trays.Where(tray => tray.Fitting != null && tray.Released)
            .Select(tray => new { tray.Fitting, tray.CameBack })
            .AsNoTracking()
            .ToListAsync(cancel);
        return
        [
            .. defaults
                .Returns.OrderBy(pair => pair.Key)
                .Select(pair =>
                {
                    var before = earlier.Where(row => row.Option == pair.Key).ToList();
                    var here = released.Where(row => row.Fitting!.Option == pair.Key).ToList();
                    return new ReturnRate(
                        pair.Key,
                        pair.Value,
                        defaults.ReturnsWeight,
                        before.Sum(row => row.Fitted) + here.Count,
                        before.Sum(row => row.CameBack) + here.Count(row => row.CameBack)
                    );
                }),
        ];
    }

    private static void PutBack(BlueDawnDb db, Guid trayId, Fitting? before, Dictionary<string, Guid> ids, Guid personId, DateTimeOffset at)
    {
        foreach (var item in (before?.Items ?? []).Where(item => item.FromShelf && ids.ContainsKey(item.Number)))
        {
            Move(db, ids[item.Number], StockMoveKind.Returned, item.Pieces, trayId, personId, at);
        }

        if (before is { DonorId: { } donor })
        {
            Take(db, donor, before.Parts, -1, trayId, personId, at);
        }
    }

    private static void Take(
        BlueDawnDb db,
        Guid donor,
        IReadOnlyList<string> parts,
        int quantity,
        Guid trayId,
        Guid personId,
        DateTimeOffset at
    ) =>
        db.DonorTakings.AddRange(
            parts.Select(part => new DonorTaking
            {
                Id = Guid.CreateVersion7(at),
                DonorId = donor,
                Part = part,
                Quantity = quantity,
                TrayId = trayId,
                PersonId = personId,
                At = at,
            })
        );
}
