using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Gauging;

/// <summary>The three schools on a jet that starves. Drill sizes: ASME B94.11M, typed here from the printed table: #80 is 0.0135
/// in.</summary>
public sealed class StepUpLineTests
{
    private const string Key = "gauging/idle-jet",
        Up = "gauging/idle-jet/step-up";
    private const double Drill80Mm = 0.0135 * 25.4;

    private static ShopDefaults Of(JetSchool school) => Sheets.Shop with { JetSchool = school };

    private static TestTray Bench(JetSchool school, params (string Line, (string, string)[] Typed)[] readings)
    {
        var tray = new TestTray(Sheets.Spec);
        tray.Context = tray.Context with { Shop = Of(school) };
        foreach (var (line, typed) in readings)
        {
            tray.Does(new ReadingNote(line, TypedReading.Of(typed)));
        }

        return tray;
    }

    private static TrayBook Tray(JetSchool school, params (string Line, (string, string)[] Typed)[] readings) =>
        Bench(school, readings).Book;

    private static JudgedLine On(TrayBook tray, string key) => Assert.Single(tray.Lines, line => line.Line.Key == key);

    private static readonly (string, (string, string)[]) Starves = (Key, [("go", "0.29"), ("noGo", "0.31")]);
    private static readonly (string, (string, string)[]) InGauge = (Key, [("go", "0.32"), ("noGo", "0.335")]);
    private static readonly (string, (string, string)[]) Opened = (Up, [("drill", "#80"), ("law", "lookedUp")]);

    [Fact]
    public void What_to_do_with_a_jet_that_starves_is_the_shops_school()
    {
        Assert.StartsWith(
            "Clear with a soft strand",
            On(Tray(JetSchool.ClearOnly, Starves), Key).Judgement.DoNext.Text,
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "Clear with a soft strand",
            On(Tray(JetSchool.OneStepUp, Starves), Key).Judgement.DoNext.Text,
            StringComparison.Ordinal
        );
        Assert.StartsWith("Fit a new jet", On(Tray(JetSchool.Renew, Starves), Key).Judgement.DoNext.Text, StringComparison.Ordinal);
        // Only the one school offers to cut, and the others refuse it.
        Assert.DoesNotContain(Tray(JetSchool.ClearOnly).Lines, line => line.Line.Key == Up);
        Assert.DoesNotContain(Tray(JetSchool.Renew).Lines, line => line.Line.Key == Up);
        Assert.False(On(Tray(JetSchool.OneStepUp), Up).IsOpen);
    }

    [Fact]
    public void One_step_says_its_area_its_mixture_and_its_caution_before_anybody_cuts()
    {
        var line = On(Tray(JetSchool.OneStepUp, InGauge), Up);
        // By hand: (0.3429 / 0.33)² = 1.0797; 14.7 / 1.0797 = 13.6.
        var more = 100 * ((Drill80Mm * Drill80Mm / (0.33 * 0.33)) - 1);
        Assert.Equal(more, Assert.IsType<StepUpLine>(line.Line).MorePercent, 9);
        Assert.Equal(8.0, line.Judgement.Figures.Single(figure => figure.Key == "areaMore").Quantity.Value);
        Assert.Contains(line.Judgement.Why, why => why.Quantities.Any(quantity => quantity.Value == 13.6));
        Assert.Equal("emission", line.Line.Caution?.Key);
    }

    [Theory]
    [InlineData("#79", "lookedUp")]
    [InlineData("0.33 mm", "lookedUp")]
    [InlineData("0.36 mm", "lookedUp")]
    [InlineData("#80", "")]
    [InlineData("", "lookedUp")]
    public void More_than_one_size_or_without_a_look_at_the_law_is_refused(string drill, string law)
    {
        var line = On(Tray(JetSchool.OneStepUp, InGauge), Up).Line;
        Assert.NotEmpty(line.Read(TypedReading.Of(("drill", drill), ("law", law))).Problems);
        Assert.NotEmpty(line.Read(TypedReading.Of(("drill", "#80"), ("law", "lookedUp"), ("jet", "new"))).Problems);
        Assert.Empty(line.Read(TypedReading.Of(("drill", "0.0135 in"), ("law", "lookedUp"))).Problems);
    }

    [Fact]
    public void Only_a_jet_in_gauge_is_opened()
    {
        var open = new ReadingNote(Up, TypedReading.Of(("drill", "#80"), ("law", "lookedUp")));
        Assert.Equal("drill", Assert.Single(Bench(JetSchool.OneStepUp).Refuses(open)!.Fields).Field);
        Assert.Equal("drill", Assert.Single(Bench(JetSchool.OneStepUp, Starves).Refuses(open)!.Fields).Field);
        Assert.Null(Bench(JetSchool.OneStepUp, InGauge).Refuses(open));
    }

    [Fact]
    public void What_was_cut_moves_the_window_asks_for_the_pins_again_and_stays_in_the_book()
    {
        var tray = Tray(JetSchool.OneStepUp, InGauge, Opened);
        var jet = On(tray, Key);
        Assert.Equal((Verdict.NotRead, true), (jet.Judgement.Verdict, jet.IsOpen));
        Assert.Equal(Drill80Mm - 0.015, jet.Line.Window!.Low!.Value, 9);
        var bench = Bench(JetSchool.OneStepUp, InGauge, Opened, (Key, [("go", "#80"), ("noGo", "0.355")]));
        Assert.Equal(Verdict.Good, On(bench.Book, Key).Judgement.Verdict);
        Assert.Contains(
            WatchList.Of(
                bench.Book.Lines,
                new Dictionary<string, Core.Parts.Fate>(),
                false,
                CarburetorFamily.FloatBowl,
                new HashSet<string>()
            ),
            point => point.Contains("opened one drill size on purpose", StringComparison.Ordinal)
        );
        // Neither corrected nor taken back, also when the shop's school is another by now.
        foreach (var school in Enum.GetValues<JetSchool>())
        {
            bench.Context = bench.Context with { Shop = Of(school) };
            var entry = On(bench.Book, Up).Standing!.EntryId;
            Assert.Equal("What was cut stays in the book.", bench.Refuses(new WithdrawalNote(), entry)?.Title);
            Assert.Equal(
                "What was cut stays in the book.",
                bench.Refuses(new ReadingNote(Up, TypedReading.Of(("jet", "new"))), entry)?.Title
            );
            Assert.Equal(Verdict.Good, On(bench.Book, Key).Judgement.Verdict);
        }
    }

    [Fact]
    public void A_new_jet_is_judged_by_the_sheet_again_and_the_cut_one_is_not_forgotten()
    {
        var tray = Tray(JetSchool.OneStepUp, InGauge, Opened, (Up, [("jet", "new")]), InGauge);
        Assert.Equal(0.315, On(tray, Key).Line.Window!.Low!.Value, 9);
        Assert.Equal(Verdict.Good, On(tray, Key).Judgement.Verdict);
        Assert.Equal(["openedOneStep", "newJet"], On(tray, Up).Readings.Select(reading => reading.Finding));
    }

    [Fact]
    public void The_shops_pins_stand_in_for_whoever_has_said_none()
    {
        var shop = Sheets.Shop with { PinSets = [new("bench 1", "#75-#80"), new("bench 2", "0.3-0.5 by 0.01")] };
        Assert.Equal(("#75-#80", "0.31", ""), (shop.PinsOf(" "), shop.PinsOf("0.31"), Sheets.Shop.PinsOf("")));
        string[] Wrong(params NamedPins[] sets) => [.. NamedPins.Read(sets).Problems.Select(problem => problem.Field)];
        Assert.Equal(["sets[0].name"], Wrong(new NamedPins("", "#80")));
        Assert.Equal(
            ["sets[1].name", "sets[2].pins", "sets[3].pins"],
            Wrong(new("a", "#80"), new(" A ", "#80"), new("b", "0.3-0.4"), new("c", ""))
        );
        Assert.Equal([new NamedPins("a", "#80")], NamedPins.Read([new(" a", "#80 "), new("", "")]).Sets);
    }
}
