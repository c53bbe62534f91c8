namespace BlueDawn.Core.Measures;

/// <summary>What is asked of numbers of a computation.</summary>
internal static class FieldChecks
{
    /// <summary>Says so when a number is not above 0 or is above the most.</summary>
    /// <param name="problems">Where it is said.</param>
    /// <param name="value">The number.</param>
    /// <param name="field">Its name.</param>
    /// <param name="most">The most it may be.</param>
    /// <param name="unit">Its unit, for what is said.</param>
    public static void AboveZero(this List<FieldProblem> problems, double value, string field, double most, string unit)
    {
        if (!double.IsFinite(value) || value <= 0 || value > most)
        {
            problems.Add(new(field, $"Must be above 0 and no more than {most} {unit}."));
        }
    }
}
