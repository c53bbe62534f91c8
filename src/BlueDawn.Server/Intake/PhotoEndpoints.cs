using BlueDawn.Core.Intake;
using BlueDawn.Core.Shop;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Intake;

/// <summary>A photo of a tray.</summary>
/// <param name="Id">Its id; the picture is at <c>/api/photos/{id}</c>.</param>
/// <param name="Part">The part of the strip ledger it shows, or null for the whole carburetor.</param>
/// <param name="Width">Width in pixels.</param>
/// <param name="Height">Height in pixels.</param>
/// <param name="By">Who took it.</param>
/// <param name="AddedAt">When.</param>
internal sealed record PhotoView(Guid Id, string? Part, int Width, int Height, string By, DateTimeOffset AddedAt);

internal static class PhotoEndpoints
{
    /// <summary>Largest file taken, in bytes.</summary>
    private const int LargestFile = 12 * 1024 * 1024;

    /// <summary>Most photos of one tray.</summary>
    private const int MostOfOneTray = 40;

    private const int LongestPart = 60;

    private static readonly SemaphoreSlim Making = new(1);

    public static void MapPhotos(this RouteGroupBuilder api)
    {
        api.MapGet("/trays/{number:int}/photos", ListAsync).WithName("listPhotos").WithSummary("A tray's photos").WithTags("Intake");
        api.MapPut("/trays/{number:int}/photos/{id:guid}", AddAsync)
            .WithName("addPhoto")
            .WithSummary("Add a photo to a tray")
            .WithTags("Intake")
            .RequireAuthorization(nameof(Permission.CheckIn))
            .WithMetadata(new BodyUpTo(LargestFile))
            .Accepts<byte[]>("application/octet-stream", "image/jpeg", "image/png", "image/webp");
        api.MapGet("/photos/{id:guid}", ShowAsync)
            .WithName("getPhoto")
            .WithSummary("A photo")
            .WithTags("Intake")
            .Produces<byte[]>(200, "image/jpeg")
            .ProducesProblem(404);
    }

    private static async Task<Results<Ok<List<PhotoView>>, ProblemHttpResult>> ListAsync(
        int number,
        BlueDawnDb db,
        CancellationToken cancel
    ) =>
        await db.Trays.AnyAsync(tray => tray.Number == number, cancel)
            ? TypedResults.Ok(
                await db
                    .Photos.Where(photo => db.Trays.Any(tray => tray.Number == number && tray.Id == photo.TrayId))
                    .OrderBy(photo => photo.Id)
                    .Select(photo => new PhotoView(photo.Id, photo.Part, photo.Width, photo.Height, photo.PersonName, photo.AddedAt))
                    .ToListAsync(cancel)
            )
            : Problem.NoTray(number);

    private static async Task<Results<Ok<PhotoView>, ValidationProblem, ProblemHttpResult>> AddAsync(
        int number,
        Guid id,
        string? part,
        HttpRequest request,
        BlueDawnDb db,
        NoteWriter writer,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        // One at a time, and before the tray is held: pictures are large.
        await Making.WaitAsync(cancel);
        RemadePhoto? made;
        string? problem;
        try
        {
            using var body = new MemoryStream();
            await request.Body.CopyToAsync(body, cancel);
            PhotoRemake.TryMake(body.ToArray(), out made, out problem);
        }
        finally
        {
            Making.Release();
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel, locked: true) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var tray = file.Tray;
        if (await db.Photos.FindAsync([id], cancel) is { } before)
        {
            return before.TrayId == tray.Id
                ? TypedResults.Ok(ViewOf(before))
                : Problem.Conflict("That photo belongs to another tray.", "Take it again.");
        }

        var note = new PhotoNote(part is { Length: > 0 and <= LongestPart } ? part : null);
        if (await db.Photos.CountAsync(photo => photo.TrayId == tray.Id, cancel) >= MostOfOneTray)
        {
            return Problem.Field("photo", $"A tray holds {MostOfOneTray} photos at most.");
        }

        if (made is null)
        {
            return Problem.Field("photo", problem!);
        }

        if (writer.Record(file, note, me).Refusal is { } refused)
        {
            return Problem.Of(refused);
        }

        var photo = new Photo
        {
            Id = id,
            TrayId = tray.Id,
            Part = note.Part,
            Jpeg = made.Jpeg,
            Width = made.Width,
            Height = made.Height,
            PersonId = me.Person.Id,
            PersonName = me.Person.DisplayName,
            AddedAt = clock.GetUtcNow(),
        };
        db.Photos.Add(photo);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(ViewOf(photo));
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> ShowAsync(
        Guid id,
        HttpResponse response,
        BlueDawnDb db,
        CancellationToken cancel
    )
    {
        if (await db.Photos.AsNoTracking().SingleOrDefaultAsync(photo => photo.Id == id, cancel) is not { } photo)
        {
            return TypedResults.NotFound();
        }

        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.File(photo.Jpeg, "image/jpeg");
    }

    private static PhotoView ViewOf(Photo photo) => new(photo.Id, photo.Part, photo.Width, photo.Height, photo.PersonName, photo.AddedAt);
}
