namespace BlueDawn.Core.Stations;

/// <summary>What a tray waits for: the one thing that would move it on.</summary>
public enum WaitsFor
{
    /// <summary>A technician's hands.</summary>
    Hands,

    /// <summary>The cleaning bath or a soak.</summary>
    Bath,

    /// <summary>Parts on order.</summary>
    Parts,

    /// <summary>A seat or plunger to bed in.</summary>
    BedIn,

    /// <summary>A run on the pad.</summary>
    RunUp,

    /// <summary>The owner's answer.</summary>
    Owner,

    /// <summary>Nothing: handed back.</summary>
    HandedBack,
}
