using BlueDawn.Core.Bench;
using BlueDawn.Core.Faults;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Server.Trays;

/// <summary>What every write to a tray has in common: the logbook line, the version, the same entry sent twice.</summary>
internal static class TrayWriting
{
    private const string UniqueViolation = "23505";

    /// <summary>A logbook entry by someone, now or when their device says it was taken, whichever is earlier.</summary>
    public static LogbookEntry Log(
        this BlueDawnDb db, Guid id, Tray tray, EntryKind kind, Person person, string words, TimeProvider clock, DateTimeOffset? takenAt = null)
    {
        var now = clock.GetUtcNow();
        var entry = new LogbookEntry
        {
            Id = id,
            TrayId = tray.Id,
            Kind = kind,
            PersonId = person.Id,
            PersonName = person.DisplayName,
            TakenAt = takenAt is { } taken && taken < now ? taken.ToUniversalTime() : now,
            RecordedAt = now,
            Words = words,
        };
        db.LogbookEntries.Add(entry);
        return entry;
    }

    /// <summary>A step of the trace.</summary>
    public static LogbookEntry LogTrace(
        this BlueDawnDb db, Guid id, Tray tray, Person person, TraceNote note, TimeProvider clock, DateTimeOffset? takenAt = null)
    {
        var entry = db.Log(id, tray, EntryKind.Traced, person, note.Words(FaultKnowledge.Shipped), clock, takenAt);
        entry.Trace = note;
        return entry;
    }

    /// <summary>Makes the coming save fail when the tray is no longer at the version the page has seen.</summary>
    public static void Expect(this BlueDawnDb db, Tray tray, uint version) => db.Entry(tray).Property(t => t.Version).OriginalValue = version;

    /// <summary>409 with both versions.</summary>
    public static async Task<ProblemHttpResult> ChangedMeanwhileAsync(BlueDawnDb db, int number, object yours, CancellationToken cancel)
    {
        db.ChangeTracker.Clear();
        var file = await TrayFile.OpenAsync(db, number, cancel);
        var last = file?.Entries.Where(entry => entry.Kind is not (EntryKind.Reading or EntryKind.Withdrawn)).LastOrDefault();
        return Problem.Conflict(
            "Someone else changed this tray meanwhile.",
            "Look at both and decide which to keep.",
            ("yours", yours),
            ("theirs", file is null ? null : TrayFacts.Of(file.Tray)),
            ("theirsBy", last?.PersonName),
            ("version", file?.Tray.Version));
    }

    /// <summary>409: a tray that was handed back takes no more entries.</summary>
    public static ProblemHttpResult? RefuseIfHandedBack(Tray tray) => tray.WaitsFor == WaitsFor.HandedBack
        ? Problem.Conflict($"Tray {tray.Number} has been handed back.", "Bring it back to the bench first; its history stays.")
        : null;

    /// <summary>
    /// Adds one entry to a tray's logbook inside a transaction that holds the tray: decided on everything that stands,
    /// once however often it is sent.
    /// </summary>
    /// <param name="db">The store.</param>
    /// <param name="number">The tray.</param>
    /// <param name="id">The entry's id.</param>
    /// <param name="same">Whether an entry of that id is this very one.</param>
    /// <param name="add">Adds it, or says what is wrong with it.</param>
    /// <param name="view">What is answered.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task<Results<Ok<TView>, ValidationProblem, ProblemHttpResult>> AddOnceAsync<TView>(
        BlueDawnDb db,
        int number,
        Guid id,
        Func<LogbookEntry, bool> same,
        Func<TrayFile, Task<ValidationProblem?>> add,
        Func<TrayFile, TView> view,
        CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await TrayFile.OpenLockedAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (file.Entries.FirstOrDefault(entry => entry.Id == id) is { } before)
        {
            return same(before) ? TypedResults.Ok(view(file)) : IdTaken();
        }

        if (RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        if (await add(file) is { } problem)
        {
            return problem;
        }

        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException e) when (IsDuplicate(e))
        {
            return IdTaken();
        }

        await transaction.CommitAsync(cancel);
        db.ChangeTracker.Clear();
        return TypedResults.Ok(view((await TrayFile.OpenAsync(db, number, cancel))!));
    }

    /// <summary>409: the id of an entry stands for another one.</summary>
    public static ProblemHttpResult IdTaken() =>
        Problem.Conflict("That logbook id stands for something else.", "Reload the page and enter it again.");

    /// <summary>Whether a save failed because the same id, or a second correction of one entry, was already there.</summary>
    public static bool IsDuplicate(DbUpdateException exception) => exception.InnerException is PostgresException { SqlState: UniqueViolation };
}
