using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>A fault that was seen comes to its end: mended and tried, sent on, or left with a reason and the owner's word.</summary>
public class OpenFaultTests
{
    private static FindingsNote Sees(params string[] findings) =>
        new(null, [.. findings.Select(id => new FindingAnswer(id, Said.Present))]);

    private static FindingsNote Tries(string finding, Said said) => new(null, [new FindingAnswer(finding, said)]);

    private static FaultNote Fixed(string cause) => new(cause, FaultOutcome.Fixed);

    private static TestTray Complains(params string[] complaints)
    {
        var tray = TestTray.Untouched();
        tray.Facts = tray.Facts with
        {
            Complaints = [.. complaints.Select(id => new Complaint(id, FaultKnowledge.Shipped.FindFinding(id)!.Label))],
        };
        return tray;
    }

    private static ReadingNote Tried(string complaint, string state) =>
        new($"proving/complaint-{complaint}", TypedReading.Of(("state", state)));

    private static IEnumerable<string> Open(TestTray tray) =>
        tray.Book.State<FaultsState>().Open.Select(fault => $"{fault.Id}: {fault.Word}");

    [Fact]
    public void One_fault_mended_does_not_close_the_trace_on_another_that_was_seen()
    {
        var tray = TestTray.Untouched().Does(Sees("choke-held", "vent-dark"));
        Assert.Equal(["choke-held-shut: not mended", "tank-vent-blocked: not mended"], Open(tray).Order());
        tray.Does(Fixed("tank-vent-blocked"));
        Assert.Equal(["choke-held-shut: not mended"], Open(tray));
        Assert.Equal("1 open", tray.Book.State<FaultsState>().Progress.Words);
        tray.Does(Fixed("choke-held-shut"));
        Assert.Empty(Open(tray));
        Assert.Equal("2 things found", tray.Book.State<FaultsState>().Progress.Words);
    }

    /// <summary>Nothing decides it by itself, but no liquid at the line and a filter that lets none through leave no doubt.</summary>
    [Fact]
    public void Another_cause_that_is_as_good_as_certain_stays_open_though_nobody_said_so()
    {
        var tray = TestTray.Untouched().Does(Sees("line-flow-poor", "filter-dark", "no-spark", "new-plug-cures"));
        tray.Does(Fixed("fuel-filter-clogged"));
        Assert.Contains("spark-plug-poor: not mended", Open(tray));
        tray.Does(Fixed("spark-plug-poor"));
        Assert.DoesNotContain("spark-plug-poor: not mended", Open(tray));
    }

    [Fact]
    public void What_is_still_there_at_prove_makes_trace_the_next_step_whatever_else_is_open()
    {
        var tray = Complains("hunts").Does(Sees("vent-dark")).Does(Fixed("tank-vent-blocked"));
        Assert.NotEqual(Station.Faults, tray.Next.Station);
        tray.Does(Tried("hunts", "stillThere"));
        Assert.Equal(Station.Faults, tray.Next.Station);
        Assert.Equal("still there", tray.Book.State<FaultsState>().Progress.Words);
        Assert.True(Core.Trays.Policy.AsksHistory(tray.Book));
        tray.Does(Tried("hunts", "gone"));
        Assert.NotEqual(Station.Faults, tray.Next.Station);
    }

    [Fact]
    public void A_complaint_in_the_owners_own_words_that_is_still_there_leads_back_as_well()
    {
        var tray = TestTray.Untouched();
        tray.Facts = tray.Facts with { Complaints = [new Complaint(Complaint.Said, "It sings")] };
        tray.Does(new FaultNote(null, FaultOutcome.NothingFound)).Does(Tried(Complaint.Said, "stillThere"));
        Assert.Equal(Station.Faults, tray.Next.Station);
    }

    [Fact]
    public void A_fault_seen_after_the_first_was_settled_stands_in_the_way_of_hand_back()
    {
        var tray = TestTray.Untouched().Reads(Sheets.AllGood()).Does(Fixed("tank-vent-blocked"));
        Assert.Empty(tray.Book.OpenElsewhere);
        Assert.Null(tray.Refuses(new ReleaseNote()));
        tray.Does(Sees("plug-loose"));
        Assert.Equal(["Plug found loose in its thread: not mended"], tray.Book.OpenElsewhere.Select(one => $"{one.Label}: {one.Word}"));
        Assert.NotNull(tray.Refuses(new ReleaseNote()));
        Assert.NotNull(tray.Book.State<FaultsState>().Step);
        Assert.Null(tray.Does(Fixed("plug-loose")).Book.State<FaultsState>().Step);
        Assert.Null(tray.Refuses(new ReleaseNote()));
    }

    [Fact]
    public void What_was_mended_is_tried_again_before_it_goes()
    {
        var tray = TestTray.Untouched().Reads(Sheets.AllGood()).Does(Sees("low-power", "air-filter-dirty"));
        Assert.Contains("low-power: not mended", Open(tray));
        tray.Does(Fixed("air-filter-plugged"));
        Assert.Equal(["low-power: mended, not tried again"], Open(tray));
        Assert.NotNull(tray.Refuses(new ReleaseNote()));
        Assert.Equal(["low-power: still there"], Open(tray.Does(Tries("low-power", Said.Present))));
        Assert.Empty(Open(tray.Does(Tries("low-power", Said.Absent))));
        Assert.Null(tray.Refuses(new ReleaseNote()));
    }

    [Fact]
    public void What_the_owner_came_with_is_open_at_prove_and_not_twice()
    {
        var tray = Complains("hunts").Does(Sees("hunts", "air-filter-dirty")).Does(Fixed("air-filter-plugged"));
        Assert.Empty(Open(tray));
        Assert.Contains(tray.Book.OpenElsewhere, one => one.LineKey == "proving/complaint-hunts");
    }

    [Fact]
    public void It_is_left_only_with_a_reason_and_the_owners_word()
    {
        var tray = TestTray.Untouched().Reads(Sheets.AllGood()).Does(Sees("plug-loose"));
        Assert.Equal(
            ["note.reason", "note.ownerSaid"],
            tray.Refuses(new FaultNote("plug-loose", FaultOutcome.Left))!.Fields.Select(problem => problem.Field)
        );
        Assert.Equal(
            ["note.ownerSaid"],
            tray.Refuses(new FaultNote("plug-loose", FaultOutcome.Left, "The thread is worn out", "yes"))!.Fields.Select(one => one.Field)
        );
        Assert.Equal(
            ["note.reason"],
            tray.Refuses(new FaultNote("plug-loose", FaultOutcome.Left, new string('x', 501), "Leave it, on the phone"))!
                .Fields.Select(one => one.Field)
        );
        tray.Does(new FaultNote("plug-loose", FaultOutcome.Left, "The thread is worn out", "Leave it, on the phone today"));
        Assert.Empty(Open(tray));
        var found = Assert.Single(tray.Book.State<FaultsState>().Evidence.Found);
        Assert.True(found.Stays);
        Assert.Equal(("The thread is worn out", "Leave it, on the phone today"), (found.Reason, found.OwnerSaid));
        // Taken up again it is open again.
        Assert.Equal(["plug-loose: not mended"], Open(tray.Does(new FaultNote("plug-loose", FaultOutcome.Open))));
    }

    [Fact]
    public void What_is_sent_on_or_left_explains_the_trouble_it_brings()
    {
        var tray = TestTray.Untouched().Reads(Sheets.AllGood()).Does(Sees("low-power", "pull-weak"));
        Assert.Equal(["low-power: not mended"], Open(tray));
        Assert.Empty(Open(tray.Does(new FaultNote("compression-low", FaultOutcome.Referred))));
    }

    [Fact]
    public void What_was_done_and_did_not_cure_it_was_tried_and_is_not_the_fault()
    {
        var tray = TestTray.Untouched().Does(Sees("low-power")).Does(Fixed("fuel-stale"));
        tray.Does(new FaultNote("fuel-stale", FaultOutcome.NoCure));
        var evidence = tray.Book.State<FaultsState>().Evidence;
        Assert.Empty(evidence.Found);
        Assert.Equal(["fuel-stale"], evidence.NoCure);
        Assert.Contains("fuel-stale", evidence.RuledOut);
        Assert.False(tray.Book.State<FaultsState>().IsSettled);
        Assert.NotNull(tray.Book.WorkBegan);
    }

    [Fact]
    public void Nothing_is_opened_again_without_its_cause()
    {
        var tray = TestTray.Untouched().Does(Fixed("fuel-stale"));
        Assert.Equal(["note.causeId"], tray.Refuses(new FaultNote(null, FaultOutcome.Open))!.Fields.Select(problem => problem.Field));
        Assert.Null(tray.Refuses(new FaultNote("fuel-stale", FaultOutcome.Open)));
        // A trace that was closed without one is.
        var closed = TestTray.Untouched().Does(new FaultNote(null, FaultOutcome.NothingFound));
        Assert.Null(closed.Refuses(new FaultNote(null, FaultOutcome.Open)));
    }

    [Theory]
    [InlineData("intake-gasket", "up", "intake-joint-leaking")]
    [InlineData("bowl-gasket", null, "bowl-joint-leaking")]
    [InlineData("needle", null, "inlet-needle-leaking")]
    [InlineData("governor-spring", null, "governor-spring-weak")]
    [InlineData("throttle-spring", null, "throttle-return-spring-weak")]
    public void A_part_found_torn_and_renewed_is_a_fault_put_right(string part, string? way, string cause)
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote(part, LineVerdict.Broken));
        Assert.Empty(tray.Book.State<FaultsState>().Evidence.Found);
        tray.Does(new BackNote(part, Fate.Made, way));
        var found = Assert.Single(tray.Book.State<FaultsState>().Evidence.Found);
        Assert.Equal((cause, FaultOutcome.Fixed, $"strip/{part}"), (found.CauseId, found.Outcome, found.FromLine));
        Assert.Empty(Open(tray));
    }

    [Fact]
    public void What_a_broken_part_only_points_to_is_gone_with_the_part()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("seat", LineVerdict.Broken));
        Assert.True(tray.Book.State<FaultsState>().Evidence.IsThere("inlet-fails-hold"));
        tray.Does(new BackNote("seat", Fate.Made, "into-body"));
        Assert.False(tray.Book.State<FaultsState>().Evidence.IsThere("inlet-fails-hold"));
    }

    /// <summary>Whatever the fault is, a gasket seen torn does not go back.</summary>
    [Theory]
    [InlineData("intake-gasket-torn", "intake-joint-leaking")]
    [InlineData("line-hard", "fuel-line-perished")]
    [InlineData("primer-cracked", "primer-bulb-failed")]
    [InlineData("screw-seal-flat", "mixture-seal-leaking")]
    public void A_cheap_part_seen_bad_is_open_until_it_is_renewed_whatever_the_fault_is(string finding, string cause)
    {
        var tray = TestTray.Untouched().Does(Sees("plug-loose", finding)).Does(Fixed("plug-loose"));
        Assert.Equal([$"{cause}: not mended"], Open(tray));
        Assert.Empty(Open(tray.Does(Fixed(cause))));
    }
}
