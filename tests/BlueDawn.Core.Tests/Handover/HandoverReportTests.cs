using BlueDawn.Core.Handover;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Handover;

public class HandoverReportTests
{
    private static readonly ReportTray Tray =
        new(27, "Brine & Sons", "", "Wash-down pump", "4107", "FB18", "Ostrel", "Hunts", new(2026, 11, 24, 8, 0, 0, TimeSpan.Zero), new DateOnly(2026, 11, 26));

    private static HandoverReport Report(TestTray tray) =>
        HandoverReport.Of(Tray, [.. tray.Book.Modules.SelectMany(module => tray.Book.State(module.Station).Report)], tray.Book.Lines);

    private static ReadingNote Pins(string go, string noGo) => new("gauging/main-jet", TypedReading.Of(("go", go), ("noGo", noGo)));

    [Fact]
    public void Every_line_of_the_sheet_is_on_it_read_or_not()
    {
        var report = Report(TestTray.Untouched());
        Assert.Equal(Sheets.Lines.Count, report.Lines.Count);
        Assert.All(report.Lines, line => Assert.Null(line.Standing));
        Assert.Contains(report.Watch, point => point.StartsWith("Main jet: was not read", StringComparison.Ordinal));
    }

    [Fact]
    public void A_corrected_reading_stays_visible_and_the_correction_stands()
    {
        var tray = TestTray.Untouched().Does(Pins("0.17", "0.73"), out var wrong).Does(Pins("0.715", "0.73"), wrong);
        var line = Report(tray).Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Equal("In gauge", line.Standing!.Word);
        Assert.True(Assert.Single(line.Before).Corrected);
    }

    [Fact]
    public void What_was_restricted_and_cleared_is_told_in_order_and_watched()
    {
        var report = Report(TestTray.Untouched().Does(Pins("0.65", "0.67")).Does(Pins("0.715", "0.73")));
        var line = report.Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Equal(("Restricted", "In gauge"), (line.Before[0].Word, line.Standing!.Word));
        Assert.False(line.Before[0].Corrected);
        Assert.Contains(report.Watch, point => point.StartsWith("Main jet was restricted and has been cleared", StringComparison.Ordinal));
    }

    [Fact]
    public void A_withdrawn_reading_leaves_its_line_unread_but_visible()
    {
        var tray = TestTray.Untouched().Does(Pins("0.95", "1"), out var stray).Does(new WithdrawalNote(), stray);
        var line = Report(tray).Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Null(line.Standing);
        Assert.Equal(Verdict.NotRead, line.Verdict);
        Assert.True(Assert.Single(line.Before).Corrected);
    }
}
