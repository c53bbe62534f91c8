using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>Float heights around the float.</summary>
/// <param name="Points">Angle in degrees and height in millimetres.</param>
public sealed record FloatHeightReading(IReadOnlyList<HeightPoint> Points) : Reading;

/// <summary>Float height and evenness.</summary>
/// <param name="Float">The limits.</param>
/// <param name="SpecName">Where they are from.</param>
public sealed record FloatHeightLine(FloatSpec Float, string SpecName)
    : GaugeLine("setting/float-height", Station.Setting, "Float", "Float height")
{
    private static readonly string[] SuggestedAngles = ["0", "120", "240"];

    /// <inheritdoc/>
    public override string Part => "float";

    /// <inheritdoc/>
    public override Expected? ExpectedIn(string field) => field == "height" ? new((double)Float.HeightMm, Dimension.Length) : null;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of(
        "{0} ± {1}, even within {2}", Quantity.Mm(Float.HeightMm), Quantity.Mm(Float.ToleranceMm), Quantity.Mm(Float.UnevennessLimitMm));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Length, (double)(Float.HeightMm - Float.ToleranceMm), (double)(Float.HeightMm + Float.ToleranceMm));

    /// <inheritdoc/>
    public override string LimitSource => SpecName;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.OffTheNeedle;

    /// <inheritdoc/>
    public override EntryForm Form => new(
        [],
        new EntryRows(
            "Point",
            [
                EntryField.MeasureDetail("angle", "at angle", Dimension.Angle),
                EntryField.Measure("height", "height", Dimension.Length),
            ],
            2,
            SuggestedAngles.Select(angle => new Dictionary<string, string> { ["angle"] = angle }).ToList()));

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed with { Rows = typed.Rows.Where(row => row.TryGetValue("height", out var h) && !string.IsNullOrWhiteSpace(h)).ToList() });
        var points = reader.Rows(row => new HeightPoint(
            (double)row.Required("height", Dimension.Length, 0, 100),
            (double?)row.Optional("angle", Dimension.Angle, -360, 360)));
        if (points.Count == 0 && reader.Problems.Count == 0)
        {
            reader.Wrong("rows[0].height", "Enter the height at two points or more.");
        }

        if (points.Any(point => point.AngleDeg is null) && points.FindIndex(point => point.AngleDeg is not null) >= 0)
        {
            reader.Wrong($"rows[{points.FindIndex(point => point.AngleDeg is null)}].angle", "Note the angle at every height, or at none.");
        }

        return Result(reader, () => new FloatHeightReading(points));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading)
    {
        var heights = (reading as FloatHeightReading)?.Points ?? [];
        return new Sentence(string.Join(", ", heights.Select((_, i) => "{" + i + "}")), [.. heights.Select(p => Quantity.Mm(p.HeightMm))]);
    }

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not FloatHeightReading heights)
        {
            return Judgement.NotRead(Sentence.Of("Carburetor upside down, float resting: measure from body to float at two points or more."));
        }

        // Readings of before the angles were asked for together are judged as if none had been noted.
        var placed = heights.Points.All(point => point.AngleDeg is not null);
        var result = FloatLevel.Judge(new FloatLevelInput(
            placed ? heights.Points : [.. heights.Points.Select(point => point with { AngleDeg = null })],
            (double)Float.HeightMm,
            (double)Float.ToleranceMm,
            (double)Float.UnevennessLimitMm,
            (double)Float.TabArmMm,
            (double)Float.MeasuringArmMm));
        var toward = result.BendTowardNeedle == true;
        var (verdict, finding, word, lean, next) = result.Verdict switch
        {
            LevelVerdict.Level => (Verdict.Good, "level", "Level", Lean.None, Sentence.Of("Leave the tab. Check the drop and go on.")),
            LevelVerdict.TooHigh or LevelVerdict.TooLow => (
                Verdict.NotGood,
                toward ? "tooLow" : "tooHigh",
                toward ? "Too near the body" : "Too far from the body",
                toward ? Lean.Below : Lean.Above,
                Sentence.Of($"Bend the tab {{0}} {(toward ? "toward" : "away from")} the needle, then measure again.", Quantity.Mm(Math.Round(result.TabBendMm, 2)))),
            LevelVerdict.Uneven => (Verdict.NotGood, "uneven", "Uneven", Lean.None, Uneven(result)),
            LevelVerdict.CannotTell => (Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, Open(result, heights.Points.Count)),
        };
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Length, heights.Points.Min(p => p.HeightMm), heights.Points.Max(p => p.HeightMm)),
            Figures(result),
            Why(result, heights.Points.Count),
            []);
    }

    private static Sentence Open(FloatLevelResult result, int points) => points < 2 || result.UnevennessUncertaintyMm is null || result.MeanUncertaintyMm is null
        ? Sentence.Of("One more height, at {0}: so far one side of the float has not been looked at.", Quantity.Deg(result.NextAngleDeg ?? 0))
        : Sentence.Of("Too near the limit to say: measure once more, at {0}.", Quantity.Deg(result.NextAngleDeg ?? 0));

    private static Sentence Uneven(FloatLevelResult result) => result.HighSideDeg is { } side
        ? Sentence.Of("Straighten the float arms: it stands {0} higher at {1}.", Quantity.Mm(Math.Round(result.UnevennessMm, 2)), Quantity.Deg(side))
        : Sentence.Of("Straighten the float arms: {0} from one side to the other.", Quantity.Mm(Math.Round(result.UnevennessMm, 2)));

    private static List<Figure> Figures(FloatLevelResult result)
    {
        var figures = new List<Figure>
        {
            new("meanHeight", "Mean height", Quantity.Mm(Math.Round(result.MeanHeightMm, 3))),
            new("heightError", "Off the spec height", Quantity.Mm(Math.Round(result.HeightErrorMm, 3))),
            new("unevenness", "Unevenness", Quantity.Mm(Math.Round(result.UnevennessMm, 3))),
        };
        void Add(string key, string label, double? mm)
        {
            if (mm is { } known)
            {
                figures.Add(new Figure(key, label, Quantity.Mm(Math.Round(known, 3))));
            }
        }

        Add("meanUncertainty", "Give or take on the height", result.MeanUncertaintyMm);
        Add("unevennessUncertainty", "Give or take on the unevenness", result.UnevennessUncertaintyMm);
        Add("tabBend", "Tab bend", result.TabBendMm > 0 ? result.TabBendMm : null);
        Add("tabBendUncertainty", "Give or take on the bend", result.TabBendUncertaintyMm);

        return figures;
    }

    private List<Sentence> Why(FloatLevelResult result, int points)
    {
        var why = new List<Sentence>
        {
            Sentence.Of("A plane through {0} heights by least squares: {1} in the middle, {2} from its lowest to its highest side.", Quantity.Count(points), Quantity.Mm(Math.Round(result.MeanHeightMm, 3)), Quantity.Mm(Math.Round(result.UnevennessMm, 3))),
            Sentence.Of("A height is taken to be good to {0}; what that leaves open follows from where the heights were taken.", Quantity.Mm(2 * FloatLevel.HeightErrorMm)),
        };
        if (result.Method == LevelMethod.EvenlySpread)
        {
            why.Add(Sentence.Of("No angles were noted: the heights are taken as evenly spread around the float."));
        }

        if (result.BendTowardNeedle is { } toward)
        {
            why.Add(Sentence.Of(
                "Tab bend = height error {0} × tab arm {1} ÷ measuring arm {2} = {3}.",
                Quantity.Mm(Math.Round(Math.Abs(result.HeightErrorMm), 3)),
                Quantity.Mm(Float.TabArmMm),
                Quantity.Mm(Float.MeasuringArmMm),
                Quantity.Mm(Math.Round(result.TabBendMm, 3))));
            why.Add(toward
                ? Sentence.Of("Too near the body upside down means the bowl fills too high. Toward the needle moves the float away from the body.")
                : Sentence.Of("Too far from the body upside down means the bowl fills too low. Away from the needle lets the float come nearer the body."));
        }

        return why;
    }
}
