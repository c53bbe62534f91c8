using BlueDawn.Core.Measures;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Holding;

/// <summary>One pressure at one time.</summary>
/// <param name="TimeS">Seconds from the end of pumping, 0 or more.</param>
/// <param name="PressureKPa">Gauge pressure in kilopascals.</param>
public sealed record PressureSample(double TimeS, double PressureKPa);

/// <summary>A hold test of needle and seat.</summary>
/// <param name="Samples">Pressures in time, any order.</param>
/// <param name="TestPressureKPa">Pressure the valve has to hold, above 0 and at most 500.</param>
/// <param name="WindowS">Seconds it has to hold for, above 0.</param>
/// <param name="DropLimitKPa">Drop allowed over the window, above 0.</param>
/// <param name="SettlingS">Seconds after pumping that are ignored, 0 or more.</param>
/// <param name="TestVolumeML">Air shut in between pump, hose and valve, above 0.</param>
/// <param name="GaugeResolutionKPa">The gauge's smallest step, above 0.</param>
/// <param name="TemperatureDriftC">How far the temperature moved during the test, either way; 0 when not given.</param>
/// <param name="AirPressureKPa">Pressure of the air outside, absolute; 101.325 when not given (ISO 2533, sea level).</param>
/// <param name="AirTemperatureC">Temperature of the air, 20 when not given.</param>
public sealed record HoldTestInput(
    IReadOnlyList<PressureSample> Samples,
    double TestPressureKPa,
    double WindowS,
    double DropLimitKPa,
    double SettlingS,
    double TestVolumeML,
    double GaugeResolutionKPa,
    double? TemperatureDriftC = null,
    double? AirPressureKPa = null,
    double? AirTemperatureC = null
);

/// <summary>What a hold test says.</summary>
public enum HoldVerdict
{
    /// <summary>The test does not decide; see the doubts.</summary>
    CannotTell,

    /// <summary>The drop stays within the limit.</summary>
    Held,

    /// <summary>The drop is more than the limit.</summary>
    Leaks,
}

/// <summary>Why a hold test does not decide.</summary>
public enum HoldDoubt
{
    /// <summary>Fewer than three samples after settling.</summary>
    TooFewSamples,

    /// <summary>The samples after settling cover less than the window.</summary>
    TooShort,

    /// <summary>The gauge's step alone is more than the drop allowed.</summary>
    GaugeTooCoarse,

    /// <summary>The temperature moved enough to explain, or to hide, the drop.</summary>
    TemperatureDrift,

    /// <summary>The pressure never reached the test pressure.</summary>
    PressureTooLow,

    /// <summary>The pressure rose by more than the limit: heat, or a pump that still leaks in.</summary>
    PressureRose,

    /// <summary>It fell more than allowed from one reading to another, though not so that the gauge's step and the scatter prove
    /// it.</summary>
    FellAtOnce,

    /// <summary>The drop is so near the limit that the gauge's step and the scatter decide.</summary>
    Borderline,
}

/// <summary>When the pressure fell by more than it may.</summary>
/// <param name="FromS">Time of the reading before the fall.</param>
/// <param name="ToS">Time of the reading after it.</param>
/// <param name="DropKPa">How far it fell between them.</param>
public sealed record PressureFall(double FromS, double ToS, double DropKPa);

/// <summary>What a hold test says, with the numbers behind it.</summary>
/// <param name="Verdict">Held, leaks or cannot tell.</param>
/// <param name="Doubts">Why it cannot tell, the most useful first; empty otherwise.</param>
/// <param name="SamplesUsed">Samples after settling.</param>
/// <param name="SpanS">Seconds they cover.</param>
/// <param name="StartKPa">Fitted pressure at the end of settling; null with fewer than two samples.</param>
/// <param name="DropKPa">Drop over the window: of the fitted curve, or from reading to reading where it fell faster; negative for a
/// rise; null with fewer than two samples.</param>
/// <param name="DropUncertaintyKPa">Give or take on the drop: it holds the true drop at least 95 times in 100; null when two samples or
/// fewer leave it open.</param>
/// <param name="Fall">Where the pressure let go, when it fell by more than allowed between readings rather than evenly.</param>
/// <param name="HalfLifeS">Seconds in which the pressure halves; null when it does not fall.</param>
/// <param name="LeakMLPerMin">Leak at the start of the window as free air, in mL/min; 0 when the pressure does not fall.</param>
/// <param name="TemperatureEffectKPa">How much the given drift can move the pressure.</param>
public sealed record HoldTestResult(
    HoldVerdict Verdict,
    IReadOnlyList<HoldDoubt> Doubts,
    int SamplesUsed,
    double SpanS,
    double? StartKPa,
    double? DropKPa,
    double? DropUncertaintyKPa,
    PressureFall? Fall,
    double? HalfLifeS,
    double? LeakMLPerMin,
    double TemperatureEffectKPa
);

/// <summary>
/// Judges a hold test. The decay is fitted as p = p₀·e^(−t/τ), since a small leak passes air in proportion to the
/// pressure across it, and the drop is that of the fitted curve over the window. A valve that lets go does not follow
/// such a curve: the fall from reading to reading is looked at too, and the larger of both is what it lost.
/// </summary>
/// <remarks>
/// Uncertainty of the drop (JCGM 100, 5 and G.3): the covariance of the fit with the scatter about it, widened by
/// Student's t for the readings less two; together with a rectangular error of the gauge's step, of which as much is
/// taken as two readings leave, since the errors of rounding do not average out while the needle hardly moves.
/// Leak as free air: dn/dt of the shut-in volume by the gas law, Q = V·(dp/dt)/p_air. Temperature: a sealed volume's
/// absolute pressure goes with absolute temperature, Δp = (p + p_air)·ΔT/T, about 0.5 kPa a degree at 48 kPa.
/// Default test 48 kPa for 10 s on float types: common practice, no source.
/// </remarks>
public static class HoldTest
{
    /// <summary>Standard air pressure at sea level in kPa. Source: ISO 2533.</summary>
    public const double StandardAirKPa = 101.325;

    private const double ZeroCelsiusK = 273.15;
    private const double SlackS = 1e-9;
    private const double SlackKPa = 1e-9;
    private const int FewestSamples = 3;

    /// <summary>Fewer readings than this do not show by themselves how far they scatter about a fall.</summary>
    private const int FewestToKnowScatter = 5;

    /// <summary>A fall between two readings describes the test when it leaves no more than this share of the squares the curve leaves.
    /// Own judgement.</summary>
    private const double LetGoShare = 0.25;

    /// <summary>How far a gauge is misread at most, as a standard deviation in steps and in kPa, the less of both, while the readings are too
    /// few to show it. Own judgement.</summary>
    private const double WorstReadingSteps = 10;
    private const double WorstReadingKPa = 5;

    /// <summary>How many standard deviations of misreading a fall between two of few readings is more than. Own judgement: the largest of
    /// six differences is meant.</summary>
    private const double FewReadingsSpread = 4;

    /// <summary>What is wrong with an input, field by field; empty when it can be judged.</summary>
    public static IReadOnlyList<FieldProblem> Check(HoldTestInput input)
    {
        var problems = new List<FieldProblem>();
        problems.AboveZero(input.TestPressureKPa, "testPressureKPa", 500, "kPa");
        problems.AboveZero(input.WindowS, "windowS", 3600, "s");
        problems.AboveZero(input.DropLimitKPa, "dropLimitKPa", 500, "kPa");
        problems.AboveZero(input.TestVolumeML, "testVolumeML", 100_000, "mL");
        problems.AboveZero(input.GaugeResolutionKPa, "gaugeResolutionKPa", 100, "kPa");
        problems.AboveZero(input.AirPressureKPa ?? StandardAirKPa, "airPressureKPa", 120, "kPa");
        if (!double.IsFinite(input.SettlingS) || input.SettlingS < 0 || input.SettlingS > 600)
        {
            problems.Add(new("settlingS", "Must be from 0 to 600 s."));
        }

        if (input.TemperatureDriftC is { } drift && (!double.IsFinite(drift) || Math.Abs(drift) > 60))
        {
            problems.Add(new("temperatureDriftC", "Must be from -60 to 60 °C; it is how far the temperature moved, not the temperature."));
        }

        if (input.AirTemperatureC is { } air && (!double.IsFinite(air) || air < -40 || air > 60))
        {
            problems.Add(new("airTemperatureC", "Must be from -40 to 60 °C."));
        }

        if (input.Samples.Count > MostSamples)
        {
            problems.Add(new("samples", $"Give no more than {MostSamples} readings."));
            return problems;
        }

        for (var i = 0; i < input.Samples.Count; i++)
        {
            var (time, pressure) = input.Samples[i];
            if (!double.IsFinite(time) || time < 0 || time > 7200)
            {
                problems.Add(new($"samples[{i}].timeS", "A time is from 0 to 7200 s."));
            }

            if (!double.IsFinite(pressure) || pressure < 0 || pressure > 700)
            {
                problems.Add(new($"samples[{i}].pressureKPa", "A gauge pressure is from 0 to 700 kPa. Check the unit."));
            }
        }

        if (input.Samples.GroupBy(sample => sample.TimeS).Any(same => same.Select(sample => sample.PressureKPa).Distinct().Count() > 1))
        {
            problems.Add(new("samples", "Two pressures at the same time. Take one out or correct its time."));
        }

        return problems;
    }

    /// <summary>Judges a checked input.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with it.</exception>
    public static HoldTestResult Judge(HoldTestInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var air = input.AirPressureKPa ?? StandardAirKPa;
        double Temperature(double pressure) =>
            TemperatureEffectKPa(pressure, Math.Abs(input.TemperatureDriftC ?? 0), air, input.AirTemperatureC ?? 20);
        var used = input
            .Samples.Where(sample => sample.TimeS >= input.SettlingS - SlackS)
            .OrderBy(sample => sample.TimeS)
            .Distinct()
            .ToList();
        var span = used.Count == 0 ? 0 : used[^1].TimeS - used[0].TimeS;
        if (NothingFell(input) is { } steady && (steady.Lost.HighKPa <= input.DropLimitKPa + SlackKPa || used.Count < 2 || span <= 0))
        {
            return JudgeSteady(input, steady, Temperature(steady.KPa));
        }

        if (used.Count < 2 || span <= 0)
        {
            return new HoldTestResult(
                HoldVerdict.CannotTell,
                [HoldDoubt.TooFewSamples],
                used.Count,
                span,
                null,
                null,
                null,
                null,
                null,
                null,
                Temperature(used.Count > 0 ? used[0].PressureKPa : input.TestPressureKPa)
            );
        }

        var fit = DecayFit.Of(used, input.SettlingS, input.WindowS);
        var temperature = Temperature(fit.StartKPa);
        var fall = LargestFall(used, input.WindowS);
        var splits = Splits.Of(used, input.GaugeResolutionKPa);
        var fallUncertainty = FallUncertaintyKPa(used.Count, splits.LeastSquares, input.GaugeResolutionKPa);
        var atLeast = fall.DropKPa - fallUncertainty;
        var fell = used.Count >= FewestSamples && atLeast - temperature > input.DropLimitKPa;
        var letGo =
            fell && used.Count >= FewestToKnowScatter && fall.DropKPa > fit.DropKPa && splits.LeastSquares <= LetGoShare * fit.SquaresKPa2;
        var lost = letGo ? new Range(atLeast, fall.DropKPa + fallUncertainty) : Lost(input, used, fit, splits, fall);
        // The curve where the readings allow it, else where it let go.
        var drop =
            letGo ? fall.DropKPa
            : used.Count >= FewestToKnowScatter && splits.RulesOut(fit.SquaresKPa2, splits.LeastSquares) ? splits.BestFallKPa
            : fit.DropKPa;
        var proven =
            fell || (span >= input.WindowS - SlackS && lost is { } sure && sure.LowKPa - temperature > input.DropLimitKPa + SlackKPa);
        var doubts = proven
            ? []
            : Doubts(
                input,
                used.Count,
                span,
                fit,
                drop,
                fall.DropKPa - (2 * Math.Sqrt(2) * Scatter(used.Count, fit, splits)),
                lost,
                temperature
            );
        return new HoldTestResult(
            proven ? HoldVerdict.Leaks
                : doubts.Count > 0 ? HoldVerdict.CannotTell
                : HoldVerdict.Held,
            doubts,
            used.Count,
            span,
            fit.StartKPa,
            drop,
            lost?.About(drop),
            letGo ? Steepest(used, fall) : null,
            fit.Falls ? SteadyMath.Log(2) / fit.RatePerS : null,
            fit.Falls ? LeakMLPerMin(input.TestVolumeML, fit.StartKPa * fit.RatePerS, air) : 0,
            temperature
        );
    }

    /// <summary>What was lost over the window lies between these, in kPa.</summary>
    private readonly record struct Range(double LowKPa, double HighKPa)
    {
        public Range And(Range other) => new(Math.Min(LowKPa, other.LowKPa), Math.Max(HighKPa, other.HighKPa));

        /// <summary>Give or take on an estimate within it that reaches both ends.</summary>
        public double About(double estimateKPa) => Math.Max(HighKPa - estimateKPa, estimateKPa - LowKPa);
    }

    /// <summary>What was lost, as every account of the readings has it that they do not rule out: a curve, an even fall, or letting go at any
    /// place; null with two readings that differ.</summary>
    private static Range? Lost(HoldTestInput input, List<PressureSample> used, DecayFit fit, Splits splits, PressureFall fall)
    {
        var step = input.GaugeResolutionKPa;
        if (fit.DropUncertaintyKPa(step) is not { } uncertainty)
        {
            return null;
        }

        var curve = new Range(fit.DropKPa - uncertainty, fit.DropKPa + uncertainty);
        if (used.Count < FewestToKnowScatter)
        {
            // Of few readings nobody can say how far they scatter about letting go: what was seen to fall may be lost, with what they scatter.
            return curve with { HighKPa = Math.Max(curve.HighKPa, fall.DropKPa + step + (FewReadingsSpread * fit.ScatterKPa)) };
        }

        var even = EvenFall.Of(used, input.WindowS, step);
        var best = Math.Min(splits.LeastSquares, Math.Min(fit.SquaresKPa2, even.SquaresKPa2));
        Range[] lost =
        [
            .. splits.RulesOut(fit.SquaresKPa2, best) ? Array.Empty<Range>() : [curve],
            .. splits.RulesOut(even.SquaresKPa2, best)
                ? Array.Empty<Range>()
                : [new Range(even.DropKPa - even.DropUncertaintyKPa, even.DropKPa + even.DropUncertaintyKPa)],
            .. splits.Ranges(best).Select(range => new Range(range.LowKPa, range.HighKPa)),
        ];
        // Where it rises all at once no account of a fall is left, and the curve says so.
        return lost.Length == 0 ? curve : lost.Aggregate((one, other) => one.And(other));
    }

    /// <summary>What was lost where no reading differs from another by more than the gauge's step, over the window or longer; null where
    /// one does. Readings while it settles count as well, for nothing fell then either.</summary>
    private static (double KPa, int Count, double SpanS, double FellKPa, Range Lost)? NothingFell(HoldTestInput input)
    {
        var settled = input.Samples.Where(sample => sample.TimeS >= input.SettlingS - SlackS).ToList();
        foreach (var samples in (IReadOnlyList<PressureSample>[])[settled, input.Samples])
        {
            if (samples.Count < 2)
            {
                continue;
            }

            var span = samples.Max(sample => sample.TimeS) - samples.Min(sample => sample.TimeS);
            var (low, high) = (samples.Min(sample => sample.PressureKPa), samples.Max(sample => sample.PressureKPa));
            var apart = high - low;
            if (span >= input.WindowS - SlackS && apart <= input.GaugeResolutionKPa + SlackKPa)
            {
                var (first, last) = (samples.MinBy(sample => sample.TimeS)!, samples.MaxBy(sample => sample.TimeS)!);
                var fell = first.PressureKPa > last.PressureKPa ? apart * input.WindowS / Math.Max(span, input.WindowS) : 0;
                return (
                    first.PressureKPa,
                    samples.Distinct().Count(),
                    span,
                    fell,
                    new Range(fell - input.GaugeResolutionKPa, apart + input.GaugeResolutionKPa)
                );
            }
        }

        return null;
    }

    private static HoldTestResult JudgeSteady(
        HoldTestInput input,
        (double KPa, int Count, double SpanS, double FellKPa, Range Lost) steady,
        double temperature
    )
    {
        var doubts = new List<HoldDoubt>();
        if (steady.Lost.HighKPa > input.DropLimitKPa + SlackKPa)
        {
            doubts.Add(HoldDoubt.GaugeTooCoarse);
        }

        if (steady.KPa < input.TestPressureKPa - input.DropLimitKPa - SlackKPa)
        {
            doubts.Add(HoldDoubt.PressureTooLow);
        }

        if (temperature > 0 && steady.FellKPa + temperature > input.DropLimitKPa)
        {
            doubts.Add(HoldDoubt.TemperatureDrift);
        }

        if (doubts.Count == 0 && steady.Lost.HighKPa + temperature > input.DropLimitKPa + SlackKPa)
        {
            doubts.Add(HoldDoubt.Borderline);
        }

        return new HoldTestResult(
            doubts.Count > 0 ? HoldVerdict.CannotTell : HoldVerdict.Held,
            doubts,
            steady.Count,
            steady.SpanS,
            steady.KPa,
            steady.FellKPa,
            steady.Lost.About(steady.FellKPa),
            null,
            null,
            0,
            temperature
        );
    }

    /// <summary>Most readings that are taken: two hours of seven a second.</summary>
    private const int MostSamples = 50_000;

    /// <summary>How far a temperature change moves the gauge pressure of a sealed volume, in kPa.</summary>
    /// <param name="gaugeKPa">Gauge pressure in kPa.</param>
    /// <param name="changeC">Temperature change in °C.</param>
    /// <param name="airKPa">Absolute pressure of the air outside in kPa.</param>
    /// <param name="airC">Temperature at the start in °C.</param>
    public static double TemperatureEffectKPa(double gaugeKPa, double changeC, double airKPa = StandardAirKPa, double airC = 20) =>
        (gaugeKPa + airKPa) * changeC / (airC + ZeroCelsiusK);

    /// <summary>A leak as free air in mL/min, from the shut-in volume and how fast its pressure falls.</summary>
    /// <param name="volumeML">Shut-in volume in mL.</param>
    /// <param name="fallKPaPerS">Fall of pressure in kPa a second.</param>
    /// <param name="airKPa">Absolute pressure of the air outside in kPa.</param>
    public static double LeakMLPerMin(double volumeML, double fallKPaPerS, double airKPa = StandardAirKPa) =>
        volumeML * fallKPaPerS * 60 / airKPa;

    private static double Scatter(int readings, DecayFit fit, Splits splits) =>
        readings < FewestToKnowScatter ? fit.ScatterKPa : Math.Sqrt(splits.LeastSquares / (readings - 3));

    private static List<HoldDoubt> Doubts(
        HoldTestInput input,
        int samples,
        double span,
        DecayFit fit,
        double drop,
        double plainFallKPa,
        Range? lost,
        double temperature
    )
    {
        var doubts = new List<HoldDoubt>();
        void When(bool doubted, HoldDoubt doubt)
        {
            if (doubted)
            {
                doubts.Add(doubt);
            }
        }

        var over = drop - input.DropLimitKPa;
        When(samples < FewestSamples, HoldDoubt.TooFewSamples);
        When(span < input.WindowS - SlackS, HoldDoubt.TooShort);
        When(DecayFit.StepUncertaintyKPa(input.GaugeResolutionKPa) > input.DropLimitKPa + SlackKPa, HoldDoubt.GaugeTooCoarse);
        When(fit.StartKPa < input.TestPressureKPa - input.DropLimitKPa - SlackKPa && over <= SlackKPa, HoldDoubt.PressureTooLow);
        When(fit.DropKPa < -input.DropLimitKPa, HoldDoubt.PressureRose);
        When(temperature > 0 && Math.Abs(over) < temperature, HoldDoubt.TemperatureDrift);
        if (doubts.Count == 0 && lost is { } open && open.HighKPa + temperature > input.DropLimitKPa + SlackKPa)
        {
            doubts.Add(plainFallKPa > input.DropLimitKPa + SlackKPa ? HoldDoubt.FellAtOnce : HoldDoubt.Borderline);
        }

        return doubts;
    }

    /// <summary>The largest fall between two samples no further apart than the window.</summary>
    private static PressureFall LargestFall(List<PressureSample> used, double windowS)
    {
        var largest = new PressureFall(used[0].TimeS, used[0].TimeS, 0);
        // Places of earlier pressures, each lower than the one before it: the first is the highest within the window.
        var highest = new LinkedList<int>([0]);
        for (var later = 1; later < used.Count; later++)
        {
            while (highest.First is { } gone && used[later].TimeS - used[gone.Value].TimeS > windowS + SlackS)
            {
                highest.RemoveFirst();
            }

            if (
                highest.First is { Value: var earlier }
                && used[earlier].PressureKPa - used[later].PressureKPa is var drop
                && drop > largest.DropKPa
            )
            {
                largest = new PressureFall(used[earlier].TimeS, used[later].TimeS, drop);
            }

            while (highest.Last is { } last && used[last.Value].PressureKPa <= used[later].PressureKPa)
            {
                highest.RemoveLast();
            }

            highest.AddLast(later);
        }

        return largest;
    }

    /// <summary>Within the largest fall, the two neighbours between which it fell most: there it let go.</summary>
    private static PressureFall Steepest(List<PressureSample> used, PressureFall fall) =>
        used.Zip(used.Skip(1), (before, after) => new PressureFall(before.TimeS, after.TimeS, before.PressureKPa - after.PressureKPa))
            .Where(step => step.FromS >= fall.FromS && step.ToS <= fall.ToS)
            .MaxBy(step => step.DropKPa)!;

    /// <summary>
    /// Give or take on the fall between two readings that was looked for among all of them: the scatter about a
    /// pressure that falls once, widened by Student's t for the places where it may (Bonferroni), and the gauge's step. Of
    /// few readings the scatter is not known, and the worst a gauge is misread stands for it.
    /// </summary>
    private static double FallUncertaintyKPa(int readings, double splitSquares, double resolution)
    {
        var step = resolution * resolution / 12;
        if (readings < FewestToKnowScatter)
        {
            var worst = Math.Min(WorstReadingSteps * resolution, WorstReadingKPa);
            return FewReadingsSpread * Math.Sqrt((worst * worst) + step);
        }

        var freedom = readings - 3;
        // The step is added whole: no reading is off by more than half of it, and two of them make the fall.
        return (StudentT.InvCDF(0, 1, freedom, 1 - (0.01 / (readings - 1))) * Math.Sqrt(2 * splitSquares / freedom)) + resolution;
    }
}
