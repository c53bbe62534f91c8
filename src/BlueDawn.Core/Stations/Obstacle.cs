namespace BlueDawn.Core.Stations;

/// <summary>Why a line stands in the way of handing back.</summary>
public enum ObstacleKind
{
    /// <summary>A required reading is missing.</summary>
    Missing,

    /// <summary>A required reading is not good.</summary>
    Failing,

    /// <summary>A required reading does not decide.</summary>
    Undecided,

    /// <summary>Something unsafe, wherever it was entered.</summary>
    Danger,
}

/// <summary>A line that stands in the way of handing back.</summary>
/// <param name="LineKey">The line, <c>kits/spec-sheet</c> when there is no sheet to judge by, or <c>danger/…</c>.</param>
/// <param name="Label">Its name.</param>
/// <param name="Station">Where it is put right.</param>
/// <param name="Kind">Missing, failing or undecided.</param>
/// <param name="Word">What was found, in a word or two.</param>
public sealed record Obstacle(string LineKey, string Label, Station Station, ObstacleKind Kind, string Word);
