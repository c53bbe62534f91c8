namespace BlueDawn.Core.Carburetors;

/// <summary>A part the carburetor needs.</summary>
/// <param name="Part">Which part, such as <c>bowl gasket</c>.</param>
/// <param name="Quantity">How many, 1 or more.</param>
/// <param name="Features">What must agree, such as thickness <c>1.5 mm</c>; empty when any will do.</param>
public sealed record PartNeed(string Part, int Quantity, IReadOnlyDictionary<string, string> Features);
