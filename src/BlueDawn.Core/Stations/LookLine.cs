using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;

namespace BlueDawn.Core.Stations;

/// <summary>What was seen.</summary>
/// <param name="Seen">The answer's value.</param>
public sealed record LookReading(string Seen) : Reading;

/// <summary>A look as a line of the sheet: one touch says what was seen.</summary>
/// <param name="At">The station it is taken at.</param>
/// <param name="Folder">What its key begins with: the station's word.</param>
/// <param name="Look">What is looked at.</param>
public sealed record LookLine(Station At, string Folder, Look Look) : GaugeLine($"{Folder}/{Look.Key}", At, Look.Section, Look.Label)
{
    /// <inheritdoc/>
    public override string? Part => Look.Part;

    /// <inheritdoc/>
    public override bool Required => Look.Required;

    /// <inheritdoc/>
    public override bool Running => Look.Caution == Safety.Caution.Running;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override string NotReadWords => "was not looked at";

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of(Look.Answers[0].Label.ToLowerInvariant());

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => "Common practice";

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "look",
                    "Look",
                    [
                        EntryField.Choice(
                            "seen",
                            "seen",
                            false,
                            [.. Look.Answers.Select(answer => new EntryChoice(answer.Value, answer.Label))]
                        ),
                    ]
                ),
            ],
            null,
            OneTouch: true
        );

    /// <inheritdoc/>
    public override Caution? Caution => Look.Caution;

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var seen = reader.Choice("seen", [.. Look.Answers.Select(answer => answer.Value)]);
        return Result(reader, () => new LookReading(seen));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) => Answer(reading) is { } answer ? Sentence.Of(answer.Label) : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins) =>
        Answer(reading) is not { } answer
            ? Judgement.NotRead(Sentence.Of(Look.Ask))
            : new Judgement(
                answer.Verdict,
                answer.Value,
                answer.Word,
                Lean.None,
                Sentence.Of(answer.Next),
                null,
                [],
                [Sentence.Of(answer.Why), Sentence.Of($"{char.ToUpperInvariant(answer.Source[0])}{answer.Source[1..]}.")],
                []
            );

    // An answer that the table no longer has says nothing.
    private LookAnswer? Answer(Reading? reading) =>
        reading is LookReading look ? Look.Answers.FirstOrDefault(answer => answer.Value == look.Seen) : null;
}
