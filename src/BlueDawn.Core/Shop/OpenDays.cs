using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Shop;

/// <summary>A day of the week on which the shop is open.</summary>
/// <param name="Day">Which.</param>
/// <param name="From">From when, by the clock of the shop.</param>
/// <param name="To">Until when.</param>
public sealed record OpenDay(DayOfWeek Day, TimeOnly From, TimeOnly To);

/// <summary>Days on which the shop is shut though it would be open.</summary>
/// <param name="From">The first of them; in any year when <paramref name="EveryYear"/>.</param>
/// <param name="To">The last of them.</param>
/// <param name="EveryYear">True when the year does not count.</param>
/// <param name="Why">Why, such as <c>Christmas</c>; may be empty.</param>
public sealed record ShutDays(DateOnly From, DateOnly To, bool EveryYear, string Why)
{
    /// <summary>Whether a day is one of them.</summary>
    /// <param name="day">The day.</param>
    public bool Has(DateOnly day)
    {
        if (!EveryYear)
        {
            return day >= From && day <= To;
        }

        var (first, last, at) = (From.Month * 100 + From.Day, To.Month * 100 + To.Day, day.Month * 100 + day.Day);
        // Over the turn of the year the last one comes first.
        return first <= last ? at >= first && at <= last : at >= first || at <= last;
    }
}

/// <summary>When the shop is open.</summary>
/// <param name="Week">Days of the week on which it is; empty while nobody has said: then every day may be promised.</param>
/// <param name="Shut">Holidays and other days on which it is not.</param>
public sealed partial record OpenDays(IReadOnlyList<OpenDay> Week, IReadOnlyList<ShutDays> Shut)
{
    private const int Farthest = 366;
    private const int LongestWhy = 60;
    private const int MostShut = 200;
    private static readonly string[] Days = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];

    /// <summary>Nothing said.</summary>
    public static OpenDays NotSaid { get; } = new([], []);

    /// <summary>The week as it is typed, such as <c>Mon-Fri 8:00-17:00, Sat 9:00-12:30</c>.</summary>
    public string WeekText =>
        string.Join(
            ", ",
            Week.Aggregate(new List<List<OpenDay>>(), (runs, day) =>
                {
                    if (
                        runs.LastOrDefault() is [.., var last] run
                        && last.From == day.From
                        && last.To == day.To
                        && Order(day.Day) == Order(last.Day) + 1
                    )
                    {
                        run.Add(day);
                    }
                    else
                    {
                        runs.Add([day]);
                    }

                    return runs;
                })
                .Select(run =>
                    $"{(run.Count == 1 ? Days[(int)run[0].Day] : $"{Days[(int)run[0].Day]}-{Days[(int)run[^1].Day]}")} {Say(run[0].From)}-{Say(run[0].To)}"
                )
        );

    /// <summary>The days it is shut as they are typed, a line each.</summary>
    public string ShutText =>
        string.Join(
            '\n',
            Shut.Select(shut =>
                Say(shut.From, shut.EveryYear)
                + (shut.To == shut.From ? "" : $" to {Say(shut.To, shut.EveryYear)}")
                + (shut.Why.Length > 0 ? " " + shut.Why : "")
            )
        );

    /// <summary>Why the shop is shut on a day, or null when it is open.</summary>
    /// <param name="day">The day.</param>
    public string? WhyShut(DateOnly day) =>
        Shut.FirstOrDefault(shut => shut.Has(day)) is { } holiday
            ? holiday.Why.Length > 0
                ? holiday.Why
                : "The shop is shut"
            : Week.Count > 0 && Week.All(open => open.Day != day.DayOfWeek)
                ? day.DayOfWeek.ToString()
                : null;

    /// <summary>The first day from this one on that the shop is open; this one when there is none within a year.</summary>
    /// <param name="day">The day.</param>
    public DateOnly OnOrAfter(DateOnly day) =>
        Enumerable.Range(0, Farthest).Select(day.AddDays).Where(one => WhyShut(one) is null).Select(one => (DateOnly?)one).FirstOrDefault()
        ?? day;

    /// <summary>Reads what was typed, or says what is wrong, field by field: <c>week</c> and <c>shut</c>.</summary>
    /// <param name="week">The week; empty for nothing said.</param>
    /// <param name="shut">The days it is shut, a line each.</param>
    public static (OpenDays Read, IReadOnlyList<FieldProblem> Problems) Parse(string week, string shut)
    {
        var problems = new List<FieldProblem>();
        var open = new List<OpenDay>();
        foreach (var part in week.Split([',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (
                WeekPart().Match(part) is not { Success: true } match
                || DayOf(match.Groups["first"].Value) is not { } first
                || DayOf(match.Groups["last"].Success ? match.Groups["last"].Value : match.Groups["first"].Value) is not { } last
                || TimeOf(match.Groups["from"].Value) is not { } from
                || TimeOf(match.Groups["to"].Value) is not { } to
                || Order(last) < Order(first)
                || to <= from
            )
            {
                problems.Add(new("week", $"“{part}” cannot be read. Write it like Mon-Fri 8:00-17:00, Sat 9:00-12:30."));
                continue;
            }

            for (var day = Order(first); day <= Order(last); day++)
            {
                open.Add(new OpenDay((DayOfWeek)((day + 1) % 7), from, to));
            }
        }

        if (open.GroupBy(day => day.Day).FirstOrDefault(group => group.Count() > 1) is { } twice)
        {
            problems.Add(new("week", $"{twice.Key} is there twice."));
        }

        var closed = new List<ShutDays>();
        foreach (var line in shut.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var match = ShutLine().Match(line);
            var (from, to) = (
                DateOf(match.Groups["from"].Value),
                DateOf(match.Groups["to"].Success ? match.Groups["to"].Value : match.Groups["from"].Value)
            );
            if (
                from is not { } first
                || to is not { } last
                || first.EveryYear != last.EveryYear
                || (!first.EveryYear && last.Day < first.Day)
            )
            {
                problems.Add(
                    new("shut", $"“{line}” cannot be read. Write it like 2026-12-24 to 2027-01-02 Christmas, or 1 May for every year.")
                );
            }
            else if (match.Groups["why"].Value.Trim() is var why && why.Length > LongestWhy)
            {
                problems.Add(new("shut", $"“{line}”: why, in no more than {LongestWhy} characters."));
            }
            else
            {
                closed.Add(new ShutDays(first.Day, last.Day, first.EveryYear, why));
            }
        }

        if (closed.Count > MostShut)
        {
            problems.Add(new("shut", $"No more than {MostShut} lines."));
        }

        return (new OpenDays([.. open.OrderBy(day => Order(day.Day))], closed), problems);
    }

    /// <summary>Monday first.</summary>
    private static int Order(DayOfWeek day) => ((int)day + 6) % 7;

    private static string Say(TimeOnly time) => time.ToString("H:mm", CultureInfo.InvariantCulture);

    private static string Say(DateOnly day, bool everyYear) =>
        day.ToString(everyYear ? "d MMM" : "yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static DayOfWeek? DayOf(string word) =>
        Array.FindIndex(Days, day => word.StartsWith(day, StringComparison.OrdinalIgnoreCase)) is >= 0 and var day
        && ((DayOfWeek)day).ToString().StartsWith(word, StringComparison.OrdinalIgnoreCase)
            ? (DayOfWeek)day
            : null;

    private static TimeOnly? TimeOf(string text) =>
        TimeOnly.TryParseExact(
            text.Replace('.', ':'),
            ["%H", "H:mm", "HH:mm"],
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var time
        )
            ? time
            : null;

    private static (DateOnly Day, bool EveryYear)? DateOf(string text) =>
        DateOnly.TryParseExact(
            text,
            ["yyyy-MM-dd", "d MMM yyyy", "d MMMM yyyy"],
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? (day, false)
        // A leap year, so that 29 February is a day.
        : DateOnly.TryParseExact(
            text + " 2000",
            ["d MMM yyyy", "d MMMM yyyy"],
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var yearly
        )
            ? (yearly, true)
        : null;

    [GeneratedRegex(
        @"^(?<first>[A-Za-z]{3,9})(\s*[-–]\s*(?<last>[A-Za-z]{3,9}))?\s+(?<from>\d{1,2}([:.]\d\d)?)\s*[-–]\s*(?<to>\d{1,2}([:.]\d\d)?)$"
    )]
    private static partial Regex WeekPart();

    [GeneratedRegex(
        @"^(?<from>\d{4}-\d\d-\d\d|\d{1,2} [A-Za-z]{3,9}( \d{4})?)(\s*(to|–)\s*(?<to>\d{4}-\d\d-\d\d|\d{1,2} [A-Za-z]{3,9}( \d{4})?))?(?<why>\s.*)?$"
    )]
    private static partial Regex ShutLine();
}
