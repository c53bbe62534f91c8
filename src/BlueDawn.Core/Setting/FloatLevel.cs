using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Setting;

/// <summary>One float height.</summary>
/// <param name="HeightMm">Height in millimetres from the body to the float, carburetor inverted.</param>
/// <param name="AngleDeg">Where around the float it was measured, in degrees; null when not noted.</param>
public sealed record HeightPoint(double HeightMm, double? AngleDeg = null);

/// <summary>Float heights and what they are held against.</summary>
/// <param name="Points">Two heights or more, each 0 to 100 mm.</param>
/// <param name="NominalHeightMm">Height on the spec sheet, above 0.</param>
/// <param name="ToleranceMm">Allowed either way, 0 or more.</param>
/// <param name="UnevennessLimitMm">Largest difference allowed across the float, 0 or more.</param>
/// <param name="TabArmMm">From the hinge pin to where the tab touches the needle, above 0.</param>
/// <param name="MeasuringArmMm">From the hinge pin to where the height is measured, above 0.</param>
public sealed record FloatLevelInput(
    IReadOnlyList<HeightPoint> Points,
    double NominalHeightMm,
    double ToleranceMm,
    double UnevennessLimitMm,
    double TabArmMm,
    double MeasuringArmMm);

/// <summary>How the heights were brought together.</summary>
public enum LevelMethod
{
    /// <summary>A least-squares plane through three or more heights at known angles.</summary>
    Plane,

    /// <summary>Mean and largest difference.</summary>
    MeanAndDifference,
}

/// <summary>What float heights say.</summary>
public enum LevelVerdict
{
    /// <summary>Fewer than two heights.</summary>
    CannotTell,

    /// <summary>Height and evenness are within their limits.</summary>
    Level,

    /// <summary>The float stands too far from the body: the bowl would fill too low.</summary>
    TooHigh,

    /// <summary>The float stands too near the body: the bowl would fill too high.</summary>
    TooLow,

    /// <summary>The mean is right but the float is twisted.</summary>
    Uneven,
}

/// <summary>What float heights say, with the bend that puts them right.</summary>
/// <param name="Verdict">Level, too high, too low, uneven or cannot tell.</param>
/// <param name="Method">How the heights were brought together.</param>
/// <param name="MeanHeightMm">Height at the middle of the float.</param>
/// <param name="HeightErrorMm">Mean less nominal; positive is too far from the body.</param>
/// <param name="UnevennessMm">Highest less lowest across the float.</param>
/// <param name="HighSideDeg">Where the float stands highest, in degrees; null when not from a plane or when level.</param>
/// <param name="ResidualMm">How far the heights scatter about the plane, root mean square; 0 without a plane.</param>
/// <param name="TabBendMm">How far to bend the tab, never negative.</param>
/// <param name="BendTowardNeedle">True to bend toward the needle, false to bend away from it; null when no bend is wanted.</param>
public sealed record FloatLevelResult(
    LevelVerdict Verdict,
    LevelMethod Method,
    double MeanHeightMm,
    double HeightErrorMm,
    double UnevennessMm,
    double? HighSideDeg,
    double ResidualMm,
    double TabBendMm,
    bool? BendTowardNeedle);

/// <summary>Float height and evenness, and the tab bend that puts the height right.</summary>
/// <remarks>
/// Heights are taken with the carburetor inverted, the float resting on the needle. A float that stands far from the
/// body then hangs low when the carburetor is turned upright, shuts the needle early, and the bowl fills too low; one
/// that stands near the body fills it too high. Bending the tab toward the needle moves the float away from the body.
/// Common practice, no source.
/// </remarks>
public static class FloatLevel
{
    /// <summary>Slack for rounding in binary arithmetic, in millimetres: a height on its limit is within it.</summary>
    private const double SlackMm = 1e-9;

    /// <summary>What is wrong with an input, field by field; empty when it can be judged.</summary>
    public static IReadOnlyList<FieldProblem> Check(FloatLevelInput input)
    {
        var problems = new List<FieldProblem>();
        for (var i = 0; i < input.Points.Count; i++)
        {
            var (height, angle) = input.Points[i];
            if (!double.IsFinite(height) || height < 0 || height > 100)
            {
                problems.Add(new($"points[{i}].heightMm", "A float height is from 0 to 100 mm. Check the unit."));
            }

            if (angle is { } deg && (!double.IsFinite(deg) || Math.Abs(deg) > 360))
            {
                problems.Add(new($"points[{i}].angleDeg", "An angle is from -360 to 360 degrees."));
            }
        }

        void Positive(double value, string field)
        {
            if (!double.IsFinite(value) || value <= 0 || value > 200)
            {
                problems.Add(new(field, "Must be above 0 and no more than 200 mm."));
            }
        }

        void NotNegative(double value, string field)
        {
            if (!double.IsFinite(value) || value < 0 || value > 50)
            {
                problems.Add(new(field, "Must be from 0 to 50 mm."));
            }
        }

        Positive(input.NominalHeightMm, "nominalHeightMm");
        NotNegative(input.ToleranceMm, "toleranceMm");
        NotNegative(input.UnevennessLimitMm, "unevennessLimitMm");
        Positive(input.TabArmMm, "tabArmMm");
        Positive(input.MeasuringArmMm, "measuringArmMm");
        if (input.Points.Count == 0)
        {
            problems.Add(new("points", "Enter the height at two points or more."));
        }

        return problems;
    }

    /// <summary>Judges a checked input.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with it.</exception>
    public static FloatLevelResult Judge(FloatLevelInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var (method, mean, unevenness, highSide, residual) = Fit(input.Points);
        var error = mean - input.NominalHeightMm;
        var highEnough = error >= -input.ToleranceMm - SlackMm;
        var lowEnough = error <= input.ToleranceMm + SlackMm;
        var even = unevenness <= input.UnevennessLimitMm + SlackMm;
        var verdict = input.Points.Count < 2 ? LevelVerdict.CannotTell
            : !lowEnough ? LevelVerdict.TooHigh
            : !highEnough ? LevelVerdict.TooLow
            : even ? LevelVerdict.Level
            : LevelVerdict.Uneven;
        var bend = verdict is LevelVerdict.TooHigh or LevelVerdict.TooLow;
        return new FloatLevelResult(
            verdict,
            method,
            mean,
            error,
            unevenness,
            highSide,
            residual,
            bend ? Math.Abs(error) * input.TabArmMm / input.MeasuringArmMm : 0,
            bend ? error < 0 : null);
    }

    private static (LevelMethod Method, double Mean, double Unevenness, double? HighSideDeg, double ResidualMm) Fit(IReadOnlyList<HeightPoint> points)
    {
        if (points.All(p => p.AngleDeg is not null) && Plane(points) is { } plane)
        {
            var (mean, cos, sin) = plane;
            var amplitude = Math.Sqrt((cos * cos) + (sin * sin));
            var scatter = points.Average(p =>
            {
                var angle = p.AngleDeg!.Value * Math.PI / 180;
                var off = p.HeightMm - (mean + (cos * Math.Cos(angle)) + (sin * Math.Sin(angle)));
                return off * off;
            });
            var side = amplitude > 1e-6 ? ((Math.Atan2(sin, cos) * 180 / Math.PI) + 360) % 360 : (double?)null;
            return (LevelMethod.Plane, mean, 2 * amplitude, side, Math.Sqrt(scatter));
        }

        return (
            LevelMethod.MeanAndDifference,
            points.Average(p => p.HeightMm),
            points.Max(p => p.HeightMm) - points.Min(p => p.HeightMm),
            null,
            0);
    }

    /// <summary>
    /// Least squares of height = mean + a·cos(angle) + b·sin(angle), by the normal equations and Cramer's rule;
    /// null when the angles do not fix a plane (fewer than three different ones).
    /// </summary>
    private static (double Mean, double Cos, double Sin)? Plane(IReadOnlyList<HeightPoint> points)
    {
        double n = points.Count, c = 0, s = 0, cc = 0, cs = 0, ss = 0, h = 0, ch = 0, sh = 0;
        foreach (var (height, angleDeg) in points)
        {
            var (sin, cos) = Math.SinCos(angleDeg!.Value * Math.PI / 180);
            c += cos;
            s += sin;
            cc += cos * cos;
            cs += cos * sin;
            ss += sin * sin;
            h += height;
            ch += cos * height;
            sh += sin * height;
        }

        var whole = Determinant(n, c, s, c, cc, cs, s, cs, ss);
        return points.Count < 3 || Math.Abs(whole) < 1e-6
            ? null
            : (
                Determinant(h, c, s, ch, cc, cs, sh, cs, ss) / whole,
                Determinant(n, h, s, c, ch, cs, s, sh, ss) / whole,
                Determinant(n, c, h, c, cc, ch, s, cs, sh) / whole);
    }

    private static double Determinant(double a, double b, double c, double d, double e, double f, double g, double h, double i) =>
        (a * ((e * i) - (f * h))) - (b * ((d * i) - (f * g))) + (c * ((d * h) - (e * g)));
}
