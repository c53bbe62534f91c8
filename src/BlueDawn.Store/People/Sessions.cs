namespace BlueDawn.Store.People;

/// <summary>A device on which somebody is signed in. A cookie without its row is worth nothing.</summary>
public sealed class DeviceSession
{
    /// <summary>Its id; the cookie names it.</summary>
    public Guid Id { get; set; }

    /// <summary>Who is signed in.</summary>
    public Guid PersonId { get; set; }

    /// <summary>What the browser calls itself, cut to <see cref="LongestDevice"/> letters.</summary>
    public string Device { get; set; } = "";

    /// <summary>The address it signed in from.</summary>
    public string Address { get; set; } = "";

    /// <summary>When it signed in.</summary>
    public DateTimeOffset SignedInAt { get; set; }

    /// <summary>When it was last heard of, to the hour.</summary>
    public DateTimeOffset SeenAt { get; set; }

    /// <summary>True when it was opened by PIN: then what needs a lead is shut until the password has been given.</summary>
    public bool ByPin { get; set; }

    /// <summary>Most letters of <see cref="Device"/>.</summary>
    public const int LongestDevice = 200;
}

/// <summary>A shared device that a lead trusts: on it people sign in by PIN. A cookie without its row is worth nothing.</summary>
public sealed class SharedBench
{
    /// <summary>Its id; the cookie names it.</summary>
    public Guid Id { get; set; }

    /// <summary>What it is called, such as "Tablet by the bath".</summary>
    public string Label { get; set; } = "";

    /// <summary>Who trusts it.</summary>
    public string TrustedBy { get; set; } = "";

    /// <summary>Since when.</summary>
    public DateTimeOffset TrustedAt { get; set; }
}

/// <summary>How often something has been tried at the door since a moment: a name, an address, or both together.</summary>
public sealed class SignInTry
{
    /// <summary>What is counted.</summary>
    public string Key { get; set; } = "";

    /// <summary>How often.</summary>
    public int Tries { get; set; }

    /// <summary>Since when.</summary>
    public DateTimeOffset Since { get; set; }
}
