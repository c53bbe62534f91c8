using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Proving;

/// <summary>How a complaint is tried again. The table is data/proving/complaints.csv.</summary>
/// <param name="Id">The complaint's id.</param>
/// <param name="How">What to do; empty when another line tries it.</param>
/// <param name="Running">Whether the engine runs for it.</param>
/// <param name="RanMin">Minutes it has to run where nobody knows after how many it failed; null when no time is asked.</param>
/// <param name="StoodMin">Minutes it has to stand with the fuel on before it can be said to be gone; null when no standing is asked.</param>
/// <param name="TriedBy">The line that tries it anyway, or null when it has a line of its own.</param>
/// <param name="Source">Where this is from.</param>
public sealed record ComplaintTry(string Id, string How, bool Running, double? RanMin, double? StoodMin, string? TriedBy, string Source)
{
    /// <summary>What ships with the product, by the complaint's id.</summary>
    public static IReadOnlyDictionary<string, ComplaintTry> Shipped { get; } =
        CsvTable
            .Rows(CsvTable.OpenShipped, "proving/complaints.csv", row => new ComplaintTry(
                row.Text("complaint"),
                row.MayBeEmpty("how"),
                row.Text("running") == "yes",
                (double?)row.DecimalOrNull("ran_min"),
                (double?)row.DecimalOrNull("stood_min"),
                row.TextOrNull("tried_by"),
                row.Text("source")
            ))
            .ToDictionary(row => row.Id);
}
