using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stock;

/// <summary>What can happen to stock.</summary>
public enum StockMoveKind
{
    /// <summary>Ordered: on its way, not on hand.</summary>
    Ordered,

    /// <summary>Received from a supplier.</summary>
    Received,

    /// <summary>Fitted to a tray.</summary>
    Fitted,

    /// <summary>Came back from a tray unused.</summary>
    Returned,

    /// <summary>Thrown out.</summary>
    Scrapped,

    /// <summary>Made here.</summary>
    Made,

    /// <summary>Taken off a donor carburetor.</summary>
    FromDonor,

    /// <summary>Counted: the shelf held more or fewer than the book.</summary>
    Counted,

    /// <summary>An order was taken back before it came.</summary>
    OrderTakenBack,

    /// <summary>Bad out of its bag: off the shelf, and held against whoever it came from.</summary>
    CameBad,
}

/// <summary>One move of an item. Never edited; the shelf is the sum.</summary>
/// <param name="Kind">What happened.</param>
/// <param name="Pieces">How many; above 0, save for a count, which can go either way.</param>
/// <param name="At">When.</param>
public sealed record LedgerMove(StockMoveKind Kind, int Pieces, DateTimeOffset At);

/// <summary>An item as its moves leave it.</summary>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="OnOrder">Pieces ordered and not received.</param>
/// <param name="UsedLately">Pieces fitted, less those that came back, in the time looked back on.</param>
public sealed record StockStanding(int OnHand, int OnOrder, int UsedLately)
{
    /// <summary>Adds moves up.</summary>
    /// <param name="moves">Every move of one item, any order.</param>
    /// <param name="since">Where the time looked back on begins.</param>
    public static StockStanding Of(IEnumerable<LedgerMove> moves, DateTimeOffset since)
    {
        var (onHand, onOrder, used) = (0, 0, 0);
        foreach (var move in moves.OrderBy(move => move.At))
        {
            onHand += Effect(move.Kind, move.Pieces);
            onOrder = Math.Max(0, onOrder + OrderEffect(move.Kind, move.Pieces));
            if (move.At >= since)
            {
                used += Used(move.Kind, move.Pieces);
            }
        }

        return new StockStanding(onHand, onOrder, Math.Max(0, used));
    }

    /// <summary>What a move does to the pieces on order; more received than were ordered leave none.</summary>
    public static int OrderEffect(StockMoveKind kind, int pieces) =>
        kind switch
        {
            StockMoveKind.Ordered => pieces,
            StockMoveKind.Received or StockMoveKind.OrderTakenBack => -pieces,
            StockMoveKind.Fitted
            or StockMoveKind.Returned
            or StockMoveKind.Scrapped
            or StockMoveKind.Made
            or StockMoveKind.FromDonor
            or StockMoveKind.Counted
            or StockMoveKind.CameBad => 0,
        };

    /// <summary>What a move does to the pieces used.</summary>
    public static int Used(StockMoveKind kind, int pieces) =>
        kind switch
        {
            StockMoveKind.Fitted => pieces,
            StockMoveKind.Returned => -pieces,
            StockMoveKind.Ordered
            or StockMoveKind.Received
            or StockMoveKind.Scrapped
            or StockMoveKind.Made
            or StockMoveKind.FromDonor
            or StockMoveKind.Counted
            or StockMoveKind.OrderTakenBack
            or StockMoveKind.CameBad => 0,
        };

    /// <summary>What a move does to the pieces on hand.</summary>
    public static int Effect(StockMoveKind kind, int pieces) =>
        kind switch
        {
            StockMoveKind.Ordered or StockMoveKind.OrderTakenBack => 0,
            StockMoveKind.Fitted or StockMoveKind.Scrapped or StockMoveKind.CameBad => -pieces,
            StockMoveKind.Received or StockMoveKind.Returned or StockMoveKind.Made or StockMoveKind.FromDonor or StockMoveKind.Counted =>
                pieces,
        };

    /// <summary>What stands in the way of a move; nothing when it can be made.</summary>
    /// <param name="kind">What is to happen.</param>
    /// <param name="pieces">How many.</param>
    public IReadOnlyList<FieldProblem> Check(StockMoveKind kind, int pieces)
    {
        if (kind != StockMoveKind.Counted && pieces is < 1 or > 9999)
        {
            return [new FieldProblem("pieces", "Give how many, from 1 to 9999.")];
        }

        if (kind == StockMoveKind.Counted && pieces == 0)
        {
            return [new FieldProblem("pieces", $"The book already says {OnHand}: nothing to set right.")];
        }

        return OnHand + Effect(kind, pieces) < 0
            ?
            [
                new FieldProblem(
                    "pieces",
                    OnHand == 0
                        ? "None is on hand by the book. Count the shelf and set the book right first."
                        : $"Only {OnHand} on hand by the book. Count the shelf and set the book right first."
                ),
            ]
            : [];
    }

    /// <summary>How the item stands against its reorder point.</summary>
    public ShelfStanding Against(Reorder reorder) =>
        UsedLately == 0 ? ShelfStanding.Idle
        : OnHand > reorder.Point ? ShelfStanding.Enough
        : OnHand + OnOrder > reorder.Point ? ShelfStanding.OnItsWay
        : OnHand + OnOrder == 0 ? ShelfStanding.Out
        : ShelfStanding.Reorder;
}
