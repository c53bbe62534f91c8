using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;

namespace BlueDawn.Core.Stations;

/// <summary>The one thing to do next on a tray, why, and the caution that belongs to it.</summary>
/// <param name="Station">Where it is done.</param>
/// <param name="LineKey">The gauge line it is about, or null.</param>
/// <param name="LineLabel">The line's name, or null.</param>
/// <param name="Do">What to do.</param>
/// <param name="Why">Why this and not something else.</param>
/// <param name="Answers">Quick answers that would settle it.</param>
/// <param name="Caution">The caution, or null.</param>
public sealed record NextStep(
    Station Station,
    string? LineKey,
    string? LineLabel,
    Sentence Do,
    Sentence Why,
    IReadOnlyList<QuickAnswer> Answers,
    Caution? Caution
)
{
    /// <summary>A step in plain words.</summary>
    /// <param name="station">Where it is done.</param>
    /// <param name="what">What to do.</param>
    /// <param name="why">Why.</param>
    /// <param name="caution">The caution, or null.</param>
    public static NextStep At(Station station, string what, string why, Caution? caution) =>
        Plain(station, Sentence.Of(what), Sentence.Of(why), caution);

    /// <summary>What an open line asks for.</summary>
    /// <param name="open">The line.</param>
    public static NextStep Of(JudgedLine open) =>
        new(
            open.Line.Station,
            open.Line.Key,
            open.Line.Label,
            open.Judgement.DoNext,
            open.Judgement.Verdict switch
            {
                Verdict.CannotTell => open.Judgement.Why.Count > 0 ? open.Judgement.Why[0] : Sentence.None,
                Verdict.NotGood => Sentence.Of(
                    $"{open.Judgement.Word}. {open.Line.Target.Text}".TrimEnd(),
                    [.. open.Line.Target.Quantities]
                ),
                // What is looked at is right as it stands in the answer's own words.
                Verdict.NotRead or Verdict.Good when open.Line.Form.OneTouch => Sentence.Of(
                    "Right: " + open.Line.Target.Text + ".",
                    [.. open.Line.Target.Quantities]
                ),
                Verdict.NotRead or Verdict.Good => Sentence.Of(
                    "Should be " + open.Line.Target.Text + ".",
                    [.. open.Line.Target.Quantities]
                ),
            },
            // What is one touch beside the boxes is not what is next: a press meant to lead on would record it.
            open.Judgement.Verdict == Verdict.NotRead
                ? []
                : open.Judgement.Answers,
            open.Line.Caution
        );

    private static NextStep Plain(Station station, Sentence what, Sentence why, Caution? caution) =>
        new(station, null, null, what, why, [], caution);
}
