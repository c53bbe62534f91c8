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
    double MeasuringArmMm
);

/// <summary>How the heights were brought together.</summary>
public enum LevelMethod
{
    /// <summary>A least-squares plane through the heights at their angles.</summary>
    Plane,

    /// <summary>The same, the angles not noted and taken as evenly spread around the float.</summary>
    EvenlySpread,
}

/// <summary>What float heights say.</summary>
public enum LevelVerdict
{
    /// <summary>The heights, or where they were taken, do not decide.</summary>
    CannotTell,

    /// <summary>Height and evenness are within their limits.</summary>
    Level,

    /// <summary>The float stands too far from the body: the bowl would fill too low.</summary>
    TooHigh,

    /// <summary>The float stands too near the body: the bowl would fill too high.</summary>
    TooLow,

    /// <summary>The float is twisted.</summary>
    Uneven,
}

/// <summary>What float heights say, with the bend that puts them right. Each give or take holds the truth in 95 of 100.</summary>
/// <param name="Verdict">Level, too high, too low, uneven or cannot tell.</param>
/// <param name="Method">How the heights were brought together.</param>
/// <param name="MeanHeightMm">Height at the middle of the float.</param>
/// <param name="MeanUncertaintyMm">Give or take on it; null when the angles leave it open.</param>
/// <param name="HeightErrorMm">Mean less nominal; positive is too far from the body.</param>
/// <param name="UnevennessMm">Highest less lowest across the float, as far as the angles show it.</param>
/// <param name="UnevennessUncertaintyMm">Give or take on it; null when the angles leave it open.</param>
/// <param name="HighSideDeg">Where the float stands highest, in degrees; null when level or left open.</param>
/// <param name="ResidualMm">How far the heights scatter about the plane, root mean square; 0 with three heights or fewer.</param>
/// <param name="TabBendMm">How far to bend the tab, never negative.</param>
/// <param name="TabBendUncertaintyMm">Give or take on the bend; null when no bend is wanted.</param>
/// <param name="BendTowardNeedle">True to bend toward the needle, false to bend away from it; null when no bend is wanted.</param>
/// <param name="NextAngleDeg">Where one more height would tell most; null when nothing is open.</param>
public sealed record FloatLevelResult(
    LevelVerdict Verdict,
    LevelMethod Method,
    double MeanHeightMm,
    double? MeanUncertaintyMm,
    double HeightErrorMm,
    double UnevennessMm,
    double? UnevennessUncertaintyMm,
    double? HighSideDeg,
    double ResidualMm,
    double TabBendMm,
    double? TabBendUncertaintyMm,
    bool? BendTowardNeedle,
    double? NextAngleDeg
);

/// <summary>Float height and evenness, and the tab bend that puts the height right.</summary>
/// <remarks>
/// Heights are taken with the carburetor inverted, the float resting on the needle. A float that stands far from the
/// body then hangs low when the carburetor is turned upright, shuts the needle early, and the bowl fills too low; one
/// that stands near the body fills it too high. Bending the tab toward the needle moves the float away from the body.
/// Common practice, no source.
/// A height is good to <see cref="HeightErrorMm"/>; the covariance of the plane (JCGM 100, 5) says what that leaves open
/// of the height in the middle, of the tilt and so of the bend. Angles close together leave nearly everything open.
/// </remarks>
public static class FloatLevel
{
    /// <summary>Standard uncertainty of one height in millimetres: a float read with a caliper. Own judgement, no source.</summary>
    public const double HeightErrorMm = 0.03;

    /// <summary>Covers 95 of 100 of one quantity (normal distribution, two sides).</summary>
    private const double Cover = 1.96;

    /// <summary>Covers 95 of 100 of a tilt, which has two components: the root of χ² with 2 degrees of freedom at 0.95.</summary>
    private const double CoverTilt = 2.4477;

    /// <summary>Keeps what the angles do not show finite, and larger than any float.</summary>
    private const double Ridge = 1e-11;

    /// <summary>A give or take beyond this is as good as none, in millimetres.</summary>
    private const double LeftOpenMm = 20;

    /// <summary>Angles that are proposed lie this far apart.</summary>
    private const int ProposedStepDeg = 30;

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
        if (input.Points.Any(point => point.AngleDeg is null) && input.Points.Any(point => point.AngleDeg is not null))
        {
            problems.Add(
                new(
                    $"points[{input.Points.TakeWhile(point => point.AngleDeg is not null).Count()}].angleDeg",
                    "Note the angle at every height, or at none."
                )
            );
        }

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

        var points = Placed(input.Points);
        var plane = Plane.Through(points);
        var error = plane.Mean - input.NominalHeightMm;
        var meanGive = Cover * plane.Sigma * Math.Sqrt(plane.MeanVariance);
        var unevenness = 2 * plane.Tilt;
        var (tiltAtLeast, tiltAtMost) = (
            unevenness - (2 * Cover * plane.Sigma * Math.Sqrt(plane.AlongTilt)),
            unevenness + (2 * CoverTilt * plane.Sigma * Math.Sqrt(plane.LargestTilt))
        );
        var verdict =
            error - meanGive > input.ToleranceMm + SlackMm ? LevelVerdict.TooHigh
            : error + meanGive < -input.ToleranceMm - SlackMm ? LevelVerdict.TooLow
            : tiltAtLeast > input.UnevennessLimitMm + SlackMm ? LevelVerdict.Uneven
            : Math.Abs(error) + meanGive <= input.ToleranceMm + SlackMm && tiltAtMost <= input.UnevennessLimitMm + SlackMm
                ? LevelVerdict.Level
            : LevelVerdict.CannotTell;
        var bend = verdict is LevelVerdict.TooHigh or LevelVerdict.TooLow;
        var arms = input.TabArmMm / input.MeasuringArmMm;
        var tiltGive = (tiltAtMost - tiltAtLeast) / 2;
        return new FloatLevelResult(
            verdict,
            input.Points.All(point => point.AngleDeg is not null) ? LevelMethod.Plane : LevelMethod.EvenlySpread,
            plane.Mean,
            meanGive < LeftOpenMm ? meanGive : null,
            error,
            unevenness,
            tiltGive < LeftOpenMm ? tiltGive : null,
            plane.Tilt > 1e-6 && tiltGive < LeftOpenMm ? plane.HighSideDeg : null,
            plane.Residual,
            bend ? Math.Abs(error) * arms : 0,
            bend ? meanGive * arms : null,
            bend ? error < 0 : null,
            verdict == LevelVerdict.CannotTell ? NextAngle(plane) : null
        );
    }

    /// <summary>Where one more height narrows the plane most (D-optimal): where its own height is least known.</summary>
    private static double NextAngle(Plane plane) =>
        Enumerable
            .Range(0, 360 / ProposedStepDeg)
            .Select(step => (double)(step * ProposedStepDeg))
            .MaxBy(angle => Math.Round(SteadyMath.Log(plane.VarianceAt(angle)), 3));

    private static List<(double Height, double Angle)> Placed(IReadOnlyList<HeightPoint> points) =>
        [.. points.Select((point, at) => (point.HeightMm, point.AngleDeg ?? (at * 360.0 / points.Count)))];

    /// <summary>Least squares of height = mean + a·cos(angle) + b·sin(angle), with its covariance.</summary>
    private sealed class Plane
    {
        private readonly double[,] covariance;
        private readonly (double Cos, double Sin) tilt;

        private Plane(double mean, (double Cos, double Sin) tilt, double[,] covariance, double residual, double sigma)
        {
            (Mean, Residual, Sigma) = (mean, residual, sigma);
            (this.tilt, this.covariance) = (tilt, covariance);
        }

        /// <summary>Height in the middle in millimetres.</summary>
        public double Mean { get; }

        /// <summary>Root mean square of the heights about the plane; 0 with three heights or fewer.</summary>
        public double Residual { get; }

        /// <summary>Standard uncertainty of one height: <see cref="HeightErrorMm"/>, or the scatter about the plane where it is
        /// more.</summary>
        public double Sigma { get; }

        /// <summary>How far the highest side stands above the middle.</summary>
        public double Tilt => Math.Sqrt((tilt.Cos * tilt.Cos) + (tilt.Sin * tilt.Sin));

        /// <summary>Where it stands highest, from 0 to 360 degrees.</summary>
        public double HighSideDeg => ((Math.Atan2(tilt.Sin, tilt.Cos) * 180 / Math.PI) + 360) % 360;

        /// <summary>Variance of the mean for a height of variance 1.</summary>
        public double MeanVariance => covariance[0, 0];

        /// <summary>Variance of the tilt along the side found highest, for a height of variance 1.</summary>
        public double AlongTilt =>
            Tilt < 1e-9
                ? LargestTilt
                : (
                    (tilt.Cos * tilt.Cos * covariance[1, 1])
                    + (2 * tilt.Cos * tilt.Sin * covariance[1, 2])
                    + (tilt.Sin * tilt.Sin * covariance[2, 2])
                ) / (Tilt * Tilt);

        /// <summary>Variance of the tilt where it is known least, for a height of variance 1.</summary>
        public double LargestTilt
        {
            get
            {
                var (half, off) = ((covariance[1, 1] + covariance[2, 2]) / 2, (covariance[1, 1] - covariance[2, 2]) / 2);
                return half + Math.Sqrt((off * off) + (covariance[1, 2] * covariance[1, 2]));
            }
        }

        /// <summary>Variance of the height at an angle, for a height of variance 1.</summary>
        public double VarianceAt(double angleDeg)
        {
            var row = Row(angleDeg);
            double sum = 0;
            for (var i = 0; i < 3; i++)
            {
                for (var j = 0; j < 3; j++)
                {
                    sum += row[i] * covariance[i, j] * row[j];
                }
            }

            return sum;
        }

        public static Plane Through(List<(double Height, double Angle)> points)
        {
            var middle = points.Average(point => point.Height);
            var normal = new double[3, 3];
            var right = new double[3];
            foreach (var (height, angle) in points)
            {
                var row = Row(angle);
                for (var i = 0; i < 3; i++)
                {
                    right[i] += row[i] * (height - middle);
                    for (var j = 0; j < 3; j++)
                    {
                        normal[i, j] += row[i] * row[j];
                    }
                }
            }

            for (var i = 0; i < 3; i++)
            {
                normal[i, i] += Ridge;
            }

            var inverse = Inverse(normal);
            var solved = Times(inverse, right);
            // Once more with what the ridge left: what the angles do show is then exact.
            var left = Times(normal, solved);
            var more = Times(inverse, [.. right.Select((value, i) => value - left[i] + (Ridge * solved[i]))]);
            var (mean, cos, sin) = (middle + solved[0] + more[0], solved[1] + more[1], solved[2] + more[2]);
            var squares = points.Sum(point =>
            {
                var row = Row(point.Angle);
                var off = point.Height - mean - (cos * row[1]) - (sin * row[2]);
                return off * off;
            });
            var scatter = points.Count > 3 ? Math.Sqrt(squares / (points.Count - 3)) : 0;
            return new Plane(
                mean,
                (cos, sin),
                inverse,
                points.Count > 3 ? Math.Sqrt(squares / points.Count) : 0,
                Math.Max(HeightErrorMm, scatter)
            );
        }

        private static double[] Times(double[,] matrix, double[] vector) =>
            [.. Enumerable.Range(0, 3).Select(i => (matrix[i, 0] * vector[0]) + (matrix[i, 1] * vector[1]) + (matrix[i, 2] * vector[2]))];

        private static double[] Row(double angleDeg)
        {
            var (sin, cos) = Math.SinCos(angleDeg * Math.PI / 180);
            return [1, cos, sin];
        }

        /// <summary>Inverse of a symmetric 3 × 3 matrix by its cofactors.</summary>
        private static double[,] Inverse(double[,] m)
        {
            double Minor(int r0, int r1, int c0, int c1) => (m[r0, c0] * m[r1, c1]) - (m[r0, c1] * m[r1, c0]);
            var (a, b, c) = (Minor(1, 2, 1, 2), -Minor(1, 2, 0, 2), Minor(1, 2, 0, 1));
            var (d, e, f) = (Minor(0, 2, 0, 2), -Minor(0, 2, 0, 1), Minor(0, 1, 0, 1));
            var whole = (m[0, 0] * a) + (m[0, 1] * b) + (m[0, 2] * c);
            return new[,]
            {
                { a / whole, b / whole, c / whole },
                { b / whole, d / whole, e / whole },
                { c / whole, e / whole, f / whole },
            };
        }
    }
}
