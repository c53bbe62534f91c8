using System.Globalization;
using System.Text;
using System.Text.Json;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Tables;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Stock;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace BlueDawn.Server.Stock;

/// <summary>What to buy where, and what buying together saves.</summary>
/// <param name="Advice">The plan.</param>
/// <param name="Names">Names of the items in it, by number.</param>
/// <param name="Needs">How many things open trays need.</param>
/// <param name="Currency">Currency of prices (ISO 4217).</param>
internal sealed record BuyingView(BuyingAdvice Advice, IReadOnlyDictionary<string, string> Names, int Needs, string Currency);

/// <summary>An order that has been placed.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one order.</param>
/// <param name="Supplier">The supplier.</param>
/// <param name="Lines">Items and pieces as they stand in the plan.</param>
internal sealed record OrderPlaced(Guid Id, string Supplier, IReadOnlyDictionary<string, int> Lines);

internal static class BuyingEndpoints
{
    private static readonly string[] Columns = ["supplier", "item", "name", "packs", "pieces", "pack_price", "price", "lead_days", "trays"];

    public static void MapBuying(this RouteGroupBuilder api)
    {
        var buying = api.MapGroup("/stock/buying").WithTags("Stock");
        buying.MapGet("", ShowAsync).WithName("getBuyingPlan").WithSummary("What to buy for the open trays");
        buying.MapGet("/order-list", DownloadAsync).WithName("downloadOrderList").WithSummary("The buying plan as CSV").Produces<string>(200, "text/csv");
        buying.MapPost("/ordered", OrderedAsync).WithName("placeOrder").WithSummary("Order what the buying plan says").RequireAuthorization(nameof(May.WorkAtTheBench));
    }

    private static async Task<Ok<BuyingView>> ShowAsync(BlueDawnDb db, Me me, IMemoryCache memory, TimeProvider clock, CancellationToken cancel, bool refill = false)
    {
        var (book, items) = await ShelfBook.BuyingAsync(db, me.Desk, refill, clock.GetUtcNow(), cancel);
        return TypedResults.Ok(new BuyingView(
            Solved(book, memory, cancel), items.ToDictionary(pair => pair.Key, pair => pair.Value.Item.Name), book.Needs.Count, me.Desk.Shop.Currency));
    }

    /// <summary>The plan for a book; solved once for the page and the files of it, and again when anything in the book has changed.</summary>
    private static BuyingAdvice Solved(BuyingBook book, IMemoryCache memory, CancellationToken cancel) =>
        memory.GetOrCreate((nameof(BuyingAdvice), JsonSerializer.Serialize(book)), entry =>
        {
            entry.SlidingExpiration = TimeSpan.FromMinutes(10);
            return BuyingAdvice.Of(book, cancel: cancel);
        })!;

    private static async Task<IResult> DownloadAsync(string supplier, BlueDawnDb db, Me me, IMemoryCache memory, TimeProvider clock, CancellationToken cancel, bool refill = false)
    {
        var (book, items) = await ShelfBook.BuyingAsync(db, me.Desk, refill, clock.GetUtcNow(), cancel);
        var order = Solved(book, memory, cancel).Plan.Orders.FirstOrDefault(one => one.Supplier == supplier);
        if (order is null)
        {
            return TypedResults.Problem(statusCode: 404, title: $"Nothing is to be ordered from {supplier}.", detail: "Look at the plan again: it may have changed.");
        }

        await using var writer = new StringWriter(CultureInfo.InvariantCulture);
        static string Money(decimal money) => money.ToString("0.00", CultureInfo.InvariantCulture);
        static string Whole(int number) => number.ToString(CultureInfo.InvariantCulture);
        await CsvOut.WriteAsync(Columns, order.Lines.Select(line => (IReadOnlyList<string>)
            [supplier, line.Item, items[line.Item].Item.Name, Whole(line.Packs), Whole(line.Pieces), Money(line.PackMoney), Money(line.Money), Whole(line.LeadDays), string.Join(" ", line.Trays.Where(tray => tray > 0))]).ToAsyncEnumerable(), writer, cancel);
        var file = string.Concat(supplier.Where(c => char.IsAsciiLetterOrDigit(c) || c == ' ')).Replace(' ', '-').ToLowerInvariant();
        return TypedResults.File(Encoding.UTF8.GetBytes(writer.ToString()), "text/csv; charset=utf-8", $"order-{file}-{me.Desk.Today:yyyy-MM-dd}.csv");
    }

    private static async Task<Results<Ok<OrderPlaced>, ValidationProblem, ProblemHttpResult>> OrderedAsync(
        OrderPlaced order, BlueDawnDb db, Me me, TimeProvider clock, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await Shelf.LockMoveAsync(db, order.Id, cancel);
        if (await db.StockMoves.AsNoTracking().SingleOrDefaultAsync(move => move.Id == order.Id, cancel) is { } before)
        {
            // The lines of an order are the moves of its moment.
            var lines = await db.StockMoves
                .Where(move => move.Kind == StockMoveKind.Ordered && move.At == before.At && move.PersonId == before.PersonId && move.Note == order.Supplier)
                .Join(db.Items, move => move.ItemId, item => item.Id, (move, item) => new { item.Number, move.Pieces })
                .ToListAsync(cancel);
            var same = lines.Count == order.Lines.Count && lines.All(line => order.Lines.GetValueOrDefault(line.Number) == line.Pieces);
            return same ? TypedResults.Ok(order) : StockEndpoints.OtherMove();
        }

        var numbers = order.Lines.Keys.ToList();
        var ids = await db.Items.Where(item => numbers.Contains(item.Number)).ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        if (numbers.FirstOrDefault(number => !ids.ContainsKey(number)) is { } unknown)
        {
            return Problem.Field("lines", $"There is no item {unknown}.");
        }

        if (order.Lines.Count == 0 || order.Lines.Values.Any(pieces => pieces is < 1 or > 9999))
        {
            return Problem.Field("lines", "Every line needs from 1 to 9999 pieces.");
        }

        var now = clock.GetUtcNow();
        var first = true;
        foreach (var (number, pieces) in order.Lines)
        {
            var move = Shelf.Move(db, ids[number], StockMoveKind.Ordered, pieces, null, me.Person.Id, now, order.Supplier);
            if (first)
            {
                move.Id = order.Id;
                first = false;
            }
        }

        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(order);
    }
}
