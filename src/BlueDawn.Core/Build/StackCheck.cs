using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Build;

/// <summary>What is wrong with a stack as it was put together.</summary>
public enum StackFault
{
    /// <summary>A part is in the wrong way round.</summary>
    WrongWay,

    /// <summary>A part went in before one that lies under it.</summary>
    WrongOrder,

    /// <summary>A link or spring went into another hole than it came out of.</summary>
    WrongHole,

    /// <summary>A part was closed over while one that belongs under it is still on the bench.</summary>
    LeftOut,
}

/// <summary>Something wrong with a stack, with why it matters and what mends it.</summary>
/// <param name="Fault">What is wrong.</param>
/// <param name="Part">The part that has to move.</param>
/// <param name="Other">The part it got past, or null.</param>
/// <param name="What">What is wrong, in words.</param>
/// <param name="Why">Why it matters.</param>
/// <param name="Mend">What to do.</param>
public sealed record StackProblem(StackFault Fault, string Part, string? Other, string What, string Why, string Mend);

/// <summary>A check at the moment it can still be made.</summary>
/// <param name="Part">The part about to go in.</param>
/// <param name="First">Parts that have to go in before it; empty when it may go in.</param>
/// <param name="RightWay">The way round it has to go in, or null.</param>
/// <param name="Trap">What to look at, or null.</param>
/// <param name="Reason">Why.</param>
public sealed record BuildAdvice(string Part, IReadOnlyList<string> First, Way? RightWay, string? Trap, string? Reason);

/// <summary>Order and way round of what lies on what.</summary>
public static class StackCheck
{
    /// <summary>Everything wrong with what has gone back so far, without what is so on this machine for a reason. A part that still lies on
    /// the bench stays open in the ledger whatever the reason.</summary>
    /// <param name="knowledge">The stacks.</param>
    /// <param name="family">The carburetor's family.</param>
    /// <param name="sheet">The spec sheet, or null: where it says a way round, that is the right one.</param>
    /// <param name="ledger">The ledger; parts count in the order they were recorded.</param>
    public static IReadOnlyList<StackProblem> Problems(StackKnowledge knowledge, CarburetorFamily family, SpecSheet? sheet, Ledger ledger)
    {
        var problems = new List<StackProblem>();
        var order = ledger
            .Lines.Where(line => line.Fitted is not null)
            .OrderBy(line => line.At)
            .ThenBy(line => line.EntryId)
            .Select((line, place) => (line.Part.Key, place))
            .ToDictionary(pair => pair.Key, pair => pair.place);
        foreach (var layer in knowledge.Stacks(family).SelectMany(stack => stack.Layers))
        {
            // What never came out is in as the last builder left it, and is not judged.
            if (ledger.Find(layer.Part) is not { IsIn: true, Fitted: { } fitted } line)
            {
                continue;
            }

            if (WayRound.Right(layer, line, sheet) is { } right && fitted.Way is { } way && way != right)
            {
                problems.Add(
                    new StackProblem(
                        StackFault.WrongWay,
                        layer.Part,
                        null,
                        $"{Capital(line.Part.Label)} went in wrong: {Label(line, way)}.",
                        layer.Reason,
                        $"Take it out again and turn it: {Label(line, right)}."
                    )
                );
            }

            foreach (var under in Under(knowledge, family, layer, ledger))
            {
                if (under.IsOpen)
                {
                    problems.Add(
                        new StackProblem(
                            StackFault.LeftOut,
                            layer.Part,
                            under.Part.Key,
                            $"{Capital(under.Part.Label)} is still on the bench, and {line.Part.Label} closes over it.",
                            knowledge.Layer(family, under.Part.Key)?.Reason ?? layer.Reason,
                            $"Take {line.Part.Label} off, fit {under.Part.Label}, then go on."
                        )
                    );
                }
                else if (under.IsIn && under.Fitted is not null && order[under.Part.Key] > order[layer.Part])
                {
                    problems.Add(
                        new StackProblem(
                            StackFault.WrongOrder,
                            layer.Part,
                            under.Part.Key,
                            $"{Capital(line.Part.Label)} went in before {under.Part.Label}, which lies under it.",
                            knowledge.Layer(family, under.Part.Key)?.Reason ?? layer.Reason,
                            $"Take {line.Part.Label} out again; {under.Part.Label} goes in first."
                        )
                    );
                }
            }
        }

        var off = ledger.OrderOff;
        foreach (var stack in knowledge.Stacks(family))
        {
            var loose = AsFound(stack, off)
                .Layers.Where(layer => layer.LiesAsFound && off.ContainsKey(layer.Part))
                .Select(layer => ledger.Find(layer.Part)!)
                .ToList();
            var back = loose.Where(line => line is { IsIn: true, Fitted: not null }).ToList();
            if (
                back.Zip(back.Skip(1)).FirstOrDefault(pair => order[pair.First.Part.Key] > order[pair.Second.Part.Key]) is
                { First: { } lower, Second: { } upper }
            )
            {
                problems.Add(
                    new StackProblem(
                        StackFault.WrongOrder,
                        upper.Part.Key,
                        lower.Part.Key,
                        $"{Capital(upper.Part.Label)} went in before {lower.Part.Label}; as it came off, {lower.Part.Label} lay under it.",
                        "The last builder may have had a reason, or a mistake: gaskets on the wrong side cover a passage.",
                        $"Look at both. As it was: {string.Join(", ", loose.Select(line => line.Part.Label))}, from the inside out."
                    )
                );
            }
        }

        foreach (
            var line in ledger.Lines.Where(line =>
                line is { IsIn: true, Fitted.Hole: not null, Found.Hole: not null } && !SameHole(line.Fitted.Hole, line.Found.Hole)
            )
        )
        {
            problems.Add(
                new StackProblem(
                    StackFault.WrongHole,
                    line.Part.Key,
                    null,
                    $"{Capital(line.Part.Label)} went into another hole: “{line.Fitted!.Hole!.Trim()}”, it came out of “{line.Found!.Hole!.Trim()}”.",
                    "Another hole changes how far a plate opens or which speed the governor holds.",
                    $"Take it out again and hook it into “{line.Found.Hole.Trim()}”."
                )
            );
        }

        return [.. problems.Where(problem => ledger.Find(problem.Part)?.Fitted?.SoBecause is null)];
    }

    private static bool SameHole(string one, string other) => string.Equals(one.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);

    /// <summary>What to see to before a part goes in.</summary>
    public static BuildAdvice Advice(StackKnowledge knowledge, CarburetorFamily family, SpecSheet? sheet, Ledger ledger, LedgerLine line)
    {
        if (knowledge.Layer(family, line.Part.Key) is not { } layer)
        {
            return new BuildAdvice(line.Part.Key, [], null, null, null);
        }

        var right = WayRound.Right(layer, line, sheet);
        return new BuildAdvice(
            line.Part.Key,
            [.. Under(knowledge, family, layer, ledger).Where(under => under.IsOpen).Select(under => under.Part.Key)],
            right is null ? null : line.Part.Ways.FirstOrDefault(way => way.Key == right),
            WayRound.IsOpen(layer, line, sheet)
                    ? $"It came out {Label(line, line.Found!.Way!)}; usually it lies {Label(line, layer.Way!)}. Look at both before it goes in."
                // What is asked as a rule is the other way round from what the sheet says.
                : right is not null && layer.Way is { } usual && usual != StackLayer.AsFound && usual != right
                    ? $"{Capital(Label(line, right))}, as the sheet says?"
                : layer.Trap,
            layer.Reason
        );
    }

    /// <summary>
    /// What is missing from an entry while it can still be looked at: a part with a right way round is not closed over
    /// before somebody has said how it went in.
    /// </summary>
    public static IReadOnlyList<FieldProblem> Check(
        StackKnowledge knowledge,
        CarburetorFamily family,
        SpecSheet? sheet,
        Ledger ledger,
        LedgerNote note
    ) =>
        note is BackNote { Way: null, Fate: Fate.Refitted or Fate.Renewed or Fate.Made } back
        && ledger.Find(back.Part) is { } line
        && knowledge.Layer(family, back.Part) is { } layer
        && (WayRound.Right(layer, line, sheet) is not null || WayRound.IsOpen(layer, line, sheet))
            ? [new("note.way", $"Say which way round it went in. {layer.Reason}")]
            : [];

    /// <summary>Open lines in the order they go back: as they came off, turned round; where that was not the usual way, what lies under
    /// another part first all the same. What was missing goes by the usual order of removal.</summary>
    /// <param name="knowledge">The stacks.</param>
    /// <param name="family">The carburetor's family.</param>
    /// <param name="ledger">The ledger.</param>
    public static IReadOnlyList<LedgerLine> Order(StackKnowledge knowledge, CarburetorFamily family, Ledger ledger)
    {
        var off = ledger.OrderOff;
        var left = ledger
            .Open.OrderByDescending(line => off.GetValueOrDefault(line.Part.Key))
            .ThenByDescending(line => line.Part.Order)
            .ToList();
        var under = left.ToDictionary(
            line => line.Part.Key,
            line =>
                knowledge.Layer(family, line.Part.Key) is { } layer
                    ? Under(knowledge, family, layer, ledger).Select(one => one.Part.Key).ToHashSet()
                    : []
        );
        var order = new List<LedgerLine>(left.Count);
        while (left.Count > 0)
        {
            // Stacks have no circles (StackKnowledge); the first is taken should a shop's own table have one.
            var next = left.FirstOrDefault(line => left.All(other => !under[line.Part.Key].Contains(other.Part.Key))) ?? left[0];
            order.Add(next);
            left.Remove(next);
        }

        return order;
    }

    /// <summary>A stack as this machine had it: what may lie either way about lies as it came off, as far as that was written down.</summary>
    /// <param name="stack">The stack as is usual.</param>
    /// <param name="off">Which part came off when (<see cref="Ledger.OrderOff"/>).</param>
    public static StackPlan AsFound(StackPlan stack, IReadOnlyDictionary<string, int> off)
    {
        var loose = stack.Layers.Where(layer => layer.LiesAsFound && off.ContainsKey(layer.Part)).ToList();
        var found = new Queue<StackLayer>(loose.OrderByDescending(layer => off[layer.Part]));
        return stack with { Layers = [.. stack.Layers.Select(layer => loose.Contains(layer) ? found.Dequeue() : layer)] };
    }

    /// <summary>Everything that has to be in before a layer: what lies under it in its stack, and what it closes over. On the outside, what
    /// came off while the layer was still on does not lie under it on this machine.</summary>
    private static IEnumerable<LedgerLine> Under(StackKnowledge knowledge, CarburetorFamily family, StackLayer layer, Ledger ledger)
    {
        var stacks = knowledge.Stacks(family).Where(stack => stack.Layers.Contains(layer)).ToList();
        var off = layer.GoesAsItCameOff ? ledger.OrderOff : null;
        bool CameOffUnderIt(string other) =>
            off is not null
            && off.TryGetValue(layer.Part, out var mine)
            && off.TryGetValue(other, out var its)
            && its < mine
            && (
                layer.Covers.Contains(other)
                || stacks.SelectMany(stack => stack.Layers).Any(one => one.Part == other && one.GoesAsItCameOff)
            );
        return stacks
            .SelectMany(stack =>
                stack.Layers.Where(other => other.Place < layer.Place && !(other.Loose && layer.Loose)).Select(other => other.Part)
            )
            .Concat(layer.Covers)
            .Distinct()
            .Where(other => !CameOffUnderIt(other))
            .Select(ledger.Find)
            .OfType<LedgerLine>();
    }

    private static string Label(LedgerLine line, string way) => Lower(line.Part.Ways.FirstOrDefault(one => one.Key == way)?.Label ?? way);

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static string Lower(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
