using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Measures;

/// <summary>A letter drill: its letter and its diameter.</summary>
/// <param name="Letter">A (smallest) to Z (largest).</param>
/// <param name="DiameterIn">Diameter in inches as published.</param>
public sealed record LetterDrill(char Letter, decimal DiameterIn)
{
    /// <summary>Diameter in millimetres, exactly 25.4 times the inches.</summary>
    public decimal DiameterMm => DiameterIn * MeasureEntry.MmPerInch;
}

/// <summary>The letter drills A to Z, which go on where number drill 1 ends. Source: ASME B94.11M; the table is
/// data/reference/letter-drills.csv.</summary>
public static class LetterDrills
{
    /// <summary>All of them, smallest first.</summary>
    public static IReadOnlyList<LetterDrill> All { get; } =
        CsvTable.Rows(CsvTable.OpenShipped, "letter-drills.csv", row => new LetterDrill(
            row.Text("letter")[0],
            row.DecimalOrNull("diameter_in")!.Value
        ));

    /// <summary>The drill of a letter, upper or lower case, or null when there is none.</summary>
    public static LetterDrill? Find(char letter) => All.FirstOrDefault(drill => drill.Letter == char.ToUpperInvariant(letter));
}
