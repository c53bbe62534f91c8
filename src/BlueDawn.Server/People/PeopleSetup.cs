using System.Security.Claims;
using BlueDawn.Core.Shop;
using BlueDawn.Store;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Identity;

namespace BlueDawn.Server.People;

/// <summary>Sign-in by cookie and a session the server knows, three roles, antiforgery on writes.</summary>
internal static class PeopleSetup
{
    /// <summary>Header that carries the antiforgery token.</summary>
    public const string TokenHeader = "X-Blue-Dawn-Token";

    /// <summary>Header that says who the page believes is signed in: it may have been open while somebody else signed in beside
    /// it.</summary>
    public const string PersonHeader = "X-Blue-Dawn-Person";

    public static void AddBlueDawnPeople(this IServiceCollection services)
    {
        services
            .AddIdentityCore<Person>(options =>
            {
                options.Password.RequiredLength = 12;
                options.Password.RequireDigit = false;
                options.Password.RequireLowercase = false;
                options.Password.RequireUppercase = false;
                options.Password.RequireNonAlphanumeric = false;
                options.User.RequireUniqueEmail = false;
            })
            .AddRoles<IdentityRole<Guid>>()
            .AddEntityFrameworkStores<BlueDawnDb>();
        // OWASP, Password Storage Cheat Sheet: 210,000 rounds of PBKDF2-HMAC-SHA512 (from memory). A hash with fewer is made anew at the
        // next sign-in.
        services.Configure<PasswordHasherOptions>(options => options.IterationCount = 210_000);
        services.AddScoped<SignInLimiter>();
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.ConfigureApplicationCookie(options =>
        {
            options.Cookie.Name = SessionCookies.Name;
            options.CookieManager = new SessionCookies();
            options.Cookie.Path = "/api";
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.ExpireTimeSpan = TimeSpan.FromDays(14);
            options.SlidingExpiration = true;
            options.Events.OnValidatePrincipal = SignedIn.ValidateAsync;
            options.Events.OnRedirectToLogin = context =>
                Refuse(context.HttpContext, 401, "Sign in first.", "What you typed is kept on this device.");
            options.Events.OnRedirectToAccessDenied = context =>
                Refuse(context.HttpContext, 403, "This is not for your role.", "Ask a technician or the lead to do it.");
        });
        // One policy for each thing that can be allowed, by its name. Whoever is signed in has at least to be allowed to look.
        var authorization = services.AddAuthorizationBuilder();
        foreach (var may in Enum.GetValues<Permission>())
        {
            authorization.AddPolicy(may.ToString(), policy =>
                policy
                    .RequireAuthenticatedUser()
                    .RequireAssertion(context => Roles.Allow(context.User.FindFirst(ClaimTypes.Role)?.Value).Contains(may))
            );
        }

        services.AddAntiforgery(options =>
        {
            options.HeaderName = TokenHeader;
            // Another name than earlier versions gave it, which lay at another path and would win.
            options.Cookie.Name = "blue-dawn-antiforgery";
            options.Cookie.Path = "/api";
            options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
            options.Cookie.SameSite = SameSiteMode.Strict;
        });
    }

    private static Task Refuse(HttpContext context, int status, string title, string detail) =>
        TypedResults.Problem(statusCode: status, title: title, detail: detail).ExecuteAsync(context);
}

/// <summary>Refuses a write that does not carry the antiforgery token of its session.</summary>
internal sealed class AntiforgeryFilter(IAntiforgery antiforgery) : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        if (!HttpMethods.IsGet(context.HttpContext.Request.Method))
        {
            await antiforgery.ValidateRequestAsync(context.HttpContext);
            if (
                context.HttpContext.Request.Headers[PeopleSetup.PersonHeader] is { Count: > 0 } believed
                && SignedIn.Of(context.HttpContext) is { } signedIn
                && believed != signedIn.Person.Id.ToString()
            )
            {
                return TypedResults.Problem(
                    statusCode: 409,
                    title: "Somebody else is signed in on this device now.",
                    detail: "What was typed is kept, and sent when you sign in again. Nobody signs for another.",
                    extensions: new Dictionary<string, object?> { ["otherPerson"] = true }
                );
            }
        }

        return await next(context);
    }
}
