using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>What was tried before it came in, and what is said to be wrong. The last of these notes stands.</summary>
/// <param name="Tried">What was tried.</param>
/// <param name="Offered">What is said to be wrong.</param>
public sealed record ToldNote(IReadOnlyList<TriedFix> Tried, IReadOnlyList<OfferedCause> Offered) : TraceNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<ToldNote> Kind { get; } = KindOf<ToldNote>("told", Permission.CheckIn);

    private const int Most = 20;

    /// <inheritdoc/>
    public override string Words(FaultKnowledge knowledge)
    {
        string Label(string id) => Trace.Lower(knowledge.FindCause(id)?.Label ?? id);
        var words = Tried
            .Select(tried =>
                FormattableString.Invariant(
                    $"tried by {Who(tried.By)}{(tried.On is { } day ? $" on {day:yyyy-MM-dd}" : "")}, for “{Label(tried.CauseId)}”{Came(tried.Outcome)}"
                )
            )
            .Concat(Offered.Select(offered => $"{Who(offered.By)} says it is “{Label(offered.CauseId)}”"))
            .ToList();
        return words.Count == 0 ? "Nothing was tried before" : "Before it came in: " + string.Join("; ", words);
    }

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(FaultKnowledge knowledge)
    {
        var problems = new List<FieldProblem>();
        if (Tried.Count > Most || Offered.Count > Most)
        {
            problems.Add(new("note.tried", $"No more than {Most} of either."));
        }

        problems.AddRange(
            Tried
                .Select((tried, i) => ($"note.tried[{i}].causeId", tried.CauseId))
                .Concat(Offered.Select((offered, i) => ($"note.offered[{i}].causeId", offered.CauseId)))
                .Where(named => knowledge.FindCause(named.CauseId) is null)
                .Select(named => new FieldProblem(named.Item1, $"There is no cause “{named.CauseId}”; see /api/faults/knowledge."))
        );
        return problems;
    }

    /// <summary>Who, in words.</summary>
    /// <param name="by">Who.</param>
    internal static string Who(ToldBy by) =>
        by switch
        {
            ToldBy.Owner => "the owner",
            ToldBy.AnotherShop => "another shop",
            ToldBy.Somebody => "somebody",
        };

    /// <summary>What came of it, in words to stand behind what was tried.</summary>
    /// <param name="outcome">What came of it.</param>
    internal static string Came(TriedOutcome outcome) =>
        outcome switch
        {
            TriedOutcome.NotSaid => "",
            TriedOutcome.NoHelp => ": no help",
            TriedOutcome.ForAWhile => ": helped for a while",
        };
}
