namespace BlueDawn.Core.Stations;

/// <summary>Who tried or said something before it came in.</summary>
public enum ToldBy
{
    /// <summary>The owner.</summary>
    Owner,

    /// <summary>Another shop.</summary>
    AnotherShop,

    /// <summary>Somebody else.</summary>
    Somebody,
}

/// <summary>What came of something that was tried.</summary>
public enum TriedOutcome
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>It changed nothing.</summary>
    NoHelp,

    /// <summary>It helped for a while.</summary>
    ForAWhile,
}

/// <summary>Something that was put right, swapped or turned before it came in.</summary>
/// <param name="CauseId">The cause it was meant for.</param>
/// <param name="By">Who did it.</param>
/// <param name="On">The day, as far as it is known.</param>
/// <param name="Outcome">What came of it.</param>
public sealed record TriedFix(string CauseId, ToldBy By, DateOnly? On = null, TriedOutcome Outcome = TriedOutcome.NotSaid);

/// <summary>What somebody says is wrong. It is a hypothesis: it weighs nothing and is tested.</summary>
/// <param name="CauseId">The cause.</param>
/// <param name="By">Who says so.</param>
public sealed record OfferedCause(string CauseId, ToldBy By);
