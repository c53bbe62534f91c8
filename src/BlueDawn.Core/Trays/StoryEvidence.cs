using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;

namespace BlueDawn.Core.Trays;

/// <summary>What was said and seen at check-in is evidence for the trace.</summary>
public static class StoryEvidence
{
    /// <summary>The story as notes of the trace: what the owner said, then what was seen.</summary>
    /// <param name="story">The story.</param>
    public static IReadOnlyList<FindingsNote> Of(Story story)
    {
        var said = story.Complaints.Distinct().Select(id => new FindingAnswer(id, Said.Present)).ToList();
        if (story.StoodFor != StoodFor.NotSaid)
        {
            said.Add(new("stood-unused", story.StoodFor == StoodFor.SeasonOrMore ? Said.Present : Said.Absent));
        }

        if (story.WorkedOnBy != WorkedOnBy.NotSaid)
        {
            said.Add(new("earlier-work", story.WorkedOnBy == WorkedOnBy.Nobody ? Said.Absent : Said.Present));
        }

        if (story.Fuel != FuelSaid.NotSaid)
        {
            said.Add(new("fuel-smells-stale", story.Fuel == FuelSaid.Old ? Said.Present : Said.Absent, Doubtful: true));
        }

        var notes = new List<FindingsNote>();
        if (said.Count > 0)
        {
            notes.Add(new FindingsNote("owner-story", said, FromOwner: true));
        }

        if (story.Oil != OilFound.NotLooked)
        {
            notes.Add(new FindingsNote("oil-check", [new("fuel-in-oil", story.Oil == OilFound.FuelInIt ? Said.Present : Said.Absent)]));
        }

        return notes;
    }
}
