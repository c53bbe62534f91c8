using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Stock;
using BlueDawn.Server.People;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Stock;

/// <summary>Tells trays what becomes of what was ordered for them.</summary>
internal sealed class TrayOrders(BlueDawnDb db, NoteWriter writer)
{
    /// <summary>Whether a tray waits for an order.</summary>
    public static bool IsFor(TrayFile file, Guid order) => file.Kits.Order?.Order == order;

    /// <summary>Holds every tray that waits for something until the transaction ends, in one order. Before any item is locked.</summary>
    public async Task<IReadOnlyList<TrayFile>> LockWaitingAsync(Me me, CancellationToken cancel)
    {
        var waiting = (
            await db
                .Trays.AsNoTracking()
                .Where(tray => tray.WaitsFor != WaitsFor.HandedBack && tray.Fitting != null)
                .Select(tray => new { tray.Number, tray.Fitting })
                .ToListAsync(cancel)
        )
            .Where(tray => tray.Fitting!.ToOrder)
            .Select(tray => tray.Number)
            .Order()
            .ToList();
        return await LockAsync(waiting, me, cancel);
    }

    /// <summary>What was ordered for trays stands on them.</summary>
    public async Task OrderedAsync(OrderPlaced order, Me me, CancellationToken cancel)
    {
        var wanted = (order.For ?? []).GroupBy(one => one.Tray).ToDictionary(group => group.Key, group => group.First());
        foreach (var file in await LockAsync([.. wanted.Keys.Order()], me, cancel))
        {
            var one = wanted[file.Tray.Number];
            if (file.Kits.Stage is PartsStage.ToOrder or PartsStage.Ordered)
            {
                Record(
                    file,
                    new OrderedNote(
                        order.Id,
                        order.Supplier,
                        one.Items,
                        me.Context.Shop.Open.OnOrAfter(me.Context.Today.AddDays(one.Days))
                    ),
                    me
                );
            }
        }
    }

    /// <summary>Trays whose parts are all on the shelf say so, the one promised first before the others, as far as the pieces go.</summary>
    /// <param name="waiting">The trays that wait, held.</param>
    /// <param name="me">Who booked it in.</param>
    /// <param name="cancel">Cancels.</param>
    public async Task ArrivedAsync(IReadOnlyList<TrayFile> waiting, Me me, CancellationToken cancel)
    {
        if (waiting.Count == 0)
        {
            return;
        }

        var left = await db
            .ShelfRows.Join(db.Items, row => row.ItemId, item => item.Id, (row, item) => new { item.Number, row.OnHand })
            .ToDictionaryAsync(row => row.Number, row => row.OnHand, cancel);
        bool Take(IReadOnlyList<FittedItem> items)
        {
            if (items.Count == 0 || items.Any(item => left.GetValueOrDefault(item.Number) < item.Pieces))
            {
                return false;
            }

            foreach (var item in items)
            {
                left[item.Number] -= item.Pieces;
            }

            return true;
        }

        // Those it was said to before keep what is theirs.
        foreach (var file in waiting.Where(file => file.Kits.Stage == PartsStage.Here))
        {
            Take(await NeededAsync(file, me, cancel));
        }

        foreach (
            var file in waiting
                .Where(file => file.Kits.Stage is PartsStage.ToOrder or PartsStage.Ordered)
                .OrderBy(file => file.Book.Facts.PromisedDay)
                .ThenBy(file => file.Tray.Number)
        )
        {
            var needed = await NeededAsync(file, me, cancel);
            if (Take(needed))
            {
                Record(file, new ArrivedNote([.. needed.Select(item => item.Number)]), me);
            }
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Trays that waited for an order say that it was taken back.</summary>
    public async Task UndoneAsync(IReadOnlyList<TrayFile> waiting, OpenOrder order, Me me, CancellationToken cancel)
    {
        foreach (var file in waiting.Where(file => IsFor(file, order.Id)))
        {
            Record(file, new OrderUndoneNote(order.Id, order.Supplier), me);
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Records what becomes of an order on a tray that is held and has not gone. Nothing of the order stands when it cannot.</summary>
    private void Record(TrayFile file, Note note, Me me)
    {
        if (writer.Record(file, note, me).Refusal is { } refused)
        {
            throw new InvalidOperationException($"Tray {file.Tray.Number}: {refused.Title} {refused.Detail}");
        }
    }

    /// <summary>What a tray would take off the shelf now; empty while the shelf does not hold it. Single parts come out of anything that
    /// holds them.</summary>
    private async Task<IReadOnlyList<FittedItem>> NeededAsync(TrayFile file, Me me, CancellationToken cancel)
    {
        var fitting = file.Book.Fitting!;
        var wanted = await FittingChoice.FromShelfAsync(db, file, fitting, me.Context.Today, cancel);
        var has = fitting.Items.Where(item => item.FromShelf).Select(item => item.Number).ToHashSet();
        return wanted is null ? [] : [.. wanted.Items.Where(item => !has.Contains(item.Number))];
    }

    private async Task<IReadOnlyList<TrayFile>> LockAsync(IReadOnlyList<int> numbers, Me me, CancellationToken cancel)
    {
        var files = new List<TrayFile>();
        foreach (var number in numbers)
        {
            if (await TrayFile.OpenAsync(db, number, me.Context, cancel, locked: true) is { } file && !file.Book.IsHandedBack)
            {
                files.Add(file);
            }
        }

        return files;
    }
}
