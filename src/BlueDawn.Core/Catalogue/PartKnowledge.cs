using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Catalogue;

/// <summary>How a feature of a part is told.</summary>
public enum FeatureKind
{
    /// <summary>A length in millimetres.</summary>
    Length,

    /// <summary>A count.</summary>
    Count,

    /// <summary>One of a few words.</summary>
    Word,

    /// <summary>The size of an O-ring.</summary>
    Ring,

    /// <summary>The depth of a groove in the body, judged by how much it squeezes the ring.</summary>
    Squeeze,

    /// <summary>A mass in grams.</summary>
    Mass,
}

/// <summary>One feature of a part: how it is told, how near it must be, and what goes wrong when it is not.</summary>
/// <param name="Part">The part.</param>
/// <param name="Name">The feature, such as <c>thickness</c>.</param>
/// <param name="Kind">How it is told.</param>
/// <param name="Words">The words there are; empty unless it is told in words.</param>
/// <param name="ToleranceMm">Largest difference in millimetres that still fits; null where lengths do not come in.</param>
/// <param name="ReadingMm">How far a reading at the bench may be off, in millimetres; null where lengths do not come in.</param>
/// <param name="Smaller">What happens with a smaller one, or null.</param>
/// <param name="Larger">What happens with a larger one, or null.</param>
/// <param name="Other">What happens with another one, or null.</param>
/// <param name="Measure">How it is measured.</param>
/// <param name="Source">Where this is from.</param>
public sealed record FeatureKnowledge(
    string Part,
    string Name,
    FeatureKind Kind,
    IReadOnlyList<string> Words,
    decimal? ToleranceMm,
    decimal? ReadingMm,
    string? Smaller,
    string? Larger,
    string? Other,
    string Measure,
    string Source
)
{
    /// <summary>Largest difference in grams that still fits; null where masses do not come in.</summary>
    public decimal? ToleranceG { get; init; }

    /// <summary>How far a reading at the bench may be off, in grams; null where masses do not come in.</summary>
    public decimal? ReadingG { get; init; }
}

/// <summary>A part a carburetor is made of, and what it takes to renew it.</summary>
/// <param name="Name">The part, such as <c>bowl gasket</c>.</param>
/// <param name="Families">Families that have it.</param>
/// <param name="RenewMinutes">Minutes to renew it alone, with the carburetor on the bench.</param>
/// <param name="Make">How it can be made at the bench, or null.</param>
/// <param name="Stopgap">What gets by without renewing it, or null.</param>
/// <param name="Features">Its features in the order they are compared.</param>
/// <param name="Source">Where this is from.</param>
public sealed record PartKind(
    string Name,
    IReadOnlyList<CarburetorFamily> Families,
    double RenewMinutes,
    BenchWork? Make,
    BenchWork? Stopgap,
    IReadOnlyList<FeatureKnowledge> Features,
    string Source
);

/// <summary>Work at the bench in place of a bought part.</summary>
/// <param name="What">From what, or what is done.</param>
/// <param name="Minutes">Minutes of work.</param>
/// <param name="Money">Material, in the shop's currency.</param>
public sealed record BenchWork(string What, double Minutes, decimal Money);

/// <summary>What the bench knows about parts. The tables are data/parts/*.csv.</summary>
public sealed class PartKnowledge
{
    private const string Resources = "parts/";
    private readonly Dictionary<string, PartKind> byName;

    private PartKnowledge(IReadOnlyList<PartKind> parts)
    {
        Parts = parts;
        byName = parts.ToDictionary(part => part.Name);
    }

    /// <summary>What ships with the product.</summary>
    public static PartKnowledge Shipped { get; } = Read(name => CsvTable.OpenShipped(Resources + name));

    /// <summary>Every part, in the order of the table.</summary>
    public IReadOnlyList<PartKind> Parts { get; }

    /// <summary>A part by its name, or null when the bench does not know it: it can be stocked, but not compared.</summary>
    public PartKind? Find(string part) => byName.GetValueOrDefault(part);

    /// <summary>A feature by its part and name, or null.</summary>
    public FeatureKnowledge? Find(string part, string feature) => Find(part)?.Features.FirstOrDefault(known => known.Name == feature);

    /// <summary>Reads tables from wherever they are.</summary>
    /// <param name="open">Opens a table by its file name.</param>
    /// <exception cref="InvalidDataException">A table does not hold together; the message says which row.</exception>
    public static PartKnowledge Read(Func<string, TextReader> open)
    {
        var features = CsvTable
            .Rows(open, "features.csv", row => new FeatureKnowledge(
                row.Text("part"),
                row.Text("feature"),
                row.Word<FeatureKind>("kind"),
                row.MayBeEmpty("words").Split('|', StringSplitOptions.RemoveEmptyEntries),
                row.DecimalOrNull("tolerance_mm"),
                row.DecimalOrNull("reading_mm"),
                row.TextOrNull("smaller"),
                row.TextOrNull("larger"),
                row.TextOrNull("other"),
                row.Text("measure"),
                row.Text("source")
            )
            {
                ToleranceG = row.DecimalOrNull("tolerance_g"),
                ReadingG = row.DecimalOrNull("reading_g"),
            })
            .ToLookup(feature => feature.Part);
        var parts = CsvTable.Rows(open, "parts.csv", row => new PartKind(
            row.Text("part"),
            row.Families("families"),
            row.Number("renew_minutes"),
            Work(row, "make_from", "make_minutes", "make_money"),
            Work(row, "stopgap", "stopgap_minutes", "stopgap_money"),
            [.. features[row.Text("part")]],
            row.Text("source")
        ));
        var known = parts.Select(part => part.Name).ToHashSet();
        if (known.Count < parts.Count)
        {
            throw new InvalidDataException("parts.csv has a part twice.");
        }

        foreach (var feature in features.SelectMany(group => group))
        {
            if (!known.Contains(feature.Part))
            {
                throw new InvalidDataException($"features.csv speaks of {feature.Part}, which is not in parts.csv.");
            }

            if (feature.Kind == FeatureKind.Word && feature.Words.Count < 2)
            {
                throw new InvalidDataException($"features.csv, {feature.Part}, {feature.Name}: needs words to choose from.");
            }

            if (
                feature.Kind is FeatureKind.Length or FeatureKind.Ring && (feature.ToleranceMm is null || feature.ReadingMm is null)
                || (feature.Kind == FeatureKind.Mass && (feature.ToleranceG is null || feature.ReadingG is null))
            )
            {
                throw new InvalidDataException(
                    $"features.csv, {feature.Part}, {feature.Name}: needs a tolerance and how far a reading may be off."
                );
            }
        }

        return new PartKnowledge(parts);
    }

    private static BenchWork? Work(TableRow row, string what, string minutes, string money) =>
        row.TextOrNull(what) is { } text ? new BenchWork(text, row.Number(minutes), row.DecimalOrNull(money) ?? 0) : null;
}
