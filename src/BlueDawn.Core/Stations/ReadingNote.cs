using BlueDawn.Core.Logbook;

namespace BlueDawn.Core.Stations;

/// <summary>A reading of a gauge line; a correction when its entry supersedes another.</summary>
/// <param name="Line">The line's key.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Reading">What that was understood as, in base units; worked out when it is recorded.</param>
/// <param name="Finding">What was found by the spec sheet of that day; worked out when it is recorded.</param>
/// <param name="Sure">True when a number far from the sheet was asked about and is really so.</param>
public sealed record ReadingNote(string Line, TypedReading Typed, Reading? Reading = null, string? Finding = null, bool Sure = false) : Note
{
    /// <inheritdoc/>
    public override Note AsSent() => this with { Reading = null, Finding = null };
}

/// <summary>A reading is taken back with none in its place; its entry supersedes the reading's.</summary>
public sealed record WithdrawalNote : Note;
