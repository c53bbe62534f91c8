namespace BlueDawn.Core.Parts;

/// <summary>One piece of an item goes from the shelf into a tray's carburetor, or back.</summary>
/// <param name="Item">The item's number.</param>
/// <param name="Out">True when it leaves the shelf.</param>
public sealed record ShelfMove(string Item, bool Out)
{
    /// <summary>What is wrong with a piece that came bad: it does not go back on the shelf. Null for one that is sound.</summary>
    public string? Bad { get; init; }

    /// <summary>Who it came from, as far as that was said; null otherwise.</summary>
    public string? Supplier { get; init; }
}
