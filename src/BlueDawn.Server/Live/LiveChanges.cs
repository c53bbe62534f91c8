using System.Collections.Concurrent;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using BlueDawn.Server.People;
using BlueDawn.Store;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Server.Live;

/// <summary>
/// Hears from the database what has changed, whichever server wrote it, and passes it on to every page that is open.
/// A page that hears nothing asks from time to time all the same.
/// </summary>
internal sealed class LiveChanges(NpgsqlDataSource database, IServiceScopeFactory scopes, ILogger<LiveChanges> log) : BackgroundService
{
    /// <summary>Where the database speaks; a trigger of the tables does.</summary>
    private const string Place = "blue_dawn";

    /// <summary>Said when something may have been missed: look at everything.</summary>
    private const string All = "all";

    /// <summary>Said when nothing has happened, so that both ends know of each other.</summary>
    private const string Beat = "beat";

    private const int MostWaiting = 64;

    /// <summary>Most pages of one session that listen at once; the oldest gives way.</summary>
    public const int MostOfSession = 20;

    /// <summary>How long nothing is said before a beat; it is also how soon an ended session is found out where nobody told of it.</summary>
    public TimeSpan BeatEvery { get; set; } = TimeSpan.FromSeconds(15);

    private static readonly TimeSpan TryAgain = TimeSpan.FromSeconds(2);
    private readonly ConcurrentDictionary<long, Page> pages = new();
    private long opened;

    /// <summary>A page that listens, and whose session it is.</summary>
    private sealed record Page(Guid Session, Channel<string> Said);

    /// <summary>How the database begins what it says of a session that has ended.</summary>
    private const string Ended = "ended ";

    /// <summary>What changes from now on, for one page; ends when its session does.</summary>
    public async IAsyncEnumerable<SseItem<string>> HearAsync(Guid session, [EnumeratorCancellation] CancellationToken cancel)
    {
        var id = Interlocked.Increment(ref opened);
        var page = Channel.CreateBounded<string>(new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest });
        pages[id] = new Page(session, page);
        // One tab listens for all: whoever opens more than this has forgotten the first.
        foreach (var old in pages.Where(one => one.Value.Session == session).OrderByDescending(one => one.Key).Skip(MostOfSession))
        {
            old.Value.Said.Writer.TryComplete();
        }

        try
        {
            yield return new SseItem<string>(All);
            while (!cancel.IsCancellationRequested)
            {
                var said = await NextAsync(page.Reader, cancel);
                // Told at once that it has ended; a server that was not told finds out at the next beat.
                if (said is null || (said == Beat && !await IsThereAsync(session, cancel)))
                {
                    yield break;
                }

                yield return new SseItem<string>(said);
            }
        }
        finally
        {
            pages.TryRemove(id, out _);
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await using var connection = await database.OpenConnectionAsync(stoppingToken);
                connection.Notification += (_, said) => Tell(said.Payload);
                await using (var listen = new NpgsqlCommand($"listen {Place}", connection))
                {
                    await listen.ExecuteNonQueryAsync(stoppingToken);
                }

                Tell(All);
                while (!stoppingToken.IsCancellationRequested)
                {
                    await connection.WaitAsync(stoppingToken);
                }
            }
            catch (OperationCanceledException)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or InvalidOperationException or IOException)
            {
                log.LogWarning("Not hearing from the database: {Reason}", e.GetBaseException().Message);
                await Task.Delay(TryAgain, stoppingToken)
                    .ContinueWith(_ => { }, CancellationToken.None, TaskContinuationOptions.None, TaskScheduler.Default);
            }
        }
    }

    /// <summary>What is said next, <see cref="Beat"/> when nothing is for a while, null when the session has ended.</summary>
    private async Task<string?> NextAsync(ChannelReader<string> reader, CancellationToken cancel)
    {
        using var soon = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        soon.CancelAfter(BeatEvery);
        try
        {
            return await reader.ReadAsync(soon.Token);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return Beat;
        }
        catch (ChannelClosedException)
        {
            return null;
        }
    }

    private async Task<bool> IsThereAsync(Guid session, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<BlueDawnDb>().Sessions.AnyAsync(one => one.Id == session, cancel);
    }

    private void Tell(string what)
    {
        if (what.StartsWith(Ended, StringComparison.Ordinal))
        {
            // What was waiting for it is not said any more either.
            foreach (var page in pages.Values.Where(page => Guid.TryParse(what[Ended.Length..], out var ended) && page.Session == ended))
            {
                page.Said.Writer.TryComplete();
                while (page.Said.Reader.TryRead(out _)) { }
            }

            return;
        }

        foreach (var page in pages.Values)
        {
            page.Said.Writer.TryWrite(what);
        }
    }
}

internal static class LiveEndpoints
{
    public static void MapLive(this RouteGroupBuilder api) =>
        api.MapGet("/changes", (HttpContext context, LiveChanges live, IHostApplicationLifetime lifetime) =>
            {
                // A server that is asked to end does not wait for pages that listen.
                var until = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
                context.Response.RegisterForDispose(until);
                return TypedResults.ServerSentEvents(live.HearAsync(SignedIn.Of(context)!.Session, until.Token));
            })
            .WithName("hearChanges")
            .WithSummary("What changes, as server-sent events")
            .WithTags("Live")
            .Produces<string>(200, "text/event-stream");
}
