using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Faults;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Handover;

/// <summary>
/// Forty-six invented jobs led to their end on a tray: what was told, what is done and what is there is entered, and the report is read
/// as a stranger reads it. Every true fault, danger and trouble of the story is in it, and no fault that is not.
/// </summary>
public class StoryReportTests
{
    public static TheoryData<string> Ids => [.. Story.All.Select(story => story.Id)];

    private const string Leak = "Fuel in the open",
        Oil = "Fuel in the oil",
        Locked = "The engine does not turn by hand",
        Throttle = "The throttle does not return";

    /// <summary>What a foreman would not let run, story by story, written here by hand; the stories that are not named are safe to try.
    /// Common practice, no source.</summary>
    private static readonly Dictionary<string, string[]> Unsafe = new()
    {
        // The needle let the tank down into the sump; the bowl is full and shut.
        ["s04"] = [Oil],
        ["s05"] = [Leak],
        // A float that sank: over the overflow, and into the sump.
        ["s06"] = [Leak, Oil],
        ["s07"] = [Leak],
        ["s08"] = [Locked],
        ["s23"] = [Leak],
        ["s24"] = [Leak],
        ["s26"] = [Throttle],
        // A diaphragm type that floods stands with fuel in its throat.
        ["s31"] = [Leak],
        ["s44"] = [Leak, Oil],
        ["s45"] = [Locked],
    };

    private static string[] UnsafeIn(string story) => Unsafe.GetValueOrDefault(story) ?? [];

    private static readonly FaultKnowledge Knowledge = FaultKnowledge.Shipped;

    private static string Cause(string id) => Knowledge.FindCause(id)!.Label;

    private static SpecSheet SheetOf(CarburetorKind kind) =>
        kind.Family == CarburetorFamily.FloatBowl ? Sheets.Spec : Sheets.Spec with { Family = kind.Family, Float = null };

    private static FindingsNote Sees(Said said, IEnumerable<string> findings) =>
        new(null, [.. findings.Select(id => new FindingAnswer(id, said))]);

    private static HandoverReport Report(TestTray tray) =>
        HandoverReport.Of(
            new(27, "Brine & Sons", "", "Pump", "", null, null, tray.Facts.Complaint, default, default),
            [.. tray.Book.Modules.SelectMany(module => tray.Book.State(module.Station).Report)],
            tray.Book.Lines,
            Core.Trays.Policy.NotDone(tray.Book),
            tray.Book.Dangers,
            tray.Book.Kind.Family
        );

    private static IReadOnlyList<string> Chapter(HandoverReport report, ReportChapter chapter) =>
        [.. report.Points!.Where(point => point.Chapter == chapter).Select(point => point.Words.ToString())];

    /// <summary>A tray of a story, told by its owner.</summary>
    private static TestTray Told(Story story)
    {
        var tray = new TestTray(SheetOf(story.Kind), story.Kind);
        tray.Facts = tray.Facts with
        {
            Complaint = "It is not right",
            Complaints = [.. story.Told.Select(id => new Complaint(id, Knowledge.FindFinding(id)!.Label))],
        };
        return tray.Adds(new FindingsNote("owner-story", [.. story.Told.Select(id => new FindingAnswer(id, Said.Present))], true));
    }

    private static FaultNote Ended(string fault) =>
        new(fault, Knowledge.FindCause(fault)!.Refer ? FaultOutcome.Referred : FaultOutcome.Fixed);

    [Theory]
    [MemberData(nameof(Ids))]
    public void A_report_of_a_job_that_was_mended_says_what_was_wrong_and_nothing_else(string id)
    {
        var story = Story.All.Single(one => one.Id == id);
        var tray = Told(story);
        var there = story
            .Faults.Values.SelectMany(findings => findings)
            .Distinct()
            .Where(finding => Knowledge.FindFinding(finding) is not null);
        tray.Adds(Sees(Said.Present, there));
        // A report half way through says what stands open.
        var dangers = Report(tray).Dangers!;
        Assert.Equal(UnsafeIn(id), dangers.Select(danger => danger.Label));
        foreach (var fault in story.Faults.Keys)
        {
            tray.Adds(Ended(fault));
        }

        var mended = story.Faults.Keys.Where(fault => !Knowledge.FindCause(fault)!.Refer).ToList();
        tray.Adds(new SafetyNote(SafetyCondition.OilChanged));
        tray.Adds(Sees(Said.Absent, there));
        var report = Report(tray);
        var wrong = Chapter(report, ReportChapter.Wrong);
        // Each true fault once, with what was done; and no other.
        Assert.All(story.Faults.Keys, fault =>
            Assert.Single(wrong, point => point.StartsWith(Cause(fault) + ".", StringComparison.Ordinal))
        );
        Assert.Equal(story.Faults.Count, wrong.Count);
        Assert.All(mended, fault => Assert.Contains(wrong, point => point == $"{Cause(fault)}. {Knowledge.Done[fault]}."));
        // What the owner named is told, and stands open until it was tried.
        Assert.Contains("“It is not right”", Chapter(report, ReportChapter.Told));
        if (story.Told.Count > 1)
        {
            Assert.All(story.Told, told => Assert.Contains(Knowledge.FindFinding(told)!.Label + ".", Chapter(report, ReportChapter.Told)));
        }

        // What was seen is told to the next technician, whether it was mended or not.
        Assert.All(there.Where(finding => Knowledge.FindFinding(finding)!.Applies.Matches(story.Kind)), finding =>
            Assert.Contains(Knowledge.FindFinding(finding)!.Label + ".", Chapter(report, ReportChapter.Found))
        );
        Assert.Empty(report.Dangers!);
        Assert.DoesNotContain(Chapter(report, ReportChapter.Left), point => point.Contains("not mended", StringComparison.Ordinal));
        Assert.Empty(Chapter(report, ReportChapter.Tried));
    }

    [Theory]
    [MemberData(nameof(Ids))]
    public void A_report_of_a_job_that_was_not_mended_says_so(string id)
    {
        var story = Story.All.Single(one => one.Id == id);
        var tray = Told(story);
        tray.Adds(Sees(Said.Present, story.Faults.Values.SelectMany(findings => findings).Distinct()));
        var inVain = Knowledge.Causes.First(cause =>
            cause.Applies.Matches(story.Kind) && !story.Faults.ContainsKey(cause.Id) && !cause.Refer
        );
        tray.Adds(new FaultNote(inVain.Id, FaultOutcome.NoCure));
        var left = story.Faults.Keys.First();
        tray.Adds(new FaultNote(left, FaultOutcome.Left, "The part is not made any more", "Leave it, he said at the counter"));
        var report = Report(tray);
        Assert.Empty(Chapter(report, ReportChapter.Wrong));
        Assert.Equal([$"{inVain.Label}: done here, did not cure it."], Chapter(report, ReportChapter.Tried));
        Assert.Contains(
            $"{Cause(left)}: left as it is. The part is not made any more. The owner: Leave it, he said at the counter.",
            Chapter(report, ReportChapter.Left)
        );
        // What is unsafe leads the report, and nothing else does.
        Assert.Equal(UnsafeIn(id), report.Dangers!.Select(danger => danger.Label));
        Assert.Equal(["It was not run here."], Chapter(report, ReportChapter.Run));
    }

    [Fact]
    public void There_are_forty_six() => Assert.Equal(46, Story.All.Count);

    /// <summary>Three faults: one of the story, one unsafe, one found while proving. Nothing of it is lost.</summary>
    [Theory]
    [InlineData(CarburetorFamily.FloatBowl, "idle-jet-blocked")]
    [InlineData(CarburetorFamily.Diaphragm, "metering-diaphragm-stiff")]
    [InlineData(CarburetorFamily.SuctionTank, "inlet-screen-clogged")]
    public void Three_faults_one_unsafe_one_found_while_proving_end_on_a_report_that_says_all(CarburetorFamily family, string first)
    {
        var kind = new CarburetorKind(family, EngineKind.FourStroke, ChokeKind.Manual);
        var tray = new TestTray(SheetOf(kind), kind);
        tray.Facts = tray.Facts with { Complaint = "Hunts", Complaints = [new Complaint("hunts", "Speed swings up and down (hunting)")] };
        tray.Does(new Parts.JobNote("closed")).Does(Sees(Said.Present, ["hunts", "stop-switch-dead"]));
        var run = new ReadingNote("proving/complaint-hunts", TypedReading.Of(("state", "stillThere")));
        Assert.NotNull(tray.Refuses(run));
        Assert.Equal("The engine cannot be stopped", Assert.Single(Report(tray).Dangers!).Label);
        tray.Does(new FaultNote("stop-switch-faulty", FaultOutcome.Fixed, Done: "New switch from the drawer"));
        Assert.NotNull(tray.Refuses(run));
        tray.Does(new ReadingNote("proving/stop-switch", TypedReading.Of(("seen", "sound"))));
        tray.Does(new FaultNote(first, FaultOutcome.Fixed));
        // Found while proving: it still hunts, and a look shows a bent link.
        tray.Does(run);
        Assert.Equal(Station.Faults, tray.Next.Station);
        tray.Does(new ReadingNote("proving/linkage-travel", TypedReading.Of(("seen", "linkBinds"))));
        tray.Does(new ReadingNote("proving/linkage-travel", TypedReading.Of(("seen", "allFree"))));
        tray.Does(new ReadingNote("proving/complaint-hunts", TypedReading.Of(("state", "gone"))));
        tray.Does(new RemarkNote(RemarkFate.Watch, "The link wears on its bush"));
        tray.Does(new RemarkNote(RemarkFate.ShopOnly, "He owes for the last one"));
        var report = Report(tray);
        var wrong = Chapter(report, ReportChapter.Wrong);
        Assert.Equal(
            [
                Cause("stop-switch-faulty") + ". New switch from the drawer.",
                $"{Cause(first)}. {Knowledge.Done[first]}.",
                Cause("linkage-misfitted") + ". " + Knowledge.Done["linkage-misfitted"] + ".",
            ],
            wrong
        );
        Assert.Empty(report.Dangers!);
        Assert.Contains("The link wears on its bush.", Chapter(report, ReportChapter.Watch));
        Assert.DoesNotContain(report.Points!, point => point.Words.Text.Contains("owes", StringComparison.Ordinal));
        Assert.DoesNotContain(Chapter(report, ReportChapter.Run), point => point.Contains("not run", StringComparison.Ordinal));
        Assert.DoesNotContain(Chapter(report, ReportChapter.Left), point => point.Contains("hunting", StringComparison.OrdinalIgnoreCase));
    }

    [Fact]
    public void A_fault_in_a_carburetor_that_was_exchanged_went_with_it_and_a_part_says_what_became_of_it()
    {
        var exchanged = TestTray.Untouched().Fits(new(Parts.FitOption.PatternCarburetor, "carburetor", [], [], null, 0));
        exchanged.Does(new FaultNote("float-heavy", FaultOutcome.Fixed)).Does(new FaultNote("fuel-stale", FaultOutcome.Fixed));
        Assert.Equal(
            ["Float has taken on fuel. Exchanged with the carburetor.", "Stale or watery fuel. " + Knowledge.Done["fuel-stale"] + "."],
            Chapter(Report(exchanged), ReportChapter.Wrong)
        );
        var made = new TestTray(Sheets.Spec)
            .Does(new Parts.JobNote("full"))
            .Does(new Parts.OutNote("bowl-gasket", Parts.LineVerdict.Broken));
        made.Does(new Parts.BackNote("bowl-gasket", Parts.Fate.Made));
        Assert.Contains("made here and fitted.", Assert.Single(Chapter(Report(made), ReportChapter.Wrong)), StringComparison.Ordinal);
    }

    [Fact]
    public void What_a_quick_test_said_before_it_was_mended_is_no_longer_to_watch()
    {
        var tray = TestTray.Untouched().Does(new ReadingNote("faults/missing-fuel", TypedReading.Of(("missing", "600"), ("risen", "600"))));
        Assert.Contains(Chapter(Report(tray), ReportChapter.Watch), point =>
            point.Contains("when it left the bench", StringComparison.Ordinal)
        );
        tray.Does(new FaultNote("inlet-needle-leaking", FaultOutcome.Fixed)).Does(new SafetyNote(SafetyCondition.OilChanged));
        var report = Report(tray);
        Assert.DoesNotContain(Chapter(report, ReportChapter.Watch), point =>
            point.Contains("when it left the bench", StringComparison.Ordinal)
        );
        // What was measured is a reading like any.
        Assert.Contains(report.Lines, line => line.Key == "faults/missing-fuel");
    }

    [Fact]
    public void A_mend_elsewhere_does_not_take_a_quick_test_off_what_to_watch()
    {
        // Low compression is not put right by a jet: it is how the machine leaves.
        var tray = TestTray
            .Untouched()
            .Does(new ReadingNote("faults/compression", TypedReading.Of(("pressure", "160"), ("pulls", "10"), ("throttle", "open"))));
        tray.Does(new FaultNote("idle-jet-blocked", FaultOutcome.Fixed));
        Assert.Contains(Chapter(Report(tray), ReportChapter.Watch), point => point.StartsWith("Compression", StringComparison.Ordinal));
        // Felt again and strong, it is not.
        tray.Does(Sees(Said.Absent, ["pull-weak"]));
        Assert.DoesNotContain(Chapter(Report(tray), ReportChapter.Watch), point =>
            point.StartsWith("Compression", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void What_we_put_in_ourselves_is_ours_and_not_earlier_work()
    {
        TestTray With(Parts.LineVerdict verdict) =>
            TestTray.Untouched().Does(new Parts.JobNote("full")).Does(new Parts.OutNote("extra:tap", verdict, Label: "fuel tap"));
        Assert.Contains(With(Parts.LineVerdict.Added).Book.Signs, sign => sign.FindingId == "earlier-work");
        var ours = With(Parts.LineVerdict.Ours);
        Assert.DoesNotContain(ours.Book.Signs, sign => sign.FindingId == "earlier-work");
        // New today it is fitted, not refitted with a reason; it stands among the parts as ours, and nothing was found of it.
        ours.Does(new Parts.BackNote("extra:tap", Parts.Fate.Renewed));
        Assert.Equal(["Put in by us: fuel tap."], Chapter(Report(ours), ReportChapter.Parts));
        Assert.DoesNotContain(Report(ours).Points!, point =>
            point.Chapter == ReportChapter.Found && point.Words.Text.Contains("tap", StringComparison.Ordinal)
        );
        // From an earlier visit it goes back as it is.
        Assert.Null(With(Parts.LineVerdict.Ours).Refuses(new Parts.BackNote("extra:tap", Parts.Fate.Refitted)));
    }

    [Theory]
    [InlineData(CarburetorFamily.FloatBowl, "fuel tap")]
    [InlineData(CarburetorFamily.Diaphragm, "diaphragms")]
    [InlineData(CarburetorFamily.SuctionTank, "screens")]
    public void It_is_stored_by_what_would_harden_or_clog(CarburetorFamily family, string names)
    {
        var kind = new CarburetorKind(family, EngineKind.FourStroke, ChokeKind.Manual);
        Assert.Contains(names, Chapter(Report(new TestTray(SheetOf(kind), kind)), ReportChapter.Watch)[^1], StringComparison.Ordinal);
    }
}
