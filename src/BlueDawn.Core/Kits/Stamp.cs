using BlueDawn.Core.Carburetors;

namespace BlueDawn.Core.Kits;

/// <summary>How well a number as read agrees with one on record, best last.</summary>
public enum StampMatch
{
    /// <summary>Not the same number.</summary>
    None,

    /// <summary>Close, but for a character that is not easily misread, is missing or too many.</summary>
    Near,

    /// <summary>What could be read stands in it; the rest could not be read.</summary>
    Part,

    /// <summary>The same but for characters that are easily misread or could not be read.</summary>
    Misread,

    /// <summary>The same number.</summary>
    Exact,
}

/// <summary>How one character compares.</summary>
public enum CharacterMark
{
    /// <summary>The same.</summary>
    Same,

    /// <summary>Another one that looks like it.</summary>
    LooksAlike,

    /// <summary>Could not be read.</summary>
    Unreadable,

    /// <summary>Another one.</summary>
    Different,

    /// <summary>On record, not in what was read.</summary>
    NotRead,

    /// <summary>In what was read, not on record.</summary>
    Extra,
}

/// <summary>One place of two numbers laid side by side.</summary>
/// <param name="Read">The character as read, or null.</param>
/// <param name="OnRecord">The character on record, or null.</param>
/// <param name="Mark">How they compare.</param>
public sealed record StampCharacter(char? Read, char? OnRecord, CharacterMark Mark);

/// <summary>What one difference weighs when two numbers are compared. Own judgement.</summary>
/// <param name="LooksAlike">A look-alike character.</param>
/// <param name="Unreadable">A character entered as ?.</param>
/// <param name="NotReadAtEnd">A character on record before the first or after the last one read: the edge is worn or still to be
/// typed.</param>
/// <param name="NotRead">A character on record that was passed over.</param>
/// <param name="Extra">A character read that is not on record.</param>
/// <param name="Different">Any other character.</param>
public sealed record StampWeights(double LooksAlike, double Unreadable, double NotReadAtEnd, double NotRead, double Extra, double Different)
{
    /// <summary>The weights stamps are compared with.</summary>
    public static StampWeights Worn { get; } = new(0.25, 0.3, 0.3, 0.7, 0.8, 1);

    /// <summary>Every difference weighs 1: the plain edit distance of Levenshtein (1966).</summary>
    public static StampWeights Even { get; } = new(1, 1, 1, 1, 1, 1);
}

/// <summary>A number as read laid beside one on record.</summary>
/// <param name="OnRecord">The number on record, as it is written there.</param>
/// <param name="Match">How well they agree.</param>
/// <param name="Weight">Sum of the weights of all differences; 0 when they are the same.</param>
/// <param name="Characters">Place by place.</param>
public sealed record StampReading(string OnRecord, StampMatch Match, double Weight, IReadOnlyList<StampCharacter> Characters);

/// <summary>Compares stamped numbers the way they are read: worn, dirty, and with look-alike characters.</summary>
/// <remarks>
/// Confused characters 0/O/D/Q, 1/I/L, 5/S, 8/B, 2/Z, 6/G: common practice, no source. The comparison is the edit
/// distance of Wagner and Fischer (1974) with a weight for each kind of difference.
/// </remarks>
public static class Stamp
{
    private const int FewestRead = 2;
    private const double FarthestShort = 1.0;
    private const double FarthestPerCharacter = 0.2;

    /// <summary>The number with every look-alike put as one: two numbers that read alike fold to the same text.</summary>
    public static string Fold(string? stamped) => new(StampedNumber.Tidy(stamped).Select(Fold).ToArray());

    /// <summary>The spec sheet whose stamped number is exactly this one; null when there is none, or more than one.</summary>
    /// <param name="stamped">The number as it is stamped.</param>
    /// <param name="family">The kind of carburetor; null when nobody has said it.</param>
    /// <param name="sheets">Every sheet there is.</param>
    public static SpecSheet? OnlySheet(string stamped, CarburetorFamily? family, IEnumerable<SpecSheet> sheets) =>
        sheets
            .Where(sheet =>
                (family is null || sheet.Family == family)
                && sheet.StampedNumbers.Any(number => Compare(stamped, number).Match == StampMatch.Exact)
            )
            .Take(2)
            .ToList()
            is [var only]
            ? only
            : null;

    /// <summary>Lays a number as read beside one on record.</summary>
    public static StampReading Compare(string? read, string onRecord) => Compare(read, onRecord, StampWeights.Worn);

    /// <summary>Lays a number as read beside one on record.</summary>
    /// <param name="read">What was read; <see cref="StampedNumber.Unreadable"/> for what could not be.</param>
    /// <param name="onRecord">The number on record.</param>
    /// <param name="weights">What each difference weighs.</param>
    public static StampReading Compare(string? read, string onRecord, StampWeights weights)
    {
        var (a, b) = (StampedNumber.Tidy(read), StampedNumber.Tidy(onRecord));
        if (a.Length == 0 || b.Length == 0)
        {
            return new StampReading(onRecord, StampMatch.None, weights.NotRead * b.Length + weights.Extra * a.Length, []);
        }

        var table = Fill(a, b, weights);
        var characters = Trace(a, b, table, weights);
        var weight = table[a.Length, b.Length];
        return new StampReading(onRecord, Judge(a, b, weight, characters), weight, characters);
    }

    /// <summary>Candidates for a number as read, surest first; those that do not agree at all are left out.</summary>
    /// <param name="read">What was read.</param>
    /// <param name="onRecord">Numbers on record.</param>
    public static IReadOnlyList<StampReading> Rank(string? read, IEnumerable<string> onRecord) =>
        [
            .. onRecord
                .Select(number => Compare(read, number))
                .Where(reading => reading.Match != StampMatch.None)
                .OrderByDescending(reading => reading.Match == StampMatch.Exact)
                .ThenBy(reading => reading.Weight)
                .ThenByDescending(reading => reading.Match)
                .ThenBy(reading => reading.OnRecord, StringComparer.Ordinal),
        ];

    private static StampMatch Judge(string read, string onRecord, double weight, IReadOnlyList<StampCharacter> characters)
    {
        var legible = read.Count(c => c != StampedNumber.Unreadable);
        var farthest = Math.Max(FarthestShort, FarthestPerCharacter * onRecord.Length);
        if (weight == 0)
        {
            return StampMatch.Exact;
        }

        if (legible < Math.Min(FewestRead, onRecord.Length))
        {
            return StampMatch.None;
        }

        bool Only(params CharacterMark[] marks) =>
            characters.All(character => character.Mark == CharacterMark.Same || marks.Contains(character.Mark));
        return Only(CharacterMark.LooksAlike, CharacterMark.Unreadable) ? StampMatch.Misread
            : weight > farthest + 1e-9 ? StampMatch.None
            : Only(CharacterMark.LooksAlike, CharacterMark.Unreadable, CharacterMark.NotRead) && NotReadAtTheEnds(characters)
                ? StampMatch.Part
            : StampMatch.Near;
    }

    private static bool NotReadAtTheEnds(IReadOnlyList<StampCharacter> characters) =>
        characters
            .SkipWhile(character => character.Mark == CharacterMark.NotRead)
            .Reverse()
            .SkipWhile(character => character.Mark == CharacterMark.NotRead)
            .All(character => character.Mark != CharacterMark.NotRead);

    private static double[,] Fill(string a, string b, StampWeights weights)
    {
        var table = new double[a.Length + 1, b.Length + 1];
        for (var i = 0; i <= a.Length; i++)
        {
            for (var j = 0; j <= b.Length; j++)
            {
                if (i > 0 || j > 0)
                {
                    table[i, j] = Math.Min(
                        i > 0 && j > 0 ? table[i - 1, j - 1] + Weigh(a[i - 1], b[j - 1], weights).Weight : double.MaxValue,
                        Math.Min(
                            i > 0 ? table[i - 1, j] + weights.Extra : double.MaxValue,
                            j > 0 ? table[i, j - 1] + PassedOver(i, a.Length, weights) : double.MaxValue
                        )
                    );
                }
            }
        }

        return table;
    }

    private static StampCharacter[] Trace(string a, string b, double[,] table, StampWeights weights)
    {
        var places = new Stack<StampCharacter>();
        var (i, j) = (a.Length, b.Length);
        while (i > 0 || j > 0)
        {
            if (i > 0 && j > 0 && Weigh(a[i - 1], b[j - 1], weights) is var (mark, weight) && table[i, j] == table[i - 1, j - 1] + weight)
            {
                places.Push(new StampCharacter(a[--i], b[--j], mark));
            }
            else if (j > 0 && table[i, j] == table[i, j - 1] + PassedOver(i, a.Length, weights))
            {
                places.Push(new StampCharacter(null, b[--j], CharacterMark.NotRead));
            }
            else
            {
                places.Push(new StampCharacter(a[--i], null, CharacterMark.Extra));
            }
        }

        return [.. places];
    }

    private static double PassedOver(int readSoFar, int read, StampWeights weights) =>
        readSoFar == 0 || readSoFar == read ? weights.NotReadAtEnd : weights.NotRead;

    private static (CharacterMark Mark, double Weight) Weigh(char read, char onRecord, StampWeights weights) =>
        read == onRecord ? (CharacterMark.Same, 0)
        : read == StampedNumber.Unreadable ? (CharacterMark.Unreadable, weights.Unreadable)
        : Fold(read) == Fold(onRecord) ? (CharacterMark.LooksAlike, weights.LooksAlike)
        : (CharacterMark.Different, weights.Different);

    private static char Fold(char c) =>
        c switch
        {
            'O' or 'D' or 'Q' => '0',
            'I' or 'L' => '1',
            'S' => '5',
            'B' => '8',
            'Z' => '2',
            'G' => '6',
            _ => c,
        };
}
