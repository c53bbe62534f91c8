using System.Diagnostics;
using System.Numerics;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Tests.Faults;
using Trace = BlueDawn.Core.Faults.Trace;

// Ratios measured in one run on one core. Times are of this machine at this moment; only the ratios travel.
if (OperatingSystem.IsLinux())
{
    Process.GetCurrentProcess().ProcessorAffinity = 1;
}

if (args is ["catalogue"])
{
    await new BlueDawn.Bench.CatalogueBench(
        Environment.GetEnvironmentVariable("BLUE_DAWN_BENCH_DATABASE")
            ?? throw new InvalidOperationException("Run it with bench/catalogue.")
    ).RunAsync();
    return;
}

if (args is ["shop"])
{
    string Named(string name) => Environment.GetEnvironmentVariable(name) ?? throw new InvalidOperationException("Run it with bench/shop.");
    using var shop = new BlueDawn.Bench.ShopBench(Named("BLUE_DAWN_BENCH_DATABASE"), Named("BLUE_DAWN_BENCH_SERVER"));
    await shop.RunAsync();
    return;
}

if (args is ["stories", ..])
{
    BlueDawn.Bench.StoryBench.Run(args is [_, "steps"]);
    return;
}

if (args is ["simulator", ..])
{
    BlueDawn.Bench.SimulatorBench.Run(
        args is [_, var machines] ? int.Parse(machines, System.Globalization.CultureInfo.InvariantCulture) : 200
    );
    return;
}

if (args is ["setting"])
{
    BlueDawn.Bench.SettingBench.Run(Median);
    return;
}

var knowledge = Whole();
var kind = new CarburetorKind(CarburetorFamily.FloatBowl, null, null);
var faults = new FaultCase(knowledge, kind, FaultHistory.None, new HashSet<string>());
string[] there = ["hunts", "stood-unused", "better-part-choke", "bowl-debris"];
string[] absent = ["black-smoke", "plug-wet", "air-filter-dirty", "wet-at-bowl-joint", "better-cap-loose", "no-spark"];
var notes = new FindingsNote(
    null,
    [.. there.Select(id => new FindingAnswer(id, Said.Present)), .. absent.Select(id => new FindingAnswer(id, Said.Absent))]
);
var evidence = Evidence.Gather(knowledge, kind, [new Logged<TraceNote>(Guid.Empty, DateTimeOffset.UnixEpoch, "", notes)], [], [], []);
var observations = evidence.Observations(faults);

Console.WriteLine(
    $"Tracing: {faults.Causes.Count} causes, {faults.Findings.Count} findings, "
        + $"{faults.Checks.Count} checks, {observations.Count} answers, sets of up to 3 causes"
);
var infer = Median(() => faults.Network.Infer(observations));
var brute = Median(() => BruteForce(faults, observations), 5);
var rank = Median(() => Trace.Rank(faults, Tray.Shop, evidence));
Console.WriteLine($"  posterior over every set          {infer, 8:0.00} ms");
Console.WriteLine($"  the same by the definition        {brute, 8:0.00} ms   {brute / infer, 6:0.0} times as long");
Console.WriteLine($"  full ranking with the next check  {rank, 8:0.00} ms   {rank / brute, 6:0.00} of the definition’s posterior alone");

// Every cause and finding on one carburetor: more than any real one has, as a bound.
static FaultKnowledge Whole()
{
    var all = new AppliesTo([CarburetorFamily.FloatBowl], [EngineKind.FourStroke, EngineKind.TwoStroke], []);
    var shipped = Knowledge.Shipped.Of<FaultKnowledge>();
    return shipped with
    {
        Causes = [.. shipped.Causes.Select(cause => cause with { Applies = all })],
        Findings = [.. shipped.Findings.Select(finding => finding with { Applies = all })],
        Checks = [.. shipped.Checks.Select(check => check with { Applies = all })],
    };
}

static double Median(Action work, int runs = 41)
{
    work();
    work();
    var times = new double[runs];
    for (var run = 0; run < runs; run++)
    {
        var watch = Stopwatch.StartNew();
        work();
        times[run] = watch.Elapsed.TotalMilliseconds;
    }

    Array.Sort(times);
    return times[runs / 2];
}

// Pr(set) × Π Pr(answer | set), each set on its own: what the network computes without carrying anything over.
static double BruteForce(FaultCase faults, IReadOnlyList<Observation> observations)
{
    var (count, total) = (faults.Causes.Count, Weight(faults, observations, 0));
    for (var a = 0; a < count; a++)
    {
        total += Weight(faults, observations, 1UL << a);
        for (var b = a + 1; b < count; b++)
        {
            total += Weight(faults, observations, 1UL << a | 1UL << b);
            for (var c = b + 1; c < count; c++)
            {
                total += Weight(faults, observations, 1UL << a | 1UL << b | 1UL << c);
            }
        }
    }

    return total;
}

static double Weight(FaultCase faults, IReadOnlyList<Observation> observations, ulong set)
{
    var weight = 1.0;
    for (var cause = 0; cause < faults.Causes.Count; cause++)
    {
        weight *= (set >> cause & 1) == 1 ? faults.Prior[cause] : 1 - faults.Prior[cause];
    }

    foreach (var observation in observations)
    {
        var missing = observation.AbsentBase;
        for (var rest = set; rest != 0; rest &= rest - 1)
        {
            missing *= 1 - faults.Strengths[observation.Finding][BitOperations.TrailingZeroCount(rest)];
        }

        var (seen, falseAlarm) = observation.Witness;
        weight *= observation.Present ? seen - ((seen - falseAlarm) * missing) : 1 - seen + ((seen - falseAlarm) * missing);
    }

    return weight;
}
