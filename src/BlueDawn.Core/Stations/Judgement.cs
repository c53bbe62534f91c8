using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>The three answers a reading can give, and none.</summary>
public enum Verdict
{
    /// <summary>No reading yet.</summary>
    NotRead,

    /// <summary>Good.</summary>
    Good,

    /// <summary>Not good.</summary>
    NotGood,

    /// <summary>The reading does not decide; the judgement names the check that would.</summary>
    CannotTell,
}

/// <summary>Which way a reading misses, for the form of its sign.</summary>
public enum Lean
{
    /// <summary>It does not miss, or has no direction.</summary>
    None,

    /// <summary>Below the window: too small, too low, too slow.</summary>
    Below,

    /// <summary>Above the window: too large, too high, too fast.</summary>
    Above,
}

/// <summary>A number behind a judgement.</summary>
/// <param name="Key">Stable name for exports, camel case with the unit left to the quantity.</param>
/// <param name="Label">What it is, in words.</param>
/// <param name="Quantity">The number.</param>
public sealed record Figure(string Key, string Label, Quantity Quantity);

/// <summary>A quick answer that would settle a line: press it instead of typing.</summary>
/// <param name="Label">What the technician saw, such as <c>0.315 goes</c>.</param>
/// <param name="Values">The entry it stands for, complete.</param>
/// <param name="Leads">What it would prove, in a word.</param>
public sealed record QuickAnswer(string Label, IReadOnlyDictionary<string, string> Values, string Leads);

/// <summary>What a reading says, what to do about it and why: the answer every gauge line gives.</summary>
/// <param name="Verdict">Good, not good, cannot tell yet, or not read.</param>
/// <param name="Finding">Stable camel-case name of what was found, such as <c>openedUp</c>.</param>
/// <param name="Word">The finding in one or two words, such as <c>Opened up</c>.</param>
/// <param name="Lean">Which way it misses.</param>
/// <param name="DoNext">What to do about it, one short sentence.</param>
/// <param name="Found">What the reading has proven, on the line's scale; null when the line has no scale or no reading.</param>
/// <param name="Figures">The numbers behind it.</param>
/// <param name="Why">How it was judged: inputs, rule, source.</param>
/// <param name="Answers">Quick answers that would settle it; empty when there are none.</param>
public sealed record Judgement(
    Verdict Verdict,
    string Finding,
    string Word,
    Lean Lean,
    Sentence DoNext,
    Span? Found,
    IReadOnlyList<Figure> Figures,
    IReadOnlyList<Sentence> Why,
    IReadOnlyList<QuickAnswer> Answers
)
{
    /// <summary>The same of a trial: what is good while something is off counts for the fault, and is read once more when all is on.</summary>
    /// <param name="without">What was off, by name.</param>
    public Judgement OfATrial(IReadOnlyList<string> without) =>
        Verdict != Verdict.Good
            ? this
            : this with
            {
                Verdict = Verdict.CannotTell,
                Word = "For now",
                DoNext = Sentence.Say($"Fit what was off ({string.Join(", ", without)}), then read it once more."),
                Why = [Sentence.Say($"{Word}, but without {string.Join(", ", without)}: it shows the fault, not how it is left."), .. Why],
            };
}
