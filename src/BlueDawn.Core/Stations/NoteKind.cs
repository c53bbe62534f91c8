using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Stations;

/// <summary>What only the shop's own store knows, and has to be looked up before a note is decided.</summary>
public enum NoteLookup
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>The spec sheet of a code.</summary>
    Sheet,

    /// <summary>What a decision to fit comes to today, by catalogue, shelf and donors.</summary>
    Fitting,

    /// <summary>What of an order the shelf holds by now.</summary>
    FromShelf,

    /// <summary>What others of its sheet had and had not.</summary>
    HadBefore,

    /// <summary>What was fitted goes back to where it came from.</summary>
    BackToShelf,

    /// <summary>The lead's signature behind a name and a password.</summary>
    Signature,
}

/// <summary>
/// A kind of note: the word it goes by in JSON, and everything that is asked of such a note. What a note has to answer is
/// <c>required</c> or abstract: a kind that leaves one out does not compile.
/// </summary>
public abstract class NoteKind
{
    private protected NoteKind(Type type, string word) => (Type, Word) = (type, word);

    /// <summary>A sealed class derived from <see cref="Note"/>.</summary>
    public Type Type { get; }

    /// <summary>Its word, camel case, never changed once it stands in a logbook.</summary>
    public string Word { get; }

    /// <summary>What somebody must be allowed to do to record it.</summary>
    public required Permission Needs { get; init; }

    /// <summary>What has to be looked up for it.</summary>
    public required NoteLookup Lookup { get; init; }

    /// <summary>What is said to a device that sends one, for a note that only the bench itself records; null when devices may.</summary>
    public string? RecordedByBench { get; init; }

    /// <summary>Whether it is decided on what stands on the tray, and so must not meet another's change of it: then it is recorded
    /// against the tray's version, which counts up.</summary>
    public bool IsDecidedOnFacts { get; init; }

    /// <summary>Whether it says that something was changed that stands beside the facts: whose it is, what was told. The tray's version
    /// counts up with it.</summary>
    public bool ChangesHead { get; init; }

    /// <summary>Whether it says what parts are wanted.</summary>
    public bool ChangesWanted { get; init; }

    /// <summary>What is wrong with a note as things stand, field by field; empty when it can be recorded.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public abstract IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray);

    /// <summary>What a note says, for the logbook.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public abstract Sentence Say(Note note, TrayBook tray);

    /// <summary>What stands on the tray itself once a note is recorded; the same as before for one that changes nothing of it.</summary>
    /// <param name="note">One of its notes, complete.</param>
    /// <param name="tray">The tray before it.</param>
    public abstract TrayFacts FactsAfter(Note note, TrayBook tray);

    /// <summary>What takes a part off the shelf or puts it back when a note is recorded; null for nothing.</summary>
    /// <param name="note">One of its notes that has been found right.</param>
    /// <param name="tray">The tray before it.</param>
    public abstract ShelfMove? Moves(Note note, TrayBook tray);

    /// <summary>Whether a note says that something was done to the carburetor: what is read after it is as left, no longer as
    /// found.</summary>
    /// <param name="note">One of its notes.</param>
    public abstract bool IsWork(Note note);

    /// <summary>A note with what the bench works out from it, as it is kept.</summary>
    /// <param name="note">One of its notes that has been found right.</param>
    /// <param name="tray">The tray before it.</param>
    public abstract Note Complete(Note note, TrayBook tray);

    /// <summary>What stands on the tray itself once a note is taken back.</summary>
    /// <param name="withdrawn">The note that is taken back.</param>
    /// <param name="tray">The tray as if it had never been recorded.</param>
    public abstract TrayFacts FactsWithout(Note withdrawn, TrayBook tray);

    /// <summary>What else somebody must be allowed to do, for what a note says on this tray; null when its kind says it all.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public abstract Permission? NeedsBesides(Note note, TrayBook tray);

    /// <summary>Whether a note says only what stands there already: then nothing is recorded.</summary>
    /// <param name="note">One of its notes that has been found right.</param>
    /// <param name="tray">The tray.</param>
    public abstract bool ChangesNothing(Note note, TrayBook tray);

    /// <summary>What still has to be done before a note can be recorded as it is; empty when nothing has.</summary>
    /// <param name="note">One of its notes.</param>
    /// <param name="tray">The tray.</param>
    public abstract IReadOnlyList<Obstacle> StoppedBy(Note note, TrayBook tray);

    /// <summary>Whether a note brings a tray that was handed back to the bench again: no other is taken then.</summary>
    /// <param name="note">One of its notes.</param>
    public abstract bool ReopensTray(Note note);
}

/// <summary>A kind of note, each answer given for its own class.</summary>
/// <typeparam name="T">The class.</typeparam>
/// <param name="word">Its word, camel case, never changed once it stands in a logbook.</param>
public sealed class NoteKind<T>(string word) : NoteKind(typeof(T), word)
    where T : Note
{
    /// <summary>What is wrong with a note.</summary>
    public required Func<T, TrayBook, IReadOnlyList<FieldProblem>> WhenWrong { private get; init; }

    /// <summary>What a note says.</summary>
    public required Func<T, TrayBook, Sentence> Says { private get; init; }

    /// <summary>What stands on the tray after a note; <see cref="NoteAnswers.AsBefore"/> when it changes nothing of it.</summary>
    public required Func<T, TrayBook, TrayFacts> Leaves { private get; init; }

    /// <summary>What a note moves on the shelf; <see cref="NoteAnswers.Stays"/> when it moves nothing.</summary>
    public required Func<T, TrayBook, ShelfMove?> Shelf { private get; init; }

    /// <summary>Whether a note says that something was done to the carburetor.</summary>
    public required Func<T, bool> Work { private get; init; }

    /// <summary>A note with what follows from it; left out when nothing is worked out.</summary>
    public Func<T, TrayBook, T>? Completed { private get; init; }

    /// <summary>What stands on the tray without a note; left out when nothing has to be put back.</summary>
    public Func<T, TrayBook, TrayFacts>? LeavesWithout { private get; init; }

    /// <summary>What else a note needs; left out when its kind says it all.</summary>
    public Func<T, TrayBook, Permission?>? Besides { private get; init; }

    /// <summary>Whether a note says nothing new; left out when it always does.</summary>
    public Func<T, TrayBook, bool>? SaysNothingNew { private get; init; }

    /// <summary>What has to be done before a note; left out when nothing has.</summary>
    public Func<T, TrayBook, IReadOnlyList<Obstacle>>? StopsAt { private get; init; }

    /// <summary>Whether a note reopens a tray; left out when none does.</summary>
    public Func<T, bool>? BringsBack { private get; init; }

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) => WhenWrong((T)note, tray);

    /// <inheritdoc/>
    public override Sentence Say(Note note, TrayBook tray) => Says((T)note, tray);

    /// <inheritdoc/>
    public override TrayFacts FactsAfter(Note note, TrayBook tray) => Leaves((T)note, tray);

    /// <inheritdoc/>
    public override ShelfMove? Moves(Note note, TrayBook tray) => Shelf((T)note, tray);

    /// <inheritdoc/>
    public override bool IsWork(Note note) => Work((T)note);

    /// <inheritdoc/>
    public override Note Complete(Note note, TrayBook tray) => Completed is null ? note : Completed((T)note, tray);

    /// <inheritdoc/>
    public override TrayFacts FactsWithout(Note withdrawn, TrayBook tray) =>
        LeavesWithout is null ? tray.Facts : LeavesWithout((T)withdrawn, tray);

    /// <inheritdoc/>
    public override Permission? NeedsBesides(Note note, TrayBook tray) => Besides?.Invoke((T)note, tray);

    /// <inheritdoc/>
    public override bool ChangesNothing(Note note, TrayBook tray) => SaysNothingNew?.Invoke((T)note, tray) ?? false;

    /// <inheritdoc/>
    public override IReadOnlyList<Obstacle> StoppedBy(Note note, TrayBook tray) => StopsAt?.Invoke((T)note, tray) ?? [];

    /// <inheritdoc/>
    public override bool ReopensTray(Note note) => BringsBack?.Invoke((T)note) ?? false;
}

/// <summary>Answers that several kinds of note give.</summary>
public static class NoteAnswers
{
    /// <summary>Nothing can be wrong with it.</summary>
    public static IReadOnlyList<FieldProblem> Right(Note note, TrayBook tray) => [];

    /// <summary>What stands on the tray stays as it is.</summary>
    public static TrayFacts AsBefore(Note note, TrayBook tray) => tray.Facts;

    /// <summary>Nothing leaves the shelf or comes back to it.</summary>
    public static ShelfMove? Stays(Note note, TrayBook tray) => null;

    /// <summary>It says nothing of work on the carburetor.</summary>
    public static bool NotWork(Note note) => false;

    /// <summary>It always says that something was done to the carburetor.</summary>
    public static bool IsWork(Note note) => true;

    /// <summary>What is wrong with a reason or an owner's word; nothing when it will do.</summary>
    /// <param name="field">The field.</param>
    /// <param name="words">What was written.</param>
    /// <param name="ask">What to say when nothing that will do was written; null for the usual.</param>
    public static IReadOnlyList<FieldProblem> WrongWords(string field, string? words, string? ask = null) =>
        Reason.Problem(words) is { } problem ? Wrong(field, ask ?? problem)
        : words!.Length > LongestWords ? Wrong(field, $"Keep it to {LongestWords} characters.")
        : [];

    /// <summary>Most characters of a reason, an owner's word or a remark.</summary>
    public const int LongestWords = 500;

    /// <summary>A problem with a field of the note: fields are named <c>note.field</c>.</summary>
    /// <param name="field">The field.</param>
    /// <param name="message">What is wrong, and what to do.</param>
    public static IReadOnlyList<FieldProblem> Wrong(string field, string message) => [new FieldProblem("note." + field, message)];
}
