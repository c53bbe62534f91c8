using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Holding;

/// <summary>A hold test as it was run.</summary>
/// <param name="Samples">Seconds and gauge pressures in kPa.</param>
/// <param name="GaugeResolutionKPa">The gauge's step in kPa.</param>
/// <param name="TemperatureDriftC">How far the temperature moved, in °C; null when not noted.</param>
/// <param name="TestVolumeML">Shut-in volume in mL.</param>
public sealed record HoldReading(
    IReadOnlyList<PressureSample> Samples,
    double GaugeResolutionKPa,
    double? TemperatureDriftC,
    double TestVolumeML
) : Reading;

/// <summary>A hold test of something that has to keep a pressure or a suction in.</summary>
/// <param name="Key">Stable name.</param>
/// <param name="Station">Where it is tested.</param>
/// <param name="Section">What it belongs to.</param>
/// <param name="Label">Its name at the bench.</param>
/// <param name="Hold">The limits.</param>
/// <param name="SourceName">The spec sheet, or the shop's defaults.</param>
public abstract record HoldLine(string Key, Station Station, string Section, string Label, HoldSpec Hold, string SourceName)
    : GaugeLine<HoldReading>(Key, Station, Section, Label)
{
    /// <summary>A watch that leaves nothing open, in seconds. Common practice, no source.</summary>
    private const double LongWatchS = 60;

    /// <summary>From this many pressures on, more of them say little more.</summary>
    private const int ReadingsEnough = 6;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of(
                "{0} for {1}, drop up to {2}",
                Quantity.KPa(Hold.PressureKPa),
                Quantity.S(Hold.WindowS),
                Quantity.KPa(Hold.DropLimitKPa)
            ),
            new Span(Dimension.Pressure, Hold.PressureKPa - Hold.DropLimitKPa, null),
            SourceName
        );

    /// <summary>What it means when it held.</summary>
    protected abstract (LineFinding Finding, Sentence Next) Held { get; }

    /// <summary>What it means when it leaks.</summary>
    /// <param name="dropKPa">What was lost in the time.</param>
    protected abstract (LineFinding Finding, Sentence Next) Leaks(Quantity dropKPa);

    private static readonly LineBox<double> TimeBox = Box.Number("time", "after", Dimension.Time, 0, 7200);
    private static readonly LineBox<double?> DriftBox = Box.Detail("drift", "temp. drift", Dimension.TemperatureChange, -60, 60);

    private LineBox<double> PressureBox => Box.Number("pressure", "pressure", Dimension.Pressure, 0, 700).About(Hold.PressureKPa);

    private LineBox<double> ResolutionBox =>
        Box.Detail("resolution", "gauge step", Dimension.Pressure, 0.001m, 100, Hold.GaugeResolutionKPa);

    private LineBox<double> VolumeBox => Box.Detail("volume", "test volume", Dimension.Volume, 0.1m, 100_000, Hold.TestVolumeML);

    /// <inheritdoc/>
    protected override LineForm<HoldReading> Boxes =>
        new(new BoxGroup("gauge", "Gauge", ResolutionBox, DriftBox, VolumeBox), Take)
        {
            Rows = new BoxRows(
                "Pressure",
                [TimeBox, PressureBox],
                2,
                [.. SuggestedTimes().Select(time => new Dictionary<string, string> { ["time"] = time })],
                FromSeries: SeriesPart.Hold
            ),
            Besides = [SteadyBox],
        };

    private static readonly LineBox<double?> SteadyBox = Box.Optional("steady", "held, no drop", Dimension.Time, 1, 7200);

    /// <summary>Watched for so long, and the needle of the gauge did not move: judged as two equal pressures, by the gauge's step.</summary>
    protected override IReadOnlyList<QuickAnswer> AnswersBefore =>
        [
            .. new[] { Math.Ceiling(Hold.SettlingS + Hold.WindowS), LongWatchS }
                .Distinct()
                .Order()
                .Select(seconds => seconds.ToString("0", CultureInfo.InvariantCulture))
                .Select(seconds => new QuickAnswer(
                    $"Held {seconds} s, no drop",
                    new Dictionary<string, string> { ["steady"] = seconds },
                    "by the gauge’s step"
                )),
        ];

    private HoldReading Take(TypedReader boxes)
    {
        var samples = boxes.Rows(
            row => new PressureSample(row.Get(TimeBox), row.Get(PressureBox)),
            row => row.TryGetValue("pressure", out var pressure) && !string.IsNullOrWhiteSpace(pressure)
        );
        if (samples.Count == 0 && boxes.Get(SteadyBox) is { } seconds)
        {
            samples = [new PressureSample(0, Hold.PressureKPa), new PressureSample(seconds, Hold.PressureKPa)];
        }

        var hold = new HoldReading(samples, boxes.Get(ResolutionBox), boxes.Get(DriftBox), boxes.Get(VolumeBox));
        if (samples.Count == 0 && boxes.IsRight)
        {
            boxes.Wrong("rows[0].pressure", "Enter the pressure at two times or more.");
        }

        foreach (var problem in boxes.IsRight ? HoldTest.Check(Input(hold)) : [])
        {
            boxes.Wrong(problem.Field == "samples" ? "rows" : problem.Field, problem.Message);
        }

        return hold;
    }

    /// <inheritdoc/>
    protected override Sentence Describe(HoldReading hold)
    {
        if (hold.Samples.Count == 0)
        {
            return Sentence.None;
        }

        // What was judged: the fall while the pump settled was not, and an owner would read it as lost.
        var settled = hold.Samples.Where(s => s.TimeS >= Hold.SettlingS).ToList();
        var judged = settled.Count < 2 ? hold.Samples : settled;
        var first = judged.MinBy(s => s.TimeS)!;
        var last = judged.Where(s => s.TimeS <= first.TimeS + Hold.WindowS).MaxBy(s => s.TimeS)!;
        return Sentence.Of(
            "{0} at {1}, {2} at {3}",
            Quantity.KPa(first.PressureKPa),
            Quantity.S(first.TimeS),
            Quantity.KPa(last.PressureKPa),
            Quantity.S(last.TimeS)
        );
    }

    /// <inheritdoc/>
    protected override Judgement Judge(HoldReading hold, PinSet pins)
    {
        var result = HoldTest.Judge(Input(hold));
        var (finding, next) = result.Verdict switch
        {
            HoldVerdict.Held => Held,
            HoldVerdict.Leaks => Leaks(Quantity.KPa(Math.Round(result.DropKPa ?? 0, 2))),
            HoldVerdict.CannotTell => (LineFinding.CannotTell, Remedy(result)),
        };
        return finding.Judged(
            next,
            found: new Span(Dimension.Pressure, hold.Samples.Min(s => s.PressureKPa), hold.Samples.Max(s => s.PressureKPa)),
            figures: Figures(result),
            why: Why(result, hold)
        );
    }

    private List<string> SuggestedTimes()
    {
        var end = Hold.SettlingS + Hold.WindowS;
        return [.. new[] { Hold.SettlingS, Hold.SettlingS + (Hold.WindowS / 2), end }.Select(s => s.ToString("0.#"))];
    }

    private HoldTestInput Input(HoldReading hold) =>
        new(
            hold.Samples,
            Hold.PressureKPa,
            Hold.WindowS,
            Hold.DropLimitKPa,
            Hold.SettlingS,
            hold.TestVolumeML,
            hold.GaugeResolutionKPa,
            hold.TemperatureDriftC
        );

    private Sentence Remedy(HoldTestResult result) =>
        result.Doubts[0] switch
        {
            HoldDoubt.TooFewSamples => Sentence.Of("Note at least three pressures after the first {0}.", Quantity.S(Hold.SettlingS)),
            HoldDoubt.TooShort => Sentence.Of(
                "Too short: watch it for {0} after the first {1}.",
                Quantity.S(Hold.WindowS),
                Quantity.S(Hold.SettlingS)
            ),
            HoldDoubt.GaugeTooCoarse => Sentence.Of(
                "The gauge is too coarse: use one with steps of {0} or finer, or watch for longer.",
                Quantity.KPa(Hold.DropLimitKPa)
            ),
            HoldDoubt.PressureTooLow => Sentence.Of("It never reached {0}: pump higher and test again.", Quantity.KPa(Hold.PressureKPa)),
            HoldDoubt.PressureRose => Sentence.Of("The pressure rose: keep hands and lamp off the hose, check the pump valve, test again."),
            HoldDoubt.TemperatureDrift => Sentence.Of(
                "The temperature alone can do that ({0}): let it settle and test again.",
                Quantity.KPa(Math.Round(result.TemperatureEffectKPa, 2))
            ),
            HoldDoubt.FellAtOnce => Sentence.Of("It fell all at once between two readings: test again and read it oftener."),
            HoldDoubt.Borderline when result.SamplesUsed < ReadingsEnough => Sentence.Of(
                "{0} pressures leave {1} open: note more of them in the same time, or use a finer gauge.",
                Quantity.Count(result.SamplesUsed),
                Quantity.KPa(Math.Round(result.DropUncertaintyKPa ?? 0, 1))
            ),
            HoldDoubt.Borderline => Sentence.Of("Too near the limit to say: watch it for twice as long or use a finer gauge."),
        };

    private static List<Figure> Figures(HoldTestResult result)
    {
        var figures = new List<Figure>();
        void Add(string key, string label, Quantity? quantity)
        {
            if (quantity is { } known)
            {
                figures.Add(new Figure(key, label, known));
            }
        }

        Add("start", "Pressure at the start", result.StartKPa is { } start ? Quantity.KPa(Math.Round(start, 2)) : null);
        Add("drop", "Drop over the window", result.DropKPa is { } drop ? Quantity.KPa(Math.Round(drop, 2)) : null);
        Add("dropUncertainty", "Give or take", result.DropUncertaintyKPa is { } give ? Quantity.KPa(Math.Round(give, 2)) : null);
        Add("leak", "Leak as free air", result.LeakMLPerMin is { } leak ? Quantity.MLPerMin(Math.Round(leak, 2)) : null);
        Add("halfLife", "Pressure halves in", result.HalfLifeS is { } half && half < 36_000 ? Quantity.S(Math.Round(half, 1)) : null);
        return figures;
    }

    private List<Sentence> Why(HoldTestResult result, HoldReading hold)
    {
        var why = new List<Sentence>
        {
            Sentence.Of(
                "{0} pressures over {1}; the first {2} after pumping do not count.",
                Quantity.Count(result.SamplesUsed),
                Quantity.S(result.SpanS),
                Quantity.S(Hold.SettlingS)
            ),
        };
        if (result.DropKPa is { } drop)
        {
            why.Add(
                result.Fall is { } fall
                    ? Sentence.Of(
                        "It let go between {0} and {1}: {2} lost within {3}; the limit is {4}.",
                        Quantity.S(fall.FromS),
                        Quantity.S(fall.ToS),
                        Quantity.KPa(Math.Round(drop, 2)),
                        Quantity.S(Hold.WindowS),
                        Quantity.KPa(Hold.DropLimitKPa)
                    )
                    : Sentence.Of(
                        "A falling exponential through them loses {0} over {1}; the limit is {2}.",
                        Quantity.KPa(Math.Round(drop, 2)),
                        Quantity.S(Hold.WindowS),
                        Quantity.KPa(Hold.DropLimitKPa)
                    )
            );
            why.Add(
                Sentence.Of("Leak = test volume {0} × fall of pressure ÷ air pressure 101.3 kPa (gas law).", Quantity.ML(hold.TestVolumeML))
            );
        }

        if (hold.TemperatureDriftC is { } drift)
        {
            why.Add(
                Sentence.Of(
                    "{0} of temperature moves a sealed reading by {1} (gas law).",
                    Quantity.DegC(drift),
                    Quantity.KPa(Math.Round(result.TemperatureEffectKPa, 2))
                )
            );
        }

        why.Add(Sentence.Of($"Limits: {SourceName}."));
        return why;
    }
}
