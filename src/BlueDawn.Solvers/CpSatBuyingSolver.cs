using BlueDawn.Core.Stock;
using Google.OrTools.Sat;

namespace BlueDawn.Solvers;

/// <summary>
/// Finds the cheapest buying plan exactly, as an integer programme solved by OR-Tools' CP-SAT. An item can be used
/// whole or be opened for the parts in it; freight is paid once per supplier; a tray is late by its latest part.
/// </summary>
public sealed class CpSatBuyingSolver : IBuyingSolver
{
    private const int MostPacks = 200;

    // Money goes into the programme in hundredths: whole numbers only.
    private const int Hundredths = 100;
    private const long NotMetPrice = 100_000_000;

    /// <inheritdoc/>
    public BuyingPlan Solve(BuyingBook book, double seconds, CancellationToken cancel)
    {
        cancel.ThrowIfCancellationRequested();
        var pools = Pools(book);
        var programme = new Programme(book, pools);
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1 random_seed:1 max_time_in_seconds:{seconds:0.###}"
            ),
        };
        var status = solver.Solve(programme.Model);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            throw new InvalidOperationException($"No buying plan was found ({status}).");
        }

        return programme.Read(solver, status == CpSolverStatus.Optimal);
    }

    private static List<Pool> Pools(BuyingBook book) =>
        [
            .. book.Shelf.Where(lot => lot.Pieces > 0).Select(lot => new Pool(lot.Item, null, lot.Pieces, lot.EachMoney, 0)),
            .. book.Offers.Select(offer => new Pool(offer.Item, offer, 0, 0, offer.LeadDays)),
        ];

    /// <summary>Pieces of one item from one place: the shelf, or one supplier's offer.</summary>
    private sealed record Pool(string Item, SupplyOffer? Offer, int Pieces, decimal EachMoney, int LeadDays);

    private sealed record Use(Pool Pool, BuyingNeed Need, int? Part, IntVar Pieces);

    /// <summary>The integer programme and the way back from its answer.</summary>
    private sealed class Programme
    {
        private readonly BuyingBook book;
        private readonly Dictionary<Pool, IntVar> packs = [];
        private readonly Dictionary<string, BoolVar> ordered = [];
        private readonly Dictionary<Pool, IntVar> opened = [];
        private readonly Dictionary<Pool, LinearExpr> taken = [];
        private readonly Dictionary<int, IntVar> late = [];
        private readonly List<Use> uses = [];
        private readonly List<(BuyingNeed Need, BoolVar LeftOut)> notMet = [];

        public Programme(BuyingBook book, List<Pool> pools)
        {
            this.book = book;
            var needs = book.Needs;
            var wanted = needs.SelectMany(need => need.Sources.Select(source => source.Item)).ToHashSet();
            var all = needs.Sum(need => need.Quantity);
            foreach (var pool in pools.Where(pool => wanted.Contains(pool.Item)))
            {
                AddPool(pool, needs, all);
            }

            foreach (var need in needs)
            {
                // What nobody has is left out at a price no plan would pay otherwise, so that the rest is still planned.
                var leftOut = Model.NewBoolVar("left out");
                notMet.Add((need, leftOut));
                Model.Add(
                    LinearExpr.Sum(uses.Where(use => ReferenceEquals(use.Need, need)).Select(use => use.Pieces)) + leftOut * need.Quantity
                        == need.Quantity
                );
            }

            foreach (var tray in needs.GroupBy(need => need.Tray))
            {
                AddLateness(tray.Key, [.. tray]);
            }

            Minimise();
        }

        public CpModel Model { get; } = new();

        public BuyingPlan Read(CpSolver solver, bool proven)
        {
            var met = uses.Select(use => (use, Pieces: (int)solver.Value(use.Pieces)))
                .Where(pair => pair.Pieces > 0)
                .Select(pair => new NeedMet(
                    pair.use.Need,
                    pair.use.Pool.Item,
                    pair.use.Pool.Offer?.Supplier,
                    pair.Pieces,
                    pair.use.Part,
                    pair.use.Pool.LeadDays
                ))
                .ToList();
            var orders = packs
                .Where(pair => solver.Value(pair.Value) > 0)
                .GroupBy(pair => pair.Key.Offer!.Supplier)
                .OrderBy(group => group.Key, StringComparer.Ordinal)
                .Select(group => Order(group.Key, group.Select(pair => (pair.Key.Offer!, (int)solver.Value(pair.Value))), met))
                .ToList();
            var daysLate = late.Select(pair => (Tray: pair.Key, Days: (int)solver.Value(pair.Value)))
                .Where(pair => pair.Days > 0)
                .ToDictionary(pair => pair.Tray, pair => pair.Days);
            return new BuyingPlan(
                orders,
                met,
                [.. notMet.Where(pair => solver.BooleanValue(pair.LeftOut)).Select(pair => pair.Need)],
                orders.Sum(order => order.Money),
                taken.Where(pair => pair.Key.Offer is null).Sum(pair => solver.Value(pair.Value) * pair.Key.EachMoney),
                daysLate.Values.Sum() * book.LatePerDay,
                daysLate,
                proven
            );
        }

        private void AddPool(Pool pool, IReadOnlyList<BuyingNeed> needs, int most)
        {
            LinearExpr pieces = LinearExpr.Constant(pool.Pieces);
            var reach = pool.Pieces;
            if (pool.Offer is { } offer)
            {
                var bound = Math.Min(MostPacks, most);
                packs[pool] = Model.NewIntVar(0, bound, $"packs {offer.Supplier} {offer.Item}");
                if (!ordered.TryGetValue(offer.Supplier, out var order))
                {
                    order = ordered[offer.Supplier] = Model.NewBoolVar($"order {offer.Supplier}");
                }

                Model.Add(packs[pool] <= bound * order);
                pieces = packs[pool] * offer.PackPieces;
                reach = bound * offer.PackPieces;
            }

            opened[pool] = Model.NewIntVar(0, reach, $"opened {pool.Item}");
            var whole = new List<IntVar>();
            foreach (var need in needs.Where(need => !need.Refill || pool.Offer is not null))
            {
                foreach (var source in need.Sources.Where(source => source.Item == pool.Item))
                {
                    var use = new Use(pool, need, source.Part, Model.NewIntVar(0, need.Quantity, "use"));
                    uses.Add(use);
                    if (source.Part is null)
                    {
                        whole.Add(use.Pieces);
                    }
                }
            }

            foreach (var part in uses.Where(use => use.Pool == pool && use.Part is not null).GroupBy(use => use.Part!.Value))
            {
                Model.Add(LinearExpr.Sum(part.Select(use => use.Pieces)) <= opened[pool] * book.PartsIn[pool.Item][part.Key]);
            }

            taken[pool] = LinearExpr.Sum(whole.Append(opened[pool]));
            Model.Add(taken[pool] <= pieces);
        }

        private void AddLateness(int tray, List<BuyingNeed> needs)
        {
            var grace = Math.Max(0, needs.Min(need => need.DaysToPromise));
            var tardy = uses.Where(use => needs.Any(need => ReferenceEquals(need, use.Need)) && use.Pool.LeadDays > grace).ToList();
            if (tardy.Count == 0)
            {
                return;
            }

            late[tray] = Model.NewIntVar(0, tardy.Max(use => use.Pool.LeadDays), $"late {tray}");
            foreach (var group in tardy.GroupBy(use => use.Pool.LeadDays))
            {
                var waits = Model.NewBoolVar($"waits {tray} {group.Key}");
                Model.Add(LinearExpr.Sum(group.Select(use => use.Pieces)) <= waits * needs.Sum(need => need.Quantity));
                Model.Add(late[tray] >= waits * (group.Key - grace));
            }
        }

        private void Minimise()
        {
            static long Whole(decimal money) => (long)Math.Round(money * Hundredths);
            Model.Minimize(
                LinearExpr.Sum(
                    packs
                        .Select(pair => pair.Value * Whole(pair.Key.Offer!.PackMoney))
                        .Concat(
                            ordered.Select(pair =>
                                pair.Value * Whole(book.Suppliers.FirstOrDefault(terms => terms.Name == pair.Key)?.FreightMoney ?? 0)
                            )
                        )
                        .Concat(taken.Where(pair => pair.Key.Offer is null).Select(pair => pair.Value * Whole(pair.Key.EachMoney)))
                        .Concat(notMet.Select(pair => pair.LeftOut * NotMetPrice))
                        .Concat(late.Values.Select(days => days * Whole(book.LatePerDay)))
                )
            );
        }

        private SupplierOrder Order(string supplier, IEnumerable<(SupplyOffer Offer, int Packs)> bought, List<NeedMet> met)
        {
            List<OrderLine> lines =
            [
                .. bought
                    .OrderBy(pair => pair.Offer.Item, StringComparer.Ordinal)
                    .Select(pair => new OrderLine(
                        pair.Offer.Item,
                        pair.Packs,
                        pair.Packs * pair.Offer.PackPieces,
                        pair.Offer.PackMoney,
                        pair.Packs * pair.Offer.PackMoney,
                        pair.Offer.LeadDays,
                        [
                            .. met.Where(use => use.Item == pair.Offer.Item && use.Supplier == supplier)
                                .Select(use => use.Need.Tray)
                                .Distinct()
                                .Order(),
                        ]
                    )),
            ];
            var freight = book.Suppliers.FirstOrDefault(terms => terms.Name == supplier)?.FreightMoney ?? 0;
            return new SupplierOrder(supplier, lines, freight, lines.Sum(line => line.Money) + freight);
        }
    }
}
