using BlueDawn.Core.Intake;

namespace BlueDawn.Store.Intake;

/// <summary>Whoever a machine belongs to.</summary>
public sealed class Owner
{
    /// <summary>Id, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>Name of the person, boat or stall.</summary>
    public string Name
    {
        get;
        set
        {
            field = value;
            Folded = Names.Folded(value);
            Near = [.. Names.Near(Folded)];
        }
    } = "";

    /// <summary>The name as <see cref="Names.Folded"/> has it; null until <see cref="NameFolding"/> has seen it.</summary>
    public string? Folded { get; private set; }

    /// <summary>What <see cref="Names.Near"/> has of it; null until <see cref="NameFolding"/> has seen it.</summary>
    public string[]? Near { get; private set; }

    /// <summary>How to reach them; may be empty.</summary>
    public string Contact { get; set; } = "";
}

/// <summary>A machine whose carburetor comes in.</summary>
public sealed class Machine
{
    /// <summary>Id, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>Its owner's id.</summary>
    public Guid OwnerId { get; set; }

    /// <summary>Its owner.</summary>
    public Owner Owner { get; set; } = null!;

    /// <summary>What it is and where it stands.</summary>
    public string Name
    {
        get;
        set
        {
            field = value;
            Folded = Names.Folded(value);
        }
    } = "";

    /// <summary>The name as <see cref="Names.Folded"/> has it; null until <see cref="NameFolding"/> has seen it.</summary>
    public string? Folded { get; private set; }
}
