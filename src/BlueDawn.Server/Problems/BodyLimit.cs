using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.Metadata;

namespace BlueDawn.Server.Problems;

/// <summary>Bodies over their endpoint's limit are refused with an answer the sender gets to read.</summary>
internal static class BodyLimit
{
    /// <summary>Largest body, in bytes, where an endpoint says nothing else.</summary>
    public const long Usual = 1024 * 1024;

    /// <summary>Up to here a body that is too large is taken in and thrown away, so that its sender sees why.</summary>
    private const long Drained = 64 * 1024 * 1024;

    /// <summary>
    /// Answers 413 by the announced length. The web server itself would close the line while the sender still writes,
    /// and the sender would take that for a server that is away, and try for ever.
    /// </summary>
    public static void UseBodyLimit(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                var most = context.GetEndpoint()?.Metadata.GetMetadata<IRequestSizeLimitMetadata>()?.MaxRequestBodySize ?? Usual;
                if (context.Request.ContentLength is not { } length || length <= most)
                {
                    await next(context);
                    return;
                }

                if (length <= Drained && context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } feature)
                {
                    feature.MaxRequestBodySize = Drained;
                    await context.Request.Body.CopyToAsync(Stream.Null, context.RequestAborted);
                }

                await TooMuch(most).ExecuteAsync(context);
            }
        );

    /// <summary>413: too much at once.</summary>
    /// <param name="most">The limit in bytes.</param>
    public static IResult TooMuch(long most) =>
        TypedResults.Problem(
            statusCode: 413,
            title: "That is too much at once.",
            detail: $"At most {most / Usual} MB can be sent in one go."
        );
}

/// <summary>The largest body an endpoint takes, in bytes, where it is not the usual.</summary>
internal sealed record BodyUpTo(long? MaxRequestBodySize) : IRequestSizeLimitMetadata;
