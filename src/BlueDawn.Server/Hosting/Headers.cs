using System.IO.Compression;
using Microsoft.AspNetCore.ResponseCompression;

namespace BlueDawn.Server.Hosting;

/// <summary>What every answer says besides its body, also when something went wrong.</summary>
internal static class Headers
{
    /// <summary>Scripts come from here alone; Core runs in the browser as WebAssembly.</summary>
    private const string Policy =
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' data: blob:; style-src "
        + "'self' 'unsafe-inline'; object-src 'none'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";

    /// <summary>Answers and the program itself are sent small. What a session says is not: it holds a token beside what others may choose.</summary>
    public static void UseSmallAnswers(this WebApplication app) =>
        app.UseWhen(context => !context.Request.Path.StartsWithSegments("/api/session"), answers => answers.UseResponseCompression());

    /// <summary>How answers are made small: the middle way, which makes a quarter of a trace in a few milliseconds.</summary>
    public static void AddSmallAnswers(this IServiceCollection services)
    {
        services.AddResponseCompression(options =>
        {
            options.EnableForHttps = true;
            options.MimeTypes =
            [
                "text/html",
                "text/javascript",
                "text/css",
                "application/wasm",
                "image/svg+xml",
                "application/json",
                "application/problem+json",
                "application/schema+json",
                "text/csv",
            ];
        });
        services.Configure<BrotliCompressionProviderOptions>(options => options.Level = CompressionLevel.Optimal);
        services.Configure<GzipCompressionProviderOptions>(options => options.Level = CompressionLevel.Optimal);
    }

    /// <summary>Writes them when the answer starts: whoever clears an answer before cannot lose them.</summary>
    public static void UseHeaders(this WebApplication app) =>
        app.Use(
            (context, next) =>
            {
                context.Response.OnStarting(() =>
                {
                    var headers = context.Response.Headers;
                    headers.XContentTypeOptions = "nosniff";
                    headers["Referrer-Policy"] = "same-origin";
                    headers["Permissions-Policy"] = "camera=(self), microphone=(), geolocation=(), payment=(), usb=()";
                    headers["Cross-Origin-Opener-Policy"] = "same-origin";
                    headers["Cross-Origin-Resource-Policy"] = "same-origin";
                    headers.ContentSecurityPolicy = Policy;
                    if (context.Request.Path.StartsWithSegments("/api") && headers.CacheControl.Count == 0)
                    {
                        // People and owners are in it: no cache keeps it, and a tag asks again every time.
                        headers.CacheControl = headers.ETag.Count > 0 ? "private, no-cache" : "no-store";
                    }
                    else if (NamedByContent(context.Request.Path) && context.Response.StatusCode == 200)
                    {
                        // Its content stands in its name: it never changes.
                        headers.CacheControl = "public, max-age=31536000, immutable";
                    }
                    else if (headers.CacheControl.Count == 0)
                    {
                        headers.CacheControl = "no-cache";
                    }

                    return Task.CompletedTask;
                });
                return next(context);
            }
        );

    /// <summary>Whether a file's name changes with what is in it.</summary>
    private static bool NamedByContent(PathString path) =>
        path.StartsWithSegments("/assets") || (path.StartsWithSegments("/core") && path != "/core/dotnet.js");
}
