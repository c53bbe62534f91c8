using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
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

    private const string ScrewLook = "chokes/cleaner-screw";

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [
        new(typeof(OpeningReading), "opening"), new(typeof(RodTravelReading), "rodTravel"), new(typeof(ReturnSpringReading), "returnSpring"), new(typeof(WarmWaterReading), "warmWater"),
        new(typeof(SuctionForceReading), "suctionForce"),
    ];

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) =>
        note is ReadingNote { Line: "chokes/opening" } && tray.Lines.Any(line => line.Line.Key == ScrewLook && line.Judgement.Verdict == Verdict.NotGood)
            ? [new FieldProblem("open", "The air cleaner’s screw is not in: nothing that is timed now counts. Put it in, say so, and time it again.")]
            : base.Check(note, tray);

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop)
    {
        // While nobody has said which choke it is, only what holds for all of them is looked at.
        var looks = ShippedLooks.Where(look => look.Asks(tray.Kind) && (tray.Kind.Choke is not null || look.Chokes.Count == 0)).Select(look => (GaugeLine)new LookLine(Station.Chokes, "chokes", look));
        return tray.Kind.Choke is not { } choke ? looks : choke switch
        {
            ChokeKind.Manual => looks,
            ChokeKind.Vacuum => [.. looks, new OpeningLine(ChokeKind.Vacuum), new SuctionForceLine()],
            ChokeKind.Heat => [.. looks, new OpeningLine(ChokeKind.Heat), new WarmWaterLine()],
            ChokeKind.Lever => [.. looks, new RodTravelLine(), new ReturnSpringLine()],
        };
    }
}
