using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>What a number in a box should be about.</summary>
/// <param name="Value">In the base unit of the dimension, above 0; 0 where it is told by how far it is off.</param>
/// <param name="Dimension">What is measured.</param>
/// <param name="Within">How far off it may be either way before it is asked about, in the base unit; null where shares of the value say it
/// (data/reference/slips.csv).</param>
public sealed record Expected(double Value, Dimension Dimension, double? Within = null);

/// <summary>A number so far from the sheet that a slip of the point or the unit is likelier than the reading.</summary>
/// <param name="Field">The box, such as <c>go</c> or <c>rows[1].height</c>.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Likely">What was likely meant, as it would be typed; null when nothing near the sheet suggests itself.</param>
/// <param name="Means">What that is; null with it.</param>
/// <param name="Question">What is asked.</param>
public sealed partial record Slip(string Field, string Typed, string? Likely, Quantity? Means, Sentence Question)
{
    private sealed record Limit(string Line, string Field, double Least, double Most, bool Zero)
    {
        public bool Covers(string line, string field) =>
            Field == field && (Line == line || (Line.EndsWith('*') && line.StartsWith(Line[..^1], StringComparison.Ordinal)));
    }

    private static readonly List<decimal> PointShifts = [0.1m, 10m, 0.01m, 100m];

    private static readonly List<Limit> Limits = CsvTable
        .Rows(CsvTable.OpenShipped, "slips.csv", row => new Limit(
            row.Text("line"),
            row.Text("field"),
            row.Number("least"),
            row.Number("most"),
            row.MayBeEmpty("zero") != "says"
        ))
        .ToList();

    /// <summary>How many limits there are; read at the start of the program, so that a wrong row stops it.</summary>
    public static int LimitCount => Limits.Count;

    /// <summary>Every number of a typed reading that is far from what the line expects. What cannot be read at all is no slip: it is
    /// refused elsewhere.</summary>
    public static IReadOnlyList<Slip> Find(GaugeLine line, TypedReading typed)
    {
        var slips = new List<Slip>();
        void Look(IReadOnlyDictionary<string, string> values, string before)
        {
            foreach (var (field, text) in values)
            {
                if (
                    line.ExpectedIn(field) is { } expected
                    && Limits.FirstOrDefault(limit => limit.Covers(line.Key, field)) is { } limit
                    && MeasureEntry.Parse(text, expected.Dimension, typed.Units) is { IsRight: true } read
                    && IsFar(read.Value, expected, limit)
                )
                {
                    var (likely, means) = Meant(text.Trim(), expected, typed.Units);
                    slips.Add(new Slip(before + field, text.Trim(), likely, means, Ask(read.Value, expected)));
                }
            }
        }

        Look(typed.Values, "");
        for (var i = 0; i < typed.Rows.Count; i++)
        {
            Look(typed.Rows[i], $"rows[{i}].");
        }

        return slips;
    }

    private static bool IsFar(decimal value, Expected expected, Limit limit) =>
        (value != 0 || limit.Zero)
        && (
            expected.Within is { } within
                ? Math.Abs((double)value - expected.Value) > within
                : Share(value, expected) is var share && (share < limit.Least || share > limit.Most)
        );

    /// <summary>How far a candidate is from what is expected, for choosing the nearest; null when it is no likely reading.</summary>
    private static double? Distance(decimal value, Expected expected) =>
        expected.Within is { } within
            ? Math.Abs((double)value - expected.Value) is var off && off <= within
                ? off
                : null
            : Share(value, expected) is > 0.4 and < 2.5 and var share
                ? Math.Abs(SteadyMath.Log(share))
                : null;

    private static double Share(decimal value, Expected expected) => (double)value / expected.Value;

    private static Sentence Ask(decimal value, Expected expected) =>
        Sentence.Of(
            "{0}? It should be about {1}.",
            new Quantity(expected.Dimension, (double)value),
            new Quantity(expected.Dimension, expected.Value)
        );

    /// <summary>The reading of the same figures that comes nearest to the sheet: in the other units, or with the point one or two places
    /// off.</summary>
    private static (string? Likely, Quantity? Means) Meant(string text, Expected expected, UnitSystem units)
    {
        // The figures without the unit that was typed with them: a fraction, or a number.
        var figures = Figures().Match(text).Groups[1].Value.Trim();
        if (figures.Length == 0)
        {
            return default;
        }

        var candidates = OtherUnits(expected.Dimension, units).Select(unit => $"{figures} {unit}").ToList();
        if (decimal.TryParse(figures.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number))
        {
            var unit = text[(text.IndexOf(figures, StringComparison.Ordinal) + figures.Length)..].Trim();
            candidates.AddRange(
                PointShifts.Select(shift => $"{(number * shift).ToString("0.######", CultureInfo.InvariantCulture)} {unit}".TrimEnd())
            );
        }

        return candidates
            .Select(candidate => (candidate, Read: MeasureEntry.Parse(candidate, expected.Dimension, units)))
            .Where(pair => pair.Read.IsRight)
            .Select(pair => (pair.candidate, pair.Read.Value, Off: Distance(pair.Read.Value, expected)))
            .Where(pair => pair.Off is not null)
            .OrderBy(pair => pair.Off)
            .Select(pair => ((string?)pair.candidate, (Quantity?)new Quantity(expected.Dimension, (double)pair.Value)))
            .FirstOrDefault();
    }

    /// <summary>Units in which the figures may have been meant; those of the reader first, for a number typed with another.</summary>
    private static string[] OtherUnits(Dimension dimension, UnitSystem units) =>
        (dimension, units) switch
        {
            (Dimension.Length, UnitSystem.Inch) => ["mm", "in", "thou"],
            (Dimension.Length, UnitSystem.Metric) => ["in", "thou", "mm"],
            (Dimension.Pressure, UnitSystem.Inch) => ["kPa", "psi", "bar"],
            (Dimension.Pressure, UnitSystem.Metric) => ["psi", "bar", "kPa"],
            (Dimension.Mass, UnitSystem.Inch) => ["g", "oz"],
            (Dimension.Mass, UnitSystem.Metric) => ["oz", "g"],
            _ => [],
        };

    /// <summary>A number or a fraction at the start of what was typed.</summary>
    [GeneratedRegex(@"^\s*([0-9.,/\s½¼¾⅛⅜⅝⅞⅓⅔]+)")]
    private static partial Regex Figures();
}
