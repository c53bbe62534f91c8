using System.Security.Claims;
using System.Text.Json;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Worksheets;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Faults;

/// <summary>A finding as the pages name it.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Label">What is found.</param>
/// <param name="Short">The same in a few words.</param>
/// <param name="Complaint">True for what an owner can say.</param>
internal sealed record FindingName(string Id, string Label, string Short, bool Complaint);

/// <summary>A cause as the pages name it.</summary>
internal sealed record CauseName(string Id, string Label, string Fix);

/// <summary>The words of the fault knowledge that apply to a carburetor.</summary>
internal sealed record FaultWords(IReadOnlyList<FindingName> Findings, IReadOnlyList<CauseName> Causes, IReadOnlyList<ApartCost> Levels);

/// <summary>A trace as a page needs it.</summary>
/// <param name="Trace">The trace as Core worked it out.</param>
/// <param name="People">Who made each logbook entry that is spoken of, by the entry's id.</param>
/// <param name="HistoryUsed">Whether the shop's history shifts the odds.</param>
/// <param name="Currency">Currency of prices (ISO 4217).</param>
internal sealed record TraceView(Trace Trace, IReadOnlyDictionary<Guid, string> People, bool HistoryUsed, string Currency);

/// <summary>A step of a trace to record.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one entry.</param>
/// <param name="TakenAt">When, by the device's clock; never later than now.</param>
/// <param name="Note">The step.</param>
internal sealed record NewTraceNote(Guid Id, DateTimeOffset TakenAt, TraceNote Note);

internal static class FaultEndpoints
{
    /// <summary>The words of the fault knowledge: no sign-in, scripts need them too.</summary>
    public static void MapFaultWords(this RouteGroupBuilder api) =>
        api.MapGet("/faults/knowledge", ShowKnowledge).WithName("getFaultWords").WithTags("Faults");

    public static void MapFaults(this RouteGroupBuilder api)
    {
        var tray = api.MapGroup("/trays/{number:int}/trace").WithTags("Faults");
        tray.MapGet("", ShowAsync).WithName("getTrace");
        tray.MapPost("", RecordAsync).WithName("recordTraceNote").RequireAuthorization(PeopleSetup.AtTheBench);
    }

    /// <summary>Enums in an address are words in camel case as everywhere else, which the framework does not read by itself.</summary>
    private static Results<Ok<FaultWords>, ValidationProblem> ShowKnowledge(string family, string? engine, string? choke)
    {
        var problems = new List<FieldProblem>();
        T? Read<T>(string? text, string field)
            where T : struct, Enum
        {
            if (string.IsNullOrEmpty(text) || Enum.TryParse<T>(text, true, out _))
            {
                return string.IsNullOrEmpty(text) ? null : Enum.Parse<T>(text, true);
            }

            problems.Add(new(field, $"“{text}” is not one of: {string.Join(", ", Enum.GetNames<T>().Select(JsonNamingPolicy.CamelCase.ConvertName))}."));
            return null;
        }

        var kind = new CarburetorKind(Read<CarburetorFamily>(family, "family") ?? default, Read<EngineKind>(engine, "engine"), Read<ChokeKind>(choke, "choke"));
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var knowledge = FaultKnowledge.Shipped;
        return TypedResults.Ok(new FaultWords(
            [.. knowledge.Findings.Where(finding => finding.Applies.Matches(kind)).Select(finding => new FindingName(finding.Id, finding.Label, finding.Short, finding.Stage == "complaint"))],
            [.. knowledge.Causes.Where(cause => cause.Applies.Matches(kind)).Select(cause => new CauseName(cause.Id, cause.Label, cause.Fix))],
            [.. knowledge.Apart.Where(cost => kind.Family == CarburetorFamily.FloatBowl || cost.Level != ApartLevel.Bowl)]));
    }

    private static async Task<Results<Ok<TraceView>, ProblemHttpResult>> ShowAsync(int number, BlueDawnDb db, CancellationToken cancel, bool history = true) =>
        await TrayFile.OpenAsync(db, number, cancel) is { } file ? TypedResults.Ok(await ViewAsync(db, file, history, cancel)) : Problem.NoTray(number);

    private static async Task<Results<Ok<TraceView>, ValidationProblem, ProblemHttpResult>> RecordAsync(
        int number, NewTraceNote input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel, bool history = true)
    {
        var (me, _) = await people.MeAsync(user);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (SentBefore(file, input) is { } before)
        {
            return before ? TypedResults.Ok(await ViewAsync(db, file, history, cancel)) : TrayWriting.IdTaken();
        }

        if (TrayWriting.RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        if (input.Note.Check(FaultKnowledge.Shipped) is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        db.LogTrace(input.Id, file.Tray, me, input.Note, clock, input.TakenAt);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException e) when (TrayWriting.IsDuplicate(e))
        {
            // The same entry twice at the same moment, or an id that another tray has.
            db.ChangeTracker.Clear();
            var again = (await TrayFile.OpenAsync(db, number, cancel))!;
            return SentBefore(again, input) == true ? TypedResults.Ok(await ViewAsync(db, again, history, cancel)) : TrayWriting.IdTaken();
        }

        return TypedResults.Ok(await ViewAsync(db, (await TrayFile.OpenAsync(db, number, cancel))!, history, cancel));
    }

    /// <summary>True when this very step is in the book, false when its id stands for something else, null when it is free.</summary>
    private static bool? SentBefore(TrayFile file, NewTraceNote input) =>
        file.Entries.FirstOrDefault(entry => entry.Id == input.Id) is { } before
            ? before.Trace?.Words(FaultKnowledge.Shipped) == input.Note.Words(FaultKnowledge.Shipped)
            : null;

    private static async Task<TraceView> ViewAsync(BlueDawnDb db, TrayFile file, bool useHistory, CancellationToken cancel)
    {
        var history = useHistory ? await TrayFile.HistoryAsync(db, file.Tray, cancel) : FaultHistory.None;
        var trace = file.Trace(file.Judge(PinSet.Empty), history);
        var spoken = trace.Evidence.Items.Select(item => item.EntryId).Concat(trace.Evidence.Found.Select(fault => fault.EntryId)).ToHashSet();
        return new TraceView(
            trace,
            file.Entries.Where(entry => spoken.Contains(entry.Id)).ToDictionary(entry => entry.Id, entry => entry.PersonName),
            useHistory,
            file.Shop.Currency);
    }
}
