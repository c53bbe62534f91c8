namespace BlueDawn.Core.Intake;

/// <summary>Names of owners and machines, as people write them: one boat in many ways.</summary>
public static class Names
{
    /// <summary>Shorter names are too alike by chance: own judgement.</summary>
    private const int ShortestToLiken = 4;

    /// <summary>Whether two names are the same but for capitals, spaces and signs.</summary>
    /// <param name="one">A name.</param>
    /// <param name="other">Another.</param>
    public static bool IsSame(string one, string other) => Folded(one) == Folded(other);

    /// <summary>What all spellings of one name have in common: its letters and digits as capitals; the name itself when it has
    /// none.</summary>
    /// <param name="name">A name.</param>
    public static string Folded(string name) => Bare(name) is { Length: > 0 } bare ? bare : name.Trim();

    /// <summary>A folded name and what is left of it without any one of its letters. Two names are one letter apart only when they
    /// share one of these, so that a store finds them by what is equal. Names too short to be likened have none.</summary>
    /// <param name="folded">A name as <see cref="Folded"/> gives it.</param>
    public static IReadOnlyList<string> Near(string folded) =>
        folded.Length < ShortestToLiken
            ? []
            : [.. Enumerable.Range(0, folded.Length).Select(at => folded.Remove(at, 1)).Prepend(folded).Distinct()];

    /// <summary>Every part of a folded name that is long enough to be likened to it, without the whole: a name that is a part of
    /// it is one of these.</summary>
    /// <param name="folded">A name as <see cref="Folded"/> gives it.</param>
    public static IReadOnlyList<string> Parts(string folded) =>
        [
            .. Enumerable
                .Range(ShortestToLiken, Math.Max(0, folded.Length - ShortestToLiken))
                .SelectMany(length => Enumerable.Range(0, folded.Length - length + 1).Select(at => folded.Substring(at, length)))
                .Distinct(),
        ];

    /// <summary>Whether two names that are not the same may well be one: a part of the other, or one letter more, less or other. A
    /// person says whether they are.</summary>
    /// <param name="one">A name.</param>
    /// <param name="other">Another.</param>
    public static bool IsAlmost(string one, string other)
    {
        var (a, b) = (Bare(one), Bare(other));
        if (a == b || Math.Min(a.Length, b.Length) < ShortestToLiken)
        {
            return false;
        }

        if (a.Contains(b, StringComparison.Ordinal) || b.Contains(a, StringComparison.Ordinal))
        {
            return true;
        }

        var (shorter, longer) = a.Length <= b.Length ? (a, b) : (b, a);
        if (longer.Length - shorter.Length > 1)
        {
            return false;
        }

        var at = 0;
        while (at < shorter.Length && shorter[at] == longer[at])
        {
            at++;
        }

        return shorter[(shorter.Length == longer.Length ? at + 1 : at)..] == longer[(at + 1)..];
    }

    private static string Bare(string name) => string.Concat(name.Where(char.IsLetterOrDigit)).ToUpperInvariant();
}
