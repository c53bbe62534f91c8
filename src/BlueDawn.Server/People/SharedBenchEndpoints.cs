using System.Security.Cryptography;
using BlueDawn.Core.Shop;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>A shared device that is trusted.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Label">What it is called.</param>
/// <param name="TrustedBy">Who trusts it.</param>
/// <param name="TrustedAt">Since when.</param>
/// <param name="Here">True for the device that asks.</param>
internal sealed record SharedBenchView(Guid Id, string Label, string TrustedBy, DateTimeOffset TrustedAt, bool Here);

/// <summary>A device to be trusted: the one that asks.</summary>
/// <param name="Label">What it is called.</param>
internal sealed record NewSharedBench(string Label);

/// <summary>A sign-in by PIN.</summary>
internal sealed record PinSignIn(string UserName, string Pin);

/// <summary>My PIN, changed.</summary>
/// <param name="Password">My password.</param>
/// <param name="Pin">The new PIN; empty to take it off.</param>
internal sealed record PinChange(string Password, string Pin);

/// <summary>Signing in by a short PIN at a shared bench: only on a device a lead trusts, and never for what needs a lead.</summary>
internal static class SharedBenchEndpoints
{
    private const string BenchCookie = "blue-dawn-bench";
    private const int LongestLabel = 60;
    private static readonly TimeSpan TrustedFor = TimeSpan.FromDays(400);

    public static void MapSharedBenches(this RouteGroupBuilder api)
    {
        var benches = api.MapGroup("/shared-benches").WithTags("People").RequireAuthorization(nameof(Permission.ManagePeople));
        benches
            .MapGet("", async (HttpContext context, BlueDawnDb db, CancellationToken cancel) =>
                TypedResults.Ok(await ListAsync(context, db, null, cancel))
            )
            .WithName("listSharedBenches")
            .WithSummary("Devices on which people sign in by PIN");
        benches.MapPost("", TrustAsync).WithName("trustDevice").WithSummary("Let people sign in by PIN on this device");
        benches
            .MapDelete("/{id:guid}", EndAsync)
            .WithName("distrustDevice")
            .WithSummary("No more PINs on a device; whoever came in by PIN anywhere is signed out");
    }

    /// <summary>The shared bench that asks, or null when the device is none, or is trusted no more.</summary>
    public static async Task<SharedBench?> HereAsync(HttpContext context, BlueDawnDb db, CancellationToken cancel) =>
        IdOf(context) is { } id ? await db.SharedBenches.AsNoTracking().SingleOrDefaultAsync(bench => bench.Id == id, cancel) : null;

    /// <summary>
    /// Signs in by PIN. A try is counted before the PIN is looked at; after a few wrong ones in a row only the password opens.
    /// Which of device, name and PIN was wrong is not said.
    /// </summary>
    public static async Task<Results<Ok<SessionView>, ProblemHttpResult>> SignInAsync(
        PinSignIn input,
        HttpContext context,
        BlueDawnDb db,
        UserManager<Person> people,
        IPasswordHasher<Person> hasher,
        IAntiforgery antiforgery,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var person =
            await HereAsync(context, db, cancel) is null || input.Pin.Length > DoorPin.Longest
                ? null
                : await people.FindByNameAsync(input.UserName.Trim());
        if (person is not { LockedOut: false, DoorPinHash: { } hash })
        {
            return No();
        }

        var counted = await db
            .Users.Where(one => one.Id == person.Id && one.DoorPinTries < DoorPin.Tries)
            .ExecuteUpdateAsync(set => set.SetProperty(one => one.DoorPinTries, one => one.DoorPinTries + 1), cancel);
        if (counted == 0)
        {
            return No();
        }

        if (hasher.VerifyHashedPassword(person, hash, input.Pin) == PasswordVerificationResult.Failed)
        {
            await RefusedTries.WriteAsync(db, context, clock.GetUtcNow(), "PIN", person, cancel);
            return No();
        }

        await db.Users.Where(one => one.Id == person.Id).ExecuteUpdateAsync(set => set.SetProperty(one => one.DoorPinTries, 0), cancel);
        await SignedIn.StartAsync(context, db, person, clock.GetUtcNow(), cancel, byPin: true);
        return TypedResults.Ok(await SessionEndpoints.ViewAsync(context, antiforgery, db));
    }

    /// <summary>Sets my PIN, or takes it off.</summary>
    public static async Task<Results<NoContent, ValidationProblem>> ChangePinAsync(
        PinChange input,
        HttpContext context,
        SignInLimiter door,
        BlueDawnDb db,
        IPasswordHasher<Person> hasher,
        Me me,
        CancellationToken cancel
    )
    {
        var pin = input.Pin.Trim();
        if (pin.Length > 0 && DoorPin.Problem(pin) is { } weak)
        {
            return Problem.Field("pin", weak);
        }

        if (await door.CheckAsync(me.Person.UserName!, input.Password, context, cancel) is not { Person: { } person })
        {
            return Problem.Field("password", "That is not your password.");
        }

        var hash = pin.Length == 0 ? null : hasher.HashPassword(person, pin);
        await db
            .Users.Where(one => one.Id == person.Id)
            .ExecuteUpdateAsync(set => set.SetProperty(one => one.DoorPinHash, hash).SetProperty(one => one.DoorPinTries, 0), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<List<SharedBenchView>> ListAsync(HttpContext context, BlueDawnDb db, Guid? fresh, CancellationToken cancel)
    {
        var here = fresh ?? IdOf(context);
        return await db
            .SharedBenches.AsNoTracking()
            .OrderBy(bench => bench.TrustedAt)
            .Select(bench => new SharedBenchView(bench.Id, bench.Label, bench.TrustedBy, bench.TrustedAt, bench.Id == here))
            .ToListAsync(cancel);
    }

    private static async Task<Results<Ok<List<SharedBenchView>>, ValidationProblem>> TrustAsync(
        NewSharedBench input,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        IDataProtectionProvider protection,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var label = input.Label.Trim();
        if (label.Length is 0 or > LongestLabel)
        {
            return Problem.Field("label", $"Call it something, of no more than {LongestLabel} characters: “Tablet by the bath”.");
        }

        var now = clock.GetUtcNow();
        var bench = new SharedBench
        {
            Id = Guid.NewGuid(),
            Label = label,
            TrustedBy = me.Person.DisplayName,
            TrustedAt = now,
        };
        if (IdOf(context) is { } before)
        {
            // It is trusted anew, under this name.
            await db.SharedBenches.Where(one => one.Id == before).ExecuteDeleteAsync(cancel);
        }

        db.SharedBenches.Add(bench);
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(now),
                At = now,
                By = me.Person.DisplayName,
                About = $"shared-bench/{bench.Id}",
                What = $"People sign in by PIN on: {label}.",
            }
        );
        await db.SaveChangesAsync(cancel);
        context.Response.Cookies.Append(
            BenchCookie,
            protection.CreateProtector("shared bench").Protect(bench.Id.ToString("N")),
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Secure = context.Request.IsHttps,
                MaxAge = TrustedFor,
                Path = "/api",
                IsEssential = true,
            }
        );
        return TypedResults.Ok(await ListAsync(context, db, bench.Id, cancel));
    }

    private static async Task<Ok<List<SharedBenchView>>> EndAsync(
        Guid id,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await db.SharedBenches.SingleOrDefaultAsync(one => one.Id == id, cancel) is { } bench)
        {
            var now = clock.GetUtcNow();
            db.SharedBenches.Remove(bench);
            db.ShopChanges.Add(
                new ShopChange
                {
                    Id = Guid.CreateVersion7(now),
                    At = now,
                    By = me.Person.DisplayName,
                    About = $"shared-bench/{id}",
                    What = $"No more PINs on: {bench.Label}.",
                }
            );
            await db.SaveChangesAsync(cancel);
            // It is not kept which of them came in here.
            await db.Sessions.Where(session => session.ByPin).ExecuteDeleteAsync(cancel);
        }

        return TypedResults.Ok(await ListAsync(context, db, null, cancel));
    }

    private static Guid? IdOf(HttpContext context)
    {
        try
        {
            return
                context.Request.Cookies[BenchCookie] is { } cookie
                && Guid.TryParse(
                    context.RequestServices.GetRequiredService<IDataProtectionProvider>().CreateProtector("shared bench").Unprotect(cookie),
                    out var id
                )
                ? id
                : null;
        }
        catch (CryptographicException)
        {
            // Written by another shop's server, or by hand.
            return null;
        }
    }

    private static ProblemHttpResult No() =>
        TypedResults.Problem(
            statusCode: 401,
            title: "That PIN does not open.",
            detail: $"After {DoorPin.Tries} wrong ones in a row only the password does: sign in with it here or on another device."
        );
}
