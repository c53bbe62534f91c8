using BlueDawn.Core.Cleaning;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Cleaning;

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
    public static CleaningView Of(TrayFile file)
    {
        var state = file.Book.State<CleaningState>();
        var spec = file.Book.Sheet;
        return new CleaningView(
            state.Plan,
            CleaningKnowledge.Shipped.Soils,
            [
                .. (spec?.Jets ?? []).Select(jet => Hole(jet.Label, jet.BoreMm, jet.ToleranceMm)),
                .. (spec?.EmulsionRows ?? []).Select(row => Hole($"Emulsion tube, row {row.Row}", row.BoreMm, row.ToleranceMm)),
            ],
            state.Cleans,
            state.IsWhole);
    }

    private static HoleView Hole(string label, decimal boreMm, decimal toleranceMm) =>
        new(label, boreMm, toleranceMm, ClearingTools.For((double)boreMm, (double)toleranceMm));
}

internal static class CleaningEndpoints
{
    public static void MapCleaning(this RouteGroupBuilder api) => api.MapGet("/trays/{number:int}/cleaning", ShowAsync).WithName("getCleaning").WithSummary("How a tray is to be cleaned").WithTags("Cleaning");

    private static async Task<Results<Ok<CleaningView>, ProblemHttpResult>> ShowAsync(int number, BlueDawnDb db, Me me, CancellationToken cancel) =>
        await TrayFile.OpenAsync(db, number, me.Desk, cancel) is { } file ? TypedResults.Ok(CleaningView.Of(file)) : Problem.NoTray(number);
}
