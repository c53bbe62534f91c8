namespace BlueDawn.Core.Catalogue;

/// <summary>What kind of thing is sold under one number.</summary>
public enum ItemKind
{
    /// <summary>A rebuild kit for certain carburetors.</summary>
    Kit,

    /// <summary>One part, alone or several of the same in a bag.</summary>
    Part,

    /// <summary>A box of many parts for many carburetors.</summary>
    Assortment,

    /// <summary>A whole carburetor from the carburetor's own maker.</summary>
    MakersCarburetor,

    /// <summary>A whole carburetor made by someone else to the same pattern.</summary>
    PatternCarburetor,
}

/// <summary>What a number is found on.</summary>
public enum MarkKind
{
    /// <summary>Stamped on the carburetor.</summary>
    Stamp,

    /// <summary>On the engine's plate: model and specification, written <c>model/specification</c>.</summary>
    Plate,
}

/// <summary>A number that an item is listed for.</summary>
/// <param name="Kind">Where the number is found.</param>
/// <param name="Maker">Who made the carburetor or the engine.</param>
/// <param name="Number">The number.</param>
public sealed record ListedMark(MarkKind Kind, string Maker, string Number);

/// <summary>A part in an item.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Quantity">How many.</param>
/// <param name="Features">What it is like.</param>
public sealed record ItemPart(string Part, int Quantity, IReadOnlyDictionary<string, string> Features);

/// <summary>A thing as sold: a kit, a part, an assortment or a whole carburetor.</summary>
/// <param name="Number">Its number, unique.</param>
/// <param name="Kind">What kind of thing.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Maker">Who makes it.</param>
/// <param name="ListedFor">Numbers its maker lists it for.</param>
/// <param name="Parts">What is in it; empty for a whole carburetor.</param>
public sealed record CatalogueItem(
    string Number,
    ItemKind Kind,
    string Name,
    string Maker,
    IReadOnlyList<ListedMark> ListedFor,
    IReadOnlyList<ItemPart> Parts
);

/// <summary>One number that took another's place.</summary>
/// <param name="Old">The number that is no longer made.</param>
/// <param name="New">What took its place.</param>
/// <param name="Changed">What changed, in words.</param>
public sealed record Supersession(string Old, string New, string Changed);

/// <summary>Follows numbers that took each other's place.</summary>
public static class Supersessions
{
    /// <summary>The chain from a number to the one that is made today; empty when it still is.</summary>
    /// <param name="number">The number to begin with.</param>
    /// <param name="all">Every supersession known; a number is superseded once at most.</param>
    /// <returns>The steps, oldest first. A circle in the data ends where it would begin again.</returns>
    public static IReadOnlyList<Supersession> Follow(string number, IReadOnlyDictionary<string, Supersession> all)
    {
        var chain = new List<Supersession>();
        var seen = new HashSet<string> { number };
        while (all.TryGetValue(number, out var step) && seen.Add(step.New))
        {
            chain.Add(step);
            number = step.New;
        }

        return chain;
    }
}
