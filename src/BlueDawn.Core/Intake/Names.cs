namespace BlueDawn.Core.Intake;

/// <summary>Names of owners and machines, as people write them: one boat in many ways.</summary>
public static class Names
{
    /// <summary>Shorter names are too alike by chance: own judgement.</summary>
    private const int ShortestToLiken = 4;

    /// <summary>Whether two names are the same but for capitals, spaces and signs.</summary>
    /// <param name="one">A name.</param>
    /// <param name="other">Another.</param>
    public static bool IsSame(string one, string other) =>
        Bare(one) is { Length: > 0 } bare ? bare == Bare(other) : one.Trim() == other.Trim();

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
