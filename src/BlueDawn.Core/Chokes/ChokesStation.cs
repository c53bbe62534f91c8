using BlueDawn.Core.Carburetors;
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

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [
        new(typeof(OpeningReading), "opening"), new(typeof(RodTravelReading), "rodTravel"), new(typeof(ReturnSpringReading), "returnSpring"), new(typeof(WarmWaterReading), "warmWater"),
    ];

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop)
    {
        // While nobody has said which choke it is, only what holds for all of them is looked at.
        var looks = ShippedLooks.Where(look => look.Asks(tray.Kind) && (tray.Kind.Choke is not null || look.Chokes.Count == 0)).Select(look => (GaugeLine)new LookLine(Station.Chokes, "chokes", look));
        return tray.Kind.Choke is not { } choke ? looks : choke switch
        {
            ChokeKind.Manual => looks,
            ChokeKind.Vacuum => [.. looks, new OpeningLine(ChokeKind.Vacuum)],
            ChokeKind.Heat => [.. looks, new OpeningLine(ChokeKind.Heat), new WarmWaterLine()],
            ChokeKind.Lever => [.. looks, new RodTravelLine(), new ReturnSpringLine()],
        };
    }
}
