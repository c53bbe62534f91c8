using BlueDawn.Core.Measures;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Server.People;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace BlueDawn.Server.Bench;

/// <summary>A tray as the bench lists it.</summary>
/// <param name="Number">Number on the tag.</param>
/// <param name="MachineName">Machine.</param>
/// <param name="OwnerName">Owner.</param>
/// <param name="OwnerContact">How to reach the owner; may be empty.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="PromisedDay">The day it is promised for.</param>
/// <param name="WaitsFor">What it waits for.</param>
/// <param name="WaitNote">More about the wait.</param>
/// <param name="Station">The station of the next step.</param>
/// <param name="LineLabel">The line it is about, or null.</param>
/// <param name="Do">The next step.</param>
/// <param name="OpenLines">Lines that are open.</param>
/// <param name="Lines">Lines that count: those that have to be read, and those that have been.</param>
/// <param name="Revision">Counts up with every entry of the tray.</param>
/// <param name="Version">Counts up with every change of what stands on the tray.</param>
/// <param name="NeedsHands">Whether it waits for hands, or what it waited for has had its time.</param>
/// <param name="Ready">Whether everything is in order and it can go back to its owner.</param>
/// <param name="Unsafe">The worst that is unsafe about it; null while nothing is.</param>
internal sealed record BenchTray(
    int Number,
    string MachineName,
    string OwnerName,
    string OwnerContact,
    string Complaint,
    DateOnly PromisedDay,
    WaitsFor WaitsFor,
    string WaitNote,
    Station Station,
    string? LineLabel,
    Sentence Do,
    int OpenLines,
    int Lines,
    int Revision,
    int Version,
    bool NeedsHands,
    bool Ready,
    string? Unsafe
);

/// <summary>The bench.</summary>
/// <param name="Today">Today by the shop's clock.</param>
/// <param name="PromisedDay">The day offered for what comes in today: after the shop’s usual days, when it is open.</param>
/// <param name="Trays">Trays by promised day; those handed back come last, newest first.</param>
internal sealed record BenchView(DateOnly Today, DateOnly PromisedDay, IReadOnlyList<BenchTray> Trays);

internal static class BenchEndpoints
{
    private const int HandedBackShown = 20;
    private static readonly SemaphoreSlim OneAtATime = new(1);

    public static void MapBench(this RouteGroupBuilder api) =>
        api.MapGet("/bench", ShowAsync)
            .WithName("getBench")
            .WithSummary("Every open tray and what it needs next")
            .WithTags("Bench")
            .Produces<BenchView>()
            .Produces(304);

    private static async Task<IResult> ShowAsync(
        HttpContext context,
        BlueDawnDb db,
        Me me,
        IMemoryCache memory,
        AnswerMemory answers,
        CancellationToken cancel
    )
    {
        // Every entry and every change of a tray counts its row up: what stands on the rows that are listed, their machines and
        // owners, says whether any of them has changed.
        var stamp = await db
            .Database.SqlQuery<string>(
                $"""
                with listed as (
                    select number, revision, version, machine_id, spec_code, spec_issue from trays where waits_for <> 'HandedBack'
                    union all (select number, revision, version, machine_id, spec_code, spec_issue from trays
                        where waits_for = 'HandedBack' order by number desc limit {HandedBackShown}))
                select md5(concat(
                    (select string_agg(concat_ws('.', l.number, l.revision, l.version, m.xmin, o.xmin, s.xmin), ',' order by l.number)
                        from listed l join machines m on m.id = l.machine_id join owners o on o.id = m.owner_id
                        left join spec_sheets s on s.code = l.spec_code and s.issue = l.spec_issue),
                    (select string_agg(concat_ws('.', family, spec_code, cause, trays), ',' order by family, spec_code, cause)
                        from closed_traces))) as "Value"
                """
            )
            .SingleAsync(cancel);
        return await answers.AnswerAsync(context, $"{stamp}.{me.Stamp}", async () =>
            new BenchView(
                me.Context.Today,
                me.Context.Shop.Open.OnOrAfter(me.Context.Today.AddDays(me.Context.Shop.PromisedDays)),
                await ListAsync(await TrayFile.OpenBenchAsync(db, HandedBackShown, me.Context, cancel), me, memory, cancel)
            )
        );
    }

    /// <summary>
    /// One bench at a time is worked out on all cores. Many at once, each spread over all threads, would wait for one
    /// another's threads: 160 requests took 44 s that way. Whoever waits here holds none.
    /// </summary>
    private static async Task<IReadOnlyList<BenchTray>> ListAsync(
        IReadOnlyList<TrayFile> files,
        Me me,
        IMemoryCache memory,
        CancellationToken cancel
    )
    {
        await OneAtATime.WaitAsync(cancel);
        try
        {
            return
            [
                .. BenchOrder
                    .Of(files, file => file.Book.Facts)
                    .AsParallel()
                    .AsOrdered()
                    .WithCancellation(cancel)
                    .Select(file => Remembered(file, me, memory)),
            ];
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    /// <summary>A tray as it was listed before while nothing it is judged by has changed: an open trace costs a hundred times as much as
    /// anything else.</summary>
    private static BenchTray Remembered(TrayFile file, Me me, IMemoryCache memory)
    {
        var (tray, history) = (file.Tray, file.Book.Context.History);
        var judgedBy = (
            tray.Id,
            tray.Revision,
            tray.Version,
            tray.Spec?.Version,
            tray.Machine.Name,
            tray.Machine.Owner.Name,
            tray.Machine.Owner.Contact,
            me.Stamp,
            history.Stamp
        );
        return memory.GetOrCreate(judgedBy, entry =>
        {
            entry.SlidingExpiration = TimeSpan.FromHours(1);
            return Of(file);
        })!;
    }

    private static BenchTray Of(TrayFile file)
    {
        var (tray, facts, next) = (file.Tray, file.Book.Facts, Policy.Next(file.Book));
        return new BenchTray(
            tray.Number,
            tray.Machine.Name,
            tray.Machine.Owner.Name,
            tray.Machine.Owner.Contact,
            facts.Complaint,
            facts.PromisedDay,
            facts.WaitsFor,
            facts.WaitNote,
            next.Station,
            next.LineLabel,
            next.Do,
            file.Book.Lines.Count(line => line.IsOpen),
            file.Book.Lines.Count(line => line.Counts),
            tray.Revision,
            tray.Version,
            facts.WaitsFor == WaitsFor.Hands || (facts.WaitsFor == WaitsFor.BedIn && BedIn.IsDue(file.Book)),
            !file.Book.IsHandedBack && next.Station == Station.Handover && Policy.Obstacles(file.Book).Count == 0,
            file.Book.IsHandedBack ? null : file.Book.Dangers.Select(one => one.Danger.Label).FirstOrDefault()
        );
    }
}
