using BlueDawn.Core.Catalogue;

namespace BlueDawn.Store.Catalogue;

/// <summary>A thing as sold.</summary>
public sealed class ItemRow
{
    /// <summary>Id.</summary>
    public Guid Id { get; set; }

    /// <summary>Its number, unique.</summary>
    public string Number { get; set; } = "";

    /// <summary>What kind of thing.</summary>
    public ItemKind Kind { get; set; }

    /// <summary>What it is called.</summary>
    public string Name { get; set; } = "";

    /// <summary>Who makes it; may be empty.</summary>
    public string Maker { get; set; } = "";

    /// <summary>What is in it.</summary>
    public List<ItemContent> Contents { get; set; } = [];

    /// <summary>What it is listed for.</summary>
    public List<ItemFit> Fits { get; set; } = [];

    /// <summary>Who sells it.</summary>
    public List<OfferRow> Offers { get; set; } = [];
}

/// <summary>
/// A part with certain features. Items share them: a million lines of contents speak of a few thousand parts, so what
/// fits is judged once for each.
/// </summary>
public sealed class PartVariant
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>Which part.</summary>
    public string Part { get; set; } = "";

    /// <summary>Its features in their written form, see <see cref="FeatureText"/>.</summary>
    public string Features { get; set; } = "";

    /// <summary>In how many items it is; kept by the import, used to look the rarest up first.</summary>
    public int Uses { get; set; }
}

/// <summary>A part in an item.</summary>
public sealed class ItemContent
{
    /// <summary>The item.</summary>
    public Guid ItemId { get; set; }

    /// <summary>The part.</summary>
    public int VariantId { get; set; }

    /// <summary>The part.</summary>
    public PartVariant Variant { get; set; } = null!;

    /// <summary>How many.</summary>
    public int Quantity { get; set; }
}

/// <summary>A number an item is listed for.</summary>
public sealed class ItemFit
{
    /// <summary>The item.</summary>
    public Guid ItemId { get; set; }

    /// <summary>Where the number is found.</summary>
    public MarkKind Kind { get; set; }

    /// <summary>Who made the carburetor or engine.</summary>
    public string Maker { get; set; } = "";

    /// <summary>The number as it is listed.</summary>
    public string Number { get; set; } = "";

    /// <summary>The number with look-alikes put as one, see <see cref="Core.Kits.Stamp.Fold(string?)"/>.</summary>
    public string Folded { get; set; } = "";
}

/// <summary>A number that took another's place.</summary>
public sealed class SupersessionRow
{
    /// <summary>The number that is no longer made.</summary>
    public string Old { get; set; } = "";

    /// <summary>What took its place.</summary>
    public string New { get; set; } = "";

    /// <summary>What changed.</summary>
    public string Changed { get; set; } = "";
}

/// <summary>A supplier.</summary>
public sealed class SupplierRow
{
    /// <summary>Its name.</summary>
    public string Name { get; set; } = "";

    /// <summary>Freight of one order.</summary>
    public decimal Freight { get; set; }
}

/// <summary>What a supplier asks for an item.</summary>
public sealed class OfferRow
{
    /// <summary>The supplier.</summary>
    public string Supplier { get; set; } = "";

    /// <summary>The item.</summary>
    public Guid ItemId { get; set; }

    /// <summary>Pieces in a pack.</summary>
    public int PackPieces { get; set; }

    /// <summary>Price of a pack.</summary>
    public decimal PackPrice { get; set; }

    /// <summary>Days until it comes.</summary>
    public int LeadDays { get; set; }
}
