using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using MathNet.Numerics;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.IntegralTransforms;

namespace BlueDawn.Bench;

/// <summary>Set: the whole verdict on one carburetor, and pops found in a long series.</summary>
internal static class SettingBench
{
    private const int Samples = 200_000;

    public static void Run(Func<Action, int, double> median)
    {
        var sheet = Sheets.Spec with
        {
            Float = Sheets.Spec.Float! with { Body = new FloatBody(14, 26, 1.8, 300, FloatShape.Lying, 20) },
            Feeds = new EngineSize(170, 3600),
        };
        var good = Sheets.AllGood();
        good["setting/float-drop"] = TypedReading.Of(("drop", "18"));
        good["setting/seat-bore"] = TypedReading.Of(("bore", "1.8"));
        var read = Sheets
            .LinesOf(sheet)
            .Where(line => line.Station == Station.Setting && good.ContainsKey(line.Key))
            .Select(line => (Line: line, line.Read(good[line.Key]).Reading))
            .ToList();
        var body = sheet.Float!.Body!;
        void Verdict()
        {
            foreach (var (line, reading) in read)
            {
                GC.KeepAlive(line.Judge(reading, PinSet.Empty));
            }

            GC.KeepAlive(FloatStanding.Of(sheet.Float, 14.2, 6.4));
        }

        var (whole, balance) = (
            median(Verdict, 101),
            median(
                () => GC.KeepAlive(FloatBalance.Of(new FloatBalanceInput(body.VolumeML, 6.2, body.ArmMm, 8, body.SeatBoreMm, 0.7475, 2.2))),
                101
            )
        );
        Console.WriteLine(
            $"Setting: {read.Count} lines of one carburetor judged, with where its fuel stands and what a bend, a seat, fuel inside and a pump do"
        );
        Console.WriteLine($"  the whole verdict                 {1000 * whole, 8:0.0} µs");
        Console.WriteLine($"  one float balance alone           {1000 * balance, 8:0.0} µs   {balance / whole, 6:0.000} of it");

        var series = Series();
        var transformed = series.Select(pressure => new Complex32((float)pressure, 0)).ToArray();
        var pops = 0;
        var find = median(() => pops = PopOff.Find(series, 0.5).Count, 11);
        var fft = median(() => Fourier.Forward(transformed, FourierOptions.Matlab), 11);
        const double Million = 1e6 / Samples;
        Console.WriteLine($"Pop-off: {pops} pops in {Samples} samples");
        Console.WriteLine($"  found                             {find * Million, 8:0} ms a million samples");
        Console.WriteLine(
            $"  one FFT of the same (MathNet)     {fft * Million, 8:0} ms a million samples   {find / fft, 6:0.00} times as long as it"
        );
    }

    private static List<double> Series()
    {
        var (random, series) = (new Random(11), new List<double>(Samples));
        double Seen(double kPa) => Math.Max(0, Math.Round((kPa + Normal.Sample(random, 0, 0.2)) * 2) / 2);
        while (series.Count < Samples)
        {
            for (var kPa = 70.0; kPa < 110 && series.Count < Samples; kPa += 0.5)
            {
                series.Add(Seen(kPa));
            }

            series.AddRange(Enumerable.Repeat(0, 6).Select((_, i) => Seen(i < 2 ? 110 - (20 * (i + 1)) : 70)).Take(Samples - series.Count));
        }

        return series;
    }
}
