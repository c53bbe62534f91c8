using BlueDawn.Core.Tests.Faults;

namespace BlueDawn.Bench;

/// <summary>Bench minutes of ways to trace, on machines drawn from a world that is not the tables, and from the tables' own.</summary>
internal static class SimulatorBench
{
    private static readonly (string Name, Policy Policy)[] Ways =
    [
        ("next step by expected cost", FaultSimulator.ByExpectedCost),
        ("most information, till 50 % sure", FaultSimulator.ByInformation(0.5)),
        ("most information, till 85 % sure", FaultSimulator.ByInformation(0.85)),
        ("most information, till 97 % sure", FaultSimulator.ByInformation(0.97)),
        ("cheapest check first, till 85 %", FaultSimulator.CheapestCheckFirst),
        ("by prior only, no check", FaultSimulator.ByPriorOnly),
    ];

    /// <summary>Prints the means, and how many minutes each way takes more than the first on the same machines, with its 95 %
    /// interval.</summary>
    /// <param name="machines">Machines drawn.</param>
    public static void Run(int machines)
    {
        foreach (var (misfit, world) in new[] { (1.0, "a world that is not the tables"), (0.0, "the tables' own world") })
        {
            var all = new FaultSimulator(seed: 7, misfit).Minutes(machines, [.. Ways.Select(way => way.Policy)]);
            Print($"Bench minutes to the last fault mended, mean of {machines} machines of {world}", [.. all.Select(one => one.Minutes)]);
            var known = all.Where(one => one.Known).Select(one => one.Minutes).ToList();
            Print($"Of the {known.Count} whose faults a table knows", known);
        }
    }

    private static void Print(string title, List<double[]> minutes)
    {
        var first = minutes.Average(one => one[0]);
        Console.WriteLine(title);
        for (var way = 0; way < Ways.Length; way++)
        {
            var more = minutes.Select(one => one[way] - one[0]).ToList();
            var mean = more.Average();
            var half = 1.96 * Math.Sqrt(more.Sum(one => (one - mean) * (one - mean)) / (minutes.Count - 1) / minutes.Count);
            Console.WriteLine(
                $"  {Ways[way].Name, -34} {first + mean, 6:0} min   the first takes {first / (first + mean), 4:0.00} of it   {mean, 6:0} ± {half:0} more"
            );
        }
    }
}
