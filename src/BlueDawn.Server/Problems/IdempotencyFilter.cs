using BlueDawn.Store;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Server.Problems;

/// <summary>
/// Runs a write again when PostgreSQL asks for it: two that wait for each other, or the same id at the same moment. The
/// second time it finds what the other has written, and answers as if it had come later.
/// </summary>
internal sealed class IdempotencyFilter : IEndpointFilter
{
    private const int MostTimes = 6;

    /// <summary>A body up to here is kept, to be read again; larger ones are not tried again.</summary>
    private const long Kept = 16 * 1024 * 1024;

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var request = context.HttpContext.Request;
        if (
            HttpMethods.IsGet(request.Method)
            || context.HttpContext.GetEndpoint()?.Metadata.GetMetadata<IRequestSizeLimitMetadata>()?.MaxRequestBodySize > Kept
        )
        {
            return await next(context);
        }

        request.EnableBuffering(bufferThreshold: 1024 * 1024, bufferLimit: Kept);
        for (var time = 1; ; time++)
        {
            try
            {
                return await next(context);
            }
            catch (Exception e) when (time < MostTimes && AsksAgain(e))
            {
                context.HttpContext.RequestServices.GetRequiredService<BlueDawnDb>().ChangeTracker.Clear();
                request.Body.Position = 0;
                await Task.Delay(Random.Shared.Next(5, 40 * time), context.HttpContext.RequestAborted);
            }
        }
    }

    /// <summary>Whether the same write may well succeed when it is tried again.</summary>
    public static bool AsksAgain(Exception exception) =>
        exception is DbUpdateConcurrencyException
        || StoreSetup.Said<PostgresException>(exception)?.SqlState
            is PostgresErrorCodes.DeadlockDetected
                or PostgresErrorCodes.SerializationFailure
                or PostgresErrorCodes.LockNotAvailable
                or PostgresErrorCodes.UniqueViolation
                // What it hangs on has just gone, such as an owner that was a slip: looked for again, it is made anew.
                or PostgresErrorCodes.ForeignKeyViolation;
}
