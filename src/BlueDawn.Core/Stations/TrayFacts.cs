using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>What stands on a tray itself. Two people may change it, so a change is decided on a version of it.</summary>
/// <param name="Number">The tray's number.</param>
/// <param name="Kind">The carburetor and its choke.</param>
/// <param name="StampedNumber">Number stamped on it, as read; may be empty.</param>
/// <param name="Sheet">Its spec sheet, or null.</param>
/// <param name="Fitting">What has been decided to fit, or null.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="PromisedDay">The day it is promised for.</param>
/// <param name="WaitsFor">What it waits for.</param>
/// <param name="WaitNote">More about the wait; may be empty.</param>
/// <param name="OwnerLimit">What the owner agreed to spend, in the shop's currency, or null.</param>
/// <param name="MachineWorth">What the machine would sell for, in the shop's currency, or null.</param>
public sealed record TrayFacts(
    int Number,
    CarburetorKind Kind,
    string StampedNumber,
    SpecSheet? Sheet,
    Fitting? Fitting,
    string Complaint,
    DateOnly PromisedDay,
    WaitsFor WaitsFor,
    string WaitNote = "",
    decimal? OwnerLimit = null,
    decimal? MachineWorth = null
)
{
    /// <summary>What it is measured by: its sheet, or what stands in for one until it has one.</summary>
    public SpecSheet MeasuredBy => Sheet ?? SpecSheet.NoneYet(Kind);

    /// <summary>What the owner came with, to be tried again at Prove: what was named at check-in, else the owner's words.</summary>
    public IReadOnlyList<Complaint> Complaints { get; init; } = [];

    /// <summary>Minutes after which it fails, as it was told at check-in; null when nobody said.</summary>
    public double? FailsAfterMin { get; init; }
}

/// <summary>What a tray is judged by.</summary>
/// <param name="Shop">The shop's defaults.</param>
/// <param name="Pins">The reader's own pins.</param>
/// <param name="History">What the shop has confirmed on other carburetors.</param>
/// <param name="Today">Today, by the clock of the shop.</param>
/// <param name="Knowledge">What the bench knows: as it ships, with what the shop has changed.</param>
public sealed record TrayContext(ShopDefaults Shop, PinSet Pins, FaultHistory History, DateOnly Today, Knowledge Knowledge)
{
    /// <summary>Minutes the clock of the shop is ahead of universal time, from -840 to 840.</summary>
    public int AheadOfUtcMin { get; init; }

    /// <summary>The day of the shop's calendar on which something was.</summary>
    /// <param name="at">When it was.</param>
    public DateOnly DayOf(DateTimeOffset at) => DateOnly.FromDateTime(at.UtcDateTime.AddMinutes(AheadOfUtcMin));
}
