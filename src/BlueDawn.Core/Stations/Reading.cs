using System.Text.Json.Serialization;

namespace BlueDawn.Core.Stations;

/// <summary>A reading in base units, as it was understood. Each kind of line has its own.</summary>
public abstract record Reading
{
    /// <summary>Minutes after which the machine died, where that was timed: a proof has to run longer. Null for any other
    /// reading.</summary>
    [JsonIgnore]
    public virtual double? DiedAfterMin => null;

    /// <summary>Minutes the engine ran for it, where that was timed. Null for any other reading.</summary>
    [JsonIgnore]
    public virtual double? RanForMin => null;
}

/// <summary>A typed reading that was understood, or what is wrong with it.</summary>
/// <param name="Reading">The reading, null when there are problems.</param>
/// <param name="Problems">What is wrong, field by field; empty when all is well.</param>
public sealed record ReadReading(Reading? Reading, IReadOnlyList<Measures.FieldProblem> Problems);
