namespace BlueDawn.Core.Measures;

/// <summary>Standard wire sizes, for choosing a strand that clears a jet without cutting it.</summary>
public static class WireGauge
{
    /// <summary>The thinnest gauge number considered: thinner strands bend before they push.</summary>
    public const int Thinnest = 44;

    /// <summary>
    /// Diameter of a wire gauge in millimetres. Source: ASTM B258, d = 0.127 mm × 92^((36−n)/39).
    /// </summary>
    /// <param name="gauge">Gauge number, 0 to 44.</param>
    /// <exception cref="ArgumentOutOfRangeException">The gauge is outside 0 to 44.</exception>
    public static double DiameterMm(int gauge)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(gauge);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(gauge, Thinnest);
        return 0.127 * SteadyMath.Pow(92, (36 - gauge) / 39.0);
    }

    /// <summary>
    /// The thickest strand that is no thicker than a bore, or null when even the thinnest is too thick.
    /// </summary>
    /// <param name="boreMm">Bore in millimetres.</param>
    public static int? ThickestWithin(decimal boreMm)
    {
        for (var gauge = 10; gauge <= Thinnest; gauge++)
        {
            if (DiameterMm(gauge) <= (double)boreMm)
            {
                return gauge;
            }
        }

        return null;
    }
}
