using System.Numerics;
using System.Runtime.Intrinsics;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Faults;

/// <summary>One answered finding as the network sees it.</summary>
/// <param name="Finding">Index of the finding.</param>
/// <param name="Present">Whether it was said to be there.</param>
/// <param name="Witness">How far whoever said so is to be believed.</param>
/// <param name="AbsentBase">
/// Probability that it is absent without any of the network's causes: one less the background, times one less the
/// strength of every cause that was there at the time and has been put right since.
/// </param>
public readonly record struct Observation(int Finding, bool Present, Witness Witness, double AbsentBase);

/// <summary>
/// A two-layer noisy-OR network: causes above, findings below, and a finding is absent only when its background and
/// every cause that is there each fail to bring it about, P(absent) = (1 − background)·Π(1 − w). The posterior is exact
/// over all sets of up to a few causes at once.
/// </summary>
/// <remarks>
/// Sources: Pearl, Probabilistic Reasoning in Intelligent Systems, 1988 (noisy-OR); Heckerman, A tractable inference
/// algorithm for diagnosing multiple diseases, 1989 (the two-layer network; its Quickscore is a check in the tests).
/// A finding said to be there counts seen·P(present) + false alarm·P(absent) (virtual evidence, Pearl 1988), which is
/// linear in P(absent); so one multiplication and one addition a finding and a set is all there is to it.
/// </remarks>
public sealed class FaultNetwork
{
    /// <summary>Most causes a network can hold: a set is one 64-bit word.</summary>
    public const int MostCauses = 64;

    /// <summary>Sets of up to this many causes are considered when nothing else is said.</summary>
    public const int UsualMostAtOnce = 3;

    private readonly double[] odds;
    private readonly double[][] spared; // by finding, by cause: 1 − w
    private readonly int mostAtOnce;

    /// <summary>A network from its numbers.</summary>
    /// <param name="priors">Prior probability of each cause, from 0 up to below 1; 0 leaves it out.</param>
    /// <param name="strengths">By finding, by cause: probability that the cause alone brings the finding about.</param>
    /// <param name="mostAtOnce">Largest number of causes at once.</param>
    /// <exception cref="ArgumentException">More than 64 causes, or a prior of 1 or more.</exception>
    public FaultNetwork(IReadOnlyList<double> priors, IReadOnlyList<IReadOnlyList<double>> strengths, int mostAtOnce = UsualMostAtOnce)
    {
        if (priors.Count > MostCauses)
        {
            throw new ArgumentException($"At most {MostCauses} causes.", nameof(priors));
        }

        if (priors.Any(prior => prior is < 0 or >= 1 || double.IsNaN(prior)))
        {
            throw new ArgumentException("A prior is from 0 up to below 1.", nameof(priors));
        }

        odds = [.. priors.Select(prior => prior / (1 - prior))];
        spared = [.. strengths.Select(row => row.Select(w => 1 - w).ToArray())];
        this.mostAtOnce = mostAtOnce;
    }

    /// <summary>Number of causes.</summary>
    public int Causes => odds.Length;

    /// <summary>One less the strength: how a cause spares a finding.</summary>
    public double Spared(int finding, int cause) => spared[finding][cause];

    /// <summary>Probability that a finding is absent when exactly these causes are there.</summary>
    /// <param name="finding">The finding.</param>
    /// <param name="set">The causes, a bit each.</param>
    /// <param name="absentBase">Probability that it is absent without any of them.</param>
    public double Absent(int finding, ulong set, double absentBase)
    {
        var row = spared[finding];
        for (var rest = set; rest != 0; rest &= rest - 1)
        {
            absentBase *= row[BitOperations.TrailingZeroCount(rest)];
        }

        return absentBase;
    }

    /// <summary>The posterior over every set of causes, given what was answered.</summary>
    public Posterior Infer(IReadOnlyList<Observation> observations)
    {
        var walk = new Walk(this, observations);
        walk.Run();
        return new Posterior(Causes, walk.Sets, walk.Weights);
    }

    /// <summary>
    /// For each cause and each answered finding, what the finding adds to the cause's log-odds: with all findings, less
    /// with all but this one. Natural logarithm; by cause, then by observation.
    /// </summary>
    public double[][] Explain(IReadOnlyList<Observation> observations)
    {
        var posterior = Infer(observations);
        var without = new double[observations.Count]; // total weight with one finding left out
        var with = new double[Causes][];
        for (var cause = 0; cause < Causes; cause++)
        {
            with[cause] = new double[observations.Count];
        }

        for (var s = 0; s < posterior.Sets.Length; s++)
        {
            var (set, weight) = (posterior.Sets[s], posterior.Weights[s]);
            for (var o = 0; o < observations.Count; o++)
            {
                var observation = observations[o];
                var left = weight / Math.Max(Likelihood(observation, Absent(observation.Finding, set, observation.AbsentBase)), 1e-12);
                without[o] += left;
                for (var rest = set; rest != 0; rest &= rest - 1)
                {
                    with[BitOperations.TrailingZeroCount(rest)][o] += left;
                }
            }
        }

        var changes = new double[Causes][];
        for (var cause = 0; cause < Causes; cause++)
        {
            changes[cause] = new double[observations.Count];
            var all = LogOdds(posterior.CauseProbability[cause]);
            for (var o = 0; o < observations.Count; o++)
            {
                changes[cause][o] = odds[cause] == 0 ? 0 : all - LogOdds(with[cause][o] / without[o]);
            }
        }

        return changes;
    }

    private static double LogOdds(double probability)
    {
        var p = Math.Clamp(probability, 1e-12, 1 - 1e-12);
        return SteadyMath.Log(p / (1 - p));
    }

    private static double Likelihood(Observation observation, double absent)
    {
        var (constant, slope) = Line(observation);
        return constant + (slope * absent);
    }

    /// <summary>The likelihood of an answer as a straight line over P(absent).</summary>
    private static (double Constant, double Slope) Line(Observation observation)
    {
        var (seen, falseAlarm) = observation.Witness;
        return observation.Present ? (seen, falseAlarm - seen) : (1 - seen, seen - falseAlarm);
    }

    /// <summary>Visits every set once, smallest causes first, carrying what each finding is spared so far.</summary>
    private sealed class Walk
    {
        private readonly FaultNetwork network;
        private readonly int lanes;
        private readonly int width; // observations, padded to whole vectors
        private readonly double[] constant; // likelihood = constant + slope × P(absent)
        private readonly double[] slope;
        private readonly double[][] rows; // by cause, by observation: 1 − w
        private readonly double[][] carried; // by depth, by observation: P(absent) with the causes so far
        private readonly int[] present; // causes with a prior above zero
        private int next;

        public Walk(FaultNetwork network, IReadOnlyList<Observation> observations)
        {
            this.network = network;
            // Four on every machine, whatever it is best at: products in another order end in other digits.
            lanes = Vector256<double>.Count;
            width = (observations.Count + lanes - 1) / lanes * lanes;
            constant = new double[width];
            slope = new double[width];
            Array.Fill(constant, 1);
            carried = [.. Enumerable.Range(0, network.mostAtOnce + 1).Select(_ => new double[width])];
            rows = new double[network.Causes][];
            for (var cause = 0; cause < network.Causes; cause++)
            {
                rows[cause] = new double[width];
            }

            for (var o = 0; o < observations.Count; o++)
            {
                var observation = observations[o];
                (constant[o], slope[o]) = Line(observation);
                carried[0][o] = observation.AbsentBase;
                for (var cause = 0; cause < network.Causes; cause++)
                {
                    rows[cause][o] = network.spared[observation.Finding][cause];
                }
            }

            present = [.. Enumerable.Range(0, network.Causes).Where(cause => network.odds[cause] > 0)];
            var count = Count(present.Length, network.mostAtOnce);
            Sets = new ulong[count];
            Weights = new double[count];
        }

        public ulong[] Sets { get; }

        public double[] Weights { get; }

        public void Run()
        {
            Add(0, Product(carried[0]));
            if (network.mostAtOnce > 0)
            {
                Visit(0, 0, 0, 1);
            }
        }

        private static int Count(int causes, int most)
        {
            long total = 1,
                ways = 1;
            for (var k = 1; k <= Math.Min(most, causes); k++)
            {
                ways = ways * (causes - k + 1) / k;
                total += ways;
            }

            return checked((int)total);
        }

        private void Add(ulong set, double weight)
        {
            Sets[next] = set;
            Weights[next++] = weight;
        }

        private void Visit(int from, int depth, ulong set, double prior)
        {
            var spared = carried[depth];
            var deeper = depth + 1 < network.mostAtOnce;
            var onward = carried[depth + 1];
            for (var i = from; i < present.Length; i++)
            {
                var cause = present[i];
                var row = rows[cause];
                var product = Vector256<double>.One;
                for (var o = 0; o < width; o += lanes)
                {
                    var absent = Vector256.Create(spared, o) * Vector256.Create(row, o);
                    product *= Vector256.Create(constant, o) + (Vector256.Create(slope, o) * absent);
                    if (deeper)
                    {
                        absent.CopyTo(onward, o);
                    }
                }

                var grown = prior * network.odds[cause];
                var with = set | (1UL << cause);
                Add(with, grown * Horizontal(product));
                if (deeper)
                {
                    Visit(i + 1, depth + 1, with, grown);
                }
            }
        }

        private double Product(double[] absent)
        {
            var product = Vector256<double>.One;
            for (var o = 0; o < width; o += lanes)
            {
                product *= Vector256.Create(constant, o) + (Vector256.Create(slope, o) * Vector256.Create(absent, o));
            }

            return Horizontal(product);
        }

        private double Horizontal(Vector256<double> product)
        {
            var value = 1.0;
            for (var lane = 0; lane < lanes; lane++)
            {
                value *= product[lane];
            }

            return value;
        }
    }
}
