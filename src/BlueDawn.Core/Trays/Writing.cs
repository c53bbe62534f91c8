using System.Text.Json;
using System.Text.Json.Nodes;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Trays;

/// <summary>An entry to be recorded on a tray.</summary>
/// <param name="Id">Made by the sender (UUIDv7): the idempotency key.</param>
/// <param name="TakenAt">When it was taken, by the clock of the device.</param>
/// <param name="Note">What it says.</param>
/// <param name="Supersedes">The entry it corrects or withdraws, or null.</param>
/// <param name="Version">The version of the tray it was decided on, for notes that change what stands on it.</param>
public sealed record NewEntry(Guid Id, DateTimeOffset TakenAt, Note Note, Guid? Supersedes = null, int? Version = null);

/// <summary>What recording an entry comes to.</summary>
/// <param name="Entry">The entry as it is kept.</param>
/// <param name="Facts">What stands on the tray then.</param>
public sealed record Written(Entry Entry, TrayFacts Facts);

/// <summary>The one way into a tray's logbook: what is the same entry, what is refused, what is kept.</summary>
public static class Writing
{
    /// <summary>
    /// Whether an entry that is sent is one that is there already: the same id and the same content. The same id with other
    /// content is a conflict, never the same.
    /// </summary>
    /// <param name="before">The entry in the book.</param>
    /// <param name="sent">The entry that is sent.</param>
    public static bool IsSame(Entry before, NewEntry sent) =>
        before.Supersedes == sent.Supersedes && JsonNode.DeepEquals(Sent(before.Note), Sent(sent.Note));

    /// <summary>An id that stands for something else.</summary>
    public static Refusal IdTaken { get; } =
        Refusal.Conflict("That logbook id stands for something else.", "Reload the page and enter it again.");

    /// <summary>An entry that somebody else took.</summary>
    public static Refusal TakenByAnother { get; } =
        new(
            RefusalKind.NotAllowed,
            "Somebody else took this down.",
            "It is kept on this device and sent when they sign in here; nobody signs for another.",
            []
        );

    /// <summary>That a note is not for the sender's role, or null when it is.</summary>
    /// <param name="note">The note.</param>
    /// <param name="allowed">What the sender may do.</param>
    public static Refusal? NotAllowed(Note note, IReadOnlyList<Permission> allowed) =>
        allowed.Contains(StationList.KindOf(note).Needs) ? null : NotForTheRole;

    private static Refusal NotForTheRole { get; } =
        new(RefusalKind.NotAllowed, "This is not for your role.", "Ask a technician or the lead to do it.", []);

    /// <summary>Why an entry is refused, or null when it can be recorded.</summary>
    /// <param name="sent">The entry, what has to be looked up for it looked up.</param>
    /// <param name="tray">The tray as it stands.</param>
    /// <param name="allowed">What the sender may do; null for the bench itself, which records what no device may send.</param>
    public static Refusal? Refuses(NewEntry sent, TrayBook tray, IReadOnlyList<Permission>? allowed)
    {
        var kind = StationList.KindOf(sent.Note);
        if (allowed is not null && NotAllowed(sent.Note, allowed) is { } notAllowed)
        {
            return notAllowed;
        }

        if (allowed is not null && kind.NeedsBesides(sent.Note, tray) is { } besides && !allowed.Contains(besides))
        {
            return NotForTheRole;
        }

        // To take back that something is unsafe, or to write it anew, is to say that it is not.
        if (
            allowed is not null
            && sent.Supersedes is { } taken
            && tray.Log.Find(taken)?.Note is RemarkNote { Fate: RemarkFate.Unsafe }
            && !allowed.Contains(Permission.WorkAtTheBench)
        )
        {
            return NotForTheRole;
        }

        if (Policy.Refuses(sent.Note, tray) is { } refused)
        {
            return refused;
        }

        if (allowed is not null && kind.RecordedByBench is { } why)
        {
            return Refusal.Wrong(NoteAnswers.Wrong("kind", why));
        }

        if (SupersedesWrong(sent, tray) is { } wrong)
        {
            return wrong;
        }

        if (kind.StoppedBy(sent.Note, tray) is { Count: > 0 } open)
        {
            return new Refusal(
                RefusalKind.StillOpen,
                open.Any(obstacle => obstacle.Kind == ObstacleKind.Danger)
                    ? open.Count == 1
                        ? "Something is unsafe."
                        : $"{open.Count} things are still open, and not all of it is safe."
                    : open.Count == 1
                        ? "1 line is still open."
                        : $"{open.Count} lines are still open.",
                "Put them right, or let the lead sign for the reason why it may go as it is.",
                []
            );
        }

        return kind.Check(sent.Note, tray) is { Count: > 0 } problems ? Refusal.Wrong(problems) : null;
    }

    /// <summary>An entry that was not refused, as it is kept, and what stands on the tray then.</summary>
    /// <param name="sent">The entry.</param>
    /// <param name="tray">The tray before it.</param>
    /// <param name="by">Who records it.</param>
    /// <param name="now">Now, by the clock of the server: nothing was taken later than that.</param>
    public static Written Write(NewEntry sent, TrayBook tray, string by, DateTimeOffset now)
    {
        var kind = StationList.KindOf(sent.Note);
        // A correction is completed as if what it corrects had never been read.
        var before = sent.Supersedes is { } corrected ? StationList.Open(tray.Facts, tray.Context, tray.Log.Without(corrected)) : tray;
        var note = kind.Complete(sent.Note, before);
        return new Written(
            new Entry(sent.Id, sent.Supersedes, sent.TakenAt < now ? sent.TakenAt.ToUniversalTime() : now, by, note),
            sent is { Note: WithdrawalNote, Supersedes: { } gone } && tray.Log.Find(gone) is { } withdrawn
                ? StationList.KindOf(withdrawn.Note).FactsWithout(withdrawn.Note, before)
                : kind.FactsAfter(note, tray)
        );
    }

    private static Refusal? SupersedesWrong(NewEntry sent, TrayBook tray)
    {
        if (sent.Supersedes is not { } id)
        {
            return sent.Note is WithdrawalNote ? Refusal.Wrong([new("supersedes", "Say which reading is taken back.")]) : null;
        }

        // A remark corrects a remark, and is taken back like a reading.
        if (tray.Log.Find(id)?.Note is RemarkNote && sent.Note is RemarkNote or WithdrawalNote)
        {
            return tray.Log.IsSuperseded(id)
                ? Refusal.Conflict("Someone else changed that note meanwhile.", "Look at what stands now; write yours as a new one.")
                : null;
        }

        // A reading corrects a reading of the same line; a withdrawal takes back any reading; nothing else supersedes.
        var before = tray.Log.Find(id)?.Note as ReadingNote;
        if (
            before is null
            || sent.Note is not (ReadingNote or WithdrawalNote)
            || (sent.Note is ReadingNote reading && reading.Line != before.Line)
        )
        {
            return Refusal.NotFound("The reading to be corrected is not on this line.", "Reload the page and look at its history.");
        }

        if (tray.Lines.Any(line => line.Line.Key == before.Line && line.Line.ForGood))
        {
            return Refusal.Conflict("What was cut stays in the book.", "Record what was done since instead: a new jet, for example.");
        }

        return tray.Log.IsSuperseded(id)
            ? Refusal.Conflict(
                "Someone else corrected that reading meanwhile.",
                "Look at what stands now; enter yours as a fresh reading if it is still right."
            )
            : null;
    }

    private static JsonNode? Sent(Note note) => JsonSerializer.SerializeToNode(note.AsSent(), CoreJson.Options);
}
