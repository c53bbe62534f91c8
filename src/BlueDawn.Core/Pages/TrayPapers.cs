using BlueDawn.Core.Intake;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Pages;

/// <summary>What a page shows of a tray that no rule looks at.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Number on the tag.</param>
/// <param name="Version">Counts up with every change of what stands on it.</param>
/// <param name="Revision">Counts up with every entry.</param>
/// <param name="OwnerName">Whose it is.</param>
/// <param name="OwnerContact">How they are reached.</param>
/// <param name="MachineName">What it is off.</param>
/// <param name="CheckedInAt">When it came in.</param>
/// <param name="Story">What was told at check-in, or null.</param>
public sealed record TrayHead(
    Guid Id, int Number, int Version, int Revision, string OwnerName, string OwnerContact, string MachineName, DateTimeOffset CheckedInAt, Story? Story);

/// <summary>
/// All that a tray is judged from, in one paper that can be carried: whoever has it and this Core comes to the same
/// verdicts as the server.
/// </summary>
/// <param name="Head">What no rule looks at.</param>
/// <param name="Facts">What stands on it.</param>
/// <param name="Entries">Its logbook.</param>
/// <param name="Shop">The shop's defaults.</param>
/// <param name="Pins">The reader's own pins, as they described them.</param>
/// <param name="History">What the shop has confirmed on other carburetors.</param>
/// <param name="Today">Today, by the clock of the shop.</param>
/// <param name="Core">Which Core the server judges by; see <see cref="CoreVersion"/>.</param>
public sealed record TrayPapers(
    TrayHead Head, TrayFacts Facts, IReadOnlyList<Entry> Entries, ShopDefaults Shop, string Pins, FaultHistory History, DateOnly Today, string Core)
{
    /// <summary>The tray as the rules see it.</summary>
    /// <param name="history">False to judge without what the shop has confirmed on others.</param>
    public TrayBook Open(bool history = true) => StationList.Open(
        Facts, new TrayContext(Shop, PinSet.Parse(Pins).Value ?? PinSet.Empty, history ? History : FaultHistory.None, Today), Log.Of(Entries));
}

/// <summary>Which build of Core this is.</summary>
public static class CoreVersion
{
    /// <summary>Changes with every change of the source; the same in the server and in the browser.</summary>
    public static string Current { get; } =
        typeof(CoreVersion).Assembly.GetCustomAttributes(typeof(System.Reflection.AssemblyInformationalVersionAttribute), false)
            .OfType<System.Reflection.AssemblyInformationalVersionAttribute>().FirstOrDefault()?.InformationalVersion ?? "";
}
