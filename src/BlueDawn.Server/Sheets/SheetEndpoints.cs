using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace BlueDawn.Server.Sheets;

/// <summary>A spec sheet in the list.</summary>
/// <param name="Code">Its code.</param>
/// <param name="Issue">Its latest issue.</param>
/// <param name="Retired">True when it is not offered any more.</param>
/// <param name="Maker">Who made the carburetor.</param>
/// <param name="Family">Its kind.</param>
/// <param name="Choke">Its choke, or null.</param>
/// <param name="StampedNumbers">Numbers found on it.</param>
/// <param name="Trays">Open trays that are judged by one of its issues.</param>
internal sealed record SheetSummary(
    string Code,
    int Issue,
    bool Retired,
    string Maker,
    CarburetorFamily Family,
    ChokeKind? Choke,
    IReadOnlyList<string> StampedNumbers,
    int Trays
);

/// <summary>One issue of a sheet.</summary>
/// <param name="Sheet">What it says.</param>
/// <param name="Numbers">Its numbers by the boxes they are typed in, such as <c>float.heightMm</c>.</param>
/// <param name="Needs">The parts a kit should bring, as they are typed.</param>
/// <param name="Screws">What it says of screws, as it is typed.</param>
/// <param name="Current">True for the issue that is chosen from now on.</param>
/// <param name="MadeAt">When it was made, or null for one that came with the shop.</param>
/// <param name="MadeBy">Who made it, or null.</param>
/// <param name="Why">What was changed and why.</param>
/// <param name="Trays">Open trays that are judged by it.</param>
internal sealed record SheetIssue(
    SpecSheet Sheet,
    IReadOnlyDictionary<string, double> Numbers,
    string Needs,
    string Screws,
    bool Current,
    DateTimeOffset? MadeAt,
    string? MadeBy,
    string Why,
    IReadOnlyList<int> Trays
);

/// <summary>How a sheet is typed.</summary>
/// <param name="Groups">Its boxes.</param>
/// <param name="UsualJetToleranceMm">Taken for a jet when nobody says what is allowed either way.</param>
/// <param name="UsualRowToleranceMm">The same for a row of an emulsion tube.</param>
internal sealed record SheetFormView(IReadOnlyList<SheetGroup> Groups, decimal UsualJetToleranceMm, decimal UsualRowToleranceMm);

/// <summary>One issue of a sheet by its name.</summary>
internal sealed record SheetName(string Code, int Issue);

/// <summary>A sheet as it is being typed.</summary>
/// <param name="Typed">What was typed.</param>
/// <param name="From">The issue it is written from, or null.</param>
/// <param name="Needs">The parts a kit should bring, one a line; null for those of the issue it is written from.</param>
internal sealed record SheetDraft(TypedSheet Typed, SheetName? From, string? Needs = null);

/// <summary>What can be said of it so far.</summary>
/// <param name="Problems">What is wrong, by the path of its field.</param>
/// <param name="Windows">The windows of bores, by the path of their field.</param>
internal sealed record SheetLook(IReadOnlyList<FieldProblem> Problems, IReadOnlyDictionary<string, Span> Windows);

/// <summary>A typed sheet to put on file.</summary>
/// <param name="Typed">What was typed.</param>
/// <param name="From">The issue it is written from, or null.</param>
/// <param name="BasedOn">The issue it corrects, 0 for a new sheet.</param>
/// <param name="Why">What was changed and why.</param>
/// <param name="Needs">The parts a kit should bring, one a line; null for those of the issue it is written from.</param>
internal sealed record NewTypedIssue(TypedSheet Typed, SheetName? From, int BasedOn, string Why, string? Needs = null);

/// <summary>A sheet to put on file.</summary>
/// <param name="Sheet">What it says; its issue is given by the server.</param>
/// <param name="BasedOn">The issue it was written from, 0 for a new sheet.</param>
/// <param name="Why">What was changed and why.</param>
internal sealed record NewIssue(SpecSheet Sheet, int BasedOn, string Why);

/// <summary>What becomes of a sheet in a file.</summary>
internal enum SheetBecomes
{
    /// <summary>A sheet that is not there yet.</summary>
    New,

    /// <summary>A new issue of one that is.</summary>
    Issue,

    /// <summary>Nothing: it says the same.</summary>
    Same,

    /// <summary>It cannot be taken; then none of the file is.</summary>
    Refused,
}

/// <summary>One sheet of a file, looked at.</summary>
/// <param name="Code">Its code.</param>
/// <param name="Becomes">What becomes of it.</param>
/// <param name="Problems">What is wrong with it, by field.</param>
internal sealed record SheetTaken(string Code, SheetBecomes Becomes, IReadOnlyList<FieldProblem> Problems);

/// <summary>A file of sheets, looked through.</summary>
/// <param name="Sheets">What becomes of each.</param>
/// <param name="Comma">The first number with a comma that nobody has said the meaning of, or null.</param>
internal sealed record SheetFileLook(IReadOnlyList<SheetTaken> Sheets, string? Comma);

internal static class SheetEndpoints
{
    private const int MostInFile = 2000;
    private const int LongestWhy = 500;
    private const int LargestCsv = 4 * 1024 * 1024;
    private static readonly Lazy<JsonNode> SchemaNode = new(() => MakeSchema());

    public static void MapSheets(this RouteGroupBuilder api)
    {
        var sheets = api.MapGroup("/sheets").WithTags("Sheets");
        sheets.MapGet("", ListAsync).WithName("listSheets").WithSummary("Every spec sheet");
        sheets
            .MapGet("/form", () =>
                TypedResults.Ok(new SheetFormView(SheetForm.Groups, SheetForm.UsualJetToleranceMm, SheetForm.UsualRowToleranceMm))
            )
            .WithName("getSheetForm")
            .WithSummary("How a spec sheet is typed");
        sheets
            .MapGet("/schema", () => TypedResults.Json(SchemaNode.Value, contentType: "application/schema+json"))
            .WithName("getSheetSchema")
            .WithSummary("JSON Schema of a spec sheet")
            .Produces<JsonElement>(200, "application/schema+json");
        sheets.MapGet("/file", FileAsync).WithName("getSheetFile").WithSummary("Every current spec sheet as one JSON file");
        sheets
            .MapPost("/file", TakeFileAsync)
            .WithName("takeSheetFile")
            .RequireAuthorization(nameof(Permission.ManageShop))
            .WithSummary("Look a file of spec sheets through, and with take=true put all of it on file");
        sheets
            .MapGet("/file.csv", CsvAsync)
            .WithName("getSheetCsv")
            .WithSummary("Every current spec sheet as a table")
            .Produces<string>(200, "text/csv");
        sheets
            .MapPost("/file.csv", TakeCsvAsync)
            .WithName("takeSheetCsv")
            .RequireAuthorization(nameof(Permission.ManageShop))
            .Accepts<string>("text/csv")
            .WithSummary("The same for a table")
            .WithMetadata(new BodyUpTo(LargestCsv));
        sheets
            .MapPost("/look", LookAsync)
            .WithName("lookAtSheet")
            .WithSummary("What can be said of a sheet while it is typed")
            .RequireAuthorization(nameof(Permission.MakeSheets));
        sheets.MapGet("/{code}", ShowAsync).WithName("getSheet").WithSummary("A spec sheet with all its issues");
        sheets
            .MapPut("/{code}", SaveAsync)
            .WithName("saveSheet")
            .WithSummary("Put a spec sheet, or a new issue of it, on file")
            .RequireAuthorization(nameof(Permission.MakeSheets));
        sheets
            .MapPut("/{code}/typed", SaveTypedAsync)
            .WithName("saveTypedSheet")
            .WithSummary("The same, as it was typed")
            .RequireAuthorization(nameof(Permission.MakeSheets));
        sheets
            .MapDelete("/{code}", (string code, BlueDawnDb db, Me me, TimeProvider clock, CancellationToken cancel) =>
                RetireAsync(code, true, db, me, clock, cancel)
            )
            .WithName("retireSheet")
            .WithSummary("Offer a spec sheet no more; trays keep it")
            .RequireAuthorization(nameof(Permission.ManageShop));
        sheets
            .MapPost("/{code}/again", (string code, BlueDawnDb db, Me me, TimeProvider clock, CancellationToken cancel) =>
                RetireAsync(code, false, db, me, clock, cancel)
            )
            .WithName("offerSheetAgain")
            .WithSummary("Offer a retired spec sheet again")
            .RequireAuthorization(nameof(Permission.ManageShop));
    }

    private static async Task<Ok<List<SheetSummary>>> ListAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var trays = await Open(db)
            .GroupBy(tray => tray.SpecCode!)
            .Select(group => new { group.Key, Count = group.Count() })
            .ToDictionaryAsync(one => one.Key, one => one.Count, cancel);
        var rows = await db.SpecSheets.AsNoTracking().OrderBy(row => row.Code).ThenByDescending(row => row.Issue).ToListAsync(cancel);
        return TypedResults.Ok(
            rows.GroupBy(row => row.Code).Select(issues => Summary(issues.First().Sheet, !issues.Any(row => row.Current))).ToList()
        );

        SheetSummary Summary(SpecSheet sheet, bool retired) =>
            new(
                sheet.Code,
                sheet.Issue,
                retired,
                sheet.Maker,
                sheet.Family,
                sheet.Choke,
                sheet.StampedNumbers,
                trays.GetValueOrDefault(sheet.Code)
            );
    }

    private static IQueryable<Store.Trays.Tray> Open(BlueDawnDb db) =>
        db.Trays.Where(tray => tray.SpecCode != null && tray.WaitsFor != Core.Stations.WaitsFor.HandedBack);

    private static async Task<Ok<List<SpecSheet>>> FileAsync(HttpContext context, BlueDawnDb db, CancellationToken cancel)
    {
        context.Response.Headers.ContentDisposition = "attachment; filename=spec-sheets.json";
        return TypedResults.Ok(
            await db
                .SpecSheets.AsNoTracking()
                .Where(row => row.Current)
                .OrderBy(row => row.Code)
                .Select(row => row.Sheet)
                .ToListAsync(cancel)
        );
    }

    private static async Task<Results<Ok<List<SheetIssue>>, ProblemHttpResult>> ShowAsync(
        string code,
        BlueDawnDb db,
        CancellationToken cancel
    ) => await IssuesAsync(db, code, cancel) is { Count: > 0 } issues ? TypedResults.Ok(issues) : None(code);

    private static async Task<List<SheetIssue>> IssuesAsync(BlueDawnDb db, string code, CancellationToken cancel)
    {
        var trays = await Open(db)
            .Where(tray => tray.SpecCode == code)
            .Select(tray => new { tray.SpecIssue, tray.Number })
            .ToListAsync(cancel);
        var rows = await db
            .SpecSheets.AsNoTracking()
            .Where(row => row.Code == code)
            .OrderByDescending(row => row.Issue)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(row => new SheetIssue(
                row.Sheet,
                SheetForm.Numbers(row.Sheet),
                NeedText.Write(row.Sheet.Needs),
                ScrewText.Write(row.Sheet.Screws),
                row.Current,
                row.MadeAt,
                row.MadeBy,
                row.Why,
                [.. trays.Where(tray => tray.SpecIssue == row.Issue).Select(tray => tray.Number).Order()]
            )),
        ];
    }

    private static async Task<SpecSheet?> FromAsync(BlueDawnDb db, SheetName? from, CancellationToken cancel) =>
        from is null
            ? null
            : await db
                .SpecSheets.AsNoTracking()
                .Where(row => row.Code == from.Code && row.Issue == from.Issue)
                .Select(row => row.Sheet)
                .SingleOrDefaultAsync(cancel);

    private static async Task<Ok<SheetLook>> LookAsync(SheetDraft draft, BlueDawnDb db, Me me, CancellationToken cancel)
    {
        var read = Read(draft.Typed, draft.Needs, await FromAsync(db, draft.From, cancel), PartsOf(draft.Typed, me));
        return TypedResults.Ok(new SheetLook(read.Problems, read.Windows()));
    }

    private static async Task<Results<Ok<List<SheetIssue>>, ValidationProblem, ProblemHttpResult>> SaveTypedAsync(
        string code,
        NewTypedIssue input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var read = Read(input.Typed, input.Needs, await FromAsync(db, input.From, cancel), PartsOf(input.Typed, me));
        return await PutAsync(code, new NewIssue(read.Sheet, input.BasedOn, input.Why), [.. read.Problems], db, me, clock, cancel);
    }

    private static IReadOnlyList<StripPart> PartsOf(TypedSheet typed, Me me) =>
        me.Context.Knowledge.Of().Of<LedgerKnowledge>().All(typed.Family);

    private static ReadSheet Read(TypedSheet typed, string? needs, SpecSheet? from, IReadOnlyList<StripPart> parts)
    {
        var read = SheetForm.Read(typed, from);
        // A screw of a part that no ledger has would never be asked for.
        if (
            (read.Sheet.Screws ?? []).FirstOrDefault(screw => parts.All(part => part.Key != screw.Part)) is { } unknown
            && typed.Screws is not null
        )
        {
            read = read with
            {
                Problems =
                [
                    .. read.Problems,
                    new FieldProblem(
                        "screws",
                        $"“{unknown.Part.Replace('-', ' ')}” is no part of such a carburetor. There "
                            + $"are {string.Join(", ", parts.Select(part => part.Key.Replace('-', ' ')))}."
                    ),
                ],
            };
        }

        if (needs is null)
        {
            return read;
        }

        var asked = NeedText.Read(needs, typed.Units, PartKnowledge.Shipped);
        return asked.IsRight
            ? read with
            {
                Sheet = read.Sheet with { Needs = asked.Value! },
            }
            : read with
            {
                Problems = [.. read.Problems, new FieldProblem("needs", asked.Problem!)],
            };
    }

    private static Task<Results<Ok<List<SheetIssue>>, ValidationProblem, ProblemHttpResult>> SaveAsync(
        string code,
        NewIssue input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        PutAsync(
            code,
            input,
            [.. SheetCheck.Problems(input.Sheet).Select(problem => problem with { Field = "sheet." + problem.Field })],
            db,
            me,
            clock,
            cancel
        );

    private static async Task<Results<Ok<List<SheetIssue>>, ValidationProblem, ProblemHttpResult>> PutAsync(
        string code,
        NewIssue input,
        List<FieldProblem> problems,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (input.Sheet.Code != code)
        {
            problems.Add(new("code", "The address and the sheet name two codes."));
        }

        if (input.Why.Trim().Length > LongestWhy || (input.BasedOn > 0 && input.Why.Trim().Length == 0))
        {
            problems.Add(
                new(
                    "why",
                    $"Say what was changed and why, in no more than {LongestWhy} characters: whoever reads the sheet later wants to know."
                )
            );
        }

        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var now = clock.GetUtcNow();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await LockAsync(db, cancel);
        var latest = await db
            .SpecSheets.AsNoTracking()
            .Where(row => row.Code == code)
            .OrderByDescending(row => row.Issue)
            .FirstOrDefaultAsync(cancel);
        if (latest is not null && latest.Issue == input.BasedOn + 1 && SaysTheSame(latest.Sheet, input.Sheet))
        {
            // It was sent twice.
            return TypedResults.Ok(await IssuesAsync(db, code, cancel));
        }

        if ((latest?.Issue ?? 0) != input.BasedOn)
        {
            return latest is not null && input.BasedOn == 0
                ? Problem.Conflict(
                    $"There is a sheet {code} already.",
                    "Open it and correct it, or choose another code.",
                    ("issues", await IssuesAsync(db, code, cancel))
                )
                : Problem.Conflict(
                    $"{latest?.MadeBy ?? "Somebody"} has made issue {latest?.Issue} of {code} meanwhile.",
                    "Look at both, then put what is still wanted on the new one. What you wrote is kept here.",
                    ("issues", await IssuesAsync(db, code, cancel))
                );
        }

        await AddIssueAsync(db, me, now, input.Sheet with { Issue = input.BasedOn + 1 }, input.Why.Trim(), cancel);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await IssuesAsync(db, code, cancel));
    }

    private static async Task CsvAsync(HttpContext context, BlueDawnDb db, CancellationToken cancel)
    {
        context.Response.ContentType = "text/csv; charset=utf-8";
        context.Response.Headers.ContentDisposition = "attachment; filename=spec-sheets.csv";
        await using var writer = new StreamWriter(context.Response.Body, new UTF8Encoding(false), leaveOpen: true);
        var sheets = db
            .SpecSheets.AsNoTracking()
            .Where(row => row.Current)
            .OrderBy(row => row.Code)
            .Select(row => row.Sheet)
            .AsAsyncEnumerable();
        await CsvOut.WriteAsync(SheetCsv.Columns, sheets.Select(SheetCsv.Write), writer, cancel);
    }

    private static async Task<Results<Ok<SheetFileLook>, ValidationProblem>> TakeCsvAsync(
        HttpRequest request,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel,
        bool take = false,
        bool decimalComma = false
    )
    {
        using var reader = new StreamReader(request.Body);
        var text = await reader.ReadToEndAsync(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var there = await LatestAsync(db, cancel);
        var rows = SheetCsv.Read(new StringReader(text), decimalComma, there.GetValueOrDefault).Take(MostInFile + 1).ToList();
        return rows.Count is 0 or > MostInFile
            ? Problem.Field("file", $"A file has 1 to {MostInFile} sheets.")
            : TypedResults.Ok(
                await TakeAsync(
                    [
                        .. rows.Select(row =>
                            (
                                row.Code.ToUpperInvariant(),
                                row.Read.Sheet,
                                (IReadOnlyList<FieldProblem>)
                                    [.. row.Read.Problems.Select(problem => problem with { Field = $"line {row.Line}, {problem.Field}" })]
                            )
                        ),
                    ],
                    there,
                    rows.Select(row => row.Comma).FirstOrDefault(comma => comma is not null),
                    take,
                    db,
                    me,
                    clock,
                    transaction,
                    cancel
                )
            );
    }

    private static async Task<Results<Ok<SheetFileLook>, ValidationProblem>> TakeFileAsync(
        List<SpecSheet> file,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel,
        bool take = false
    )
    {
        if (file.Count is 0 or > MostInFile)
        {
            return Problem.Field("file", $"A file has 1 to {MostInFile} sheets.");
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var there = await LatestAsync(db, cancel);
        return TypedResults.Ok(
            await TakeAsync(
                [.. file.Select(sheet => (sheet.Code, sheet, SheetCheck.Problems(sheet)))],
                there,
                null,
                take,
                db,
                me,
                clock,
                transaction,
                cancel
            )
        );
    }

    private static async Task<Dictionary<string, SpecSheet>> LatestAsync(BlueDawnDb db, CancellationToken cancel)
    {
        await LockAsync(db, cancel);
        return (await db.SpecSheets.AsNoTracking().ToListAsync(cancel))
            .GroupBy(row => row.Code)
            .ToDictionary(issues => issues.Key, issues => issues.MaxBy(row => row.Issue)!.Sheet);
    }

    private static async Task<SheetFileLook> TakeAsync(
        IReadOnlyList<(string Code, SpecSheet Sheet, IReadOnlyList<FieldProblem> Problems)> file,
        Dictionary<string, SpecSheet> there,
        string? comma,
        bool take,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        IDbContextTransaction transaction,
        CancellationToken cancel
    )
    {
        var twice = file.GroupBy(one => one.Code).Where(group => group.Count() > 1).Select(group => group.Key).ToHashSet();
        var looked = file.Select(one =>
                (one.Sheet, Latest: there.GetValueOrDefault(one.Code), Taken: Look(one.Code, one.Sheet, one.Problems))
            )
            .ToList();
        if (take && looked.All(one => one.Taken.Becomes != SheetBecomes.Refused))
        {
            foreach (var (sheet, latest, _) in looked.Where(one => one.Taken.Becomes != SheetBecomes.Same))
            {
                await AddIssueAsync(
                    db,
                    me,
                    clock.GetUtcNow(),
                    sheet with
                    {
                        Issue = (latest?.Issue ?? 0) + 1,
                    },
                    "Taken from a file",
                    cancel
                );
            }

            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return new SheetFileLook([.. looked.Select(one => one.Taken)], comma);

        SheetTaken Look(string code, SpecSheet sheet, IReadOnlyList<FieldProblem> wrong)
        {
            IReadOnlyList<FieldProblem> problems =
            [
                .. wrong,
                .. twice.Contains(code) ? [new FieldProblem("code", "It is in the file twice.")] : Array.Empty<FieldProblem>(),
            ];
            return new SheetTaken(
                code,
                problems.Count > 0 ? SheetBecomes.Refused
                    : !there.TryGetValue(code, out var latest) ? SheetBecomes.New
                    : SaysTheSame(latest, sheet) ? SheetBecomes.Same
                    : SheetBecomes.Issue,
                problems
            );
        }
    }

    private static async Task<Results<Ok<List<SheetIssue>>, ProblemHttpResult>> RetireAsync(
        string code,
        bool retire,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await LockAsync(db, cancel);
        var rows = await db.SpecSheets.Where(row => row.Code == code).OrderByDescending(row => row.Issue).ToListAsync(cancel);
        if (rows.Count == 0)
        {
            return None(code);
        }

        foreach (var row in rows)
        {
            row.Current = !retire && row == rows[0];
        }

        Write(
            db,
            me,
            clock.GetUtcNow(),
            code,
            retire ? $"Spec sheet {code} is not offered any more." : $"Spec sheet {code} is offered again.",
            ""
        );
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await IssuesAsync(db, code, cancel));
    }

    /// <summary>Changes of sheets come one after the other: they are rare, and what one has looked at has to hold until it has
    /// written.</summary>
    private static async Task LockAsync(BlueDawnDb db, CancellationToken cancel) =>
        await db.Database.ExecuteSqlAsync($"lock table spec_sheets in share row exclusive mode", cancel);

    /// <summary>Adds an issue that is the current one from now on.</summary>
    private static async Task AddIssueAsync(BlueDawnDb db, Me me, DateTimeOffset now, SpecSheet sheet, string why, CancellationToken cancel)
    {
        await db
            .SpecSheets.Where(row => row.Code == sheet.Code && row.Current)
            .ExecuteUpdateAsync(set => set.SetProperty(row => row.Current, false), cancel);
        db.SpecSheets.Add(
            new SpecSheetRow
            {
                Code = sheet.Code,
                Issue = sheet.Issue,
                Sheet = sheet,
                MadeAt = now,
                MadeBy = me.Person.DisplayName,
                Why = why,
            }
        );
        Write(
            db,
            me,
            now,
            sheet.Code,
            sheet.Issue == 1 ? $"Spec sheet {sheet.Code} was made." : $"Issue {sheet.Issue} of spec sheet {sheet.Code} was made.",
            why
        );
    }

    /// <summary>Whether two sheets say the same, whatever their issue; 13.0 is 13.</summary>
    private static bool SaysTheSame(SpecSheet one, SpecSheet other) => JsonElement.DeepEquals(Said(one), Said(other));

    private static JsonElement Said(SpecSheet sheet) => JsonSerializer.SerializeToElement(sheet with { Issue = 0 }, StoreJson.Options);

    private static void Write(BlueDawnDb db, Me me, DateTimeOffset at, string code, string what, string why) =>
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(at),
                At = at,
                By = me.Person.DisplayName,
                About = $"sheet/{code}",
                What = what,
                Why = why,
            }
        );

    private static JsonNode MakeSchema()
    {
        var schema = StoreJson.Options.GetJsonSchemaAsNode(
            typeof(SpecSheet),
            new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true }
        );
        schema["$schema"] = "https://json-schema.org/draft/2020-12/schema";
        schema["title"] = "Spec sheet of a carburetor";
        schema["description"] =
            "Lengths in millimetres, pressures in kilopascals above the air outside, masses "
            + "in grams, times in seconds, temperatures in °C, speeds in revolutions a minute.";
        return schema;
    }

    private static ProblemHttpResult None(string code) =>
        TypedResults.Problem(statusCode: 404, title: $"There is no sheet {code}.", detail: "Look it up in the list of sheets.");
}
