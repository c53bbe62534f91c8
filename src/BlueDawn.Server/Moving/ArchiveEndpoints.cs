using System.Globalization;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Moving;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;

namespace BlueDawn.Server.Moving;

internal static class ArchiveEndpoints
{
    /// <summary>Largest archive that is taken in, in bytes.</summary>
    private const long LargestArchive = 4L * 1024 * 1024 * 1024;

    /// <summary>Out: for whoever may.</summary>
    public static void MapArchive(this RouteGroupBuilder bench) =>
        bench
            .MapGet("/shop/archive.zip", WriteAsync)
            .WithTags("Moving")
            .WithName("getArchive")
            .WithSummary("Everything of the shop as one file of open formats, without passwords")
            .RequireAuthorization(nameof(Permission.ManageShop))
            .Produces<byte[]>(200, "application/zip");

    /// <summary>In: for whoever is at the machine while the shop has nobody in it.</summary>
    public static void MapArchiveIn(this RouteGroupBuilder api) =>
        api.MapPost("/session/first/archive", TakeAsync)
            .WithTags("Session")
            .WithName("moveShopHere")
            .WithSummary("Take a shop's archive into one that has nobody in it")
            .WithMetadata(new BodyUpTo(LargestArchive))
            .Accepts<byte[]>("application/zip")
            .ProducesProblem(401)
            .ProducesProblem(409)
            .WithMetadata(new SignedIn.AsksWho())
            .AddEndpointFilter<AntiforgeryFilter>();

    private static async Task<FileStreamHttpResult> WriteAsync(
        BlueDawnDb db,
        NpgsqlDataSource database,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var now = clock.GetUtcNow();
        var file = Temporary();
        try
        {
            await using var connection = await database.OpenConnectionAsync(cancel);
            await ShopArchive.WriteAsync(connection, ShopArchive.VersionOf(db), now, file, cancel);
            file.Position = 0;
            return TypedResults.Stream(file, "application/zip", $"blue-dawn-{now:yyyy-MM-dd}.zip");
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }

    /// <summary>
    /// Takes an archive in. Who brings it stands in headers, so that nothing is read of a body from somebody who does not
    /// know the code: the code from the terminal, the lead of the archive who comes with it, and their new password.
    /// </summary>
    private static async Task<Results<Ok<SessionView>, ValidationProblem, ProblemHttpResult>> TakeAsync(
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
        string Header(string name) => Uri.UnescapeDataString(context.Request.Headers[name].ToString());
        var (code, userName, password) = (Header("X-Setup-Code"), Header("X-User-Name").Trim(), Header("X-New-Password"));
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
            return FirstStart.Begun();
        }

        List<FieldProblem> problems =
        [
            .. setup.Is(code) ? [] : new[] { FirstStart.NotTheCode },
            .. PasswordRules.Problem(password, userName, userName, "") is { } weak
                ? [new FieldProblem("password", weak)]
                : Array.Empty<FieldProblem>(),
        ];
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        await using var file = Temporary();
        await context.Request.Body.CopyToAsync(file, cancel);
        file.Position = 0;
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // A first start at the same moment waits here, and finds somebody.
        await db.Shop.FromSql($"select *, xmin from shop for update").AsNoTracking().SingleAsync(cancel);
        if (await db.Users.AnyAsync(cancel))
        {
            return FirstStart.Begun();
        }

        try
        {
            var heading = await ShopArchive.ReadAsync(
                (NpgsqlConnection)db.Database.GetDbConnection(),
                (NpgsqlTransaction)transaction.GetDbTransaction(),
                ShopArchive.VersionOf(db),
                file,
                cancel
            );
            await ShopArchive.ReadThroughAsync(db, cancel);
            await NameFolding.RunAsync(db, cancel);
            var leads = (await people.GetUsersInRoleAsync(Roles.Of(Role.Lead).Name)).Where(lead => !lead.LockedOut).ToList();
            if (leads.FirstOrDefault(lead => string.Equals(lead.UserName, userName, StringComparison.OrdinalIgnoreCase)) is not { } person)
            {
                return Problem.Field(
                    "userName",
                    $"The archive has no lead who signs in as “{userName}”. It has {string.Join(", ", leads.Select(lead => lead.UserName))}."
                );
            }

            if (await people.AddPasswordAsync(person, password) is { Succeeded: false } refused)
            {
                return Problem.Field("password", string.Join(" ", refused.Errors.Select(error => error.Description)));
            }

            var now = clock.GetUtcNow();
            db.ShopChanges.Add(
                new ShopChange
                {
                    Id = Guid.CreateVersion7(now),
                    At = now,
                    By = person.DisplayName,
                    About = "shop",
                    What = string.Create(
                        CultureInfo.InvariantCulture,
                        $"The shop was moved here from its archive of {heading.At:d MMMM yyyy, HH:mm} (UTC)."
                    ),
                }
            );
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            await SignedIn.StartAsync(context, db, person, now, cancel);
            door.Remember(person, context);
            return TypedResults.Ok(await SessionEndpoints.ViewAsync(context, antiforgery, db));
        }
        catch (ArchiveException wrong)
        {
            return Problem.Field("archive", $"{wrong.Message} Nothing was changed.");
        }
    }

    private static FileStream Temporary() =>
        new(
            Path.Combine(Path.GetTempPath(), $"blue-dawn-archive-{Guid.NewGuid():N}.zip"),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            1 << 16,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
}
