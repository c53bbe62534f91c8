using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Build;

/// <summary>It is tried as it stands, though something is off or not as it should be: so on this machine, because. What is read then counts
/// for the fault, and is read once more when all is on.</summary>
/// <param name="Because">Why it is tried like this.</param>
public sealed record TrialNote(string Because) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<TrialNote> Kind { get; } =
        new("trial")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.Wrong(tray.State<BuildState>()),
            Says = (note, _) => Sentence.Say($"Tried as it stands, because: {note.Because}"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };

    private const int Longest = 200;

    /// <summary>Whether the last one still stands: nothing has come out since, nor was anything said of a part taken back.</summary>
    /// <param name="tray">The tray.</param>
    public static bool Stands(TrayBook tray) =>
        tray.Log.Notes<Note>().Select(logged => logged.Note).LastOrDefault(note => note is TrialNote or OutNote or UndoNote) is TrialNote;

    private IReadOnlyList<FieldProblem> Wrong(BuildState build) =>
        build.WhyNotTogether is null ? NoteAnswers.Wrong("because", "It is together: it needs no reason to be tried.")
        : build.NeverWithout is { Count: > 0 } never
            ? NoteAnswers.Wrong(
                "because",
                $"Not without: {string.Join(", ", never)}. Fuel would run out, or nothing would stop the engine."
            )
        : string.IsNullOrWhiteSpace(Because) || Because.Trim().Length < Reason.Shortest
            ? NoteAnswers.Wrong("because", $"Say in at least {Reason.Shortest} characters why it is tried like this.")
        : Because.Length > Longest ? NoteAnswers.Wrong("because", $"Longer than {Longest} characters. Shorten it.")
        : [];
}
