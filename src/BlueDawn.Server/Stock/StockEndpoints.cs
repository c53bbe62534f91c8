using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stock;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Stock;

/// <summary>The shelf, the donors and how sure the reorder points are.</summary>
internal sealed record StockView(
    IReadOnlyList<ShelfLine> Lines,
    int ToOrder,
    IReadOnlyList<DonorView> Donors,
    StockDefaults Defaults,
    string Currency
);

/// <summary>A donor with what is still on it and what came off.</summary>
internal sealed record DonorView(Donor Donor, IReadOnlyList<TakenOff> Taken);

/// <summary>A part that came off a donor.</summary>
internal sealed record TakenOff(string Part, int Quantity, int? TrayNumber, DateTimeOffset At);

/// <summary>One move of an item.</summary>
internal sealed record MoveView(
    Guid Id,
    StockMoveKind Kind,
    int Pieces,
    int OnHandAfter,
    int? TrayNumber,
    string Note,
    string By,
    DateTimeOffset At
);

/// <summary>An item with all its moves, latest first.</summary>
internal sealed record StockItemView(ShelfLine Line, IReadOnlyList<MoveView> Moves, string Currency, IReadOnlyList<BadFrom> Bad);

/// <summary>A move to make.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one move.</param>
/// <param name="Item">The item's number.</param>
/// <param name="Kind">What happened.</param>
/// <param name="Pieces">How many; for a count, what the shelf holds.</param>
/// <param name="TrayNumber">The tray, or null.</param>
/// <param name="DonorId">The donor it came off, or null.</param>
/// <param name="Note">Why, or who from.</param>
/// <param name="Supplier">Who a piece that came bad is from; null for whoever the item was last received from.</param>
internal sealed record NewMove(
    Guid Id,
    string Item,
    StockMoveKind Kind,
    int Pieces,
    int? TrayNumber = null,
    Guid? DonorId = null,
    string Note = "",
    string? Supplier = null
);

/// <summary>A carburetor to keep for its parts.</summary>
/// <param name="Id">Id made by the client, UUIDv7.</param>
/// <param name="Name">What it is called on the shelf.</param>
/// <param name="SpecCode">Its spec sheet: its parts are those the sheet knows.</param>
/// <param name="Without">Parts that are not on it any more.</param>
internal sealed record NewDonor(Guid Id, string Name, string SpecCode, IReadOnlyList<string> Without);

/// <summary>An item found by its number or name.</summary>
internal sealed record FoundItem(string Number, ItemKind Kind, string Name, string Maker);

internal static class StockEndpoints
{
    private const int MostFound = 20;
    private const int LongestText = 120;

    public static void MapStock(this RouteGroupBuilder api)
    {
        var stock = api.MapGroup("/stock").WithTags("Stock");
        stock.MapGet("", ShowAsync).WithName("getStock").WithSummary("The shelf and what is to be ordered");
        stock.MapGet("/items", FindAsync).WithName("findItems").WithSummary("Find items by number or name");
        stock.MapGet("/items/{item}", ShowItemAsync).WithName("getStockItem").WithSummary("One item of the shelf");
        var bench = stock.MapGroup("").RequireAuthorization(nameof(Permission.WorkAtTheBench));
        bench.MapPost("/moves", MoveAsync).WithName("moveStock").WithSummary("Move pieces onto or off the shelf");
        bench.MapPost("/donors", AddDonorAsync).WithName("addDonor").WithSummary("Keep a carburetor for parts");
    }

    private static async Task<Ok<StockView>> ShowAsync(BlueDawnDb db, TimeProvider clock, CancellationToken cancel)
    {
        var shop = await TrayFile.ShopAsync(db, cancel);
        var lines = await ShelfBook.LinesAsync(db, shop.Stock, clock.GetUtcNow(), cancel);
        return TypedResults.Ok(
            new StockView(
                [.. lines.OrderBy(line => line.Against).ThenBy(line => line.Stocked.Item.Number, StringComparer.Ordinal)],
                lines.Count(line => line.Against is ShelfStanding.Out or ShelfStanding.Reorder),
                await DonorsAsync(db, cancel),
                shop.Stock,
                shop.Currency
            )
        );
    }

    private static async Task<Ok<List<FoundItem>>> FindAsync(string find, BlueDawnDb db, CancellationToken cancel)
    {
        var wanted = find.Trim();
        if (wanted.Length < 2)
        {
            return TypedResults.Ok(new List<FoundItem>());
        }

        var pattern = Like.With(wanted);
        return TypedResults.Ok(
            await db
                .Items.AsNoTracking()
                .Where(item => EF.Functions.ILike(item.Number, pattern, Like.Sign) || EF.Functions.ILike(item.Name, pattern, Like.Sign))
                .OrderBy(item => item.Number)
                .Take(MostFound)
                .Select(item => new FoundItem(item.Number, item.Kind, item.Name, item.Maker))
                .ToListAsync(cancel)
        );
    }

    private static async Task<Results<Ok<StockItemView>, ProblemHttpResult>> ShowItemAsync(
        string item,
        BlueDawnDb db,
        TimeProvider clock,
        CancellationToken cancel
    ) => await ViewAsync(db, item, clock, cancel) is { } view ? TypedResults.Ok(view) : NoItem(item);

    private static async Task<Results<Ok<StockItemView>, ValidationProblem, ProblemHttpResult>> MoveAsync(
        NewMove input,
        BlueDawnDb db,
        TrayOrders orders,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (
            await db.Items.Where(item => item.Number == input.Item).Select(item => (Guid?)item.Id).SingleOrDefaultAsync(cancel)
            is not { } itemId
        )
        {
            return NoItem(input.Item);
        }

        if (input.Kind == StockMoveKind.CameBad && input.Note.Trim().Length == 0)
        {
            return Problem.Field("note", "Say what is wrong with it.");
        }

        if (input.Supplier?.Length > LongestText)
        {
            return Problem.Field("supplier", $"Longer than {LongestText} characters. Shorten it.");
        }

        if (input.Note.Length > LongestText)
        {
            return Problem.Field("note", $"Longer than {LongestText} characters. Shorten it.");
        }

        Guid? trayId = null;
        if (
            input.TrayNumber is { } number
            && (trayId = await db.Trays.Where(tray => tray.Number == number).Select(tray => (Guid?)tray.Id).SingleOrDefaultAsync(cancel))
                is null
        )
        {
            return Problem.Field("trayNumber", $"There is no tray {number}.");
        }

        var now = clock.GetUtcNow();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await Shelf.LockMoveAsync(db, input.Id, cancel);
        if (input.Kind == StockMoveKind.OrderTakenBack)
        {
            return Problem.Field("kind", "An order is taken back at Stock, On order.");
        }

        // Trays that wait say so when what they wait for is there.
        var waiting = input.Kind is StockMoveKind.Received or StockMoveKind.Made or StockMoveKind.FromDonor
            ? await orders.LockWaitingAsync(me, cancel)
            : [];
        if (input.Kind == StockMoveKind.FromDonor)
        {
            await Shelf.LockDonorsAsync(db, cancel);
        }

        var standing = await Shelf.LockAsync(db, itemId, cancel);
        if (await db.StockMoves.AsNoTracking().SingleOrDefaultAsync(move => move.Id == input.Id, cancel) is { } before)
        {
            // A count keeps by how much the book was off, so what was counted cannot be compared.
            var same =
                before.ItemId == itemId
                && before.Kind == input.Kind
                && before.TrayId == trayId
                && before.DonorId == input.DonorId
                && before.Note == input.Note.Trim()
                && (string.IsNullOrWhiteSpace(input.Supplier) || before.Supplier == input.Supplier.Trim())
                && (input.Kind == StockMoveKind.Counted || before.Pieces == input.Pieces);
            return same ? TypedResults.Ok((await ViewAsync(db, input.Item, clock, cancel))!) : OtherMove();
        }

        // A count says what the shelf holds; the book keeps by how much it was off.
        var pieces = input.Kind == StockMoveKind.Counted ? input.Pieces - standing.OnHand : input.Pieces;
        if (input.Kind == StockMoveKind.Counted && input.Pieces is < 0 or > 9999)
        {
            return Problem.Field("pieces", "Give what the shelf holds, from 0 to 9999.");
        }

        if (standing.Check(input.Kind, pieces) is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        if (input.Kind == StockMoveKind.FromDonor && await TakeAsync(db, input, itemId, trayId, me.Person.Id, now, cancel) is { } problem)
        {
            return problem;
        }

        db.StockMoves.Add(
            new StockMove
            {
                Id = input.Id,
                ItemId = itemId,
                Kind = input.Kind,
                Pieces = pieces,
                TrayId = trayId,
                DonorId = input.DonorId,
                Note = input.Note.Trim(),
                Supplier =
                    input.Kind != StockMoveKind.CameBad ? null
                    : string.IsNullOrWhiteSpace(input.Supplier) ? await BadPieces.LastSupplierAsync(db, itemId, cancel)
                    : input.Supplier.Trim(),
                PersonId = me.Person.Id,
                At = now,
            }
        );
        await db.SaveChangesAsync(cancel);
        await orders.ArrivedAsync(waiting, me, cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok((await ViewAsync(db, input.Item, clock, cancel))!);
    }

    /// <summary>An id that was sent before with other content.</summary>
    public static ProblemHttpResult OtherMove() =>
        TypedResults.Problem(statusCode: 409, title: "That id stands for another move.", detail: "Reload the page and enter it again.");

    /// <summary>What goes on the shelf from a donor is taken off the donor's list.</summary>
    private static async Task<ValidationProblem?> TakeAsync(
        BlueDawnDb db,
        NewMove input,
        Guid itemId,
        Guid? trayId,
        Guid personId,
        DateTimeOffset at,
        CancellationToken cancel
    )
    {
        if ((await Shelf.DonorsAsync(db, cancel)).FirstOrDefault(one => one.Id == input.DonorId) is not { } donor)
        {
            return Problem.Field("donorId", "Say which donor it came off.");
        }

        var parts = await db
            .ItemContents.Where(content => content.ItemId == itemId)
            .Select(content => content.Variant.Part)
            .Distinct()
            .ToListAsync(cancel);
        if (
            parts is not [var part]
            || donor.PartsLeft.FirstOrDefault(left => left.Part == part) is not { } there
            || there.Quantity < input.Pieces
        )
        {
            return Problem.Field("item", $"{donor.Name} has no {(parts is [var one] ? one : input.Item)} left on it.");
        }

        db.DonorTakings.Add(
            new DonorTaking
            {
                Id = Guid.CreateVersion7(at),
                DonorId = donor.Id,
                Part = part,
                Quantity = input.Pieces,
                TrayId = trayId,
                PersonId = personId,
                At = at,
            }
        );
        return null;
    }

    private static async Task<Results<Ok<IReadOnlyList<DonorView>>, ValidationProblem>> AddDonorAsync(
        NewDonor input,
        BlueDawnDb db,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (input.Name.Trim().Length is 0 or > LongestText)
        {
            return Problem.Field("name", $"Say what it is called on the shelf, in no more than {LongestText} characters.");
        }

        if (
            await db.SpecSheets.AsNoTracking().SingleOrDefaultAsync(row => row.Code == input.SpecCode && row.Current, cancel) is not { } row
        )
        {
            return Problem.Field("specCode", "There is no spec sheet of that name. Pick one from the list.");
        }

        if (!await db.Donors.AnyAsync(donor => donor.Id == input.Id, cancel))
        {
            db.Donors.Add(
                new DonorRow
                {
                    Id = input.Id,
                    Name = input.Name.Trim(),
                    SpecCode = input.SpecCode,
                    Parts =
                    [
                        .. row
                            .Sheet.Needs.Where(need => !input.Without.Contains(need.Part))
                            .Select(need => new ItemPart(need.Part, need.Quantity, need.Features)),
                    ],
                    At = clock.GetUtcNow(),
                }
            );
            await db.SaveChangesAsync(cancel);
        }

        return TypedResults.Ok(await DonorsAsync(db, cancel));
    }

    private static async Task<IReadOnlyList<DonorView>> DonorsAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var taken = (
            await db
                .DonorTakings.AsNoTracking()
                .OrderByDescending(taking => taking.At)
                .Select(taking => new
                {
                    taking.DonorId,
                    Off = new TakenOff(
                        taking.Part,
                        taking.Quantity,
                        db.Trays.Where(tray => tray.Id == taking.TrayId).Select(tray => (int?)tray.Number).FirstOrDefault(),
                        taking.At
                    ),
                })
                .ToListAsync(cancel)
        ).ToLookup(row => row.DonorId, row => row.Off);
        return [.. (await Shelf.DonorsAsync(db, cancel)).Select(donor => new DonorView(donor, [.. taken[donor.Id]]))];
    }

    private static async Task<StockItemView?> ViewAsync(BlueDawnDb db, string number, TimeProvider clock, CancellationToken cancel)
    {
        var id = await db.Items.Where(item => item.Number == number).Select(item => item.Id).SingleOrDefaultAsync(cancel);
        if (id == default)
        {
            return null;
        }

        var shop = await TrayFile.ShopAsync(db, cancel);
        var stocked = (await CatalogueSearch.ItemsAsync(db, [id], cancel))[0];
        var moves = await db
            .StockMoves.AsNoTracking()
            .Where(move => move.ItemId == id)
            .OrderBy(move => move.At)
            .ThenBy(move => move.Id)
            .Select(move => new
            {
                move.Id,
                move.Kind,
                move.Pieces,
                move.Note,
                move.At,
                By = db.Users.Where(person => person.Id == move.PersonId).Select(person => person.DisplayName).FirstOrDefault() ?? "",
                Tray = db.Trays.Where(tray => tray.Id == move.TrayId).Select(tray => (int?)tray.Number).FirstOrDefault(),
            })
            .ToListAsync(cancel);
        var onHand = 0;
        var views = moves
            .Select(move => new MoveView(
                move.Id,
                move.Kind,
                move.Pieces,
                onHand += StockStanding.Effect(move.Kind, move.Pieces),
                move.Tray,
                move.Note,
                move.By,
                move.At
            ))
            .ToList();
        views.Reverse();
        var standing = StockStanding.Of(
            moves.Select(move => new LedgerMove(move.Kind, move.Pieces, move.At)),
            clock.GetUtcNow().AddDays(-shop.Stock.LookBackDays)
        );
        return new StockItemView(
            ShelfBook.Line(stocked, standing, shop.Stock),
            views,
            shop.Currency,
            await BadPieces.OfAsync(db, id, cancel)
        );
    }

    private static ProblemHttpResult NoItem(string number) =>
        TypedResults.Problem(
            statusCode: 404,
            title: $"There is no item {number}.",
            detail: "Look it up by its number or name, or import it into the catalogue."
        );
}
