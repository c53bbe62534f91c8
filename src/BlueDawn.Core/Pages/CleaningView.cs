using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Pages;

/// <summary>Which tools clear a hole of the spec sheet.</summary>
/// <param name="Label">The hole.</param>
/// <param name="BoreMm">Its nominal bore.</param>
/// <param name="ToleranceMm">Allowed either way.</param>
/// <param name="Choices">What of each kind goes in, and what would spoil it.</param>
internal sealed record HoleView(string Label, decimal BoreMm, decimal ToleranceMm, IReadOnlyList<ClearingChoice> Choices);

/// <summary>How a tray is cleaned, as its page needs it.</summary>
/// <param name="Plan">Ways to clean and passages.</param>
/// <param name="Soils">Kinds of dirt there are.</param>
/// <param name="Holes">Which tools clear which hole.</param>
/// <param name="Cleans">Whether anything is to be cleaned.</param>
/// <param name="Whole">Whether every passage is looked through.</param>
internal sealed record CleaningView(CleaningPlan Plan, IReadOnlyList<Soil> Soils, IReadOnlyList<HoleView> Holes, bool Cleans, bool Whole)
{
    public static CleaningView Of(TrayBook tray)
    {
        var state = tray.State<CleaningState>();
        var spec = tray.Sheet;
        return new CleaningView(
            state.Plan,
            tray.Knowledge.Of<CleaningKnowledge>().Soils,
            [
                .. (spec?.Jets ?? []).Select(jet => Hole(jet.Label, jet.BoreMm, jet.ToleranceMm)),
                .. (spec?.EmulsionRows ?? []).Select(row => Hole($"Emulsion tube, row {row.Row}", row.BoreMm, row.ToleranceMm)),
            ],
            state.Cleans,
            state.IsWhole
        );
    }

    private static HoleView Hole(string label, decimal boreMm, decimal toleranceMm) =>
        new(label, boreMm, toleranceMm, ClearingTools.For((double)boreMm, (double)toleranceMm));
}
