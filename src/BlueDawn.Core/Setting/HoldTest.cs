using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Setting;

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
    double? AirTemperatureC = null);

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

    /// <summary>The gauge's step is larger than the drop allowed.</summary>
    GaugeTooCoarse,

    /// <summary>The temperature moved enough to explain, or to hide, the drop.</summary>
    TemperatureDrift,

    /// <summary>The pressure never reached the test pressure.</summary>
    PressureTooLow,

    /// <summary>The pressure rose by more than the limit: heat, or a pump that still leaks in.</summary>
    PressureRose,

    /// <summary>The drop is so near the limit that the gauge's step and the scatter decide.</summary>
    Borderline,
}

/// <summary>What a hold test says, with the numbers behind it.</summary>
/// <param name="Verdict">Held, leaks or cannot tell.</param>
/// <param name="Doubts">Why it cannot tell, the most useful first; empty otherwise.</param>
/// <param name="SamplesUsed">Samples after settling.</param>
/// <param name="SpanS">Seconds they cover.</param>
/// <param name="StartKPa">Fitted pressure at the end of settling; null with fewer than two samples.</param>
/// <param name="DropKPa">Fitted drop over the window; negative for a rise; null with fewer than two samples.</param>
/// <param name="DropUncertaintyKPa">Give or take on the drop: twice its standard error, or half the gauge's step when that is more.</param>
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
    double? HalfLifeS,
    double? LeakMLPerMin,
    double TemperatureEffectKPa);

/// <summary>
/// Judges a hold test: the decay is fitted as p = p₀·e^(−t/τ), since a small leak passes air in proportion to the
/// pressure across it; the drop is that of the fitted curve over the window.
/// </summary>
/// <remarks>
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

    /// <summary>What is wrong with an input, field by field; empty when it can be judged.</summary>
    public static IReadOnlyList<FieldProblem> Check(HoldTestInput input)
    {
        var problems = new List<FieldProblem>();
        void Above(double value, string field, double most, string unit)
        {
            if (!double.IsFinite(value) || value <= 0 || value > most)
            {
                problems.Add(new(field, $"Must be above 0 and no more than {most} {unit}."));
            }
        }

        Above(input.TestPressureKPa, "testPressureKPa", 500, "kPa");
        Above(input.WindowS, "windowS", 3600, "s");
        Above(input.DropLimitKPa, "dropLimitKPa", 500, "kPa");
        Above(input.TestVolumeML, "testVolumeML", 100_000, "mL");
        Above(input.GaugeResolutionKPa, "gaugeResolutionKPa", 100, "kPa");
        Above(input.AirPressureKPa ?? StandardAirKPa, "airPressureKPa", 120, "kPa");
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
        var temperatureEffect = TemperatureEffectKPa(
            input.TestPressureKPa, Math.Abs(input.TemperatureDriftC ?? 0), air, input.AirTemperatureC ?? 20);
        var used = input.Samples.Where(sample => sample.TimeS >= input.SettlingS - SlackS).OrderBy(sample => sample.TimeS).Distinct().ToList();
        var span = used.Count == 0 ? 0 : used[^1].TimeS - used[0].TimeS;
        if (used.Count < 2 || span <= 0)
        {
            return new HoldTestResult(HoldVerdict.CannotTell, [HoldDoubt.TooFewSamples], used.Count, span, null, null, null, null, null, temperatureEffect);
        }

        var fit = Fit(used, input);
        var uncertainty = Math.Max(2 * fit.DropErrorKPa, input.GaugeResolutionKPa / 2);
        var doubts = Doubts(input, used, span, fit, uncertainty, temperatureEffect);
        var verdict = doubts.Count > 0 ? HoldVerdict.CannotTell
            : fit.DropKPa <= input.DropLimitKPa + SlackKPa ? HoldVerdict.Held
            : HoldVerdict.Leaks;
        var falls = fit.RatePerS > 1e-12;
        return new HoldTestResult(
            verdict,
            doubts,
            used.Count,
            span,
            fit.StartKPa,
            fit.DropKPa,
            uncertainty,
            falls ? Math.Log(2) / fit.RatePerS : null,
            falls ? LeakMLPerMin(input.TestVolumeML, fit.StartKPa * fit.RatePerS, air) : 0,
            temperatureEffect);
    }

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

    private static List<HoldDoubt> Doubts(
        HoldTestInput input, List<PressureSample> used, double span, DecayFit fit, double uncertainty, double temperatureEffect)
    {
        var doubts = new List<HoldDoubt>();
        var overLimit = fit.DropKPa - input.DropLimitKPa;

        // A valve that has lost more than it may has leaked, however short the test or low the start: a longer test
        // at full pressure could only lose more. The other doubts protect a "held", and a "leaks" that is not proven.
        var provenDrop = LargestDropKPa(used, input.WindowS) - input.GaugeResolutionKPa - temperatureEffect;
        if (provenDrop > input.DropLimitKPa && used.Count >= FewestSamples)
        {
            return doubts;
        }

        if (used.Count < FewestSamples)
        {
            doubts.Add(HoldDoubt.TooFewSamples);
        }

        if (span < input.WindowS - SlackS)
        {
            doubts.Add(HoldDoubt.TooShort);
        }

        if (input.GaugeResolutionKPa > input.DropLimitKPa + SlackKPa)
        {
            doubts.Add(HoldDoubt.GaugeTooCoarse);
        }

        if (fit.StartKPa < input.TestPressureKPa - input.DropLimitKPa - SlackKPa && overLimit <= SlackKPa)
        {
            doubts.Add(HoldDoubt.PressureTooLow);
        }

        if (fit.DropKPa < -input.DropLimitKPa)
        {
            doubts.Add(HoldDoubt.PressureRose);
        }

        if (temperatureEffect > 0 && Math.Abs(overLimit) < temperatureEffect)
        {
            doubts.Add(HoldDoubt.TemperatureDrift);
        }

        if (doubts.Count == 0 && Math.Abs(overLimit) < uncertainty - SlackKPa)
        {
            doubts.Add(HoldDoubt.Borderline);
        }

        return doubts;
    }

    /// <summary>The largest fall between two samples no further apart than the window.</summary>
    private static double LargestDropKPa(List<PressureSample> used, double windowS)
    {
        var largest = 0.0;
        for (var later = 1; later < used.Count; later++)
        {
            for (var earlier = later - 1; earlier >= 0 && used[later].TimeS - used[earlier].TimeS <= windowS + SlackS; earlier--)
            {
                largest = Math.Max(largest, used[earlier].PressureKPa - used[later].PressureKPa);
            }
        }

        return largest;
    }

    private readonly record struct DecayFit(double StartKPa, double RatePerS, double DropKPa, double DropErrorKPa);

    /// <summary>
    /// Straight line through ln p by least squares, each point weighted by p² so that the gauge's step counts alike at
    /// every pressure; pressures at or below half a step count as half a step, where the logarithm would run away.
    /// </summary>
    private static DecayFit Fit(List<PressureSample> used, HoldTestInput input)
    {
        var least = input.GaugeResolutionKPa / 2;
        double sw = 0, st = 0, sy = 0;
        foreach (var (time, pressure) in used)
        {
            var p = Math.Max(pressure, least);
            var w = p * p;
            sw += w;
            st += w * time;
            sy += w * Math.Log(p);
        }

        var (meanT, meanY) = (st / sw, sy / sw);
        double stt = 0, sty = 0;
        foreach (var (time, pressure) in used)
        {
            var p = Math.Max(pressure, least);
            var w = p * p;
            stt += w * (time - meanT) * (time - meanT);
            sty += w * (time - meanT) * (Math.Log(p) - meanY);
        }

        var rate = -sty / stt;
        double Pressure(double time) => Math.Exp(meanY - (rate * (time - meanT)));
        var start = Pressure(used[0].TimeS);
        var drop = start - Pressure(used[0].TimeS + input.WindowS);
        var squares = used.Sum(sample => Math.Pow(sample.PressureKPa - Pressure(sample.TimeS), 2));
        var scatter = used.Count > 2 ? Math.Sqrt(squares / (used.Count - 2)) : 0;
        var rateError = scatter / Math.Sqrt(stt);
        return new DecayFit(start, rate, drop, start * input.WindowS * rateError);
    }
}
