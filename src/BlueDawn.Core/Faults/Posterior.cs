using System.Numerics;

namespace BlueDawn.Core.Faults;

/// <summary>How likely each set of causes is.</summary>
public sealed class Posterior
{
    /// <summary>A posterior from weights that need not add up to one.</summary>
    /// <param name="causes">Number of causes.</param>
    /// <param name="sets">The sets, a bit a cause; each once, the empty one among them.</param>
    /// <param name="weights">Their weights, 0 or more, not all 0.</param>
    public Posterior(int causes, ulong[] sets, double[] weights)
    {
        Sets = sets;
        Weights = weights;
        CauseProbability = new double[causes];
        var total = weights.Sum();
        for (var s = 0; s < sets.Length; s++)
        {
            var weight = weights[s] /= total;
            switch (BitOperations.PopCount(sets[s]))
            {
                case 0:
                    NoneProbability += weight;
                    break;
                case > 1:
                    SeveralProbability += weight;
                    break;
            }

            for (var rest = sets[s]; rest != 0; rest &= rest - 1)
            {
                CauseProbability[BitOperations.TrailingZeroCount(rest)] += weight;
            }
        }
    }

    /// <summary>The sets of causes, a bit a cause.</summary>
    public ulong[] Sets { get; }

    /// <summary>Their probabilities; they add up to 1.</summary>
    public double[] Weights { get; }

    /// <summary>Probability of each cause being there, alone or with others.</summary>
    public double[] CauseProbability { get; }

    /// <summary>Probability that none of the causes is there: what was found has a reason outside the table.</summary>
    public double NoneProbability { get; }

    /// <summary>Probability that more than one cause is there.</summary>
    public double SeveralProbability { get; }

    /// <summary>The most likely sets alone, their probabilities made to add up to 1 again: enough to plan on.</summary>
    /// <param name="most">How many at most.</param>
    /// <param name="share">Probability after which it is enough.</param>
    public (ulong[] Sets, double[] Weights) Likeliest(int most, double share)
    {
        // Most sets weigh next to nothing: what is below this can be among the likeliest only when too few are above.
        var floor = (1 - share) / Sets.Length;
        var above = new List<int>();
        for (var s = 0; s < Weights.Length; s++)
        {
            if (Weights[s] >= floor)
            {
                above.Add(s);
            }
        }

        above.Sort((a, b) => Weights[b].CompareTo(Weights[a]));
        var (count, sum) = (0, 0.0);
        while (count < above.Count && count < most && sum < share)
        {
            sum += Weights[above[count++]];
        }

        var sets = new ulong[count];
        var weights = new double[count];
        for (var i = 0; i < count; i++)
        {
            (sets[i], weights[i]) = (Sets[above[i]], Weights[above[i]] / sum);
        }

        return (sets, weights);
    }
}
