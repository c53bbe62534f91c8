using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Shop;

/// <summary>Who may work here under which name and password. Source of the password rules: OWASP ASVS 4.0.3, 2.1, from memory.</summary>
public sealed class StaffTests
{
    [Theory]
    [InlineData("four brass floats rising", true)]
    [InlineData("Kräftig weht der Wind", true)] // any characters, spaces too
    [InlineData("🌊🌊 tide tables ✓✓", true)]
    [InlineData("short words", false)] // 11
    [InlineData("password1234", false)]
    [InlineData("PassWord!2026", false)]
    [InlineData("passwordpassword", false)]
    [InlineData("123456789012", false)]
    [InlineData("abcdefghijkl", false)]
    [InlineData("qwertyuiopas", false)]
    [InlineData("aaaaaaaabbbb", false)]
    [InlineData("sandrigg-quay", false)] // the demo's own
    [InlineData("nessafalk2026", false)] // made of her name
    [InlineData("nessa likes the east wind", true)]
    public void A_password_is_long_and_not_on_every_list(string password, bool taken) =>
        Assert.Equal(taken, PasswordRules.Problem(password, "nessa", "Nessa Falk", "Lee Shore") is null);

    [Fact]
    public void A_password_may_be_as_long_as_a_page_line_and_no_longer()
    {
        Assert.Null(PasswordRules.Problem(string.Concat(Enumerable.Repeat("wind ", 25))[..124] + "tide"));
        Assert.NotNull(PasswordRules.Problem(new string([.. Enumerable.Range(0, 129).Select(i => (char)('a' + (i * 7 % 26)))])));
    }

    [Theory]
    [InlineData("anna", "Anna Kvist", "AK", "")]
    [InlineData("anna", "Anna Kvist", "", "")]
    [InlineData("a", "Anna Kvist", "AK", "userName")]
    [InlineData("anna kvist", "Anna Kvist", "AK", "userName")]
    [InlineData("anna", " ", "AK", "displayName")]
    [InlineData("anna", "Anna Kvist", "A1", "initials")]
    [InlineData("anna", "Anna Kvist", "ABCDE", "initials")]
    public void What_is_said_of_somebody_is_checked_at_its_box(string userName, string displayName, string initials, string field) =>
        Assert.Equal(
            field == "" ? [] : [field],
            new StaffEntry(userName, displayName, initials, Role.Technician).Check().Select(problem => problem.Field)
        );

    [Theory]
    [InlineData("Anna Kvist", "", "AK")]
    [InlineData("Ole", "", "O")]
    [InlineData("Maria del Mar", "", "MM")]
    [InlineData("Maria del Mar", "mdm", "MDM")]
    public void Initials_are_what_was_said_or_of_the_first_and_the_last_word(string name, string said, string initials) =>
        Assert.Equal(initials, new StaffEntry("x", name, said, Role.Lead).Short);

    [Theory]
    [InlineData("Europe/Lisbon", "EUR", "52", "")]
    [InlineData("UTC", "NOK", "52,50", "")]
    [InlineData("Mars/Olympus", "EUR", "52", "timeZone")]
    [InlineData("Europe/Lisbon", "euro", "52", "currency")]
    [InlineData("Europe/Lisbon", "EUR", "0", "labour")]
    [InlineData("Europe/Lisbon", "EUR", "a lot", "labour")]
    public void A_shop_begins_with_a_clock_a_currency_and_a_rate(string zone, string currency, string labour, string field) =>
        Assert.Equal(
            field == "" ? [] : [field],
            new ShopStart("Lee Shore", zone, currency, labour).Check().Select(problem => problem.Field)
        );

    [Fact]
    public void What_was_said_of_the_shop_is_what_it_goes_by()
    {
        var begun = new ShopStart("Lee Shore", "UTC", "NOK", "612,50").Begin(Trays.Sheets.Shop);
        Assert.Equal(("NOK", 612.5), (begun.Currency, begun.Trace.LabourPerHour));
    }
}
