using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Carburetors;

/// <summary>
/// What a sheet says of screws as it is typed, one part a line: <c>idle needle: 1 1/4 turns</c>, <c>bowl: 2 N·m</c>,
/// <c>bowl nut: 1 turn, 50 in-lb</c>.
/// </summary>
public static partial class ScrewText
{
    /// <summary>Newton metres in an inch-pound: 0.0254 m times the weight of a pound, 4.4482216152605 N (NIST SP 811).</summary>
    private const double NmPerInLb = 0.0254 * 4.4482216152605;

    private const int MostScrews = 40;

    /// <summary>Eighths of a turn in one sign, the first is one eighth.</summary>
    private const string Eighths = "⅛¼⅜½⅝¾⅞";

    /// <summary>The screws as they are typed.</summary>
    /// <param name="screws">The screws, or null.</param>
    public static string Write(IReadOnlyList<ScrewSpec>? screws) =>
        string.Join(
            '\n',
            (screws ?? []).Select(screw =>
                $"{screw.Part.Replace('-', ' ')}: {string.Join(", ", new[]
    {
        screw.TurnsOut is { } turns ? string.Create(CultureInfo.InvariantCulture, $"{turns} turns") : null,
        screw.TorqueNm is { } torque ? string.Create(CultureInfo.InvariantCulture, $"{torque} N·m") : null,
    }.OfType<string>())}"
            )
        );

    /// <summary>Reads what was typed.</summary>
    /// <param name="text">The lines.</param>
    /// <param name="units">The units that a torque without a unit is in: N·m, or in-lb.</param>
    /// <returns>The screws, or what is wrong with the first line that cannot be read.</returns>
    public static Parsed<IReadOnlyList<ScrewSpec>> Read(string text, UnitSystem units)
    {
        var screws = new List<ScrewSpec>();
        foreach (var (line, i) in text.Split('\n').Select((line, i) => (line.Trim(), i + 1)).Where(one => one.Item1.Length > 0))
        {
            Parsed<IReadOnlyList<ScrewSpec>> Wrong(string what) => Parsed<IReadOnlyList<ScrewSpec>>.Wrong($"Line {i}: {what}");
            var ends = line.Split(':', 2);
            var part = string.Join('-', ends[0].Trim().ToLowerInvariant().Split([' ', '-'], StringSplitOptions.RemoveEmptyEntries));
            if (ends.Length == 1 || part.Length == 0)
            {
                return Wrong("a part, a colon, then turns or torque: idle needle: 1 1/4 turns, 2 N·m.");
            }

            if (screws.Any(screw => screw.Part == part))
            {
                return Wrong($"{ends[0].Trim()} is there twice.");
            }

            var screw = new ScrewSpec(part);
            foreach (var one in ends[1].Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            {
                if (Amount().Match(one) is not { Success: true } match || Number(match.Groups["number"].Value) is not { } number)
                {
                    return Wrong($"“{one}” is neither turns nor torque: 1 1/4 turns, 2 N·m, 50 in-lb.");
                }

                screw = match.Groups["unit"].Value.ToLowerInvariant() switch
                {
                    ['t', ..] => screw with { TurnsOut = number },
                    ['i', ..] => screw with { TorqueNm = number * NmPerInLb },
                    ['n', ..] => screw with { TorqueNm = number },
                    _ => screw with { TorqueNm = units == UnitSystem.Inch ? number * NmPerInLb : number },
                };
            }

            if (screw is { TurnsOut: null, TorqueNm: null })
            {
                return Wrong("say its turns, its torque or both.");
            }

            screws.Add(screw);
        }

        return screws.Count > MostScrews
            ? Parsed<IReadOnlyList<ScrewSpec>>.Wrong($"No more than {MostScrews} screws.")
            : Parsed<IReadOnlyList<ScrewSpec>>.Right(screws);
    }

    /// <summary>Reads 1.25, 1 1/4, 1¼, 5/4.</summary>
    private static double? Number(string text)
    {
        var match = Mixed().Match(text);
        if (!match.Success)
        {
            return null;
        }

        double Of(string group) =>
            match.Groups[group] is { Success: true, Value: { Length: > 0 } value } ? double.Parse(value, CultureInfo.InvariantCulture) : 0;
        var under = match.Groups["under"].Success ? Of("under") : 1;
        var sign = match.Groups["sign"] is { Success: true, Value: [var eighths] } ? (Eighths.IndexOf(eighths) + 1) / 8.0 : 0;
        return under == 0 ? null : Of("whole") + (Of("over") / under) + sign;
    }

    [GeneratedRegex(@"^(?<number>[0-9./⅛¼⅜½⅝¾⅞ ]+?)\s*(?<unit>turns?|N[·.* ]?m|in[-·. ]?lbs?)?$", RegexOptions.IgnoreCase)]
    private static partial Regex Amount();

    [GeneratedRegex(@"^(?=.)(?<whole>\d+(?:\.\d+)?)??(?:\s*(?<over>\d+)/(?<under>\d+)|\s*(?<sign>[⅛¼⅜½⅝¾⅞]))?$")]
    private static partial Regex Mixed();
}
