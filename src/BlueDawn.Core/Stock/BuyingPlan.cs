namespace BlueDawn.Core.Stock;

/// <summary>A way to meet a need: a whole item, or one of the parts in it.</summary>
/// <param name="Item">The item's number.</param>
/// <param name="Part">Which of the item's parts, counted from 0; null for the whole item.</param>
public sealed record NeedSource(string Item, int? Part);

/// <summary>Something an open tray needs.</summary>
/// <param name="Tray">The tray's number.</param>
/// <param name="Label">What is needed, in words.</param>
/// <param name="Quantity">Pieces, 1 or more.</param>
/// <param name="DaysToPromise">Days until the tray's promised day; negative when it is past.</param>
/// <param name="Sources">What would meet it; empty when nothing in the catalogue does.</param>
/// <param name="Refill">True when it is to fill the shelf: then the shelf itself cannot meet it. The tray is 0.</param>
public sealed record BuyingNeed(
    int Tray,
    string Label,
    int Quantity,
    int DaysToPromise,
    IReadOnlyList<NeedSource> Sources,
    bool Refill = false
);

/// <summary>What a supplier sells.</summary>
/// <param name="Supplier">The supplier.</param>
/// <param name="Item">The item's number.</param>
/// <param name="PackPieces">Pieces in a pack, 1 or more.</param>
/// <param name="PackMoney">Price of a pack.</param>
/// <param name="LeadDays">Days until it comes.</param>
public sealed record SupplyOffer(string Supplier, string Item, int PackPieces, decimal PackMoney, int LeadDays);

/// <summary>A supplier's terms.</summary>
/// <param name="Name">The supplier.</param>
/// <param name="FreightMoney">Freight of one order.</param>
public sealed record SupplierTerms(string Name, decimal FreightMoney);

/// <summary>Pieces of an item on the shelf.</summary>
/// <param name="Item">The item's number.</param>
/// <param name="Pieces">Pieces on hand.</param>
/// <param name="EachMoney">What one is worth: its price if it were bought again.</param>
public sealed record ShelfLot(string Item, int Pieces, decimal EachMoney);

/// <summary>Everything a buying plan is made from.</summary>
/// <param name="Needs">What open trays need.</param>
/// <param name="Offers">What suppliers sell.</param>
/// <param name="Suppliers">Their terms.</param>
/// <param name="Shelf">What is on the shelf.</param>
/// <param name="PartsIn">How many of each of its parts an item holds, by item number.</param>
/// <param name="LatePerDay">What a day past a promised day is taken to cost.</param>
public sealed record BuyingBook(
    IReadOnlyList<BuyingNeed> Needs,
    IReadOnlyList<SupplyOffer> Offers,
    IReadOnlyList<SupplierTerms> Suppliers,
    IReadOnlyList<ShelfLot> Shelf,
    IReadOnlyDictionary<string, IReadOnlyList<int>> PartsIn,
    decimal LatePerDay
);

/// <summary>A line of an order.</summary>
/// <param name="Item">The item's number.</param>
/// <param name="Packs">Packs to order.</param>
/// <param name="Pieces">Pieces that makes.</param>
/// <param name="PackMoney">Price of a pack.</param>
/// <param name="Money">Packs times price.</param>
/// <param name="LeadDays">Days until it comes.</param>
/// <param name="Trays">Trays it is for.</param>
public sealed record OrderLine(
    string Item,
    int Packs,
    int Pieces,
    decimal PackMoney,
    decimal Money,
    int LeadDays,
    IReadOnlyList<int> Trays
);

/// <summary>An order to one supplier.</summary>
/// <param name="Supplier">The supplier.</param>
/// <param name="Lines">Its lines.</param>
/// <param name="FreightMoney">Freight.</param>
/// <param name="Money">All of it with freight.</param>
public sealed record SupplierOrder(string Supplier, IReadOnlyList<OrderLine> Lines, decimal FreightMoney, decimal Money);

/// <summary>How a need is met.</summary>
/// <param name="Need">The need.</param>
/// <param name="Item">The item that meets it.</param>
/// <param name="Supplier">Who it comes from; null from the shelf.</param>
/// <param name="Pieces">Pieces of it.</param>
/// <param name="Part">Which of the item's parts it is when the item is opened for it; null when it is used whole.</param>
/// <param name="LeadDays">Days until it is there.</param>
public sealed record NeedMet(BuyingNeed Need, string Item, string? Supplier, int Pieces, int? Part, int LeadDays);

/// <summary>A plan of what to buy where.</summary>
/// <param name="Orders">Orders by supplier.</param>
/// <param name="Met">How each need is met.</param>
/// <param name="NotMet">Needs that neither the shelf nor a supplier can meet.</param>
/// <param name="BoughtMoney">Goods and freight.</param>
/// <param name="ShelfMoney">Worth of what is taken off the shelf.</param>
/// <param name="LateMoney">What lateness is taken to cost.</param>
/// <param name="DaysLate">Days past the promised day by tray; trays in time are absent.</param>
/// <param name="Proven">True when no cheaper plan exists; false when the time ran out before that was proven.</param>
public sealed record BuyingPlan(
    IReadOnlyList<SupplierOrder> Orders,
    IReadOnlyList<NeedMet> Met,
    IReadOnlyList<BuyingNeed> NotMet,
    decimal BoughtMoney,
    decimal ShelfMoney,
    decimal LateMoney,
    IReadOnlyDictionary<int, int> DaysLate,
    bool Proven
)
{
    /// <summary>Pieces taken off the shelf, by item.</summary>
    /// <param name="book">What it was made for.</param>
    public IReadOnlyDictionary<string, int> TakenOffShelf(BuyingBook book) =>
        Met.Where(met => met.Supplier is null).GroupBy(met => met.Item).ToDictionary(group => group.Key, group => PiecesFor(group, book));

    /// <summary>Pieces that uses of one item take: whole ones, and as many opened as the scarcest part in them asks for.</summary>
    /// <param name="uses">The uses.</param>
    /// <param name="book">What it was made for.</param>
    public static int PiecesFor(IEnumerable<NeedMet> uses, BuyingBook book)
    {
        var list = uses.ToList();
        var opened = list.Where(met => met.Part is not null)
            .GroupBy(met => met.Part!.Value)
            .Select(group => (int)Math.Ceiling(group.Sum(met => met.Pieces) / (double)book.PartsIn[group.First().Item][group.Key]))
            .DefaultIfEmpty(0)
            .Max();
        return list.Where(met => met.Part is null).Sum(met => met.Pieces) + opened;
    }

    /// <summary>All that the plan costs: goods, freight, what leaves the shelf, and lateness.</summary>
    public decimal Money => BoughtMoney + ShelfMoney + LateMoney;
}

/// <summary>Finds the cheapest buying plan exactly. What does it is the server's: a device plans no buying.</summary>
public interface IBuyingSolver
{
    /// <summary>Solves a book.</summary>
    /// <param name="book">Needs, offers and shelf; money with two decimals.</param>
    /// <param name="seconds">Longest time.</param>
    /// <param name="cancel">Cancels before the search starts.</param>
    BuyingPlan Solve(BuyingBook book, double seconds, CancellationToken cancel);
}

/// <summary>A plan and what it is worth.</summary>
/// <param name="Plan">The cheapest plan for all trays together.</param>
/// <param name="OneByOneMoney">What the same needs cost when each is ordered by itself, with its own freight.</param>
/// <param name="OneByOneOrders">How many orders that would be.</param>
/// <param name="IdleShelf">Items on the shelf that no open tray has a use for.</param>
/// <param name="UsefulShelf">Items on the shelf that could meet a need, with the trays they could be for.</param>
public sealed record BuyingAdvice(
    BuyingPlan Plan,
    decimal OneByOneMoney,
    int OneByOneOrders,
    IReadOnlyList<string> IdleShelf,
    IReadOnlyDictionary<string, IReadOnlyList<int>> UsefulShelf
)
{
    /// <summary>What buying together saves; 0 or more when both plans are proven.</summary>
    public decimal SavesMoney => OneByOneMoney - Plan.Money;

    /// <summary>The plan for all trays, held against ordering each need by itself as it comes up.</summary>
    /// <param name="book">Needs, offers and shelf.</param>
    /// <param name="solver">Finds a plan.</param>
    /// <param name="seconds">Longest time for the whole plan.</param>
    /// <param name="cancel">Cancels.</param>
    public static BuyingAdvice Of(BuyingBook book, IBuyingSolver solver, double seconds = 10, CancellationToken cancel = default)
    {
        var plan = solver.Solve(book, seconds, cancel);
        var left = book.Shelf.ToDictionary(lot => lot.Item, lot => lot.Pieces);
        var (money, orders) = (0m, 0);
        foreach (var need in book.Needs.OrderBy(need => need.DaysToPromise).ThenBy(need => need.Tray))
        {
            cancel.ThrowIfCancellationRequested();
            var alone = solver.Solve(
                book with
                {
                    Needs = [need],
                    Shelf = [.. book.Shelf.Select(lot => lot with { Pieces = left[lot.Item] })],
                },
                seconds,
                cancel
            );
            money += alone.Money;
            orders += alone.Orders.Count;
            foreach (var (item, pieces) in alone.TakenOffShelf(book))
            {
                left[item] -= pieces;
            }
        }

        var useful = book
            .Shelf.Where(lot => lot.Pieces > 0)
            .ToDictionary(
                lot => lot.Item,
                lot =>
                    (IReadOnlyList<int>)
                        [
                            .. book
                                .Needs.Where(need => need.Sources.Any(source => source.Item == lot.Item))
                                .Select(need => need.Tray)
                                .Distinct()
                                .Order(),
                        ]
            );
        return new BuyingAdvice(
            plan,
            money,
            orders,
            [.. useful.Where(pair => pair.Value.Count == 0).Select(pair => pair.Key).Order(StringComparer.Ordinal)],
            useful.Where(pair => pair.Value.Count > 0).ToDictionary(pair => pair.Key, pair => pair.Value)
        );
    }
}
