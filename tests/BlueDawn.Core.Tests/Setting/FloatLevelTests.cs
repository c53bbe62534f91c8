using BlueDawn.Core.Setting;
using CsCheck;
using MathNet.Numerics;
using MathNet.Numerics.LinearAlgebra;

namespace BlueDawn.Core.Tests.Setting;

public class FloatLevelTests
{
    private static FloatLevelInput Input(params (double? Angle, double Height)[] points) =>
        new([.. points.Select(p => new HeightPoint(p.Height, p.Angle))], 14, 0.5, 0.4, 8, 24);

    /// <summary>Worked by hand: 0°, 120°, 240° reading 14.0, 14.3, 14.6: mean 14.3, a = -0.3, b = -0.1732, swing 0.3464.</summary>
    /// <summary>
    /// Five heights all round that no plane fits: 0.2 cos 2θ over the plane. By hand: Σ off² = 0.04 · 2.5, over two degrees of
    /// freedom a scatter of √0.05 = 0.2236 mm, the mean of five good to 1.96 · 0.2236 ÷ √5 = 0.196 mm. A sum and not a mean
    /// of squares, or three degrees of freedom too few, would say otherwise.
    /// </summary>
    [Fact]
    public void Heights_that_no_plane_fits_are_taken_by_their_scatter()
    {
        var points = Enumerable
            .Range(0, 5)
            .Select(k => k * 72.0)
            .Select(angle => new HeightPoint(14 + (0.2 * Math.Cos(2 * angle * Math.PI / 180)), angle))
            .ToList();
        var found = FloatLevel.Judge(new FloatLevelInput(points, 14, 0.5, 0.4, 8, 24));
        Assert.Equal(14, found.MeanHeightMm, tolerance: 5e-10);
        Assert.Equal(0.196, found.MeanUncertaintyMm!.Value, tolerance: 5e-4);
        Assert.Equal(0.2 / Math.Sqrt(2), found.ResidualMm, tolerance: 5e-7);
    }

    [Fact]
    public void Three_heights_give_the_plane_through_them()
    {
        var result = FloatLevel.Judge(Input((0, 14.0), (120, 14.3), (240, 14.6)));
        Assert.Equal(LevelMethod.Plane, result.Method);
        Assert.Equal(14.3, result.MeanHeightMm, tolerance: 5e-10);
        Assert.Equal(2 * Math.Sqrt(0.09 + 0.03), result.UnevennessMm, tolerance: 5e-10);
        Assert.Equal(210, result.HighSideDeg!.Value, tolerance: 5e-7);
        Assert.Equal(0, result.ResidualMm, tolerance: 5e-10);
        Assert.Equal(LevelVerdict.Uneven, result.Verdict);
    }

    /// <summary>Against the least-squares solver of MathNet.Numerics, a general-purpose library.</summary>
    [Fact]
    public void The_plane_agrees_with_an_independent_solver() =>
        Gen.Select(Gen.Double[0, 359], Gen.Double[10, 18])
            .Array[4, 9]
            .Sample(points =>
            {
                var design = Matrix<double>.Build.Dense(points.Length, 3, (row, column) => column == 0 ? 1
                    : column == 1 ? Math.Cos(points[row].Item1 * Math.PI / 180)
                    : Math.Sin(points[row].Item1 * Math.PI / 180));
                if (design.ConditionNumber() > 1e3)
                {
                    return;
                }

                var solved = design.QR().Solve(Vector<double>.Build.Dense([.. points.Select(p => p.Item2)]));
                var result = FloatLevel.Judge(Input([.. points.Select(p => ((double?)p.Item1, p.Item2))]));
                Assert.True(Precision.AlmostEqual(solved[0], result.MeanHeightMm, 1e-6));
                Assert.True(
                    Precision.AlmostEqual(2 * Math.Sqrt((solved[1] * solved[1]) + (solved[2] * solved[2])), result.UnevennessMm, 1e-6)
                );
            });

    [Fact]
    public void Two_heights_opposite_each_other_give_the_middle_and_leave_the_tilt_across_open()
    {
        var result = FloatLevel.Judge(Input((null, 14.1), (null, 14.4)));
        Assert.Equal((LevelMethod.EvenlySpread, LevelVerdict.CannotTell), (result.Method, result.Verdict));
        Assert.Contains(result.NextAngleDeg!.Value, new List<double> { 90, 270 });
        Assert.Equal(14.25, result.MeanHeightMm, tolerance: 5e-7);
        Assert.Equal(1.96 * 0.03 / Math.Sqrt(2), result.MeanUncertaintyMm!.Value, tolerance: 5e-6);
        Assert.Null(result.UnevennessUncertaintyMm);
    }

    [Fact]
    public void Heights_on_one_line_through_the_middle_show_a_tilt_along_it_and_not_across() =>
        Assert.Equal(LevelVerdict.Uneven, FloatLevel.Judge(Input((0, 13.6), (180, 14.5), (0, 13.5), (180, 14.4))).Verdict);

    /// <summary>A float 1 mm out at its far side looks level in two readings side by side.</summary>
    [Theory]
    [InlineData(0, 20, 180, 210)]
    [InlineData(0, 60, 180, 240)]
    public void Two_heights_side_by_side_tell_nothing_and_the_far_side_is_asked_for(double first, double second, double from, double to)
    {
        var result = FloatLevel.Judge(Input((first, 14), (second, 14.02)));
        Assert.Equal(LevelVerdict.CannotTell, result.Verdict);
        Assert.Null(result.MeanUncertaintyMm);
        Assert.InRange(result.NextAngleDeg!.Value, from, to);
    }

    /// <summary>0.05 mm of scatter at 0°, 20° and 40° is no ground for a bend.</summary>
    [Fact]
    public void Three_heights_close_together_order_no_bend()
    {
        var result = FloatLevel.Judge(Input((0, 14.05), (20, 14.0), (40, 14.05)));
        Assert.Equal((LevelVerdict.CannotTell, null), (result.Verdict, result.BendTowardNeedle));
        Assert.InRange(result.NextAngleDeg!.Value, 180, 240);
    }

    [Fact]
    public void One_more_height_where_it_was_asked_for_decides()
    {
        var open = FloatLevel.Judge(Input((0, 14.02), (120, 14.0)));
        Assert.Equal(LevelVerdict.Level, FloatLevel.Judge(Input((0, 14.02), (120, 14.0), (open.NextAngleDeg, 13.98))).Verdict);
    }

    /// <summary>Drawn floats, each height off by a normal error of the stated size: the stated give or take holds the truth in 95 of
    /// 100.</summary>
    [Theory]
    [InlineData(new double[] { 0, 120, 240 })]
    [InlineData(new double[] { 0, 90, 180, 270 })]
    [InlineData(new double[] { 0, 50, 130 })]
    [InlineData(new double[] { 0, 60, 120, 180, 240, 300 })]
    public void The_stated_uncertainties_hold_the_truth(double[] angles)
    {
        const int Draws = 4000;
        var random = new Random(20261127);
        var (mean, tilt, opposite) = (0, 0, 0);
        for (var draw = 0; draw < Draws; draw++)
        {
            var (height, a, b) = (13 + (2 * random.NextDouble()), 0.4 * (random.NextDouble() - 0.5), 0.4 * (random.NextDouble() - 0.5));
            var result = FloatLevel.Judge(
                Input([
                    .. angles.Select(angle =>
                        (
                            (double?)angle,
                            height
                                + (a * Math.Cos(angle * Math.PI / 180))
                                + (b * Math.Sin(angle * Math.PI / 180))
                                + (0.03 * MathNet.Numerics.Distributions.Normal.Sample(random, 0, 1))
                        )
                    ),
                ])
            );
            var uneven = 2 * Math.Sqrt((a * a) + (b * b));
            mean += Math.Abs(result.MeanHeightMm - height) <= result.MeanUncertaintyMm ? 1 : 0;
            tilt += Math.Abs(result.UnevennessMm - uneven) <= result.UnevennessUncertaintyMm ? 1 : 0;
            var good = Math.Abs(height - 14) <= 0.5 && uneven <= 0.4;
            opposite += result.Verdict != LevelVerdict.CannotTell && good != (result.Verdict == LevelVerdict.Level) ? 1 : 0;
        }

        Assert.True(mean >= 0.945 * Draws, $"mean {mean}");
        Assert.True(tilt >= 0.95 * Draws, $"tilt {tilt}");
        Assert.True(opposite <= 0.02 * Draws, $"opposite {opposite}");
    }

    /// <summary>Worked by hand: 15.2 − 14 = 1.2 high, × 8 ÷ 24 = 0.4 mm at the tab.</summary>
    [Fact]
    public void The_tab_bend_is_the_error_times_the_ratio_of_arms()
    {
        var far = FloatLevel.Judge(Input((0, 15.2), (180, 15.2)));
        Assert.Equal(1.96 * 0.03 / Math.Sqrt(2) * 8 / 24, far.TabBendUncertaintyMm!.Value, tolerance: 5e-6);
        Assert.Equal(LevelVerdict.TooHigh, far.Verdict);
        Assert.Equal(0.4, far.TabBendMm, tolerance: 5e-10);
        Assert.False(far.BendTowardNeedle);
        var near = FloatLevel.Judge(Input((0, 12.8), (180, 12.8)));
        Assert.Equal((LevelVerdict.TooLow, true), (near.Verdict, near.BendTowardNeedle));
        Assert.Equal(0.4, near.TabBendMm, tolerance: 5e-10);
    }

    /// <summary>By hand: three heights are good to 1.96 × 0.03 ÷ √3 = 0.034 mm in the middle.</summary>
    [Theory]
    [InlineData(14.46, LevelVerdict.Level)]
    [InlineData(13.54, LevelVerdict.Level)]
    [InlineData(14.5, LevelVerdict.CannotTell)]
    [InlineData(13.5, LevelVerdict.CannotTell)]
    [InlineData(14.54, LevelVerdict.TooHigh)]
    [InlineData(13.46, LevelVerdict.TooLow)]
    public void Near_the_limit_it_cannot_tell(double height, LevelVerdict verdict) =>
        Assert.Equal(verdict, FloatLevel.Judge(Input((null, height), (null, height), (null, height))).Verdict);

    [Fact]
    public void Angles_are_noted_at_every_height_or_at_none() =>
        Assert.Equal("points[1].angleDeg", Assert.Single(FloatLevel.Check(Input((0, 14), (null, 14)))).Field);

    [Fact]
    public void One_height_does_not_decide() => Assert.Equal(LevelVerdict.CannotTell, FloatLevel.Judge(Input((0, 14))).Verdict);

    [Fact]
    public void Turning_the_float_changes_neither_mean_nor_unevenness() =>
        Gen.Select(Gen.Double[13, 15], Gen.Double[13, 15], Gen.Double[13, 15], Gen.Double[0, 90])
            .Sample(
                (a, b, c, turn) =>
                {
                    var straight = FloatLevel.Judge(Input((0, a), (120, b), (240, c)));
                    var turned = FloatLevel.Judge(Input((turn, a), (120 + turn, b), (240 + turn, c)));
                    Assert.Equal(straight.MeanHeightMm, turned.MeanHeightMm, tolerance: 5e-7);
                    Assert.Equal(straight.UnevennessMm, turned.UnevennessMm, tolerance: 5e-7);
                }
            );

    [Fact]
    public void Bending_as_told_puts_the_height_right() =>
        Gen.Double[10, 18]
            .Sample(height =>
            {
                var result = FloatLevel.Judge(Input((null, height), (null, height), (null, height)));
                var moved = result.TabBendMm * 24 / 8;
                var after =
                    result.BendTowardNeedle is not { } toward ? height
                    : toward ? height + moved
                    : height - moved;
                Assert.True(
                    result.BendTowardNeedle is null
                        || FloatLevel.Judge(Input((null, after), (null, after), (null, after))).Verdict == LevelVerdict.Level
                );
            });

    [Theory]
    [InlineData(double.NaN)]
    [InlineData(-1)]
    [InlineData(101)]
    public void Impossible_heights_are_named(double height) =>
        Assert.Equal("points[1].heightMm", Assert.Single(FloatLevel.Check(Input((0, 14), (90, height)))).Field);
}
