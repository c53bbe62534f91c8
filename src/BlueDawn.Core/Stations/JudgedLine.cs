using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>A reading that counts, with what it said.</summary>
/// <param name="EntryId">Its logbook entry.</param>
/// <param name="LineKey">Its line.</param>
/// <param name="Finding">What was found.</param>
/// <param name="TakenAt">When.</param>
/// <param name="AsLeft">True when something had been done before it: it says how the thing was left, not how it was found.</param>
public sealed record JudgedReading(Guid EntryId, string LineKey, string Finding, DateTimeOffset TakenAt, bool AsLeft);

/// <summary>A line with its readings and what the last of them says.</summary>
/// <param name="Line">The line.</param>
/// <param name="Standing">The reading that counts now, or null while there is none.</param>
/// <param name="Judgement">What it says.</param>
/// <param name="Readings">Every reading that was not corrected or withdrawn, oldest first; the last is the one that counts now.</param>
public sealed record JudgedLine(GaugeLine Line, Logged<ReadingNote>? Standing, Judgement Judgement, IReadOnlyList<JudgedReading> Readings)
{
    /// <summary>Whether what it measures was opened in the job that was chosen, or is tried anyway.</summary>
    public bool InScope { get; init; } = true;

    /// <summary>Whether another line that was read and is good stands for it.</summary>
    public bool StoodFor { get; init; }

    /// <summary>Whether it has to be read on this job before the tray goes.</summary>
    public bool Required => Line.Required && InScope && !StoodFor;

    /// <summary>Whether it would have to be read and is not, because what it measures was left shut on this job.</summary>
    public bool LeftShut => Line.Required && !InScope;

    /// <summary>Whether it stands aside until somebody wants it.</summary>
    public bool StandsAside => Line.StandsAside || (Line.Required && !Required);

    /// <summary>The reading that counts now, or null.</summary>
    public Reading? Reading => Standing?.Note.Reading;

    /// <summary>
    /// True while the line still needs hands: nothing read, not good, or not decided. A line that need not be read needs
    /// them once it was read and is not good.
    /// </summary>
    public bool IsOpen => Required ? Judgement.Verdict != Verdict.Good : Judgement.Verdict == Verdict.NotGood;

    /// <summary>Whether it counts: it has to be read, or it has been.</summary>
    public bool Counts => Required || Judgement.Verdict != Verdict.NotRead;

    /// <summary>Judges lines by what has been read on them.</summary>
    /// <param name="lines">The lines, in bench order.</param>
    /// <param name="log">The tray's logbook.</param>
    /// <param name="pins">The reader's own pins.</param>
    /// <param name="workBegan">When something was first done to the carburetor, or null.</param>
    public static IReadOnlyList<JudgedLine> Judge(IEnumerable<GaugeLine> lines, Log log, PinSet pins, DateTimeOffset? workBegan)
    {
        var byLine = log.Notes<ReadingNote>().ToLookup(logged => logged.Note.Line);
        var judged = lines
            .Select(line =>
            {
                var readings = byLine[line.Key].ToList();
                return (
                    Line: line,
                    Readings: readings,
                    Judgements: readings.Select(logged => line.Judge(logged.Note.Reading, pins)).ToList()
                );
            })
            .ToList();
        // Whoever reads a line again that was not good has set something in between.
        var setAt = judged.ToDictionary(
            one => one.Line.Key,
            one =>
                one.Judgements.FindIndex(judgement => judgement.Verdict == Verdict.NotGood) is >= 0 and var bad
                && bad + 1 < one.Readings.Count
                    ? one.Readings[bad + 1].TakenAt
                    : (DateTimeOffset?)null
        );
        var anySet = setAt.Values.Min();
        return
        [
            .. judged.Select(one =>
            {
                var (line, readings, judgements) = one;
                var stands = readings.Count > 0 && !(readings[^1].TakenAt < line.MadeAnotherAt);
                return new JudgedLine(
                    line,
                    stands ? readings[^1] : null,
                    stands ? readings[^1].Note.Standing(judgements[^1]) : line.Judge(null, pins),
                    [
                        .. readings.Select(
                            (logged, i) =>
                                new JudgedReading(
                                    logged.EntryId,
                                    line.Key,
                                    judgements[i].Finding,
                                    logged.TakenAt,
                                    workBegan <= logged.TakenAt || (line.IsOfTheWhole ? anySet : setAt[line.Key]) <= logged.TakenAt
                                )
                        ),
                    ]
                );
            }),
        ];
    }
}
