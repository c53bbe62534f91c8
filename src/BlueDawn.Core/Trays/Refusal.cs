using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Trays;

/// <summary>Why a note is not recorded.</summary>
public enum RefusalKind
{
    /// <summary>A field of it cannot be used.</summary>
    Wrong,

    /// <summary>What it speaks of is not there.</summary>
    NotFound,

    /// <summary>It meets something that stands against it.</summary>
    Conflict,

    /// <summary>It is not for this role.</summary>
    NotAllowed,

    /// <summary>Something is open that has to be signed for.</summary>
    StillOpen,
}

/// <summary>A note that is not recorded, with what to do about it.</summary>
/// <param name="Kind">Why.</param>
/// <param name="Title">What is wrong.</param>
/// <param name="Detail">What to do.</param>
/// <param name="Fields">Field by field; empty when it is not about a field.</param>
public sealed record Refusal(RefusalKind Kind, string Title, string Detail, IReadOnlyList<FieldProblem> Fields)
{
    /// <summary>Fields that cannot be used.</summary>
    /// <param name="fields">At least one.</param>
    public static Refusal Wrong(IReadOnlyList<FieldProblem> fields) =>
        new(RefusalKind.Wrong, "Something that was entered cannot be used.", fields[0].Message, fields);

    /// <summary>What it speaks of is not there.</summary>
    /// <param name="title">What is wrong.</param>
    /// <param name="detail">What to do.</param>
    public static Refusal NotFound(string title, string detail) => new(RefusalKind.NotFound, title, detail, []);

    /// <summary>Something stands against it.</summary>
    /// <param name="title">What is wrong.</param>
    /// <param name="detail">What to do.</param>
    public static Refusal Conflict(string title, string detail) => new(RefusalKind.Conflict, title, detail, []);
}
