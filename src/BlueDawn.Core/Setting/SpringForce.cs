using BlueDawn.Core.Carburetors;

namespace BlueDawn.Core.Setting;

/// <summary>What a metering needle should open at by its spring, and what a change of it does.</summary>
public static class SpringForce
{
    /// <summary>Pressure in kPa at which the fuel lifts the needle: spring force (Hooke) through the lever onto the seat's area.</summary>
    /// <param name="spring">The lever with its spring.</param>
    /// <remarks>The diaphragm's own stiffness and the needle's friction are left out: they raise it a little.</remarks>
    public static double PopOffKPa(MeteringSpring spring) =>
        spring.RateNPerMm
        * spring.PreloadMm
        * spring.SpringArmMm
        / spring.NeedleArmMm
        / (Math.PI / 4 * spring.SeatBoreMm * spring.SeatBoreMm)
        * 1000;

    /// <summary>How far the spring would have to be pressed for a pop-off, in millimetres.</summary>
    /// <param name="spring">The lever with its spring.</param>
    /// <param name="popOffKPa">The pop-off, above 0.</param>
    public static double PreloadForMm(MeteringSpring spring, double popOffKPa) => spring.PreloadMm * popOffKPa / PopOffKPa(spring);

    /// <summary>What a spring longer by this gives, in kPa more: the seat in its pocket stays, so all of it is preload.</summary>
    /// <param name="spring">The lever with its spring.</param>
    /// <param name="longerMm">Millimetres longer; less than nothing is shorter.</param>
    public static double LongerSpringKPa(MeteringSpring spring, double longerMm) =>
        PopOffKPa(spring with { PreloadMm = Math.Max(0, spring.PreloadMm + longerMm) }) - PopOffKPa(spring);

    /// <summary>What a seat larger by this gives, in kPa more; less than nothing, since the fuel has a larger area to push on.</summary>
    /// <param name="spring">The lever with its spring.</param>
    /// <param name="largerMm">Millimetres larger.</param>
    public static double LargerSeatKPa(MeteringSpring spring, double largerMm) =>
        PopOffKPa(spring with { SeatBoreMm = spring.SeatBoreMm + largerMm }) - PopOffKPa(spring);

    /// <summary>
    /// What bending the lever up at its pivot gives, in kPa more: the spring's dimple goes up with it and the spring is pressed
    /// less. Bent beyond the dimple the spring stays as it was, and so does the pop-off.
    /// </summary>
    /// <param name="spring">The lever with its spring.</param>
    /// <param name="bendUpMm">How far the diaphragm's end went up, in millimetres.</param>
    public static double BentUpAtPivotKPa(MeteringSpring spring, double bendUpMm) =>
        LongerSpringKPa(spring, -bendUpMm * spring.SpringArmMm / spring.DiaphragmArmMm);
}
