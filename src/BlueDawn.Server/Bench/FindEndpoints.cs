using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Stations;
using BlueDawn.Store;
using BlueDawn.Store.Intake;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Bench;

/// <summary>A tray that was found.</summary>
/// <param name="Number">Number on the tag.</param>
/// <param name="MachineName">Machine.</param>
/// <param name="OwnerName">Owner.</param>
/// <param name="StampedNumber">Number stamped on it; may be empty.</param>
/// <param name="HandedBack">Whether it has been handed back.</param>
internal sealed record FoundTray(int Number, string MachineName, string OwnerName, string StampedNumber, bool HandedBack);

/// <summary>A sheet that was found.</summary>
/// <param name="Code">Its code.</param>
/// <param name="Maker">Who made the carburetor.</param>
internal sealed record FoundSheet(string Code, string Maker);

/// <summary>An item that was found.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Name">Its name.</param>
internal sealed record FoundPart(string Number, string Name);

/// <summary>What was found, the best of each kind first.</summary>
/// <param name="Trays">Trays by number, machine, owner, telephone, stamped number, engine plate or complaint; open ones first, newest
/// first.</param>
/// <param name="Sheets">Spec sheets by code, maker or stamped number.</param>
/// <param name="Items">Items of the catalogue by number or name.</param>
internal sealed record FoundView(IReadOnlyList<FoundTray> Trays, IReadOnlyList<FoundSheet> Sheets, IReadOnlyList<FoundPart> Items);

internal static class FindEndpoints
{
    private const int MostOfAKind = 8,
        LongestText = 60;

    public static void MapFind(this RouteGroupBuilder api) =>
        api.MapGet("/find", FindAsync).WithTags("Bench").WithName("find").WithSummary("Trays, sheets and items by what stands on them");

    private static async Task<Ok<FoundView>> FindAsync(string text, BlueDawnDb db, CancellationToken cancel)
    {
        var wanted = text.Trim();
        if (wanted.Length is 0 or > LongestText)
        {
            return TypedResults.Ok(new FoundView([], [], []));
        }

        // What stands in it is looked for as it stands, signs and all.
        var like = Like.With(wanted);
        // A stamp, a plate and a telephone number are the same with dashes and spaces and without.
        var bare = StampedNumber.Tidy(wanted);
        var number = int.TryParse(wanted, out var typed) ? typed : (int?)null;
        var ids = wanted.Length < OwnerBook.ShortestWithin ? OnTheBench(db, like, bare, number) : Anywhere(db, like, bare, number);
        var trays = await db
            .Trays.AsNoTracking()
            .Where(tray => ids.Contains(tray.Id))
            .OrderByDescending(tray => tray.Number == number)
            .ThenBy(tray => tray.WaitsFor == WaitsFor.HandedBack)
            .ThenByDescending(tray => tray.Number)
            .Take(MostOfAKind)
            .Select(tray => new FoundTray(
                tray.Number,
                tray.Machine.Name,
                tray.Machine.Owner.Name,
                tray.StampedNumber,
                tray.WaitsFor == WaitsFor.HandedBack
            ))
            .ToListAsync(cancel);
        // A shop has hundreds of sheets at most.
        var sheets = (
            await db
                .SpecSheets.AsNoTracking()
                .Where(row => row.Current)
                .OrderBy(row => row.Code)
                .Select(row => row.Sheet)
                .ToListAsync(cancel)
        )
            .Where(sheet =>
                sheet.Code.Contains(wanted, StringComparison.OrdinalIgnoreCase)
                || sheet.Maker.Contains(wanted, StringComparison.OrdinalIgnoreCase)
                || (
                    bare.Length >= 2
                    && sheet.StampedNumbers.Any(stamped => StampedNumber.Tidy(stamped).Contains(bare, StringComparison.Ordinal))
                )
            )
            .OrderByDescending(sheet => string.Equals(sheet.Code, wanted, StringComparison.OrdinalIgnoreCase))
            .Take(MostOfAKind)
            .Select(sheet => new FoundSheet(sheet.Code, sheet.Maker))
            .ToList();
        var items =
            wanted.Length < 2
                ? []
                : await db
                    .Items.AsNoTracking()
                    .Where(item => EF.Functions.ILike(item.Number, like, Like.Sign) || EF.Functions.ILike(item.Name, like, Like.Sign))
                    .OrderByDescending(item => EF.Functions.ILike(item.Number, like, Like.Sign))
                    .ThenBy(item => item.Number)
                    .Take(MostOfAKind)
                    .Select(item => new FoundPart(item.Number, item.Name))
                    .ToListAsync(cancel);
        return TypedResults.Ok(new FoundView(trays, sheets, items));
    }

    /// <summary>One or two letters stand in nearly everything: they are looked for in what is on the bench.</summary>
    private static IQueryable<Guid> OnTheBench(BlueDawnDb db, string like, string bare, int? number) =>
        db
            .Trays.Where(tray => tray.WaitsFor != WaitsFor.HandedBack)
            .Where(tray =>
                EF.Functions.ILike(tray.Machine.Name, like, Like.Sign)
                || EF.Functions.ILike(tray.Machine.Owner.Name, like, Like.Sign)
                || EF.Functions.ILike(tray.Complaint, like, Like.Sign)
                || (
                    bare.Length >= 2
                    && (BlueDawnDb.Tidy(tray.StampedNumber).Contains(bare) || BlueDawnDb.Tidy(tray.Machine.Owner.Contact).Contains(bare))
                )
            )
            .Select(tray => tray.Id)
            .Union(db.Trays.Where(tray => tray.Number == number).Select(tray => tray.Id));

    /// <summary>Everything that was ever here: each question is answered from an index of its own.</summary>
    private static IQueryable<Guid> Anywhere(BlueDawnDb db, string like, string bare, int? number)
    {
        // An index of three letters has nothing to say about fewer.
        var tidy = bare.Length < OwnerBook.ShortestWithin ? null : Like.With(bare);
        // The engine's plate stands in the logbook as it was read.
        var plated = db.Database.SqlQuery<Guid>(
            $"""
            select tray_id as "Value" from logbook_entries where kind = 'marks' and tidy(note->>'plate') like {tidy}
            """
        );
        var owners = db
            .Owners.Where(owner =>
                EF.Functions.ILike(owner.Name, like, Like.Sign) || EF.Functions.Like(BlueDawnDb.Tidy(owner.Contact), tidy!, Like.Sign)
            )
            .Select(owner => owner.Id);
        return db
            .Trays.Where(tray => tray.Number == number)
            .Select(tray => tray.Id)
            .Union(db.Trays.Where(tray => EF.Functions.ILike(tray.Complaint, like, Like.Sign)).Select(tray => tray.Id))
            .Union(db.Trays.Where(tray => EF.Functions.Like(BlueDawnDb.Tidy(tray.StampedNumber), tidy!, Like.Sign)).Select(tray => tray.Id))
            .Union(
                from machine in db.Machines
                where EF.Functions.ILike(machine.Name, like, Like.Sign)
                join tray in db.Trays on machine.Id equals tray.MachineId
                select tray.Id
            )
            .Union(
                from owner in owners
                join machine in db.Machines on owner equals machine.OwnerId
                join tray in db.Trays on machine.Id equals tray.MachineId
                select tray.Id
            )
            .Union(plated);
    }
}
