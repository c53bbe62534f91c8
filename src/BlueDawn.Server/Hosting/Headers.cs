namespace BlueDawn.Server.Hosting;

/// <summary>What every answer says besides its body, also when something went wrong.</summary>
internal static class Headers
{
    /// <summary>Scripts come from here alone; Core runs in the browser as WebAssembly.</summary>
    private const string Policy =
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' data: blob:; style-src "
        + "'self' 'unsafe-inline'; object-src 'none'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";

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

                    return Task.CompletedTask;
                });
                return next(context);
            }
        );
}
