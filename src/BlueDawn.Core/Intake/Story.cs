namespace BlueDawn.Core.Intake;

/// <summary>How long a machine stood with fuel in.</summary>
public enum StoodFor
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>Days.</summary>
    Days,

    /// <summary>Weeks.</summary>
    Weeks,

    /// <summary>A season or more.</summary>
    SeasonOrMore,
}

/// <summary>Who worked on it before.</summary>
public enum WorkedOnBy
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>Nobody.</summary>
    Nobody,

    /// <summary>The owner.</summary>
    Owner,

    /// <summary>Another shop.</summary>
    AnotherShop,
}

/// <summary>How the oil was found at check-in.</summary>
public enum OilFound
{
    /// <summary>Not looked at.</summary>
    NotLooked,

    /// <summary>At its level, smells of oil.</summary>
    Fine,

    /// <summary>Over full, thin, or smells of fuel.</summary>
    FuelInIt,
}

/// <summary>What is said of the fuel in the tank.</summary>
public enum FuelSaid
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>Fresh.</summary>
    Fresh,

    /// <summary>Old.</summary>
    Old,
}

/// <summary>What was said and seen at check-in, for the trace. The story is evidence of limited weight.</summary>
/// <param name="Complaints">Findings the owner named.</param>
/// <param name="StoodFor">How long it stood.</param>
/// <param name="WorkedOnBy">Who worked on it.</param>
/// <param name="Oil">How the oil was found.</param>
/// <param name="Fuel">What is said of the fuel.</param>
public sealed record Story(IReadOnlyList<string> Complaints, StoodFor StoodFor, WorkedOnBy WorkedOnBy, OilFound Oil, FuelSaid Fuel);
