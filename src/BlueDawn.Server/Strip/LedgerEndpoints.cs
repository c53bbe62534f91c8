using System.Security.Claims;
using System.Text.Json;
using BlueDawn.Core.Build;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Strip;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Strip;

/// <summary>A tray's ledger as the pages of Strip and Build need it.</summary>
/// <param name="Job">How far it is taken apart, or null while that has not been said.</param>
/// <param name="Jobs">How far it can be.</param>
/// <param name="Lines">Its parts in the order they come off.</param>
/// <param name="Usual">What usually becomes of each, by its key.</param>
/// <param name="ByName">Parts that can be there besides and are entered by name.</param>
/// <param name="Signs">Findings that what was found amounts to, in words.</param>
/// <param name="Stacks">What lies on what, of the parts this carburetor has.</param>
/// <param name="Problems">What is wrong with how it has been put together.</param>
/// <param name="Advice">What to see to before each open part goes in, in the order they go in.</param>
/// <param name="Starts">Starting settings beside what was found.</param>
/// <param name="Torques">How firmly the parts that were out are fastened.</param>
/// <param name="Reconciliation">What became of everything.</param>
/// <param name="WhyNotProven">Why it cannot be proven yet, or null.</param>
internal sealed record LedgerView(
    StripJob? Job,
    IReadOnlyList<StripJob> Jobs,
    IReadOnlyList<LedgerLine> Lines,
    IReadOnlyDictionary<string, LineVerdict> Usual,
    IReadOnlyList<StripPart> ByName,
    IReadOnlyList<SignView> Signs,
    IReadOnlyList<StackPlan> Stacks,
    IReadOnlyList<StackProblem> Problems,
    IReadOnlyList<BuildAdvice> Advice,
    IReadOnlyList<StartingSetting> Starts,
    IReadOnlyList<Torque> Torques,
    Reconciliation Reconciliation,
    string? WhyNotProven)
{
    public static LedgerView Of(TrayFile file)
    {
        var work = file.Work;
        var ledger = work.Ledger;
        var strip = StripKnowledge.Shipped;
        var build = BuildKnowledge.Shipped;
        var (family, spec) = (file.Tray.Family, file.Tray.Spec?.Sheet);
        var renewed = file.Tray.Fitting?.Items.SelectMany(item => item.Parts.Select(part => part.Part)).Concat(file.Tray.Fitting.Parts).ToHashSet() ?? [];
        var there = ledger.Lines.Select(line => line.Part.Key).ToHashSet();
        return new LedgerView(
            ledger.Job,
            strip.Jobs(family),
            ledger.Lines,
            ledger.Lines.ToDictionary(line => line.Part.Key, line => Ledger.Usual(line.Part, renewed)),
            [.. strip.All(family).Where(part => !there.Contains(part.Key))],
            [.. LedgerSigns.Of(strip, build, family, spec, ledger).Select(sign => new SignView(
                sign.Part, Core.Faults.FaultKnowledge.Shipped.FindFinding(sign.FindingId)?.Label ?? sign.FindingId))],
            [.. build.Stacks(family).Select(stack => stack with { Layers = [.. stack.Layers.Where(layer => there.Contains(layer.Part))] }).Where(stack => stack.Layers.Count > 0)],
            work.Problems,
            work.Advice,
            build.Starts(ledger, family, spec),
            [.. ledger.Taken.Select(line => build.TorqueOf(line.Part.Key, spec))],
            Reconciliation.Of(ledger, file.Tray.Fitting),
            work.WhyNotProven);
    }
}

/// <summary>A finding that a line of the ledger amounts to.</summary>
internal sealed record SignView(string Part, string Finding);

/// <summary>An entry of the ledger to record.</summary>
/// <param name="Id">Id made by the client, UUIDv7: sent twice, it is one entry.</param>
/// <param name="TakenAt">When, by the device's clock; never later than now.</param>
/// <param name="Note">The entry.</param>
internal sealed record NewLedgerNote(Guid Id, DateTimeOffset TakenAt, LedgerNote Note);

/// <summary>Something a new part can come from.</summary>
/// <param name="Number">The item's number.</param>
/// <param name="Name">What it is.</param>
/// <param name="FromShelf">True when it is taken from the shelf; false when it came with what was decided on at Kit.</param>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="Verdict">Whether it fits.</param>
/// <param name="Why">What is wrong with it, or null.</param>
internal sealed record NewPartSource(string Number, string Name, bool FromShelf, int OnHand, PartVerdict Verdict, Sentence? Why);

internal static class LedgerEndpoints
{
    public static void MapLedger(this RouteGroupBuilder api)
    {
        var ledger = api.MapGroup("/trays/{number:int}/ledger").WithTags("Strip and build");
        ledger.MapGet("", ShowAsync).WithName("getLedger");
        ledger.MapGet("/new-parts", SourcesAsync).WithName("getNewParts");
        ledger.MapPost("", RecordAsync).WithName("recordLedgerNote").RequireAuthorization(PeopleSetup.AtTheBench);
    }

    private static async Task<Results<Ok<LedgerView>, ProblemHttpResult>> ShowAsync(int number, BlueDawnDb db, CancellationToken cancel) =>
        await TrayFile.OpenAsync(db, number, cancel) is { } file ? TypedResults.Ok(LedgerView.Of(file)) : Problem.NoTray(number);

    /// <summary>What a new part can come from: the kit that was decided on first, then the shelf.</summary>
    private static async Task<Results<Ok<List<NewPartSource>>, ProblemHttpResult>> SourcesAsync(int number, string part, BlueDawnDb db, CancellationToken cancel)
    {
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var sources = new List<NewPartSource>();
        if (file.Work.Ledger.Find(part)?.Part.KitPart is not { } wanted)
        {
            return TypedResults.Ok(sources);
        }

        sources.AddRange((file.Tray.Fitting?.Items ?? []).Where(item => item.FromShelf && item.Parts.Any(one => one.Part == wanted))
            .Select(item => new NewPartSource(item.Number, item.Name, false, 0, PartVerdict.Fits, null)));
        var onHand = (await Shelf.OnHandAsync(db, null, cancel)).Where(pair => pair.Value > 0).Select(pair => pair.Key).ToList();
        var need = file.Wanted.FirstOrDefault(one => one.Part == wanted);
        foreach (var stocked in (await CatalogueSearch.ItemsAsync(db, onHand, cancel)).Where(stocked => stocked.Item.Kind == ItemKind.Part))
        {
            if (stocked.Item.Parts.FirstOrDefault(one => one.Part == wanted) is not { } brought)
            {
                continue;
            }

            var match = need is null ? null : PartMatch.Of(need with { Quantity = 1 }, brought, PartKnowledge.Shipped);
            sources.Add(new NewPartSource(stocked.Item.Number, stocked.Item.Name, true, stocked.OnHand, match?.Verdict ?? PartVerdict.NotMeasured, match is { Verdict: PartVerdict.Differs } ? match.Note : null));
        }

        return TypedResults.Ok(sources.OrderBy(source => source.FromShelf).ThenByDescending(source => source.Verdict).ThenBy(source => source.Number, StringComparer.Ordinal).ToList());
    }

    private static async Task<Results<Ok<LedgerView>, ValidationProblem, ProblemHttpResult>> RecordAsync(
        int number, NewLedgerNote input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, _) = await people.MeAsync(user);
        return await TrayWriting.AddOnceAsync(db, number, input.Id, before => Same(before.Ledger, input.Note), async file =>
        {
            var jobs = StripKnowledge.Shipped.Jobs(file.Tray.Family);
            var ledger = file.Work.Ledger;
            IReadOnlyList<FieldProblem> problems = [.. ledger.Check(input.Note, jobs), .. StackCheck.Check(BuildKnowledge.Shipped, file.Tray.Family, ledger, input.Note)];
            if (problems.Count > 0)
            {
                return Problem.Fields(problems);
            }

            if (await MoveStockAsync(db, file.Tray, ledger, input, me.Id, clock.GetUtcNow(), cancel) is { } problem)
            {
                return problem;
            }

            db.Log(input.Id, file.Tray, EntryKind.Ledgered, me, input.Note.Words(ledger.LabelOf(input.Note, jobs)), clock, input.TakenAt).Ledger = input.Note;
            return null;
        }, LedgerView.Of, cancel);
    }

    /// <summary>What goes in from the shelf leaves it; what comes out again goes back.</summary>
    private static async Task<ValidationProblem?> MoveStockAsync(
        BlueDawnDb db, Tray tray, Ledger ledger, NewLedgerNote input, Guid personId, DateTimeOffset at, CancellationToken cancel)
    {
        var (item, kind) = input.Note switch
        {
            BackNote { Fate: Fate.Renewed, FromShelf: true } back => (back.Item, StockMoveKind.Fitted),
            UndoNote undo when ledger.Find(undo.Part)?.Fitted is { Fate: Fate.Renewed, FromShelf: true } fitted => (fitted.Item, StockMoveKind.Returned),
            _ => (null, default),
        };
        if (item is null)
        {
            return input.Note is BackNote { Fate: Fate.Renewed, FromShelf: false } kit && tray.Fitting?.Items.Any(one => one.Number == kit.Item) != true
                ? Problem.Field("note.item", "That is not what was decided on at Kit. Take one from the shelf, or decide on it first.")
                : null;
        }

        if (await db.Items.Where(row => row.Number == item).Select(row => (Guid?)row.Id).SingleOrDefaultAsync(cancel) is not { } id)
        {
            return Problem.Field("note.item", $"There is no item {item}.");
        }

        var standing = await Shelf.LockAsync(db, id, at, cancel);
        if (standing.Check(kind, 1) is { Count: > 0 })
        {
            return Problem.Field("note.item", $"None of {item} is left on the shelf. Book it in at Stock, or take another.");
        }

        Shelf.Move(db, id, kind, 1, tray.Id, personId, at, kind == StockMoveKind.Fitted ? "at Build" : "out again at Build");
        return null;
    }

    private static bool Same(LedgerNote? before, LedgerNote now) =>
        before is not null && JsonSerializer.Serialize(before, StoreJson.Options) == JsonSerializer.Serialize(now, StoreJson.Options);
}
