using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Worksheets;
using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Tests.Handover;

public class HandoverReportTests
{
    private static readonly DateTimeOffset Start = new(2026, 11, 24, 8, 0, 0, TimeSpan.Zero);
    private static readonly ReportTray Tray = new(27, "Brine & Sons", "", "Wash-down pump", "4107", "FB18", "Ostrel", "Hunts", Start, new DateOnly(2026, 11, 26));

    private static ReportEntry Entry(Guid id, string line, Reading? reading, int minute, Guid? supersedes = null) =>
        new(id, line, reading, supersedes, Start.AddMinutes(minute), "Jory Tamblyn");

    private static HandoverReport Report(params ReportEntry[] entries) => HandoverReport.Of(
        Tray,
        null,
        JudgedWorksheet.Of(Sheets.Spec, Sheets.Shop, PinSet.Empty, true, false, entries.Select(e => new LoggedReading(e.EntryId, e.LineKey, e.SupersedesId, e.TakenAt, e.Reading)), Sheets.Untouched),
        entries);

    private static BoreReading Pins(decimal go, decimal noGo) => new(go, noGo, null, null, null);

    [Fact]
    public void Every_line_of_the_sheet_is_on_it_read_or_not()
    {
        var report = Report();
        Assert.Equal(Sheets.Lines.Count, report.Lines.Count);
        Assert.All(report.Lines, line => Assert.Null(line.Standing));
        Assert.Contains(report.Watch, point => point.StartsWith("Main jet: was not read", StringComparison.Ordinal));
    }

    [Fact]
    public void A_corrected_reading_stays_visible_and_the_correction_stands()
    {
        var (wrong, right) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var line = Report(
            Entry(wrong, "gauging/main-jet", Pins(0.17m, 0.73m), 1),
            Entry(right, "gauging/main-jet", Pins(0.715m, 0.73m), 2, wrong)).Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Equal("In gauge", line.Standing!.Word);
        Assert.True(Assert.Single(line.Before).Corrected);
    }

    [Fact]
    public void What_was_restricted_and_cleared_is_told_in_order_and_watched()
    {
        var report = Report(
            Entry(Guid.CreateVersion7(), "gauging/main-jet", Pins(0.65m, 0.67m), 1),
            Entry(Guid.CreateVersion7(), "gauging/main-jet", Pins(0.715m, 0.73m), 2));
        var line = report.Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Equal(("Restricted", "In gauge"), (line.Before[0].Word, line.Standing!.Word));
        Assert.False(line.Before[0].Corrected);
        Assert.Contains(report.Watch, point => point.StartsWith("Main jet was restricted and has been cleared", StringComparison.Ordinal));
    }

    [Fact]
    public void A_withdrawn_reading_leaves_its_line_unread_but_visible()
    {
        var stray = Guid.CreateVersion7();
        var line = Report(
            Entry(stray, "gauging/main-jet", Pins(0.95m, 1m), 1),
            Entry(Guid.CreateVersion7(), "gauging/main-jet", null, 2, stray)).Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Null(line.Standing);
        Assert.Equal(Verdict.NotRead, line.Verdict);
        Assert.True(Assert.Single(line.Before).Corrected);
    }
}
