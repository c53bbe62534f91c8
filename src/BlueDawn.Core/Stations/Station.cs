namespace BlueDawn.Core.Stations;

/// <summary>The stations of the bench, in bench order. One word each, the same in every layer.</summary>
public enum Station
{
    /// <summary>Check in.</summary>
    Intake,

    /// <summary>Trace the fault.</summary>
    Faults,

    /// <summary>Identify and kit.</summary>
    Kits,

    /// <summary>Take apart, every part a line.</summary>
    Strip,

    /// <summary>Clean.</summary>
    Cleaning,

    /// <summary>Gauge jets and emulsion tube.</summary>
    Gauging,

    /// <summary>Set float, needle and seat.</summary>
    Setting,

    /// <summary>Time the choke.</summary>
    Chokes,

    /// <summary>Put together, every line ended.</summary>
    Build,

    /// <summary>Prove on the bench.</summary>
    Proving,

    /// <summary>Hand back.</summary>
    Handover,
}
