using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Parts;

/// <summary>Where a new part came from that was neither chosen at Kit nor lay on the shelf.</summary>
public enum Origin
{
    /// <summary>Bought over the counter, for this tray.</summary>
    OverTheCounter,

    /// <summary>The owner brought it.</summary>
    BroughtByOwner,

    /// <summary>Cut off a roll or out of a box by the hundred.</summary>
    OffARoll,

    /// <summary>Lay in a drawer and is on no list.</summary>
    OutOfADrawer,
}

/// <summary>A new part that no kit and no shelf had.</summary>
/// <param name="Origin">Where it came from.</param>
/// <param name="What">What it is, in the technician's words: what is on it, its size, its material.</param>
/// <param name="FromWhom">Who sold or brought it, or null.</param>
/// <param name="Price">What it cost, in the shop's currency with at most two decimals; null when nobody said.</param>
public sealed record Elsewhere(Origin Origin, string What, string? FromWhom = null, decimal? Price = null)
{
    private const int ShortestWhat = 3;
    private const int LongestText = 200;
    private const decimal MostPrice = 100_000;

    /// <summary>Where it came from, for the middle of a sentence.</summary>
    internal string OriginWords =>
        Origin switch
        {
            Origin.OverTheCounter => "bought over the counter",
            Origin.BroughtByOwner => "brought by the owner",
            Origin.OffARoll => "cut off the roll",
            Origin.OutOfADrawer => "out of the drawer",
        };

    /// <summary>What is wrong with it, field by field; empty when it can be recorded.</summary>
    public IEnumerable<FieldProblem> Problems()
    {
        if (What.Trim().Length < ShortestWhat)
        {
            yield return new("note.elsewhere.what", "Say what it is: what is on it, its size, what it is made of.");
        }
        else if (What.Length > LongestText)
        {
            yield return new("note.elsewhere.what", $"Longer than {LongestText} characters. Shorten it.");
        }

        if (FromWhom?.Length > LongestText)
        {
            yield return new("note.elsewhere.fromWhom", $"Longer than {LongestText} characters. Shorten it.");
        }

        if (Price is { } price && (price is < 0 or > MostPrice || decimal.Round(price, 2) != price))
        {
            yield return new("note.elsewhere.price", $"Give a price from 0 to {MostPrice:0}, with at most two decimals.");
        }
    }
}
