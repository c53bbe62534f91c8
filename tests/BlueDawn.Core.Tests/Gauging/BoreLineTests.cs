using BlueDawn.Core.Gauging;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Gauging;

public class BoreLineTests
{
    private static readonly BoreLine Jet = new("gauging/idle-jet", "Jets", "Idle jet", new BoreLimits(0.33m, 0.015m, "Spec sheet X"), null);
    private static readonly BoreLine Row = new("gauging/emulsion-row-1", "Tube", "Row 1", new BoreLimits(0.60m, 0.02m, "Spec sheet X"), 4);
    private static readonly PinSet Pins = PinSet.Parse("0.30, 0.315, 0.34, #81").Value!;

    private static Judgement Judge(BoreLine line, params (string, string)[] values)
    {
        var read = line.Read(TypedReading.Of(values));
        Assert.Empty(read.Problems);
        return line.Judge(read.Reading, Pins);
    }

    [Fact]
    public void Cannot_tell_names_the_pin_and_offers_both_answers()
    {
        var judgement = Judge(Jet, ("go", "0.30"), ("noGo", "0.34"));
        Assert.Equal(Verdict.CannotTell, judgement.Verdict);
        Assert.Equal("Try the 0.315 mm pin.", judgement.DoNext.ToString());
        Assert.Equal(["in gauge", "restricted"], judgement.Answers.Select(answer => answer.Leads));
    }

    [Fact]
    public void A_quick_answer_is_a_whole_reading_that_can_be_recorded_as_it_is()
    {
        foreach (var answer in Judge(Jet, ("go", "0.30"), ("noGo", "0.34")).Answers)
        {
            var read = Jet.Read(new TypedReading(Core.Measures.UnitSystem.Inch, answer.Values, []));
            Assert.Empty(read.Problems);
            var verdict = Jet.Judge(read.Reading, Pins).Word;
            Assert.Equal(answer.Leads, verdict.ToLowerInvariant());
        }
    }

    /// <summary>Light through is not enough: varnish narrows a hole that still shows light. Common practice, no source.</summary>
    [Fact]
    public void What_needs_no_measuring_is_one_touch_while_nothing_is_read()
    {
        var answers = Jet.Judge(null, Pins).Answers;
        Assert.Equal(["Blocked, nothing goes", "Clear, not pinned"], answers.Select(answer => answer.Label));
        var judged = answers
            .Select(answer => Jet.Judge(Jet.Read(new TypedReading(UnitSystem.Metric, answer.Values, [])).Reading, Pins))
            .ToList();
        // Nothing passes a blocked jet, and Trace hears that, not that it is narrow; a clear one may be any size.
        Assert.Equal(
            [("blocked", "Blocked", Verdict.NotGood), ("clear", "Not pinned", Verdict.CannotTell)],
            judged.Select(judgement => (judgement.Finding, judgement.Word, judgement.Verdict))
        );
        Assert.Equal(
            ["nothing goes", "clear, not pinned"],
            answers.Select(answer => Jet.Describe(Jet.Read(new TypedReading(UnitSystem.Metric, answer.Values, [])).Reading!).ToString())
        );
    }

    /// <summary>A bore of nothing is blocked, and no slip of the point.</summary>
    [Theory]
    [InlineData("0")]
    [InlineData("0.00")]
    [InlineData("-0.0")]
    public void A_bore_of_nothing_is_blocked(string typed)
    {
        var reading = TypedReading.Of(("bore", typed));
        Assert.Empty(Slip.Find(Jet, reading));
        Assert.Equal("blocked", Jet.Judge(Jet.Read(reading).Reading, Pins).Finding);
        var row = TypedReading.Of(("bore", typed), ("openHoles", "0"));
        Assert.Equal("4 holes blocked", Row.Judge(Row.Read(row).Reading, Pins).Word);
    }

    /// <summary>Enter on the bench card leads on; it must not record that a jet is blocked.</summary>
    [Fact]
    public void What_is_next_offers_none_of_them()
    {
        var tray = Trays.TestTray.Untouched();
        var jet = tray.Book.Lines.First(line => line.Line is BoreLine);
        Assert.NotEmpty(jet.Judgement.Answers);
        Assert.Empty(NextStep.Of(jet).Answers);
    }

    [Fact]
    public void A_row_is_all_blocked_or_all_clear_by_one_touch()
    {
        var answers = Row.Judge(null, Pins).Answers;
        Assert.Equal(
            ["4 holes blocked", "Not pinned"],
            answers.Select(answer => Row.Judge(Row.Read(new TypedReading(UnitSystem.Metric, answer.Values, [])).Reading, Pins).Word)
        );
        Assert.Equal(
            "4 of 4 open, clear, not pinned",
            Row.Describe(Row.Read(new TypedReading(UnitSystem.Metric, answers[1].Values, [])).Reading!).ToString()
        );
    }

    [Fact]
    public void A_size_says_more_than_a_look_and_a_look_that_is_none_is_refused()
    {
        Assert.Equal("inGauge", Judge(Jet, ("seen", "blocked"), ("go", "#81"), ("noGo", "#80")).Finding);
        Assert.NotEmpty(Jet.Read(TypedReading.Of(("seen", "perhaps"))).Problems);
        // Half of the holes are neither all blocked nor all clear: they are counted.
        Assert.NotEqual("clear", Judge(Row, ("seen", "clear"), ("openHoles", "2")).Finding);
    }

    [Fact]
    public void Number_drills_count_as_pins()
    {
        var judgement = Judge(Jet, ("go", "#81"), ("noGo", "#80")); // 0.3302 and 0.3429 mm
        Assert.Equal("inGauge", judgement.Finding);
    }

    [Fact]
    public void Opened_up_says_by_how_much_and_what_to_do() =>
        Assert.Equal("At least 0.015 mm too wide: fit a new jet.", Judge(Jet, ("go", "0.36"), ("noGo", "0.38")).DoNext.ToString());

    [Fact]
    public void A_restricted_jet_names_a_strand_that_cannot_cut_it()
    {
        var judgement = Judge(Jet, ("noGo", "0.28"));
        Assert.Equal("restricted", judgement.Finding);
        Assert.Equal("Clear with a soft strand no thicker than AWG 29 (0.29 mm), then gauge again.", judgement.DoNext.ToString());
    }

    [Fact]
    public void A_blocked_hole_fails_the_row_whatever_the_pins_say()
    {
        Assert.Equal("blocked", Judge(Row, ("openHoles", "3"), ("go", "0.60"), ("noGo", "0.61")).Finding);
        Assert.Equal("2 holes blocked", Judge(Row, ("openHoles", "2"), ("go", "0.60")).Word);
        Assert.Equal("blocked", Judge(Row, ("openHoles", "0")).Finding);
        Assert.Equal("inGauge", Judge(Row, ("openHoles", "4"), ("go", "0.59"), ("noGo", "0.62")).Finding);
    }

    [Theory]
    [InlineData("go", "abc")]
    [InlineData("go", "-0.3")]
    [InlineData("go", "0.3 psi")]
    [InlineData("go", "#120")]
    [InlineData("noGo", "0")]
    public void Bad_input_names_its_field(string field, string text) =>
        Assert.Contains(Jet.Read(TypedReading.Of((field, text))).Problems, problem => problem.Field == field);

    [Fact]
    public void More_open_holes_than_the_row_has_are_refused() =>
        Assert.Contains(Row.Read(TypedReading.Of(("openHoles", "5"), ("go", "0.6"))).Problems, p => p.Field == "openHoles");

    [Fact]
    public void Half_a_hole_is_no_count() =>
        Assert.Contains(Row.Read(TypedReading.Of(("openHoles", "3.5"), ("go", "0.6"))).Problems, p => p.Field == "openHoles");

    [Fact]
    public void Swapped_pins_say_so_on_the_field_as_it_was_typed() =>
        Assert.Contains(Jet.Read(TypedReading.Of(("go", "0.4"), ("noGo", "0.3"))).Problems, p =>
            p.Field == "noGo" && p.Message.Contains("Swap", StringComparison.Ordinal)
        );
}
