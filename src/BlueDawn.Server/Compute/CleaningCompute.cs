using BlueDawn.Core.Cleaning;
using BlueDawn.Server.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Compute;

/// <summary>A hole to be cleared.</summary>
/// <param name="BoreMm">Nominal bore, above 0 and up to 20.</param>
/// <param name="ToleranceMm">Allowed either way, 0 or more and below the bore.</param>
internal sealed record HoleInput(double BoreMm, double ToleranceMm = 0);

/// <summary>Temperatures of a bath.</summary>
/// <param name="Samples">4 to 500, in the order of time.</param>
internal sealed record BathCurveInput(IReadOnlyList<TemperatureSample> Samples);

/// <summary>A curve through them, or none.</summary>
/// <param name="Fit">The curve; null when they do not say where they are heading.</param>
internal sealed record BathCurveOutput(NewtonFit? Fit);

/// <summary>The pure computations of Cleaning, for scripts.</summary>
internal static class CleaningCompute
{
    private const double LargestBoreMm = 20;
    private const int MostSamples = 500;

    public static void MapCleaningCompute(this RouteGroupBuilder compute)
    {
        compute
            .MapPost("/clearing-tools", (HoleInput input) => ChooseTools(input))
            .WithName("computeClearingTools")
            .WithSummary("Tools to clear a hole with");
        compute
            .MapPost("/bath-curve", (BathCurveInput input) => FitCurve(input))
            .WithName("computeBathCurve")
            .WithSummary("Work out a bath's temperature over time");
    }

    private static Results<Ok<IReadOnlyList<ClearingChoice>>, ValidationProblem> ChooseTools(HoleInput input) =>
        input.BoreMm is not (> 0 and <= LargestBoreMm)
            ? Problem.Field("boreMm", $"Give the bore in millimetres, above 0 and up to {LargestBoreMm}.")
        : !(input.ToleranceMm >= 0 && input.ToleranceMm < input.BoreMm)
            ? Problem.Field("toleranceMm", "Give a tolerance of 0 or more and below the bore.")
        : TypedResults.Ok(ClearingTools.For(input.BoreMm, input.ToleranceMm));

    private static Results<Ok<BathCurveOutput>, ValidationProblem> FitCurve(BathCurveInput input) =>
        input.Samples.Count is < NewtonFit.FewestSamples or > MostSamples
            ? Problem.Field("samples", $"Give {NewtonFit.FewestSamples} to {MostSamples} samples.")
        : input.Samples.Zip(input.Samples.Skip(1)).Any(pair => !(pair.First.Minute <= pair.Second.Minute))
            ? Problem.Field("samples", "Give them in the order of time.")
        : TypedResults.Ok(new BathCurveOutput(NewtonFit.Of(input.Samples)));
}
