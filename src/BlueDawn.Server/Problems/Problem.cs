using BlueDawn.Core.Measures;
using BlueDawn.Core.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Problems;

/// <summary>Problem details (RFC 9457) with messages a technician can act on.</summary>
internal static class Problem
{
    /// <summary>400: fields that are wrong, each with what to do.</summary>
    public static ValidationProblem Fields(IEnumerable<FieldProblem> problems)
    {
        var errors = Errors(problems);
        return TypedResults.ValidationProblem(
            errors,
            title: "Something that was entered cannot be used.",
            detail: errors.Values.FirstOrDefault()?.FirstOrDefault()
        );
    }

    /// <summary>400: one field that is wrong.</summary>
    public static ValidationProblem Field(string field, string message) => Fields([new FieldProblem(field, message)]);

    /// <summary>404: no such tray.</summary>
    public static ProblemHttpResult NoTray(int number) =>
        TypedResults.Problem(
            statusCode: 404,
            title: $"There is no tray {number}.",
            detail: "Check the number on the tag, or look on the bench page."
        );

    /// <summary>409: someone else was first.</summary>
    /// <param name="title">What happened.</param>
    /// <param name="detail">What to do.</param>
    /// <param name="both">Both versions, for the page to show.</param>
    public static ProblemHttpResult Conflict(string title, string detail, params (string Key, object? Value)[] both) =>
        TypedResults.Problem(
            statusCode: 409,
            title: title,
            detail: detail,
            extensions: both.ToDictionary(pair => pair.Key, pair => pair.Value)
        );

    /// <summary>What the rules say to a note.</summary>
    /// <param name="refusal">Why it is not recorded.</param>
    public static ProblemHttpResult Of(Refusal refusal) =>
        TypedResults.Problem(
            new HttpValidationProblemDetails(Errors(refusal.Fields))
            {
                Status = StatusOf(refusal.Kind),
                Title = refusal.Title,
                Detail = refusal.Detail,
            }
        );

    /// <summary>The status that stands for a kind of refusal.</summary>
    /// <param name="kind">The kind.</param>
    public static int StatusOf(RefusalKind kind) =>
        kind switch
        {
            RefusalKind.Wrong => 400,
            RefusalKind.NotAllowed => 403,
            RefusalKind.NotFound => 404,
            RefusalKind.Conflict => 409,
            RefusalKind.StillOpen => 422,
        };

    /// <summary>Problems field by field.</summary>
    /// <param name="problems">The problems.</param>
    public static Dictionary<string, string[]> Errors(IEnumerable<FieldProblem> problems) =>
        problems.GroupBy(problem => problem.Field).ToDictionary(field => field.Key, field => field.Select(one => one.Message).ToArray());

    /// <summary>403: not for this role.</summary>
    public static ProblemHttpResult NotYours(string title, string detail) =>
        TypedResults.Problem(statusCode: 403, title: title, detail: detail);
}
