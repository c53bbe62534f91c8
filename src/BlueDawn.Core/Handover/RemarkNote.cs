using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>What becomes of a remark: where it is printed, and what it stops.</summary>
public enum RemarkFate
{
    /// <summary>It was done.</summary>
    Done,

    /// <summary>It was seen, for whoever works on it next.</summary>
    Seen,

    /// <summary>It was left as it is.</summary>
    Left,

    /// <summary>It is unsafe: nothing runs the engine until it is ended.</summary>
    Unsafe,

    /// <summary>To be watched, or a habit of this machine.</summary>
    Watch,

    /// <summary>It is still to come.</summary>
    ToCome,

    /// <summary>For the owner to know.</summary>
    ForOwner,

    /// <summary>For the shop alone: it stands on no report.</summary>
    ShopOnly,
}

/// <summary>A remark in words, on a line, a part or the whole tray, with a fate.</summary>
/// <param name="Fate">What becomes of it.</param>
/// <param name="Text">The words.</param>
/// <param name="At">The station where it was written; null for none.</param>
/// <param name="Line">The gauge line it is about; null for none.</param>
/// <param name="Part">The part it is about; null for none.</param>
/// <param name="Ends">The remark that this one brings to its end; null for none.</param>
public sealed record RemarkNote(
    RemarkFate Fate,
    string Text,
    Station? At = null,
    string? Line = null,
    string? Part = null,
    Guid? Ends = null
) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<RemarkNote> Kind { get; } =
        new("remark")
        {
            Needs = Permission.CheckIn,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.Wrong(tray),
            Says = (note, tray) => Sentence.Say($"{Word(note.Fate)}: {note.About(tray)}"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
            // What hands do at the bench is said at the bench: the desk does not say that something unsafe was put right.
            Besides = (note, tray) =>
                note.Ends is { } id && tray.Log.Find(id)?.Note is RemarkNote { Fate: RemarkFate.Unsafe } ? Permission.WorkAtTheBench : null,
        };

    /// <summary>What a fate is called.</summary>
    /// <param name="fate">The fate.</param>
    public static string Word(RemarkFate fate) =>
        fate switch
        {
            RemarkFate.Done => "Done",
            RemarkFate.Seen => "Seen",
            RemarkFate.Left => "Left as it is",
            RemarkFate.Unsafe => "Unsafe",
            RemarkFate.Watch => "To watch",
            RemarkFate.ToCome => "Still to come",
            RemarkFate.ForOwner => "For the owner",
            RemarkFate.ShopOnly => "For the shop only",
        };

    /// <summary>The words, behind what they are about.</summary>
    /// <param name="tray">The tray.</param>
    public string About(TrayBook tray) =>
        (
            tray.Lines.FirstOrDefault(line => line.Line.Key == Line)?.Line.Label
            ?? (
                Part is { } part
                    ? tray.Ledger.Find(part)?.Part.Label ?? tray.Ledger.Known.FirstOrDefault(one => one.Key == part)?.Label
                    : null
            )
        )
            is { } label
            ? $"{label}: {Text.Trim()}"
            : Text.Trim();

    /// <summary>The remarks that stand: what was taken back or brought to its end is not among them.</summary>
    /// <param name="log">The logbook.</param>
    public static IReadOnlyList<Logged<RemarkNote>> Standing(Log log)
    {
        var all = log.Notes<RemarkNote>();
        var ended = all.Select(logged => logged.Note.Ends).OfType<Guid>().ToHashSet();
        return [.. all.Where(logged => !ended.Contains(logged.EntryId))];
    }

    private IReadOnlyList<FieldProblem> Wrong(TrayBook tray) =>
        string.IsNullOrWhiteSpace(Text) ? NoteAnswers.Wrong("text", "Write what there is to say.")
        : Text.Length > NoteAnswers.LongestWords ? NoteAnswers.Wrong("text", $"Keep it to {NoteAnswers.LongestWords} characters.")
        : Line is not null && tray.Lines.All(line => line.Line.Key != Line) ? NoteAnswers.Wrong("line", "This tray has no such line.")
        : Part is not null && tray.Ledger.Find(Part) is null && tray.Ledger.Known.All(part => part.Key != Part)
            ? NoteAnswers.Wrong("part", "This carburetor has no such part.")
        : Ends is not { } id ? []
        : Standing(tray.Log).FirstOrDefault(logged => logged.EntryId == id) is not { Note: var ended }
            ? NoteAnswers.Wrong("ends", "That remark is at its end already, or was taken back.")
        : ended.Fate == RemarkFate.Unsafe && Fate != RemarkFate.Done
            ? NoteAnswers.Wrong("fate", "What is unsafe comes to its end only when it was put right: say what was done.")
        : [];
}
