using System.Collections.Concurrent;
using System.Text;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.Logging;

namespace BlueDawn.Server.Tests.Trays;

/// <summary>What one request costs: SQL statements as Entity Framework logs them, and bytes.</summary>
public sealed class CostTests(Shop shop) : IAsyncLifetime
{
    private readonly StatementLog log = new();
    private WebApplicationFactory<Program> factory = null!;
    private Visitor jory = null!;

    public async ValueTask InitializeAsync()
    {
        // A server of its own on the shop's database: what other tests ask meanwhile is not counted.
        factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.WithQuickPasswords()
                .UseSetting("BLUE_DAWN_DATABASE", shop.Database)
                .UseSetting("Logging:LogLevel:Microsoft.EntityFrameworkCore.Database.Command", "Information")
                .ConfigureLogging(logging => logging.ClearProviders().AddProvider(log))
        );
        jory = new Visitor(factory.CreateClient(new WebApplicationFactoryClientOptions { BaseAddress = new Uri("http://localhost") }));
        await jory.SignInAsync("jory", "sandrigg-quay");
    }

    public async ValueTask DisposeAsync() => await factory.DisposeAsync();

    [Fact]
    public async Task A_reading_costs_at_most_4_statements_and_8_kB()
    {
        var number = await jory.NewTrayAsync();
        await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71", noGo = "0.73" });
        log.Clear();
        var answer = await jory.SendNotesAsync(
            number,
            Visitor.Entry(Visitor.Reading("gauging/idle-jet", new { go = "0.32", noGo = "0.34" }))
        );
        Assert.Equal(HttpStatusCode.OK, answer.Status);
        Assert.True(log.Count <= 4, log.ToString());
        var bytes = Encoding.UTF8.GetByteCount(answer.Body.GetRawText());
        Assert.True(bytes <= 8 * 1024, $"{bytes} bytes");
    }

    [Theory]
    [InlineData("/api/bench", 2)]
    [InlineData("/api/trays/27", 2)]
    [InlineData("/api/trays/27/trace?history=false", 2)]
    [InlineData("/api/trays/27/trace", 3)]
    public async Task What_has_not_changed_costs_few_statements_and_no_body(string path, int most)
    {
        using var first = await jory.Http.GetAsync(path, TestContext.Current.CancellationToken);
        var tag = first.Headers.ETag ?? throw new InvalidOperationException($"{path} has no tag.");
        for (var attempt = 1; ; attempt++)
        {
            using var again = new HttpRequestMessage(HttpMethod.Get, path) { Headers = { IfNoneMatch = { tag } } };
            log.Clear();
            using var answer = await jory.Http.SendAsync(again, TestContext.Current.CancellationToken);
            if (answer.StatusCode == HttpStatusCode.OK && attempt < 20)
            {
                // Another test wrote on the shared bench in between.
                tag = answer.Headers.ETag!;
                continue;
            }

            Assert.Equal(HttpStatusCode.NotModified, answer.StatusCode);
            Assert.True(log.Count <= most, log.ToString());
            Assert.Empty(await answer.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken));
            return;
        }
    }

    /// <summary>What the shop confirms on one carburetor shifts the trace of another: its tag is another then.</summary>
    [Fact]
    public async Task A_trace_has_another_tag_once_the_shop_has_confirmed_a_cause_elsewhere()
    {
        var (looked, settled) = (await jory.NewTrayAsync(), await jory.NewTrayAsync());
        using var before = await jory.Http.GetAsync($"/api/trays/{looked}/trace", TestContext.Current.CancellationToken);
        await jory.NoteAsync(
            settled,
            new
            {
                kind = "fault",
                causeId = "fuel-stale",
                outcome = "fixed",
            }
        );
        using var after = await jory.Http.GetAsync($"/api/trays/{looked}/trace", TestContext.Current.CancellationToken);
        Assert.NotEqual(before.Headers.ETag, after.Headers.ETag);
    }

    /// <summary>An answer that is kept is not shown any more once its owner is reached otherwise: the next check-in says so.</summary>
    [Fact]
    public async Task A_tray_shows_how_its_owner_is_reached_since_their_next_one_came_in()
    {
        var name = $"Boat Reached {Guid.NewGuid():N}";
        var number = await jory.NewTrayOfAsync(name, "Bow winch");
        async Task<string?> ReachedAsync() =>
            (await jory.GetAsync($"/api/trays/{number}")).Body.GetProperty("facts").GetProperty("ownerContact").GetString();
        Assert.Equal("", await ReachedAsync());
        var another = await jory.PostAsync(
            "/api/trays",
            new
            {
                trayId = Guid.CreateVersion7(),
                entryId = Guid.CreateVersion7(),
                ownerName = name,
                ownerContact = "0550 118",
                machineName = "Stern winch",
                family = "floatBowl",
                complaint = "Hunts",
                promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(3)),
            }
        );
        Assert.Equal(HttpStatusCode.Created, another.Status);
        Assert.Equal("0550 118", await ReachedAsync());
    }

    [Fact]
    public async Task What_has_changed_comes_with_another_tag()
    {
        var number = await jory.NewTrayAsync();
        using var before = await jory.Http.GetAsync($"/api/trays/{number}", TestContext.Current.CancellationToken);
        await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71", noGo = "0.73" });
        using var again = new HttpRequestMessage(HttpMethod.Get, $"/api/trays/{number}")
        {
            Headers = { IfNoneMatch = { before.Headers.ETag! } },
        };
        using var after = await jory.Http.SendAsync(again, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.OK, after.StatusCode);
        Assert.NotEqual(before.Headers.ETag, after.Headers.ETag);
    }

    /// <summary>The statements Entity Framework reports as executed; those of one round trip are counted one by one.</summary>
    private sealed class StatementLog : ILoggerProvider, ILogger
    {
        private readonly ConcurrentQueue<string> statements = new();

        public int Count => statements.Count;

        public void Clear() => statements.Clear();

        public override string ToString() => string.Join("\n---\n", statements);

        public ILogger CreateLogger(string categoryName) => this;

        public bool IsEnabled(LogLevel logLevel) => true;

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public void Log<TState>(
            LogLevel logLevel,
            EventId eventId,
            TState state,
            Exception? exception,
            Func<TState, Exception?, string> formatter
        )
        {
            if (
                eventId.Name == "Microsoft.EntityFrameworkCore.Database.Command.CommandExecuted"
                && state is IEnumerable<KeyValuePair<string, object?>> values
            )
            {
                var text = values.First(value => value.Key == "commandText").Value as string ?? "";
                foreach (var statement in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
                {
                    statements.Enqueue(statement);
                }
            }
        }

        public void Dispose() => GC.SuppressFinalize(this);
    }
}
