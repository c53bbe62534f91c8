using System.Security.Claims;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Store;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>Whoever asks: who they are, what they may do, and what trays are judged by for them. One look-up a request.</summary>
internal sealed record Me(Person Person, Desk Desk, IReadOnlyList<May> Allowed, uint ShopVersion)
{
    /// <summary>Units they read and type in.</summary>
    public UnitSystem Units => Person.Units;

    /// <summary>What an answer to them hangs on besides the trays themselves.</summary>
    public string Stamp => $"{ShopVersion}.{Person.Id:N}.{Person.Pins.GetHashCode(StringComparison.Ordinal):x}.{Desk.Today:yyyyMMdd}";

    /// <summary>Fills a parameter of an endpoint behind the sign-in.</summary>
    public static async ValueTask<Me?> BindAsync(HttpContext context)
    {
        var db = context.RequestServices.GetRequiredService<BlueDawnDb>();
        var clock = context.RequestServices.GetRequiredService<TimeProvider>();
        var id = Guid.Parse(context.User.FindFirstValue(ClaimTypes.NameIdentifier) ?? throw new BadHttpRequestException("Sign in first.", StatusCodes.Status401Unauthorized));
        var found = await (from person in db.Users from shop in db.Shop where person.Id == id select new { person, shop }).AsNoTracking().SingleOrDefaultAsync(context.RequestAborted)
            ?? throw new BadHttpRequestException("Sign in first.", StatusCodes.Status401Unauthorized);
        return new Me(
            found.person,
            new Desk(found.shop.Defaults, PinSet.Parse(found.person.Pins).Value ?? PinSet.Empty, clock.Today()),
            Roles.Allow(context.User.FindFirstValue(ClaimTypes.Role)),
            found.shop.Version);
    }
}

/// <summary>Today.</summary>
internal static class ShopClock
{
    /// <summary>Today by the clock of the shop.</summary>
    public static DateOnly Today(this TimeProvider clock) => DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
}
