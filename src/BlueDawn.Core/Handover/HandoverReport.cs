using BlueDawn.Core.Measures;
using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Handover;

/// <summary>What a report says of the tray itself.</summary>
/// <param name="TrayNumber">Number on the tag.</param>
/// <param name="OwnerName">Owner.</param>
/// <param name="OwnerContact">How to reach them; may be empty.</param>
/// <param name="MachineName">Machine.</param>
/// <param name="StampedNumber">Stamped on the carburetor; may be empty.</param>
/// <param name="SpecCode">Spec sheet, or null.</param>
/// <param name="SpecMaker">Maker of the carburetor, or null.</param>
/// <param name="Complaint">What the owner said.</param>
/// <param name="CheckedInAt">When it came in.</param>
/// <param name="PromisedDay">The day it was promised for.</param>
public sealed record ReportTray(
    int TrayNumber,
    string OwnerName,
    string OwnerContact,
    string MachineName,
    string StampedNumber,
    string? SpecCode,
    string? SpecMaker,
    string Complaint,
    DateTimeOffset CheckedInAt,
    DateOnly PromisedDay);

/// <summary>The kit that was used.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Name">Its name.</param>
/// <param name="Price">Price in the shop's currency.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Parts">What was in it.</param>
public sealed record ReportKit(string Number, string Name, decimal Price, string Currency, IReadOnlyList<string> Parts);

/// <summary>One reading as it stands in the logbook.</summary>
/// <param name="EntryId">Its logbook entry.</param>
/// <param name="LineKey">Its line.</param>
/// <param name="Reading">The reading; null for a withdrawal.</param>
/// <param name="SupersedesId">The entry it corrects or withdraws.</param>
/// <param name="TakenAt">When.</param>
/// <param name="TakenBy">Who.</param>
public sealed record ReportEntry(Guid EntryId, string LineKey, Reading? Reading, Guid? SupersedesId, DateTimeOffset TakenAt, string TakenBy);

/// <summary>A reading on the report.</summary>
/// <param name="What">What was read, in words.</param>
/// <param name="Word">What was found.</param>
/// <param name="Verdict">Good, not good or cannot tell.</param>
/// <param name="TakenAt">When.</param>
/// <param name="TakenBy">Who.</param>
/// <param name="Corrected">True when a later entry corrected or withdrew it.</param>
public sealed record ReportReading(Sentence What, string Word, Verdict Verdict, DateTimeOffset TakenAt, string TakenBy, bool Corrected);

/// <summary>A line on the report.</summary>
/// <param name="Key">The line.</param>
/// <param name="Station">Where it was measured.</param>
/// <param name="Section">Its heading.</param>
/// <param name="Label">What was measured.</param>
/// <param name="Target">What it should be.</param>
/// <param name="LimitSource">Where the limits are from.</param>
/// <param name="Verdict">What stands.</param>
/// <param name="Word">The same in a word or two.</param>
/// <param name="Finding">The same as a stable name.</param>
/// <param name="Figures">The numbers behind it.</param>
/// <param name="Standing">The reading that stands, or null.</param>
/// <param name="Before">Everything else that was read on it, oldest first.</param>
public sealed record ReportLine(
    string Key,
    Station Station,
    string Section,
    string Label,
    Sentence Target,
    string LimitSource,
    Verdict Verdict,
    string Word,
    string Finding,
    IReadOnlyList<Figure> Figures,
    ReportReading? Standing,
    IReadOnlyList<ReportReading> Before);

/// <summary>What was wrong, on the report.</summary>
/// <param name="Label">What was wrong.</param>
/// <param name="Fix">What was done about it.</param>
/// <param name="Referred">True when it was passed on and not put right here.</param>
public sealed record ReportFault(string Label, string Fix, bool Referred);

/// <summary>What became of a part that was out.</summary>
/// <param name="Label">The part.</param>
/// <param name="Fate">How its line ended.</param>
/// <param name="Item">Number of the kit or item a new one came from, or null.</param>
/// <param name="TurnsEighths">Eighths of a turn a screw was left at, or null.</param>
/// <param name="Reason">Why it was left off, or anything else; may be null.</param>
/// <param name="By">Who said so, and signed for it.</param>
public sealed record ReportPart(string Label, Strip.Fate Fate, string? Item, int? TurnsEighths, string? Reason, string By);

/// <summary>A signature for what is handed back with something open.</summary>
/// <param name="Reason">Why it may go as it is.</param>
/// <param name="SignedBy">Who signed.</param>
/// <param name="Open">What was open.</param>
public sealed record SignedReason(string Reason, string SignedBy, IReadOnlyList<string> Open);

/// <summary>Everything that is handed over with a carburetor.</summary>
/// <param name="Tray">The tray.</param>
/// <param name="Kit">The kit used, or null.</param>
/// <param name="Lines">Everything measured.</param>
/// <param name="Watch">What to watch.</param>
/// <param name="ReleasedAt">When it was handed back, or null while it has not been.</param>
/// <param name="ReleasedBy">Who handed it back, or null.</param>
/// <param name="Signed">The signed reason, or null when nothing was open.</param>
/// <param name="Faults">What was wrong; null on reports from before faults were traced.</param>
/// <param name="NothingFound">True when the trace was closed without a cause.</param>
/// <param name="Declined">True when it was not worth the repair: nothing was fitted, nothing is charged.</param>
/// <param name="Parts">Parts that were renewed, made, left off or thrown out, and screws with what they were left at; null on reports from before there was a ledger.</param>
public sealed record HandoverReport(
    ReportTray Tray,
    ReportKit? Kit,
    IReadOnlyList<ReportLine> Lines,
    IReadOnlyList<string> Watch,
    DateTimeOffset? ReleasedAt,
    string? ReleasedBy,
    SignedReason? Signed,
    IReadOnlyList<ReportFault>? Faults = null,
    bool NothingFound = false,
    bool Declined = false,
    IReadOnlyList<ReportPart>? Parts = null)
{
    /// <summary>The parts of a ledger that are worth telling: what simply went back is not.</summary>
    public static IReadOnlyList<ReportPart> PartsOf(Strip.Ledger ledger) =>
        [.. ledger.Lines.Where(line => line.Fitted is { } fitted && (fitted.Fate != Strip.Fate.Refitted || fitted.TurnsEighths is not null))
            .Select(line => new ReportPart(line.Part.Label, line.Fitted!.Fate, line.Fitted.Item, line.Fitted.TurnsEighths, line.Fitted.Reason, line.By ?? ""))];

    /// <summary>Draws the report up from a judged worksheet and its logbook entries.</summary>
    public static HandoverReport Of(ReportTray tray, ReportKit? kit, JudgedWorksheet sheet, IReadOnlyList<ReportEntry> entries) =>
        new(
            tray,
            kit,
            [.. sheet.Lines.Select(line => LineOf(line, entries))],
            WatchList.Of(sheet.History),
            null,
            null,
            null);

    private static ReportLine LineOf(JudgedLine judged, IReadOnlyList<ReportEntry> entries)
    {
        var line = judged.Line;
        var superseded = entries.Where(entry => entry.SupersedesId is not null).Select(entry => entry.SupersedesId!.Value).ToHashSet();
        var all = entries
            .Where(entry => entry.LineKey == line.Key && entry.Reading is not null)
            .OrderBy(entry => entry.TakenAt).ThenBy(entry => entry.EntryId)
            .Select(entry =>
            {
                var judgement = line.Judge(entry.Reading, Gauging.PinSet.Empty);
                return new ReportReading(
                    line.Describe(entry.Reading!), judgement.Word, judgement.Verdict, entry.TakenAt, entry.TakenBy, superseded.Contains(entry.EntryId));
            })
            .ToList();
        var standing = all.LastOrDefault(reading => !reading.Corrected);
        return new ReportLine(
            line.Key,
            line.Station,
            line.Section,
            line.Label,
            line.Target,
            line.LimitSource,
            judged.Judgement.Verdict,
            judged.Judgement.Word,
            judged.Judgement.Finding,
            judged.Judgement.Figures,
            standing,
            [.. all.Where(reading => reading != standing)]);
    }
}
