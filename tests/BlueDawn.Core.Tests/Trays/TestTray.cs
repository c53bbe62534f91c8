using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>A tray written the way a test reads: what was recorded on it, in order.</summary>
internal sealed class TestTray
{
    private static readonly DateTimeOffset Start = new(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);
    private int minute;

    public TestTray(SpecSheet? sheet, CarburetorKind? kind = null) => Facts = Sheets.FactsOf(sheet, kind);

    public TrayFacts Facts { get; set; }

    public TrayContext Context { get; set; } =
        new(Sheets.Shop, PinSet.Empty, FaultHistory.None, new DateOnly(2026, 11, 2), Knowledge.Shipped);

    public Log Log { get; private set; } = Log.Empty;

    public TrayBook Book => StationList.Open(Facts, Context, Log);

    public NextStep Next => Policy.Next(Book);

    /// <summary>A float bowl with its sheet, not taken apart, and it has been said.</summary>
    public static TestTray Untouched() => new TestTray(Sheets.Spec).Does(new Parts.JobNote("closed"));

    /// <summary>The same with a kit that was decided on: new parts went in.</summary>
    public static TestTray Renewed() => Untouched().Fits(new(Core.Parts.FitOption.Kit, "kit", [], [], null, 0));

    /// <summary>Every line with the reading of that name, judged.</summary>
    public static IReadOnlyList<JudgedLine> Judged(IReadOnlyDictionary<string, TypedReading> readings) =>
        Untouched().Reads(readings).Book.Lines;

    /// <summary>What has been decided to fit.</summary>
    public TestTray Fits(Core.Parts.Fitting fitting)
    {
        Facts = Facts with { Fitting = fitting };
        return this;
    }

    /// <summary>Every reading of a set, in bench order.</summary>
    public TestTray Reads(IReadOnlyDictionary<string, TypedReading> readings)
    {
        foreach (var (line, typed) in readings)
        {
            Does(new ReadingNote(line, typed));
        }

        return this;
    }

    /// <summary>Records a note that must not be refused.</summary>
    public TestTray Does(Note note, Guid? supersedes = null) => Does(note, out _, supersedes);

    public TestTray Does(Note note, out Guid id, Guid? supersedes = null)
    {
        Assert.Null(Refuses(note, supersedes));
        return Adds(note, out id, supersedes);
    }

    /// <summary>Adds a note whatever the rules say of it.</summary>
    public TestTray Adds(Note note, out Guid id, Guid? supersedes = null)
    {
        var at = Start.AddMinutes(++minute);
        id = Guid.CreateVersion7(at);
        var written = Writing.Write(new NewEntry(id, at, note, supersedes), Book, "Ilse", at);
        (Facts, Log) = (written.Facts, Log.With(written.Entry));
        return this;
    }

    public TestTray Adds(Note note) => Adds(note, out _);

    /// <summary>Why a note is refused, or null.</summary>
    public Refusal? Refuses(Note note, Guid? supersedes = null, Role? role = Role.Lead) =>
        Writing.Refuses(
            new NewEntry(Guid.CreateVersion7(), Start.AddMinutes(minute + 1), note, supersedes),
            Book,
            role is { } has ? Roles.Allow(has) : []
        );
}
