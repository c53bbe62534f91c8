using System.Globalization;
using System.Text;
using System.Text.Json;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Tables;
using BlueDawn.Server.People;
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
/// <param name="Notes">What stands on trays about what they wait for, by number: it may be on order already.</param>
/// <param name="Currency">Currency of prices (ISO 4217).</param>
internal sealed record BuyingView(
    BuyingAdvice Advice,
    IReadOnlyDictionary<string, string> Names,
    int Needs,
    IReadOnlyDictionary<int, string> Notes,
    string Currency
);

internal static class BuyingEndpoints
{
    private static readonly string[] Columns = ["supplier", "item", "name", "packs", "pieces", "pack_price", "price", "lead_days", "trays"];

    public static void MapBuying(this RouteGroupBuilder api)
    {
        var buying = api.MapGroup("/stock/buying").WithTags("Stock");
        buying.MapGet("", ShowAsync).WithName("getBuyingPlan").WithSummary("What to buy for the open trays");
        buying
            .MapGet("/order-list", DownloadAsync)
            .WithName("downloadOrderList")
            .WithSummary("The buying plan as CSV")
            .Produces<string>(200, "text/csv");
    }

    private static async Task<Ok<BuyingView>> ShowAsync(
        BlueDawnDb db,
        Me me,
        IBuyingSolver solver,
        IMemoryCache memory,
        TimeProvider clock,
        CancellationToken cancel,
        bool refill = false
    )
    {
        var (book, items) = await ShelfBook.BuyingAsync(db, me.Context, refill, clock.GetUtcNow(), cancel);
        return TypedResults.Ok(
            new BuyingView(
                Solved(book, solver, memory, cancel),
                items.ToDictionary(pair => pair.Key, pair => pair.Value.Item.Name),
                book.Needs.Count,
                await NotesAsync(db, book, cancel),
                me.Context.Shop.Currency
            )
        );
    }

    private static async Task<IReadOnlyDictionary<int, string>> NotesAsync(BlueDawnDb db, BuyingBook book, CancellationToken cancel)
    {
        var numbers = book.Needs.Select(need => need.Tray).Where(tray => tray > 0).Distinct().ToList();
        return await db
            .Trays.Where(tray => numbers.Contains(tray.Number) && tray.WaitNote != "")
            .ToDictionaryAsync(tray => tray.Number, tray => tray.WaitNote, cancel);
    }

    /// <summary>The plan for a book; solved once for the page and the files of it, and again when anything in the book has
    /// changed.</summary>
    private static BuyingAdvice Solved(BuyingBook book, IBuyingSolver solver, IMemoryCache memory, CancellationToken cancel) =>
        memory.GetOrCreate((nameof(BuyingAdvice), JsonSerializer.Serialize(book)), entry =>
        {
            entry.SlidingExpiration = TimeSpan.FromMinutes(10);
            return BuyingAdvice.Of(book, solver, cancel: cancel);
        })!;

    private static async Task<IResult> DownloadAsync(
        string supplier,
        BlueDawnDb db,
        Me me,
        IBuyingSolver solver,
        IMemoryCache memory,
        TimeProvider clock,
        CancellationToken cancel,
        bool refill = false
    )
    {
        var (book, items) = await ShelfBook.BuyingAsync(db, me.Context, refill, clock.GetUtcNow(), cancel);
        var order = Solved(book, solver, memory, cancel).Plan.Orders.FirstOrDefault(one => one.Supplier == supplier);
        if (order is null)
        {
            return TypedResults.Problem(
                statusCode: 404,
                title: $"Nothing is to be ordered from {supplier}.",
                detail: "Look at the plan again: it may have changed."
            );
        }

        await using var writer = new StringWriter(CultureInfo.InvariantCulture);
        static string Money(decimal money) => money.ToString("0.00", CultureInfo.InvariantCulture);
        static string Whole(int number) => number.ToString(CultureInfo.InvariantCulture);
        await CsvOut.WriteAsync(
            Columns,
            order
                .Lines.Select(line =>
                    (IReadOnlyList<string>)
                        [
                            supplier,
                            line.Item,
                            items[line.Item].Item.Name,
                            Whole(line.Packs),
                            Whole(line.Pieces),
                            Money(line.PackMoney),
                            Money(line.Money),
                            Whole(line.LeadDays),
                            string.Join(" ", line.Trays.Where(tray => tray > 0)),
                        ]
                )
                .ToAsyncEnumerable(),
            writer,
            cancel
        );
        var file = string.Concat(supplier.Where(c => char.IsAsciiLetterOrDigit(c) || c == ' ')).Replace(' ', '-').ToLowerInvariant();
        return TypedResults.File(
            Encoding.UTF8.GetBytes(writer.ToString()),
            "text/csv; charset=utf-8",
            $"order-{file}-{me.Context.Today:yyyy-MM-dd}.csv"
        );
    }
}
