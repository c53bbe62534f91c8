using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Cleaning;

/// <summary>Clean: what dirt there is, how it comes off, and whether the passages are through.</summary>
public sealed class CleaningStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Cleaning;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [SoilsNote.Kind, MethodNote.Kind, DryNote.Kind, PassageNote.Kind, BasketNote.Kind];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => CleaningJson.Default;

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new CleaningState(tray);
}

/// <summary>Its notes as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(SoilsNote))]
[JsonSerializable(typeof(MethodNote))]
[JsonSerializable(typeof(DryNote))]
[JsonSerializable(typeof(PassageNote))]
[JsonSerializable(typeof(BasketNote))]
internal sealed partial class CleaningJson : JsonSerializerContext;

/// <summary>How a tray's parts are cleaned, and how far that is.</summary>
public sealed class CleaningState : StationState
{
    private readonly TrayBook tray;
    private readonly Ledger ledger;

    /// <summary>The cleaning of a tray.</summary>
    /// <param name="tray">The tray.</param>
    public CleaningState(TrayBook tray)
    {
        this.tray = tray;
        ledger = tray.Ledger;
        var knowledge = tray.Knowledge.Of<CleaningKnowledge>();
        Plan = CleaningPlan.Of(knowledge, knowledge.Passages(tray.Kind.Family, tray.Sheet), ledger, tray.Log.Notes<CleaningNote>());
    }

    /// <summary>What is to be cleaned off, how, and the passages.</summary>
    public CleaningPlan Plan { get; }

    /// <summary>True when everything comes off: then every passage is looked through.</summary>
    public bool IsWhole => ledger.Job is { Parts: null };

    /// <summary>Whether anything is to be cleaned.</summary>
    public bool Cleans => IsWhole || ledger.Lines.Any(line => line.Found?.Verdict == LineVerdict.Clean);

    /// <summary>What is open: dirt to name, ways to use, water to drive out, passages to see air through.</summary>
    public int Open =>
        !Cleans
            ? 0
            : (Plan.Soils is null ? 1 : 0)
                + (
                    Plan.Offers.Count(offer => offer.Chosen) is > 0 and var chosen ? chosen
                    : Advised is null ? 0
                    : 1
                )
                + (Plan.Wet ? 1 : 0)
                + (IsWhole ? Plan.OpenPassages : 0);

    /// <inheritdoc/>
    public override Station Station => Station.Cleaning;

    /// <inheritdoc/>
    public override StationProgress Progress =>
        !ledger.IsBegun ? new StationProgress(0, 0, true, "not begun")
        : Open > 0 ? new StationProgress(Open, Open, false, $"{Open} open", MinutesLeft)
        : StationProgress.Done(Cleans ? "done" : "nothing to do", Cleans ? 1 : 0);

    /// <inheritdoc/>
    public override NextStep? Step
    {
        get
        {
            if (tray.Facts.WaitsFor == WaitsFor.Bath)
            {
                return NextStep.At(
                    Station.Cleaning,
                    "In the bath: another tray meanwhile.",
                    "Its timer calls on every page.",
                    Caution.Bath
                );
            }

            if (!Cleans || ledger.Taken.Count == 0 || Open == 0)
            {
                return null;
            }

            if (Plan.Soils is null)
            {
                return NextStep.At(
                    Station.Cleaning,
                    "Say what has to come off.",
                    "Varnish, white corrosion, rust and dirt each want their own way.",
                    null
                );
            }

            if (Plan.Offers.FirstOrDefault(offer => offer.Chosen) is { } chosen)
            {
                return NextStep.At(
                    Station.Cleaning,
                    $"{chosen.Recipe.Label}.",
                    chosen.Why,
                    chosen.Recipe.Cautions is [var first, ..] ? first : null
                );
            }

            if (Advised is { } advised)
            {
                return NextStep.At(
                    Station.Cleaning,
                    $"Choose: {Lower(advised.Recipe.Label)}.",
                    advised.Why,
                    advised.Recipe.Cautions is [var first, ..] ? first : null
                );
            }

            if (Plan.Wet)
            {
                return NextStep.At(
                    Station.Cleaning,
                    "Rinse, blow out and dry.",
                    "What was used before has to be off before anything else follows.",
                    Caution.Eyes
                );
            }

            return Plan.Passages.FirstOrDefault(one => one.IsOpen)?.Passage is { } passage
                ? NextStep.At(
                    Station.Cleaning,
                    $"{passage.Label}: air in at {passage.Into}, out at {passage.Exit}.",
                    passage.Gentle
                        ? "A check valve sits in it: gently, a blast ruins it."
                        : "Light through is not enough: air has to come out at the far end.",
                    Caution.Eyes
                )
                : null;
        }
    }

    /// <summary>What was cleaned, and how.</summary>
    public override IReadOnlyList<ReportSection> Report =>
        [
            new PointsSection([
                .. Plan
                    .Offers.Where(offer =>
                        tray.Log.Notes<MethodNote>().Any(logged => logged.Note.Recipe == offer.Recipe.Key && logged.Note.TookItOff)
                    )
                    .Select(offer => ReportPoint.Of(ReportChapter.Done, $"Cleaned: {Lower(offer.Recipe.Label)}.")),
                .. Plan
                    .Passages.Where(one => one.Cleaned)
                    .Select(one => ReportPoint.Of(ReportChapter.Done, $"Cleared: {Lower(one.Passage.Label)}.")),
            ]),
        ];

    private RecipeOffer? Advised => Plan.Offers.FirstOrDefault(offer => offer is { Standing: RecipeStanding.Advised, Done: false });

    private double? MinutesLeft =>
        Plan.Offers.Where(offer => offer.Chosen).Select(offer => offer.Recipe.Minutes).DefaultIfEmpty(Advised?.Recipe.Minutes ?? 0).Sum()
            is > 0
                and var minutes
            ? minutes
            : null;

    private static string Lower(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
