using System.Security.Claims;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.Problems;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.People;

/// <summary>Who is signed in and how they like to work.</summary>
/// <param name="Id">Their id.</param>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="DisplayName">The name in the logbook.</param>
/// <param name="Role">technician, lead or front-desk.</param>
/// <param name="May">What they may do.</param>
/// <param name="Units">The units they read and type in.</param>
/// <param name="Pins">Their pins, as they described them.</param>
internal sealed record PersonView(Guid Id, string UserName, string DisplayName, string Role, IReadOnlyList<May> May, UnitSystem Units, string Pins);

/// <summary>The session.</summary>
/// <param name="Person">Who is signed in, or null.</param>
/// <param name="Token">Antiforgery token to send with every write.</param>
/// <param name="DemoAccounts">Names to try the demo with; empty in a real shop.</param>
internal sealed record SessionView(PersonView? Person, string Token, IReadOnlyList<string> DemoAccounts);

/// <summary>A sign-in.</summary>
internal sealed record SignIn(string UserName, string Password);

/// <summary>How someone likes to work.</summary>
/// <param name="Units">Units to read and type in.</param>
/// <param name="Pins">Their pins, such as <c>#61-#80, 0.30-1.00 by 0.05</c>.</param>
internal sealed record MyBench(UnitSystem Units, string Pins);

internal static class SessionEndpoints
{
    public static void MapSession(this RouteGroupBuilder api)
    {
        var session = api.MapGroup("/session").WithTags("Session");
        session.MapGet("", async (HttpContext context, IAntiforgery antiforgery, UserManager<Person> people, IConfiguration configuration) =>
                await ViewAsync(context, context.User, antiforgery, people, configuration))
            .WithName("getSession");
        session.MapPost("", SignInAsync).WithName("signIn").AddEndpointFilter<AntiforgeryFilter>();
        session.MapDelete("", async (HttpContext context, SignInManager<Person> signIn, IAntiforgery antiforgery, UserManager<Person> people, IConfiguration configuration) =>
            {
                await signIn.SignOutAsync();
                return await ViewAsync(context, new ClaimsPrincipal(new ClaimsIdentity()), antiforgery, people, configuration);
            })
            .WithName("signOut")
            .AddEndpointFilter<AntiforgeryFilter>();
    }

    public static void MapMe(this RouteGroupBuilder api) =>
        api.MapPut("/me", SaveMyBenchAsync).WithName("saveMyBench").WithTags("Session");

    private static async Task<Results<Ok<SessionView>, ProblemHttpResult>> SignInAsync(
        SignIn input, HttpContext context, SignInManager<Person> signIn, UserManager<Person> people, IAntiforgery antiforgery, IConfiguration configuration)
    {
        var result = await signIn.PasswordSignInAsync(input.UserName.Trim(), input.Password, isPersistent: true, lockoutOnFailure: true);
        if (result.IsLockedOut)
        {
            return TypedResults.Problem(statusCode: 401, title: "Too many tries.", detail: "This name is locked for ten minutes.");
        }

        if (!result.Succeeded)
        {
            return TypedResults.Problem(statusCode: 401, title: "Name and password do not go together.", detail: "Check both. After five wrong tries the name is locked for ten minutes.");
        }

        var person = await people.FindByNameAsync(input.UserName.Trim());
        return TypedResults.Ok(await ViewAsync(context, await signIn.CreateUserPrincipalAsync(person!), antiforgery, people, configuration));
    }

    private static async Task<Results<Ok<PersonView>, ValidationProblem>> SaveMyBenchAsync(MyBench input, ClaimsPrincipal user, UserManager<Person> people)
    {
        if (PinSet.Parse(input.Pins) is { Problem: { } problem })
        {
            return Problem.Field("pins", problem);
        }

        var person = (await people.GetUserAsync(user))!;
        person.Units = input.Units;
        person.Pins = input.Pins;
        await people.UpdateAsync(person);
        return TypedResults.Ok(await PersonViewAsync(person, people));
    }

    private static async Task<SessionView> ViewAsync(
        HttpContext context, ClaimsPrincipal user, IAntiforgery antiforgery, UserManager<Person> people, IConfiguration configuration)
    {
        context.User = user; // the token belongs to whoever is signed in from here on
        var person = user.Identity?.IsAuthenticated == true ? await people.GetUserAsync(user) : null;
        if (person is null)
        {
            context.User = new ClaimsPrincipal(new ClaimsIdentity());
        }

        var demo = person is null && configuration.GetValue<bool>("BLUE_DAWN_DEMO")
            ? await people.Users.OrderBy(p => p.UserName).Select(p => p.UserName!).ToListAsync()
            : [];
        return new SessionView(
            person is null ? null : await PersonViewAsync(person, people),
            antiforgery.GetAndStoreTokens(context).RequestToken!,
            demo);
    }

    private static async Task<PersonView> PersonViewAsync(Person person, UserManager<Person> people)
    {
        var role = (await people.GetRolesAsync(person)).FirstOrDefault() ?? "";
        return new PersonView(person.Id, person.UserName!, person.DisplayName, role, Roles.Allow(role), person.Units, person.Pins);
    }
}
