using System.Globalization;
using BlueDawn.Core.Kits;
using CsCheck;

namespace BlueDawn.Core.Tests.Kits;

public class DateCodeTests
{
    private static DateCodePattern Pattern(string pattern, int first = 1990, int last = 2026) =>
        new("Ostrel", pattern, first, last, "invented");

    private static IReadOnlyList<MadeOn> Read(string code, string pattern, int first = 1990, int last = 2026)
    {
        var read = DateCode.Read(code, Pattern(pattern, first, last));
        Assert.Null(read.Problem);
        return read.Value!;
    }

    [Theory]
    [InlineData("0459", "DDDY", 2000, 2010, "2009-02-14", "2009-02-14")]
    [InlineData("19366", "YYDDD", 2000, 2029, null, null)] // 2019 has no 366th day
    [InlineData("20366", "YYDDD", 2000, 2029, "2020-12-31", "2020-12-31")]
    [InlineData("2053", "YYWW", 2000, 2029, "2020-12-28", "2021-01-03")] // ISO 8601: 2020 has 53 weeks
    [InlineData("2153", "YYWW", 2000, 2029, null, null)]
    [InlineData("B04", "AYY", 2000, 2029, "2004-02-01", "2004-02-29")]
    [InlineData("310400", "DDMMYY", 1995, 2026, null, null)]
    [InlineData("290200", "DDMMYY", 1995, 2026, "2000-02-29", "2000-02-29")]
    [InlineData("2006", "YYYY", 1990, 2026, "2006-01-01", "2006-12-31")]
    public void Codes_are_read_by_the_makers_pattern(string code, string pattern, int first, int last, string? from, string? to)
    {
        var read = DateCode.Read(code, Pattern(pattern, first, last));
        if (from is null)
        {
            Assert.NotNull(read.Problem);
            return;
        }

        var made = Assert.Single(read.Value!);
        Assert.Equal(
            (from, to),
            (made.From.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), made.To.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture))
        );
    }

    [Fact]
    public void One_digit_of_the_year_leaves_every_decade_open() =>
        Assert.Equal([1998, 2008, 2018], Read("8045", "YDDD", 1998).Select(made => made.From.Year));

    [Fact]
    public void Look_alikes_are_read_as_what_must_stand_there()
    {
        var made = Assert.Single(Read("O4S9", "DDDY", 2004, 2012));
        Assert.Equal((new DateOnly(2009, 2, 14), 2), (made.From, made.Misread));
        Assert.Equal(2, Assert.Single(Read("804", "AYY", 2000)).From.Month);
    }

    [Theory]
    [InlineData("04", "DDDY", "writes 4 characters")]
    [InlineData("X459", "DDDY", "“X” cannot stand there")]
    [InlineData("M04", "AYY", "“M” cannot stand there")]
    public void What_is_no_code_of_that_maker_says_why(string code, string pattern, string problem) =>
        Assert.Contains(problem, DateCode.Read(code, Pattern(pattern)).Problem, StringComparison.Ordinal);

    [Fact]
    public void Every_day_is_found_again() =>
        Gen.Int[0, 365 * 25]
            .Sample(days =>
            {
                var day = new DateOnly(2001, 1, 1).AddDays(days);
                var dayOfYear = $"{day.Year % 100:00}{day.DayOfYear:000}";
                var week = $"{ISOWeek.GetYear(day) % 100:00}{ISOWeek.GetWeekOfYear(day):00}";
                Assert.Equal(day, Assert.Single(Read(dayOfYear, "YYDDD", 2001, 2030)).From);
                Assert.InRange(day, Assert.Single(Read(week, "YYWW", 2000, 2030)).From, Assert.Single(Read(week, "YYWW", 2000, 2030)).To);
                Assert.Equal(day, Assert.Single(Read($"{day:ddMMyy}", "DDMMYY", 2001, 2030)).From);
            });

    [Theory]
    [InlineData("Y", true)]
    [InlineData("YDDD", true)]
    [InlineData("DDDY", true)]
    [InlineData("YYWW", true)]
    [InlineData("YYYYMM", true)]
    [InlineData("AYY", true)]
    [InlineData("DDMMYY", true)]
    [InlineData("YYYYMMDD", true)]
    [InlineData("", false)]
    [InlineData("WW", false)] // no year
    [InlineData("YYY", false)]
    [InlineData("YWWY", false)] // the year twice
    [InlineData("YYDD", false)] // a day of no month
    [InlineData("YYXX", false)]
    public void A_pattern_has_a_year_and_one_way_to_say_the_day(string pattern, bool right) =>
        Assert.Equal(right, DateCode.Problems([Pattern(pattern)]).Count == 0);

    [Fact]
    public void A_list_of_patterns_is_refused_at_its_boxes() =>
        Assert.Equal(
            ["patterns[1].maker", "patterns[1].years", "patterns[1].source"],
            DateCode.Problems([Pattern("YWW"), new(" ostrel ", "YWW", 2026, 1990, "")]).Select(problem => problem.Field)
        );
}
