using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Proving;

/// <summary>Where fuel was seen with the fuel on.</summary>
public enum FuelLeak
{
    /// <summary>Dry.</summary>
    None,

    /// <summary>At the joint between bowl and body, or the bowl nut.</summary>
    BowlJoint,

    /// <summary>Out of the overflow, the vent or the throat.</summary>
    Overflow,

    /// <summary>At the inlet fitting or the line.</summary>
    InletFitting,

    /// <summary>At the flooding plunger.</summary>
    Plunger,

    /// <summary>At the joint of a cover of a diaphragm type.</summary>
    Cover,

    /// <summary>Between a carburetor and the tank it stands on.</summary>
    TankTop,

    /// <summary>At a plunger or seat that is new: it may weep until it has bedded in.</summary>
    NewPart,
}

/// <summary>Fuel on, watched and rocked.</summary>
/// <param name="WatchedMin">Minutes watched.</param>
/// <param name="Rocked">Whether the carburetor was rocked meanwhile.</param>
/// <param name="Leak">Where fuel was seen.</param>
/// <param name="BeddedDays">Days since a new part was first seen to weep, when it still does; worked out when it is recorded, null the
/// first time.</param>
public sealed record FuelWatchReading(double WatchedMin, bool Rocked, FuelLeak Leak, int? BeddedDays = null) : Reading;

/// <summary>Fuel on and watch: dry after the shop's minutes, rocked.</summary>
/// <param name="MinutesNeeded">Minutes it has to stay dry.</param>
/// <param name="BedInDays">Days a new plunger or seat may weep.</param>
/// <param name="Family">The carburetor: it says where fuel can come out.</param>
/// <param name="NewFitted">Whether a new part went in, which may weep until it has bedded in.</param>
public sealed record FuelWatchLine(double MinutesNeeded, int BedInDays, CarburetorFamily Family, bool NewFitted)
    : GaugeLine<FuelWatchReading>("proving/fuel-on", Station.Proving, "Fuel on", "Fuel on, rocked")
{
    private static readonly LineFinding BeddingIn = LineFinding.Open("beddingIn", word: "Bedding in");
    private static readonly LineFinding Dry = LineFinding.Good("dry", "Dry");
    private static readonly LineFinding WetAtBowlJoint = LineFinding.Bad("wetAtBowlJoint", "Wet at bowl joint");
    private static readonly LineFinding Overflows = LineFinding.Bad("overflows", "Overflows");
    private static readonly LineFinding FloodsThroat = LineFinding.Bad("floodsThroat", "Floods");
    private static readonly LineFinding WetAtCover = LineFinding.Bad("wetAtCover", "Wet at a cover");
    private static readonly LineFinding WetAtTankTop = LineFinding.Bad("wetAtTankTop", "Wet at the tank");
    private static readonly LineFinding WetAtInlet = LineFinding.Bad("wetAtInlet", "Wet at inlet");
    private static readonly LineFinding PlungerWeeps = LineFinding.Bad("plungerWeeps", "Plunger weeps");
    private static readonly LineFinding StillWeeps = LineFinding.Bad("stillWeeps", "Still weeps");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [
        LineFinding.CannotTell,
        BeddingIn,
        Dry,
        WetAtBowlJoint,
        Overflows,
        FloodsThroat,
        WetAtCover,
        WetAtTankTop,
        WetAtInlet,
        PlungerWeeps,
        StillWeeps,
    ];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <inheritdoc/>
    public override Proof? Proves => Proof.Fuel;

    private static readonly (FuelLeak Leak, string Value, string Label, CarburetorFamily[] Families)[] AllLeaks =
    [
        (FuelLeak.None, "dry", "Dry", [CarburetorFamily.FloatBowl, CarburetorFamily.Diaphragm, CarburetorFamily.SuctionTank]),
        (FuelLeak.BowlJoint, "bowlJoint", "Wet at bowl joint", [CarburetorFamily.FloatBowl]),
        (FuelLeak.Overflow, "overflow", "Out of overflow", [CarburetorFamily.FloatBowl]),
        (FuelLeak.Overflow, "throat", "Out of the throat", [CarburetorFamily.Diaphragm, CarburetorFamily.SuctionTank]),
        (FuelLeak.Cover, "cover", "Wet at a cover", [CarburetorFamily.Diaphragm]),
        (FuelLeak.TankTop, "tankTop", "Wet at the tank’s top", [CarburetorFamily.SuctionTank]),
        (FuelLeak.InletFitting, "inletFitting", "Wet at inlet", [CarburetorFamily.FloatBowl, CarburetorFamily.Diaphragm]),
        (FuelLeak.InletFitting, "inletFitting", "Wet at tap or line", [CarburetorFamily.SuctionTank]),
        (FuelLeak.Plunger, "plunger", "Wet at plunger", [CarburetorFamily.FloatBowl]),
        (FuelLeak.NewPart, "newPart", "New plunger or seat weeps", [CarburetorFamily.FloatBowl]),
    ];

    private IEnumerable<(FuelLeak Leak, string Value, string Label)> Leaks =>
        AllLeaks
            .Where(leak => leak.Families.Contains(Family) && (NewFitted || leak.Leak != FuelLeak.NewPart))
            .Select(leak => (leak.Leak, leak.Value, leak.Label));

    private static readonly string[] MayWeep = ["plunger", "seat", "needle"];

    /// <summary>A new plunger, seat or needle that was fitted, or one that was seen to weep.</summary>
    /// <inheritdoc/>
    public override GaugeLine After(Log log) =>
        NewFitted
        || MayWeep.Any(part =>
            log.Notes<PartNote>().LastOrDefault(logged => logged.Note.Part == part)?.Note is BackNote { Fate: Fate.Renewed or Fate.Made }
        )
        || log.Notes<ReadingNote>().Any(logged => logged.Note.Reading is FuelWatchReading { Leak: FuelLeak.NewPart })
            ? this with
            {
                NewFitted = true,
            }
            : this;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(Sentence.Of("dry after {0}", Quantity.Min(MinutesNeeded)), new Span(Dimension.Minutes, MinutesNeeded, null), "Shop default");

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Vapour;

    private static readonly LineBox<double> MinutesBox = Box.Number("minutes", "minutes", Dimension.Minutes, 0, 600);
    private static readonly LineBox<bool> RockedBox = Box.Choice("rocked", "rocked", (true, "yes", "Rocked"), (false, "no", "Not rocked"));

    private LineBox<FuelLeak> LeakBox => Box.Choice("leak", "seen", [.. Leaks]);

    /// <inheritdoc/>
    protected override LineForm<FuelWatchReading> Boxes =>
        new(new BoxGroup("watch", "Watch", [MinutesBox, RockedBox, LeakBox]), boxes => new FuelWatchReading(
            boxes.Get(MinutesBox),
            boxes.Get(RockedBox),
            boxes.Get(LeakBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(FuelWatchReading watch) =>
        Sentence.Of(
            $"{Leaks.Concat(AllLeaks.Select(one => (one.Leak, one.Value, one.Label))).First(l => l.Leak == watch.Leak).Label} "
                + $"after {{0}}, {(watch.Rocked ? "rocked" : "not rocked")}",
            Quantity.Min(watch.WatchedMin)
        );

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Fuel on, rock it gently and watch for {0}.", Quantity.Min(MinutesNeeded));

    /// <inheritdoc/>
    protected override Judgement Judge(FuelWatchReading watch, PinSet pins)
    {
        var found = new Span(Dimension.Minutes, watch.WatchedMin, watch.WatchedMin);
        Figure[] figures = [new("watched", "Watched for", Quantity.Min(watch.WatchedMin))];
        if (watch.Leak == FuelLeak.NewPart && (watch.BeddedDays ?? 0) < BedInDays)
        {
            return BeddingIn.Judged(
                Sentence.Of(
                    "Fuel off, wipe it dry and set it aside: a new plunger or seat may weep for {0} to {1} days. Then watch it again.",
                    Quantity.Count(BedInDays),
                    Quantity.Count(BedInDays + 1)
                ),
                found: found,
                figures: figures,
                why:
                [
                    Sentence.Of(
                        "A new rubber face takes the shape of its seat under the fuel in some "
                            + "days; a weep before that says nothing. Common practice, no source."
                    ),
                ]
            );
        }

        (LineFinding Finding, string Next)? leak = watch.Leak switch
        {
            FuelLeak.None => null,
            FuelLeak.BowlJoint => (WetAtBowlJoint, "Fuel off. Check the bowl gasket: seat, thickness, a clean rim; snug, not tight."),
            FuelLeak.Overflow => Family switch
            {
                CarburetorFamily.FloatBowl => (Overflows, "Fuel off. Back to Set: hold test, float height and float mass."),
                CarburetorFamily.Diaphragm => (
                    FloodsThroat,
                    "Fuel off. Back to Set: hold test, the needle in its fork, the lever’s height."
                ),
                CarburetorFamily.SuctionTank => (
                    FloodsThroat,
                    "Look at the air cleaner’s screw first: without it fuel is drawn up out of the tank. Then the tank’s vent."
                ),
            },
            FuelLeak.Cover => (WetAtCover, "Fuel off. Cover off again: gasket and diaphragm in their order, no fold, screws crosswise."),
            FuelLeak.TankTop => (
                WetAtTankTop,
                "Wipe it dry. Carburetor off the tank: its gasket whole, holes in line, tank top flat and sound."
            ),
            FuelLeak.InletFitting => (WetAtInlet, "Fuel off. Renew the line or its clip at the inlet fitting."),
            FuelLeak.Plunger => (
                PlungerWeeps,
                "Fuel off. New plunger seat and spring; it may weep until it has bedded in, look again in two or three days."
            ),
            FuelLeak.NewPart => (
                StillWeeps,
                "Fuel off. It has had its days to bed in: look for dirt on the face and a burr on the seat, then renew it once more."
            ),
        };
        if (leak is { } wet)
        {
            return wet.Finding.Judged(
                Sentence.Of(wet.Next),
                found: found,
                figures: figures,
                why: [Sentence.Of("Any fuel outside is a fail, whatever the time.")]
            );
        }

        List<Sentence> why =
        [
            Sentence.Of(
                "Watched for {0}; the shop asks for {1}, rocked, since a float can seal at one angle and not at another.",
                Quantity.Min(watch.WatchedMin),
                Quantity.Min(MinutesNeeded)
            ),
        ];
        if (watch.WatchedMin < MinutesNeeded || !watch.Rocked)
        {
            var next = watch.Rocked
                ? Sentence.Of("Dry so far: watch for {0} more.", Quantity.Min(MinutesNeeded - watch.WatchedMin))
                : Sentence.Of("Dry standing still: rock it and watch for {0}.", Quantity.Min(MinutesNeeded));
            return LineFinding.CannotTell.Judged(next, found: found, figures: figures, why: why);
        }

        return Dry.Judged(Sentence.Of("Needle, seat and joints are tight. Go on."), found: found, figures: figures, why: why);
    }

    /// <summary>It has been seen to weep before: the days since then decide.</summary>
    protected override FuelWatchReading Complete(FuelWatchReading reading, TrayBook tray) =>
        reading.Leak == FuelLeak.NewPart && BedIn.DaysOf(tray) is { } days ? reading with { BeddedDays = days } : reading;

    /// <summary>A new part that weeps waits some days; whatever is read after them takes it back to the hands.</summary>
    protected override TrayFacts FactsAfter(FuelWatchReading reading, TrayBook tray) =>
        Judge(reading, PinSet.Empty).Finding == BeddingIn.Id ? Wait(tray) : Waiting.After(tray.Facts, WaitEvent.BeddedIn);

    /// <summary>Without the reading that wept nothing beds in; without the one after it, it does again.</summary>
    protected override TrayFacts FactsWithout(FuelWatchReading withdrawn, TrayBook tray) =>
        BedIn.DaysOf(tray) is null ? Waiting.After(tray.Facts, WaitEvent.BeddedIn)
        : tray.Facts.WaitsFor == WaitsFor.Hands ? Wait(tray)
        : tray.Facts;

    private static TrayFacts Wait(TrayBook tray) =>
        Waiting.After(
            tray.Facts,
            WaitEvent.ToBedIn,
            string.Create(
                CultureInfo.InvariantCulture,
                $"look again from {tray.Context.Today.AddDays(tray.Shop.BedInDays - (BedIn.DaysOf(tray) ?? 0)):d MMM}"
            )
        );
}
