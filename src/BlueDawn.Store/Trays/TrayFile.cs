using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;
using BlueDawn.Store.Logbook;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Trays;

/// <summary>A tray's row with its book, ready to be judged.</summary>
/// <param name="Tray">The row.</param>
/// <param name="Book">The tray as Core sees it.</param>
public sealed record TrayFile(Tray Tray, TrayBook Book)
{
    /// <summary>How it stands at Kit.</summary>
    public KitsState Kits => Book.State<KitsState>();

    /// <summary>What a page shows of it that no rule looks at.</summary>
    public TrayHead Head =>
        new(
            Tray.Id,
            Tray.Number,
            Tray.Version,
            Tray.Revision,
            Tray.Machine.Owner.Name,
            Tray.Machine.Owner.Contact,
            Tray.Machine.Name,
            Tray.CheckedInAt,
            Tray.Story,
            Tray.Rules is not null
        );

    /// <summary>All that it is judged from.</summary>
    /// <param name="pins">The reader's own pins, as they described them.</param>
    public TraySnapshot Snapshot(string pins) =>
        new(
            Head,
            Book.Facts,
            Book.Log.Entries,
            Book.Context.Shop,
            pins,
            Book.Context.History,
            Book.Context.Today,
            Book.Knowledge.Changes,
            CoreVersion.Current
        )
        {
            AheadOfUtcMin = Book.Context.AheadOfUtcMin,
        };

    /// <summary>Opens the file of one tray, or null when there is no such tray.</summary>
    /// <param name="db">The store.</param>
    /// <param name="number">The tray's number.</param>
    /// <param name="desk">What it is judged by.</param>
    /// <param name="cancel">Cancellation.</param>
    /// <param name="locked">True to hold the tray until the transaction ends: what is added next is decided on everything that
    /// stands.</param>
    public static async Task<TrayFile?> OpenAsync(
        BlueDawnDb db,
        int number,
        JudgingContext desk,
        CancellationToken cancel,
        bool locked = false
    )
    {
        var rows = locked
            ? db.Trays.FromSql($"select * from trays where number = {number} for update")
            : db.Trays.Where(tray => tray.Number == number);
        var tray = await Whole(rows).SingleOrDefaultAsync(cancel);
        if (tray is null)
        {
            return null;
        }

        var entries = await Entries(db.LogbookEntries.Where(entry => entry.TrayId == tray.Id)).ToListAsync(cancel);
        return await WithHistoryAsync(db, new TrayFile(tray, desk.Open(tray, entries)), cancel);
    }

    /// <summary>Opens the files of every tray that has not been handed back, and of the latest that have.</summary>
    /// <param name="db">The store.</param>
    /// <param name="handedBack">How many of the latest that have been handed back.</param>
    /// <param name="desk">What they are judged by.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task<IReadOnlyList<TrayFile>> OpenBenchAsync(
        BlueDawnDb db,
        int handedBack,
        JudgingContext desk,
        CancellationToken cancel
    )
    {
        var latest = db
            .Trays.Where(tray => tray.WaitsFor == WaitsFor.HandedBack)
            .OrderByDescending(tray => tray.Number)
            .Take(handedBack)
            .Select(tray => tray.Id);
        var wanted = db.Trays.Where(tray => tray.WaitsFor != WaitsFor.HandedBack || latest.Contains(tray.Id));
        var trays = await Whole(wanted).AsNoTracking().ToListAsync(cancel);
        var entries = (
            await Entries(db.LogbookEntries.Where(entry => wanted.Any(tray => tray.Id == entry.TrayId))).ToListAsync(cancel)
        ).ToLookup(entry => entry.TrayId);
        var files = trays.Select(tray => new TrayFile(tray, desk.Open(tray, entries[tray.Id]))).ToList();
        if (!files.Any(file => Policy.AsksHistory(file.Book)))
        {
            return files;
        }

        var counts = await ClosedTracesAsync(db, null, cancel);
        return [.. files.Select(file => Policy.AsksHistory(file.Book) ? file.With(counts) : file)];
    }

    /// <summary>The shop's defaults.</summary>
    public static async Task<ShopDefaults> ShopAsync(BlueDawnDb db, CancellationToken cancel) =>
        (await db.Shop.AsNoTracking().SingleAsync(cancel)).Defaults;

    /// <summary>The file judged by what the shop has confirmed on other carburetors.</summary>
    /// <param name="db">The store.</param>
    /// <param name="cancel">Cancellation.</param>
    public async Task<TrayFile> WithHistoryAsync(BlueDawnDb db, CancellationToken cancel) =>
        With(await ClosedTracesAsync(db, Tray.Id, cancel));

    /// <summary>The file judged without what the shop has confirmed on other carburetors.</summary>
    public TrayFile WithoutHistory() => With([]);

    /// <summary>The file after one more entry, and what stands on the tray then.</summary>
    /// <param name="written">The entry.</param>
    public TrayFile After(Written written) =>
        this with
        {
            Book = StationList.Open(written.Facts, Book.Context, Book.Log.With(written.Entry)),
        };

    /// <summary>The tray as it would stand if the bench knew something else.</summary>
    /// <param name="knowledge">What it would know.</param>
    public TrayBook By(Knowledge knowledge) =>
        StationList.Open(Tray.Facts(knowledge), Book.Context with { Knowledge = knowledge }, Book.Log);

    /// <summary>The report as it would be handed over now.</summary>
    public HandoverReport Report()
    {
        return HandoverReport.Of(
            new ReportTray(
                Tray.Number,
                Tray.Machine.Owner.Name,
                Tray.Machine.Owner.Contact,
                Tray.Machine.Name,
                Book.Facts.StampedNumber,
                Book.Sheet?.Code,
                Book.Sheet?.Maker,
                Book.Facts.Complaint,
                Tray.CheckedInAt,
                Book.Facts.PromisedDay,
                Kits.Marks.DateCode,
                Kits.Marks.Plate
            ),
            [.. Book.Modules.SelectMany(module => Book.State(module.Station).Report)],
            Book.Lines,
            Policy.NotDone(Book)
        );
    }

    private static async Task<TrayFile> WithHistoryAsync(BlueDawnDb db, TrayFile file, CancellationToken cancel) =>
        Policy.AsksHistory(file.Book) ? await file.WithHistoryAsync(db, cancel) : file;

    private TrayFile With(IReadOnlyList<ClosedTraces> counts) =>
        this with
        {
            Book = StationList.Open(
                Book.Facts,
                Book.Context with
                {
                    History = FaultHistory.Of(Tray.SpecCode, Tray.Family, counts),
                },
                Book.Log
            ),
        };

    /// <summary>What stands for all that the shop has confirmed on other carburetors than a tray's: another when any of it changes.</summary>
    /// <param name="db">The store.</param>
    /// <param name="but">The tray that does not count.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<string> HistoryStampAsync(BlueDawnDb db, Guid but, CancellationToken cancel) =>
        db
            .Database.SqlQuery<string>(
                $"""
                select coalesce(md5(string_agg(concat_ws(' ', family, spec_code, confirmed, trays), ',' order by family, spec_code, confirmed)), '') as "Value"
                from (select family, spec_code, confirmed, count(*) as trays from trays
                    where confirmed is not null and id <> {but} group by family, spec_code, confirmed) closed
                """
            )
            .SingleAsync(cancel);

    /// <summary>What has been confirmed on trays whose trace is settled, counted by the database: it costs the same with a thousand of
    /// them.</summary>
    private static async Task<IReadOnlyList<ClosedTraces>> ClosedTracesAsync(BlueDawnDb db, Guid? but, CancellationToken cancel)
    {
        var rows = await db
            .Database.SqlQuery<ClosedRow>(
                $"""
                select family, spec_code, confirmed, count(*)::int as trays
                from trays where confirmed is not null and id is distinct from {but} group by family, spec_code, confirmed
                """
            )
            .ToListAsync(cancel);
        return
        [
            .. rows.SelectMany(row =>
                row.Confirmed.Select(cause => (string?)cause)
                    .Append(null)
                    .Select(cause => new ClosedTraces(row.SpecCode, Enum.Parse<CarburetorFamily>(row.Family), cause, row.Trays))
            ),
        ];
    }

    private sealed record ClosedRow(string Family, string? SpecCode, string[] Confirmed, int Trays);

    private static IQueryable<Tray> Whole(IQueryable<Tray> trays) =>
        trays.Include(tray => tray.Machine).ThenInclude(machine => machine.Owner).Include(tray => tray.Spec);

    /// <summary>Entries without their words and reports, which no rule reads, save where the words are all there is.</summary>
    private static IQueryable<LogbookEntry> Entries(IQueryable<LogbookEntry> entries) =>
        entries
            .AsNoTracking()
            .Select(entry => new LogbookEntry
            {
                Id = entry.Id,
                TrayId = entry.TrayId,
                Kind = entry.Kind,
                SupersedesId = entry.SupersedesId,
                PersonName = entry.PersonName,
                TakenAt = entry.TakenAt,
                RecordedAt = entry.RecordedAt,
                Note = entry.Note,
                Words = entry.Note == null ? entry.Words : "",
                Old = entry.Old,
            });
}
