using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Kits;

/// <summary>How a maker writes the day a carburetor was made.</summary>
/// <param name="Maker">The maker.</param>
/// <param name="Pattern">
/// Letter by letter: <c>Y</c>, <c>YY</c> or <c>YYYY</c> the year's last digits; <c>DDD</c> day of the year; <c>WW</c> week
/// (ISO 8601); <c>MM</c> month; <c>DD</c> day of the month; <c>A</c> month as a letter, A for January to L for December.
/// </param>
/// <param name="FirstYear">First year the maker used it.</param>
/// <param name="LastYear">Last year, inclusive.</param>
/// <param name="Source">Where it is from.</param>
public sealed record DateCodePattern(string Maker, string Pattern, int FirstYear, int LastYear, string Source);

/// <summary>A stretch of days that a date code can mean.</summary>
/// <param name="From">First day.</param>
/// <param name="To">Last day; the same for a single day.</param>
/// <param name="Misread">Characters that were taken for the digit or letter they look like.</param>
public sealed record MadeOn(DateOnly From, DateOnly To, int Misread);

/// <summary>Reads date codes.</summary>
public static partial class DateCode
{
    /// <summary>Reads a code by a maker's pattern.</summary>
    /// <param name="code">The code as read.</param>
    /// <param name="pattern">The maker's pattern.</param>
    /// <returns>Every stretch of days it can mean, oldest first, or what is wrong with it.</returns>
    public static Parsed<IReadOnlyList<MadeOn>> Read(string? code, DateCodePattern pattern)
    {
        var tidy = StampedNumber.Tidy(code);
        if (tidy.Length != pattern.Pattern.Length)
        {
            return Parsed<IReadOnlyList<MadeOn>>.Wrong(
                $"{pattern.Maker} writes {pattern.Pattern.Length} characters, {Say(pattern)}. This has {tidy.Length}."
            );
        }

        var fields = new Dictionary<char, string>();
        var misread = 0;
        foreach (var (sign, place) in pattern.Pattern.Zip(tidy))
        {
            var meant = sign == 'A' ? AsLetter(place) : AsDigit(place);
            if (meant is not { } character)
            {
                return Parsed<IReadOnlyList<MadeOn>>.Wrong($"“{place}” cannot stand there: {Say(pattern)}.");
            }

            misread += character == place ? 0 : 1;
            fields[sign] = fields.GetValueOrDefault(sign, "") + character;
        }

        var made = Years(fields.GetValueOrDefault('Y', ""), pattern)
            .Select(year => Days(year, fields))
            .OfType<(DateOnly From, DateOnly To)>()
            .Select(days => new MadeOn(days.From, days.To, misread))
            .ToList();
        return made.Count > 0
            ? Parsed<IReadOnlyList<MadeOn>>.Right(made)
            : Parsed<IReadOnlyList<MadeOn>>.Wrong(
                $"No day between {pattern.FirstYear} and {pattern.LastYear} is written like that: {Say(pattern)}."
            );
    }

    /// <summary>What is wrong with a shop's patterns, by the path of its box, such as <c>patterns[0].pattern</c>.</summary>
    /// <param name="patterns">The patterns.</param>
    public static IReadOnlyList<FieldProblem> Problems(IReadOnlyList<DateCodePattern> patterns)
    {
        var problems = new List<FieldProblem>();
        foreach (var (one, i) in patterns.Select((one, i) => (one, i)))
        {
            var at = $"patterns[{i}]";
            if (one.Maker.Trim().Length is 0 or > 60)
            {
                problems.Add(new($"{at}.maker", "Write the maker’s name, in no more than 60 characters."));
            }
            else if (patterns.Take(i).Any(other => string.Equals(other.Maker.Trim(), one.Maker.Trim(), StringComparison.OrdinalIgnoreCase)))
            {
                problems.Add(new($"{at}.maker", "There is a pattern of that maker already."));
            }

            if (!PatternText().IsMatch(one.Pattern))
            {
                problems.Add(
                    new(
                        $"{at}.pattern",
                        "Write it letter by letter: Y, YY or YYYY for the year, then DDD, WW, MM, A, or MM and DD, in their order."
                    )
                );
            }

            if (one.FirstYear is < 1900 or > 2100 || one.LastYear is < 1900 or > 2100 || one.LastYear < one.FirstYear)
            {
                problems.Add(new($"{at}.years", "From which year to which? Four digits, the first before the last."));
            }

            if (one.Source.Trim().Length is 0 or > 200)
            {
                problems.Add(new($"{at}.source", "Write where it is from, in no more than 200 characters."));
            }
        }

        return problems;
    }

    // A year and at most one way to say the day in it, in any order.
    [GeneratedRegex(
        "^(?=[^Y]*Y{1,2}[^Y]*$|[^Y]*Y{4}[^Y]*$)(?:Y+|(?:DDD|WW|MM|A)Y*|Y*(?:DDD|WW|MM|A)|"
            + "DDMMY+|MMDDY+|YY?MMDD|YYYYMMDD|YY?DDMM|DDYY?MM|ADDY+|DDAY+|YY?ADD|YY?DDA)$"
    )]
    private static partial Regex PatternText();

    /// <summary>The pattern in words.</summary>
    public static string Say(DateCodePattern pattern)
    {
        var words = new List<string>();
        for (var i = 0; i < pattern.Pattern.Length; )
        {
            var sign = pattern.Pattern[i];
            var length = pattern.Pattern.Skip(i).TakeWhile(c => c == sign).Count();
            words.Add(
                (sign, length) switch
                {
                    ('Y', 1) => "last digit of the year",
                    ('Y', 2) => "last two digits of the year",
                    ('Y', _) => "the year",
                    ('D', 3) => "day of the year",
                    ('W', _) => "week of the year",
                    ('M', _) => "month",
                    ('A', _) => "month as a letter",
                    _ => "day of the month",
                }
            );
            i += length;
        }

        return string.Join(", then ", words);
    }

    private static IEnumerable<int> Years(string digits, DateCodePattern pattern)
    {
        var step = (int)Math.Pow(10, digits.Length);
        var ends = digits.Length == 0 ? 0 : Number(digits);
        return Enumerable
            .Range(pattern.FirstYear, pattern.LastYear - pattern.FirstYear + 1)
            .Where(year => digits.Length > 0 && year % step == ends);
    }

    private static (DateOnly From, DateOnly To)? Days(int year, Dictionary<char, string> fields)
    {
        var ofYear = fields.GetValueOrDefault('D', "") is { Length: 3 } days ? Number(days) : (int?)null;
        if (ofYear is { } day)
        {
            return day >= 1 && day <= (DateTime.IsLeapYear(year) ? 366 : 365) ? One(new DateOnly(year, 1, 1).AddDays(day - 1)) : null;
        }

        if (fields.TryGetValue('W', out var week))
        {
            var number = Number(week);
            return number >= 1 && number <= ISOWeek.GetWeeksInYear(year)
                ? (ISOWeek.ToDateOnly(year, number, DayOfWeek.Monday), ISOWeek.ToDateOnly(year, number, DayOfWeek.Sunday))
                : null;
        }

        var month =
            fields.TryGetValue('M', out var digits) ? Number(digits)
            : fields.TryGetValue('A', out var letter) ? letter[0] - 'A' + 1
            : 0;
        if (month is < 1 or > 12)
        {
            return month == 0 && !fields.ContainsKey('M') && !fields.ContainsKey('A')
                ? (new DateOnly(year, 1, 1), new DateOnly(year, 12, 31))
                : null;
        }

        var last = DateTime.DaysInMonth(year, month);
        if (!fields.TryGetValue('D', out var ofMonth))
        {
            return (new DateOnly(year, month, 1), new DateOnly(year, month, last));
        }

        return Number(ofMonth) is var d && d >= 1 && d <= last ? One(new DateOnly(year, month, d)) : null;
    }

    private static (DateOnly From, DateOnly To)? One(DateOnly day) => (day, day);

    private static int Number(string digits) => int.Parse(digits, CultureInfo.InvariantCulture);

    private static char? AsDigit(char read) =>
        char.IsAsciiDigit(read) ? read
        : Stamp.Fold(read.ToString())[0] is var folded && char.IsAsciiDigit(folded) ? folded
        : null;

    private static char? AsLetter(char read) =>
        read switch
        {
            >= 'A' and <= 'L' => read,
            '0' => 'D',
            '1' => 'I',
            '8' => 'B',
            '6' => 'G',
            _ => null,
        };
}
