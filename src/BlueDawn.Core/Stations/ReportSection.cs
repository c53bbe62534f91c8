using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Stations;

/// <summary>What a station adds to the report.</summary>
public abstract record ReportSection;

/// <summary>Where on the report something stands, in the order it is read. What the owner reads comes first, on a page of its own.</summary>
public enum ReportChapter
{
    /// <summary>What the owner told us.</summary>
    Told,

    /// <summary>What was wrong, and what was done about it.</summary>
    Wrong,

    /// <summary>What else was tried, by others and here, and did not cure it.</summary>
    Tried,

    /// <summary>What was done besides.</summary>
    Done,

    /// <summary>Run, or not run, and how long.</summary>
    Run,

    /// <summary>Left open, with the reason.</summary>
    Left,

    /// <summary>What to watch, habits of the machine, storage.</summary>
    Watch,

    /// <summary>What is still to come.</summary>
    ToCome,

    /// <summary>For the next technician: what was found.</summary>
    Found,

    /// <summary>For the next technician: parts, how they went back.</summary>
    Parts,

    /// <summary>For the next technician: screws as they were left.</summary>
    Screws,
}

/// <summary>A point of the report.</summary>
/// <param name="Chapter">Where it stands.</param>
/// <param name="Words">What it says.</param>
public sealed record ReportPoint(ReportChapter Chapter, Sentence Words)
{
    /// <summary>A point without numbers.</summary>
    /// <param name="chapter">Where it stands.</param>
    /// <param name="words">What it says.</param>
    public static ReportPoint Of(ReportChapter chapter, string words) => new(chapter, Sentence.Say($"{words}"));
}

/// <summary>Points of any chapters: what a station has to say in words.</summary>
/// <param name="Points">The points, in the order they are read.</param>
public sealed record PointsSection(IReadOnlyList<ReportPoint> Points) : ReportSection;

/// <summary>Gauge lines.</summary>
/// <param name="Lines">Every line with what was read on it.</param>
public sealed record LinesSection(IReadOnlyList<ReportLine> Lines) : ReportSection;

/// <summary>What was wrong.</summary>
/// <param name="Faults">The faults that were found.</param>
/// <param name="NothingFound">True when the trace was closed without a cause.</param>
/// <param name="AsItCame">Keys of quick tests whose every finding has been put right since: how it came in, not how it left.</param>
public sealed record FaultsSection(IReadOnlyList<ReportFault> Faults, bool NothingFound, IReadOnlySet<string> AsItCame) : ReportSection;

/// <summary>What was fitted out of the catalogue.</summary>
/// <param name="Kit">The kit, or null when there is none.</param>
/// <param name="Declined">True when it was decided not to repair it.</param>
public sealed record KitSection(ReportKit? Kit, bool Declined) : ReportSection;

/// <summary>What became of the parts that were out.</summary>
/// <param name="Parts">The parts that are worth telling.</param>
/// <param name="Fates">How every part that was out ended, by its key in the ledger.</param>
public sealed record PartsSection(IReadOnlyList<ReportPart> Parts, IReadOnlyDictionary<string, Fate> Fates) : ReportSection;

/// <summary>The kit that was used.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Price">What it cost; null when not all that was decided on went in, and its share is not known.</param>
/// <param name="Currency">Currency, ISO 4217.</param>
/// <param name="Parts">What is in it, as far as it went in.</param>
public sealed record ReportKit(string Number, string Name, decimal? Price, string Currency, IReadOnlyList<string> Parts);

/// <summary>What was wrong, on the report.</summary>
/// <param name="Label">What.</param>
/// <param name="Fix">What was done about it.</param>
/// <param name="Referred">True when it is not this bench's work.</param>
public sealed record ReportFault(string Label, string Fix, bool Referred);

/// <summary>What became of a part that was out.</summary>
/// <param name="Label">The part.</param>
/// <param name="Fate">How it ended.</param>
/// <param name="Item">The kit or item a new one is from.</param>
/// <param name="TurnsEighths">Turns it was set to, in eighths.</param>
/// <param name="Reason">Why, where a reason was needed.</param>
/// <param name="By">Who fitted it.</param>
public sealed record ReportPart(string Label, Fate Fate, string? Item, int? TurnsEighths, string? Reason, string By);

/// <summary>A reading on the report.</summary>
/// <param name="What">What was read.</param>
/// <param name="Word">What it said, in a word.</param>
/// <param name="Verdict">What it said.</param>
/// <param name="TakenAt">When.</param>
/// <param name="TakenBy">By whom.</param>
/// <param name="Corrected">True when it was corrected or withdrawn later.</param>
/// <param name="AsLeft">True when it says how the thing was left after work, false when it says how it was found.</param>
public sealed record ReportReading(
    Sentence What,
    string Word,
    Verdict Verdict,
    DateTimeOffset TakenAt,
    string TakenBy,
    bool Corrected,
    bool AsLeft = false
);

/// <summary>A line on the report.</summary>
/// <param name="Key">The line's key.</param>
/// <param name="Station">Where it is measured.</param>
/// <param name="Section">Its heading.</param>
/// <param name="Label">What is measured.</param>
/// <param name="Target">What it should be.</param>
/// <param name="LimitSource">Where the limits are from.</param>
/// <param name="Verdict">What the reading that counts says.</param>
/// <param name="Word">The same in a word.</param>
/// <param name="Finding">What was found, for scripts.</param>
/// <param name="Figures">The numbers behind it.</param>
/// <param name="Standing">The reading that counts, or null.</param>
/// <param name="Before">Every other reading, oldest first.</param>
public sealed record ReportLine(
    string Key,
    Station Station,
    string Section,
    string Label,
    Sentence Target,
    string LimitSource,
    Verdict Verdict,
    string Word,
    string Finding,
    IReadOnlyList<Figure> Figures,
    ReportReading? Standing,
    IReadOnlyList<ReportReading> Before
)
{
    /// <summary>A judged line with its whole history.</summary>
    /// <param name="judged">The line.</param>
    /// <param name="log">The tray's logbook.</param>
    public static ReportLine Of(JudgedLine judged, Log log)
    {
        var line = judged.Line;
        var asLeft = judged.Readings.Where(reading => reading.AsLeft).Select(reading => reading.EntryId).ToHashSet();
        var all = log
            .Entries.Where(entry => entry.Note is ReadingNote { Reading: not null } note && note.Line == line.Key)
            .Select(entry =>
            {
                var note = (ReadingNote)entry.Note;
                var reading = note.Reading!;
                var judgement = line.Judge(reading, PinSet.Empty);
                return new ReportReading(
                    line.Describe(reading),
                    note.Without is { Count: > 0 } off ? $"{judgement.Word}, without {string.Join(", ", off)}" : judgement.Word,
                    judgement.Verdict,
                    entry.TakenAt,
                    entry.By,
                    log.IsSuperseded(entry.Id),
                    asLeft.Contains(entry.Id)
                );
            })
            .ToList();
        var standing = all.LastOrDefault(reading => !reading.Corrected);
        return new ReportLine(
            line.Key,
            line.Station,
            line.Section,
            line.Label,
            line.Target,
            line.LimitSource,
            judged.Judgement.Verdict,
            judged.Judgement.Word,
            judged.Judgement.Finding,
            judged.Judgement.Figures,
            standing,
            // What was a slip or was taken back was never so: the logbook keeps it, the owner's report does not.
            [.. all.Where(reading => reading != standing && !reading.Corrected)]
        );
    }
}
