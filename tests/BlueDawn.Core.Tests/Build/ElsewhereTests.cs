using BlueDawn.Core.Build;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Build;

/// <summary>New parts that no kit and no shelf had: bought, brought, cut off a roll, out of a drawer.</summary>
public sealed class ElsewhereTests
{
    private static readonly Elsewhere Float = new(Origin.OverTheCounter, "brass float, 18 mm arm", "Chandler at the slip", 12.5m);

    private static TestTray Out(string part, LineVerdict verdict = LineVerdict.Renew) =>
        new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote(part, verdict));

    private static string Refused(TestTray tray, BackNote note) =>
        string.Join(" ", tray.Refuses(note)!.Fields.Select(field => field.Message));

    private static IEnumerable<string> Told(TestTray tray, ReportChapter chapter) =>
        tray
            .Book.State<BuildState>()
            .Report.OfType<PointsSection>()
            .SelectMany(section => section.Points)
            .Where(point => point.Chapter == chapter)
            .Select(point => point.Words.ToString());

    [Theory]
    [InlineData(Origin.OverTheCounter, "bought over the counter")]
    [InlineData(Origin.BroughtByOwner, "brought by the owner")]
    [InlineData(Origin.OffARoll, "cut off the roll")]
    [InlineData(Origin.OutOfADrawer, "out of the drawer")]
    public void A_part_that_kits_have_goes_in_from_elsewhere_and_the_report_says_what_from_whom_and_for_how_much(
        Origin origin,
        string words
    )
    {
        var tray = Out("float").Does(new BackNote("float", Fate.Renewed, NearMatch: false, Elsewhere: Float with { Origin = origin }));
        Assert.Equal(LedgerState.Back, tray.Book.Ledger.Find("float")!.State);
        Assert.True(tray.Book.IsRepaired);
        var point = Assert.Single(Told(tray, ReportChapter.Parts));
        Assert.Contains($"{words}: brass float, 18 mm arm, from Chandler at the slip", point, StringComparison.Ordinal);
        Assert.Contains($"12.50 {Sheets.Shop.Currency}", point, StringComparison.Ordinal);
        Assert.Contains("the same as the old one", point, StringComparison.Ordinal);
    }

    [Fact]
    public void Whether_it_is_the_same_or_only_near_is_asked_of_every_part()
    {
        var tray = Out("float");
        Assert.Contains(
            "same or only near",
            Refused(tray, new BackNote("float", Fate.Renewed, Elsewhere: Float)),
            StringComparison.Ordinal
        );
        tray.Does(new BackNote("float", Fate.Renewed, NearMatch: true, Elsewhere: Float));
        Assert.Contains("a near match", Told(tray, ReportChapter.Parts).Single(), StringComparison.Ordinal);
        Assert.Contains("only near to the old one", Told(tray, ReportChapter.Watch).Single(), StringComparison.Ordinal);
    }

    [Fact]
    public void What_it_is_has_to_be_said_and_a_price_is_one()
    {
        var tray = Out("float");
        string Of(Elsewhere elsewhere) => Refused(tray, new BackNote("float", Fate.Renewed, NearMatch: false, Elsewhere: elsewhere));
        Assert.Contains("Say what it is", Of(Float with { What = " a " }), StringComparison.Ordinal);
        Assert.Contains("Longer than", Of(Float with { What = new string('x', 201) }), StringComparison.Ordinal);
        Assert.Contains("Longer than", Of(Float with { FromWhom = new string('x', 201) }), StringComparison.Ordinal);
        Assert.All([-0.01m, 100_000.01m, 1.005m], price => Assert.Contains("Give a price", Of(Float with { Price = price })));
        tray.Does(new BackNote("float", Fate.Renewed, NearMatch: false, Elsewhere: Float with { Price = 100_000 }));
    }

    [Fact]
    public void It_is_from_one_place_and_only_a_new_one_is()
    {
        var tray = Out("float", LineVerdict.Clean);
        Assert.Contains(
            "not from both",
            Refused(tray, new BackNote("float", Fate.Renewed, Item: "OK-118", NearMatch: false, Elsewhere: Float)),
            StringComparison.Ordinal
        );
        Assert.Contains("Only a new one", Refused(tray, new BackNote("float", Fate.Refitted, Elsewhere: Float)), StringComparison.Ordinal);
        Assert.Contains("from elsewhere", Refused(tray, new BackNote("float", Fate.Renewed)), StringComparison.Ordinal);
    }

    /// <summary>An O-ring out of the book is no vent hose, whatever it is pressed for.</summary>
    [Fact]
    public void An_item_that_is_not_listed_as_such_a_part_is_not_one()
    {
        var tray = Out("overflow-hose");
        Assert.Contains(
            "OR-12 is in the book as something else than overflow or vent hose",
            Refused(tray, new BackNote("overflow-hose", Fate.Renewed, Item: "OR-12", FromShelf: true)),
            StringComparison.Ordinal
        );
        tray.Does(new BackNote("overflow-hose", Fate.Renewed, NearMatch: false, Elsewhere: new(Origin.OffARoll, "fuel hose, 4 mm bore")));
    }

    [Fact]
    public void A_part_that_is_on_no_list_comes_from_elsewhere_as_well()
    {
        var tray = new TestTray(Sheets.Spec)
            .Does(new JobNote("full"))
            .Does(new OutNote("extra:clip", LineVerdict.Renew, "hose clip"))
            .Does(new BackNote("extra:clip", Fate.Renewed, NearMatch: true, Elsewhere: new(Origin.OutOfADrawer, "spring clip, 8 mm")));
        Assert.Contains("out of the drawer: spring clip, 8 mm", Told(tray, ReportChapter.Parts).Single(), StringComparison.Ordinal);
    }

    [Fact]
    public void Nothing_is_left_to_decide_at_Kit_once_all_that_was_to_be_renewed_came_from_elsewhere()
    {
        var tray = Out("float").Does(new OutNote("bowl-gasket", LineVerdict.Renew));
        string Kit() => tray.Book.State(Station.Kits).Progress.Words;
        var undecided = Kit();
        tray.Does(new BackNote("float", Fate.Renewed, NearMatch: false, Elsewhere: Float));
        Assert.Equal(undecided, Kit());
        tray.Does(new BackNote("bowl-gasket", Fate.Made));
        Assert.Equal(("1 of 2 open", "done"), (undecided, Kit()));
    }
}
