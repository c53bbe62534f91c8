using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Faults;

/// <summary>The part of the knowledge that applies to one carburetor, as a network with its priors.</summary>
public sealed class FaultCase
{
    /// <summary>
    /// Faults to expect on a machine before anyone has complained of it, over all causes. Own judgement: low enough that
    /// a second fault needs findings of its own, high enough that it is believed once it has them. What a complaint adds
    /// is the complaint's to say.
    /// </summary>
    public const double FaultsExpected = 0.5;

    private readonly Dictionary<string, int> causeIndex;
    private readonly Dictionary<string, int> findingIndex;

    /// <summary>Compiles the knowledge for a carburetor.</summary>
    /// <param name="knowledge">The knowledge.</param>
    /// <param name="kind">The carburetor.</param>
    /// <param name="history">What the shop has confirmed on carburetors like it; <see cref="FaultHistory.None"/> to leave it out.</param>
    /// <param name="settled">Causes that are out of the question by now: put right, or not there.</param>
    /// <param name="inVain">Causes that somebody tried to put right before, without help; null for none.</param>
    public FaultCase(
        FaultKnowledge knowledge,
        CarburetorKind kind,
        FaultHistory history,
        IReadOnlySet<string> settled,
        IReadOnlySet<string>? inVain = null
    )
    {
        Knowledge = knowledge;
        Kind = kind;
        Causes = [.. knowledge.Causes.Where(cause => cause.Applies.Matches(kind))];
        Findings = [.. knowledge.Findings.Where(finding => finding.Applies.Matches(kind))];
        causeIndex = Causes.Select((cause, i) => (cause.Id, i)).ToDictionary(pair => pair.Id, pair => pair.i);
        findingIndex = Findings.Select((finding, i) => (finding.Id, i)).ToDictionary(pair => pair.Id, pair => pair.i);
        Checks = [.. knowledge.Checks.Where(check => check.Applies.Matches(kind) && check.Reveals.Any(findingIndex.ContainsKey))];
        var strengths = Findings.Select(_ => new double[Causes.Count]).ToArray();
        foreach (var link in knowledge.Links)
        {
            if (causeIndex.TryGetValue(link.CauseId, out var cause) && findingIndex.TryGetValue(link.FindingId, out var finding))
            {
                strengths[finding][cause] = link.Probability;
            }
        }

        var total = Causes.Sum(cause => cause.PriorWeight);
        ExpertPrior = [.. Causes.Select(cause => Math.Min(0.6, FaultsExpected * cause.PriorWeight / total))];
        Prior =
        [
            .. Causes.Select(
                (cause, i) =>
                    settled.Contains(cause.Id) ? 0 : Tried(history.Shift(cause.Id, ExpertPrior[i]), inVain?.Contains(cause.Id) == true)
            ),
        ];
        Strengths = strengths;
        Network = new FaultNetwork(Prior, strengths);
    }

    /// <summary>
    /// Odds of a cause that was put right before without help, against what they were. Own judgement: a new part can be bad
    /// and a fix half done, so it speaks against the cause and does not rule it out.
    /// </summary>
    public const double TriedInVain = 0.4;

    private static double Tried(double prior, bool inVain) => inVain ? prior * TriedInVain / (1 - prior + (prior * TriedInVain)) : prior;

    /// <summary>The knowledge it was compiled from.</summary>
    public FaultKnowledge Knowledge { get; }

    /// <summary>The carburetor.</summary>
    public CarburetorKind Kind { get; }

    /// <summary>Causes that apply, in the order of the network.</summary>
    public IReadOnlyList<Cause> Causes { get; }

    /// <summary>Findings that apply, in the order of the network.</summary>
    public IReadOnlyList<Finding> Findings { get; }

    /// <summary>Checks that apply.</summary>
    public IReadOnlyList<Check> Checks { get; }

    /// <summary>Prior of each cause by the expert table alone.</summary>
    public IReadOnlyList<double> ExpertPrior { get; }

    /// <summary>Prior of each cause as used; 0 for what is settled.</summary>
    public IReadOnlyList<double> Prior { get; }

    /// <summary>By finding, by cause: how strongly it shows.</summary>
    public IReadOnlyList<IReadOnlyList<double>> Strengths { get; }

    /// <summary>The network.</summary>
    public FaultNetwork Network { get; }

    /// <summary>Index of a cause, or -1 when it does not apply.</summary>
    public int CauseAt(string id) => causeIndex.GetValueOrDefault(id, -1);

    /// <summary>Index of a finding, or -1 when it does not apply.</summary>
    public int FindingAt(string id) => findingIndex.GetValueOrDefault(id, -1);
}
