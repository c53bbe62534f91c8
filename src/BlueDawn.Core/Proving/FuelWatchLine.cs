using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
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
public sealed record FuelWatchLine(double MinutesNeeded, int BedInDays, CarburetorFamily Family)
    : GaugeLine("proving/fuel-on", Station.Proving, "Fuel on", "Fuel on, rocked")
{
    private static readonly (FuelLeak Leak, string Value, string Label, CarburetorFamily[] Families)[] AllLeaks =
    [
        (FuelLeak.None, "dry", "Dry", [CarburetorFamily.FloatBowl, CarburetorFamily.Diaphragm, CarburetorFamily.SuctionTank]),
        (FuelLeak.BowlJoint, "bowlJoint", "Wet at bowl joint", [CarburetorFamily.FloatBowl]),
        (FuelLeak.Overflow, "overflow", "Out of overflow", [CarburetorFamily.FloatBowl]),
        (FuelLeak.Overflow, "throat", "Out of the throat", [CarburetorFamily.Diaphragm, CarburetorFamily.SuctionTank]),
        (FuelLeak.Cover, "cover", "Wet at a cover", [CarburetorFamily.Diaphragm]),
        (FuelLeak.TankTop, "tankTop", "Wet at the tank’s top", [CarburetorFamily.SuctionTank]),
        (FuelLeak.InletFitting, "inletFitting", "Wet at inlet", [CarburetorFamily.FloatBowl, CarburetorFamily.Diaphragm]),
        (FuelLeak.Plunger, "plunger", "Wet at plunger", [CarburetorFamily.FloatBowl]),
        (FuelLeak.NewPart, "newPart", "New plunger or seat weeps", [CarburetorFamily.FloatBowl]),
    ];

    private IEnumerable<(FuelLeak Leak, string Value, string Label)> Leaks =>
        AllLeaks.Where(leak => leak.Families.Contains(Family)).Select(leak => (leak.Leak, leak.Value, leak.Label));

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("dry after {0}", Quantity.Min(MinutesNeeded));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Minutes, MinutesNeeded, null);

    /// <inheritdoc/>
    public override string LimitSource => "Shop default";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Vapour;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "watch",
                    "Watch",
                    [
                        EntryField.Measure("minutes", "minutes", Dimension.Minutes),
                        EntryField.Choice("rocked", "rocked", false, new EntryChoice("yes", "Rocked"), new EntryChoice("no", "Not rocked")),
                        EntryField.Choice("leak", "seen", false, [.. Leaks.Select(l => new EntryChoice(l.Value, l.Label))]),
                    ]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var minutes = (double)reader.Required("minutes", Dimension.Minutes, 0, 600);
        var rocked = reader.Choice("rocked", "yes", "no") == "yes";
        var leak = reader.Choice("leak", [.. Leaks.Select(l => l.Value)]);
        return Result(reader, () => new FuelWatchReading(minutes, rocked, Leaks.First(l => l.Value == leak).Leak));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is FuelWatchReading watch
            ? Sentence.Of(
                $"{Leaks.Concat(AllLeaks.Select(one => (one.Leak, one.Value, one.Label))).First(l => l.Leak == watch.Leak).Label} "
                    + $"after {{0}}, {(watch.Rocked ? "rocked" : "not rocked")}",
                Quantity.Min(watch.WatchedMin)
            )
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not FuelWatchReading watch)
        {
            return Judgement.NotRead(Sentence.Of("Fuel on, rock it gently and watch for {0}.", Quantity.Min(MinutesNeeded)));
        }

        var found = new Span(Dimension.Minutes, watch.WatchedMin, watch.WatchedMin);
        Figure[] figures = [new("watched", "Watched for", Quantity.Min(watch.WatchedMin))];
        if (watch.Leak == FuelLeak.NewPart && (watch.BeddedDays ?? 0) < BedInDays)
        {
            return new Judgement(
                Verdict.CannotTell,
                "beddingIn",
                "Bedding in",
                Lean.None,
                Sentence.Of(
                    "Fuel off, wipe it dry and set it aside: a new plunger or seat may weep for {0} to {1} days. Then watch it again.",
                    Quantity.Count(BedInDays),
                    Quantity.Count(BedInDays + 1)
                ),
                found,
                figures,
                [
                    Sentence.Of(
                        "A new rubber face takes the shape of its seat under the fuel in some "
                            + "days; a weep before that says nothing. Common practice, no source."
                    ),
                ],
                []
            );
        }

        (string Finding, string Word, string Next)? leak = watch.Leak switch
        {
            FuelLeak.None => null,
            FuelLeak.BowlJoint => (
                "wetAtBowlJoint",
                "Wet at bowl joint",
                "Fuel off. Check the bowl gasket: seat, thickness, a clean rim; snug, not tight."
            ),
            FuelLeak.Overflow => Family switch
            {
                CarburetorFamily.FloatBowl => ("overflows", "Overflows", "Fuel off. Back to Set: hold test, float height and float mass."),
                CarburetorFamily.Diaphragm => (
                    "floodsThroat",
                    "Floods",
                    "Fuel off. Back to Set: hold test, the needle in its fork, the lever’s height."
                ),
                CarburetorFamily.SuctionTank => (
                    "floodsThroat",
                    "Floods",
                    "Look at the air cleaner’s screw first: without it fuel is drawn up out of the tank. Then the tank’s vent."
                ),
            },
            FuelLeak.Cover => (
                "wetAtCover",
                "Wet at a cover",
                "Fuel off. Cover off again: gasket and diaphragm in their order, no fold, screws crosswise."
            ),
            FuelLeak.TankTop => (
                "wetAtTankTop",
                "Wet at the tank",
                "Wipe it dry. Carburetor off the tank: its gasket whole, holes in line, tank top flat and sound."
            ),
            FuelLeak.InletFitting => ("wetAtInlet", "Wet at inlet", "Fuel off. Renew the line or its clip at the inlet fitting."),
            FuelLeak.Plunger => (
                "plungerWeeps",
                "Plunger weeps",
                "Fuel off. New plunger seat and spring; it may weep until it has bedded in, look again in two or three days."
            ),
            FuelLeak.NewPart => (
                "stillWeeps",
                "Still weeps",
                "Fuel off. It has had its days to bed in: look for dirt on the face and a burr on the seat, then renew it once more."
            ),
        };
        if (leak is { } wet)
        {
            return new Judgement(
                Verdict.NotGood,
                wet.Finding,
                wet.Word,
                Lean.None,
                Sentence.Of(wet.Next),
                found,
                figures,
                [Sentence.Of("Any fuel outside is a fail, whatever the time.")],
                []
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
            return new Judgement(Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, next, found, figures, why, []);
        }

        return new Judgement(
            Verdict.Good,
            "dry",
            "Dry",
            Lean.None,
            Sentence.Of("Needle, seat and joints are tight. Go on."),
            found,
            figures,
            why,
            []
        );
    }
}
