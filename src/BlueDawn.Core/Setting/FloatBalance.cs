using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Setting;

/// <summary>A float on its hinge against the needle; lengths in millimetres, masses in grams.</summary>
/// <param name="VolumeML">Volume the float displaces when it is all under, in millilitres, above 0.</param>
/// <param name="MassG">Its mass as it is now, fuel inside included, above 0.</param>
/// <param name="FloatArmMm">Hinge pin to the middle of the float, above 0.</param>
/// <param name="TabArmMm">Hinge pin to where the tab touches the needle, above 0.</param>
/// <param name="SeatBoreMm">Bore of the seat the needle closes, above 0.</param>
/// <param name="FuelGPerML">Density of the fuel in grams a millilitre.</param>
/// <param name="SupplyKPa">Pressure of the fuel at the needle above the air in the bowl: a head of fuel or a pump, 0 or more.</param>
public sealed record FloatBalanceInput(
    double VolumeML,
    double MassG,
    double FloatArmMm,
    double TabArmMm,
    double SeatBoreMm,
    double FuelGPerML,
    double SupplyKPa
);

/// <summary>Where the forces on a float come to rest.</summary>
/// <param name="ImmersedShare">Share of the float's volume under the fuel when the needle just shuts; above 1 it never does.</param>
/// <param name="NeedleForceN">Force of the fuel on the needle in newtons.</param>
/// <param name="Shuts">Whether the needle shuts at all.</param>
/// <param name="RoomG">Grams the float could take on before the needle no longer shuts; negative when it does not.</param>
/// <param name="MostSupplyKPa">Pressure up to which the needle shuts; 0 when the float sinks by itself.</param>
public sealed record FloatBalanceResult(double ImmersedShare, double NeedleForceN, bool Shuts, double RoomG, double MostSupplyKPa);

/// <summary>
/// A float as a balance of moments about its hinge pin: buoyancy × arm = weight × arm + fuel's force on the needle × tab arm.
/// </summary>
/// <remarks>Buoyancy is the weight of the fuel displaced (Archimedes). The hinge's friction is left out.</remarks>
public static class FloatBalance
{
    /// <summary>Standard gravity in m/s². Source: ISO 80000-3.</summary>
    public const double Gravity = 9.80665;

    /// <summary>Pressure of a head of fuel in kPa: p = ρ·g·h.</summary>
    /// <param name="headMm">Height of the fuel above the needle in millimetres.</param>
    /// <param name="fuelGPerML">Its density in grams a millilitre.</param>
    public static double HeadKPa(double headMm, double fuelGPerML) => fuelGPerML * Gravity * headMm / 1000;

    /// <summary>Pressure of the fuel at a float's needle in kPa: its pump's, else the tank's head.</summary>
    /// <param name="body">What the float has to shut.</param>
    /// <param name="share">Share of the tank's head that is left; a pump's pressure stays.</param>
    public static double SupplyKPa(FloatBody body, double share = 1) =>
        body.PumpKPa ?? HeadKPa(body.HeadMm * share, FloatMass.PetrolGPerML);

    /// <summary>What it has to shut against, as a number: a pump's pressure, or the height of the fuel.</summary>
    /// <param name="body">What the float has to shut.</param>
    public static Quantity Against(FloatBody body) => body.PumpKPa is { } pump ? Quantity.KPa(pump) : Quantity.Mm(body.HeadMm);

    /// <summary>The same in words, for a sentence with that number in a place of its own.</summary>
    /// <param name="body">What the float has to shut.</param>
    /// <param name="place">The number's place in the sentence.</param>
    public static string AgainstWords(FloatBody body, int place) =>
        body.PumpKPa is null ? $"{{{place}}} of fuel" : $"a pump of {{{place}}}";

    /// <summary>What is wrong with an input, field by field; empty when it can be worked out.</summary>
    public static IReadOnlyList<FieldProblem> Check(FloatBalanceInput input)
    {
        var problems = new List<FieldProblem>();
        problems.AboveZero(input.VolumeML, "volumeML", 1000, "mL");
        problems.AboveZero(input.MassG, "massG", 1000, "g");
        problems.AboveZero(input.FloatArmMm, "floatArmMm", 200, "mm");
        problems.AboveZero(input.TabArmMm, "tabArmMm", 200, "mm");
        problems.AboveZero(input.SeatBoreMm, "seatBoreMm", 20, "mm");
        problems.AboveZero(input.FuelGPerML, "fuelGPerML", 2, "g/mL");
        if (!double.IsFinite(input.SupplyKPa) || input.SupplyKPa < 0 || input.SupplyKPa > 500)
        {
            problems.Add(new("supplyKPa", "Must be from 0 to 500 kPa."));
        }

        return problems;
    }

    /// <summary>Where it comes to rest.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with the input.</exception>
    public static FloatBalanceResult Of(FloatBalanceInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var seatMm2 = Math.PI / 4 * input.SeatBoreMm * input.SeatBoreMm;
        // kPa × mm² is a thousandth of a newton.
        var needleN = input.SupplyKPa * seatMm2 / 1000;
        var ratio = input.TabArmMm / input.FloatArmMm;
        var weightN = input.MassG * Gravity / 1000;
        var fullN = input.VolumeML * input.FuelGPerML * Gravity / 1000;
        var neededN = weightN + (needleN * ratio);
        var share = neededN / fullN;
        return new FloatBalanceResult(
            share,
            needleN,
            share <= 1,
            (fullN - neededN) / Gravity * 1000,
            Math.Max(0, (fullN - weightN) / ratio / seatMm2 * 1000)
        );
    }
}

/// <summary>How deep a float stands in the fuel.</summary>
public static class FloatDepth
{
    private const int Rounds = 60;

    /// <summary>Depth under the fuel as a share of the float's height, for a share of its volume that is under.</summary>
    /// <param name="shape">How it is shaped.</param>
    /// <param name="immersedShare">Share of the volume under the fuel, 0 to 1; beyond them it is all out or all under.</param>
    /// <returns>0 to 1.</returns>
    public static double ShareOf(FloatShape shape, double immersedShare)
    {
        var share = Math.Clamp(immersedShare, 0, 1);
        return shape switch
        {
            FloatShape.Upright => share,
            FloatShape.Lying => Bracketed(depth => LyingVolume(depth) - share),
        };
    }

    /// <summary>Share of a lying cylinder's volume below a depth given as a share of its diameter: a segment of a circle.</summary>
    private static double LyingVolume(double depth)
    {
        var off = 1 - (2 * depth);
        return (Math.Acos(off) - (off * Math.Sqrt(Math.Max(0, 1 - (off * off))))) / Math.PI;
    }

    /// <summary>The root between 0 and 1 of a rising function, halved until nothing is left between.</summary>
    private static double Bracketed(Func<double, double> rising)
    {
        var (low, high) = (0.0, 1.0);
        for (var round = 0; round < Rounds; round++)
        {
            var middle = (low + high) / 2;
            (low, high) = rising(middle) < 0 ? (middle, high) : (low, middle);
        }

        return (low + high) / 2;
    }
}

/// <summary>Whether a seat passes what an engine drinks.</summary>
public static class SeatFlow
{
    /// <summary>Share of the ideal flow that passes a sharp-edged opening. Source: the elementary orifice, ISO 5167-2, about 0.6, from
    /// memory.</summary>
    public const double DischargeCoefficient = 0.6;

    /// <summary>Fuel through an open seat in mL/min: Q = Cd·A·√(2Δp/ρ).</summary>
    /// <param name="seatBoreMm">Bore of the seat in millimetres.</param>
    /// <param name="supplyKPa">Pressure across it in kPa.</param>
    /// <param name="fuelGPerML">Density of the fuel in grams a millilitre.</param>
    public static double MLPerMin(double seatBoreMm, double supplyKPa, double fuelGPerML)
    {
        var areaM2 = Math.PI / 4 * seatBoreMm * seatBoreMm * 1e-6;
        var speed = Math.Sqrt(2 * supplyKPa * 1000 / (fuelGPerML * 1000));
        return DischargeCoefficient * areaM2 * speed * 1e6 * 60;
    }

    /// <summary>What a four-stroke or two-stroke engine drinks at full load, in mL/min.</summary>
    /// <param name="displacementML">Swept volume in millilitres.</param>
    /// <param name="rpm">Speed in revolutions a minute.</param>
    /// <param name="twoStroke">Whether it draws at every turn.</param>
    /// <param name="fuelGPerML">Density of the fuel in grams a millilitre.</param>
    public static double DemandMLPerMin(double displacementML, double rpm, bool twoStroke, double fuelGPerML)
    {
        // Own judgement: it fills to 0.8 and runs a little rich, 12.5 to 1, at full load. Air 1.225 g/L: ISO 2533.
        const double filling = 0.8,
            airToFuel = 12.5,
            airGPerL = 1.225;
        var airGPerMin = displacementML / 1000 * (twoStroke ? rpm : rpm / 2) * filling * airGPerL;
        return airGPerMin / airToFuel / fuelGPerML;
    }
}
