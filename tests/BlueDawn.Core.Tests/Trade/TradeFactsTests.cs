using System.Globalization;
using System.Text.Json;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using CsvHelper;
using CsvHelper.Configuration;

namespace BlueDawn.Core.Tests.Trade;

/// <summary>
/// The tables that ship, held against what the trade holds to be so (facts.csv, written apart from the tables, in our own
/// words). A fact the tables agree with has to stand where it is said to stand.
/// </summary>
public sealed class TradeFactsTests
{
    public sealed record Fact(string Id, string Topic, string Text, string Value, string Unit, string Verdict, string Held, string Reason);

    public static IReadOnlyList<Fact> All { get; } =
    [
        .. Table("tests/BlueDawn.Core.Tests/Trade/facts.csv")
            .Skip(1)
            .Select(row => new Fact(row[0], row[1], row[2], row[3], row[4], row[5], row[6], row[7])),
    ];

    public static TheoryData<string> Agreeing => [.. All.Where(fact => fact.Verdict == "agree").Select(fact => fact.Id)];

    [Fact]
    public void Every_fact_is_decided_and_what_differs_or_is_left_out_says_why()
    {
        Assert.Equal(241, All.Select(fact => fact.Id).Distinct().Count());
        Assert.All(All, fact => Assert.Contains(fact.Verdict, (string[])["agree", "differ", "not covered"]));
        Assert.All(All, fact =>
            Assert.True(fact.Verdict == "agree" ? fact.Held.Length > 0 : fact.Reason.Length > 0 && fact.Held.Length == 0, fact.Id)
        );
    }

    [Theory]
    [MemberData(nameof(Agreeing))]
    public void A_fact_the_tables_agree_with_stands_where_it_is_said_to_stand(string id)
    {
        var fact = All.Single(one => one.Id == id);
        Assert.True(Holds(fact.Held), $"{fact.Text} {fact.Value} {fact.Unit}: {fact.Held}");
    }

    /// <summary>The number of a fact is the number it is held by, or lies in the fact’s range.</summary>
    [Fact]
    public void A_number_is_held_by_that_number()
    {
        foreach (var fact in All.Where(fact => fact.Held.Contains('=') && fact.Value.Length > 0))
        {
            var range = fact.Value.Split('-').Select(text => double.Parse(text, CultureInfo.InvariantCulture)).ToList();
            var held = double.Parse(fact.Held[(fact.Held.LastIndexOf('=') + 1)..], CultureInfo.InvariantCulture);
            Assert.True(held >= range[0] && held <= range[^1], $"{fact.Id}: {fact.Value} against {held}");
        }
    }

    [Theory]
    [InlineData("build/settings.csv:F+main-needle=1.25")]
    [InlineData("build/stacks.csv:plunger~never in life")]
    [InlineData("faults/cause-findings.csv:spark-plug-poor+hunts")]
    [InlineData("!faults/cause-findings.csv:idle-jet-blocked+hunts")]
    [InlineData("stack:D:metering-diaphragm<metering-gasket")]
    [InlineData("reference/shop-defaults.json:fuelWatchMin=5")]
    public void What_does_not_stand_there_is_not_found(string held) => Assert.False(Holds(held));

    private static bool Holds(string held)
    {
        if (held.StartsWith('!'))
        {
            return !Holds(held[1..]);
        }

        if (held.StartsWith("stack:", StringComparison.Ordinal))
        {
            var (family, chain) = (
                held[6] switch
                {
                    'F' => CarburetorFamily.FloatBowl,
                    'D' => CarburetorFamily.Diaphragm,
                    _ => CarburetorFamily.SuctionTank,
                },
                held[8..].Split('<')
            );
            return StackKnowledge
                .Shipped.Stacks(family)
                .Any(stack =>
                {
                    var places = chain.Select(part => stack.Layers.FirstOrDefault(layer => layer.Part == part)?.Place).ToList();
                    return places.All(place => place is not null) && places.Zip(places.Skip(1)).All(pair => pair.First < pair.Second);
                });
        }

        var (file, what) = (held[..held.IndexOf(':', StringComparison.Ordinal)], held[(held.IndexOf(':', StringComparison.Ordinal) + 1)..]);
        var at = what.IndexOfAny(['~', '=']);
        var (cells, sign, sought) = at < 0 ? (what, ' ', "") : (what[..at], what[at], what[(at + 1)..]);
        if (file.EndsWith(".json", StringComparison.Ordinal))
        {
            var text = File.ReadAllText(Path.Combine(Repository.Root, "data", file));
            return sign == '~'
                ? text.Contains(sought, StringComparison.Ordinal)
                : cells.Split('.').Aggregate(JsonDocument.Parse(text).RootElement, (element, name) => element.GetProperty(name)).GetDouble()
                    == Number(sought);
        }

        return Table("data/" + file)
            .Any(row =>
                cells.Split('+').All(cell => row.Contains(cell) || row.Any(one => one.Split(' ').Contains(cell)))
                && sign switch
                {
                    '~' => row.Any(cell => cell.Contains(sought, StringComparison.OrdinalIgnoreCase)),
                    '=' => row.Any(cell => Number(cell) == Number(sought)),
                    _ => true,
                }
            );
    }

    private static double? Number(string text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;

    private static List<string[]> Table(string path)
    {
        using var csv = new CsvReader(
            new StreamReader(Path.Combine(Repository.Root, path)),
            new CsvConfiguration(CultureInfo.InvariantCulture) { AllowComments = true, HasHeaderRecord = false }
        );
        var rows = new List<string[]>();
        while (csv.Read())
        {
            rows.Add([.. Enumerable.Range(0, csv.Parser.Count).Select(i => csv.GetField(i) ?? "")]);
        }

        return rows;
    }
}
