using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using CsCheck;

namespace BlueDawn.Core.Tests.Trays;

public class LinesTests
{
    /// <summary>The window that is drawn and the words beside it, by hand from the sheet of these tests.</summary>
    [Theory]
    [InlineData("gauging/main-jet", 0.71, 0.73, "0.72 ± 0.01 mm")]
    [InlineData("gauging/idle-jet", 0.315, 0.345, "0.33 ± 0.015 mm")]
    [InlineData("gauging/emulsion-row-1", 0.58, 0.62, "4 holes, 0.6 ± 0.02 mm")]
    [InlineData("setting/float-mass", 5.9, 6.5, "6.2 ± 0.3 g dry")]
    [InlineData("setting/float-height", 13.5, 14.5, "14 ± 0.5 mm, even within 0.4 mm")]
    [InlineData("setting/hold-test", 46.5, null, "48 kPa for 10 s, drop up to 1.5 kPa")]
    [InlineData("proving/fuel-on", 4.0, null, "dry after 4 min")]
    [InlineData("proving/idle-speed", 1400.0, 1800.0, "1400 to 1800 rpm")]
    [InlineData("proving/governed-speed", 3200.0, 3600.0, "3200 to 3600 rpm")]
    public void A_line_draws_and_says_the_window_it_judges_by(string key, double? low, double? high, string target)
    {
        var line = Sheets.Lines.Single(line => line.Key == key);
        Assert.Equal((low, high), (Round(line.Window!.Low), Round(line.Window.High)));
        Assert.Equal(target, line.Target.ToString());
        static double? Round(double? value) => value is { } number ? Math.Round(number, 9) : null;
    }

    /// <summary>What the form calls optional can be left out, and nothing else can: the page goes by the one, the reading by the
    /// other.</summary>
    [Fact]
    public void What_a_form_asks_for_is_what_a_reading_needs()
    {
        var tray = new TestTray(Sheets.Spec);
        tray.Facts = tray.Facts with
        {
            Complaints = [new Complaint("hunts", "Hunts"), new Complaint("dies-after-minutes", "Dies after some minutes")],
        };
        var lines = tray.Book.Lines.Select(line => line.Line).Where(line => line.Form is { Groups.Count: 1, Rows: null }).ToList();
        Assert.True(lines.Count >= 5);
        Assert.All(lines, line =>
            Assert.Equal(
                line.Form.Groups[0].Fields.Where(field => !field.Optional).Select(field => field.Name).Order(),
                line.Read(TypedReading.Of()).Problems.Select(problem => problem.Field).Order()
            )
        );
    }

    [Fact]
    public void A_spec_sheet_gives_its_lines_in_bench_order()
    {
        Assert.Equal(Sheets.AllGood().Keys, Sheets.Lines.Where(line => !line.IsQuickTest).Select(line => line.Key));
        Assert.Equal(Sheets.Lines.Select(line => line.Station).Order(), Sheets.Lines.Select(line => line.Station));
    }

    [Fact]
    public void Good_readings_leave_nothing_open() =>
        Assert.All(TestTray.Judged(Sheets.AllGood()), line => Assert.False(line.IsOpen, line.Line.Key + ": " + line.Judgement.Word));

    [Fact]
    public void A_fixed_speed_machine_has_no_idle_line() =>
        Assert.DoesNotContain(Sheets.LinesOf(Sheets.Spec with { IdleSpeed = null }), line => line.Key == "proving/idle-speed");

    /// <summary>No needle, seat, float or bowl on a carburetor that stands on its tank: nothing there to hold-test. Common practice, no
    /// source.</summary>
    [Fact]
    public void A_suction_tank_carburetor_is_not_asked_for_what_it_has_not()
    {
        var spec = Sheets.Spec with { Family = CarburetorFamily.SuctionTank, Float = null };
        var lines = new SettingStation().Lines(
            new TestTray(spec, new CarburetorKind(CarburetorFamily.SuctionTank, null, null)).Facts,
            spec,
            Sheets.Shop
        );
        Assert.All(lines, line => Assert.IsType<LookLine>(line));
        Assert.DoesNotContain(lines, line => line.Part is "needle" or "seat" or "float" or "bowl");
        Assert.Contains(
            new SettingStation().Lines(
                new TestTray(spec, new CarburetorKind(CarburetorFamily.Diaphragm, null, null)).Facts,
                spec,
                Sheets.Shop
            ),
            line => line.Key == "setting/hold-test"
        );
    }

    [Fact]
    public void The_hold_test_goes_by_the_sheet_before_the_shop()
    {
        var own = Sheets
            .LinesOf(Sheets.Spec with { Hold = new HoldSpec(60, 20, 2, 2, 20, 1) })
            .Single(line => line.Key == "setting/hold-test");
        Assert.Equal("60 kPa for 20 s, drop up to 2 kPa", own.Target.ToString());
        Assert.Equal("48 kPa for 10 s, drop up to 1.5 kPa", Sheets.Lines.Single(line => line.Key == "setting/hold-test").Target.ToString());
    }

    [Fact]
    public void Every_place_in_a_sentence_has_its_number()
    {
        Assert.All(Sheets.LinesOfEveryFamily, line =>
            Assert.DoesNotMatch(@"\{\d\}", line.Judge(null, PinSet.Empty).DoNext.ToString() + line.Target)
        );
        foreach (var judged in TestTray.Judged(Sheets.AllGood()).Concat(TestTray.Judged(new Dictionary<string, TypedReading>())))
        {
            foreach (var sentence in judged.Judgement.Why.Append(judged.Judgement.DoNext).Append(judged.Line.Target))
            {
                Assert.DoesNotMatch(@"\{\d\}", sentence.ToString());
            }
        }
    }

    /// <summary>Wrong input of any kind comes back as problems that name a field, never as an exception.</summary>
    [Fact]
    public void No_typed_reading_makes_a_line_throw() =>
        Gen.Select(
                Gen.Int[0, 8],
                Gen.OneOf(
                    Gen.String[0, 12],
                    Gen.Double.Select(d => d.ToString("R")),
                    Gen.OneOf(Gen.Const("0.3"), Gen.Const("#70"), Gen.Const("-1"), Gen.Const(""), Gen.Const("14"), Gen.Const("48 kPa"))
                ).Array[6]
            )
            .Sample(
                (index, texts) =>
                {
                    var line = Sheets.Lines[index];
                    var names = line
                        .Form.Groups.SelectMany(group => group.Fields)
                        .Concat(line.Form.Rows?.Columns ?? [])
                        .Select(field => field.Name)
                        .Distinct()
                        .ToList();
                    var values = names.Zip(texts.Concat(texts)).ToDictionary(pair => pair.First, pair => pair.Second);
                    var read = line.Read(
                        new TypedReading(UnitSystem.Metric, values, [values, values.ToDictionary(v => v.Key, v => v.Value + "1")])
                    );
                    Assert.True(read.Reading is null == read.Problems.Count > 0);
                    Assert.All(read.Problems, problem => Assert.False(string.IsNullOrWhiteSpace(problem.Message)));
                    if (read.Reading is not null)
                    {
                        Assert.NotEqual(Verdict.NotRead, line.Judge(read.Reading, Core.Measures.PinSet.Empty).Verdict);
                    }
                }
            );

    [Fact]
    public void A_wrong_row_is_named_by_its_place()
    {
        var line = Sheets.Lines.Single(l => l.Key == "setting/hold-test");
        var read = line.Read(Sheets.Rows("pressure", "time", ("2", "48"), ("7", "x"), ("12", "48")));
        Assert.Equal("rows[1].pressure", Assert.Single(read.Problems).Field);
    }
}
