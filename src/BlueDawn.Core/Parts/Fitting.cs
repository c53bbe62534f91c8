using BlueDawn.Core.Catalogue;

namespace BlueDawn.Core.Parts;

/// <summary>Something out of the catalogue that is fitted to a tray.</summary>
/// <param name="Number">The item's number.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Pieces">Pieces of it.</param>
/// <param name="FromShelf">True when it has been taken from the shelf; false while it is to be ordered.</param>
/// <param name="Parts">What is in one piece.</param>
public sealed record FittedItem(string Number, string Name, int Pieces, bool FromShelf, IReadOnlyList<ItemPart> Parts);

/// <summary>What has been decided to fit to a tray.</summary>
/// <param name="Option">Which option.</param>
/// <param name="What">What is fitted or done, in words.</param>
/// <param name="Items">Items out of the catalogue.</param>
/// <param name="Parts">Parts that are renewed by it.</param>
/// <param name="DonorId">The donor the parts come off, or null.</param>
/// <param name="PartsMoney">What the parts cost.</param>
public sealed record Fitting(
    FitOption Option,
    string What,
    IReadOnlyList<FittedItem> Items,
    IReadOnlyList<string> Parts,
    Guid? DonorId,
    decimal PartsMoney
)
{
    /// <summary>True while something has to be ordered for it.</summary>
    public bool ToOrder => Items.Any(item => !item.FromShelf);
}

/// <summary>What can be done about worn parts.</summary>
public enum FitOption
{
    /// <summary>Fit a kit.</summary>
    Kit,

    /// <summary>Fit only the parts that are worn.</summary>
    SingleParts,

    /// <summary>Fit a whole carburetor from the carburetor's own maker.</summary>
    MakersCarburetor,

    /// <summary>Fit a whole carburetor made by someone else to the same pattern.</summary>
    PatternCarburetor,

    /// <summary>Take the parts from a carburetor kept for parts.</summary>
    DonorPart,

    /// <summary>Make the parts: cut a gasket from sheet, a hose from the roll.</summary>
    MakeIt,

    /// <summary>Get by without mending the fault.</summary>
    Stopgap,

    /// <summary>Leave it: not worth the repair.</summary>
    Decline,

    /// <summary>Nothing new goes in: it is cleaned and goes back as it is.</summary>
    CleanAndRefit,
}
