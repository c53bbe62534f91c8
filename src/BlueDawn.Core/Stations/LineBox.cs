using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>One box of a gauge line: its name, how it is filled in, its limits and what its number should be about.</summary>
/// <param name="Field">How it is asked.</param>
public abstract record LineBox(EntryField Field)
{
    /// <summary>The name it is sent under.</summary>
    public string Name => Field.Name;

    /// <summary>What its number should be about; null where nothing says. Limits of what is near: data/reference/slips.csv.</summary>
    public Expected? Expected { get; init; }
}

/// <summary>One box of a gauge line, with what is understood of it.</summary>
/// <typeparam name="T">What it says: a number in the base unit, a count, one of a few words.</typeparam>
/// <param name="Field">How it is asked.</param>
/// <param name="Understand">Reads it, and says what is wrong with it.</param>
public sealed record LineBox<T>(EntryField Field, Func<TypedReader, T> Understand) : LineBox(Field)
{
    /// <summary>The box with what its number should be about.</summary>
    /// <param name="value">In the base unit of its dimension, above 0; null where nothing says.</param>
    /// <param name="within">How far off it may be, in the base unit; null where data/reference/slips.csv says it by shares.</param>
    public LineBox<T> About(double? value, double? within = null) =>
        this with
        {
            Expected = value is { } known ? new Expected(known, Field.Dimension, within) : null,
        };
}

/// <summary>The kinds of box there are.</summary>
public static class Box
{
    /// <summary>A number that has to be there.</summary>
    /// <param name="name">The name it is sent under.</param>
    /// <param name="label">A word or two.</param>
    /// <param name="dimension">What is measured.</param>
    /// <param name="least">Smallest that is taken, in the base unit.</param>
    /// <param name="most">Largest that is taken.</param>
    public static LineBox<double> Number(string name, string label, Dimension dimension, decimal least, decimal most) =>
        new(EntryField.Measure(name, label, dimension), typed => (double)typed.Required(name, dimension, least, most));

    /// <summary>A number that may be left out.</summary>
    /// <inheritdoc cref="Number"/>
    public static LineBox<double?> Optional(string name, string label, Dimension dimension, decimal least, decimal most) =>
        new(EntryField.Measure(name, label, dimension, optional: true), typed => (double?)typed.Optional(name, dimension, least, most));

    /// <summary>A number that is seldom given: Enter passes it by.</summary>
    /// <inheritdoc cref="Number"/>
    public static LineBox<double?> Detail(string name, string label, Dimension dimension, decimal least, decimal most) =>
        new(EntryField.MeasureDetail(name, label, dimension), typed => (double?)typed.Optional(name, dimension, least, most));

    /// <summary>A number that is seldom given, and what it is otherwise.</summary>
    /// <param name="name">The name it is sent under.</param>
    /// <param name="label">A word or two.</param>
    /// <param name="dimension">What is measured.</param>
    /// <param name="least">Smallest that is taken, in the base unit.</param>
    /// <param name="most">Largest that is taken.</param>
    /// <param name="otherwise">What it is when it is left out.</param>
    public static LineBox<double> Detail(string name, string label, Dimension dimension, decimal least, decimal most, double otherwise) =>
        new(EntryField.MeasureDetail(name, label, dimension), typed => (double?)typed.Optional(name, dimension, least, most) ?? otherwise);

    /// <summary>A number that a clock notes; it has no box until it was noted.</summary>
    /// <inheritdoc cref="Number"/>
    public static LineBox<double?> Noted(string name, string label, Dimension dimension, decimal least, decimal most) =>
        new(EntryField.MeasureNoted(name, label, dimension), typed => (double?)typed.Optional(name, dimension, least, most));

    /// <summary>A number that has to be there, kept digit by digit as it was typed.</summary>
    /// <inheritdoc cref="Number"/>
    public static LineBox<decimal> Exact(string name, string label, Dimension dimension, decimal least, decimal most) =>
        new(EntryField.Measure(name, label, dimension), typed => typed.Required(name, dimension, least, most));

    /// <summary>A number that may be left out, kept digit by digit as it was typed.</summary>
    /// <inheritdoc cref="Number"/>
    public static LineBox<decimal?> OptionalExact(string name, string label, Dimension dimension, decimal least, decimal most) =>
        new(EntryField.Measure(name, label, dimension, optional: true), typed => typed.Optional(name, dimension, least, most));

    /// <summary>A whole number that has to be there.</summary>
    /// <param name="name">The name it is sent under.</param>
    /// <param name="label">A word or two.</param>
    /// <param name="least">Fewest.</param>
    /// <param name="most">Most.</param>
    public static LineBox<int> Count(string name, string label, int least, int most) =>
        new(EntryField.Measure(name, label, Dimension.Count), typed => typed.Whole(name, least, most));

    /// <summary>One of a few words that has to be chosen.</summary>
    /// <typeparam name="T">What a word stands for.</typeparam>
    /// <param name="name">The name it is sent under.</param>
    /// <param name="label">A word or two.</param>
    /// <param name="choices">What each word stands for, what is sent and what is shown.</param>
    public static LineBox<T> Choice<T>(string name, string label, params IReadOnlyList<(T Means, string Value, string Label)> choices) =>
        new(EntryField.Choice(name, label, false, [.. choices.Select(one => new EntryChoice(one.Value, one.Label))]), typed =>
        {
            var chosen = typed.Choice(name, [.. choices.Select(one => one.Value)]);
            return choices.FirstOrDefault(one => one.Value == chosen).Means;
        });

    /// <summary>A word that is said or not.</summary>
    /// <param name="name">The name it is sent under.</param>
    /// <param name="label">A word or two.</param>
    /// <param name="value">What is sent.</param>
    /// <param name="words">What is shown.</param>
    public static LineBox<bool> Said(string name, string label, string value, string words) =>
        new(EntryField.Choice(name, label, true, new EntryChoice(value, words)), typed =>
            typed.Text(name).Length > 0 && typed.Choice(name, value).Length > 0
        );
}

/// <summary>Boxes that go together; a line offers one group or another, such as pins or a direct bore.</summary>
/// <param name="Name">Stable name.</param>
/// <param name="Label">What the way of measuring is called.</param>
/// <param name="Boxes">Its boxes, in the order they are filled in.</param>
public sealed record BoxGroup(string Name, string Label, params IReadOnlyList<LineBox> Boxes);

/// <summary>A table of equal rows of boxes.</summary>
/// <param name="Label">What a row is.</param>
/// <param name="Columns">The boxes of a row.</param>
/// <param name="Fewest">Rows below which the reading says nothing.</param>
/// <param name="Suggested">Rows offered at the start, with the values already known, such as angles.</param>
/// <param name="FromSeries">What of a series of pressures its rows are; null when they cannot be.</param>
public sealed record BoxRows(
    string Label,
    IReadOnlyList<LineBox> Columns,
    int Fewest,
    IReadOnlyList<IReadOnlyDictionary<string, string>> Suggested,
    SeriesPart? FromSeries = null
);

/// <summary>All boxes of a line, and the reading that follows from them.</summary>
/// <typeparam name="TReading">The line's reading.</typeparam>
/// <param name="Groups">The ways of measuring, the usual one first.</param>
/// <param name="Take">The reading that the boxes say; what it says is dropped when something is wrong with one of them.</param>
public sealed record LineForm<TReading>(IReadOnlyList<BoxGroup> Groups, Func<TypedReader, TReading> Take)
    where TReading : Reading
{
    /// <summary>One group of boxes.</summary>
    /// <param name="group">The group.</param>
    /// <param name="take">The reading that the boxes say.</param>
    public LineForm(BoxGroup group, Func<TypedReader, TReading> take)
        : this([group], take) { }

    /// <summary>A table that comes with them, or null.</summary>
    public BoxRows? Rows { get; init; }

    /// <summary>Whether the one choice it asks for is recorded by touching it.</summary>
    public bool OneTouch { get; init; }

    /// <summary>What only a quick answer fills: it has no box of its own.</summary>
    public IReadOnlyList<LineBox> Besides { get; init; } = [];

    /// <summary>The box of a name, in a group, in a row or besides; null when there is none.</summary>
    /// <param name="name">Its name.</param>
    public LineBox? Find(string name) =>
        Groups.SelectMany(group => group.Boxes).Concat(Rows?.Columns ?? []).Concat(Besides).FirstOrDefault(box => box.Name == name);

    /// <summary>The boxes as they are asked.</summary>
    public EntryForm AsAsked() =>
        new(
            [.. Groups.Select(group => new EntryGroup(group.Name, group.Label, [.. group.Boxes.Select(box => box.Field)]))],
            Rows is { } rows
                ? new EntryRows(rows.Label, [.. rows.Columns.Select(box => box.Field)], rows.Fewest, rows.Suggested, rows.FromSeries)
                : null,
            OneTouch
        );

    /// <summary>The reading, or what is wrong with what was typed.</summary>
    /// <param name="typed">What was typed.</param>
    public ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed, name => Find(name) is not null);
        var reading = Take(reader);
        return reader.Problems.Count > 0 ? new ReadReading(null, reader.Problems) : new ReadReading(reading, []);
    }
}
