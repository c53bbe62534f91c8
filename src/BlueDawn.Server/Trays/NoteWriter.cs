using BlueDawn.Core.Logbook;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Server.Trays;

/// <summary>Records entries under the lock of their tray: decided on everything that stands, once however often they are sent.</summary>
internal sealed class NoteWriter(BlueDawnDb db, NoteLookups lookups, TimeProvider clock)
{
    /// <summary>Records entries in their order; null when there is no such tray. What one of them is refused for does not stop the
    /// others.</summary>
    public async Task<Recorded?> RecordAsync(
        int number,
        IReadOnlyList<EntryInput> entries,
        IReadOnlyDictionary<Guid, SignInTry> signatures,
        TimeSpan clockOff,
        Me me,
        CancellationToken cancel
    )
    {
        var taken = new HashSet<Guid>();
        while (true)
        {
            try
            {
                return await TryAsync(number, entries, signatures, clockOff, taken, me, cancel);
            }
            catch (DbUpdateException e) when (IsDuplicate(e))
            {
                // An id that another tray has, or had a moment later than we looked.
                db.ChangeTracker.Clear();
                var ids = entries.Select(entry => entry.Id).ToList();
                var elsewhere = await db
                    .LogbookEntries.Where(entry =>
                        ids.Contains(entry.Id) && !db.Trays.Any(tray => tray.Id == entry.TrayId && tray.Number == number)
                    )
                    .Select(entry => entry.Id)
                    .ToListAsync(cancel);
                if (elsewhere.All(taken.Contains))
                {
                    throw;
                }

                taken.UnionWith(elsewhere);
            }
        }
    }

    /// <summary>
    /// Records what the bench itself says, such as a basket at a bath, on a tray that is held: by the same rules as what a
    /// device sends, save who may. It is written with the next save.
    /// </summary>
    /// <param name="file">The tray, its row locked.</param>
    /// <param name="note">What is said.</param>
    /// <param name="me">Who says it.</param>
    /// <param name="id">Its id where a device gave one.</param>
    /// <param name="version">The version of the tray it was decided on, where somebody decided on one.</param>
    /// <returns>The tray after it, or the tray as it is and why it was refused.</returns>
    public (TrayFile After, Refusal? Refusal) Record(TrayFile file, Note note, Me me, Guid? id = null, int? version = null)
    {
        if (version is not null && version != file.Tray.Version)
        {
            return (file, ChangedSince);
        }

        var now = clock.GetUtcNow();
        var entry = new NewEntry(id ?? Guid.CreateVersion7(now), now, note);
        return Writing.Refuses(entry, file.Book, allowed: null) is { } refused ? (file, refused) : (Write(file, entry, me, now), null);
    }

    private static Refusal ChangedSince { get; } =
        Refusal.Conflict("Someone else changed this tray meanwhile.", "Look at what stands on it now, then decide. Nothing was changed.");

    private TrayFile Write(TrayFile file, NewEntry entry, Me me, DateTimeOffset now) =>
        LogWriter.Append(db, file, Writing.Write(entry, file.Book, me.Person.DisplayName, now), me.Person, now);

    /// <summary>Whether a save failed because the same id, or a second correction of one entry, was already there.</summary>
    public static bool IsDuplicate(DbUpdateException exception) =>
        exception.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation };

    private async Task<Recorded?> TryAsync(
        int number,
        IReadOnlyList<EntryInput> entries,
        IReadOnlyDictionary<Guid, SignInTry> signatures,
        TimeSpan clockOff,
        HashSet<Guid> taken,
        Me me,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel, locked: true) is not { } file)
        {
            return null;
        }

        var (revision, version) = (file.Tray.Revision, file.Tray.Version);
        var outcomes = new List<EntryOutcome>();
        var added = new List<Entry>();
        foreach (var input in entries)
        {
            if (taken.Contains(input.Id))
            {
                outcomes.Add(Refused(input, Writing.IdTaken, file));
            }
            else if (file.Book.Log.Find(input.Id) is { } before)
            {
                outcomes.Add(
                    Writing.IsSame(before, input.AsNew())
                        ? new EntryOutcome(input.Id, Outcome.Already)
                        : Refused(input, Writing.IdTaken, file)
                );
            }
            else
            {
                var (outcome, after) = await DecideAsync(input, signatures.GetValueOrDefault(input.Id), clockOff, file, me, cancel);
                outcomes.Add(outcome);
                if (after is not null && after.Book.Log.Find(input.Id) is { } entry)
                {
                    added.Add(entry);
                }

                file = after ?? file;
            }
        }

        if (added.Count > 0)
        {
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        if (Policy.AsksHistory(file.Book))
        {
            file = await file.WithHistoryAsync(db, cancel);
        }

        return new Recorded(file, outcomes, TrayPatch.Of(file.Head, file.Book, revision, version, added));
    }

    private async Task<(EntryOutcome Outcome, TrayFile? After)> DecideAsync(
        EntryInput input,
        SignInTry? signature,
        TimeSpan clockOff,
        TrayFile file,
        Me me,
        CancellationToken cancel
    )
    {
        if (input.TakenBy is { } taker && taker != me.Person.Id)
        {
            return (Refused(input, Writing.TakenByAnother, file) with { Outcome = Outcome.Others }, null);
        }

        if (Writing.NotAllowed(input.Note, me.Allowed) is { } notAllowed)
        {
            return (Refused(input, notAllowed, file), null);
        }

        if (ChangedMeanwhile(input, file) is { } conflict)
        {
            return (conflict, null);
        }

        var (note, problem) = await lookups.FindAsync(input, signature, file, me, cancel);
        var now = clock.GetUtcNow();
        var entry = input.AsNew() with { Note = note, TakenAt = DeviceClock.Right(input.TakenAt, clockOff, now) };
        if (Writing.Refuses(entry, file.Book, me.Allowed) is { } refused)
        {
            return (Refused(input, refused, file), null);
        }

        if (problem is not null)
        {
            return (Refused(input, problem, file), null);
        }

        var kind = StationList.KindOf(note);
        if (kind.ChangesNothing(note, file.Book))
        {
            return (new EntryOutcome(input.Id, Outcome.Already), null);
        }

        if (kind.Moves(note, file.Book) is { } move && await MoveAsync(move, file, me, now, cancel) is { } notThere)
        {
            return (Refused(input, notThere, file), null);
        }

        var (fitted, notFitted) = await lookups.FitAsync(note, file, me, now, cancel);
        if (notFitted is not null)
        {
            return (Refused(input, notFitted, file), null);
        }

        return (new EntryOutcome(input.Id, Outcome.Recorded), Write(file, entry with { Note = fitted }, me, now));
    }

    /// <summary>A change of what stands on the tray that was decided on something else than stands there now.</summary>
    private static EntryOutcome? ChangedMeanwhile(EntryInput input, TrayFile file)
    {
        if (!StationList.KindOf(input.Note).IsDecidedOnFacts || input.Version == file.Tray.Version)
        {
            return null;
        }

        var last = file.Book.Log.Entries.LastOrDefault(entry => StationList.KindOf(entry.Note).IsDecidedOnFacts);
        return new EntryOutcome(
            input.Id,
            Outcome.Refused,
            new EntryProblem(
                409,
                "Someone else changed this tray meanwhile.",
                "Look at both and decide which to keep.",
                new Dictionary<string, string[]>(),
                null,
                TrayFactsView.Of(file.Head, file.Book),
                last?.By,
                file.Tray.Version
            )
        );
    }

    /// <summary>What goes in from the shelf leaves it; what comes out again goes back.</summary>
    private async Task<Refusal?> MoveAsync(ShelfMove move, TrayFile file, Me me, DateTimeOffset at, CancellationToken cancel)
    {
        if (await db.Items.Where(row => row.Number == move.Item).Select(row => (Guid?)row.Id).SingleOrDefaultAsync(cancel) is not { } id)
        {
            return Refusal.Wrong([new("note.item", $"There is no item {move.Item}.")]);
        }

        var kind = move.Out ? StockMoveKind.Fitted : StockMoveKind.Returned;
        if ((await Shelf.LockAsync(db, id, cancel)).Check(kind, 1) is { Count: > 0 })
        {
            return Refusal.Wrong([new("note.item", $"None of {move.Item} is left on the shelf. Book it in at Stock, or take another.")]);
        }

        Shelf.Move(db, id, kind, 1, file.Tray.Id, me.Person.Id, at, move.Out ? "at Build" : "out again at Build");
        if (move.Bad is { } what)
        {
            // Out of the carburetor and not on the shelf again: it goes back to whoever sold it.
            // A moment later: the book shows it after it came out.
            Shelf.Move(db, id, StockMoveKind.CameBad, 1, file.Tray.Id, me.Person.Id, at.AddMilliseconds(1), what).Supplier = move.Supplier
                ?? await BadPieces.LastSupplierAsync(db, id, cancel);
        }

        // The next entry of the same sending sees it gone.
        await db.SaveChangesAsync(cancel);
        return null;
    }

    private static EntryOutcome Refused(EntryInput input, Refusal refusal, TrayFile file) =>
        new(
            input.Id,
            Outcome.Refused,
            new EntryProblem(
                Problem.StatusOf(refusal.Kind),
                refusal.Title,
                refusal.Detail,
                Problem.Errors(refusal.Fields),
                refusal.Kind == RefusalKind.StillOpen ? Policy.Obstacles(file.Book) : null,
                TheirsBy: refusal.Kind == RefusalKind.Conflict && input.Supersedes is { } corrected
                    ? file.Book.Log.Entries.FirstOrDefault(entry => entry.Supersedes == corrected)?.By
                    : null
            )
        );
}
