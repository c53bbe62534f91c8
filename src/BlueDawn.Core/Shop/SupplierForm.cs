using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Shop;

/// <summary>A supplier.</summary>
/// <param name="Name">The name.</param>
/// <param name="Freight">What one order costs to send, in the shop's currency, 0 or more.</param>
public sealed record Supplier(string Name, decimal Freight);

/// <summary>A supplier as it is typed.</summary>
/// <param name="Name">The name.</param>
/// <param name="Freight">What one order costs to send; empty for nothing.</param>
public sealed record TypedSupplier(string Name, string Freight);

/// <summary>The shop's suppliers as they are typed.</summary>
public static class SupplierForm
{
    private const int LongestName = 80;
    private const int Most = 100;
    private const decimal MostFreight = 100_000;

    /// <summary>Reads them, or says what is wrong, by <c>suppliers[place].field</c>.</summary>
    /// <param name="typed">All of them.</param>
    /// <param name="selling">Those with prices in the catalogue: they stay, under their name.</param>
    public static (IReadOnlyList<Supplier> Read, IReadOnlyList<FieldProblem> Problems) Read(
        IReadOnlyList<TypedSupplier> typed,
        IReadOnlyList<string> selling
    )
    {
        var (read, problems) = (new List<Supplier>(), new List<FieldProblem>());
        foreach (var (one, place) in typed.Take(Most).Select((one, place) => (one, place)))
        {
            var name = one.Name.Trim();
            if (name.Length is 0 or > LongestName)
            {
                problems.Add(new($"suppliers[{place}].name", $"A name, of no more than {LongestName} characters."));
            }
            else if (read.Any(other => string.Equals(other.Name, name, StringComparison.OrdinalIgnoreCase)))
            {
                problems.Add(new($"suppliers[{place}].name", $"{name} is there already."));
            }

            var freight = one.Freight.Trim().Length == 0 ? Parsed<decimal>.Right(0) : MeasureEntry.Parse(one.Freight, Dimension.Count);
            if (!freight.IsRight || freight.Value < 0 || freight.Value > MostFreight || decimal.Round(freight.Value, 2) != freight.Value)
            {
                problems.Add(
                    new($"suppliers[{place}].freight", freight.Problem ?? $"From 0 to {MostFreight}, with no more than two places.")
                );
            }

            read.Add(new Supplier(name, freight.Value));
        }

        problems.AddRange(
            selling
                .Where(name => read.All(one => one.Name != name))
                .Select(name => new FieldProblem(
                    "suppliers",
                    $"{name} has prices in the catalogue and stays. Take its prices out of the catalogue first."
                ))
        );
        if (typed.Count > Most)
        {
            problems.Add(new("suppliers", $"No more than {Most}."));
        }

        return (read, problems);
    }
}
