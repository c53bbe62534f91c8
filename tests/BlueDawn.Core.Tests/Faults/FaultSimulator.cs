using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>Chooses what to do next on a simulated machine.</summary>
/// <param name="faults">The case.</param>
/// <param name="trace">The trace as it stands.</param>
/// <returns>A check to do, or a cause to put right.</returns>
internal delegate (Check? Check, string? CauseId) Policy(FaultCase faults, Trace trace);

/// <summary>
/// Machines drawn from a world that is not the tables: its faults are up to three times as common or as rare as the tables
/// say, each fault shows more or less surely than they say, and what is found without a cause is up to twice as common or as
/// rare; some machines have a fault that no table knows, and are sent on. Findings come by noisy-OR; counted are the bench
/// minutes a way of working takes until every fault is mended. It knows what is wrong; the way of working only sees what it checks.
/// </summary>
/// <param name="seed">Of what is drawn.</param>
/// <param name="misfit">How far the world is from the tables: 1 as above, 0 is the tables' own world.</param>
internal sealed class FaultSimulator(int seed, double misfit = 1)
{
    private const int MostSteps = 30;

    /// <summary>Stands for what is wrong with a machine whose fault no table knows: it is never mended here.</summary>
    private const string Outside = "outside";

    private readonly Random random = new(seed);
    private readonly Dictionary<string, double> world = [];
    private readonly TraceDefaults shop = Tray.Shop;
    private readonly CarburetorKind kind = new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Manual);

    /// <summary>Minutes for one machine after another, each met by every policy in the same state, and whether a table knows its
    /// fault.</summary>
    public IReadOnlyList<(bool Known, double[] Minutes)> Minutes(int machines, params Policy[] policies) =>
        [
            .. Enumerable
                .Range(0, machines)
                .Select(_ => Draw())
                .Select(drawn => (drawn.Faults.Count > 0, policies.Select(policy => Work(drawn, policy)).ToArray())),
        ];

    /// <summary>Mean minutes of every policy over the same machines.</summary>
    public double[] MeanMinutes(int machines, params Policy[] policies)
    {
        var minutes = Minutes(machines, policies);
        return [.. policies.Select((_, p) => minutes.Average(one => one.Minutes[p]))];
    }

    private sealed record Machine(IReadOnlyList<Cause> Faults, HashSet<(string Cause, string Finding)> Shows, HashSet<string> Background)
    {
        public bool Has(string finding, IEnumerable<string> faults) =>
            Background.Contains(finding) || faults.Any(fault => Shows.Contains((fault, finding)));
    }

    /// <summary>A machine that somebody brings: at least one fault, and at least one complaint.</summary>
    private Machine Draw()
    {
        var faults = new FaultCase(FaultKnowledge.Shipped, kind, FaultHistory.None, new HashSet<string>());
        while (true)
        {
            var there = faults.Causes.Where((_, i) => random.NextDouble() < faults.Prior[i] * Times(3, faults.Causes[i].Id)).ToList();
            if (there.Count > 3)
            {
                continue;
            }

            var machine = new Machine(
                there,
                [
                    .. from link in FaultKnowledge.Shipped.Links
                    where
                        there.Any(fault => fault.Id == link.CauseId)
                        && random.NextDouble() < Math.Clamp(link.Probability + Shift(0.25, link.CauseId + link.FindingId), 0.02, 0.98)
                    select (link.CauseId, link.FindingId),
                ],
                [.. from finding in faults.Findings where random.NextDouble() < finding.Background * Times(2, finding.Id) select finding.Id]
            );
            // With no fault of the table a complaint has a cause that no table knows.
            if (
                Complaints(machine, there.Select(fault => fault.Id)).Any()
                && (there.Count == 0 || there.Any(fault => Complaints(machine with { Background = [] }, [fault.Id]).Any()))
            )
            {
                return machine;
            }
        }
    }

    /// <summary>The world's own factor for a thing, from 1 ÷ most to most; the same whenever it is asked.</summary>
    private double Times(double most, string what) => Math.Pow(most, Shift(1, what));

    private double Shift(double most, string what) =>
        misfit * most * (world.TryGetValue(what, out var drawn) ? drawn : world[what] = (2 * random.NextDouble()) - 1);

    private IEnumerable<string> Complaints(Machine machine, IEnumerable<string> faults) =>
        FaultKnowledge.Shipped.ComplaintsFor(kind).Select(finding => finding.Id).Where(id => machine.Has(id, faults));

    private double Work(Machine machine, Policy policy)
    {
        // Every way of working meets the same machine.
        machine = machine with { Background = [.. machine.Background] };
        // What troubles: mended when none of the faults that show as a complaint is left.
        var left = machine
            .Faults.Select(fault => fault.Id)
            .Where(fault => Complaints(machine with { Background = [] }, [fault]).Any())
            .ToHashSet();
        if (left.Count == 0)
        {
            left.Add(Outside);
        }

        var tray = new Tray(kind).Note(
            new FindingsNote("owner-story", [.. Complaints(machine, left).Select(id => new FindingAnswer(id, Said.Present))], true)
        );
        var (minutes, mended) = (0.0, new HashSet<string>());
        for (var step = 0; step < MostSteps && left.Count > 0; step++)
        {
            var trace = tray.Trace();
            if (trace.Next.Kind == StepKind.Recheck)
            {
                minutes += shop.ProofMinutes;
                // What forbids a run by itself, whatever was mended, is put right in the hand.
                machine.Background.ExceptWith(trace.Next.Asks.Where(id => trace.Evidence.IsThere(id)));
                tray.Note(Answers(null, trace.Next.Asks, machine, left));
                continue;
            }

            // What has to be known before the proof of a fix is asked whatever the way of working: nobody skips the proof.
            if (
                trace.Evidence.Recheck.Count > 0
                && FaultKnowledge.Shipped.Needs.Any(need => need.AskedBy == trace.Next.CheckId)
                && FaultKnowledge.Shipped.FindCheck(trace.Next.CheckId!) is { } first
            )
            {
                minutes += trace.Next.Minutes;
                tray.Note(Answers(first.Id, first.Reveals, machine, left));
                continue;
            }

            var faults = new FaultCase(FaultKnowledge.Shipped, kind, FaultHistory.None, trace.Evidence.Settled);
            var costs = new RepairCosts(faults, shop);
            var (check, causeId) = policy(faults, trace);
            if (check is not null)
            {
                minutes += costs.Check(check, trace.Evidence.Apart).Minutes;
                tray.Note(Answers(check.Id, check.Reveals, machine, left));
            }
            else if (causeId is not null && faults.CauseAt(causeId) is >= 0 and var cause)
            {
                var level = costs.Level(cause) > trace.Evidence.Apart ? costs.Level(cause) : trace.Evidence.Apart;
                minutes += costs.Fix(cause) + costs.Get(trace.Evidence.Apart, level);
                tray.Note(new ApartNote(level));
                tray.Note(new FaultNote(causeId, left.Remove(causeId) ? FaultOutcome.Fixed : FaultOutcome.NotIt));
            }
            else
            {
                break;
            }
        }

        return minutes + (left.Count > 0 ? shop.ReferMinutes : 0);
    }

    private static FindingsNote Answers(string? checkId, IEnumerable<string> findings, Machine machine, IEnumerable<string> left) =>
        new(checkId, [.. findings.Select(id => new FindingAnswer(id, machine.Has(id, left) ? Said.Present : Said.Absent))]);

    /// <summary>The product's own next step.</summary>
    public static (Check? Check, string? CauseId) ByExpectedCost(FaultCase faults, Trace trace) =>
        (trace.Next.CheckId is { } id ? FaultKnowledge.Shipped.FindCheck(id) : null, trace.Next.CauseId);

    /// <summary>The check that tells most a minute, after what has to be asked before it, until one cause is this likely; then that
    /// fix.</summary>
    public static Policy ByInformation(double sure) =>
        (_, trace) =>
            trace.NoneProbability >= sure ? (null, null)
            : Sure(trace, sure) is { } cause ? (null, cause)
            : trace.Checks.MaxBy(value => value.InformationBits / value.Minutes) is { InformationBits: > 0.001 } best
                ? (best.Before ?? best.Check, null)
            : (null, Likeliest(trace));

    /// <summary>The cheapest check first, until one cause is as good as certain; then that fix.</summary>
    public static (Check? Check, string? CauseId) CheapestCheckFirst(FaultCase faults, Trace trace) =>
        trace.NoneProbability >= 0.85 ? (null, null)
        : Sure(trace, 0.85) is { } cause ? (null, cause)
        : trace.Checks.MinBy(value => value.Minutes) is { } cheapest ? (cheapest.Before ?? cheapest.Check, null)
        : (null, Likeliest(trace));

    /// <summary>Fixes by how common their causes are, without any check.</summary>
    public static (Check? Check, string? CauseId) ByPriorOnly(FaultCase faults, Trace trace) =>
        (null, faults.Causes.Where((_, i) => faults.Prior[i] > 0).MaxBy(cause => cause.PriorWeight)?.Id);

    private static string? Sure(Trace trace, double sure) =>
        trace.Causes is [var first, ..] && first.Probability >= sure ? first.Cause.Id : null;

    private static string? Likeliest(Trace trace) => trace.Causes is [var first, ..] ? first.Cause.Id : null;
}
