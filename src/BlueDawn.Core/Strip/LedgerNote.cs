using System.Globalization;
using System.Text.Json.Serialization;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Strip;

/// <summary>What is to become of a part that came out.</summary>
public enum LineVerdict
{
    /// <summary>Goes back as it is.</summary>
    Refit,

    /// <summary>Goes back after cleaning.</summary>
    Clean,

    /// <summary>A new one goes in.</summary>
    Renew,

    /// <summary>Should have been there and was not.</summary>
    Missing,

    /// <summary>Somebody put it there.</summary>
    Added,

    /// <summary>Is of another carburetor.</summary>
    DoesNotBelong,
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

    /// <summary>Nothing went in, with a signed reason.</summary>
    LeftOff,

    /// <summary>It did not belong and was thrown out.</summary>
    Scrapped,
}

/// <summary>One entry of the ledger. Added, never edited: the last about a part stands.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(JobNote), "job")]
[JsonDerivedType(typeof(OutNote), "out")]
[JsonDerivedType(typeof(StaysNote), "stays")]
[JsonDerivedType(typeof(BackNote), "back")]
[JsonDerivedType(typeof(UndoNote), "undo")]
public abstract record LedgerNote
{
    /// <summary>What happened, in words for the logbook.</summary>
    /// <param name="label">The part's name.</param>
    public abstract string Words(string label);
}

/// <summary>An entry about one part.</summary>
/// <param name="Part">The part's key.</param>
public abstract record PartNote(string Part) : LedgerNote;

/// <summary>How far it is taken apart.</summary>
/// <param name="Job">The job's key.</param>
public sealed record JobNote(string Job) : LedgerNote
{
    /// <inheritdoc/>
    public override string Words(string label) => $"Taken apart: {label}";
}

/// <summary>A part came out, or should have been there.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="Verdict">What is to become of it.</param>
/// <param name="Label">What it is, for a part that is on no list.</param>
/// <param name="From">Where it was, for a part that is on no list, or more about the place.</param>
/// <param name="Way">Which way round it sat; null when not looked at.</param>
/// <param name="TurnsEighths">Eighths of a turn from a light seat; null when not asked or not counted.</param>
/// <param name="NotCounted">True when the turns were not counted: a fair answer.</param>
/// <param name="ThreadMm">How far its thread stood in, in millimetres.</param>
/// <param name="ScrewMm">Length of its screws in millimetres.</param>
/// <param name="Position">Which screw went where.</param>
/// <param name="Hole">Which hole a link sat in.</param>
/// <param name="Remark">Anything else.</param>
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
    string? Remark = null) : PartNote(Part)
{
    /// <inheritdoc/>
    public override string Words(string label)
    {
        var said = new List<string?>
        {
            Verdict switch
            {
                LineVerdict.Refit => "refit",
                LineVerdict.Clean => "clean",
                LineVerdict.Renew => "renew",
                LineVerdict.Missing => "missing",
                LineVerdict.Added => "added by someone",
                _ => "does not belong",
            },
            From,
            Way,
            NotCounted ? "turns not counted" : TurnsEighths is { } eighths ? $"{Turns.Text(eighths)} turns from the seat" : null,
            ThreadMm is { } thread ? string.Create(CultureInfo.InvariantCulture, $"stood in {thread:0.##} mm") : null,
            ScrewMm is { } screw ? string.Create(CultureInfo.InvariantCulture, $"screws {screw:0.##} mm") : null,
            Position,
            Hole is { } hole ? $"hole {hole}" : null,
            Remark,
        };
        return $"{(Verdict == LineVerdict.Missing ? "Not there" : "Out")}: {label}, {string.Join(", ", said.OfType<string>().Where(one => one.Length > 0))}";
    }
}

/// <summary>A part was left in on purpose.</summary>
/// <param name="Part">The part's key.</param>
public sealed record StaysNote(string Part) : PartNote(Part)
{
    /// <inheritdoc/>
    public override string Words(string label) => $"Stays in: {label}";
}

/// <summary>How a line ended at Build.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="Fate">How.</param>
/// <param name="Way">Which way round it went in; null when it has none or was not looked at.</param>
/// <param name="Item">Number of the kit or stock item a new one came from.</param>
/// <param name="FromShelf">True when it was taken from the shelf for this, not out of what was decided on at Kit.</param>
/// <param name="TurnsEighths">Eighths of a turn out it was set to.</param>
/// <param name="Reason">Why it was left off, or anything else.</param>
public sealed record BackNote(
    string Part, Fate Fate, string? Way = null, string? Item = null, bool FromShelf = false, int? TurnsEighths = null, string? Reason = null) : PartNote(Part)
{
    /// <inheritdoc/>
    public override string Words(string label)
    {
        var said = new List<string?>
        {
            Item is { } item ? $"from {item}" : null,
            Way,
            TurnsEighths is { } eighths ? $"set to {Turns.Text(eighths)} turns" : null,
            Reason,
        };
        var what = Fate switch
        {
            Fate.Refitted => "Refitted",
            Fate.Renewed => "Renewed",
            Fate.Made => "Made and fitted",
            Fate.LeftOff => "Left off, signed",
            _ => "Thrown out",
        };
        return string.Join(", ", said.OfType<string>().Where(one => one.Length > 0).Prepend($"{what}: {label}"));
    }
}

/// <summary>The last that was said about a part is taken back: what was fitted is out again, what was out has not come out.</summary>
/// <param name="Part">The part's key.</param>
public sealed record UndoNote(string Part) : PartNote(Part)
{
    /// <inheritdoc/>
    public override string Words(string label) => $"Taken back: {label}";
}

/// <summary>An entry of the ledger with its place in time.</summary>
/// <param name="EntryId">Its logbook entry.</param>
/// <param name="TakenAt">When.</param>
/// <param name="By">Who.</param>
/// <param name="Note">What.</param>
public sealed record LoggedLedgerNote(Guid EntryId, DateTimeOffset TakenAt, string By, LedgerNote Note);

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
