namespace BlueDawn.Core.Logbook;

/// <summary>
/// What one entry of the logbook says. Every station has its own notes; which there are, and the word each goes by in
/// JSON, is listed by the station modules.
/// </summary>
public abstract record Note
{
    /// <summary>The note as it was sent: what the bench worked out from it and wrote beside it is left out.</summary>
    public virtual Note AsSent() => this;
}

/// <summary>An entry from before notes had a shape of their own: its words are all there is.</summary>
/// <param name="What">What kind of entry it was.</param>
/// <param name="Words">What it said, numbers in metric units.</param>
public sealed record WordsNote(string What, string Words) : Note;

/// <summary>An entry of the logbook: what, who, when. Added, never edited.</summary>
/// <param name="Id">Made by whoever recorded it (UUIDv7): the idempotency key.</param>
/// <param name="Supersedes">The entry it corrects or withdraws, or null.</param>
/// <param name="TakenAt">When it was taken, by the clock of the device, never after the server had it.</param>
/// <param name="By">Who recorded it, by the name of that day.</param>
/// <param name="Note">What it says.</param>
public sealed record Entry(Guid Id, Guid? Supersedes, DateTimeOffset TakenAt, string By, Note Note);

/// <summary>A note with its place in time.</summary>
/// <typeparam name="T">The kind of note.</typeparam>
/// <param name="EntryId">Its entry.</param>
/// <param name="TakenAt">When it was taken.</param>
/// <param name="By">Who recorded it.</param>
/// <param name="Note">The note.</param>
public sealed record Logged<T>(Guid EntryId, DateTimeOffset TakenAt, string By, T Note)
    where T : Note;
