namespace BlueDawn.Core.Stations;

/// <summary>How far a station has come on a tray.</summary>
/// <param name="Open">Things still to be done.</param>
/// <param name="Total">Things there are.</param>
/// <param name="Waiting">True when it has not begun, or waits for something else: then what is open calls nobody yet.</param>
/// <param name="Words">The same in a few words, for the strip.</param>
/// <param name="MinutesLeft">Hands-on minutes left, where that is known.</param>
public sealed record StationProgress(int Open, int Total, bool Waiting, string Words, double? MinutesLeft = null)
{
    /// <summary>Nothing left to do.</summary>
    /// <param name="words">In a few words.</param>
    /// <param name="total">Things there are.</param>
    public static StationProgress Done(string words, int total = 1) => new(0, total, false, words);

    /// <summary>Not begun yet.</summary>
    /// <param name="words">In a few words.</param>
    /// <param name="open">Things to be done.</param>
    public static StationProgress NotBegun(string words, int open = 1) => new(open, open, true, words);
}

/// <summary>How a station stands on a tray: what it concludes from the entries so far. Each station has its own.</summary>
public abstract class StationState
{
    /// <summary>Which station.</summary>
    public abstract Station Station { get; }

    /// <summary>How far it has come.</summary>
    public abstract StationProgress Progress { get; }

    /// <summary>What is to be done here next, or null when nothing is.</summary>
    public virtual NextStep? Step => null;

    /// <summary>What here stands in the way of handing back.</summary>
    public virtual IReadOnlyList<Obstacle> Obstacles => [];

    /// <summary>What is off, by name, while the engine is tried all the same, and bears on what is read at a station; empty when all is on, or
    /// when it must not be tried.</summary>
    /// <param name="at">The station.</param>
    public virtual IReadOnlyList<string> TriedWithout(Station at) => [];

    /// <summary>Parts that a new one is needed of for what was found, by their keys in the ledger; what Strip says itself is not among
    /// them.</summary>
    public virtual IReadOnlyList<string> PartsNeeded => [];

    /// <summary>What it adds to the report.</summary>
    public virtual IReadOnlyList<ReportSection> Report => [];
}

/// <summary>A station that reads gauge lines and nothing else.</summary>
/// <param name="station">Which station.</param>
/// <param name="tray">The tray.</param>
public class LinesState(Station station, TrayBook tray) : StationState
{
    /// <summary>The station's lines.</summary>
    public IReadOnlyList<JudgedLine> Lines { get; } = [.. tray.Lines.Where(line => line.Line.Station == station)];

    /// <inheritdoc/>
    public override Station Station => station;

    /// <inheritdoc/>
    public override StationProgress Progress
    {
        get
        {
            var open = Lines.Count(line => line.IsOpen);
            var counted = Lines.Count(line => line.Counts);
            return Lines.Count == 0 ? StationProgress.Done("no lines", 0)
                : counted == 0 && Lines.Any(line => !line.InScope) ? StationProgress.Done("not opened", 0)
                : counted == 0 ? StationProgress.Done("nothing asked", 0)
                : open == 0
                    ? StationProgress.Done(
                        Lines.Count(line => line.Judgement.Finding == LineFinding.NoLimit.Id) is > 0 and var kept
                            ? $"{kept} without a limit"
                            : "all good",
                        counted
                    )
                : new StationProgress(open, counted, false, $"{open} of {counted} open");
        }
    }

    /// <summary>What stands undecided first, then what is not good, then what has not been read.</summary>
    public override NextStep? Step
    {
        get
        {
            var open = Lines.Where(line => line.IsOpen).ToList();
            var first = open.FirstOrDefault(line => line.Judgement.Verdict == Verdict.CannotTell)
                ?? open.FirstOrDefault(line => line.Judgement.Verdict == Verdict.NotGood)
                ?? open.FirstOrDefault();
            return first is null ? null : NextStep.Of(first);
        }
    }

    /// <inheritdoc/>
    public override IReadOnlyList<Obstacle> Obstacles =>
        [
            .. Lines
                .Where(line => line.IsOpen)
                .Select(line => new Obstacle(
                    line.Line.Key,
                    line.Line.Label,
                    line.Line.Station,
                    line.Judgement.Verdict switch
                    {
                        Verdict.NotGood => ObstacleKind.Failing,
                        Verdict.CannotTell => ObstacleKind.Undecided,
                        Verdict.NotRead or Verdict.Good => ObstacleKind.Missing,
                    },
                    line.Judgement.Word
                )),
        ];

    /// <summary>Every line that was read or had to be.</summary>
    public override IReadOnlyList<ReportSection> Report =>
        [new LinesSection([.. Lines.Where(line => line.Counts).Select(line => ReportLine.Of(line, tray.Log))])];
}
