using System.Numerics;

namespace BlueDawn.Core.Faults;

/// <summary>
/// The cheapest order to try fixes in without another check, and what it costs on average: causes by probability over
/// cost, each proven before the next, given up where going on costs more than sending it on.
/// </summary>
/// <remarks>
/// Source: Heckerman, Breese, Rommelse, Decision-theoretic troubleshooting, 1995 (expected cost of repair; the order by
/// probability over cost). Several causes at once are counted as sets: a set is mended when its last cause is.
/// Getting to a level is paid once; proving between fixes does not put it together again, a simplification.
/// </remarks>
/// <param name="Minutes">Expected minutes until it is mended or sent on.</param>
/// <param name="First">The cause to put right first; -1 when sending it on at once is cheaper.</param>
public readonly record struct RepairPlan(double Minutes, int First)
{
    private const int MostTried = 24;
    private const double LeastProbability = 0.004;
    private const double Negligible = 1e-4;

    /// <summary>The plan for these sets and probabilities.</summary>
    /// <param name="costs">The costs.</param>
    /// <param name="sets">Sets of causes, a bit each.</param>
    /// <param name="weights">Their probabilities; they add up to <paramref name="total"/>.</param>
    /// <param name="now">How far apart it is.</param>
    /// <param name="causes">Number of causes.</param>
    /// <param name="total">Probability of being here at all; the minutes are those of this branch, by its probability.</param>
    public static RepairPlan Of(
        RepairCosts costs,
        ReadOnlySpan<ulong> sets,
        ReadOnlySpan<double> weights,
        ApartLevel now,
        int causes,
        double total = 1
    )
    {
        Span<double> probability = stackalloc double[FaultNetwork.MostCauses];
        probability.Clear();
        for (var s = 0; s < sets.Length; s++)
        {
            if (weights[s] < Negligible * total)
            {
                continue;
            }

            for (var rest = sets[s]; rest != 0; rest &= rest - 1)
            {
                probability[BitOperations.TrailingZeroCount(rest)] += weights[s];
            }
        }

        Span<double> ratio = stackalloc double[FaultNetwork.MostCauses];
        Span<int> order = stackalloc int[FaultNetwork.MostCauses];
        var count = 0;
        for (var cause = 0; cause < causes; cause++)
        {
            if (probability[cause] >= LeastProbability * total)
            {
                ratio[count] = -probability[cause] / (costs.Fix(cause) + costs.Get(now, Deeper(now, costs.Level(cause))));
                order[count++] = cause;
            }
        }

        ratio[..count].Sort(order[..count]);
        count = Math.Min(count, MostTried);

        Span<double> cumulative = stackalloc double[MostTried];
        Span<double> mended = stackalloc double[MostTried];
        mended.Clear();
        Span<sbyte> place = stackalloc sbyte[FaultNetwork.MostCauses];
        place.Fill(-1);
        var (sum, level) = (0.0, now);
        for (var i = 0; i < count; i++)
        {
            var cause = order[i];
            var needs = Deeper(level, costs.Level(cause));
            sum += costs.Fix(cause) + costs.Get(level, needs);
            level = needs;
            cumulative[i] = sum;
            place[cause] = (sbyte)i;
        }

        for (var s = 0; s < sets.Length; s++)
        {
            if (weights[s] < Negligible * total)
            {
                continue;
            }

            var last = sets[s] == 0 ? -1 : 0;
            for (var rest = sets[s]; rest != 0 && last >= 0; rest &= rest - 1)
            {
                var at = place[BitOperations.TrailingZeroCount(rest)];
                last = at < 0 ? -1 : Math.Max(last, (int)at);
            }

            if (last >= 0)
            {
                mended[last] += weights[s];
            }
        }

        var best = new RepairPlan(total * costs.ReferMinutes, -1);
        var (paid, left) = (0.0, total);
        for (var i = 0; i < count; i++)
        {
            paid += mended[i] * cumulative[i];
            left -= mended[i];
            var minutes = paid + (Math.Max(left, 0) * (cumulative[i] + costs.ReferMinutes));
            if (minutes < best.Minutes)
            {
                best = new RepairPlan(minutes, order[0]);
            }
        }

        return best;
    }

    private static ApartLevel Deeper(ApartLevel a, ApartLevel b) => a > b ? a : b;
}
