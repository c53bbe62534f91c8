using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
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
    Story? Story = null
);

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
/// <param name="Name">Name of the person, boat or stall.</param>
/// <param name="Contact">How to reach them; may be empty.</param>
/// <param name="Machines">Their machines by name, each with the newest tray it came in on; null when there is none.</param>
internal sealed record KnownOwner(string Name, string Contact, IReadOnlyList<KnownMachine> Machines);

/// <summary>A machine that was here before.</summary>
/// <param name="Name">What it is and where it stands.</param>
/// <param name="Tray">The newest tray it came in on, or null.</param>
internal sealed record KnownMachine(string Name, int? Tray);

/// <summary>What is in the book under a name, or under almost the same.</summary>
/// <param name="Owner">The owner of that name, or null.</param>
/// <param name="LikeOwner">While there is none: an owner who may be the same, or null.</param>
/// <param name="LikeMachine">While the owner has no machine of that name: one that may be the same, or null.</param>
internal sealed record AlikeView(KnownOwner? Owner, KnownOwner? LikeOwner, KnownMachine? LikeMachine);

/// <summary>Whose a tray is.</summary>
/// <param name="OwnerName">Owner.</param>
/// <param name="OwnerContact">How to reach them; may be empty.</param>
/// <param name="MachineName">Machine.</param>
/// <param name="Version">The version of the tray it was decided on.</param>
internal sealed record WhoseChange(string OwnerName, string OwnerContact, string MachineName, int Version);

/// <summary>What was told at check-in and is no finding by itself.</summary>
/// <param name="Version">The version of the tray it was decided on.</param>
/// <param name="Whose">Whose machine it is.</param>
/// <param name="FailsAfterMin">After how many minutes it dies, or null.</param>
/// <param name="FuelKind">What fuel is in it.</param>
/// <param name="TankThenML">What was in the tank then, millilitres, or null.</param>
/// <param name="TankNowML">What is in it now, millilitres, or null.</param>
/// <param name="OilThen">Where the oil stood when it was last read.</param>
/// <param name="AgeYears">The machine's age in years, or null.</param>
/// <param name="Hours">Hours it has run, or null.</param>
internal sealed record StoryChange(
    int Version,
    Whose Whose,
    double? FailsAfterMin,
    FuelKind FuelKind,
    double? TankThenML,
    double? TankNowML,
    OilLevel OilThen,
    double? AgeYears,
    double? Hours
)
{
    /// <summary>The story with it.</summary>
    public Story On(Story before) =>
        before with
        {
            Whose = Whose,
            FailsAfterMin = FailsAfterMin,
            FuelKind = FuelKind,
            TankThenML = TankThenML,
            TankNowML = TankNowML,
            OilThen = OilThen,
            AgeYears = AgeYears,
            Hours = Hours,
        };
}

internal static class IntakeEndpoints
{
    private const int MostEarlier = 5,
        MostFound = 20,
        LatestTrays = 200,
        LongestText = CheckIn.LongestName;

    public static void MapIntake(this RouteGroupBuilder api)
    {
        api.MapPost("/trays", CheckInAsync)
            .WithName("checkIn")
            .WithSummary("Check a machine in on a new tray")
            .WithTags("Intake")
            .RequireAuthorization(nameof(Permission.CheckIn));
        api.MapPut("/trays/{number:int}/whose", ChangeWhoseAsync)
            .WithName("changeWhose")
            .WithSummary("Put right whose a tray is")
            .WithTags("Intake")
            .RequireAuthorization(nameof(Permission.ChangeTrays));
        api.MapPut("/trays/{number:int}/story", ChangeStoryAsync)
            .WithName("changeStory")
            .WithSummary("Put right what was told at check-in")
            .WithTags("Intake")
            .RequireAuthorization(nameof(Permission.ChangeTrays));
        api.MapGet("/stamped", StampedAsync)
            .WithName("findStamped")
            .WithSummary("The spec sheet a stamped number is on")
            .WithTags("Intake");
        api.MapGet("/owners", ListOwnersAsync)
            .WithName("listOwners")
            .WithSummary("Owners by a part of their name, or whoever was here last, with their machines")
            .WithTags("Intake");
        api.MapGet("/owners/alike", AlikeAsync)
            .WithName("findAlike")
            .WithSummary("The owner and the machine of a name, or of almost the same")
            .WithTags("Intake");
        api.MapGet("/earlier", ListEarlierAsync).WithName("listEarlier").WithSummary("Earlier trays of a machine").WithTags("Intake");
    }

    /// <summary>Earlier trays of a machine, newest first.</summary>
    private static async Task<Ok<List<EarlierTray>>> ListEarlierAsync(
        string owner,
        string machine,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        var (ownerName, machineName) = (owner.Trim(), machine.Trim());
        var (ofOwner, ofMachine) = (Names.Folded(ownerName), Names.Folded(machineName));
        var machines = await db
            .Machines.Where(one => one.Owner.Folded == ofOwner && one.Folded == ofMachine)
            .Select(one => one.Id)
            .ToListAsync(cancel);
        var numbers = await db
            .Trays.Where(tray => machines.Contains(tray.MachineId))
            .OrderByDescending(tray => tray.Number)
            .Select(tray => tray.Number)
            .Take(MostEarlier)
            .ToListAsync(cancel);
        var earlier = new List<EarlierTray>();
        foreach (var number in numbers)
        {
            var file = (await TrayFile.OpenAsync(db, number, me.Context, cancel))!;
            earlier.Add(
                new EarlierTray(
                    number,
                    file.Tray.CheckedInAt,
                    file.Book.Facts.Complaint,
                    [.. file.Book.State<FaultsState>().Evidence.Found.Select(fault => fault.Label)],
                    file.Book.IsHandedBack
                )
            );
        }

        return TypedResults.Ok(earlier);
    }

    private static async Task<Ok<List<KnownOwner>>> ListOwnersAsync(BlueDawnDb db, CancellationToken cancel, string? text = null)
    {
        var wanted = Cut(text ?? "");
        if (wanted.Length > 0)
        {
            return TypedResults.Ok(await KnownAsync(db, OwnerBook.With(db, wanted).OrderBy(owner => owner.Folded).Take(MostFound), cancel));
        }

        var latest = await OwnerBook.LatestAsync(db, LatestTrays, cancel);
        return TypedResults.Ok(
            await KnownAsync(db, db.Owners.Where(owner => latest.Contains(owner.Id)).OrderBy(owner => owner.Folded), cancel)
        );
    }

    private static async Task<List<KnownOwner>> KnownAsync(BlueDawnDb db, IQueryable<Owner> owners, CancellationToken cancel)
    {
        var found = await owners.AsNoTracking().ToListAsync(cancel);
        var ids = found.Select(owner => owner.Id).ToList();
        var machines = (
            await db
                .Machines.Where(machine => ids.Contains(machine.OwnerId))
                .OrderBy(machine => machine.Folded)
                .Select(machine => new
                {
                    machine.OwnerId,
                    machine.Name,
                    Tray = db.Trays.Where(tray => tray.MachineId == machine.Id).Max(tray => (int?)tray.Number),
                })
                .ToListAsync(cancel)
        ).ToLookup(machine => machine.OwnerId);
        return
        [
            .. found.Select(owner => new KnownOwner(
                owner.Name,
                owner.Contact,
                [
                    .. machines[owner.Id]
                        .GroupBy(machine => machine.Name)
                        .Select(machine => new KnownMachine(machine.Key, machine.Max(one => one.Tray))),
                ]
            )),
        ];
    }

    private static async Task<Ok<AlikeView>> AlikeAsync(string owner, string machine, BlueDawnDb db, CancellationToken cancel)
    {
        var (name, same) = (Cut(owner), await OwnerBook.OfNameAsync(db, Cut(owner), cancel));
        var other = same is null ? await OwnerBook.AlmostAsync(db, name, cancel) : null;
        var id = (same ?? other)?.Id;
        var view = id is null ? null : (await KnownAsync(db, db.Owners.Where(one => one.Id == id), cancel))[0];
        var known = same is null ? null : view;
        return TypedResults.Ok(
            new AlikeView(
                known,
                other is null ? null : view,
                known?.Machines.Any(one => Names.IsSame(one.Name, machine)) == false
                    ? known.Machines.FirstOrDefault(one => Names.IsAlmost(one.Name, machine))
                    : null
            )
        );
    }

    private static string Cut(string text) => text.Trim() is var trimmed && trimmed.Length > LongestText ? trimmed[..LongestText] : trimmed;

    private static async Task<Results<Created<TrayView>, Ok<TrayView>, ValidationProblem, ProblemHttpResult>> CheckInAsync(
        NewTray input,
        BlueDawnDb db,
        NoteWriter writer,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await SentBeforeAsync(db, input, me, cancel) is { } before)
        {
            return before;
        }

        var checkIn = new CheckIn(
            input.OwnerName,
            input.OwnerContact,
            input.MachineName,
            input.StampedNumber,
            input.Complaint,
            input.PromisedDay
        );
        var story = input.Story is { } told ? StoryEvidence.Of(told) : [];
        var sheet = await OnlyExactSpecAsync(db, (input.StampedNumber ?? "").Trim(), input.Family, cancel);
        var kind = CheckIn.KindOf(input.Family, input.Engine, input.Choke, sheet);
        if (
            checkIn
                .Check(me.Context.Today)
                .Concat(kind.Problem is { } which ? [new FieldProblem("family", which)] : [])
                .Concat(input.Story?.Check(me.Context.Today) ?? [])
                .Concat(story.SelectMany(note => note.Check(me.Context.Knowledge.Of().Of<FaultKnowledge>())))
                .ToList() is
            { Count: > 0 } problems
        )
        {
            return Problem.Fields(problems);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
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
        try
        {
            await db.SaveChangesAsync(cancel);
            var file = (await TrayFile.OpenAsync(db, tray.Number, me.Context, cancel))!;
            foreach (
                var (note, id) in story.Select(told => ((Note)told, (Guid?)null)).Prepend((new CheckedInNote(tray.SpecCode), input.EntryId))
            )
            {
                (file, var refused) = writer.Record(file, note, me, id);
                if (refused is not null)
                {
                    return Problem.Of(refused);
                }
            }

            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }
        catch (DbUpdateException e) when (NoteWriter.IsDuplicate(e))
        {
            await transaction.RollbackAsync(cancel);
            db.ChangeTracker.Clear();
            return await SentBeforeAsync(db, input, me, cancel)
                ?? Problem.Conflict("That logbook id has been used.", "Reload the page and check in again.");
        }

        return TypedResults.Created($"/api/trays/{tray.Number}", Shown((await TrayFile.OpenAsync(db, tray.Number, me.Context, cancel))!));
    }

    /// <summary>The tray as it is when this very check-in is in the book already; 409 when its id stands for another.</summary>
    private static async Task<Results<Created<TrayView>, Ok<TrayView>, ValidationProblem, ProblemHttpResult>?> SentBeforeAsync(
        BlueDawnDb db,
        NewTray input,
        Me me,
        CancellationToken cancel
    )
    {
        var before = await db
            .Trays.Where(tray => tray.Id == input.TrayId)
            .Select(tray => new
            {
                tray.Number,
                Machine = tray.Machine.Name,
                Owner = tray.Machine.Owner.Name,
                tray.CheckedInAt,
            })
            .SingleOrDefaultAsync(cancel);
        if (before is null)
        {
            return null;
        }

        // What stands on it may have been changed since; whose it is and under which entry it came in has not.
        var same =
            Names.IsSame(before.Machine, input.MachineName)
            && Names.IsSame(before.Owner, input.OwnerName)
            && await db.LogbookEntries.AnyAsync(
                entry => entry.Id == input.EntryId && db.Trays.Any(tray => tray.Id == entry.TrayId && tray.Number == before.Number),
                cancel
            );
        return same
            ? TypedResults.Ok(Shown((await TrayFile.OpenAsync(db, before.Number, me.Context, cancel))!))
            : Problem.Conflict("That tray's id stands for another check-in.", "Reload the page and check in again.");
    }

    private static TrayView Shown(TrayFile file) => TrayView.Of(file.Head, file.Book);

    private static async Task<Machine> FindMachineAsync(BlueDawnDb db, CheckIn checkIn, DateTimeOffset now, CancellationToken cancel)
    {
        var owner = await FindOwnerAsync(db, checkIn.OwnerName.Trim(), now, cancel);
        if (!string.IsNullOrWhiteSpace(checkIn.OwnerContact))
        {
            owner.Contact = checkIn.OwnerContact.Trim();
        }

        return await FindMachineAsync(db, owner, checkIn.MachineName.Trim(), now, cancel);
    }

    /// <summary>The owner of that name, a new one when there is none. Capitals, spaces and signs make no other owner; one spelled
    /// exactly so comes first.</summary>
    private static async Task<Owner> FindOwnerAsync(BlueDawnDb db, string name, DateTimeOffset now, CancellationToken cancel)
    {
        await OwnerBook.HoldNameAsync(db, name, cancel);
        return await OwnerBook.OfNameAsync(db, name, cancel) ?? new Owner { Id = Guid.CreateVersion7(now), Name = name };
    }

    /// <summary>The machine of that name under an owner, a new one when there is none.</summary>
    private static async Task<Machine> FindMachineAsync(
        BlueDawnDb db,
        Owner owner,
        string name,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        await OwnerBook.MachineOfNameAsync(db, owner.Id, name, cancel)
        ?? new Machine
        {
            Id = Guid.CreateVersion7(now),
            Owner = owner,
            Name = name,
        };

    /// <summary>Whose a tray is, put right: another owner, another machine, another way to reach them. What nothing hangs on any more
    /// goes.</summary>
    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChangeWhoseAsync(
        int number,
        WhoseChange input,
        BlueDawnDb db,
        NoteWriter writer,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (name, contact, machineName) = (input.OwnerName.Trim(), input.OwnerContact.Trim(), input.MachineName.Trim());
        if (new CheckIn(name, contact, machineName, null, "-", me.Context.Today).Check(me.Context.Today) is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel, locked: true) is not { } file)
        {
            return TypedResults.Problem(statusCode: 404, title: $"There is no tray {number}.", detail: "Look at the bench for its number.");
        }

        var (tray, before) = (file.Tray, file.Tray.Machine);
        var owner = await FindOwnerAsync(db, name, clock.GetUtcNow(), cancel);
        // Spelled otherwise it is the same owner, spelled right.
        var words = new List<string>();
        if (owner.Id != before.OwnerId)
        {
            words.Add($"Owner {before.Owner.Name} → {owner.Name}");
        }
        else if (owner.Name != name)
        {
            words.Add($"Owner {owner.Name} → {name}");
            owner.Name = name;
        }

        if (owner.Contact != contact)
        {
            words.Add(contact.Length == 0 ? "How to reach them: not known" : $"How to reach them: {contact}");
            owner.Contact = contact;
        }

        var machine = await FindMachineAsync(db, owner, machineName, clock.GetUtcNow(), cancel);
        if (before.Name != machineName)
        {
            words.Add($"Machine {before.Name} → {machineName}");
        }

        if (machine.Id == before.Id)
        {
            machine.Name = machineName;
        }

        if (words.Count > 0)
        {
            if (db.Entry(machine).State == EntityState.Detached)
            {
                db.Machines.Add(machine);
            }

            if (writer.Record(file, new PutRightNote(string.Join("; ", words)), me, version: input.Version).Refusal is { } refused)
            {
                return Problem.Of(refused);
            }

            tray.Machine = machine;
            await db.SaveChangesAsync(cancel);
            await LeaveNothingAsync(db, before, machine, cancel);
            await db
                .Trays.Where(one => one.Machine.OwnerId == owner.Id && one.Id != tray.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(one => one.Version, one => one.Version + 1), cancel);
        }

        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(Shown((await TrayFile.OpenAsync(db, number, me.Context, cancel))!));
    }

    /// <summary>A machine no tray came off, and an owner without a machine, were a slip.</summary>
    private static async Task LeaveNothingAsync(BlueDawnDb db, Machine before, Machine after, CancellationToken cancel)
    {
        if (before.Id == after.Id || await db.Trays.AnyAsync(tray => tray.MachineId == before.Id, cancel))
        {
            return;
        }

        await db.Machines.Where(machine => machine.Id == before.Id).ExecuteDeleteAsync(cancel);
        await db
            .Owners.Where(owner => owner.Id == before.OwnerId && !db.Machines.Any(machine => machine.OwnerId == owner.Id))
            .ExecuteDeleteAsync(cancel);
    }

    /// <summary>What was told at check-in, put right; what the trace weighs of it is put right at Trace.</summary>
    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChangeStoryAsync(
        int number,
        StoryChange input,
        BlueDawnDb db,
        NoteWriter writer,
        Me me,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel, locked: true) is not { } file)
        {
            return TypedResults.Problem(statusCode: 404, title: $"There is no tray {number}.", detail: "Look at the bench for its number.");
        }

        var before = file.Tray.Story ?? new Story([], StoodFor.NotSaid, WorkedOnBy.NotSaid, OilFound.NotLooked, FuelSaid.NotSaid);
        var after = input.On(before);
        if (after.Check(me.Context.Today) is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        if (after != before)
        {
            if (writer.Record(file, new PutRightNote("What was told at check-in"), me, version: input.Version).Refusal is { } refused)
            {
                return Problem.Of(refused);
            }

            file.Tray.Story = after;
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return TypedResults.Ok(Shown((await TrayFile.OpenAsync(db, number, me.Context, cancel))!));
    }

    /// <summary>The spec sheet whose stamped number is exactly this one, when there is just one such sheet.</summary>
    private static async Task<SpecSheet?> OnlyExactSpecAsync(
        BlueDawnDb db,
        string stamped,
        CarburetorFamily? family,
        CancellationToken cancel
    ) =>
        stamped.Length == 0
            ? null
            : Stamp.OnlySheet(
                stamped,
                family,
                await db.SpecSheets.AsNoTracking().Where(row => row.Current).Select(row => row.Sheet).ToListAsync(cancel)
            );

    /// <summary>The sheet a stamped number is on, while it is on one only.</summary>
    private static async Task<Ok<StampedView>> StampedAsync(string number, BlueDawnDb db, CancellationToken cancel) =>
        TypedResults.Ok(
            new StampedView(
                number.Trim().Length <= StampedNumber.Longest && await OnlyExactSpecAsync(db, number.Trim(), null, cancel) is { } sheet
                    ? new KnownStamp(sheet.Code, sheet.Maker, sheet.Family, sheet.Engine, sheet.Choke)
                    : null
            )
        );
}
