using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Kits;

/// <summary>In what order kits and new parts are offered.</summary>
public class KitOffersTests
{
    private static readonly PartKnowledge Knowledge = PartKnowledge.Shipped;

    private static readonly WantedPart[] Wanted =
    [
        .. WantedPart.Of(
            [
                new PartNeed("metering diaphragm", 1, new Dictionary<string, string> { ["outer"] = "38 mm" }),
                new PartNeed("metering gasket", 1, new Dictionary<string, string> { ["outer"] = "38 mm" }),
            ],
            [],
            Knowledge
        ),
    ];

    private static StockedItem Kit(
        string number,
        string outer = "38 mm",
        int onHand = 0,
        decimal? price = null,
        bool listed = false,
        ItemKind kind = ItemKind.Kit
    ) =>
        new(
            new CatalogueItem(
                number,
                kind,
                "Kit",
                "Dornay",
                listed ? [new ListedMark(MarkKind.Stamp, "Corvane", "D38-2204")] : [],
                [
                    new ItemPart("metering diaphragm", 1, new Dictionary<string, string> { ["outer"] = outer }),
                    new ItemPart("metering gasket", 1, new Dictionary<string, string> { ["outer"] = outer }),
                ]
            ),
            onHand,
            price is { } money ? [new ItemOffer("Harbour Fuel", 1, money, 3)] : []
        );

    private static List<string> Order(StockedItem[] found, params Supersession[] later) =>
        [
            .. KitOffers
                .Rank(found, Wanted, ["D38-2204"], later.ToDictionary(step => step.Old), later, Knowledge)
                .Select(offered => offered.Item.Number),
        ];

    [Fact]
    public void What_fits_comes_before_what_does_not_then_current_listed_at_hand_and_cheap_ones()
    {
        Assert.Equal(
            ["listed", "on-the-shelf", "cheap", "dear", "unpriced", "superseded"],
            Order(
                [
                    Kit("superseded"),
                    Kit("unpriced"),
                    Kit("dear", price: 9),
                    Kit("cheap", price: 7),
                    Kit("on-the-shelf", onHand: 1, price: 12),
                    Kit("listed", listed: true),
                    Kit("a-part", kind: ItemKind.Part),
                ],
                new Supersession("superseded", "dear", "a better gasket")
            )
        );
        Assert.Equal(["right", "wrong-but-listed"], Order([Kit("wrong-but-listed", outer: "44 mm", listed: true), Kit("right")]));
    }

    [Fact]
    public void What_brings_less_than_half_and_is_not_listed_is_not_offered_and_no_more_than_the_most_are()
    {
        Assert.Empty(Order([Kit("wrong", outer: "44 mm")]));
        Assert.Equal(KitOffers.Most, Order([.. Enumerable.Range(0, 40).Select(i => Kit($"kit-{i:00}"))]).Count);
    }

    [Fact]
    public void A_new_part_comes_first_from_what_was_decided_on_then_from_the_shelf_what_fits_first()
    {
        StockedItem One(string number, string outer, int onHand) =>
            new(
                new CatalogueItem(
                    number,
                    ItemKind.Part,
                    "Diaphragm",
                    "Dornay",
                    [],
                    [new ItemPart("metering diaphragm", 1, new Dictionary<string, string> { ["outer"] = outer })]
                ),
                onHand,
                []
            );
        var fitting = new Fitting(
            FitOption.Kit,
            "Kit CK-1",
            [new FittedItem("CK-1", "Kit", 1, true, [new ItemPart("metering diaphragm", 1, new Dictionary<string, string>())])],
            [],
            null,
            0
        );
        var sources = NewPartSource.Of(
            "metering diaphragm",
            fitting,
            Wanted,
            [One("B-44", "44 mm", 2), One("A-38", "38 mm", 1), One("C-gone", "38 mm", 0)],
            Knowledge
        );
        Assert.Equal([("CK-1", false), ("A-38", true), ("B-44", true)], sources.Select(source => (source.Number, source.FromShelf)));
        Assert.Equal([PartVerdict.Fits, PartVerdict.Fits, PartVerdict.Differs], sources.Select(source => source.Verdict));
        Assert.NotNull(sources[2].Why);
        Assert.Empty(NewPartSource.Of("welch plug", null, Wanted, [], Knowledge));
    }

    [Fact]
    public void A_stamp_stands_for_a_sheet_only_when_it_is_exact_and_the_only_one()
    {
        Assert.Same(Sheets.Spec, Stamp.OnlySheet("4107-b", CarburetorFamily.FloatBowl, [Sheets.Spec]));
        Assert.Null(Stamp.OnlySheet("41O7-B", CarburetorFamily.FloatBowl, [Sheets.Spec]));
        Assert.Null(Stamp.OnlySheet("4107-B", CarburetorFamily.Diaphragm, [Sheets.Spec]));
        Assert.Null(Stamp.OnlySheet("4107-B", CarburetorFamily.FloatBowl, [Sheets.Spec, Sheets.Spec with { Code = "FB19" }]));
    }
}
