namespace BlueDawn.Core.Faults;

/// <summary>
/// A tank whose vent is shut. Its engine draws fuel, the air above the fuel stretches, and once the suction holds the fuel
/// back the bowl runs dry. The air follows Boyle's law; the fuel's vapour fills up to its own pressure at once and pushes
/// nothing new. Source: Boyle's and Dalton's laws; the fuel's vapour pressure is from memory, EN 228 gives 45 to 100 kPa at
/// 37.8 °C.
/// </summary>
public static class SealedTank
{
    /// <summary>Air outside, kPa. Source: ISO 2533, standard atmosphere at sea level.</summary>
    public const double OutsideKPa = 101.325;

    /// <summary>Pressure of petrol's vapour on a cold and on a hot day in kPa, from memory.</summary>
    private const double ColdVapourKPa = 15,
        HotVapourKPa = 60;

    /// <summary>Suction in the tank after some fuel was drawn, in kPa.</summary>
    /// <param name="airML">Air above the fuel at the start.</param>
    /// <param name="drawnML">Fuel drawn since, 0 or more.</param>
    /// <param name="vapourKPa">Pressure of the fuel's vapour, below that of the air outside.</param>
    public static double SuctionKPa(double airML, double drawnML, double vapourKPa) =>
        (OutsideKPa - vapourKPa) * drawnML / (airML + drawnML);

    /// <summary>Minutes until it starves, in kPa of suction the fuel is held back by.</summary>
    /// <param name="airML">Air above the fuel at the start, above 0.</param>
    /// <param name="burnMLPerMin">What the engine drinks, above 0.</param>
    /// <param name="heldBackKPa">Suction at which no more fuel comes.</param>
    /// <param name="vapourKPa">Pressure of the fuel's vapour.</param>
    /// <param name="bowlML">What it still runs on then.</param>
    public static double MinutesToStarve(double airML, double burnMLPerMin, double heldBackKPa, double vapourKPa, double bowlML)
    {
        var air = OutsideKPa - vapourKPa;
        return heldBackKPa >= air ? double.PositiveInfinity : ((airML * heldBackKPa / (air - heldBackKPa)) + bowlML) / burnMLPerMin;
    }

    /// <summary>Earliest and latest minutes at which a shut vent starves an engine, over what is not known: the day, the head of fuel or
    /// the pump, the bowl.</summary>
    /// <param name="family">How fuel is fed: by its fall, by a pump, or drawn up.</param>
    /// <param name="airML">Air above the fuel.</param>
    /// <param name="burnMLPerMin">What the engine drinks.</param>
    public static (double Low, double High) Window(Carburetors.CarburetorFamily family, double airML, double burnMLPerMin)
    {
        // Suction that stops the fuel, kPa: a head of 50 to 400 mm of fuel of 0.74 kg/l; a pulse pump's lift; a throat's own pull. What
        // is left in the carburetor, ml. Own judgement.
        var (weak, strong, little, much) = family switch
        {
            Carburetors.CarburetorFamily.FloatBowl => (0.36, 2.9, 15.0, 60.0),
            Carburetors.CarburetorFamily.Diaphragm => (3.0, 20.0, 1.0, 4.0),
            Carburetors.CarburetorFamily.SuctionTank => (0.5, 3.0, 0.0, 10.0),
        };
        return (
            MinutesToStarve(airML, burnMLPerMin, weak, ColdVapourKPa, little),
            MinutesToStarve(airML, burnMLPerMin, strong, HotVapourKPa, much)
        );
    }
}
