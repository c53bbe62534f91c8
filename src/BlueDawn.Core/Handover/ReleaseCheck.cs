using BlueDawn.Core.Bench;
using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Handover;

/// <summary>Why a line stands in the way of handing back.</summary>
public enum ObstacleKind
{
    /// <summary>A required reading is missing.</summary>
    Missing,

    /// <summary>A required reading is not good.</summary>
    Failing,

    /// <summary>A required reading does not decide.</summary>
    Undecided,
}

/// <summary>A line that stands in the way of handing back.</summary>
/// <param name="LineKey">The line, or <c>kits/spec-sheet</c> when there is no sheet to judge by.</param>
/// <param name="Label">Its name.</param>
/// <param name="Station">Where it is put right.</param>
/// <param name="Kind">Missing, failing or undecided.</param>
/// <param name="Word">What was found, in a word or two.</param>
public sealed record Obstacle(string LineKey, string Label, Station Station, ObstacleKind Kind, string Word);

/// <summary>Whether a tray may be handed back.</summary>
public static class ReleaseCheck
{
    /// <summary>Fewest characters of a reason that is signed for.</summary>
    public const int ShortestReason = 10;

    /// <summary>The obstacles, in bench order; none means the tray is free to go without a signed reason.</summary>
    /// <param name="hasSpec">Whether a spec sheet has been chosen; without one nothing has been judged.</param>
    /// <param name="lines">The judged lines.</param>
    /// <param name="work">What has been taken apart and put together.</param>
    public static IReadOnlyList<Obstacle> Obstacles(bool hasSpec, IReadOnlyList<JudgedLine> lines, TrayWork work)
    {
        if (!hasSpec)
        {
            return [.. work.Obstacles.Prepend(new Obstacle("kits/spec-sheet", "Spec sheet", Station.Kits, ObstacleKind.Missing, "Not chosen"))];
        }

        return [.. work.Obstacles.Concat(lines.Where(line => line.IsOpen).Select(line => new Obstacle(
            line.Line.Key,
            line.Line.Label,
            line.Line.Station,
            line.Judgement.Verdict switch
            {
                Verdict.NotGood => ObstacleKind.Failing,
                Verdict.CannotTell => ObstacleKind.Undecided,
                _ => ObstacleKind.Missing,
            },
            line.Judgement.Word))).OrderBy(obstacle => obstacle.Station)];
    }

    /// <summary>What is wrong with a signed reason, or null when it will do.</summary>
    public static string? ReasonProblem(string? reason) =>
        (reason ?? "").Trim().Length >= ShortestReason
            ? null
            : $"Say in at least {ShortestReason} characters why it may go as it is; it is printed on the report.";
}
