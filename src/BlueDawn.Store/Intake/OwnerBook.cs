using BlueDawn.Core.Intake;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Intake;

/// <summary>Owners and machines by their names, however they are written. What is read does not grow with the book.</summary>
public static class OwnerBook
{
    /// <summary>Shorter texts are looked for where a name begins: an index of three letters knows nothing of fewer.</summary>
    public const int ShortestWithin = 3;

    /// <summary>The owner of a name, or null. Of several the one spelled exactly so comes first.</summary>
    /// <param name="db">The store.</param>
    /// <param name="name">The name.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<Owner?> OfNameAsync(BlueDawnDb db, string name, CancellationToken cancel)
    {
        var folded = Names.Folded(name);
        return db
            .Owners.Where(owner => owner.Folded == folded)
            .OrderByDescending(owner => owner.Name == name)
            .ThenBy(owner => owner.Id)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>Waits until nobody else brings the owner of a name into the book; holds the name until the transaction ends. Two counters
    /// that check the same new owner in at once make one.</summary>
    /// <param name="db">The store, in a transaction.</param>
    /// <param name="name">The name.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task HoldNameAsync(BlueDawnDb db, string name, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtext('owner'), hashtext({Names.Folded(name)}))", cancel);

    /// <summary>An owner's machine of a name, or null. Of several the one spelled exactly so comes first.</summary>
    /// <param name="db">The store.</param>
    /// <param name="owner">The owner's id.</param>
    /// <param name="name">The name.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<Machine?> MachineOfNameAsync(BlueDawnDb db, Guid owner, string name, CancellationToken cancel)
    {
        var folded = Names.Folded(name);
        return db
            .Machines.Where(machine => machine.OwnerId == owner && machine.Folded == folded)
            .OrderByDescending(machine => machine.Name == name)
            .ThenBy(machine => machine.Id)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>An owner who may well be meant by a name that nobody has, or null.</summary>
    /// <param name="db">The store.</param>
    /// <param name="name">The name.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task<Owner?> AlmostAsync(BlueDawnDb db, string name, CancellationToken cancel)
    {
        var folded = Names.Folded(name);
        if (Names.Near(folded) is not { Count: > 0 } near)
        {
            return null;
        }

        var parts = Names.Parts(folded);
        // Core says what is almost the same; the indexes only bring what may be.
        var candidates = await db
            .Owners.FromSql($"select * from owners where near && {near} union select * from owners where folded = any({parts})")
            .ToListAsync(cancel);
        candidates.Sort((one, other) => string.CompareOrdinal(one.Folded, other.Folded));
        return candidates.Find(owner => Names.IsAlmost(owner.Name, name))
            ?? await With(db, folded).OrderBy(owner => owner.Folded).FirstOrDefaultAsync(cancel);
    }

    /// <summary>Owners with a text in their name; by how it begins when the text is short.</summary>
    /// <param name="db">The store.</param>
    /// <param name="text">The text.</param>
    public static IQueryable<Owner> With(BlueDawnDb db, string text)
    {
        var folded = Names.Folded(text);
        var pattern = folded.Length < ShortestWithin ? Like.Exactly(folded) + "%" : Like.With(folded);
        return db.Owners.Where(owner => EF.Functions.Like(owner.Folded!, pattern, Like.Sign));
    }

    /// <summary>Whoever brought the latest trays, by id.</summary>
    /// <param name="db">The store.</param>
    /// <param name="trays">How many trays.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task<IReadOnlyList<Guid>> LatestAsync(BlueDawnDb db, int trays, CancellationToken cancel) =>
        [
            .. (
                await db.Trays.OrderByDescending(tray => tray.Number).Take(trays).Select(tray => tray.Machine.OwnerId).ToListAsync(cancel)
            ).Distinct(),
        ];
}
