using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.People;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>A try to get in that was refused, as a lead is shown it.</summary>
/// <param name="At">When.</param>
/// <param name="From">The address it came from, and what the device calls itself.</param>
/// <param name="What">What was refused, and for whom, in words.</param>
internal sealed record RefusedTry(DateTimeOffset At, string From, string What);

/// <summary>
/// Tries to get in that were refused, kept with time, address and device and without what was typed: whoever types a password into the
/// box for the name must not find it here. Tries beyond the limit are not looked at, and not written.
/// </summary>
internal static class RefusedTries
{
    private const string About = "refused/sign-in";
    private const int Shown = 100;
    private const int LongestDevice = 120;

    /// <summary>Writes one down.</summary>
    /// <param name="db">The store.</param>
    /// <param name="context">The request.</param>
    /// <param name="now">Now.</param>
    /// <param name="what">What was refused: a password, a code, a PIN.</param>
    /// <param name="person">Whose; null when nobody has that name.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task WriteAsync(
        BlueDawnDb db,
        HttpContext context,
        DateTimeOffset now,
        string what,
        Person? person,
        CancellationToken cancel
    )
    {
        var device = context.Request.Headers.UserAgent.ToString();
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(now),
                At = now,
                By = $"{SignInLimiter.AddressOf(context)}, {device[..Math.Min(device.Length, LongestDevice)]}".TrimEnd(',', ' '),
                About = About,
                What = $"{what} refused for {person?.DisplayName ?? "a name nobody has"}",
            }
        );
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>The last of them, newest first.</summary>
    /// <param name="db">The store.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<List<RefusedTry>> ListAsync(BlueDawnDb db, CancellationToken cancel) =>
        db
            .ShopChanges.AsNoTracking()
            .Where(change => change.About == About)
            .OrderByDescending(change => change.At)
            .Take(Shown)
            .Select(change => new RefusedTry(change.At, change.By, change.What))
            .ToListAsync(cancel);
}
