using BlueDawn.Core.Stock;
using CsCheck;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Tests.Stock;

public class StockTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 25, 8, 0, 0, TimeSpan.Zero);

    private static LedgerMove Move(StockMoveKind kind, int pieces, double daysAgo = 1) => new(kind, pieces, Now.AddDays(-daysAgo));

    /// <summary>Source: printed tables of the cumulative Poisson distribution, from memory: mean, certainty, smallest count.</summary>
    [Theory]
    [InlineData(0, 0.95, 0)]
    [InlineData(0.5, 0.90, 1)]
    [InlineData(1, 0.95, 3)]
    [InlineData(2, 0.90, 4)]
    [InlineData(2, 0.95, 5)]
    [InlineData(5, 0.95, 9)]
    [InlineData(10, 0.95, 15)]
    [InlineData(10, 0.99, 18)]
    public void Reorder_points_agree_with_printed_tables(double mean, double certainty, int point) =>
        Assert.Equal(point, Reorder.Of(mean / 10, 10, certainty).Point);

    /// <summary>The tail of the Poisson distribution term by term from above: nothing is lost near certainty (definition of the
    /// distribution).</summary>
    [Theory]
    [InlineData(0.5)]
    [InlineData(3)]
    [InlineData(12)]
    public void Near_certainty_the_reorder_point_is_still_the_smallest_that_serves(double mean)
    {
        const double Certainty = 1 - 1.1102230246251565e-16; // 1 − 2⁻⁵³
        double Tail(int point)
        {
            double sum = 0;
            for (var pieces = point + 200; pieces > point; pieces--)
            {
                sum += Math.Exp((pieces * Math.Log(mean)) - mean - Enumerable.Range(1, pieces).Sum(k => Math.Log(k)));
            }

            return sum;
        }

        var found = Reorder.Of(mean, 1, Certainty).Point;
        Assert.True(
            Tail(found) <= 1 - Certainty && Tail(found - 1) > 1 - Certainty,
            $"{found}: {Tail(found):E3}, one less {Tail(found - 1):E3}"
        );
    }

    /// <summary>Source: MathNet.Numerics 5.0.0, a general-purpose library: its distribution against the tail we work with.</summary>
    [Fact]
    public void Reorder_points_agree_with_a_general_library() =>
        Gen.Select(Gen.Double[0.01, 4], Gen.Double[0.5, 30], Gen.Double[0.5, 0.999])
            .Sample(
                (use, lead, certainty) =>
                {
                    var reorder = Reorder.Of(use, lead, certainty);
                    var poisson = new Poisson(use * lead);
                    Assert.True(poisson.CumulativeDistribution(reorder.Point) >= certainty - 1e-9);
                    Assert.True(reorder.Point == 0 || poisson.CumulativeDistribution(reorder.Point - 1) < certainty + 1e-9);
                    Assert.Equal(poisson.CumulativeDistribution(reorder.Point), reorder.ShareServed, tolerance: 5e-10);
                }
            );

    [Fact]
    public void A_large_mean_does_not_run_away() => Assert.InRange(Reorder.Of(100, 30, 0.95).Point, 3080, 3100);

    [Theory]
    [InlineData(-1, 1, 0.9)]
    [InlineData(1, -1, 0.9)]
    [InlineData(1, 1, 0)]
    [InlineData(1, 1, 1)]
    public void Values_out_of_range_are_refused(double use, double lead, double certainty) =>
        Assert.Throws<ArgumentOutOfRangeException>(() => Reorder.Of(use, lead, certainty));

    [Fact]
    public void The_shelf_is_the_sum_of_its_moves()
    {
        var standing = StockStanding.Of(
            [
                Move(StockMoveKind.Ordered, 10, 9),
                Move(StockMoveKind.Received, 6, 8),
                Move(StockMoveKind.Fitted, 2, 7),
                Move(StockMoveKind.Returned, 1, 6),
                Move(StockMoveKind.Scrapped, 1, 5),
                Move(StockMoveKind.Made, 3, 4),
                Move(StockMoveKind.FromDonor, 1, 3),
                Move(StockMoveKind.Counted, -2, 2),
            ],
            Now.AddDays(-90)
        );
        Assert.Equal(new StockStanding(6, 4, 1), standing);
    }

    [Fact]
    public void Only_what_was_used_lately_counts_as_use() =>
        Assert.Equal(
            1,
            StockStanding
                .Of(
                    [Move(StockMoveKind.Received, 9, 200), Move(StockMoveKind.Fitted, 5, 100), Move(StockMoveKind.Fitted, 1, 10)],
                    Now.AddDays(-90)
                )
                .UsedLately
        );

    [Theory]
    [InlineData(StockMoveKind.Fitted, 3, false)]
    [InlineData(StockMoveKind.Fitted, 2, true)]
    [InlineData(StockMoveKind.Scrapped, 3, false)]
    [InlineData(StockMoveKind.Received, 3, true)]
    [InlineData(StockMoveKind.Received, 0, false)]
    [InlineData(StockMoveKind.Counted, -2, true)]
    [InlineData(StockMoveKind.Counted, -3, false)]
    [InlineData(StockMoveKind.Counted, 0, false)]
    public void A_move_that_would_leave_less_than_nothing_is_refused(StockMoveKind kind, int pieces, bool allowed) =>
        Assert.Equal(allowed, new StockStanding(2, 0, 0).Check(kind, pieces).Count == 0);

    [Theory]
    [InlineData(0, 0, 5, ShelfStanding.Out)]
    [InlineData(2, 0, 5, ShelfStanding.Reorder)]
    [InlineData(2, 4, 5, ShelfStanding.OnItsWay)]
    [InlineData(3, 0, 5, ShelfStanding.Enough)]
    [InlineData(3, 0, 0, ShelfStanding.Idle)]
    public void An_item_is_held_against_its_reorder_point(int onHand, int onOrder, int used, ShelfStanding standing) =>
        Assert.Equal(standing, new StockStanding(onHand, onOrder, used).Against(new Reorder(0.1, 3, 0.95, 2, 0.96)));
}
