using BlueDawn.Core.Logbook;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Trays;

/// <summary>The lead's name and password, for what is handed back with something open.</summary>
internal sealed record Signature(string UserName, string Password);

/// <summary>An entry to be recorded.</summary>
/// <param name="Id">Its id, made by the page.</param>
/// <param name="TakenAt">When, by the clock of the device.</param>
/// <param name="Note">What was taken down.</param>
/// <param name="Supersedes">The entry it corrects or withdraws.</param>
/// <param name="Version">For what changes the tray: the version it was decided on.</param>
/// <param name="Signature">For a release with something open: the lead's.</param>
/// <param name="TakenBy">Whose hands took it. It is recorded only when they are signed in: nobody signs for another.</param>
internal sealed record EntryInput(
    Guid Id,
    DateTimeOffset TakenAt,
    Note Note,
    Guid? Supersedes = null,
    int? Version = null,
    Signature? Signature = null,
    Guid? TakenBy = null
)
{
    /// <summary>The entry without anything that only the bench itself may write beside it.</summary>
    public NewEntry AsNew() => new(Id, TakenAt, Note.AsSent(), Supersedes, Version);
}

/// <summary>Entries of one tray, in the order they were taken.</summary>
/// <param name="Entries">The entries.</param>
/// <param name="SentAt">What the device's clock shows as it sends them: times are put right by it.</param>
internal sealed record EntriesInput(IReadOnlyList<EntryInput> Entries, DateTimeOffset? SentAt = null);

/// <summary>What became of an entry.</summary>
internal enum Outcome
{
    /// <summary>It is in the book now.</summary>
    Recorded,

    /// <summary>It was in the book already.</summary>
    Already,

    /// <summary>It is not recorded; the problem says why.</summary>
    Refused,

    /// <summary>It is not recorded: somebody else took it than is signed in. It waits for them.</summary>
    Others,
}

/// <summary>Why an entry is not recorded.</summary>
internal sealed record EntryProblem(
    int Status,
    string Title,
    string Detail,
    IReadOnlyDictionary<string, string[]> Errors,
    IReadOnlyList<Obstacle>? Obstacles = null,
    TrayFactsView? Theirs = null,
    string? TheirsBy = null,
    int? Version = null
);

/// <summary>What became of one entry.</summary>
internal sealed record EntryOutcome(Guid Id, Outcome Outcome, EntryProblem? Problem = null);

/// <summary>What became of the entries, and what they change of the tray.</summary>
/// <param name="Outcomes">What became of each.</param>
/// <param name="Tray">What they change.</param>
/// <param name="ClockOffSeconds">By how many seconds the device's clock is behind, when that is worth saying; the times were put
/// right.</param>
internal sealed record EntriesAnswer(IReadOnlyList<EntryOutcome> Outcomes, TrayPatch Tray, int? ClockOffSeconds);

/// <summary>The one way into a tray's logbook.</summary>
internal static class NoteEndpoints
{
    private const int MostAtOnce = 200;

    public static void MapNotes(this RouteGroupBuilder api) =>
        api.MapPost("/trays/{number:int}/notes", RecordAsync)
            .WithName("recordNotes")
            .WithSummary("Record entries in a tray's logbook")
            .WithTags("Trays")
            .WithDescription(
                "Records entries in their order, each decided on everything before it. "
                    + "When every one of them is refused the answer is the problem of the first."
            );

    private static async Task<Results<Ok<EntriesAnswer>, ValidationProblem, ProblemHttpResult>> RecordAsync(
        int number,
        EntriesInput input,
        NoteWriter writer,
        SignInLimiter door,
        TimeProvider clock,
        HttpContext context,
        Me me,
        CancellationToken cancel
    )
    {
        if (input.Entries.Count is 0 or > MostAtOnce)
        {
            return Problem.Field("entries", $"Send from 1 to {MostAtOnce} entries.");
        }

        var off = DeviceClock.Off(input.SentAt, clock.GetUtcNow());
        // Before the tray is held: a try stays counted, whatever becomes of the entry.
        var signatures = new Dictionary<Guid, SignInTry>();
        foreach (var entry in input.Entries)
        {
            if (entry.Signature is { } signature)
            {
                signatures[entry.Id] = await door.CheckAsync(signature.UserName, signature.Password, context, cancel);
            }
        }

        if (await writer.RecordAsync(number, input.Entries, signatures, off, me, cancel) is not { } recorded)
        {
            return Problem.NoTray(number);
        }

        return recorded.Outcomes.All(outcome => outcome.Outcome == Outcome.Refused)
            ? Refused(recorded.Outcomes)
            : TypedResults.Ok(
                new EntriesAnswer(recorded.Outcomes, recorded.Patch, off.Duration() >= DeviceClock.Told ? (int)off.TotalSeconds : null)
            );
    }

    private static ProblemHttpResult Refused(IReadOnlyList<EntryOutcome> outcomes)
    {
        var problem = outcomes[0].Problem!;
        return TypedResults.Problem(
            statusCode: problem.Status,
            title: problem.Title,
            detail: problem.Detail,
            extensions: new Dictionary<string, object?>
            {
                ["errors"] = problem.Errors,
                ["obstacles"] = problem.Obstacles,
                ["theirs"] = problem.Theirs,
                ["theirsBy"] = problem.TheirsBy,
                ["version"] = problem.Version,
                ["outcomes"] = outcomes,
            }
        );
    }
}

/// <summary>What recording entries came to.</summary>
internal sealed record Recorded(TrayFile File, IReadOnlyList<EntryOutcome> Outcomes, TrayPatch Patch);
