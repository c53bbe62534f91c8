using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Setting;

/// <summary>A float on the scale; masses in grams.</summary>
/// <param name="MassG">What the scale shows, above 0 and at most 1000.</param>
/// <param name="DryMassG">Mass of a sound, dry float, above 0.</param>
/// <param name="ToleranceG">Allowed either way, 0 or more.</param>
/// <param name="ResolutionG">The scale's smallest step; 0.1 when not given.</param>
public sealed record FloatMassInput(double MassG, double DryMassG, double ToleranceG, double? ResolutionG = null);

/// <summary>What the scale says of a float.</summary>
public enum MassVerdict
{
    /// <summary>The scale is too coarse, or the float is lighter than a dry one.</summary>
    CannotTell,

    /// <summary>Within tolerance of the dry mass.</summary>
    Dry,

    /// <summary>Heavier than a dry float: it has taken on fuel.</summary>
    TakenOnFuel,
}

/// <summary>What the scale says of a float.</summary>
/// <param name="Verdict">Dry, taken on fuel or cannot tell.</param>
/// <param name="FuelTakenOnG">Mass above the dry mass, in grams; negative when lighter.</param>
/// <param name="FuelTakenOnML">The same as a volume of petrol, in millilitres.</param>
/// <param name="LighterThanDry">True when the float weighs less than a dry one should.</param>
/// <param name="ScaleTooCoarse">True when the scale's step is larger than the tolerance can bear.</param>
public sealed record FloatMassResult(
    MassVerdict Verdict,
    double FuelTakenOnG,
    double FuelTakenOnML,
    bool LighterThanDry,
    bool ScaleTooCoarse
);

/// <summary>Tells by weighing whether a float has fuel in it.</summary>
public static class FloatMass
{
    /// <summary>Petrol, the middle of the 720 to 775 kg/m³ at 15 °C that EN 228 allows, in grams a millilitre.</summary>
    public const double PetrolGPerML = 0.7475;

    /// <summary>Step assumed for a scale when none is given, in grams. Common practice, no source.</summary>
    public const double DefaultResolutionG = 0.1;

    private const double SlackG = 1e-9;

    /// <summary>What is wrong with an input, field by field; empty when it can be judged.</summary>
    public static IReadOnlyList<FieldProblem> Check(FloatMassInput input)
    {
        var problems = new List<FieldProblem>();
        void Range(double value, string field, double above, double most)
        {
            if (!double.IsFinite(value) || value < above || value > most || (above == 0 && value == 0 && field != "toleranceG"))
            {
                problems.Add(new(field, $"Must be above {above} and no more than {most} g."));
            }
        }

        Range(input.MassG, "massG", 0, 1000);
        Range(input.DryMassG, "dryMassG", 0, 1000);
        Range(input.ToleranceG, "toleranceG", 0, 100);
        Range(input.ResolutionG ?? DefaultResolutionG, "resolutionG", 0, 10);
        return problems;
    }

    /// <summary>Judges a checked input.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with it.</exception>
    public static FloatMassResult Judge(FloatMassInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var half = (input.ResolutionG ?? DefaultResolutionG) / 2;
        var taken = input.MassG - input.DryMassG;
        var surelyDry = Math.Abs(taken) + half <= input.ToleranceG + SlackG;
        var surelyHeavy = taken - half > input.ToleranceG + SlackG;
        var lighter = taken < -input.ToleranceG - SlackG;
        var tooCoarse = half > input.ToleranceG + SlackG;
        var verdict =
            surelyHeavy ? MassVerdict.TakenOnFuel
            : surelyDry ? MassVerdict.Dry
            : MassVerdict.CannotTell;
        return new FloatMassResult(verdict, taken, taken / PetrolGPerML, lighter, tooCoarse);
    }
}
