using Microsoft.EntityFrameworkCore;

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
}
