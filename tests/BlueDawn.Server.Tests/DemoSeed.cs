using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;

[assembly: AssemblyFixture(typeof(BlueDawn.Server.Tests.DemoSeed))]

namespace BlueDawn.Server.Tests;

/// <summary>The demo shop, loaded once for a run of the tests; whoever wants one gets a copy from the database. It goes at the
/// end.</summary>
public sealed class DemoSeed : IAsyncDisposable
{
    private static readonly string Name = $"blue_dawn_seed_{Guid.NewGuid():N}";
    private static readonly SemaphoreSlim OneAtATime = new(1);
    private static bool isLoaded;

    /// <summary>Makes a database with the demo shop in it.</summary>
    /// <param name="admin">A connection to the server it is made on.</param>
    /// <param name="name">What it is to be called.</param>
    public static async Task CopyAsync(string admin, string name)
    {
        // A database is copied while nobody is connected to it, and so one at a time.
        await OneAtATime.WaitAsync();
        try
        {
            if (!isLoaded)
            {
                await LoadAsync(admin);
                isLoaded = true;
            }

            await Shop.ExecuteAsync(admin, $"create database {name} template {Name}");
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    public async ValueTask DisposeAsync()
    {
        if (Environment.GetEnvironmentVariable("BLUE_DAWN_TEST_DATABASE") is { } admin)
        {
            await Shop.ExecuteAsync(admin, $"drop database if exists {Name} with (force)");
        }
    }

    private static async Task LoadAsync(string admin)
    {
        await Shop.ExecuteAsync(admin, $"create database {Name}");
        // Without a pool of connections that would stay open behind it.
        var database = new NpgsqlConnectionStringBuilder(admin) { Database = Name, Pooling = false }.ToString();
        await using var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.WithQuickPasswords().UseSetting("BLUE_DAWN_DATABASE", database).UseSetting("BLUE_DAWN_DEMO", "true")
        );
        _ = factory.Server;
        await factory.DisposeAsync();
        await Shop.ExecuteAsync(admin, $"select pg_terminate_backend(pid) from pg_stat_activity where datname = '{Name}'");
    }
}
