using System.Globalization;

namespace BlueDawn.Core.Measures;

/// <summary>One gauge pin.</summary>
/// <param name="Label">How it is marked: <c>0.315</c> or <c>#81</c>.</param>
/// <param name="DiameterMm">Diameter in millimetres.</param>
public sealed record Pin(string Label, decimal DiameterMm);

/// <summary>The pins a technician owns, smallest first, no size twice.</summary>
public sealed class PinSet
{
    private const int MostPins = 2000;

    private PinSet(IReadOnlyList<Pin> pins) => Pins = pins;

    /// <summary>The pins, smallest first.</summary>
    public IReadOnlyList<Pin> Pins { get; }

    /// <summary>A technician who owns no pins.</summary>
    public static PinSet Empty { get; } = new([]);

    /// <summary>A set from sizes alone, labelled by their millimetres.</summary>
    /// <param name="diametersMm">Diameters in millimetres, any order; sizes of zero or less are left out.</param>
    public static PinSet OfMm(IEnumerable<decimal> diametersMm) =>
        From(diametersMm.Where(mm => mm > 0).Select(mm => new Pin(mm.ToString("0.####", CultureInfo.InvariantCulture) + " mm", mm)));

    /// <summary>
    /// Reads a set as its owner describes it: sizes and ranges, separated by commas or new lines, such as
    /// <c>#61-#80, 0.30-1.00 by 0.05, 0.315</c>.
    /// </summary>
    public static Parsed<PinSet> Parse(string? text)
    {
        var pins = new List<Pin>();
        foreach (var part in (text ?? "").Split([',', ';', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var added = ParsePart(part);
            if (!added.IsRight)
            {
                return Parsed<PinSet>.Wrong($"“{part}”: {added.Problem}");
            }

            pins.AddRange(added.Value!);
            if (pins.Count > MostPins)
            {
                return Parsed<PinSet>.Wrong($"That is more than {MostPins} pins. Make the steps larger.");
            }
        }

        return Parsed<PinSet>.Right(From(pins));
    }

    private static PinSet From(IEnumerable<Pin> pins) =>
        new(pins.GroupBy(pin => pin.DiameterMm).Select(same => same.First()).OrderBy(pin => pin.DiameterMm).ToList());

    private static Parsed<List<Pin>> ParsePart(string part)
    {
        var ends = part.Split(" by ", 2, StringSplitOptions.TrimEntries);
        var range = ends[0].Split('-', 2, StringSplitOptions.TrimEntries);
        var first = ParseSize(range[0]);
        if (!first.IsRight || range.Length == 1)
        {
            return first.IsRight ? Parsed<List<Pin>>.Right([first.Value!]) : Parsed<List<Pin>>.Wrong(first.Problem!);
        }

        var last = ParseSize(range[1]);
        if (!last.IsRight)
        {
            return Parsed<List<Pin>>.Wrong(last.Problem!);
        }

        if (ends.Length == 1)
        {
            return DrillRange(first.Value!, last.Value!);
        }

        var step = MeasureEntry.Parse(ends[1], Dimension.Length);
        if (!step.IsRight || step.Value <= 0)
        {
            return Parsed<List<Pin>>.Wrong("the step after “by” must be a size above zero.");
        }

        var (low, high) = (
            Math.Min(first.Value!.DiameterMm, last.Value!.DiameterMm),
            Math.Max(first.Value.DiameterMm, last.Value.DiameterMm)
        );
        if ((high - low) / step.Value > MostPins)
        {
            return Parsed<List<Pin>>.Wrong($"more than {MostPins} pins. Make the step larger.");
        }

        var pins = new List<Pin>();
        for (var mm = low; mm <= high; mm += step.Value)
        {
            pins.Add(MmPin(mm));
        }

        return Parsed<List<Pin>>.Right(pins);
    }

    private static Parsed<List<Pin>> DrillRange(Pin first, Pin last)
    {
        var (a, b) = (DrillNumber(first), DrillNumber(last));
        if (a is null || b is null)
        {
            return Parsed<List<Pin>>.Wrong("say the step, for example 0.30-1.00 by 0.05.");
        }

        return Parsed<List<Pin>>.Right(
            Enumerable
                .Range(Math.Min(a.Value, b.Value), Math.Abs(a.Value - b.Value) + 1)
                .Select(n => NumberDrills.Find(n)!)
                .Select(drill => new Pin(drill.Label, drill.DiameterMm))
                .ToList()
        );
    }

    private static int? DrillNumber(Pin pin) =>
        pin.Label.StartsWith('#') ? int.Parse(pin.Label.AsSpan(1), CultureInfo.InvariantCulture) : null;

    private static Parsed<Pin> ParseSize(string text)
    {
        var size = MeasureEntry.Parse(text, Dimension.Length);
        if (!size.IsRight)
        {
            return Parsed<Pin>.Wrong(size.Problem!);
        }

        if (size.Value <= 0 || size.Value > 25m)
        {
            return Parsed<Pin>.Wrong("a pin is thicker than 0 and no thicker than 25 mm.");
        }

        var drill = text.StartsWith('#') ? NumberDrills.All.FirstOrDefault(d => d.DiameterMm == size.Value) : null;
        return Parsed<Pin>.Right(drill is null ? MmPin(size.Value) : new Pin(drill.Label, drill.DiameterMm));
    }

    private static Pin MmPin(decimal mm) => new(mm.ToString("0.####", CultureInfo.InvariantCulture) + " mm", mm);
}
