using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
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
    /// <summary>What it is held against; null where nobody knows: then it is kept, and judged once a sheet says.</summary>
    public abstract LineLimits? Limits { get; }

    /// <summary>What it should be, in words.</summary>
    public Sentence Target => Limits?.Target ?? Sentence.Of("No limit known");

    /// <summary>The window on the line's scale, or null for a line without a scale.</summary>
    public Span? Window => Limits?.Window;

    /// <summary>Where the limits come from: the spec sheet or the shop's defaults.</summary>
    public string LimitSource => Limits?.Source ?? "No sheet gives one";

    /// <summary>What is asked for.</summary>
    public abstract EntryForm Form { get; }

    /// <summary>Everything it can find.</summary>
    public abstract IReadOnlyList<LineFinding> Findings { get; }

    /// <summary>The caution that belongs to this measurement, or null.</summary>
    public virtual Caution? Caution => null;

    /// <summary>Whether the engine runs while it is read.</summary>
    public virtual bool Running => false;

    /// <summary>The bench part it measures, by its key in the ledger; null when it is no one part's.</summary>
    public virtual string? Part => null;

    /// <summary>What it proves of a carburetor that is together again, or null.</summary>
    public virtual Proof? Proves => null;

    /// <summary>What a number in a box should be about by the sheet; null for a box that it does not speak of.</summary>
    /// <param name="field">The box's name, without its row.</param>
    public abstract Expected? ExpectedIn(string field);

    /// <summary>Whether the tray can be released without it.</summary>
    public virtual bool Required => true;

    /// <summary>Whether it stands aside until somebody wants it.</summary>
    public virtual bool StandsAside => Limits is not null && !Required;

    /// <summary>Lines that say the same in another way: read and good they stand for it, all of them, and it is not asked for.</summary>
    public virtual IReadOnlyList<string> StoodForBy => [];

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

    /// <summary>What stands against a reading on this tray, box by box; empty when it can be recorded.</summary>
    /// <param name="reading">A reading that <see cref="Read"/> gave for this line.</param>
    /// <param name="tray">The tray.</param>
    public abstract IReadOnlyList<FieldProblem> CheckOn(Reading reading, TrayBook tray);

    /// <summary>A reading with what the tray's logbook adds to it, as it is kept.</summary>
    /// <param name="reading">A reading that <see cref="Read"/> gave for this line.</param>
    /// <param name="tray">The tray before it.</param>
    public abstract Reading Complete(Reading reading, TrayBook tray);

    /// <summary>What stands on the tray once a reading is recorded.</summary>
    /// <param name="reading">A reading, complete.</param>
    /// <param name="tray">The tray before it.</param>
    public abstract TrayFacts FactsAfter(Reading reading, TrayBook tray);

    /// <summary>What stands on the tray once a reading is taken back.</summary>
    /// <param name="withdrawn">The reading that is taken back.</param>
    /// <param name="tray">The tray as if it had never been recorded.</param>
    public abstract TrayFacts FactsWithout(Reading withdrawn, TrayBook tray);
}

/// <summary>What a gauge line is held against.</summary>
/// <param name="Target">What it should be, in words.</param>
/// <param name="Window">The window on the line's scale, or null for a line without a scale.</param>
/// <param name="Source">Where that is from: the spec sheet, the shop's defaults, common practice.</param>
public sealed record LineLimits(Sentence Target, Span? Window, string Source);

/// <summary>
/// A gauge line with its own kind of reading. Its boxes say form, limits, units and what is near; its findings are
/// declared; what is left to write is how it is judged.
/// </summary>
/// <typeparam name="TReading">Its reading.</typeparam>
/// <inheritdoc cref="GaugeLine"/>
public abstract record GaugeLine<TReading>(string Key, Station Station, string Section, string Label)
    : GaugeLine(Key, Station, Section, Label)
    where TReading : Reading
{
    /// <summary>Its boxes, and the reading that follows from them.</summary>
    protected abstract LineForm<TReading> Boxes { get; }

    /// <summary>What to do to read it, one short sentence.</summary>
    protected abstract Sentence Ask { get; }

    /// <summary>Numbers that stand behind it before anything is read.</summary>
    protected virtual IReadOnlyList<Figure> FiguresBefore => [];

    /// <summary>What is to be known before anything is read.</summary>
    protected virtual IReadOnlyList<Sentence> WhyBefore => [];

    /// <summary>Quick answers for what needs no measuring, offered while nothing is read.</summary>
    protected virtual IReadOnlyList<QuickAnswer> AnswersBefore => [];

    /// <summary>What was read, in a few words.</summary>
    /// <param name="reading">The reading.</param>
    protected abstract Sentence Describe(TReading reading);

    /// <summary>Judges a reading.</summary>
    /// <param name="reading">The reading.</param>
    /// <param name="pins">The pins the technician has at hand.</param>
    protected abstract Judgement Judge(TReading reading, PinSet pins);

    /// <inheritdoc/>
    public sealed override EntryForm Form => Boxes.AsAsked();

    /// <inheritdoc/>
    public sealed override Expected? ExpectedIn(string field) => Boxes.Find(field)?.Expected;

    /// <inheritdoc/>
    public sealed override ReadReading Read(TypedReading typed) => Boxes.Read(typed);

    /// <inheritdoc/>
    public sealed override Judgement Judge(Reading? reading, PinSet pins) =>
        reading is TReading read
            ? Judge(read, pins)
            : LineFinding.NotRead.Judged(Ask, figures: FiguresBefore, why: WhyBefore, answers: AnswersBefore);

    /// <inheritdoc/>
    public sealed override Sentence Describe(Reading reading) => reading is TReading read ? Describe(read) : Sentence.None;

    /// <inheritdoc/>
    public sealed override IReadOnlyList<FieldProblem> CheckOn(Reading reading, TrayBook tray) =>
        reading is TReading read ? CheckOn(read, tray) : [];

    /// <inheritdoc/>
    public sealed override Reading Complete(Reading reading, TrayBook tray) => reading is TReading read ? Complete(read, tray) : reading;

    /// <inheritdoc/>
    public sealed override TrayFacts FactsAfter(Reading reading, TrayBook tray) =>
        reading is TReading read ? FactsAfter(read, tray) : tray.Facts;

    /// <inheritdoc/>
    public sealed override TrayFacts FactsWithout(Reading withdrawn, TrayBook tray) =>
        withdrawn is TReading read ? FactsWithout(read, tray) : tray.Facts;

    /// <summary>What stands against a reading on this tray.</summary>
    /// <inheritdoc cref="GaugeLine.CheckOn"/>
    protected virtual IReadOnlyList<FieldProblem> CheckOn(TReading reading, TrayBook tray) => [];

    /// <summary>A reading with what the tray's logbook adds to it.</summary>
    /// <inheritdoc cref="GaugeLine.Complete"/>
    protected virtual TReading Complete(TReading reading, TrayBook tray) => reading;

    /// <summary>What stands on the tray once a reading is recorded.</summary>
    /// <inheritdoc cref="GaugeLine.FactsAfter"/>
    protected virtual TrayFacts FactsAfter(TReading reading, TrayBook tray) => tray.Facts;

    /// <summary>What stands on the tray once a reading is taken back.</summary>
    /// <inheritdoc cref="GaugeLine.FactsWithout"/>
    protected virtual TrayFacts FactsWithout(TReading withdrawn, TrayBook tray) => tray.Facts;

    /// <summary>What is said of a reading that nobody knows a limit for; how far it has been proven does not hang on one.</summary>
    /// <param name="found">What the reading has proven.</param>
    protected static Judgement WithoutLimit(Span? found) =>
        LineFinding.NoLimit.Judged(
            Sentence.Of("It is kept. Put its limit on a sheet and it is judged at once."),
            found: found,
            why: [Sentence.Of("No sheet gives a limit for it, and none is usual.")]
        );
}
