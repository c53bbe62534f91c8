using System.Text.Json.Serialization;

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
}

/// <summary>One step of a trace as it stands in the logbook.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FindingsNote), "findings")]
[JsonDerivedType(typeof(FaultNote), "fault")]
[JsonDerivedType(typeof(ApartNote), "apart")]
[JsonDerivedType(typeof(SafetyNote), "safety")]
public abstract record TraceNote;

/// <summary>Findings that were answered together.</summary>
/// <param name="CheckId">The check they came from; null when they were just noticed.</param>
/// <param name="Answers">The answers.</param>
/// <param name="FromOwner">True for what the owner said: it weighs less than what was seen.</param>
public sealed record FindingsNote(string? CheckId, IReadOnlyList<FindingAnswer> Answers, bool FromOwner = false) : TraceNote;

/// <summary>What became of a cause.</summary>
/// <param name="CauseId">The cause; null when none was found.</param>
/// <param name="Outcome">What became of it.</param>
public sealed record FaultNote(string? CauseId, FaultOutcome Outcome) : TraceNote;

/// <summary>The carburetor was taken apart or put together.</summary>
/// <param name="Level">How far apart it is now.</param>
public sealed record ApartNote(ApartLevel Level) : TraceNote;

/// <summary>A condition of safe work is met.</summary>
/// <param name="Condition">The condition.</param>
public sealed record SafetyNote(SafetyCondition Condition) : TraceNote;

/// <summary>A step of a trace with its place in time.</summary>
/// <param name="EntryId">Its logbook entry.</param>
/// <param name="TakenAt">When.</param>
/// <param name="Note">What.</param>
public sealed record LoggedNote(Guid EntryId, DateTimeOffset TakenAt, TraceNote Note);
