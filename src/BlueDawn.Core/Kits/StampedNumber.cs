namespace BlueDawn.Core.Kits;

/// <summary>How well a stamped number as read agrees with one on record.</summary>
public enum StampMatch
{
    /// <summary>Not the same number.</summary>
    None,

    /// <summary>One of them begins with the other: part of the stamp could be read.</summary>
    Part,

    /// <summary>The same but for characters that are easily misread.</summary>
    Misread,

    /// <summary>The same number.</summary>
    Exact,
}

/// <summary>Compares stamped numbers the way they are read: worn, dirty, and with look-alike characters.</summary>
/// <remarks>Confused characters 0/O/D, 1/I/L, 5/S, 8/B, 2/Z, 6/G: common practice, no source.</remarks>
public static class StampedNumber
{
    /// <summary>Longest number accepted.</summary>
    public const int Longest = 40;

    private const int FewestForPart = 2;

    /// <summary>Upper case, without spaces, dots, dashes and slashes.</summary>
    public static string Tidy(string? stamped) =>
        new((stamped ?? "").ToUpperInvariant().Where(char.IsLetterOrDigit).ToArray());

    /// <summary>Compares a number as read with one on record.</summary>
    public static StampMatch Compare(string? read, string? onRecord)
    {
        var (a, b) = (Tidy(read), Tidy(onRecord));
        if (a.Length == 0 || b.Length == 0)
        {
            return StampMatch.None;
        }

        if (a == b)
        {
            return StampMatch.Exact;
        }

        var (foldedA, foldedB) = (Fold(a), Fold(b));
        if (foldedA == foldedB)
        {
            return StampMatch.Misread;
        }

        return a.Length >= FewestForPart && foldedB.StartsWith(foldedA, StringComparison.Ordinal) ? StampMatch.Part : StampMatch.None;
    }

    private static string Fold(string tidy) => new(tidy.Select(c => c switch
    {
        'O' or 'D' => '0',
        'I' or 'L' => '1',
        'S' => '5',
        'B' => '8',
        'Z' => '2',
        'G' => '6',
        _ => c,
    }).ToArray());
}
