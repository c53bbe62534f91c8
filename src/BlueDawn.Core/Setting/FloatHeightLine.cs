using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>Float heights around the float.</summary>
/// <param name="Points">Angle in degrees and height in millimetres.</param>
public sealed record FloatHeightReading(IReadOnlyList<HeightPoint> Points) : Reading;

/// <summary>Float height and evenness.</summary>
/// <param name="Float">The limits; null where no sheet gives them.</param>
/// <param name="SpecName">Where they are from.</param>
public sealed record FloatHeightLine(FloatSpec? Float, string SpecName)
    : GaugeLine<FloatHeightReading>("setting/float-height", Station.Setting, "Float", "Float height")
{
    private static readonly LineFinding IsLevel = LineFinding.Good("level", "Level");
    private static readonly LineFinding IsUneven = LineFinding.Bad("uneven", "Uneven");
    private static readonly LineFinding TooLow = LineFinding.Bad("tooLow", "Too near the body", Lean.Below);
    private static readonly LineFinding TooHigh = LineFinding.Bad("tooHigh", "Too far from the body", Lean.Above);

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [LineFinding.CannotTell, IsLevel, IsUneven, TooLow, TooHigh, LineFinding.NoLimit];

    /// <summary>An even gap on the engine says the same as a height in the hand.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<string> StoodForBy => ["setting/float-gap"];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    private static readonly string[] SuggestedAngles = ["0", "120", "240"];

    /// <inheritdoc/>
    public override string Part => "float";

    /// <inheritdoc/>
    public override bool Required => Float is not null;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => Float is null;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        Float is null
            ? null
            : new(
                Sentence.Of(
                    "{0} ± {1}, even within {2}",
                    Quantity.Mm(Float.HeightMm),
                    Quantity.Mm(Float.ToleranceMm),
                    Quantity.Mm(Float.UnevennessLimitMm)
                ),
                new Span(Dimension.Length, (double)(Float.HeightMm - Float.ToleranceMm), (double)(Float.HeightMm + Float.ToleranceMm)),
                SpecName
            );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.OffTheNeedle;

    private static readonly LineBox<double?> AngleBox = Box.Detail("angle", "at angle", Dimension.Angle, -360, 360);

    private LineBox<double> HeightBox => Box.Number("height", "height", Dimension.Length, 0, 100).About((double?)Float?.HeightMm);

    /// <inheritdoc/>
    protected override LineForm<FloatHeightReading> Boxes =>
        new([], Take)
        {
            Rows = new BoxRows(
                "Point",
                [AngleBox, HeightBox],
                2,
                [.. SuggestedAngles.Select(angle => new Dictionary<string, string> { ["angle"] = angle })]
            ),
        };

    private FloatHeightReading Take(TypedReader boxes)
    {
        var points = boxes.Rows(
            row => new HeightPoint(row.Get(HeightBox), row.Get(AngleBox)),
            row => row.TryGetValue("height", out var height) && !string.IsNullOrWhiteSpace(height)
        );
        if (points.Count == 0 && boxes.IsRight)
        {
            boxes.Wrong("rows[0].height", "Enter the height at two points or more.");
        }

        if (points.Any(point => point.AngleDeg is null) && points.FindIndex(point => point.AngleDeg is not null) >= 0)
        {
            boxes.Wrong($"rows[{points.FindIndex(point => point.AngleDeg is null)}].angle", "Note the angle at every height, or at none.");
        }

        return new FloatHeightReading(points);
    }

    /// <inheritdoc/>
    protected override Sentence Describe(FloatHeightReading reading) =>
        new(
            string.Join(", ", reading.Points.Select((_, i) => "{" + i + "}")),
            [.. reading.Points.Select(point => Quantity.Mm(point.HeightMm))]
        );

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Carburetor upside down, float resting: measure from body to float at two points or more.");

    /// <inheritdoc/>
    protected override Judgement Judge(FloatHeightReading heights, PinSet pins)
    {
        var found = new Span(Dimension.Length, heights.Points.Min(p => p.HeightMm), heights.Points.Max(p => p.HeightMm));
        if (Float is not { } spec)
        {
            return WithoutLimit(found);
        }

        var result = Level(heights, spec);
        var toward = result.BendTowardNeedle == true;
        var (finding, next) = result.Verdict switch
        {
            LevelVerdict.Level => (IsLevel, Sentence.Of("Leave the tab. Check the drop and go on.")),
            LevelVerdict.TooHigh or LevelVerdict.TooLow => (
                toward ? TooLow : TooHigh,
                Sentence.Of(
                    $"Bend the tab {{0}} {(toward ? "toward" : "away from")} the needle, then measure again.",
                    Quantity.Mm(Math.Round(result.TabBendMm, 2))
                )
            ),
            LevelVerdict.Uneven => (IsUneven, Uneven(result)),
            LevelVerdict.CannotTell => (LineFinding.CannotTell, Open(result, heights.Points.Count)),
        };
        return finding.Judged(
            next,
            found: found,
            figures: [.. Figures(result), .. LevelFigures(result, spec)],
            why: [.. Why(result, heights.Points.Count, spec), .. LevelWhy(spec)]
        );
    }

    /// <summary>Height in the middle of the float in millimetres.</summary>
    /// <param name="heights">Its heights.</param>
    public double Mean(FloatHeightReading heights) =>
        Float is { } spec ? Level(heights, spec).MeanHeightMm : heights.Points.Average(point => point.HeightMm);

    private static FloatLevelResult Level(FloatHeightReading heights, FloatSpec spec)
    {
        // Readings of before the angles were asked for together are judged as if none had been noted.
        var placed = heights.Points.All(point => point.AngleDeg is not null);
        return FloatLevel.Judge(
            new FloatLevelInput(
                placed ? heights.Points : [.. heights.Points.Select(point => point with { AngleDeg = null })],
                (double)spec.HeightMm,
                (double)spec.ToleranceMm,
                (double)spec.UnevennessLimitMm,
                (double)spec.TabArmMm,
                (double)spec.MeasuringArmMm
            )
        );
    }

    private static List<Figure> LevelFigures(FloatLevelResult result, FloatSpec spec) =>
        spec.DryMassG is { } dry && FloatStanding.Of(spec, result.MeanHeightMm, dry) is { LevelMm: { } level } standing
            ?
            [
                new("level", "Fuel below the body’s face, float dry", Quantity.Mm(Math.Round(level, 1))),
                new("levelMeant", "Where the sheet’s height puts it", Quantity.Mm(Math.Round(standing.MeantMm, 1))),
            ]
            : [];

    private static List<Sentence> LevelWhy(FloatSpec spec)
    {
        if (LevelChanges.Of(spec) is not { } changes)
        {
            return [];
        }

        var bend = Sentence.Of("{0} of bend moves the fuel by {1}.", Quantity.Mm(LevelChanges.BendByMm), Quantity.Mm(changes.BendMm));
        return changes is { SeatMm: { } seat, FuelInsideMm: { } inside }
            ?
            [
                bend,
                Sentence.Of(
                    "A seat {0} larger lets it stand {1} higher, {2} of fuel inside the float {3}.",
                    Quantity.Mm(LevelChanges.SeatByMm),
                    Quantity.Mm(seat),
                    Quantity.G(LevelChanges.FuelByG),
                    Quantity.Mm(inside)
                ),
                changes.PumpMm is { } pump
                    ? Sentence.Of(
                        "Behind a pump of {0} instead of the tank it stands {1} higher.",
                        Quantity.KPa(LevelChanges.PumpKPa),
                        Quantity.Mm(pump)
                    )
                    : Sentence.Of(
                        "It cannot shut behind a pump of {0}: fuel comes from the tank alone.",
                        Quantity.KPa(LevelChanges.PumpKPa)
                    ),
            ]
            : [bend];
    }

    private static Sentence Open(FloatLevelResult result, int points) =>
        points < 2 || result.UnevennessUncertaintyMm is null || result.MeanUncertaintyMm is null
            ? Sentence.Of(
                "One more height, at {0}: so far one side of the float has not been looked at.",
                Quantity.Deg(result.NextAngleDeg ?? 0)
            )
            : Sentence.Of("Too near the limit to say: measure once more, at {0}.", Quantity.Deg(result.NextAngleDeg ?? 0));

    private static Sentence Uneven(FloatLevelResult result) =>
        result.HighSideDeg is { } side
            ? Sentence.Of(
                "Straighten the float arms: it stands {0} higher at {1}. Bend that side {2} toward the body, the other as much away, and measure again.",
                Quantity.Mm(Math.Round(result.UnevennessMm, 2)),
                Quantity.Deg(Math.Round(side)),
                Quantity.Mm(Math.Round(result.UnevennessMm / 2, 2))
            )
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

    private static List<Sentence> Why(FloatLevelResult result, int points, FloatSpec spec)
    {
        var why = new List<Sentence>
        {
            Sentence.Of(
                "A plane through {0} heights by least squares: {1} in the middle, {2} from its lowest to its highest side.",
                Quantity.Count(points),
                Quantity.Mm(Math.Round(result.MeanHeightMm, 3)),
                Quantity.Mm(Math.Round(result.UnevennessMm, 3))
            ),
            Sentence.Of(
                "A height is taken to be good to {0}; what that leaves open follows from where the heights were taken.",
                Quantity.Mm(2 * FloatLevel.HeightErrorMm)
            ),
        };
        if (result.Method == LevelMethod.EvenlySpread)
        {
            why.Add(Sentence.Of("No angles were noted: the heights are taken as evenly spread around the float."));
        }

        if (result.BendTowardNeedle is { } toward)
        {
            why.Add(
                Sentence.Of(
                    "Tab bend = height error {0} × tab arm {1} ÷ measuring arm {2} = {3}.",
                    Quantity.Mm(Math.Round(Math.Abs(result.HeightErrorMm), 3)),
                    Quantity.Mm(spec.TabArmMm),
                    Quantity.Mm(spec.MeasuringArmMm),
                    Quantity.Mm(Math.Round(result.TabBendMm, 3))
                )
            );
            why.Add(
                toward
                    ? Sentence.Of(
                        "Too near the body upside down means the bowl fills too high. Toward the needle moves the float away from the body."
                    )
                    : Sentence.Of(
                        "Too far from the body upside down means the bowl fills too low. Away from the needle lets the float come nearer the body."
                    )
            );
        }

        return why;
    }
}
