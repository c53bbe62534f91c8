using BlueDawn.Core.Logbook;
using BlueDawn.Core.Worksheets;

namespace BlueDawn.Store.Logbook;

/// <summary>What kind of thing happened.</summary>
public enum EntryKind
{
    /// <summary>The tray was made.</summary>
    CheckedIn,

    /// <summary>A spec sheet was chosen.</summary>
    SpecChosen,

    /// <summary>It was decided what to fit; a kit, on trays from before there was more to choose from.</summary>
    KitChosen,

    /// <summary>An old part was measured, to match new ones with.</summary>
    PartMeasured,

    /// <summary>Something was read; a correction when it supersedes.</summary>
    Reading,

    /// <summary>A reading was taken back without another in its place.</summary>
    Withdrawn,

    /// <summary>A step of the trace: findings, a cause settled, taken apart, a condition met.</summary>
    Traced,

    /// <summary>An entry of the strip ledger: a part out, back in, left off.</summary>
    Ledgered,

    /// <summary>An entry about cleaning.</summary>
    Cleaned,

    /// <summary>Promised day, what it waits for, or the like was changed.</summary>
    TrayChanged,

    /// <summary>Handed back.</summary>
    Released,

    /// <summary>Brought back to the bench after it had been handed back.</summary>
    BroughtBack,
}

/// <summary>One line of the logbook: what, who, when. Added, never edited; the database refuses anything else.</summary>
public sealed class LogbookEntry
{
    /// <summary>Id made by the client, UUIDv7: the same entry sent twice is one entry.</summary>
    public Guid Id { get; set; }

    /// <summary>The tray.</summary>
    public Guid TrayId { get; set; }

    /// <summary>What kind of thing happened.</summary>
    public EntryKind Kind { get; set; }

    /// <summary>The gauge line, for readings and withdrawals.</summary>
    public string? LineKey { get; set; }

    /// <summary>The entry this one corrects or withdraws.</summary>
    public Guid? SupersedesId { get; set; }

    /// <summary>Who entered it.</summary>
    public Guid PersonId { get; set; }

    /// <summary>Their name at that time.</summary>
    public string PersonName { get; set; } = "";

    /// <summary>When it was taken, by the clock of the device.</summary>
    public DateTimeOffset TakenAt { get; set; }

    /// <summary>When the server had it.</summary>
    public DateTimeOffset RecordedAt { get; set; }

    /// <summary>The reading as it was typed.</summary>
    public TypedReading? Typed { get; set; }

    /// <summary>The reading as it was understood, in base units.</summary>
    public Reading? Reading { get; set; }

    /// <summary>The step of the trace, for entries of that kind.</summary>
    public Core.Faults.TraceNote? Trace { get; set; }

    /// <summary>The old part as measured, for entries of that kind; no features when its measures were taken back.</summary>
    public Core.Catalogue.ItemPart? OldPart { get; set; }

    /// <summary>The entry of the strip ledger, for entries of that kind.</summary>
    public Core.Strip.LedgerNote? Ledger { get; set; }

    /// <summary>The entry about cleaning, for entries of that kind.</summary>
    public Core.Cleaning.CleaningNote? Cleaning { get; set; }

    /// <summary>What was found at that time, by the spec sheet of that time.</summary>
    public string? Finding { get; set; }

    /// <summary>What happened, in words.</summary>
    public string Words { get; set; } = "";

    /// <summary>For a release: the report as it was handed over, as JSON.</summary>
    public string? Report { get; set; }

    /// <summary>The entry as Core's rules see it.</summary>
    public LoggedReading AsLogged() => new(Id, LineKey ?? "", SupersedesId, TakenAt, Kind == EntryKind.Reading ? Reading : null);
}
