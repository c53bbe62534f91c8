using System.Globalization;
using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Kits;

/// <summary>A spec sheet is chosen.</summary>
/// <param name="SpecCode">Its code.</param>
/// <param name="StampedNumber">The stamped number that led to it, or null when it stays as it is.</param>
public sealed record SheetNote(string SpecCode, string? StampedNumber = null) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<SheetNote> Kind { get; } =
        new("sheet")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.Sheet,
            IsDecidedOnFacts = true,
            WhenWrong = (note, _) =>
                note.Sheet is null ? NoteAnswers.Wrong("specCode", "There is no spec sheet of that name. Pick one from the list.")
                : note.StampedNumber is { Length: > Carburetors.StampedNumber.Longest }
                    ? NoteAnswers.Wrong("stampedNumber", $"Longer than {Carburetors.StampedNumber.Longest} characters. Check the number.")
                : [],
            Says = (note, _) =>
                Sentence.Say(
                    $"Spec sheet {note.SpecCode}{(note.StampedNumber is { } stamped ? $", stamped number {stamped.Trim()}" : "")}"
                ),
            Leaves = (note, tray) =>
                // The sheet knows what kind it is; what was noted at check-in was a first look.
                note.Sheet
                    is { } sheet
                    ? tray.Facts with
                    {
                        Sheet = sheet,
                        StampedNumber = (note.StampedNumber ?? tray.Facts.StampedNumber).Trim(),
                        Kind = tray.Kind with { Family = sheet.Family },
                    }
                    : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };

    /// <summary>The sheet of that code, looked up before the note is decided; null when there is none.</summary>
    [JsonIgnore]
    public SpecSheet? Sheet { get; init; }
}

/// <summary>It is decided what to fit.</summary>
/// <param name="Option">What.</param>
/// <param name="Renew">The parts to renew, or null for all that are wanted.</param>
/// <param name="KitNumber">A kit picked by hand; then the option is the kit.</param>
/// <param name="Decided">What that came to on the day; worked out when it is recorded.</param>
public sealed record FittingNote(FitOption Option, IReadOnlyList<string>? Renew = null, string? KitNumber = null, Fitting? Decided = null)
    : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<FittingNote> Kind { get; } =
        new("fitting")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.Fitting,
            IsDecidedOnFacts = true,
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) => note.Decided is { } fitting ? Sentence.Say($"{FittingFacts.Words(fitting)}") : Sentence.None,
            Leaves = (note, tray) => note.Decided is { } fitting ? FittingFacts.Fitted(tray.Facts, fitting) : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };

    /// <inheritdoc/>
    public override Note AsSent() => this with { Decided = null };
}

/// <summary>What was on order is there and is taken from the shelf.</summary>
/// <param name="Decided">What the tray has then; worked out when it is recorded.</param>
/// <param name="Instead">True when something else that holds the parts may be opened where what was ordered is not there.</param>
public sealed record PartsHereNote(Fitting? Decided = null, bool Instead = false) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<PartsHereNote> Kind { get; } =
        new("partsHere")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.FromShelf,
            IsDecidedOnFacts = true,
            WhenWrong = (_, tray) =>
                tray.Fitting is { ToOrder: true } ? [] : NoteAnswers.Wrong("kind", "Nothing is on order for this tray."),
            Says = (note, _) =>
                note.Decided is { } fitting ? Sentence.Say($"Parts are here. {FittingFacts.Words(fitting)}") : Sentence.None,
            Leaves = (note, tray) => note.Decided is { } fitting ? FittingFacts.Fitted(tray.Facts, fitting) : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };

    /// <inheritdoc/>
    public override Note AsSent() => this with { Decided = null };
}

/// <summary>What was chosen is not fitted after all: what it took goes back to the shelf or the donor.</summary>
public sealed record UnfitNote : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<UnfitNote> Kind { get; } =
        new("unfit")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.BackToShelf,
            IsDecidedOnFacts = true,
            WhenWrong = (_, tray) =>
                tray.Fitting is null ? NoteAnswers.Wrong("kind", "Nothing is chosen for this tray.")
                : FittingFacts.Built(tray) is { } part
                    ? NoteAnswers.Wrong("kind", $"The new {part} is in already. Take it out at Build first.")
                : [],
            Says = (_, _) => Sentence.Of("Not fitted after all: what it took went back"),
            Leaves = (_, tray) => FittingFacts.Unfitted(tray.Facts),
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

/// <summary>What the tray needs has been ordered.</summary>
/// <param name="Order">The order.</param>
/// <param name="Supplier">Whom it was ordered from.</param>
/// <param name="Items">Numbers of the items ordered for it.</param>
/// <param name="Due">The day they are due, by the supplier's usual time.</param>
public sealed record OrderedNote(Guid Order, string Supplier, IReadOnlyList<string> Items, DateOnly Due) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<OrderedNote> Kind { get; } =
        new("ordered")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded by the bench itself.",
            IsDecidedOnFacts = true,
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) =>
                Sentence.Say(
                    $"{string.Join(", ", note.Items)} ordered from {note.Supplier}, due {note.Due.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}"
                ),
            Leaves = (note, tray) =>
                tray.Facts.WaitsFor == WaitsFor.Parts
                    ? tray.Facts with
                    {
                        WaitNote = string.Create(
                            CultureInfo.InvariantCulture,
                            $"{string.Join(", ", note.Items)} ordered from {note.Supplier}, due {note.Due:d MMM}"
                        ),
                    }
                    : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

/// <summary>An order for the tray was taken back.</summary>
/// <param name="Order">The order.</param>
/// <param name="Supplier">Whom it had been ordered from.</param>
public sealed record OrderUndoneNote(Guid Order, string Supplier) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<OrderUndoneNote> Kind { get; } =
        new("orderUndone")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded by the bench itself.",
            IsDecidedOnFacts = true,
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) => Sentence.Say($"Order from {note.Supplier} taken back"),
            Leaves = (_, tray) =>
                tray.Facts is { WaitsFor: WaitsFor.Parts, Fitting: { } still }
                    ? tray.Facts with
                    {
                        WaitNote = FittingFacts.ToOrder(still),
                    }
                    : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

/// <summary>Everything the tray waits for is on the shelf.</summary>
/// <param name="Items">Numbers of the items.</param>
public sealed record ArrivedNote(IReadOnlyList<string> Items) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<ArrivedNote> Kind { get; } =
        new("arrived")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded by the bench itself.",
            IsDecidedOnFacts = true,
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) => Sentence.Say($"Here: {string.Join(", ", note.Items)}"),
            Leaves = (note, tray) =>
                tray.Facts.WaitsFor == WaitsFor.Parts
                    ? Waiting.After(tray.Facts, WaitEvent.PartsHere, $"{string.Join(", ", note.Items)} is here: take it")
                    : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

/// <summary>What else is written on the carburetor and the engine, as it was read; a later note stands in place of an earlier
/// one.</summary>
/// <param name="DateCode">The date code beside the stamped number; may be empty.</param>
/// <param name="Plate">The engine's plate, model and specification; may be empty.</param>
public sealed record MarksNote(string DateCode, string Plate) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<MarksNote> Kind { get; } =
        new("marks")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, _) =>
                note.DateCode.Length > StampedNumber.Longest
                    ? NoteAnswers.Wrong("dateCode", $"Longer than {StampedNumber.Longest} characters. Check the code.")
                : note.Plate.Length > StampedNumber.Longest
                    ? NoteAnswers.Wrong("plate", $"Longer than {StampedNumber.Longest} characters. Check the plate.")
                : [],
            Says = (note, _) => Sentence.Say($"Date code {Read(note.DateCode)}, engine plate {Read(note.Plate)}"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
            SaysNothingNew = (note, tray) => note == tray.State<KitsState>().Marks,
        };

    /// <summary>Nothing read.</summary>
    public static readonly MarksNote None = new("", "");

    private static string Read(string mark) => mark.Trim() is { Length: > 0 } text ? text : "not read";
}

/// <summary>An old part as measured on the bench, to match new ones with. No features: its measures are taken back.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Quantity">How many there were, 1 to 99.</param>
/// <param name="Features">Its features as they were typed.</param>
/// <param name="Units">The units that typed sizes without a unit are in.</param>
/// <param name="Measured">Its features in their written form; worked out when it is recorded.</param>
public sealed record OldPartNote(
    string Part,
    int Quantity,
    IReadOnlyDictionary<string, string> Features,
    UnitSystem Units = UnitSystem.Metric,
    IReadOnlyDictionary<string, string>? Measured = null
) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<OldPartNote> Kind { get; } =
        new("oldPart")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            ChangesWanted = true,
            WhenWrong = (note, _) => note.Read().Problems,
            Says = (note, _) => note.Said(),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
            Completed = (note, _) => note with { Measured = note.Read().Measured },
        };

    /// <inheritdoc/>
    public override Note AsSent() => this with { Measured = null };

    private Sentence Said()
    {
        var measured = Measured ?? Features;
        return measured.Count == 0
            ? Sentence.Say($"Old {Part}: measures taken back")
            : Sentence.Say($"Old {Part}: {FeatureText.Say(Part, measured, PartKnowledge.Shipped)}");
    }

    /// <summary>The features read, or what is wrong with them.</summary>
    public (IReadOnlyDictionary<string, string> Measured, IReadOnlyList<FieldProblem> Problems) Read()
    {
        var problems = new List<FieldProblem>();
        var measured = new Dictionary<string, string>();
        if (PartKnowledge.Shipped.Find(Part) is not { } kind)
        {
            return (measured, [new FieldProblem("note.part", "The bench does not know that part. Pick one from the list.")]);
        }

        if (Quantity is < 1 or > 99)
        {
            problems.Add(new FieldProblem("note.quantity", "Give how many there were, from 1 to 99."));
        }

        foreach (var (name, text) in Features.Where(pair => pair.Value.Trim().Length > 0))
        {
            var read = kind.Features.FirstOrDefault(feature => feature.Name == name) is { } feature
                ? FeatureValue.Parse(feature, text, Units)
                : Parsed<FeatureValue>.Wrong($"A {Part} has no such feature.");
            if (read.IsRight)
            {
                measured[name] = read.Value!.Text;
            }
            else
            {
                problems.Add(new FieldProblem("note.features." + name, read.Problem!));
            }
        }

        return (measured, problems);
    }
}

/// <summary>What a decision to fit leaves on the tray, and how it is said.</summary>
public static class FittingFacts
{
    /// <summary>What was decided, as the logbook says it.</summary>
    /// <param name="fitting">What was decided.</param>
    public static string Words(Fitting fitting)
    {
        static string Named(FittedItem item) =>
            item.Pieces > 1 ? string.Create(CultureInfo.InvariantCulture, $"{item.Pieces} {item.Number}") : item.Number;
        var taken = fitting.Items.Where(item => item.FromShelf).Select(Named).ToList();
        var toOrder = fitting.Items.Where(item => !item.FromShelf).Select(Named).ToList();
        var words = fitting.Option switch
        {
            FitOption.Kit => "Kit",
            FitOption.SingleParts => "Single parts",
            FitOption.MakersCarburetor => "Maker’s carburetor",
            FitOption.PatternCarburetor => "Pattern carburetor",
            FitOption.DonorPart => "From a donor: " + fitting.What,
            FitOption.MakeIt => "Made here: " + fitting.What,
            FitOption.Stopgap => "Stopgap: " + fitting.What,
            FitOption.CleanAndRefit => "Cleaned and refitted, nothing new",
            FitOption.Decline => "Declined: not worth the repair, nothing is charged",
        };
        return words
            + (taken.Count > 0 ? $" {string.Join(", ", taken)} taken from the shelf" : "")
            + (toOrder.Count > 0 ? $"{(taken.Count > 0 ? ";" : "")} {string.Join(", ", toOrder)} to order" : "");
    }

    /// <summary>A tray with something on order waits for parts; one that did waits for hands again.</summary>
    internal static TrayFacts Fitted(TrayFacts facts, Fitting fitting)
    {
        var waited = facts.Fitting is { ToOrder: true };
        var after = facts with { Fitting = fitting };
        return fitting.ToOrder ? Waiting.After(after, WaitEvent.PartsToOrder, ToOrder(fitting))
            : waited ? Taken(after)
            : after;
    }

    internal static TrayFacts Unfitted(TrayFacts facts)
    {
        var after = facts with { Fitting = null };
        return facts.Fitting is { ToOrder: true } ? Taken(after) : after;
    }

    /// <summary>Nothing is waited for any more, and the hands are not told to take it.</summary>
    private static TrayFacts Taken(TrayFacts facts)
    {
        var after = Waiting.After(facts, WaitEvent.PartsHere);
        return after.WaitsFor == WaitsFor.Hands ? after with { WaitNote = "" } : after;
    }

    internal static string ToOrder(Fitting fitting) =>
        $"{string.Join(", ", fitting.Items.Where(item => !item.FromShelf).Select(item => item.Number))} to order";

    /// <summary>A part that went in out of what was chosen, or null.</summary>
    internal static string? Built(TrayBook tray) =>
        tray
            .Ledger.Lines.FirstOrDefault(line =>
                line.Fitted is { Fate: Fate.Renewed, FromShelf: false, Item: { } item }
                && tray.Fitting!.Items.Any(one => one.Number == item)
            )
            ?.Part.Label;
}
