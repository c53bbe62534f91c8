using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stock;

namespace BlueDawn.Store.Stock;

/// <summary>Something that happened to an item's stock. Never edited; the shelf is the sum.</summary>
public sealed class StockMove
{
    /// <summary>Id made by the client, UUIDv7: sent twice, it is one move.</summary>
    public Guid Id { get; set; }

    /// <summary>The item.</summary>
    public Guid ItemId { get; set; }

    /// <summary>What happened.</summary>
    public StockMoveKind Kind { get; set; }

    /// <summary>How many; above 0, save for a count, which can go either way.</summary>
    public int Pieces { get; set; }

    /// <summary>The tray it was for, or null.</summary>
    public Guid? TrayId { get; set; }

    /// <summary>The donor it came off, or null.</summary>
    public Guid? DonorId { get; set; }

    /// <summary>Why, or who from; may be empty.</summary>
    public string Note { get; set; } = "";

    /// <summary>The order it belongs to, or null.</summary>
    public Guid? OrderId { get; set; }

    /// <summary>Who a piece that came bad was from; null where nobody knows, and for every other move.</summary>
    public string? Supplier { get; set; }

    /// <summary>Who moved it.</summary>
    public Guid PersonId { get; set; }

    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>What the moves of an item come to: a running sum, written with every move in the same transaction.</summary>
public sealed class ShelfRow
{
    /// <summary>The item.</summary>
    public Guid ItemId { get; set; }

    /// <summary>Pieces on hand.</summary>
    public int OnHand { get; set; }

    /// <summary>Pieces on order.</summary>
    public int OnOrder { get; set; }
}

/// <summary>A carburetor kept for its parts.</summary>
public sealed class DonorRow
{
    /// <summary>Id made by the client, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>What it is called on the shelf.</summary>
    public string Name { get; set; } = "";

    /// <summary>Its spec sheet, or null.</summary>
    public string? SpecCode { get; set; }

    /// <summary>What was on it when it was put on the shelf.</summary>
    public IReadOnlyList<ItemPart> Parts { get; set; } = [];

    /// <summary>When it was put there.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>A part that was taken off a donor. Never edited.</summary>
public sealed class DonorTaking
{
    /// <summary>Id, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>The donor.</summary>
    public Guid DonorId { get; set; }

    /// <summary>The part.</summary>
    public string Part { get; set; } = "";

    /// <summary>How many; below 0 when they were put back.</summary>
    public int Quantity { get; set; }

    /// <summary>The tray it went to, or null.</summary>
    public Guid? TrayId { get; set; }

    /// <summary>Who took it.</summary>
    public Guid PersonId { get; set; }

    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>What the shop fitted before it kept its book here, and how much of it came back.</summary>
public sealed class EarlierReturns
{
    /// <summary>What was fitted.</summary>
    public FitOption Option { get; set; }

    /// <summary>How many.</summary>
    public int Fitted { get; set; }

    /// <summary>How many of them came back.</summary>
    public int CameBack { get; set; }

    /// <summary>Where the count is from.</summary>
    public string Source { get; set; } = "";
}
