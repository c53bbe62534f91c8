using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

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

/// <summary>When it does what is complained of.</summary>
public enum Occurs
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>Cold and warm.</summary>
    Always,

    /// <summary>Only cold.</summary>
    OnlyCold,

    /// <summary>Only warm.</summary>
    OnlyWarm,
}

/// <summary>What is in the tank.</summary>
public enum FuelKind
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>Petrol without alcohol.</summary>
    Petrol,

    /// <summary>Petrol with alcohol: it draws water, and hardens old rubber.</summary>
    WithAlcohol,

    /// <summary>Petrol and oil, for a two-stroke.</summary>
    Mix,
}

/// <summary>Whose machine it is: it says how far to go.</summary>
public enum Whose
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>A customer's.</summary>
    Customers,

    /// <summary>The shop's own.</summary>
    Shops,

    /// <summary>Bought or found, to be sold on.</summary>
    ToSell,
}

/// <summary>Where the oil stood.</summary>
public enum OilLevel
{
    /// <summary>Not said.</summary>
    NotSaid,

    /// <summary>Below its mark.</summary>
    Below,

    /// <summary>At its mark.</summary>
    AtMark,

    /// <summary>Above its mark.</summary>
    Above,
}

/// <summary>What was said and seen at check-in, for the trace. The story is evidence of limited weight.</summary>
/// <param name="Complaints">Findings the owner named.</param>
/// <param name="StoodFor">How long it stood.</param>
/// <param name="WorkedOnBy">Who worked on it.</param>
/// <param name="Oil">How the oil was found.</param>
/// <param name="Fuel">What is said of the fuel.</param>
/// <param name="Occurs">When it does what is complained of.</param>
/// <param name="FailsAfterMin">Minutes after which it fails, or null.</param>
/// <param name="FuelKind">What is in the tank.</param>
/// <param name="FuelAgeDays">How old the fuel is, in days, or null.</param>
/// <param name="TankThenML">Fuel in the tank when it was last seen, in millilitres, or null.</param>
/// <param name="TankNowML">Fuel in it now, or null.</param>
/// <param name="OilThen">Where the oil stood when it was last read.</param>
/// <param name="AgeYears">Age of the machine in years, or null.</param>
/// <param name="Hours">Hours it has run, or null.</param>
/// <param name="Whose">Whose machine it is.</param>
/// <param name="Tried">What was tried before it came in; null for nothing.</param>
/// <param name="Offered">What somebody says is wrong; null for nothing.</param>
public sealed record Story(
    IReadOnlyList<string> Complaints,
    StoodFor StoodFor,
    WorkedOnBy WorkedOnBy,
    OilFound Oil,
    FuelSaid Fuel,
    Occurs Occurs = Occurs.NotSaid,
    double? FailsAfterMin = null,
    FuelKind FuelKind = FuelKind.NotSaid,
    double? FuelAgeDays = null,
    double? TankThenML = null,
    double? TankNowML = null,
    OilLevel OilThen = OilLevel.NotSaid,
    double? AgeYears = null,
    double? Hours = null,
    Whose Whose = Whose.NotSaid,
    IReadOnlyList<TriedFix>? Tried = null,
    IReadOnlyList<OfferedCause>? Offered = null
)
{
    /// <summary>What is wrong with its numbers and days, field by field; empty when it can be kept.</summary>
    /// <param name="today">The day it comes in.</param>
    public IReadOnlyList<FieldProblem> Check(DateOnly today)
    {
        var problems = new List<FieldProblem>();
        void Within(double? value, double least, double most, string field, string unit)
        {
            if (value is { } given && !(given >= least && given <= most))
            {
                problems.Add(new("story." + field, $"From {least} to {most} {unit}. Check the number."));
            }
        }

        Within(FailsAfterMin, 0.05, 600, "failsAfterMin", "minutes");
        Within(FuelAgeDays, 0, 10_000, "fuelAgeDays", "days");
        Within(TankThenML, 0, 100_000, "tankThenML", "ml");
        Within(TankNowML, 0, 100_000, "tankNowML", "ml");
        Within(AgeYears, 0, 150, "ageYears", "years");
        Within(Hours, 0, 100_000, "hours", "hours");
        for (var i = 0; i < Tried?.Count; i++)
        {
            if (Tried[i].On > today)
            {
                problems.Add(new($"story.tried[{i}].on", "That day has not come yet."));
            }
        }

        return problems;
    }
}
