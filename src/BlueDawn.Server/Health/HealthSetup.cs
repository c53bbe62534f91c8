using BlueDawn.Store;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
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
        app.MapHealthChecks("/health/live", new HealthCheckOptions { Predicate = _ => false });
        app.MapHealthChecks(
            "/health/ready",
            new HealthCheckOptions { Predicate = check => check.Tags.Contains(Ready), ResponseWriter = WriteAsync }
        );
    }

    private static Task WriteAsync(HttpContext context, HealthReport report) =>
        context.Response.WriteAsJsonAsync(
            new
            {
                status = report.Status.ToString().ToLowerInvariant(),
                checks = report.Entries.ToDictionary(entry => entry.Key, entry => entry.Value.Status.ToString().ToLowerInvariant()),
            }
        );
}
