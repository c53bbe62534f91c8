using System.Text.Json;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Cleaning;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Rules;

/// <summary>What the shop is called and where it stands.</summary>
/// <param name="Name">Its name.</param>
/// <param name="TimeZone">Its time zone by its IANA name; empty for the clock of the server.</param>
/// <param name="Currency">Three letters.</param>
internal sealed record ShopFacts(string Name, string TimeZone, string Currency);

/// <summary>When the shop is open, as it is typed.</summary>
/// <param name="Week">Such as <c>Mon-Fri 8:00-17:00, Sat 9:00-12:30</c>; empty while nobody has said.</param>
/// <param name="Shut">Holidays and other days it is shut, a line each: <c>2026-12-24 to 2027-01-02 Christmas</c>, <c>1 May</c>.</param>
internal sealed record OpenText(string Week, string Shut);

/// <summary>A day on which the shop is shut.</summary>
/// <param name="Day">The day.</param>
/// <param name="Why">Why.</param>
internal sealed record ShutDay(DateOnly Day, string Why);

/// <summary>Other suppliers.</summary>
/// <param name="Suppliers">All of them, as they were typed.</param>
/// <param name="Was">The ones they were changed from.</param>
internal sealed record SuppliersChange(IReadOnlyList<TypedSupplier> Suppliers, IReadOnlyList<Supplier> Was);

/// <summary>Other hours.</summary>
/// <param name="Open">The new ones.</param>
/// <param name="Was">The ones they were changed from.</param>
internal sealed record OpenChange(OpenText Open, OpenText Was);

/// <summary>Other sets of gauge pins.</summary>
/// <param name="Sets">All of them, as they were typed.</param>
/// <param name="Was">The ones they were changed from.</param>
internal sealed record PinSetsChange(IReadOnlyList<NamedPins> Sets, IReadOnlyList<NamedPins> Was);

/// <summary>What belongs to the shop besides its rules.</summary>
/// <param name="Facts">What it is called and where it stands.</param>
/// <param name="Open">When it is open.</param>
/// <param name="ShutDays">The days it is shut, of the next months.</param>
/// <param name="Suppliers">Who it orders from, and what one order costs to send.</param>
/// <param name="PinSets">Its sets of gauge pins.</param>
/// <param name="Label">The labels its printer takes.</param>
/// <param name="Baths">Its baths.</param>
/// <param name="DateCodes">How makers write the day a carburetor was made.</param>
internal sealed record ShopView(
    ShopFacts Facts,
    OpenText Open,
    IReadOnlyList<ShutDay> ShutDays,
    IReadOnlyList<Supplier> Suppliers,
    IReadOnlyList<NamedPins> PinSets,
    LabelSize Label,
    IReadOnlyList<Bath> Baths,
    IReadOnlyList<DateCodePattern> DateCodes
);

/// <summary>Other facts.</summary>
/// <param name="Facts">The new ones.</param>
/// <param name="Was">The ones they were changed from.</param>
internal sealed record FactsChange(ShopFacts Facts, ShopFacts Was);

/// <summary>Other baths.</summary>
/// <param name="Baths">All of them, as they were typed.</param>
/// <param name="Units">The units that a number without a unit is in.</param>
/// <param name="Was">The ones they were changed from.</param>
internal sealed record BathsChange(IReadOnlyList<TypedBath> Baths, UnitSystem Units, IReadOnlyList<Bath> Was);

/// <summary>Other date codes.</summary>
/// <param name="Patterns">All of them.</param>
/// <param name="Was">The ones they were changed from.</param>
internal sealed record DateCodesChange(IReadOnlyList<DateCodePattern> Patterns, IReadOnlyList<DateCodePattern> Was);

internal static class ShopEndpoints
{
    private const int MostPatterns = 200;

    /// <summary>How far ahead the days are named on which the shop is shut.</summary>
    private const int DaysShown = 200;

    public static void MapShop(this RouteGroupBuilder api)
    {
        var shop = api.MapGroup("/shop").WithTags("Rules");
        shop.MapGet("", async (BlueDawnDb db, TimeProvider clock, CancellationToken cancel) =>
                TypedResults.Ok(await ViewAsync(db, await db.Shop.AsNoTracking().SingleAsync(cancel), clock, cancel))
            )
            .WithName("getShop")
            .WithSummary("What belongs to the shop besides its rules");
        var lead = shop.MapGroup("").RequireAuthorization(nameof(Permission.ManageShop));
        lead.MapPut("/facts", FactsAsync).WithName("changeShopFacts").WithSummary("Change the shop's name, time zone or currency");
        lead.MapPut("/open", OpenAsync).WithName("changeOpenDays").WithSummary("Change when the shop is open");
        lead.MapPut("/suppliers", SuppliersAsync)
            .WithName("changeSuppliers")
            .WithSummary("Change who the shop orders from, and what an order costs to send");
        lead.MapPut("/pin-sets", PinSetsAsync).WithName("changePinSets").WithSummary("Change the shop's sets of gauge pins");
        lead.MapPut("/baths", BathsAsync).WithName("changeBaths").WithSummary("Change the shop's baths");
        lead.MapPut("/date-codes", DateCodesAsync)
            .WithName("changeDateCodes")
            .WithSummary("Change how makers write the day a carburetor was made");
    }

    private static Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> FactsAsync(
        FactsChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            "shop",
            Facts,
            input.Was,
            shop =>
            {
                var facts = input.Facts with { Name = input.Facts.Name.Trim(), Currency = input.Facts.Currency.Trim().ToUpperInvariant() };
                var problems = new ShopStart(
                    facts.Name,
                    facts.TimeZone.Length == 0 && shop.TimeZone.Length == 0 ? "UTC" : facts.TimeZone,
                    facts.Currency,
                    "1"
                ).Check();
                if (problems.Count == 0)
                {
                    (shop.Name, shop.TimeZone, shop.Defaults) = (
                        facts.Name,
                        facts.TimeZone,
                        shop.Defaults with
                        {
                            Currency = facts.Currency,
                        }
                    );
                }

                return Task.FromResult<(IReadOnlyList<FieldProblem>, string)>(
                    (problems, $"The shop is {facts.Name}, {facts.TimeZone}, {facts.Currency}.")
                );
            },
            db,
            me,
            clock,
            cancel
        );

    private static Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> OpenAsync(
        OpenChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            "open",
            Open,
            input.Was,
            shop =>
            {
                var (read, problems) = OpenDays.Parse(input.Open.Week, input.Open.Shut);
                if (problems.Count == 0)
                {
                    shop.Defaults = shop.Defaults with { Open = read };
                }

                return Task.FromResult<(IReadOnlyList<FieldProblem>, string)>(
                    (problems, $"Open {read.WeekText}; shut {read.ShutText.Replace('\n', ',')}.")
                );
            },
            db,
            me,
            clock,
            cancel
        );

    private static Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> PinSetsAsync(
        PinSetsChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            "pin-sets",
            shop => shop.Defaults.PinSets,
            input.Was,
            shop =>
            {
                var (sets, problems) = NamedPins.Read(input.Sets);
                if (problems.Count == 0)
                {
                    shop.Defaults = shop.Defaults with { PinSets = sets };
                }

                return Task.FromResult<(IReadOnlyList<FieldProblem>, string)>(
                    (problems, $"Gauge pins: {string.Join("; ", sets.Select(set => $"{set.Name}: {set.Pins}"))}.")
                );
            },
            db,
            me,
            clock,
            cancel
        );

    private static Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> BathsAsync(
        BathsChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            "baths",
            shop => shop.Defaults.Cleaning.Baths,
            input.Was,
            async shop =>
            {
                var cleaning = shop.Defaults.Cleaning;
                var states = await BathBook.StatesAsync(db, cleaning, me.Recipes, clock.GetUtcNow(), cancel);
                var read = BathForm.Read(
                    input.Baths,
                    input.Units,
                    cleaning.Baths,
                    [.. states.Select(state => new BathInUse(state.Bath.Key, [.. state.Baskets.Select(basket => basket.Number)]))]
                );
                if (read.Problems.Count == 0)
                {
                    shop.Defaults = shop.Defaults with { Cleaning = cleaning with { Baths = read.Baths } };
                }

                return (read.Problems, $"The baths: {string.Join(", ", read.Baths.Select(bath => bath.Label))}.");
            },
            db,
            me,
            clock,
            cancel
        );

    private static Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> DateCodesAsync(
        DateCodesChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        IReadOnlyList<DateCodePattern> patterns =
        [
            .. input.Patterns.Select(one =>
                one with
                {
                    Maker = one.Maker.Trim(),
                    Pattern = one.Pattern.Trim().ToUpperInvariant(),
                    Source = one.Source.Trim(),
                }
            ),
        ];
        return ChangeAsync(
            "date-codes",
            _ => DateCodes(db),
            input.Was,
            async _ =>
            {
                IReadOnlyList<FieldProblem> problems =
                    patterns.Count > MostPatterns
                        ? [new("patterns", $"No more than {MostPatterns} patterns.")]
                        : DateCode.Problems(patterns);
                if (problems.Count == 0)
                {
                    await db.DateCodes.ExecuteDeleteAsync(cancel);
                    db.DateCodes.AddRange(patterns.Select(one => new DateCodeRow { Maker = one.Maker, Code = one }));
                }

                return (problems, $"Date codes of {string.Join(", ", patterns.Select(one => one.Maker))}.");
            },
            db,
            me,
            clock,
            cancel
        );
    }

    /// <summary>Changes something of the shop under its lock, when it is still what whoever changes it has seen.</summary>
    private static async Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> ChangeAsync<T>(
        string about,
        Func<ShopRow, T> now,
        T was,
        Func<ShopRow, Task<(IReadOnlyList<FieldProblem> Problems, string What)>> change,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Shop.FromSql($"select *, xmin from shop for update").SingleAsync(cancel);
        if (
            !JsonElement.DeepEquals(
                JsonSerializer.SerializeToElement(now(row), StoreJson.Options),
                JsonSerializer.SerializeToElement(was, StoreJson.Options)
            )
        )
        {
            return Problem.Conflict(
                "It was changed meanwhile.",
                "Look at what it is now, then decide. Nothing was changed.",
                ("shop", await ViewAsync(db, row, clock, cancel))
            );
        }

        var (problems, what) = await change(row);
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var at = clock.GetUtcNow();
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(at),
                At = at,
                By = me.Person.DisplayName,
                About = about,
                What = what,
            }
        );
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ViewAsync(db, row, clock, cancel));
    }

    private static Task<Results<Ok<ShopView>, ValidationProblem, ProblemHttpResult>> SuppliersAsync(
        SuppliersChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        ChangeAsync(
            "suppliers",
            _ => Suppliers(db),
            input.Was,
            async _ =>
            {
                var selling = await db.Offers.Select(offer => offer.Supplier).Distinct().ToListAsync(cancel);
                var (read, problems) = SupplierForm.Read(input.Suppliers, selling);
                if (problems.Count == 0)
                {
                    var rows = await db.Suppliers.ToDictionaryAsync(row => row.Name, cancel);
                    db.Suppliers.RemoveRange(rows.Values.Where(row => read.All(one => one.Name != row.Name)));
                    foreach (var one in read)
                    {
                        if (rows.TryGetValue(one.Name, out var row))
                        {
                            row.Freight = one.Freight;
                        }
                        else
                        {
                            db.Suppliers.Add(new SupplierRow { Name = one.Name, Freight = one.Freight });
                        }
                    }
                }

                return (problems, $"Suppliers: {string.Join(", ", read.Select(one => $"{one.Name}, freight {one.Freight}"))}.");
            },
            db,
            me,
            clock,
            cancel
        );

    private static List<Supplier> Suppliers(BlueDawnDb db) =>
        [.. db.Suppliers.AsNoTracking().OrderBy(row => row.Name).Select(row => new Supplier(row.Name, row.Freight))];

    private static OpenText Open(ShopRow shop) => new(shop.Defaults.Open.WeekText, shop.Defaults.Open.ShutText);

    private static ShopFacts Facts(ShopRow shop) => new(shop.Name, shop.TimeZone, shop.Defaults.Currency);

    private static IReadOnlyList<DateCodePattern> DateCodes(BlueDawnDb db) =>
        [.. db.DateCodes.AsNoTracking().OrderBy(row => row.Maker).Select(row => row.Code)];

    private static async Task<ShopView> ViewAsync(BlueDawnDb db, ShopRow shop, TimeProvider clock, CancellationToken cancel)
    {
        var today = clock.Today(shop.TimeZone);
        return new ShopView(
            Facts(shop),
            Open(shop),
            [
                .. Enumerable
                    .Range(0, DaysShown)
                    .Select(today.AddDays)
                    .Select(day => (day, Why: shop.Defaults.Open.WhyShut(day)))
                    .Where(one => one.Why is not null)
                    .Select(one => new ShutDay(one.day, one.Why!)),
            ],
            Suppliers(db),
            shop.Defaults.PinSets,
            shop.Defaults.Label,
            shop.Defaults.Cleaning.Baths,
            await db.DateCodes.AsNoTracking().OrderBy(row => row.Maker).Select(row => row.Code).ToListAsync(cancel)
        );
    }
}
