using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Kits;

public class IdentificationTests
{
    private static SpecSheet Sheet(string code, CarburetorFamily family, decimal throat, decimal bolts, int needles, string shape) =>
        Sheets.Spec with
        {
            Code = code,
            Family = family,
            Traits = new CarburetorTraits(throat, bolts, needles, shape),
        };

    private static readonly SpecSheet[] All =
    [
        Sheet("A", CarburetorFamily.FloatBowl, 18, 48, 1, "round"),
        Sheet("B", CarburetorFamily.FloatBowl, 21, 48, 1, "round"),
        Sheet("C", CarburetorFamily.FloatBowl, 21, 54, 2, "horseshoe"),
        Sheet("D", CarburetorFamily.Diaphragm, 11, 31, 2, "none"),
    ];

    [Fact]
    public void With_nothing_answered_every_sheet_is_as_likely_and_the_question_that_halves_them_best_comes_first()
    {
        var found = Identification.Of(All, []);
        Assert.All(found.Candidates, candidate => Assert.Equal(0.25, candidate.Share, 6));
        var best = found.Questions.MaxBy(question => question.Bits)!;
        Assert.Equal(best.Trait, found.Next);
        // Three different answers over four sheets, two of them shared: 1.5 bits and no more, less what a wrong reading blurs.
        Assert.InRange(best.Bits, 1.2, 1.5);
        Assert.All(found.Questions, question => Assert.InRange(question.Bits, 0, 2));
    }

    [Fact]
    public void Each_answer_narrows_the_list()
    {
        var one = Identification.Of(All, [new(Trait.BoltSpacing, "48.2")]);
        Assert.Equal(["A", "B"], one.Candidates.Take(2).Select(candidate => candidate.SpecCode).Order());
        Assert.Equal(Trait.Throat, one.Next);
        var two = Identification.Of(All, [new(Trait.BoltSpacing, "48.2"), new(Trait.Throat, "20.9")]);
        Assert.Equal("B", two.Candidates[0].SpecCode);
        Assert.True(two.Candidates[0].Share > 0.9);
        Assert.Null(two.Next);
    }

    /// <summary>
    /// Bayes by hand. Needles: A and B agree, C and D miss and keep 0.02 (own judgement): 1 ÷ 2.04 each. With the bolts at 48.3,
    /// half the tolerance of 0.6 mm off, A and B weigh e^(−0.25); C and D are far off and keep 0.02 once more.
    /// </summary>
    [Fact]
    public void Shares_are_those_of_Bayes()
    {
        var one = Identification
            .Of(All, [new(Trait.MixtureNeedles, "1")])
            .Candidates.ToDictionary(candidate => candidate.SpecCode, candidate => candidate.Share);
        Assert.Equal(
            (0.490196, 0.490196, 0.009804),
            (Math.Round(one["A"], 6), Math.Round(one["B"], 6), Math.Round(1 - one["A"] - one["B"], 6) / 2),
            Within(1e-6)
        );
        var two = Identification
            .Of(All, [new(Trait.MixtureNeedles, "1"), new(Trait.BoltSpacing, "48.3")])
            .Candidates.ToDictionary(candidate => candidate.SpecCode, candidate => candidate.Share);
        // 0.778801 each against 0.0004 each.
        Assert.Equal(0.499743, two["A"], 6);
    }

    private static EqualityComparer<(double A, double B, double C)> Within(double share) =>
        EqualityComparer<(double A, double B, double C)>.Create(
            (one, other) => Math.Abs(one.A - other.A) < share && Math.Abs(one.B - other.B) < share && Math.Abs(one.C - other.C) < share
        );

    [Fact]
    public void One_wrong_measure_does_not_throw_the_right_sheet_out()
    {
        var found = Identification.Of(
            All,
            [new(Trait.Family, "floatBowl"), new(Trait.BoltSpacing, "54"), new(Trait.MixtureNeedles, "2"), new(Trait.Throat, "18")]
        );
        Assert.Equal("C", found.Candidates[0].SpecCode);
        Assert.Equal("throat 21 mm, not 18 mm", Assert.Single(found.Candidates[0].Differs).ToString());
    }

    /// <summary>The tolerance of the bolts is 0.6 mm: just that far off still agrees, a hair more does not.</summary>
    [Theory]
    [InlineData("48.6", true)]
    [InlineData("48.61", false)]
    public void A_measure_agrees_up_to_its_tolerance(string bolts, bool agrees)
    {
        var found = Identification.Of([All[0]], [new(Trait.BoltSpacing, bolts)]).Candidates[0];
        Assert.Equal((agrees ? 1 : 0, agrees ? 0 : 1), (found.Agrees.Count, found.Differs.Count));
    }

    [Fact]
    public void A_second_answer_to_a_question_counts_alone() =>
        Assert.Equal("C", Identification.Of(All, [new(Trait.BoltSpacing, "31"), new(Trait.BoltSpacing, "54")]).Candidates[0].SpecCode);

    [Fact]
    public void Sheets_without_traits_stay_possible_but_behind()
    {
        var found = Identification.Of(
            [.. All, Sheets.Spec with { Code = "E", Traits = null }],
            [new(Trait.Throat, "18"), new(Trait.BoltSpacing, "48")]
        );
        Assert.Equal(["A", "E"], found.Candidates.Take(2).Select(candidate => candidate.SpecCode));
    }

    [Theory]
    [InlineData(Trait.BoltSpacing, "1.9 in", UnitSystem.Metric, "48.26")]
    [InlineData(Trait.BoltSpacing, "1.9", UnitSystem.Inch, "48.26")]
    [InlineData(Trait.MixtureNeedles, "2", UnitSystem.Metric, "2")]
    [InlineData(Trait.Family, "floatbowl", UnitSystem.Metric, "FloatBowl")]
    public void Answers_are_read(Trait trait, string text, UnitSystem units, string value) =>
        Assert.Equal(value, Identification.ReadAnswer(trait, text, units, All).Value);

    [Theory]
    [InlineData(Trait.BoltSpacing, "wide")]
    [InlineData(Trait.BoltSpacing, "-3")]
    [InlineData(Trait.FloatShape, "square")]
    public void What_is_no_answer_says_so(Trait trait, string text) =>
        Assert.NotNull(Identification.ReadAnswer(trait, text, UnitSystem.Metric, All).Problem);
}
