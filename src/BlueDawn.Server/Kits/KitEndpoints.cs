using System.Security.Claims;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Worksheets;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Kits;

/// <summary>A spec sheet and how a stamped number agrees with it.</summary>
internal sealed record SpecOffer(SpecSheet Sheet, StampMatch Stamp, string? StampedAs);

/// <summary>A kit and how it fits.</summary>
internal sealed record KitOffer(
    string Number, string Name, string Maker, decimal Price, string Currency, int OnShelf, KitFit Fit, IReadOnlyList<KitPart> Parts);

/// <summary>What a stamped number or a spec sheet leads to.</summary>
/// <param name="Specs">Spec sheets, best agreement first.</param>
/// <param name="SpecCode">The sheet the kits are compared with, or null.</param>
/// <param name="Kits">Kits, best fit first.</param>
internal sealed record KitSearch(IReadOnlyList<SpecOffer> Specs, string? SpecCode, IReadOnlyList<KitOffer> Kits);

/// <summary>A spec sheet chosen for a tray.</summary>
/// <param name="EntryId">Id of the logbook entry this makes, UUIDv7.</param>
/// <param name="Version">The version the page has seen.</param>
/// <param name="SpecCode">The sheet.</param>
/// <param name="StampedNumber">The number it was found by, as read; the tray's own is kept when it is left out.</param>
internal sealed record SpecChoice(Guid EntryId, uint Version, string SpecCode, string? StampedNumber = null);

/// <summary>A kit chosen for a tray.</summary>
internal sealed record KitChoice(Guid EntryId, uint Version, string KitNumber);

internal static class KitEndpoints
{
    public static void MapKits(this RouteGroupBuilder api)
    {
        api.MapGet("/kits", SearchAsync).WithName("searchKits").WithTags("Kits");
        var tray = api.MapGroup("/trays/{number:int}").WithTags("Kits").RequireAuthorization(PeopleSetup.AtTheBench);
        tray.MapPut("/spec", ChooseSpecAsync).WithName("chooseSpec");
        tray.MapPut("/kit", ChooseKitAsync).WithName("chooseKit");
    }

    private static async Task<Ok<KitSearch>> SearchAsync(string? stamped, string? spec, BlueDawnDb db, CancellationToken cancel)
    {
        var shop = await TrayFile.ShopAsync(db, cancel);
        var sheets = await db.SpecSheets.AsNoTracking().OrderBy(row => row.Code).Select(row => row.Sheet).ToListAsync(cancel);
        var offers = sheets
            .Select(sheet => sheet.StampedNumbers
                .Select(number => new SpecOffer(sheet, StampedNumber.Compare(stamped, number), number))
                .MaxBy(offer => offer.Stamp)!)
            .Select(offer => offer.Stamp == StampMatch.None ? offer with { StampedAs = null } : offer)
            .OrderByDescending(offer => offer.Stamp)
            .ToList();
        var chosen = sheets.FirstOrDefault(sheet => sheet.Code == spec)
            ?? (offers.Count(offer => offer.Stamp == StampMatch.Exact) == 1 ? offers[0].Sheet : null);
        var shelf = await Shelf.CountAsync(db, cancel);
        var kits = (await db.Kits.AsNoTracking().ToListAsync(cancel))
            .Select(kit => (Kit: kit, Fit: KitFit.Of(kit.Contents, chosen, stamped)))
            .Where(pair => pair.Fit is not null)
            .Select(pair => new KitOffer(
                pair.Kit.Number, pair.Kit.Contents.Name, pair.Kit.Contents.Maker, pair.Kit.Price, shop.Currency, shelf.GetValueOrDefault(pair.Kit.Id), pair.Fit!, pair.Kit.Contents.Parts))
            .OrderByDescending(offer => offer.Fit.Verdict)
            .ThenByDescending(offer => offer.OnShelf > 0)
            .ThenBy(offer => offer.Price)
            .ToList();
        return TypedResults.Ok(new KitSearch(offers, chosen?.Code, kits));
    }

    private static Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChooseSpecAsync(
        int number, SpecChoice choice, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel) =>
        ChangeAsync(number, choice.EntryId, choice.Version, choice, db, user, people, async (tray, me) =>
        {
            if (!await db.SpecSheets.AnyAsync(row => row.Code == choice.SpecCode, cancel))
            {
                return Problem.Field("specCode", "There is no spec sheet of that name. Pick one from the list.");
            }

            var stamped = (choice.StampedNumber ?? tray.StampedNumber).Trim();
            if (stamped.Length > StampedNumber.Longest)
            {
                return Problem.Field("stampedNumber", $"Longer than {StampedNumber.Longest} characters. Check the number.");
            }

            var found = stamped == tray.StampedNumber ? "" : $", stamped number {stamped}";
            tray.SpecCode = choice.SpecCode;
            tray.StampedNumber = stamped;
            db.Log(choice.EntryId, tray, EntryKind.SpecChosen, me, $"Spec sheet {choice.SpecCode}{found}", clock);
            return null;
        }, cancel);

    private static Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChooseKitAsync(
        int number, KitChoice choice, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel) =>
        ChangeAsync(number, choice.EntryId, choice.Version, choice, db, user, people, async (tray, me) =>
        {
            if (await db.Kits.SingleOrDefaultAsync(kit => kit.Number == choice.KitNumber, cancel) is not { } kit)
            {
                return Problem.Field("kitNumber", "There is no kit of that number. Pick one from the list.");
            }

            var fromShelf = await Shelf.ChooseAsync(db, tray, kit, me.Id, clock.GetUtcNow(), cancel);
            if (!fromShelf)
            {
                tray.WaitsFor = WaitsFor.Parts;
                tray.WaitNote = $"kit {kit.Number} to order";
            }

            db.Log(choice.EntryId, tray, EntryKind.KitChosen, me, $"Kit {kit.Number} {(fromShelf ? "taken from the shelf" : "to order, none on the shelf")}", clock);
            return null;
        }, cancel);

    /// <summary>One change of a tray inside one transaction, once however often it is sent.</summary>
    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChangeAsync(
        int number,
        Guid entryId,
        uint version,
        object yours,
        BlueDawnDb db,
        ClaimsPrincipal user,
        UserManager<Person> people,
        Func<Tray, Person, Task<ValidationProblem?>> change,
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
        if (await change(file.Tray, me) is { } problem)
        {
            return problem;
        }

        try
        {
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
