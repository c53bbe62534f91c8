using System.Numerics;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Faults;

/// <summary>What one answer of a check would lead to.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="PresentProbability">How likely it is to be there.</param>
/// <param name="IfPresent">The likeliest cause when it is, or null when there would be none.</param>
/// <param name="IfPresentProbability">How likely that cause would be.</param>
/// <param name="IfAbsent">The likeliest cause when it is not, or null when there would be none.</param>
/// <param name="IfAbsentProbability">How likely that cause would be.</param>
public sealed record Tells(
    string FindingId,
    double PresentProbability,
    string? IfPresent,
    double IfPresentProbability,
    string? IfAbsent,
    double IfAbsentProbability
);

/// <summary>A check and what it is worth now.</summary>
/// <param name="Check">The check.</param>
/// <param name="Minutes">Minutes it costs from here, getting there included.</param>
/// <param name="ExpectedMinutes">Expected minutes to a fix when it is done next, its own among them.</param>
/// <param name="InformationBits">How much it tells about what is wrong, in bits; shown for comparison, not ranked by.</param>
/// <param name="Tells">Answers that tell most, the most telling first.</param>
/// <param name="First">What has to be so before it may start, or null.</param>
/// <param name="FirstWords">The same in words, or null.</param>
/// <param name="Caution">Its caution, or null.</param>
/// <param name="Before">The check that has to be done first, because what this one needs is not known; null when nothing is in its
/// way.</param>
/// <param name="BeforeWords">What has to be so, in words, or null.</param>
public sealed record CheckValue(
    Check Check,
    double Minutes,
    double ExpectedMinutes,
    double InformationBits,
    IReadOnlyList<Tells> Tells,
    SafetyCondition? First,
    string? FirstWords,
    Safety.Caution? Caution,
    Check? Before = null,
    string? BeforeWords = null
)
{
    /// <summary>The same with what has to be so first, and its caution.</summary>
    internal CheckValue With(SafetyState safety, FaultKnowledge knowledge)
    {
        var first = safety.Before(Check, knowledge);
        var caution = knowledge.Cautions[Check.CautionKey].Caution;
        return this with { First = first?.Condition, FirstWords = first?.Words, Caution = caution.Text.Length > 0 ? caution : null };
    }
}

/// <summary>Works out what each check is worth, one step ahead.</summary>
public sealed class CheckValuer
{
    /// <summary>Likeliest sets planned on: they carry nearly all of the probability.</summary>
    public const int MostSets = 72;

    private const double ShareOfSets = 0.985;

    /// <summary>Answers of one check looked at together, 2^n outcomes; the rest of its findings count as untold.</summary>
    private const int MostAnswers = 4;

    /// <summary>The same for a check that is looked at two steps ahead, and for the check that follows it.</summary>
    private const int MostAnswersAhead = 3,
        MostAnswersThen = 2;

    /// <summary>Checks looked at after a fix that has not mended it.</summary>
    private const int FollowedOn = 4;

    /// <summary>Sets that carry less of a branch than this are left out when it is looked at once more.</summary>
    private const double LeastShareThen = 2e-4;

    /// <summary>Outcomes less likely than this count as giving up: at most a quarter of a minute together.</summary>
    private const double LeastOutcome = 1e-4;

    private readonly FaultCase faults;
    private readonly RepairCosts costs;
    private readonly ulong[] sets;
    private readonly double[] weights;

    /// <summary>For a posterior: its likeliest sets.</summary>
    /// <param name="faults">The case.</param>
    /// <param name="costs">The costs.</param>
    /// <param name="posterior">How likely each set of causes is.</param>
    /// <param name="relevant">Causes a repair has to reckon with, a bit each; sets are told apart by these only.</param>
    public CheckValuer(FaultCase faults, RepairCosts costs, Posterior posterior, ulong relevant)
    {
        this.faults = faults;
        this.costs = costs;
        var (likeliest, shares) = posterior.Likeliest(MostSets, ShareOfSets);
        var merged = new Dictionary<ulong, double>();
        for (var s = 0; s < likeliest.Length; s++)
        {
            var set = likeliest[s] & relevant;
            merged[set] = merged.GetValueOrDefault(set) + shares[s];
        }

        sets = [.. merged.Keys];
        weights = [.. merged.Values];
    }

    /// <summary>For sets and probabilities that are given.</summary>
    /// <param name="faults">The case.</param>
    /// <param name="costs">The costs.</param>
    /// <param name="sets">Sets of causes, a bit each.</param>
    /// <param name="weights">Their probabilities; they add up to 1.</param>
    public CheckValuer(FaultCase faults, RepairCosts costs, ulong[] sets, double[] weights) =>
        (this.faults, this.costs, this.sets, this.weights) = (faults, costs, sets, weights);

    /// <summary>
    /// The cheapest way on that begins with a fix: the plan of fixes alone, or the first of them and, when that has not
    /// mended it, the best check then.
    /// </summary>
    /// <param name="now">How far apart it is.</param>
    /// <param name="known">Findings that were answered.</param>
    /// <param name="likely">Checks worth looking at when the fix has not mended it.</param>
    public RepairPlan PlanFixFirst(ApartLevel now, IReadOnlySet<int> known, IReadOnlyList<Check> likely)
    {
        var plan = Plan(now);
        if (plan.First < 0)
        {
            return plan;
        }

        var bit = 1UL << plan.First;
        var level = costs.Level(plan.First) > now ? costs.Level(plan.First) : now;
        var minutes = costs.Fix(plan.First) + costs.Get(now, level);
        var left = new Dictionary<ulong, double>();
        for (var s = 0; s < sets.Length; s++)
        {
            if (sets[s] != bit)
            {
                left[sets[s] & ~bit] = left.GetValueOrDefault(sets[s] & ~bit) + weights[s];
            }
        }

        var failing = left.Values.Sum();
        if (failing < LeastOutcome)
        {
            return plan with { Minutes = Math.Min(plan.Minutes, minutes) };
        }

        var after = new CheckValuer(faults, costs, [.. left.Keys], [.. left.Values.Select(weight => weight / failing)]);
        var onward = after.Plan(level).Minutes;
        foreach (var check in likely)
        {
            if (costs.Check(check, level).Minutes < onward && after.Expected(check, level, known) is { } next)
            {
                onward = Math.Min(onward, next);
            }
        }

        return plan with
        {
            Minutes = Math.Min(plan.Minutes, minutes + (failing * onward)),
        };
    }

    /// <summary>Minutes that knowing what is wrong would save against giving up, on average. Source: Howard, Information value theory,
    /// 1966 (the value of clairvoyance).</summary>
    /// <param name="now">How far apart it is.</param>
    public double SavedByKnowing(ApartLevel now)
    {
        var saved = 0.0;
        for (var s = 0; s < sets.Length; s++)
        {
            if (sets[s] != 0)
            {
                var (minutes, level) = (0.0, now);
                for (var rest = sets[s]; rest != 0; rest &= rest - 1)
                {
                    var cause = BitOperations.TrailingZeroCount(rest);
                    minutes += costs.Fix(cause);
                    level = costs.Level(cause) > level ? costs.Level(cause) : level;
                }

                saved += weights[s] * Math.Max(0, costs.ReferMinutes - minutes - costs.Get(now, level));
            }
        }

        return saved;
    }

    /// <summary>The plan without another check.</summary>
    public RepairPlan Plan(ApartLevel now) => RepairPlan.Of(costs, sets, weights, now, faults.Causes.Count);

    /// <summary>What a check is worth, or null when it tells nothing that is not known.</summary>
    /// <param name="check">The check.</param>
    /// <param name="now">How far apart it is.</param>
    /// <param name="known">Findings that were answered.</param>
    public CheckValue? Value(Check check, ApartLevel now, IReadOnlySet<int> known)
    {
        var asked = Asks(check, known);
        if (asked.Count == 0)
        {
            return null;
        }

        asked = [.. asked.Select(answer => answer with { Doubt = Doubt(answer.Present) })];
        asked.Sort((a, b) => Bits(b).CompareTo(Bits(a)));
        var told = asked.Take(MostAnswers).ToList();
        var (minutes, after) = costs.Check(check, now);
        var (expected, bits) = Outcomes(told, after);
        return new CheckValue(
            check,
            minutes,
            minutes + expected,
            bits,
            [.. told.Select(answer => TellsOf(answer.Finding, answer.Present))],
            null,
            null,
            null
        );
    }

    /// <summary>Expected minutes when a check is done and fixes follow, by its answers that split the sets most; null when it tells
    /// nothing new.</summary>
    private double? Expected(Check check, ApartLevel now, IReadOnlySet<int> known)
    {
        var asked = Asks(check, known);
        if (asked.Count == 0)
        {
            return null;
        }

        if (asked.Count > MostAnswersThen)
        {
            asked.Sort((a, b) => Spread(b.Present).CompareTo(Spread(a.Present)));
            asked.RemoveRange(MostAnswersThen, asked.Count - MostAnswersThen);
        }

        var (minutes, after) = costs.Check(check, now);
        return minutes + Outcomes(asked, after).Minutes;
    }

    /// <summary>Findings that a check would answer and that are not known, with how likely each is under each set.</summary>
    private List<Asked> Asks(Check check, IReadOnlySet<int> known)
    {
        var asked = new List<Asked>();
        foreach (var id in check.Reveals)
        {
            var finding = faults.FindingAt(id);
            if (finding >= 0 && !known.Contains(finding))
            {
                var present = new double[sets.Length];
                var absentBase = 1 - faults.Findings[finding].Background;
                for (var s = 0; s < sets.Length; s++)
                {
                    present[s] = 1 - faults.Network.Absent(finding, sets[s], absentBase);
                }

                asked.Add(new Asked(finding, present, 0));
            }
        }

        return asked;
    }

    /// <summary>How far an answer splits the sets: the variance of its probability over them. Nearly the order of the bits, without a
    /// logarithm.</summary>
    private double Spread(double[] present)
    {
        var (mean, square) = (0.0, 0.0);
        for (var s = 0; s < sets.Length; s++)
        {
            mean += weights[s] * present[s];
            square += weights[s] * present[s] * present[s];
        }

        return square - (mean * mean);
    }

    /// <summary>
    /// Expected minutes to a fix when a check is done next and, after each of its answers, whatever is best then: fixes
    /// alone, or one more check before them. A fix is weighed as far ahead by <see cref="PlanFixFirst"/>.
    /// </summary>
    /// <param name="value">The check, one step ahead.</param>
    /// <param name="now">How far apart it is.</param>
    /// <param name="known">Findings that were answered.</param>
    /// <param name="then">Checks that may follow.</param>
    public double ExpectedTwoAhead(CheckValue value, ApartLevel now, IReadOnlySet<int> known, IReadOnlyList<Check> then)
    {
        var (minutes, after) = costs.Check(value.Check, now);
        var asked = value.Tells.Take(MostAnswersAhead).Select(tells => faults.FindingAt(tells.FindingId)).ToList();
        var told = known.Concat(value.Check.Reveals.Select(faults.FindingAt)).ToHashSet();
        var expected = minutes;
        for (var outcome = 0; outcome < 1 << asked.Count; outcome++)
        {
            var branch = new double[sets.Length];
            var probability = 0.0;
            for (var s = 0; s < sets.Length; s++)
            {
                var share = weights[s];
                for (var i = 0; i < asked.Count && share > 0; i++)
                {
                    var absent = faults.Network.Absent(asked[i], sets[s], 1 - faults.Findings[asked[i]].Background);
                    share *= (outcome & (1 << i)) != 0 ? 1 - absent : absent;
                }

                probability += branch[s] = share;
            }

            if (probability < LeastOutcome)
            {
                expected += probability * costs.ReferMinutes;
                continue;
            }

            var kept = Enumerable.Range(0, sets.Length).Where(s => branch[s] >= LeastShareThen * probability).ToArray();
            var here = new CheckValuer(faults, costs, [.. kept.Select(s => sets[s])], [.. kept.Select(s => branch[s] / probability)]);
            var best = here.PlanFixFirst(after, told, then.Take(FollowedOn).ToList()).Minutes;
            foreach (var check in then.Where(check => check != value.Check))
            {
                // One that costs as much as the plan already cannot be better.
                if (costs.Check(check, after).Minutes < best && here.Expected(check, after, told) is { } next && next < best)
                {
                    best = next;
                }
            }

            expected += probability * best;
        }

        return expected;
    }

    /// <summary>Expected minutes afterwards and bits told, over every combination of answers.</summary>
    private (double Minutes, double Bits) Outcomes(List<Asked> asked, ApartLevel after)
    {
        var shares = new double[asked.Count + 1][];
        for (var depth = 0; depth <= asked.Count; depth++)
        {
            shares[depth] = depth == 0 ? weights : new double[sets.Length];
        }

        var (minutes, bits) = Split(asked, shares, 0, 1, after);

        // What the answers tell of the sets is what they leave open less what they would leave open if the set were known.
        return (minutes, Math.Max(0, bits - asked.Sum(answer => answer.Doubt)));
    }

    /// <summary>One answer after the other, present and absent; shares of a branch add up to its probability.</summary>
    private (double Minutes, double Bits) Split(List<Asked> asked, double[][] shares, int depth, double probability, ApartLevel after)
    {
        if (probability < LeastOutcome)
        {
            return (probability * costs.ReferMinutes, 0);
        }

        var here = shares[depth];
        if (depth == asked.Count)
        {
            return (
                RepairPlan.Of(costs, sets, here, after, faults.Causes.Count, probability).Minutes,
                -probability * SteadyMath.Log2(probability)
            );
        }

        var (present, onward) = (asked[depth].Present, shares[depth + 1]);
        var with = 0.0;
        for (var s = 0; s < onward.Length; s++)
        {
            with += onward[s] = here[s] * present[s];
        }

        var yes = Split(asked, shares, depth + 1, with, after);
        for (var s = 0; s < onward.Length; s++)
        {
            onward[s] = here[s] * (1 - present[s]);
        }

        var no = Split(asked, shares, depth + 1, Math.Max(0, probability - with), after);
        return (yes.Minutes + no.Minutes, yes.Bits + no.Bits);
    }

    /// <summary>A finding asked for: how likely it is under each set, and its entropy in bits if the set were known.</summary>
    private sealed record Asked(int Finding, double[] Present, double Doubt);

    private double Doubt(double[] present)
    {
        var doubt = 0.0;
        for (var s = 0; s < sets.Length; s++)
        {
            doubt += weights[s] * BinaryEntropy(present[s]);
        }

        return doubt;
    }

    private double Bits(Asked asked)
    {
        var p = 0.0;
        for (var s = 0; s < sets.Length; s++)
        {
            p += weights[s] * asked.Present[s];
        }

        return BinaryEntropy(p) - asked.Doubt;
    }

    private Tells TellsOf(int finding, double[] present)
    {
        Span<double> with = stackalloc double[FaultNetwork.MostCauses];
        Span<double> without = stackalloc double[FaultNetwork.MostCauses];
        with.Clear();
        without.Clear();
        var p = 0.0;
        for (var s = 0; s < sets.Length; s++)
        {
            p += weights[s] * present[s];
            for (var rest = sets[s]; rest != 0; rest &= rest - 1)
            {
                var cause = BitOperations.TrailingZeroCount(rest);
                with[cause] += weights[s] * present[s];
                without[cause] += weights[s] * (1 - present[s]);
            }
        }

        var (yes, no) = (Largest(with), Largest(without));
        return new Tells(
            faults.Findings[finding].Id,
            p,
            yes < 0 ? null : faults.Causes[yes].Id,
            yes < 0 || p <= 0 ? 0 : with[yes] / p,
            no < 0 ? null : faults.Causes[no].Id,
            no < 0 || p >= 1 ? 0 : without[no] / (1 - p)
        );
    }

    private static int Largest(ReadOnlySpan<double> values)
    {
        var best = -1;
        for (var i = 0; i < values.Length; i++)
        {
            if (values[i] > 0 && (best < 0 || values[i] > values[best]))
            {
                best = i;
            }
        }

        return best;
    }

    private static double BinaryEntropy(double p) => p is <= 0 or >= 1 ? 0 : -(p * SteadyMath.Log2(p)) - ((1 - p) * SteadyMath.Log2(1 - p));
}
