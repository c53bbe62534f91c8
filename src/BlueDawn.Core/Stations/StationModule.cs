using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>A kind of reading: its class, the word it goes by in JSON, and what lines that take it can find.</summary>
/// <param name="Type">A sealed class derived from <see cref="Reading"/>.</param>
/// <param name="Word">Its word, camel case, never changed once it stands in a logbook.</param>
/// <param name="Findings">Everything that this station's lines can find by it.</param>
public sealed record ReadingKind(Type Type, string Word, IReadOnlyList<LineFinding> Findings)
{
    /// <summary>A kind of reading.</summary>
    /// <typeparam name="T">Its class.</typeparam>
    /// <param name="word">Its word.</param>
    /// <param name="findings">What its line can find.</param>
    public static ReadingKind Of<T>(string word, IReadOnlyList<LineFinding> findings)
        where T : Reading => new(typeof(T), word, findings);

    /// <summary>Looks of a table.</summary>
    /// <param name="looks">The looks.</param>
    public static ReadingKind Of(IReadOnlyList<Look> looks) =>
        Of<LookReading>("look", [.. looks.SelectMany(look => look.Answers).Select(answer => answer.Finding)]);
}

/// <summary>A finding of the trace that a station has come upon by itself.</summary>
/// <param name="FindingId">The finding, of data/faults/findings.csv.</param>
/// <param name="Source">What showed it, such as <c>strip/needle</c>.</param>
/// <param name="EntryId">The entry that showed it.</param>
/// <param name="TakenAt">When.</param>
/// <param name="Present">Whether it is there, or is seen not to be.</param>
/// <param name="MendedAt">When what showed it was put right: renewed, or put back the other way round; null while it was not.</param>
public sealed record FindingSign(
    string FindingId,
    string Source,
    Guid EntryId,
    DateTimeOffset TakenAt,
    bool Present = true,
    DateTimeOffset? MendedAt = null
);

/// <summary>
/// One station of the bench: the lines it asks for, the kinds of note it takes, and what it concludes from them. A station
/// knows its own room and the rooms below it, never another station; rules between stations stand in Trays/Policy.
/// </summary>
public abstract class StationModule
{
    /// <summary>Which station.</summary>
    public abstract Station Station { get; }

    /// <summary>The kinds of note that are recorded here.</summary>
    public virtual IReadOnlyList<NoteKind> Notes => [];

    /// <summary>The kinds of reading its lines understand.</summary>
    public virtual IReadOnlyList<ReadingKind> Readings => [];

    /// <summary>The gauge lines a spec sheet asks for here, in bench order.</summary>
    /// <param name="tray">What stands on the tray: the carburetor, its choke, what the owner complained of.</param>
    /// <param name="sheet">Its spec sheet.</param>
    /// <param name="shop">The shop's defaults.</param>
    public virtual IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop) => [];

    /// <summary>Whether a line has to be read on the job that was chosen: what nobody opened stands aside, and can be read all the same.</summary>
    /// <param name="line">One of its lines.</param>
    /// <param name="job">What was done.</param>
    public virtual bool IsInScope(GaugeLine line, JobScope job) => true;

    /// <summary>What has to be proven for what was mended or set here, though nothing was opened; null while nothing was.</summary>
    /// <param name="log">The tray's logbook.</param>
    /// <param name="knowledge">What the bench knows.</param>
    public virtual IReadOnlyList<Proof>? Proves(Log log, Knowledge knowledge) => null;

    /// <summary>How the station stands on a tray.</summary>
    /// <param name="tray">The tray.</param>
    public abstract StationState State(TrayBook tray);

    /// <summary>Findings of the trace that the station has come upon; its readings count by themselves.</summary>
    /// <param name="tray">The tray.</param>
    public virtual IReadOnlyList<FindingSign> Signs(TrayBook tray) => [];

    /// <summary>What was entered here that the list of dangers may know; lines and parts are seen without it.</summary>
    /// <param name="tray">The tray.</param>
    public virtual IEnumerable<Seen> Seen(TrayBook tray) => [];

    /// <summary>How its notes and readings are written as JSON, generated when Core is compiled; null for a station with neither.</summary>
    public virtual IJsonTypeInfoResolver? Json => null;
}
