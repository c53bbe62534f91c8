namespace BlueDawn.Core.Carburetors;

/// <summary>Which carburetors and engines something applies to.</summary>
/// <param name="Families">Carburetor families.</param>
/// <param name="Engines">Kinds of engine.</param>
/// <param name="Chokes">Kinds of choke; empty for any.</param>
public sealed record AppliesTo(IReadOnlyList<CarburetorFamily> Families, IReadOnlyList<EngineKind> Engines, IReadOnlyList<ChokeKind> Chokes)
{
    /// <summary>Whether it applies. What is not known about a carburetor does not exclude anything.</summary>
    public bool Matches(CarburetorKind kind) =>
        Families.Contains(kind.Family)
        && (kind.Engine is not { } engine || Engines.Contains(engine))
        && (Chokes.Count == 0 || kind.Choke is not { } choke || Chokes.Contains(choke));
}
