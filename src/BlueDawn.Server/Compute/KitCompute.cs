using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stock;
using BlueDawn.Server.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Compute;

/// <summary>A number as read and numbers it may be.</summary>
/// <param name="Read">What was read; <c>?</c> for what could not be.</param>
/// <param name="OnRecord">Numbers on record, at most 1000.</param>
internal sealed record StampInput(string Read, IReadOnlyList<string> OnRecord);

/// <summary>A ring and its groove.</summary>
/// <param name="Size"><c>AS568-008</c> or <c>6 × 1</c>.</param>
/// <param name="GrooveMm">Radial depth of the groove, above 0.</param>
/// <param name="GrooveToleranceMm">How far the depth may be off, 0 or more.</param>
internal sealed record SqueezeInput(string Size, decimal GrooveMm, decimal GrooveToleranceMm = 0);

/// <summary>Use and lead time of an item.</summary>
/// <param name="UsePerDay">Pieces used a day, 0 to 1000.</param>
/// <param name="LeadDays">Days from ordering to having it, 0 to 365.</param>
/// <param name="ServiceLevel">How sure to be that the shelf lasts, above 0 and below 1.</param>
internal sealed record ReorderInput(double UsePerDay, double LeadDays, double ServiceLevel);

/// <summary>The pure computations of Kits and Stock, for scripts.</summary>
internal static class KitCompute
{
    private const int MostNumbers = 1000;

    public static void MapKitCompute(this RouteGroupBuilder compute)
    {
        compute.MapPost("/stamp", (StampInput input) => RankStamps(input)).WithName("computeStamp").WithSummary("Read a stamped number");
        compute
            .MapPost("/o-ring-squeeze", (SqueezeInput input) => SqueezeRing(input))
            .WithName("computeSqueeze")
            .WithSummary("Squeeze of a gasket or ring");
        compute
            .MapPost("/reorder", (ReorderInput input) => WorkOutReorder(input))
            .WithName("computeReorder")
            .WithSummary("Reorder point and quantity");
    }

    private static Results<Ok<IReadOnlyList<StampReading>>, ValidationProblem> RankStamps(StampInput input) =>
        input.Read.Length > StampedNumber.Longest
            ? Problem.Field("read", $"Longer than {StampedNumber.Longest} characters. Check the number.")
        : input.OnRecord.Count > MostNumbers || input.OnRecord.Any(number => number.Length > StampedNumber.Longest)
            ? Problem.Field("onRecord", $"At most {MostNumbers} numbers of {StampedNumber.Longest} characters each.")
        : TypedResults.Ok(Stamp.Rank(input.Read, input.OnRecord));

    private static Results<Ok<Squeeze>, ValidationProblem> SqueezeRing(SqueezeInput input)
    {
        var ring = ORing.Parse(input.Size);
        return !ring.IsRight ? Problem.Field("size", ring.Problem!)
            : input.GrooveMm is <= 0 or > 100 ? Problem.Field("grooveMm", "Give the groove's depth in millimetres, above 0 and up to 100.")
            : input.GrooveToleranceMm < 0 || input.GrooveToleranceMm > input.GrooveMm
                ? Problem.Field("grooveToleranceMm", "Give a tolerance from 0 to the depth itself.")
            : TypedResults.Ok(Squeeze.Of(ring.Value!, input.GrooveMm, input.GrooveToleranceMm));
    }

    private static Results<Ok<Reorder>, ValidationProblem> WorkOutReorder(ReorderInput input)
    {
        List<FieldProblem> problems = [];
        if (input.UsePerDay is not (>= 0 and <= 1000))
        {
            problems.Add(new("usePerDay", "Give the pieces used a day, 0 to 1000."));
        }

        if (input.LeadDays is not (>= 0 and <= 365))
        {
            problems.Add(new("leadDays", "Give the days until it comes, 0 to 365."));
        }

        if (input.ServiceLevel is not (> 0 and < 1))
        {
            problems.Add(new("serviceLevel", "Give a share above 0 and below 1, such as 0.95."));
        }

        return problems.Count > 0
            ? Problem.Fields(problems)
            : TypedResults.Ok(Reorder.Of(input.UsePerDay, input.LeadDays, input.ServiceLevel));
    }
}
