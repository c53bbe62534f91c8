using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Kits;

/// <summary>What can be asked of a carburetor that bears no legible number.</summary>
public enum Trait
{
    /// <summary>Float bowl, diaphragm or suction tank.</summary>
    Family,

    /// <summary>Bore at the throttle plate.</summary>
    Throat,

    /// <summary>Between the centres of the two flange bolts.</summary>
    BoltSpacing,

    /// <summary>Bore of the main jet.</summary>
    MainJet,

    /// <summary>Mixture needles.</summary>
    MixtureNeedles,

    /// <summary>The float's shape.</summary>
    FloatShape,
}

/// <summary>An answer to one of the questions.</summary>
/// <param name="Trait">What was asked.</param>
/// <param name="Value">A word, a count or millimetres, in their written form.</param>
public sealed record TraitAnswer(Trait Trait, string Value);

/// <summary>One way a question can be answered.</summary>
/// <param name="Value">What is sent.</param>
/// <param name="Label">What is shown.</param>
public sealed record TraitChoice(string Value, string Label);

/// <summary>A question and what asking it is worth.</summary>
/// <param name="Trait">What is asked.</param>
/// <param name="Label">The question.</param>
/// <param name="How">How it is found out.</param>
/// <param name="Bits">Information its answer is expected to bring now, in bits; 0 when it can tell nothing more.</param>
/// <param name="SheetsLeft">How many sheets are expected to stay likely after it.</param>
/// <param name="Choices">The answers there are; empty for a length.</param>
/// <param name="Answer">What was answered, or null.</param>
public sealed record TraitQuestion(
    Trait Trait,
    string Label,
    string How,
    double Bits,
    double SheetsLeft,
    IReadOnlyList<TraitChoice> Choices,
    string? Answer
);

/// <summary>A sheet that may be the one.</summary>
/// <param name="SpecCode">The sheet.</param>
/// <param name="Share">How likely, 0 to 1, among all sheets on file.</param>
/// <param name="Agrees">What agrees.</param>
/// <param name="Differs">What differs, with both values.</param>
public sealed record TraitCandidate(string SpecCode, double Share, IReadOnlyList<Sentence> Agrees, IReadOnlyList<Sentence> Differs);

/// <summary>Which carburetor it is, told from what can be measured.</summary>
/// <param name="Candidates">Sheets that are still likely, likeliest first.</param>
/// <param name="Questions">Every question, in bench order.</param>
/// <param name="Next">The question to ask next, or null when no answer would narrow it further.</param>
public sealed record Identification(IReadOnlyList<TraitCandidate> Candidates, IReadOnlyList<TraitQuestion> Questions, Trait? Next)
{
    // Own judgement: one wrong measurement in fifty must not throw the right sheet out for good.
    private const double MissShare = 0.02;
    private const double UnlikelyShare = 0.01;
    private const double FewestBits = 0.15;

    /// <summary>Allowed difference of the measured lengths in millimetres. Own judgement: a caliper in a worn bore.</summary>
    private static readonly Dictionary<Trait, decimal> Tolerance = new()
    {
        [Trait.Throat] = 0.4m,
        [Trait.BoltSpacing] = 0.6m,
        [Trait.MainJet] = 0.03m,
    };

    private static readonly (Trait Trait, string Label, string How)[] Wording =
    [
        (Trait.Family, "What kind is it?", "A bowl under it, flat covers on two sides, or standing on the tank"),
        (Trait.BoltSpacing, "How far apart are the flange bolts?", "Centre to centre: inner edge to outer edge of the holes"),
        (Trait.Throat, "How wide is the throat?", "Caliper across the bore at the throttle plate"),
        (Trait.MixtureNeedles, "How many mixture needles?", "Screws with a spring or an O-ring and a tapered end"),
        (Trait.FloatShape, "What shape is the float?", "Look into the bowl"),
        (Trait.MainJet, "How wide is the main jet?", "Largest pin or number drill that goes"),
    ];

    /// <summary>The right kind of length for a question, or null when it is not answered by a length.</summary>
    public static decimal? ToleranceMm(Trait trait) => Tolerance.TryGetValue(trait, out var mm) ? mm : null;

    /// <summary>Narrows the sheets on file by what has been answered, and finds the most telling question.</summary>
    /// <param name="sheets">Every sheet on file.</param>
    /// <param name="answers">What has been answered; the last one to a question counts.</param>
    /// <remarks>
    /// A sheet's weight is the product over the answers of how well each agrees; the next question is the one whose
    /// answer is expected to leave the least entropy (Shannon 1948) over the sheets.
    /// </remarks>
    public static Identification Of(IReadOnlyList<SpecSheet> sheets, IReadOnlyList<TraitAnswer> answers)
    {
        var standing = answers.GroupBy(answer => answer.Trait).ToDictionary(group => group.Key, group => group.Last().Value);
        var shares = Normalise([
            .. sheets.Select(sheet => standing.Aggregate(1.0, (share, answer) => share * Agreement(sheet, answer.Key, answer.Value))),
        ]);
        var candidates = sheets
            .Zip(shares)
            .Where(pair => pair.Second >= UnlikelyShare || standing.Count == 0)
            .OrderByDescending(pair => pair.Second)
            .ThenBy(pair => pair.First.Code, StringComparer.Ordinal)
            .Select(pair => Explain(pair.First, pair.Second, standing))
            .ToList();
        var questions = Wording
            .Select(wording =>
            {
                var left = standing.ContainsKey(wording.Trait) ? Entropy(shares) : ExpectedEntropy(sheets, shares, wording.Trait);
                return new TraitQuestion(
                    wording.Trait,
                    wording.Label,
                    wording.How,
                    Math.Max(0, Entropy(shares) - left),
                    SteadyMath.Exp(left * SteadyMath.Log(2)),
                    Choices(sheets, wording.Trait),
                    standing.GetValueOrDefault(wording.Trait)
                );
            })
            .ToList();
        var best = questions.Where(question => question.Answer is null).MaxBy(question => question.Bits);
        return new Identification(candidates, questions, best is { Bits: >= FewestBits } ? best.Trait : null);
    }

    /// <summary>Reads an answer into its written form.</summary>
    /// <param name="trait">What was asked.</param>
    /// <param name="text">What was typed or touched.</param>
    /// <param name="units">The units that numbers without a unit are in.</param>
    /// <param name="sheets">Every sheet on file, for the words there are.</param>
    public static Parsed<string> ReadAnswer(Trait trait, string? text, UnitSystem units, IReadOnlyList<SpecSheet> sheets)
    {
        if (ToleranceMm(trait) is not null)
        {
            var length = MeasureEntry.Parse(text, Dimension.Length, units);
            return !length.IsRight ? Parsed<string>.Wrong(length.Problem!)
                : length.Value <= 0 ? Parsed<string>.Wrong("A length must be above 0.")
                : Parsed<string>.Right(length.Value.ToString("0.####", CultureInfo.InvariantCulture));
        }

        return
            Choices(sheets, trait).FirstOrDefault(choice => string.Equals(choice.Value, text?.Trim(), StringComparison.OrdinalIgnoreCase))
                is { } known
            ? Parsed<string>.Right(known.Value)
            : Parsed<string>.Wrong("That is not one of the answers. Pick one from the list.");
    }

    private static TraitCandidate Explain(SpecSheet sheet, double share, Dictionary<Trait, string> answers)
    {
        List<Sentence> agrees = [],
            differs = [];
        foreach (var (trait, answer) in answers)
        {
            if (ValueOf(sheet, trait) is { } value)
            {
                var name = Name(trait);
                (Fits(trait, value, answer) ? agrees : differs).Add(
                    Fits(trait, value, answer)
                        ? Sentence.Say($"{name} {Told(trait, value)}")
                        : Sentence.Say($"{name} {Told(trait, value)}, not {Told(trait, answer)}")
                );
            }
        }

        return new TraitCandidate(sheet.Code, share, agrees, differs);
    }

    private static string Name(Trait trait) =>
        trait switch
        {
            Trait.Family => "kind",
            Trait.Throat => "throat",
            Trait.BoltSpacing => "bolts",
            Trait.MainJet => "main jet",
            Trait.MixtureNeedles => "needles",
            Trait.FloatShape => "float",
        };

    private static Sentence Told(Trait trait, string value) =>
        ToleranceMm(trait) is not null
            ? Sentence.Of("{0}", Quantity.Mm(Number(value)))
            : Sentence.Of(trait == Trait.Family && Enum.TryParse<CarburetorFamily>(value, out var family) ? Say(family) : value);

    private static string Say(CarburetorFamily family) =>
        family switch
        {
            CarburetorFamily.FloatBowl => "float bowl",
            CarburetorFamily.Diaphragm => "diaphragm",
            CarburetorFamily.SuctionTank => "on the tank",
        };

    private static string? ValueOf(SpecSheet sheet, Trait trait) =>
        trait switch
        {
            Trait.Family => sheet.Family.ToString(),
            Trait.Throat => Written(sheet.Traits?.ThroatMm),
            Trait.BoltSpacing => Written(sheet.Traits?.BoltSpacingMm),
            Trait.MainJet => Written(sheet.Jets.FirstOrDefault(jet => jet.Key == "main-jet")?.BoreMm),
            Trait.MixtureNeedles => sheet.Traits?.MixtureNeedles.ToString(CultureInfo.InvariantCulture),
            Trait.FloatShape => sheet.Traits?.FloatShape,
        };

    private static string? Written(decimal? mm) => mm?.ToString("0.####", CultureInfo.InvariantCulture);

    private static decimal Number(string value) => decimal.Parse(value, CultureInfo.InvariantCulture);

    private static bool Fits(Trait trait, string value, string answer) =>
        ToleranceMm(trait) is { } tolerance
            ? Math.Abs(Number(value) - Number(answer)) <= tolerance
            : string.Equals(value, answer, StringComparison.OrdinalIgnoreCase);

    /// <summary>How well an answer agrees with a sheet: 1 in full, <see cref="MissShare"/> not at all; half when the sheet does not
    /// say.</summary>
    private static double Agreement(SpecSheet sheet, Trait trait, string answer)
    {
        if (ValueOf(sheet, trait) is not { } value)
        {
            return 0.5;
        }

        if (ToleranceMm(trait) is not { } tolerance)
        {
            return Fits(trait, value, answer) ? 1 : MissShare;
        }

        var off = (double)((Number(value) - Number(answer)) / tolerance);
        return Math.Max(MissShare, SteadyMath.Exp(-off * off));
    }

    private static IReadOnlyList<TraitChoice> Choices(IReadOnlyList<SpecSheet> sheets, Trait trait) =>
        ToleranceMm(trait) is not null
            ? []
            :
            [
                .. sheets
                    .Select(sheet => ValueOf(sheet, trait))
                    .OfType<string>()
                    .Distinct()
                    .Order(StringComparer.Ordinal)
                    .Select(value => new TraitChoice(value, Told(trait, value).Text)),
            ];

    /// <summary>The entropy that is left on average when the answer is what one of the sheets says.</summary>
    private static double ExpectedEntropy(IReadOnlyList<SpecSheet> sheets, double[] shares, Trait trait) =>
        sheets
            .Zip(shares)
            .Where(pair => pair.Second > 1e-6)
            .GroupBy(pair => ValueOf(pair.First, trait))
            .Sum(group =>
            {
                var weight = group.Sum(pair => pair.Second);
                return weight
                    * (
                        group.Key is not { } value
                            ? Entropy(shares)
                            : Entropy(Normalise([.. sheets.Zip(shares, (sheet, share) => share * Agreement(sheet, trait, value))]))
                    );
            });

    private static double Entropy(double[] shares) => -shares.Where(share => share > 0).Sum(share => share * SteadyMath.Log2(share));

    private static double[] Normalise(double[] weights) =>
        weights.Sum() is var sum && sum > 0 ? [.. weights.Select(weight => weight / sum)] : weights;
}
