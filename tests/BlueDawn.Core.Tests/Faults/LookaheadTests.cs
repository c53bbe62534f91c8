using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>
/// Two steps ahead against one, and both against the best of all policies, found by exhaustive search over every order of
/// checks and fixes (Bellman 1957: the cost to go of a state is the least over its acts of their cost and the mean cost to
/// go of what they lead to). Benches are drawn: three causes alone or together, three checks of one finding each.
/// </summary>
public sealed class LookaheadTests(ITestOutputHelper output)
{
    private const int Causes = 3,
        Checks = 3;

    /// <summary>A bench drawn at random, small enough to search through.</summary>
    private sealed class Drawn
    {
        private static readonly AppliesTo All = new([CarburetorFamily.FloatBowl], [EngineKind.FourStroke], []);
        private readonly double[][] absent;
        private readonly ulong[] sets = [.. Enumerable.Range(1, (1 << Causes) - 1).Select(set => (ulong)set)];

        public Drawn(Random random)
        {
            var causes = Enumerable
                .Range(0, Causes)
                .Select(i => new Cause(
                    $"c{i}",
                    $"Cause {i}",
                    "main",
                    Place.Machine,
                    [],
                    All,
                    ApartLevel.Together,
                    "Mend it",
                    4 + (26 * random.NextDouble()),
                    0,
                    false,
                    0.5 + random.NextDouble(),
                    "drawn"
                ))
                .ToList();
            var findings = Enumerable
                .Range(0, Checks)
                .Select(i => new Finding(
                    $"f{i}",
                    $"Finding {i}",
                    "",
                    "quick",
                    FindingRole.Part,
                    All,
                    0.02 + (0.1 * random.NextDouble()),
                    "drawn"
                ))
                .ToList();
            var checks = Enumerable
                .Range(0, Checks)
                .Select(i => new Check(
                    $"k{i}",
                    $"Check {i}",
                    CheckState.Any,
                    1 + (9 * random.NextDouble()),
                    [$"f{i}"],
                    "none",
                    [],
                    All,
                    "drawn"
                ))
                .ToList();
            var links =
                from cause in causes
                from finding in findings
                where random.NextDouble() < 0.6
                select new CauseFinding(cause.Id, finding.Id, "drawn", 0.1 + (0.85 * random.NextDouble()), "drawn");
            var knowledge = FaultKnowledge.Shipped with
            {
                Causes = causes,
                Findings = findings,
                Checks = checks,
                Links = [.. links],
                StationFindings = [],
                Needs = [],
                Decisive = new Dictionary<string, string>(),
            };
            Case = new FaultCase(
                knowledge,
                new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, null),
                FaultHistory.None,
                new HashSet<string>()
            );
            absent =
            [
                .. Case.Findings.Select(
                    (finding, check) => sets.Select(set => Case.Network.Absent(check, set, 1 - finding.Background)).ToArray()
                ),
            ];
            Costs = new RepairCosts(Case, new TraceDefaults(48, 3, 60 + (60 * random.NextDouble())));
            Weights =
            [
                .. sets.Select(set =>
                    Enumerable
                        .Range(0, Causes)
                        .Aggregate(1.0, (weight, cause) => weight * ((set >> cause & 1) == 1 ? Case.Prior[cause] : 1 - Case.Prior[cause]))
                ),
            ];
            var total = Weights.Sum();
            Weights = [.. Weights.Select(weight => weight / total)];
        }

        public FaultCase Case { get; }

        public RepairCosts Costs { get; }

        public double[] Weights { get; }

        /// <summary>The cost to go when whatever costs least is done.</summary>
        public double Best() => Go(Weights, 0, null);

        /// <summary>The cost to go when what a policy says is done.</summary>
        public double By(bool twoAhead) => Go(Weights, 0, (weights, done) => Choose(weights, done, twoAhead));

        /// <summary>Acts: a check by its number, a fix by its number after the checks, -1 to give up.</summary>
        private int Choose(double[] weights, int done, bool twoAhead)
        {
            var kept = Enumerable.Range(0, sets.Length).Where(s => weights[s] > 0).ToArray();
            var valuer = new CheckValuer(Case, Costs, [.. kept.Select(s => sets[s])], [.. kept.Select(s => weights[s])]);
            var known = Enumerable.Range(0, Checks).Where(check => (done >> check & 1) == 1).ToHashSet();
            var values = Case
                .Checks.Select((check, i) => (i, Value: valuer.Value(check, ApartLevel.Together, known)))
                .Where(one => one.Value is not null)
                .ToList();
            var (best, minutes) = (-1, double.MaxValue);
            foreach (var (i, value) in values)
            {
                var expected = twoAhead
                    ? Math.Min(value!.ExpectedMinutes, valuer.ExpectedTwoAhead(value, ApartLevel.Together, known, Case.Checks))
                    : value!.ExpectedMinutes;
                (best, minutes) = expected < minutes ? (i, expected) : (best, minutes);
            }

            var plan = twoAhead ? valuer.PlanFixFirst(ApartLevel.Together, known, Case.Checks) : valuer.Plan(ApartLevel.Together);
            return minutes < plan.Minutes ? best
                : plan.First < 0 ? -1
                : Checks + plan.First;
        }

        private double Go(double[] weights, int done, Func<double[], int, int>? policy)
        {
            if (policy is not null)
            {
                return Act(policy(weights, done), weights, done, policy);
            }

            return Enumerable
                .Range(-1, 1 + Checks + Causes)
                .Where(act => act < 0 || act >= Checks || (done >> act & 1) == 0)
                .Min(act => Act(act, weights, done, null));
        }

        private double Act(int act, double[] weights, int done, Func<double[], int, int>? policy)
        {
            if (act < 0)
            {
                return Costs.ReferMinutes;
            }

            if (act >= Checks)
            {
                var cause = act - Checks;
                var left = new double[sets.Length];
                for (var s = 0; s < sets.Length; s++)
                {
                    var without = sets[s] & ~(1UL << cause);
                    if (without != 0)
                    {
                        left[without - 1] += weights[s];
                    }
                }

                var failing = left.Sum();
                // Mending what cannot be there goes nowhere.
                return failing >= 1 - 1e-12
                    ? double.MaxValue / 4
                    : Costs.Fix(cause) + (failing < 1e-12 ? 0 : failing * Go([.. left.Select(weight => weight / failing)], done, policy));
            }

            var minutes = Case.Checks[act].Minutes;
            foreach (var seen in new[] { true, false })
            {
                var branch = sets.Select((_, s) => weights[s] * (seen ? 1 - absent[act][s] : absent[act][s])).ToArray();
                var probability = branch.Sum();
                minutes +=
                    probability < 1e-12
                        ? 0
                        : probability * Go([.. branch.Select(weight => weight / probability)], done | (1 << act), policy);
            }

            return minutes;
        }
    }

    [Fact]
    public void Two_steps_ahead_are_no_worse_than_one_and_near_the_best_of_all_policies()
    {
        var random = new Random(20261128);
        var drawn = Enumerable
            .Range(0, 300)
            .Select(_ => new Drawn(random))
            .Select(bench => (Best: bench.Best(), One: bench.By(false), Two: bench.By(true)))
            .ToList();
        Assert.All(drawn, bench =>
            Assert.True(bench.Best <= bench.One + 1e-9 && bench.Best <= bench.Two + 1e-9, $"{bench} beats the best of all policies")
        );
        // The mean of what two steps save over one, with the interval that holds it in 95 of 100 such draws (Student, n large).
        (double Mean, double Half) Interval(Func<(double Best, double One, double Two), double> of)
        {
            var values = drawn.Select(of).ToList();
            var mean = values.Average();
            return (mean, 1.97 * Math.Sqrt(values.Sum(value => (value - mean) * (value - mean)) / (values.Count - 1) / values.Count));
        }

        var saved = Interval(bench => (bench.One - bench.Two) / bench.Best);
        var (one, two) = (Interval(bench => bench.One / bench.Best), Interval(bench => bench.Two / bench.Best));
        output.WriteLine(
            $"one step {one.Mean:0.0000} ± {one.Half:0.0000} of the best, two {two.Mean:0.0000} "
                + $"± {two.Half:0.0000}, saved {saved.Mean:0.0000} ± {saved.Half:0.0000}"
        );
        Assert.True(saved.Mean + saved.Half >= 0, $"two steps cost {-saved.Mean:P1} ± {saved.Half:P1} more than one");
        Assert.True(two.Mean - two.Half < 1.02, $"two steps cost {two.Mean:0.000} ± {two.Half:0.000} of the best policy");
    }
}
