using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Catalogue;

/// <summary>An O-ring: inside diameter and section with their tolerances, all in millimetres.</summary>
/// <param name="InsideMm">Inside diameter, free.</param>
/// <param name="SectionMm">Diameter of the cord.</param>
/// <param name="InsideToleranceMm">Allowed either way; 0 when not stated.</param>
/// <param name="SectionToleranceMm">Allowed either way; 0 when not stated.</param>
/// <param name="Dash">Its SAE AS568 dash number, three digits, or null for a metric ring.</param>
public sealed partial record ORing(decimal InsideMm, decimal SectionMm, decimal InsideToleranceMm, decimal SectionToleranceMm, string? Dash)
{
    /// <summary>The AS568 sizes on file by dash number. Source: SAE AS568; the table is data/reference/as568.csv.</summary>
    public static IReadOnlyDictionary<string, ORing> As568 { get; } =
        CsvTable
            .Rows(CsvTable.OpenShipped, "as568.csv", row => new ORing(
                row.DecimalOrNull("inside_in")!.Value * MeasureEntry.MmPerInch,
                row.DecimalOrNull("section_in")!.Value * MeasureEntry.MmPerInch,
                row.DecimalOrNull("inside_tolerance_in")!.Value * MeasureEntry.MmPerInch,
                row.DecimalOrNull("section_tolerance_in")!.Value * MeasureEntry.MmPerInch,
                row.Text("dash")
            ))
            .ToDictionary(ring => ring.Dash!);

    /// <summary>How it is written: <c>AS568-008</c> or <c>6 × 1 mm</c>.</summary>
    public string Label =>
        Dash is { } dash ? "AS568-" + dash : string.Create(CultureInfo.InvariantCulture, $"{InsideMm:0.###} × {SectionMm:0.###} mm");

    /// <summary>Reads <c>AS568-008</c>, <c>-008</c>, <c>6 × 1</c> or <c>6 x 1 mm</c>.</summary>
    public static Parsed<ORing> Parse(string? text)
    {
        var trimmed = (text ?? "").Trim();
        if (DashPattern().Match(trimmed) is { Success: true } dash)
        {
            var number = dash.Groups["n"].Value.PadLeft(3, '0');
            return As568.TryGetValue(number, out var known)
                ? Parsed<ORing>.Right(known)
                : Parsed<ORing>.Wrong(
                    $"AS568-{number} is not on file: the table ends where carburetor rings do. Give inside and section instead, such as 6 × 1."
                );
        }

        if (MetricPattern().Match(trimmed) is { Success: true } metric)
        {
            var inside = Number(metric.Groups["inside"].Value);
            var section = Number(metric.Groups["section"].Value);
            return inside > 0 && section > 0
                ? Parsed<ORing>.Right(Metric(inside, section))
                : Parsed<ORing>.Wrong("Inside and section must both be above 0.");
        }

        return Parsed<ORing>.Wrong($"“{trimmed}” is not a ring size. Try AS568-008 or 6 × 1.");
    }

    /// <summary>A metric ring with the tolerances of ISO 3601-1, class B (from memory): section by steps, inside ± (0.009·d^0.95 + 0.11)
    /// mm.</summary>
    public static ORing Metric(decimal insideMm, decimal sectionMm) =>
        new(
            insideMm,
            sectionMm,
            Math.Round((decimal)((0.009 * SteadyMath.Pow((double)insideMm, 0.95)) + 0.11), 2),
            sectionMm <= 2.25m ? 0.08m
                : sectionMm <= 3.15m ? 0.09m
                : sectionMm <= 4.5m ? 0.10m
                : sectionMm <= 6.3m ? 0.13m
                : 0.15m,
            null
        );

    private static decimal Number(string text) =>
        decimal.Parse(text.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(?:AS\s*568\s*-?\s*|-)(?<n>\d{1,3})$", RegexOptions.IgnoreCase)]
    private static partial Regex DashPattern();

    [GeneratedRegex(@"^(?<inside>\d{1,4}(?:[.,]\d{1,4})?)\s*[×xX*]\s*(?<section>\d{1,3}(?:[.,]\d{1,4})?)\s*(?:mm)?$")]
    private static partial Regex MetricPattern();
}

/// <summary>How much a ring's section is squeezed in its groove.</summary>
/// <param name="Percent">At the nominal sizes: 100 × (section − depth) ÷ section.</param>
/// <param name="LeastPercent">With the thinnest ring in the deepest groove.</param>
/// <param name="MostPercent">With the thickest ring in the shallowest groove.</param>
public sealed record Squeeze(double Percent, double LeastPercent, double MostPercent)
{
    /// <summary>Least squeeze that still seals. Common practice for small static seals, no source.</summary>
    public const double FewestPercent = 10;

    /// <summary>Most squeeze before the ring is cut or set. Common practice for small static seals, no source.</summary>
    public const double MaxPercent = 40;

    /// <summary>The squeeze of a ring in a groove.</summary>
    /// <param name="ring">The ring.</param>
    /// <param name="depthMm">Radial depth of the groove including the gap, above 0.</param>
    /// <param name="depthToleranceMm">How far the depth may be off, 0 or more.</param>
    /// <remarks>Stretch over the groove's diameter is left out: it thins the section by a few percent at most.</remarks>
    public static Squeeze Of(ORing ring, decimal depthMm, decimal depthToleranceMm)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(depthMm);
        static double At(decimal section, decimal depth) => (double)(100 * (section - depth) / section);
        return new Squeeze(
            At(ring.SectionMm, depthMm),
            At(ring.SectionMm - ring.SectionToleranceMm, depthMm + depthToleranceMm),
            At(ring.SectionMm + ring.SectionToleranceMm, Math.Max(0, depthMm - depthToleranceMm))
        );
    }
}
