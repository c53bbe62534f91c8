using BlueDawn.Core.Faults;
using CsCheck;

namespace BlueDawn.Core.Tests.Faults;

public class FaultNetworkTests
{
    private sealed record Small(double[] Priors, double[] Backgrounds, double[][] Strengths)
    {
        /// <summary>Someone who sees as much as this, and raises a false alarm a third as often as they overlook.</summary>
        private static Witness By(double seen) => new(seen, (1 - seen) / 3);

        public FaultNetwork Network(int most) => new(Priors, Strengths, most);

        public List<Observation> Observe(IEnumerable<(int Finding, bool Present, double Seen)> answers) =>
            [.. answers.Select(a => new Observation(a.Finding, a.Present, By(a.Seen), 1 - Backgrounds[a.Finding]))];
    }

    private static readonly Gen<Small> AnySmall =
        from causes in Gen.Int[1, 6]
        from findings in Gen.Int[1, 5]
        from priors in Gen.Double[0.01, 0.6].Array[causes]
        from backgrounds in Gen.Double[0.01, 0.4].Array[findings]
        from strengths in Gen.OneOf(Gen.Const(0.0), Gen.Double[0.05, 0.95]).Array[causes].Array[findings]
        select new Small(priors, backgrounds, strengths);

    private static Gen<(int Finding, bool Present, double Seen)[]> Answers(int findings) =>
        Gen.Select(Gen.Int[0, findings - 1], Gen.Bool, Gen.OneOf(Gen.Const(1.0), Gen.Double[0.6, 0.99])).Array[0, 6];

    /// <summary>The definition itself: every set of causes, its prior, and the noisy-OR of every finding.</summary>
    private static (double[] Cause, double None, double Several) BruteForce(Small small, List<Observation> observations, int most)
    {
        var cause = new double[small.Priors.Length];
        var (total, none, several) = (0.0, 0.0, 0.0);
        for (var set = 0; set < 1 << small.Priors.Length; set++)
        {
            var there = Enumerable.Range(0, small.Priors.Length).Where(c => (set >> c & 1) == 1).ToList();
            if (there.Count > most)
            {
                continue;
            }

            var weight = Enumerable
                .Range(0, small.Priors.Length)
                .Aggregate(1.0, (w, c) => w * (there.Contains(c) ? small.Priors[c] : 1 - small.Priors[c]));
            foreach (var o in observations)
            {
                var present = 1 - there.Aggregate(o.AbsentBase, (absent, c) => absent * (1 - small.Strengths[o.Finding][c]));
                weight *= o.Present
                    ? (o.Witness.Seen * present) + (o.Witness.FalseAlarm * (1 - present))
                    : ((1 - o.Witness.Seen) * present) + ((1 - o.Witness.FalseAlarm) * (1 - present));
            }

            total += weight;
            none += there.Count == 0 ? weight : 0;
            several += there.Count > 1 ? weight : 0;
            there.ForEach(c => cause[c] += weight);
        }

        return ([.. cause.Select(c => c / total)], none / total, several / total);
    }

    [Fact]
    public void The_posterior_is_that_of_counting_every_set() =>
        (
            from small in AnySmall
            from answers in Answers(small.Backgrounds.Length)
            from most in Gen.Int[1, 6]
            select (small, answers, most)
        ).Sample(t =>
        {
            var observations = t.small.Observe(t.answers);
            var (cause, none, several) = BruteForce(t.small, observations, t.most);
            if (double.IsNaN(none))
            {
                return; // impossible by the hard answers given
            }

            var posterior = t.small.Network(t.most).Infer(observations);
            for (var c = 0; c < cause.Length; c++)
            {
                Assert.Equal(cause[c], posterior.CauseProbability[c], tolerance: 5e-10);
            }

            Assert.Equal(none, posterior.NoneProbability, tolerance: 5e-10);
            Assert.Equal(several, posterior.SeveralProbability, tolerance: 5e-10);
        });

    /// <summary>
    /// Source: Heckerman, A tractable inference algorithm for diagnosing multiple diseases, 1989 (Quickscore):
    /// P(F+) = Σ over subsets F' of F+ of (−1)^|F'| Π over causes of (p·Π over F' of (1 − w) + 1 − p), the background a
    /// cause that is always there. It sums over findings where ours sums over sets of causes.
    /// </summary>
    [Fact]
    public void Positive_findings_agree_with_quickscore() =>
        (from small in AnySmall from positive in Gen.Int[0, small.Backgrounds.Length - 1].Array[1, 4] select (small, positive)).Sample(t =>
        {
            var (small, positive) = (t.small, t.positive.Distinct().ToArray());
            double Score(int? given)
            {
                var sum = 0.0;
                for (var subset = 0; subset < 1 << positive.Length; subset++)
                {
                    var chosen = positive.Where((_, i) => (subset >> i & 1) == 1).ToList();
                    var product = chosen.Aggregate(chosen.Count % 2 == 0 ? 1.0 : -1.0, (p, f) => p * (1 - small.Backgrounds[f]));
                    for (var c = 0; c < small.Priors.Length; c++)
                    {
                        var spared = chosen.Aggregate(1.0, (p, f) => p * (1 - small.Strengths[f][c]));
                        product *= (small.Priors[c] * spared) + (given == c ? 0 : 1 - small.Priors[c]);
                    }

                    sum += product;
                }

                return sum;
            }

            var posterior = small.Network(small.Priors.Length).Infer(small.Observe(positive.Select(f => (f, true, 1.0))));
            for (var c = 0; c < small.Priors.Length; c++)
            {
                Assert.Equal(Score(c) / Score(null), posterior.CauseProbability[c], tolerance: 5e-8);
            }
        });

    /// <summary>
    /// Worked by hand. Two causes, 0.1 and 0.2; the finding shows with 0.8 and 0.5, background 0. Absent: 1, 0.2, 0.5,
    /// 0.1. Weights when present: none 0; first 0.1·0.8·0.8 = 0.064; second 0.9·0.2·0.5 = 0.09; both 0.1·0.2·0.9 = 0.018.
    /// Sum 0.172: first (0.064 + 0.018)/0.172 = 0.476744, second 0.627907, both 0.104651.
    /// </summary>
    [Fact]
    public void Two_causes_of_one_finding_worked_by_hand()
    {
        var posterior = new FaultNetwork(
            [0.1, 0.2],
            [
                [0.8, 0.5],
            ]
        ).Infer([new Observation(0, true, Witness.Sure, 1)]);
        Assert.Equal(0.476744, posterior.CauseProbability[0], tolerance: 5e-7);
        Assert.Equal(0.627907, posterior.CauseProbability[1], tolerance: 5e-7);
        Assert.Equal(0.104651, posterior.SeveralProbability, tolerance: 5e-7);
        Assert.Equal(0, posterior.NoneProbability, tolerance: 5e-13);
    }

    [Fact]
    public void One_cause_shown_explains_the_other_away_and_two_things_wrong_stay_two()
    {
        // Both bring about the first finding; the second and third finding each belong to one of them.
        var network = new FaultNetwork(
            [0.1, 0.1],
            [
                [0.9, 0.9],
                [0.9, 0],
                [0, 0.9],
            ]
        );
        double Second(params (int, bool)[] answers) =>
            network.Infer([.. answers.Select(a => new Observation(a.Item1, a.Item2, new Witness(0.99, 0.01), 0.98))]).CauseProbability[1];
        var shared = Second((0, true));
        Assert.True(shared > 0.4);
        Assert.True(Second((0, true), (1, true)) < shared / 2, "the first explains the shared finding");
        var both = network.Infer([
            new Observation(0, true, new Witness(0.99, 0.01), 0.98),
            new Observation(1, true, new Witness(0.99, 0.01), 0.98),
            new Observation(2, true, new Witness(0.99, 0.01), 0.98),
        ]);
        Assert.True(both.CauseProbability[0] > 0.7 && both.CauseProbability[1] > 0.7);
        Assert.True(both.SeveralProbability > 0.6);
    }

    [Fact]
    public void The_order_of_answers_does_not_matter() =>
        (
            from small in AnySmall
            from answers in Answers(small.Backgrounds.Length)
            from seed in Gen.Int
            select (small, answers, seed)
        ).Sample(t =>
        {
            var soft = t.answers.Select(a => a with { Seen = Math.Min(a.Seen, 0.99) }).ToArray();
            var forward = t.small.Network(3).Infer(t.small.Observe(soft));
            var backward = t.small.Network(3).Infer(t.small.Observe(soft.Reverse()));
            for (var c = 0; c < t.small.Priors.Length; c++)
            {
                Assert.Equal(forward.CauseProbability[c], backward.CauseProbability[c], tolerance: 5e-11);
            }
        });

    [Fact]
    public void A_doubtful_answer_weighs_less_than_a_sure_one_and_half_sure_weighs_nothing()
    {
        var network = new FaultNetwork(
            [0.1, 0.2],
            [
                [0.8, 0],
            ]
        );
        double First(double seen, double falseAlarm) =>
            network.Infer([new Observation(0, true, new Witness(seen, falseAlarm), 0.95)]).CauseProbability[0];
        Assert.True(First(0.99, 0.01) > First(0.75, 0.2));
        Assert.Equal(0.1, First(0.5, 0.5), tolerance: 5e-10);
    }

    [Fact]
    public void What_a_finding_adds_is_the_difference_it_makes() =>
        (from small in AnySmall from answers in Answers(small.Backgrounds.Length) where answers.Length > 0 select (small, answers)).Sample(
            t =>
            {
                static double LogOdds(double p) => Math.Log(Math.Clamp(p, 1e-12, 1 - 1e-12) / (1 - Math.Clamp(p, 1e-12, 1 - 1e-12)));
                var observations = t.small.Observe(t.answers.Select(a => a with { Seen = Math.Min(a.Seen, 0.97) }));
                var network = t.small.Network(3);
                var changes = network.Explain(observations);
                var all = network.Infer(observations);
                for (var o = 0; o < observations.Count; o++)
                {
                    var without = network.Infer([.. observations.Where((_, i) => i != o)]);
                    for (var c = 0; c < t.small.Priors.Length; c++)
                    {
                        Assert.Equal(
                            LogOdds(all.CauseProbability[c]) - LogOdds(without.CauseProbability[c]),
                            changes[c][o],
                            tolerance: 5e-7
                        );
                    }
                }
            }
        );

    [Fact]
    public void Too_many_causes_and_impossible_priors_are_refused()
    {
        Assert.Throws<ArgumentException>(() => new FaultNetwork([.. Enumerable.Repeat(0.01, 65)], []));
        Assert.Throws<ArgumentException>(() => new FaultNetwork([1.0], []));
        Assert.Throws<ArgumentException>(() => new FaultNetwork([-0.1], []));
    }
}
