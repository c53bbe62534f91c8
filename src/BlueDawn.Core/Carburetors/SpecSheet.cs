using System.Text.Json.Serialization;

namespace BlueDawn.Core.Carburetors;

/// <summary>What one type of carburetor should measure. Lengths in millimetres.</summary>
/// <param name="Code">Short name, such as <c>FB18</c>.</param>
/// <param name="Maker">Who made the carburetor.</param>
/// <param name="Family">Its kind.</param>
/// <param name="Issue">Issue of the sheet; a changed sheet is a new issue.</param>
/// <param name="StampedNumbers">Numbers found stamped on carburetors of this type.</param>
/// <param name="Jets">Jets to gauge.</param>
/// <param name="EmulsionRows">Rows of the emulsion tube, from the top.</param>
/// <param name="Float">Float limits, or null on a carburetor without a float.</param>
/// <param name="Hold">Hold test limits, or null for the shop's defaults.</param>
/// <param name="IdleSpeed">Idle window, or null for a fixed-speed machine, which has none.</param>
/// <param name="GovernedSpeed">Governed window, or null when it has no governor.</param>
/// <param name="Needs">Parts a kit for it should bring.</param>
/// <param name="Source">Where the figures are from.</param>
/// <param name="Traits">What it is told by when no number is legible, or null.</param>
/// <param name="Plates">Engine plates it is found on, <c>model/specification</c>, or null.</param>
/// <param name="Screws">Starting settings and torques it gives, or null.</param>
/// <param name="Engine">The engine it is found on, or null when it is found on both kinds.</param>
/// <param name="Choke">Its choke, or null when it is found with several.</param>
/// <param name="Lever">Height of the metering lever, or null where it is set as is usual.</param>
/// <param name="PopOff">Pressures the metering needle opens and shuts at, or null where it gives none.</param>
/// <param name="Spring">The metering lever with its spring, or null where it is not known.</param>
/// <param name="Feeds">The largest engine it feeds, or null where it is not known.</param>
/// <param name="Opens">How its choke opens by itself, or null for the shop's defaults.</param>
/// <param name="Compression">Compression of the engine it feeds, or null for the shop's defaults.</param>
public sealed record SpecSheet(
    string Code,
    string Maker,
    CarburetorFamily Family,
    int Issue,
    IReadOnlyList<string> StampedNumbers,
    IReadOnlyList<BoreSpec> Jets,
    IReadOnlyList<EmulsionRowSpec> EmulsionRows,
    FloatSpec? Float,
    HoldSpec? Hold,
    SpeedSpec? IdleSpeed,
    SpeedSpec? GovernedSpeed,
    IReadOnlyList<PartNeed> Needs,
    string Source,
    CarburetorTraits? Traits = null,
    IReadOnlyList<string>? Plates = null,
    IReadOnlyList<ScrewSpec>? Screws = null,
    EngineKind? Engine = null,
    ChokeKind? Choke = null,
    LeverSpec? Lever = null,
    PopOffSpec? PopOff = null,
    MeteringSpring? Spring = null,
    EngineSize? Feeds = null,
    ChokeLimits? Opens = null,
    CompressionBand? Compression = null
)
{
    /// <summary>How the sheet is named where a limit is from it.</summary>
    [JsonIgnore]
    public string Name => IsOnFile ? $"Spec sheet {Code}, issue {Issue}" : "No sheet yet";

    /// <summary>Whether the shop has it: false for what stands in until it does.</summary>
    [JsonIgnore]
    public bool IsOnFile => Code.Length > 0;

    /// <summary>What a carburetor is measured by that has no sheet yet: nothing is known but its kind.</summary>
    /// <param name="kind">Its kind.</param>
    public static SpecSheet NoneYet(CarburetorKind kind) =>
        new("", "", kind.Family, 0, [], [], [], null, null, null, null, [], "", Engine: kind.Engine, Choke: kind.Choke);
}

/// <summary>What a spec sheet says of a screw or fastened part.</summary>
/// <param name="Part">The part's key in the strip ledger, such as <c>idle-needle</c>.</param>
/// <param name="TurnsOut">Turns out from a light seat it starts from, or null.</param>
/// <param name="TorqueNm">Newton metres it is fastened with, or null.</param>
public sealed record ScrewSpec(string Part, double? TurnsOut = null, double? TorqueNm = null);

/// <summary>What a carburetor is told by when no number is legible.</summary>
/// <param name="ThroatMm">Bore at the throttle plate.</param>
/// <param name="BoltSpacingMm">Between the centres of the flange bolts.</param>
/// <param name="MixtureNeedles">Adjustable mixture needles.</param>
/// <param name="FloatShape">The float's shape: <c>round</c>, <c>twin</c>, <c>horseshoe</c> or <c>none</c>.</param>
public sealed record CarburetorTraits(decimal ThroatMm, decimal BoltSpacingMm, int MixtureNeedles, string FloatShape);

/// <summary>A jet on a spec sheet.</summary>
/// <param name="Key">Stable name, such as <c>main-jet</c>.</param>
/// <param name="Label">Its name at the bench.</param>
/// <param name="BoreMm">Nominal bore.</param>
/// <param name="ToleranceMm">Allowed either way.</param>
public sealed record BoreSpec(string Key, string Label, decimal BoreMm, decimal ToleranceMm);

/// <summary>A row of holes of an emulsion tube.</summary>
/// <param name="Row">1 is the top row.</param>
/// <param name="Holes">Holes in the row.</param>
/// <param name="BoreMm">Nominal bore of each.</param>
/// <param name="ToleranceMm">Allowed either way.</param>
/// <param name="HeightMm">Height of the row above the jet.</param>
public sealed record EmulsionRowSpec(int Row, int Holes, decimal BoreMm, decimal ToleranceMm, decimal HeightMm);

/// <summary>Float limits.</summary>
/// <param name="HeightMm">Height, carburetor inverted.</param>
/// <param name="ToleranceMm">Allowed either way.</param>
/// <param name="UnevennessLimitMm">Largest difference across the float.</param>
/// <param name="TabArmMm">Hinge pin to where the tab touches the needle.</param>
/// <param name="MeasuringArmMm">Hinge pin to where the height is measured.</param>
/// <param name="DryMassG">Mass of a dry float in grams, or null when not known.</param>
/// <param name="MassToleranceG">Allowed either way.</param>
/// <param name="Body">What it is made like, for whether it can shut the needle; null when not known.</param>
/// <param name="DropMm">Least distance from body to float where it hangs open, carburetor upright; null when not given.</param>
public sealed record FloatSpec(
    decimal HeightMm,
    decimal ToleranceMm,
    decimal UnevennessLimitMm,
    decimal TabArmMm,
    decimal MeasuringArmMm,
    double? DryMassG,
    double MassToleranceG,
    FloatBody? Body = null,
    decimal? DropMm = null
);

/// <summary>How a float is shaped, for how deep it sinks.</summary>
public enum FloatShape
{
    /// <summary>Upright sides: a box, a drum standing on its end, a ring, a horseshoe.</summary>
    Upright,

    /// <summary>One or two cylinders lying on their sides.</summary>
    Lying,
}

/// <summary>What a float is made like and what it has to shut.</summary>
/// <param name="VolumeML">Volume it displaces when it is all under, in millilitres.</param>
/// <param name="ArmMm">Hinge pin to its middle.</param>
/// <param name="SeatBoreMm">Bore of the seat.</param>
/// <param name="HeadMm">Height of the fuel above the needle with the tank full.</param>
/// <param name="Shape">How it is shaped.</param>
/// <param name="TallMm">Its own height, from the side the height is measured to down to its bottom; null when not known.</param>
/// <param name="PumpKPa">Pressure of a fuel pump that feeds it, or null when fuel runs down from the tank.</param>
public sealed record FloatBody(
    double VolumeML,
    double ArmMm,
    double SeatBoreMm,
    double HeadMm,
    FloatShape Shape = FloatShape.Upright,
    double? TallMm = null,
    double? PumpKPa = null
);

/// <summary>What moves a heat choke.</summary>
public enum HeatElement
{
    /// <summary>A pellet of wax that grows as it melts and pushes a pin.</summary>
    Wax,

    /// <summary>A coil of two metals that turns as it warms.</summary>
    Bimetal,
}

/// <summary>How a choke opens by itself; what is null is taken from the shop's defaults.</summary>
/// <param name="OpensLowS">Earliest it may be fully open, in seconds from the start; of a heat choke on a day of 20 °C.</param>
/// <param name="OpensHighS">Latest it may be, likewise.</param>
/// <param name="Element">What moves a heat choke, or null when it is not known.</param>
/// <param name="BeginsC">Temperature at which a heat choke begins to open.</param>
/// <param name="FullC">Temperature at which it is fully open.</param>
/// <param name="StrokeMm">Least stroke of its wax pellet once all is molten.</param>
/// <param name="Strip">Its bimetal strip.</param>
public sealed record ChokeLimits(
    double? OpensLowS = null,
    double? OpensHighS = null,
    HeatElement? Element = null,
    double? BeginsC = null,
    double? FullC = null,
    double? StrokeMm = null,
    BimetalStrip? Strip = null
);

/// <summary>A bimetal strip, rolled to a coil or not.</summary>
/// <param name="LengthMm">Length unrolled.</param>
/// <param name="ThicknessMm">Both layers together.</param>
/// <param name="ExpansionDifferencePerK">Difference of the two layers' linear expansion, per kelvin.</param>
public sealed record BimetalStrip(double LengthMm, double ThicknessMm, double ExpansionDifferencePerK);

/// <summary>An engine, for how much fuel it drinks.</summary>
/// <param name="SweptML">Swept volume in millilitres.</param>
/// <param name="FullRpm">Speed at full load in revolutions a minute.</param>
public sealed record EngineSize(double SweptML, double FullRpm);

/// <summary>Cranking compression of the engine it feeds, gauge.</summary>
/// <param name="FloorKPa">Below it the engine is worn, or the reading is wrong.</param>
/// <param name="GoodKPa">From it on the engine is sound; between the two it cannot be told.</param>
public sealed record CompressionBand(double FloorKPa, double GoodKPa);

/// <summary>A metering lever with its spring; lengths in millimetres.</summary>
/// <param name="RateNPerMm">Spring rate in newtons a millimetre.</param>
/// <param name="PreloadMm">How far the spring is pressed with the needle shut.</param>
/// <param name="SpringArmMm">Pivot to the spring.</param>
/// <param name="NeedleArmMm">Pivot to the needle.</param>
/// <param name="DiaphragmArmMm">Pivot to the end the diaphragm presses.</param>
/// <param name="SeatBoreMm">Bore of the seat.</param>
public sealed record MeteringSpring(
    double RateNPerMm,
    double PreloadMm,
    double SpringArmMm,
    double NeedleArmMm,
    double DiaphragmArmMm,
    double SeatBoreMm
);

/// <summary>From where the height of a metering lever is measured.</summary>
public enum LeverDatum
{
    /// <summary>From the middle leg of the gauge for that body: 0 is flush, more stands above it.</summary>
    GaugeLeg,

    /// <summary>Up from the floor of the chamber.</summary>
    ChamberFloor,

    /// <summary>Down from the face of the body, by a straight edge.</summary>
    BodyFace,
}

/// <summary>Where a metering lever should stand.</summary>
/// <param name="Datum">From where it is measured.</param>
/// <param name="HeightMm">The height, or the depth below the face.</param>
/// <param name="ToleranceMm">Allowed either way.</param>
public sealed record LeverSpec(LeverDatum Datum, decimal HeightMm, decimal ToleranceMm);

/// <summary>Pressures at which a metering needle opens and shuts, gauge.</summary>
/// <param name="LowKPa">Lowest at which it may let go.</param>
/// <param name="HighKPa">Highest at which it may let go.</param>
/// <param name="ReseatKPa">Lowest at which it may shut again, or null when not given.</param>
public sealed record PopOffSpec(double LowKPa, double HighKPa, double? ReseatKPa = null);

/// <summary>Hold test limits.</summary>
/// <param name="PressureKPa">Pressure to hold, gauge.</param>
/// <param name="WindowS">For how long.</param>
/// <param name="DropLimitKPa">Drop allowed over the window.</param>
/// <param name="SettlingS">Seconds after pumping that do not count.</param>
/// <param name="TestVolumeML">Shut-in volume of pump hose and fitting.</param>
/// <param name="GaugeResolutionKPa">Step of the shop's gauge.</param>
public sealed record HoldSpec(
    double PressureKPa,
    double WindowS,
    double DropLimitKPa,
    double SettlingS,
    double TestVolumeML,
    double GaugeResolutionKPa
);

/// <summary>A window of speed in revolutions per minute, edges included.</summary>
/// <param name="LowRpm">Slowest.</param>
/// <param name="HighRpm">Fastest.</param>
public sealed record SpeedSpec(double LowRpm, double HighRpm);

/// <summary>A number stamped on a carburetor, as somebody reads it.</summary>
public static class StampedNumber
{
    /// <summary>Longest number that is taken, in characters.</summary>
    public const int Longest = 40;

    /// <summary>Stands for a character that cannot be read.</summary>
    public const char Unreadable = '?';

    /// <summary>Upper case, without spaces, dots, dashes and slashes; <see cref="Unreadable"/> is kept.</summary>
    /// <param name="stamped">The number as it was read.</param>
    public static string Tidy(string? stamped) =>
        new((stamped ?? "").ToUpperInvariant().Where(c => char.IsLetterOrDigit(c) || c == Unreadable).ToArray());
}
