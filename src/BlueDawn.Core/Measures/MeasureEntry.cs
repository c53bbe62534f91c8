using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace BlueDawn.Core.Measures;

/// <summary>
/// Reads what a technician typed, or a caliper sent, into a number in the base unit of its dimension. The one place
/// where units are converted on the way in.
/// </summary>
/// <remarks>
/// Source of the factors: 1 in = 25.4 mm and 1 lb = 453.59237 g exactly (international yard and pound agreement,
/// 1959); 1 psi = 6.894757293168361 kPa follows from them with standard gravity 9.80665 m/s² (ISO 80000-4). Conventional inch of
/// mercury 3.386389 kPa and of water 0.2490889 kPa: NIST SP 811, appendix B, from memory.
/// </remarks>
public static partial class MeasureEntry
{
    /// <summary>Said of a box that was left empty.</summary>
    public const string Empty = "Enter a number.";

    /// <summary>Millimetres in one inch, exact.</summary>
    public const decimal MmPerInch = 25.4m;

    /// <summary>Kilopascals in one pound-force per square inch, rounded at the 15th decimal.</summary>
    public const decimal KPaPerPsi = 6.894757293168361m;

    /// <summary>Grams in one avoirdupois ounce, exact.</summary>
    public const decimal GPerOz = 28.349523125m;

    private const int LongestEntry = 40;

    private static readonly Dictionary<char, string> Fractions = new()
    {
        ['½'] = "1/2",
        ['¼'] = "1/4",
        ['¾'] = "3/4",
        ['⅛'] = "1/8",
        ['⅜'] = "3/8",
        ['⅝'] = "5/8",
        ['⅞'] = "7/8",
        ['⅓'] = "1/3",
        ['⅔'] = "2/3",
    };

    private static readonly Dictionary<Dimension, Dictionary<string, decimal>> Units = new()
    {
        [Dimension.Length] = new()
        {
            ["mm"] = 1m,
            ["cm"] = 10m,
            ["in"] = MmPerInch,
            ["inch"] = MmPerInch,
            ["inches"] = MmPerInch,
            ["\""] = MmPerInch,
            ["thou"] = MmPerInch / 1000m,
            ["mil"] = MmPerInch / 1000m,
            ["um"] = 0.001m,
            ["µm"] = 0.001m,
        },
        [Dimension.Pressure] = new()
        {
            ["kpa"] = 1m,
            ["psi"] = KPaPerPsi,
            ["bar"] = 100m,
            ["mbar"] = 0.1m,
            ["pa"] = 0.001m,
            ["inhg"] = 3.386389m,
            ["inh2o"] = 0.2490889m,
        },
        [Dimension.Mass] = new()
        {
            ["g"] = 1m,
            ["mg"] = 0.001m,
            ["kg"] = 1000m,
            ["oz"] = GPerOz,
        },
        [Dimension.Speed] = new()
        {
            ["rpm"] = 1m,
            ["1/min"] = 1m,
            ["r/min"] = 1m,
        },
        [Dimension.Time] = new()
        {
            ["s"] = 1m,
            ["sec"] = 1m,
            ["min"] = 60m,
        },
        [Dimension.Minutes] = new()
        {
            ["min"] = 1m,
            ["s"] = 1m / 60m,
            ["sec"] = 1m / 60m,
        },
        [Dimension.Angle] = new() { ["°"] = 1m, ["deg"] = 1m },
        [Dimension.TemperatureChange] = new()
        {
            ["°c"] = 1m,
            ["c"] = 1m,
            ["k"] = 1m,
            ["°f"] = 5m / 9m,
            ["f"] = 5m / 9m,
        },
        // A point on the scale: °F has its own zero, see OfScale.
        [Dimension.Temperature] = new()
        {
            ["°c"] = 1m,
            ["c"] = 1m,
            ["°f"] = 5m / 9m,
            ["f"] = 5m / 9m,
        },
        [Dimension.Volume] = new()
        {
            ["ml"] = 1m,
            ["l"] = 1000m,
            ["cc"] = 1m,
        },
        [Dimension.VolumeFlow] = new()
        {
            ["ml/min"] = 1m,
            ["cc/min"] = 1m,
            ["l/min"] = 1000m,
        },
        [Dimension.Percent] = new() { ["%"] = 1m },
        [Dimension.Count] = [],
    };

    [GeneratedRegex(@"^(?:#\s*(?<n>\d{1,3})|no\.?\s*(?<n>\d{1,3})|drill\s*(?<n>\d{1,3}))$", RegexOptions.IgnoreCase)]
    private static partial Regex DrillPattern();

    [GeneratedRegex(
        @"^(?<sign>[-+−]?)\s*(?:(?:(?<whole>\d{1,4})\s+)?(?<top>\d{1,4})\s*/\s*(?<bottom>\d{1,4})|(?<number>\d*[.,]?\d*))\s*(?<unit>.*)$"
    )]
    private static partial Regex NumberPattern();

    /// <summary>A comma before exactly three digits: thousands to one reader, a decimal comma to another. A leading zero settles
    /// it.</summary>
    [GeneratedRegex(@"^[-+−]?[1-9]\d{0,2},\d{3}(?!\d|[.,])")]
    private static partial Regex ThousandsPattern();

    [GeneratedRegex(@"^(?<minutes>\d{1,4}):(?<seconds>[0-5]\d)\s*(?:min)?$", RegexOptions.IgnoreCase)]
    private static partial Regex ClockPattern();

    [GeneratedRegex(@"^(?:(?:letter|drill|#)\s*)?(?<letter>[A-Za-z])$", RegexOptions.IgnoreCase)]
    private static partial Regex LetterPattern();

    /// <summary>Reads one typed measure.</summary>
    /// <param name="text">What was typed: <c>0.65</c>, <c>0,65 mm</c>, <c>.0135 in</c>, <c>13.5 thou</c>, <c>1/32 in</c>, <c>1 1/8
    /// in</c>, <c>½ in</c>, <c>#70</c>, <c>F</c>, <c>7 psi</c>, <c>1:30 min</c>.</param>
    /// <param name="dimension">What is being measured.</param>
    /// <param name="bare">The units that a number without a unit is in.</param>
    /// <returns>The value in the base unit of <paramref name="dimension"/>, or the problem in words a technician can act on.</returns>
    public static Parsed<decimal> Parse(string? text, Dimension dimension, UnitSystem bare = UnitSystem.Metric)
    {
        var trimmed = (text ?? "").Trim();
        if (trimmed.Length == 0)
        {
            return Parsed<decimal>.Wrong(Empty);
        }

        if (trimmed.Length > LongestEntry)
        {
            return Parsed<decimal>.Wrong("That is too long for one reading. Enter one number and its unit.");
        }

        trimmed = Written(trimmed);
        if (ThousandsPattern().IsMatch(trimmed))
        {
            var digits = trimmed.Split(' ')[0];
            return Parsed<decimal>.Wrong(
                $"“{digits}” can be {digits.Replace(',', '.')} or {digits.Replace(",", "", StringComparison.Ordinal)}. "
                    + "Type one of them, with a point or without a comma."
            );
        }

        if (dimension is Dimension.Time or Dimension.Minutes && ClockPattern().Match(trimmed) is { Success: true } clock)
        {
            var seconds = (60m * Whole(clock, "minutes")) + Whole(clock, "seconds");
            return Bounded(dimension == Dimension.Time ? seconds : seconds / 60m);
        }

        if (dimension == Dimension.Length && LetterPattern().Match(trimmed) is { Success: true } letter)
        {
            return Parsed<decimal>.Right(LetterDrills.Find(letter.Groups["letter"].Value[0])!.DiameterMm);
        }

        if (dimension == Dimension.Length && DrillPattern().Match(trimmed) is { Success: true } drill)
        {
            var number = int.Parse(drill.Groups["n"].Value, CultureInfo.InvariantCulture);
            return NumberDrills.Find(number) is { } found
                ? Parsed<decimal>.Right(found.DiameterMm)
                : Parsed<decimal>.Wrong($"There is no number drill {number}; they run from 1 to 97.");
        }

        var match = NumberPattern().Match(trimmed);
        if (!match.Success || ReadNumber(match) is not { } value)
        {
            return Parsed<decimal>.Wrong($"“{trimmed}” is not a number. {Example(dimension)}");
        }

        if (match.Groups["sign"].Value is "-" or "−")
        {
            value = -value;
        }

        var unit = match.Groups["unit"].Value.Trim().ToLowerInvariant();
        if (unit.Length == 0)
        {
            return Bounded(OfScale(dimension, value, BareFactor(dimension, bare)));
        }

        return Units[dimension].TryGetValue(unit, out var factor)
            ? Bounded(OfScale(dimension, value, factor))
            : Parsed<decimal>.Wrong($"“{match.Groups["unit"].Value.Trim()}” does not fit here. {Example(dimension)}");
    }

    /// <summary>What stands in other letters for the same: vulgar fractions are written out, the Greek mu is the micro sign.</summary>
    private static string Written(string text)
    {
        var written = new StringBuilder(text.Length + 4);
        foreach (var letter in text)
        {
            written.Append(
                Fractions.TryGetValue(letter, out var fraction) ? (written.Length > 0 ? " " : "") + fraction
                : letter == '\u03BC' ? "\u00B5"
                : letter.ToString()
            );
        }

        return written.ToString();
    }

    private static decimal Whole(Match match, string group) => decimal.Parse(match.Groups[group].Value, CultureInfo.InvariantCulture);

    private static Parsed<decimal> Bounded(decimal value) =>
        Math.Abs(value) > 1_000_000m
            ? Parsed<decimal>.Wrong("That number is far too large for a bench reading. Check the unit.")
            // Nought below is nought.
            : Parsed<decimal>.Right(value == 0 ? 0m : value);

    private static decimal? ReadNumber(Match match)
    {
        if (match.Groups["top"].Success)
        {
            var bottom = Whole(match, "bottom");
            return bottom == 0 ? null : (match.Groups["whole"].Success ? Whole(match, "whole") : 0) + (Whole(match, "top") / bottom);
        }

        var digits = match.Groups["number"].Value.Replace(',', '.');
        return decimal.TryParse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value) ? value : null;
    }

    /// <summary>A number in base units. A temperature in °F counts from 32.</summary>
    private static decimal OfScale(Dimension dimension, decimal value, decimal factor) =>
        dimension == Dimension.Temperature && factor != 1m ? (value - 32m) * factor : value * factor;

    private static decimal BareFactor(Dimension dimension, UnitSystem bare) =>
        (dimension, bare) switch
        {
            (Dimension.Length, UnitSystem.Inch) => MmPerInch,
            (Dimension.Pressure, UnitSystem.Inch) => KPaPerPsi,
            (Dimension.Mass, UnitSystem.Inch) => GPerOz,
            (Dimension.TemperatureChange or Dimension.Temperature, UnitSystem.Inch) => 5m / 9m,
            _ => 1m,
        };

    private static string Example(Dimension dimension) =>
        dimension switch
        {
            Dimension.Length => "Try 0.65, .0256 in, 25.6 thou or #72.",
            Dimension.Pressure => "Try 48, 48 kPa or 7 psi.",
            Dimension.Mass => "Try 6.2, 6.2 g or 0.22 oz.",
            Dimension.Speed => "Try 3400 or 3400 rpm.",
            Dimension.Time => "Try 10 or 10 s.",
            Dimension.Minutes => "Try 4 or 4 min.",
            Dimension.Angle => "Try 90.",
            Dimension.TemperatureChange => "Try 1 or 1 °C.",
            Dimension.Temperature => "Try 20, 20 °C or 68 °F.",
            Dimension.Count => "Try a whole number such as 4.",
            Dimension.Volume or Dimension.VolumeFlow or Dimension.Percent => "Try a plain number.",
        };
}
