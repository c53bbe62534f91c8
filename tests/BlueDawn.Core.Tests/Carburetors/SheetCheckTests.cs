using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Carburetors;

/// <summary>A sheet may know next to nothing; what it says has to be possible.</summary>
public sealed class SheetCheckTests
{
    private static readonly SpecSheet Least = new(
        "Z-410",
        "unknown",
        CarburetorFamily.FloatBowl,
        1,
        [],
        [],
        [],
        null,
        null,
        null,
        null,
        [],
        "measured here"
    );

    [Fact]
    public void A_sheet_that_knows_only_what_it_is_can_be_put_on_file_and_asks_for_what_its_family_always_asks()
    {
        foreach (var family in Enum.GetValues<CarburetorFamily>())
        {
            var sheet = Least with { Family = family };
            Assert.Empty(SheetCheck.Problems(sheet));
            var lines = Sheets.LinesOf(sheet);
            Assert.NotEmpty(lines);
            // No line has a limit that nobody gave: what is asked for is looked at, held or watched.
            Assert.All(lines.Where(line => line.Station == Station.Gauging), line => Assert.Null(line.Limits));
            Assert.All(lines, line => Assert.Equal(Verdict.NotRead, line.Judge(null, PinSet.Empty).Verdict));
        }
    }

    [Fact]
    public void The_sheets_of_these_tests_can_be_put_on_file() => Assert.Empty(SheetCheck.Problems(Sheets.Spec));

    public static TheoryData<string, SpecSheet> Wrong =>
        new()
        {
            { "code", Least with { Code = "z 410" } },
            { "maker", Least with { Maker = " " } },
            { "source", Least with { Source = "" } },
            { "stampedNumbers", Least with { StampedNumbers = ["4107", " "] } },
            { "jets[0].boreMm", Least with { Jets = [new BoreSpec("main-jet", "Main jet", 72m, 0.01m)] } }, // hundredths for millimetres
            {
                "jets",
                Least with
                {
                    Jets = [new BoreSpec("main-jet", "Main jet", 0.72m, 0.01m), new BoreSpec("main-jet", "Another", 0.6m, 0.01m)],
                }
            },
            { "emulsionRows", Least with { EmulsionRows = [new EmulsionRowSpec(2, 4, 0.6m, 0.02m, 18)] } },
            { "emulsionRows[0].holes", Least with { EmulsionRows = [new EmulsionRowSpec(1, 0, 0.6m, 0.02m, 18)] } },
            { "float", Least with { Family = CarburetorFamily.Diaphragm, Float = Sheets.Spec.Float } },
            { "float.heightMm", Least with { Float = Sheets.Spec.Float! with { HeightMm = 0.55m } } }, // inches for millimetres
            { "float.body.seatBoreMm", Least with { Float = Sheets.Spec.Float! with { Body = new FloatBody(14, 26, 0, 300) } } },
            { "hold.dropLimitKPa", Least with { Hold = new HoldSpec(48, 10, 60, 2, 20, 1) } },
            { "governedSpeed.highRpm", Least with { GovernedSpeed = new SpeedSpec(3600, 3200) } },
            { "idleSpeed.highRpm", Least with { IdleSpeed = new SpeedSpec(3200, 3600), GovernedSpeed = new SpeedSpec(2800, 3000) } },
            { "popOff.reseatKPa", Least with { Family = CarburetorFamily.Diaphragm, PopOff = new PopOffSpec(85, 135, 90) } },
            {
                "lever.heightMm",
                Least with
                {
                    Family = CarburetorFamily.Diaphragm,
                    Lever = new LeverSpec(LeverDatum.ChamberFloor, 45, 0.15m),
                }
            },
            { "opens.opensHighS", Least with { Opens = new ChokeLimits(OpensLowS: 60, OpensHighS: 40) } },
            { "opens.fullC", Least with { Opens = new ChokeLimits(BeginsC: 70, FullC: 60) } },
            { "screws[0].torqueNm", Least with { Screws = [new ScrewSpec("bowl-nut", null, 400)] } },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_cannot_be_is_said_at_its_box(string field, SpecSheet sheet) =>
        Assert.Equal(field, Assert.Single(SheetCheck.Problems(sheet)).Field);

    [Fact]
    public void A_number_that_is_none_is_never_on_a_sheet()
    {
        foreach (var number in new[] { double.NaN, double.PositiveInfinity })
        {
            Assert.NotEmpty(SheetCheck.Problems(Least with { GovernedSpeed = new SpeedSpec(number, 3600) }));
        }
    }
}
