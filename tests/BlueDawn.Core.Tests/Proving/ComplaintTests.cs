using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Proving;

/// <summary>What the owner came with is tried again before the machine goes: common practice, no source.</summary>
public class ComplaintTests
{
    [Fact]
    public void Every_trouble_an_owner_can_name_is_tried_one_way_and_nothing_else_is()
    {
        var troubles = FaultKnowledge.Shipped.Findings.Where(finding => finding.Role == FindingRole.Trouble).Select(finding => finding.Id);
        Assert.Equal(troubles.Append(Complaint.Said).Order(), ComplaintTry.Shipped.Keys.Order());
        Assert.All(ComplaintTry.Shipped.Values, row => Assert.NotEqual(row.How.Length == 0, row.TriedBy is null));
    }

    [Fact]
    public void A_trouble_without_a_line_of_its_own_is_answered_by_the_line_that_tries_it() =>
        Assert.All(ComplaintTry.Shipped.Values.Where(row => row.TriedBy is not null), row =>
            Assert.Equal(
                [false, true],
                FaultKnowledge
                    .Shipped.StationFindings.Where(mapping => mapping.Matches(row.TriedBy!) && mapping.FindingId == row.Id)
                    .Select(mapping => mapping.Present)
                    .Distinct()
                    .Order()
            )
        );

    [Fact]
    public void What_was_named_is_asked_for_and_else_the_owners_words()
    {
        static string[] Asked(Story? story, string words) =>
            [.. StoryEvidence.Complaints(story, words, FaultKnowledge.Shipped).Select(complaint => $"{complaint.Id}: {complaint.Label}")];
        static Story Told(params string[] complaints) =>
            new(complaints, StoodFor.NotSaid, WorkedOnBy.NotSaid, OilFound.NotLooked, FuelSaid.NotSaid);
        Assert.Equal(["hunts: Hunts", "low-power: Low on power"], Asked(Told("hunts", "low-power", "hunts"), "Runs badly"));
        Assert.Equal(["said: Runs badly"], Asked(Told(), " Runs badly "));
        Assert.Equal(["said: Runs badly"], Asked(null, "Runs badly"));
        Assert.Empty(Asked(null, "  "));
        Assert.Equal(60, StoryEvidence.Complaints(null, new string('x', 200), FaultKnowledge.Shipped)[0].Label.Length);
    }

    [Theory]
    [InlineData("hunts", "gone", Verdict.Good)]
    [InlineData("hunts", "stillThere", Verdict.NotGood)]
    [InlineData("said", "nothing", Verdict.Good)]
    public void Gone_is_good_and_still_there_is_not(string id, string state, Verdict verdict) =>
        Assert.Equal(verdict, Judge(id, ("state", state)).Verdict);

    [Fact]
    public void Only_words_of_the_owners_own_can_be_about_nothing_to_try() =>
        Assert.Equal(["state"], Line("hunts").Read(TypedReading.Of(("state", "nothing"))).Problems.Select(problem => problem.Field));

    /// <summary>Longer than it took to fail; ten minutes where nobody knows: common practice, no source.</summary>
    [Theory]
    [InlineData("5", "10", Verdict.Good)]
    [InlineData("5", "5", Verdict.CannotTell)]
    [InlineData("12", "10", Verdict.CannotTell)]
    [InlineData("", "10", Verdict.Good)]
    [InlineData("", "9", Verdict.CannotTell)]
    public void One_that_dies_after_minutes_runs_longer_than_it_took_to_die(string failedAfter, string ran, Verdict verdict) =>
        Assert.Equal(verdict, Judge("dies-after-minutes", ("failedAfter", failedAfter), ("ran", ran), ("state", "gone")).Verdict);

    [Fact]
    public void One_that_hunted_has_its_swing_read()
    {
        static IReadOnlyList<string> Missing(params Complaint[] complaints)
        {
            var tray = new TestTray(Sheets.Spec);
            tray.Facts = tray.Facts with { Complaints = complaints };
            return
            [
                .. tray
                    .Book.Lines.Single(line => line.Line.Key == "proving/governed-speed")
                    .Line.Read(TypedReading.Of(("speed", "3400")))
                    .Problems.Select(problem => problem.Field),
            ];
        }

        Assert.Equal(["swing"], Missing(new Complaint("hunts", "Hunts")));
        Assert.Empty(Missing(new Complaint("low-power", "Low on power")));
    }

    [Fact]
    public void A_tray_does_not_go_before_its_complaint_is_tried_and_one_still_there_leads_back_to_the_trace()
    {
        var tray = TestTray.Untouched().Reads(Sheets.AllGood());
        tray.Facts = tray.Facts with { Complaints = [new Complaint("low-power", "Low on power")] };
        Assert.Equal(["“Low on power”"], Policy.Obstacles(tray.Book).Select(obstacle => obstacle.Label));
        Assert.Equal("proving/complaint-low-power", tray.Book.State(Station.Proving).Step?.LineKey);

        tray.Does(new ReadingNote("proving/complaint-low-power", TypedReading.Of(("state", "stillThere"))));
        Assert.Single(Policy.Obstacles(tray.Book));
        Assert.Contains(((FaultsState)tray.Book.State(Station.Faults)).Evidence.Items, item =>
            item is { FindingId: "low-power", Present: true }
        );

        tray.Does(new ReadingNote("proving/complaint-low-power", TypedReading.Of(("state", "gone"))));
        Assert.Empty(Policy.Obstacles(tray.Book));
        Assert.Contains(((FaultsState)tray.Book.State(Station.Faults)).Evidence.Items, item =>
            item is { FindingId: "low-power", Present: false }
        );
    }

    [Fact]
    public void A_tray_that_went_before_this_was_asked_shows_no_line_for_it()
    {
        var tray = TestTray.Untouched();
        tray.Facts = tray.Facts with { Complaints = [new Complaint("low-power", "Low on power")] };
        Assert.Contains(tray.Book.Lines, line => line.Line is ComplaintLine);
        tray.Facts = tray.Facts with { WaitsFor = WaitsFor.HandedBack };
        Assert.DoesNotContain(tray.Book.Lines, line => line.Line is ComplaintLine);
    }

    [Fact]
    public void Nothing_runs_while_fuel_is_in_the_open()
    {
        var tray = TestTray
            .Untouched()
            .Does(new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "1"), ("rocked", "no"), ("leak", "bowlJoint"))));
        Assert.NotNull(tray.Refuses(new ReadingNote("proving/governed-speed", TypedReading.Of(("speed", "3400")))));
        Assert.Null(
            tray.Refuses(new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "dry"))))
        );
        tray.Does(new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "dry"))));
        Assert.Null(tray.Refuses(new ReadingNote("proving/governed-speed", TypedReading.Of(("speed", "3400")))));
    }

    private static ComplaintLine Line(string id) => new(new Complaint(id, id), ComplaintTry.Shipped[id]);

    private static Judgement Judge(string id, params (string, string)[] typed)
    {
        var read = Line(id).Read(TypedReading.Of(typed));
        Assert.Empty(read.Problems);
        return Line(id).Judge(read.Reading, PinSet.Empty);
    }
}
