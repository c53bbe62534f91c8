namespace BlueDawn.Core.Carburetors;

/// <summary>The kinds of carburetor the bench knows.</summary>
public enum CarburetorFamily
{
    /// <summary>An inlet needle closed by a float keeps a bowl at level.</summary>
    FloatBowl,

    /// <summary>A diaphragm works the inlet needle; runs in any position.</summary>
    Diaphragm,

    /// <summary>Stands on the tank and lifts fuel through pickup pipes.</summary>
    SuctionTank,
}

/// <summary>The kinds of engine.</summary>
public enum EngineKind
{
    /// <summary>Four-stroke: oil in a sump.</summary>
    FourStroke,

    /// <summary>Two-stroke: oil in the fuel, the case part of the fuel's way.</summary>
    TwoStroke,
}

/// <summary>The kinds of choke.</summary>
public enum ChokeKind
{
    /// <summary>Set and released by hand.</summary>
    Manual,

    /// <summary>Closed at rest, pulled open by intake vacuum on a diaphragm.</summary>
    Vacuum,

    /// <summary>Pushed open by a pellet or strip as the exhaust warms it.</summary>
    Heat,

    /// <summary>Set by hand, let go by the run lever.</summary>
    Lever,
}

/// <summary>What kind of carburetor is on the tray and what it feeds.</summary>
/// <param name="Family">Its family.</param>
/// <param name="Engine">The engine it feeds, or null when not known.</param>
/// <param name="Choke">Its choke, or null when not known.</param>
public sealed record CarburetorKind(CarburetorFamily Family, EngineKind? Engine, ChokeKind? Choke);
