using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;

namespace BlueDawn.Store.Carburetors;

/// <summary>One issue of a spec sheet. What was judged by it stays judged by it: an issue is never changed.</summary>
public sealed class SpecSheetRow
{
    /// <summary>Its code, such as <c>FB18</c>.</summary>
    public string Code { get; set; } = "";

    /// <summary>Its issue, from 1.</summary>
    public int Issue { get; set; }

    /// <summary>True for the issue that is chosen from now on; false for earlier ones and for a sheet that was retired.</summary>
    public bool Current { get; set; } = true;

    /// <summary>When it was made; null for one that came with the shop.</summary>
    public DateTimeOffset? MadeAt { get; set; }

    /// <summary>Who made it; null for one that came with the shop.</summary>
    public string? MadeBy { get; set; }

    /// <summary>What was changed and why; empty when nothing was said.</summary>
    public string Why { get; set; } = "";

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

    /// <summary>The shop's name; empty while nobody has given it one.</summary>
    public string Name { get; set; } = "";

    /// <summary>Its time zone by its IANA name; empty for the clock of the server.</summary>
    public string TimeZone { get; set; } = "";

    /// <summary>True for the demo shop, whose names and password stand on the sign-in page.</summary>
    public bool Demo { get; set; }

    /// <summary>The defaults.</summary>
    public ShopDefaults Defaults { get; set; } = null!;

    /// <summary>Which version of its knowledge stands; 0 for everything as it ships.</summary>
    public int KnowledgeVersion { get; set; }

    /// <summary>Changes with every write of the row: PostgreSQL's xmin.</summary>
    public uint Version { get; set; }
}
