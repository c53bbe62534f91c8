namespace BlueDawn.Core.Parts;

/// <summary>One piece of an item goes from the shelf into a tray's carburetor, or back.</summary>
/// <param name="Item">The item's number.</param>
/// <param name="Out">True when it leaves the shelf.</param>
public sealed record ShelfMove(string Item, bool Out);
