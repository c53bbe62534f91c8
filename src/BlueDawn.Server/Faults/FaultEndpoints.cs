using System.Text.Json;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Pages;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
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

/// <summary>A check as scripts need it: what it shows.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Label">What to do.</param>
/// <param name="State">The state it needs.</param>
/// <param name="Minutes">Hands-on minutes, without getting there.</param>
/// <param name="Reveals">Findings it answers.</param>
/// <param name="Lines">Quick tests on which what it shows is read as a number.</param>
internal sealed record CheckName(
    string Id,
    string Label,
    CheckState State,
    double Minutes,
    IReadOnlyList<string> Reveals,
    IReadOnlyList<string> Lines
);

/// <summary>The words of the fault knowledge that apply to a carburetor.</summary>
internal sealed record FaultWords(
    IReadOnlyList<FindingName> Findings,
    IReadOnlyList<CauseName> Causes,
    IReadOnlyList<ApartCost> Levels,
    IReadOnlyList<CheckName> Checks
);

internal static class FaultEndpoints
{
    /// <summary>The words of the fault knowledge: no sign-in, scripts need them too.</summary>
    public static void MapFaultWords(this RouteGroupBuilder api) =>
        api.MapGet("/faults/knowledge", ShowKnowledgeAsync)
            .WithName("getFaultWords")
            .WithSummary("Causes and findings in words")
            .WithTags("Faults");

    public static void MapFaults(this RouteGroupBuilder api) =>
        api.MapGet("/trays/{number:int}/trace", ShowAsync)
            .WithName("getTrace")
            .WithSummary("A tray's trace")
            .WithTags("Faults")
            .Produces<TraceView>()
            .Produces(304);

    /// <summary>Enums in an address are words in camel case as everywhere else, which the framework does not read by itself.</summary>
    private static async Task<Results<Ok<FaultWords>, ValidationProblem>> ShowKnowledgeAsync(
        string? family,
        string? engine,
        string? choke,
        BlueDawnDb db,
        KnowledgeMemory memory,
        CancellationToken cancel
    )
    {
        var problems = new List<FieldProblem>();
        T? Read<T>(string? text, string field)
            where T : struct, Enum
        {
            if (string.IsNullOrEmpty(text) || Enum.TryParse<T>(text, true, out _))
            {
                return string.IsNullOrEmpty(text) ? null : Enum.Parse<T>(text, true);
            }

            problems.Add(
                new(
                    field,
                    $"“{text}” is not one of: {string.Join(", ", Enum.GetNames<T>().Select(JsonNamingPolicy.CamelCase.ConvertName))}."
                )
            );
            return null;
        }

        var said = Read<CarburetorFamily>(family, "family");
        // While nobody has said which family it is, every one of them may be meant.
        CarburetorFamily[] families = said is { } only ? [only] : Enum.GetValues<CarburetorFamily>();
        var kinds = families
            .Select(one => new CarburetorKind(one, Read<EngineKind>(engine, "engine"), Read<ChokeKind>(choke, "choke")))
            .ToList();
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var knowledge = (await memory.OfAsync(db, cancel)).Of().Of<FaultKnowledge>();
        return TypedResults.Ok(
            new FaultWords(
                [
                    .. knowledge
                        .Findings.Where(finding => kinds.Any(finding.Applies.Matches))
                        .Select(finding => new FindingName(finding.Id, finding.Label, finding.Short, finding.Stage == "complaint")),
                ],
                [
                    .. knowledge
                        .Causes.Where(cause => kinds.Any(cause.Applies.Matches))
                        .Select(cause => new CauseName(cause.Id, cause.Label, cause.Fix)),
                ],
                [.. knowledge.Apart.Where(cost => families.Contains(CarburetorFamily.FloatBowl) || cost.Level != ApartLevel.Bowl)],
                [
                    .. knowledge
                        .Checks.Where(check => kinds.Any(check.Applies.Matches))
                        .Select(check => new CheckName(
                            check.Id,
                            check.Label,
                            check.State,
                            check.Minutes,
                            check.Reveals,
                            knowledge.LinesOf(check.Id)
                        )),
                ]
            )
        );
    }

    private static async Task<IResult> ShowAsync(
        int number,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        AnswerMemory memory,
        CancellationToken cancel,
        bool history = true
    )
    {
        if (await TrayFile.StampAsync(db, number, cancel) is not { } stamp)
        {
            return Problem.NoTray(number);
        }

        return await memory.AnswerAsync(context, $"{stamp}.{me.Stamp}", async () =>
            await TrayFile.OpenAsync(db, number, me.Context, cancel) is { } file
                ? TraceView.Of((history ? await file.WithHistoryAsync(db, cancel) : file.WithoutHistory()).Book, history)
                : null
        );
    }
}
