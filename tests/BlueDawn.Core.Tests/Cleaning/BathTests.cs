using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Cleaning;

public sealed class BathTests
{
    private static readonly DateTimeOffset Start = new(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);
    private static readonly Bath Heated = new("heated", "Heated bath", Vessel.Heated, 3, 20, 25);

    private static DateTimeOffset At(double minute) => Start.AddMinutes(minute);

    private static BathEvent Read(double minute, double celsius) => new(BathEventKind.Temperature, At(minute), TemperatureC: celsius);

    private static BathEvent Place(double minute, int tray = 24, int basket = 1) =>
        new(BathEventKind.Placed, At(minute), tray, basket, "bath", 20);

    private static Basket Basket(double now, params BathEvent[] events) => Assert.Single(State(now, events).Baskets);

    private static BathState State(double now, params BathEvent[] events) =>
        BathState.Of(Heated, CleaningKnowledge.Shipped, events, At(now));

    // Newton's law of heating, solved in closed form: T = end + (start − end)·e^(−t/τ). Any textbook of heat transfer
    // (lumped capacitance); the series here is that formula itself.
    [Theory]
    [InlineData(85, 20, 18)]
    [InlineData(20, 82, 40)]
    [InlineData(95, 60, 7.5)]
    public void The_fit_finds_the_curve_an_exact_series_was_made_from(double end, double start, double tau)
    {
        var samples = Enumerable
            .Range(0, 10)
            .Select(i => new TemperatureSample(i * 4, end + (start - end) * Math.Exp(-i * 4 / tau)))
            .ToList();
        var fit = NewtonFit.Of(samples)!;
        Assert.Equal(end, fit.EndC, 3);
        Assert.Equal(start, fit.StartC, 3);
        Assert.Equal(tau, fit.TimeConstantMin, 3);
        Assert.InRange(fit.RmsC, 0, 1e-6);
        Assert.Equal(samples[7].TemperatureC, fit.TemperatureC(28), 4);
    }

    /// <summary>What was added to one stay in the bath is not added to the next.</summary>
    [Fact]
    public void The_longer_time_of_a_basket_is_gone_once_it_is_out()
    {
        BathEvent longer = new(BathEventKind.Longer, At(2), 24, Minutes: 5);
        Assert.Equal(25, Basket(3, Read(0, 80), Place(1), longer).Minutes);
        Assert.Equal(20, Basket(9, Read(0, 80), Place(1), longer, new(BathEventKind.TakenOut, At(6), 24), Place(8)).Minutes);
        Assert.Equal(
            (false, true),
            (
                Basket(12, new(BathEventKind.HeaterOn, At(0)), Read(0, 80), Place(1)).HasHadItsTime,
                Basket(20, new(BathEventKind.HeaterOn, At(0)), Read(0, 80), Place(1)).HasHadItsTime
            )
        );
    }

    [Fact]
    public void With_a_thermometer_that_reads_whole_degrees_it_comes_near()
    {
        var samples = Enumerable
            .Range(0, 12)
            .Select(i => new TemperatureSample(i * 5, Math.Round(84 - 64 * Math.Exp(-i * 5 / 22.0))))
            .ToList();
        var fit = NewtonFit.Of(samples)!;
        Assert.InRange(fit.TimeConstantMin, 20, 24);
        Assert.InRange(fit.EndC, 82, 86);
    }

    [Fact]
    public void No_other_time_constant_leaves_less_over()
    {
        double[] typed = [21, 33, 45, 52, 60, 64, 69, 71];
        var samples = typed.Select((celsius, i) => new TemperatureSample(i * 5, celsius)).ToList();
        var fit = NewtonFit.Of(samples)!;
        double Left(double end, double start, double tau) =>
            Math.Sqrt(samples.Average(one => Math.Pow(one.TemperatureC - end - (start - end) * Math.Exp(-one.Minute / tau), 2)));
        Assert.Equal(fit.RmsC, Left(fit.EndC, fit.StartC, fit.TimeConstantMin), 9);
        for (var end = -3.0; end <= 3; end += 0.5)
        {
            for (var tau = -3.0; tau <= 3; tau += 0.5)
            {
                Assert.True(Left(fit.EndC + end, fit.StartC, fit.TimeConstantMin + tau) >= fit.RmsC - 1e-9);
            }
        }
    }

    [Fact]
    public void Too_few_or_still_or_straight_readings_give_no_curve()
    {
        Assert.Null(NewtonFit.Of([new(0, 20), new(5, 30), new(10, 38)]));
        Assert.Null(NewtonFit.Of([new(0, 20), new(5, 20), new(10, 20), new(15, 20)]));
        Assert.Null(NewtonFit.Of([new(0, 20), new(5, 25), new(10, 30), new(15, 35)]));
    }

    [Theory]
    [InlineData(20, 80, 90, 25)]
    [InlineData(90, 70, 20, 25)]
    public void The_time_to_a_temperature_is_where_the_curve_crosses_it(double from, double to, double end, double tau)
    {
        var minutes = NewtonFit.MinutesTo(from, to, end, tau)!.Value;
        Assert.Equal(to, end + (from - end) * Math.Exp(-minutes / tau), 9);
        Assert.Null(NewtonFit.MinutesTo(from, end + (end - from), end, tau)); // beyond where it is heading
    }

    [Fact]
    public void Time_counts_while_the_bath_is_warm_enough()
    {
        BathEvent[] events = [new(BathEventKind.HeaterOn, At(0)), Read(0, 80), Place(0)];
        var running = Basket(6, events);
        Assert.Equal(BasketStanding.Running, running.Standing);
        Assert.Equal(6, running.Counted, 6);
        Assert.Equal(At(20), running.DoneAt);
        Assert.Equal(BasketStanding.Done, Basket(20, events).Standing);
    }

    [Fact]
    public void A_cold_bath_says_so_and_waits()
    {
        BathEvent[] events = [new(BathEventKind.HeaterOn, At(0)), Read(0, 40), Place(0)];
        var cold = Basket(5, events);
        Assert.Equal(BasketStanding.TooCold, cold.Standing);
        Assert.Equal(0, cold.Counted);
        // By hand, Newton's law of cooling: 80 − 40 e^(−t/25) = 70 when t = 25 ln 4 = 34.657 min, heading for the recipe's 80 °C.
        const double wait = 34.6574;
        Assert.Equal(At(wait), cold.ReadyAt!.Value, TimeSpan.FromSeconds(1));
        Assert.Equal(At(wait + 20), cold.DoneAt!.Value, TimeSpan.FromSeconds(1));
    }

    [Fact]
    public void A_bath_too_hot_says_so_and_waits()
    {
        BathEvent[] events = [new(BathEventKind.HeaterOff, At(0)), Read(0, 96), Place(0)];
        var hot = Basket(1, events);
        Assert.Equal(BasketStanding.TooHot, hot.Standing);
        // By hand: 20 + 76 e^(−t/25) = 90 when t = 25 ln(76 ÷ 70) = 2.056 min.
        Assert.Equal(At(2.0560), hot.ReadyAt!.Value, TimeSpan.FromSeconds(1));
        // Cooling on it leaves the window again before 20 minutes have counted: nobody can say when it is done.
        Assert.Null(hot.DoneAt);
    }

    [Fact]
    public void Between_two_readings_the_minutes_inside_the_window_count()
    {
        // 60 to 80 °C in 20 minutes, straight: from the 10th minute on above 70.
        var basket = Basket(20, new(BathEventKind.HeaterOn, At(-5)), Read(0, 60), Read(20, 80), Place(0));
        Assert.Equal(10, basket.Counted, 6);
    }

    [Fact]
    public void Without_a_thermometer_nobody_can_tell()
    {
        var basket = Basket(30, Place(0));
        Assert.Equal((BasketStanding.NoTemperature, null), (basket.Standing, basket.DoneAt));
    }

    [Fact]
    public void Baskets_have_times_of_their_own_and_free_ones_are_named()
    {
        var state = State(
            12,
            new(BathEventKind.HeaterOn, At(0)),
            Read(0, 80),
            Place(0),
            Place(10, 27, 3),
            new(BathEventKind.Longer, At(11), 24, Minutes: 5)
        );
        Assert.Equal([(24, At(25)), (27, At(30))], state.Baskets.Select(basket => (basket.Tray, basket.DoneAt!.Value)));
        Assert.Equal([2], state.FreeBaskets);
        Assert.Empty(State(12, Place(0), new(BathEventKind.TakenOut, At(5), 24)).Baskets);
    }

    [Fact]
    public void Its_own_readings_give_the_bath_its_time_constant()
    {
        var heating = Enumerable.Range(0, 6).Select(i => Read(i * 5, 86 - 66 * Math.Exp(-i * 5 / 15.0)));
        var state = State(25, [new BathEvent(BathEventKind.HeaterOn, At(0)), .. heating]);
        Assert.True(state.Fitted);
        Assert.Equal(15, state.TimeConstantMin, 2);
        Assert.Equal(86, state.EndC, 2);
        Assert.Equal(86 - 66 * Math.Exp(-25 / 15.0), state.TemperatureC!.Value, 3);
        Assert.False(State(25, new(BathEventKind.HeaterOn, At(0)), Read(0, 20)).Fitted);
    }

    [Fact]
    public void Where_it_is_heading_follows_the_same_curve()
    {
        BathEvent[] events = [new(BathEventKind.HeaterOn, At(0)), Read(0, 40)];
        var ahead = State(10, events).Ahead(30, 3);
        Assert.Equal([0, 10, 20, 30], ahead.Select(one => one.Minute));
        Assert.All(ahead, one => Assert.Equal(State(10 + one.Minute, events).TemperatureC!.Value, one.TemperatureC, 9));
        Assert.Empty(State(0).Ahead(30, 3));
    }

    [Fact]
    public void A_cold_soak_runs_by_the_clock()
    {
        var tub = new Bath("tub", "Soak tub", Vessel.Tub, 4, 20, 60);
        var basket = Assert.Single(
            BathState.Of(tub, CleaningKnowledge.Shipped, [new(BathEventKind.Placed, At(0), 24, 1, "acid", 720)], At(60)).Baskets
        );
        Assert.Equal((BasketStanding.Running, At(720)), (basket.Standing, basket.DoneAt));
    }

    [Theory]
    [InlineData("78", UnitSystem.Metric, 78)]
    [InlineData("78,5 °C", UnitSystem.Inch, 78.5)]
    [InlineData("176", UnitSystem.Inch, 80)]
    [InlineData("176 F", UnitSystem.Metric, 80)]
    public void Temperatures_are_read_as_they_are_typed(string typed, UnitSystem units, double celsius) =>
        Assert.Equal(celsius, BathTemperature.Parse(typed, units).Value!.Value, 9);

    [Theory]
    [InlineData("")]
    [InlineData("warm")]
    [InlineData("178")] // meant in °F, typed by someone who reads °C
    [InlineData("-40")]
    public void Others_are_refused(string typed) => Assert.False(BathTemperature.Parse(typed, UnitSystem.Metric).IsRight);
}
