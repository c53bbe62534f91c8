using System.Globalization;

namespace BlueDawn.Core.Measures;

/// <summary>A number drill: its number and its diameter.</summary>
/// <param name="Number">1 (largest) to 97 (smallest).</param>
/// <param name="DiameterIn">Diameter in inches as published.</param>
public sealed record NumberDrill(int Number, decimal DiameterIn)
{
    /// <summary>Diameter in millimetres, exactly 25.4 times the inches.</summary>
    public decimal DiameterMm => DiameterIn * Measures.MeasureEntry.MmPerInch;

    /// <summary>How the drill is called at the bench, such as <c>#70</c>.</summary>
    public string Label => "#" + Number.ToString(CultureInfo.InvariantCulture);
}

/// <summary>The number drills 1 to 97. Source: ASME B94.11M; the table is data/reference/number-drills.csv.</summary>
public static class NumberDrills
{
    /// <summary>All of them, largest first.</summary>
    public static IReadOnlyList<NumberDrill> All { get; } = Load();

    /// <summary>The drill of that number, or null when there is none.</summary>
    public static NumberDrill? Find(int number) => number >= 1 && number <= All.Count ? All[number - 1] : null;

    /// <summary>The drill nearest in diameter; of two equally near, the smaller (it never opens the hole).</summary>
    /// <param name="diameterMm">Diameter in millimetres.</param>
    public static NumberDrill Nearest(decimal diameterMm) =>
        All.OrderBy(drill => Math.Abs(drill.DiameterMm - diameterMm)).ThenBy(drill => drill.DiameterMm).First();

    /// <summary>The smallest drill that is larger than a bore; null when none is.</summary>
    /// <param name="boreMm">The bore in millimetres.</param>
    public static NumberDrill? NextAbove(decimal boreMm) => All.LastOrDefault(drill => drill.DiameterMm > boreMm);

    private static List<NumberDrill> Load()
    {
        using var stream = typeof(NumberDrills).Assembly.GetManifestResourceStream("number-drills.csv")
            ?? throw new InvalidOperationException("The number drill table is missing from the build.");
        using var reader = new StreamReader(stream);
        var drills = new List<NumberDrill>();
        while (reader.ReadLine() is { } line)
        {
            if (line.Length == 0 || !char.IsAsciiDigit(line[0]))
            {
                continue;
            }

            var cells = line.Split(',');
            drills.Add(
                new NumberDrill(int.Parse(cells[0], CultureInfo.InvariantCulture), decimal.Parse(cells[1], CultureInfo.InvariantCulture))
            );
        }

        return drills;
    }
}
