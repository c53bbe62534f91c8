using Microsoft.AspNetCore.Authentication.Cookies;

namespace BlueDawn.Server.People;

/// <summary>
/// The cookie of a session. Over TLS its name begins with <c>__Host-</c>: a browser then takes it from this host alone, for all of
/// it (RFC 6265bis, 4.1.3.2). What an earlier version called it is read until it has been written under its own name, and
/// ended then wherever it lay: a browser sends a longer path first, and the last of one name would win.
/// </summary>
internal sealed class SessionCookies : ICookieManager
{
    /// <summary>Its name, without what TLS puts before it.</summary>
    public const string Name = "blue-dawn-session";

    /// <summary>What earlier versions called it, at <see cref="EarlierPaths"/>.</summary>
    private const string Earlier = "blue-dawn";

    // The shorter first: ending a path takes back what was said of every path that begins with it.
    private static readonly string[] EarlierPaths = ["/", "/api"];

    private readonly ChunkingCookieManager cookies = new();

    /// <summary>Whether a request has only the cookie of an earlier version: it is written anew then.</summary>
    public static bool IsEarlier(HttpContext context) =>
        !context.Request.Cookies.ContainsKey(Named(context, Name)) && context.Request.Cookies.ContainsKey(Earlier);

    /// <inheritdoc/>
    public string? GetRequestCookie(HttpContext context, string key) =>
        cookies.GetRequestCookie(context, Named(context, key)) ?? cookies.GetRequestCookie(context, Earlier);

    /// <inheritdoc/>
    public void AppendResponseCookie(HttpContext context, string key, string? value, CookieOptions options)
    {
        EndEarlier(context);
        cookies.AppendResponseCookie(context, Named(context, key), value, On(context, options));
    }

    /// <inheritdoc/>
    public void DeleteCookie(HttpContext context, string key, CookieOptions options)
    {
        EndEarlier(context);
        cookies.DeleteCookie(context, Named(context, key), On(context, options));
    }

    private static string Named(HttpContext context, string key) => context.Request.IsHttps ? "__Host-" + key : key;

    private static CookieOptions On(HttpContext context, CookieOptions options) =>
        context.Request.IsHttps ? new CookieOptions(options) { Path = "/", Secure = true } : options;

    private static void EndEarlier(HttpContext context)
    {
        if (context.Request.Cookies.ContainsKey(Earlier))
        {
            foreach (var path in EarlierPaths)
            {
                context.Response.Cookies.Delete(Earlier, new CookieOptions { Path = path });
            }
        }
    }
}
