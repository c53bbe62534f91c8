using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Carburetors;

/// <summary>A sheet as it is typed: read by Core like every other box, in the units and the writing of whoever types.</summary>
public sealed class SheetFormTests
{
    private static TypedSheet Typed(
        CarburetorFamily family = CarburetorFamily.FloatBowl, UnitSystem units = UnitSystem.Metric, IReadOnlyList<TypedJet>? jets = null, params (string, string)[] numbers) =>
        new(units, "z-410", "unknown", family, null, null, "Z 410, Z 411", "measured here", LeverDatum.GaugeLeg, numbers.ToDictionary(one => one.Item1, one => one.Item2), jets ?? [], []);

    /// <summary>The sheet of these tests, untouched: what its page sends when nobody has typed anything.</summary>
    private static TypedSheet Untouched(SpecSheet sheet) => new(
        UnitSystem.Inch,
        sheet.Code,
        sheet.Maker,
        sheet.Family,
        sheet.Engine,
        sheet.Choke,
        string.Join(", ", sheet.StampedNumbers),
        sheet.Source,
        sheet.Lever?.Datum ?? LeverDatum.GaugeLeg,
        new Dictionary<string, string>(),
        [.. sheet.Jets.Select(jet => new TypedJet(jet.Key, null, null, null))],
        [.. sheet.EmulsionRows.Select(row => new TypedRow(row.Row, null, null, null, null))]);

    [Fact]
    public void What_nobody_touched_stays_as_exact_as_it_was()
    {
        var sheet = Sheets.Spec with
        {
            Opens = new ChokeLimits(20, 60, HeatElement.Bimetal, 33.3, 71.7, 2.1, new BimetalStrip(400, 0.6, 18e-6)),
            Choke = ChokeKind.Heat,
            Screws = [new ScrewSpec("idle-needle", 1.25)],
        };
        var read = SheetForm.Read(Untouched(sheet), sheet);
        Assert.Empty(read.Problems);
        Assert.Equivalent(sheet with { Issue = sheet.Issue + 1 }, read.Sheet, strict: true);
    }

    [Theory]
    [InlineData(".0283 in", 0.71882)]
    [InlineData("28.3 thou", 0.71882)]
    [InlineData("#70", 0.7112)] // 0.0280 in: ASME B94.11M, number drills
    [InlineData("0,72", 0.72)]
    public void A_bore_is_typed_as_every_size_is(string typed, double mm)
    {
        var read = SheetForm.Read(Typed(jets: [new TypedJet(null, "Main jet", typed, "")]), null);
        Assert.Empty(read.Problems);
        var jet = Assert.Single(read.Sheet.Jets);
        Assert.Equal(mm, (double)jet.BoreMm, 1e-6);
        Assert.Equal(("main-jet", "Z-410"), (jet.Key, read.Sheet.Code));
        Assert.Equal(mm - 0.015, read.Windows()["jets[0]"].Low!.Value, 1e-6);
        Assert.Equal(mm + 0.015, read.Windows()["jets[0]"].High!.Value, 1e-6);
        Assert.Equal(["Z 410", "Z 411"], read.Sheet.StampedNumbers);
    }

    [Fact]
    public void Numbers_that_go_together_come_whole_or_not_at_all_and_what_is_usual_stands_in()
    {
        Assert.Null(SheetForm.Read(Typed(), null).Sheet.Float);
        var half = SheetForm.Read(Typed(numbers: ("float.heightMm", "14")), null);
        Assert.Equal(["float.tabArmMm", "float.measuringArmMm"], half.Problems.Select(problem => problem.Field));
        var whole = SheetForm.Read(Typed(numbers: [("float.heightMm", "14"), ("float.tabArmMm", "8"), ("float.measuringArmMm", "24")]), null);
        Assert.Empty(whole.Problems);
        Assert.Equal((0.5m, null, 0.3), (whole.Sheet.Float!.ToleranceMm, whole.Sheet.Float.DryMassG, whole.Sheet.Float.MassToleranceG));
    }

    [Fact]
    public void A_group_that_is_emptied_is_not_known_any_more_and_another_familys_is_not_kept()
    {
        var emptied = Untouched(Sheets.Spec) with { Numbers = new Dictionary<string, string> { ["idleSpeed.lowRpm"] = "", ["idleSpeed.highRpm"] = "" } };
        Assert.Null(SheetForm.Read(emptied, Sheets.Spec).Sheet.IdleSpeed);
        Assert.NotNull(SheetForm.Read(emptied, Sheets.Spec).Sheet.GovernedSpeed);
        var diaphragm = SheetForm.Read(Untouched(Sheets.Spec) with { Family = CarburetorFamily.Diaphragm, Rows = [] }, Sheets.Spec);
        Assert.Null(diaphragm.Sheet.Float);
        Assert.Empty(diaphragm.Problems);
    }

    [Theory]
    [InlineData("float.heightMm", "tall")]
    [InlineData("float.heightMm", "0.55")] // inches for millimetres
    [InlineData("hold.dropLimitKPa", "60")]
    public void What_cannot_be_read_or_cannot_be_is_said_once_at_its_box(string box, string typed)
    {
        var read = SheetForm.Read(Untouched(Sheets.Spec) with
        {
            Units = UnitSystem.Metric,
            Numbers = new Dictionary<string, string> { [box] = typed, ["hold.pressureKPa"] = "48", ["hold.windowS"] = "10", ["hold.dropLimitKPa"] = box == "hold.dropLimitKPa" ? typed : "1.5" },
        }, Sheets.Spec);
        Assert.Equal(box, Assert.Single(read.Problems).Field);
    }

    [Fact]
    public void Every_box_shows_what_the_sheet_says()
    {
        var numbers = SheetForm.Numbers(Sheets.Spec);
        Assert.Equal((14, 1400, 3600), (numbers["float.heightMm"], numbers["idleSpeed.lowRpm"], numbers["governedSpeed.highRpm"]));
        Assert.DoesNotContain("hold.pressureKPa", numbers.Keys);
        Assert.Equal(SheetForm.Groups.Sum(group => group.Boxes.Count), SheetForm.Groups.SelectMany(group => group.Boxes.Select(box => $"{group.At}.{box.Name}")).Distinct().Count());
    }
}
