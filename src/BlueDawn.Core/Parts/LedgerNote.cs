using System.Globalization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Parts;

/// <summary>What is to become of a part that came out.</summary>
public enum LineVerdict
{
    /// <summary>Goes back as it is.</summary>
    Refit,

    /// <summary>Goes back after cleaning.</summary>
    Clean,

    /// <summary>A new one goes in.</summary>
    Renew,

    /// <summary>Torn, broken or worn out: a new one goes in, and it speaks for a fault.</summary>
    Broken,

    /// <summary>Should have been there and was not.</summary>
    Missing,

    /// <summary>Somebody put it there.</summary>
    Added,

    /// <summary>Is of another carburetor.</summary>
    DoesNotBelong,

    /// <summary>Put in here, now or at an earlier visit, such as a tap or a filter that it came without: no earlier work of others.</summary>
    Ours,
}

/// <summary>How a line of the ledger ends.</summary>
public enum Fate
{
    /// <summary>The old one went back.</summary>
    Refitted,

    /// <summary>A new one out of a kit or off the shelf went in.</summary>
    Renewed,

    /// <summary>One made here went in.</summary>
    Made,

    /// <summary>Nothing went in, with a reason.</summary>
    LeftOff,

    /// <summary>It did not belong and was thrown out.</summary>
    Scrapped,
}

/// <summary>One entry of the ledger. Added, never edited: the last about a part stands.</summary>
public abstract record LedgerNote : Note
{
    /// <summary>What happened, for the logbook.</summary>
    /// <param name="label">The name of the part or of the job.</param>
    /// <param name="ways">The ways round the part can sit.</param>
    public abstract Sentence Say(string label, IReadOnlyList<Way> ways);

    private protected static Sentence List(string first, params Sentence?[] rest) =>
        Sentence.Join(", ", rest.OfType<Sentence>().Where(one => one.Text.Length > 0).Prepend(Sentence.Say($"{first}")));

    private protected static Sentence? Words(string? words) => string.IsNullOrEmpty(words) ? null : Sentence.Say($"{words}");

    private protected static Sentence? WayOf(string? way, IReadOnlyList<Way> ways) =>
        way is null ? null : Words(ways.FirstOrDefault(one => one.Key == way)?.Label.ToLowerInvariant() ?? way);
}

/// <summary>An entry about one part.</summary>
/// <param name="Part">The part's key.</param>
public abstract record PartNote(string Part) : LedgerNote;

/// <summary>How far it is taken apart.</summary>
/// <param name="Job">The job's key.</param>
/// <param name="Has">Optional parts that others of its sheet had, by their keys; looked up when it is recorded.</param>
/// <param name="HasNot">Parts that others of its sheet had not; looked up when it is recorded.</param>
public sealed record JobNote(string Job, IReadOnlyList<string>? Has = null, IReadOnlyList<string>? HasNot = null) : LedgerNote
{
    /// <inheritdoc/>
    public override Note AsSent() => this with { Has = null, HasNot = null };

    /// <summary>The same with what was said of others of its sheet.</summary>
    /// <param name="said">What was said, oldest first: the last of a part counts.</param>
    public JobNote After(IEnumerable<HasNote> said)
    {
        var has = HasNote.Last(said);
        IReadOnlyList<string>? All(bool there) =>
            has.Where(pair => pair.Value == there).Select(pair => pair.Key).ToList() is { Count: > 0 } some ? some : null;
        return this with { Has = All(true), HasNot = All(false) };
    }

    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) => Sentence.Say($"Taken apart: {label}");
}

/// <summary>What this carburetor has and has not, of what is optional and of what is usual: kept with its sheet for the next one.</summary>
/// <param name="Has">Parts it has, by their keys.</param>
/// <param name="HasNot">Parts it has not.</param>
public sealed record HasNote(IReadOnlyList<string> Has, IReadOnlyList<string> HasNot) : LedgerNote
{
    private const int MostNamed = 4;

    /// <summary>What was said last of each part.</summary>
    /// <param name="said">What was said, oldest first.</param>
    public static Dictionary<string, bool> Last(IEnumerable<HasNote> said)
    {
        var has = new Dictionary<string, bool>();
        foreach (
            var (key, there) in said.SelectMany(one => one.Has.Select(key => (key, true)).Concat(one.HasNot.Select(key => (key, false))))
        )
        {
            has[key] = there;
        }

        return has;
    }

    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) => Say(key => key);

    /// <summary>The same with the parts' names.</summary>
    /// <param name="label">The name of a part.</param>
    public Sentence Say(Func<string, string> label)
    {
        static string List(IEnumerable<string> names) => string.Join(", ", names);
        var none =
            HasNot.Count == 0 ? null
            : HasNot.Count <= MostNamed ? $"none of this: {List(HasNot.Select(label))}"
            : Has.Count > 0 ? $"none of the {HasNot.Count} others"
            : $"none of {HasNot.Count} parts that others have";
        return Sentence.Say($"It has {string.Join("; ", new[] { Has.Count > 0 ? List(Has.Select(label)) : null, none }.OfType<string>())}");
    }
}

/// <summary>A part came out, or should have been there.</summary>
/// <param name="Part">The part's key; a new one for a part that is on no list.</param>
/// <param name="Verdict">What is to become of it.</param>
/// <param name="Label">Its name, for a part that is on no list.</param>
/// <param name="From">Where it came from, when that is not plain.</param>
/// <param name="Way">Which way round it sat.</param>
/// <param name="TurnsEighths">Turns from a light seat, in eighths.</param>
/// <param name="NotCounted">True when the turns were not counted.</param>
/// <param name="ThreadMm">How far its thread stood in, millimetres.</param>
/// <param name="ScrewMm">Length of its screws, millimetres.</param>
/// <param name="Position">Which hole or side its screws are from, or where it sat.</param>
/// <param name="Hole">Which hole a link sat in.</param>
/// <param name="Remark">Anything else.</param>
/// <param name="Thread">How far its thread stood in, as it was typed; read into <paramref name="ThreadMm"/>.</param>
/// <param name="Screw">Length of its screws, as it was typed; read into <paramref name="ScrewMm"/>.</param>
/// <param name="Units">The units that typed sizes without a unit are in.</param>
/// <param name="Heads">Head or spanner size of its screws and how many there are, in words.</param>
public sealed record OutNote(
    string Part,
    LineVerdict Verdict,
    string? Label = null,
    string? From = null,
    string? Way = null,
    int? TurnsEighths = null,
    bool NotCounted = false,
    double? ThreadMm = null,
    double? ScrewMm = null,
    string? Position = null,
    string? Hole = null,
    string? Remark = null,
    string? Thread = null,
    string? Screw = null,
    UnitSystem Units = UnitSystem.Metric,
    string? Heads = null
) : PartNote(Part)
{
    /// <inheritdoc/>
    public override Note AsSent() => this with { ThreadMm = Thread is null ? ThreadMm : null, ScrewMm = Screw is null ? ScrewMm : null };

    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) =>
        List(
            Verdict switch
            {
                LineVerdict.Missing => $"Not there: {label}",
                LineVerdict.Ours => $"Beside what it came with: {label}",
                LineVerdict.Refit
                or LineVerdict.Clean
                or LineVerdict.Renew
                or LineVerdict.Broken
                or LineVerdict.Added
                or LineVerdict.DoesNotBelong => $"Out: {label}",
            },
            Words(
                Verdict switch
                {
                    LineVerdict.Refit => "refit",
                    LineVerdict.Clean => "clean",
                    LineVerdict.Renew => "renew",
                    LineVerdict.Broken => "broken, renew",
                    LineVerdict.Missing => "missing",
                    LineVerdict.Added => "added by someone",
                    LineVerdict.DoesNotBelong => "does not belong",
                    LineVerdict.Ours => "put in by us",
                }
            ),
            Words(From),
            WayOf(Way, ways),
            NotCounted ? Words("turns not counted")
                : TurnsEighths is { } eighths ? Words($"{Turns.Text(eighths)} turns from the seat")
                : null,
            ThreadMm is { } thread ? Sentence.Say($"stood in {Quantity.Mm(thread)}") : null,
            ScrewMm is { } screw ? Sentence.Say($"screws {Quantity.Mm(screw)}") : null,
            Words(Heads),
            Words(Position),
            Hole is { } hole ? Words($"hole {hole}") : null,
            Words(Remark)
        );

    /// <summary>The note with its typed sizes read, or what is wrong with them.</summary>
    public (OutNote Note, IReadOnlyList<FieldProblem> Problems) Read()
    {
        var problems = new List<FieldProblem>();
        double? Mm(string? typed, double? mm, string field, double most)
        {
            if (string.IsNullOrWhiteSpace(typed))
            {
                if (mm is { } length && !(length >= 0 && length <= most))
                {
                    problems.Add(new($"note.{field}Mm", $"Give a length from 0 to {most} mm."));
                }

                return mm;
            }

            var read = MeasureEntry.Parse(typed, Dimension.Length, Units);
            if (!read.IsRight || (double)read.Value is var size && !(size >= 0 && size <= most))
            {
                problems.Add(new("note." + field, read.Problem ?? $"Give a length from 0 to {most} mm."));
                return null;
            }

            return size;
        }

        var note = this with { ThreadMm = Mm(Thread, ThreadMm, "thread", 60), ScrewMm = Mm(Screw, ScrewMm, "screw", 120) };
        return (note, problems);
    }
}

/// <summary>A part was left in on purpose.</summary>
/// <param name="Part">The part's key.</param>
public sealed record StaysNote(string Part) : PartNote(Part)
{
    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) => Sentence.Say($"Stays in: {label}");
}

/// <summary>How a line ended at Build.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="Fate">How it ended.</param>
/// <param name="Way">Which way round it went in.</param>
/// <param name="Item">Number of the kit or item a new one is from.</param>
/// <param name="FromShelf">True when the new one came off the shelf for this, and not with what was decided on.</param>
/// <param name="TurnsEighths">Turns it was set to, in eighths.</param>
/// <param name="Reason">Why, where a reason is needed.</param>
/// <param name="Hole">Which hole a link or spring went into, in the words it came out with.</param>
/// <param name="NearMatch">True when a new one is only near to the old one, false when it is the same; null when nobody said.</param>
/// <param name="Elsewhere">What the new one is and where it came from, when no kit and no shelf had it; null otherwise.</param>
/// <param name="SoBecause">Why its order, its way round or its hole is right on this machine though it is not the usual one; null while nobody
/// said.</param>
public sealed record BackNote(
    string Part,
    Fate Fate,
    string? Way = null,
    string? Item = null,
    bool FromShelf = false,
    int? TurnsEighths = null,
    string? Reason = null,
    string? Hole = null,
    bool? NearMatch = null,
    Elsewhere? Elsewhere = null,
    string? SoBecause = null
) : PartNote(Part)
{
    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) =>
        List(
            $"{Fate switch
        {
            Fate.Refitted => "Refitted",
            Fate.Renewed => "Renewed",
            Fate.Made => "Made and fitted",
            Fate.LeftOff => "Left off",
            Fate.Scrapped => "Thrown out",
        }}: {label}",
            Item is { } item ? Words($"from {item}") : null,
            Elsewhere is { } got ? Words($"{got.OriginWords}: {got.What.Trim()}") : null,
            Elsewhere?.FromWhom is { Length: > 0 } whom ? Words($"from {whom.Trim()}") : null,
            WayOf(Way, ways),
            TurnsEighths is { } eighths ? Words($"set to {Turns.Text(eighths)} turns") : null,
            Hole is { } hole ? Words($"hole {hole}") : null,
            NearMatch is { } near ? Words(near ? "a near match" : "the same as the old one") : null,
            Words(Reason),
            string.IsNullOrWhiteSpace(SoBecause) ? null : Words($"so on this machine, because: {SoBecause.Trim().TrimEnd('.')}")
        );
}

/// <summary>The last that was said about a part is taken back: what was fitted is out again, what was out has not come out.</summary>
/// <param name="Part">The part's key.</param>
public sealed record UndoNote(string Part) : PartNote(Part)
{
    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) => Sentence.Say($"Taken back: {label}");
}

/// <summary>A new part that went in came bad from whoever sold it: it is out again, and goes back against item and supplier.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="What">What is wrong with it.</param>
/// <param name="Supplier">Who it came from; null for whoever the item was last received from.</param>
/// <param name="Item">Number of the item it was; worked out when it is recorded, null for one that no item stands for.</param>
public sealed record CameBadNote(string Part, string What, string? Supplier = null, string? Item = null) : PartNote(Part)
{
    private const int ShortestWhat = 3;
    private const int LongestText = 120;

    /// <inheritdoc/>
    public override Note AsSent() => this with { Item = null };

    /// <summary>What of it cannot be used.</summary>
    public IEnumerable<FieldProblem> Problems()
    {
        if (What.Trim().Length is < ShortestWhat or > LongestText)
        {
            yield return new("note.what", $"Say what is wrong with it, in {ShortestWhat} to {LongestText} characters.");
        }

        if (Supplier?.Length > LongestText)
        {
            yield return new("note.supplier", $"Longer than {LongestText} characters. Shorten it.");
        }
    }

    /// <inheritdoc/>
    public override Sentence Say(string label, IReadOnlyList<Way> ways) =>
        List(
            $"Came bad, out again: {label}",
            Item is { } item ? Words($"of {item}") : null,
            string.IsNullOrWhiteSpace(Supplier) ? null : Words($"from {Supplier.Trim()}"),
            Words(What.Trim())
        );
}

/// <summary>Turns of a screw, counted in eighths.</summary>
public static class Turns
{
    /// <summary>Most that is believed: a mixture screw falls out before.</summary>
    public const int MostEighths = 80;

    private static readonly string[] Eighths = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"];

    /// <summary>Eighths of a turn as the bench writes them, such as <c>1¼</c>.</summary>
    public static string Text(int eighths) =>
        eighths == 0 ? "0" : (eighths >= 8 ? (eighths / 8).ToString(CultureInfo.InvariantCulture) : "") + Eighths[eighths % 8];

    /// <summary>The nearest eighths to a number of turns.</summary>
    public static int OfTurns(double turns) => (int)Math.Round(turns * 8, MidpointRounding.AwayFromZero);

    /// <summary>What is wrong with a count, or null.</summary>
    public static FieldProblem? Check(int? eighths) =>
        eighths is < 0 or > MostEighths ? new FieldProblem("note.turnsEighths", $"Give turns from 0 to {MostEighths / 8}.") : null;
}
