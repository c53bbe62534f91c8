namespace BlueDawn.Core.Stations;

/// <summary>
/// Something a gauge line can find. Every line declares its own, so that there is no other word to judge by: they stand in
/// the interface's document, and a page that asks for one there is not does not compile.
/// </summary>
/// <param name="Id">Stable camel-case name, such as <c>openedUp</c>; never changed once it stands in a logbook.</param>
/// <param name="Word">The finding in one or two words, such as <c>Opened up</c>.</param>
/// <param name="Verdict">What it means.</param>
/// <param name="Lean">Which way the reading misses.</param>
public sealed record LineFinding(string Id, string Word, Verdict Verdict, Lean Lean = Lean.None)
{
    /// <summary>What is said of a reading that does not decide.</summary>
    private const string Undecided = "Cannot tell yet";

    /// <summary>Nothing was read.</summary>
    public static LineFinding NotRead { get; } = new("notRead", "Not read", Verdict.NotRead);

    /// <summary>The reading is too near a limit, or its instrument too coarse.</summary>
    public static LineFinding CannotTell { get; } = Open("cannotTell");

    /// <summary>It is measured, and nobody knows what it should be.</summary>
    public static LineFinding NoLimit { get; } = new("noLimit", "No limit", Verdict.CannotTell);

    /// <summary>A finding that is good.</summary>
    /// <param name="id">Its name.</param>
    /// <param name="word">It in a word or two.</param>
    /// <param name="lean">Which way it leans, for one that is good all the same.</param>
    public static LineFinding Good(string id, string word, Lean lean = Lean.None) => new(id, word, Verdict.Good, lean);

    /// <summary>A finding that is not good.</summary>
    /// <param name="id">Its name.</param>
    /// <param name="word">It in a word or two.</param>
    /// <param name="lean">Which way it misses.</param>
    public static LineFinding Bad(string id, string word, Lean lean = Lean.None) => new(id, word, Verdict.NotGood, lean);

    /// <summary>A finding that does not decide.</summary>
    /// <param name="id">Its name.</param>
    /// <param name="lean">Which way it leans.</param>
    /// <param name="word">It in a word or two.</param>
    public static LineFinding Open(string id, Lean lean = Lean.None, string word = Undecided) => new(id, word, Verdict.CannotTell, lean);

    /// <summary>The judgement that comes to this finding.</summary>
    /// <param name="doNext">What to do about it, one short sentence.</param>
    /// <param name="found">What the reading has proven, on the line's scale; null when the line has no scale.</param>
    /// <param name="figures">The numbers behind it.</param>
    /// <param name="why">How it was judged: inputs, rule, source.</param>
    /// <param name="answers">Quick answers that would settle it.</param>
    public Judgement Judged(
        Measures.Sentence doNext,
        Measures.Span? found = null,
        IReadOnlyList<Figure>? figures = null,
        IReadOnlyList<Measures.Sentence>? why = null,
        IReadOnlyList<QuickAnswer>? answers = null
    ) => new(Verdict, Id, Word, Lean, doNext, found, figures ?? [], why ?? [], answers ?? []);
}
