using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>What one finding adds to a cause.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Label">What is found, in a few words.</param>
/// <param name="Present">Whether it is there.</param>
/// <param name="LogOdds">Change of the cause's log-odds (natural logarithm); above 0 speaks for it.</param>
public sealed record Weighing(string FindingId, string Label, bool Present, double LogOdds);

/// <summary>A cause still standing.</summary>
/// <param name="Cause">The cause.</param>
/// <param name="Probability">How likely it is to be there, alone or with others.</param>
/// <param name="Reason">Why, in a plain sentence.</param>
/// <param name="Weighings">What each finding adds, strongest first.</param>
/// <param name="ExpertPrior">Its odds before anything was found, by the expert table.</param>
/// <param name="Prior">The same with the shop's own history.</param>
/// <param name="ConfirmedBefore">In how many of the shop's trays that count it was confirmed.</param>
public sealed record CauseStanding(
    Cause Cause,
    double Probability,
    Sentence Reason,
    IReadOnlyList<Weighing> Weighings,
    double ExpertPrior,
    double Prior,
    double ConfirmedBefore
);

/// <summary>How a hypothesis stands.</summary>
public enum HypothesisState
{
    /// <summary>Neither found nor ruled out.</summary>
    Open,

    /// <summary>It was there.</summary>
    Found,

    /// <summary>It is not it.</summary>
    RuledOut,
}

/// <summary>What somebody says is wrong, tested like any other cause and weighed by nothing but what is found.</summary>
/// <param name="CauseId">The cause.</param>
/// <param name="Label">What is said to be wrong.</param>
/// <param name="By">Who says so.</param>
/// <param name="Probability">How likely it is by what is known.</param>
/// <param name="State">How it stands.</param>
/// <param name="CheckId">The cheapest check that would tell, or null when none is left.</param>
public sealed record Hypothesis(string CauseId, string Label, ToldBy By, double Probability, HypothesisState State, string? CheckId);

/// <summary>What kind of thing to do next.</summary>
public enum StepKind
{
    /// <summary>A check.</summary>
    Check,

    /// <summary>A fix: likely enough, and no check is worth its time.</summary>
    Fix,

    /// <summary>After a fix: see what is left of the trouble.</summary>
    Recheck,

    /// <summary>Not this bench's work, or not worth more of its time.</summary>
    Refer,

    /// <summary>Nothing is left unexplained.</summary>
    Done,
}

/// <summary>The next best step of a trace.</summary>
/// <param name="Kind">What kind of thing.</param>
/// <param name="CheckId">The check, or null.</param>
/// <param name="CauseId">The cause to put right or to refer, or null.</param>
/// <param name="Do">What to do.</param>
/// <param name="Why">Why this.</param>
/// <param name="Minutes">Minutes it takes from here.</param>
/// <param name="Asks">Findings to answer.</param>
/// <param name="Tells">What answers would tell, the most telling first.</param>
/// <param name="First">What has to be so before it may start, or null.</param>
/// <param name="FirstWords">The same in words, or null.</param>
/// <param name="Caution">Its caution, or null.</param>
/// <param name="Lines">Gauge lines on which what it asks is read as a number; empty when there are none.</param>
public sealed record TraceStep(
    StepKind Kind,
    string? CheckId,
    string? CauseId,
    Sentence Do,
    Sentence Why,
    double Minutes,
    IReadOnlyList<string> Asks,
    IReadOnlyList<Tells> Tells,
    SafetyCondition? First,
    string? FirstWords,
    Caution? Caution,
    IReadOnlyList<string> Lines
);

/// <summary>A trace as it stands: evidence in, ranked causes and the next best step out.</summary>
/// <param name="Kind">The carburetor.</param>
/// <param name="Evidence">Everything known.</param>
/// <param name="Causes">Causes still standing, most likely first.</param>
/// <param name="Next">The next best step.</param>
/// <param name="Checks">Every other check worth anything, best first.</param>
/// <param name="FixMinutes">Expected minutes to a fix without another check.</param>
/// <param name="NoneProbability">Probability that the cause is none of those in the table.</param>
/// <param name="SeveralProbability">Probability that more than one thing is wrong.</param>
/// <param name="ElsewhereProbability">Probability that what is wrong is not in the carburetor.</param>
/// <param name="History">The shop's history that was used.</param>
/// <param name="Hypotheses">What somebody says is wrong, with how likely it is and what would tell.</param>
/// <param name="Doubts">Where what was told and what was seen do not go together, gently; for the bench alone.</param>
public sealed record Trace(
    CarburetorKind Kind,
    Evidence Evidence,
    IReadOnlyList<CauseStanding> Causes,
    TraceStep Next,
    IReadOnlyList<CheckValue> Checks,
    double FixMinutes,
    double NoneProbability,
    double SeveralProbability,
    double ElsewhereProbability,
    FaultHistory History,
    IReadOnlyList<Hypothesis> Hypotheses,
    IReadOnlyList<string> Doubts
)
{
    private const double ElsewhereLikely = 0.6;
    private const double Speaks = 0.12;

    /// <summary>A finding goes with a cause when it is there this often: the words “usually” and “always”.</summary>
    private const double GoesWith = 0.7;

    private const double Sure = 0.9;

    /// <summary>How likely a cause has to be for its bad part, on the bench already, to be put right at once.</summary>
    private const double InHandLeast = 0.3;
    private const double PointsTo = 0.6;

    /// <summary>Share of the expected time a check must save when one cause is as good as certain.</summary>
    private const double WorthWhenSure = 0.05;
    private const double Unlikely = 0.005;
    private const int CausesShown = 14;

    /// <summary>A look costs no more than this, and tells at least this many bits. Own judgement.</summary>
    private const double LookMinutes = 3,
        LookBits = 0.02;

    /// <summary>Checks weighed two steps ahead, and those looked at as the second of them: the best one step ahead, and the
    /// cheapest.</summary>
    private const int ChecksAhead = 8,
        CheapAhead = 6,
        ChecksThen = 6,
        CheapThen = 4;

    /// <summary>Two causes this near to each other are as likely as each other.</summary>
    private const double Alike = 0.05;

    private const string OwnerStory = "owner-story";
    private const string FuelInOil = "fuel-in-oil";

    /// <summary>A part that was found bad is not settled while a cause it goes with is this likely.</summary>
    private const double Shows = 0.3;

    /// <summary>What to look at first when it is probably not the carburetor; null when it may well be, or nothing is found yet.</summary>
    public Sentence? ElsewhereAdvice =>
        ElsewhereProbability >= ElsewhereLikely
        && Evidence.Items.Any(item => item.Present)
        && Causes.FirstOrDefault(standing => standing.Cause.Place != Place.Carburetor) is { } first
            ? Sentence.Of($"Probably not in the carburetor. Look there first: {Lower(first.Cause.Label)}.")
            : null;

    /// <summary>Works out a trace.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    /// <param name="kind">The carburetor.</param>
    /// <param name="shop">What the shop's time costs.</param>
    /// <param name="history">The shop's history, or <see cref="FaultHistory.None"/>.</param>
    /// <param name="evidence">Everything known.</param>
    public static Trace Of(FaultKnowledge knowledge, CarburetorKind kind, TraceDefaults shop, FaultHistory history, Evidence evidence)
    {
        var faults = new FaultCase(knowledge, kind, history, evidence.Settled, evidence.InVain);
        var observations = evidence.Observations(faults);
        var posterior = faults.Network.Infer(observations);
        var (plan, checks, savedByKnowing) = Value(faults, new RepairCosts(faults, shop), posterior, evidence);
        var elsewhere = Elsewhere(faults, posterior);
        var causes = Standing(faults, posterior, observations, evidence, history);
        return new Trace(
            kind,
            evidence,
            causes,
            StepFinder.Find(faults, evidence, causes, plan, checks, savedByKnowing, elsewhere, shop),
            checks,
            plan.Minutes,
            posterior.NoneProbability,
            posterior.SeveralProbability,
            elsewhere,
            history,
            [
                .. evidence
                    .Offered.Where(offered => faults.CauseAt(offered.CauseId) >= 0)
                    .Select(offered => Tested(offered, faults, posterior, evidence, checks)),
            ],
            [.. knowledge.Contradictions.Where(one => one.Holds(evidence)).Select(one => one.Words).Distinct()]
        );
    }

    /// <summary>Causes that are as good as certain by what is known, most likely first, without the next step.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    /// <param name="kind">The carburetor.</param>
    /// <param name="history">The shop's history.</param>
    /// <param name="evidence">Everything known.</param>
    /// <param name="least">From which probability on.</param>
    public static IEnumerable<Cause> AsGoodAsCertain(
        FaultKnowledge knowledge,
        CarburetorKind kind,
        FaultHistory history,
        Evidence evidence,
        double least
    )
    {
        var faults = new FaultCase(knowledge, kind, history, evidence.Settled, evidence.InVain);
        var posterior = faults.Network.Infer(evidence.Observations(faults));
        return Enumerable
            .Range(0, faults.Causes.Count)
            .Where(cause => posterior.CauseProbability[cause] >= least)
            .OrderByDescending(cause => posterior.CauseProbability[cause])
            .Select(cause => faults.Causes[cause]);
    }

    /// <summary>What somebody says is wrong: how likely it is by what is known, and the cheapest check that would tell.</summary>
    private static Hypothesis Tested(
        OfferedCause offered,
        FaultCase faults,
        Posterior posterior,
        Evidence evidence,
        IReadOnlyList<CheckValue> checks
    )
    {
        var cause = faults.CauseAt(offered.CauseId);
        var tells = checks
            .Where(value =>
                value.Check.Reveals.Any(id =>
                    faults.FindingAt(id) is >= 0 and var finding
                    && faults.Strengths[finding][cause] >= GoesWith
                    && evidence.Items.All(item => item.FindingId != id || item.BeforeFix)
                )
            )
            .MinBy(value => value.Minutes);
        return new Hypothesis(
            offered.CauseId,
            faults.Causes[cause].Label,
            offered.By,
            posterior.CauseProbability[cause],
            evidence.Found.Any(fault => fault.CauseId == offered.CauseId) ? HypothesisState.Found
                : evidence.RuledOut.Contains(offered.CauseId) ? HypothesisState.RuledOut
                : HypothesisState.Open,
            tells?.Check.Id
        );
    }

    /// <summary>Ranking and next check without the explanations: what the benchmark times.</summary>
    public static (Posterior Posterior, RepairPlan Plan, IReadOnlyList<CheckValue> Checks) Rank(
        FaultCase faults,
        TraceDefaults shop,
        Evidence evidence
    )
    {
        var posterior = faults.Network.Infer(evidence.Observations(faults));
        var (plan, checks, _) = Value(faults, new RepairCosts(faults, shop), posterior, evidence);
        return (posterior, plan, checks);
    }

    private static (RepairPlan Plan, IReadOnlyList<CheckValue> Checks, double SavedByKnowing) Value(
        FaultCase faults,
        RepairCosts costs,
        Posterior posterior,
        Evidence evidence
    )
    {
        var valuer = new CheckValuer(faults, costs, posterior, Relevant(faults, evidence));
        var known = evidence.Known(faults);
        var needs = faults
            .Knowledge.Needs.Where(need => need.Id != Need.Oil)
            .Select(need => (Need: need, State: evidence.StateOf(need, faults.Kind, faults.Knowledge)))
            .ToList();
        var checks = faults
            .Checks.Where(check => !evidence.DoneChecks.Contains(check.Id) && !check.NotWith.Any(evidence.IsThere))
            // What cannot be done as things stand is not advised.
            .Where(check => !needs.Any(one => one.State == NeedState.RuledOut && one.Need.IsFor(check)))
            .Select(check => valuer.Value(check, evidence.Apart, known))
            .OfType<CheckValue>()
            .OrderBy(value => value.ExpectedMinutes)
            .ThenBy(value => value.Minutes)
            .ToList();
        var then = checks
            .Take(ChecksThen)
            .Concat(checks.OrderBy(value => value.Minutes).Take(CheapThen))
            .Select(value => value.Check)
            .Distinct()
            .ToList();
        // A look that costs a minute is weighed as far ahead as the likeliest ones.
        var ahead = checks
            .Take(ChecksAhead)
            .Concat(checks.OrderBy(value => value.Minutes).Take(CheapAhead))
            .Select(value => value.Check)
            .ToHashSet();
        checks = checks
            .Select(value =>
                ahead.Contains(value.Check)
                    ? value with
                    {
                        ExpectedMinutes = Math.Min(value.ExpectedMinutes, valuer.ExpectedTwoAhead(value, evidence.Apart, known, then)),
                    }
                    : value
            )
            .Select(value =>
                After(
                    value,
                    needs
                        .FirstOrDefault(one =>
                            one.State == NeedState.Unknown && one.Need.IsFor(value.Check) && one.Need.AskedBy != value.Check.Id
                        )
                        .Need,
                    faults
                )
            )
            .Select(value => value.With(evidence.Safety, faults.Knowledge))
            .OrderBy(value => value.ExpectedMinutes)
            .ThenBy(value => value.Minutes)
            .ToList();
        return (valuer.PlanFixFirst(evidence.Apart, known, then), checks, valuer.SavedByKnowing(evidence.Apart));
    }

    /// <summary>A check with what has to be asked before it, whose minutes it then costs as well.</summary>
    private static CheckValue After(CheckValue value, Need? need, FaultCase faults) =>
        need?.AskedBy is { } id && faults.Knowledge.FindCheck(id) is { } first
            ? value with
            {
                Minutes = value.Minutes + first.Minutes,
                ExpectedMinutes = value.ExpectedMinutes + first.Minutes,
                Before = first,
                BeforeWords = need.Words,
            }
            : value;

    /// <summary>
    /// Causes a repair has to reckon with, a bit each: those that may bring about the trouble that is there, and those
    /// that a part found bad points to. A silent fault elsewhere would neither be missed nor found by mending this.
    /// </summary>
    private static ulong Relevant(FaultCase faults, Evidence evidence)
    {
        var relevant = 0UL;
        foreach (var item in evidence.Items.Where(item => item.Present && !item.BeforeFix))
        {
            var finding = faults.FindingAt(item.FindingId);
            var least = faults.Findings[finding].Role switch
            {
                FindingRole.Trouble => 0.01,
                FindingRole.Part => PointsTo,
                FindingRole.Context => 1,
            };
            for (var cause = 0; cause < faults.Causes.Count; cause++)
            {
                relevant |= faults.Strengths[finding][cause] >= least ? 1UL << cause : 0;
            }
        }

        return relevant == 0 ? ulong.MaxValue : relevant;
    }

    /// <summary>Given that something in the table is wrong, the probability that none of it is in the carburetor.</summary>
    private static double Elsewhere(FaultCase faults, Posterior posterior)
    {
        var inside = 0UL;
        for (var cause = 0; cause < faults.Causes.Count; cause++)
        {
            inside |= faults.Causes[cause].Place == Place.Carburetor ? 1UL << cause : 0;
        }

        var outside = 0.0;
        for (var s = 0; s < posterior.Sets.Length; s++)
        {
            outside += posterior.Sets[s] != 0 && (posterior.Sets[s] & inside) == 0 ? posterior.Weights[s] : 0;
        }

        return posterior.NoneProbability >= 1 ? 0 : outside / (1 - posterior.NoneProbability);
    }

    private static List<CauseStanding> Standing(
        FaultCase faults,
        Posterior posterior,
        IReadOnlyList<Observation> observations,
        Evidence evidence,
        FaultHistory history
    )
    {
        var changes = faults.Network.Explain(observations);
        return
        [
            .. Enumerable
                .Range(0, faults.Causes.Count)
                .Where(cause => posterior.CauseProbability[cause] >= Unlikely)
                .OrderByDescending(cause => posterior.CauseProbability[cause])
                .Take(CausesShown)
                .Select(cause =>
                {
                    var weighings = evidence
                        .Speaking.Select(
                            (item, o) =>
                                new Weighing(
                                    item.FindingId,
                                    faults.Findings[faults.FindingAt(item.FindingId)].Short,
                                    item.Present,
                                    changes[cause][o]
                                )
                        )
                        .Where(weighing => Math.Abs(weighing.LogOdds) >= Speaks)
                        .OrderByDescending(weighing => Math.Abs(weighing.LogOdds))
                        .ToList();
                    return new CauseStanding(
                        faults.Causes[cause],
                        posterior.CauseProbability[cause],
                        Reason(weighings),
                        weighings,
                        faults.ExpertPrior[cause],
                        faults.Prior[cause],
                        history.Confirmed(faults.Causes[cause].Id)
                    );
                }),
        ];
    }

    private static Sentence Reason(List<Weighing> weighings)
    {
        static string Words(IEnumerable<Weighing> some) =>
            string.Join("; ", some.Select(weighing => (weighing.Present ? "" : "not ") + Lower(weighing.Label)));
        var (speaking, against) = (
            weighings.Where(w => w.LogOdds > 0).Take(3).ToList(),
            weighings.Where(w => w.LogOdds < 0).Take(2).ToList()
        );
        return Sentence.Of(
            (speaking.Count, against.Count) switch
            {
                (0, 0) => "Nothing found so far speaks for it or against it.",
                (0, _) => $"Against it: {Words(against)}.",
                (_, 0) => $"For it: {Words(speaking)}.",
                _ => $"For it: {Words(speaking)}. Against it: {Words(against)}.",
            }
        );
    }

    internal static string Lower(string label) =>
        label.Length > 1 && char.IsUpper(label[1]) ? label : char.ToLowerInvariant(label[0]) + label[1..];

    /// <summary>Which step is next, and why.</summary>
    private static class StepFinder
    {
        public static TraceStep Find(
            FaultCase faults,
            Evidence evidence,
            IReadOnlyList<CauseStanding> causes,
            RepairPlan plan,
            IReadOnlyList<CheckValue> checks,
            double savedByKnowing,
            double elsewhere,
            TraceDefaults shop
        )
        {
            if (evidence.NothingFound)
            {
                return Plain(
                    StepKind.Done,
                    "Closed without a cause.",
                    "Clean and renew as usual; the report says that no cause was found."
                );
            }

            if (InHand(faults, evidence, causes) is { } inHand)
            {
                return Fix(inHand.Cause, inHand.Probability, evidence, faults, elsewhere, shop, causes) with
                {
                    Why = Sentence.Of(
                        inHand.Cause.Apart == ApartLevel.Together
                            ? "It was seen, and it is nearly always the fault: put it right before anything else."
                            : "It is in your hand and it is bad: put it right before anything goes back together."
                    ),
                };
            }

            if (Again(faults, evidence, shop) is { } again)
            {
                return again;
            }

            if (
                evidence.Found.Count > 0
                && evidence.Recheck.Count == 0
                && !evidence.Items.Any(item => item.Present && !item.BeforeFix && IsOpen(item, faults, evidence, causes))
            )
            {
                return Plain(
                    StepKind.Done,
                    "Nothing is left unexplained.",
                    $"Found: {string.Join("; ", evidence.Found.Select(fault => Lower(fault.Label)))}."
                );
            }

            if (!evidence.Items.Any(item => item.Present) && checks.FirstOrDefault(value => value.Check.Id == OwnerStory) is { } story)
            {
                return Of(
                    story,
                    faults,
                    evidence,
                    new RepairCosts(faults, shop),
                    Sentence.Of("Nothing speaks for any cause yet; the story costs least.")
                );
            }

            var likely = plan.First < 0 ? null : causes.FirstOrDefault(cause => cause.Cause == faults.Causes[plan.First]);
            var least = likely?.Probability >= Sure ? plan.Minutes * WorthWhenSure : 0;
            var best = checks.Count > 0 && checks[0].ExpectedMinutes < plan.Minutes - least ? checks[0] : null;
            if (best is not null)
            {
                return Of(
                    best,
                    faults,
                    evidence,
                    new RepairCosts(faults, shop),
                    Math.Round(plan.Minutes - best.ExpectedMinutes) is >= 1 and var saved
                        ? Sentence.Of("Saves about {0} on the way to a fix.", Quantity.Min(saved))
                        : Sentence.Of("Tells what to mend for next to nothing.")
                );
            }

            if (plan.First < 0 && BeforeGivingUp(checks, savedByKnowing) is { } look)
            {
                return Of(
                    look,
                    faults,
                    evidence,
                    new RepairCosts(faults, shop),
                    Sentence.Of(
                        "Before it is sent on: this tells most for its time. To know the cause would save {0} on average.",
                        Quantity.Min(Math.Round(savedByKnowing))
                    )
                );
            }

            if (plan.First < 0 && evidence.Recheck.Count > 0 && Forbidden(faults, evidence) is { } forbidden)
            {
                return new TraceStep(
                    StepKind.Recheck,
                    null,
                    null,
                    Sentence.Of($"Before it runs again: {Lower(forbidden.Need.Words)}. Put that right, then say how it is."),
                    Sentence.Of("What has been put right cannot be tried before."),
                    shop.ProofMinutes,
                    forbidden.There,
                    [],
                    null,
                    null,
                    Caution.Strip,
                    []
                );
            }

            if (plan.First < 0)
            {
                return new TraceStep(
                    StepKind.Refer,
                    null,
                    null,
                    Sentence.Of("Send it on, or clean and renew blind: no check or fix pays."),
                    Sentence.Of("Every check and fix that is left takes longer than sending it on, {0}.", Quantity.Min(shop.ReferMinutes)),
                    0,
                    [],
                    [],
                    null,
                    null,
                    null,
                    []
                );
            }

            var first = faults.Causes[plan.First];
            if (first.PartsMoney > 0 && (likely?.Probability ?? 0) < Sure && Cheaper(first, faults, checks, shop) is { } rulingOut)
            {
                return Of(
                    rulingOut,
                    faults,
                    evidence,
                    new RepairCosts(faults, shop),
                    Sentence.Of($"Before a part is bought for “{Lower(first.Label)}”: this could rule it out for less.")
                );
            }

            return Unmet(first, faults, evidence) is { } unmet
                ? unmet.Need.AskedBy is { } asks && unmet.State == NeedState.Unknown && faults.Knowledge.FindCheck(asks) is { } asked
                    ? Before(asked, unmet.Need.Words, faults, evidence, new RepairCosts(faults, shop))
                    : Fix(first, likely?.Probability ?? 0, evidence, faults, elsewhere, shop, causes) with
                    {
                        FirstWords = unmet.Need.Words,
                    }
                : Fix(first, likely?.Probability ?? 0, evidence, faults, elsewhere, shop, causes);
        }

        /// <summary>
        /// The check to do before giving up, or null. No one check or fix pays by the sums, which look two steps ahead: several
        /// together may. The check that tells most a minute is done while knowing what is wrong would save more than it takes, a bit
        /// of it counted as knowing it; after it whatever look of a minute or two still tells something.
        /// </summary>
        private static CheckValue? BeforeGivingUp(IReadOnlyList<CheckValue> checks, double savedByKnowing)
        {
            var telling = checks.Where(value => value.InformationBits >= LookBits).ToList();
            return
                telling.MaxBy(value => value.InformationBits / value.Minutes) is { } best
                && savedByKnowing * best.InformationBits > best.Minutes
                ? best
                : telling.Where(value => value.Minutes <= LookMinutes).MaxBy(value => value.InformationBits / value.Minutes);
        }

        /// <summary>What forbids a run, with the findings that say so; null when nothing does.</summary>
        private static (Need Need, IReadOnlyList<string> There)? Forbidden(FaultCase faults, Evidence evidence) =>
            faults
                .Knowledge.Needs.Where(need => need.Id != Need.Oil && need.For.Contains(Need.Running))
                .Select(need => ((Need, IReadOnlyList<string> There)?)(need, [.. need.RuledOutBy.Where(evidence.IsThere)]))
                .FirstOrDefault(one => one!.Value.There.Count > 0);

        /// <summary>What a fix needs and what is not so, or not known; null when nothing is in its way.</summary>
        private static (Need Need, NeedState State)? Unmet(Cause cause, FaultCase faults, Evidence evidence) =>
            !faults.Knowledge.FixOf(cause.Id).Running
                ? null
                : faults
                    .Knowledge.Needs.Where(need => need.For.Contains(Need.Running))
                    .Select(need => (Need: need, State: evidence.StateOf(need, faults.Kind, faults.Knowledge)))
                    .Where(one => one.State != NeedState.Met)
                    .OrderBy(one => one.State == NeedState.RuledOut ? 0 : 1)
                    .Select(one => ((Need, NeedState)?)one)
                    .FirstOrDefault();

        /// <summary>Whether a finding still wants something done: trouble, or a part that is bad, of which some cause may still be
        /// there.</summary>
        private static bool IsOpen(EvidenceItem item, FaultCase faults, Evidence evidence, IReadOnlyList<CauseStanding> causes)
        {
            var finding = faults.FindingAt(item.FindingId);
            return faults.Findings[finding].Role switch
            {
                // What was sent on or left explains what it brings about.
                FindingRole.Trouble => !evidence.IsExplainedByWhatStays(item.FindingId, faults.Knowledge),
                FindingRole.Part => causes.Any(standing =>
                    standing.Probability >= Shows && faults.Strengths[finding][faults.CauseAt(standing.Cause.Id)] >= GoesWith
                ),
                FindingRole.Context => false,
            };
        }

        /// <summary>A part that was seen bad and can be reached as far apart as it is; null when there is none.</summary>
        private static CauseStanding? InHand(FaultCase faults, Evidence evidence, IReadOnlyList<CauseStanding> causes) =>
            evidence
                .Items.Where(item => item is { Present: true, BeforeFix: false, Doubtful: false, From: not EvidenceFrom.Owner })
                .Select(item =>
                    faults.Knowledge.Decisive.TryGetValue(item.FindingId, out var id)
                        ? (Ids: [id], Least: Sure)
                        : (Ids: SeenIn(item, faults), Least: InHandLeast)
                )
                .Select(seen =>
                    causes.FirstOrDefault(standing => standing.Probability >= seen.Least && seen.Ids.Contains(standing.Cause.Id))
                )
                .FirstOrDefault(standing => standing is { Cause.Refer: false } && standing.Cause.Apart <= evidence.Apart);

        /// <summary>Causes that a part found bad goes with, of a carburetor that is apart: the part is on the bench.</summary>
        private static IReadOnlyList<string> SeenIn(EvidenceItem item, FaultCase faults)
        {
            var finding = faults.FindingAt(item.FindingId);
            return faults.Findings[finding].Role != FindingRole.Part
                ? []
                :
                [
                    .. Enumerable
                        .Range(0, faults.Causes.Count)
                        .Where(cause => faults.Causes[cause].Apart > ApartLevel.Together && faults.Strengths[finding][cause] >= GoesWith)
                        .Select(cause => faults.Causes[cause].Id),
                ];
        }

        /// <summary>After a fix: first what can be seen with the engine standing, then the run, when nothing forbids it; null when
        /// nothing is to be tried again.</summary>
        private static TraceStep? Again(FaultCase faults, Evidence evidence, TraceDefaults shop)
        {
            if (evidence.Recheck.Count == 0)
            {
                return null;
            }

            var why = Sentence.Of("What has been put right explains part of what was found; only what is still there counts from here.");
            var running = faults.Knowledge.Needs.Where(need => need.Id != Need.Oil && need.For.Contains(Need.Running)).ToList();
            var standing = evidence
                .Recheck.Where(finding => finding == FuelInOil || running.Any(need => need.RuledOutBy.Contains(finding)))
                .ToList();
            if (standing.Count > 0)
            {
                // Oil that has not been changed is as thin as before, whatever was mended, and says nothing new.
                var thin = evidence.Safety.OilThinned ? evidence.Safety.BeforeRunning : null;
                return new TraceStep(
                    StepKind.Recheck,
                    null,
                    null,
                    Sentence.Of("Together again, not run yet: look once more at what kept it from running."),
                    why,
                    shop.ProofMinutes,
                    standing,
                    [],
                    thin?.Condition,
                    thin?.Words,
                    Caution.Vapour,
                    []
                );
            }

            var states = running.Select(need => (Need: need, State: evidence.StateOf(need, faults.Kind, faults.Knowledge))).ToList();
            // What forbids a run is put right first; then it is run.
            return states.Any(one => one.State == NeedState.RuledOut) ? null
                : states.FirstOrDefault(one => one.State == NeedState.Unknown).Need is { AskedBy: { } id } need
                && faults.Knowledge.FindCheck(id) is { } first
                    ? Before(first, need.Words, faults, evidence, new RepairCosts(faults, shop))
                : new TraceStep(
                    StepKind.Recheck,
                    null,
                    null,
                    Sentence.Of("Together again and run: what is left of the trouble?"),
                    why,
                    shop.ProofMinutes,
                    evidence.Recheck,
                    [],
                    evidence.Safety.BeforeRunning?.Condition,
                    evidence.Safety.BeforeRunning?.Words,
                    Caution.Running,
                    evidence.Recheck.Contains(FailureTimeLine.DiesAfterMinutes) ? [FailureTimeLine.LineKey] : []
                );
        }

        /// <summary>A check that is done because another, or a run, needs what it asks.</summary>
        private static TraceStep Before(Check first, string words, FaultCase faults, Evidence evidence, RepairCosts costs)
        {
            var (condition, conditionWords) = evidence.Safety.Before(first, faults.Knowledge) is { } before
                ? ((SafetyCondition?)before.Condition, before.Words)
                : (null, null);
            var caution = faults.Knowledge.Cautions[first.CautionKey].Caution;
            return new TraceStep(
                StepKind.Check,
                first.Id,
                null,
                Sentence.Of($"{first.Label}."),
                Sentence.Of($"{words}, before it is run or pulled."),
                costs.Check(first, evidence.Apart).Minutes,
                [.. first.Reveals.Where(id => faults.FindingAt(id) >= 0)],
                [],
                condition,
                conditionWords,
                caution.Text.Length > 0 ? caution : null,
                faults.Knowledge.LinesOf(first.Id)
            );
        }

        /// <summary>The best check that could rule a cause out and costs less than its fix.</summary>
        private static CheckValue? Cheaper(Cause cause, FaultCase faults, IReadOnlyList<CheckValue> checks, TraceDefaults shop)
        {
            var at = faults.CauseAt(cause.Id);
            var fix = cause.FixMinutes + (cause.PartsMoney * 60 / shop.LabourPerHour);
            return checks.FirstOrDefault(value =>
                value.Minutes < fix && value.Tells.Any(tells => faults.Strengths[faults.FindingAt(tells.FindingId)][at] >= GoesWith)
            );
        }

        private static TraceStep Fix(
            Cause cause,
            double probability,
            Evidence evidence,
            FaultCase faults,
            double elsewhere,
            TraceDefaults shop,
            IReadOnlyList<CauseStanding> causes
        )
        {
            var minutes =
                cause.FixMinutes
                + new RepairCosts(faults, shop).Get(evidence.Apart, cause.Apart > evidence.Apart ? cause.Apart : evidence.Apart);
            var likelier = causes
                .Where(other => other.Cause.Id != cause.Id && other.Probability > probability + Alike)
                .MaxBy(other => other.Probability);
            var outside = elsewhere >= ElsewhereLikely && cause.Place != Place.Carburetor ? " Probably not in the carburetor." : "";
            var against = Against(cause, evidence, faults);
            var share = Quantity.Percent(Math.Round(100 * probability));
            var reason =
                against is not null
                    ? Sentence.Of(
                        $"{(likelier is null ? "Likelier than anything else" : "Quick to put right")} ({{0}}), but {Lower(against.Label)} "
                            + $"goes with it as a rule, and was not found. Look again before anything is put right.{outside}",
                        share
                    )
                : probability >= Sure ? Sentence.Of($"As good as certain ({{0}}); no check would change that.{outside}", share)
                : likelier is not null
                    ? Sentence.Of(
                        $"Quick to put right, and so first ({{0}}); likelier is {Lower(likelier.Cause.Label)} ({{1}}).{outside}",
                        share,
                        Quantity.Percent(Math.Round(100 * likelier.Probability))
                    )
                : Sentence.Of($"Likely enough ({{0}}): putting it right costs less than any check that would tell more.{outside}", share);
            return new TraceStep(
                cause.Refer ? StepKind.Refer : StepKind.Fix,
                null,
                cause.Id,
                Sentence.Of(cause.Refer ? $"Not this bench’s work: {Lower(cause.Label)}. {cause.Fix}." : $"{cause.Label}. {cause.Fix}."),
                reason,
                minutes,
                [],
                [],
                null,
                null,
                faults.Knowledge.FixOf(cause.Id).Caution,
                []
            );
        }

        /// <summary>A finding that goes with the cause nearly always, and was looked at and is not there; null when nothing contradicts
        /// it.</summary>
        private static Finding? Against(Cause cause, Evidence evidence, FaultCase faults) =>
            evidence
                .Speaking.Where(item => !item.Present && !item.BeforeFix && !item.Doubtful)
                .Select(item => faults.FindingAt(item.FindingId))
                .Where(finding => faults.Strengths[finding][faults.CauseAt(cause.Id)] >= GoesWith)
                .Select(finding => faults.Findings[finding])
                .FirstOrDefault();

        private static TraceStep Of(CheckValue value, FaultCase faults, Evidence evidence, RepairCosts costs, Sentence why)
        {
            if (value is { Before: { } first, BeforeWords: { } words })
            {
                return Before(first, words, faults, evidence, costs);
            }

            var check = value.Check;
            var known = evidence.Known(faults);
            return new TraceStep(
                StepKind.Check,
                check.Id,
                null,
                Sentence.Of($"{check.Label}."),
                why,
                value.Minutes,
                [.. check.Reveals.Where(id => faults.FindingAt(id) is >= 0 and var finding && !known.Contains(finding))],
                value.Tells,
                value.First,
                value.FirstWords,
                value.Caution,
                faults.Knowledge.LinesOf(check.Id)
            );
        }

        private static TraceStep Plain(StepKind kind, string what, string why) =>
            new(kind, null, null, Sentence.Of(what), Sentence.Of(why), 0, [], [], null, null, null, []);
    }
}
