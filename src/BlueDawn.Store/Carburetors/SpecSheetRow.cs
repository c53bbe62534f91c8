using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;

namespace BlueDawn.Store.Carburetors;

/// <summary>A spec sheet on file.</summary>
public sealed class SpecSheetRow
{
    /// <summary>Its code, such as <c>FB18</c>.</summary>
    public string Code { get; set; } = "";

    /// <summary>The sheet.</summary>
    public SpecSheet Sheet { get; set; } = null!;

    /// <summary>Changes with every write of the row: PostgreSQL's xmin.</summary>
    public uint Version { get; set; }
}

/// <summary>How a maker writes the day a carburetor was made.</summary>
public sealed class DateCodeRow
{
    /// <summary>The maker.</summary>
    public string Maker { get; set; } = "";

    /// <summary>The pattern.</summary>
    public Core.Kits.DateCodePattern Code { get; set; } = null!;
}

/// <summary>The shop's defaults; one row.</summary>
public sealed class ShopRow
{
    /// <summary>Always 1.</summary>
    public int Id { get; set; } = 1;

    /// <summary>The defaults.</summary>
    public ShopDefaults Defaults { get; set; } = null!;

    /// <summary>Changes with every write of the row: PostgreSQL's xmin.</summary>
    public uint Version { get; set; }
}
