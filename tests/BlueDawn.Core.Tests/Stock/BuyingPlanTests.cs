using BlueDawn.Core.Stock;
using BlueDawn.Solvers;

namespace BlueDawn.Core.Tests.Stock;

public class BuyingPlanTests
{
    private static readonly CpSatBuyingSolver Solver = new();

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private static NeedSource Whole(string item) => new(item, null);

    private static NeedSource PartOf(string item, int part) => new(item, part);

    private static BuyingNeed Need(int tray, int quantity, int days, params NeedSource[] sources) =>
        new(tray, "it", quantity, days, sources);

    private static BuyingBook Book(
        BuyingNeed[] needs,
        SupplyOffer[] offers,
        SupplierTerms[] suppliers,
        ShelfLot[]? shelf = null,
        Dictionary<string, IReadOnlyList<int>>? partsIn = null,
        decimal late = 4
    ) => new(needs, offers, suppliers, shelf ?? [], partsIn ?? [], late);

    [Fact]
    public void Two_needs_from_one_supplier_pay_one_freight()
    {
        var advice = BuyingAdvice.Of(
            Book(
                [Need(1, 1, 9, Whole("A")), Need(2, 1, 9, Whole("B"))],
                [new("North", "A", 1, 10, 3), new("North", "B", 1, 10, 3), new("South", "B", 1, 8, 3)],
                [new("North", 5), new("South", 5)]
            ),
            Solver,
            cancel: Cancel
        );
        Assert.Equal("North", Assert.Single(advice.Plan.Orders).Supplier);
        Assert.Equal((25m, 28m, 3m, true), (advice.Plan.Money, advice.OneByOneMoney, advice.SavesMoney, advice.Plan.Proven));
    }

    [Fact]
    public void A_kit_is_opened_when_it_is_cheaper_than_its_parts()
    {
        var book = Book(
            [
                Need(1, 1, 9, PartOf("P", 0), PartOf("K", 0)),
                Need(1, 1, 9, PartOf("Q", 0), PartOf("K", 1)),
                Need(2, 1, 9, PartOf("P", 0), PartOf("K", 0)),
            ],
            [new("North", "P", 1, 8, 3), new("North", "Q", 1, 9, 3), new("North", "K", 1, 12, 3)],
            [new("North", 5)],
            partsIn: new()
            {
                ["P"] = [1],
                ["Q"] = [1],
                ["K"] = [1, 1],
            }
        );
        var plan = Solver.Solve(book, 10, Cancel);
        Assert.Equal(["K", "P"], plan.Orders[0].Lines.Select(line => line.Item));
        Assert.Equal(25m, plan.Money);
        Assert.Equal(3, plan.Met.Sum(met => met.Pieces));
    }

    [Fact]
    public void Packs_are_bought_whole()
    {
        var plan = Solver.Solve(Book([Need(1, 7, 9, Whole("A"))], [new("North", "A", 5, 4, 3)], [new("North", 0)]), 10, Cancel);
        Assert.Equal((2, 10, 8m), (plan.Orders[0].Lines[0].Packs, plan.Orders[0].Lines[0].Pieces, plan.BoughtMoney));
    }

    [Fact]
    public void The_shelf_comes_first_when_it_is_worth_less_than_buying()
    {
        var plan = Solver.Solve(
            Book([Need(1, 1, 9, Whole("A"))], [new("North", "A", 1, 10, 3)], [new("North", 5)], [new("A", 2, 10)]),
            10,
            Cancel
        );
        Assert.Empty(plan.Orders);
        Assert.Equal((0m, 10m), (plan.BoughtMoney, plan.ShelfMoney));
    }

    [Fact]
    public void A_refill_is_not_met_from_the_shelf_it_is_to_fill() =>
        Assert.Single(
            Solver
                .Solve(
                    Book(
                        [Need(0, 1, 365, Whole("A")) with { Refill = true }],
                        [new("North", "A", 1, 10, 3)],
                        [new("North", 5)],
                        [new("A", 2, 10)]
                    ),
                    10,
                    Cancel
                )
                .Orders
        );

    [Fact]
    public void A_faster_supplier_is_worth_the_days_it_saves()
    {
        var slow = new SupplyOffer("Slow", "A", 1, 10, 8);
        var fast = new SupplyOffer("Fast", "A", 1, 18, 2);
        SupplierTerms[] terms = [new("Slow", 0), new("Fast", 0)];
        var early = Solver.Solve(Book([Need(1, 1, 7, Whole("A"))], [slow, fast], terms), 10, Cancel);
        Assert.Equal(("Slow", 14m, 1), (early.Orders[0].Supplier, early.Money, early.DaysLate[1]));
        Assert.Equal("Fast", Solver.Solve(Book([Need(1, 1, 4, Whole("A"))], [slow, fast], terms), 10, Cancel).Orders[0].Supplier);
        // A day that has passed already is not made later by what is there in time for nothing.
        Assert.Equal("Fast", Solver.Solve(Book([Need(1, 1, -3, Whole("A"))], [slow, fast], terms), 10, Cancel).Orders[0].Supplier);
    }

    [Fact]
    public void What_nobody_has_is_left_out_and_the_rest_is_planned()
    {
        var plan = Solver.Solve(Book([Need(1, 1, 9, Whole("Z")), Need(2, 3, 9, Whole("A"))], [], [], [new("A", 2, 1)]), 10, Cancel);
        Assert.Equal([1, 2], plan.NotMet.Select(need => need.Tray).Order());
        plan = Solver.Solve(Book([Need(1, 1, 9), Need(2, 1, 9, Whole("A"))], [], [], [new("A", 2, 1)]), 10, Cancel);
        Assert.Equal((1, 2), (Assert.Single(plan.NotMet).Tray, Assert.Single(plan.Met).Need.Tray));
    }

    [Fact]
    public void One_piece_on_the_shelf_is_given_once()
    {
        var advice = BuyingAdvice.Of(
            Book(
                [Need(1, 1, 9, Whole("A")), Need(2, 1, 2, Whole("A"))],
                [new("North", "A", 1, 10, 3)],
                [new("North", 5)],
                [new("A", 1, 10), new("B", 4, 1)]
            ),
            Solver,
            cancel: Cancel
        );
        Assert.Equal(2, Assert.Single(advice.Plan.Met, met => met.Supplier is null).Need.Tray);
        Assert.Equal(["B"], advice.IdleShelf);
        Assert.Equal([1, 2], advice.UsefulShelf["A"]);
        Assert.Equal(advice.Plan.Money, advice.OneByOneMoney);
    }

    /// <summary>Exhaustive search over every way to order and to use what is there, on small books made at random.</summary>
    [Fact]
    public void The_programme_finds_what_exhaustive_search_finds()
    {
        var random = new Random(7);
        for (var round = 0; round < 60; round++)
        {
            var book = RandomBook(random);
            var plan = Solver.Solve(book, 10, Cancel);
            Assert.True(plan.Proven);
            Assert.Equal(Exhaustive(book), plan.NotMet.Count > 0 ? null : plan.Money);
        }
    }

    private static BuyingBook RandomBook(Random random)
    {
        Dictionary<string, IReadOnlyList<int>> partsIn = new()
        {
            ["A"] = [1],
            ["B"] = [1],
            ["K"] = [1, 2],
        };
        var needs = Enumerable
            .Range(1, random.Next(1, 4))
            .Select(tray =>
                random.Next(3) switch
                {
                    0 => Need(tray, random.Next(1, 3), random.Next(0, 6), PartOf("A", 0), PartOf("K", 0)),
                    1 => Need(tray, random.Next(1, 3), random.Next(0, 6), PartOf("B", 0), PartOf("K", 1)),
                    _ => Need(tray, 1, random.Next(0, 6), Whole("K")),
                }
            )
            .ToArray();
        var offers = new[] { "A", "B", "K" }
            .SelectMany(item =>
                new[] { "North", "South" }
                    .Where(_ => random.Next(3) > 0)
                    .Select(supplier => new SupplyOffer(supplier, item, random.Next(1, 3), random.Next(2, 20), random.Next(1, 8)))
            )
            .ToArray();
        return Book(
            needs,
            offers,
            [new("North", random.Next(0, 9)), new("South", random.Next(0, 9))],
            [new("A", random.Next(2), 3), new("K", random.Next(2), 8)],
            partsIn,
            random.Next(0, 5)
        );
    }

    /// <summary>Every number of packs of every offer, every way to use the pieces: the least cost, or null when a need cannot be
    /// met.</summary>
    private static decimal? Exhaustive(BuyingBook book)
    {
        List<(string Item, int Pieces, decimal Each, int Lead)> shelf =
        [
            .. book.Shelf.Select(lot => (lot.Item, lot.Pieces, lot.EachMoney, 0)),
        ];
        decimal? best = null;
        var packs = new int[book.Offers.Count];
        void Buy(int offer)
        {
            if (offer < packs.Length)
            {
                for (packs[offer] = 0; packs[offer] <= 3; packs[offer]++)
                {
                    Buy(offer + 1);
                }

                packs[offer] = 0;
                return;
            }

            var bought =
                book.Offers.Select((one, place) => packs[place] * one.PackMoney).Sum()
                + book.Suppliers.Where(terms => book.Offers.Where((one, place) => packs[place] > 0 && one.Supplier == terms.Name).Any())
                    .Sum(terms => terms.FreightMoney);
            if (best is { } known && bought >= known)
            {
                return;
            }

            var pools = shelf
                .Concat(book.Offers.Select((one, place) => (one.Item, Pieces: packs[place] * one.PackPieces, Each: 0m, Lead: one.LeadDays)))
                .Where(pool => pool.Pieces > 0)
                .ToList();
            Use(pools, 0, 0, new Dictionary<(int Pool, int? Part), int>(), [], bought);
        }

        // Piece by piece of every need from every pool that can meet it; what each pool has to give up follows from that.
        void Use(
            List<(string Item, int Pieces, decimal Each, int Lead)> pools,
            int need,
            int done,
            Dictionary<(int Pool, int? Part), int> used,
            Dictionary<int, int> late,
            decimal bought
        )
        {
            if (need == book.Needs.Count)
            {
                var cost =
                    bought + late.Values.Sum() * book.LatePerDay + pools.Select((pool, place) => Taken(place, used) * pool.Each).Sum();
                best = best is { } known ? Math.Min(known, cost) : cost;
                return;
            }

            var wanted = book.Needs[need];
            if (done == wanted.Quantity)
            {
                Use(pools, need + 1, 0, used, late, bought);
                return;
            }

            foreach (var source in wanted.Sources)
            {
                for (var pool = 0; pool < pools.Count; pool++)
                {
                    if (pools[pool].Item != source.Item)
                    {
                        continue;
                    }

                    var more = new Dictionary<(int Pool, int? Part), int>(used)
                    {
                        [(pool, source.Part)] = used.GetValueOrDefault((pool, source.Part)) + 1,
                    };
                    if (Taken(pool, more) > pools[pool].Pieces)
                    {
                        continue;
                    }

                    var days = Math.Max(0, pools[pool].Lead - Math.Max(0, wanted.DaysToPromise));
                    Use(
                        pools,
                        need,
                        done + 1,
                        more,
                        new Dictionary<int, int>(late) { [wanted.Tray] = Math.Max(late.GetValueOrDefault(wanted.Tray), days) },
                        bought
                    );
                }
            }
        }

        // Only the kit has a second part, and two of it.
        static int Taken(int pool, Dictionary<(int Pool, int? Part), int> used)
        {
            var uses = used.Where(pair => pair.Key.Pool == pool).ToList();
            return uses.Where(pair => pair.Key.Part is null).Sum(pair => pair.Value)
                + uses.Where(pair => pair.Key.Part is not null)
                    .Select(pair => (int)Math.Ceiling(pair.Value / (pair.Key.Part == 1 ? 2.0 : 1.0)))
                    .DefaultIfEmpty(0)
                    .Max();
        }

        Buy(0);
        return best;
    }
}
