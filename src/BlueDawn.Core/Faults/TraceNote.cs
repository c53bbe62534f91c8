using System.Text.Json.Serialization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>What was answered about a finding.</summary>
public enum Said
{
    /// <summary>It could not be told; counts for nothing.</summary>
    CouldNotTell,

    /// <summary>It is there.</summary>
    Present,

    /// <summary>It is not there.</summary>
    Absent,
}

/// <summary>One answer.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Said">What was answered.</param>
/// <param name="Doubtful">Marked as doubtful: it weighs less.</param>
public sealed record FindingAnswer(string FindingId, Said Said, bool Doubtful = false);

/// <summary>What became of a cause.</summary>
public enum FaultOutcome
{
    /// <summary>It was there and has been put right.</summary>
    Fixed,

    /// <summary>It is not there, or putting it right made no difference.</summary>
    NotIt,

    /// <summary>It is there and is not this bench's work.</summary>
    Referred,

    /// <summary>No cause was found; the carburetor is cleaned and renewed as usual.</summary>
    NothingFound,

    /// <summary>Back in question: what was said before is taken back.</summary>
    Open,

    /// <summary>It was done and did not cure it: it was tried, and was not the fault.</summary>
    NoCure,

    /// <summary>It is there and stays as it is, with a reason and the owner's word.</summary>
    Left,
}

/// <summary>One step of a trace as it stands in the logbook.</summary>
public abstract record TraceNote : Note
{
    /// <summary>What happened, in words for the logbook.</summary>
    /// <param name="knowledge">The fault knowledge, for names.</param>
    public abstract string Words(FaultKnowledge knowledge);

    /// <summary>What is wrong with it, field by field; empty when it can be recorded.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    public virtual IReadOnlyList<FieldProblem> Check(FaultKnowledge knowledge) => [];

    /// <summary>A kind of trace note: they are checked and said by the fault knowledge, and leave tray and shelf as they are.</summary>
    /// <param name="word">Its word.</param>
    /// <param name="needs">What somebody must be allowed to do to record it.</param>
    /// <param name="work">Whether a note says that something was done to the carburetor; null for a kind that never does.</param>
    /// <param name="besides">What else may be wrong with a note as things stand; null for nothing.</param>
    private protected static NoteKind<T> KindOf<T>(
        string word,
        Permission needs,
        Func<T, bool>? work = null,
        Func<T, TrayBook, IReadOnlyList<FieldProblem>>? besides = null
    )
        where T : TraceNote =>
        new(word)
        {
            Needs = needs,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => [.. note.Check(tray.Knowledge.Of<FaultKnowledge>()), .. besides?.Invoke(note, tray) ?? []],
            Says = (note, tray) => Sentence.Say($"{note.Words(tray.Knowledge.Of<FaultKnowledge>())}"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = work ?? NoteAnswers.NotWork,
        };
}

/// <summary>Findings that were answered together.</summary>
/// <param name="CheckId">The check they came from; null when they were just noticed.</param>
/// <param name="Answers">The answers.</param>
/// <param name="FromOwner">True for what the owner said: it weighs less than what was seen.</param>
public sealed record FindingsNote(string? CheckId, IReadOnlyList<FindingAnswer> Answers, bool FromOwner = false) : TraceNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<FindingsNote> Kind { get; } = KindOf<FindingsNote>("findings", Permission.WorkAtTheBench);

    /// <inheritdoc/>
    public override string Words(FaultKnowledge knowledge)
    {
        static string Of(FindingAnswer answer) =>
            answer.Said switch
            {
                Said.Present => answer.Doubtful ? "yes, doubtful" : "yes",
                Said.Absent => answer.Doubtful ? "no, doubtful" : "no",
                Said.CouldNotTell => "could not tell",
            };
        var who = FromOwner ? "Owner says: " : "Found: ";
        return who
            + string.Join(
                "; ",
                Answers.Select(answer => $"{knowledge.FindFinding(answer.FindingId)?.Label ?? answer.FindingId}: {Of(answer)}")
            );
    }

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(FaultKnowledge knowledge)
    {
        var problems = new List<FieldProblem>();
        if (CheckId is { } id && knowledge.FindCheck(id) is null)
        {
            problems.Add(new("note.checkId", "There is no check of this name; see /api/faults/knowledge."));
        }

        if (Answers.Count is 0 or > 200)
        {
            problems.Add(new("note.answers", "Answer at least one finding, and no more than 200."));
        }

        problems.AddRange(
            Answers
                .Where(answer => knowledge.FindFinding(answer.FindingId) is null)
                .Select(answer => new FieldProblem("note.answers", $"There is no finding “{answer.FindingId}”; see /api/faults/knowledge."))
        );
        return problems;
    }
}

/// <summary>What became of a cause.</summary>
/// <param name="CauseId">The cause; null when none was found.</param>
/// <param name="Outcome">What became of it.</param>
/// <param name="Reason">Why it stays as it is, for what is left; null otherwise.</param>
/// <param name="OwnerSaid">What the owner said to it, for what is left; null otherwise.</param>
/// <param name="Done">What was done, in the technician's words; null for the usual words.</param>
public sealed record FaultNote(string? CauseId, FaultOutcome Outcome, string? Reason = null, string? OwnerSaid = null, string? Done = null)
    : TraceNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<FaultNote> Kind { get; } =
        KindOf<FaultNote>(
            "fault",
            Permission.WorkAtTheBench,
            note => note.Outcome is FaultOutcome.Fixed or FaultOutcome.NoCure,
            // Nothing is opened again but what was closed.
            (note, tray) =>
                note is { CauseId: null, Outcome: FaultOutcome.Open } && !Standing(tray.Log.Notes<TraceNote>()).Any(IsNothingFound)
                    ? NoteAnswers.Wrong("causeId", "Say which cause is back in question.")
                    : []
        );

    private static bool IsNothingFound(Logged<TraceNote> logged) => logged.Note is FaultNote { Outcome: FaultOutcome.NothingFound };

    /// <summary>Whether it settles the trace: something was found, or nothing was.</summary>
    [JsonIgnore]
    public bool Settles => Outcome is FaultOutcome.Fixed or FaultOutcome.Referred or FaultOutcome.Left or FaultOutcome.NothingFound;

    /// <summary>Whether it says that a cause was there.</summary>
    [JsonIgnore]
    public bool IsFound => CauseId is not null && Outcome is FaultOutcome.Fixed or FaultOutcome.Referred or FaultOutcome.Left;

    /// <summary>What stands of each cause, and of closing without one: the last that was said of it, with when. That none was found no
    /// longer stands once one is.</summary>
    /// <param name="notes">The trace's notes, oldest first.</param>
    public static IReadOnlyList<Logged<TraceNote>> Standing(IEnumerable<Logged<TraceNote>> notes)
    {
        var last = notes
            .Where(logged => logged.Note is FaultNote)
            .GroupBy(logged => ((FaultNote)logged.Note).CauseId ?? "")
            .Select(cause => cause.Last())
            .ToList();
        return
        [
            .. last.Where(logged =>
                logged.Note is not FaultNote { Outcome: FaultOutcome.NothingFound }
                || !last.Any(other => other.Note is FaultNote { IsFound: true } && other.TakenAt >= logged.TakenAt)
            ),
        ];
    }

    /// <summary>Whether a trace is settled by what stands.</summary>
    /// <param name="notes">The trace's notes, oldest first.</param>
    public static bool IsSettled(IEnumerable<Logged<TraceNote>> notes) =>
        Standing(notes).Any(logged => logged.Note is FaultNote { Settles: true });

    /// <inheritdoc/>
    public override string Words(FaultKnowledge knowledge)
    {
        var label = CauseId is null ? "" : knowledge.FindCause(CauseId)?.Label ?? CauseId;
        return Outcome switch
        {
            FaultOutcome.Fixed => $"Found and put right: {label}{(Done is null ? "" : $". {Done}")}",
            FaultOutcome.NotIt => $"Not it: {label}",
            FaultOutcome.Referred => $"Found and referred: {label}",
            FaultOutcome.Open => label.Length > 0 ? $"Back in question: {label}" : "Trace opened again",
            FaultOutcome.NothingFound => "Closed without a cause: cleaned and renewed as usual",
            FaultOutcome.NoCure => $"Done, did not cure it: {label}",
            FaultOutcome.Left => $"Left as it is: {label}. {Reason} The owner: {OwnerSaid}",
        };
    }

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(FaultKnowledge knowledge) =>
        !(
            Outcome == FaultOutcome.NothingFound
            || (Outcome == FaultOutcome.Open && CauseId is null)
            || (CauseId is { } id && knowledge.FindCause(id) is not null)
        )
            ? NoteAnswers.Wrong("causeId", "There is no cause of this name; see /api/faults/knowledge.")
        : Done?.Length > NoteAnswers.LongestWords ? NoteAnswers.Wrong("done", $"Keep it to {NoteAnswers.LongestWords} characters.")
        : Outcome != FaultOutcome.Left ? []
        :
        [
            .. NoteAnswers.WrongWords("reason", Reason),
            .. NoteAnswers.WrongWords("ownerSaid", OwnerSaid, "Write what the owner said to it, and when."),
        ];
}

/// <summary>The carburetor was taken apart or put together.</summary>
/// <param name="Level">How far apart it is now.</param>
public sealed record ApartNote(ApartLevel Level) : TraceNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<ApartNote> Kind { get; } = KindOf<ApartNote>("apart", Permission.WorkAtTheBench);

    /// <inheritdoc/>
    public override string Words(FaultKnowledge knowledge) => knowledge.Apart.First(cost => cost.Level == Level).Label;
}

/// <summary>A condition of safe work is met.</summary>
/// <param name="Condition">The condition.</param>
public sealed record SafetyNote(SafetyCondition Condition) : TraceNote
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<SafetyNote> Kind { get; } = KindOf<SafetyNote>("safety", Permission.WorkAtTheBench);

    /// <inheritdoc/>
    public override string Words(FaultKnowledge knowledge) =>
        Condition switch
        {
            SafetyCondition.EngineCool => "Engine cool to the touch",
            SafetyCondition.LeadOff => "Plug lead off and held clear",
            SafetyCondition.OilChanged => "Oil drained and changed",
            SafetyCondition.OilRead => "Oil read: at its mark, smells of oil",
            SafetyCondition.NoFlame => "No flame, no spark, ventilated, fuel can away",
        };
}
