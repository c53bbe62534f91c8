using System.Security.Cryptography;
using System.Text.Json;
using BlueDawn.Core.Stations;
using BlueDawn.Server.People;
using BlueDawn.Store;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Trays;

/// <summary>What a device keeps at hand already.</summary>
/// <param name="Trays">The state of each tray it keeps, by number, as it was told.</param>
/// <param name="Shared">The state of what belongs to no tray, or null.</param>
internal sealed record AtHandInput(IReadOnlyDictionary<int, string> Trays, string? Shared = null);

/// <summary>The answer at an address.</summary>
/// <param name="Path">The address.</param>
/// <param name="Body">What a GET of it answers.</param>
internal sealed record AtHandAnswer(string Path, JsonElement Body);

/// <summary>What has changed of what a device keeps at hand, to work without the server.</summary>
/// <param name="Trays">The state of every tray that is not handed back, by number.</param>
/// <param name="Shared">The state of what belongs to no tray.</param>
/// <param name="Answers">The answers that have become other.</param>
internal sealed record AtHandView(IReadOnlyDictionary<int, string> Trays, string Shared, IReadOnlyList<AtHandAnswer> Answers);

internal static class AtHandEndpoints
{
    private const string Baths = "/api/baths";

    /// <summary>What a tray's stations ask for.</summary>
    private static readonly (string Route, string Query)[] OfTray =
    [
        ("/api/trays/{number:int}", ""),
        ("/api/trays/{number:int}/snapshot", ""),
        ("/api/trays/{number:int}/ledger", ""),
        ("/api/trays/{number:int}/cleaning", ""),
        ("/api/trays/{number:int}/kits", ""),
        ("/api/trays/{number:int}/fitting", ""),
        ("/api/trays/{number:int}/photos", ""),
        ("/api/trays/{number:int}/trace", "?history=true"),
    ];

    /// <summary>What belongs to no tray.</summary>
    private static readonly (string Route, string Query)[] OfShop =
    [
        ("/api/parts", ""),
        ("/api/owners", ""),
        ("/api/identify", ""),
        ("/api/faults/knowledge", ""),
        (Baths, ""),
    ];

    public static void MapAtHand(this RouteGroupBuilder api) =>
        api.MapPost("/at-hand", AnswerAsync)
            .WithName("getAtHand")
            .WithSummary("What has changed of all that a device keeps to work without the server")
            .WithTags("Trays")
            .Produces<AtHandView>()
            .Produces(204);

    /// <summary>Every answer is made by the endpoint that a page would ask, so that both are the same whatever changes there.</summary>
    private static async Task<IResult> AnswerAsync(
        AtHandInput input,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        EndpointDataSource endpoints,
        CancellationToken cancel
    )
    {
        var open = await db
            .Trays.AsNoTracking()
            .Where(tray => tray.WaitsFor != WaitsFor.HandedBack)
            .OrderBy(tray => tray.Number)
            .Select(tray => new
            {
                tray.Number,
                tray.Revision,
                tray.Version,
                Sheet = (uint?)tray.Spec!.Version,
            })
            .ToListAsync(cancel);
        var trays = open.ToDictionary(tray => tray.Number, tray => $"{tray.Revision}.{tray.Version}.{tray.Sheet}.{me.Stamp}");
        var asked = new Within(context, endpoints, cancel);
        var shared = new List<(string Path, byte[] Body)>();
        await asked.AskAsync(OfShop, null, shared);
        // How the baths stand changes with every minute: they are another when something has happened at them.
        var happened = await db
            .BathEvents.OrderByDescending(one => one.At)
            .ThenBy(one => one.Id)
            .Select(one => one.Id)
            .FirstOrDefaultAsync(cancel);
        var standing = shared.Where(answer => answer.Path != Baths).SelectMany(answer => answer.Body).Concat(happened.ToByteArray());
        var state = Convert.ToHexStringLower(SHA256.HashData(standing.ToArray()));
        var answers = state == input.Shared ? [] : shared;
        foreach (var (number, _) in trays.Where(tray => input.Trays.GetValueOrDefault(tray.Key) != tray.Value))
        {
            await asked.AskAsync(OfTray, number, answers);
        }

        return answers.Count == 0 ? TypedResults.NoContent() : new Written(trays, state, answers);
    }

    /// <summary>Asks this server's own endpoints for somebody who is signed in already.</summary>
    private sealed class Within(HttpContext outer, EndpointDataSource endpoints, CancellationToken cancel)
    {
        private readonly Dictionary<string, RouteEndpoint> routes = endpoints
            .Endpoints.OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods.Contains(HttpMethods.Get) == true)
            .GroupBy(endpoint => endpoint.RoutePattern.RawText!.TrimEnd('/'))
            .ToDictionary(group => group.Key, group => group.First());

        public async Task AskAsync(IEnumerable<(string Route, string Query)> asked, int? number, List<(string Path, byte[] Body)> into)
        {
            // One scope for a tray: what one of them reads is nothing to the next.
            await using var scope = outer.RequestServices.CreateAsyncScope();
            foreach (var (route, query) in asked)
            {
                cancel.ThrowIfCancellationRequested();
                var endpoint = routes[route];
                using var body = new MemoryStream();
                var inner = new DefaultHttpContext
                {
                    RequestServices = scope.ServiceProvider,
                    RequestAborted = cancel,
                    User = outer.User,
                };
                inner.Features.Set(SignedIn.Of(outer));
                inner.SetEndpoint(endpoint);
                inner.Request.Method = HttpMethods.Get;
                inner.Request.Path = route.Replace("{number:int}", $"{number}", StringComparison.Ordinal);
                inner.Request.QueryString = new QueryString(query.Length > 0 ? query : null);
                inner.Request.RouteValues["number"] = $"{number}";
                inner.Response.Body = body;
                await endpoint.RequestDelegate!(inner);
                await inner.Response.CompleteAsync();
                if (inner.Response.StatusCode == StatusCodes.Status200OK)
                {
                    into.Add((inner.Request.Path + query, body.ToArray()));
                }
            }
        }
    }

    /// <summary>Writes the answers as they are: they are JSON already.</summary>
    private sealed class Written(IReadOnlyDictionary<int, string> trays, string shared, IReadOnlyList<(string Path, byte[] Body)> answers)
        : IResult
    {
        public async Task ExecuteAsync(HttpContext httpContext)
        {
            httpContext.Response.ContentType = "application/json; charset=utf-8";
            await using var json = new Utf8JsonWriter(httpContext.Response.BodyWriter);
            json.WriteStartObject();
            json.WriteStartObject("trays");
            foreach (var (number, state) in trays)
            {
                json.WriteString($"{number}", state);
            }

            json.WriteEndObject();
            json.WriteString("shared", shared);
            json.WriteStartArray("answers");
            foreach (var (path, body) in answers)
            {
                json.WriteStartObject();
                json.WriteString("path", path);
                json.WritePropertyName("body");
                json.WriteRawValue(body, skipInputValidation: true);
                json.WriteEndObject();
                await json.FlushAsync(httpContext.RequestAborted);
            }

            json.WriteEndArray();
            json.WriteEndObject();
        }
    }
}
