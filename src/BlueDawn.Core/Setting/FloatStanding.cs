using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>
/// How a float stands in its bowl with the fuel on, carburetor upright, for the drawing and for what a change does. Heights
/// are millimetres below the face of the body, downward.
/// </summary>
/// <param name="TopMm">The float's upper side, where the sheet measures it.</param>
/// <param name="TallMm">The float's own height.</param>
/// <param name="AngleDeg">How far it hangs down from where the sheet has it; negative when it stands higher.</param>
/// <param name="LevelMm">Where the fuel settles; null when the needle does not shut: then it runs over.</param>
/// <param name="MeantMm">Where it would settle with a dry float at the sheet's height.</param>
/// <param name="NeedleGapMm">How far the needle stands off its seat; 0 when it shuts.</param>
/// <param name="ImmersedShare">Share of the float's volume that has to be under for the needle to shut.</param>
/// <param name="RoomG">Grams it could take on before it floods; negative when it does.</param>
public sealed record FloatStanding(
    double TopMm,
    double TallMm,
    double AngleDeg,
    double? LevelMm,
    double MeantMm,
    double NeedleGapMm,
    double ImmersedShare,
    double RoomG
)
{
    private const int Digits = 3;

    /// <summary>
    /// How it stands with this height and mass; null when the sheet does not say what the float is made like.
    /// </summary>
    /// <param name="sheet">The float's limits.</param>
    /// <param name="heightMm">Height measured upside down, needle shut, in millimetres.</param>
    /// <param name="massG">Its mass in grams, fuel inside included.</param>
    /// <param name="supplyKPa">Pressure at the needle, or null for the tank's head.</param>
    /// <param name="seatBoreMm">Bore of the seat, or null for the sheet's.</param>
    public static FloatStanding? Of(FloatSpec sheet, double heightMm, double massG, double? supplyKPa = null, double? seatBoreMm = null)
    {
        if (sheet is not { Body: { TallMm: { } tall } body, DryMassG: { } dry })
        {
            return null;
        }

        var balance = FloatBalance.Of(Input(sheet, body, massG, supplyKPa, seatBoreMm));
        var meant = FloatBalance.Of(Input(sheet, body, dry, null, null));
        var arm = (double)sheet.MeasuringArmMm;
        // One that cannot shut hangs as far open as it takes to let all of the seat through: a quarter of its bore.
        var gap = balance.Shuts ? 0 : (seatBoreMm ?? body.SeatBoreMm) / 4;
        var down = heightMm - (double)sheet.HeightMm;
        return new FloatStanding(
            Math.Round(heightMm + (gap * arm / (double)sheet.TabArmMm), Digits),
            tall,
            Math.Round(SteepnessDeg(down, arm), 2),
            balance.Shuts ? Math.Round(Level(heightMm, tall, body.Shape, balance.ImmersedShare), Digits) : null,
            Math.Round(Level((double)sheet.HeightMm, tall, body.Shape, meant.ImmersedShare), Digits),
            Math.Round(gap, Digits),
            Math.Round(balance.ImmersedShare, 4),
            Math.Round(balance.RoomG, 2)
        );
    }

    /// <summary>How it stands on a tray by what has been read; what has not been read is as the sheet has it.</summary>
    /// <param name="sheet">The sheet, or null.</param>
    /// <param name="lines">The tray's lines.</param>
    public static FloatStanding? Of(SpecSheet? sheet, IReadOnlyList<JudgedLine> lines)
    {
        if (sheet?.Float is not { DryMassG: { } dry } limits)
        {
            return null;
        }

        var height =
            lines.Select(line => line.Reading).OfType<FloatHeightReading>().FirstOrDefault() is { } read
            && lines.Select(line => line.Line).OfType<FloatHeightLine>().FirstOrDefault() is { } line
                ? line.Mean(read)
                : (double)limits.HeightMm;
        var mass = lines.Select(line => line.Reading).OfType<FloatMassReading>().FirstOrDefault()?.MassG ?? dry;
        var bore = lines.Select(line => line.Reading).OfType<SeatBoreReading>().FirstOrDefault()?.BoreMm;
        return Of(limits, height, mass, null, bore);
    }

    /// <summary>Fuel below the face in millimetres: the float's upper side, and what of it stands out of the fuel.</summary>
    private static double Level(double topMm, double tallMm, FloatShape shape, double immersedShare) =>
        topMm + (tallMm * (1 - FloatDepth.ShareOf(shape, immersedShare)));

    private static FloatBalanceInput Input(FloatSpec sheet, FloatBody body, double massG, double? supplyKPa, double? seatBoreMm) =>
        new(
            body.VolumeML,
            massG,
            body.ArmMm,
            (double)sheet.TabArmMm,
            seatBoreMm ?? body.SeatBoreMm,
            FloatMass.PetrolGPerML,
            supplyKPa ?? FloatBalance.SupplyKPa(body)
        );

    private static double SteepnessDeg(double downMm, double armMm) =>
        Math.Atan2(downMm, Math.Sqrt(Math.Max(1e-9, (armMm * armMm) - (downMm * downMm)))) * 180 / Math.PI;
}

/// <summary>What one change does to where the fuel stands.</summary>
/// <param name="BendMm">Level lower by this, in millimetres, for a tenth of a millimetre of tab bent toward the needle.</param>
/// <param name="SeatMm">Level higher for a seat 0.2 mm larger; null when the needle no longer shuts.</param>
/// <param name="FuelInsideMm">Level higher for 1 g of fuel inside; null when the needle no longer shuts.</param>
/// <param name="PumpMm">Level higher behind a pump of <see cref="PumpKPa"/>; null when the needle no longer shuts.</param>
public sealed record LevelChanges(double BendMm, double? SeatMm, double? FuelInsideMm, double? PumpMm)
{
    /// <summary>Pressure of a small fuel pump in kPa. Common practice, no source: 14 to 21.</summary>
    public const double PumpKPa = 20;

    /// <summary>The bend that is told about, in millimetres.</summary>
    public const double BendByMm = 0.1;

    /// <summary>How much larger a seat is told about, in millimetres.</summary>
    public const double SeatByMm = 0.2;

    /// <summary>Fuel inside that is told about, in grams.</summary>
    public const double FuelByG = 1;

    /// <summary>What each change does to a dry float at the sheet's height; null when the sheet does not say what it is made
    /// like.</summary>
    /// <param name="sheet">The float's limits.</param>
    public static LevelChanges? Of(FloatSpec sheet)
    {
        if (
            sheet is not { Body: { } body, DryMassG: { } dry }
            || FloatStanding.Of(sheet, (double)sheet.HeightMm, dry) is not { LevelMm: { } level }
        )
        {
            return null;
        }

        double? Higher(FloatStanding? changed) => changed?.LevelMm is { } now ? Math.Round(level - now, 2) : null;
        var height = (double)sheet.HeightMm;
        return new LevelChanges(
            Math.Round(BendByMm * (double)sheet.MeasuringArmMm / (double)sheet.TabArmMm, 2),
            Higher(FloatStanding.Of(sheet, height, dry, null, body.SeatBoreMm + SeatByMm)),
            Higher(FloatStanding.Of(sheet, height, dry + FuelByG)),
            Higher(FloatStanding.Of(sheet, height, dry, PumpKPa))
        );
    }
}
