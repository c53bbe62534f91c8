using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;

namespace BlueDawn.Core.Stations;

/// <summary>What was seen.</summary>
/// <param name="Seen">The answer's value.</param>
public sealed record LookReading(string Seen) : Reading;

/// <summary>A look as a line of the sheet: one touch says what was seen.</summary>
/// <param name="At">The station it is taken at.</param>
/// <param name="Folder">What its key begins with: the station's word.</param>
/// <param name="Look">What is looked at.</param>
public sealed record LookLine(Station At, string Folder, Look Look)
    : GaugeLine<LookReading>($"{Folder}/{Look.Key}", At, Look.Section, Look.Label)
{
    /// <inheritdoc/>
    public override string? Part => Look.Part;

    /// <inheritdoc/>
    public override bool Required => Look.Required;

    /// <summary>Whether a part that asks for it went in new.</summary>
    public bool NewFitted { get; init; }

    /// <inheritdoc/>
    public override bool IsOffered => Look.AskedOnceNew.Count == 0 || NewFitted;

    /// <summary>What is looked at only when something is new is asked once it is in.</summary>
    /// <inheritdoc/>
    public override GaugeLine After(Log log) =>
        Look.AskedOnceNew.Count > 0
        && log.Notes<PartNote>()
            .GroupBy(logged => logged.Note.Part)
            .Any(part => Look.IsAskedBy(part.Key) && part.Last().Note is BackNote { Fate: Fate.Renewed or Fate.Made })
            ? this with
            {
                NewFitted = true,
            }
            : this;

    /// <inheritdoc/>
    public override bool Running => Look.Caution == Safety.Caution.Running;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override string NotReadWords => "was not looked at";

    /// <inheritdoc/>
    public override LineLimits Limits => new(Sentence.Of(Look.Answers[0].Label.ToLowerInvariant()), null, "Common practice");

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => [.. Look.Answers.Select(answer => answer.Finding)];

    private LineBox<string> SeenBox =>
        Box.Choice("seen", "seen", [.. Look.Answers.Select(answer => (answer.Value, answer.Value, answer.Label))]);

    /// <inheritdoc/>
    protected override LineForm<LookReading> Boxes =>
        new(new BoxGroup("look", "Look", SeenBox), boxes => new LookReading(boxes.Get(SeenBox))) { OneTouch = true };

    /// <inheritdoc/>
    public override Caution? Caution => Look.Caution;

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of(Look.Ask);

    /// <inheritdoc/>
    protected override Sentence Describe(LookReading reading) => Answer(reading) is { } answer ? Sentence.Of(answer.Label) : Sentence.None;

    // An answer that the table no longer has says nothing.
    /// <inheritdoc/>
    protected override Judgement Judge(LookReading reading, PinSet pins) =>
        Answer(reading) is { } answer
            ? answer.Finding.Judged(
                Sentence.Of(answer.Next),
                why: [Sentence.Of(answer.Why), Sentence.Of($"{char.ToUpperInvariant(answer.Source[0])}{answer.Source[1..]}.")]
            )
            : LineFinding.NotRead.Judged(Ask);

    private LookAnswer? Answer(LookReading reading) => Look.Answers.FirstOrDefault(answer => answer.Value == reading.Seen);
}
