using BlueDawn.Core.Stock;

namespace BlueDawn.Core.Tests.Stock;

/// <summary>What is still on order, from the moves alone.</summary>
public class OpenOrderTests
{
    private static readonly DateTimeOffset Day = new(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);
    private static readonly Guid First = Guid.NewGuid(),
        Second = Guid.NewGuid();

    private static OrderMove Move(
        Guid? order,
        StockMoveKind kind,
        int pieces,
        int hour,
        string item = "OR-01",
        string supplier = "Quay Parts"
    ) => new(Guid.NewGuid(), order, item, kind, pieces, Day.AddHours(hour), supplier, "Jory");

    [Fact]
    public void What_is_booked_in_for_an_order_is_of_that_order()
    {
        var open = OpenOrder.Of([
            Move(First, StockMoveKind.Ordered, 4, 0),
            Move(Second, StockMoveKind.Ordered, 3, 1),
            Move(Second, StockMoveKind.Received, 3, 2),
        ]);
        Assert.Equal([(First, 4, 4)], open.Select(order => (order.Id, order.Lines[0].Ordered, order.Lines[0].Open)));
    }

    [Fact]
    public void What_is_booked_in_without_an_order_is_of_the_oldest_that_is_open()
    {
        var open = OpenOrder.Of([
            Move(First, StockMoveKind.Ordered, 4, 0),
            Move(Second, StockMoveKind.Ordered, 3, 1),
            Move(null, StockMoveKind.Received, 5, 2),
        ]);
        Assert.Equal([(Second, 2)], open.Select(order => (order.Id, order.Lines[0].Open)));
    }

    [Fact]
    public void More_than_was_ordered_leaves_nothing_open_and_takes_nothing_from_a_later_order()
    {
        var open = OpenOrder.Of([
            Move(First, StockMoveKind.Ordered, 1, 0),
            Move(null, StockMoveKind.Received, 9, 1),
            Move(Second, StockMoveKind.Ordered, 2, 2),
        ]);
        Assert.Equal([(Second, 2)], open.Select(order => (order.Id, order.Lines[0].Open)));
    }

    [Fact]
    public void An_order_taken_back_is_gone_and_part_of_one_that_came_stays()
    {
        var open = OpenOrder.Of([
            Move(First, StockMoveKind.Ordered, 4, 0),
            Move(First, StockMoveKind.OrderTakenBack, 4, 1),
            Move(Second, StockMoveKind.Ordered, 2, 2),
            Move(Second, StockMoveKind.Ordered, 1, 2, "BG-03"),
            Move(Second, StockMoveKind.Received, 2, 3),
        ]);
        var only = Assert.Single(open);
        Assert.Equal([("BG-03", 1), ("OR-01", 0)], only.Lines.Select(line => (line.Item, line.Open)));
    }

    [Fact]
    public void Orders_of_before_they_had_a_name_are_the_moves_of_one_moment_to_one_supplier()
    {
        var open = OpenOrder.Of([
            Move(null, StockMoveKind.Ordered, 1, 0),
            Move(null, StockMoveKind.Ordered, 2, 0, "BG-03"),
            Move(null, StockMoveKind.Ordered, 3, 1, "BG-03", "Mole Trading"),
            Move(null, StockMoveKind.Received, 2, 2, "BG-03"),
        ]);
        Assert.Equal([("Quay Parts", 1), ("Mole Trading", 3)], open.Select(order => (order.Supplier, order.Lines.Sum(line => line.Open))));
    }

    /// <summary>The running sum that the shelf keeps and the orders agree, whatever happens in whatever order.</summary>
    [Fact]
    public void What_is_open_in_all_is_what_the_sum_of_the_moves_says()
    {
        var random = new Random(7);
        for (var round = 0; round < 500; round++)
        {
            var orders = Enumerable.Range(0, 4).Select(_ => Guid.NewGuid()).ToList();
            var moves = new List<OrderMove>();
            for (var hour = 0; hour < 20; hour++)
            {
                var open = OpenOrder.Of(moves);
                moves.Add(
                    random.Next(3) switch
                    {
                        0 => Move(orders[random.Next(orders.Count)], StockMoveKind.Ordered, random.Next(1, 5), hour),
                        1 when open.Count > 0 && open[random.Next(open.Count)] is var one => Move(
                            one.Id,
                            random.Next(2) == 0 ? StockMoveKind.Received : StockMoveKind.OrderTakenBack,
                            one.Lines[0].Open,
                            hour
                        ),
                        _ => Move(null, StockMoveKind.Received, random.Next(1, 4), hour),
                    }
                );
            }

            Assert.Equal(
                StockStanding.Of(moves.Select(move => new LedgerMove(move.Kind, move.Pieces, move.At)), Day).OnOrder,
                OpenOrder.Of(moves).Sum(order => order.Lines.Sum(line => line.Open))
            );
        }
    }
}
