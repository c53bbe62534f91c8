using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Rules;

/// <summary>A table of knowledge.</summary>
/// <param name="Name">Its name, such as <c>faults/causes.csv</c>.</param>
/// <param name="Label">What it is called.</param>
/// <param name="What">What stands in it.</param>
/// <param name="Rows">How many rows stand.</param>
/// <param name="Changed">How many of them the shop has changed, added or taken out.</param>
internal sealed record KnowledgeTableLine(string Name, string Label, string What, int Rows, int Changed);

/// <summary>A version of what the shop knows.</summary>
/// <param name="Number">0 for everything as it ships.</param>
/// <param name="At">From when; null for 0.</param>
/// <param name="By">Who accepted it.</param>
/// <param name="What">What became other.</param>
/// <param name="Why">Why.</param>
/// <param name="Changed">How many rows are not as they ship.</param>
internal sealed record KnowledgeVersionLine(int Number, DateTimeOffset? At, string By, string What, string Why, int Changed);

/// <summary>What the shop knows.</summary>
/// <param name="Version">The version that stands.</param>
/// <param name="Tables">The tables.</param>
/// <param name="Versions">Every version, newest first.</param>
/// <param name="Problems">Why the version that stands cannot be used with this version of the product; empty as long as it can.</param>
internal sealed record KnowledgeView(
    int Version,
    IReadOnlyList<KnowledgeTableLine> Tables,
    IReadOnlyList<KnowledgeVersionLine> Versions,
    IReadOnlyList<TableProblem> Problems
);

/// <summary>A table, row by row.</summary>
/// <param name="Version">The version that stands.</param>
/// <param name="Name">Its name.</param>
/// <param name="Label">What it is called.</param>
/// <param name="What">What stands in it.</param>
/// <param name="Columns">Its columns.</param>
/// <param name="Keys">Those that name a row.</param>
/// <param name="Stays">True when rows that ship cannot be taken out.</param>
/// <param name="Rows">Its rows.</param>
internal sealed record KnowledgeTableView(
    int Version,
    string Name,
    string Label,
    string What,
    IReadOnlyList<string> Columns,
    IReadOnlyList<string> Keys,
    bool Stays,
    IReadOnlyList<StandingRow> Rows
);

/// <summary>What somebody wants to do to the tables.</summary>
internal enum KnowledgeAct
{
    /// <summary>Write a row: a new one, or another in place of the one of that key.</summary>
    Write,

    /// <summary>Take a row out.</summary>
    TakeOut,

    /// <summary>Have a row as it ships again.</summary>
    AsShipped,

    /// <summary>Go back to an earlier version.</summary>
    GoBack,
}

/// <summary>Other tables, as somebody wants them.</summary>
/// <param name="Act">What is wanted.</param>
/// <param name="Was">The version that was looked at; needed to accept it.</param>
/// <param name="Table">The table; not needed to go back.</param>
/// <param name="Key">The row; null for a new one.</param>
/// <param name="Cells">Its cells in the order of the columns, to write one.</param>
/// <param name="Version">The version to go back to.</param>
/// <param name="Why">Why; needed to accept it, not to look.</param>
internal sealed record KnowledgeWish(
    KnowledgeAct Act,
    int? Was = null,
    string? Table = null,
    string? Key = null,
    IReadOnlyList<string>? Cells = null,
    int? Version = null,
    string? Why = null
);

/// <summary>A tray whose next step becomes another.</summary>
/// <param name="Number">Its number.</param>
/// <param name="MachineName">What it is off.</param>
/// <param name="Before">What it asks for now.</param>
/// <param name="After">What it would ask for.</param>
internal sealed record TrayEffectView(int Number, string MachineName, NextStep Before, NextStep After);

/// <summary>What would happen.</summary>
/// <param name="Version">The version it was looked at beside.</param>
/// <param name="Problems">What is wrong with it; with one problem nothing is taken.</param>
/// <param name="Rows">Rows that become other.</param>
/// <param name="Columns">The columns of the tables these rows are of, by the table's name.</param>
/// <param name="Trays">Trays whose next step becomes another.</param>
/// <param name="Open">How many trays on the bench were looked at.</param>
internal sealed record KnowledgeLook(
    int Version,
    IReadOnlyList<TableProblem> Problems,
    IReadOnlyList<RowEdit> Rows,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Columns,
    IReadOnlyList<TrayEffectView> Trays,
    int Open
);

internal static class KnowledgeEndpoints
{
    private const int LongestWhy = 500;
    private const int MostBytes = 4 * 1024 * 1024;
    private const int MostRowsShown = 200;

    public static void MapKnowledge(this RouteGroupBuilder api)
    {
        var knowledge = api.MapGroup("/shop/knowledge").WithTags("Rules");
        knowledge
            .MapGet("", async (BlueDawnDb db, Me me, CancellationToken cancel) =>
                TypedResults.Ok(await ViewAsync(db, me.Context.Knowledge, cancel))
            )
            .WithName("getKnowledge")
            .WithSummary("The tables the bench knows from, and every version of them");
        knowledge.MapGet("/table", ShowTable).WithName("getKnowledgeTable").WithSummary("A table, row by row");
        knowledge
            .MapGet("/table.csv", CsvAsync)
            .WithName("getKnowledgeCsv")
            .WithSummary("A table as it stands, as a file")
            .Produces<string>(200, "text/csv")
            .ProducesProblem(404);
        var lead = knowledge
            .MapGroup("")
            .RequireAuthorization(nameof(Permission.ManageShop))
            .WithMetadata(new Microsoft.AspNetCore.Mvc.RequestSizeLimitAttribute(MostBytes));
        lead.MapPost("/look", LookAsync).WithName("lookAtKnowledge").WithSummary("What other tables would do, without doing it");
        lead.MapPost("/table.csv", LookAtFileAsync)
            .WithName("lookAtKnowledgeCsv")
            .Accepts<string>("text/csv")
            .WithSummary("What a file in place of a table would do, without doing it");
        lead.MapPut("/table.csv", AcceptFileAsync)
            .WithName("acceptKnowledgeCsv")
            .Accepts<string>("text/csv")
            .WithSummary("Have a file in place of a table from now on");
        lead.MapPost("/accept", AcceptAsync).WithName("acceptKnowledge").WithSummary("Have other tables from now on");
    }

    private static async Task<KnowledgeView> ViewAsync(BlueDawnDb db, ShopKnowledge shop, CancellationToken cancel)
    {
        var versions = await db.KnowledgeVersions.AsNoTracking().OrderByDescending(version => version.Number).ToListAsync(cancel);
        var changes = new TableChanges(shop.Changes());
        return new KnowledgeView(
            shop.Version,
            [
                .. KnowledgeTable
                    .All.Select(table => (table, Rows: changes.Rows(table)))
                    .Select(pair => new KnowledgeTableLine(
                        pair.table.Name,
                        pair.table.Label,
                        pair.table.What,
                        pair.Rows.Count(row => row.Standing != RowStanding.TakenOut),
                        pair.Rows.Count(row => row.Standing != RowStanding.Shipped)
                    )),
            ],
            [
                .. versions.Select(version => new KnowledgeVersionLine(
                    version.Number,
                    version.At,
                    version.By,
                    version.What,
                    version.Why,
                    version.Changes.Count
                )),
                new KnowledgeVersionLine(0, null, "", "Everything as it ships", "", 0),
            ],
            shop.Problems
        );
    }

    private static Results<Ok<KnowledgeTableView>, ProblemHttpResult> ShowTable(string name, Me me) =>
        KnowledgeTable.Find(name) is not { } table
            ? NoTable(name)
            : TypedResults.Ok(
                new KnowledgeTableView(
                    me.Context.Knowledge.Version,
                    table.Name,
                    table.Label,
                    table.What,
                    table.Columns,
                    table.Keys,
                    table.Stays,
                    new TableChanges(me.Context.Knowledge.Changes()).Rows(table)
                )
            );

    private static async Task<IResult> CsvAsync(string name, HttpContext context, Me me, CancellationToken cancel)
    {
        if (KnowledgeTable.Find(name) is not { } table)
        {
            return NoTable(name);
        }

        context.Response.ContentType = "text/csv; charset=utf-8";
        context.Response.Headers.ContentDisposition = $"attachment; filename={table.Name.Replace('/', '-')}";
        await using var writer = new StreamWriter(context.Response.Body, leaveOpen: true);
        var rows = new TableChanges(me.Context.Knowledge.Changes())
            .Rows(table)
            .Where(row => row.Standing != RowStanding.TakenOut)
            .Select(row => row.Cells);
        await CsvOut.WriteAsync(table.Columns, rows.ToAsyncEnumerable(), writer, cancel);
        return TypedResults.Empty;
    }

    private static async Task<Results<Ok<KnowledgeLook>, ValidationProblem, ProblemHttpResult>> LookAsync(
        KnowledgeWish wish,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        var (edit, problem) = await EditAsync(wish, db, me.Context.Knowledge, cancel);
        return problem is not null ? problem : TypedResults.Ok(await EffectAsync(edit!, db, me.Context, cancel));
    }

    private static async Task<Results<Ok<KnowledgeLook>, ProblemHttpResult>> LookAtFileAsync(
        string name,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        if (KnowledgeTable.Find(name) is not { } table)
        {
            return NoTable(name);
        }

        using var file = new StringReader(await TextAsync(context, cancel));
        return TypedResults.Ok(
            await EffectAsync(KnowledgeEdit.OfFile(me.Context.Knowledge.Changes(), table, file), db, me.Context, cancel)
        );
    }

    private static Task<Results<Ok<KnowledgeView>, ValidationProblem, ProblemHttpResult>> AcceptAsync(
        KnowledgeWish wish,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        KnowledgeMemory memory,
        CancellationToken cancel
    ) => TakeAsync(wish.Was, wish.Why, shop => EditAsync(wish, db, shop, cancel), edit => Said(wish, edit), db, me, clock, memory, cancel);

    private static async Task<Results<Ok<KnowledgeView>, ValidationProblem, ProblemHttpResult>> AcceptFileAsync(
        string name,
        int was,
        string why,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        KnowledgeMemory memory,
        CancellationToken cancel
    )
    {
        if (KnowledgeTable.Find(name) is not { } table)
        {
            return NoTable(name);
        }

        using var file = new StringReader(await TextAsync(context, cancel));
        return await TakeAsync(
            was,
            why,
            shop => Task.FromResult<(KnowledgeEdit?, ProblemHttpResult?)>((KnowledgeEdit.OfFile(shop.Changes(), table, file), null)),
            edit => $"{table.Label} from a file: {Count(edit)}",
            db,
            me,
            clock,
            memory,
            cancel
        );
    }

    private static async Task<string> TextAsync(HttpContext context, CancellationToken cancel)
    {
        using var reader = new StreamReader(context.Request.Body, leaveOpen: true);
        return await reader.ReadToEndAsync(cancel);
    }

    private static async Task<Results<Ok<KnowledgeView>, ValidationProblem, ProblemHttpResult>> TakeAsync(
        int? was,
        string? why,
        Func<ShopKnowledge, Task<(KnowledgeEdit? Edit, ProblemHttpResult? Problem)>> wanted,
        Func<KnowledgeEdit, string> said,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        KnowledgeMemory memory,
        CancellationToken cancel
    )
    {
        if ((why ?? "").Trim().Length is 0 or > LongestWhy)
        {
            return Problem.Field("why", $"Say why, in no more than {LongestWhy} characters: whoever is led by it wants to know.");
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Shop.FromSql($"select *, xmin from shop for update").SingleAsync(cancel);
        var shop = await memory.OfAsync(db, row.KnowledgeVersion, cancel);
        if (was != shop.Version)
        {
            return Problem.Conflict(
                "The tables were changed meanwhile.",
                "Look once more at what it does, then decide. Nothing was changed.",
                ("version", shop.Version)
            );
        }

        var (edit, problem) = await wanted(shop);
        if (problem is not null)
        {
            return problem;
        }

        var look = await EffectAsync(edit!, db, me.Context with { Knowledge = shop }, cancel);
        if (look.Problems is [var wrong, ..])
        {
            return Problem.Field(wrong.Column.Length > 0 ? wrong.Column : "table", wrong.What);
        }

        var (now, before) = (clock.GetUtcNow(), row.KnowledgeVersion);
        // While a version is set aside nothing changes row by row, and a version that can be used is needed all the same.
        if (edit!.Rows.Count > 0 || shop.Problems.Count > 0)
        {
            // What has been handed back stays judged by what was known then.
            await db
                .Trays.Where(tray => tray.WaitsFor == WaitsFor.HandedBack && tray.KnowledgeVersion == null)
                .ExecuteUpdateAsync(set => set.SetProperty(tray => tray.KnowledgeVersion, before), cancel);
            row.KnowledgeVersion++;
            var version = new KnowledgeVersion
            {
                Number = row.KnowledgeVersion,
                At = now,
                By = me.Person.DisplayName,
                What = said(edit),
                Why = why!.Trim(),
                Changes = edit.Changes,
            };
            db.KnowledgeVersions.Add(version);
            db.ShopChanges.Add(
                new ShopChange
                {
                    Id = Guid.CreateVersion7(now),
                    At = now,
                    By = version.By,
                    About = "knowledge",
                    What = version.What,
                    Why = version.Why,
                }
            );
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return TypedResults.Ok(await ViewAsync(db, await memory.OfAsync(db, row.KnowledgeVersion, cancel), cancel));
    }

    private static async Task<(KnowledgeEdit? Edit, ProblemHttpResult? Problem)> EditAsync(
        KnowledgeWish wish,
        BlueDawnDb db,
        ShopKnowledge shop,
        CancellationToken cancel
    )
    {
        var now = shop.Changes();
        if (wish.Act == KnowledgeAct.GoBack)
        {
            if (wish.Version == 0)
            {
                return (KnowledgeEdit.To(now, []), null);
            }

            var then = await db.KnowledgeVersions.AsNoTracking().SingleOrDefaultAsync(version => version.Number == wish.Version, cancel);
            return then is null
                ? (
                    null,
                    TypedResults.Problem(statusCode: 404, title: "There is no such version.", detail: "Look at the list of versions again.")
                )
                : (KnowledgeEdit.To(now, then.Changes), null);
        }

        if (KnowledgeTable.Find(wish.Table ?? "") is not { } table)
        {
            return (null, NoTable(wish.Table ?? ""));
        }

        return (
            wish.Act switch
            {
                KnowledgeAct.Write => KnowledgeEdit.OfRow(now, table, wish.Key, wish.Cells ?? []),
                KnowledgeAct.TakeOut => KnowledgeEdit.OfRow(now, table, wish.Key ?? "", null),
                KnowledgeAct.AsShipped => KnowledgeEdit.Back(now, table, wish.Key ?? ""),
                KnowledgeAct.GoBack => throw new InvalidOperationException("Going back is no edit of a table."),
            },
            null
        );
    }

    private static async Task<KnowledgeLook> EffectAsync(KnowledgeEdit edit, BlueDawnDb db, JudgingContext desk, CancellationToken cancel)
    {
        var files = edit.Rows.Count == 0 ? [] : await TrayFile.OpenBenchAsync(db, 0, desk, cancel);
        List<TableProblem> problems = [.. edit.Problems, .. KnowledgeEffect.Orphans(edit, [.. files.Select(file => file.Book)])];
        var then = Knowledge.With(edit.Changes);
        var names = files.ToDictionary(file => file.Tray.Number, file => file.Tray.Machine.Name);
        return new KnowledgeLook(
            desk.Knowledge.Version,
            problems,
            [.. edit.Rows.Take(MostRowsShown)],
            edit.Rows.Select(row => row.Table).Distinct().ToDictionary(name => name, name => KnowledgeTable.Find(name)!.Columns),
            problems.Count > 0
                ? []
                :
                [
                    .. KnowledgeEffect
                        .Of(files.Select(file => (file.Book, file.By(then))))
                        .Select(effect => new TrayEffectView(effect.Number, names[effect.Number], effect.Before, effect.After)),
                ],
            files.Count
        );
    }

    private static string Said(KnowledgeWish wish, KnowledgeEdit edit) =>
        wish.Act == KnowledgeAct.GoBack
            ? wish.Version == 0
                ? "Everything as it ships again"
                : $"Back to version {wish.Version}"
            : $"{KnowledgeTable.Find(wish.Table!)!.Label}: {Count(edit)}";

    private static string Count(KnowledgeEdit edit) => edit.Rows.Count == 1 ? edit.Rows[0].Key : $"{edit.Rows.Count} rows";

    private static ProblemHttpResult NoTable(string name) =>
        TypedResults.Problem(
            statusCode: 404,
            title: "There is no such table.",
            detail: $"“{name}” is none of {string.Join(", ", KnowledgeTable.All.Select(table => table.Name))}."
        );
}
