
namespace BlueDawn.Core.Stations;

/// <summary>A reading in base units, as it was understood. Each kind of line has its own.</summary>
public abstract record Reading;

/// <summary>A typed reading that was understood, or what is wrong with it.</summary>
/// <param name="Reading">The reading, null when there are problems.</param>
/// <param name="Problems">What is wrong, field by field; empty when all is well.</param>
public sealed record ReadReading(Reading? Reading, IReadOnlyList<Measures.FieldProblem> Problems);
