using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Shop;

/// <summary>When the shop is open, as a person writes it. Days of the week are the calendar's: 2026-11-28 is a Saturday (ISO 8601 week
/// 48).</summary>
public class OpenDaysTests
{
    [Theory]
    [InlineData("Mon-Fri 8-17", "Mon-Fri 8:00-17:00")]
    [InlineData("monday – friday 8.30-17.00; sat 9:00-12:30", "Mon-Fri 8:30-17:00, Sat 9:00-12:30")]
    [InlineData("Sat 9-12, Mon 8-12, Wed 8-12", "Mon 8:00-12:00, Wed 8:00-12:00, Sat 9:00-12:00")]
    [InlineData("Sun 10-14, Sat 10-14", "Sat-Sun 10:00-14:00")]
    [InlineData("", "")]
    public void A_week_is_read_and_written_back(string typed, string written)
    {
        var (read, problems) = OpenDays.Parse(typed, "");
        Assert.Empty(problems);
        Assert.Equal(written, read.WeekText);
        Assert.Equal(written, OpenDays.Parse(written, "").Read.WeekText);
    }

    [Theory]
    [InlineData("Mon-Fri", "week")]
    [InlineData("Fri-Mon 8-17", "week")]
    [InlineData("Mon 17-8", "week")]
    [InlineData("Mon 8-25", "week")]
    [InlineData("Mod 8-17", "week")]
    [InlineData("Mon-Fri 8-17, Wed 9-12", "week")]
    public void A_week_that_cannot_be_meant_is_said(string typed, string field) =>
        Assert.Equal(field, Assert.Single(OpenDays.Parse(typed, "").Problems).Field);

    [Theory]
    [InlineData("2026-12-24 to 2027-01-02 Christmas", "2026-12-24 to 2027-01-02 Christmas")]
    [InlineData("24 December 2026 Christmas Eve", "2026-12-24 Christmas Eve")]
    [InlineData("1 May", "1 May")]
    [InlineData("27 Dec to 2 Jan between the years", "27 Dec to 2 Jan between the years")]
    [InlineData("29 Feb leap day", "29 Feb leap day")]
    public void Days_it_is_shut_are_read_and_written_back(string typed, string written)
    {
        var (read, problems) = OpenDays.Parse("", typed);
        Assert.Empty(problems);
        Assert.Equal(written, read.ShutText);
    }

    [Theory]
    [InlineData("Christmas")]
    [InlineData("24.12.2026")]
    [InlineData("2026-02-30")]
    [InlineData("2027-01-02 to 2026-12-24")]
    [InlineData("2026-12-24 to 2 Jan")]
    [InlineData("12/24/2026")]
    public void A_day_that_cannot_be_meant_is_said(string typed) =>
        Assert.Equal("shut", Assert.Single(OpenDays.Parse("", typed).Problems).Field);

    [Theory]
    // A Saturday, with the shop shut on Sundays; Christmas over the turn of the year, every year; the night of a leap year.
    [InlineData("2026-11-28", null, "2026-11-28")]
    [InlineData("2026-11-29", "Sunday", "2026-11-30")]
    [InlineData("2026-12-27", "between the years", "2027-01-04")]
    [InlineData("2028-01-02", "between the years", "2028-01-03")]
    [InlineData("2027-07-05", "Regatta", "2027-07-08")]
    [InlineData("2028-07-05", null, "2028-07-05")]
    public void The_next_open_day_passes_over_Sundays_and_holidays(string day, string? why, string next)
    {
        var open = OpenDays.Parse("Mon-Sat 8-17", "27 Dec to 2 Jan between the years\n2027-07-05 to 2027-07-07 Regatta").Read;
        Assert.Equal(why, open.WhyShut(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture)));
        Assert.Equal(
            next,
            open.OnOrAfter(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture))
                .ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );
    }

    [Fact]
    public void A_shop_that_is_never_open_promises_the_day_itself()
    {
        var never = OpenDays.Parse("", "1 Jan to 31 Dec").Read;
        Assert.Equal(new DateOnly(2026, 11, 28), never.OnOrAfter(new DateOnly(2026, 11, 28)));
        Assert.Null(OpenDays.NotSaid.WhyShut(new DateOnly(2026, 11, 29)));
    }
}
