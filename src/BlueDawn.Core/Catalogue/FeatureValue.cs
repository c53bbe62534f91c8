using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Catalogue;

/// <summary>The value of one feature, read from its text.</summary>
/// <param name="Text">How it is kept and exchanged, such as <c>46 mm</c>, <c>46 ± 0.2 mm</c>, <c>stem</c> or <c>AS568-008</c>.</param>
/// <param name="Mm">The length, or null.</param>
/// <param name="ToleranceMm">The tolerance stated with it; 0 when none is.</param>
/// <param name="Count">The count, or null.</param>
/// <param name="Ring">The ring, or null.</param>
public sealed record FeatureValue(string Text, decimal? Mm, decimal ToleranceMm, int? Count, ORing? Ring)
{
    private const decimal LongestMm = 1000;
    private const decimal HeaviestG = 1000;

    /// <summary>The mass, or null.</summary>
    public decimal? Grams { get; init; }

    // A catalogue writes the same few thousand values over and over.
    private static readonly ConcurrentDictionary<(string Part, string Feature, FeatureKind Kind, string Text), FeatureValue?> Written =
        new();

    /// <summary>The value as a sentence, its lengths as data.</summary>
    public Sentence Said =>
        Grams is { } grams ? Sentence.Of("{0}", Quantity.G((double)grams))
        : Mm is not { } mm ? Sentence.Of(Ring?.Label ?? Text)
        : ToleranceMm > 0 ? Sentence.Of("{0} ± {1}", Quantity.Mm(mm), Quantity.Mm(ToleranceMm))
        : Sentence.Of("{0}", Quantity.Mm(mm));

    /// <summary>A value from its written form, or null when it is not one; what has been read once is remembered.</summary>
    internal static FeatureValue? ReadWritten(FeatureKnowledge feature, string text) =>
        Written.GetOrAdd(
            (feature.Part, feature.Name, feature.Kind, text),
            static (key, known) => Parse(known, key.Text) is { IsRight: true, Value: { } value } ? value : null,
            feature
        );

    /// <summary>Reads a value as it is written in a catalogue or typed at the bench.</summary>
    /// <param name="feature">The feature.</param>
    /// <param name="text">What is written.</param>
    /// <param name="units">The units that numbers without a unit are in.</param>
    public static Parsed<FeatureValue> Parse(FeatureKnowledge feature, string? text, UnitSystem units = UnitSystem.Metric)
    {
        var trimmed = (text ?? "").Trim();
        if (trimmed.Length == 0)
        {
            return Parsed<FeatureValue>.Wrong("Nothing is written. Give it a value or leave the feature out.");
        }

        switch (feature.Kind)
        {
            case FeatureKind.Word:
                return feature.Words.FirstOrDefault(word => string.Equals(word, trimmed, StringComparison.OrdinalIgnoreCase)) is { } known
                    ? Parsed<FeatureValue>.Right(new FeatureValue(known, null, 0, null, null))
                    : Parsed<FeatureValue>.Wrong($"“{trimmed}” is not one of: {string.Join(", ", feature.Words)}.");
            case FeatureKind.Count:
                return int.TryParse(trimmed, NumberStyles.None, CultureInfo.InvariantCulture, out var count) && count is > 0 and < 100
                    ? Parsed<FeatureValue>.Right(new FeatureValue(count.ToString(CultureInfo.InvariantCulture), null, 0, count, null))
                    : Parsed<FeatureValue>.Wrong($"“{trimmed}” is not a count from 1 to 99.");
            case FeatureKind.Ring:
                var ring = ORing.Parse(trimmed);
                return ring.IsRight
                    ? Parsed<FeatureValue>.Right(new FeatureValue(ring.Value!.Label, null, 0, null, ring.Value))
                    : Parsed<FeatureValue>.Wrong(ring.Problem!);
            case FeatureKind.Length or FeatureKind.Squeeze:
                return Length(trimmed, units);
            case FeatureKind.Mass:
                var mass = MeasureEntry.Parse(trimmed, Dimension.Mass, units);
                return mass is { IsRight: true, Value: > 0 and <= HeaviestG }
                    ? Parsed<FeatureValue>.Right(
                        new FeatureValue(string.Create(CultureInfo.InvariantCulture, $"{mass.Value:0.###} g"), null, 0, null, null)
                        {
                            Grams = mass.Value,
                        }
                    )
                    : Parsed<FeatureValue>.Wrong(mass.Problem ?? $"“{trimmed}” is not a mass between 0 and {HeaviestG} g. Check the unit.");
        }

        throw new UnreachableException();
    }

    private static Parsed<FeatureValue> Length(string text, UnitSystem units)
    {
        var sides = text.Replace("+/-", "±", StringComparison.Ordinal).Split('±');
        // “46 ± 0.2 mm”: the unit stands once, at the end.
        var unit =
            sides.Length == 2 && sides[0].TrimEnd() is { Length: > 0 } bare && (char.IsAsciiDigit(bare[^1]) || bare[^1] is '.' or ',')
                ? new string([.. sides[1].SkipWhile(c => !char.IsLetter(c) && c != '"')])
                : "";
        var nominal = MeasureEntry.Parse($"{sides[0]} {unit}", Dimension.Length, units);
        var tolerance = sides.Length == 2 ? MeasureEntry.Parse(sides[1], Dimension.Length, units) : Parsed<decimal>.Right(0);
        if (sides.Length > 2 || !nominal.IsRight || !tolerance.IsRight)
        {
            return Parsed<FeatureValue>.Wrong(
                nominal.Problem ?? tolerance.Problem ?? $"“{text}” is not a length. Try 46 mm or 46 ± 0.2 mm."
            );
        }

        if (nominal.Value is <= 0 or > LongestMm || tolerance.Value < 0 || tolerance.Value >= nominal.Value)
        {
            return Parsed<FeatureValue>.Wrong($"“{text}” is not a length between 0 and {LongestMm} mm. Check the unit.");
        }

        var written =
            tolerance.Value == 0
                ? string.Create(CultureInfo.InvariantCulture, $"{nominal.Value:0.####} mm")
                : string.Create(CultureInfo.InvariantCulture, $"{nominal.Value:0.####} ± {tolerance.Value:0.####} mm");
        return Parsed<FeatureValue>.Right(new FeatureValue(written, nominal.Value, tolerance.Value, null, null));
    }
}

/// <summary>Features of a part by name, in their text; the form they are kept and exchanged in.</summary>
public static class FeatureText
{
    private static readonly ConcurrentDictionary<(string Part, string Text), Parsed<IReadOnlyDictionary<string, string>>> Cells = new();

    /// <summary>Reads one cell of features of a part the product ships with; what has been read once is remembered.</summary>
    /// <inheritdoc cref="Read(string, string?, PartKnowledge, UnitSystem)"/>
    public static Parsed<IReadOnlyDictionary<string, string>> ReadShipped(string part, string text) =>
        Cells.GetOrAdd((part, text), static key => Read(key.Part, key.Text, PartKnowledge.Shipped));

    /// <summary>The features of a stored cell; none when it does not hold together.</summary>
    public static IReadOnlyDictionary<string, string> Stored(string part, string text) =>
        ReadShipped(part, text).Value ?? new Dictionary<string, string>();

    /// <summary>Writes features as one cell: <c>outer=46 mm; centre=stem</c>, by name so that equal features are equal text.</summary>
    public static string Write(IReadOnlyDictionary<string, string> features) =>
        string.Join("; ", features.OrderBy(pair => pair.Key, StringComparer.Ordinal).Select(pair => $"{pair.Key}={pair.Value}"));

    /// <summary>Features as a sentence, lengths as data.</summary>
    /// <param name="part">The part they belong to.</param>
    /// <param name="features">Its features in their written form.</param>
    /// <param name="knowledge">What is known of parts.</param>
    public static Sentence Say(string part, IReadOnlyDictionary<string, string> features, PartKnowledge knowledge) =>
        Sentence.Join(
            "; ",
            features
                .OrderBy(pair => pair.Key, StringComparer.Ordinal)
                .Select(pair =>
                    knowledge.Find(part)?.Features.FirstOrDefault(one => one.Name == pair.Key) is { } feature
                    && FeatureValue.ReadWritten(feature, pair.Value) is { } value
                        ? Sentence.Say($"{pair.Key} {value.Said}")
                        : Sentence.Say($"{pair.Key} {pair.Value}")
                )
        );

    /// <summary>Reads one cell of features and puts every value into its one written form.</summary>
    /// <param name="part">The part they belong to.</param>
    /// <param name="text">The cell; may be empty.</param>
    /// <param name="knowledge">What is known of parts.</param>
    /// <param name="units">The units that a length without a unit is in.</param>
    /// <returns>The features, or what is wrong and what to write instead.</returns>
    public static Parsed<IReadOnlyDictionary<string, string>> Read(
        string part,
        string? text,
        PartKnowledge knowledge,
        UnitSystem units = UnitSystem.Metric
    )
    {
        var features = new Dictionary<string, string>();
        foreach (var piece in (text ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var at = piece.IndexOf('=', StringComparison.Ordinal);
            var name = at < 0 ? piece : piece[..at].Trim();
            if (at < 0)
            {
                return Parsed<IReadOnlyDictionary<string, string>>.Wrong($"“{piece}” has no value. Write {piece}=value.");
            }

            if (knowledge.Find(part, name) is not { } feature)
            {
                var known = knowledge.Find(part)?.Features.Select(f => f.Name).ToList() ?? [];
                return Parsed<IReadOnlyDictionary<string, string>>.Wrong(
                    known.Count == 0
                        ? $"“{part}” has no features that can be compared. Leave the features empty."
                        : $"“{name}” is not a feature of a {part}. There are {string.Join(", ", known)}."
                );
            }

            var value = FeatureValue.Parse(feature, piece[(at + 1)..], units);
            if (!value.IsRight)
            {
                return Parsed<IReadOnlyDictionary<string, string>>.Wrong($"{part}, {name}: {value.Problem}");
            }

            if (!features.TryAdd(name, value.Value!.Text))
            {
                return Parsed<IReadOnlyDictionary<string, string>>.Wrong($"{part}: {name} is given twice.");
            }
        }

        return Parsed<IReadOnlyDictionary<string, string>>.Right(features);
    }
}
