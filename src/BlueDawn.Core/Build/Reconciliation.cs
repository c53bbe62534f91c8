using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Build;

/// <summary>A part of a kit that was not used, and why.</summary>
/// <param name="Item">The kit's number.</param>
/// <param name="Part">The part, with what tells it apart.</param>
/// <param name="Quantity">How many are left.</param>
/// <param name="Why">Why it is left over.</param>
/// <param name="Settled">False while it may still be used or nothing explains it.</param>
public sealed record LeftOver(string Item, string Part, int Quantity, string Why, bool Settled);

/// <summary>What became of everything: lines by how they ended, and what is left of the kit.</summary>
/// <param name="Ended">Lines that ended, by how.</param>
/// <param name="Open">Lines that have not.</param>
/// <param name="LeftOver">Kit parts that were not used.</param>
public sealed record Reconciliation(IReadOnlyDictionary<Fate, int> Ended, IReadOnlyList<string> Open, IReadOnlyList<LeftOver> LeftOver)
{
    /// <summary>Reconciles a ledger with what was decided to be fitted.</summary>
    /// <param name="ledger">The ledger.</param>
    /// <param name="fitting">What was decided, or null.</param>
    public static Reconciliation Of(Ledger ledger, Fitting? fitting)
    {
        var ended = ledger
            .Lines.Where(line => line.Fitted is not null)
            .GroupBy(line => line.Fitted!.Fate)
            .ToDictionary(group => group.Key, group => group.Count());
        return new Reconciliation(
            ended,
            [.. ledger.Open.Select(line => line.Part.Label)],
            ledger.IsBegun ? [.. (fitting?.Items ?? []).SelectMany(item => Left(item, ledger))] : []
        );
    }

    private static IEnumerable<LeftOver> Left(FittedItem item, Ledger ledger)
    {
        foreach (var kind in item.Parts.GroupBy(part => part.Part))
        {
            var lines = ledger.Lines.Where(line => line.Part.KitPart == kind.Key).ToList();
            var used = lines.Count(line => line.Fitted is { Fate: Fate.Renewed } fitted && fitted.Item == item.Number);
            var variants = kind.ToList();
            // A kit for several types brings a part in several sizes: one of them is used, the rest are for the others.
            if (variants.Count > 1 && used > 0)
            {
                yield return new LeftOver(
                    item.Number,
                    kind.Key,
                    variants.Sum(part => part.Quantity) * item.Pieces - used,
                    $"The kit serves several types and brings {variants.Count}: {string.Join(" or ", variants.Select(Told))}.",
                    true
                );
                continue;
            }

            foreach (var part in variants)
            {
                // One line stands for a set of equal parts: screens on both pipes, rings on both screws.
                var left =
                    part.Quantity * item.Pieces - (used > 0 ? Math.Max(used, lines.Count == 1 ? part.Quantity * item.Pieces : used) : 0);
                if (left > 0)
                {
                    var (why, settled) = Why(lines, used);
                    yield return new LeftOver(item.Number, Named(part), left, why, settled);
                }
            }
        }
    }

    private static (string Why, bool Settled) Why(List<LedgerLine> lines, int used) =>
        lines switch
        {
            [] => ("Nothing on this carburetor’s list takes it.", true),
            _ when used > 0 => ("More in the kit than this carburetor has.", true),
            _ when lines.Any(line => line.IsOpen) => ("Not fitted yet.", false),
            _ when lines.All(line => line.State is LedgerState.Expected or LedgerState.StaysIn) => ("Where it goes was not opened.", true),
            _ when lines.Any(line => line.Fitted is { Fate: Fate.Refitted }) => (
                "The old one went back: say so to the owner, or fit the new one.",
                false
            ),
            _ when lines.Any(line => line.Fitted is { Fate: Fate.Made }) => ("One was made instead.", true),
            _ when lines.Any(line => line.Fitted is { Fate: Fate.LeftOff }) => ("Left off, with a reason.", true),
            _ => ("One from elsewhere went in.", true),
        };

    private static string Named(ItemPart part) => part.Features.Count == 0 ? part.Part : $"{part.Part}, {Told(part)}";

    private static string Told(ItemPart part) =>
        part.Features.Count == 0 ? "plain" : string.Join(", ", part.Features.Select(feature => $"{feature.Key} {feature.Value}"));
}
