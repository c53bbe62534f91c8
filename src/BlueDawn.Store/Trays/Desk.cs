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
    public TrayContext Context(FaultHistory history) => new(Shop, Pins, history, Today);
}
