using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>What is seen at one station and holds at another.</summary>
public class BetweenStationsTests
{
    private static FindingsNote Sees(params string[] findings) =>
        new(null, [.. findings.Select(id => new FindingAnswer(id, Said.Present))]);

    private static TestTray Apart(string part, LineVerdict verdict, string? way = null) =>
        new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote(part, verdict, Way: way));

    private static ReadingNote Looks(string line, string seen) => new(line, TypedReading.Of(("seen", seen)));

    [Theory]
    [InlineData("insulator", "insulator-wrong-way", "down", "up")]
    [InlineData("seat", "seat-wrong-way", "outward", "into-body")]
    public void What_trace_saw_the_wrong_way_round_goes_back_so_only_with_a_reason(string part, string finding, string wrong, string right)
    {
        var tray = Apart(part, LineVerdict.Clean, wrong).Does(Sees(finding));
        Assert.Equal(["note.reason"], tray.Refuses(new BackNote(part, Fate.Refitted, wrong))!.Fields.Select(field => field.Field));
        Assert.Null(tray.Refuses(new BackNote(part, Fate.Refitted, wrong, Reason: "Its holes are in the middle")));
        Assert.Null(tray.Refuses(new BackNote(part, Fate.Refitted, right)));
        // Nobody wrote down how it sat: the usual way is the right one.
        Assert.NotNull(Apart(part, LineVerdict.Clean).Does(Sees(finding)).Refuses(new BackNote(part, Fate.Refitted, wrong)));
        // Nobody saw anything wrong with it.
        Assert.DoesNotContain(Apart(part, LineVerdict.Clean).Refuses(new BackNote(part, Fate.Refitted, right))?.Fields ?? [], field =>
            field.Field == "note.reason"
        );
    }

    /// <summary>What is new is tested by itself; a fuel hose that weeps shuts the engine's runs until it is dry.</summary>
    [Fact]
    public void A_new_hose_or_tap_is_leak_tested_by_itself_and_nothing_else_is()
    {
        const string Key = "proving/new-part";
        bool Asked(TestTray tray) => tray.Book.Lines.Any(line => line.Line.Key == Key && line.Line.Required);
        var tray = Apart("fuel-hose", LineVerdict.Renew);
        Assert.False(Asked(tray));
        Assert.False(Asked(Apart("bowl-gasket", LineVerdict.Renew).Does(new BackNote("bowl-gasket", Fate.Made))));
        tray.Does(new BackNote("fuel-hose", Fate.Made));
        Assert.True(Asked(tray));
        tray.Does(new ReadingNote(Key, TypedReading.Of(("seen", "newWeeps"))));
        Assert.Equal("Fuel in the open", Assert.Single(tray.Book.Dangers).Danger.Label);
        tray.Does(new ReadingNote(Key, TypedReading.Of(("seen", "newTight"))));
        Assert.Empty(tray.Book.Dangers);
        // A tap that is on no list, put in by us; taken out again, it is not asked for.
        var tap = new TestTray(Sheets.Spec)
            .Does(new JobNote("full"))
            .Does(new OutNote("extra:tap", LineVerdict.Ours, Label: "fuel tap"))
            .Does(new BackNote("extra:tap", Fate.Renewed));
        Assert.True(Asked(tap));
        Assert.False(Asked(tap.Does(new UndoNote("extra:tap"))));
    }

    [Theory]
    [InlineData(LineVerdict.Renew)]
    [InlineData(LineVerdict.Broken)]
    [InlineData(LineVerdict.Missing)]
    public void What_came_out_to_be_renewed_is_wanted_at_kit(LineVerdict verdict)
    {
        var sheet = Sheets.Spec with { Needs = [] };
        var tray = new TestTray(sheet).Does(new JobNote("full")).Does(new OutNote("float", verdict));
        Assert.Contains(tray.Book.State<KitsState>().Wanted, part => part.Part == "float");
        Assert.DoesNotContain(
            new TestTray(sheet).Does(new JobNote("full")).Does(new OutNote("float", LineVerdict.Clean)).Book.State<KitsState>().Wanted,
            part => part.Part == "float"
        );
    }

    [Theory]
    [InlineData("insulator")]
    [InlineData("manifold")]
    [InlineData("throttle-link")]
    public void What_no_kit_has_can_be_renewed_all_the_same(string part)
    {
        var tray = Apart(part, LineVerdict.Broken);
        Assert.Contains(Fate.Renewed, tray.Book.Ledger.Find(part)!.Fates);
        Assert.Null(tray.Refuses(new BackNote(part, Fate.Renewed, part == "insulator" ? "up" : null)));
    }

    [Fact]
    public void What_came_out_broken_and_is_unsafe_holds_until_it_is_renewed()
    {
        var tray = Apart("stop-wire", LineVerdict.Broken);
        Assert.Equal("stop-switch", Assert.Single(tray.Book.Dangers).Danger.Id);
        Assert.Empty(tray.Does(new BackNote("stop-wire", Fate.Renewed)).Book.Dangers);
    }

    [Theory]
    [InlineData("setting/needle-tip", "grooved", "inlet-needle-leaking")]
    [InlineData("setting/float-free", "binds", "float-binding")]
    [InlineData("setting/adjuster-rings", "cut", "mixture-seal-leaking")]
    [InlineData("chokes/choke-held", "wedged", "choke-held-shut")]
    [InlineData("proving/linkage-travel", "linkBinds", "linkage-misfitted")]
    public void A_bad_look_is_the_fault_itself_at_trace(string line, string bad, string cause)
    {
        var tray = TestTray.Untouched().Does(Looks(line, bad));
        Assert.Equal(cause, tray.Book.State<FaultsState>().Trace.Causes[0].Cause.Id);
    }

    [Fact]
    public void A_good_look_after_it_is_a_fault_put_right()
    {
        var tray = TestTray.Untouched().Does(Looks("setting/float-free", "binds")).Does(Looks("setting/float-free", "swings"));
        Assert.Equal("float-binding", Assert.Single(tray.Book.State<FaultsState>().Evidence.Found).CauseId);
    }

    [Fact]
    public void A_reading_that_was_mistyped_and_corrected_is_no_repair()
    {
        var tray = TestTray.Untouched().Does(Looks("setting/float-free", "binds"), out var wrong);
        tray.Does(Looks("setting/float-free", "swings"), wrong);
        Assert.Empty(tray.Book.State<FaultsState>().Evidence.Found);
    }

    [Fact]
    public void What_empties_a_tank_is_gone_only_after_it_has_stood()
    {
        var tray = TestTray.Untouched();
        tray.Facts = tray.Facts with { Complaints = [new Complaint("tank-lost-fuel", "Tank empties while standing")] };
        JudgedLine Line() => tray.Book.Lines.Single(line => line.Line.Key == "proving/complaint-tank-lost-fuel");
        tray.Does(new ReadingNote(Line().Line.Key, TypedReading.Of(("stood", "10"), ("state", "gone"))));
        Assert.Equal(Verdict.CannotTell, Line().Judgement.Verdict);
        tray.Does(new ReadingNote(Line().Line.Key, TypedReading.Of(("stood", "600"), ("state", "gone"))));
        Assert.Equal(Verdict.Good, Line().Judgement.Verdict);
    }

    [Fact]
    public void A_new_part_weeps_only_where_one_was_fitted()
    {
        var weeps = new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "newPart")));
        Assert.NotNull(TestTray.Untouched().Refuses(weeps));
        Assert.Null(TestTray.Renewed().Refuses(weeps));
        var opened = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("needle", LineVerdict.Renew));
        Assert.Null(opened.Does(new BackNote("needle", Fate.Made)).Refuses(weeps));
    }

    [Fact]
    public void A_remark_that_something_is_unsafe_stops_what_runs_until_it_is_at_its_end()
    {
        var run = new ReadingNote("proving/governed-speed", TypedReading.Of(("speed", "3400")));
        var tray = TestTray.Untouched().Does(new RemarkNote(RemarkFate.Unsafe, "The blade’s nut is cracked", Station.Intake), out var id);
        Assert.Equal(["The blade’s nut is cracked"], Assert.Single(tray.Book.Dangers).Shown);
        Assert.NotNull(tray.Refuses(run));
        tray.Does(new RemarkNote(RemarkFate.Unsafe, "The shaft is bent"), out var second);
        tray.Does(new RemarkNote(RemarkFate.Done, "A new nut", Ends: id));
        Assert.Equal(["The shaft is bent"], Assert.Single(tray.Book.Dangers).Shown);
        Assert.NotNull(tray.Refuses(run));
        Assert.NotNull(tray.Refuses(new RemarkNote(RemarkFate.Done, "Once more", Ends: id)));
        // Taken back it was never said.
        tray.Does(new WithdrawalNote(), second);
        Assert.Empty(tray.Book.Dangers);
        Assert.Null(tray.Refuses(run));
    }

    /// <summary>Bench, tray and Trace name the same step.</summary>
    [Fact]
    public void Trace_shows_the_step_that_the_tray_shows()
    {
        var tray = new TestTray(Sheets.Spec).Does(Sees("hunts"));
        Assert.Equal(tray.Next.Do.Text, Core.Trays.Policy.NextAtTrace(tray.Book).Do.Text);
        // Something that Trace itself knows nothing of makes a run unsafe: no step of Trace runs it.
        tray.Does(new RemarkNote(RemarkFate.Unsafe, "The guard is off"));
        for (var step = 0; step < 6; step++)
        {
            var next = Core.Trays.Policy.NextAtTrace(tray.Book);
            Assert.NotEqual(Core.Safety.Caution.Running, next.Caution);
            Assert.NotEqual(CheckState.Running, next.CheckId is { } id ? FaultKnowledge.Shipped.FindCheck(id)!.State : CheckState.Any);
            if (next.CheckId is null)
            {
                break;
            }

            tray.Does(new FindingsNote(next.CheckId, [.. next.Asks.Select(one => new FindingAnswer(one, Said.Absent))]));
        }

        // What is still there is said at Trace as on the tray.
        var back = TestTray.Untouched();
        back.Facts = back.Facts with { Complaints = [new Complaint(Complaint.Said, "It sings")] };
        back.Does(new FaultNote(null, FaultOutcome.NothingFound));
        back.Does(new ReadingNote("proving/complaint-said", TypedReading.Of(("state", "stillThere"))));
        Assert.Equal(back.Next.Do.Text, Core.Trays.Policy.NextAtTrace(back.Book).Do.Text);
    }

    [Theory]
    [InlineData("", null, null, "note.text")]
    [InlineData("   ", null, null, "note.text")]
    [InlineData("It sings", "proving/no-such", null, "note.line")]
    [InlineData("It sings", null, "no-such", "note.part")]
    public void A_remark_says_something_about_what_there_is(string text, string? line, string? part, string field) =>
        Assert.Equal(
            [field],
            TestTray.Untouched().Refuses(new RemarkNote(RemarkFate.Seen, text, Line: line, Part: part))!.Fields.Select(one => one.Field)
        );

    [Fact]
    public void The_desk_may_remark_and_may_not_say_that_something_unsafe_was_put_right()
    {
        var tray = TestTray.Untouched().Does(new RemarkNote(RemarkFate.Unsafe, "The guard is loose"), out var id);
        Assert.Null(
            tray.Refuses(new RemarkNote(RemarkFate.ForOwner, "She called, he calls back on Friday"), role: Core.Shop.Role.FrontDesk)
        );
        Assert.NotNull(tray.Refuses(new RemarkNote(RemarkFate.Done, "Tightened", Ends: id), role: Core.Shop.Role.FrontDesk));
        // Nor by writing it anew as something harmless, nor by taking it back.
        Assert.NotNull(tray.Refuses(new RemarkNote(RemarkFate.Seen, "The guard is fine"), id, Core.Shop.Role.FrontDesk));
        Assert.NotNull(tray.Refuses(new WithdrawalNote(), id, Core.Shop.Role.FrontDesk));
        Assert.Null(tray.Refuses(new RemarkNote(RemarkFate.Seen, "The guard is fine"), id, Core.Shop.Role.Technician));
        // What was only seen does not end it.
        Assert.NotNull(tray.Refuses(new RemarkNote(RemarkFate.Seen, "Still loose", Ends: id)));
    }
}
