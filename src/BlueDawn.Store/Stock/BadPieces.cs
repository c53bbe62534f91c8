using BlueDawn.Core.Stock;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Stock;

/// <summary>What came bad of an item from one supplier, beside what came.</summary>
/// <param name="Supplier">Who it came from, or null where nobody knows.</param>
/// <param name="Bad">Pieces that came bad.</param>
/// <param name="Received">Pieces received from them, by the book.</param>
public sealed record BadFrom(string? Supplier, int Bad, int Received);

/// <summary>Pieces that came bad, held against item and supplier.</summary>
public static class BadPieces
{
    /// <summary>Who an item was last received from by order; null when it never was.</summary>
    /// <param name="db">The store.</param>
    /// <param name="itemId">The item.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task<string?> LastSupplierAsync(BlueDawnDb db, Guid itemId, CancellationToken cancel) =>
        (await ReceivedAsync(db, itemId, cancel)).MaxBy(one => one.At)?.Supplier;

    /// <summary>What came bad of an item, by supplier, most first; empty when nothing did.</summary>
    /// <param name="db">The store.</param>
    /// <param name="itemId">The item.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task<IReadOnlyList<BadFrom>> OfAsync(BlueDawnDb db, Guid itemId, CancellationToken cancel)
    {
        var bad = await db
            .StockMoves.Where(move => move.ItemId == itemId && move.Kind == StockMoveKind.CameBad)
            .GroupBy(move => move.Supplier)
            .Select(group => new { Supplier = group.Key, Pieces = group.Sum(move => move.Pieces) })
            .ToListAsync(cancel);
        if (bad.Count == 0)
        {
            return [];
        }

        var received = (await ReceivedAsync(db, itemId, cancel)).ToLookup(one => one.Supplier, one => one.Pieces);
        return
        [
            .. bad.OrderByDescending(one => one.Pieces)
                .ThenBy(one => one.Supplier, StringComparer.Ordinal)
                .Select(one => new BadFrom(one.Supplier, one.Pieces, one.Supplier is { } supplier ? received[supplier].Sum() : 0)),
        ];
    }

    private sealed record Receipt(string Supplier, int Pieces, DateTimeOffset At);

    /// <summary>Received by order: the order says who from.</summary>
    private static async Task<List<Receipt>> ReceivedAsync(BlueDawnDb db, Guid itemId, CancellationToken cancel) =>
        await db
            .StockMoves.Where(move => move.ItemId == itemId && move.Kind == StockMoveKind.Received && move.OrderId != null)
            .Select(move => new Receipt(
                db.StockMoves.Where(order => order.Kind == StockMoveKind.Ordered && order.ItemId == itemId && order.OrderId == move.OrderId)
                    .Select(order => order.Note)
                    .FirstOrDefault()
                    ?? "",
                move.Pieces,
                move.At
            ))
            .ToListAsync(cancel);
}
