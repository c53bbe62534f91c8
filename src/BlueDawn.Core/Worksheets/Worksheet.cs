using BlueDawn.Core.Gauging;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Setting;

namespace BlueDawn.Core.Worksheets;

/// <summary>All gauge lines of a tray.</summary>
public static class Worksheet
{
    /// <summary>The lines a spec sheet asks for, in bench order.</summary>
    /// <param name="spec">The spec sheet.</param>
    /// <param name="shop">The shop's defaults, used where the sheet says nothing.</param>
    public static IReadOnlyList<WorksheetLine> For(SpecSheet spec, ShopDefaults shop)
    {
        var specName = $"Spec sheet {spec.Code}, issue {spec.Issue}";
        var lines = new List<WorksheetLine>();
        lines.AddRange(spec.Jets.Select(jet =>
            new BoreLine($"gauging/{jet.Key}", "Jets", jet.Label, jet.BoreMm, jet.ToleranceMm, null, specName)));
        lines.AddRange(spec.EmulsionRows.OrderBy(row => row.Row).Select(row =>
            new BoreLine($"gauging/emulsion-row-{row.Row}", "Emulsion tube, from the top", $"Row {row.Row}", row.BoreMm, row.ToleranceMm, row.Holes, specName)));
        if (spec.Float is { } limits)
        {
            if (limits.DryMassG is { } dry)
            {
                lines.Add(new FloatMassLine(dry, limits.MassToleranceG, specName));
            }

            lines.Add(new FloatHeightLine(limits, specName));
        }

        lines.Add(new HoldLine(spec.Hold ?? shop.Hold, spec.Hold is null ? "Shop default for float types" : specName));
        lines.Add(new FuelWatchLine(shop.FuelWatchMin));
        if (spec.IdleSpeed is { } idle)
        {
            lines.Add(new SpeedLine("proving/idle-speed", "Idle speed", idle, "Turn the idle-speed screw in a little and read again.", "Turn the idle-speed screw out a little and read again.", specName));
        }

        if (spec.GovernedSpeed is { } governed)
        {
            lines.Add(new SpeedLine("proving/governed-speed", "Governed speed", governed, "Move the spring tang for more tension, never the governor arm, and read again.", "Move the spring tang for less tension, never the governor arm, and read again.", specName));
        }

        return lines;
    }
}

/// <summary>A line with its standing reading and what that says.</summary>
/// <param name="Line">The line.</param>
/// <param name="Reading">The standing reading, or null.</param>
/// <param name="Judgement">What it says.</param>
public sealed record JudgedLine(WorksheetLine Line, Reading? Reading, Judgement Judgement)
{
    /// <summary>True while the line still needs hands: nothing read, not good, or not decided.</summary>
    public bool IsOpen => Line.Required && Judgement.Verdict != Verdict.Good;
}
