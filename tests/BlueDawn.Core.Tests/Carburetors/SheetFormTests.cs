using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Carburetors;

/// <summary>A sheet as it is typed: read by Core like every other box, in the units and the writing of whoever types.</summary>
public sealed class SheetFormTests
{
    private static TypedSheet Typed(
        CarburetorFamily family = CarburetorFamily.FloatBowl,
        UnitSystem units = UnitSystem.Metric,
        IReadOnlyList<TypedJet>? jets = null,
        params (string, string)[] numbers
    ) =>
        new(
            units,
            "z-410",
            "unknown",
            family,
            null,
            null,
            "Z 410, Z 411",
            "measured here",
            LeverDatum.GaugeLeg,
            numbers.ToDictionary(one => one.Item1, one => one.Item2),
            jets ?? [],
            []
        );

    /// <summary>The sheet of these tests, untouched: what its page sends when nobody has typed anything.</summary>
    private static TypedSheet Untouched(SpecSheet sheet) =>
        new(
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
            [.. sheet.EmulsionRows.Select(row => new TypedRow(row.Row, null, null, null, null))]
        );

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
        var whole = SheetForm.Read(
            Typed(numbers: [("float.heightMm", "14"), ("float.tabArmMm", "8"), ("float.measuringArmMm", "24")]),
            null
        );
        Assert.Empty(whole.Problems);
        Assert.Equal((0.5m, null, 0.3), (whole.Sheet.Float!.ToleranceMm, whole.Sheet.Float.DryMassG, whole.Sheet.Float.MassToleranceG));
    }

    [Fact]
    public void A_group_that_is_emptied_is_not_known_any_more_and_another_familys_is_not_kept()
    {
        var emptied = Untouched(Sheets.Spec) with
        {
            Numbers = new Dictionary<string, string> { ["idleSpeed.lowRpm"] = "", ["idleSpeed.highRpm"] = "" },
        };
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
        var read = SheetForm.Read(
            Untouched(Sheets.Spec) with
            {
                Units = UnitSystem.Metric,
                Numbers = new Dictionary<string, string>
                {
                    [box] = typed,
                    ["hold.pressureKPa"] = "48",
                    ["hold.windowS"] = "10",
                    ["hold.dropLimitKPa"] = box == "hold.dropLimitKPa" ? typed : "1.5",
                },
            },
            Sheets.Spec
        );
        Assert.Equal(box, Assert.Single(read.Problems).Field);
    }

    [Fact]
    public void Every_box_shows_what_the_sheet_says()
    {
        var numbers = SheetForm.Numbers(Sheets.Spec);
        Assert.Equal((14, 1400, 3600), (numbers["float.heightMm"], numbers["idleSpeed.lowRpm"], numbers["governedSpeed.highRpm"]));
        Assert.DoesNotContain("hold.pressureKPa", numbers.Keys);
        Assert.Equal(
            SheetForm.Groups.Sum(group => group.Boxes.Count),
            SheetForm.Groups.SelectMany(group => group.Boxes.Select(box => $"{group.At}.{box.Name}")).Distinct().Count()
        );
    }

    /// <summary>An inch-pound is 0.1129848 N·m (NIST SP 811, appendix B).</summary>
    [Theory]
    [InlineData("idle needle: 1 1/4 turns", 1.25, null)]
    [InlineData("Idle-needle: 1¼ turns, 2 N·m", 1.25, 2.0)]
    [InlineData("idle needle: ¾ turn", 0.75, null)]
    [InlineData("idle needle: 5/4 turns; 50 in-lb", 1.25, 5.64924)]
    [InlineData("idle needle: 1.5 turns, 2.5 Nm", 1.5, 2.5)]
    [InlineData("idle needle: 3", null, 3.0)]
    public void Screws_are_typed_as_they_are_said(string typed, double? turns, double? nm)
    {
        var read = SheetForm.Read(Typed() with { Screws = typed }, null);
        Assert.Empty(read.Problems);
        var screw = Assert.Single(read.Sheet.Screws!);
        Assert.Equal(("idle-needle", turns), (screw.Part, screw.TurnsOut));
        Assert.Equal(nm ?? 0, screw.TorqueNm ?? 0, 1e-5);
    }

    [Theory]
    [InlineData("idle needle 1 1/4 turns")]
    [InlineData("idle needle:")]
    [InlineData("idle needle: tight")]
    [InlineData("idle needle: 1/0 turns")]
    [InlineData("idle needle: 1 turn\nidle-needle: 2 turns")]
    public void A_line_about_a_screw_that_cannot_be_read_is_named(string typed) =>
        Assert.Equal("screws", Assert.Single(SheetForm.Read(Typed() with { Screws = typed }, null).Problems).Field);

    [Fact]
    public void What_moves_a_choke_what_a_float_shuts_and_what_it_is_known_by_have_boxes()
    {
        var read = SheetForm.Read(
            Typed(
                numbers:
                [
                    ("float.heightMm", "14"),
                    ("float.tabArmMm", "8"),
                    ("float.measuringArmMm", "24"),
                    ("float.body.volumeML", "14"),
                    ("float.body.armMm", "26"),
                    ("float.body.seatBoreMm", "1.8"),
                    ("float.body.headMm", "300"),
                    ("opens.strip.lengthMm", "400"),
                    ("opens.strip.thicknessMm", "0.6"),
                    ("opens.strip.expansionDifferencePerK", "18"),
                    ("traits.throatMm", "18"),
                    ("traits.boltSpacingMm", "42"),
                    ("traits.mixtureNeedles", "1"),
                    ("feeds.sweptML", "170"),
                    ("feeds.fullRpm", "3600"),
                ]
            ) with
            {
                Choke = ChokeKind.Heat,
                Element = HeatElement.Bimetal,
                Plates = "K170/0414, K170/0415",
                FloatShape = "twin",
                BodyShape = FloatShape.Lying,
            },
            null
        );
        Assert.Empty(read.Problems);
        var sheet = read.Sheet;
        Assert.Equal(new FloatBody(14, 26, 1.8, 300, FloatShape.Lying), sheet.Float!.Body);
        Assert.Equal((HeatElement.Bimetal, new BimetalStrip(400, 0.6, 18e-6)), (sheet.Opens!.Element!.Value, sheet.Opens.Strip!));
        Assert.Equal(new CarburetorTraits(18, 42, 1, "twin"), sheet.Traits);
        Assert.Equal((new EngineSize(170, 3600), 2), (sheet.Feeds!, sheet.Plates!.Count));
        // Every number of it, once more through its boxes, is the same sheet.
        var again = SheetForm.Read(
            Typed(
                numbers:
                [
                    .. SheetForm
                        .Numbers(sheet)
                        .Select(one => (one.Key, one.Value.ToString("R", System.Globalization.CultureInfo.InvariantCulture))),
                ]
            ) with
            {
                Choke = ChokeKind.Heat,
                Screws = "",
            },
            sheet
        );
        Assert.Equivalent(sheet with { Issue = 2 }, again.Sheet, strict: true);
        // What a float shuts is nothing without the float, and a spring is a diaphragm's.
        Assert.Equal(
            "float.heightMm",
            Assert
                .Single(
                    SheetForm
                        .Read(
                            Typed(
                                numbers:
                                [
                                    ("float.body.volumeML", "14"),
                                    ("float.body.armMm", "26"),
                                    ("float.body.seatBoreMm", "1.8"),
                                    ("float.body.headMm", "300"),
                                ]
                            ),
                            null
                        )
                        .Problems
                )
                .Field
        );
        Assert.Null(SheetForm.Read(Typed(numbers: ("spring.rateNPerMm", "2")), null).Sheet.Spring);
        Assert.Contains(SheetForm.Read(Typed(CarburetorFamily.Diaphragm, numbers: ("spring.rateNPerMm", "2")), null).Problems, problem =>
            problem.Field == "spring.preloadMm"
        );
    }
}
