using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Faults;

/// <summary>Every cost of a trace in one unit: minutes of hands-on time, money turned into them by the hourly rate.</summary>
public sealed class RepairCosts
{
    private readonly IReadOnlyList<ApartCost> apart;
    private readonly double[] fix;
    private readonly ApartLevel[] level;

    /// <summary>Costs from their numbers.</summary>
    /// <param name="apart">What it takes to get to each level and back.</param>
    /// <param name="fixMinutes">By cause: the fix with its parts and its proof, in minutes.</param>
    /// <param name="level">By cause: how far apart the fix needs it.</param>
    /// <param name="referMinutes">What giving up costs, in minutes.</param>
    public RepairCosts(IReadOnlyList<ApartCost> apart, double[] fixMinutes, ApartLevel[] level, double referMinutes)
    {
        this.apart = [.. apart.OrderBy(cost => cost.Level)];
        fix = fixMinutes;
        this.level = level;
        ReferMinutes = referMinutes;
    }

    /// <summary>Costs for a case.</summary>
    public RepairCosts(FaultCase faults, TraceDefaults shop)
        : this(
            faults.Knowledge.Apart,
            [.. faults.Causes.Select(cause => cause.FixMinutes + (cause.PartsMoney * 60 / shop.LabourPerHour) + shop.ProofMinutes)],
            [.. faults.Causes.Select(cause => cause.Apart)],
            shop.ReferMinutes
        ) { }

    /// <summary>What giving up costs.</summary>
    public double ReferMinutes { get; }

    /// <summary>A fix with its parts and its proof, without getting there.</summary>
    public double Fix(int cause) => fix[cause];

    /// <summary>How far apart a fix needs it.</summary>
    public ApartLevel Level(int cause) => level[cause];

    /// <summary>Minutes from one level to another: taking apart what is still together, or putting it together again.</summary>
    public double Get(ApartLevel from, ApartLevel to) =>
        to > from ? apart[(int)to].OpenMinutes - apart[(int)from].OpenMinutes
        : to == ApartLevel.Together ? apart[(int)from].CloseMinutes
        : 0;

    /// <summary>Minutes of a check from where the carburetor is, and where it is afterwards.</summary>
    public (double Minutes, ApartLevel After) Check(Check check, ApartLevel now)
    {
        var needs = check.LeavesApart(now);
        return (check.Minutes + Get(now, needs), needs);
    }
}
