using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Stations;

/// <summary>A kind of note: its class, the word it goes by in JSON, and what somebody must be allowed to do to record it.</summary>
/// <param name="Type">A sealed class derived from <see cref="Note"/>.</param>
/// <param name="Word">Its word, camel case, never changed once it stands in a logbook.</param>
/// <param name="Needs">What it takes.</param>
public sealed record NoteKind(Type Type, string Word, May Needs)
{
    /// <summary>A kind of note.</summary>
    /// <typeparam name="T">Its class.</typeparam>
    /// <param name="word">Its word.</param>
    /// <param name="needs">What it takes.</param>
    public static NoteKind Of<T>(string word, May needs = May.WorkAtTheBench)
        where T : Note => new(typeof(T), word, needs);
}

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
public sealed record FindingSign(string FindingId, string Source, Guid EntryId, DateTimeOffset TakenAt, bool Present = true);

/// <summary>
/// One station of the bench: everything it asks for, takes in, refuses and concludes. A station knows its own room and
/// the rooms below it, never another station; rules between stations stand in Trays/Policy.
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

    /// <summary>How the station stands on a tray.</summary>
    /// <param name="tray">The tray.</param>
    public abstract StationState State(TrayBook tray);

    /// <summary>Findings of the trace that the station has come upon; its readings count by themselves.</summary>
    /// <param name="tray">The tray.</param>
    public virtual IReadOnlyList<FindingSign> Signs(TrayBook tray) => [];

    /// <summary>What is wrong with a note of this station as things stand, field by field; empty when it can be recorded.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public virtual IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) => [];

    /// <summary>A note with what the bench works out from it, as it is kept.</summary>
    /// <param name="note">One of its notes that has been found right.</param>
    /// <param name="tray">The tray before it.</param>
    public virtual Note Complete(Note note, TrayBook tray) => note;

    /// <summary>What a note says, for the logbook.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public virtual Sentence Say(Note note, TrayBook tray) => Sentence.None;

    /// <summary>What stands on the tray itself once this note is recorded; the same as before for notes that change nothing of
    /// it.</summary>
    /// <param name="note">One of its notes, complete.</param>
    /// <param name="tray">The tray before it.</param>
    public virtual TrayFacts Facts(Note note, TrayBook tray) => tray.Facts;

    /// <summary>What stands on the tray itself once one of its notes is taken back.</summary>
    /// <param name="withdrawn">The note that is taken back.</param>
    /// <param name="tray">The tray as if it had never been recorded.</param>
    public virtual TrayFacts Without(Note withdrawn, TrayBook tray) => tray.Facts;

    /// <summary>What it takes besides, for what this note says on this tray; null when its kind says it all.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public virtual May? TakesBesides(Note note, TrayBook tray) => null;

    /// <summary>Whether a note of this kind is decided on what stands on the tray, and so must not meet another's change of it.</summary>
    /// <param name="note">One of its notes.</param>
    public virtual bool ChangesFacts(Note note) => false;

    /// <summary>Whether a note says only what stands there already: then nothing is recorded.</summary>
    /// <param name="note">One of its notes that has been found right.</param>
    /// <param name="tray">The tray.</param>
    public virtual bool ChangesNothing(Note note, TrayBook tray) => false;

    /// <summary>Whether a note says that something was done to the carburetor: what is read after it is as left, no longer as
    /// found.</summary>
    /// <param name="note">One of its notes.</param>
    public virtual bool Works(Note note) => false;

    /// <summary>What takes a part off the shelf or puts it back when this note is recorded.</summary>
    /// <param name="note">One of its notes that has been found right.</param>
    /// <param name="tray">The tray before it.</param>
    public virtual ShelfMove? Moves(Note note, TrayBook tray) => null;

    /// <summary>The same problem with a field of the note: fields are named <c>note.field</c>.</summary>
    private protected static IReadOnlyList<FieldProblem> Wrong(string field, string message) =>
        [new FieldProblem("note." + field, message)];
}
