using BlueDawn.Core.Faults;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Trays;

/// <summary>What was said and seen at check-in is evidence for the trace.</summary>
public static class StoryEvidence
{
    /// <summary>What has to be tried again before the machine goes: the troubles that were named, else the owner's words.</summary>
    /// <param name="story">The story, or null where none was asked for.</param>
    /// <param name="words">What the owner says, in words.</param>
    /// <param name="faults">What there is to be named.</param>
    public static IReadOnlyList<Complaint> Complaints(Story? story, string words, FaultKnowledge faults)
    {
        var named = (story?.Complaints ?? [])
            .Distinct()
            .Select(faults.FindFinding)
            .OfType<Finding>()
            .Where(finding => finding.Role == FindingRole.Trouble)
            .Select(finding => new Complaint(finding.Id, finding.Short.Length > 0 ? finding.Short : finding.Label))
            .ToList();
        return named.Count > 0 ? named
            : words.Trim() is { Length: > 0 } said
                ? [new Complaint(Complaint.Said, said.Length <= LongestLabel ? said : said[..(LongestLabel - 1)] + "…")]
            : [];
    }

    private const int LongestLabel = 60;

    /// <summary>Fuel is called old from this many days on: common practice, no source. What a tank does not show: own judgement.</summary>
    private const double OldFuelDays = 60,
        MissingML = 200;

    /// <summary>The story as notes of the trace: what the owner said, then what was seen.</summary>
    /// <param name="story">The story.</param>
    public static IReadOnlyList<TraceNote> Of(Story story)
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

        // An age in days stands before a word.
        var old = story.FuelAgeDays is { } days ? days >= OldFuelDays : story.Fuel == FuelSaid.Old;
        if (story.Fuel != FuelSaid.NotSaid || story.FuelAgeDays is not null)
        {
            said.Add(new("fuel-smells-stale", old ? Said.Present : Said.Absent, Doubtful: true));
        }

        if (story.Occurs != Occurs.NotSaid)
        {
            said.Add(new("only-cold", story.Occurs == Occurs.OnlyCold ? Said.Present : Said.Absent));
            said.Add(new("only-warm", story.Occurs == Occurs.OnlyWarm ? Said.Present : Said.Absent));
        }

        if (
            story is { TankThenML: { } then, TankNowML: { } now }
            && then - now >= MissingML
            && story.Complaints.All(id => id != "tank-lost-fuel")
        )
        {
            said.Add(new("tank-lost-fuel", Said.Present));
        }

        var notes = new List<TraceNote>();
        if (said.Count > 0)
        {
            notes.Add(new FindingsNote("owner-story", said, FromOwner: true));
        }

        if (story.Tried?.Count > 0 || story.Offered?.Count > 0)
        {
            notes.Add(new ToldNote(story.Tried ?? [], story.Offered ?? []));
        }

        if (story.Oil != OilFound.NotLooked)
        {
            notes.Add(new FindingsNote("oil-check", [new("fuel-in-oil", story.Oil == OilFound.FuelInIt ? Said.Present : Said.Absent)]));
        }

        return notes;
    }
}
