using System.Security.Cryptography;
using System.Text;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>What a shop begins with, and its first lead.</summary>
/// <param name="Code">The one-time code from the terminal.</param>
/// <param name="ShopName">The shop's name.</param>
/// <param name="TimeZone">Its time zone by its IANA name.</param>
/// <param name="Currency">Three letters.</param>
/// <param name="Labour">What an hour at the bench costs, as it was typed.</param>
/// <param name="Units">Units the first lead reads and types in.</param>
/// <param name="DisplayName">Their name in the logbook.</param>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="Password">Their password.</param>
internal sealed record FirstStartInput(
    string Code,
    string ShopName,
    string TimeZone,
    string Currency,
    string Labour,
    UnitSystem Units,
    string DisplayName,
    string UserName,
    string Password
);

/// <summary>A code that is typed once, such as <c>K7QM-3XHT-9WPD</c>: 60 bits, without letters that look alike.</summary>
internal static class OneTimeCode
{
    private const string Letters = "ABCDEFGHJKMNPQRSTVWXYZ0123456789";

    /// <summary>A new one.</summary>
    public static string New()
    {
        var letters = RandomNumberGenerator.GetString(Letters, 12);
        return $"{letters[..4]}-{letters[4..8]}-{letters[8..]}";
    }

    /// <summary>SHA-256 of a code as it may be typed: capitals or not, with dashes or without.</summary>
    public static string Hash(string typed) =>
        Convert.ToHexString(
            SHA256.HashData(Encoding.UTF8.GetBytes(new string([.. typed.ToUpperInvariant().Where(char.IsAsciiLetterOrDigit)])))
        );

    /// <summary>Whether two hashes are the same, in the same time whatever they are.</summary>
    public static bool Same(string hash, string other) =>
        CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(hash), Encoding.ASCII.GetBytes(other));
}

/// <summary>
/// The code that proves who is at the machine while a shop has nobody in it: given with BLUE_DAWN_SETUP_CODE (./run makes one
/// and shows it), else made here and written to the log.
/// </summary>
internal sealed class SetupCode(IConfiguration configuration)
{
    /// <summary>The code.</summary>
    public string Code { get; } = configuration["BLUE_DAWN_SETUP_CODE"] is { Length: >= 8 } given ? given : OneTimeCode.New();

    /// <summary>True when it was made here, and has to be shown.</summary>
    public bool IsOwn => configuration["BLUE_DAWN_SETUP_CODE"] is not { Length: >= 8 };

    /// <summary>Whether it is what was typed.</summary>
    public bool Is(string typed) => OneTimeCode.Same(OneTimeCode.Hash(typed), OneTimeCode.Hash(Code));
}

internal static class FirstStart
{
    /// <summary>Makes the first lead of a shop that has nobody in it, and signs them in.</summary>
    public static async Task<Results<Ok<SessionView>, ValidationProblem, ProblemHttpResult>> BeginAsync(
        FirstStartInput input,
        HttpContext context,
        SetupCode setup,
        SignInLimiter door,
        BlueDawnDb db,
        UserManager<Person> people,
        IAntiforgery antiforgery,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await door.IsGuessingAsync("setup", context, cancel))
        {
            return TypedResults.Problem(
                statusCode: 401,
                title: "Too many tries.",
                detail: $"Wait {SignInLimiter.Window.TotalMinutes:0} minutes."
            );
        }

        if (await db.Users.AnyAsync(cancel))
        {
            return Begun();
        }

        var shop = new ShopStart(input.ShopName, input.TimeZone, input.Currency, input.Labour);
        var staff = new StaffEntry(input.UserName.Trim(), input.DisplayName.Trim(), "", Role.Lead);
        List<FieldProblem> problems =
        [
            .. setup.Is(input.Code) ? [] : new[] { NotTheCode },
            .. shop.Check(),
            .. staff.Check(),
            .. PasswordRules.Problem(input.Password, input.UserName, input.DisplayName, input.ShopName) is { } weak
                ? [new FieldProblem("password", weak)]
                : Array.Empty<FieldProblem>(),
        ];
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var now = clock.GetUtcNow();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // Two first starts at the same moment: the second waits here, and finds somebody.
        var row = await db.Shop.FromSql($"select *, xmin from shop for update").SingleAsync(cancel);
        if (await db.Users.AnyAsync(cancel))
        {
            return Begun();
        }

        (row.Name, row.TimeZone) = (shop.ShopName.Trim(), shop.TimeZone);
        row.Defaults = shop.Begin(row.Defaults);
        var person = new Person
        {
            Id = Guid.CreateVersion7(now),
            UserName = staff.UserName,
            DisplayName = staff.DisplayName,
            Initials = staff.Short,
            Units = input.Units,
        };
        if (await people.CreateAsync(person, input.Password) is { Succeeded: false } refused)
        {
            return Problem.Field("userName", string.Join(" ", refused.Errors.Select(error => error.Description)));
        }

        await people.AddToRoleAsync(person, Roles.Of(Role.Lead).Name);
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(now),
                At = now,
                By = person.DisplayName,
                About = "shop",
                What = $"The shop was set up as {row.Name}.",
            }
        );
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        await SignedIn.StartAsync(context, db, person, now, cancel);
        door.Remember(person, context);
        return TypedResults.Ok(await SessionEndpoints.ViewAsync(context, antiforgery, db));
    }

    /// <summary>What is said of a wrong code.</summary>
    public static readonly FieldProblem NotTheCode = new("code", "That is not the code in the terminal where Blue Dawn was started.");

    /// <summary>What is said when somebody was first.</summary>
    public static ProblemHttpResult Begun() =>
        TypedResults.Problem(
            statusCode: 409,
            title: "This shop has been set up already.",
            detail: "Sign in. A lead adds people on the page People."
        );
}
