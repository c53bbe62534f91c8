using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;

namespace BlueDawn.Core.Stations;

/// <summary>
/// One gauge line of a tray's worksheet: what is measured, against what, how it is typed and how it is judged.
/// A new kind of measurement is a new class in the room of its station.
/// </summary>
/// <param name="Key">Stable name within the tray: station and part, such as <c>gauging/main-jet</c>.</param>
/// <param name="Station">Where it is measured.</param>
/// <param name="Section">The heading it stands under on its station's sheet.</param>
/// <param name="Label">What is measured.</param>
public abstract record GaugeLine(string Key, Station Station, string Section, string Label)
{
    /// <summary>What it should be, in words.</summary>
    public abstract Sentence Target { get; }

    /// <summary>The window on the line's scale, or null for a line without a scale.</summary>
    public abstract Span? Window { get; }

    /// <summary>What is asked for.</summary>
    public abstract EntryForm Form { get; }

    /// <summary>Where the limits come from: the spec sheet or the shop's defaults.</summary>
    public abstract string LimitSource { get; }

    /// <summary>The caution that belongs to this measurement, or null.</summary>
    public virtual Caution? Caution => null;

    /// <summary>Whether the engine runs while it is read.</summary>
    public virtual bool Running => false;

    /// <summary>The bench part it measures, by its key in the ledger; null when it is no one part's.</summary>
    public virtual string? Part => null;

    /// <summary>What a number in a box should be about by the sheet; null for a box that it does not speak of.</summary>
    /// <param name="field">The box's name, without its row.</param>
    public virtual Expected? ExpectedIn(string field) => null;

    /// <summary>Whether the tray can be released without it.</summary>
    public virtual bool Required => true;

    /// <summary>Whether it stands aside until somebody wants it.</summary>
    public virtual bool StandsAside => !Required;

    /// <summary>Whether it is asked only while the machine is in the shop: unread on a tray that was handed back it is not
    /// listed.</summary>
    public virtual bool GoesWithTheTray => false;

    /// <summary>Whether it reads the carburetor as a whole: then work on any part of it stands behind the reading.</summary>
    public bool IsOfTheWhole => Station == Station.Proving;

    /// <summary>Whether it is a quick test of the machine as it came in: reading it takes no hand to the carburetor.</summary>
    public bool IsQuickTest => Station == Station.Faults;

    /// <summary>Whether it is offered while nothing was read on it.</summary>
    public virtual bool IsOffered => true;

    /// <summary>Whether what it records stays in the book: it is neither corrected nor taken back.</summary>
    public virtual bool ForGood => false;

    /// <summary>When what it measures was last made another: what was read before that no longer says how it is.</summary>
    public virtual DateTimeOffset? MadeAnotherAt => null;

    /// <summary>The line as it is after what the logbook says was done.</summary>
    /// <param name="log">The tray's logbook.</param>
    public virtual GaugeLine After(Log log) => this;

    /// <summary>What is said of it on the report when nothing was read.</summary>
    public virtual string NotReadWords => "was not read";

    /// <summary>Reads what was typed.</summary>
    public abstract ReadReading Read(TypedReading typed);

    /// <summary>What is wrong with what was typed, each said with the box it is about; empty when it can be recorded.</summary>
    /// <param name="typed">What was typed.</param>
    public IReadOnlyList<FieldProblem> Wrong(TypedReading typed) => [.. Read(typed).Problems.Select(Named)];

    /// <summary>A box that was left empty says what is missing in it.</summary>
    private FieldProblem Named(FieldProblem problem)
    {
        var name = problem.Field[(problem.Field.LastIndexOf('.') + 1)..];
        var field = Form.Groups.SelectMany(group => group.Fields).Concat(Form.Rows?.Columns ?? []).FirstOrDefault(one => one.Name == name);
        return problem.Message == TypedReader.NotChosen && field is not null
                ? problem with
                {
                    Message =
                        $"Say which: {string.Join(" or ", field.Choices.Select(choice => char.ToLowerInvariant(choice.Label[0]) + choice.Label[1..]))}.",
                }
            : problem.Message == MeasureEntry.Empty && field is not null ? problem with { Message = $"Enter a number for “{field.Label}”." }
            : problem;
    }

    /// <summary>Judges a reading of this line.</summary>
    /// <param name="reading">A reading that <see cref="Read"/> gave for this line, or null for none.</param>
    /// <param name="pins">The pins the technician has at hand.</param>
    public abstract Judgement Judge(Reading? reading, PinSet pins);

    /// <summary>What was read, in a few words, such as <c>0.65 mm goes, 0.67 mm stops</c>.</summary>
    /// <param name="reading">A reading that <see cref="Read"/> gave for this line.</param>
    public abstract Sentence Describe(Reading reading);

    private protected static ReadReading Result(TypedReader reader, Func<Reading> reading) =>
        reader.Problems.Count > 0 ? new ReadReading(null, reader.Problems) : new ReadReading(reading(), []);
}
