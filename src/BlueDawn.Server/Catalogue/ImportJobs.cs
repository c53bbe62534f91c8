using System.Collections.Concurrent;
using BlueDawn.Core.Catalogue;
using BlueDawn.Store.Catalogue;
using Npgsql;

namespace BlueDawn.Server.Catalogue;

/// <summary>How far an import has come.</summary>
internal enum ImportState
{
    /// <summary>It is being gone through.</summary>
    Running,

    /// <summary>Gone through; nothing has been changed yet.</summary>
    Checked,

    /// <summary>Done.</summary>
    Imported,

    /// <summary>It broke off; nothing has been changed.</summary>
    Failed,
}

/// <summary>An import as a page shows it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="File">Which file.</param>
/// <param name="Name">The file's own name.</param>
/// <param name="State">How far it has come.</param>
/// <param name="Phase">What is being done while it runs.</param>
/// <param name="RowsRead">Rows read so far.</param>
/// <param name="Bytes">Bytes in the file.</param>
/// <param name="BytesRead">Bytes read so far.</param>
/// <param name="Report">What it would change or has changed, or null while it runs.</param>
/// <param name="Problem">Why it broke off, or null.</param>
internal sealed record ImportView(
    Guid Id, CatalogueFile File, string Name, ImportState State, ImportPhase Phase, int RowsRead, long Bytes, long BytesRead, ImportReport? Report, string? Problem);

/// <summary>
/// Imports that are going on, kept in memory with their files in a folder for passing things. A restart forgets them:
/// nothing has been changed then, since all is done in one transaction.
/// </summary>
internal sealed class ImportJobs(IConfiguration configuration, ILogger<ImportJobs> log, IHostApplicationLifetime lifetime)
{
    private const int MostAtOnce = 8;

    private static readonly string Folder = Path.Combine(Path.GetTempPath(), "blue-dawn-imports");
    private readonly ConcurrentDictionary<Guid, ImportView> views = new();

    /// <summary>How an import stands, or null when it is not known.</summary>
    public ImportView? Find(Guid id) => views.GetValueOrDefault(id);

    /// <summary>Takes a file in and goes through it without changing anything.</summary>
    public async Task<ImportView> StartAsync(Guid id, CatalogueFile file, string name, Stream body, CancellationToken cancel)
    {
        if (Find(id) is { } before)
        {
            return before;
        }

        foreach (var old in views.Values.Where(view => view.State != ImportState.Running).OrderBy(view => view.Id).SkipLast(MostAtOnce))
        {
            Forget(old.Id);
        }

        Directory.CreateDirectory(Folder);
        await using (var kept = File.Create(PathOf(id)))
        {
            await body.CopyToAsync(kept, cancel);
        }

        var view = new ImportView(id, file, name, ImportState.Running, ImportPhase.Reading, 0, new FileInfo(PathOf(id)).Length, 0, null, null);
        views[id] = view;
        _ = Task.Run(() => RunAsync(id, apply: false), CancellationToken.None);
        return view;
    }

    /// <summary>Does what the dry run found; it is gone through again, since the catalogue may have changed.</summary>
    public ImportView? Accept(Guid id)
    {
        if (Find(id) is not { State: ImportState.Checked, Report.Rejected: 0 } view)
        {
            return Find(id);
        }

        var running = view with { State = ImportState.Running, Phase = ImportPhase.Reading, RowsRead = 0, BytesRead = 0 };
        if (views.TryUpdate(id, running, view))
        {
            _ = Task.Run(() => RunAsync(id, apply: true), CancellationToken.None);
        }

        return Find(id);
    }

    /// <summary>Forgets an import and its file.</summary>
    public void Forget(Guid id)
    {
        views.TryRemove(id, out _);
        File.Delete(PathOf(id));
    }

    private static string PathOf(Guid id) => Path.Combine(Folder, id.ToString("N") + ".csv");

    private async Task RunAsync(Guid id, bool apply)
    {
        try
        {
            await using var connection = new NpgsqlConnection(configuration["BLUE_DAWN_DATABASE"]);
            await connection.OpenAsync(lifetime.ApplicationStopping);
            await using var bytes = File.OpenRead(PathOf(id));
            using var reader = new StreamReader(bytes);
            var report = await CatalogueImport.RunAsync(connection, views[id].File, reader, apply, (phase, rows) => Tell(id, view => view with { Phase = phase, RowsRead = rows, BytesRead = bytes.Position }), lifetime.ApplicationStopping);
            Tell(id, view => view with { State = report.Applied ? ImportState.Imported : ImportState.Checked, Report = report, RowsRead = report.Rows, BytesRead = view.Bytes });
            if (report.Applied)
            {
                File.Delete(PathOf(id));
            }
        }
        catch (Exception e)
        {
            // Whatever it was, whoever waits for this import has to hear of it.
            log.LogError(e, "Import {Import} broke off", id);
            Tell(id, view => view with { State = ImportState.Failed, Problem = "The import broke off; nothing has been changed. Send the file again." });
        }
    }

    private void Tell(Guid id, Func<ImportView, ImportView> change)
    {
        if (views.TryGetValue(id, out var view))
        {
            views[id] = change(view);
        }
    }
}
