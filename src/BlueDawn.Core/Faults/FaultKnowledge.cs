using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Faults;

/// <summary>Where a cause sits, and so who puts it right.</summary>
public enum Place
{
    /// <summary>In the carburetor.</summary>
    Carburetor,

    /// <summary>On the machine around it: fuel supply, air, linkage.</summary>
    Machine,

    /// <summary>In the engine or its ignition.</summary>
    Engine,
}

/// <summary>How far a carburetor is apart. What is apart already costs nothing more.</summary>
public enum ApartLevel
{
    /// <summary>On the machine and together: it could run.</summary>
    Together,

    /// <summary>The bowl is off.</summary>
    Bowl,

    /// <summary>The carburetor is off the machine.</summary>
    Off,

    /// <summary>Taken apart.</summary>
    Strip,
}

/// <summary>What state a check needs.</summary>
public enum CheckState
{
    /// <summary>Any.</summary>
    Any,

    /// <summary>Together, not running.</summary>
    Together,

    /// <summary>Together and running.</summary>
    Running,

    /// <summary>Bowl off, or further apart.</summary>
    Bowl,

    /// <summary>Carburetor off, or further apart.</summary>
    Off,

    /// <summary>Taken apart.</summary>
    Strip,
}

/// <summary>Something that can be wrong.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Label">What is wrong.</param>
/// <param name="Circuit">The circuit it belongs to, as the cutaway lights it.</param>
/// <param name="Place">Where it sits.</param>
/// <param name="Parts">The bench part it sits at, by its key in the ledger: the first of these a family has. Empty when it is no bench
/// part.</param>
/// <param name="Applies">What it applies to.</param>
/// <param name="Apart">How far apart the carburetor must be for the fix.</param>
/// <param name="Fix">The fix.</param>
/// <param name="FixMinutes">Hands-on minutes of the fix itself.</param>
/// <param name="PartsMoney">Typical price of the parts the fix needs, in the shop's currency; 0 for none.</param>
/// <param name="Refer">True when the fix is not this bench's work.</param>
/// <param name="PriorWeight">How often it is the cause, against the others; above 0.</param>
/// <param name="Source">Where this is from.</param>
public sealed record Cause(
    string Id,
    string Label,
    string Circuit,
    Place Place,
    IReadOnlyList<string> Parts,
    AppliesTo Applies,
    ApartLevel Apart,
    string Fix,
    double FixMinutes,
    double PartsMoney,
    bool Refer,
    double PriorWeight,
    string Source
)
{
    /// <summary>The bench part it sits at in a family; null when it is no bench part.</summary>
    public StripPart? PartIn(CarburetorFamily family, LedgerKnowledge ledger)
    {
        var all = ledger.All(family);
        return Parts.Select(key => all.FirstOrDefault(part => part.Key == key)).FirstOrDefault(part => part is not null);
    }
}

/// <summary>What a finding is to a repair.</summary>
public enum FindingRole
{
    /// <summary>The trouble itself: a repair is done when it is gone.</summary>
    Trouble,

    /// <summary>How a part or a test is found.</summary>
    Part,

    /// <summary>Circumstances: they speak for causes, and nothing has to be done about them.</summary>
    Context,
}

/// <summary>Something that can be found.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Label">What is found.</param>
/// <param name="Short">The same in a few words.</param>
/// <param name="Stage">When it is usually found; <c>complaint</c> is what an owner can say.</param>
/// <param name="Role">What it is to a repair.</param>
/// <param name="Applies">What it applies to.</param>
/// <param name="Background">How often it is found on a machine without any of its causes, 0 to 1.</param>
/// <param name="Source">Where this is from.</param>
public sealed record Finding(
    string Id,
    string Label,
    string Short,
    string Stage,
    FindingRole Role,
    AppliesTo Applies,
    double Background,
    string Source
);

/// <summary>A check: something to do that reveals findings.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Label">What to do.</param>
/// <param name="State">The state it needs.</param>
/// <param name="Minutes">Hands-on minutes, without getting there.</param>
/// <param name="Reveals">Findings it answers.</param>
/// <param name="CautionKey">Its caution.</param>
/// <param name="NotWith">Findings with which it cannot be done: an engine that dies at once is not run ten minutes.</param>
/// <param name="Applies">What it applies to.</param>
/// <param name="Source">Where this is from.</param>
public sealed record Check(
    string Id,
    string Label,
    CheckState State,
    double Minutes,
    IReadOnlyList<string> Reveals,
    string CautionKey,
    IReadOnlyList<string> NotWith,
    AppliesTo Applies,
    string Source
)
{
    /// <summary>How far apart the carburetor is for this check, and is left, when it is now at <paramref name="now"/>.</summary>
    public ApartLevel LeavesApart(ApartLevel now) =>
        State switch
        {
            CheckState.Together or CheckState.Running => ApartLevel.Together,
            CheckState.Bowl => now > ApartLevel.Bowl ? now : ApartLevel.Bowl,
            CheckState.Off => now > ApartLevel.Off ? now : ApartLevel.Off,
            CheckState.Strip => ApartLevel.Strip,
            CheckState.Any => now,
        };
}

/// <summary>How strongly a cause shows as a finding.</summary>
/// <param name="CauseId">The cause.</param>
/// <param name="FindingId">The finding.</param>
/// <param name="Strength">always, usually, sometimes or rarely.</param>
/// <param name="Probability">The same as a probability: of finding it when the cause is the only one there.</param>
/// <param name="Source">Where this is from.</param>
public sealed record CauseFinding(string CauseId, string FindingId, string Strength, double Probability, string Source);

/// <summary>A caution with the condition that must be met before the check, if there is one.</summary>
/// <param name="Caution">The caution.</param>
/// <param name="Precondition">What has to be so first, in words; null when nothing has.</param>
/// <param name="Condition">The condition, or null.</param>
public sealed record CheckCaution(Caution Caution, string? Precondition, SafetyCondition? Condition);

/// <summary>What it takes to get to a level and back.</summary>
/// <param name="Level">The level.</param>
/// <param name="OpenMinutes">Minutes from together to this level.</param>
/// <param name="CloseMinutes">Minutes from this level back to together.</param>
/// <param name="Label">The level in words.</param>
public sealed record ApartCost(ApartLevel Level, double OpenMinutes, double CloseMinutes, string Label);

/// <summary>How a judged gauge line answers a finding of the trace.</summary>
/// <param name="Line">The line's key; a trailing <c>*</c> stands for any ending.</param>
/// <param name="Judged">The finding of its judgement.</param>
/// <param name="FindingId">The finding it answers.</param>
/// <param name="Present">Whether it is present or absent.</param>
/// <param name="CauseId">The cause that a later good reading shows to have been put right, or null.</param>
public sealed record StationFinding(string Line, string Judged, string FindingId, bool Present, string? CauseId)
{
    /// <summary>Whether this speaks of that line.</summary>
    public bool Matches(string lineKey) => Line.EndsWith('*') ? lineKey.StartsWith(Line[..^1], StringComparison.Ordinal) : lineKey == Line;
}

/// <summary>How far a witness is to be believed.</summary>
/// <param name="Seen">Probability that what is there is said to be there.</param>
/// <param name="FalseAlarm">Probability that what is not there is said to be there; below <paramref name="Seen"/>.</param>
public readonly record struct Witness(double Seen, double FalseAlarm)
{
    /// <summary>One who is never wrong.</summary>
    public static readonly Witness Sure = new(1, 0);
}

/// <summary>How far answers are to be believed, by whom or what they are from.</summary>
/// <param name="Owner">What the owner said.</param>
/// <param name="Technician">What a technician saw.</param>
/// <param name="Gauge">What was read off a gauge.</param>
/// <param name="Doubtful">What was marked as doubtful.</param>
/// <param name="Plain">A finding that all but is the fault, seen at the bench.</param>
public sealed record Reliability(Witness Owner, Witness Technician, Witness Gauge, Witness Doubtful, Witness Plain);

/// <summary>What has to be so before something is done on a machine.</summary>
/// <param name="Id">Stable name, such as <c>turns</c>.</param>
/// <param name="Words">What has to be so, a sentence without its stop.</param>
/// <param name="For">What needs it: <c>running</c> for whatever runs the engine, or the id of a check.</param>
/// <param name="OnlyWith">Findings with which it matters; empty when it always does.</param>
/// <param name="RuledOutBy">Findings with which it is not so.</param>
/// <param name="ShownBy">Findings that show that it is so: an engine that hunts turns over.</param>
/// <param name="AskedBy">The check that asks for it when it is not known; null when none does, and then it is taken to be so.</param>
public sealed record Need(
    string Id,
    string Words,
    IReadOnlyList<string> For,
    IReadOnlyList<string> OnlyWith,
    IReadOnlyList<string> RuledOutBy,
    IReadOnlyList<string> ShownBy,
    string? AskedBy
)
{
    /// <summary>Stands in <see cref="For"/> for whatever runs the engine.</summary>
    public const string Running = "running";

    /// <summary>The oil of a machine that floods or smokes.</summary>
    public const string Oil = "oil-right";

    /// <summary>Whether a check needs it.</summary>
    /// <param name="check">The check.</param>
    public bool IsFor(Check check) => For.Contains(check.Id) || (check.State == CheckState.Running && For.Contains(Running));
}

/// <summary>What putting a cause right needs and endangers.</summary>
/// <param name="Running">Whether the engine runs while it is done: then whatever a run needs has to be so.</param>
/// <param name="Caution">Its caution.</param>
/// <param name="Proves">What has to be proven once it is done.</param>
public sealed record FixNeed(bool Running, Caution Caution, IReadOnlyList<Proof> Proves);

/// <summary>Something told and something seen that do not go together.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Told">What was told: findings of which one is enough.</param>
/// <param name="ToldPresent">Whether they were told to be there, or not to be.</param>
/// <param name="Seen">What was seen or measured to be there: findings of which one is enough.</param>
/// <param name="Words">What that says, gently.</param>
public sealed record Contradiction(string Id, IReadOnlyList<string> Told, bool ToldPresent, IReadOnlyList<string> Seen, string Words)
{
    /// <summary>Whether it holds.</summary>
    /// <param name="evidence">Everything known.</param>
    public bool Holds(Evidence evidence) =>
        Told.Any(finding => evidence.Told.TryGetValue(finding, out var present) && present == ToldPresent)
        && evidence.Items.Any(item =>
            item is { Present: true, Doubtful: false, From: not EvidenceFrom.Owner } && Seen.Contains(item.FindingId)
        );
}

/// <summary>
/// What the bench knows about faults: causes, findings, how one shows as the other, and the checks that tell. It is
/// data with a source in each row (data/faults); this is the data in memory.
/// </summary>
/// <param name="Causes">Every cause.</param>
/// <param name="Findings">Every finding.</param>
/// <param name="Checks">Every check.</param>
/// <param name="Links">How causes show as findings.</param>
/// <param name="Cautions">Cautions by key.</param>
/// <param name="Apart">Levels, from together to taken apart.</param>
/// <param name="StationFindings">How other stations' readings answer findings.</param>
/// <param name="Reliability">How far answers are believed.</param>
/// <param name="Needs">What has to be so before something is done.</param>
/// <param name="Decisive">Findings that all but are a fault, with its cause.</param>
/// <param name="Perishables">Cheap parts seen bad, which are renewed whatever they explain, with the fault that each is.</param>
/// <param name="Measured">Checks that give a number, with the gauge lines it is read on.</param>
/// <param name="Fixes">What each fix needs and endangers, by its cause.</param>
/// <param name="Done">What the report says was done when a cause was put right, by the cause.</param>
/// <param name="Contradictions">What an owner can have told and a bench can see that do not go together.</param>
public sealed record FaultKnowledge(
    IReadOnlyList<Cause> Causes,
    IReadOnlyList<Finding> Findings,
    IReadOnlyList<Check> Checks,
    IReadOnlyList<CauseFinding> Links,
    IReadOnlyDictionary<string, CheckCaution> Cautions,
    IReadOnlyList<ApartCost> Apart,
    IReadOnlyList<StationFinding> StationFindings,
    Reliability Reliability,
    IReadOnlyList<Need> Needs,
    IReadOnlyDictionary<string, string> Decisive,
    IReadOnlyDictionary<string, string> Perishables,
    ILookup<string, string> Measured,
    IReadOnlyDictionary<string, FixNeed> Fixes,
    IReadOnlyDictionary<string, string> Done,
    IReadOnlyList<Contradiction> Contradictions
) : IKnowledge<FaultKnowledge>
{
    private readonly Lazy<HashSet<(string, string)>> touching = new(() => [.. Links.Select(link => (link.CauseId, link.FindingId))]);

    /// <inheritdoc/>
    public static FaultKnowledge Read(Knowledge knowledge) => FaultKnowledgeReader.Read(knowledge);

    /// <summary>Findings an owner can name, in the order they are asked.</summary>
    public IEnumerable<Finding> ComplaintsFor(CarburetorKind kind) =>
        Findings.Where(finding => finding.Stage == "complaint" && finding.Applies.Matches(kind));

    /// <summary>Whether a cause can bring a finding about, and so mending it can take it away.</summary>
    /// <param name="causeId">The cause.</param>
    /// <param name="findingId">The finding.</param>
    public bool Touches(string causeId, string findingId) => touching.Value.Contains((causeId, findingId));

    /// <summary>The fault that a part found bad is, whatever else it explains: what decides it, or what is renewed when it is seen; null
    /// for a finding that only points to a fault.</summary>
    /// <param name="findingId">The finding.</param>
    public string? FaultOf(string findingId) => Decisive.GetValueOrDefault(findingId) ?? Perishables.GetValueOrDefault(findingId);

    /// <summary>What putting a cause right needs and endangers; of a cause the shop has added and said nothing of, what opening fuel
    /// endangers.</summary>
    /// <param name="causeId">The cause.</param>
    public FixNeed FixOf(string causeId) => Fixes.GetValueOrDefault(causeId) ?? new FixNeed(false, Caution.Vapour, [Proof.Fuel]);

    /// <summary>Gauge lines on which what a check shows is read as a number.</summary>
    /// <param name="checkId">The check, or null.</param>
    public IReadOnlyList<string> LinesOf(string? checkId) => checkId is null ? [] : [.. Measured[checkId]];

    /// <summary>The cause of that id, or null.</summary>
    public Cause? FindCause(string id) => Causes.FirstOrDefault(cause => cause.Id == id);

    /// <summary>The finding of that id, or null.</summary>
    public Finding? FindFinding(string id) => Findings.FirstOrDefault(finding => finding.Id == id);

    /// <summary>The check of that id, or null.</summary>
    public Check? FindCheck(string id) => Checks.FirstOrDefault(check => check.Id == id);
}
