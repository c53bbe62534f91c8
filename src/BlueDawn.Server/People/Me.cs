using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;

namespace BlueDawn.Server.People;

/// <summary>Whoever asks: who they are, what they may do, and what trays are judged by for them. One look-up a request.</summary>
internal sealed record Me(Person Person, JudgingContext Context, IReadOnlyList<Permission> Allowed, uint ShopVersion)
{
    /// <summary>Units they read and type in.</summary>
    public UnitSystem Units => Person.Units;

    /// <summary>The pins they have at hand, as they were described.</summary>
    public string Pins => Context.Shop.PinsOf(Person.Pins);

    /// <summary>What the shop knows about cleaning.</summary>
    public CleaningKnowledge Recipes => Context.Knowledge.Of().Of<CleaningKnowledge>();

    /// <summary>What an answer to them hangs on besides the trays themselves.</summary>
    public string Stamp => $"{ShopVersion}.{Person.Id:N}.{Person.Pins.GetHashCode(StringComparison.Ordinal):x}.{Context.Today:yyyyMMdd}";

    /// <summary>Fills a parameter of an endpoint behind the sign-in.</summary>
    public static ValueTask<Me?> BindAsync(HttpContext context)
    {
        var (person, shop, role, knowledge) = SignedIn.Of(context) is { } found
            ? (found.Person, found.Shop, found.Role, found.Knowledge)
            : throw new BadHttpRequestException("Sign in first.", StatusCodes.Status401Unauthorized);
        var clock = context.RequestServices.GetRequiredService<TimeProvider>();
        return ValueTask.FromResult<Me?>(
            new Me(
                person,
                new JudgingContext(
                    shop.Defaults,
                    PinSet.Parse(shop.Defaults.PinsOf(person.Pins)).Value ?? PinSet.Empty,
                    clock.Today(shop.TimeZone),
                    knowledge
                )
                {
                    AheadOfUtcMin = (int)clock.Now(shop.TimeZone).Offset.TotalMinutes,
                },
                Roles.Allow(role),
                shop.Version
            )
        );
    }
}

/// <summary>The clock of the shop.</summary>
internal static class ShopClock
{
    /// <summary>Today by the clock of the shop.</summary>
    /// <param name="clock">The clock.</param>
    /// <param name="timeZone">The shop's time zone by its IANA name; the server's own where there is none.</param>
    public static DateOnly Today(this TimeProvider clock, string timeZone) => DateOnly.FromDateTime(clock.Now(timeZone).DateTime);

    /// <summary>Now by the clock of the shop.</summary>
    /// <param name="clock">The clock.</param>
    /// <param name="timeZone">The shop's time zone by its IANA name; the server's own where there is none.</param>
    public static DateTimeOffset Now(this TimeProvider clock, string timeZone) =>
        TimeZoneInfo.TryFindSystemTimeZoneById(timeZone, out var zone)
            ? TimeZoneInfo.ConvertTime(clock.GetUtcNow(), zone)
            : clock.GetLocalNow();
}
