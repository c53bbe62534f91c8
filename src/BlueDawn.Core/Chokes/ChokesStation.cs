using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Chokes;

/// <summary>Choke: each kind looked at in its order, timed from the start, its release set.</summary>
public sealed class ChokesStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Chokes;

    /// <summary>What is looked at here, in bench order: data/chokes/looks.csv.</summary>
    public static IReadOnlyList<Look> ShippedLooks { get; } = Look.Read(CsvTable.OpenShipped, "chokes/looks.csv");

    /// <summary>The look that says whether the throttle returns: an engine whose throttle hangs does not run.</summary>
    public const string ThrottleLook = "chokes/throttle-returns";

    internal const string ScrewLook = "chokes/cleaner-screw";

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [
        ReadingKind.Of<OpeningReading>("opening", OpeningLine.CanFind),
        ReadingKind.Of<RodTravelReading>("rodTravel", RodTravelLine.CanFind),
        ReadingKind.Of<ReturnSpringReading>("returnSpring", ReturnSpringLine.CanFind),
        ReadingKind.Of<WarmWaterReading>("warmWater", WarmWaterLine.CanFind),
        ReadingKind.Of<SuctionForceReading>("suctionForce", SuctionForceLine.CanFind),
        ReadingKind.Of<WarmStripReading>("warmStrip", WarmStripLine.CanFind),
        ReadingKind.Of<HoldReading>("hold", ChamberHoldLine.CanFind),
        ReadingKind.Of(ShippedLooks),
    ];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => ChokesJson.Default;

    /// <summary>Complaints that a choke brings about, by which it is tried whatever was opened: data/chokes/complaints.csv.</summary>
    public static IReadOnlyList<string> OfTheChoke { get; } =
        CsvTable.Rows(CsvTable.OpenShipped, "chokes/complaints.csv", row => row.Text("complaint"));

    /// <summary>On a job that does not open all of it a choke is tried where it was opened or mended, and where the owner came with what a
    /// choke does, until that was tried again and is gone.</summary>
    /// <inheritdoc/>
    public override bool IsInScope(GaugeLine line, JobScope job) =>
        (job.Ledger.Job?.Parts is not { Count: > 0 } && !job.IsClosed)
        || job.Ledger.Taken.Any(taken => taken.Part.Proves.Contains(Proof.Choke))
        || (
            job.Facts.Complaints.Where(complaint => OfTheChoke.Contains(complaint.Id)).Select(complaint => complaint.LineKey).ToList()
                is { Count: > 0 } ofTheChoke
                ? !ofTheChoke.All(job.IsGood)
                : job.Mended?.Contains(Proof.Choke) == true
        );

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop)
    {
        // While nobody has said which choke it is, only what holds for all of them is looked at.
        var looks = ShippedLooks
            .Where(look => look.Asks(tray.Kind) && (tray.Kind.Choke is not null || look.Chokes.Count == 0))
            .Select(look => (GaugeLine)new LookLine(Station.Chokes, "chokes", look));
        return tray.Kind.Choke is not { } choke
            ? looks
            : choke switch
            {
                ChokeKind.Manual => looks,
                ChokeKind.Vacuum =>
                [
                    .. looks,
                    Opening(ChokeKind.Vacuum),
                    new SuctionForceLine(),
                    .. Chamber(tray.Kind.Family, shop.Chokes),
                ],
                ChokeKind.Heat => [.. looks, Opening(ChokeKind.Heat), .. Heat(sheet, shop.Chokes)],
                ChokeKind.Lever => [.. looks, new RodTravelLine(shop.Chokes.RodSpareMm), new ReturnSpringLine()],
            };

        OpeningLine Opening(ChokeKind kind) => new(kind, OpeningLimits.Of(kind, sheet, shop.Chokes));
    }

    /// <summary>The chamber's hold test, where there is a chamber with its diaphragm under the body.</summary>
    private static IEnumerable<GaugeLine> Chamber(CarburetorFamily family, ChokeDefaults usual) =>
        family == CarburetorFamily.SuctionTank ? [new ChamberHoldLine(usual.ChamberHold, OpeningLimits.ShopDefault)] : [];

    /// <summary>The bench check of what moves it: of both kinds while nobody has said which it is.</summary>
    private static IEnumerable<GaugeLine> Heat(SpecSheet sheet, ChokeDefaults usual)
    {
        var says = sheet.Opens;
        if (says?.Element != HeatElement.Bimetal)
        {
            yield return new WarmWaterLine(
                says?.StrokeMm ?? usual.WaxStrokeMm,
                OpeningWindow.Of(says, usual),
                says?.StrokeMm is null ? OpeningLimits.ShopDefault : sheet.Name
            );
        }

        if (says?.Element != HeatElement.Wax)
        {
            yield return new WarmStripLine(says?.Strip, says?.Strip is null ? "Usual bimetals, from memory" : sheet.Name);
        }
    }
}

/// <summary>Its readings as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(OpeningReading))]
[JsonSerializable(typeof(RodTravelReading))]
[JsonSerializable(typeof(ReturnSpringReading))]
[JsonSerializable(typeof(WarmWaterReading))]
[JsonSerializable(typeof(SuctionForceReading))]
[JsonSerializable(typeof(WarmStripReading))]
internal sealed partial class ChokesJson : JsonSerializerContext;
