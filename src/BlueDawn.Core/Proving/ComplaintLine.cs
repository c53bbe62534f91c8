using System.Text.Json.Serialization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Proving;

/// <summary>What became of a complaint.</summary>
public enum ComplaintState
{
    /// <summary>It is gone.</summary>
    Gone,

    /// <summary>It is still there.</summary>
    StillThere,

    /// <summary>There is nothing to try, such as where only a service was asked for.</summary>
    NothingToTry,
}

/// <summary>A complaint tried again.</summary>
/// <param name="State">What became of it.</param>
/// <param name="RanMin">Minutes it ran, where a time is asked.</param>
/// <param name="FailedAfterMin">Minutes after which it used to fail, where that is known.</param>
/// <param name="StoodMin">Minutes it stood with the fuel on, where that is asked.</param>
public sealed record ComplaintReading(ComplaintState State, double? RanMin = null, double? FailedAfterMin = null, double? StoodMin = null)
    : Reading
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override double? RanForMin => RanMin;
}

/// <summary>The owner's complaint tried again: gone or still there.</summary>
/// <param name="Complaint">The complaint.</param>
/// <param name="Try">How it is tried.</param>
/// <param name="FailedAfterMin">Minutes after which it used to fail, as it was told or timed; null when nobody knows.</param>
public sealed record ComplaintLine(Complaint Complaint, ComplaintTry Try, double? FailedAfterMin = null)
    : GaugeLine<ComplaintReading>(Complaint.LineKey, Station.Proving, "What the owner complained of", $"“{Complaint.Label}”")
{
    private static readonly LineFinding StillThere = LineFinding.Bad(Complaint.StillThere, "Still there");
    private static readonly LineFinding NothingToTry = LineFinding.Good("nothingToTry", "Nothing to try");
    private static readonly LineFinding Gone = LineFinding.Good(Complaint.Gone, "Gone");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [StillThere, NothingToTry, LineFinding.CannotTell, Gone];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    private static readonly (ComplaintState State, string Value, string Label)[] States =
    [
        (ComplaintState.Gone, "gone", "Gone"),
        (ComplaintState.StillThere, "stillThere", "Still there"),
        (ComplaintState.NothingToTry, "nothing", "Nothing to try"),
    ];

    /// <summary>What was timed at Trace stands before what was told.</summary>
    /// <inheritdoc/>
    public override GaugeLine After(Log log) =>
        log.Notes<ReadingNote>().Select(logged => logged.Note.Reading?.DiedAfterMin).LastOrDefault(died => died is not null) is { } timed
            ? this with
            {
                FailedAfterMin = timed,
            }
            : this;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Try switch
            {
                { RanMin: not null } => Sentence.Of("gone, and runs longer than it took to fail"),
                { StoodMin: { } stood } => Sentence.Of("gone, after {0} with the fuel on", Quantity.Min(stood)),
                { RanMin: null, StoodMin: null } => Sentence.Of("gone"),
            },
            null,
            "What the owner said"
        );

    /// <inheritdoc/>
    public override bool Running => Try.Running;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override string NotReadWords => "was not tried again";

    /// <inheritdoc/>
    public override Caution? Caution => Try.Running ? Safety.Caution.Running : Safety.Caution.Vapour;

    private static readonly LineBox<double?> FailedAfterBox = Box.Optional("failedAfter", "it failed after", Dimension.Minutes, 0, 600);
    private static readonly LineBox<double> StoodBox = Box.Number("stood", "stood with the fuel on", Dimension.Minutes, 0, 20_000);
    private static readonly LineBox<double> RanBox = Box.Number("ran", "ran for", Dimension.Minutes, 0, 600);

    // Only words of the owner's own can be about nothing that can be tried.
    private LineBox<ComplaintState> StateBox =>
        Box.Choice(
            "state",
            "tried again",
            [.. States.Where(state => state.State != ComplaintState.NothingToTry || Complaint.Id == Complaint.Said)]
        );

    /// <inheritdoc/>
    protected override LineForm<ComplaintReading> Boxes =>
        Try.StoodMin is not null
            ? new(new BoxGroup("complaint", "Tried again", StoodBox, StateBox), boxes => new ComplaintReading(
                boxes.Get(StateBox),
                StoodMin: boxes.Get(StoodBox)
            ))
        : Try.RanMin is null ? new(new BoxGroup("complaint", "Tried again", StateBox), boxes => new ComplaintReading(boxes.Get(StateBox)))
        : new(new BoxGroup("complaint", "Tried again", FailedAfterBox, RanBox, StateBox), boxes =>
        {
            var (failedAfter, ran) = (boxes.Get(FailedAfterBox), boxes.Get(RanBox));
            return new ComplaintReading(boxes.Get(StateBox), ran, failedAfter ?? FailedAfterMin);
        });

    /// <inheritdoc/>
    protected override Sentence Describe(ComplaintReading reading) =>
        reading switch
        {
            { RanMin: { } ran, FailedAfterMin: { } failed } tried => Sentence.Of(
                $"{Word(tried.State)}; ran {{0}}, used to fail after {{1}}",
                Quantity.Min(ran),
                Quantity.Min(failed)
            ),
            { StoodMin: { } stood } tried => Sentence.Of($"{Word(tried.State)}; stood {{0}} with the fuel on", Quantity.Min(stood)),
            { RanMin: { } ran } tried => Sentence.Of($"{Word(tried.State)}; ran {{0}}", Quantity.Min(ran)),
            var tried => Sentence.Of(Word(tried.State)),
        };

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of(Try.How);

    /// <inheritdoc/>
    protected override Judgement Judge(ComplaintReading tried, PinSet pins)
    {
        Judgement Said(LineFinding finding, Sentence next, params Sentence[] why) =>
            finding.Judged(next, why: [Sentence.Of("It came in for this, so it does not go before this has been tried."), .. why]);

        return tried.State switch
        {
            ComplaintState.StillThere => Said(
                StillThere,
                Sentence.Of("Go back to Trace: it counts there as found, after what has been done.")
            ),
            ComplaintState.NothingToTry => Said(NothingToTry, Sentence.Of("Go on.")),
            ComplaintState.Gone when Try.RanMin is { } asked && TooShort(tried, asked) is { } longer => Said(
                LineFinding.CannotTell,
                longer,
                Sentence.Of("A run that ends before the time it took to fail has not passed that time.")
            ),
            ComplaintState.Gone when Try.StoodMin is { } asked && (tried.StoodMin ?? 0) < asked => Said(
                LineFinding.CannotTell,
                Sentence.Of("Leave it standing with the fuel on for {0} in all, then look again.", Quantity.Min(asked)),
                Sentence.Of("What goes while it stands is not seen gone before it has stood.")
            ),
            ComplaintState.Gone => Said(Gone, Sentence.Of("Go on.")),
        };
    }

    private static Sentence? TooShort(ComplaintReading tried, double asked) =>
        (tried.RanMin ?? 0, tried.FailedAfterMin) switch
        {
            (var ran, { } failed) => ran > failed ? null : Sentence.Of("Run it past {0}, warm, and read again.", Quantity.Min(failed)),
            (var ran, null) => ran >= asked
                ? null
                : Sentence.Of("Run it for {0} in all, or write after how many it used to fail.", Quantity.Min(asked)),
        };

    private static string Word(ComplaintState state) => States.First(one => one.State == state).Label;
}
