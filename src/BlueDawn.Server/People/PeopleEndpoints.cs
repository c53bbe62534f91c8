using System.Text.Json;
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

/// <summary>Somebody who works here, as a lead sees them.</summary>
/// <param name="Id">Their id.</param>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="DisplayName">The name in the logbook.</param>
/// <param name="Initials">What stands for them where a name is too long.</param>
/// <param name="Role">Their role; null while they have none that is known.</param>
/// <param name="RoleLabel">What that is called; empty with it.</param>
/// <param name="LockedOut">True when they cannot sign in.</param>
/// <param name="CodeUntil">Until when a one-time code for them counts, or null.</param>
/// <param name="Devices">Devices they are signed in on.</param>
/// <param name="SeenAt">When one of those was last heard of, or null.</param>
internal sealed record StaffLine(
    Guid Id,
    string UserName,
    string DisplayName,
    string Initials,
    Role? Role,
    string RoleLabel,
    bool LockedOut,
    DateTimeOffset? CodeUntil,
    int Devices,
    DateTimeOffset? SeenAt
);

/// <summary>A role somebody can have.</summary>
/// <param name="Role">The role.</param>
/// <param name="Label">What it is called.</param>
internal sealed record RoleLine(Role Role, string Label);

/// <summary>Somebody new. They set their own password with the code that is answered.</summary>
internal sealed record NewStaff(Guid Id, string UserName, string DisplayName, string Initials, Role Role);

/// <summary>What changes about somebody.</summary>
internal sealed record StaffChange(string DisplayName, string Initials, Role Role, bool LockedOut);

/// <summary>A one-time code to hand to somebody.</summary>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="Code">The code; it is shown this once.</param>
/// <param name="Until">Until when it counts.</param>
internal sealed record StaffCode(string UserName, string Code, DateTimeOffset Until);

/// <summary>A password set with a one-time code.</summary>
internal sealed record CodeSignIn(string UserName, string Code, string Password);

/// <summary>Somebody to be blanked.</summary>
/// <param name="UserName">The name they sign in with, typed once more.</param>
internal sealed record BlankStaff(string UserName);

/// <summary>My own password, changed.</summary>
internal sealed record PasswordChange(string Now, string Next);

internal static class PeopleEndpoints
{
    private static readonly TimeSpan CodeFor = TimeSpan.FromHours(24);

    public static void MapPeople(this RouteGroupBuilder api)
    {
        var people = api.MapGroup("/people").WithTags("People").RequireAuthorization(nameof(Permission.ManagePeople));
        people
            .MapGet("", async (BlueDawnDb db, CancellationToken cancel) => TypedResults.Ok(await ListAsync(db, cancel)))
            .WithName("listPeople")
            .WithSummary("Everybody who works here");
        people
            .MapGet("/roles", () => TypedResults.Ok(Roles.All.Select(role => new RoleLine(role.Role, role.Label)).ToList()))
            .WithName("listRoles")
            .WithSummary("The roles somebody can have");
        people
            .MapGet("/refused", async (BlueDawnDb db, CancellationToken cancel) =>
                TypedResults.Ok(await RefusedTries.ListAsync(db, cancel))
            )
            .WithName("listRefusedTries")
            .WithSummary("Tries to get in that were refused, newest first");
        people.MapPost("", AddAsync).WithName("addPerson").WithSummary("Add somebody; answers the code they set their password with");
        people
            .MapPut("/{id:guid}", ChangeAsync)
            .WithName("changePerson")
            .WithSummary("Change somebody's name, initials or role, or lock them out");
        people
            .MapPost("/{id:guid}/code", CodeAsync)
            .WithName("newCode")
            .WithSummary("A one-time code to set a new password; signs them out everywhere");
        people
            .MapGet("/{id:guid}/data.json", DataAsync)
            .WithName("getPersonData")
            .WithSummary("Everything of a person")
            .Produces<JsonElement>(200, "application/json")
            .ProducesProblem(404);
        people
            .MapPost("/{id:guid}/blank", BlankAsync)
            .WithName("blankPerson")
            .WithSummary("Blank a person who has left: the book keeps the work, not the name");
        people
            .MapDelete("/{id:guid}/devices", SignOutAsync)
            .WithName("signOutPerson")
            .WithSummary("Sign somebody out on all their devices");
    }

    private static async Task<List<StaffLine>> ListAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var rows = await (
            from person in db.Users
            orderby person.LockedOut, person.DisplayName
            select new
            {
                Person = person,
                Role = (
                    from has in db.UserRoles
                    join role in db.Roles on has.RoleId equals role.Id
                    where has.UserId == person.Id
                    orderby role.Name
                    select role.Name
                ).FirstOrDefault(),
                Devices = db.Sessions.Count(session => session.PersonId == person.Id),
                SeenAt = db.Sessions.Where(session => session.PersonId == person.Id).Max(session => (DateTimeOffset?)session.SeenAt),
            }
        )
            .AsNoTracking()
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(row => new StaffLine(
                row.Person.Id,
                row.Person.UserName!,
                row.Person.DisplayName,
                row.Person.Initials,
                Roles.Find(row.Role)?.Role,
                Roles.Find(row.Role)?.Label ?? "",
                row.Person.LockedOut,
                row.Person.CodeUntil,
                row.Devices,
                row.SeenAt
            )),
        ];
    }

    private static async Task<Results<Ok<StaffCode>, ValidationProblem, ProblemHttpResult>> AddAsync(
        NewStaff input,
        BlueDawnDb db,
        UserManager<Person> people,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var staff = new StaffEntry(input.UserName.Trim(), input.DisplayName.Trim(), input.Initials.Trim(), input.Role);
        if (staff.Check() is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        var code = OneTimeCode.New();
        var now = clock.GetUtcNow();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await LockAsync(db, cancel);
        if (await people.FindByNameAsync(staff.UserName) is { } before)
        {
            return Problem.Field(
                "userName",
                before.Id == input.Id
                    ? $"{before.DisplayName} has been added already. Give them a code for a new password."
                    : $"{before.DisplayName} signs in with that name. Choose another."
            );
        }

        if (await people.FindByIdAsync(input.Id.ToString()) is { } sameId)
        {
            return Problem.Conflict($"{sameId.DisplayName} has been added with that id.", "Reload the page, then add the other one.");
        }

        var person = new Person
        {
            Id = input.Id,
            UserName = staff.UserName,
            DisplayName = staff.DisplayName,
            Initials = staff.Short,
            CodeHash = OneTimeCode.Hash(code),
            CodeUntil = now + CodeFor,
        };
        if (await people.CreateAsync(person) is { Succeeded: false } refused)
        {
            return Problem.Field("userName", string.Join(" ", refused.Errors.Select(error => error.Description)));
        }

        await people.AddToRoleAsync(person, Roles.Of(staff.Role).Name);
        Write(db, me, now, person, $"{person.DisplayName} was added as {Roles.Of(staff.Role).Name}.");
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(new StaffCode(person.UserName!, code, person.CodeUntil.Value));
    }

    private static async Task<Results<Ok<List<StaffLine>>, ValidationProblem, ProblemHttpResult>> ChangeAsync(
        Guid id,
        StaffChange input,
        BlueDawnDb db,
        UserManager<Person> people,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await LockAsync(db, cancel);
        if (await people.FindByIdAsync(id.ToString()) is not { } person)
        {
            return Nobody();
        }

        var staff = new StaffEntry(person.UserName!, input.DisplayName.Trim(), input.Initials.Trim(), input.Role);
        if (staff.Check() is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        var before = (await people.GetRolesAsync(person)).FirstOrDefault();
        var after = Roles.Of(staff.Role).Name;
        var stepsDown = Roles.Find(before)?.Role == Role.Lead && !person.LockedOut && (input.LockedOut || staff.Role != Role.Lead);
        if (stepsDown && await IsLastLeadAsync(db, id, cancel))
        {
            return Problem.Field(
                input.LockedOut ? "lockedOut" : "role",
                $"{person.DisplayName} is the last lead. Make somebody else a lead first."
            );
        }

        List<string> happened =
        [
            .. person.DisplayName == staff.DisplayName ? [] : new[] { $"{person.DisplayName} is now called {staff.DisplayName}." },
            .. before == after ? [] : new[] { $"{staff.DisplayName} is now {after}, was {before}." },
            .. person.LockedOut == input.LockedOut
                ? []
                : new[] { input.LockedOut ? $"{staff.DisplayName} was locked out." : $"{staff.DisplayName} may sign in again." },
        ];
        (person.DisplayName, person.Initials, person.LockedOut) = (staff.DisplayName, staff.Short, input.LockedOut);
        if (!(await people.UpdateAsync(person)).Succeeded)
        {
            return Meanwhile(person);
        }

        if (before != after)
        {
            await people.RemoveFromRolesAsync(person, before is null ? [] : [before]);
            await people.AddToRoleAsync(person, after);
        }

        if (input.LockedOut)
        {
            await db.Sessions.Where(session => session.PersonId == id).ExecuteDeleteAsync(cancel);
        }

        foreach (var one in happened)
        {
            Write(db, me, clock.GetUtcNow(), person, one);
        }

        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ListAsync(db, cancel));
    }

    private static async Task<Results<Ok<StaffCode>, ProblemHttpResult>> CodeAsync(
        Guid id,
        BlueDawnDb db,
        UserManager<Person> people,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await people.FindByIdAsync(id.ToString()) is not { } person)
        {
            return Nobody();
        }

        var code = OneTimeCode.New();
        var now = clock.GetUtcNow();
        (person.CodeHash, person.CodeUntil) = (OneTimeCode.Hash(code), now + CodeFor);
        // Who is given a code has lost their password, or somebody else has it: it counts no longer. A lead's own stays until the code is
        // used: a shop with one lead must not lose its way in with a code that nobody read.
        if (id != me.Person.Id)
        {
            person.PasswordHash = null;
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (!(await people.UpdateSecurityStampAsync(person)).Succeeded)
        {
            return Meanwhile(person);
        }

        await db.Sessions.Where(session => session.PersonId == id).ExecuteDeleteAsync(cancel);
        Write(db, me, now, person, $"{person.DisplayName} was given a code for a new password.");
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(new StaffCode(person.UserName!, code, person.CodeUntil.Value));
    }

    private static async Task<Results<Ok<List<StaffLine>>, ProblemHttpResult>> SignOutAsync(
        Guid id,
        BlueDawnDb db,
        CancellationToken cancel
    )
    {
        if (!await db.Users.AnyAsync(person => person.Id == id, cancel))
        {
            return Nobody();
        }

        await db.Sessions.Where(session => session.PersonId == id).ExecuteDeleteAsync(cancel);
        return TypedResults.Ok(await ListAsync(db, cancel));
    }

    /// <summary>Sets a password with a one-time code and signs in. The code counts once.</summary>
    public static async Task<Results<Ok<SessionView>, ValidationProblem, ProblemHttpResult>> UseCodeAsync(
        CodeSignIn input,
        HttpContext context,
        SignInLimiter door,
        BlueDawnDb db,
        UserManager<Person> people,
        IAntiforgery antiforgery,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await door.IsGuessingAsync(input.UserName, context, cancel))
        {
            return TypedResults.Problem(
                statusCode: 401,
                title: "Too many tries.",
                detail: $"Wait {SignInLimiter.Window.TotalMinutes:0} minutes."
            );
        }

        var now = clock.GetUtcNow();
        var person = await people.FindByNameAsync(input.UserName.Trim());
        var wanted =
            person is { CodeHash: { } hash, LockedOut: false } && person.CodeUntil > now ? hash : OneTimeCode.Hash(OneTimeCode.New());
        if (!OneTimeCode.Same(OneTimeCode.Hash(input.Code), wanted))
        {
            await RefusedTries.WriteAsync(db, context, now, "Code", person, cancel);
            return TypedResults.Problem(
                statusCode: 401,
                title: "Name and code do not go together.",
                detail: "A code counts once and for a day. A lead can make a new one on the page People."
            );
        }

        if (PasswordRules.Problem(input.Password, person!.UserName!, person.DisplayName) is { } weak)
        {
            return Problem.Field("password", weak);
        }

        // Code and password change in one: twice at once, only one of them finds the code.
        await using (var transaction = await db.Database.BeginTransactionAsync(cancel))
        {
            var taken = await db
                .Users.Where(one => one.Id == person.Id && one.CodeHash == person.CodeHash)
                .ExecuteUpdateAsync(
                    set => set.SetProperty(one => one.CodeHash, (string?)null).SetProperty(one => one.CodeUntil, (DateTimeOffset?)null),
                    cancel
                );
            (person.CodeHash, person.CodeUntil) = (null, null);
            if (taken == 0 || !await SetPasswordAsync(db, people, person, input.Password, null, cancel))
            {
                return TypedResults.Problem(statusCode: 401, title: "Name and code do not go together.", detail: "It has just been used.");
            }

            await transaction.CommitAsync(cancel);
        }

        await SignedIn.StartAsync(context, db, person, now, cancel);
        door.Remember(person, context);
        return TypedResults.Ok(await SessionEndpoints.ViewAsync(context, antiforgery, db));
    }

    /// <summary>Changes my own password; my other devices are signed out.</summary>
    public static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> ChangePasswordAsync(
        PasswordChange input,
        HttpContext context,
        SignInLimiter door,
        BlueDawnDb db,
        UserManager<Person> people,
        Me me,
        CancellationToken cancel
    )
    {
        if (await door.CheckAsync(me.Person.UserName!, input.Now, context, cancel) is not { Person: not null } knock)
        {
            return Problem.Field("now", "That is not your password now.");
        }

        if (PasswordRules.Problem(input.Next, me.Person.UserName!, me.Person.DisplayName) is { } weak)
        {
            return Problem.Field("next", weak);
        }

        return await SetPasswordAsync(db, people, knock.Person, input.Next, SignedIn.Of(context)!.Session, cancel)
            ? TypedResults.NoContent()
            : Meanwhile(knock.Person);
    }

    /// <summary>Sets a password and ends all sessions but one; false when the person was changed meanwhile.</summary>
    private static async Task<bool> SetPasswordAsync(
        BlueDawnDb db,
        UserManager<Person> people,
        Person person,
        string password,
        Guid? but,
        CancellationToken cancel
    )
    {
        person.PasswordHash = people.PasswordHasher.HashPassword(person, password);
        if (!(await people.UpdateSecurityStampAsync(person)).Succeeded)
        {
            return false;
        }

        await db.Sessions.Where(session => session.PersonId == person.Id && session.Id != but).ExecuteDeleteAsync(cancel);
        return true;
    }

    /// <summary>Changes of people wait for each other: two leads who hand back their rights at once are one after the other.</summary>
    private static async Task LockAsync(BlueDawnDb db, CancellationToken cancel) =>
        await db.Database.ExecuteSqlAsync($"select id from shop for update", cancel);

    private static async Task<bool> IsLastLeadAsync(BlueDawnDb db, Guid id, CancellationToken cancel) =>
        !await (
            from person in db.Users
            join has in db.UserRoles on person.Id equals has.UserId
            join role in db.Roles on has.RoleId equals role.Id
            where role.Name == Roles.Of(Role.Lead).Name && person.Id != id && !person.LockedOut && person.PasswordHash != null
            select person.Id
        ).AnyAsync(cancel);

    private static async Task<IResult> DataAsync(Guid id, HttpContext context, BlueDawnDb db, CancellationToken cancel)
    {
        context.Response.Headers.ContentDisposition = "attachment; filename=person.json";
        return await PersonalData.OfPersonAsync(db, id, cancel) is { } data ? TypedResults.Text(data, "application/json") : Nobody();
    }

    private static async Task<Results<Ok<List<StaffLine>>, ValidationProblem, ProblemHttpResult>> BlankAsync(
        Guid id,
        BlankStaff input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await LockAsync(db, cancel);
        if (await db.Users.SingleOrDefaultAsync(one => one.Id == id, cancel) is not { } person)
        {
            return Nobody();
        }

        if (!person.LockedOut)
        {
            return Problem.Field("userName", $"{person.DisplayName} still signs in. Lock them out first.");
        }

        if (input.UserName.Trim() != person.UserName)
        {
            return Problem.Field("userName", $"Type {person.UserName}, to be sure: what is blanked does not come back.");
        }

        await PersonalData.BlankPersonAsync(db, id, cancel);
        await db.Entry(person).ReloadAsync(cancel);
        Write(db, me, clock.GetUtcNow(), person, $"Somebody who has left was blanked: {person.DisplayName}.");
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ListAsync(db, cancel));
    }

    private static void Write(BlueDawnDb db, Me me, DateTimeOffset at, Person person, string what) =>
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(at),
                At = at,
                By = me.Person.DisplayName,
                About = $"person/{person.UserName}",
                What = what,
            }
        );

    private static ProblemHttpResult Meanwhile(Person person) =>
        Problem.Conflict($"{person.DisplayName} was changed meanwhile.", "Look at the list again, then decide. Nothing was changed.");

    private static ProblemHttpResult Nobody() =>
        TypedResults.Problem(statusCode: 404, title: "There is nobody of that id.", detail: "Look at the list of people again.");
}
