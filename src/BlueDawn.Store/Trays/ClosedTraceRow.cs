using BlueDawn.Core.Carburetors;

namespace BlueDawn.Store.Trays;

/// <summary>
/// In how many trays the shop has confirmed a cause, counted by a trigger as it confirms them: a trace reads as many rows
/// after ten thousand trays as after ten.
/// </summary>
public sealed class ClosedTraceRow
{
    /// <summary>The family.</summary>
    public CarburetorFamily Family { get; set; }

    /// <summary>The spec sheet's code; empty for trays without one.</summary>
    public string SpecCode { get; set; } = "";

    /// <summary>The cause; empty for the trays themselves, whatever was confirmed on them.</summary>
    public string Cause { get; set; } = "";

    /// <summary>How many trays.</summary>
    public int Trays { get; set; }
}
