using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Intake;

public class StoryTests
{
    private static readonly Story Nothing = new([], StoodFor.NotSaid, WorkedOnBy.NotSaid, OilFound.NotLooked, FuelSaid.NotSaid);
    private static readonly DateOnly Today = new(2026, 11, 2);

    private static FindingsNote Only(Story story) => Assert.IsType<FindingsNote>(Assert.Single(StoryEvidence.Of(story)));

    private static IEnumerable<(string, Said)> Answers(Story story) =>
        Only(story).Answers.Select(answer => (answer.FindingId, answer.Said));

    [Fact]
    public void What_was_not_said_is_no_evidence() => Assert.Empty(StoryEvidence.Of(Nothing));

    [Fact]
    public void Complaints_and_circumstances_are_the_owners_word_and_count_once()
    {
        var note = Only(Nothing with { Complaints = ["hunts", "hunts"], StoodFor = StoodFor.SeasonOrMore, WorkedOnBy = WorkedOnBy.Nobody });
        Assert.True(note.FromOwner);
        Assert.Equal("owner-story", note.CheckId);
        Assert.Equal(
            [("hunts", Said.Present), ("stood-unused", Said.Present), ("earlier-work", Said.Absent)],
            note.Answers.Select(answer => (answer.FindingId, answer.Said))
        );
    }

    [Fact]
    public void A_short_stand_is_evidence_against_standing() =>
        Assert.Equal([("stood-unused", Said.Absent)], Answers(Nothing with { StoodFor = StoodFor.Weeks }));

    [Fact]
    public void The_oil_was_looked_at_and_is_not_the_owners_word()
    {
        var note = Only(Nothing with { Oil = OilFound.FuelInIt });
        Assert.False(note.FromOwner);
        Assert.Equal(("oil-check", Said.Present), (note.CheckId, note.Answers[0].Said));
    }

    [Fact]
    public void What_is_said_of_the_fuel_is_doubtful_and_days_stand_before_a_word()
    {
        Assert.True(Only(Nothing with { Fuel = FuelSaid.Fresh }).Answers[0].Doubtful);
        Assert.Equal([("fuel-smells-stale", Said.Present)], Answers(Nothing with { Fuel = FuelSaid.Fresh, FuelAgeDays = 200 }));
        Assert.Equal([("fuel-smells-stale", Said.Absent)], Answers(Nothing with { FuelAgeDays = 10 }));
    }

    [Fact]
    public void When_it_does_it_is_said_of_cold_and_of_warm()
    {
        Assert.Equal([("only-cold", Said.Absent), ("only-warm", Said.Present)], Answers(Nothing with { Occurs = Occurs.OnlyWarm }));
        Assert.Equal([("only-cold", Said.Absent), ("only-warm", Said.Absent)], Answers(Nothing with { Occurs = Occurs.Always }));
    }

    [Fact]
    public void Levels_then_and_now_say_whether_fuel_is_gone()
    {
        Assert.Equal([("tank-lost-fuel", Said.Present)], Answers(Nothing with { TankThenML = 1000, TankNowML = 300 }));
        Assert.Empty(StoryEvidence.Of(Nothing with { TankThenML = 1000, TankNowML = 950 }));
        Assert.Equal(
            [("tank-lost-fuel", Said.Present)],
            Answers(Nothing with { Complaints = ["tank-lost-fuel"], TankThenML = 1000, TankNowML = 300 })
        );
    }

    [Fact]
    public void Every_answer_of_a_full_story_is_in_the_tables() =>
        Assert.All(
            StoryEvidence.Of(
                new Story(
                    ["wont-start"],
                    StoodFor.Days,
                    WorkedOnBy.Owner,
                    OilFound.Fine,
                    FuelSaid.Old,
                    Occurs.OnlyCold,
                    Tried: [new("spark-plug-poor", ToldBy.Owner, Today, TriedOutcome.NoHelp)],
                    Offered: [new("coil-heat-fade", ToldBy.AnotherShop)]
                )
            ),
            note => Assert.Empty(note.Check(FaultKnowledge.Shipped))
        );

    [Fact]
    public void Numbers_that_cannot_be_and_days_to_come_are_refused()
    {
        Assert.Empty(Nothing.Check(Today));
        Assert.Empty(
            (
                Nothing with
                {
                    FailsAfterMin = 5,
                    AgeYears = 12,
                    Hours = 300,
                    TankThenML = 900,
                    Tried = [new("spark-plug-poor", ToldBy.Owner, Today)],
                }
            ).Check(Today)
        );
        Assert.Equal(
            ["story.failsAfterMin", "story.ageYears", "story.tried[0].on"],
            (Nothing with { FailsAfterMin = -1, AgeYears = double.NaN, Tried = [new("spark-plug-poor", ToldBy.Owner, Today.AddDays(1))] })
                .Check(Today)
                .Select(problem => problem.Field)
        );
        Assert.Equal(
            ["note.tried[0].causeId", "note.offered[0].causeId"],
            new ToldNote([new("no-such", ToldBy.Owner)], [new("nor-this", ToldBy.Owner)])
                .Check(FaultKnowledge.Shipped)
                .Select(problem => problem.Field)
        );
    }

    /// <summary>A new plug that did not help speaks against the plug and does not rule it out; one that helped for a while does not
    /// speak at all.</summary>
    [Fact]
    public void What_was_tried_without_help_speaks_against_its_cause()
    {
        var kind = new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Manual);
        TestTray Told(params TriedFix[] tried) =>
            new TestTray(null, kind)
                .Does(new FindingsNote("owner-story", [new("wont-start", Said.Present)], true))
                .Does(new ToldNote(tried, []));
        double Plug(TestTray tray) =>
            tray.Book.State<FaultsState>().Trace.Causes.FirstOrDefault(one => one.Cause.Id == "spark-plug-poor")?.Probability ?? 0;
        var (nothing, inVain, aWhile) = (
            Plug(Told()),
            Plug(Told(new TriedFix("spark-plug-poor", ToldBy.Owner, Today, TriedOutcome.NoHelp))),
            Plug(Told(new TriedFix("spark-plug-poor", ToldBy.Owner, null, TriedOutcome.ForAWhile)))
        );
        // By Bayes, odds fall to 0.4 of what they were; other causes fill the place.
        Assert.Equal(FaultCase.TriedInVain * nothing / (1 - nothing), inVain / (1 - inVain), 6);
        Assert.Equal(nothing, aWhile, 12);
        // The last of these notes stands.
        Assert.Equal(
            nothing,
            Plug(Told(new TriedFix("spark-plug-poor", ToldBy.Owner, null, TriedOutcome.NoHelp)).Does(new ToldNote([], []))),
            12
        );
    }

    [Fact]
    public void What_somebody_says_is_wrong_weighs_nothing_and_is_tested()
    {
        var kind = new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Heat);
        var tray = new TestTray(null, kind).Does(new FindingsNote("owner-story", [new("dies-after-minutes", Said.Present)], true));
        var before = tray.Book.State<FaultsState>().Trace;
        var after = tray.Does(new ToldNote([], [new("coil-heat-fade", ToldBy.AnotherShop)])).Book.State<FaultsState>().Trace;
        Assert.Equal(
            before.Causes.Select(one => (one.Cause.Id, one.Probability)),
            after.Causes.Select(one => (one.Cause.Id, one.Probability))
        );
        var said = Assert.Single(after.Hypotheses);
        Assert.Equal((HypothesisState.Open, "hot-spark", ToldBy.AnotherShop), (said.State, said.CheckId, said.By));
        Assert.InRange(said.Probability, 0.001, 0.5);
        tray.Does(new FindingsNote("hot-spark", [new("spark-lost-hot", Said.Absent)]));
        said = Assert.Single(tray.Book.State<FaultsState>().Trace.Hypotheses);
        Assert.True(said.CheckId is null && said.Probability < 0.05, $"{said.CheckId} {said.Probability}");
        Assert.Equal(
            HypothesisState.RuledOut,
            Assert.Single(tray.Does(new FaultNote("coil-heat-fade", FaultOutcome.NotIt)).Book.State<FaultsState>().Trace.Hypotheses).State
        );
    }

    /// <summary>Said to die after eight minutes: it has to run sixteen before it is said to run on, and past eight at Prove.</summary>
    [Fact]
    public void Minutes_that_were_told_or_timed_are_what_a_proof_has_to_outlast()
    {
        var tray = new TestTray(null, new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Heat));
        tray.Facts = tray.Facts with { FailsAfterMin = 8, Complaints = [new("dies-after-minutes", "Dies after some minutes")] };
        Assert.Equal(16, ((FailureTimeLine)tray.Book.Lines.Single(line => line.Line is FailureTimeLine).Line).EnoughMin);
        Verdict After(string minutes)
        {
            var line = tray.Book.Lines.Single(judged => judged.Line is ComplaintLine).Line;
            return line.Judge(line.Read(TypedReading.Of(("ran", minutes), ("state", "gone"))).Reading, PinSet.Empty).Verdict;
        }

        Assert.Equal((Verdict.CannotTell, Verdict.Good), (After("7"), After("9")));
        tray.Does(new ReadingNote("faults/minutes-to-failure", TypedReading.Of(("minutes", "12"), ("ended", "died"))));
        Assert.Equal((Verdict.CannotTell, Verdict.Good), (After("9"), After("13")));
    }
}
