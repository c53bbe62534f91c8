using System.Globalization;
using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Kits;

/// <summary>A spec sheet is chosen.</summary>
/// <param name="SpecCode">Its code.</param>
/// <param name="StampedNumber">The stamped number that led to it, or null when it stays as it is.</param>
public sealed record SheetNote(string SpecCode, string? StampedNumber = null) : Note
{
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
    /// <inheritdoc/>
    public override Note AsSent() => this with { Decided = null };
}

/// <summary>What was on order is there and is taken from the shelf.</summary>
/// <param name="Decided">What the tray has then; worked out when it is recorded.</param>
/// <param name="Instead">True when something else that holds the parts may be opened where what was ordered is not there.</param>
public sealed record PartsHereNote(Fitting? Decided = null, bool Instead = false) : Note
{
    /// <inheritdoc/>
    public override Note AsSent() => this with { Decided = null };
}

/// <summary>What was chosen is not fitted after all: what it took goes back to the shelf or the donor.</summary>
public sealed record UnfitNote : Note;

/// <summary>What the tray needs has been ordered.</summary>
/// <param name="Order">The order.</param>
/// <param name="Supplier">Whom it was ordered from.</param>
/// <param name="Items">Numbers of the items ordered for it.</param>
/// <param name="Due">The day they are due, by the supplier's usual time.</param>
public sealed record OrderedNote(Guid Order, string Supplier, IReadOnlyList<string> Items, DateOnly Due) : Note;

/// <summary>An order for the tray was taken back.</summary>
/// <param name="Order">The order.</param>
/// <param name="Supplier">Whom it had been ordered from.</param>
public sealed record OrderUndoneNote(Guid Order, string Supplier) : Note;

/// <summary>Everything the tray waits for is on the shelf.</summary>
/// <param name="Items">Numbers of the items.</param>
public sealed record ArrivedNote(IReadOnlyList<string> Items) : Note;

/// <summary>Where what is fitted to a tray stands.</summary>
public enum PartsStage
{
    /// <summary>Nothing is chosen.</summary>
    NotChosen,

    /// <summary>Chosen, and not on the shelf.</summary>
    ToOrder,

    /// <summary>Ordered, and not here.</summary>
    Ordered,

    /// <summary>On the shelf, and not taken.</summary>
    Here,

    /// <summary>Nothing is missing.</summary>
    Taken,
}

/// <summary>What else is written on the carburetor and the engine, as it was read; a later note stands in place of an earlier
/// one.</summary>
/// <param name="DateCode">The date code beside the stamped number; may be empty.</param>
/// <param name="Plate">The engine's plate, model and specification; may be empty.</param>
public sealed record MarksNote(string DateCode, string Plate) : Note
{
    /// <summary>Nothing read.</summary>
    public static readonly MarksNote None = new("", "");
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
    /// <inheritdoc/>
    public override Note AsSent() => this with { Measured = null };

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

/// <summary>Kit: which carburetor it is, what fits it, what is fitted.</summary>
public sealed class KitsStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Kits;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [
        NoteKind.Of<SheetNote>("sheet"),
        NoteKind.Of<FittingNote>("fitting"),
        NoteKind.Of<PartsHereNote>("partsHere"),
        NoteKind.Of<UnfitNote>("unfit"),
        NoteKind.Of<OrderedNote>("ordered"),
        NoteKind.Of<OrderUndoneNote>("orderUndone"),
        NoteKind.Of<ArrivedNote>("arrived"),
        NoteKind.Of<OldPartNote>("oldPart"),
        NoteKind.Of<MarksNote>("marks"),
    ];

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new KitsState(tray);

    /// <inheritdoc/>
    public override bool ChangesFacts(Note note) =>
        note is SheetNote or FittingNote or PartsHereNote or UnfitNote or OrderedNote or OrderUndoneNote or ArrivedNote;

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) =>
        note switch
        {
            SheetNote { Sheet: null } => Wrong("specCode", "There is no spec sheet of that name. Pick one from the list."),
            SheetNote { StampedNumber.Length: > StampedNumber.Longest } => Wrong(
                "stampedNumber",
                $"Longer than {StampedNumber.Longest} characters. Check the number."
            ),
            PartsHereNote when tray.Fitting is not { ToOrder: true } => Wrong("kind", "Nothing is on order for this tray."),
            UnfitNote when tray.Fitting is null => Wrong("kind", "Nothing is chosen for this tray."),
            UnfitNote when Built(tray) is { } part => Wrong("kind", $"The new {part} is in already. Take it out at Build first."),
            OrderedNote or OrderUndoneNote or ArrivedNote => Wrong("kind", "This is recorded by the bench itself."),
            OldPartNote old => old.Read().Problems,
            MarksNote { DateCode.Length: > StampedNumber.Longest } => Wrong(
                "dateCode",
                $"Longer than {StampedNumber.Longest} characters. Check the code."
            ),
            MarksNote { Plate.Length: > StampedNumber.Longest } => Wrong(
                "plate",
                $"Longer than {StampedNumber.Longest} characters. Check the plate."
            ),
            _ => [],
        };

    /// <inheritdoc/>
    public override Note Complete(Note note, TrayBook tray) => note is OldPartNote old ? old with { Measured = old.Read().Measured } : note;

    /// <inheritdoc/>
    public override TrayFacts Facts(Note note, TrayBook tray) =>
        note switch
        {
            // The sheet knows what kind it is; what was noted at check-in was a first look.
            SheetNote { Sheet: { } sheet } chosen => tray.Facts with
            {
                Sheet = sheet,
                StampedNumber = (chosen.StampedNumber ?? tray.Facts.StampedNumber).Trim(),
                Kind = tray.Kind with { Family = sheet.Family },
            },
            FittingNote { Decided: { } fitting } => Fitted(tray.Facts, fitting),
            PartsHereNote { Decided: { } fitting } => Fitted(tray.Facts, fitting),
            UnfitNote => Unfitted(tray.Facts),
            OrderedNote ordered when tray.Facts.WaitsFor == WaitsFor.Parts => tray.Facts with
            {
                WaitNote = string.Create(
                    CultureInfo.InvariantCulture,
                    $"{string.Join(", ", ordered.Items)} ordered from {ordered.Supplier}, due {ordered.Due:d MMM}"
                ),
            },
            OrderUndoneNote when tray.Facts is { WaitsFor: WaitsFor.Parts, Fitting: { } still } => tray.Facts with
            {
                WaitNote = ToOrder(still),
            },
            ArrivedNote arrived => tray.Facts.WaitsFor == WaitsFor.Parts
                ? Waiting.After(tray.Facts, WaitEvent.PartsHere, $"{string.Join(", ", arrived.Items)} is here: take it")
                : tray.Facts,
            _ => tray.Facts,
        };

    /// <inheritdoc/>
    public override Sentence Say(Note note, TrayBook tray) =>
        note switch
        {
            SheetNote sheet => Sentence.Say(
                $"Spec sheet {sheet.SpecCode}{(sheet.StampedNumber is { } stamped ? $", stamped number {stamped.Trim()}" : "")}"
            ),
            FittingNote { Decided: { } fitting } => Sentence.Say($"{Words(fitting)}"),
            PartsHereNote { Decided: { } fitting } => Sentence.Say($"Parts are here. {Words(fitting)}"),
            UnfitNote => Sentence.Of("Not fitted after all: what it took went back"),
            OrderedNote ordered => Sentence.Say(
                $"{string.Join(", ", ordered.Items)} ordered from {ordered.Supplier}, due {ordered.Due.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}"
            ),
            OrderUndoneNote undone => Sentence.Say($"Order from {undone.Supplier} taken back"),
            ArrivedNote arrived => Sentence.Say($"Here: {string.Join(", ", arrived.Items)}"),
            OldPartNote old => Say(old),
            MarksNote marks => Sentence.Say($"Date code {Read(marks.DateCode)}, engine plate {Read(marks.Plate)}"),
            _ => Sentence.None,
        };

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
            FitOption.Decline => "Declined: not worth the repair, nothing is charged",
        };
        return words
            + (taken.Count > 0 ? $" {string.Join(", ", taken)} taken from the shelf" : "")
            + (toOrder.Count > 0 ? $"{(taken.Count > 0 ? ";" : "")} {string.Join(", ", toOrder)} to order" : "");
    }

    /// <summary>A tray with something on order waits for parts; one that did waits for hands again.</summary>
    private static TrayFacts Fitted(TrayFacts facts, Fitting fitting)
    {
        var waited = facts.Fitting is { ToOrder: true };
        var after = facts with { Fitting = fitting };
        return fitting.ToOrder ? Waiting.After(after, WaitEvent.PartsToOrder, ToOrder(fitting))
            : waited ? Taken(after)
            : after;
    }

    private static TrayFacts Unfitted(TrayFacts facts)
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

    private static string ToOrder(Fitting fitting) =>
        $"{string.Join(", ", fitting.Items.Where(item => !item.FromShelf).Select(item => item.Number))} to order";

    /// <summary>A part that went in out of what was chosen, or null.</summary>
    private static string? Built(TrayBook tray) =>
        tray
            .Ledger.Lines.FirstOrDefault(line =>
                line.Fitted is { Fate: Fate.Renewed, FromShelf: false, Item: { } item }
                && tray.Fitting!.Items.Any(one => one.Number == item)
            )
            ?.Part.Label;

    /// <summary>A note that says what was read already is not kept twice.</summary>
    /// <inheritdoc/>
    public override bool ChangesNothing(Note note, TrayBook tray) => note is MarksNote marks && marks == ((KitsState)State(tray)).Marks;

    private static string Read(string mark) => mark.Trim() is { Length: > 0 } text ? text : "not read";

    private static Sentence Say(OldPartNote old)
    {
        var measured = old.Measured ?? old.Features;
        return measured.Count == 0
            ? Sentence.Say($"Old {old.Part}: measures taken back")
            : Sentence.Say($"Old {old.Part}: {FeatureText.Say(old.Part, measured, PartKnowledge.Shipped)}");
    }
}

/// <summary>How a tray stands at Kit.</summary>
/// <param name="tray">The tray.</param>
public sealed class KitsState(TrayBook tray) : StationState
{
    /// <summary>What else was read off the carburetor and the engine.</summary>
    public MarksNote Marks { get; } = tray.Log.Notes<MarksNote>() is [.., var last] ? last.Note : MarksNote.None;

    /// <summary>Old parts as measured on the bench, the last measure of each.</summary>
    public IReadOnlyList<ItemPart> OldParts { get; } =
    [
        .. tray
            .Log.Last<OldPartNote>(note => note.Part)
            .Select(logged => new ItemPart(logged.Note.Part, logged.Note.Quantity, logged.Note.Measured ?? logged.Note.Features))
            .Where(part => part.Features.Count > 0),
    ];

    /// <summary>Parts as they are wanted: by the spec sheet and by the old ones.</summary>
    public IReadOnlyList<WantedPart> Wanted => WantedPart.Of(tray.Sheet?.Needs ?? [], OldParts, PartKnowledge.Shipped);

    /// <summary>Where what is fitted stands.</summary>
    public PartsStage Stage
    {
        get
        {
            if (tray.Fitting is not { } fitting)
            {
                return PartsStage.NotChosen;
            }

            if (!fitting.ToOrder)
            {
                return PartsStage.Taken;
            }

            var last = tray
                .Log.Notes<Note>()
                .Select(logged => logged.Note)
                .LastOrDefault(note => note is FittingNote or PartsHereNote or OrderedNote or OrderUndoneNote or ArrivedNote);
            return last is OrderedNote ? PartsStage.Ordered
                : last is ArrivedNote ? PartsStage.Here
                : PartsStage.ToOrder;
        }
    }

    /// <summary>The order that the tray waits for; null when there is none, and once it is here.</summary>
    public OrderedNote? Order => Stage == PartsStage.Ordered ? tray.Log.Notes<OrderedNote>()[^1].Note : null;

    /// <summary>Numbers of the items that the bench has said are here for it; empty while they are not, and once they are taken.</summary>
    public IReadOnlyList<string> Arrived => Stage == PartsStage.Here ? tray.Log.Notes<ArrivedNote>()[^1].Note.Items : [];

    /// <summary>Numbers it goes by: the stamp as read, and those of its spec sheet.</summary>
    public IReadOnlyList<string> Numbers =>
        [.. (tray.Sheet?.StampedNumbers ?? []).Prepend(tray.Facts.StampedNumber).Where(number => number.Length > 0).Distinct()];

    /// <inheritdoc/>
    public override Station Station => Station.Kits;

    /// <inheritdoc/>
    public override StationProgress Progress
    {
        get
        {
            var open = (tray.Sheet is null ? 1 : 0) + (tray.Fitting is null ? 1 : 0);
            if (open == 0 && Stage is PartsStage.ToOrder or PartsStage.Ordered or PartsStage.Here)
            {
                return StationProgress.Done(
                    Stage == PartsStage.Here ? "here: take it"
                        : Stage == PartsStage.Ordered ? "ordered"
                        : "to order",
                    2
                );
            }

            return open == 0 ? StationProgress.Done("done", 2) : new StationProgress(open, 2, false, $"{open} of 2 open");
        }
    }

    /// <inheritdoc/>
    public override NextStep? Step =>
        tray.Sheet is null && !tray.IsWorkedOn
            ? NextStep.At(
                Station.Kits,
                "Find its spec sheet by the stamped number, or make one.",
                "The sheet says what is good. Work does not wait for it: without one, what is read is kept.",
                null
            )
        : Stage == PartsStage.Here
            ? NextStep.At(
                Station.Kits,
                $"Take {string.Join(", ", Arrived)} off the shelf.",
                "What was ordered for this tray is here.",
                null
            )
        : tray.Fitting is null
            ? NextStep.At(Station.Kits, "Decide what to fit to this tray.", "Match the parts, then decide what goes back in.", null)
        : null;

    /// <inheritdoc/>
    public override IReadOnlyList<Obstacle> Obstacles =>
        tray.Sheet is null
            ?
            [
                new Obstacle(
                    "kits/spec-sheet",
                    "Spec sheet",
                    Station.Kits,
                    ObstacleKind.Missing,
                    "None: what it has no limit for was not judged"
                ),
            ]
            : [];

    /// <inheritdoc/>
    public override IReadOnlyList<ReportSection> Report =>
        tray.Fitting switch
        {
            null => [],
            { Option: FitOption.Decline } => [new KitSection(null, true)],
            var fitting => [new KitSection(Told(fitting), false)],
        };

    /// <summary>The kit as it went in: what never came, and what was left lying while the old part went back, is neither listed nor
    /// priced.</summary>
    private ReportKit? Told(Fitting fitting)
    {
        var used = fitting.Items.Where(WentIn).ToList();
        var whole = used.Count == fitting.Items.Count;
        return used.Count == 0 && !whole
            ? null
            : new ReportKit(
                string.Join(", ", used.Select(item => item.Number)),
                used is [var only] ? only.Name
                    : whole ? fitting.What
                    : string.Join(", ", used.Select(item => item.Name)),
                whole ? fitting.PartsMoney : null,
                tray.Shop.Currency,
                used is [var item] && item.Parts.Count > 0 ? [.. item.Parts.Select(part => $"{part.Quantity} {part.Part}")]
                    : whole ? fitting.Parts
                    : [.. used.SelectMany(one => one.Parts).Select(part => part.Part).Distinct()]
            );
    }

    private bool WentIn(FittedItem item)
    {
        var ended = tray
            .Ledger.Lines.Where(line => line.Fitted is not null && item.Parts.Any(part => part.Part == line.Part.KitPart))
            .ToList();
        return item.FromShelf
            && (ended.Count == 0 || ended.Any(line => line.Fitted is { Fate: Fate.Renewed } fitted && fitted.Item == item.Number));
    }
}
