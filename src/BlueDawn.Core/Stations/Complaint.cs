namespace BlueDawn.Core.Stations;

/// <summary>A trouble the owner came with, to be tried again before the machine goes.</summary>
/// <param name="Id">The finding the owner named, of data/faults/findings.csv; <see cref="Said"/> for words of the owner's own.</param>
/// <param name="Label">What it is called at the bench.</param>
public sealed record Complaint(string Id, string Label)
{
    /// <summary>The id of a complaint that is in the owner's words only.</summary>
    public const string Said = "said";

    /// <summary>The finding of a line on which it is gone.</summary>
    public const string Gone = "gone";

    /// <summary>The finding of a line on which it is still there.</summary>
    public const string StillThere = "stillThere";

    /// <summary>The line on which it is tried.</summary>
    public string LineKey => KeyOf(Id);

    /// <summary>The line on which a complaint is tried.</summary>
    /// <param name="id">The complaint's id.</param>
    public static string KeyOf(string id) => "proving/complaint-" + id;
}
