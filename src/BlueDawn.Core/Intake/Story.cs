using BlueDawn.Core.Faults;

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
public sealed record Story(IReadOnlyList<string> Complaints, StoodFor StoodFor, WorkedOnBy WorkedOnBy, OilFound Oil, FuelSaid Fuel)
{
    /// <summary>The story as notes of the trace: what the owner said, then what was seen.</summary>
    public IReadOnlyList<FindingsNote> Notes()
    {
        var said = Complaints.Distinct().Select(id => new FindingAnswer(id, Said.Present)).ToList();
        if (StoodFor != StoodFor.NotSaid)
        {
            said.Add(new("stood-unused", StoodFor == StoodFor.SeasonOrMore ? Said.Present : Said.Absent));
        }

        if (WorkedOnBy != WorkedOnBy.NotSaid)
        {
            said.Add(new("earlier-work", WorkedOnBy == WorkedOnBy.Nobody ? Said.Absent : Said.Present));
        }

        if (Fuel != FuelSaid.NotSaid)
        {
            said.Add(new("fuel-smells-stale", Fuel == FuelSaid.Old ? Said.Present : Said.Absent, Doubtful: true));
        }

        var notes = new List<FindingsNote>();
        if (said.Count > 0)
        {
            notes.Add(new FindingsNote("owner-story", said, FromOwner: true));
        }

        if (Oil != OilFound.NotLooked)
        {
            notes.Add(new FindingsNote("oil-check", [new("fuel-in-oil", Oil == OilFound.FuelInIt ? Said.Present : Said.Absent)]));
        }

        return notes;
    }
}
