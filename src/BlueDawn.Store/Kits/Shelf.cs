using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Kits;

/// <summary>The shelf: how many of each kit, and taking them off and putting them back.</summary>
public static class Shelf
{
    /// <summary>Pieces on the shelf by kit; a kit that was never moved is absent.</summary>
    public static Task<Dictionary<Guid, int>> CountAsync(BlueDawnDb db, CancellationToken cancel) =>
        db.StockMoves.GroupBy(move => move.KitId).Select(group => new { group.Key, Pieces = group.Sum(move => move.Pieces) })
            .ToDictionaryAsync(group => group.Key, group => group.Pieces, cancel);

    /// <summary>
    /// Gives a tray a kit, from the shelf when there is one; the kit it had goes back first. Call inside a transaction:
    /// the kit's row is locked so that two trays cannot take the last piece.
    /// </summary>
    /// <returns>True when it came off the shelf, false when it is to be ordered.</returns>
    public static async Task<bool> ChooseAsync(BlueDawnDb db, Tray tray, Kit kit, Guid personId, DateTimeOffset at, CancellationToken cancel)
    {
        if (tray.KitId is { } previous && tray.KitFromShelf)
        {
            Move(db, previous, 1, tray.Id, personId, at);
        }

        await db.Database.ExecuteSqlAsync($"select 1 from kits where id = {kit.Id} for update", cancel);
        var onShelf = await db.StockMoves.Where(move => move.KitId == kit.Id).SumAsync(move => move.Pieces, cancel);
        if (tray.KitId == kit.Id && tray.KitFromShelf)
        {
            onShelf += 1;
        }

        var fromShelf = onShelf > 0;
        if (fromShelf)
        {
            Move(db, kit.Id, -1, tray.Id, personId, at);
        }

        tray.KitId = kit.Id;
        tray.KitFromShelf = fromShelf;
        return fromShelf;
    }

    /// <summary>Adds a stock move.</summary>
    public static void Move(BlueDawnDb db, Guid kitId, int pieces, Guid? trayId, Guid personId, DateTimeOffset at) =>
        db.StockMoves.Add(new StockMove { Id = Guid.CreateVersion7(at), KitId = kitId, Pieces = pieces, TrayId = trayId, PersonId = personId, At = at });
}
