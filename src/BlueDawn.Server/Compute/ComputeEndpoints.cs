using BlueDawn.Core.Gauging;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Setting;
using BlueDawn.Server.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Compute;

/// <summary>Text to read as a measure.</summary>
/// <param name="Text">What was typed.</param>
/// <param name="Dimension">What it measures.</param>
/// <param name="Units">Units of a number without a unit; metric when not given.</param>
internal sealed record MeasureInput(string Text, Dimension Dimension, UnitSystem Units = UnitSystem.Metric);

/// <summary>A measure that was read.</summary>
/// <param name="Value">In the base unit.</param>
/// <param name="Unit">The base unit: mm, kPa, g, rpm, s …</param>
internal sealed record MeasureResult(decimal Value, string Unit);

/// <summary>A number drill.</summary>
internal sealed record NumberDrillView(int Number, decimal DiameterIn, decimal DiameterMm);

/// <summary>The pure computations, for scripts: no sign-in, nothing stored, the unit in every field name.</summary>
internal static class ComputeEndpoints
{
    public static void MapCompute(this RouteGroupBuilder api)
    {
        var compute = api.MapGroup("/compute").WithTags("Compute");
        compute.MapPost("/jet-gauge", (JetGaugeInput input) => Judge(input, JetGauge.Check, JetGauge.Judge)).WithName("computeJetGauge");
        compute.MapPost("/float-level", (FloatLevelInput input) => Judge(input, FloatLevel.Check, FloatLevel.Judge)).WithName("computeFloatLevel");
        compute.MapPost("/float-mass", (FloatMassInput input) => Judge(input, FloatMass.Check, FloatMass.Judge)).WithName("computeFloatMass");
        compute.MapPost("/hold-test", (HoldTestInput input) => Judge(input, HoldTest.Check, HoldTest.Judge)).WithName("computeHoldTest");
        compute.MapPost("/measure", (MeasureInput input) => ReadMeasure(input)).WithName("computeMeasure");
        compute.MapGet("/number-drills", () => TypedResults.Ok(NumberDrills.All.Select(drill => new NumberDrillView(drill.Number, drill.DiameterIn, drill.DiameterMm))))
            .WithName("listNumberDrills");
    }

    private static Results<Ok<TResult>, ValidationProblem> Judge<TInput, TResult>(
        TInput input, Func<TInput, IReadOnlyList<FieldProblem>> check, Func<TInput, TResult> judge) =>
        check(input) is { Count: > 0 } problems ? Problem.Fields(problems) : TypedResults.Ok(judge(input));

    private static Results<Ok<MeasureResult>, ValidationProblem> ReadMeasure(MeasureInput input) =>
        MeasureEntry.Parse(input.Text, input.Dimension, input.Units) is { Problem: null, Value: var value }
            ? TypedResults.Ok(new MeasureResult(value, MetricText.UnitOf(input.Dimension)))
            : Problem.Field("text", MeasureEntry.Parse(input.Text, input.Dimension, input.Units).Problem!);
}
