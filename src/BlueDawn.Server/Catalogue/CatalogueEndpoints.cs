using System.Text;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Shop;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Server.Catalogue;

/// <summary>A catalogue file: its columns, and how much of it is on file.</summary>
/// <param name="File">Which file.</param>
/// <param name="Columns">Its columns in order.</param>
/// <param name="Rows">Rows on file.</param>
/// <param name="SaysAll">True when a file says all there is about the items it names, so that rows it leaves out go.</param>
internal sealed record CatalogueFileView(CatalogueFile File, IReadOnlyList<string> Columns, long Rows, bool SaysAll);

internal static class CatalogueEndpoints
{
    /// <summary>Largest catalogue file, in bytes: a million lines of contents.</summary>
    private const int LargestFile = 128 * 1024 * 1024;

    public static void MapCatalogue(this RouteGroupBuilder api)
    {
        var catalogue = api.MapGroup("/catalogue").WithTags("Catalogue");
        catalogue.MapGet("", ShowAsync).WithName("getCatalogue").WithSummary("The catalogue's files");
        catalogue
            .MapGet("/{file}.csv", ExportAsync)
            .WithName("exportCatalogue")
            .WithSummary("A catalogue file as CSV")
            .Produces<string>(200, "text/csv");
        catalogue.MapGet("/imports/{id:guid}", FindAsync).WithName("getImport").WithSummary("How an import stands");
        var lead = catalogue.MapGroup("/imports").RequireAuthorization(nameof(Permission.ImportCatalogue));
        lead.MapPut("/{id:guid}", StartAsync)
            .WithName("startImport")
            .WithSummary("Send a catalogue file in")
            .WithMetadata(new BodyUpTo(LargestFile))
            .Accepts<string>("text/csv");
        lead.MapPost("/{id:guid}/accept", AcceptAsync).WithName("acceptImport").WithSummary("Do what the dry run of an import found");
        lead.MapPost("/{id:guid}/decimal-comma", CommaAsync)
            .WithName("readDecimalCommas")
            .WithSummary("Go through an import again with its commas as decimal commas");
        lead.MapDelete("/{id:guid}", ForgetAsync).WithName("forgetImport").WithSummary("Forget an import");
    }

    private static async Task<Ok<List<CatalogueFileView>>> ShowAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var views = new List<CatalogueFileView>();
        foreach (var file in Enum.GetValues<CatalogueFile>())
        {
            long rows = file switch
            {
                CatalogueFile.Items => await db.Items.LongCountAsync(cancel),
                CatalogueFile.Contents => await db.ItemContents.LongCountAsync(cancel),
                CatalogueFile.Fits => await db.ItemFits.LongCountAsync(cancel),
                CatalogueFile.Supersessions => await db.Supersessions.LongCountAsync(cancel),
                CatalogueFile.Suppliers => await db.Suppliers.LongCountAsync(cancel),
                CatalogueFile.Offers => await db.Offers.LongCountAsync(cancel),
            };
            views.Add(new CatalogueFileView(file, CatalogueCsv.Columns(file), rows, file is CatalogueFile.Contents or CatalogueFile.Fits));
        }

        return TypedResults.Ok(views);
    }

    private static IResult ExportAsync(string file, NpgsqlDataSource database)
    {
        if (!Enum.TryParse<CatalogueFile>(file, true, out var which) || !Enum.IsDefined(which))
        {
            return NoFile(file);
        }

        // Row by row onto the line: a million rows are never kept.
        return TypedResults.Stream(
            async body =>
            {
                await using var connection = await database.OpenConnectionAsync();
                await using var writer = new StreamWriter(body, new UTF8Encoding(false), leaveOpen: true);
                await CatalogueImport.ExportAsync(connection, which, writer, default);
            },
            "text/csv; charset=utf-8",
            $"{which.ToString().ToLowerInvariant()}.csv"
        );
    }

    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> FindAsync(Guid id, ImportJobs jobs, CancellationToken cancel) =>
        await jobs.FindAsync(id, cancel) is { } view ? TypedResults.Ok(view) : NoImport();

    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> StartAsync(
        Guid id,
        string file,
        string name,
        HttpRequest request,
        ImportJobs jobs,
        CancellationToken cancel
    )
    {
        if (!Enum.TryParse<CatalogueFile>(file, true, out var which) || !Enum.IsDefined(which))
        {
            return NoFile(file);
        }

        return TypedResults.Ok(await jobs.StartAsync(id, which, name.Length > 100 ? name[..100] : name, request.Body, cancel));
    }

    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> AcceptAsync(Guid id, ImportJobs jobs, CancellationToken cancel) =>
        await jobs.AcceptAsync(id, cancel) switch
        {
            null => NoImport(),
            { State: ImportState.Checked } view => Problem.Conflict(
                "Nothing has been imported.",
                $"{view.Report!.Rejected} rows cannot be taken. Put them right in the file and send it again."
            ),
            var view => TypedResults.Ok(view),
        };

    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> CommaAsync(Guid id, ImportJobs jobs, CancellationToken cancel) =>
        await jobs.WithDecimalCommaAsync(id, cancel) is { } view ? TypedResults.Ok(view) : NoImport();

    private static async Task<NoContent> ForgetAsync(Guid id, ImportJobs jobs, CancellationToken cancel)
    {
        await jobs.ForgetAsync(id, cancel);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult NoFile(string file) =>
        TypedResults.Problem(
            statusCode: 404,
            title: $"There is no catalogue file {file}.",
            detail: $"There are {string.Join(", ", Enum.GetNames<CatalogueFile>().Select(name => name.ToLowerInvariant()))}."
        );

    private static ProblemHttpResult NoImport() =>
        TypedResults.Problem(
            statusCode: 404,
            title: "That import is not known any more.",
            detail: "It was a while ago. Send the file again."
        );
}
