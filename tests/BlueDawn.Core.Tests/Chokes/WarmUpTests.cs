using BlueDawn.Core.Chokes;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.OdeSolvers;

namespace BlueDawn.Core.Tests.Chokes;

/// <summary>The warm-up of a heat choke, against the differential equation and against starts whose truth is known.</summary>
public sealed class WarmUpTests
{
    private static readonly OpeningWindow Window = new(55, 75);

    private static List<OpeningAt> Start(double ambientC, double endC, double tauS, Func<double> error, params double[] openings) =>
        [
            .. openings.Select(opening => new OpeningAt(
                WarmUp.SecondsTo(ambientC, endC, tauS, Window.AtOpeningC(opening)) + error(),
                opening
            )),
        ];

    [Fact]
    public void A_body_warms_as_its_differential_equation_says()
    {
        // dT/dt = (end − T)/τ stepped by MathNet.Numerics (Runge-Kutta of the fourth order) against the logarithm.
        const double ambient = 12,
            end = 140,
            tau = 90;
        const int steps = 2001;
        var solved = RungeKutta.FourthOrder(ambient, 0, 200, steps, (_, temperature) => (end - temperature) / tau);
        foreach (var at in new[] { 100, 500, 1200 })
        {
            Assert.Equal(200.0 * at / (steps - 1), WarmUp.SecondsTo(ambient, end, tau, solved[at]), 1e-3);
        }

        // By hand: from 20 to 75 °C toward 130 with τ = 100 s is 100·ln(110/55) = 69.3 s.
        Assert.Equal(69.315, WarmUp.SecondsTo(20, 130, 100, 75), 0.001);
        Assert.Equal(0, WarmUp.SecondsTo(80, 130, 100, 75));
    }

    [Fact]
    public void A_start_without_error_gives_back_what_it_was_made_from()
    {
        var warm = WarmUp.Fit(18, Start(18, 130, 95, () => 0, 0, 0.25, 0.5, 0.75, 1), Window)!;
        Assert.Equal(130, warm.EndC, 3.0);
        Assert.Equal(WarmUp.SecondsTo(5, 130, 95, 75), warm.FullyOpen(5).BestS, 1.0);
    }

    [Theory]
    [InlineData(3, 0)]
    [InlineData(3, 30)]
    [InlineData(5, 5)]
    [InlineData(9, 0)]
    public void A_second_start_on_another_day_lies_in_its_interval_in_95_of_100(int events, double otherDayC)
    {
        var random = new Random(41);
        var (inside, draws) = (0, 400);
        for (var draw = 0; draw < draws; draw++)
        {
            var (end, tau) = (95 + (random.NextDouble() * 120), 50 + (random.NextDouble() * 100));
            var times = Start(
                18,
                end,
                tau,
                () => Normal.Sample(random, 0, WarmUp.TimingS),
                [.. Enumerable.Range(0, events).Select(i => (double)i / (events - 1))]
            );
            var told = WarmUp.Fit(18, times, Window)!.FullyOpen(otherDayC);
            var truth = WarmUp.SecondsTo(otherDayC, end, tau, Window.FullC);
            inside += truth >= told.LeastS && (told.MostS is not { } most || truth <= most) ? 1 : 0;
        }

        Assert.True(inside >= 0.93 * draws, $"{inside} of {draws}");
    }

    [Fact]
    public void A_colder_day_takes_longer_and_a_hotter_exhaust_is_faster()
    {
        var random = new Random(5);
        for (var i = 0; i < 500; i++)
        {
            var (ambient, end, tau) = (
                -10 + (random.NextDouble() * 40),
                90 + (random.NextDouble() * 200),
                30 + (random.NextDouble() * 200)
            );
            Assert.True(WarmUp.SecondsTo(ambient - 5, end, tau, 75) > WarmUp.SecondsTo(ambient, end, tau, 75));
            Assert.True(WarmUp.SecondsTo(ambient, end + 20, tau, 75) < WarmUp.SecondsTo(ambient, end, tau, 75));
        }
    }

    [Fact]
    public void Too_little_says_nothing()
    {
        Assert.Null(WarmUp.Fit(20, [new OpeningAt(60, 1)], Window));
        Assert.Null(WarmUp.Fit(60, [new OpeningAt(30, 0), new OpeningAt(60, 1)], Window));
    }
}
