using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Pages;

/// <summary>A tray as a page needs it: everything on it, judged.</summary>
internal sealed record TrayView(
    Guid Id,
    int Number,
    int Version,
    int Revision,
    TrayFactsView Facts,
    Story? Story,
    SpecSheet? Spec,
    Fitting? Fitting,
    PartsStage PartsStage,
    IReadOnlyList<ItemPart> OldParts,
    MarksNote Marks,
    IReadOnlyList<WantedPart> Wanted,
    string Currency,
    IReadOnlyList<StationView> Stations,
    IReadOnlyList<LineView> Lines,
    FloatStanding? Float,
    NextStep Next,
    IReadOnlyList<Obstacle> Obstacles,
    string? WhyNotProven,
    string? WhyNotTimed,
    IReadOnlyList<string> TriedWithout,
    string? WhyNotRun,
    SafetyCondition? RunAfter,
    IReadOnlyList<StandingDanger> Dangers,
    IReadOnlyList<string> NotDone,
    IReadOnlyList<EntryView> Logbook,
    bool OldRules
)
{
    public static TrayView Of(TrayHead tray, TrayBook book)
    {
        var kits = book.State<KitsState>();
        return new TrayView(
            tray.Id,
            tray.Number,
            tray.Version,
            tray.Revision,
            TrayFactsView.Of(tray, book),
            tray.Story,
            book.Sheet,
            book.Fitting,
            kits.Stage,
            kits.OldParts,
            kits.Marks,
            kits.Wanted,
            book.Shop.Currency,
            StationView.All(book),
            [.. book.Lines.Select(line => LineView.Of(line, book))],
            FloatStanding.Of(book.Sheet, book.Lines),
            Policy.Next(book),
            Policy.Obstacles(book),
            Policy.WhyNotProven(book),
            Policy.WhyNotTimed(book),
            book.TriedWithout(Station.Proving),
            Policy.WhyNotRun(book),
            Policy.RunAfter(book),
            book.Dangers,
            Policy.NotDone(book),
            [.. book.Log.Entries.Reverse().Select(entry => EntryView.Of(entry, book))],
            tray.OldRules
        );
    }
}

/// <summary>What an entry changes of a tray that is on a page already: the page puts it in place of what it had.</summary>
internal sealed record TrayPatch(
    int Number,
    int Version,
    int Revision,
    int RevisionBefore,
    bool FactsChanged,
    bool WholeSheet,
    IReadOnlyList<StationView> Stations,
    IReadOnlyList<LineView> Lines,
    FloatStanding? Float,
    NextStep Next,
    IReadOnlyList<Obstacle> Obstacles,
    string? WhyNotProven,
    string? WhyNotTimed,
    IReadOnlyList<string> TriedWithout,
    string? WhyNotRun,
    SafetyCondition? RunAfter,
    IReadOnlyList<StandingDanger> Dangers,
    IReadOnlyList<string> NotDone,
    MarksNote Marks,
    IReadOnlyList<ItemPart>? OldParts,
    IReadOnlyList<WantedPart>? Wanted,
    IReadOnlyList<EntryView> Entries
)
{
    public static TrayPatch Of(TrayHead tray, TrayBook book, int revisionBefore, int versionBefore, IReadOnlyList<Entry> added)
    {
        var kits = book.State<KitsState>();
        // Lines that something was read on, and those of entries that are superseded by it.
        var lines = added
            .Select(entry =>
                entry.Note is ReadingNote reading
                    ? reading.Line
                    : (entry.Supersedes is { } id ? book.Log.Find(id)?.Note as ReadingNote : null)?.Line
            )
            .OfType<string>()
            .ToHashSet();
        // What Trace was told says something on the looks of other stations.
        var told = added
            .Select(entry => entry.Note)
            .OfType<FindingsNote>()
            .SelectMany(note => note.Answers)
            .Select(answer => answer.FindingId)
            .ToHashSet();
        // What was opened decides what is asked, and one line may stand for another: then every line goes.
        var whole = added.Any(entry => entry.Note is LedgerNote) || book.Lines.Any(line => line.Line.StoodForBy.Any(lines.Contains));
        bool IsTold(JudgedLine line, IReadOnlySet<string> findings) =>
            findings.Count > 0
            && line.Line is LookLine
            && book.Knowledge.Of<FaultKnowledge>()
                .StationFindings.Any(row => row.Matches(line.Line.Key) && findings.Contains(row.FindingId));
        var touched = added
            .Concat(added.Select(entry => entry.Supersedes is { } id ? book.Log.Find(id) : null).OfType<Entry>())
            .DistinctBy(entry => entry.Id);
        // An old part that was measured changes what is wanted; nothing else that is patched does.
        var measured = added.Any(entry => StationList.KindOf(entry.Note).ChangesWanted);
        return new TrayPatch(
            tray.Number,
            tray.Version,
            revisionBefore + added.Count,
            revisionBefore,
            tray.Version != versionBefore,
            whole,
            StationView.All(book),
            [
                .. book
                    .Lines.Where(line => whole || lines.Contains(line.Line.Key) || IsTold(line, told))
                    .Select(line => LineView.Of(line, book)),
            ],
            FloatStanding.Of(book.Sheet, book.Lines),
            Policy.Next(book),
            Policy.Obstacles(book),
            Policy.WhyNotProven(book),
            Policy.WhyNotTimed(book),
            book.TriedWithout(Station.Proving),
            Policy.WhyNotRun(book),
            Policy.RunAfter(book),
            book.Dangers,
            Policy.NotDone(book),
            kits.Marks,
            measured ? kits.OldParts : null,
            measured ? kits.Wanted : null,
            [.. touched.Select(entry => EntryView.Of(entry, book))]
        );
    }
}

/// <summary>What can be edited on a tray; two people can change it, so it comes with the tray's version.</summary>
internal sealed record TrayFactsView(
    string OwnerName,
    string OwnerContact,
    string MachineName,
    string StampedNumber,
    string Complaint,
    DateOnly PromisedDay,
    WaitsFor WaitsFor,
    string WaitNote,
    string? SpecCode,
    string? Fitted,
    decimal? OwnerLimit,
    decimal? MachineWorth,
    CarburetorFamily Family,
    EngineKind? Engine,
    ChokeKind? Choke,
    DateTimeOffset CheckedInAt
)
{
    public static TrayFactsView Of(TrayHead tray, TrayBook book)
    {
        var facts = book.Facts;
        return new TrayFactsView(
            tray.OwnerName,
            tray.OwnerContact,
            tray.MachineName,
            facts.StampedNumber,
            facts.Complaint,
            facts.PromisedDay,
            facts.WaitsFor,
            facts.WaitNote,
            facts.Sheet?.Code,
            facts.Fitting?.What,
            facts.OwnerLimit,
            facts.MachineWorth,
            facts.Kind.Family,
            facts.Kind.Engine,
            facts.Kind.Choke,
            tray.CheckedInAt
        );
    }
}

/// <summary>A station on the strip.</summary>
internal sealed record StationView(Station Station, int Open, int Total, bool Waiting, string Words, double? MinutesLeft)
{
    public static IReadOnlyList<StationView> All(TrayBook tray) =>
        [
            .. tray.Modules.Select(module =>
            {
                var progress = tray.State(module.Station).Progress;
                return new StationView(
                    module.Station,
                    progress.Open,
                    progress.Total,
                    progress.Waiting,
                    progress.Words,
                    progress.MinutesLeft
                );
            }),
        ];
}

/// <summary>A gauge line with its standing reading, and which of its readings say how the thing was left and not how it was
/// found.</summary>
internal sealed record LineView(
    string Key,
    Station Station,
    string Section,
    string Label,
    Sentence Target,
    Span? Window,
    EntryForm Form,
    string LimitSource,
    Caution? Caution,
    bool Required,
    bool StandsAside,
    bool LeftShut,
    bool IsOpen,
    Judgement Judgement,
    StandingView? Standing,
    IReadOnlyList<Guid> AsLeft,
    SeenAtTrace? SeenAtTrace,
    Sentence? Advice
)
{
    public static LineView Of(JudgedLine judged, TrayBook tray)
    {
        var line = judged.Line;
        var seen = Pages.SeenAtTrace.Of(judged, tray);
        return new LineView(
            line.Key,
            line.Station,
            line.Section,
            line.Label,
            line.Target,
            line.Window,
            line.Form,
            line.LimitSource,
            line.Caution,
            judged.Required,
            // What Trace was told of is asked for, however seldom it is.
            judged.StandsAside
                && judged.Standing is null
                && seen is null,
            judged.LeftShut,
            judged.IsOpen,
            judged.Judgement,
            judged.Standing is { Note.Reading: { } reading } standing
                ? new StandingView(standing.EntryId, standing.Note.Typed, reading, line.Describe(reading), standing.By, standing.TakenAt)
                : null,
            [.. judged.Readings.Where(reading => reading.AsLeft).Select(reading => reading.EntryId)],
            seen,
            // A good answer that says more than to go on.
            line is LookLine { Look: var look }
            && judged is { Judgement: { Verdict: Verdict.Good } good, Standing: not null }
            && look.Answers.First(answer => answer.Finding.Id == good.Finding).SaysMore
                ? good.DoNext
                : null
        );
    }
}

/// <summary>What Trace was told of what a look is about, while nobody has taken the look.</summary>
/// <param name="Words">What was seen.</param>
/// <param name="Answer">The answer it amounts to; null when it may be one of several.</param>
internal sealed record SeenAtTrace(string Words, string? Answer)
{
    public static SeenAtTrace? Of(JudgedLine judged, TrayBook tray)
    {
        // What takes a run is not taken from hearsay.
        if (judged is not { Line: LookLine { Look: var look, Running: false } line, Standing: null } || tray.IsHandedBack)
        {
            return null;
        }

        var knowledge = tray.Knowledge.Of<FaultKnowledge>();
        var seen = tray.State<FaultsState>()
            .Evidence.Items.Where(item => item is { Present: true, BeforeFix: false, From: EvidenceFrom.Technician or EvidenceFrom.Strip })
            .Select(item => item.FindingId)
            .ToHashSet();
        var rows = knowledge.StationFindings.Where(row => row.Present && row.Matches(line.Key) && seen.Contains(row.FindingId)).ToList();
        var answers = rows.Select(row => look.Answers.FirstOrDefault(answer => answer.Finding.Id == row.Judged)?.Value).Distinct().ToList();
        return rows.Count == 0
            ? null
            : new SeenAtTrace(
                string.Join("; ", rows.Select(row => knowledge.FindFinding(row.FindingId)!.Label).Distinct()),
                answers is [var only] ? only : null
            );
    }
}

/// <summary>The reading that stands on a line.</summary>
internal sealed record StandingView(Guid EntryId, TypedReading Typed, Reading Reading, Sentence What, string By, DateTimeOffset TakenAt);

/// <summary>A line of the logbook.</summary>
internal sealed record EntryView(
    Guid Id,
    string Kind,
    string? LineKey,
    Sentence What,
    Guid? Supersedes,
    bool Superseded,
    string By,
    DateTimeOffset TakenAt,
    RemarkView? Remark
)
{
    public static EntryView Of(Entry entry, TrayBook tray) =>
        new(
            entry.Id,
            StationList.KindOf(entry.Note).Word,
            (entry.Note as ReadingNote)?.Line,
            StationList.Say(entry, tray),
            entry.Supersedes,
            tray.Log.IsSuperseded(entry.Id),
            entry.By,
            entry.TakenAt,
            entry.Note is RemarkNote remark
                ? new RemarkView(remark.Fate, remark.About(tray), remark.At, remark.Line, remark.Part, remark.Ends)
                : null
        );
}

/// <summary>A remark as a page shows it.</summary>
internal sealed record RemarkView(RemarkFate Fate, string Words, Station? At, string? Line, string? Part, Guid? Ends);
