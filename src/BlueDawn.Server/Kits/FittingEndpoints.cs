using System.Security.Claims;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Kits;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Kits;

/// <summary>The ways to renew a tray's parts, side by side.</summary>
/// <param name="Decision">Every option worked out, and the one advised.</param>
/// <param name="Items">What each option takes out of the catalogue.</param>
/// <param name="Renew">Parts it was worked out for.</param>
/// <param name="Terms">What the sums go by.</param>
/// <param name="Rates">How often each option came back.</param>
/// <param name="Currency">Currency of prices (ISO 4217).</param>
internal sealed record FittingView(
    FitDecision Decision,
    IReadOnlyDictionary<FitOption, IReadOnlyList<FittedItem>> Items,
    IReadOnlyList<string> Renew,
    FitTerms Terms,
    IReadOnlyList<ReturnRate> Rates,
    string Currency);

/// <summary>A spec sheet chosen for a tray.</summary>
/// <param name="EntryId">Id of the logbook entry this makes, UUIDv7.</param>
/// <param name="Version">The version the page has seen.</param>
/// <param name="SpecCode">The sheet.</param>
/// <param name="StampedNumber">The number it was found by, as read; the tray's own is kept when it is left out.</param>
internal sealed record SpecChoice(Guid EntryId, uint Version, string SpecCode, string? StampedNumber = null);

/// <summary>What is to be fitted to a tray.</summary>
/// <param name="EntryId">Id of the logbook entry this makes, UUIDv7.</param>
/// <param name="Version">The version the page has seen.</param>
/// <param name="Option">Which option.</param>
/// <param name="Renew">Parts to renew; null for all.</param>
/// <param name="KitNumber">A kit picked by hand; null for the one the sums are about.</param>
internal sealed record FittingInput(Guid EntryId, uint Version, FitOption Option, IReadOnlyList<string>? Renew = null, string? KitNumber = null);

/// <summary>What was on order is there: it is taken from the shelf for the tray.</summary>
internal sealed record PartsArrived(Guid EntryId, uint Version);

internal static class FittingEndpoints
{
    public static void MapFitting(this RouteGroupBuilder api)
    {
        var tray = api.MapGroup("/trays/{number:int}").WithTags("Kits");
        tray.MapGet("/fitting", ShowAsync).WithName("getFitting");
        var bench = tray.MapGroup("").RequireAuthorization(PeopleSetup.AtTheBench);
        bench.MapPut("/spec", ChooseSpecAsync).WithName("chooseSpec");
        bench.MapPut("/fitting", ChooseAsync).WithName("chooseFitting");
        bench.MapPut("/fitting/arrived", ArrivedAsync).WithName("partsArrived");
    }

    private static async Task<Results<Ok<FittingView>, ProblemHttpResult>> ShowAsync(int number, string[]? renew, BlueDawnDb db, TimeProvider clock, CancellationToken cancel)
    {
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var asked = renew is { Length: > 0 } ? renew : null;
        var (priced, decision) = await FittingChoice.DecideAsync(db, file, asked, clock.Today(), cancel);
        return TypedResults.Ok(new FittingView(
            decision,
            priced.ToDictionary(option => option.Offer.Option, option => option.Items),
            [.. file.Wanted.Select(part => part.Part).Where(part => asked is null || asked.Contains(part))],
            FittingChoice.Terms(file, clock.Today()),
            await Shelf.ReturnRatesAsync(db, file.Shop.Fit, cancel),
            file.Shop.Currency));
    }

    private static Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChooseSpecAsync(
        int number, SpecChoice choice, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel) =>
        ChangeAsync(number, choice.EntryId, choice.Version, choice, db, user, people, async (file, me) =>
        {
            if (await db.SpecSheets.AsNoTracking().SingleOrDefaultAsync(row => row.Code == choice.SpecCode, cancel) is not { } row)
            {
                return Problem.Field("specCode", "There is no spec sheet of that name. Pick one from the list.");
            }

            var tray = file.Tray;
            var stamped = (choice.StampedNumber ?? tray.StampedNumber).Trim();
            if (stamped.Length > Stamp.Longest)
            {
                return Problem.Field("stampedNumber", $"Longer than {Stamp.Longest} characters. Check the number.");
            }

            var found = stamped == tray.StampedNumber ? "" : $", stamped number {stamped}";
            tray.SpecCode = choice.SpecCode;
            tray.StampedNumber = stamped;
            // The sheet knows what kind it is; what was noted at check-in was a first look.
            tray.Family = row.Sheet.Family;
            db.Log(choice.EntryId, tray, EntryKind.SpecChosen, me, $"Spec sheet {choice.SpecCode}{found}", clock);
            return null;
        }, cancel);

    private static Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChooseAsync(
        int number, FittingInput input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel) =>
        ChangeAsync(number, input.EntryId, input.Version, input, db, user, people, async (file, me) =>
        {
            Fitting? fitting;
            if (input.KitNumber is { } kit)
            {
                fitting = await FittingChoice.KitAsync(db, file, kit, clock.Today(), cancel);
                if (fitting is null)
                {
                    return Problem.Field("kitNumber", "There is no kit of that number. Pick one from the list.");
                }
            }
            else
            {
                var (priced, _) = await FittingChoice.DecideAsync(db, file, input.Renew, clock.Today(), cancel);
                var option = priced.Single(one => one.Offer.Option == input.Option);
                if (option.Offer.Obstacle is { } obstacle)
                {
                    return Problem.Field("option", obstacle);
                }

                fitting = FittingChoice.ToFitting(option, [.. file.Wanted.Select(part => part.Part).Where(part => input.Renew is null || input.Renew.Contains(part))]);
            }

            var waited = file.Tray.Fitting?.ToOrder == true;
            fitting = await Shelf.FitAsync(db, file.Tray, fitting, me.Id, clock.GetUtcNow(), cancel);
            Wait(file.Tray, waited);
            db.Log(input.EntryId, file.Tray, EntryKind.KitChosen, me, FittingChoice.Words(fitting), clock);
            return null;
        }, cancel);

    private static Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ArrivedAsync(
        int number, PartsArrived input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel) =>
        ChangeAsync(number, input.EntryId, input.Version, input, db, user, people, async (file, me) =>
        {
            if (file.Tray.Fitting is not { ToOrder: true } before)
            {
                return Problem.Field("fitting", "Nothing is on order for this tray.");
            }

            // What it has already goes back to the shelf in thought: the whole of it is looked for anew.
            var there = await FittingChoice.FromShelfAsync(db, file, before, clock.Today(), cancel);
            var fitting = there is null ? null : await Shelf.FitAsync(db, file.Tray, there, me.Id, clock.GetUtcNow(), cancel);
            if (fitting is null or { ToOrder: true })
            {
                return Problem.Field("fitting", $"Not on the shelf yet: {string.Join(", ", (fitting ?? before).Items.Where(item => !item.FromShelf).Select(item => item.Number))}. Book it in at Stock first.");
            }

            Wait(file.Tray, waited: true);
            db.Log(input.EntryId, file.Tray, EntryKind.KitChosen, me, "Parts are here. " + FittingChoice.Words(fitting), clock);
            return null;
        }, cancel);

    /// <summary>A tray with something on order waits for parts; one that did waits for hands again.</summary>
    private static void Wait(Tray tray, bool waited)
    {
        if (tray.Fitting is { ToOrder: true } fitting)
        {
            tray.WaitsFor = WaitsFor.Parts;
            tray.WaitNote = $"{string.Join(", ", fitting.Items.Where(item => !item.FromShelf).Select(item => item.Number))} to order";
        }
        else if (waited && tray.WaitsFor == WaitsFor.Parts)
        {
            tray.WaitsFor = WaitsFor.Hands;
            tray.WaitNote = "";
        }
    }

    /// <summary>One change of a tray inside one transaction, once however often it is sent.</summary>
    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChangeAsync(
        int number,
        Guid entryId,
        uint version,
        object yours,
        BlueDawnDb db,
        ClaimsPrincipal user,
        UserManager<Person> people,
        Func<TrayFile, Person, Task<ValidationProblem?>> change,
        CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (file.Entries.Any(entry => entry.Id == entryId))
        {
            return TypedResults.Ok(TrayView.Of(file, pins));
        }

        if (TrayWriting.RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        db.Expect(file.Tray, version);
        try
        {
            if (await change(file, me) is { } problem)
            {
                return problem;
            }

            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            await transaction.RollbackAsync(cancel);
            return await TrayWriting.ChangedMeanwhileAsync(db, number, yours, cancel);
        }

        db.ChangeTracker.Clear();
        return TypedResults.Ok(TrayView.Of((await TrayFile.OpenAsync(db, number, cancel))!, pins));
    }
}
