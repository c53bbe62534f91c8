using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>One thing that can be seen when a look is taken, and what it says.</summary>
/// <param name="Value">Stable name, sent and kept; also the finding.</param>
/// <param name="Label">What is seen, in a few words.</param>
/// <param name="Verdict">What it says.</param>
/// <param name="Word">The same in one or two words.</param>
/// <param name="Next">What to do at once.</param>
/// <param name="Why">Why it matters.</param>
/// <param name="Source">Where this is from.</param>
public sealed record LookAnswer(string Value, string Label, Verdict Verdict, string Word, string Next, string Why, string Source)
{
    /// <summary>What it finds.</summary>
    public LineFinding Finding { get; } = new(Value, Word, Verdict);

    /// <summary>Whether what it says to do is more than to leave it and go on.</summary>
    public bool SaysMore => Next is not ("Leave it. Go on." or "Leave them. Go on.");
}

/// <summary>A quick confirmation: something is looked at or felt, and it is right or it is not. Each station that takes looks has a
/// table of them.</summary>
/// <param name="Key">Stable name.</param>
/// <param name="Families">Families of carburetors it is asked on.</param>
/// <param name="Chokes">Chokes it is asked on; empty for any. What is not known of a choke does not exclude it.</param>
/// <param name="Section">The heading it stands under.</param>
/// <param name="Label">What is looked at.</param>
/// <param name="Part">The bench part it is about, or null when it is no one part.</param>
/// <param name="Required">Whether the tray can be released without it.</param>
/// <param name="Caution">The caution that belongs to it, or null.</param>
/// <param name="Ask">How to look.</param>
/// <param name="Answers">What can be seen, the good one first.</param>
public sealed record Look(
    string Key,
    IReadOnlyList<CarburetorFamily> Families,
    IReadOnlyList<ChokeKind> Chokes,
    string Section,
    string Label,
    string? Part,
    bool Required,
    Caution? Caution,
    string Ask,
    IReadOnlyList<LookAnswer> Answers
)
{
    /// <summary>Parts of which one that went in new makes it asked, <c>extra</c> for any that is on no list; empty when it is always asked.</summary>
    public IReadOnlyList<string> AskedOnceNew { get; init; } = [];

    /// <summary>Whether a new part makes it asked.</summary>
    /// <param name="part">The part's key.</param>
    public bool IsAskedBy(string part) => AskedOnceNew.Contains(part.Split(':')[0]);

    /// <summary>Whether it is asked on a kind of carburetor.</summary>
    public bool Asks(CarburetorKind kind) =>
        Families.Contains(kind.Family) && (Chokes.Count == 0 || kind.Choke is not { } choke || Chokes.Contains(choke));

    /// <summary>Reads the table.</summary>
    /// <param name="open">Opens a table by its file name.</param>
    /// <param name="table">Its file name, such as <c>setting/looks.csv</c>.</param>
    /// <exception cref="InvalidDataException">It does not hold together; the message says which row.</exception>
    public static IReadOnlyList<Look> Read(Func<string, TextReader> open, string table)
    {
        var rows = CsvTable.Rows(open, table, row =>
            (
                Look: new Look(
                    row.Text("look"),
                    row.Families("families"),
                    row.MayBeEmpty("chokes") == "" ? [] : [row.Word<ChokeKind>("chokes")],
                    row.Text("section"),
                    row.Text("label"),
                    row.TextOrNull("part"),
                    row.Text("required") == "yes",
                    row.TextOrNull("caution") is { } caution ? Caution.Find(caution) ?? throw row.Wrong("caution", "is no caution") : null,
                    row.MayBeEmpty("ask"),
                    []
                )
                {
                    AskedOnceNew = row.WordsOf("once_new"),
                },
                Answer: new LookAnswer(
                    row.Text("value"),
                    row.Text("answer"),
                    row.Word<Verdict>("verdict"),
                    row.Text("word"),
                    row.Text("next"),
                    row.Text("why"),
                    row.Text("source")
                )
            )
        );
        var looks = new List<Look>();
        foreach (var group in rows.GroupBy(row => row.Look.Key))
        {
            var first = group.First().Look;
            var answers = group.Select(row => row.Answer).ToList();
            if (
                first.Ask == ""
                || group.Any(row => row.Look.Label != first.Label || row.Look.Section != first.Section || row.Look.Part != first.Part)
            )
            {
                throw new InvalidDataException(
                    $"{table}, {first.Key}: the first row says how to look, and every row names the same section, label and part."
                );
            }

            if (
                answers.DistinctBy(answer => answer.Value).Count() < answers.Count
                || answers[0].Verdict != Verdict.Good
                || answers.All(answer => answer.Verdict == Verdict.Good)
            )
            {
                throw new InvalidDataException($"{table}, {first.Key}: answers differ, the first is good, and one of them is not.");
            }

            looks.Add(first with { Answers = answers });
        }

        return looks;
    }
}
