using System.Security.Claims;
using System.Text.Json;
using BlueDawn.Core.Cleaning;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Cleaning;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;

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
        var work = file.Work;
        var spec = file.Tray.Spec?.Sheet;
        return new CleaningView(
            work.Cleaning,
            CleaningKnowledge.Shipped.Soils,
            [
                .. (spec?.Jets ?? []).Select(jet => Hole(jet.Label, jet.BoreMm, jet.ToleranceMm)),
                .. (spec?.EmulsionRows ?? []).Select(row => Hole($"Emulsion tube, row {row.Row}", row.BoreMm, row.ToleranceMm)),
            ],
            work.Cleans,
            work.IsWhole);
    }

    private static HoleView Hole(string label, decimal boreMm, decimal toleranceMm) =>
        new(label, boreMm, toleranceMm, ClearingTools.For((double)boreMm, (double)toleranceMm));
}

/// <summary>An entry about cleaning to record.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one entry.</param>
/// <param name="TakenAt">When, by the device's clock; never later than now.</param>
/// <param name="Note">The entry.</param>
internal sealed record NewCleaningNote(Guid Id, DateTimeOffset TakenAt, CleaningNote Note);

internal static class CleaningEndpoints
{
    public static void MapCleaning(this RouteGroupBuilder api)
    {
        var cleaning = api.MapGroup("/trays/{number:int}/cleaning").WithTags("Cleaning");
        cleaning.MapGet("", ShowAsync).WithName("getCleaning");
        cleaning.MapPost("", RecordAsync).WithName("recordCleaningNote").RequireAuthorization(PeopleSetup.AtTheBench);
    }

    private static async Task<Results<Ok<CleaningView>, ProblemHttpResult>> ShowAsync(int number, BlueDawnDb db, CancellationToken cancel) =>
        await TrayFile.OpenAsync(db, number, cancel) is { } file ? TypedResults.Ok(CleaningView.Of(file)) : Problem.NoTray(number);

    private static async Task<Results<Ok<CleaningView>, ValidationProblem, ProblemHttpResult>> RecordAsync(
        int number, NewCleaningNote input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, _) = await people.MeAsync(user);
        return await TrayWriting.AddOnceAsync(db, number, input.Id, before => Same(before.Cleaning, input.Note), async file =>
        {
            var knowledge = CleaningKnowledge.Shipped;
            if (file.Work.Cleaning.Check(input.Note, knowledge) is { Count: > 0 } problems)
            {
                return Problem.Fields(problems);
            }

            // While its basket is in the bath nobody rinses it.
            if (input.Note is DryNote && (await BathBook.StatesAsync(db, file.Shop.Cleaning, clock.GetUtcNow(), cancel)).SelectMany(state => state.Baskets).Any(basket => basket.Tray == number))
            {
                return Problem.Field("note", "Its basket is still in the bath. Take it out first.");
            }

            db.Log(input.Id, file.Tray, EntryKind.Cleaned, me, input.Note.Words(knowledge, knowledge.Passages(file.Tray.Family)), clock, input.TakenAt).Cleaning = input.Note;
            return null;
        }, CleaningView.Of, cancel);
    }

    private static bool Same(CleaningNote? before, CleaningNote now) =>
        before is not null && JsonSerializer.Serialize(before, StoreJson.Options) == JsonSerializer.Serialize(now, StoreJson.Options);
}
