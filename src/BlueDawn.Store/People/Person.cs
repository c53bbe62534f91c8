using BlueDawn.Core.Measures;
using Microsoft.AspNetCore.Identity;

namespace BlueDawn.Store.People;

/// <summary>Someone who works here and signs what they enter.</summary>
public sealed class Person : IdentityUser<Guid>
{
    /// <summary>The name that stands in the logbook.</summary>
    public string DisplayName { get; set; } = "";

    /// <summary>Up to four letters that stand for them where a name is too long.</summary>
    public string Initials { get; set; } = "";

    /// <summary>True when they cannot sign in any more; what they did stays.</summary>
    public bool LockedOut { get; set; }

    /// <summary>SHA-256 of the one-time code they can set a password with, in hexadecimal; null when there is none.</summary>
    public string? CodeHash { get; set; }

    /// <summary>Until when the code counts.</summary>
    public DateTimeOffset? CodeUntil { get; set; }

    /// <summary>The PIN they sign in with at a shared bench, hashed; null when they have none.</summary>
    public string? DoorPinHash { get; set; }

    /// <summary>Wrong tries at the PIN in a row.</summary>
    public int DoorPinTries { get; set; }

    /// <summary>The units this person reads and types in.</summary>
    public UnitSystem Units { get; set; }

    /// <summary>The pins this person owns, as they described them; see <see cref="Core.Measures.PinSet.Parse"/>.</summary>
    public string Pins { get; set; } = "";
}
