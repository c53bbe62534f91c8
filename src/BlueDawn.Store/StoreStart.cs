using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.Extensions.Logging;
using Npgsql;

namespace BlueDawn.Store;

/// <summary>Why a server cannot start on a database; its message is for whoever starts it.</summary>
public sealed class CannotStartException(string message) : Exception(message);

/// <summary>
/// What is done with a database before a server works on it: waited for, brought up to date once however many servers
/// start at the same moment, refused when a newer version has been at it, and opened to the role that works at the bench.
/// </summary>
public static partial class StoreStart
{
    /// <summary>Any number will do, as long as every version takes the same.</summary>
    private const long Lock = 0x424c5545_4441574e;
    private static readonly TimeSpan AskAgain = TimeSpan.FromMilliseconds(500);

    /// <summary>Tables in which nothing is ever changed or taken away.</summary>
    private static readonly string[] AppendOnly =
    [
        "logbook_entries",
        "stock_moves",
        "donor_takings",
        "bath_events",
        "shop_changes",
        "knowledge_versions",
    ];

    /// <summary>Prepares the database and runs what else has to be done once.</summary>
    /// <param name="db">The store, opened by the role that owns it.</param>
    /// <param name="bench">The role that works at the bench, or null when the owner does.</param>
    /// <param name="wait">How long to wait for a database that is not there yet.</param>
    /// <param name="once">Runs after the migrations, while other servers wait.</param>
    /// <param name="log">The log.</param>
    /// <param name="cancel">Cancellation.</param>
    /// <exception cref="CannotStartException">There is no such database, or a newer version has been at it.</exception>
    public static async Task RunAsync(BlueDawnDb db, string? bench, TimeSpan wait, Func<Task> once, ILogger log, CancellationToken cancel)
    {
        await OpenAsync(db, wait, log, cancel);
        try
        {
            await db.Database.ExecuteSqlAsync($"select pg_advisory_lock({Lock})", cancel);
            var known = db.Database.GetMigrations().ToHashSet(StringComparer.Ordinal);
            if ((await db.Database.GetAppliedMigrationsAsync(cancel)).FirstOrDefault(applied => !known.Contains(applied)) is { } newer)
            {
                throw new CannotStartException(
                    $"This book was written by a newer version of Blue Dawn (it has {newer}). "
                        + "Start that version; this one would not understand it. Nothing was changed."
                );
            }

            await db.Database.MigrateAsync(cancel);
            if (bench is not null)
            {
                await AllowAsync(db, bench, cancel);
            }

            await once();
            await db.Database.ExecuteSqlAsync($"select pg_advisory_unlock({Lock})", cancel);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private static async Task OpenAsync(BlueDawnDb db, TimeSpan wait, ILogger log, CancellationToken cancel)
    {
        var until = DateTime.UtcNow + wait;
        var said = false;
        while (true)
        {
            try
            {
                await db.Database.OpenConnectionAsync(cancel);
                return;
            }
            catch (Exception e) when (StoreSetup.Said<NpgsqlException>(e) is not null)
            {
                var reason = StoreSetup.Said<NpgsqlException>(e)!;
                if (
                    reason is PostgresException
                    {
                        SqlState: PostgresErrorCodes.InvalidCatalogName
                            or PostgresErrorCodes.InvalidPassword
                            or PostgresErrorCodes.InvalidAuthorizationSpecification
                    } refused
                )
                {
                    throw new CannotStartException($"The database cannot be opened: {refused.MessageText}.");
                }

                if (DateTime.UtcNow >= until)
                {
                    throw new CannotStartException(
                        $"The database does not answer after {wait.TotalSeconds:0} s: {reason.GetBaseException().Message}"
                    );
                }

                if (!said)
                {
                    LogWaiting(log, reason.GetBaseException().Message);
                    said = true;
                }

                await Task.Delay(AskAgain, cancel);
            }
        }
    }

    /// <summary>The bench reads and writes; what is in the books of entries and moves it can only add to.</summary>
    private static async Task AllowAsync(BlueDawnDb db, string bench, CancellationToken cancel)
    {
        var role = '"' + bench.Replace("\"", "\"\"", StringComparison.Ordinal) + '"';
        var sql = $"""
            grant usage on schema public to {role};
            grant select, insert, update, delete on all tables in schema public to {role};
            grant usage, select, update on all sequences in schema public to {role};
            revoke update, delete on {string.Join(", ", AppendOnly)} from {role};
            revoke insert, update, delete on "{HistoryRepository.DefaultTableName}" from {role};
            """;
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(cancel);
    }

    [LoggerMessage(LogLevel.Warning, "Waiting for the database: {Reason}")]
    private static partial void LogWaiting(ILogger log, string reason);
}
