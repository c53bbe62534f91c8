using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>What a report says of the tray itself.</summary>
/// <param name="TrayNumber">The tray's number.</param>
/// <param name="OwnerName">Whose it is.</param>
/// <param name="OwnerContact">How to reach them; may be empty.</param>
/// <param name="MachineName">What it is off.</param>
/// <param name="StampedNumber">Number stamped on it; may be empty.</param>
/// <param name="SpecCode">The spec sheet it was judged by, or null.</param>
/// <param name="SpecMaker">Who made the carburetor, by the sheet.</param>
/// <param name="Complaint">What the owner said.</param>
/// <param name="CheckedInAt">When it came in.</param>
/// <param name="PromisedDay">The day it was promised for.</param>
/// <param name="DateCode">Date code on the carburetor as it was read; may be empty.</param>
/// <param name="Plate">Engine plate as it was read; may be empty.</param>
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
    DateOnly PromisedDay,
    string DateCode = "",
    string Plate = ""
);

/// <summary>The lead's signature for what is handed back with something open.</summary>
/// <param name="Reason">Why it may go.</param>
/// <param name="SignedBy">Who signed, by name and password.</param>
/// <param name="Open">What was open.</param>
/// <param name="Dangers">What was unsafe, each with its own reason; null in entries from before they were signed singly.</param>
public sealed record SignedReason(string Reason, string SignedBy, IReadOnlyList<string> Open, IReadOnlyList<SignedDanger>? Dangers = null);

/// <summary>A danger that a machine goes with, signed for by itself.</summary>
/// <param name="Danger">Which, of data/safety/dangers.csv.</param>
/// <param name="Reason">Why it may go with it.</param>
/// <param name="What">What it is and what showed it, in words; worked out when it is recorded.</param>
public sealed record SignedDanger(string Danger, string Reason, string? What = null);

/// <summary>Something unsafe, as the report says it.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Shown">What showed it.</param>
/// <param name="Why">Why it is unsafe.</param>
/// <param name="Settle">What to do.</param>
/// <param name="MustNotBeRun">True when it is not to be filled or run.</param>
public sealed record ReportDanger(string Label, IReadOnlyList<string> Shown, string Why, string Settle, bool MustNotBeRun);

/// <summary>Everything that is handed over with a carburetor.</summary>
/// <param name="Tray">The tray.</param>
/// <param name="Kit">The kit, or null when none was used.</param>
/// <param name="Lines">Every gauge line, in bench order.</param>
/// <param name="Watch">What to watch.</param>
/// <param name="ReleasedAt">When it was handed back, or null while it is not.</param>
/// <param name="ReleasedBy">By whom.</param>
/// <param name="Signed">The signature for what was open, or null.</param>
/// <param name="Faults">What was wrong.</param>
/// <param name="NothingFound">True when the trace was closed without a cause.</param>
/// <param name="Declined">True when it was decided not to repair it.</param>
/// <param name="Parts">What became of the parts that were out.</param>
/// <param name="NotDone">What the owner's trouble asked for and nobody did.</param>
/// <param name="Dangers">What is unsafe, of a machine that is not repaired as well.</param>
/// <param name="Points">What the stations have to say in words, chapter by chapter; null in reports from before there were any.</param>
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
    IReadOnlyList<ReportPart>? Parts = null,
    IReadOnlyList<string>? NotDone = null,
    IReadOnlyList<ReportDanger>? Dangers = null,
    IReadOnlyList<ReportPoint>? Points = null
)
{
    /// <summary>Draws the report up from what the stations have to say.</summary>
    /// <param name="tray">The tray.</param>
    /// <param name="sections">Their sections, in bench order.</param>
    /// <param name="lines">Every judged line, for what to watch.</param>
    /// <param name="notDone">What was not done.</param>
    /// <param name="dangers">What is unsafe.</param>
    /// <param name="family">The carburetor: it says how it is stored.</param>
    public static HandoverReport Of(
        ReportTray tray,
        IReadOnlyList<ReportSection> sections,
        IReadOnlyList<JudgedLine> lines,
        IReadOnlyList<string> notDone,
        IReadOnlyList<StandingDanger> dangers,
        CarburetorFamily family
    )
    {
        var faults = sections.OfType<FaultsSection>().LastOrDefault();
        var kit = sections.OfType<KitSection>().LastOrDefault();
        var parts = sections.OfType<PartsSection>().ToList();
        var fates = parts.SelectMany(section => section.Fates).ToDictionary();
        var declined = kit?.Declined ?? false;
        IReadOnlyList<string> Watch(bool withNotRead) =>
            WatchList.Of(lines, fates, declined, family, faults?.AsItCame ?? new HashSet<string>(), withNotRead);
        var notRead = declined ? [] : WatchList.NotRead(lines);
        return new HandoverReport(
            tray,
            kit?.Kit,
            [.. sections.OfType<LinesSection>().SelectMany(section => section.Lines)],
            Watch(withNotRead: true),
            null,
            null,
            null,
            faults?.Faults ?? [],
            faults?.NothingFound ?? false,
            declined,
            [.. parts.SelectMany(section => section.Parts)],
            notDone,
            [
                .. dangers.Select(one => new ReportDanger(
                    one.Danger.Label,
                    one.Shown,
                    one.Danger.Why,
                    one.Danger.Settle,
                    one.Danger.IsFloor
                )),
            ],
            [
                .. sections
                    .OfType<PointsSection>()
                    .SelectMany(section => section.Points)
                    .Concat(notDone.Select(left => ReportPoint.Of(ReportChapter.Left, left)))
                    .Concat(notRead.Count == 0 ? [] : [ReportPoint.Of(ReportChapter.Left, NotMeasured(notRead))])
                    .Concat(Watch(withNotRead: false).Select(point => ReportPoint.Of(ReportChapter.Watch, point)))
                    .Distinct()
                    .OrderBy(point => point.Chapter),
            ]
        );
    }

    private const int NamedAtMost = 3;

    /// <summary>What was not measured: a few by name, many by number; the readings list them all.</summary>
    private static string NotMeasured(IReadOnlyList<string> labels) =>
        labels.Count <= NamedAtMost
            ? $"Not measured: {string.Join(", ", labels)}."
            : $"{labels.Count} things were not measured; the next technician’s page lists them.";
}
