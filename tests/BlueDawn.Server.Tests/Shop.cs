using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;

[assembly: AssemblyFixture(typeof(BlueDawn.Server.Tests.Shop))]

namespace BlueDawn.Server.Tests;

/// <summary>
/// The server over a real PostgreSQL, with the demo scenario in a database of its own that is dropped at the end.
/// BLUE_DAWN_TEST_DATABASE names the server to make it on; ./test sets it.
/// </summary>
public sealed class Shop : IAsyncLifetime
{
    private readonly string name = $"blue_dawn_xunit_{Guid.NewGuid():N}";
    private string admin = "";
    private WebApplicationFactory<Program> factory = null!;

    /// <summary>Stands between the server and its database, so that a test can pull the plug.</summary>
    public Relay Relay { get; private set; } = null!;

    /// <summary>A connection string to the database itself, past the relay.</summary>
    public string Database { get; private set; } = "";

    public async ValueTask InitializeAsync()
    {
        admin = Environment.GetEnvironmentVariable("BLUE_DAWN_TEST_DATABASE")
            ?? throw new InvalidOperationException("BLUE_DAWN_TEST_DATABASE is not set; run these tests with ./test.");
        await DemoSeed.CopyAsync(admin, name);
        Database = new NpgsqlConnectionStringBuilder(admin) { Database = name }.ToString();
        var target = new NpgsqlConnectionStringBuilder(Database);
        Relay = new Relay(target.Host!, target.Port);
        var relayed = new NpgsqlConnectionStringBuilder(Database)
        {
            Host = "127.0.0.1",
            Port = Relay.Port,
            Timeout = 2,
        }.ToString();
        factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.WithQuickPasswords().UseSetting("BLUE_DAWN_DATABASE", relayed).UseSetting("BLUE_DAWN_DEMO", "true")
        );
        _ = factory.Server;
    }

    public async ValueTask DisposeAsync()
    {
        await factory.DisposeAsync();
        await Relay.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await ExecuteAsync(admin, $"drop database {name} with (force)");
    }

    /// <summary>The server's own services.</summary>
    public IServiceProvider Services => factory.Services;

    /// <summary>Someone at a browser who has not signed in.</summary>
    /// <param name="tls">Over TLS.</param>
    public Visitor Visit(bool tls = false) =>
        new(
            factory.CreateClient(
                new WebApplicationFactoryClientOptions { BaseAddress = new Uri(tls ? "https://localhost" : "http://localhost") }
            )
        );

    /// <summary>Someone who has signed in.</summary>
    public async Task<Visitor> SignInAsync(string userName)
    {
        var visitor = Visit();
        await visitor.SignInAsync(userName, "sandrigg-quay");
        return visitor;
    }

    public static async Task<object?> ExecuteAsync(string connection, string sql)
    {
        await using var db = new NpgsqlConnection(connection);
        await db.OpenAsync();
        await using var command = new NpgsqlCommand(sql, db);
        return await command.ExecuteScalarAsync();
    }

    /// <summary>Checks the running sum of a shop's shelf against its moves, added up by the database.</summary>
    public static async Task SumsAgreeAsync(string connection)
    {
        var wrong = await ExecuteAsync(
            connection,
            """
            select string_agg(i.number || ': ' || coalesce(s.on_hand, 0) || ' for ' || m.sum, ', ') from (
                select item_id, sum(case when kind in ('Ordered', 'OrderTakenBack') then 0
                    when kind in ('Fitted', 'Scrapped', 'CameBad') then -pieces else pieces end) as sum from stock_moves group by item_id) m
            join catalogue_items i on i.id = m.item_id left join shelf s on s.item_id = m.item_id where s.on_hand is distinct from m.sum
            """
        );
        Assert.Equal(DBNull.Value, wrong);
        Assert.True(await ExecuteAsync(connection, "select count(*) from shelf") is > 0L);
    }
}
