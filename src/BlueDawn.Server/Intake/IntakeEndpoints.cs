using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Intake;

/// <summary>A carburetor that comes in.</summary>
/// <param name="TrayId">Id of the tray, made by the client, UUIDv7: sent twice, it is one tray.</param>
/// <param name="EntryId">Id of the logbook entry, made by the client, UUIDv7.</param>
/// <param name="OwnerName">Owner.</param>
/// <param name="MachineName">Machine.</param>
/// <param name="Family">Kind of carburetor.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="PromisedDay">The day it is promised for.</param>
/// <param name="OwnerContact">How to reach the owner.</param>
/// <param name="StampedNumber">Number stamped on the carburetor.</param>
/// <param name="Engine">The engine it feeds.</param>
/// <param name="Choke">Its choke.</param>
/// <param name="Story">What was said and seen, for the trace.</param>
internal sealed record NewTray(
    Guid TrayId,
    Guid EntryId,
    string OwnerName,
    string MachineName,
    CarburetorFamily? Family,
    string Complaint,
    DateOnly PromisedDay,
    string? OwnerContact = null,
    string? StampedNumber = null,
    EngineKind? Engine = null,
    ChokeKind? Choke = null,
    Story? Story = null);

/// <summary>What a stamped number says of a carburetor.</summary>
/// <param name="Code">Its spec sheet.</param>
/// <param name="Maker">Who made it.</param>
/// <param name="Family">Its kind.</param>
/// <param name="Engine">The engine it is found on, or null when it is found on both kinds.</param>
/// <param name="Choke">Its choke, or null when it is found with several.</param>
internal sealed record KnownStamp(string Code, string Maker, CarburetorFamily Family, EngineKind? Engine, ChokeKind? Choke);

/// <summary>What is known of a stamped number.</summary>
/// <param name="Sheet">The one sheet it is on; null while it is on none, or on several.</param>
internal sealed record StampedView(KnownStamp? Sheet);

/// <summary>A tray that the same machine had before, with what was wrong then.</summary>
/// <param name="Number">Number on its tag.</param>
/// <param name="CheckedInAt">When it came in.</param>
/// <param name="Complaint">What the owner said.</param>
/// <param name="Faults">What was found to be wrong; empty when nothing was, or nothing was noted.</param>
/// <param name="HandedBack">Whether it has been handed back.</param>
internal sealed record EarlierTray(int Number, DateTimeOffset CheckedInAt, string Complaint, IReadOnlyList<string> Faults, bool HandedBack);

/// <summary>An owner and their machines, to be found again when they come back.</summary>
internal sealed record KnownOwner(string Name, string Contact, IReadOnlyList<string> Machines);

internal static class IntakeEndpoints
{
    private const int MostEarlier = 5;

    public static void MapIntake(this RouteGroupBuilder api)
    {
        api.MapPost("/trays", CheckInAsync).WithName("checkIn").WithSummary("Check a machine in on a new tray").WithTags("Intake").RequireAuthorization(nameof(May.CheckIn));
        api.MapGet("/stamped", StampedAsync).WithName("findStamped").WithSummary("The spec sheet a stamped number is on").WithTags("Intake");
        api.MapGet("/owners", ListOwnersAsync).WithName("listOwners").WithSummary("Owners and their machines").WithTags("Intake");
        api.MapGet("/earlier", ListEarlierAsync).WithName("listEarlier").WithSummary("Earlier trays of a machine").WithTags("Intake");
    }

    /// <summary>Earlier trays of a machine, newest first.</summary>
    private static async Task<Ok<List<EarlierTray>>> ListEarlierAsync(string owner, string machine, BlueDawnDb db, Me me, CancellationToken cancel)
    {
        var (ownerName, machineName) = (owner.Trim(), machine.Trim());
        var numbers = await db.Trays
            .Where(tray => tray.Machine.Name == machineName && tray.Machine.Owner.Name == ownerName)
            .OrderByDescending(tray => tray.Number)
            .Select(tray => tray.Number)
            .Take(MostEarlier)
            .ToListAsync(cancel);
        var earlier = new List<EarlierTray>();
        foreach (var number in numbers)
        {
            var file = (await TrayFile.OpenAsync(db, number, me.Desk, cancel))!;
            earlier.Add(new EarlierTray(
                number,
                file.Tray.CheckedInAt,
                file.Book.Facts.Complaint,
                [.. file.Book.State<FaultsState>().Evidence.Found.Select(fault => fault.Label)],
                file.Book.IsHandedBack));
        }

        return TypedResults.Ok(earlier);
    }

    private static async Task<Ok<List<KnownOwner>>> ListOwnersAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var machines = await db.Machines.Include(machine => machine.Owner).AsNoTracking().ToListAsync(cancel);
        return TypedResults.Ok(machines
            .GroupBy(machine => machine.Owner.Name)
            .OrderBy(owner => owner.Key, StringComparer.OrdinalIgnoreCase)
            .Select(owner => new KnownOwner(owner.Key, owner.First().Owner.Contact, [.. owner.Select(machine => machine.Name).Distinct().Order()]))
            .ToList());
    }

    private static async Task<Results<Created<TrayView>, Ok<TrayView>, ValidationProblem, ProblemHttpResult>> CheckInAsync(
        NewTray input, BlueDawnDb db, NoteWriter writer, Me me, TimeProvider clock, CancellationToken cancel)
    {
        if (await SentBeforeAsync(db, input, me, cancel) is { } before)
        {
            return before;
        }

        var checkIn = new CheckIn(input.OwnerName, input.OwnerContact, input.MachineName, input.StampedNumber, input.Complaint, input.PromisedDay);
        var story = input.Story is { } told ? StoryEvidence.Of(told) : [];
        var sheet = await OnlyExactSpecAsync(db, (input.StampedNumber ?? "").Trim(), input.Family, cancel);
        var kind = CheckIn.KindOf(input.Family, input.Engine, input.Choke, sheet);
        if (checkIn.Check(me.Desk.Today).Concat(kind.Problem is { } which ? [new FieldProblem("family", which)] : []).Concat(input.Story?.Check(me.Desk.Today) ?? []).Concat(story.SelectMany(note => note.Check(me.Desk.Knowledge.Of().Of<FaultKnowledge>()))).ToList() is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        var tray = new Tray
        {
            Id = input.TrayId,
            Machine = await FindMachineAsync(db, checkIn, clock.GetUtcNow(), cancel),
            StampedNumber = (input.StampedNumber ?? "").Trim(),
            Family = kind.Value!.Family,
            Engine = kind.Value.Engine,
            Choke = kind.Value.Choke,
            Story = input.Story,
            Complaint = input.Complaint.Trim(),
            PromisedDay = input.PromisedDay,
            WaitsFor = WaitsFor.Hands,
            CheckedInAt = clock.GetUtcNow(),
        };
        (tray.SpecCode, tray.SpecIssue) = (sheet?.Code, sheet?.Issue);
        db.Trays.Add(tray);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        try
        {
            await db.SaveChangesAsync(cancel);
            var file = (await TrayFile.OpenAsync(db, tray.Number, me.Desk, cancel))!;
            file = writer.Append(file, new CheckedInNote(tray.SpecCode), me, input.EntryId);
            foreach (var note in story)
            {
                file = writer.Append(file, note, me);
            }

            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }
        catch (DbUpdateException e) when (NoteWriter.IsDuplicate(e))
        {
            await transaction.RollbackAsync(cancel);
            db.ChangeTracker.Clear();
            return await SentBeforeAsync(db, input, me, cancel) ?? Problem.Conflict("That logbook id has been used.", "Reload the page and check in again.");
        }

        return TypedResults.Created($"/api/trays/{tray.Number}", Shown((await TrayFile.OpenAsync(db, tray.Number, me.Desk, cancel))!));
    }

    /// <summary>The tray as it is when this very check-in is in the book already; 409 when its id stands for another.</summary>
    private static async Task<Results<Created<TrayView>, Ok<TrayView>, ValidationProblem, ProblemHttpResult>?> SentBeforeAsync(BlueDawnDb db, NewTray input, Me me, CancellationToken cancel)
    {
        var before = await db.Trays.Where(tray => tray.Id == input.TrayId).Select(tray => new { tray.Number, Machine = tray.Machine.Name, Owner = tray.Machine.Owner.Name, tray.CheckedInAt }).SingleOrDefaultAsync(cancel);
        if (before is null)
        {
            return null;
        }

        // What stands on it may have been changed since; whose it is and under which entry it came in has not.
        var same = before.Machine == input.MachineName.Trim() && before.Owner == input.OwnerName.Trim()
            && await db.LogbookEntries.AnyAsync(entry => entry.Id == input.EntryId && db.Trays.Any(tray => tray.Id == entry.TrayId && tray.Number == before.Number), cancel);
        return same
            ? TypedResults.Ok(Shown((await TrayFile.OpenAsync(db, before.Number, me.Desk, cancel))!))
            : Problem.Conflict("That tray's id stands for another check-in.", "Reload the page and check in again.");
    }

    private static TrayView Shown(TrayFile file) => TrayView.Of(file.Head, file.Book);

    private static async Task<Machine> FindMachineAsync(BlueDawnDb db, CheckIn checkIn, DateTimeOffset now, CancellationToken cancel)
    {
        var (ownerName, machineName) = (checkIn.OwnerName.Trim(), checkIn.MachineName.Trim());
        // Capitals make no other owner; one spelled exactly so comes first.
        var owner = await db.Owners.Where(o => EF.Functions.ILike(o.Name, Like.Exactly(ownerName), Like.Sign)).OrderByDescending(o => o.Name == ownerName).FirstOrDefaultAsync(cancel)
            ?? new Owner { Id = Guid.CreateVersion7(now), Name = ownerName };
        if (!string.IsNullOrWhiteSpace(checkIn.OwnerContact))
        {
            owner.Contact = checkIn.OwnerContact.Trim();
        }

        return await db.Machines.Where(m => m.OwnerId == owner.Id && EF.Functions.ILike(m.Name, Like.Exactly(machineName), Like.Sign)).OrderByDescending(m => m.Name == machineName).FirstOrDefaultAsync(cancel)
            ?? new Machine { Id = Guid.CreateVersion7(now), Owner = owner, Name = machineName };
    }

    /// <summary>The spec sheet whose stamped number is exactly this one, when there is just one such sheet.</summary>
    private static async Task<SpecSheet?> OnlyExactSpecAsync(BlueDawnDb db, string stamped, CarburetorFamily? family, CancellationToken cancel) => stamped.Length == 0
        ? null
        : Stamp.OnlySheet(stamped, family, await db.SpecSheets.AsNoTracking().Where(row => row.Current).Select(row => row.Sheet).ToListAsync(cancel));

    /// <summary>The sheet a stamped number is on, while it is on one only.</summary>
    private static async Task<Ok<StampedView>> StampedAsync(string number, BlueDawnDb db, CancellationToken cancel) =>
        TypedResults.Ok(new StampedView(
            number.Trim().Length <= StampedNumber.Longest && await OnlyExactSpecAsync(db, number.Trim(), null, cancel) is { } sheet
                ? new KnownStamp(sheet.Code, sheet.Maker, sheet.Family, sheet.Engine, sheet.Choke)
                : null));
}
