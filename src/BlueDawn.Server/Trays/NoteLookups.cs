using System.Diagnostics;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Store;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Trays;

/// <summary>
/// What a few notes need from the shop before Core can decide on them: the spec sheet of a code, the prices of the day, the
/// signature behind a password. Most notes need nothing.
/// </summary>
internal sealed class NoteLookups(BlueDawnDb db)
{
    /// <summary>The note with what was found for it, or why that cannot be.</summary>
    public async Task<(Note Note, Refusal? Refusal)> FindAsync(
        EntryInput input,
        SignInTry? signature,
        TrayFile file,
        Me me,
        CancellationToken cancel
    ) =>
        StationList.KindOf(input.Note).Lookup switch
        {
            NoteLookup.Sheet => (await WithSheetAsync((SheetNote)input.Note.AsSent(), cancel), null),
            NoteLookup.Fitting => await DecideAsync((FittingNote)input.Note.AsSent(), file, me, cancel),
            NoteLookup.FromShelf => (await FromShelfAsync((PartsHereNote)input.Note.AsSent(), file, me, cancel), null),
            NoteLookup.HadBefore => (await HadBeforeAsync((JobNote)input.Note.AsSent(), file, cancel), null),
            NoteLookup.Signature => await SignAsync((ReleaseNote)input.Note.AsSent(), signature, file, cancel),
            NoteLookup.None or NoteLookup.BackToShelf => (input.Note.AsSent(), null),
        };

    private async Task<SheetNote> WithSheetAsync(SheetNote note, CancellationToken cancel) =>
        note with
        {
            Sheet = (
                await db.SpecSheets.AsNoTracking().SingleOrDefaultAsync(row => row.Code == note.SpecCode && row.Current, cancel)
            )?.Sheet,
        };

    /// <summary>What was said of the newest trays of its sheet; what was said last counts.</summary>
    private async Task<JobNote> HadBeforeAsync(JobNote note, TrayFile file, CancellationToken cancel)
    {
        if (file.Book.Sheet is not { } sheet)
        {
            return note;
        }

        var trays = db
            .Trays.Where(tray => tray.SpecCode == sheet.Code && tray.Id != file.Tray.Id)
            .OrderByDescending(tray => tray.CheckedInAt)
            .Take(MostBefore)
            .Select(tray => tray.Id);
        var said = await db
            .LogbookEntries.AsNoTracking()
            .Where(entry => trays.Contains(entry.TrayId) && entry.Kind == "has")
            .OrderBy(entry => entry.RecordedAt)
            .Select(entry => entry.Note)
            .ToListAsync(cancel);
        return note.After(said.OfType<HasNote>());
    }

    private const int MostBefore = 20;

    private async Task<PartsHereNote> FromShelfAsync(PartsHereNote note, TrayFile file, Me me, CancellationToken cancel) =>
        file.Book.Fitting is { } before
            ? note with
            {
                Decided = await FittingChoice.FromShelfAsync(db, file, before, me.Context.Today, cancel),
            }
            : note;

    /// <summary>Takes what is fitted off the shelf. Nothing happens for notes that fit nothing.</summary>
    public async Task<(Note Note, Refusal? Refusal)> FitAsync(Note note, TrayFile file, Me me, DateTimeOffset at, CancellationToken cancel)
    {
        switch (StationList.KindOf(note).Lookup)
        {
            case NoteLookup.Fitting when note is FittingNote { Decided: { } decided } fitting:
                return (
                    fitting with
                    {
                        Decided = await Shelf.FitAsync(db, file.Tray.Id, file.Book.Fitting, decided, me.Person.Id, at, cancel),
                    },
                    null
                );
            case NoteLookup.BackToShelf:
                await Shelf.UnfitAsync(db, file.Tray.Id, file.Book.Fitting, me.Person.Id, at, cancel);
                return (note, null);
            case NoteLookup.FromShelf when note is PartsHereNote parts:
                // What it has already goes back to the shelf in thought: the whole of it is looked for anew. When something is
                // still missing, none of it has happened.
                await db.Database.CurrentTransaction!.CreateSavepointAsync("fit", cancel);
                var there = parts.Decided is { } wanted
                    ? await Shelf.FitAsync(db, file.Tray.Id, file.Book.Fitting, wanted, me.Person.Id, at, cancel)
                    : null;
                var others = there is { ToOrder: false }
                    ? there
                        .Items.Select(item => item.Number)
                        .Except(file.Book.Fitting!.Items.Select(item => item.Number))
                        .Except(file.Kits.Arrived)
                        .ToList()
                    : [];
                if (there is { ToOrder: false } && (parts.Instead || others.Count == 0))
                {
                    return (parts with { Decided = there }, null);
                }

                await db.Database.CurrentTransaction!.RollbackToSavepointAsync("fit", cancel);
                return (
                    note,
                    Refusal.Wrong([
                        others.Count > 0
                            ? new("note.instead", Instead(file.Book.Fitting!, others))
                            : new("note.kind", NotThere(there ?? file.Book.Fitting!)),
                    ])
                );
            case NoteLookup.None
            or NoteLookup.HadBefore
            or NoteLookup.Sheet
            or NoteLookup.Signature
            or NoteLookup.Fitting
            or NoteLookup.FromShelf:
                return (note, null);
        }

        throw new UnreachableException();
    }

    private static string NotThere(Fitting fitting) =>
        $"Not on the shelf yet: {string.Join(", ", fitting.Items.Where(item => !item.FromShelf).Select(item => item.Number))}. Book it in at Stock first.";

    private static string Instead(Fitting ordered, List<string> others) =>
        $"Not on the shelf yet: {string.Join(", ", ordered.Items.Where(item => !item.FromShelf).Select(item => item.Number))}. "
        + $"{string.Join(", ", others)} on the shelf would do as well: say whether to open that, or book in what was ordered at Stock first.";

    private async Task<(Note Note, Refusal? Refusal)> DecideAsync(FittingNote note, TrayFile file, Me me, CancellationToken cancel)
    {
        await Shelf.LockDonorsAsync(db, cancel);
        if (note.KitNumber is { } kit)
        {
            return await FittingChoice.KitAsync(db, file, kit, me.Context.Today, cancel) is { } picked
                ? (note with { Decided = picked }, null)
                : (note, Refusal.Wrong([new("note.kitNumber", "There is no kit of that number. Pick one from the list.")]));
        }

        var (priced, _) = await FittingChoice.DecideAsync(db, file, note.Renew, me.Context.Today, cancel);
        var option = priced.Single(one => one.Offer.Option == note.Option);
        return option.Offer.Obstacle is { } obstacle
            ? (note, Refusal.Wrong([new("note.option", obstacle)]))
            : (
                note with
                {
                    Decided = FittingChoice.ToFitting(
                        option,
                        [.. file.Kits.Wanted.Select(part => part.Part).Where(part => note.Renew is null || note.Renew.Contains(part))]
                    ),
                },
                null
            );
    }

    /// <summary>The lead's signature: a name and a password that the doorkeeper has looked at, before the tray was held.</summary>
    private async Task<(Note Note, Refusal? Refusal)> SignAsync(
        ReleaseNote note,
        SignInTry? signature,
        TrayFile file,
        CancellationToken cancel
    )
    {
        // Nothing open, or no reason yet: there is nothing to sign.
        if (Policy.Obstacles(file.Book).Count == 0 || Reason.Problem(note.Reason) is not null)
        {
            return (note, null);
        }

        if (signature?.Person is not { } signer)
        {
            return (
                note,
                Refusal.Wrong([
                    new(
                        "signature.password",
                        signature?.Locked == true
                            ? $"Too many tries. Wait {SignInLimiter.Window.TotalMinutes:0} minutes."
                            : "Name and password do not go together."
                    ),
                ])
            );
        }

        var roles = await db
            .UserRoles.Where(has => has.UserId == signer.Id)
            .Join(db.Roles, has => has.RoleId, role => role.Id, (_, role) => role.Name)
            .ToListAsync(cancel);
        return roles.Any(role => Roles.Allow(role).Contains(Permission.Sign))
            ? (note with { Signer = signer.DisplayName }, null)
            : (note, Refusal.Wrong([new("signature.userName", "Only the lead can sign for this. Enter the lead's sign-in name.")]));
    }
}
