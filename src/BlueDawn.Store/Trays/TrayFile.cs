using BlueDawn.Core.Bench;
using BlueDawn.Core.Faults;
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

    /// <summary>
    /// Opens the file of one tray and holds it until the transaction ends: what is added next is decided on everything
    /// that stands. Call inside a transaction.
    /// </summary>
    public static async Task<TrayFile?> OpenLockedAsync(BlueDawnDb db, int number, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlAsync($"select 1 from trays where number = {number} for update", cancel);
        return await OpenAsync(db, number, cancel);
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
            .Where(entry => ids.Contains(entry.TrayId) && (entry.Kind == EntryKind.Reading || entry.Kind == EntryKind.Withdrawn || entry.Kind == EntryKind.Traced || entry.Kind == EntryKind.Ledgered || entry.Kind == EntryKind.Cleaned))
            .Select(entry => new LogbookEntry { Id = entry.Id, TrayId = entry.TrayId, Kind = entry.Kind, LineKey = entry.LineKey, SupersedesId = entry.SupersedesId, TakenAt = entry.TakenAt, Reading = entry.Reading, Trace = entry.Trace, Ledger = entry.Ledger, Cleaning = entry.Cleaning, PersonName = entry.PersonName })
            .AsNoTracking()
            .ToListAsync(cancel);
        var byTray = entries.ToLookup(entry => entry.TrayId);
        var shop = await ShopAsync(db, cancel);
        return [.. trays.Select(tray => new TrayFile(tray, [.. byTray[tray.Id]], shop))];
    }

    /// <summary>The shop's defaults.</summary>
    public static async Task<ShopDefaults> ShopAsync(BlueDawnDb db, CancellationToken cancel) =>
        (await db.Shop.AsNoTracking().SingleAsync(cancel)).Defaults;

    /// <summary>What kind of carburetor is on the tray.</summary>
    public CarburetorKind Kind => new(Tray.Family, Tray.Engine, Tray.Choke);

    /// <summary>The steps of its trace, oldest first.</summary>
    public IReadOnlyList<LoggedNote> Notes =>
        [.. Entries.Where(entry => entry.Trace is not null).OrderBy(entry => entry.TakenAt).ThenBy(entry => entry.Id).Select(entry => new LoggedNote(entry.Id, entry.TakenAt, entry.Trace!))];

    /// <summary>What has been taken apart, cleaned and put together.</summary>
    public TrayWork Work => TrayWork.Of(
        Kind,
        Tray.Spec?.Sheet,
        [.. InOrder.Where(entry => entry.Ledger is not null).Select(entry => new Core.Strip.LoggedLedgerNote(entry.Id, entry.TakenAt, entry.PersonName, entry.Ledger!))],
        [.. InOrder.Where(entry => entry.Cleaning is not null).Select(entry => new Core.Cleaning.LoggedCleaningNote(entry.Id, entry.TakenAt, entry.Cleaning!))],
        Tray.WaitsFor == WaitsFor.Bath);

    private IEnumerable<LogbookEntry> InOrder => Entries.OrderBy(entry => entry.TakenAt).ThenBy(entry => entry.Id);

    /// <summary>Its old parts as measured on the bench, the last measure of each.</summary>
    public IReadOnlyList<Core.Catalogue.ItemPart> OldParts =>
        [.. Entries.Where(entry => entry.OldPart is not null).GroupBy(entry => entry.OldPart!.Part).Select(group => group.Last().OldPart!).Where(part => part.Features.Count > 0)];

    /// <summary>Its parts as they are wanted: by the spec sheet and by the old ones.</summary>
    public IReadOnlyList<Core.Kits.WantedPart> Wanted =>
        Core.Kits.WantedPart.Of(Tray.Spec?.Sheet.Needs ?? [], OldParts, Core.Catalogue.PartKnowledge.Shipped);

    /// <summary>Numbers it goes by: the stamp as read, and those of its spec sheet.</summary>
    public IReadOnlyList<string> Numbers =>
        [.. (Tray.Spec?.Sheet.StampedNumbers ?? []).Prepend(Tray.StampedNumber).Where(number => number.Length > 0).Distinct()];

    /// <summary>The worksheet as it stands, judged for someone with these pins.</summary>
    /// <remarks>While nothing after the trace has been started, the next step is the trace's, without the shop's history.</remarks>
    public JudgedWorksheet Judge(PinSet pins)
    {
        var released = Tray.WaitsFor == WaitsFor.HandedBack;
        var sheet = JudgedWorksheet.Of(
            Tray.Spec?.Sheet,
            Shop,
            pins,
            Tray.Fitting is not null,
            released,
            Entries.Where(entry => entry.Kind is EntryKind.Reading or EntryKind.Withdrawn).Select(entry => entry.AsLogged()),
            Work);
        if (Tray.Fitting is { Option: Core.Kits.FitOption.Decline } && !released)
        {
            return sheet.Declined();
        }

        var notes = Notes;
        var tracing = !released && Tray.Fitting is null && sheet.Readings.Count == 0
            && notes.Count > 0 && !FaultNote.IsSettled(notes) && !Entries.Any(entry => entry.Ledger is not null);
        return tracing ? sheet with { Next = NextStep.Of(Trace(sheet, FaultHistory.None).Next) } : sheet;
    }

    /// <summary>Everything known about its fault.</summary>
    /// <param name="sheet">Its judged worksheet.</param>
    public Evidence Evidence(JudgedWorksheet sheet) =>
        Core.Faults.Evidence.Gather(
            FaultKnowledge.Shipped,
            Kind,
            Notes,
            sheet.Readings,
            [.. sheet.Lines.Select(line => line.Line.Key)],
            Core.Strip.LedgerSigns.Of(Core.Strip.StripKnowledge.Shipped, Core.Build.BuildKnowledge.Shipped, Tray.Family, Tray.Spec?.Sheet, Work.Ledger));

    /// <summary>Its trace as it stands.</summary>
    /// <param name="sheet">Its judged worksheet.</param>
    /// <param name="history">The shop's history, or none.</param>
    public Trace Trace(JudgedWorksheet sheet, FaultHistory history) =>
        Core.Faults.Trace.Of(FaultKnowledge.Shipped, Kind, Shop.Trace, history, Evidence(sheet));

    /// <summary>What the shop has confirmed on other carburetors.</summary>
    public static async Task<FaultHistory> HistoryAsync(BlueDawnDb db, Tray tray, CancellationToken cancel)
    {
        var notes = await (
            from entry in db.LogbookEntries
            where entry.Kind == EntryKind.Traced && entry.TrayId != tray.Id
            join other in db.Trays on entry.TrayId equals other.Id
            orderby entry.TakenAt, entry.Id
            select new { entry.TrayId, other.SpecCode, other.Family, entry.Id, entry.TakenAt, entry.Trace }).AsNoTracking().ToListAsync(cancel);
        return FaultHistory.Of(tray.SpecCode, tray.Family, notes
            .GroupBy(note => note.TrayId)
            .Select(one => (One: one.First(), Faults: FaultNote.Standing(one.Select(note => new LoggedNote(note.Id, note.TakenAt, note.Trace!))).Select(logged => (FaultNote)logged.Note).ToList()))
            .Where(pair => pair.Faults.Any(fault => fault.Settles))
            .Select(pair => new ClosedTrace(
                pair.One.SpecCode,
                pair.One.Family,
                [.. pair.Faults.Where(fault => fault is { Settles: true, CauseId: not null }).Select(fault => fault.CauseId!)])));
    }

    /// <summary>The report as it would be handed over now.</summary>
    public HandoverReport Report()
    {
        var sheet = Judge(PinSet.Empty);
        var evidence = Evidence(sheet);
        var kit = Tray.Fitting is { Option: not Core.Kits.FitOption.Decline } fitting
            ? new ReportKit(
                string.Join(", ", fitting.Items.Select(item => item.Number)),
                fitting.Items is [var only] ? only.Name : fitting.What,
                fitting.PartsMoney,
                Shop.Currency,
                fitting.Items is [var kitItem] && kitItem.Parts.Count > 0 ? [.. kitItem.Parts.Select(part => $"{part.Quantity} {part.Part}")] : fitting.Parts)
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
                entry.Id, entry.LineKey!, entry.Kind == EntryKind.Reading ? entry.Reading : null, entry.SupersedesId, entry.TakenAt, entry.PersonName))]) with
        {
            Faults = [.. evidence.Found.Select(fault => new ReportFault(
                fault.Label, FaultKnowledge.Shipped.FindCause(fault.CauseId)!.Fix, fault.Outcome == FaultOutcome.Referred))],
            NothingFound = evidence.NothingFound,
            Declined = Tray.Fitting is { Option: Core.Kits.FitOption.Decline },
            Parts = HandoverReport.PartsOf(Work.Ledger),
        };
    }

    private static IQueryable<Tray> Whole(BlueDawnDb db) =>
        db.Trays.Include(t => t.Machine).ThenInclude(m => m.Owner).Include(t => t.Spec);
}
