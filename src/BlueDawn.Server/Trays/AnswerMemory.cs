using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Caching.Memory;
using Microsoft.Extensions.Options;

namespace BlueDawn.Server.Trays;

/// <summary>
/// Answers that say which version they are of. Whoever has that version already is told so; for anybody else it is worked out
/// once, however many ask: after an entry every page that has the tray open does.
/// </summary>
internal sealed class AnswerMemory(IOptions<JsonOptions> json) : IDisposable
{
    private const long MostBytes = 64 * 1024 * 1024;

    // Another build may judge differently.
    private static readonly string Build = typeof(AnswerMemory).Assembly.ManifestModule.ModuleVersionId.ToString("N")[..8];

    private readonly MemoryCache answers = new(new MemoryCacheOptions { SizeLimit = MostBytes });

    public void Dispose() => answers.Dispose();

    /// <summary>Answers with what stands at this address in this version.</summary>
    /// <param name="context">The request.</param>
    /// <param name="version">What the answer hangs on, all of it.</param>
    /// <param name="work">Works the answer out; null when it is not there any more.</param>
    public async Task<IResult> AnswerAsync<T>(HttpContext context, string version, Func<Task<T?>> work)
        where T : class
    {
        var tag = $"\"{Build}.{version}\"";
        context.Response.Headers.ETag = tag;
        context.Response.Headers.CacheControl = "private, no-cache";
        if (context.Request.Headers.IfNoneMatch.Contains(tag))
        {
            return TypedResults.StatusCode(StatusCodes.Status304NotModified);
        }

        var key = (context.Request.Path.Value, context.Request.QueryString.Value, tag);
        if (!answers.TryGetValue(key, out byte[]? body))
        {
            if (await work() is not { } answer)
            {
                context.Response.Headers.Remove("ETag");
                return TypedResults.Problem(statusCode: 404, title: "It is not there any more.", detail: "Look at the bench again.");
            }

            body = JsonSerializer.SerializeToUtf8Bytes(answer, json.Value.SerializerOptions);
            answers.Set(key, body, new MemoryCacheEntryOptions { Size = body.Length, SlidingExpiration = TimeSpan.FromHours(1) });
        }

        return TypedResults.Bytes(body!, "application/json; charset=utf-8");
    }
}
