using System.Text.Json;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Intake;
using BlueDawn.Store.People;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Intake;

/// <summary>A tray of an owner.</summary>
/// <param name="Number">Its number.</param>
/// <param name="MachineName">What it is off.</param>
/// <param name="HandedBack">Whether it has been handed back.</param>
internal sealed record OwnerTray(int Number, string MachineName, bool HandedBack);

/// <summary>An owner.</summary>
/// <param name="Id">Their id.</param>
/// <param name="Name">Name of the person, boat or stall.</param>
/// <param name="Contact">How to reach them; may be empty.</param>
/// <param name="Machines">Their machines by name.</param>
/// <param name="Trays">Their latest trays, newest first.</param>
internal sealed record OwnerLine(Guid Id, string Name, string Contact, IReadOnlyList<string> Machines, IReadOnlyList<OwnerTray> Trays);

/// <summary>Owners by name, so many at a time.</summary>
/// <param name="Owners">The owners.</param>
/// <param name="More">Whether there are more: asked for after the last of these.</param>
internal sealed record OwnersView(IReadOnlyList<OwnerLine> Owners, bool More);

/// <summary>What an owner is called and how they are reached.</summary>
/// <param name="Name">The name.</param>
/// <param name="Contact">How to reach them.</param>
internal sealed record OwnerFacts(string Name, string Contact);

/// <summary>Another name or another way to reach an owner.</summary>
/// <param name="Now">What it shall be.</param>
/// <param name="Was">What it was changed from: when it is another by now, somebody was first.</param>
internal sealed record OwnerChange(OwnerFacts Now, OwnerFacts Was);

/// <summary>Two owners who are one.</summary>
/// <param name="Into">Whom the machines and trays go to.</param>
internal sealed record OwnerMerge(Guid Into);

/// <summary>Two machines of an owner that are one.</summary>
/// <param name="From">The one that is gone then, by name.</param>
/// <param name="Into">The one its trays go to, by name.</param>
internal sealed record MachineMerge(string From, string Into);

internal static class OwnerEndpoints
{
    private const int AtOnce = 50,
        MostFound = 500,
        LatestTrays = 6;

    public static void MapOwners(this RouteGroupBuilder api)
    {
        var owners = api.MapGroup("/owners").WithTags("Owners");
        owners
            .MapGet("/all", ListAsync)
            .WithName("findOwners")
            .WithSummary("Owners with their trays, by a part of who they are, where they are reached, a machine or a tray");
        owners
            .MapPut("/{id:guid}", ChangeAsync)
            .WithName("changeOwner")
            .WithSummary("Correct an owner's name or how to reach them")
            .RequireAuthorization(nameof(Permission.ChangeTrays));
        var lead = owners.MapGroup("").RequireAuthorization(nameof(Permission.ManageShop));
        lead.MapPost("/{id:guid}/merge", MergeAsync)
            .WithName("mergeOwner")
            .WithSummary("Two owners are one: their machines and trays go to the other");
        lead.MapPost("/{id:guid}/machines", MergeMachinesAsync).WithName("mergeMachines").WithSummary("Two machines of an owner are one");
        lead.MapGet("/{id:guid}/data.json", DataAsync)
            .WithName("getOwnerData")
            .WithSummary("Everything of an owner")
            .Produces<JsonElement>(200, "application/json")
            .ProducesProblem(404);
        lead.MapPost("/{id:guid}/blank", BlankAsync)
            .WithName("blankOwner")
            .WithSummary("Blank an owner: the book keeps the work, not the name");
    }

    private static async Task<Ok<OwnersView>> ListAsync(BlueDawnDb db, CancellationToken cancel, string? text = null, Guid? after = null)
    {
        var wanted = (text ?? "").Trim();
        var owners = db.Owners.AsNoTracking();
        if (wanted.Length > 0)
        {
            var ids = await FoundAsync(db, wanted[..Math.Min(wanted.Length, CheckIn.LongestName)], cancel);
            owners = owners.Where(owner => ids.Contains(owner.Id));
        }

        if (after is not null)
        {
            var last = await db.Owners.Where(owner => owner.Id == after).Select(owner => owner.Folded).SingleOrDefaultAsync(cancel);
            owners = owners.Where(owner =>
                string.Compare(owner.Folded, last) > 0 || (owner.Folded == last && owner.Id.CompareTo(after.Value) > 0)
            );
        }

        var found = await owners.OrderBy(owner => owner.Folded).ThenBy(owner => owner.Id).Take(AtOnce + 1).ToListAsync(cancel);
        return TypedResults.Ok(new OwnersView(await LinesAsync(db, [.. found.Take(AtOnce)], cancel), found.Count > AtOnce));
    }

    /// <summary>Who has a text in their name, in how they are reached or in a machine's name, or a tray of that number.</summary>
    private static Task<List<Guid>> FoundAsync(BlueDawnDb db, string text, CancellationToken cancel)
    {
        var like = Like.With(text);
        var tidy = StampedNumber.Tidy(text);
        var reached = tidy.Length >= OwnerBook.ShortestWithin ? Like.With(tidy) : null;
        var number = int.TryParse(text, out var typed) ? typed : (int?)null;
        var machines =
            text.Length < OwnerBook.ShortestWithin
                ? db.Machines.Where(machine => false)
                : db.Machines.Where(machine => EF.Functions.ILike(machine.Name, like, Like.Sign));
        return OwnerBook
            .With(db, text)
            .Select(owner => owner.Id)
            .Union(db.Trays.Where(tray => tray.Number == number).Select(tray => tray.Machine.OwnerId))
            .Union(
                db.Owners.Where(owner => EF.Functions.Like(BlueDawnDb.Tidy(owner.Contact), reached!, Like.Sign)).Select(owner => owner.Id)
            )
            .Union(machines.Select(machine => machine.OwnerId))
            .OrderBy(id => id)
            .Take(MostFound)
            .ToListAsync(cancel);
    }

    private static async Task<List<OwnerLine>> LinesAsync(BlueDawnDb db, IReadOnlyList<Owner> owners, CancellationToken cancel)
    {
        var ids = owners.Select(owner => owner.Id).ToList();
        var machines = (
            await db
                .Machines.AsNoTracking()
                .Where(machine => ids.Contains(machine.OwnerId))
                .OrderBy(machine => machine.Folded)
                .ThenBy(machine => machine.Id)
                .Select(machine => new
                {
                    machine.OwnerId,
                    machine.Name,
                    Trays = db
                        .Trays.Where(tray => tray.MachineId == machine.Id)
                        .OrderByDescending(tray => tray.Number)
                        .Take(LatestTrays)
                        .Select(tray => new OwnerTray(tray.Number, machine.Name, tray.WaitsFor == WaitsFor.HandedBack))
                        .ToList(),
                })
                .ToListAsync(cancel)
        ).ToLookup(machine => machine.OwnerId);
        return
        [
            .. owners.Select(owner => new OwnerLine(
                owner.Id,
                owner.Name,
                owner.Contact,
                [.. machines[owner.Id].Select(machine => machine.Name).Distinct()],
                [.. machines[owner.Id].SelectMany(machine => machine.Trays).OrderByDescending(tray => tray.Number).Take(LatestTrays)]
            )),
        ];
    }

    private static async Task<Ok<OwnerLine>> LineAsync(BlueDawnDb db, Owner owner, CancellationToken cancel) =>
        TypedResults.Ok((await LinesAsync(db, [owner], cancel))[0]);

    private static async Task<Results<Ok<OwnerLine>, ValidationProblem, ProblemHttpResult>> ChangeAsync(
        Guid id,
        OwnerChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var now = new OwnerFacts(input.Now.Name.Trim(), input.Now.Contact.Trim());
        if (CheckIn.CheckOwner(now.Name, now.Contact) is { Count: > 0 } problems)
        {
            return Problem.Fields(problems);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await FindAsync(db, id, cancel) is not { } owner)
        {
            return Nobody();
        }

        if (new OwnerFacts(owner.Name, owner.Contact) != input.Was)
        {
            return Problem.Conflict(
                $"{owner.Name} was changed meanwhile.",
                "Look at what it is now, then decide. Nothing was changed.",
                ("owner", new OwnerFacts(owner.Name, owner.Contact))
            );
        }

        // One boat is one owner however it is written: check-in would not know them apart.
        var folded = Names.Folded(now.Name);
        await OwnerBook.HoldNameAsync(db, now.Name, cancel);
        if (await db.Owners.FirstOrDefaultAsync(other => other.Id != id && other.Folded == folded, cancel) is { } same)
        {
            return Problem.Field("name", $"There is an owner {same.Name} already. A lead can make the two one.");
        }

        Write(db, me, clock, owner, $"{owner.Name}, {owner.Contact} → {now.Name}, {now.Contact}");
        (owner.Name, owner.Contact) = (now.Name, now.Contact);
        await TouchAsync(db, id, cancel);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return await LineAsync(db, owner, cancel);
    }

    private static async Task<Results<Ok<OwnerLine>, ValidationProblem, ProblemHttpResult>> MergeAsync(
        Guid id,
        OwnerMerge input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (id == input.Into)
        {
            return Problem.Field("into", "That is the same owner. Choose another.");
        }

        // The one with the smaller id first: two who merge the other way round wait for each other, never on each other.
        var both = await db
            .Owners.FromSql($"select * from owners where id in ({id}, {input.Into}) order by id for update")
            .ToListAsync(cancel);
        if (both.Find(owner => owner.Id == id) is not { } gone || both.Find(owner => owner.Id == input.Into) is not { } stays)
        {
            return Nobody();
        }

        Write(db, me, clock, stays, $"{gone.Name} and {stays.Name} are one owner: {stays.Name}.");
        stays.Contact = stays.Contact.Length > 0 ? stays.Contact : gone.Contact;
        await TouchAsync(db, id, cancel);
        // The same machine under both stays two: which of them a tray came off is not guessed.
        await db
            .Machines.Where(machine => machine.OwnerId == id)
            .ExecuteUpdateAsync(set => set.SetProperty(machine => machine.OwnerId, input.Into), cancel);
        db.Owners.Remove(gone);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return await LineAsync(db, stays, cancel);
    }

    private static async Task<Results<Ok<OwnerLine>, ValidationProblem, ProblemHttpResult>> MergeMachinesAsync(
        Guid id,
        MachineMerge input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await FindAsync(db, id, cancel) is not { } owner)
        {
            return Nobody();
        }

        var machines = await db.Machines.Where(machine => machine.OwnerId == id).ToListAsync(cancel);
        if (
            input.From == input.Into
            || machines.Find(machine => machine.Name == input.From) is not { } gone
            || machines.Find(machine => machine.Name == input.Into) is not { } stays
        )
        {
            return Problem.Field("into", "Choose two machines of this owner.");
        }

        Write(db, me, clock, owner, $"{gone.Name} and {stays.Name} of {owner.Name} are one machine: {stays.Name}.");
        await TouchAsync(db, id, cancel);
        await db
            .Trays.Where(tray => tray.MachineId == gone.Id)
            .ExecuteUpdateAsync(set => set.SetProperty(tray => tray.MachineId, stays.Id), cancel);
        db.Machines.Remove(gone);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return await LineAsync(db, owner, cancel);
    }

    private static async Task<IResult> DataAsync(Guid id, HttpContext context, BlueDawnDb db, CancellationToken cancel)
    {
        context.Response.Headers.ContentDisposition = "attachment; filename=owner.json";
        return await PersonalData.OfOwnerAsync(db, id, cancel) is { } data ? TypedResults.Text(data, "application/json") : Nobody();
    }

    private static async Task<Results<Ok<OwnerLine>, ValidationProblem, ProblemHttpResult>> BlankAsync(
        Guid id,
        OwnerFacts input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await FindAsync(db, id, cancel) is not { } owner)
        {
            return Nobody();
        }

        if (input.Name.Trim() != owner.Name)
        {
            return Problem.Field("name", $"Type {owner.Name}, to be sure: what is blanked does not come back.");
        }

        var open = await db
            .Trays.Where(tray => tray.Machine.OwnerId == id && tray.WaitsFor != WaitsFor.HandedBack)
            .OrderBy(tray => tray.Number)
            .Select(tray => tray.Number)
            .ToListAsync(cancel);
        if (open.Count > 0)
        {
            return Problem.Field(
                "name",
                $"{(open.Count == 1 ? "Tray" : "Trays")} {string.Join(", ", open)} of theirs {(open.Count == 1 ? "is" : "are")} on the bench. Hand back first."
            );
        }

        await PersonalData.BlankOwnerAsync(db, id, cancel);
        owner = await db.Owners.SingleAsync(blanked => blanked.Id == id, cancel);
        // What was written of them about the shop goes as well; that it was done stays.
        Write(db, me, clock, owner, $"An owner was blanked: {owner.Name}.");
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return await LineAsync(db, owner, cancel);
    }

    private static Task<Owner?> FindAsync(BlueDawnDb db, Guid id, CancellationToken cancel) =>
        db.Owners.FromSql($"select * from owners where id = {id} for update").SingleOrDefaultAsync(cancel);

    /// <summary>Their trays show the name: whoever has one open looks again.</summary>
    private static Task<int> TouchAsync(BlueDawnDb db, Guid owner, CancellationToken cancel) =>
        db
            .Trays.Where(tray => tray.Machine.OwnerId == owner)
            .ExecuteUpdateAsync(set => set.SetProperty(tray => tray.Version, tray => tray.Version + 1), cancel);

    private static void Write(BlueDawnDb db, Me me, TimeProvider clock, Owner owner, string what)
    {
        var now = clock.GetUtcNow();
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(now),
                At = now,
                By = me.Person.DisplayName,
                About = $"owner/{owner.Id}",
                What = what,
            }
        );
    }

    private static ProblemHttpResult Nobody() =>
        TypedResults.Problem(statusCode: 404, title: "There is no owner of that id.", detail: "Look at the list of owners again.");
}
