using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>A float on the scale.</summary>
/// <param name="MassG">Grams.</param>
/// <param name="ResolutionG">The scale's step in grams.</param>
public sealed record FloatMassReading(double MassG, double ResolutionG) : Reading;

/// <summary>Float mass against a dry mass.</summary>
/// <param name="DryMassG">Mass of a dry float in grams.</param>
/// <param name="ToleranceG">Allowed either way.</param>
/// <param name="SpecName">Where the limits are from.</param>
public sealed record FloatMassLine(double DryMassG, double ToleranceG, string SpecName)
    : GaugeLine("setting/float-mass", Station.Setting, "Float", "Float mass")
{
    /// <inheritdoc/>
    public override string Part => "float";

    /// <inheritdoc/>
    public override Expected? ExpectedIn(string field) => field == "mass" ? new(DryMassG, Dimension.Mass) : null;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("{0} ± {1} dry", Quantity.G(DryMassG), Quantity.G(ToleranceG));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Mass, DryMassG - ToleranceG, DryMassG + ToleranceG);

    /// <inheritdoc/>
    public override string LimitSource => SpecName;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.FuelInFloat;

    /// <inheritdoc/>
    public override EntryForm Form => new(
        [
            new EntryGroup("scale", "Scale",
            [
                EntryField.Measure("mass", "mass", Dimension.Mass),
                EntryField.MeasureDetail("resolution", "step", Dimension.Mass),
            ]),
        ],
        null);

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var mass = (double)reader.Required("mass", Dimension.Mass, 0.01m, 1000);
        var resolution = (double?)reader.Optional("resolution", Dimension.Mass, 0.0001m, 10) ?? FloatMass.DefaultResolutionG;
        return Result(reader, () => new FloatMassReading(mass, resolution));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is FloatMassReading mass ? Sentence.Of("{0}", Quantity.G(mass.MassG)) : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not FloatMassReading mass)
        {
            return Judgement.NotRead(Sentence.Of("Wipe the float dry and weigh it."));
        }

        var result = FloatMass.Judge(new FloatMassInput(mass.MassG, DryMassG, ToleranceG, mass.ResolutionG));
        var (verdict, finding, word, lean, next) = result.Verdict switch
        {
            MassVerdict.Dry => (Verdict.Good, "dry", "Dry", Lean.None, Sentence.Of("Leave it. Go on.")),
            MassVerdict.TakenOnFuel => (
                Verdict.NotGood,
                "takenOnFuel",
                "Fuel inside",
                Lean.Above,
                Sentence.Of("{0} of fuel inside: fit a new float.", Quantity.G(Math.Round(result.FuelTakenOnG, 2)))),
            MassVerdict.CannotTell when result.LighterThanDry => (
                Verdict.CannotTell, "tooLight", "Cannot tell yet", Lean.Below, Sentence.Of("Lighter than a dry float: check the scale's zero and that this is the right float.")),
            MassVerdict.CannotTell when result.ScaleTooCoarse => (
                Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, Sentence.Of("The scale is too coarse: use one that shows {0} or finer.", Quantity.G(ToleranceG))),
            MassVerdict.CannotTell => (
                Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, Sentence.Of("On the edge: let it dry, weigh again on a finer scale, shake and listen.")),
        };
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Mass, mass.MassG - (mass.ResolutionG / 2), mass.MassG + (mass.ResolutionG / 2)),
            [
                new Figure("mass", "Mass", Quantity.G(mass.MassG)),
                new Figure("fuelTakenOn", "Fuel taken on", Quantity.G(Math.Round(result.FuelTakenOnG, 3))),
                new Figure("fuelTakenOnVolume", "As petrol", Quantity.ML(Math.Round(result.FuelTakenOnML, 2))),
            ],
            [
                Sentence.Of("{0} on the scale less {1} dry leaves {2}.", Quantity.G(mass.MassG), Quantity.G(DryMassG), Quantity.G(Math.Round(result.FuelTakenOnG, 3))),
                Sentence.Of("The scale's step of {0} counts half either way. Petrol 0.7475 g/mL, the middle of EN 228.", Quantity.G(mass.ResolutionG)),
            ],
            []);
    }
}
