using System.Net.Sockets;
using System.Text.Json;
using BlueDawn.Store;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Diagnostics;
using Npgsql;

namespace BlueDawn.Server.Problems;

/// <summary>Turns whatever goes wrong into problem details that say what to do.</summary>
internal static class ProblemSetup
{
    public static void AddBlueDawnProblems(this IServiceCollection services)
    {
        // A body that does not announce its length is cut off by the web server, with nothing but a status.
        services.AddProblemDetails(options =>
            options.CustomizeProblemDetails = context =>
            {
                if (context.ProblemDetails.Status == StatusCodes.Status413PayloadTooLarge)
                {
                    context.ProblemDetails.Title = "That is too much at once.";
                    context.ProblemDetails.Detail = "At most 1 MB can be sent in one go.";
                }
            }
        );
        services.AddExceptionHandler<ProblemExceptionHandler>();
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
    }
}

/// <summary>Maps exceptions: unreadable bodies to 400, a silent database to 503, the rest to 500.</summary>
internal sealed class ProblemExceptionHandler(ILogger<ProblemExceptionHandler> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellationToken)
    {
        IResult result = exception switch
        {
            BadHttpRequestException { InnerException: JsonException json } => Problem.Field(FieldOf(json), MessageOf(json)),
            BadHttpRequestException bad => TypedResults.Problem(
                statusCode: bad.StatusCode,
                title: "The request cannot be read.",
                detail: bad.Message
            ),
            AntiforgeryValidationException => TypedResults.Problem(
                statusCode: 400,
                title: "This page is out of date.",
                detail: "Reload it and sign in again; what you typed is kept on this device."
            ),
            // A polymorphic body that does not say which kind it is.
            NotSupportedException { Source: "System.Text.Json" } => Problem.Field(
                "kind",
                "Say which kind it is, first of all; kinds are listed in /openapi/v1.json."
            ),
            _ when StoreSetup.Said<PostgresException>(exception)?.SqlState is PostgresErrorCodes.UniqueViolation => Problem.Conflict(
                "That id has been used for something else.",
                "Reload the page and try again."
            ),
            _ when IdempotencyFilter.AsksAgain(exception) => TypedResults.Problem(
                statusCode: 503,
                title: "Too many wanted the same thing at once.",
                detail: "Nothing was saved. It is tried again by itself."
            ),
            _ when StoreSetup.Said<PostgresException>(exception)?.SqlState
                    is PostgresErrorCodes.UndefinedColumn
                        or PostgresErrorCodes.UndefinedTable => TypedResults.Problem(
                statusCode: 503,
                title: "This server is older than the book.",
                detail: "Nothing was saved. It has to be started again in its newer version."
            ),
            _ when IsUnusable(StoreSetup.Said<PostgresException>(exception)) => Problem.Field(
                "body",
                "Something in it cannot be kept: a text or a number that is out of range."
            ),
            _ when IsDatabaseGone(exception) => TypedResults.Problem(
                statusCode: 503,
                title: "The database does not answer.",
                detail: "Nothing was saved. What you typed stays on this device and is sent when the database is back."
            ),
            _ => TypedResults.Problem(
                statusCode: 500,
                title: "Something went wrong in the server.",
                detail: "Nothing was saved. Try again; if it stays, look in the server's log."
            ),
        };
        if (IsDatabaseGone(exception))
        {
            log.LogWarning("The database does not answer: {Reason}", exception.GetBaseException().Message);
        }
        else if (exception is not (BadHttpRequestException or AntiforgeryValidationException))
        {
            log.LogError(exception, "Unhandled");
        }

        context.Response.Clear();
        await result.ExecuteAsync(context);
        return true;
    }

    /// <summary>Whether an exception means that the database cannot be reached, however deep it is wrapped.</summary>
    public static bool IsDatabaseGone(Exception? exception)
    {
        for (var e = exception; e is not null; e = e.InnerException)
        {
            if (e is PostgresException postgres)
            {
                // 57P01 to 57P03: shutting down, crashed, starting up. 08xxx: connection lost. 3D000: no such database.
                // 53xxx: no connection, memory or disk left.
                return postgres.SqlState.StartsWith("57P", StringComparison.Ordinal)
                    || postgres.SqlState.StartsWith("08", StringComparison.Ordinal)
                    || postgres.SqlState.StartsWith("53", StringComparison.Ordinal);
            }

            if (e is NpgsqlException or SocketException)
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>22021, 22P05: no text; 22001: too long; 22003, 22008: out of range.</summary>
    private static bool IsUnusable(PostgresException? postgres) =>
        postgres?.SqlState is "22021" or "22P05" or "22001" or "22003" or "22008";

    private static string FieldOf(JsonException json)
    {
        var path = json.Path ?? "";
        return path.StartsWith("$.", StringComparison.Ordinal) ? path[2..]
            : path is "" or "$" ? "body"
            : path;
    }

    private static string MessageOf(JsonException json)
    {
        if (json.Message.Contains("missing required", StringComparison.Ordinal))
        {
            var names = json.Message.Split('\'').Where((_, i) => i % 2 == 1).Skip(1);
            var listed = json.Message[(json.Message.LastIndexOf(':') + 1)..].Trim().TrimEnd('.').Replace("'", "", StringComparison.Ordinal);
            return $"Missing: {string.Join(", ", listed.Split(',', StringSplitOptions.TrimEntries).DefaultIfEmpty(string.Join(", ", names)))}.";
        }

        if (json.Message.Contains("could not be mapped", StringComparison.Ordinal))
        {
            return "There is no field of this name. Names carry their unit, such as goPinMm; see /openapi/v1.json.";
        }

        return json.Message.Contains("could not be converted", StringComparison.Ordinal)
            ? "This is not the kind of value that belongs here: numbers without quotes, words as listed in /openapi/v1.json."
            : "This is not readable JSON.";
    }
}
