using System.Globalization;
using System.Text.RegularExpressions;

namespace BlueDawn.Core.Measures;

/// <summary>What kind of thing a number measures. Each has one base unit, used everywhere inside the product.</summary>
public enum Dimension
{
    /// <summary>Millimetres.</summary>
    Length,

    /// <summary>Kilopascals above the air outside (gauge pressure).</summary>
    Pressure,

    /// <summary>Grams.</summary>
    Mass,

    /// <summary>Revolutions per minute.</summary>
    Speed,

    /// <summary>Seconds.</summary>
    Time,

    /// <summary>Minutes.</summary>
    Minutes,

    /// <summary>Degrees of arc.</summary>
    Angle,

    /// <summary>Degrees Celsius; a difference, not a point on the scale.</summary>
    TemperatureChange,

    /// <summary>Degrees Celsius, a point on the scale.</summary>
    Temperature,

    /// <summary>Millilitres.</summary>
    Volume,

    /// <summary>Millilitres a minute.</summary>
    VolumeFlow,

    /// <summary>Percent.</summary>
    Percent,

    /// <summary>A count of things.</summary>
    Count,
}

/// <summary>The units a person reads and types in. Never changes what was recorded.</summary>
public enum UnitSystem
{
    /// <summary>mm, kPa, g.</summary>
    Metric,

    /// <summary>in, psi, oz.</summary>
    Inch,
}

/// <summary>A number with what it measures, in the base unit of its dimension.</summary>
/// <param name="Dimension">What is measured; fixes the unit.</param>
/// <param name="Value">The number in the base unit.</param>
/// <param name="Label">A name to show instead of the number where there is one, such as a pin's own label.</param>
public sealed record Quantity(Dimension Dimension, double Value, string? Label = null)
{
    /// <summary>A length in millimetres.</summary>
    public static Quantity Mm(double mm, string? label = null) => new(Dimension.Length, mm, label);

    /// <inheritdoc cref="Mm(double, string?)"/>
    public static Quantity Mm(decimal mm, string? label = null) => new(Dimension.Length, (double)mm, label);

    /// <summary>A gauge pressure in kilopascals.</summary>
    public static Quantity KPa(double kPa) => new(Dimension.Pressure, kPa);

    /// <summary>A mass in grams.</summary>
    public static Quantity G(double g) => new(Dimension.Mass, g);

    /// <summary>A speed in revolutions per minute.</summary>
    public static Quantity Rpm(double rpm) => new(Dimension.Speed, rpm);

    /// <summary>A time in seconds.</summary>
    public static Quantity S(double s) => new(Dimension.Time, s);

    /// <summary>A time in minutes.</summary>
    public static Quantity Min(double min) => new(Dimension.Minutes, min);

    /// <summary>An angle in degrees.</summary>
    public static Quantity Deg(double deg) => new(Dimension.Angle, deg);

    /// <summary>A share in percent.</summary>
    public static Quantity Percent(double percent) => new(Dimension.Percent, percent);

    /// <summary>A temperature in degrees Celsius.</summary>
    public static Quantity AtC(double celsius) => new(Dimension.Temperature, celsius);

    /// <summary>A temperature difference in degrees Celsius.</summary>
    public static Quantity DegC(double degC) => new(Dimension.TemperatureChange, degC);

    /// <summary>A volume in millilitres.</summary>
    public static Quantity ML(double mL) => new(Dimension.Volume, mL);

    /// <summary>A flow in millilitres a minute.</summary>
    public static Quantity MLPerMin(double mLPerMin) => new(Dimension.VolumeFlow, mLPerMin);

    /// <summary>A count.</summary>
    public static Quantity Count(double count) => new(Dimension.Count, count);
}

/// <summary>
/// Words with measured numbers in them. The numbers stay data so that whoever shows the sentence can write them in
/// the reader's units.
/// </summary>
/// <param name="Text">The words; <c>{0}</c>, <c>{1}</c> … stand for the quantities.</param>
/// <param name="Quantities">The numbers, in the order of their places.</param>
public sealed partial record Sentence(string Text, IReadOnlyList<Quantity> Quantities)
{
    /// <summary>A sentence from its words and numbers.</summary>
    public static Sentence Of(string text, params Quantity[] quantities) => new(text, quantities);

    /// <summary>A sentence written as one string: quantities and other sentences in it keep their numbers as data.</summary>
    /// <param name="words">The words, with quantities, sentences or plain values in their places.</param>
    public static Sentence Say(FormattableString words)
    {
        var quantities = new List<Quantity>();
        var places = words
            .GetArguments()
            .Select(argument =>
            {
                switch (argument)
                {
                    case Quantity quantity:
                        quantities.Add(quantity);
                        return (object)("{" + (quantities.Count - 1) + "}");
                    case Sentence sentence:
                        var first = quantities.Count;
                        quantities.AddRange(sentence.Quantities);
                        return Place()
                            .Replace(sentence.Text, place =>
                                "{" + (int.Parse(place.Groups[1].Value, CultureInfo.InvariantCulture) + first) + "}"
                            );
                    default:
                        return Convert.ToString(argument, CultureInfo.InvariantCulture) ?? "";
                }
            })
            .ToArray();
        return new Sentence(string.Format(CultureInfo.InvariantCulture, words.Format, places), quantities);
    }

    /// <summary>Sentences one after the other with a separator between.</summary>
    public static Sentence Join(string separator, IEnumerable<Sentence> sentences) =>
        sentences.Aggregate((Sentence?)null, (all, next) => all is null ? next : Say($"{all}{separator}{next}")) ?? None;

    /// <summary>No words at all.</summary>
    public static readonly Sentence None = Of("");

    /// <summary>The sentence in metric units, for exports and logs.</summary>
    public override string ToString()
    {
        var text = Text;
        for (var i = 0; i < Quantities.Count; i++)
        {
            text = text.Replace("{" + i + "}", MetricText.Of(Quantities[i]), StringComparison.Ordinal);
        }

        return UnitTwice().Replace(text, "$1 $3 $4 $2");
    }

    [GeneratedRegex(@"\{(\d+)\}")]
    private static partial Regex Place();

    /// <summary>A unit said twice around a “±” or “to”, which is said once.</summary>
    [GeneratedRegex(@"([\d.]+) (\S+) (±|to) ([\d.]+) \2(?=[\s,.;:]|$)")]
    private static partial Regex UnitTwice();
}

/// <summary>A stretch on a scale: the window a reading must fall in, or what a reading has proven.</summary>
/// <param name="Dimension">What is measured; fixes the unit.</param>
/// <param name="Low">Lower end, or null where there is none.</param>
/// <param name="High">Upper end, or null where there is none.</param>
public sealed record Span(Dimension Dimension, double? Low, double? High);
