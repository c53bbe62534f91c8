using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>Reads the fields of a typed reading one by one and gathers what is wrong with them.</summary>
internal sealed class TypedReader(TypedReading typed)
{
    /// <summary>Said of a choice that was not made; the line says between what.</summary>
    public const string NotChosen = "Choose one.";

    private const int MostRows = 2000;

    private readonly List<FieldProblem> problems = [];

    public IReadOnlyList<FieldProblem> Problems => problems;

    public void Wrong(string field, string message) => problems.Add(new FieldProblem(field, message));

    public string Text(string field) => typed.Values.TryGetValue(field, out var text) ? text.Trim() : "";

    /// <summary>A number that may be left out, within limits in the base unit.</summary>
    public decimal? Optional(string field, Dimension dimension, decimal least, decimal most) =>
        Text(field).Length == 0 ? null : Number(field, Text(field), dimension, least, most);

    /// <summary>A number that must be there.</summary>
    public decimal Required(string field, Dimension dimension, decimal least, decimal most) =>
        Number(field, Text(field), dimension, least, most) ?? 0m;

    /// <summary>A whole number that must be there.</summary>
    public int Whole(string field, int least, int most)
    {
        var number = Required(field, Dimension.Count, least, most);
        if (number != decimal.Truncate(number))
        {
            Wrong(field, "Enter a whole number: it is a count.");
        }

        return (int)number;
    }

    /// <summary>One of a few words that must be there.</summary>
    public string Choice(string field, params string[] allowed)
    {
        var text = Text(field);
        if (!allowed.Contains(text))
        {
            Wrong(field, text.Length == 0 ? NotChosen : $"“{text}” is not one of: {string.Join(", ", allowed)}.");
        }

        return text;
    }

    /// <summary>The rows that have anything in them, read by <paramref name="read"/>.</summary>
    public List<T> Rows<T>(Func<TypedReader, T> read)
    {
        var found = new List<T>();
        if (typed.Rows.Count > MostRows)
        {
            Wrong("rows", $"More than {MostRows} rows. Take fewer samples.");
            return found;
        }

        for (var i = 0; i < typed.Rows.Count; i++)
        {
            if (typed.Rows[i].Values.All(string.IsNullOrWhiteSpace))
            {
                continue;
            }

            var row = new TypedReader(new TypedReading(typed.Units, typed.Rows[i], []));
            found.Add(read(row));
            problems.AddRange(row.problems.Select(p => p with { Field = $"rows[{i}].{p.Field}" }));
        }

        return found;
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
