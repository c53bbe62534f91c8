using System.Globalization;
using System.Text.Json.Serialization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Cleaning;

/// <summary>What became of a way to clean.</summary>
public enum MethodStep
{
    /// <summary>It is going to be used.</summary>
    Chosen,

    /// <summary>It is not.</summary>
    Dropped,

    /// <summary>It has been used.</summary>
    Done,

    /// <summary>It was begun and broken off before its time: still to be done, and what it used is on the parts.</summary>
    Short,
}

/// <summary>How what was cleaned came out.</summary>
public enum CleanResult
{
    /// <summary>Clean.</summary>
    Clean,

    /// <summary>Better, and not clean yet: the dirt is still to come off.</summary>
    NotYet,

    /// <summary>As before: this does not take it off.</summary>
    NoChange,
}

/// <summary>One entry about cleaning a tray's parts. Added, never edited.</summary>
public abstract record CleaningNote : Note
{
    /// <summary>What happened, in words for the logbook.</summary>
    public abstract string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages);

    private protected IReadOnlyList<FieldProblem> Check(TrayBook tray) =>
        tray.State<CleaningState>().Plan.Check(this, tray.Knowledge.Of<CleaningKnowledge>());

    private protected Sentence Say(TrayBook tray)
    {
        var knowledge = tray.Knowledge.Of<CleaningKnowledge>();
        return Sentence.Say($"{Words(knowledge, knowledge.Passages(tray.Kind.Family, tray.Sheet))}");
    }
}

/// <summary>What dirt there is.</summary>
/// <param name="Soils">Keys of the dirt; empty when it looks clean.</param>
public sealed record SoilsNote(IReadOnlyList<string> Soils) : CleaningNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<SoilsNote> Kind { get; } =
        new("soils")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.Check(tray),
            Says = (note, tray) => note.Say(tray),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };

    /// <inheritdoc/>
    public override string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages) =>
        Soils.Count == 0
            ? "Looks clean"
            : "To be cleaned off: "
                + string.Join(
                    ", ",
                    Soils.Select(soil => knowledge.Soils.FirstOrDefault(one => one.Key == soil)?.Label.ToLowerInvariant() ?? soil)
                );
}

/// <summary>A way to clean is chosen, dropped or done.</summary>
/// <param name="Recipe">The recipe's key.</param>
/// <param name="Step">Which of them.</param>
/// <param name="Pieces">What goes in or was in: keys of parts that lie on the bench, and <see cref="CleaningPlan.Body"/>; null for everything
/// on the bench that may, and the body where all of it is in pieces.</param>
/// <param name="Minutes">Minutes it took, above 0; null when nobody counted.</param>
/// <param name="Result">How it came out; null when nobody said: clean.</param>
/// <param name="SoBecause">Why a piece that the bench would keep out goes in all the same, such as that it is brass here; null otherwise.</param>
public sealed record MethodNote(
    string Recipe,
    MethodStep Step,
    IReadOnlyList<string>? Pieces = null,
    double? Minutes = null,
    CleanResult? Result = null,
    string? SoBecause = null
) : CleaningNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<MethodNote> Kind { get; } =
        new("method")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.Check(tray),
            Says = (note, tray) =>
                Sentence.Say(
                    $"{note.Words(tray.Knowledge.Of<CleaningKnowledge>(), [])}{note.Besides(tray.State<CleaningState>().Plan.Pieces)}"
                ),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = note => note.Step is MethodStep.Done or MethodStep.Short,
        };

    /// <summary>True when it was done and took the dirt off, as far as anybody said.</summary>
    [JsonIgnore]
    public bool TookItOff => Step == MethodStep.Done && Result is null or CleanResult.Clean;

    /// <inheritdoc/>
    public override string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages)
    {
        var label = knowledge.Find(Recipe)?.Label ?? Recipe;
        return (Step, Result) switch
        {
            (MethodStep.Chosen, _) => $"To clean with: {label}",
            (MethodStep.Dropped, _) => $"Not to clean with: {label}",
            (MethodStep.Done, CleanResult.NotYet) => $"Better, not clean yet: {label}",
            (MethodStep.Done, CleanResult.NoChange) => $"No cleaner than before: {label}",
            (MethodStep.Done, _) => $"Cleaned: {label}",
            (MethodStep.Short, _) => $"Not long enough: {label}",
        };
    }

    private string Besides(IReadOnlyList<CleaningPiece> known)
    {
        var pieces = Pieces is null
            ? ""
            : ": " + string.Join(", ", Pieces.Select(key => known.FirstOrDefault(one => one.Key == key)?.Label ?? key));
        var minutes = Minutes is { } min ? $", {Duration(min)}" : "";
        return pieces + minutes + (string.IsNullOrWhiteSpace(SoBecause) ? "" : $", because: {SoBecause.Trim().TrimEnd('.')}");
    }

    private static string Duration(double minutes) =>
        minutes >= 120
            ? string.Create(CultureInfo.InvariantCulture, $"{minutes / 60:0.#} h")
            : string.Create(CultureInfo.InvariantCulture, $"{minutes:0} min");
}

/// <summary>Rinsed, blown out and dry: what was used before is off, and another kind may follow.</summary>
public sealed record DryNote : CleaningNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<DryNote> Kind { get; } =
        new("dry")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) =>
                // While its basket is in the bath nobody rinses it.
                tray.Facts.WaitsFor == WaitsFor.Bath
                    ? [new("note", "Its basket is still in the bath. Take it out first.")]
                    : note.Check(tray),
            Says = (note, tray) => note.Say(tray),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.IsWork,
        };

    /// <inheritdoc/>
    public override string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages) => "Rinsed, blown out and dry";
}

/// <summary>How a passage stands.</summary>
/// <param name="Passage">The passage's key.</param>
/// <param name="Cleaned">Whether it has been cleaned.</param>
/// <param name="AirSeen">Whether air was seen at its exit.</param>
public sealed record PassageNote(string Passage, bool Cleaned, bool AirSeen) : CleaningNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<PassageNote> Kind { get; } =
        new("passage")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.Check(tray),
            Says = (note, tray) => note.Say(tray),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = note => note.Cleaned,
        };

    /// <inheritdoc/>
    public override string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages)
    {
        var label = passages.FirstOrDefault(one => one.Key == Passage)?.Label ?? Passage;
        return (Cleaned, AirSeen) switch
        {
            (true, true) => $"{label}: clean, air at the exit",
            (true, false) => $"{label}: cleaned, no air seen yet",
            (false, true) => $"{label}: air at the exit",
            (false, false) => $"{label}: open again",
        };
    }
}

/// <summary>The tray's basket went into a bath or came out of it; recorded together with the bath's own event.</summary>
/// <param name="Bath">What the bath is called.</param>
/// <param name="Basket">Its basket, from 1.</param>
/// <param name="Placed">True when it went in.</param>
/// <param name="CountedMin">Minutes that counted, when it came out.</param>
/// <param name="WantedMin">Minutes that were wanted, when it came out.</param>
public sealed record BasketNote(string Bath, int Basket, bool Placed, double? CountedMin = null, double? WantedMin = null) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<BasketNote> Kind { get; } =
        new("basket")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded at the bath.",
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) => note.Said(),
            Leaves = (note, tray) =>
                note.Placed
                    ? Waiting.After(tray.Facts, WaitEvent.IntoBath, $"{note.Bath}, basket {note.Basket}")
                    : Waiting.After(tray.Facts, WaitEvent.OutOfBath),
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.IsWork,
        };

    private static string Early(double counted, double wanted) => counted < wanted ? ", early" : "";

    private Sentence Said() =>
        this switch
        {
            { Placed: true } => Sentence.Say($"Into the {Bath.ToLowerInvariant()}, basket {Basket}"),
            { CountedMin: { } counted, WantedMin: { } wanted } => Sentence.Say(
                $"Out of the {Bath.ToLowerInvariant()} after {Quantity.Min(Math.Round(counted))} of {Quantity.Min(wanted)}{Early(counted, wanted)}"
            ),
            _ => Sentence.Say($"Out of the {Bath.ToLowerInvariant()}"),
        };
}
