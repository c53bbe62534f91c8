using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>Something unsafe: while it stands nothing that runs the engine is asked or taken at any station.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Label">What it is, in the owner's words.</param>
/// <param name="IsFloor">True when nobody can sign for it: such a machine goes only as declined, not to be filled or run.</param>
/// <param name="At">The station where it is settled.</param>
/// <param name="Why">Why it is unsafe.</param>
/// <param name="Settle">What to do.</param>
/// <param name="Source">Where this is from.</param>
public sealed record Danger(string Id, string Label, bool IsFloor, Station At, string Why, string Settle, string Source);

/// <summary>What shows a danger, or that it is gone.</summary>
/// <param name="Danger">The danger.</param>
/// <param name="Sign">What shows it: <c>finding:…</c>, <c>line:…=…</c>, <c>part:…</c> or <c>note:…</c>.</param>
/// <param name="IsThere">True when it shows the danger, false when it shows that it is gone, whatever showed it.</param>
public sealed record DangerSign(Danger Danger, string Sign, bool IsThere);

/// <summary>Something that was entered, as the list of dangers knows it.</summary>
/// <param name="Sign">What it is, as in <see cref="DangerSign.Sign"/>.</param>
/// <param name="IsThere">Whether it is there, or is seen not to be.</param>
/// <param name="Words">The same in words.</param>
/// <param name="At">When.</param>
/// <param name="By">Who said so.</param>
public sealed record Seen(string Sign, bool IsThere, string Words, DateTimeOffset At, string By);

/// <summary>A danger that stands on a tray.</summary>
/// <param name="Danger">What it is.</param>
/// <param name="Shown">What shows it, in words, oldest first.</param>
/// <param name="Since">When it was first seen.</param>
/// <param name="By">Who saw it first.</param>
public sealed record StandingDanger(Danger Danger, IReadOnlyList<string> Shown, DateTimeOffset Since, string By);

/// <summary>The list of dangers: data/safety/dangers.csv and data/safety/signs.csv. It is no shop's to change.</summary>
public static class Dangers
{
    /// <summary>Every danger, the worst first.</summary>
    public static IReadOnlyList<Danger> All { get; } =
        CsvTable.Rows(CsvTable.OpenShipped, "safety/dangers.csv", row => new Danger(
            row.Text("danger"),
            row.Text("label"),
            row.Text("floor") == "yes",
            row.Word<Station>("at"),
            row.Text("why"),
            row.Text("settle"),
            row.Text("source")
        ));

    /// <summary>What shows them.</summary>
    public static IReadOnlyList<DangerSign> Signs { get; } = CsvTable.Rows(CsvTable.OpenShipped, "safety/signs.csv", row => new DangerSign(
            All.FirstOrDefault(danger => danger.Id == row.Text("danger")) ?? throw row.Wrong("danger", "is not in safety/dangers.csv"),
            row.Text("sign"),
            row.Text("says") switch
            {
                "there" => true,
                "gone" => false,
                _ => throw row.Wrong("says", "is neither there nor gone"),
            }
        ));

    private const string LineSign = "line:";

    private static readonly ILookup<string, DangerSign> BySign = Signs.ToLookup(sign => sign.Sign);

    private static readonly HashSet<string> Lines =
    [
        .. Signs
            .Select(sign => sign.Sign)
            .Where(sign => sign.StartsWith(LineSign, StringComparison.Ordinal))
            .Select(sign => sign[LineSign.Length..sign.IndexOf('=', StringComparison.Ordinal)]),
    ];

    /// <summary>Whether a line can show one, or that one is gone: no other need be looked at.</summary>
    /// <param name="line">The line's key.</param>
    public static bool IsShownBy(string line) => Lines.Contains(line);

    /// <summary>What stands, by all that was entered: what was seen last of each sign counts, and whatever shows that a danger is gone
    /// clears all signs of it from before.</summary>
    /// <param name="seen">What was entered, in any order.</param>
    public static IReadOnlyList<StandingDanger> Standing(IEnumerable<Seen> seen)
    {
        var there = new Dictionary<Danger, Dictionary<string, Seen>>();
        foreach (var one in seen.OrderBy(one => one.At))
        {
            foreach (var sign in BySign[one.Sign])
            {
                var signs = there.TryGetValue(sign.Danger, out var known) ? known : there[sign.Danger] = [];
                if (!sign.IsThere)
                {
                    if (one.IsThere)
                    {
                        signs.Clear();
                    }
                }
                else if (one.IsThere)
                {
                    // It has been there since it was first seen.
                    signs.TryAdd(one.Sign, one);
                }
                else
                {
                    signs.Remove(one.Sign);
                }
            }
        }

        return
        [
            .. from danger in All
            where there.ContainsKey(danger) && there[danger].Count > 0
            let signs = there[danger].Values.OrderBy(one => one.At).ToList()
            select new StandingDanger(danger, [.. signs.Select(one => one.Words).Distinct()], signs[0].At, signs[0].By),
        ];
    }
}
