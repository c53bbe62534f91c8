using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>Reads the boxes of a typed reading one by one and gathers what is wrong with them.</summary>
public sealed class TypedReader
{
    /// <summary>Said of a choice that was not made; the line says between what.</summary>
    internal const string NotChosen = "Choose one.";

    private const int MostRows = 2000;

    private readonly TypedReading typed;
    private readonly Func<string, bool> isDeclared;
    private readonly List<FieldProblem> problems = [];

    internal TypedReader(TypedReading typed, Func<string, bool> isDeclared) => (this.typed, this.isDeclared) = (typed, isDeclared);

    /// <summary>What is wrong so far, box by box.</summary>
    public IReadOnlyList<FieldProblem> Problems => problems;

    /// <summary>Whether nothing is wrong so far.</summary>
    public bool IsRight => problems.Count == 0;

    /// <summary>What a box says; a default of its kind when something is wrong with it.</summary>
    /// <typeparam name="T">What the box says.</typeparam>
    /// <param name="box">One of the line's boxes.</param>
    /// <exception cref="InvalidOperationException">The line's form does not have that box.</exception>
    public T Get<T>(LineBox<T> box) =>
        isDeclared(box.Name) ? box.Understand(this) : throw new InvalidOperationException($"The form has no box “{box.Name}”.");

    /// <summary>Says what is wrong with a box.</summary>
    /// <param name="box">One of the line's boxes.</param>
    /// <param name="message">What is wrong, and what to do.</param>
    public void Wrong(LineBox box, string message) => Wrong(box.Name, message);

    /// <summary>Says what is wrong with a box of a row, or with the rows as a whole.</summary>
    /// <param name="field">The box, such as <c>rows[1].height</c>, or <c>rows</c>.</param>
    /// <param name="message">What is wrong, and what to do.</param>
    public void Wrong(string field, string message) => problems.Add(new FieldProblem(field, message));

    /// <summary>Whether anything was typed into a box.</summary>
    /// <param name="box">One of the line's boxes.</param>
    public bool IsFilled(LineBox box) => Text(box.Name).Length > 0;

    /// <summary>The rows that have anything in them, read by <paramref name="read"/>.</summary>
    /// <typeparam name="T">What a row says.</typeparam>
    /// <param name="read">Reads one row.</param>
    /// <param name="counts">Which rows are meant; null for those with anything in them. Rows that are not meant are not counted.</param>
    public List<T> Rows<T>(Func<TypedReader, T> read, Func<IReadOnlyDictionary<string, string>, bool>? counts = null)
    {
        var found = new List<T>();
        // Rows that are meant are counted by themselves where the line says which they are.
        var rows = counts is null ? typed.Rows : [.. typed.Rows.Where(counts)];
        if (rows.Count > MostRows)
        {
            Wrong("rows", $"More than {MostRows} rows. Take fewer samples.");
            return found;
        }

        for (var i = 0; i < rows.Count; i++)
        {
            if (rows[i].Values.All(string.IsNullOrWhiteSpace))
            {
                continue;
            }

            var row = new TypedReader(new TypedReading(typed.Units, rows[i], []), isDeclared);
            found.Add(read(row));
            problems.AddRange(row.problems.Select(p => p with { Field = $"rows[{i}].{p.Field}" }));
        }

        return found;
    }

    internal string Text(string field) => typed.Values.TryGetValue(field, out var text) ? text.Trim() : "";

    /// <summary>A number that may be left out, within limits in the base unit.</summary>
    internal decimal? Optional(string field, Dimension dimension, decimal least, decimal most) =>
        Text(field).Length == 0 ? null : Number(field, Text(field), dimension, least, most);

    /// <summary>A number that must be there.</summary>
    internal decimal Required(string field, Dimension dimension, decimal least, decimal most) =>
        Number(field, Text(field), dimension, least, most) ?? 0m;

    /// <summary>A whole number that must be there.</summary>
    internal int Whole(string field, int least, int most)
    {
        var number = Required(field, Dimension.Count, least, most);
        if (number != decimal.Truncate(number))
        {
            Wrong(field, "Enter a whole number: it is a count.");
        }

        return (int)number;
    }

    /// <summary>One of a few words that must be there.</summary>
    internal string Choice(string field, params string[] allowed)
    {
        var text = Text(field);
        if (!allowed.Contains(text))
        {
            Wrong(field, text.Length == 0 ? NotChosen : $"“{text}” is not one of: {string.Join(", ", allowed)}.");
        }

        return text;
    }

    private decimal? Number(string field, string text, Dimension dimension, decimal least, decimal most)
    {
        var parsed = MeasureEntry.Parse(text, dimension, typed.Units);
        if (!parsed.IsRight)
        {
            Wrong(field, parsed.Problem!);
            return null;
        }

        if (parsed.Value < least || parsed.Value > most)
        {
            var unit = MetricText.UnitOf(dimension);
            Wrong(field, $"Must be from {least} to {most}{(unit.Length == 0 ? "" : " " + unit)}. Check the number and its unit.");
            return null;
        }

        return parsed.Value;
    }
}
