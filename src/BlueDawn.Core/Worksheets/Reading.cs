using System.Text.Json.Serialization;

namespace BlueDawn.Core.Worksheets;

/// <summary>A reading in base units, as it was understood. Each kind of line has its own.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Gauging.BoreReading), "bore")]
[JsonDerivedType(typeof(Setting.FloatHeightReading), "floatHeight")]
[JsonDerivedType(typeof(Setting.FloatMassReading), "floatMass")]
[JsonDerivedType(typeof(Setting.HoldReading), "hold")]
[JsonDerivedType(typeof(Proving.FuelWatchReading), "fuelWatch")]
[JsonDerivedType(typeof(Proving.SpeedReading), "speed")]
public abstract record Reading;

/// <summary>A typed reading that was understood, or what is wrong with it.</summary>
/// <param name="Reading">The reading, null when there are problems.</param>
/// <param name="Problems">What is wrong, field by field; empty when all is well.</param>
public sealed record ReadReading(Reading? Reading, IReadOnlyList<Measures.FieldProblem> Problems);
