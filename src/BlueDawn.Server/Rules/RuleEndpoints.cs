using System.Globalization;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Carburetors;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Rules;

/// <summary>When a rule was changed last.</summary>
/// <param name="At">When.</param>
/// <param name="By">Who.</param>
/// <param name="What">From what to what.</param>
/// <param name="Why">Why.</param>
internal sealed record RuleChanged(DateTimeOffset At, string By, string What, string Why);

/// <summary>A rule as it stands.</summary>
/// <param name="Key">Its key.</param>
/// <param name="Group">What it belongs to.</param>
/// <param name="Label">Its name.</param>
/// <param name="What">What it does.</param>
/// <param name="Source">Where the usual value is from.</param>
/// <param name="Dimension">What it measures.</param>
/// <param name="Value">Its value in the base unit.</param>
/// <param name="Usual">What it came with.</param>
/// <param name="Counts">What is counted, in the plural, or the currency of an amount; empty where the dimension says it.</param>
/// <param name="Choices">What can be chosen, where the value is the place of one of them; empty for a number.</param>
/// <param name="Changed">Its last change, or null.</param>
internal sealed record RuleView(
    string Key,
    string Group,
    string Label,
    string What,
    string Source,
    Dimension Dimension,
    double Value,
    double Usual,
    string Counts,
    IReadOnlyList<string> Choices,
    RuleChanged? Changed
);

/// <summary>Another value for a rule.</summary>
/// <param name="Typed">The new one, as it was typed.</param>
/// <param name="Units">The units that a number without a unit is in.</param>
/// <param name="Was">The value it was changed from: when it is another by now, somebody was first.</param>
/// <param name="Why">Why.</param>
internal sealed record RuleChange(string Typed, UnitSystem Units, double Was, string Why);

internal static class RuleEndpoints
{
    private const int LongestWhy = 500;

    public static void MapRules(this RouteGroupBuilder api)
    {
        var rules = api.MapGroup("/shop/rules").WithTags("Rules");
        rules
            .MapGet("", async (BlueDawnDb db, Me me, CancellationToken cancel) =>
                TypedResults.Ok(await ListAsync(db, me.Context.Shop, cancel))
            )
            .WithName("listRules")
            .WithSummary("Every number the shop goes by");
        rules
            .MapPut("/{key}", ChangeAsync)
            .WithName("changeRule")
            .WithSummary("Change a rule; trays that are worked on keep the old one")
            .RequireAuthorization(nameof(Permission.ManageShop));
        api.MapPost("/trays/{number:int}/rules", JudgeAnewAsync)
            .WithTags("Rules")
            .WithName("judgeByTodaysRules")
            .WithSummary("Judge a tray by the shop's rules of today")
            .RequireAuthorization(nameof(Permission.ManageShop));
    }

    private static async Task<List<RuleView>> ListAsync(BlueDawnDb db, ShopDefaults shop, CancellationToken cancel)
    {
        var last = await db
            .ShopChanges.AsNoTracking()
            .Where(change => change.About.StartsWith("rule/"))
            .GroupBy(change => change.About)
            .Select(group => group.OrderByDescending(change => change.At).First())
            .ToListAsync(cancel);
        var changes = last.ToDictionary(change => change.About, change => new RuleChanged(change.At, change.By, change.What, change.Why));
        return
        [
            .. ShopRules.All.Select(rule => new RuleView(
                rule.Key,
                rule.Group,
                rule.Label,
                rule.What,
                rule.Source,
                rule.Dimension,
                rule.Get(shop),
                rule.Get(ShopSeed.ShippedDefaults),
                rule.Counts == ShopRules.Money ? shop.Currency : rule.Counts,
                rule.Choices,
                changes.GetValueOrDefault($"rule/{rule.Key}")
            )),
        ];
    }

    private static async Task<Results<Ok<List<RuleView>>, ValidationProblem, ProblemHttpResult>> ChangeAsync(
        string key,
        RuleChange input,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (ShopRules.Find(key) is not { } rule)
        {
            return TypedResults.Problem(statusCode: 404, title: "There is no such rule.", detail: "Look at the list of rules again.");
        }

        var read = rule.Read(input.Typed, input.Units);
        List<FieldProblem> problems =
        [
            .. read.Problem is { } wrong ? [new FieldProblem("typed", wrong)] : Array.Empty<FieldProblem>(),
            .. input.Why.Trim().Length is 0 or > LongestWhy
                ? [new FieldProblem("why", $"Say why, in no more than {LongestWhy} characters: whoever is judged by it wants to know.")]
                : Array.Empty<FieldProblem>(),
        ];
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var row = await db.Shop.FromSql($"select *, xmin from shop for update").SingleAsync(cancel);
        var before = rule.Get(row.Defaults);
        if (before != input.Was)
        {
            return Problem.Conflict(
                $"{rule.Label} was changed meanwhile.",
                "Look at what it is now, then decide. Nothing was changed.",
                ("rules", await ListAsync(db, row.Defaults, cancel))
            );
        }

        var (old, now) = (row.Defaults, clock.GetUtcNow());
        row.Defaults = rule.Set(old, read.Value);
        if (ShopRules.Problem(row.Defaults) is { } together)
        {
            return Problem.Field("typed", together);
        }

        // What has been worked on was judged by the old rules, and keeps them until somebody judges it anew on purpose.
        await db
            .Trays.Where(tray =>
                tray.Rules == null
                && tray.WaitsFor != WaitsFor.HandedBack
                && db.LogbookEntries.Any(entry => entry.TrayId == tray.Id && entry.Kind == "reading")
            )
            .ExecuteUpdateAsync(set => set.SetProperty(tray => tray.Rules, old), cancel);
        db.ShopChanges.Add(
            new ShopChange
            {
                Id = Guid.CreateVersion7(now),
                At = now,
                By = me.Person.DisplayName,
                About = $"rule/{rule.Key}",
                What = $"{rule.Label}: {Said(rule, before, old)} → {Said(rule, read.Value, old)}",
                Why = input.Why.Trim(),
            }
        );
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return TypedResults.Ok(await ListAsync(db, row.Defaults, cancel));
    }

    /// <summary>A value in words; counts and amounts with every digit they were typed with.</summary>
    private static string Said(ShopRule rule, double value, ShopDefaults shop) =>
        rule.Choices.Count > 0 ? rule.Choices[(int)value]
        : rule.Counts.Length == 0 ? MetricText.Of(new Quantity(rule.Dimension, value))
        : $"{value.ToString(CultureInfo.InvariantCulture)} {(rule.Counts == ShopRules.Money ? shop.Currency : rule.Counts)}";

    private static async Task<Results<NoContent, ProblemHttpResult>> JudgeAnewAsync(
        int number,
        BlueDawnDb db,
        Me me,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await db.Trays.FromSql($"select * from trays where number = {number} for update").SingleOrDefaultAsync(cancel) is not { } tray)
        {
            return Problem.NoTray(number);
        }

        if (tray.Rules is not null && tray.WaitsFor != WaitsFor.HandedBack)
        {
            var now = clock.GetUtcNow();
            (tray.Rules, tray.Version) = (null, tray.Version + 1);
            db.ShopChanges.Add(
                new ShopChange
                {
                    Id = Guid.CreateVersion7(now),
                    At = now,
                    By = me.Person.DisplayName,
                    About = $"tray/{number}",
                    What = $"Tray {number} is judged by the shop’s rules of today.",
                }
            );
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return TypedResults.NoContent();
    }
}
