using BlueDawn.Core.Bench;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Logbook;

namespace BlueDawn.Core.Worksheets;

/// <summary>A reading that counts, with what it said.</summary>
/// <param name="EntryId">Its logbook entry.</param>
/// <param name="LineKey">Its line.</param>
/// <param name="Finding">What was found.</param>
/// <param name="TakenAt">When.</param>
public sealed record JudgedReading(Guid EntryId, string LineKey, string Finding, DateTimeOffset TakenAt);

/// <summary>A tray's whole worksheet, judged: the one place where readings, spec sheet and rules meet.</summary>
/// <param name="Lines">Every line with its standing reading, in bench order.</param>
/// <param name="History">The same lines with what was found on them before.</param>
/// <param name="Readings">Every reading that counts, oldest first.</param>
/// <param name="Next">The one thing to do next.</param>
/// <param name="Obstacles">What stands in the way of handing back.</param>
public sealed record JudgedWorksheet(
    IReadOnlyList<JudgedLine> Lines,
    IReadOnlyList<LineHistory> History,
    IReadOnlyList<JudgedReading> Readings,
    NextStep Next,
    IReadOnlyList<Obstacle> Obstacles)
{
    /// <summary>Judges everything in a tray's logbook.</summary>
    /// <param name="spec">The tray's spec sheet, or null while it has none.</param>
    /// <param name="shop">The shop's defaults.</param>
    /// <param name="pins">The reader's own pins.</param>
    /// <param name="hasKit">Whether it has been decided what to fit.</param>
    /// <param name="released">Whether the tray has been handed back.</param>
    /// <param name="logged">Its readings, corrections and withdrawals, any order.</param>
    /// <param name="work">What has been taken apart, cleaned and put together.</param>
    public static JudgedWorksheet Of(
        SpecSheet? spec, ShopDefaults shop, PinSet pins, bool hasKit, bool released, IEnumerable<LoggedReading> logged, TrayWork work)
    {
        var standing = StandingReadings.ByLine(logged);
        var history = new List<LineHistory>();
        var judgedReadings = new List<JudgedReading>();
        foreach (var line in spec is null ? [] : Worksheet.For(spec, shop))
        {
            var readings = standing.TryGetValue(line.Key, out var found) ? found : [];
            var judgements = readings.Select(entry => line.Judge(entry.Reading, pins)).ToList();
            var judged = new JudgedLine(
                line,
                readings.Count == 0 ? null : readings[^1].Reading,
                judgements.Count == 0 ? line.Judge(null, pins) : judgements[^1]);
            judgedReadings.AddRange(readings.Zip(judgements, (entry, judgement) => new JudgedReading(entry.Id, line.Key, judgement.Finding, entry.TakenAt)));
            history.Add(new LineHistory(judged, [.. judgements.SkipLast(1).Select(judgement => judgement.Finding)]));
        }

        IReadOnlyList<JudgedLine> lines = [.. history.Select(line => line.Line)];
        return new JudgedWorksheet(
            lines,
            history,
            [.. judgedReadings.OrderBy(reading => reading.TakenAt).ThenBy(reading => reading.EntryId)],
            NextStep.Of(spec is not null, hasKit, released, lines, work),
            ReleaseCheck.Obstacles(spec is not null, lines, work));
    }

    /// <summary>The worksheet of a machine that is not worth the repair: nothing has to be read before it goes back.</summary>
    public JudgedWorksheet Declined() => this with { Next = NextStep.Declined, Obstacles = [] };
}
