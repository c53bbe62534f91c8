using System.Linq.Expressions;
using System.Security.Claims;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>Who is signed in and how they like to work.</summary>
/// <param name="Id">Their id.</param>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="DisplayName">The name in the logbook.</param>
/// <param name="Role">Their role; null when it is not known: then they may do nothing.</param>
/// <param name="RoleLabel">What it is called.</param>
/// <param name="Permissions">What they may do.</param>
/// <param name="Units">The units they read and type in.</param>
/// <param name="Pins">Their pins, as they described them.</param>
/// <param name="HasPin">Whether they have a PIN for shared benches.</param>
/// <param name="ByPin">True when they came in by PIN: what needs a lead is shut until the password has been given.</param>
internal sealed record PersonView(
    Guid Id,
    string UserName,
    string DisplayName,
    Role? Role,
    string RoleLabel,
    IReadOnlyList<Permission> Permissions,
    UnitSystem Units,
    string Pins,
    bool HasPin,
    bool ByPin
);

/// <summary>Somebody who signs in by PIN on a shared bench.</summary>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="DisplayName">The name in the logbook.</param>
/// <param name="Initials">Up to four letters that stand for them.</param>
internal sealed record BenchHand(string UserName, string DisplayName, string Initials);

/// <summary>The session.</summary>
/// <param name="Person">Who is signed in, or null.</param>
/// <param name="Token">Antiforgery token to send with every write.</param>
/// <param name="DemoAccounts">Names to try the demo with; empty in a real shop.</param>
/// <param name="ToSetUp">True while the shop has nobody in it: its first lead has to be made.</param>
/// <param name="ShopName">The shop's name; empty while it has none.</param>
/// <param name="SharedBench">What this device is called, when a lead trusts it; null otherwise.</param>
/// <param name="Hands">On a shared bench, while nobody is signed in: who has a PIN.</param>
/// <param name="Initials">What stands for a name in the book, by the name; empty while nobody is signed in.</param>
internal sealed record SessionView(
    PersonView? Person,
    string Token,
    IReadOnlyList<string> DemoAccounts,
    bool ToSetUp,
    string ShopName,
    string? SharedBench,
    IReadOnlyList<BenchHand> Hands,
    IReadOnlyDictionary<string, string> Initials
);

/// <summary>A sign-in.</summary>
internal sealed record SignIn(string UserName, string Password);

/// <summary>The password, given once more.</summary>
internal sealed record Proof(string Password);

/// <summary>How someone likes to work.</summary>
/// <param name="Units">Units to read and type in.</param>
/// <param name="Pins">Their pins, such as <c>#61-#80, 0.30-1.00 by 0.05</c>.</param>
internal sealed record MyBench(UnitSystem Units, string Pins);

/// <summary>A device on which somebody is signed in.</summary>
/// <param name="Id">The session's id.</param>
/// <param name="Device">What the browser calls itself.</param>
/// <param name="Address">Where it signed in from.</param>
/// <param name="SignedInAt">When it signed in.</param>
/// <param name="SeenAt">When it was last heard of, to the hour.</param>
/// <param name="Here">True for the device that asks.</param>
internal sealed record DeviceView(Guid Id, string Device, string Address, DateTimeOffset SignedInAt, DateTimeOffset SeenAt, bool Here);

internal static class SessionEndpoints
{
    public static void MapSession(this RouteGroupBuilder api)
    {
        var session = api.MapGroup("/session").WithTags("Session").WithMetadata(new SignedIn.AsksWho());
        session
            .MapGet("", async (HttpContext context, IAntiforgery antiforgery, BlueDawnDb db) => await ViewAsync(context, antiforgery, db))
            .WithName("getSession")
            .WithSummary("Who is signed in");
        session
            .MapPost("", SignInAsync)
            .WithName("signIn")
            .WithSummary("Sign in")
            .ProducesProblem(401)
            .AddEndpointFilter<AntiforgeryFilter>();
        session
            .MapPost("/first", FirstStart.BeginAsync)
            .WithName("setUpShop")
            .WithSummary("Make the first lead of a shop that has nobody in it")
            .ProducesProblem(401)
            .ProducesProblem(409)
            .AddEndpointFilter<AntiforgeryFilter>();
        session
            .MapPost("/code", PeopleEndpoints.UseCodeAsync)
            .WithName("useCode")
            .WithSummary("Set a password with a one-time code and sign in")
            .ProducesProblem(401)
            .AddEndpointFilter<AntiforgeryFilter>();
        session
            .MapPost("/pin", SharedBenchEndpoints.SignInAsync)
            .WithName("signInByPin")
            .WithSummary("Sign in by PIN on a device a lead trusts")
            .ProducesProblem(401)
            .AddEndpointFilter<AntiforgeryFilter>();
        session.MapDelete("", SignOutAsync).WithName("signOut").WithSummary("Sign out").AddEndpointFilter<AntiforgeryFilter>();
    }

    public static void MapMe(this RouteGroupBuilder api)
    {
        var me = api.MapGroup("/me").WithTags("Session");
        me.MapPut("", SaveMyBenchAsync).WithName("saveMyBench").WithSummary("Save my units and pins");
        me.MapPut("/password", PeopleEndpoints.ChangePasswordAsync).WithName("changePassword").WithSummary("Change my own password");
        me.MapPut("/pin", SharedBenchEndpoints.ChangePinAsync)
            .WithName("changePin")
            .WithSummary("Set my PIN for shared benches, or take it off");
        me.MapPost("/proof", ProveAsync).WithName("proveMyself").WithSummary("Give the password to a session that was opened by PIN");
        me.MapGet("/devices", ListDevicesAsync).WithName("listDevices").WithSummary("Devices I am signed in on");
        me.MapDelete("/devices/{id:guid}", async (Guid id, HttpContext context, BlueDawnDb db, Me me, CancellationToken cancel) =>
                await EndAsync(context, db, me, session => session.Id == id, cancel)
            )
            .WithName("signOutDevice")
            .WithSummary("Sign one of my devices out");
        me.MapDelete("/devices", async (HttpContext context, BlueDawnDb db, Me me, CancellationToken cancel) =>
                await EndAsync(context, db, me, session => session.Id != SignedIn.Of(context)!.Session, cancel)
            )
            .WithName("signOutEverywhereElse")
            .WithSummary("Sign all my other devices out");
    }

    /// <summary>Wrong PINs are forgotten once the password has been given.</summary>
    private static Task<int> ForgivePinAsync(BlueDawnDb db, Person person, CancellationToken cancel) =>
        db
            .Users.Where(one => one.Id == person.Id && one.DoorPinTries > 0)
            .ExecuteUpdateAsync(set => set.SetProperty(one => one.DoorPinTries, 0), cancel);

    private static async Task<Results<Ok<SessionView>, ProblemHttpResult>> SignInAsync(
        SignIn input,
        HttpContext context,
        SignInLimiter door,
        BlueDawnDb db,
        UserManager<Person> people,
        IAntiforgery antiforgery,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (person, locked) = await door.CheckAsync(input.UserName, input.Password, context, cancel);
        if (locked)
        {
            return TypedResults.Problem(
                statusCode: 401,
                title: "Too many tries.",
                detail: $"Wait {SignInLimiter.Window.TotalMinutes:0} minutes, or sign in on a device you have used before."
            );
        }

        if (person is null)
        {
            await RefusedTries.WriteAsync(
                db,
                context,
                clock.GetUtcNow(),
                "Password",
                await people.FindByNameAsync(input.UserName.Trim()),
                cancel
            );
            return TypedResults.Problem(
                statusCode: 401,
                title: "Name and password do not go together.",
                detail: $"Check both. After {SignInLimiter.TriesOfOne} wrong tries there is a wait of {SignInLimiter.Window.TotalMinutes:0} minutes."
            );
        }

        await SignedIn.StartAsync(context, db, person, clock.GetUtcNow(), cancel);
        door.Remember(person, context);
        await ForgivePinAsync(db, person, cancel);
        return TypedResults.Ok(await ViewAsync(context, antiforgery, db));
    }

    /// <summary>Gives the password to a session that was opened by PIN.</summary>
    private static async Task<Results<NoContent, ValidationProblem>> ProveAsync(
        Proof input,
        HttpContext context,
        SignInLimiter door,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        if (await door.CheckAsync(me.Person.UserName!, input.Password, context, cancel) is not { Person: { } person })
        {
            return Problem.Field("password", "That is not your password.");
        }

        var here = SignedIn.Of(context)!.Session;
        await db
            .Sessions.Where(session => session.Id == here)
            .ExecuteUpdateAsync(set => set.SetProperty(session => session.ByPin, false), cancel);
        await ForgivePinAsync(db, person, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<SessionView>> SignOutAsync(
        HttpContext context,
        BlueDawnDb db,
        IAntiforgery antiforgery,
        CancellationToken cancel
    )
    {
        await ForgetAsync(context, db, cancel);
        await context.SignOutAsync(IdentityConstants.ApplicationScheme);
        context.Features.Set<SignedIn>(null);
        return TypedResults.Ok(await ViewAsync(context, antiforgery, db));
    }

    internal static async Task ForgetAsync(HttpContext context, BlueDawnDb db, CancellationToken cancel)
    {
        if (SignedIn.Of(context) is { } before)
        {
            await db.Sessions.Where(session => session.Id == before.Session).ExecuteDeleteAsync(cancel);
        }
    }

    private static async Task<Ok<List<DeviceView>>> ListDevicesAsync(HttpContext context, BlueDawnDb db, Me me, CancellationToken cancel) =>
        TypedResults.Ok(await DevicesAsync(context, db, me, cancel));

    private static async Task<Ok<List<DeviceView>>> EndAsync(
        HttpContext context,
        BlueDawnDb db,
        Me me,
        Expression<Func<DeviceSession, bool>> which,
        CancellationToken cancel
    )
    {
        await db.Sessions.Where(session => session.PersonId == me.Person.Id).Where(which).ExecuteDeleteAsync(cancel);
        return TypedResults.Ok(await DevicesAsync(context, db, me, cancel));
    }

    private static async Task<List<DeviceView>> DevicesAsync(HttpContext context, BlueDawnDb db, Me me, CancellationToken cancel)
    {
        var here = SignedIn.Of(context)!.Session;
        return await db
            .Sessions.Where(session => session.PersonId == me.Person.Id)
            .OrderByDescending(session => session.Id == here)
            .ThenByDescending(session => session.SeenAt)
            .Select(session => new DeviceView(
                session.Id,
                session.Device,
                session.Address,
                session.SignedInAt,
                session.SeenAt,
                session.Id == here
            ))
            .ToListAsync(cancel);
    }

    private static async Task<Results<Ok<PersonView>, ValidationProblem>> SaveMyBenchAsync(
        MyBench input,
        HttpContext context,
        BlueDawnDb db,
        Me me,
        CancellationToken cancel
    )
    {
        if (PinSet.Parse(input.Pins) is { Problem: { } problem })
        {
            return Problem.Field("pins", problem);
        }

        await db
            .Users.Where(person => person.Id == me.Person.Id)
            .ExecuteUpdateAsync(
                set => set.SetProperty(person => person.Units, input.Units).SetProperty(person => person.Pins, input.Pins),
                cancel
            );
        (me.Person.Units, me.Person.Pins) = (input.Units, input.Pins);
        return TypedResults.Ok(PersonViewOf(SignedIn.Of(context)!));
    }

    /// <summary>The session as it stands.</summary>
    public static async Task<SessionView> ViewAsync(HttpContext context, IAntiforgery antiforgery, BlueDawnDb db)
    {
        var signedIn = SignedIn.Of(context);
        if (signedIn is null)
        {
            context.User = new ClaimsPrincipal(new ClaimsIdentity());
        }

        var bench = await SharedBenchEndpoints.HereAsync(context, db, context.RequestAborted);
        // The token belongs to whoever is signed in from here on.
        var shop = signedIn?.Shop ?? await db.Shop.AsNoTracking().SingleAsync(context.RequestAborted);
        var demo =
            signedIn is null && shop.Demo
                ? await db
                    .Users.Where(person => !person.LockedOut)
                    .OrderBy(person => person.UserName)
                    .Select(person => person.UserName!)
                    .ToListAsync(context.RequestAborted)
                : [];
        return new SessionView(
            signedIn is null ? null : PersonViewOf(signedIn),
            antiforgery.GetAndStoreTokens(context).RequestToken!,
            demo,
            signedIn is null && demo.Count == 0 && !await db.Users.AnyAsync(context.RequestAborted),
            shop.Name,
            bench?.Label,
            bench is null || signedIn is not null
                ? []
                : await db
                    .Users.Where(person => !person.LockedOut && person.DoorPinHash != null)
                    .OrderBy(person => person.DisplayName)
                    .Select(person => new BenchHand(person.UserName!, person.DisplayName, person.Initials))
                    .ToListAsync(context.RequestAborted),
            signedIn is null
                ? new Dictionary<string, string>()
                : (
                    await db
                        .Users.Where(person => person.Initials != "")
                        .Select(person => new { person.DisplayName, person.Initials })
                        .ToListAsync(context.RequestAborted)
                )
                    .DistinctBy(person => person.DisplayName)
                    .ToDictionary(person => person.DisplayName, person => person.Initials)
        );
    }

    private static PersonView PersonViewOf(SignedIn signedIn)
    {
        var person = signedIn.Person;
        return new PersonView(
            person.Id,
            person.UserName!,
            person.DisplayName,
            Roles.Find(signedIn.Role)?.Role,
            Roles.Find(signedIn.Role)?.Label ?? "",
            Roles.Allow(signedIn.Role),
            person.Units,
            person.Pins,
            person.DoorPinHash is not null,
            signedIn.ByPin
        );
    }
}
