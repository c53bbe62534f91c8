using BlueDawn.Core.Setting;
using CsCheck;
using MathNet.Numerics;
using MathNet.Numerics.LinearAlgebra;

namespace BlueDawn.Core.Tests.Setting;

public class FloatLevelTests
{
    private static FloatLevelInput Input(params (double? Angle, double Height)[] points) => new(
        [.. points.Select(p => new HeightPoint(p.Height, p.Angle))], 14, 0.5, 0.4, 8, 24);

    /// <summary>Worked by hand: 0°, 120°, 240° reading 14.0, 14.3, 14.6: mean 14.3, a = -0.3, b = -0.1732, swing 0.3464.</summary>
    [Fact]
    public void Three_heights_give_the_plane_through_them()
    {
        var result = FloatLevel.Judge(Input((0, 14.0), (120, 14.3), (240, 14.6)));
        Assert.Equal(LevelMethod.Plane, result.Method);
        Assert.Equal(14.3, result.MeanHeightMm, 9);
        Assert.Equal(2 * Math.Sqrt(0.09 + 0.03), result.UnevennessMm, 9);
        Assert.Equal(210, result.HighSideDeg!.Value, 6);
        Assert.Equal(0, result.ResidualMm, 9);
        Assert.Equal(LevelVerdict.Uneven, result.Verdict);
    }

    /// <summary>Against the least-squares solver of MathNet.Numerics, a general-purpose library.</summary>
    [Fact]
    public void The_plane_agrees_with_an_independent_solver() =>
        Gen.Select(Gen.Double[0, 359], Gen.Double[10, 18]).Array[4, 9].Sample(points =>
        {
            var design = Matrix<double>.Build.Dense(points.Length, 3, (row, column) =>
                column == 0 ? 1 : column == 1 ? Math.Cos(points[row].Item1 * Math.PI / 180) : Math.Sin(points[row].Item1 * Math.PI / 180));
            if (design.ConditionNumber() > 1e3)
            {
                return;
            }

            var solved = design.QR().Solve(Vector<double>.Build.Dense([.. points.Select(p => p.Item2)]));
            var result = FloatLevel.Judge(Input([.. points.Select(p => ((double?)p.Item1, p.Item2))]));
            Assert.True(Precision.AlmostEqual(solved[0], result.MeanHeightMm, 1e-6));
            Assert.True(Precision.AlmostEqual(2 * Math.Sqrt((solved[1] * solved[1]) + (solved[2] * solved[2])), result.UnevennessMm, 1e-6));
        });

    [Fact]
    public void Two_heights_give_mean_and_difference()
    {
        var result = FloatLevel.Judge(Input((null, 14.1), (null, 14.4)));
        Assert.Equal((LevelMethod.MeanAndDifference, LevelVerdict.Level), (result.Method, result.Verdict));
        Assert.Equal(14.25, result.MeanHeightMm, 9);
        Assert.Equal(0.3, result.UnevennessMm, 9);
    }

    [Fact]
    public void Angles_that_fix_no_plane_fall_back_to_the_mean() =>
        Assert.Equal(LevelMethod.MeanAndDifference, FloatLevel.Judge(Input((0, 14), (180, 14.2), (0, 14.1), (180, 14.3))).Method);

    /// <summary>Worked by hand: 15.2 − 14 = 1.2 high, × 8 ÷ 24 = 0.4 mm at the tab.</summary>
    [Fact]
    public void The_tab_bend_is_the_error_times_the_ratio_of_arms()
    {
        var far = FloatLevel.Judge(Input((0, 15.2), (180, 15.2)));
        Assert.Equal(LevelVerdict.TooHigh, far.Verdict);
        Assert.Equal(0.4, far.TabBendMm, 9);
        Assert.False(far.BendTowardNeedle);
        var near = FloatLevel.Judge(Input((0, 12.8), (180, 12.8)));
        Assert.Equal((LevelVerdict.TooLow, true), (near.Verdict, near.BendTowardNeedle));
        Assert.Equal(0.4, near.TabBendMm, 9);
    }

    [Theory]
    [InlineData(14.5, LevelVerdict.Level)]
    [InlineData(13.5, LevelVerdict.Level)]
    [InlineData(14.51, LevelVerdict.TooHigh)]
    [InlineData(13.49, LevelVerdict.TooLow)]
    public void The_limit_itself_is_within_it(double height, LevelVerdict verdict) =>
        Assert.Equal(verdict, FloatLevel.Judge(Input((null, height), (null, height))).Verdict);

    [Fact]
    public void One_height_does_not_decide() =>
        Assert.Equal(LevelVerdict.CannotTell, FloatLevel.Judge(Input((0, 14))).Verdict);

    [Fact]
    public void Turning_the_float_changes_neither_mean_nor_unevenness() =>
        Gen.Select(Gen.Double[13, 15], Gen.Double[13, 15], Gen.Double[13, 15], Gen.Double[0, 90]).Sample((a, b, c, turn) =>
        {
            var straight = FloatLevel.Judge(Input((0, a), (120, b), (240, c)));
            var turned = FloatLevel.Judge(Input((turn, a), (120 + turn, b), (240 + turn, c)));
            Assert.Equal(straight.MeanHeightMm, turned.MeanHeightMm, 6);
            Assert.Equal(straight.UnevennessMm, turned.UnevennessMm, 6);
        });

    [Fact]
    public void Bending_as_told_puts_the_height_right() =>
        Gen.Double[10, 18].Sample(height =>
        {
            var result = FloatLevel.Judge(Input((null, height), (null, height)));
            var moved = result.TabBendMm * 24 / 8;
            var after = result.BendTowardNeedle is not { } toward ? height : toward ? height + moved : height - moved;
            Assert.Equal(LevelVerdict.Level, FloatLevel.Judge(Input((null, after), (null, after))).Verdict);
        });

    [Theory]
    [InlineData(double.NaN)]
    [InlineData(-1)]
    [InlineData(101)]
    public void Impossible_heights_are_named(double height) =>
        Assert.Equal("points[1].heightMm", Assert.Single(FloatLevel.Check(Input((0, 14), (90, height)))).Field);
}
