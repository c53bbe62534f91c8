using BlueDawn.Core.Logbook;

namespace BlueDawn.Store.Logbook;

/// <summary>One line of the logbook: what, who, when. Added, never edited; the database refuses anything else.</summary>
public sealed class LogbookEntry
{
    /// <summary>Id made by the client, UUIDv7: the same entry sent twice is one entry.</summary>
    public Guid Id { get; set; }

    /// <summary>The tray.</summary>
    public Guid TrayId { get; set; }

    /// <summary>The word of its note, see <see cref="Core.Trays.StationList.Notes"/>; on rows from before notes had one shape, what kind
    /// of thing happened.</summary>
    public string Kind { get; set; } = "";

    /// <summary>The entry this one corrects or withdraws.</summary>
    public Guid? SupersedesId { get; set; }

    /// <summary>Who entered it.</summary>
    public Guid PersonId { get; set; }

    /// <summary>Their name at that time.</summary>
    public string PersonName { get; set; } = "";

    /// <summary>When it was taken, by the clock of the device, never after the server had it.</summary>
    public DateTimeOffset TakenAt { get; set; }

    /// <summary>When the server had it.</summary>
    public DateTimeOffset RecordedAt { get; set; }

    /// <summary>What it says; null on rows from before notes had one shape.</summary>
    public Note? Note { get; set; }

    /// <summary>What it said on the day it was recorded, in metric units, for whoever reads the table itself.</summary>
    public string Words { get; set; } = "";

    /// <summary>For a release: the report as it was handed over, as JSON.</summary>
    public string? Report { get; set; }

    /// <summary>What rows from before notes had one shape hold instead.</summary>
    public OldColumns Old { get; set; } = new();

    /// <summary>The entry as Core's rules see it.</summary>
    public Entry AsEntry() => new(Id, SupersedesId, TakenAt, PersonName, Note ?? OldRow.Upcast(this));
}
