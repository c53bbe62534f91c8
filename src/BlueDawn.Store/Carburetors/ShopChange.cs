namespace BlueDawn.Store.Carburetors;

/// <summary>What was changed about the shop itself: a rule, a sheet, a person. Append-only.</summary>
public sealed class ShopChange
{
    /// <summary>Its id, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Who changed it, by the name they had then.</summary>
    public string By { get; set; } = "";

    /// <summary>What it was about, such as <c>rule/fuelWatchMin</c>, <c>sheet/FB18</c> or <c>person/ilse</c>.</summary>
    public string About { get; set; } = "";

    /// <summary>What happened, in words.</summary>
    public string What { get; set; } = "";

    /// <summary>Why; empty when nothing was said.</summary>
    public string Why { get; set; } = "";
}
