using BlueDawn.Core.Build;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Pages;

/// <summary>A tray's ledger as the pages of Strip and Build need it.</summary>
/// <param name="Job">How far it is taken apart, or null while that has not been said.</param>
/// <param name="Jobs">How far it can be.</param>
/// <param name="Lines">Its parts in the order they come off.</param>
/// <param name="ToStrip">How many of them are still to be taken off.</param>
/// <param name="Open">How many of them are on the bench or missing.</param>
/// <param name="Usual">What usually becomes of each, by its key.</param>
/// <param name="ByName">Parts that can be there besides and are entered by name.</param>
/// <param name="Optional">Parts that only some have and that come off on the way of the job.</param>
/// <param name="Has">What it has and has not, as far as that was said, by its key.</param>
/// <param name="HasSaid">True once somebody said what of that this one has.</param>
/// <param name="Signs">Findings that what was found amounts to, in words.</param>
/// <param name="Stacks">What lies on what, of the parts this carburetor has.</param>
/// <param name="Problems">What is wrong with how it has been put together.</param>
/// <param name="Advice">What to see to before each open part goes in, in the order they go in.</param>
/// <param name="Starts">Starting settings beside what was found.</param>
/// <param name="Torques">How firmly the parts that were out are fastened.</param>
/// <param name="Screws">Screws whose turns are counted, and where each stands.</param>
/// <param name="Reconciliation">What became of everything.</param>
/// <param name="MostEighths">Most eighths of a turn that a screw can be out.</param>
/// <param name="ShortestReason">Fewest characters of a reason.</param>
/// <param name="WhyNotProven">Why it cannot be proven yet, or null.</param>
internal sealed record LedgerView(
    StripJob? Job,
    IReadOnlyList<StripJob> Jobs,
    IReadOnlyList<LedgerLine> Lines,
    int ToStrip,
    int Open,
    IReadOnlyDictionary<string, LineVerdict> Usual,
    IReadOnlyList<StripPart> ByName,
    IReadOnlyList<StripPart> Optional,
    IReadOnlyDictionary<string, bool> Has,
    bool HasSaid,
    IReadOnlyList<SignView> Signs,
    IReadOnlyList<StackPlan> Stacks,
    IReadOnlyList<StackProblem> Problems,
    IReadOnlyList<BuildAdvice> Advice,
    IReadOnlyList<StartingSetting> Starts,
    IReadOnlyList<Torque> Torques,
    IReadOnlyList<Screw> Screws,
    Reconciliation Reconciliation,
    int MostEighths,
    int ShortestReason,
    string? WhyNotProven
)
{
    public static LedgerView Of(TrayBook tray)
    {
        var (ledger, built) = (tray.Ledger, tray.State<BuildState>());
        var (strip, build) = (tray.Knowledge.Of<LedgerKnowledge>(), tray.Knowledge.Of<StackKnowledge>());
        var (family, spec) = (tray.Kind.Family, tray.Sheet);
        var renewed = tray.Fitting?.Items.SelectMany(item => item.Parts.Select(part => part.Part)).Concat(tray.Fitting.Parts).ToHashSet()
            ?? [];
        var there = ledger.Lines.Select(line => line.Part.Key).ToHashSet();
        var off = ledger.OrderOff;
        return new LedgerView(
            ledger.Job,
            strip.Jobs(family),
            ledger.Lines,
            ledger.ToStrip.Count,
            ledger.Open.Count,
            ledger.Lines.ToDictionary(line => line.Part.Key, line => Ledger.Usual(line.Part, renewed)),
            [.. strip.All(family).Where(part => !there.Contains(part.Key))],
            ledger.Optional,
            ledger.Has,
            ledger.Notes.Any(logged => logged.Note is HasNote),
            [
                .. tray.Signs.Select(sign => new SignView(
                    sign.Source[(sign.Source.IndexOf('/') + 1)..],
                    tray.Knowledge.Of<FaultKnowledge>().FindFinding(sign.FindingId)?.Label ?? sign.FindingId
                )),
            ],
            [
                .. build
                    .Stacks(family)
                    .Select(stack =>
                        StackCheck.AsFound(stack with { Layers = [.. stack.Layers.Where(layer => there.Contains(layer.Part))] }, off)
                    )
                    .Where(stack => stack.Layers.Count > 0),
            ],
            built.Problems,
            built.Advice,
            build.Starts(ledger, family, spec),
            [.. ledger.Taken.Select(line => build.TorqueOf(line.Part.Key, spec))],
            built.Screws,
            Reconciliation.Of(ledger, tray.Fitting),
            Turns.MostEighths,
            Reason.Shortest,
            built.WhyNotTogether
        );
    }
}

/// <summary>A finding that a line of the ledger amounts to.</summary>
internal sealed record SignView(string Part, string Finding);
