using BlueDawn.Core.Logbook;

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

/// <summary>One entry about cleaning a tray's parts. Added, never edited.</summary>
public abstract record CleaningNote : Note
{
    /// <summary>What happened, in words for the logbook.</summary>
    public abstract string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages);
}

/// <summary>What dirt there is.</summary>
/// <param name="Soils">Keys of the dirt; empty when it looks clean.</param>
public sealed record SoilsNote(IReadOnlyList<string> Soils) : CleaningNote
{
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
public sealed record MethodNote(string Recipe, MethodStep Step) : CleaningNote
{
    /// <inheritdoc/>
    public override string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages)
    {
        var label = knowledge.Find(Recipe)?.Label ?? Recipe;
        return Step switch
        {
            MethodStep.Chosen => $"To clean with: {label}",
            MethodStep.Dropped => $"Not to clean with: {label}",
            MethodStep.Done => $"Cleaned: {label}",
            MethodStep.Short => $"Not long enough: {label}",
        };
    }
}

/// <summary>Rinsed, blown out and dry: what was used before is off, and another kind may follow.</summary>
public sealed record DryNote : CleaningNote
{
    /// <inheritdoc/>
    public override string Words(CleaningKnowledge knowledge, IReadOnlyList<Passage> passages) => "Rinsed, blown out and dry";
}

/// <summary>How a passage stands.</summary>
/// <param name="Passage">The passage's key.</param>
/// <param name="Cleaned">Whether it has been cleaned.</param>
/// <param name="AirSeen">Whether air was seen at its exit.</param>
public sealed record PassageNote(string Passage, bool Cleaned, bool AirSeen) : CleaningNote
{
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
