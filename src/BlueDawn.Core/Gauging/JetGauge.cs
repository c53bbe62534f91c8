using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Gauging;

/// <summary>What the pins say of a bore.</summary>
public enum BoreVerdict
{
    /// <summary>The bore may be on either side of an edge of the window.</summary>
    CannotTell,

    /// <summary>Every bore the reading allows is inside the window.</summary>
    InGauge,

    /// <summary>Every bore the reading allows is below the window.</summary>
    Restricted,

    /// <summary>Every bore the reading allows is above the window.</summary>
    OpenedUp,
}

/// <summary>The bores a reading allows, in millimetres.</summary>
/// <param name="LowMm">Smallest possible bore; the bore may be exactly this. Zero when nothing is known below.</param>
/// <param name="HighMm">Upper end, or null when nothing is known above.</param>
/// <param name="IncludesHigh">Whether the bore may be exactly <paramref name="HighMm"/>: true for a direct reading, false for a pin that
/// stops.</param>
public sealed record BoreBounds(decimal LowMm, decimal? HighMm, bool IncludesHigh)
{
    /// <summary>
    /// Bounds from pins: the bore is at least the largest pin that goes and less than the smallest that does not.
    /// </summary>
    public static BoreBounds FromPins(decimal? goPinMm, decimal? noGoPinMm) => new(goPinMm ?? 0m, noGoPinMm, false);

    /// <summary>Bounds from an instrument: the reading give or take half its resolution, never below zero.</summary>
    public static BoreBounds FromDirect(decimal boreMm, decimal resolutionMm) =>
        new(Math.Max(0m, boreMm - (resolutionMm / 2m)), boreMm + (resolutionMm / 2m), true);
}

/// <summary>A reading of one bore and what it is held against; lengths in millimetres.</summary>
/// <param name="NominalBoreMm">The bore on the spec sheet.</param>
/// <param name="ToleranceMm">Allowed either way of the nominal, 0 or more and less than the nominal.</param>
/// <param name="GoPinMm">Largest pin that goes, above 0 and at most 25.</param>
/// <param name="NoGoPinMm">Smallest pin that does not go, larger than the go pin.</param>
/// <param name="BoreMm">A direct reading instead of pins.</param>
/// <param name="ResolutionMm">The instrument's smallest step; 0.01 when not given.</param>
/// <param name="PinsMm">The sizes at hand, from which the deciding pin is named.</param>
public sealed record JetGaugeInput(
    decimal NominalBoreMm,
    decimal ToleranceMm,
    decimal? GoPinMm = null,
    decimal? NoGoPinMm = null,
    decimal? BoreMm = null,
    decimal? ResolutionMm = null,
    IReadOnlyList<decimal>? PinsMm = null
);

/// <summary>The pin to try next and what each answer would prove.</summary>
/// <param name="Label">The pin as it is marked.</param>
/// <param name="DiameterMm">Its diameter in millimetres.</param>
/// <param name="IfItGoes">The verdict when it goes.</param>
/// <param name="IfItStops">The verdict when it stops.</param>
public sealed record DecidingPin(string Label, decimal DiameterMm, BoreVerdict IfItGoes, BoreVerdict IfItStops);

/// <summary>What a bore reading proves.</summary>
/// <param name="Verdict">In gauge, restricted, opened up or cannot tell.</param>
/// <param name="BoreLowMm">Smallest possible bore.</param>
/// <param name="BoreHighMm">Largest possible bore, or null when nothing bounds it.</param>
/// <param name="WindowLowMm">Lower edge of the window, itself inside.</param>
/// <param name="WindowHighMm">Upper edge of the window, itself inside.</param>
/// <param name="AreaLowPercent">Smallest possible area against the nominal area, in percent.</param>
/// <param name="AreaHighPercent">Largest possible area against the nominal area, in percent, or null.</param>
/// <param name="NearestDrill">The number drill nearest to the middle of the bounds, or to the only bound.</param>
/// <param name="NearestDrillMm">Its diameter in millimetres.</param>
/// <param name="DecidingPin">When it cannot be told: the pin at hand that would settle most, or null when none lies between.</param>
/// <param name="DecidingSizeMm">When it cannot be told: the edge of the window that lies inside the bounds.</param>
public sealed record JetGaugeResult(
    BoreVerdict Verdict,
    decimal BoreLowMm,
    decimal? BoreHighMm,
    decimal WindowLowMm,
    decimal WindowHighMm,
    double AreaLowPercent,
    double? AreaHighPercent,
    int NearestDrill,
    decimal NearestDrillMm,
    DecidingPin? DecidingPin,
    decimal? DecidingSizeMm
);

/// <summary>Judges a bore from pins or a direct reading. All arithmetic on sizes is decimal, so an edge is an edge.</summary>
public static class JetGauge
{
    /// <summary>Resolution assumed for a direct reading when none is given, in millimetres. Common practice, no source.</summary>
    public const decimal DefaultResolutionMm = 0.01m;

    /// <summary>Largest bore or pin accepted, in millimetres.</summary>
    public const decimal LargestMm = 25m;

    /// <summary>What is wrong with a reading, field by field; empty when it can be judged.</summary>
    public static IReadOnlyList<FieldProblem> Check(JetGaugeInput input)
    {
        var problems = new List<FieldProblem>(CheckReading(input.GoPinMm, input.NoGoPinMm, input.BoreMm, input.ResolutionMm));
        if (input.NominalBoreMm is <= 0 or > LargestMm)
        {
            problems.Add(new("nominalBoreMm", $"The nominal bore must be above 0 and no more than {LargestMm} mm. Check the unit."));
        }

        if (input.ToleranceMm < 0 || input.ToleranceMm >= input.NominalBoreMm)
        {
            problems.Add(new("toleranceMm", "The tolerance must be 0 or more and less than the nominal bore."));
        }

        if (input.PinsMm?.Any(mm => mm <= 0 || mm > LargestMm) == true)
        {
            problems.Add(new("pinsMm", $"Every pin must be above 0 and no more than {LargestMm} mm."));
        }

        return problems;
    }

    /// <summary>What is wrong with a reading of a bore, whatever it should be; empty when it can be judged.</summary>
    /// <param name="goPinMm">Largest pin that goes, in millimetres.</param>
    /// <param name="noGoPinMm">Smallest pin that stops.</param>
    /// <param name="boreMm">A direct reading instead.</param>
    /// <param name="resolutionMm">The instrument's smallest step.</param>
    public static IReadOnlyList<FieldProblem> CheckReading(decimal? goPinMm, decimal? noGoPinMm, decimal? boreMm, decimal? resolutionMm)
    {
        var problems = new List<FieldProblem>();
        void Size(decimal? mm, string field, string what)
        {
            if (mm is { } size && (size <= 0 || size > LargestMm))
            {
                problems.Add(new(field, $"{what} must be above 0 and no more than {LargestMm} mm. Check the unit."));
            }
        }

        Size(goPinMm, "goPinMm", "A pin");
        Size(noGoPinMm, "noGoPinMm", "A pin");
        Size(boreMm, "boreMm", "A bore");
        if (resolutionMm is { } resolution && (resolution <= 0 || resolution > 1m))
        {
            problems.Add(new("resolutionMm", "The instrument's resolution must be above 0 and no more than 1 mm."));
        }

        if (boreMm is null && goPinMm is null && noGoPinMm is null)
        {
            problems.Add(new("goPinMm", "Enter the largest pin that goes, the smallest that stops, or a direct bore."));
        }

        if (boreMm is not null && (goPinMm is not null || noGoPinMm is not null))
        {
            problems.Add(new("boreMm", "Enter either pins or a direct bore, not both."));
        }

        if (goPinMm >= noGoPinMm)
        {
            problems.Add(new("noGoPinMm", "The pin that stops must be larger than the pin that goes. Swap them, or try both again."));
        }

        return problems;
    }

    /// <summary>Judges a checked input.</summary>
    /// <exception cref="ArgumentException"><see cref="Check"/> finds something wrong with it.</exception>
    public static JetGaugeResult Judge(JetGaugeInput input)
    {
        if (Check(input) is [var problem, ..])
        {
            throw new ArgumentException(problem.Message, nameof(input));
        }

        var bounds = input.BoreMm is { } bore
            ? BoreBounds.FromDirect(bore, input.ResolutionMm ?? DefaultResolutionMm)
            : BoreBounds.FromPins(input.GoPinMm, input.NoGoPinMm);
        return Judge(bounds, input.NominalBoreMm, input.ToleranceMm, PinSet.OfMm(input.PinsMm ?? []));
    }

    /// <summary>Judges bounds against a nominal bore and its tolerance.</summary>
    /// <param name="bounds">What the reading allows.</param>
    /// <param name="nominalMm">Nominal bore in millimetres, above 0.</param>
    /// <param name="toleranceMm">Allowed either way, in millimetres.</param>
    /// <param name="pins">The pins at hand.</param>
    public static JetGaugeResult Judge(BoreBounds bounds, decimal nominalMm, decimal toleranceMm, PinSet pins)
    {
        var (low, high) = (nominalMm - toleranceMm, nominalMm + toleranceMm);
        var verdict = Place(bounds, low, high);
        var undecided = verdict == BoreVerdict.CannotTell;
        var centre = bounds.HighMm is { } top ? (bounds.LowMm == 0 ? top : (bounds.LowMm + top) / 2m) : bounds.LowMm;
        var drill = NumberDrills.Nearest(centre);
        return new JetGaugeResult(
            verdict,
            bounds.LowMm,
            bounds.HighMm,
            low,
            high,
            AreaPercent(bounds.LowMm, nominalMm),
            bounds.HighMm is { } bound ? AreaPercent(bound, nominalMm) : null,
            drill.Number,
            drill.DiameterMm,
            undecided ? Decide(bounds, low, high, pins) : null,
            undecided ? EdgeInside(bounds, low, high) : null
        );
    }

    /// <summary>Area of a bore against the area of another, in percent: the square of the ratio of diameters.</summary>
    public static double AreaPercent(decimal boreMm, decimal nominalMm)
    {
        var ratio = (double)(boreMm / nominalMm);
        return 100 * ratio * ratio;
    }

    private static BoreVerdict Place(BoreBounds bounds, decimal low, decimal high)
    {
        if (bounds.LowMm > high)
        {
            return BoreVerdict.OpenedUp;
        }

        if (bounds.HighMm is not { } top)
        {
            return BoreVerdict.CannotTell;
        }

        if (bounds.IncludesHigh ? top < low : top <= low)
        {
            return BoreVerdict.Restricted;
        }

        return bounds.LowMm >= low && top <= high ? BoreVerdict.InGauge : BoreVerdict.CannotTell;
    }

    /// <summary>Two pins nearer than this are one to the hand: own judgement.</summary>
    private const decimal LeastStepMm = 0.005m;

    /// <summary>
    /// Of the pins inside the bounds and not next to one, the one whose two answers settle most; among equals the one nearest
    /// to an edge of the window.
    /// </summary>
    private static DecidingPin? Decide(BoreBounds bounds, decimal low, decimal high, PinSet pins)
    {
        DecidingPin? best = null;
        var (bestSettled, bestDistance) = (-1, decimal.MaxValue);
        foreach (var pin in pins.Pins)
        {
            if (pin.DiameterMm < bounds.LowMm + LeastStepMm || (bounds.HighMm is { } top && pin.DiameterMm > top - LeastStepMm))
            {
                continue;
            }

            var goes = Place(bounds with { LowMm = pin.DiameterMm }, low, high);
            var stops = Place(new BoreBounds(bounds.LowMm, pin.DiameterMm, false), low, high);
            var settled = (goes == BoreVerdict.CannotTell ? 0 : 1) + (stops == BoreVerdict.CannotTell ? 0 : 1);
            var distance = Math.Min(Math.Abs(pin.DiameterMm - low), Math.Abs(pin.DiameterMm - high));
            if (settled > bestSettled || (settled == bestSettled && distance < bestDistance))
            {
                best = new DecidingPin(pin.Label, pin.DiameterMm, goes, stops);
                (bestSettled, bestDistance) = (settled, distance);
            }
        }

        return best;
    }

    private static decimal? EdgeInside(BoreBounds bounds, decimal low, decimal high)
    {
        bool Inside(decimal edge) =>
            edge > bounds.LowMm && (bounds.HighMm is not { } top || edge < top || (bounds.IncludesHigh && edge == top));
        return Inside(low) ? low
            : Inside(high) ? high
            : null;
    }
}
