using BlueDawn.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Logging.Abstractions;
using Npgsql;

namespace BlueDawn.Server.Tests.Start;

/// <summary>What happens to a database before a server works on it.</summary>
public sealed class StartTests(Shop shop) : IAsyncLifetime
{
    private readonly string name = $"blue_dawn_start_{Guid.NewGuid():N}";
    private string database = "";

    public async ValueTask InitializeAsync()
    {
        await Shop.ExecuteAsync(shop.Database, $"create database {name}");
        database = new NpgsqlConnectionStringBuilder(shop.Database) { Database = name, Pooling = false }.ToString();
    }

    public async ValueTask DisposeAsync() => await Shop.ExecuteAsync(shop.Database, $"drop database {name} with (force)");

    private static Task RunAsync(string database, TimeSpan? wait = null, Func<Task>? once = null, string? bench = null) =>
        StoreStart.RunAsync(
            new BlueDawnDb(StoreSetup.Configure(new DbContextOptionsBuilder<BlueDawnDb>(), database).Options),
            bench,
            wait ?? TimeSpan.FromSeconds(5),
            once ?? (() => Task.CompletedTask),
            NullLogger.Instance,
            TestContext.Current.CancellationToken
        );

    [Fact]
    public async Task Four_servers_that_start_on_an_empty_database_at_once_bring_it_up_to_date_one_after_the_other()
    {
        var (inside, most) = (0, 0);
        await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(_ => RunAsync(database, once: async () =>
                    {
                        most = Math.Max(most, Interlocked.Increment(ref inside));
                        await Task.Delay(100, TestContext.Current.CancellationToken);
                        Interlocked.Decrement(ref inside);
                    }))
        );
        Assert.Equal(1, most);
        Assert.Equal(0L, await Shop.ExecuteAsync(database, "select count(*) from trays"));
    }

    [Fact]
    public async Task A_book_of_a_newer_version_is_left_alone_and_said_to_be_one()
    {
        // A server that is up while a newer one takes over says that it is not well.
        await using var old = new OtherServer(database);
        var visitor = old.Visit();
        Assert.Equal(HttpStatusCode.OK, (await visitor.GetAsync("/health/ready")).Status);
        await Shop.ExecuteAsync(database, "insert into \"__EFMigrationsHistory\" values ('29991231000000_FromTheFuture', '99')");
        Assert.Equal(HttpStatusCode.ServiceUnavailable, (await visitor.GetAsync("/health/ready")).Status);
        var refused = await Assert.ThrowsAsync<CannotStartException>(() =>
            RunAsync(database, once: () => throw new InvalidOperationException("worked on"))
        );
        Assert.Contains("newer version", refused.Message, StringComparison.Ordinal);
        Assert.Contains("FromTheFuture", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_database_that_is_not_there_yet_is_waited_for()
    {
        var target = new NpgsqlConnectionStringBuilder(database);
        await using var relay = new Relay(target.Host!, target.Port);
        relay.Stop();
        var through = new NpgsqlConnectionStringBuilder(database)
        {
            Host = "127.0.0.1",
            Port = relay.Port,
            Timeout = 2,
        }.ToString();
        var starting = RunAsync(through, TimeSpan.FromSeconds(30));
        await Task.Delay(1500, TestContext.Current.CancellationToken);
        Assert.False(starting.IsCompleted);
        relay.Start();
        await starting;
    }

    [Fact]
    public async Task One_that_never_comes_or_that_does_not_exist_is_said_plainly()
    {
        var nowhere = new NpgsqlConnectionStringBuilder(database) { Port = 1, Timeout = 1 }.ToString();
        Assert.Contains(
            "does not answer",
            (await Assert.ThrowsAsync<CannotStartException>(() => RunAsync(nowhere, TimeSpan.FromSeconds(1)))).Message,
            StringComparison.Ordinal
        );
        var missing = new NpgsqlConnectionStringBuilder(database) { Database = "no_such_book" }.ToString();
        Assert.Contains(
            "no_such_book",
            (await Assert.ThrowsAsync<CannotStartException>(() => RunAsync(missing))).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task The_role_of_the_bench_adds_to_the_book_and_cannot_alter_it()
    {
        var role = $"bench_{Guid.NewGuid():N}";
        await Shop.ExecuteAsync(shop.Database, $"create role {role} login nosuperuser password 'nets-and-floats'");
        try
        {
            await RunAsync(database, bench: role);
            var bench = new NpgsqlConnectionStringBuilder(database) { Username = role, Password = "nets-and-floats" }.ToString();
            // Everything a server does once it is up, demo and all, it does as the bench.
            await using (var server = new OtherServer(bench, ("BLUE_DAWN_OWNER", database), ("BLUE_DAWN_DEMO", "true")))
            {
                var jory = await server.SignInAsync("jory");
                Assert.Equal(
                    HttpStatusCode.OK,
                    (await jory.RecordAsync(await jory.NewTrayAsync(), "gauging/main-jet", new { go = "0.71", noGo = "0.73" })).Status
                );
                // A name can be blanked by it, and nothing else in rows that stay.
                var ilse = await server.SignInAsync("ilse");
                var id = (await ilse.GetAsync("/api/people"))
                    .Body.EnumerateArray()
                    .Single(person => person.GetProperty("userName").GetString() == "jory")
                    .GetProperty("id")
                    .GetGuid();
                await ilse.PutAsync(
                    $"/api/people/{id}",
                    new
                    {
                        displayName = "Jory Tamblyn",
                        initials = "JT",
                        role = "technician",
                        lockedOut = true,
                    }
                );
                Assert.Equal(HttpStatusCode.OK, (await ilse.PostAsync($"/api/people/{id}/blank", new { userName = "jory" })).Status);
            }

            foreach (
                var forbidden in (string[])
                    [
                        "update logbook_entries set words = 'x'",
                        "set blue_dawn.blanking = 'yes'; update logbook_entries set words = 'x'",
                        "delete from knowledge_versions",
                        "update shop_changes set why = 'x'",
                        "delete from logbook_entries",
                        "truncate logbook_entries",
                        "alter table logbook_entries disable trigger all",
                        "update stock_moves set pieces = 0",
                        "delete from bath_events",
                        "delete from donor_takings",
                        "set session_replication_role = replica",
                        "drop table trays",
                        "update \"__EFMigrationsHistory\" set product_version = '0'",
                        "copy people to program 'cat'",
                        "select pg_read_file('PG_VERSION')",
                        "create role other superuser",
                    ]
            )
            {
                var refused = await Assert.ThrowsAsync<PostgresException>(() => Shop.ExecuteAsync(bench, forbidden));
                Assert.Equal(PostgresErrorCodes.InsufficientPrivilege, refused.SqlState);
            }
        }
        finally
        {
            await Shop.ExecuteAsync(database, $"drop owned by {role}");
            await Shop.ExecuteAsync(shop.Database, $"drop role {role}");
        }
    }
}
