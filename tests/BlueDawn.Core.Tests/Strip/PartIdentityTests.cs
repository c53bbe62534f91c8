using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Tests.Strip;

/// <summary>A part is one thing by one name wherever it turns up; a table that speaks of another is refused with its file and
/// row.</summary>
public class PartIdentityTests
{
    [Theory]
    [InlineData("strip/parts.csv", "bowl gasket,", "bowl ring,", "strip/parts.csv, row")]
    [InlineData("strip/parts.csv", "need:breather hose", "need:bowl ring", "when: “")]
    [InlineData("strip/parts.csv", "need:breather hose", "hopefully", "is not a condition")]
    [InlineData("strip/jobs.csv", "bowl-gasket", "bowl-ring", "speaks of bowl-ring")]
    public void A_strip_table_that_speaks_of_an_unknown_part_is_refused(string table, string was, string now, string said)
    {
        var wrong = Assert.Throws<TableException>(() => ShippedKnowledge.With(table, was, now).Of<LedgerKnowledge>());
        Assert.StartsWith(table, wrong.Message, StringComparison.Ordinal);
        Assert.Contains(said, wrong.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("build/stacks.csv", "metering-gasket", "metering-ring")]
    [InlineData("build/stacks.csv", "toward-lever", "toward-the-sea")]
    [InlineData("build/torques.csv", "filter-housing", "filter-house")]
    [InlineData("build/settings.csv", "idle-needle", "idle-pin")]
    public void A_build_table_that_speaks_of_an_unknown_part_or_way_is_refused(string table, string was, string now)
    {
        var wrong = Assert.Throws<TableException>(() => ShippedKnowledge.With(table, was, now).Of<StackKnowledge>());
        Assert.StartsWith($"{table}, row ", wrong.Message, StringComparison.Ordinal);
        Assert.Contains(now, wrong.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void What_renews_a_part_is_renewed_in_the_families_that_have_it()
    {
        foreach (var family in Enum.GetValues<CarburetorFamily>())
        {
            foreach (var part in LedgerKnowledge.Shipped.All(family).Where(part => part.KitPart is not null))
            {
                Assert.Contains(family, PartKnowledge.Shipped.Find(part.KitPart!)!.Families);
            }
        }
    }
}
