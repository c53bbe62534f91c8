namespace BlueDawn.Core.Parts;

/// <summary>What a carburetor is proven by once it is together again: what was opened, taken off or mended says which of it is owed.</summary>
public enum Proof
{
    /// <summary>Fuel on and watched.</summary>
    Fuel,

    /// <summary>The idle speed.</summary>
    Idle,

    /// <summary>The governed speed.</summary>
    Governed,

    /// <summary>The choke tried.</summary>
    Choke,
}
