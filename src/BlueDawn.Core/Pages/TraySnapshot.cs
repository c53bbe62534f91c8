using BlueDawn.Core.Intake;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
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
/// <param name="OldRules">True when the shop's rules were changed after work on it began: it is judged by those of then.</param>
public sealed record TrayHead(
    Guid Id,
    int Number,
    int Version,
    int Revision,
    string OwnerName,
    string OwnerContact,
    string MachineName,
    DateTimeOffset CheckedInAt,
    Story? Story,
    bool OldRules = false
);

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
/// <param name="Tables">What the shop has changed of the tables of knowledge.</param>
/// <param name="Core">Which Core the server judges by; see <see cref="CoreVersion"/>.</param>
public sealed record TraySnapshot(
    TrayHead Head,
    TrayFacts Facts,
    IReadOnlyList<Entry> Entries,
    ShopDefaults Shop,
    string Pins,
    FaultHistory History,
    DateOnly Today,
    IReadOnlyList<TableChange> Tables,
    string Core
)
{
    /// <summary>Minutes the clock of the shop is ahead of universal time.</summary>
    public int AheadOfUtcMin { get; init; }

    /// <summary>The tray as the rules see it.</summary>
    /// <param name="history">False to judge without what the shop has confirmed on others.</param>
    public TrayBook Open(bool history = true) =>
        StationList.Open(
            Facts,
            new TrayContext(
                Shop,
                PinSet.Parse(Pins).Value ?? PinSet.Empty,
                history ? History : FaultHistory.None,
                Today,
                Knowledge.With(Tables)
            )
            {
                AheadOfUtcMin = AheadOfUtcMin,
            },
            Log.Of(Entries)
        );

    /// <summary>The tray with entries that are still on their way written on top; what the rules refuse is left out.</summary>
    /// <param name="pending">Entries in their order; one that is in the logbook already is passed over.</param>
    /// <param name="by">Who took them.</param>
    /// <param name="now">Now, by the clock of whoever folds them.</param>
    public Folded OpenWith(IReadOnlyList<NewEntry> pending, string by, DateTimeOffset now) =>
        new Folded(Head, Open(), []).With(pending, by, now);
}

/// <summary>A tray with what is on its way.</summary>
/// <param name="Head">Its head, counted up.</param>
/// <param name="Book">The tray as the rules see it.</param>
/// <param name="LeftOut">Entries that are not in it.</param>
public sealed record Folded(TrayHead Head, TrayBook Book, IReadOnlyList<LeftOut> LeftOut)
{
    /// <summary>The same with more entries on top.</summary>
    /// <inheritdoc cref="TraySnapshot.OpenWith"/>
    public Folded With(IReadOnlyList<NewEntry> pending, string by, DateTimeOffset now)
    {
        var (book, leftOut, added) = (Book, LeftOut.ToList(), 0);
        foreach (var entry in pending)
        {
            if (book.Log.Find(entry.Id) is not null || leftOut.Any(left => left.Id == entry.Id))
            {
                continue;
            }

            // What changes the facts of a tray is decided with the server and never waits on a device.
            var changes = StationList.KindOf(entry.Note).IsDecidedOnFacts;
            var refusal = changes ? null : Writing.Refuses(entry, book, [.. Enum.GetValues<Permission>()]);
            if (changes || refusal is not null)
            {
                leftOut.Add(new LeftOut(entry.Id, refusal));
                continue;
            }

            var written = Writing.Write(entry, book, by, now);
            book = StationList.Open(written.Facts, book.Context, book.Log.With(written.Entry));
            added++;
        }

        return new Folded(Head with { Revision = Head.Revision + added }, book, leftOut);
    }
}

/// <summary>An entry that could not be written on top of a tray's snapshot.</summary>
/// <param name="Id">Which.</param>
/// <param name="Refusal">What the rules say to it; null when it is for the server to say.</param>
public sealed record LeftOut(Guid Id, Refusal? Refusal);

/// <summary>Which build of Core this is.</summary>
public static class CoreVersion
{
    /// <summary>Changes with every change of the source; the same in the server and in the browser.</summary>
    public static string Current { get; } =
        typeof(CoreVersion)
            .Assembly.GetCustomAttributes(typeof(System.Reflection.AssemblyInformationalVersionAttribute), false)
            .OfType<System.Reflection.AssemblyInformationalVersionAttribute>()
            .FirstOrDefault()
            ?.InformationalVersion
        ?? "";
}
