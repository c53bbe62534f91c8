using BlueDawn.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace BlueDawn.Server.Health;

/// <summary>/health/live: the process answers. /health/ready: so does the database, with every migration in place.</summary>
internal static class HealthSetup
{
    private const string Ready = "ready";

    public static void AddBlueDawnHealth(this IServiceCollection services) =>
        services
            .AddHealthChecks()
            .AddDbContextCheck<BlueDawnDb>("database", tags: [Ready])
            .AddDbContextCheck<BlueDawnDb>("migrations", tags: [Ready], customTestQuery: IsThisVersionAsync);

    /// <summary>Neither behind the book nor ahead of it.</summary>
    private static async Task<bool> IsThisVersionAsync(BlueDawnDb db, CancellationToken cancel) =>
        (await db.Database.GetAppliedMigrationsAsync(cancel)).Order().SequenceEqual(db.Database.GetMigrations().Order());

    public static void MapBlueDawnHealth(this WebApplication app)
    {
        var health = app.MapGroup("/health").WithTags("Health").AllowAnonymous();
        health
            .MapGet("/live", () => TypedResults.Ok(new HealthView("healthy", new Dictionary<string, string>())))
            .WithName("isLive")
            .WithSummary("Whether the server answers");
        health
            .MapGet("/ready", ReadyAsync)
            .WithName("isReady")
            .WithSummary("Whether it can be worked with: its database answers, in this version")
            .Produces<HealthView>(503);
    }

    private static async Task<Results<Ok<HealthView>, JsonHttpResult<HealthView>>> ReadyAsync(
        HealthCheckService checks,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        response.Headers.CacheControl = "no-store";
        var report = await checks.CheckHealthAsync(check => check.Tags.Contains(Ready), cancel);
        var view = new HealthView(Word(report.Status), report.Entries.ToDictionary(entry => entry.Key, entry => Word(entry.Value.Status)));
        return report.Status == HealthStatus.Healthy ? TypedResults.Ok(view) : TypedResults.Json(view, statusCode: 503);
    }

    private static string Word(HealthStatus status) => status.ToString().ToLowerInvariant();
}

/// <summary>How the server stands.</summary>
/// <param name="Status">healthy, degraded or unhealthy.</param>
/// <param name="Checks">The same for each thing that was looked at.</param>
internal sealed record HealthView(string Status, IReadOnlyDictionary<string, string> Checks);
