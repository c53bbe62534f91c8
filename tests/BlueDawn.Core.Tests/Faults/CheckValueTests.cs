using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>
/// The value of a check on a bench of two causes, small enough to work out by hand: the expected value of sample
/// information, as in any textbook of decision analysis (Raiffa and Schlaifer 1961, from memory).
/// </summary>
public class CheckValueTests
{
    private static readonly Dictionary<string, string> Tables = new()
    {
        ["faults/causes.csv"] = """
            id,label,circuit,place,parts,families,engines,chokes,apart,fix,fix_minutes,parts_money,refer,prior_weight,source
            a,Cause a,main,machine,,F,24,any,together,Fix a,10,0,no,1,invented
            b,Cause b,main,machine,,F,24,any,together,Fix b,20,8,no,1,invented
            """,
        ["faults/findings.csv"] = """
            id,label,short,stage,role,families,engines,chokes,background,source
            t,Trouble,,complaint,trouble,F,24,any,0,invented
            x,Seen with a,,quick,part,F,24,any,0,invented
            """,
        ["faults/checks.csv"] = """
            id,label,state,minutes,reveals,caution,not_with,families,engines,chokes,source
            look,Look,any,2,x,none,,F,24,any,invented
            """,
        ["faults/cause-findings.csv"] = """
            cause,finding,strength,source
            a,t,always,invented
            b,t,always,invented
            a,x,always,invented
            """,
        ["faults/cautions.csv"] = "key,text,precondition,condition,source\nnone,,,,invented",
        ["faults/station-findings.csv"] = "line,judged,finding,answer,cause,source",
        ["faults/needs.csv"] = "need,words,for,only_with,ruled_out_by,shown_by,asked_by,source",
        ["faults/decisive.csv"] = "finding,cause,source",
        ["faults/perishables.csv"] = "finding,cause,source",
        ["faults/done.csv"] = "cause,words,source",
        ["faults/measured.csv"] = "check,line,source",
        ["faults/fixes.csv"] = "cause,running,caution,source",
        ["faults/contradictions.csv"] = "id,told,told_answer,seen,words,source",
    };

    private static readonly FaultKnowledge Knowledge = new Core.Tables.Knowledge(
        name => Tables.TryGetValue(name, out var text) ? new StringReader(text) : Core.Tables.CsvTable.OpenShipped(name),
        []
    ).Of<FaultKnowledge>();

    private static readonly CarburetorKind Kind = new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, null);
    private static readonly TraceDefaults Shop = new(48, 5, 240);

    private static readonly FaultCase Case = new(Knowledge, Kind, FaultHistory.None, new HashSet<string>());

    /// <summary>Minutes at the bench, money at 48 an hour, five minutes to prove: 10 + 0 + 5 and 20 + 10 + 5.</summary>
    [Fact]
    public void A_fix_costs_its_minutes_its_parts_and_the_proof()
    {
        var costs = new RepairCosts(Case, Shop);
        Assert.Equal((15.0, 35.0), (costs.Fix(0), costs.Fix(1)));
        // To open and close, by apart.csv of the bench: nothing to go from one level to the same.
        Assert.Equal(0, costs.Get(ApartLevel.Bowl, ApartLevel.Bowl));
    }

    /// <summary>Half a fault expected over all causes (own judgement), shared by weight: a quarter each here, whatever the table's
    /// length.</summary>
    [Fact]
    public void Priors_share_half_a_fault_by_weight()
    {
        Assert.Equal([0.25, 0.25], Case.Prior.Select(prior => Math.Round(prior, 12)));
        var shipped = new FaultCase(FaultKnowledge.Shipped, Kind, FaultHistory.None, new HashSet<string>());
        Assert.Equal(0.5, shipped.ExpertPrior.Sum(), 9);
    }

    /// <summary>
    /// The owner named the trouble. Sets and weights by hand: priors 0.75², 0.25 · 0.75 twice, 0.25²; an owner who names what is
    /// there in 0.8 and what is not in 0.01. The look tells a from b: its worth is the mean over both answers.
    /// </summary>
    [Fact]
    public void A_look_is_worth_the_mean_over_its_answers()
    {
        double Told(double present) => (0.80 * present) + (0.01 * (1 - present));
        var weights = new[] { 0.5625 * Told(0), 0.1875 * Told(0.95), 0.1875 * Told(0.95), 0.0625 * Told(1 - (0.05 * 0.05)) };
        var shares = weights.Select(weight => weight / weights.Sum()).ToArray();
        ulong[] sets = [0, 1, 2, 3];
        double[] seen = [0, 0.95, 0, 0.95];
        var costs = new RepairCosts(Case, Shop);
        double Plan(Func<int, double> likelihood)
        {
            var joint = Enumerable.Range(0, 4).Select(s => shares[s] * likelihood(s)).ToArray();
            return joint.Sum() * RepairPlan.Of(costs, sets, [.. joint.Select(one => one / joint.Sum())], ApartLevel.Together, 2).Minutes;
        }

        var expected = 2 + Plan(s => seen[s]) + Plan(s => 1 - seen[s]);
        var note = new Core.Logbook.Logged<TraceNote>(
            Guid.CreateVersion7(),
            DateTimeOffset.UnixEpoch,
            "Ilse",
            new FindingsNote("owner-story", [new("t", Said.Present)], true)
        );
        var evidence = Evidence.Gather(Knowledge, Kind, [note], [], [], []);
        var (posterior, _, checks) = Trace.Rank(Case, Shop, evidence);
        Assert.Equal(shares[1] + shares[3], posterior.CauseProbability[0], 9);
        Assert.Equal(expected, Assert.Single(checks).ExpectedMinutes, 6);
    }
}
