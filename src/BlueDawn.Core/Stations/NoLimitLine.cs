using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;

namespace BlueDawn.Core.Stations;

/// <summary>
/// Something that is measured though nobody knows yet what it should be: it is typed and kept like the line it stands in
/// for, under the same key, and judged by that line as soon as a sheet gives the limit.
/// </summary>
/// <param name="Like">The line it will be. Its limits are never shown and never judged by.</param>
public sealed record NoLimitLine(GaugeLine Like) : GaugeLine(Like.Key, Like.Station, Like.Section, Like.Label)
{
    /// <summary>What is said of its reading.</summary>
    public const string Word = "No limit";

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("No limit known");

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override EntryForm Form => Like.Form;

    /// <inheritdoc/>
    public override string LimitSource => "No sheet gives one";

    /// <inheritdoc/>
    public override Caution? Caution => Like.Caution;

    /// <inheritdoc/>
    public override bool Running => Like.Running;

    /// <inheritdoc/>
    public override string? Part => Like.Part;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool StandsAside => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed) => Like.Read(typed);

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) => Like.Describe(reading);

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins) =>
        reading is null
            ? Judgement.NotRead(Like.Judge(null, pins).DoNext)
            : new Judgement(
                Verdict.CannotTell,
                "noLimit",
                Word,
                Lean.None,
                Sentence.Of("It is kept. Put its limit on a sheet and it is judged at once."),
                // How far it has been proven does not hang on a limit.
                Like.Judge(reading, pins).Found,
                [],
                [Sentence.Of("No sheet gives a limit for it, and none is usual.")],
                []
            );
}
