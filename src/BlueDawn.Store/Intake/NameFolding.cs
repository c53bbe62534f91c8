using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Intake;

/// <summary>
/// Folds names that were written past the model: by an earlier version, by an archive, by the blanking of an owner. Core says
/// how a name is folded, the database only looks for it.
/// </summary>
public static class NameFolding
{
    private const int AtOnce = 500;

    /// <summary>Folds every name that is not folded yet.</summary>
    /// <param name="db">The store; what it tracks is saved and forgotten.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task RunAsync(BlueDawnDb db, CancellationToken cancel)
    {
        await RunAsync(db, db.Owners.Where(owner => owner.Folded == null), owner => owner.Name = owner.Name, cancel);
        await RunAsync(db, db.Machines.Where(machine => machine.Folded == null), machine => machine.Name = machine.Name, cancel);
    }

    private static async Task RunAsync<T>(BlueDawnDb db, IQueryable<T> notFolded, Action<T> fold, CancellationToken cancel)
        where T : class
    {
        while (await notFolded.Take(AtOnce).ToListAsync(cancel) is { Count: > 0 } rows)
        {
            rows.ForEach(fold);
            await db.SaveChangesAsync(cancel);
            db.ChangeTracker.Clear();
        }
    }
}
