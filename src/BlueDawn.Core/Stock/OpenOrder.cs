namespace BlueDawn.Core.Stock;

/// <summary>A move of stock as orders see it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Order">The order it belongs to; null for what was booked in without one.</param>
/// <param name="Item">Number of the item.</param>
/// <param name="Kind">What happened; only what is ordered, received and taken back matters.</param>
/// <param name="Pieces">How many, above 0.</param>
/// <param name="At">When.</param>
/// <param name="Supplier">Whom it was ordered from; empty otherwise.</param>
/// <param name="By">Who did it.</param>
public sealed record OrderMove(
    Guid Id,
    Guid? Order,
    string Item,
    StockMoveKind Kind,
    int Pieces,
    DateTimeOffset At,
    string Supplier,
    string By
);

/// <summary>An item of an order.</summary>
/// <param name="Item">Its number.</param>
/// <param name="Ordered">Pieces ordered.</param>
/// <param name="Open">Pieces that have not come, 0 to <paramref name="Ordered"/>.</param>
public sealed record OpenLine(string Item, int Ordered, int Open);

/// <summary>An order of which something has not come.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Supplier">Whom it was ordered from.</param>
/// <param name="At">When.</param>
/// <param name="By">Who ordered.</param>
/// <param name="Lines">Its items.</param>
public sealed record OpenOrder(Guid Id, string Supplier, DateTimeOffset At, string By, IReadOnlyList<OpenLine> Lines)
{
    /// <summary>
    /// Orders of which something has not come, oldest first. What is booked in for an order is of that order; what is booked
    /// in without one is taken to be of the oldest order of its item that is open.
    /// </summary>
    /// <param name="moves">Moves of every item, any order.</param>
    public static IReadOnlyList<OpenOrder> Of(IEnumerable<OrderMove> moves)
    {
        var all = moves
            .Where(move => move.Kind is StockMoveKind.Ordered or StockMoveKind.Received or StockMoveKind.OrderTakenBack)
            .OrderBy(move => move.At)
            .ThenBy(move => move.Id)
            .ToList();
        var open = new Dictionary<(Guid Order, string Item), int>();
        var ordered = all.Where(move => move.Kind == StockMoveKind.Ordered).ToList();
        // Orders of before they had a name are the moves of one moment to one supplier.
        var named = ordered
            .GroupBy(move => move.Order is { } order ? order.ToString() : $"{move.At:O} {move.Supplier} {move.By}")
            .ToDictionary(group => group.Key, group => group.First().Order ?? group.Min(move => move.Id));
        Guid NameOf(OrderMove move) => named[move.Order is { } order ? order.ToString() : $"{move.At:O} {move.Supplier} {move.By}"];
        foreach (var move in all)
        {
            if (move.Kind == StockMoveKind.Ordered)
            {
                open[(NameOf(move), move.Item)] = open.GetValueOrDefault((NameOf(move), move.Item)) + move.Pieces;
                continue;
            }

            var left = move.Pieces;
            var own = open.Keys.Where(key => key.Item == move.Item && key.Order == move.Order);
            var others = open.Keys.Where(key => key.Item == move.Item && key.Order != move.Order);
            foreach (var key in own.Concat(others).ToList())
            {
                var taken = Math.Min(left, open[key]);
                open[key] -= taken;
                left -= taken;
            }
        }

        return
        [
            .. ordered
                .GroupBy(NameOf)
                .Select(order => new OpenOrder(
                    order.Key,
                    order.First().Supplier,
                    order.First().At,
                    order.First().By,
                    [
                        .. order
                            .GroupBy(move => move.Item)
                            .Select(item => new OpenLine(item.Key, item.Sum(move => move.Pieces), open[(order.Key, item.Key)]))
                            .OrderBy(line => line.Item, StringComparer.Ordinal),
                    ]
                ))
                .Where(order => order.Lines.Any(line => line.Open > 0))
                .OrderBy(order => order.At),
        ];
    }
}
