using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>
/// A reading taken before anything was done is as found, one after it is as left. The words are those of calibration
/// reports (from memory: ISO/IEC 17025:2017, 7.8.4.1 d, results before and after adjustment).
/// </summary>
public class AsFoundTests
{
    private static readonly ReadingNote Good = new("gauging/main-jet", TypedReading.Of(("go", "0.715"), ("noGo", "0.73")));
    private static readonly ReadingNote Small = new("gauging/main-jet", TypedReading.Of(("go", "0.60"), ("noGo", "0.62")));
    private static readonly PassageNote Cleaned = new("main-jet", true, true);

    [Fact]
    public void A_reading_is_as_found_until_something_is_done()
    {
        Assert.Equal([false, false], AsLeft(TestTray.Untouched().Does(Good).Does(Good)));
        Assert.Equal([false, true], AsLeft(TestTray.Untouched().Does(Good).Adds(Cleaned).Does(Good)));
        Assert.Equal([true], AsLeft(TestTray.Untouched().Does(new FaultNote("idle-jet-blocked", FaultOutcome.Fixed)).Does(Good)));
        Assert.Equal([false], AsLeft(TestTray.Untouched().Adds(new MethodNote("hand", MethodStep.Chosen)).Does(Good)));
    }

    [Fact]
    public void Who_reads_again_what_was_not_good_has_set_something_in_between() =>
        Assert.Equal([false, true], AsLeft(TestTray.Untouched().Does(Small).Does(Good)));

    /// <summary>A speed is of the whole carburetor: with one jet cleared it is as left; the other jet is still as found.</summary>
    [Fact]
    public void Work_on_one_part_stands_behind_what_is_read_of_the_whole()
    {
        var tray = TestTray
            .Untouched()
            .Does(new ReadingNote("gauging/idle-jet", TypedReading.Of(("go", "0.25"), ("noGo", "0.27"))))
            .Does(new ReadingNote("gauging/idle-jet", TypedReading.Of(("go", "0.32"), ("noGo", "0.34"))))
            .Does(Good)
            .Does(new ReadingNote("proving/governed-speed", TypedReading.Of(("speed", "3400"))));
        Assert.Equal([false], AsLeft(tray));
        Assert.True(tray.Book.Lines.Single(line => line.Line.Key == "proving/governed-speed").Readings[0].AsLeft);
    }

    /// <summary>After a bath a clear jet says nothing of what the jet was like when it came in.</summary>
    [Fact]
    public void A_part_that_is_good_only_after_cleaning_does_not_deny_its_cause()
    {
        var tray = TestTray
            .Untouched()
            .Does(new FindingsNote("owner-story", [new("runs-only-choked", Said.Present), new("low-power", Said.Present)], true));
        var before = Restricted(tray);
        Assert.True(Restricted(TestTrayWith(tray, Good)) < before * 0.9);

        tray.Adds(Cleaned).Does(Good);
        Assert.Equal(before, Restricted(tray), 1e-9);
        Assert.Contains(((FaultsState)tray.Book.State(Station.Faults)).Evidence.Items, item =>
            item is { FindingId: "main-jet-small", Present: false, AsLeft: true }
        );
    }

    [Fact]
    public void A_part_found_bad_stays_found_bad_when_it_is_left_good()
    {
        var tray = TestTray.Untouched().Does(new FindingsNote(null, [new("main-jet-small", Said.Present)])).Adds(Cleaned).Does(Good);
        Assert.Contains(((FaultsState)tray.Book.State(Station.Faults)).Evidence.Items, item =>
            item is { FindingId: "main-jet-small", Present: true }
        );
    }

    private static IEnumerable<bool> AsLeft(TestTray tray) =>
        tray.Book.Lines.Single(line => line.Line.Key == "gauging/main-jet").Readings.Select(reading => reading.AsLeft);

    private static TestTray TestTrayWith(TestTray tray, ReadingNote reading) =>
        TestTray.Untouched().Does((FindingsNote)tray.Log.Entries.First(entry => entry.Note is FindingsNote).Note).Does(reading);

    private static double Restricted(TestTray tray) =>
        ((FaultsState)tray.Book.State(Station.Faults))
            .Trace.Causes.FirstOrDefault(cause => cause.Cause.Id == "main-jet-restricted")
            ?.Probability
        ?? 0;
}
