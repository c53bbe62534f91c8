using System.Security.Claims;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Worksheets;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Trays;

/// <summary>A change to a tray; what is left out stays as it is.</summary>
/// <param name="EntryId">Id of the logbook entry this makes, UUIDv7.</param>
/// <param name="Version">The version the page has seen.</param>
/// <param name="PromisedDay">The day it is promised for.</param>
/// <param name="WaitsFor">What it waits for; never handed back, that is the release's to say.</param>
/// <param name="WaitNote">More about the wait.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="StampedNumber">Number stamped on the carburetor.</param>
/// <param name="Family">The carburetor's family.</param>
/// <param name="Engine">The engine it feeds.</param>
/// <param name="Choke">Its choke.</param>
/// <param name="OwnerLimit">What the owner agreed to spend; 0 for not known.</param>
/// <param name="MachineWorth">What the machine would sell for; 0 for not known.</param>
internal sealed record TrayChange(
    Guid EntryId,
    uint Version,
    DateOnly? PromisedDay = null,
    WaitsFor? WaitsFor = null,
    string? WaitNote = null,
    string? Complaint = null,
    string? StampedNumber = null,
    CarburetorFamily? Family = null,
    EngineKind? Engine = null,
    ChokeKind? Choke = null,
    decimal? OwnerLimit = null,
    decimal? MachineWorth = null);

internal static class TrayEndpoints
{
    private const int LongestNote = 200;
    private const decimal MostMoney = 100_000;

    public static void MapTrays(this RouteGroupBuilder api)
    {
        var trays = api.MapGroup("/trays/{number:int}").WithTags("Trays");
        trays.MapGet("", ShowAsync).WithName("getTray");
        trays.MapPatch("", ChangeAsync).WithName("changeTray");
    }

    private static async Task<Results<Ok<TrayView>, ProblemHttpResult>> ShowAsync(
        int number, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, CancellationToken cancel)
    {
        var (_, pins) = await people.MeAsync(user);
        return await TrayFile.OpenAsync(db, number, cancel) is { } file ? TypedResults.Ok(TrayView.Of(file, pins)) : Problem.NoTray(number);
    }

    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ChangeAsync(
        int number, TrayChange change, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var tray = file.Tray;
        if (file.Entries.Any(entry => entry.Id == change.EntryId))
        {
            return TypedResults.Ok(TrayView.Of(file, pins));
        }

        if (Check(change, tray, clock) is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        if (tray.WaitsFor == WaitsFor.HandedBack && change.WaitsFor is null)
        {
            return TrayWriting.RefuseIfHandedBack(tray)!;
        }

        db.Expect(tray, change.Version);
        var broughtBack = tray.WaitsFor == WaitsFor.HandedBack;
        var words = Apply(change, tray);
        if (words.Count == 0)
        {
            return TypedResults.Ok(TrayView.Of(file, pins));
        }

        db.Log(change.EntryId, tray, broughtBack ? EntryKind.BroughtBack : EntryKind.TrayChanged, me, string.Join("; ", words), clock);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            return await TrayWriting.ChangedMeanwhileAsync(db, number, change, cancel);
        }

        return TypedResults.Ok(TrayView.Of((await TrayFile.OpenAsync(db, number, cancel))!, pins));
    }

    private static List<FieldProblem> Check(TrayChange change, Tray tray, TimeProvider clock)
    {
        var problems = new List<FieldProblem>();
        if (change.PromisedDay is { } day && day != tray.PromisedDay)
        {
            problems.AddRange(CheckIn.CheckPromise(day, clock.Today()));
        }

        if (change.WaitsFor == WaitsFor.HandedBack)
        {
            problems.Add(new("waitsFor", "Handing back is done at the last station, where everything is checked."));
        }

        if (change.WaitNote?.Length > LongestNote)
        {
            problems.Add(new("waitNote", $"Longer than {LongestNote} characters. Shorten it."));
        }

        if (change.Complaint is { } complaint && (complaint.Trim().Length == 0 || complaint.Length > 2000))
        {
            problems.Add(new("complaint", "Say what the owner says, in no more than 2000 characters."));
        }

        if (change.StampedNumber?.Length > Core.Kits.Stamp.Longest)
        {
            problems.Add(new("stampedNumber", $"Longer than {Core.Kits.Stamp.Longest} characters. Check the number."));
        }

        foreach (var (field, amount) in ((string, decimal?)[])[("ownerLimit", change.OwnerLimit), ("machineWorth", change.MachineWorth)])
        {
            if (amount is < 0 or > MostMoney)
            {
                problems.Add(new(field, $"Give an amount from 0 to {MostMoney}; 0 when it is not known."));
            }
        }

        return problems;
    }

    private static List<string> Apply(TrayChange change, Tray tray)
    {
        var words = new List<string>();
        if (change.PromisedDay is { } day && day != tray.PromisedDay)
        {
            words.Add($"Promised {tray.PromisedDay:yyyy-MM-dd} → {day:yyyy-MM-dd}");
            tray.PromisedDay = day;
        }

        if (change.WaitsFor is { } waits && waits != tray.WaitsFor)
        {
            words.Add($"Waits for {Words(tray.WaitsFor)} → {Words(waits)}");
            tray.WaitsFor = waits;
        }

        if (change.WaitNote is { } note && note.Trim() != tray.WaitNote)
        {
            words.Add(note.Trim().Length == 0 ? "Note removed" : $"Note: {note.Trim()}");
            tray.WaitNote = note.Trim();
        }

        if (change.Complaint is { } complaint && complaint.Trim() != tray.Complaint)
        {
            words.Add($"Owner says: {complaint.Trim()}");
            tray.Complaint = complaint.Trim();
        }

        if (change.StampedNumber is { } stamped && stamped.Trim() != tray.StampedNumber)
        {
            words.Add($"Stamped number {(tray.StampedNumber.Length == 0 ? "unknown" : tray.StampedNumber)} → {stamped.Trim()}");
            tray.StampedNumber = stamped.Trim();
        }

        if (change.Family is { } family && family != tray.Family)
        {
            words.Add($"Family {tray.Family} → {family}");
            tray.Family = family;
        }

        if (change.Engine is { } engine && engine != tray.Engine)
        {
            words.Add($"Engine {tray.Engine?.ToString() ?? "unknown"} → {engine}");
            tray.Engine = engine;
        }

        if (change.Choke is { } choke && choke != tray.Choke)
        {
            words.Add($"Choke {tray.Choke?.ToString() ?? "unknown"} → {choke}");
            tray.Choke = choke;
        }

        words.AddRange(Amount("Owner agreed to", change.OwnerLimit, tray.OwnerLimit, amount => tray.OwnerLimit = amount));
        words.AddRange(Amount("Machine is worth", change.MachineWorth, tray.MachineWorth, amount => tray.MachineWorth = amount));
        return words;
    }

    private static IEnumerable<string> Amount(string what, decimal? change, decimal? now, Action<decimal?> set)
    {
        if (change is not { } amount || amount == (now ?? 0))
        {
            return [];
        }

        set(amount == 0 ? null : decimal.Round(amount, 2));
        return [string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{what} {(amount == 0 ? "not known" : $"{amount:0.##}")}")];
    }

    private static string Words(WaitsFor waits) => waits switch
    {
        WaitsFor.BedIn => "bed-in",
        WaitsFor.RunUp => "run-up",
        WaitsFor.HandedBack => "nothing, handed back",
        _ => waits.ToString().ToLowerInvariant(),
    };

    /// <summary>Today by the clock of the shop.</summary>
    public static DateOnly Today(this TimeProvider clock) => DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
}
