using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Pages;

/// <summary>What is being typed.</summary>
/// <param name="LineKey">The line it is typed on.</param>
/// <param name="Typed">Its boxes.</param>
public sealed record ReadingDraft(string LineKey, TypedReading Typed);

/// <summary>What a draft would say.</summary>
/// <param name="Reading">What it was understood as; null when it could not be.</param>
/// <param name="Judgement">What it says.</param>
/// <param name="Problems">What is wrong with it, box by box.</param>
/// <param name="Slips">Numbers so far from the sheet that they are asked about before they are recorded.</param>
public sealed record DraftJudgement(Reading? Reading, Judgement? Judgement, IReadOnlyList<FieldProblem> Problems, IReadOnlyList<Slip> Slips)
{
    /// <summary>
    /// What a draft says: judged on the path of an entry, on everything that the logbook says was done, so that it reads the
    /// same once it is recorded. Null when there is no such line.
    /// </summary>
    /// <param name="draft">What is being typed.</param>
    /// <param name="tray">The tray as it stands.</param>
    public static DraftJudgement? Of(ReadingDraft draft, TrayBook tray)
    {
        if (tray.Lines.FirstOrDefault(judged => judged.Line.Key == draft.LineKey)?.Line is not { } line)
        {
            return null;
        }

        var note = new ReadingNote(draft.LineKey, draft.Typed);
        var complete = (ReadingNote)StationList.KindOf(note).Complete(note, tray);
        var reading = complete.Reading;
        return new DraftJudgement(
            reading,
            reading is null ? null : complete.Standing(line.Judge(reading, tray.Context.Pins)),
            line.Wrong(draft.Typed),
            reading is null ? [] : Slip.Find(line, draft.Typed)
        );
    }
}
