using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Build;

/// <summary>A screw was turned where it sits, at any time. The last one stands.</summary>
/// <param name="Part">The screw's key.</param>
/// <param name="TurnsEighths">Turns out from a light seat, in eighths, after it.</param>
/// <param name="FromEighths">Turns before it, in eighths, where the tray does not know them; null when they were not counted.</param>
/// <param name="Why">Why it was turned, or null.</param>
public sealed record TurnsNote(string Part, int TurnsEighths, int? FromEighths = null, string? Why = null) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<TurnsNote> Kind { get; } =
        new("turns")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.Wrong(tray),
            Says = (note, tray) => note.Say(tray),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.IsWork,
        };

    private const int Longest = 200;

    private IReadOnlyList<FieldProblem> Wrong(TrayBook tray) =>
        In(tray) is not { } screw ? NoteAnswers.Wrong("part", "There is no such screw on this carburetor whose turns are counted.")
        : !screw.IsIn ? NoteAnswers.Wrong("part", "It lies on the bench: its turns are written down as it goes in, at Build.")
        : Turns.Check(TurnsEighths) is { } turns ? [turns]
        : Turns.Check(FromEighths) is { } before ? [before with { Field = "note.fromEighths" }]
        : Why?.Length > Longest ? NoteAnswers.Wrong("why", $"Longer than {Longest} characters. Shorten it.")
        : [];

    private Sentence Say(TrayBook tray) => Sentence.Say($"{In(tray)?.Label ?? Part} turned to {Turns.Text(TurnsEighths)}{Because}");

    private Screw? In(TrayBook tray) => tray.State<BuildState>().Screws.FirstOrDefault(screw => screw.Part == Part);

    private string Because => string.IsNullOrWhiteSpace(Why) ? "" : $", because: {Why.Trim()}";
}

/// <summary>One time a screw was turned where it sits.</summary>
/// <param name="From">Eighths before it, or null when nobody knows.</param>
/// <param name="To">Eighths after it.</param>
/// <param name="Why">Why, or null.</param>
/// <param name="At">When.</param>
/// <param name="By">By whom.</param>
public sealed record ScrewStep(int? From, int To, string? Why, DateTimeOffset At, string By);

/// <summary>A screw whose turns are counted, and where it stands.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="Label">What it is called.</param>
/// <param name="IsIn">False while it lies on the bench.</param>
/// <param name="Eighths">Eighths of a turn out from a light seat as it stands; null while nobody said.</param>
/// <param name="FoundEighths">As it was found, or null.</param>
/// <param name="Steps">Each time it was turned where it sits, oldest first.</param>
public sealed record Screw(string Part, string Label, bool IsIn, int? Eighths, int? FoundEighths, IReadOnlyList<ScrewStep> Steps)
{
    /// <summary>Every screw of a tray's carburetor whose turns are counted, in the order they come off.</summary>
    /// <param name="tray">The tray.</param>
    public static IReadOnlyList<Screw> Of(TrayBook tray) =>
        [.. tray.Ledger.Lines.Where(line => line.Part.Asks.Contains(Ask.Turns)).Select(line => Of(line, tray))];

    private static Screw Of(LedgerLine line, TrayBook tray)
    {
        int? now = null;
        int? found = null;
        var steps = new List<ScrewStep>();
        var before = new Stack<(int? Found, int? Now)>();
        foreach (var logged in tray.Log.Notes<Note>())
        {
            switch (logged.Note)
            {
                case UndoNote undo when undo.Part == line.Part.Key:
                    (found, now) = before.TryPop(out var was) ? was : (found, now);
                    break;
                case PartNote about when about.Part == line.Part.Key:
                    before.Push((found, now));
                    found = (about as OutNote)?.TurnsEighths ?? found;
                    now = (about as OutNote)?.TurnsEighths ?? (about as BackNote)?.TurnsEighths ?? now;
                    break;
                case TurnsNote turned when turned.Part == line.Part.Key:
                    steps.Add(new ScrewStep(turned.FromEighths ?? now, turned.TurnsEighths, turned.Why, logged.TakenAt, logged.By));
                    found ??= line.Found is null ? turned.FromEighths : null;
                    now = turned.TurnsEighths;
                    break;
            }
        }

        return new Screw(line.Part.Key, line.Part.Label, line.IsIn, now, found, steps);
    }
}
