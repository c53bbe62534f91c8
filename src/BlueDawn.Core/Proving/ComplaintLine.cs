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
public sealed record ComplaintReading(ComplaintState State, double? RanMin = null, double? FailedAfterMin = null) : Reading;

/// <summary>The owner's complaint tried again: gone or still there.</summary>
/// <param name="Complaint">The complaint.</param>
/// <param name="Try">How it is tried.</param>
/// <param name="FailedAfterMin">Minutes after which it used to fail, as it was told or timed; null when nobody knows.</param>
public sealed record ComplaintLine(Complaint Complaint, ComplaintTry Try, double? FailedAfterMin = null)
    : GaugeLine(Complaint.LineKey, Station.Proving, "What the owner complained of", $"“{Complaint.Label}”")
{
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
    public override Sentence Target => Try.RanMin is null ? Sentence.Of("gone") : Sentence.Of("gone, and runs longer than it took to fail");

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => "What the owner said";

    /// <inheritdoc/>
    public override bool Running => Try.Running;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override string NotReadWords => "was not tried again";

    /// <inheritdoc/>
    public override Caution? Caution => Try.Running ? Safety.Caution.Running : Safety.Caution.Vapour;

    /// <inheritdoc/>
    public override EntryForm Form
    {
        get
        {
            // Only words of the owner's own can be about nothing that can be tried.
            var states = States.Where(state => state.State != ComplaintState.NothingToTry || Complaint.Id == Complaint.Said);
            var choice = EntryField.Choice(
                "state",
                "tried again",
                false,
                [.. states.Select(state => new EntryChoice(state.Value, state.Label))]
            );
            return new EntryForm(
                [
                    new EntryGroup(
                        "complaint",
                        "Tried again",
                        Try.RanMin is null
                            ? [choice]
                            :
                            [
                                EntryField.Measure("failedAfter", "it failed after", Dimension.Minutes, optional: true),
                                EntryField.Measure("ran", "ran for", Dimension.Minutes),
                                choice,
                            ]
                    ),
                ],
                null
            );
        }
    }

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var failedAfter = Try.RanMin is null ? null : reader.Optional("failedAfter", Dimension.Minutes, 0, 600);
        decimal? ran = Try.RanMin is null ? null : reader.Required("ran", Dimension.Minutes, 0, 600);
        var state = reader.Choice("state", [.. Form.Groups[0].Fields[^1].Choices.Select(choice => choice.Value)]);
        return Result(reader, () =>
            new ComplaintReading(
                States.First(one => one.Value == state).State,
                (double?)ran,
                (double?)failedAfter ?? (Try.RanMin is null ? null : FailedAfterMin)
            )
        );
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading switch
        {
            ComplaintReading { RanMin: { } ran, FailedAfterMin: { } failed } tried => Sentence.Of(
                $"{Word(tried.State)}; ran {{0}}, used to fail after {{1}}",
                Quantity.Min(ran),
                Quantity.Min(failed)
            ),
            ComplaintReading { RanMin: { } ran } tried => Sentence.Of($"{Word(tried.State)}; ran {{0}}", Quantity.Min(ran)),
            ComplaintReading tried => Sentence.Of(Word(tried.State)),
            _ => Sentence.None,
        };

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not ComplaintReading tried)
        {
            return Judgement.NotRead(Sentence.Of(Try.How));
        }

        Judgement Said(Verdict verdict, string finding, string word, Sentence next, params Sentence[] why) =>
            new(
                verdict,
                finding,
                word,
                Lean.None,
                next,
                null,
                [],
                [Sentence.Of("It came in for this, so it does not go before this has been tried."), .. why],
                []
            );

        return tried.State switch
        {
            ComplaintState.StillThere => Said(
                Verdict.NotGood,
                Complaint.StillThere,
                "Still there",
                Sentence.Of("Go back to Trace: it counts there as found, after what has been done.")
            ),
            ComplaintState.NothingToTry => Said(Verdict.Good, "nothingToTry", "Nothing to try", Sentence.Of("Go on.")),
            ComplaintState.Gone when Try.RanMin is { } asked && TooShort(tried, asked) is { } longer => Said(
                Verdict.CannotTell,
                "cannotTell",
                "Cannot tell yet",
                longer,
                Sentence.Of("A run that ends before the time it took to fail has not passed that time.")
            ),
            ComplaintState.Gone => Said(Verdict.Good, Complaint.Gone, "Gone", Sentence.Of("Go on.")),
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
