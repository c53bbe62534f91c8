using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Shop;

/// <summary>A bath as it is typed.</summary>
/// <param name="Key">Its key, or null for a new one.</param>
/// <param name="Label">Its name.</param>
/// <param name="Vessel">What it is.</param>
/// <param name="Baskets">Baskets that go in.</param>
/// <param name="Room">Temperature of the room it stands in.</param>
/// <param name="TimeConstant">Time in which it loses or gains about two thirds of the way.</param>
public sealed record TypedBath(string? Key, string Label, Vessel Vessel, string Baskets, string Room, string TimeConstant);

/// <summary>What is in a bath now.</summary>
/// <param name="Key">The bath's key.</param>
/// <param name="Baskets">Baskets that are in, from 1.</param>
public sealed record BathInUse(string Key, IReadOnlyList<int> Baskets);

/// <summary>Reads the shop's baths as a lead typed them.</summary>
public static class BathForm
{
    private const int MostBaths = 12,
        MostBaskets = 24,
        LongestLabel = 40;

    /// <summary>Reads the whole list.</summary>
    /// <param name="typed">What was typed, in the order of the shop.</param>
    /// <param name="units">The units that a number without a unit is in.</param>
    /// <param name="before">The baths as they stand.</param>
    /// <param name="inUse">What is in them.</param>
    /// <returns>The baths, and what is wrong by the path of its box, such as <c>baths[0].baskets</c>.</returns>
    public static (IReadOnlyList<Bath> Baths, IReadOnlyList<FieldProblem> Problems) Read(
        IReadOnlyList<TypedBath> typed,
        UnitSystem units,
        IReadOnlyList<Bath> before,
        IReadOnlyList<BathInUse> inUse
    )
    {
        var problems = new List<FieldProblem>();
        double Number(string field, string text, Dimension dimension, double least, double most)
        {
            var read = MeasureEntry.Parse(text, dimension, units);
            if (!read.IsRight)
            {
                problems.Add(new(field, read.Problem!));
            }
            else if ((double)read.Value < least || (double)read.Value > most)
            {
                problems.Add(
                    new(
                        field,
                        $"From {least} to {most}{(MetricText.UnitOf(dimension) is { Length: > 0 } sign ? " " + sign : "")}. Check the number and its unit."
                    )
                );
            }

            return (double)read.Value;
        }

        if (typed.Count > MostBaths)
        {
            problems.Add(new("baths", $"No more than {MostBaths} baths."));
        }

        var keys = typed.Select(one => one.Key).OfType<string>().ToHashSet();
        var baths = typed
            .Select(
                (one, i) =>
                {
                    var at = $"baths[{i}]";
                    var label = one.Label.Trim();
                    if (label.Length is 0 or > LongestLabel)
                    {
                        problems.Add(new($"{at}.label", $"Write what it is called, in no more than {LongestLabel} characters."));
                    }
                    else if (typed.Take(i).Any(other => string.Equals(other.Label.Trim(), label, StringComparison.OrdinalIgnoreCase)))
                    {
                        problems.Add(new($"{at}.label", "There is one of that name already."));
                    }

                    if (one.Vessel == Vessel.None)
                    {
                        problems.Add(new($"{at}.vessel", "Heated, or a cold tub?"));
                    }

                    var baskets = Number($"{at}.baskets", one.Baskets, Dimension.Count, 1, MostBaskets);
                    if (baskets != Math.Truncate(baskets))
                    {
                        problems.Add(new($"{at}.baskets", "Enter a whole number: it is a count."));
                    }

                    var old = before.FirstOrDefault(bath => bath.Key == one.Key);
                    if (one.Key is not null && old is null)
                    {
                        problems.Add(new($"{at}.label", "It is not there any more."));
                    }

                    if (inUse.FirstOrDefault(bath => bath.Key == one.Key) is { Baskets.Count: > 0 } used)
                    {
                        if (used.Baskets.Max() > baskets)
                        {
                            problems.Add(new($"{at}.baskets", $"Basket {used.Baskets.Max()} is in. Take it out first."));
                        }

                        if (old is not null && old.Vessel != one.Vessel)
                        {
                            problems.Add(new($"{at}.vessel", "Something is in it. Take it out first."));
                        }
                    }

                    var key = one.Key ?? NewKey(label, keys);
                    keys.Add(key);
                    return new Bath(
                        key,
                        label,
                        one.Vessel,
                        (int)baskets,
                        Number($"{at}.room", one.Room, Dimension.Temperature, -20, 50),
                        Number($"{at}.timeConstant", one.TimeConstant, Dimension.Minutes, 1, 1000)
                    );
                }
            )
            .ToList();
        foreach (var gone in inUse.Where(used => used.Baskets.Count > 0 && baths.All(bath => bath.Key != used.Key)))
        {
            problems.Add(new("baths", $"{before.First(bath => bath.Key == gone.Key).Label}: something is in it. Take it out first."));
        }

        return (baths, problems);
    }

    /// <summary>A key from a name that no other bath has: Second tub is second-tub.</summary>
    private static string NewKey(string label, HashSet<string> taken)
    {
        var plain = string.Join(
            '-',
            label
                .ToLowerInvariant()
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(word => new string([.. word.Where(char.IsAsciiLetterOrDigit)]))
                .Where(word => word.Length > 0)
        );
        var start = plain.Length > 0 ? plain : "bath";
        return Enumerable
            .Range(1, int.MaxValue)
            .Select(number => number == 1 ? start : $"{start}-{number}")
            .First(key => !taken.Contains(key));
    }
}
