using System.Security.Cryptography;
using System.Text;
using BlueDawn.Store;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>What a name and a password came to.</summary>
/// <param name="Person">Who it is, or null.</param>
/// <param name="Locked">True when nothing was looked at: there have been too many tries.</param>
internal sealed record SignInTry(Person? Person, bool Locked);

/// <summary>
/// Looks at names and passwords, and slows guessing down. A try is counted in the database before the password is looked
/// at, so that tries at the same moment count one by one. A device that somebody has signed in on before is counted apart
/// from all others: guesses from elsewhere cannot keep them out. (OWASP, "Slow Down Online Guessing Attacks with Device
/// Cookies".) A name nobody has is treated, and takes as long, as one that somebody has.
/// </summary>
internal sealed class SignInLimiter(
    BlueDawnDb db,
    UserManager<Person> people,
    IPasswordHasher<Person> hasher,
    IDataProtectionProvider protection,
    TimeProvider clock
)
{
    /// <summary>Tries for one name from one address, or from one device that knows it.</summary>
    public const int TriesOfOne = 5;

    /// <summary>Tries for one name from all devices that do not know it.</summary>
    public const int TriesOfName = 25;

    /// <summary>Tries for all names from one address.</summary>
    public const int TriesOfAddress = 60;

    /// <summary>How long tries count.</summary>
    public static readonly TimeSpan Window = TimeSpan.FromMinutes(10);

    private const string DeviceCookie = "blue-dawn-device";
    private const int LongestName = 64;
    private const int LongestPassword = 256;
    private static readonly TimeSpan DeviceFor = TimeSpan.FromDays(400);
    private static string? nobodysHash;

    private readonly IDataProtector protector = protection.CreateProtector("device");

    /// <summary>Counts the try, then looks at name and password. Call it outside of a transaction: a try stays counted.</summary>
    public async Task<SignInTry> CheckAsync(string userName, string password, HttpContext context, CancellationToken cancel)
    {
        var name = people.NormalizeName(userName.Trim()) ?? "";
        var known = DeviceOf(context, name);
        List<(string Key, int Most)> counted = known is { } device
            ? [($"device {device:N}", TriesOfOne)]
            :
            [
                ($"address {AddressOf(context)}", TriesOfAddress),
                ($"name {Short(name)}", TriesOfName),
                ($"name {Short(name)} from {AddressOf(context)}", TriesOfOne),
            ];
        var tries = await CountAsync([.. counted.Select(one => one.Key)], cancel);
        if (counted.Any(one => tries[one.Key] > one.Most))
        {
            return new SignInTry(null, Locked: true);
        }

        var person = name.Length is 0 or > LongestName || password.Length > LongestPassword ? null : await people.FindByNameAsync(name);
        if (person is null)
        {
            // As long as it takes for somebody.
            hasher.VerifyHashedPassword(
                new Person(),
                nobodysHash ??= hasher.HashPassword(new Person(), Guid.NewGuid().ToString()),
                password
            );
            return new SignInTry(null, Locked: false);
        }

        if (!await people.CheckPasswordAsync(person, password) || person.LockedOut)
        {
            return new SignInTry(null, Locked: false);
        }

        var keys = counted.Select(one => one.Key).ToList();
        var old = clock.GetUtcNow() - Window;
        await db
            .SignInTries.Where(one => keys.Contains(one.Key) && one.Key.StartsWith("address"))
            .ExecuteUpdateAsync(set => set.SetProperty(one => one.Tries, one => one.Tries - 1), cancel);
        await db
            .SignInTries.Where(one => one.Since < old || (keys.Contains(one.Key) && !one.Key.StartsWith("address")))
            .ExecuteDeleteAsync(cancel);
        return new SignInTry(person, Locked: false);
    }

    /// <summary>
    /// Counts a try at a one-time code; true when there have been too many from this address. A code has sixty bits and a day: no number
    /// of addresses guesses it, and tries from elsewhere do not keep whoever has it from using it.
    /// </summary>
    public async Task<bool> IsGuessingAsync(string name, HttpContext context, CancellationToken cancel)
    {
        var key = $"code {Short(people.NormalizeName(name.Trim()) ?? "")} from {AddressOf(context)}";
        var from = $"code from {AddressOf(context)}";
        var tries = await CountAsync([key, from], cancel);
        return tries[key] > TriesOfName || tries[from] > TriesOfAddress;
    }

    /// <summary>Lets this device be known for whoever has just signed in on it.</summary>
    public void Remember(Person person, HttpContext context)
    {
        if (DeviceOf(context, person.NormalizedUserName ?? "") is null)
        {
            context.Response.Cookies.Append(
                DeviceCookie,
                protector.Protect($"{Guid.CreateVersion7():N} {person.NormalizedUserName}"),
                new CookieOptions
                {
                    HttpOnly = true,
                    SameSite = SameSiteMode.Strict,
                    Secure = context.Request.IsHttps,
                    MaxAge = DeviceFor,
                    Path = "/api",
                    IsEssential = true,
                }
            );
        }
    }

    /// <summary>Where a request comes from.</summary>
    public static string AddressOf(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "here";

    private Guid? DeviceOf(HttpContext context, string name)
    {
        try
        {
            return
                context.Request.Cookies[DeviceCookie] is { } cookie
                && protector.Unprotect(cookie).Split(' ', 2) is [var id, var of]
                && of == name
                && Guid.TryParse(id, out var device)
                ? device
                : null;
        }
        catch (CryptographicException)
        {
            // Written by another shop's server, or by hand.
            return null;
        }
    }

    /// <summary>One more try of each; how many there are now. The database counts, so two at once are two.</summary>
    private async Task<Dictionary<string, int>> CountAsync(string[] keys, CancellationToken cancel)
    {
        Array.Sort(keys, StringComparer.Ordinal); // all take them in one order: no two wait for each other
        var now = clock.GetUtcNow();
        var before = now - Window;
        var rows = await db
            .Database.SqlQuery<Counted>(
                $"""
                insert into sign_in_tries as t (key, tries, since) select key, 1, {now} from unnest({keys}) as key
                on conflict (key) do update set
                    tries = case when t.since < {before} then 1 else t.tries + 1 end,
                    since = case when t.since < {before} then {now} else t.since end
                returning key, tries
                """
            )
            .ToListAsync(cancel);
        return rows.ToDictionary(row => row.Key, row => row.Tries);
    }

    private static string Short(string name) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(name)))[..32];

    private sealed record Counted(string Key, int Tries);
}
