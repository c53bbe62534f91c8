using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Cleaning;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Cleaning;

/// <summary>The shop's baths as they stand.</summary>
/// <param name="Now">The server's clock at that moment; the page counts down from it.</param>
/// <param name="Baths">Every bath with its curve.</param>
internal sealed record BathsView(DateTimeOffset Now, IReadOnlyList<BathView> Baths);

/// <summary>A bath.</summary>
/// <param name="State">How it stands.</param>
/// <param name="Recipe">The recipe it is used for.</param>
/// <param name="Ahead">Where its temperature is heading from now on.</param>
/// <param name="Readings">What its thermometer showed lately, oldest first.</param>
internal sealed record BathView(
    BathState State,
    CleaningRecipe Recipe,
    IReadOnlyList<BathReading> Ahead,
    IReadOnlyList<BathReading> Readings
);

/// <summary>A reading of a bath's thermometer.</summary>
internal sealed record BathReading(DateTimeOffset At, double TemperatureC);

/// <summary>Something that happened at a bath.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one event.</param>
/// <param name="Kind">What happened.</param>
/// <param name="TrayNumber">The tray, for its basket.</param>
/// <param name="Basket">Which basket; the first free one when it is left out.</param>
/// <param name="Temperature">What the thermometer showed, as typed: a number, or a number with °C or °F.</param>
/// <param name="Clean">For a basket that comes out early: somebody looked, and it is clean all the same.</param>
/// <param name="At">When, by the device's clock; now when it is left out. Never later than now.</param>
internal sealed record NewBathEvent(
    Guid Id,
    BathEventKind Kind,
    int? TrayNumber = null,
    int? Basket = null,
    string? Temperature = null,
    DateTimeOffset? At = null,
    bool Clean = false
);

internal static class BathEndpoints
{
    private static readonly TimeSpan ReadingsShown = TimeSpan.FromHours(2);
    private const double MinutesAhead = 40;
    private const int StepsAhead = 20;
    private static readonly TimeSpan OldestReading = TimeSpan.FromHours(12);

    public static void MapBaths(this RouteGroupBuilder api)
    {
        var baths = api.MapGroup("/baths").WithTags("Cleaning");
        baths.MapGet("", ShowAsync).WithName("getBaths").WithSummary("The shop's baths as they stand");
        baths
            .MapPost("/{bath}/events", RecordAsync)
            .WithName("recordBathEvent")
            .WithSummary("Record what happened at a bath")
            .RequireAuthorization(nameof(Permission.WorkAtTheBench));
    }

    private static async Task<Ok<BathsView>> ShowAsync(BlueDawnDb db, Me me, TimeProvider clock, CancellationToken cancel) =>
        TypedResults.Ok(await ViewAsync(db, me, clock, cancel));

    private static async Task<Results<Ok<BathsView>, ValidationProblem, ProblemHttpResult>> RecordAsync(
        string bath,
        NewBathEvent input,
        BlueDawnDb db,
        NoteWriter writer,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var now = clock.GetUtcNow();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // One at a time: two trays must not get the same basket, nor one a basket of a bath that is being taken away.
        var shop = (await db.Shop.FromSql($"select *, xmin from shop for update").AsNoTracking().SingleAsync(cancel)).Defaults;
        if (shop.Cleaning.Baths.FirstOrDefault(one => one.Key == bath) is not { } vessel)
        {
            return TypedResults.Problem(statusCode: 404, title: "There is no such bath.", detail: "Pick one of the shop’s.");
        }

        if (await db.BathEvents.AsNoTracking().SingleOrDefaultAsync(happened => happened.Id == input.Id, cancel) is { } before)
        {
            return IsSame(before, bath, input, me.Units)
                ? TypedResults.Ok(await ViewAsync(db, me, clock, cancel))
                : Problem.Conflict("That id stands for something else that happened at a bath.", "Reload the page and tell it again.");
        }

        var row = new BathEventRow
        {
            Id = input.Id,
            Bath = bath,
            Kind = input.Kind,
            At = input.At is { } at && at < now ? at.ToUniversalTime() : now,
            PersonId = me.Person.Id,
            PersonName = me.Person.DisplayName,
        };
        var states = await BathBook.StatesAsync(db, shop.Cleaning, me.Recipes, now, cancel);
        if (row.At < now - OldestReading)
        {
            return Problem.Field("at", "That is too long ago to count for this load.");
        }

        var problem = input.Kind switch
        {
            BathEventKind.Temperature => ReadTemperature(input, row, me.Units),
            BathEventKind.HeaterOn or BathEventKind.HeaterOff => vessel.Vessel == Vessel.Heated
                ? null
                : Problem.Field("kind", "This one has no heater."),
            BathEventKind.Placed => await PlaceAsync(db, input, row, vessel, states, writer, me, cancel),
            BathEventKind.TakenOut or BathEventKind.Longer => await OfBasketAsync(
                db,
                input,
                row,
                states.Single(state => state.Bath.Key == bath),
                writer,
                me,
                cancel
            ),
        };
        if (problem is not null)
        {
            return problem;
        }

        db.BathEvents.Add(row);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ViewAsync(db, me, clock, cancel));
    }

    /// <summary>Whether what is sent again is what was recorded under its id; what was left to the bench is as the bench chose.</summary>
    private static bool IsSame(BathEventRow before, string bath, NewBathEvent input, UnitSystem units) =>
        before.Bath == bath
        && before.Kind == input.Kind
        && (input.TrayNumber is null || input.TrayNumber == before.TrayNumber)
        && (input.Basket is null || input.Basket == before.Basket)
        && (input.Kind != BathEventKind.Temperature || BathTemperature.Parse(input.Temperature ?? "", units).Value == before.TemperatureC);

    private static ValidationProblem? ReadTemperature(NewBathEvent input, BathEventRow row, UnitSystem units)
    {
        var read = BathTemperature.Parse(input.Temperature ?? "", units);
        row.TemperatureC = read.Value;
        return read.IsRight ? null : Problem.Field("temperature", read.Problem!);
    }

    private static async Task<ValidationProblem?> PlaceAsync(
        BlueDawnDb db,
        NewBathEvent input,
        BathEventRow row,
        Bath vessel,
        IReadOnlyList<BathState> states,
        NoteWriter writer,
        Me me,
        CancellationToken cancel
    )
    {
        if (input.TrayNumber is not { } number || await TrayFile.OpenAsync(db, number, me.Context, cancel, locked: true) is not { } file)
        {
            return Problem.Field("trayNumber", "Say which tray goes in.");
        }

        if (states.FirstOrDefault(state => state.Baskets.Any(basket => basket.Tray == number)) is { } where)
        {
            return Problem.Field("trayNumber", $"Tray {number} is in the {where.Bath.Label.ToLowerInvariant()} already.");
        }

        var state = states.Single(one => one.Bath.Key == vessel.Key);
        if (state.FreeBaskets.Count == 0 || (input.Basket is { } wanted && !state.FreeBaskets.Contains(wanted)))
        {
            return Problem.Field(
                "basket",
                state.FreeBaskets.Count == 0
                    ? $"All {vessel.Baskets} baskets are in. Wait until one comes out."
                    : $"Basket {input.Basket} is in. Free: {string.Join(", ", state.FreeBaskets)}."
            );
        }

        var offer = file.Book.State<CleaningState>().Plan.ForVessel(vessel.Vessel);
        if (offer.Standing == RecipeStanding.NotNow)
        {
            return Problem.Field("trayNumber", offer.Why);
        }

        row.TrayId = file.Tray.Id;
        row.TrayNumber = number;
        row.Basket = input.Basket ?? state.FreeBaskets[0];
        row.Recipe = offer.Recipe.Key;
        row.Minutes = offer.Recipe.Minutes;
        Note[] notes =
        [
            .. offer.Chosen ? Array.Empty<Note>() : [new MethodNote(offer.Recipe.Key, MethodStep.Chosen, PiecesOf(offer))],
            new BasketNote(vessel.Label, row.Basket.Value, true),
        ];
        return Record(writer, file, notes, me);
    }

    private static async Task<ValidationProblem?> OfBasketAsync(
        BlueDawnDb db,
        NewBathEvent input,
        BathEventRow row,
        BathState state,
        NoteWriter writer,
        Me me,
        CancellationToken cancel
    )
    {
        if (state.Baskets.FirstOrDefault(one => one.Tray == input.TrayNumber) is not { } basket)
        {
            return Problem.Field("trayNumber", "That tray is not in it.");
        }

        var file = (await TrayFile.OpenAsync(db, basket.Tray, me.Context, cancel, locked: true))!;
        row.TrayId = file.Tray.Id;
        row.TrayNumber = basket.Tray;
        row.Basket = basket.Number;
        row.Recipe = basket.Recipe;
        if (input.Kind == BathEventKind.Longer)
        {
            if (me.Recipes.Find(basket.Recipe)?.MoreMinutes is not { } more)
            {
                return Problem.Field("kind", "This way to clean has one length only.");
            }

            row.Minutes = more;
            return null;
        }

        return Record(
            writer,
            file,
            [
                new MethodNote(
                    basket.Recipe,
                    basket.HasHadItsTime || input.Clean ? MethodStep.Done : MethodStep.Short,
                    file.Book.State<CleaningState>().Plan.Find(basket.Recipe) is { Chosen: true } offer ? PiecesOf(offer) : null
                ),
                new BasketNote(state.Bath.Label, basket.Number, false, basket.Counted, basket.Minutes),
            ],
            me
        );
    }

    /// <summary>The pieces that go into a bath by a way to clean; null where nothing is written at Strip and nobody can say.</summary>
    private static IReadOnlyList<string>? PiecesOf(RecipeOffer offer) => offer.GoesIn.Count == 0 ? null : offer.GoesIn;

    /// <summary>Records what a bath says of a tray; what the rules refuse is said of the tray.</summary>
    private static ValidationProblem? Record(NoteWriter writer, TrayFile file, IReadOnlyList<Note> notes, Me me)
    {
        foreach (var note in notes)
        {
            (file, var refused) = writer.Record(file, note, me);
            if (refused is not null)
            {
                return Problem.Field("trayNumber", refused.Fields is [var first, ..] ? first.Message : refused.Title);
            }
        }

        return null;
    }

    private static async Task<BathsView> ViewAsync(BlueDawnDb db, Me me, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var shop = me.Context.Shop;
        var rows = (await BathBook.EventsAsync(db, now, cancel)).ToLookup(row => row.Bath);
        return new BathsView(
            now,
            [
                .. shop
                    .Cleaning.Baths.Select(bath =>
                        (Bath: bath, State: BathState.Of(bath, me.Recipes, [.. rows[bath.Key].Select(row => row.AsEvent())], now))
                    )
                    .Select(pair => new BathView(
                        pair.State,
                        me.Recipes.Recipes.First(recipe => recipe.Vessel == pair.Bath.Vessel),
                        [
                            .. pair
                                .State.Ahead(MinutesAhead, StepsAhead)
                                .Select(one => new BathReading(now.AddMinutes(one.Minute), one.TemperatureC)),
                        ],
                        [
                            .. rows[pair.Bath.Key]
                                .Where(row => row.TemperatureC is not null && row.At >= now - ReadingsShown)
                                .Select(row => new BathReading(row.At, row.TemperatureC!.Value)),
                        ]
                    )),
            ]
        );
    }
}
