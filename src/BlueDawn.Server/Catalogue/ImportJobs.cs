using BlueDawn.Core.Catalogue;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Server.Catalogue;

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
    Guid Id,
    CatalogueFile File,
    string Name,
    ImportState State,
    ImportPhase Phase,
    int RowsRead,
    long Bytes,
    long BytesRead,
    ImportReport? Report,
    string? Problem
);

/// <summary>
/// Imports that are going on, kept in the database with their files until they are done or forgotten. One whose server
/// ended in the middle has changed nothing, since all is done in one transaction, and is said to have broken off.
/// </summary>
internal sealed class ImportJobs(
    IServiceScopeFactory scopes,
    NpgsqlDataSource database,
    TimeProvider clock,
    ILogger<ImportJobs> log,
    IHostApplicationLifetime lifetime
)
{
    private const int MostKept = 8;
    private const int PieceBytes = 1024 * 1024;

    /// <summary>Whoever runs an import is heard of at least this often, or it has ended.</summary>
    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(300);

    /// <summary>How an import stands, or null when it is not known.</summary>
    public Task<ImportView?> FindAsync(Guid id, CancellationToken cancel) =>
        WithAsync(async db =>
            await db.ImportJobs.AsNoTracking().SingleOrDefaultAsync(job => job.Id == id, cancel) is { } job ? ViewOf(job) : null
        );

    /// <summary>Takes a file in and goes through it without changing anything.</summary>
    public async Task<ImportView> StartAsync(Guid id, CatalogueFile file, string name, Stream body, CancellationToken cancel)
    {
        var (view, isNew) = await WithAsync(async db =>
        {
            if (await db.ImportJobs.AsNoTracking().SingleOrDefaultAsync(job => job.Id == id, cancel) is { } before)
            {
                return (ViewOf(before), false);
            }

            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var old = await db.ImportJobs.OrderByDescending(job => job.Id).Skip(MostKept).Select(job => job.Id).ToListAsync(cancel);
            await db.ImportJobs.Where(job => old.Contains(job.Id) && job.State != ImportState.Running).ExecuteDeleteAsync(cancel);
            var job = new ImportJob
            {
                Id = id,
                File = file,
                Name = name,
                State = ImportState.Running,
                HeardAt = clock.GetUtcNow(),
            };
            db.ImportJobs.Add(job);
            await db.SaveChangesAsync(cancel);
            var piece = new byte[PieceBytes];
            for (
                var place = 0;
                await body.ReadAtLeastAsync(piece, PieceBytes, throwOnEndOfStream: false, cancel) is > 0 and var read;
                place++
            )
            {
                job.Bytes += read;
                db.ImportPieces.Add(
                    new ImportPiece
                    {
                        JobId = id,
                        Place = place,
                        Bytes = piece[..read],
                    }
                );
                await db.SaveChangesAsync(cancel);
                db.ChangeTracker.Clear();
                db.Attach(job);
            }

            await db.ImportJobs.Where(one => one.Id == id).ExecuteUpdateAsync(set => set.SetProperty(one => one.Bytes, job.Bytes), cancel);
            await transaction.CommitAsync(cancel);
            return (ViewOf(job), true);
        });
        if (isNew)
        {
            Run(id, apply: false);
        }

        return view;
    }

    /// <summary>Does what the dry run found; it is gone through again, since the catalogue may have changed.</summary>
    public async Task<ImportView?> AcceptAsync(Guid id, CancellationToken cancel) =>
        await FindAsync(id, cancel) is { State: ImportState.Checked, Report.Rejected: 0 }
            ? await AgainAsync(id, apply: true, cancel)
            : await FindAsync(id, cancel);

    /// <summary>Goes through a file once more with its commas as decimal commas: somebody has said that they are.</summary>
    public async Task<ImportView?> WithDecimalCommaAsync(Guid id, CancellationToken cancel)
    {
        if (await FindAsync(id, cancel) is not { State: ImportState.Checked, Report.Comma: not null })
        {
            return await FindAsync(id, cancel);
        }

        await WithAsync(db =>
            db.ImportJobs.Where(job => job.Id == id).ExecuteUpdateAsync(set => set.SetProperty(job => job.DecimalComma, true), cancel)
        );
        return await AgainAsync(id, apply: false, cancel);
    }

    private async Task<ImportView?> AgainAsync(Guid id, bool apply, CancellationToken cancel)
    {
        // Whoever turns it from checked to running runs it, and nobody else.
        var mine = await WithAsync(db =>
            db.ImportJobs.Where(job => job.Id == id && job.State == ImportState.Checked)
                .ExecuteUpdateAsync(
                    set =>
                        set.SetProperty(job => job.State, ImportState.Running)
                            .SetProperty(job => job.Phase, ImportPhase.Reading)
                            .SetProperty(job => job.RowsRead, 0)
                            .SetProperty(job => job.BytesRead, 0)
                            .SetProperty(job => job.HeardAt, clock.GetUtcNow()),
                    cancel
                )
        );
        if (mine == 1)
        {
            Run(id, apply);
        }

        return await FindAsync(id, cancel);
    }

    /// <summary>Forgets an import and its file.</summary>
    public Task ForgetAsync(Guid id, CancellationToken cancel) =>
        WithAsync(db => db.ImportJobs.Where(job => job.Id == id).ExecuteDeleteAsync(cancel));

    private ImportView ViewOf(ImportJob job)
    {
        var lost = job.State == ImportState.Running && job.HeardAt < clock.GetUtcNow() - Silence;
        var state = lost ? ImportState.Failed : job.State;
        return new ImportView(
            job.Id,
            job.File,
            job.Name,
            state,
            job.Phase,
            job.RowsRead,
            job.Bytes,
            job.BytesRead,
            job.Report,
            state == ImportState.Failed ? "The import broke off; nothing has been changed. Send the file again." : null
        );
    }

    private void Run(Guid id, bool apply) => _ = Task.Run(() => RunAsync(id, apply), CancellationToken.None);

    private async Task RunAsync(Guid id, bool apply)
    {
        var cancel = lifetime.ApplicationStopping;
        var path = Path.Combine(Path.GetTempPath(), $"blue-dawn-import-{id:N}-{Guid.NewGuid():N}.csv");
        try
        {
            await using var bytes = new FileStream(
                path,
                FileMode.CreateNew,
                FileAccess.ReadWrite,
                FileShare.None,
                1 << 16,
                FileOptions.DeleteOnClose | FileOptions.Asynchronous
            );
            var job = await WithAsync(async db =>
            {
                await foreach (
                    var piece in db
                        .ImportPieces.AsNoTracking()
                        .Where(piece => piece.JobId == id)
                        .OrderBy(piece => piece.Place)
                        .AsAsyncEnumerable()
                        .WithCancellation(cancel)
                )
                {
                    await bytes.WriteAsync(piece.Bytes, cancel);
                }

                return await db.ImportJobs.Where(job => job.Id == id).Select(job => new { job.File, job.DecimalComma }).SingleAsync(cancel);
            });
            bytes.Position = 0;
            using var reader = new StreamReader(bytes, leaveOpen: true);
            var progress = new Progress();
            ImportReport report;
            using (var done = CancellationTokenSource.CreateLinkedTokenSource(cancel))
            {
                var telling = TellAsync(id, progress, done.Token);
                await using (var connection = await database.OpenConnectionAsync(cancel))
                {
                    report = await CatalogueImport.RunAsync(
                        connection,
                        job.File,
                        reader,
                        job.DecimalComma,
                        apply,
                        (phase, rows) => (progress.Phase, progress.Rows, progress.Bytes) = (phase, rows, bytes.Position),
                        cancel
                    );
                }

                await done.CancelAsync();
                await telling;
            }

            await WithAsync(async db =>
            {
                // In one: whoever sees that it is imported finds nothing of its file left.
                await using var transaction = await db.Database.BeginTransactionAsync(cancel);
                var left = report.Applied ? await db.ImportPieces.Where(piece => piece.JobId == id).ExecuteDeleteAsync(cancel) : 0;
                if (await db.ImportJobs.FindAsync([id], cancel) is { } job)
                {
                    (job.State, job.Report, job.RowsRead, job.BytesRead) = (
                        report.Applied ? ImportState.Imported : ImportState.Checked,
                        report,
                        report.Rows,
                        job.Bytes
                    );
                    await db.SaveChangesAsync(cancel);
                }

                await transaction.CommitAsync(cancel);
                return left;
            });
        }
        catch (Exception e)
        {
            // Whatever it was, whoever waits for this import has to hear of it; when that cannot be written, its silence says so.
            log.LogError(e, "Import {Import} broke off", id);
            await TryFailAsync(id);
        }
    }

    /// <summary>Says every moment how far it has come, until it is done.</summary>
    private async Task TellAsync(Guid id, Progress progress, CancellationToken done)
    {
        using var timer = new PeriodicTimer(TellEvery);
        try
        {
            while (await timer.WaitForNextTickAsync(done))
            {
                await WithAsync(db =>
                    db.ImportJobs.Where(job => job.Id == id)
                        .ExecuteUpdateAsync(
                            set =>
                                set.SetProperty(job => job.Phase, progress.Phase)
                                    .SetProperty(job => job.RowsRead, progress.Rows)
                                    .SetProperty(job => job.BytesRead, progress.Bytes)
                                    .SetProperty(job => job.HeardAt, clock.GetUtcNow()),
                            done
                        )
                );
            }
        }
        catch (OperationCanceledException)
        {
            // It is done.
        }
    }

    private async Task TryFailAsync(Guid id)
    {
        try
        {
            await WithAsync(db =>
                db.ImportJobs.Where(job => job.Id == id)
                    .ExecuteUpdateAsync(set => set.SetProperty(job => job.State, ImportState.Failed), CancellationToken.None)
            );
        }
        catch (Exception e)
        {
            log.LogError(e, "Import {Import} could not be marked as broken off", id);
        }
    }

    private async Task<T> WithAsync<T>(Func<BlueDawnDb, Task<T>> work)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await work(scope.ServiceProvider.GetRequiredService<BlueDawnDb>());
    }

    private sealed class Progress
    {
        public ImportPhase Phase { get; set; }

        public int Rows { get; set; }

        public long Bytes { get; set; }
    }
}
