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
        // Whoever waits for the tray gets it as it is then, but its machine as it was when the question was asked: where that has
        // been put right meanwhile there is none, and it is asked again.
        while (tray is null && locked && await db.Trays.AnyAsync(one => one.Number == number, cancel))
        {
            tray = await Whole(rows).SingleOrDefaultAsync(cancel);
        }

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
        // Two questions, each answered from an index of its own: what has been handed back over the years is not read.
        var wanted = db.Trays.FromSql(
            $"""
            select * from trays where waits_for <> 'HandedBack'
            union all (select * from trays where waits_for = 'HandedBack' order by number desc limit {handedBack})
            """
        );
        var trays = await Whole(wanted).AsNoTracking().ToListAsync(cancel);
        var ids = trays.Select(tray => tray.Id).ToList();
        var entries = (await Entries(db.LogbookEntries.Where(entry => ids.Contains(entry.TrayId))).ToListAsync(cancel)).ToLookup(entry =>
            entry.TrayId
        );
        var files = trays.Select(tray => new TrayFile(tray, desk.Open(tray, entries[tray.Id]))).ToList();
        if (!files.Any(file => Policy.AsksHistory(file.Book)))
        {
            return files;
        }

        var counts = Counted(await db.ClosedTraces.AsNoTracking().Where(row => row.Trays > 0).ToListAsync(cancel));
        return [.. files.Select(file => Policy.AsksHistory(file.Book) ? file.With(counts) : file)];
    }

    /// <summary>The shop's defaults.</summary>
    public static async Task<ShopDefaults> ShopAsync(BlueDawnDb db, CancellationToken cancel) =>
        (await db.Shop.AsNoTracking().SingleAsync(cancel)).Defaults;

    /// <summary>The file judged by what the shop has confirmed on other carburetors.</summary>
    /// <param name="db">The store.</param>
    /// <param name="cancel">Cancellation.</param>
    public async Task<TrayFile> WithHistoryAsync(BlueDawnDb db, CancellationToken cancel) =>
        With(await ClosedTracesAsync(db, Tray, cancel));

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
            Policy.NotDone(Book),
            Book.Dangers,
            Book.Kind.Family
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

    /// <summary>What stands for all that a tray is judged by, save its reader and the day: another when any of it changes. Null when
    /// there is no such tray.</summary>
    /// <param name="db">The store.</param>
    /// <param name="number">The tray's number.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<string?> StampAsync(BlueDawnDb db, int number, CancellationToken cancel) =>
        db
            .Database.SqlQuery<string?>(
                $"""
                select concat_ws('.', t.revision, t.version, t.xmin, m.xmin, o.xmin, s.xmin, (
                    select md5(string_agg(concat_ws(' ', c.spec_code, c.cause, c.trays), ',' order by c.spec_code, c.cause))
                    from closed_traces c where c.family = t.family)) as "Value"
                from trays t join machines m on m.id = t.machine_id join owners o on o.id = m.owner_id
                left join spec_sheets s on s.code = t.spec_code and s.issue = t.spec_issue where t.number = {number}
                """
            )
            .SingleOrDefaultAsync(cancel);

    /// <summary>What has been confirmed on the other trays of a tray's family whose trace is settled.</summary>
    private static async Task<IReadOnlyList<ClosedTraces>> ClosedTracesAsync(BlueDawnDb db, Tray tray, CancellationToken cancel) =>
        Counted(
            await db
                .ClosedTraces.FromSql(
                    $"""
                    select c.family, c.spec_code, c.cause, c.trays - case when t.id is null then 0 else 1 end as trays
                    from closed_traces c left join trays t on t.id = {tray.Id} and t.confirmed is not null and t.family = c.family
                        and coalesce(t.spec_code, '') = c.spec_code and (c.cause = '' or c.cause = any(t.confirmed))
                    where c.family = {tray.Family.ToString()} and c.trays - case when t.id is null then 0 else 1 end > 0
                    """
                )
                .AsNoTracking()
                .ToListAsync(cancel)
        );

    private static IReadOnlyList<ClosedTraces> Counted(IEnumerable<ClosedTraceRow> rows) =>
        [
            .. rows.Select(row => new ClosedTraces(
                row.SpecCode.Length == 0 ? null : row.SpecCode,
                row.Family,
                row.Cause.Length == 0 ? null : row.Cause,
                row.Trays
            )),
        ];

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
