using BlueDawn.Core.Bench;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Worksheets;
using BlueDawn.Store.Logbook;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Trays;

/// <summary>A tray with its logbook, ready for Core to judge.</summary>
/// <param name="Tray">The tray with machine, owner, spec sheet and kit.</param>
/// <param name="Entries">Its logbook, oldest first.</param>
/// <param name="Shop">The shop's defaults.</param>
public sealed record TrayFile(Tray Tray, IReadOnlyList<LogbookEntry> Entries, ShopDefaults Shop)
{
    /// <summary>Opens the file of one tray, or null when there is no such tray.</summary>
    public static async Task<TrayFile?> OpenAsync(BlueDawnDb db, int number, CancellationToken cancel)
    {
        var tray = await Whole(db).SingleOrDefaultAsync(t => t.Number == number, cancel);
        if (tray is null)
        {
            return null;
        }

        var entries = await db.LogbookEntries.Where(entry => entry.TrayId == tray.Id).OrderBy(entry => entry.TakenAt).ThenBy(entry => entry.Id).ToListAsync(cancel);
        return new TrayFile(tray, entries, await ShopAsync(db, cancel));
    }

    /// <summary>Opens the files of every tray that has not been handed back, and of the latest that have.</summary>
    /// <param name="db">The store.</param>
    /// <param name="handedBack">How many of those handed back.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task<IReadOnlyList<TrayFile>> OpenBenchAsync(BlueDawnDb db, int handedBack, CancellationToken cancel)
    {
        var trays = await Whole(db).Where(t => t.WaitsFor != WaitsFor.HandedBack).AsNoTracking().ToListAsync(cancel);
        trays.AddRange(await Whole(db).Where(t => t.WaitsFor == WaitsFor.HandedBack).OrderByDescending(t => t.Number).Take(handedBack).AsNoTracking().ToListAsync(cancel));
        var ids = trays.Select(t => t.Id).ToList();
        var entries = await db.LogbookEntries
            .Where(entry => ids.Contains(entry.TrayId) && (entry.Kind == EntryKind.Reading || entry.Kind == EntryKind.Withdrawn))
            .Select(entry => new LogbookEntry { Id = entry.Id, TrayId = entry.TrayId, Kind = entry.Kind, LineKey = entry.LineKey, SupersedesId = entry.SupersedesId, TakenAt = entry.TakenAt, Reading = entry.Reading })
            .AsNoTracking()
            .ToListAsync(cancel);
        var byTray = entries.ToLookup(entry => entry.TrayId);
        var shop = await ShopAsync(db, cancel);
        return [.. trays.Select(tray => new TrayFile(tray, [.. byTray[tray.Id]], shop))];
    }

    /// <summary>The shop's defaults.</summary>
    public static async Task<ShopDefaults> ShopAsync(BlueDawnDb db, CancellationToken cancel) =>
        (await db.Shop.AsNoTracking().SingleAsync(cancel)).Defaults;

    /// <summary>The worksheet as it stands, judged for someone with these pins.</summary>
    public JudgedWorksheet Judge(PinSet pins) => JudgedWorksheet.Of(
        Tray.Spec?.Sheet,
        Shop,
        pins,
        Tray.KitId is not null,
        Tray.WaitsFor == WaitsFor.HandedBack,
        Entries.Where(entry => entry.Kind is EntryKind.Reading or EntryKind.Withdrawn).Select(entry => entry.AsLogged()));

    /// <summary>The report as it would be handed over now.</summary>
    public HandoverReport Report()
    {
        var sheet = Judge(PinSet.Empty);
        var kit = Tray.Kit is { } chosen
            ? new ReportKit(chosen.Number, chosen.Contents.Name, chosen.Price, Shop.Currency, [.. chosen.Contents.Parts.Select(part => $"{part.Quantity} {part.Part}")])
            : null;
        return HandoverReport.Of(
            new ReportTray(
                Tray.Number,
                Tray.Machine.Owner.Name,
                Tray.Machine.Owner.Contact,
                Tray.Machine.Name,
                Tray.StampedNumber,
                Tray.SpecCode,
                Tray.Spec?.Sheet.Maker,
                Tray.Complaint,
                Tray.CheckedInAt,
                Tray.PromisedDay),
            kit,
            sheet,
            [.. Entries.Where(entry => entry.LineKey is not null).Select(entry => new ReportEntry(
                entry.Id, entry.LineKey!, entry.Kind == EntryKind.Reading ? entry.Reading : null, entry.SupersedesId, entry.TakenAt, entry.PersonName))]);
    }

    private static IQueryable<Tray> Whole(BlueDawnDb db) =>
        db.Trays.Include(t => t.Machine).ThenInclude(m => m.Owner).Include(t => t.Spec).Include(t => t.Kit);
}
