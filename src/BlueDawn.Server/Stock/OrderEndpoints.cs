using BlueDawn.Core.Shop;
using BlueDawn.Core.Stock;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Stock;

/// <summary>A tray something was ordered for.</summary>
/// <param name="Tray">Its number.</param>
/// <param name="Items">Numbers of the items.</param>
/// <param name="Days">Days until they are due, by the supplier's usual time, 0 to 365.</param>
internal sealed record OrderedFor(int Tray, IReadOnlyList<string> Items, int Days);

/// <summary>An order that has been placed.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one order.</param>
/// <param name="Supplier">The supplier.</param>
/// <param name="Lines">Items and pieces as they stand in the plan.</param>
/// <param name="For">The trays it is for.</param>
internal sealed record OrderPlaced(Guid Id, string Supplier, IReadOnlyDictionary<string, int> Lines, IReadOnlyList<OrderedFor>? For = null);

/// <summary>What is done to an order: it came, or it is taken back.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is done once.</param>
internal sealed record OrderAct(Guid Id);

/// <summary>An order of which something has not come.</summary>
/// <param name="Order">The order.</param>
/// <param name="Trays">Open trays that wait for it, by number.</param>
/// <param name="Due">The last day on which something for them is due; null when no tray waits for it.</param>
internal sealed record OrderView(OpenOrder Order, IReadOnlyList<int> Trays, DateOnly? Due);

/// <summary>What is on order.</summary>
/// <param name="Orders">Orders of which something has not come, oldest first.</param>
/// <param name="Names">Names of their items, by number.</param>
internal sealed record OrdersView(IReadOnlyList<OrderView> Orders, IReadOnlyDictionary<string, string> Names);

internal static class OrderEndpoints
{
    private const int LongestDays = 365;

    public static void MapOrders(this RouteGroupBuilder api)
    {
        var orders = api.MapGroup("/stock/orders").WithTags("Stock");
        orders
            .MapGet("", async (BlueDawnDb db, Me me, CancellationToken cancel) => TypedResults.Ok(await ListAsync(db, me, cancel)))
            .WithName("listOrders")
            .WithSummary("What is on order");
        var bench = orders.MapGroup("").RequireAuthorization(nameof(Permission.WorkAtTheBench));
        bench.MapPost("", PlaceAsync).WithName("placeOrder").WithSummary("Order what the buying plan says");
        bench
            .MapPost("/{order:guid}/came", CameAsync)
            .WithName("orderCame")
            .WithSummary("Everything of an order has come: it goes on the shelf, trays that waited for it say so");
        bench.MapPost("/{order:guid}/undo", UndoAsync).WithName("undoOrder").WithSummary("Take an order back, as far as it has not come");
    }

    private static async Task<OrdersView> ListAsync(BlueDawnDb db, Me me, CancellationToken cancel)
    {
        var orders = await OpenAsync(db, cancel);
        var waiting = orders.Count == 0 ? [] : await TrayFile.OpenBenchAsync(db, 0, me.Context, cancel);
        var numbers = orders.SelectMany(order => order.Lines).Select(line => line.Item).Distinct().ToList();
        return new OrdersView(
            [.. orders.Select(order => View(order, [.. waiting.Where(file => TrayOrders.IsFor(file, order.Id))]))],
            await db.Items.Where(item => numbers.Contains(item.Number)).ToDictionaryAsync(item => item.Number, item => item.Name, cancel)
        );
    }

    private static OrderView View(OpenOrder order, IReadOnlyList<TrayFile> files) =>
        new(order, [.. files.Select(file => file.Tray.Number).Order()], files.Max(file => file.Kits.Order?.Due));

    /// <summary>Orders of which something has not come: only items of which the sum says that some are on order are looked at.</summary>
    private static async Task<IReadOnlyList<OpenOrder>> OpenAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var moves = await db
            .StockMoves.AsNoTracking()
            .Where(move =>
                db.ShelfRows.Any(row => row.ItemId == move.ItemId && row.OnOrder > 0)
                && (move.Kind == StockMoveKind.Ordered || move.Kind == StockMoveKind.Received || move.Kind == StockMoveKind.OrderTakenBack)
            )
            .Select(move => new OrderMove(
                move.Id,
                move.OrderId,
                db.Items.Where(item => item.Id == move.ItemId).Select(item => item.Number).First(),
                move.Kind,
                move.Pieces,
                move.At,
                move.Note,
                db.Users.Where(person => person.Id == move.PersonId).Select(person => person.DisplayName).FirstOrDefault() ?? ""
            ))
            .ToListAsync(cancel);
        return OpenOrder.Of(moves);
    }

    private static async Task<Results<Ok<OrdersView>, ValidationProblem, ProblemHttpResult>> PlaceAsync(
        OrderPlaced order,
        BlueDawnDb db,
        TrayOrders trays,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await Shelf.LockMoveAsync(db, order.Id, cancel);
        if (await db.StockMoves.AnyAsync(move => move.Id == order.Id, cancel))
        {
            var lines = await db
                .StockMoves.Where(move => move.Kind == StockMoveKind.Ordered && move.OrderId == order.Id && move.Note == order.Supplier)
                .Join(db.Items, move => move.ItemId, item => item.Id, (move, item) => new { item.Number, move.Pieces })
                .ToListAsync(cancel);
            var same = lines.Count == order.Lines.Count && lines.All(line => order.Lines.GetValueOrDefault(line.Number) == line.Pieces);
            return same ? TypedResults.Ok(await ListAsync(db, me, cancel)) : StockEndpoints.OtherMove();
        }

        var numbers = order.Lines.Keys.ToList();
        var ids = await db
            .Items.Where(item => numbers.Contains(item.Number))
            .ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        if (numbers.FirstOrDefault(number => !ids.ContainsKey(number)) is { } unknown)
        {
            return Problem.Field("lines", $"There is no item {unknown}.");
        }

        if (order.Lines.Count == 0 || order.Lines.Values.Any(pieces => pieces is < 1 or > 9999))
        {
            return Problem.Field("lines", "Every line needs from 1 to 9999 pieces.");
        }

        if (order.For?.Any(one => one is null || one.Days is < 0 or > LongestDays) == true)
        {
            return Problem.Field("for", $"Days until it is due go from 0 to {LongestDays}.");
        }

        await trays.OrderedAsync(order, me, cancel);
        var now = clock.GetUtcNow();
        foreach (var (number, pieces) in order.Lines)
        {
            var move = Shelf.Move(db, ids[number], StockMoveKind.Ordered, pieces, null, me.Person.Id, now, order.Supplier);
            move.OrderId = order.Id;
            move.Id = number == numbers[0] ? order.Id : move.Id;
        }

        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ListAsync(db, me, cancel));
    }

    private static Task<Results<Ok<OrdersView>, ProblemHttpResult>> CameAsync(
        Guid order,
        OrderAct act,
        BlueDawnDb db,
        TrayOrders trays,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) => EndAsync(order, act, StockMoveKind.Received, db, trays, me, clock, cancel);

    private static Task<Results<Ok<OrdersView>, ProblemHttpResult>> UndoAsync(
        Guid order,
        OrderAct act,
        BlueDawnDb db,
        TrayOrders trays,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) => EndAsync(order, act, StockMoveKind.OrderTakenBack, db, trays, me, clock, cancel);

    /// <summary>Books in or takes back what is open of an order; a second press finds nothing open.</summary>
    private static async Task<Results<Ok<OrdersView>, ProblemHttpResult>> EndAsync(
        Guid id,
        OrderAct act,
        StockMoveKind kind,
        BlueDawnDb db,
        TrayOrders trays,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await Shelf.LockMoveAsync(db, id, cancel);
        if (await db.StockMoves.AsNoTracking().SingleOrDefaultAsync(move => move.Id == act.Id, cancel) is { } before)
        {
            return before.OrderId == id && before.Kind == kind
                ? TypedResults.Ok(await ListAsync(db, me, cancel))
                : StockEndpoints.OtherMove();
        }

        // Trays before items, as everywhere: two who move the same never wait for each other.
        var waiting = await trays.LockWaitingAsync(me, cancel);
        if ((await OpenAsync(db, cancel)).FirstOrDefault(one => one.Id == id) is not { } order)
        {
            return TypedResults.Problem(
                statusCode: 409,
                title: "Nothing of that order is open any more.",
                detail: "It has come, or somebody has taken it back. Look at the list again."
            );
        }

        var now = clock.GetUtcNow();
        var open = order.Lines.Where(line => line.Open > 0).ToList();
        var numbers = open.ConvertAll(line => line.Item);
        var ids = await db
            .Items.Where(item => numbers.Contains(item.Number))
            .ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        foreach (var line in open)
        {
            var move = Shelf.Move(db, ids[line.Item], kind, line.Open, null, me.Person.Id, now, order.Supplier);
            move.OrderId = id;
            move.Id = line == open[0] ? act.Id : move.Id;
        }

        await db.SaveChangesAsync(cancel);
        await (kind == StockMoveKind.Received ? trays.ArrivedAsync(waiting, me, cancel) : trays.UndoneAsync(waiting, order, me, cancel));
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ListAsync(db, me, cancel));
    }
}
