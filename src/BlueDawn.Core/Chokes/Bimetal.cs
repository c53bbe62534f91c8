using BlueDawn.Core.Carburetors;

namespace BlueDawn.Core.Chokes;

/// <summary>
/// How far a bimetal strip bends or a coil of it turns as it warms. Source: S. Timoshenko, Analysis of bi-metal thermostats,
/// Journal of the Optical Society of America 11 (1925), equation 4.
/// </summary>
public static class Bimetal
{
    /// <summary>
    /// Difference of expansion of the two layers, per kelvin: the least of usual thermostatic bimetals (specific thermal
    /// curvature 18 × 10⁻⁶ per kelvin, which is one and a half times it; DIN 1715, from memory).
    /// </summary>
    public const double UsualLowPerK = 12e-6;

    private const double DegreesPerRadian = 180 / Math.PI;

    /// <summary>Change of curvature per kelvin, in 1/mm per kelvin.</summary>
    /// <param name="thicknessMm">Both layers together, above 0.</param>
    /// <param name="expansionDifferencePerK">Difference of the layers' linear expansion, per kelvin.</param>
    /// <param name="thicknessRatio">Thickness of one layer over that of the other, above 0.</param>
    /// <param name="stiffnessRatio">Modulus of elasticity of the one over that of the other, above 0.</param>
    public static double CurvaturePerK(
        double thicknessMm,
        double expansionDifferencePerK,
        double thicknessRatio = 1,
        double stiffnessRatio = 1
    )
    {
        var (m, n) = (thicknessRatio, stiffnessRatio);
        var (sum, product) = ((1 + m) * (1 + m), m * n);
        return 6 * expansionDifferencePerK * sum / (thicknessMm * ((3 * sum) + ((1 + product) * ((m * m) + (1 / product)))));
    }

    /// <summary>How far the free end of a coil turns per kelvin, in degrees: its length times the change of curvature.</summary>
    /// <param name="strip">The strip, rolled up or not.</param>
    public static double DegreesPerK(BimetalStrip strip) =>
        strip.LengthMm * CurvaturePerK(strip.ThicknessMm, strip.ExpansionDifferencePerK) * DegreesPerRadian;
}
