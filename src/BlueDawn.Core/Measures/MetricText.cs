using System.Globalization;

namespace BlueDawn.Core.Measures;

/// <summary>Writes quantities in metric units with no more digits than a bench reading carries.</summary>
public static class MetricText
{
    /// <summary>The unit's sign in metric units, empty for counts.</summary>
    public static string UnitOf(Dimension dimension) =>
        dimension switch
        {
            Dimension.Length => "mm",
            Dimension.Pressure => "kPa",
            Dimension.Mass => "g",
            Dimension.Speed => "rpm",
            Dimension.Time => "s",
            Dimension.Minutes => "min",
            Dimension.Angle => "°",
            Dimension.TemperatureChange or Dimension.Temperature => "°C",
            Dimension.Volume => "mL",
            Dimension.VolumeFlow => "mL/min",
            Dimension.Percent => "%",
            Dimension.Count => "",
        };

    /// <summary>The number and its unit, such as <c>0.315 mm</c>.</summary>
    public static string Of(Quantity quantity)
    {
        if (quantity.Label is { Length: > 0 } label)
        {
            return label;
        }

        var unit = UnitOf(quantity.Dimension);
        var number = Number(quantity);
        return unit.Length == 0 ? number
            : quantity.Dimension == Dimension.Angle ? number + unit
            : $"{number} {unit}";
    }

    /// <summary>The number alone, rounded for its dimension.</summary>
    public static string Number(Quantity quantity)
    {
        var format = quantity.Dimension switch
        {
            Dimension.Length => "0.####",
            Dimension.Pressure => "0.##",
            Dimension.Mass => "0.##",
            Dimension.Speed or Dimension.Count or Dimension.Angle => "0",
            Dimension.VolumeFlow => "0.##",
            Dimension.Time
            or Dimension.Minutes
            or Dimension.TemperatureChange
            or Dimension.Temperature
            or Dimension.Volume
            or Dimension.Percent => "0.#",
        };
        return quantity.Value.ToString(format, CultureInfo.InvariantCulture);
    }
}
