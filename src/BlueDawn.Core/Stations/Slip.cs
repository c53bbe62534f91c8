using System.Globalization;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>What a number in a box should be about.</summary>
/// <param name="Value">In the base unit of the dimension, above 0.</param>
/// <param name="Dimension">What is measured.</param>
public sealed record Expected(double Value, Dimension Dimension);

/// <summary>A number so far from the sheet that a slip of the point or the unit is likelier than the reading.</summary>
/// <param name="Field">The box, such as <c>go</c> or <c>rows[1].height</c>.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Likely">What was likely meant, as it would be typed; null when nothing near the sheet suggests itself.</param>
/// <param name="Means">What that is; null with it.</param>
/// <param name="Question">What is asked.</param>
public sealed record Slip(string Field, string Typed, string? Likely, Quantity? Means, Sentence Question)
{
    private sealed record Limit(string Line, string Field, double Least, double Most)
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
            row.Number("most")
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
                    && Share(read.Value, expected) is var share
                    && (share < limit.Least || share > limit.Most)
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
        var candidates = new List<string>();
        var bare = decimal.TryParse(text.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number);
        if (bare && expected.Dimension == Dimension.Length)
        {
            candidates.AddRange([units == UnitSystem.Inch ? $"{text} mm" : $"{text} in", $"{text} thou"]);
        }
        else if (bare && expected.Dimension is Dimension.Pressure)
        {
            candidates.Add(units == UnitSystem.Inch ? $"{text} kPa" : $"{text} psi");
        }
        else if (bare && expected.Dimension is Dimension.Mass)
        {
            candidates.Add(units == UnitSystem.Inch ? $"{text} g" : $"{text} oz");
        }

        if (bare)
        {
            candidates.AddRange(PointShifts.Select(shift => (number * shift).ToString("0.######", CultureInfo.InvariantCulture)));
        }

        return candidates
            .Select(candidate => (candidate, Read: MeasureEntry.Parse(candidate, expected.Dimension, units)))
            .Where(pair => pair.Read.IsRight && Share(pair.Read.Value, expected) is > 0.5 and < 1.5)
            .OrderBy(pair => Math.Abs(SteadyMath.Log(Share(pair.Read.Value, expected))))
            .Select(pair => ((string?)pair.candidate, (Quantity?)new Quantity(expected.Dimension, (double)pair.Read.Value)))
            .FirstOrDefault();
    }
}
