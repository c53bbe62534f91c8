using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Store.Logbook;

namespace BlueDawn.Store.Trays;

/// <summary>What every tray is judged by for one reader: the shop's defaults, their pins, today.</summary>
/// <param name="Shop">The shop's defaults.</param>
/// <param name="Pins">The reader's own pins.</param>
/// <param name="Today">Today, by the clock of the shop.</param>
/// <param name="Knowledge">What the shop knows.</param>
public sealed record JudgingContext(ShopDefaults Shop, PinSet Pins, DateOnly Today, ShopKnowledge Knowledge)
{
    /// <summary>Minutes the clock of the shop is ahead of universal time.</summary>
    public int AheadOfUtcMin { get; init; }

    /// <summary>A tray as Core's rules see it, without what the shop has confirmed on others.</summary>
    /// <param name="tray">Its row.</param>
    /// <param name="entries">Its logbook, oldest first.</param>
    public TrayBook Open(Tray tray, IEnumerable<LogbookEntry> entries)
    {
        var knowledge = Knowledge.Of(tray.KnowledgeVersion);
        return StationList.Open(
            tray.Facts(knowledge),
            new TrayContext(tray.Rules ?? Shop, Pins, FaultHistory.None, Today, knowledge) { AheadOfUtcMin = AheadOfUtcMin },
            Log.Of(entries.Select(entry => entry.AsEntry()))
        );
    }
}
