using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Catalogue;

/// <summary>
/// The parts a carburetor needs as they are typed on its sheet, one a line: <c>2 O-ring: size=6 × 1 mm</c>,
/// <c>bowl gasket: inner=52 mm; outer=57 mm</c>, or the name alone when any will do.
/// </summary>
public static partial class NeedText
{
    private const int MostNeeds = 60,
        MostOfOne = 99;

    /// <summary>The parts as they are typed.</summary>
    /// <param name="needs">The parts.</param>
    public static string Write(IReadOnlyList<PartNeed> needs) =>
        string.Join(
            '\n',
            needs.Select(need =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{(need.Quantity == 1 ? "" : need.Quantity + " ")}{need.Part}{(need.Features.Count == 0 ? "" : ": " + FeatureText.Write(need.Features))}"
                )
            )
        );

    /// <summary>Reads what was typed.</summary>
    /// <param name="text">The lines.</param>
    /// <param name="units">The units that a length without a unit is in.</param>
    /// <param name="knowledge">What is known of parts.</param>
    /// <returns>The parts, or what is wrong with the first line that cannot be read.</returns>
    public static Parsed<IReadOnlyList<PartNeed>> Read(string text, UnitSystem units, PartKnowledge knowledge)
    {
        var needs = new List<PartNeed>();
        foreach (var (line, i) in text.Split('\n').Select((line, i) => (line.Trim(), i + 1)).Where(one => one.Item1.Length > 0))
        {
            Parsed<IReadOnlyList<PartNeed>> Wrong(string what) => Parsed<IReadOnlyList<PartNeed>>.Wrong($"Line {i}: {what}");
            var match = Line().Match(line);
            var (count, name) = (match.Groups["count"].Value, match.Groups["part"].Value.Trim());
            if (
                count.Length > 0
                && (!int.TryParse(count, NumberStyles.None, CultureInfo.InvariantCulture, out var many) || many is 0 or > MostOfOne)
            )
            {
                return Wrong($"from 1 to {MostOfOne} of a part.");
            }

            if (knowledge.Parts.FirstOrDefault(kind => string.Equals(kind.Name, name, StringComparison.OrdinalIgnoreCase)) is not { } part)
            {
                return Wrong($"“{name}” is no part of a kit. There are {string.Join(", ", knowledge.Parts.Select(kind => kind.Name))}.");
            }

            if (needs.Any(need => need.Part == part.Name))
            {
                return Wrong($"{part.Name} is there twice. Say how many in front of it.");
            }

            var features = FeatureText.Read(part.Name, match.Groups["features"].Value, knowledge, units);
            if (!features.IsRight)
            {
                return Wrong(features.Problem!);
            }

            needs.Add(new PartNeed(part.Name, count.Length == 0 ? 1 : int.Parse(count, CultureInfo.InvariantCulture), features.Value!));
        }

        return needs.Count > MostNeeds
            ? Parsed<IReadOnlyList<PartNeed>>.Wrong($"No more than {MostNeeds} parts.")
            : Parsed<IReadOnlyList<PartNeed>>.Right(needs);
    }

    [GeneratedRegex(@"^(?:(?<count>\d+)\s*(?:×|x(?=\s))?\s+)?(?<part>[^:]*)(?::(?<features>.*))?$")]
    private static partial Regex Line();
}
