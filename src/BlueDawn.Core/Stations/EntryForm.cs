using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>How one field of a gauge line is filled in.</summary>
public enum FieldKind
{
    /// <summary>A number with a unit.</summary>
    Measure,

    /// <summary>One of a few words.</summary>
    Choice,
}

/// <summary>One word to choose.</summary>
/// <param name="Value">What is sent.</param>
/// <param name="Label">What is shown.</param>
public sealed record EntryChoice(string Value, string Label);

/// <summary>One field of a gauge line.</summary>
/// <param name="Name">The name it is sent under.</param>
/// <param name="Label">A word or two, such as <c>goes</c>.</param>
/// <param name="Kind">How it is filled in.</param>
/// <param name="Dimension">What it measures; ignored for a choice.</param>
/// <param name="Optional">True when the line can be recorded without it.</param>
/// <param name="Detail">True for an optional field that is seldom given, such as an instrument's step: Enter passes it by.</param>
/// <param name="Choices">The words to choose from; empty for a measure.</param>
/// <param name="WhenNoted">True for a detail that a clock notes: it has no box until it was noted.</param>
public sealed record EntryField(
    string Name,
    string Label,
    FieldKind Kind,
    Dimension Dimension,
    bool Optional,
    bool Detail,
    IReadOnlyList<EntryChoice> Choices,
    bool WhenNoted = false
)
{
    /// <summary>A field for a number.</summary>
    public static EntryField Measure(string name, string label, Dimension dimension, bool optional = false) =>
        new(name, label, FieldKind.Measure, dimension, optional, false, []);

    /// <summary>A field for a number that is seldom given and has a default.</summary>
    public static EntryField MeasureDetail(string name, string label, Dimension dimension) =>
        new(name, label, FieldKind.Measure, dimension, true, true, []);

    /// <summary>A field for a number that a clock notes; it has no box until it was noted.</summary>
    public static EntryField MeasureNoted(string name, string label, Dimension dimension) =>
        new(name, label, FieldKind.Measure, dimension, true, true, [], true);

    /// <summary>A field for one of a few words.</summary>
    public static EntryField Choice(string name, string label, bool optional, params EntryChoice[] choices) =>
        new(name, label, FieldKind.Choice, Dimension.Count, optional, false, choices);
}

/// <summary>Fields that go together; a line offers one group or another, such as pins or a direct bore.</summary>
/// <param name="Name">Stable name.</param>
/// <param name="Label">What the way of measuring is called.</param>
/// <param name="Fields">Its fields, in the order they are filled in.</param>
public sealed record EntryGroup(string Name, string Label, IReadOnlyList<EntryField> Fields);

/// <summary>What of a series of pressures a table takes.</summary>
public enum SeriesPart
{
    /// <summary>Where the needle let go and shut again.</summary>
    Pops,

    /// <summary>What stood after the last pop, in time.</summary>
    Hold,
}

/// <summary>A table of equal rows that belongs to a line, such as pressures in time.</summary>
/// <param name="Label">What a row is.</param>
/// <param name="Columns">The fields of a row.</param>
/// <param name="Fewest">Rows below which the reading says nothing.</param>
/// <param name="Suggested">Rows offered at the start, with the values already known, such as angles.</param>
/// <param name="FromSeries">What of a series of pressures its rows are, pasted, from a file or from a gauge; null when they cannot
/// be.</param>
public sealed record EntryRows(
    string Label,
    IReadOnlyList<EntryField> Columns,
    int Fewest,
    IReadOnlyList<IReadOnlyDictionary<string, string>> Suggested,
    SeriesPart? FromSeries = null
);

/// <summary>Everything a gauge line asks for.</summary>
/// <param name="Groups">The ways of measuring, the usual one first.</param>
/// <param name="Rows">A table that comes with it, or null.</param>
/// <param name="OneTouch">Whether the one choice it asks for is recorded by touching it.</param>
public sealed record EntryForm(IReadOnlyList<EntryGroup> Groups, EntryRows? Rows, bool OneTouch = false);

/// <summary>A reading as it was typed.</summary>
/// <param name="Units">The units that numbers without a unit are in.</param>
/// <param name="Values">Field by field.</param>
/// <param name="Rows">Row by row, for lines that have a table.</param>
public sealed record TypedReading(
    UnitSystem Units,
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<IReadOnlyDictionary<string, string>> Rows
)
{
    /// <summary>A typed reading of single values in metric units.</summary>
    public static TypedReading Of(params (string Name, string Text)[] values) =>
        new(UnitSystem.Metric, values.ToDictionary(v => v.Name, v => v.Text), []);
}
