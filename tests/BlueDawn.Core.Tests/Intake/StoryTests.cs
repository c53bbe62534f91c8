using BlueDawn.Core.Trays;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;

namespace BlueDawn.Core.Tests.Intake;

public class StoryTests
{
    private static readonly Story Nothing = new([], StoodFor.NotSaid, WorkedOnBy.NotSaid, OilFound.NotLooked, FuelSaid.NotSaid);

    [Fact]
    public void What_was_not_said_is_no_evidence() => Assert.Empty(StoryEvidence.Of(Nothing));

    [Fact]
    public void Complaints_and_circumstances_are_the_owners_word_and_count_once()
    {
        var note = Assert.Single(StoryEvidence.Of(Nothing with { Complaints = ["hunts", "hunts"], StoodFor = StoodFor.SeasonOrMore, WorkedOnBy = WorkedOnBy.Nobody }));
        Assert.True(note.FromOwner);
        Assert.Equal("owner-story", note.CheckId);
        Assert.Equal(
            [("hunts", Said.Present), ("stood-unused", Said.Present), ("earlier-work", Said.Absent)],
            note.Answers.Select(answer => (answer.FindingId, answer.Said)));
    }

    [Fact]
    public void A_short_stand_is_evidence_against_standing() =>
        Assert.Equal(Said.Absent, StoryEvidence.Of(Nothing with { StoodFor = StoodFor.Weeks })[0].Answers[0].Said);

    [Fact]
    public void The_oil_was_looked_at_and_is_not_the_owners_word()
    {
        var note = Assert.Single(StoryEvidence.Of(Nothing with { Oil = OilFound.FuelInIt }));
        Assert.False(note.FromOwner);
        Assert.Equal(("oil-check", Said.Present), (note.CheckId, note.Answers[0].Said));
    }

    [Fact]
    public void What_is_said_of_the_fuel_is_doubtful() => Assert.True(StoryEvidence.Of(Nothing with { Fuel = FuelSaid.Fresh })[0].Answers[0].Doubtful);

    [Fact]
    public void Every_answer_of_a_full_story_is_in_the_tables() =>
        Assert.All(
            StoryEvidence.Of(new Story(["wont-start"], StoodFor.Days, WorkedOnBy.Owner, OilFound.Fine, FuelSaid.Old)),
            note => Assert.Empty(note.Check(FaultKnowledge.Shipped)));
}
