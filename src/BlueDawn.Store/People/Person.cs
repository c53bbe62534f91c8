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

    /// <summary>The pins this person owns, as they described them; see <see cref="Core.Measures.PinSet.Parse"/>.</summary>
    public string Pins { get; set; } = "";
}
