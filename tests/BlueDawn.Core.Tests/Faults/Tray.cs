using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>A tray under trace, written the way a test reads: what was answered, in order.</summary>
internal sealed class Tray(CarburetorKind kind)
{
    public static readonly TraceDefaults Shop = new(48, 5, 240);

    private static readonly DateTimeOffset Start = new(2026, 11, 24, 8, 0, 0, TimeSpan.Zero);
    private static readonly string[] Lines = [.. Trays.Sheets.Lines.Select(line => line.Key)];

    private readonly List<Logged<TraceNote>> notes = [];
    private readonly List<JudgedReading> readings = [];
    private int minute;

    public static Tray FloatBowl() => new(new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Manual));

    public FaultHistory History { get; set; } = FaultHistory.None;

    public CarburetorKind Kind => kind;

    public Tray Owner(params string[] findings) =>
        Note(new FindingsNote("owner-story", [.. findings.Select(id => new FindingAnswer(id, Said.Present))], true));

    public Tray Yes(params string[] findings) =>
        Note(new FindingsNote(null, [.. findings.Select(id => new FindingAnswer(id, Said.Present))]));

    public Tray No(params string[] findings) =>
        Note(new FindingsNote(null, [.. findings.Select(id => new FindingAnswer(id, Said.Absent))]));

    public Tray Note(TraceNote note)
    {
        notes.Add(new Logged<TraceNote>(Guid.CreateVersion7(), Start.AddMinutes(++minute), "Ilse", note));
        return this;
    }

    public Tray Fixed(string cause) => Note(new FaultNote(cause, FaultOutcome.Fixed));

    public Tray Read(string line, string judged)
    {
        readings.Add(
            new JudgedReading(
                Guid.CreateVersion7(),
                line,
                judged,
                Start.AddMinutes(++minute),
                notes.Any(note => note.Note is FaultNote { Outcome: FaultOutcome.Fixed })
            )
        );
        return this;
    }

    public Evidence Evidence() => Core.Faults.Evidence.Gather(FaultKnowledge.Shipped, kind, notes, readings, Lines, []);

    public Trace Trace() => Core.Faults.Trace.Of(FaultKnowledge.Shipped, kind, Shop, History, Evidence());

    public double P(string cause) => All().GetValueOrDefault(cause);

    /// <summary>What is thought of each cause now, by its id; one that is not weighed at all is not in it.</summary>
    public IReadOnlyDictionary<string, double> All() =>
        Trace().Causes.ToDictionary(standing => standing.Cause.Id, standing => standing.Probability);
}
