using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Cleaning;

/// <summary>A bath's temperature as it is typed.</summary>
public static partial class BathTemperature
{
    private const double ColdestC = -10;
    private const double HottestC = 110;

    /// <summary>Reads a temperature; without a unit it is in the person's own: °C, or °F for those who work in inches.</summary>
    /// <param name="text">Such as <c>78</c>, <c>78,5 °C</c> or <c>172 F</c>.</param>
    /// <param name="units">The person's units.</param>
    /// <returns>Degrees Celsius, or what is wrong.</returns>
    public static Parsed<double?> Parse(string text, UnitSystem units)
    {
        var match = Form().Match(text.Trim());
        if (
            !match.Success
            || !double.TryParse(match.Groups[1].Value.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
        )
        {
            return Parsed<double?>.Wrong("Give the temperature as a number, such as 78 or 172 F.");
        }

        var fahrenheit = match.Groups[2].Value.ToUpperInvariant() switch
        {
            "F" => true,
            "C" => false,
            _ => units == UnitSystem.Inch,
        };
        var celsius = fahrenheit ? (number - 32) / 1.8 : number;
        return celsius is >= ColdestC and <= HottestC
            ? Parsed<double?>.Right(celsius)
            : Parsed<double?>.Wrong("No bath is that warm or that cold. Look at the thermometer and its unit.");
    }

    [GeneratedRegex(@"^(-?\d+(?:[.,]\d+)?)\s*°?\s*([CcFf]?)$")]
    private static partial Regex Form();
}
