using System.Text.Json;
using System.Text.Json.Nodes;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Shop;

/// <summary>Every number among the shop's defaults is a rule that can be changed, and changing it changes that number and no
/// other.</summary>
public sealed class ShopRulesTests
{
    /// <summary>Numbers that have a page of their own: baths, and the shares of comebacks that the shop's own work replaces.</summary>
    private static readonly string[] Elsewhere = ["cleaning.", "fit.returns."];

    private static Dictionary<string, string> Numbers(ShopDefaults shop)
    {
        var numbers = new Dictionary<string, string>();
        void Walk(JsonNode? node, string path)
        {
            switch (node)
            {
                case JsonObject all:
                    foreach (var (name, value) in all)
                    {
                        Walk(value, path.Length == 0 ? name : $"{path}.{name}");
                    }

                    break;
                case JsonArray list:
                    for (var i = 0; i < list.Count; i++)
                    {
                        Walk(list[i], $"{path}.{i}");
                    }

                    break;
                case JsonValue value
                    when value.GetValueKind() == JsonValueKind.Number
                        && !Elsewhere.Any(other => path.StartsWith(other, StringComparison.Ordinal)):
                    numbers[path] = value.ToJsonString();
                    break;
            }
        }

        Walk(JsonSerializer.SerializeToNode(shop, JsonSerializerOptions.Web), "");
        return numbers;
    }

    [Fact]
    public void Each_number_is_changed_by_one_rule_and_each_rule_changes_one_number()
    {
        var before = Numbers(Sheets.Shop);
        var changed = ShopRules
            .All.Select(rule =>
            {
                var now = rule.Get(Sheets.Shop);
                var other = now + 1 <= rule.Most ? now + 1 : now - 1;
                var after = rule.Set(Sheets.Shop, other);
                Assert.Equal(other, rule.Get(after), 1e-9);
                return Assert.Single(Numbers(after), pair => before[pair.Key] != pair.Value).Key;
            })
            .ToList();
        Assert.Equal(before.Keys.Order(), changed.Order());
    }

    [Fact]
    public void Every_rule_says_what_it_does_and_the_shop_keeps_its_own_limits()
    {
        Assert.Equal(ShopRules.All.Count, ShopRules.All.DistinctBy(rule => rule.Key).Count());
        Assert.All(ShopRules.All, rule =>
        {
            Assert.EndsWith(".", rule.What, StringComparison.Ordinal);
            var now = rule.Get(Sheets.Shop);
            Assert.Equal(now, rule.Read(now.ToString(System.Globalization.CultureInfo.InvariantCulture), UnitSystem.Metric).Value);
            Assert.NotNull(
                rule.Read((rule.Most + 1).ToString(System.Globalization.CultureInfo.InvariantCulture), UnitSystem.Metric).Problem
            );
            Assert.NotNull(rule.Read("some", UnitSystem.Metric).Problem);
        });
    }

    [Theory]
    [InlineData("hold.pressureKPa", "7 psi", 48.263)]
    [InlineData("chokes.waxStrokeMm", "1/8 in", 3.175)]
    [InlineData("chokes.waxBeginsC", "131 °F", 55)]
    [InlineData("labourPerHour", "48.50", 48.5)]
    public void A_rule_takes_what_every_box_takes(string key, string typed, double value) =>
        Assert.Equal(value, ShopRules.Find(key)!.Read(typed, UnitSystem.Metric).Value, 0.001);

    [Fact]
    public void A_count_is_whole() =>
        Assert.Contains("whole", ShopRules.Find("bedInDays")!.Read("2.5", UnitSystem.Metric).Problem, StringComparison.Ordinal);

    [Theory]
    [InlineData("chokes.heatLowS", 240)]
    [InlineData("chokes.waxFullC", 55)]
    [InlineData("chokes.stripFullC", 30)]
    [InlineData("hold.dropLimitKPa", 60)]
    [InlineData("chokes.chamberHold.pressureKPa", 2)]
    public void Two_numbers_that_do_not_go_together_are_refused_though_each_is_possible(string key, double value)
    {
        Assert.Null(ShopRules.Problem(Sheets.Shop));
        Assert.NotNull(ShopRules.Problem(ShopRules.Find(key)!.Set(Sheets.Shop, value)));
    }

    [Fact]
    public void What_a_shop_has_changed_is_read_back_as_it_was_written()
    {
        var shop = ShopRules.All.Aggregate(Sheets.Shop, (all, rule) => rule.Set(all, Math.Min(rule.Most, rule.Get(all) + 1)));
        var again = JsonSerializer.Deserialize<ShopDefaults>(
            JsonSerializer.Serialize(shop, Core.Trays.CoreJson.Options),
            Core.Trays.CoreJson.Options
        )!;
        Assert.All(ShopRules.All, rule => Assert.Equal(rule.Get(shop), rule.Get(again)));
    }
}
