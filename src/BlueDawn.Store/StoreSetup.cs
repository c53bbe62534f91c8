using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Store;

/// <summary>How the store is opened, in one place for the server, the tests and the migration tool.</summary>
public static class StoreSetup
{
    /// <summary>Sets up a context for PostgreSQL with snake-case names.</summary>
    public static DbContextOptionsBuilder<TContext> Configure<TContext>(DbContextOptionsBuilder<TContext> options, string connectionString)
        where TContext : DbContext
    {
        Configure((DbContextOptionsBuilder)options, connectionString);
        return options;
    }

    /// <inheritdoc cref="Configure{TContext}(DbContextOptionsBuilder{TContext}, string)"/>
    public static DbContextOptionsBuilder Configure(DbContextOptionsBuilder options, string connectionString) =>
        options.UseNpgsql(connectionString).UseSnakeCaseNamingConvention();

    /// <inheritdoc cref="Configure{TContext}(DbContextOptionsBuilder{TContext}, string)"/>
    public static DbContextOptionsBuilder Configure(DbContextOptionsBuilder options, NpgsqlDataSource source) =>
        options.UseNpgsql(source).UseSnakeCaseNamingConvention();

    /// <summary>Connections of one server: never so many that two servers and a backup do not find room beside each other.</summary>
    public static NpgsqlDataSource Source(string connectionString)
    {
        var settings = new NpgsqlConnectionStringBuilder(connectionString);
        settings.MaxPoolSize = Math.Min(settings.MaxPoolSize, MostConnections);
        settings.Options ??= Plans;
        return NpgsqlDataSource.Create(settings);
    }

    /// <summary>What the database or its driver said, however deep it is wrapped; null when it was something else.</summary>
    /// <typeparam name="T"><see cref="PostgresException"/> for what the database said, <see cref="NpgsqlException"/> for
    /// either.</typeparam>
    /// <param name="exception">What was thrown.</param>
    public static T? Said<T>(Exception? exception)
        where T : NpgsqlException
    {
        for (var e = exception; e is not null; e = e.InnerException)
        {
            if (e is T said)
            {
                return said;
            }
        }

        return null;
    }

    private const int MostConnections = 40;

    /// <summary>What the planner is told of the disk, unless the connection string says otherwise: a page out of turn costs hardly more
    /// than the next one, as on any disk without a turning part. PostgreSQL takes four times as much for granted and reads
    /// whole tables where an index would do.</summary>
    public const string Plans = "-c random_page_cost=1.1";
}
