using System.Security.Claims;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Worksheets;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
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
    CarburetorFamily Family,
    string Complaint,
    DateOnly PromisedDay,
    string? OwnerContact = null,
    string? StampedNumber = null,
    EngineKind? Engine = null,
    ChokeKind? Choke = null,
    Story? Story = null);

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
        api.MapPost("/trays", CheckInAsync).WithName("checkIn").WithTags("Intake");
        api.MapGet("/owners", ListOwnersAsync).WithName("listOwners").WithTags("Intake");
        api.MapGet("/earlier", ListEarlierAsync).WithName("listEarlier").WithTags("Intake");
    }

    /// <summary>Earlier trays of a machine, newest first.</summary>
    private static async Task<Ok<List<EarlierTray>>> ListEarlierAsync(string owner, string machine, BlueDawnDb db, CancellationToken cancel)
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
            var file = (await TrayFile.OpenAsync(db, number, cancel))!;
            var evidence = file.Evidence(file.Judge(Core.Gauging.PinSet.Empty));
            earlier.Add(new EarlierTray(
                number,
                file.Tray.CheckedInAt,
                file.Tray.Complaint,
                [.. evidence.Found.Select(fault => fault.Label)],
                file.Tray.WaitsFor == WaitsFor.HandedBack));
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
        NewTray input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        if (await SentBeforeAsync(db, input.TrayId, cancel) is { } before)
        {
            return TypedResults.Ok(TrayView.Of(before, pins));
        }

        var checkIn = new CheckIn(input.OwnerName, input.OwnerContact, input.MachineName, input.StampedNumber, input.Complaint, input.PromisedDay);
        var story = input.Story?.Notes() ?? [];
        if (checkIn.Check(clock.Today()).Concat(story.SelectMany(note => note.Check(FaultKnowledge.Shipped))).ToList() is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        var tray = new Tray
        {
            Id = input.TrayId,
            Machine = await FindMachineAsync(db, checkIn, clock.GetUtcNow(), cancel),
            StampedNumber = (input.StampedNumber ?? "").Trim(),
            Family = input.Family,
            Engine = input.Engine,
            Choke = input.Choke,
            Story = input.Story,
            Complaint = input.Complaint.Trim(),
            PromisedDay = input.PromisedDay,
            WaitsFor = WaitsFor.Hands,
            CheckedInAt = clock.GetUtcNow(),
        };
        tray.SpecCode = await OnlyExactSpecAsync(db, tray.StampedNumber, tray.Family, cancel);
        db.Trays.Add(tray);
        db.Log(input.EntryId, tray, EntryKind.CheckedIn, me, tray.SpecCode is null ? "Checked in" : $"Checked in; spec sheet {tray.SpecCode} by its stamped number", clock);
        foreach (var note in story)
        {
            db.LogTrace(Guid.CreateVersion7(clock.GetUtcNow()), tray, me, note, clock);
        }

        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException e) when (TrayWriting.IsDuplicate(e))
        {
            db.ChangeTracker.Clear();
            return await SentBeforeAsync(db, input.TrayId, cancel) is { } same
                ? TypedResults.Ok(TrayView.Of(same, pins))
                : Problem.Conflict("That logbook id has been used.", "Reload the page and check in again.");
        }

        var file = (await TrayFile.OpenAsync(db, tray.Number, cancel))!;
        return TypedResults.Created($"/api/trays/{tray.Number}", TrayView.Of(file, pins));
    }

    private static async Task<TrayFile?> SentBeforeAsync(BlueDawnDb db, Guid trayId, CancellationToken cancel)
    {
        var number = await db.Trays.Where(tray => tray.Id == trayId).Select(tray => (int?)tray.Number).SingleOrDefaultAsync(cancel);
        return number is null ? null : await TrayFile.OpenAsync(db, number.Value, cancel);
    }

    private static async Task<Machine> FindMachineAsync(BlueDawnDb db, CheckIn checkIn, DateTimeOffset now, CancellationToken cancel)
    {
        var (ownerName, machineName) = (checkIn.OwnerName.Trim(), checkIn.MachineName.Trim());
        var owner = await db.Owners.FirstOrDefaultAsync(o => o.Name == ownerName, cancel)
            ?? new Owner { Id = Guid.CreateVersion7(now), Name = ownerName };
        if (!string.IsNullOrWhiteSpace(checkIn.OwnerContact))
        {
            owner.Contact = checkIn.OwnerContact.Trim();
        }

        return await db.Machines.FirstOrDefaultAsync(m => m.OwnerId == owner.Id && m.Name == machineName, cancel)
            ?? new Machine { Id = Guid.CreateVersion7(now), Owner = owner, Name = machineName };
    }

    /// <summary>The spec sheet whose stamped number is exactly this one, when there is just one such sheet.</summary>
    private static async Task<string?> OnlyExactSpecAsync(BlueDawnDb db, string stamped, CarburetorFamily family, CancellationToken cancel)
    {
        var exact = (await db.SpecSheets.AsNoTracking().ToListAsync(cancel))
            .Where(row => row.Sheet.Family == family && row.Sheet.StampedNumbers.Any(number => Stamp.Compare(stamped, number).Match == StampMatch.Exact))
            .Take(2)
            .ToList();
        return exact is [var only] ? only.Code : null;
    }
}
