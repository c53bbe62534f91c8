using BlueDawn.Core.Kits;

namespace BlueDawn.Store.Kits;

/// <summary>A kit the shop can fit.</summary>
public sealed class Kit
{
    /// <summary>Id, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>What is in it and what it is listed for.</summary>
    public KitContents Contents { get; set; } = null!;

    /// <summary>Its number, unique.</summary>
    public string Number { get; set; } = "";

    /// <summary>Price in the shop's currency.</summary>
    public decimal Price { get; set; }
}

/// <summary>Kits put on the shelf or taken off it. Never edited; the shelf is the sum.</summary>
public sealed class StockMove
{
    /// <summary>Id, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>The kit.</summary>
    public Guid KitId { get; set; }

    /// <summary>Pieces put on (positive) or taken off (negative).</summary>
    public int Pieces { get; set; }

    /// <summary>The tray it was for, or null.</summary>
    public Guid? TrayId { get; set; }

    /// <summary>Who moved it.</summary>
    public Guid PersonId { get; set; }

    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}
