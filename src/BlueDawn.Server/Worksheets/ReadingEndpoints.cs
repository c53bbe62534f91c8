using System.Security.Claims;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Worksheets;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Worksheets;

/// <summary>A reading to record.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one entry.</param>
/// <param name="LineKey">The gauge line.</param>
/// <param name="TakenAt">When it was taken, by the device's clock; never later than now.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Supersedes">The entry this one corrects, or null for a fresh reading.</param>
internal sealed record NewReading(Guid Id, string LineKey, DateTimeOffset TakenAt, TypedReading Typed, Guid? Supersedes = null);

/// <summary>A reading to take back.</summary>
internal sealed record Withdrawal(Guid Id, DateTimeOffset TakenAt, Guid Supersedes);

/// <summary>What is being typed.</summary>
internal sealed record ReadingDraft(string LineKey, TypedReading Typed);

/// <summary>What a draft would say.</summary>
/// <param name="Reading">The reading in base units, or null while it cannot be read.</param>
/// <param name="Judgement">The verdict, or null while it cannot be read.</param>
/// <param name="Problems">What is wrong with it, field by field.</param>
internal sealed record DraftJudgement(Reading? Reading, Judgement? Judgement, IReadOnlyList<FieldProblem> Problems);

internal static class ReadingEndpoints
{
    public static void MapReadings(this RouteGroupBuilder api)
    {
        var readings = api.MapGroup("/trays/{number:int}/readings").WithTags("Readings").RequireAuthorization(PeopleSetup.AtTheBench);
        readings.MapPost("", RecordAsync).WithName("recordReading");
        readings.MapPost("/withdrawal", WithdrawAsync).WithName("withdrawReading");
        readings.MapPost("/draft", JudgeDraftAsync).WithName("judgeDraft");
    }

    private static async Task<Results<Ok<DraftJudgement>, ProblemHttpResult>> JudgeDraftAsync(
        int number, ReadingDraft draft, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, CancellationToken cancel)
    {
        var (_, pins) = await people.MeAsync(user);
        var spec = await db.Trays.Where(tray => tray.Number == number).Select(tray => tray.Spec!.Sheet).AsNoTracking().SingleOrDefaultAsync(cancel);
        var line = FindLine(spec, await TrayFile.ShopAsync(db, cancel), draft.LineKey);
        if (line is null)
        {
            return NoLine(number);
        }

        var read = line.Read(draft.Typed);
        return TypedResults.Ok(new DraftJudgement(read.Reading, read.Reading is null ? null : line.Judge(read.Reading, pins), read.Problems));
    }

    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> RecordAsync(
        int number, NewReading input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (await SentBeforeAsync(db, file, input.Id, pins, entry => entry.LineKey == input.LineKey && SameTyped(entry.Typed, input.Typed), cancel) is { } before)
        {
            return before;
        }

        if (TrayWriting.RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        if (FindLine(file.Tray.Spec?.Sheet, file.Shop, input.LineKey) is not { } line)
        {
            return NoLine(number);
        }

        if (line.Station == Station.Proving && file.Work.WhyNotProven is { } why)
        {
            return Problem.Conflict("Not to be proven yet.", why);
        }

        var read = line.Read(input.Typed);
        if (read.Reading is null)
        {
            return Problem.Fields(read.Problems);
        }

        if (CheckSupersedes(file, input.Supersedes, line.Key) is { } wrong)
        {
            return wrong;
        }

        var entry = db.Log(input.Id, file.Tray, EntryKind.Reading, me, $"{line.Label}: {line.Describe(read.Reading)}", clock, input.TakenAt);
        entry.LineKey = line.Key;
        entry.SupersedesId = input.Supersedes;
        entry.Typed = input.Typed;
        entry.Reading = read.Reading;
        entry.Finding = line.Judge(read.Reading, PinSet.Empty).Finding;
        return await SaveAsync(db, number, input.Id, pins, e => e.LineKey == input.LineKey && SameTyped(e.Typed, input.Typed), cancel);
    }

    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> WithdrawAsync(
        int number, Withdrawal input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (await SentBeforeAsync(db, file, input.Id, pins, entry => entry.SupersedesId == input.Supersedes, cancel) is { } before)
        {
            return before;
        }

        if (TrayWriting.RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        if (CheckSupersedes(file, input.Supersedes, null) is { } wrong)
        {
            return wrong;
        }

        var withdrawn = file.Entries.Single(entry => entry.Id == input.Supersedes);
        var entry = db.Log(input.Id, file.Tray, EntryKind.Withdrawn, me, $"Withdrawn: {withdrawn.Words}", clock, input.TakenAt);
        entry.LineKey = withdrawn.LineKey;
        entry.SupersedesId = withdrawn.Id;
        return await SaveAsync(db, number, input.Id, pins, e => e.SupersedesId == input.Supersedes, cancel);
    }

    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> SaveAsync(
        BlueDawnDb db, int number, Guid id, PinSet pins, Func<LogbookEntry, bool> same, CancellationToken cancel)
    {
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException e) when (TrayWriting.IsDuplicate(e))
        {
            // Two requests met: either the same entry twice, or two people correcting the same reading.
            db.ChangeTracker.Clear();
            var again = (await TrayFile.OpenAsync(db, number, cancel))!;
            return await SentBeforeAsync(db, again, id, pins, same, cancel) ?? CorrectedMeanwhile(again, null);
        }

        return TypedResults.Ok(TrayView.Of((await TrayFile.OpenAsync(db, number, cancel))!, pins));
    }

    /// <summary>The tray as it is when this very entry is in the book already; 409 when its id stands for something else.</summary>
    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>?> SentBeforeAsync(
        BlueDawnDb db, TrayFile file, Guid id, PinSet pins, Func<LogbookEntry, bool> same, CancellationToken cancel)
    {
        if (file.Entries.FirstOrDefault(entry => entry.Id == id) is { } found)
        {
            return same(found)
                ? TypedResults.Ok(TrayView.Of(file, pins))
                : TrayWriting.IdTaken();
        }

        // Only another tray's: the same entry on its way twice may have arrived since this file was opened.
        if (await db.LogbookEntries.AnyAsync(entry => entry.Id == id && entry.TrayId != file.Tray.Id, cancel))
        {
            return Problem.Conflict("That logbook id belongs to another tray.", "Reload the page and enter it again.");
        }

        return null;
    }

    private static ProblemHttpResult? CheckSupersedes(TrayFile file, Guid? supersedes, string? lineKey)
    {
        if (supersedes is not { } id)
        {
            return null;
        }

        var corrected = file.Entries.FirstOrDefault(entry => entry.Id == id);
        if (corrected is not { Kind: EntryKind.Reading } || (lineKey is not null && corrected.LineKey != lineKey))
        {
            return TypedResults.Problem(statusCode: 404, title: "The reading to be corrected is not on this line.", detail: "Reload the page and look at its history.");
        }

        if (file.Entries.Any(entry => entry.SupersedesId == id))
        {
            return CorrectedMeanwhile(file, id);
        }

        return null;
    }

    private static ProblemHttpResult CorrectedMeanwhile(TrayFile file, Guid? id)
    {
        var theirs = file.Entries.LastOrDefault(entry => id is null ? entry.SupersedesId is not null : entry.SupersedesId == id);
        return Problem.Conflict(
            "Someone else corrected that reading meanwhile.",
            "Look at what stands now; enter yours as a fresh reading if it is still right.",
            ("theirs", theirs?.Words),
            ("theirsBy", theirs?.PersonName));
    }

    private static WorksheetLine? FindLine(SpecSheet? spec, ShopDefaults shop, string key) =>
        spec is null ? null : Worksheet.For(spec, shop).FirstOrDefault(line => line.Key == key);

    private static ProblemHttpResult NoLine(int number) => TypedResults.Problem(
        statusCode: 404, title: $"Tray {number} has no such line.", detail: "Choose its spec sheet first; the sheet says what is measured.");

    private static bool SameTyped(TypedReading? a, TypedReading b) =>
        a is not null && System.Text.Json.JsonSerializer.Serialize(Sorted(a)) == System.Text.Json.JsonSerializer.Serialize(Sorted(b));

    private static object Sorted(TypedReading typed) => new
    {
        typed.Units,
        Values = typed.Values.OrderBy(v => v.Key, StringComparer.Ordinal),
        Rows = typed.Rows.Select(row => row.OrderBy(v => v.Key, StringComparer.Ordinal)),
    };
}
