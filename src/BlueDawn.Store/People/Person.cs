using BlueDawn.Core.Measures;
using Microsoft.AspNetCore.Identity;

namespace BlueDawn.Store.People;

/// <summary>Someone who works here and signs what they enter.</summary>
public sealed class Person : IdentityUser<Guid>
{
    /// <summary>The name that stands in the logbook.</summary>
    public string DisplayName { get; set; } = "";

    /// <summary>The units this person reads and types in.</summary>
    public UnitSystem Units { get; set; }

    /// <summary>The pins this person owns, as they described them; see <see cref="Core.Gauging.PinSet.Parse"/>.</summary>
    public string Pins { get; set; } = "";
}

/// <summary>What a person may do.</summary>
public static class Roles
{
    /// <summary>Works at the bench: records readings, chooses kits, hands back what is in order.</summary>
    public const string Technician = "technician";

    /// <summary>All that a technician may, and signs for what is handed back with something open.</summary>
    public const string Lead = "lead";

    /// <summary>Checks in, answers owners, changes promised days; takes no readings.</summary>
    public const string FrontDesk = "front-desk";

    /// <summary>All roles.</summary>
    public static IReadOnlyList<string> All { get; } = [Technician, Lead, FrontDesk];
}
