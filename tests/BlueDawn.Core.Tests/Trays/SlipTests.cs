using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>Numbers that are likelier a slip than a reading are held, with the likely meaning beside them.</summary>
public class SlipTests
{
    private static GaugeLine Line(string key) => Sheets.Lines.Single(line => line.Key == key);

    private static TypedReading Typed(UnitSystem units, string field, string text) =>
        new(units, new Dictionary<string, string> { [field] = text }, []);

    /// <summary>The sheet says 0.72 mm for the main jet, 0.33 mm for the idle jet, 6.2 g for the float, 3400 rpm governed.</summary>
    [Theory]
    [InlineData("gauging/main-jet", "go", UnitSystem.Inch, "0.80", "0.80 mm")]
    [InlineData("gauging/idle-jet", "bore", UnitSystem.Metric, "3.0", "0.3")]
    [InlineData("gauging/main-jet", "go", UnitSystem.Metric, ".028", ".028 in")]
    [InlineData("gauging/main-jet", "noGo", UnitSystem.Metric, "28", "28 thou")]
    [InlineData("gauging/main-jet", "go", UnitSystem.Metric, "72", "0.72")]
    [InlineData("setting/float-mass", "mass", UnitSystem.Inch, "6.2", "6.2 g")]
    [InlineData("setting/float-mass", "mass", UnitSystem.Metric, "62", "6.2")]
    [InlineData("proving/governed-speed", "speed", UnitSystem.Metric, "340", "3400")]
    public void What_was_likely_meant_is_named(string line, string field, UnitSystem units, string text, string likely)
    {
        var slip = Assert.Single(Slip.Find(Line(line), Typed(units, field, text)));
        Assert.Equal((field, text, likely), (slip.Field, slip.Typed, slip.Likely));
    }

    /// <summary>Another unit was meant, or none fits what was typed with one: a fraction of an inch, a point before a unit. 1/32 in is
    /// 0.79375 mm, 120 psi is 827 kPa, 15 psi 103 kPa (1 psi = 6.894757 kPa).</summary>
    [Theory]
    [InlineData("gauging/main-jet", "go", UnitSystem.Metric, "1/32", "1/32 in")]
    [InlineData("gauging/main-jet", "go", UnitSystem.Metric, ".72 in", ".72 mm")]
    [InlineData("gauging/main-jet", "go", UnitSystem.Metric, "7.2 mm", "0.72 mm")]
    [InlineData("faults/compression", "pressure", UnitSystem.Metric, "120", "120 psi")]
    [InlineData("setting/seat-bore", "bore", UnitSystem.Metric, "18", "1.8")]
    public void Another_unit_was_meant(string line, string field, UnitSystem units, string text, string likely)
    {
        var of = Sheets.LinesOfEveryFamily.First(one =>
            one.Key == line && one.Form.Groups.Any(group => group.Fields.Any(box => box.Name == field))
        );
        Assert.Equal(likely, Assert.Single(Slip.Find(of, Typed(units, field, text))).Likely);
    }

    [Fact]
    public void A_pop_off_in_psi_is_asked_about_in_its_row()
    {
        var line = Sheets.LinesOfEveryFamily.First(one => one.Key == "setting/pop-off");
        var slip = Assert.Single(Slip.Find(line, Sheets.Rows("opened", "shut", ("60", "15"))));
        Assert.Equal(("rows[0].opened", "15 psi"), (slip.Field, slip.Likely));
    }

    /// <summary>Boxes of length, pressure, mass and speed that nothing says a value of, each with its reason.</summary>
    private static readonly Dictionary<string, string> NothingToBeAbout = new()
    {
        ["proving/idle-speed swing"] = "a steady engine swings by nothing, a hunting one by anything",
        ["proving/governed-speed swing"] = "likewise",
    };

    /// <summary>Every number of every line of every family that a sheet, the trade or the line itself says a value of is asked about when
    /// its point is three places off, unless it is refused. Times, counts, angles, temperatures and volumes have no such value: they are as
    /// long, as many and as warm as they are.</summary>
    [Fact]
    public void No_line_takes_a_number_with_its_point_off_without_a_question()
    {
        var silent = new SortedSet<string>();
        foreach (var line in Sheets.LinesOfEveryFamily)
        {
            foreach (var box in line.Form.Groups.SelectMany(group => group.Fields).Concat(line.Form.Rows?.Columns ?? []))
            {
                if (
                    box.Kind == FieldKind.Choice
                    || box.Detail
                    || box.Dimension is not (Dimension.Length or Dimension.Pressure or Dimension.Mass or Dimension.Speed)
                )
                {
                    continue;
                }

                var about = line.ExpectedIn(box.Name) is { Value: > 0 } expected ? expected.Value : 1;
                var typed = Typed(
                    UnitSystem.Metric,
                    box.Name,
                    (about * 1000).ToString("0.###", System.Globalization.CultureInfo.InvariantCulture)
                );
                var asked = Slip.Find(line, typed).Count > 0;
                var refused = line.Read(typed).Problems.Any(problem => problem.Field == box.Name && problem.Message != MeasureEntry.Empty);
                if (!asked && !refused && !NothingToBeAbout.ContainsKey($"{line.Key} {box.Name}"))
                {
                    silent.Add($"{line.Key} {box.Name}");
                }
            }
        }

        Assert.Empty(silent);
    }

    [Theory]
    [InlineData("gauging/main-jet", "go", "0.40")]
    [InlineData("gauging/main-jet", "go", "1.05")]
    [InlineData("setting/float-mass", "mass", "13")]
    [InlineData("proving/idle-speed", "speed", "900")]
    [InlineData("gauging/main-jet", "go", "wide")]
    public void What_a_worn_or_dirty_part_can_be_is_not_asked_about(string line, string field, string text) =>
        Assert.Empty(Slip.Find(Line(line), Typed(UnitSystem.Metric, field, text)));

    /// <summary>A bare mass typed by someone who reads in inches is ounces, not grams: 0.22 oz is the float's 6.2 g.</summary>
    [Fact]
    public void A_bare_mass_of_an_inch_reader_is_in_ounces() =>
        Assert.Empty(Slip.Find(Line("setting/float-mass"), Typed(UnitSystem.Inch, "mass", "0.22")));

    /// <summary>1 oz (avoirdupois) is 28.349523125 g exactly: a bare 0.25 of an inch reader is 7.087 g, and of a metric reader a quarter
    /// of a gram.</summary>
    [Theory]
    [InlineData(UnitSystem.Inch, 7.08738078125)]
    [InlineData(UnitSystem.Metric, 0.25)]
    public void A_bare_mass_is_read_in_the_units_of_who_typed_it(UnitSystem units, double grams) =>
        Assert.Equal(
            grams,
            ((Core.Setting.FloatMassReading)Line("setting/float-mass").Read(Typed(units, "mass", "0.25")).Reading!).MassG,
            9
        );

    /// <summary>The step that was typed decides, not the sheet's: on a gauge of 5 kPa a steady 48 proves nothing of a limit of
    /// 1.5.</summary>
    [Fact]
    public void The_gauge_step_that_was_typed_is_the_one_that_counts()
    {
        var line = Line("setting/hold-test");
        var steady = Sheets.Rows("pressure", "time", ("2", "50"), ("7", "50"), ("12", "50"));
        Assert.Equal("held", line.Judge(line.Read(steady).Reading, PinSet.Empty).Finding);
        var coarse = steady with { Values = new Dictionary<string, string> { ["resolution"] = "5" } };
        Assert.Equal(Verdict.CannotTell, line.Judge(line.Read(coarse).Reading, PinSet.Empty).Verdict);
    }

    [Fact]
    public void Every_row_of_a_table_is_looked_at()
    {
        var typed = Sheets.Rows("height", "angle", ("0", "14.1"), ("120", "1.41"), ("240", "14.0"));
        var slip = Assert.Single(Slip.Find(Line("setting/float-height"), typed));
        Assert.Equal(("rows[1].height", "14.1"), (slip.Field, slip.Likely));
    }

    [Fact]
    public void Heights_with_and_without_an_angle_are_refused_together_and_old_ones_are_still_judged()
    {
        var line = Line("setting/float-height");
        var mixed = Sheets.Rows("height", "angle", ("0", "14.1"), ("", "14.0"), ("240", "14.1"));
        Assert.Equal("rows[1].angle", Assert.Single(line.Read(mixed).Problems).Field);
        var old = new Core.Setting.FloatHeightReading([new(14, 0), new(14, null), new(14, 240)]);
        Assert.Equal("level", line.Judge(old, PinSet.Empty).Finding);
    }

    [Fact]
    public void A_slip_is_refused_until_it_is_said_to_be_really_so()
    {
        var far = new ReadingNote("gauging/idle-jet", TypedReading.Of(("bore", "3.0")));
        var refused = Assert.Single(TestTray.Untouched().Refuses(far)!.Fields);
        Assert.Equal("bore", refused.Field);
        Assert.Contains("It should be about 0.33 mm", refused.Message, StringComparison.Ordinal);
        Assert.Null(TestTray.Untouched().Refuses(far with { Sure = true }));
    }
}
