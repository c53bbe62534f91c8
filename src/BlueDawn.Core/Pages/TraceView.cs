using BlueDawn.Core.Faults;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Pages;

/// <summary>The bench part a cause sits at.</summary>
internal sealed record CausePart(string Key, string Label);

/// <summary>A trace as a page needs it.</summary>
/// <param name="Trace">The trace as Core worked it out.</param>
/// <param name="People">Who made each logbook entry that is spoken of, by the entry's id.</param>
/// <param name="Parts">The bench part a cause sits at, by the cause's id.</param>
/// <param name="Open">What was seen to be wrong and has not come to its end.</param>
/// <param name="HistoryUsed">Whether the shop's history shifts the odds.</param>
/// <param name="Currency">Currency of prices (ISO 4217).</param>
internal sealed record TraceView(
    Trace Trace,
    IReadOnlyDictionary<Guid, string> People,
    IReadOnlyDictionary<string, CausePart> Parts,
    IReadOnlyList<OpenFault> Open,
    bool HistoryUsed,
    string Currency
)
{
    public static TraceView Of(TrayBook tray, bool history)
    {
        var trace = tray.State<FaultsState>().Trace with { Next = Policy.NextAtTrace(tray) };
        var spoken = trace
            .Evidence.Items.Select(item => item.EntryId)
            .Concat(trace.Evidence.Found.Select(fault => fault.EntryId))
            .ToHashSet();
        return new TraceView(
            trace,
            tray.Log.Entries.Where(entry => spoken.Contains(entry.Id)).ToDictionary(entry => entry.Id, entry => entry.By),
            trace
                .Causes.Select(standing =>
                    (standing.Cause.Id, Part: standing.Cause.PartIn(tray.Kind.Family, tray.Knowledge.Of<LedgerKnowledge>()))
                )
                .Where(pair => pair.Part is not null)
                .ToDictionary(pair => pair.Id, pair => new CausePart(pair.Part!.Key, pair.Part.Label)),
            tray.State<FaultsState>().Open,
            history,
            tray.Shop.Currency
        );
    }
}
