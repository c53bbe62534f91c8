using BlueDawn.Core.Bench;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Worksheets;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.Trays;

namespace BlueDawn.Server.Trays;

/// <summary>A tray as a page needs it: everything on it, judged.</summary>
internal sealed record TrayView(
    Guid Id,
    int Number,
    uint Version,
    TrayFacts Facts,
    Story? Story,
    SpecSheet? Spec,
    Fitting? Fitting,
    IReadOnlyList<ItemPart> OldParts,
    IReadOnlyList<WantedPart> Wanted,
    string Currency,
    IReadOnlyList<StationView> Stations,
    IReadOnlyList<LineView> Lines,
    NextStep Next,
    IReadOnlyList<Obstacle> Obstacles,
    string? WhyNotProven,
    IReadOnlyList<EntryView> Logbook)
{
    public static TrayView Of(TrayFile file, PinSet pins)
    {
        var tray = file.Tray;
        var sheet = file.Judge(pins);
        var work = file.Work;
        IReadOnlyList<LoggedNote> notes = [.. file.Notes.Where(logged => logged.Note is FindingsNote or FaultNote)];
        return new TrayView(
            tray.Id,
            tray.Number,
            tray.Version,
            TrayFacts.Of(tray),
            tray.Story,
            tray.Spec?.Sheet,
            tray.Fitting,
            file.OldParts,
            file.Wanted,
            file.Shop.Currency,
            [.. Enum.GetValues<Station>().Select(station => StationView.Of(station, tray, sheet, notes, work))],
            [.. sheet.Lines.Select(line => LineView.Of(line, file.Entries))],
            sheet.Next,
            sheet.Obstacles,
            work.WhyNotProven,
            [.. file.Entries.Reverse().Select(entry => EntryView.Of(entry, file.Entries, sheet))]);
    }
}

/// <summary>What can be edited on a tray; two people can change it, so it comes with the tray's version.</summary>
internal sealed record TrayFacts(
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
    DateTimeOffset CheckedInAt)
{
    public static TrayFacts Of(Tray tray) => new(
        tray.Machine.Owner.Name, tray.Machine.Owner.Contact, tray.Machine.Name, tray.StampedNumber, tray.Complaint, tray.PromisedDay, tray.WaitsFor, tray.WaitNote, tray.SpecCode, tray.Fitting?.What, tray.OwnerLimit, tray.MachineWorth, tray.Family, tray.Engine, tray.Choke, tray.CheckedInAt);
}

/// <summary>A station on the strip.</summary>
/// <param name="Station">Which one.</param>
/// <param name="Open">What is open there.</param>
/// <param name="Total">What there is in all.</param>
/// <param name="Waiting">True when nothing can be done there yet.</param>
internal sealed record StationView(Station Station, int Open, int Total, bool Waiting)
{
    public static StationView Of(Station station, Tray tray, JudgedWorksheet sheet, IReadOnlyList<LoggedNote> notes, TrayWork work)
    {
        var lines = sheet.Lines.Where(line => line.Line.Station == station).ToList();
        var released = tray.WaitsFor == WaitsFor.HandedBack;
        return station switch
        {
            Station.Intake => new StationView(station, 0, 1, false),
            Station.Faults => new StationView(station, FaultNote.IsSettled(notes) ? 0 : 1, 1, notes.Count == 0),
            Station.Kits => new StationView(station, (tray.SpecCode is null ? 1 : 0) + (tray.Fitting is null ? 1 : 0), 2, false),
            Station.Strip => new StationView(
                station,
                work.Ledger.Job is null ? 1 : work.Ledger.ToStrip.Count,
                work.Ledger.Job is null ? 1 : work.Ledger.Lines.Count(line => line.InJob),
                work.Ledger.Job is null),
            Station.Cleaning => new StationView(station, work.CleaningOpen, work.Cleans ? Math.Max(1, work.CleaningOpen) : 0, !work.Ledger.IsBegun),
            Station.Build => new StationView(station, work.Ledger.Open.Count + work.Problems.Count, work.Ledger.Taken.Count, !work.Ledger.IsBegun),
            Station.Handover => new StationView(station, released ? 0 : 1, 1, !released && sheet.Obstacles.Count > 0),
            _ => new StationView(station, lines.Count(line => line.IsOpen), lines.Count, tray.SpecCode is null),
        };
    }
}

/// <summary>A gauge line with its standing reading.</summary>
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
    Judgement Judgement,
    StandingView? Standing)
{
    public static LineView Of(JudgedLine judged, IReadOnlyList<LogbookEntry> entries)
    {
        var line = judged.Line;
        var superseded = entries.Where(entry => entry.SupersedesId is not null).Select(entry => entry.SupersedesId).ToHashSet();
        var standing = entries.LastOrDefault(entry => entry.Kind == EntryKind.Reading && entry.LineKey == line.Key && !superseded.Contains(entry.Id));
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
            line.Required,
            judged.Judgement,
            standing is null ? null : new StandingView(standing.Id, standing.Typed!, standing.Reading!, line.Describe(standing.Reading!), standing.PersonName, standing.TakenAt));
    }
}

/// <summary>The reading that stands on a line.</summary>
internal sealed record StandingView(Guid EntryId, TypedReading Typed, Reading Reading, Sentence What, string By, DateTimeOffset TakenAt);

/// <summary>A line of the logbook.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What kind of thing happened.</param>
/// <param name="LineKey">The gauge line, or null.</param>
/// <param name="What">What happened, in words.</param>
/// <param name="Finding">What was found then, or null.</param>
/// <param name="Supersedes">The entry it corrects or withdraws.</param>
/// <param name="Superseded">True when a later entry corrected or withdrew it.</param>
/// <param name="By">Who.</param>
/// <param name="TakenAt">When it was taken.</param>
/// <param name="RecordedAt">When the server had it.</param>
internal sealed record EntryView(
    Guid Id, EntryKind Kind, string? LineKey, Sentence What, string? Finding, Guid? Supersedes, bool Superseded, string By, DateTimeOffset TakenAt, DateTimeOffset RecordedAt)
{
    public static EntryView Of(LogbookEntry entry, IReadOnlyList<LogbookEntry> all, JudgedWorksheet sheet)
    {
        var line = sheet.Lines.FirstOrDefault(l => l.Line.Key == entry.LineKey)?.Line;
        var what = entry is { Kind: EntryKind.Reading, Reading: { } reading } && line is not null
            ? line.Describe(reading) is var read ? read with { Text = $"{line.Label}: {read.Text}" } : Sentence.None
            : Sentence.Of(entry.Words.Replace("{", "(", StringComparison.Ordinal).Replace("}", ")", StringComparison.Ordinal));
        return new EntryView(
            entry.Id, entry.Kind, entry.LineKey, what, entry.Finding, entry.SupersedesId, all.Any(other => other.SupersedesId == entry.Id), entry.PersonName, entry.TakenAt, entry.RecordedAt);
    }
}
