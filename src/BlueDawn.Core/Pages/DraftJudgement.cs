using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Pages;

/// <summary>What is being typed.</summary>
internal sealed record ReadingDraft(string LineKey, TypedReading Typed);

/// <summary>What a draft would say.</summary>
/// <param name="Reading">What it was understood as; null when it could not be.</param>
/// <param name="Judgement">What it says.</param>
/// <param name="Problems">What is wrong with it, box by box.</param>
/// <param name="Slips">Numbers so far from the sheet that they are asked about before they are recorded.</param>
internal sealed record DraftJudgement(
    Reading? Reading,
    Judgement? Judgement,
    IReadOnlyList<FieldProblem> Problems,
    IReadOnlyList<Slip> Slips
)
{
    /// <summary>What a draft says; null when there is no such line.</summary>
    public static DraftJudgement? Of(ReadingDraft draft, TrayFacts facts, ShopDefaults shop, PinSet pins)
    {
        var line = StationList
            .All.SelectMany(station => station.Lines(facts, facts.MeasuredBy, shop))
            .FirstOrDefault(one => one.Key == draft.LineKey);
        if (line is null)
        {
            return null;
        }

        var read = line.Read(draft.Typed);
        return new DraftJudgement(
            read.Reading,
            read.Reading is null ? null : line.Judge(read.Reading, pins),
            line.Wrong(draft.Typed),
            read.Problems.Count > 0 ? [] : Slip.Find(line, draft.Typed)
        );
    }
}
