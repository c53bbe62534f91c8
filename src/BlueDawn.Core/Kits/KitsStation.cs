using System.Globalization;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Kits;

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

/// <summary>Kit: which carburetor it is, what fits it, what is fitted.</summary>
public sealed class KitsStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Kits;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [
        SheetNote.Kind,
        FittingNote.Kind,
        PartsHereNote.Kind,
        UnfitNote.Kind,
        OrderedNote.Kind,
        OrderUndoneNote.Kind,
        ArrivedNote.Kind,
        OldPartNote.Kind,
        MarksNote.Kind,
    ];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => KitsJson.Default;

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new KitsState(tray);
}

/// <summary>Its notes as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(SheetNote))]
[JsonSerializable(typeof(FittingNote))]
[JsonSerializable(typeof(PartsHereNote))]
[JsonSerializable(typeof(UnfitNote))]
[JsonSerializable(typeof(OrderedNote))]
[JsonSerializable(typeof(OrderUndoneNote))]
[JsonSerializable(typeof(ArrivedNote))]
[JsonSerializable(typeof(OldPartNote))]
[JsonSerializable(typeof(MarksNote))]
internal sealed partial class KitsJson : JsonSerializerContext;

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

    /// <summary>Parts as they are wanted: by the spec sheet, by the old ones, and by what came out to be renewed.</summary>
    public IReadOnlyList<WantedPart> Wanted =>
        WantedPart.Of(
            [.. tray.Sheet?.Needs ?? [], .. FloatBySheet],
            [.. ToRenew.Where(part => OldParts.All(old => old.Part != part.Part)), .. OldParts],
            PartKnowledge.Shipped
        );

    /// <summary>A float that is wanted, as the sheet describes it: a donor's is told by its mass and its arm.</summary>
    private IEnumerable<PartNeed> FloatBySheet =>
        tray.Sheet is { Float: { } told } sheet
        && sheet.Needs.All(need => need.Part != FloatPart)
        && ToRenew.Concat(OldParts).Any(part => part.Part == FloatPart)
            ?
            [
                new PartNeed(
                    FloatPart,
                    1,
                    new Dictionary<string, string>
                    {
                        ["mass"] = string.Create(CultureInfo.InvariantCulture, $"{told.DryMassG} g"),
                        ["arm"] = told.Body is { } body ? string.Create(CultureInfo.InvariantCulture, $"{body.ArmMm} mm") : "",
                    }
                        .Where(pair => pair.Value.Length > 0)
                        .ToDictionary()
                ),
            ]
            : [];

    private const string FloatPart = "float";

    private readonly Lazy<IReadOnlyList<string>> needed = new(() => tray.PartsNeeded);

    /// <summary>What came out broken, to be renewed or was not there, and what the mend of a fault that was shown takes new, as kits call
    /// it. What was renewed meanwhile is not needed any more.</summary>
    private IEnumerable<ItemPart> ToRenew =>
        tray
            .Ledger.Lines.Where(line =>
                line.Part.KitPart is not null
                && (
                    line.Found?.Verdict is LineVerdict.Renew or LineVerdict.Broken or LineVerdict.Missing
                    || (line.Fitted?.Fate is not (Fate.Renewed or Fate.Made) && needed.Value.Contains(line.Part.Key))
                )
            )
            .Select(line => line.Part.KitPart!)
            .Distinct()
            .Select(part => new ItemPart(part, 1, new Dictionary<string, string>()));

    /// <summary>A part of it was opened, all of that is out, and nothing of it wants a new one: nothing is to be decided.</summary>
    private bool NothingToRenew =>
        tray.Ledger is { Job.Parts.Count: > 0, ToStrip.Count: 0, Taken.Count: > 0 } && OldParts.Count == 0 && !ToRenew.Any();

    /// <summary>Whether what goes in is still to be decided. What came out to be renewed and went back in from elsewhere settles it.</summary>
    private bool IsUndecided =>
        tray.Fitting is null
        && !NothingToRenew
        && !(
            tray.Ledger.Lines.Any(line => line.Fitted?.Elsewhere is not null)
            && tray.Ledger.Lines.All(line =>
                line.Found?.Verdict is not (LineVerdict.Renew or LineVerdict.Broken or LineVerdict.Missing) || !line.IsOpen
            )
        );

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
            var open = (tray.Sheet is null ? 1 : 0) + (IsUndecided ? 1 : 0);
            if (open == 0 && Stage is PartsStage.ToOrder or PartsStage.Ordered or PartsStage.Here)
            {
                return StationProgress.Done(
                    Stage == PartsStage.Here ? "here: take it"
                        : Stage == PartsStage.Ordered ? "ordered"
                        : "to order",
                    2
                );
            }

            return open == 0
                ? StationProgress.Done(tray.Fitting is null && NothingToRenew ? "nothing to renew" : "done", 2)
                : new StationProgress(open, 2, false, $"{open} of 2 open");
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
        : IsUndecided
            ? NextStep.At(Station.Kits, "Decide what to fit to this tray.", "Match the parts, then decide what goes back in.", null)
        : null;

    /// <inheritdoc/>
    public override IReadOnlyList<ReportSection> Report =>
        tray.Sheet is not null
            ? Fitted
            :
            [
                .. Fitted,
                new PointsSection([
                    ReportPoint.Of(ReportChapter.Found, "No spec sheet was at hand: what has no limit was kept, not judged."),
                ]),
            ];

    private IReadOnlyList<ReportSection> Fitted =>
        tray.Fitting switch
        {
            null => [],
            { Option: FitOption.Decline } => [new KitSection(null, true)],
            { Option: FitOption.CleanAndRefit } =>
            [
                new KitSection(null, false),
                new PointsSection(tray.IsRepaired ? [] : [ReportPoint.Of(ReportChapter.Parts, "Nothing new went in.")]),
            ],
            var fitting => Told(fitting) is { } kit
                ?
                [
                    new KitSection(kit, false),
                    new PointsSection([
                        ReportPoint.Of(ReportChapter.Parts, $"{$"{kit.Number} {kit.Name}".Trim()}: {string.Join(", ", kit.Parts)}."),
                    ]),
                ]
                : [new KitSection(null, false)],
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
