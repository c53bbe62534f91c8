using BlueDawn.Core.Faults;
using CsCheck;

namespace BlueDawn.Core.Tests.Faults;

public class RepairPlanTests
{
    private static readonly ApartCost[] Apart =
    [
        new(ApartLevel.Together, 0, 0, ""),
        new(ApartLevel.Bowl, 3, 4, ""),
        new(ApartLevel.Off, 7, 8, ""),
        new(ApartLevel.Strip, 12, 15, ""),
    ];

    private static RepairCosts Costs(double[] fix, double refer, ApartLevel level = ApartLevel.Together) =>
        new(Apart, fix, [.. fix.Select(_ => level)], refer);

    private static readonly ulong[] OneOfThree = [1, 2, 4];

    /// <summary>
    /// Source of the formula: Heckerman, Breese, Rommelse 1995: with one fault, trying in order of p/c costs
    /// c₁ + (1 − p₁)c₂ + (1 − p₁ − p₂)c₃. By hand: p = 0.5, 0.3, 0.2 and c = 10, 20, 30 give 10 + 0.5·20 + 0.2·30 = 26.
    /// </summary>
    [Fact]
    public void The_expected_cost_of_three_fixes_worked_by_hand()
    {
        var plan = RepairPlan.Of(Costs([10, 20, 30], 1000), OneOfThree, [0.5, 0.3, 0.2], ApartLevel.Together, 3);
        Assert.Equal(26, plan.Minutes, tolerance: 5e-10);
        Assert.Equal(0, plan.First);
    }

    [Fact]
    public void A_cheap_unlikely_fix_comes_before_a_dear_likely_one()
    {
        // p/c: 0.6/60 = 0.01 against 0.4/10 = 0.04. By hand: 10 + 0.6·60 = 46.
        var plan = RepairPlan.Of(Costs([60, 10], 1000), [1, 2], [0.6, 0.4], ApartLevel.Together, 2);
        Assert.Equal((46.0, 1), (Math.Round(plan.Minutes, 9), plan.First));
    }

    [Fact]
    public void Going_on_stops_where_giving_up_is_cheaper()
    {
        // The second fix is tried only if 100 < 30 — it is not: 10 + 0.2·30 = 16.
        var plan = RepairPlan.Of(Costs([10, 100], 30), [1, 2], [0.8, 0.2], ApartLevel.Together, 2);
        Assert.Equal(16, plan.Minutes, tolerance: 5e-10);
        Assert.Equal(-1, RepairPlan.Of(Costs([100], 30), [1], [1.0], ApartLevel.Together, 1).First);
    }

    [Fact]
    public void A_pair_of_faults_is_mended_with_the_second()
    {
        // {first} 0.5, {first and second} 0.5; c = 10, 20: 0.5·10 + 0.5·30 = 20.
        var plan = RepairPlan.Of(Costs([10, 20], 1000), [1, 3], [0.5, 0.5], ApartLevel.Together, 2);
        Assert.Equal(20, plan.Minutes, tolerance: 5e-10);
    }

    [Fact]
    public void Taking_it_apart_is_paid_once_and_not_at_all_when_it_is_apart()
    {
        var costs = Costs([10, 20], 1000, ApartLevel.Strip);
        Assert.Equal(10 + 12 + (0.4 * 20), RepairPlan.Of(costs, [1, 2], [0.6, 0.4], ApartLevel.Together, 2).Minutes, tolerance: 5e-10);
        Assert.Equal(10 + (0.4 * 20), RepairPlan.Of(costs, [1, 2], [0.6, 0.4], ApartLevel.Strip, 2).Minutes, tolerance: 5e-10);
    }

    [Fact]
    public void With_one_fault_no_other_order_is_cheaper() =>
        Gen.Select(Gen.Double[0.05, 1].Array[4], Gen.Double[1, 50].Array[4])
            .Sample(
                (shares, costs) =>
                {
                    var p = shares.Select(share => share / shares.Sum()).ToArray();
                    var best = Orders([0, 1, 2, 3])
                        .Min(order =>
                        {
                            var (sum, cost) = (0.0, 0.0);
                            foreach (var i in order)
                            {
                                sum += costs[i];
                                cost += p[i] * sum;
                            }

                            return cost;
                        });
                    Assert.Equal(best, RepairPlan.Of(Costs(costs, 1e6), [1, 2, 4, 8], p, ApartLevel.Together, 4).Minutes, tolerance: 5e-7);
                }
            );

    private static IEnumerable<int[]> Orders(int[] of) =>
        of.Length < 2
            ? [of]
            : of.SelectMany(first => Orders([.. of.Where(other => other != first)]).Select(rest => (int[])[first, .. rest]));
}
