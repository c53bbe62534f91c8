namespace BlueDawn.Server.Tests.Kits;

public class IdentifyTests(Shop shop)
{
    private static List<(string Number, string Match)> Stamps(Answer answer) =>
        [
            .. answer
                .Body.GetProperty("stamped")
                .EnumerateArray()
                .Select(one => one.GetProperty("reading"))
                .Select(reading => (reading.GetProperty("onRecord").GetString()!, reading.GetProperty("match").GetString()!)),
        ];

    [Theory]
    [InlineData("4107", "4107", "exact")]
    [InlineData("41O7", "4107", "misread")]
    [InlineData("41?7", "4107", "misread")]
    [InlineData("?107", "4107", "misread")]
    [InlineData("D38-2", "D38-2204", "part")]
    [InlineData("38-2204", "D38-2204", "part")]
    [InlineData("H31-2208", "H31-2206", "near")]
    [InlineData("PT32-8I2", "PT32-812", "misread")]
    public async Task A_stamp_finds_its_number_however_badly_it_is_read(string read, string number, string match)
    {
        var jory = await shop.SignInAsync("jory");
        Assert.Equal((number, match), Stamps(await jory.GetAsync($"/api/identify?stamped={Uri.EscapeDataString(read)}"))[0]);
    }

    [Theory]
    [InlineData("")]
    [InlineData("Z")]
    [InlineData("???")]
    [InlineData("%_%")]
    [InlineData("XXXXXXXX")]
    public async Task What_says_nothing_finds_nothing(string read)
    {
        var jory = await shop.SignInAsync("jory");
        var answer = await jory.GetAsync($"/api/identify?stamped={Uri.EscapeDataString(read)}");
        Assert.Equal(HttpStatusCode.OK, answer.Status);
        Assert.Empty(Stamps(answer));
    }

    [Fact]
    public async Task A_number_that_only_the_catalogue_knows_is_found_without_a_sheet()
    {
        var ilse = await shop.SignInAsync("ilse");
        await Catalogue.CatalogueTests.ImportAsync(ilse, "items", "number,kind,name,maker\nZZ-1,kit,Odd kit,Dornay\n");
        await Catalogue.CatalogueTests.ImportAsync(ilse, "fits", "item,kind,maker,number\nZZ-1,stamp,Ostrel,7731-GX\n");
        var found = (await ilse.GetAsync("/api/identify?stamped=773I-6X")).Body.GetProperty("stamped")[0];
        Assert.Equal(
            ("7731-GX", JsonValueKind.Null, 1),
            (
                found.GetProperty("reading").GetProperty("onRecord").GetString(),
                found.GetProperty("specCode").ValueKind,
                found.GetProperty("items").GetInt32()
            )
        );
    }

    [Fact]
    public async Task Plates_and_date_codes_are_read_too()
    {
        var jory = await shop.SignInAsync("jory");
        var body = (await jory.GetAsync("/api/identify?plate=k17O%2F0414&stamped=D38-2204&date=O459")).Body;
        Assert.Equal("FB18", body.GetProperty("plates")[0].GetProperty("specCode").GetString());
        var date = Assert.Single(body.GetProperty("dates").EnumerateArray());
        Assert.Equal(
            ("Corvane", "2009-02-14"),
            (date.GetProperty("maker").GetString(), date.GetProperty("made")[0].GetProperty("from").GetString())
        );
        var none = (await jory.GetAsync("/api/identify?stamped=D38-2204&date=99999")).Body.GetProperty("dates")[0];
        Assert.Contains("Corvane writes 4 characters", none.GetProperty("problem").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Measures_narrow_the_sheets_in_the_units_of_who_measures()
    {
        var (jory, marit) = (await shop.SignInAsync("jory"), await shop.SignInAsync("marit"));
        static string First(Answer answer) =>
            answer.Body.GetProperty("measured").GetProperty("candidates")[0].GetProperty("specCode").GetString()!;
        const string Rest = "&answer=throat%3D";
        Assert.Equal("DM46", First(await jory.GetAsync($"/api/identify?answer=family%3Ddiaphragm&answer=boltSpacing%3D35{Rest}12.7")));
        Assert.Equal("DM46", First(await marit.GetAsync($"/api/identify?answer=family%3Ddiaphragm&answer=boltSpacing%3D1.378{Rest}0.5")));
        var wrong = (await jory.GetAsync("/api/identify?answer=boltSpacing%3Dwide")).Body;
        Assert.Contains("is not a number", wrong.GetProperty("problems").GetProperty("boltSpacing").GetString(), StringComparison.Ordinal);
        Assert.Equal(45, wrong.GetProperty("measured").GetProperty("candidates").GetArrayLength());
    }
}
