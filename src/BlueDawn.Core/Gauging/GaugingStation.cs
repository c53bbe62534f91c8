using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Gauging;

/// <summary>Gauge: jets and the emulsion tube.</summary>
public sealed class GaugingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Gauging;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } = [ReadingNote.Kind, WithdrawalNote.Kind];

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [ReadingKind.Of<BoreReading>("bore", BoreLine.CanFind), ReadingKind.Of<StepUpReading>("stepUp", StepUpLine.CanFind)];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => GaugingJson.Default;

    /// <inheritdoc/>
    public override bool IsInScope(GaugeLine line, JobScope job) =>
        !job.Ledger.IsExchanged && (line.Part is not { } part || job.Ledger.Opens(part));

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop) =>
        [
            .. NotOnSheet(tray, sheet).Select(jet => new BoreLine($"gauging/{jet.Key}", "Jets", jet.Label, null, null)),
            .. Jets(sheet, shop),
            // Only an idle jet, and only one whose bore is known.
            .. Jets(sheet, shop)
                .Where(jet => jet.Key == IdleJet)
                .SelectMany(jet => jet.Bore is { } bore ? [new StepUpLine(jet, bore)] : Array.Empty<StepUpLine>()),
            .. sheet
                .EmulsionRows.OrderBy(row => row.Row)
                .Select(row => new BoreLine(
                    $"gauging/emulsion-row-{row.Row}",
                    "Emulsion tube, from the top",
                    $"Row {row.Row}",
                    new BoreLimits(row.BoreMm, row.ToleranceMm, sheet.Name),
                    row.Holes
                )),
        ];

    private const string IdleJet = "gauging/idle-jet";

    private static IEnumerable<BoreLine> Jets(SpecSheet sheet, ShopDefaults shop) =>
        sheet.Jets.Select(jet => new BoreLine(
            $"gauging/{jet.Key}",
            "Jets",
            jet.Label,
            new BoreLimits(jet.BoreMm, jet.ToleranceMm, sheet.Name),
            null
        )
        {
            School = shop.JetSchool,
        });

    /// <summary>Jets that such a carburetor has, though its sheet gives no bore for them.</summary>
    private static IEnumerable<(string Key, string Label)> NotOnSheet(TrayFacts tray, SpecSheet sheet) =>
        UsualJets(tray.Kind.Family, sheet.IsOnFile).Where(jet => sheet.Jets.All(known => known.Key != jet.Key));

    private static (string Key, string Label)[] UsualJets(CarburetorFamily family, bool onFile) =>
        family switch
        {
            // A sheet that names no idle jet may be right: some have none.
            CarburetorFamily.FloatBowl => onFile ? [("main-jet", "Main jet")] : [("main-jet", "Main jet"), ("idle-jet", "Idle jet")],
            // Its metering is drilled into the body.
            CarburetorFamily.Diaphragm => [],
            CarburetorFamily.SuctionTank => [("main-jet", "Main jet")],
        };
}

/// <summary>Its readings as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(ReadingNote))]
[JsonSerializable(typeof(WithdrawalNote))]
[JsonSerializable(typeof(BoreReading))]
[JsonSerializable(typeof(StepUpReading))]
internal sealed partial class GaugingJson : JsonSerializerContext;
