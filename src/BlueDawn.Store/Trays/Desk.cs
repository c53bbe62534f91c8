using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Store.Trays;

/// <summary>What every tray is judged by for one reader: the shop's defaults, their pins, today.</summary>
/// <param name="Shop">The shop's defaults.</param>
/// <param name="Pins">The reader's own pins.</param>
/// <param name="Today">Today, by the clock of the shop.</param>
public sealed record Desk(ShopDefaults Shop, PinSet Pins, DateOnly Today)
{
    /// <summary>As Core's rules take it.</summary>
    /// <param name="history">What the shop has confirmed on other carburetors.</param>
    /// <param name="rules">The shop's defaults the tray keeps, or null for those of today.</param>
    public TrayContext Context(FaultHistory history, ShopDefaults? rules) => new(rules ?? Shop, Pins, history, Today);
}
