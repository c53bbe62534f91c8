namespace BlueDawn.Core.Measures;

/// <summary>A value that was read, or the reason why it could not be.</summary>
/// <param name="Value">The value; meaningless when <paramref name="Problem"/> is set.</param>
/// <param name="Problem">What is wrong and what to type instead, or null when all is well.</param>
public readonly record struct Parsed<T>(T? Value, string? Problem)
{
    /// <summary>True when the value can be used.</summary>
    public bool IsRight => Problem is null;

    /// <summary>A value that was read.</summary>
    public static Parsed<T> Right(T value) => new(value, null);

    /// <summary>A value that could not be read.</summary>
    public static Parsed<T> Wrong(string problem) => new(default, problem);
}

/// <summary>Something wrong with one field of what was sent, in words that say what to do.</summary>
/// <param name="Field">The field's name as it was sent.</param>
/// <param name="Message">What is wrong and what to do.</param>
public sealed record FieldProblem(string Field, string Message);
