using System.Security.Claims;
using BlueDawn.Core.Shop;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>
/// Who asks, looked up once for each request: the session has to be there, and the role is the one they have now. A lead who
/// came in by PIN may do what a technician may.
/// </summary>
internal sealed record SignedIn(Guid Session, Person Person, string Role, ShopRow Shop)
{
    /// <summary>Claim that names the session.</summary>
    private const string SessionClaim = "blue-dawn-session";

    private static readonly TimeSpan Seen = TimeSpan.FromHours(1);

    /// <summary>Who asks, or null when nobody is signed in.</summary>
    public static SignedIn? Of(HttpContext context) => context.Features.Get<SignedIn>();

    /// <summary>Signs somebody in on this device.</summary>
    public static async Task<SignedIn> StartAsync(
        HttpContext context,
        BlueDawnDb db,
        Person person,
        DateTimeOffset now,
        CancellationToken cancel,
        bool byPin = false
    )
    {
        // Whoever was signed in on this device is not any more.
        await SessionEndpoints.ForgetAsync(context, db, cancel);
        var agent = context.Request.Headers.UserAgent.ToString();
        var session = new DeviceSession
        {
            Id = Guid.CreateVersion7(now),
            PersonId = person.Id,
            Device = agent[..Math.Min(agent.Length, DeviceSession.LongestDevice)],
            Address = SignInLimiter.AddressOf(context),
            SignedInAt = now,
            SeenAt = now,
            ByPin = byPin,
        };
        db.Sessions.Add(session);
        await db.SaveChangesAsync(cancel);
        var identity = new ClaimsIdentity(IdentityConstants.ApplicationScheme);
        identity.AddClaim(new Claim(ClaimTypes.NameIdentifier, person.Id.ToString()));
        identity.AddClaim(new Claim(SessionClaim, session.Id.ToString()));
        var principal = new ClaimsPrincipal(identity);
        await context.SignInAsync(IdentityConstants.ApplicationScheme, principal, new AuthenticationProperties { IsPersistent = true });
        var signedIn = (await FindAsync(context, db, session.Id, cancel))!;
        context.User = signedIn.Be(principal);
        context.Features.Set(signedIn);
        return signedIn;
    }

    /// <summary>Looks at the cookie of a request: without a session that is still there it counts for nothing.</summary>
    public static async Task ValidateAsync(CookieValidatePrincipalContext cookie)
    {
        var context = cookie.HttpContext;
        if (
            context.GetEndpoint()?.Metadata is not { } about
            || (about.GetMetadata<IAuthorizeData>() is null && about.GetMetadata<AsksWho>() is null)
        )
        {
            // Nobody asks who it is: what needs no sign-in needs no database either.
            cookie.RejectPrincipal();
            return;
        }

        var db = context.RequestServices.GetRequiredService<BlueDawnDb>();
        if (
            !Guid.TryParse(cookie.Principal?.FindFirstValue(SessionClaim), out var id)
            || await FindAsync(context, db, id, context.RequestAborted) is not { } found
        )
        {
            cookie.RejectPrincipal();
            return;
        }

        var now = context.RequestServices.GetRequiredService<TimeProvider>().GetUtcNow();
        if (found.SeenAt < now - Seen)
        {
            await db
                .Sessions.Where(session => session.Id == id)
                .ExecuteUpdateAsync(set => set.SetProperty(session => session.SeenAt, now), context.RequestAborted);
        }

        context.Features.Set(found);
        // What is written into the cookie again says who and which session; the role is looked up every time.
        cookie.ReplacePrincipal(found.Be(cookie.Principal!));
        cookie.ShouldRenew |= SessionCookies.IsEarlier(context);
    }

    /// <summary>Marks an endpoint that is open to all and still wants to know who asks.</summary>
    internal sealed record AsksWho;

    /// <summary>True when they came in by PIN, and have not given their password since.</summary>
    public bool ByPin { get; private init; }

    /// <summary>What the shop knows.</summary>
    public ShopKnowledge Knowledge { get; private init; } = ShopKnowledge.Shipped;

    private DateTimeOffset SeenAt { get; init; }

    private ClaimsPrincipal Be(ClaimsPrincipal principal)
    {
        var identity = ((ClaimsIdentity)principal.Identity!).Clone();
        foreach (var old in identity.FindAll(ClaimTypes.Role).ToList())
        {
            identity.RemoveClaim(old);
        }

        identity.AddClaim(new Claim(ClaimTypes.Role, Role));
        return new ClaimsPrincipal(identity);
    }

    private static async Task<SignedIn?> FindAsync(HttpContext context, BlueDawnDb db, Guid id, CancellationToken cancel)
    {
        var found = await (
            from session in db.Sessions
            join person in db.Users on session.PersonId equals person.Id
            from shop in db.Shop
            where session.Id == id && !person.LockedOut
            select new
            {
                session.SeenAt,
                session.ByPin,
                person,
                shop,
                Role = (
                    from has in db.UserRoles
                    join role in db.Roles on has.RoleId equals role.Id
                    where has.UserId == person.Id
                    orderby role.Name
                    select role.Name
                ).FirstOrDefault(),
            }
        )
            .AsNoTracking()
            .SingleOrDefaultAsync(cancel);
        return found is null
            ? null
            : new SignedIn(
                id,
                found.person,
                found.ByPin && Roles.Find(found.Role)?.Role == Core.Shop.Role.Lead
                    ? Roles.Of(Core.Shop.Role.Technician).Name
                    : found.Role ?? "",
                found.shop
            )
            {
                ByPin = found.ByPin,
                SeenAt = found.SeenAt,
                Knowledge = await context
                    .RequestServices.GetRequiredService<KnowledgeMemory>()
                    .OfAsync(db, found.shop.KnowledgeVersion, cancel),
            };
    }
}
