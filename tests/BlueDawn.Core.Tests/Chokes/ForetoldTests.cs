using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Chokes;

/// <summary>A second start of a heat choke is held against what the first one foretold.</summary>
public sealed class ForetoldTests
{
    private const double EndC = 130,
        TauS = 95;

    private static string At(double ambientC, double opening) =>
        WarmUp.SecondsTo(ambientC, EndC, TauS, new OpeningWindow(55, 75).Seen.AtOpeningC(opening)).ToString("0.0");

    private static ReadingNote Start(double ambientC, string open, bool half = true) =>
        new(
            "chokes/opening",
            TypedReading.Of(
                ("begins", At(ambientC, 0)),
                ("half", half ? At(ambientC, 0.5) : ""),
                ("open", open),
                ("ambient", ambientC.ToString()),
                ("end", "ranOn")
            )
        );

    private static TestTray Heat() =>
        new TestTray(Sheets.Spec, new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Heat))
            .Does(new Core.Parts.JobNote("closed"))
            .Does(new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "dry"))))
            .Does(Start(18, At(18, 1)));

    private static Judgement Opening(TestTray tray) => tray.Book.Lines.Single(line => line.Line.Key == "chokes/opening").Judgement;

    [Fact]
    public void A_start_that_goes_as_foretold_is_good()
    {
        var tray = Heat().Does(Start(4, At(4, 1)));
        Assert.Equal("opensRight", Opening(tray).Finding);
        Assert.Contains(Opening(tray).Figures, figure => figure.Key == "foretold");
        Assert.Contains(Opening(tray).Why, why => why.Text.Contains("opened when it had to", StringComparison.Ordinal));
    }

    [Fact]
    public void One_in_time_but_not_as_foretold_is_not_settled()
    {
        // Half a minute later than it had to be, still in its window: something hung.
        var tray = Heat().Does(Start(4, (double.Parse(At(4, 1)) + 30).ToString("0.0"), half: false));
        Assert.Equal("cannotTell", Opening(tray).Finding);
        Assert.Contains("not as the earlier start foretold", Opening(tray).DoNext.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void Late_and_not_as_foretold_is_the_linkage_late_and_as_foretold_is_what_warms_it()
    {
        Assert.Contains("hangs", Opening(Heat().Does(Start(18, "300", half: false))).DoNext.Text, StringComparison.Ordinal);
        string Slow(double ambient, double opening) =>
            WarmUp.SecondsTo(ambient, EndC, 4 * TauS, new OpeningWindow(55, 75).Seen.AtOpeningC(opening)).ToString("0.0");
        ReadingNote SlowStart(double ambient) =>
            new(
                "chokes/opening",
                TypedReading.Of(
                    ("begins", Slow(ambient, 0)),
                    ("half", Slow(ambient, 0.5)),
                    ("open", Slow(ambient, 1)),
                    ("ambient", ambient.ToString()),
                    ("end", "ranOn")
                )
            );
        var tray = Heat().Does(SlowStart(18)).Does(SlowStart(10));
        Assert.Equal("opensLate", Opening(tray).Finding);
        Assert.Contains("nothing hangs", Opening(tray).DoNext.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void A_correction_of_the_first_start_is_not_foretold_by_what_it_corrects()
    {
        var tray = new TestTray(Sheets.Spec, new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, ChokeKind.Heat))
            .Does(new Core.Parts.JobNote("closed"))
            .Does(new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "dry"))))
            .Does(Start(18, At(18, 1)), out var first);
        tray.Does(Start(18, (double.Parse(At(18, 1)) + 60).ToString("0.0")), first);
        Assert.DoesNotContain(Opening(tray).Figures, figure => figure.Key == "foretold");
    }
}
