using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Kits;

public class FitOffersTests
{
    private static readonly PartNeed Gasket = Need("bowl gasket", 1, ("thickness", "1.5 mm"));
    private static readonly PartNeed Needle = Need("needle", 1, ("tip", "rubber"));
    private static readonly PartNeed Rings = Need("O-ring", 2, ("size", "6 × 1 mm"));

    private static PartNeed Need(string part, int quantity, params (string Name, string Value)[] features) =>
        new(part, quantity, features.ToDictionary(f => f.Name, f => f.Value));

    private static ItemPart Brings(PartNeed need, int? quantity = null) => new(need.Part, quantity ?? need.Quantity, need.Features);

    private static StockedItem Item(string number, ItemKind kind, int onHand, decimal price, int lead, int pack, params ItemPart[] parts) =>
        new(
            new CatalogueItem(number, kind, number, "Dornay", [new ListedMark(MarkKind.Stamp, "Ostrel", "4107")], parts),
            onHand,
            [new ItemOffer("Northmole", pack, price, lead)]
        );

    private static Dictionary<FitOption, PricedOption> Price(
        PartNeed[] renew,
        StockedItem[] items,
        Donor[]? donors = null,
        PartNeed[]? all = null
    )
    {
        IReadOnlyList<WantedPart> Wanted(PartNeed[] needs) => WantedPart.Of(needs, [], PartKnowledge.Shipped);
        return new FitOffers(Wanted(all ?? renew), Wanted(renew), ["4107"], items, donors ?? [], Sheets.Fit, 4, PartKnowledge.Shipped)
            .Price()
            .ToDictionary(option => option.Offer.Option);
    }

    [Fact]
    public void Every_option_is_there_and_what_cannot_be_done_says_why()
    {
        var priced = Price([Gasket, Needle], []);
        Assert.Equal(Enum.GetValues<FitOption>(), priced.Keys.Order());
        Assert.Equal("No kit is known that brings these parts.", priced[FitOption.Kit].Offer.Obstacle);
        Assert.Equal("Not to be had alone: bowl gasket, needle.", priced[FitOption.SingleParts].Offer.Obstacle);
        Assert.Equal("Cannot be made here: needle.", priced[FitOption.MakeIt].Offer.Obstacle);
        Assert.Equal("No donor is on the shelf.", priced[FitOption.DonorPart].Offer.Obstacle);
        Assert.Null(priced[FitOption.Stopgap].Offer.Obstacle);
        Assert.Null(priced[FitOption.Decline].Offer.Obstacle);
        // To put all of it back is always to be had, and is advised only where nothing is marked: the cheapest is not the best then.
        var asItIs = priced[FitOption.CleanAndRefit].Offer;
        Assert.Equal(("as they are: bowl gasket, needle", false, false), (asItIs.What, asItIs.Advisable, asItIs.Renews));
        Assert.True(Price([], [])[FitOption.CleanAndRefit].Offer.Advisable);
    }

    [Fact]
    public void With_nothing_to_renew_it_is_cleaned_and_refitted_exchanged_or_declined() =>
        Assert.Equal(
            [FitOption.CleanAndRefit, FitOption.PatternCarburetor, FitOption.Decline],
            Price([], [Item("SP", ItemKind.PatternCarburetor, 0, 30, 4, 1)])
                .Values.Where(option => option.Offer.Obstacle is null)
                .Select(option => option.Offer.Option)
        );

    [Fact]
    public void From_the_shelf_a_piece_costs_its_share_of_the_pack_and_to_order_the_whole_pack()
    {
        Assert.Equal((0.40m, 0), Cost(Price([Rings], [Item("OR", ItemKind.Part, 5, 2, 3, 10, Brings(Rings, 1))])));
        Assert.Equal((2m, 3), Cost(Price([Rings], [Item("OR", ItemKind.Part, 1, 2, 3, 10, Brings(Rings, 1))])));
        static (decimal, int) Cost(Dictionary<FitOption, PricedOption> priced) =>
            (priced[FitOption.SingleParts].Offer.PartsMoney, priced[FitOption.SingleParts].Offer.WaitDays);
    }

    /// <summary>Of suppliers who are in time the cheapest by the packs it takes, and of two as cheap the quicker.</summary>
    [Fact]
    public void The_cheapest_supplier_in_time_is_taken_and_the_quicker_of_two_as_cheap()
    {
        StockedItem From(params ItemOffer[] offers) => Item("OR", ItemKind.Part, 0, 0, 0, 1, Brings(Rings, 1)) with { Offers = offers };
        (decimal, int) Cost(StockedItem item) =>
            Price([Rings], [item])[FitOption.SingleParts].Offer is var offer ? (offer.PartsMoney, offer.WaitDays) : default;
        Assert.Equal((2m, 3), Cost(From(new ItemOffer("A", 1, 1.5m, 2), new ItemOffer("B", 10, 2, 3), new ItemOffer("C", 10, 2.5m, 1))));
        Assert.Equal((2m, 2), Cost(From(new ItemOffer("A", 10, 2, 4), new ItemOffer("B", 10, 2, 2), new ItemOffer("C", 10, 2, 3))));
    }

    /// <summary>An option says the wait that the order says, not the one an order of today would have.</summary>
    [Fact]
    public void What_is_on_order_is_waited_for_only_as_long_as_it_still_takes()
    {
        var kit = Item("K", ItemKind.Kit, 0, 20, 5, 1, Brings(Gasket));
        (int, string) Wait(StockedItem item) =>
            Price([Gasket], [item])[FitOption.Kit].Offer is var offer ? (offer.WaitDays, offer.What) : default;
        Assert.Equal((5, "K K from Northmole"), Wait(kit));
        Assert.Equal((1, "K K on order"), Wait(kit with { ComesInDays = 1 }));
        Assert.Equal(0, Wait(kit with { OnHand = 1, ComesInDays = 1 }).Item1);
    }

    [Fact]
    public void A_kit_wrong_in_a_part_that_is_not_renewed_is_still_not_taken()
    {
        var wrong = Item(
            "K-W",
            ItemKind.Kit,
            3,
            5,
            2,
            1,
            Brings(Gasket),
            new ItemPart("needle", 1, new Dictionary<string, string> { ["tip"] = "metal" })
        );
        var right = Item("K-R", ItemKind.Kit, 0, 20, 2, 1, Brings(Gasket), Brings(Needle));
        Assert.Equal("K-R", Assert.Single(Price([Gasket], [wrong, right], all: [Gasket, Needle])[FitOption.Kit].Items).Number);
        Assert.StartsWith(
            "No kit fits. Nearest is K-W. All but the needle’s tip",
            Price([Gasket], [wrong], all: [Gasket, Needle])[FitOption.Kit].Offer.Obstacle,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void One_assortment_can_bring_several_parts_and_is_bought_once()
    {
        var box = Item("GS", ItemKind.Assortment, 0, 6, 3, 1, Brings(Gasket, 2), Brings(Rings, 6));
        var single = Assert.Single(Price([Gasket, Rings], [box])[FitOption.SingleParts].Items);
        Assert.Equal(("GS", 1), (single.Number, single.Pieces));
    }

    [Fact]
    public void Parts_can_come_out_of_a_kit_on_the_shelf_that_is_opened_for_them()
    {
        IReadOnlyList<WantedPart> wanted = WantedPart.Of([Gasket, Needle], [], PartKnowledge.Shipped);
        FitOffers Offers(params StockedItem[] items) => new(wanted, wanted, ["4107"], items, [], Sheets.Fit, 4, PartKnowledge.Shipped);
        var kit = Item("K", ItemKind.Kit, 1, 20, 2, 1, Brings(Gasket), Brings(Needle));
        Assert.Equal(
            ("K", 1, true),
            Assert.Single(Offers(kit).FromShelf().Items) is var item ? (item.Number, item.Pieces, item.FromShelf) : default
        );
        Assert.NotNull(Offers(kit with { OnHand = 0 }).FromShelf().Offer.Obstacle);
        Assert.NotNull(Offers(kit).Price().Single(option => option.Offer.Option == FitOption.SingleParts).Offer.Obstacle);
    }

    [Fact]
    public void A_donor_counts_with_what_is_left_on_it()
    {
        var donor = new Donor(Guid.CreateVersion7(), "Donor 1", "FB18", [Brings(Needle)]);
        Assert.Equal(donor.Id, Price([Needle], [], [donor])[FitOption.DonorPart].DonorId);
        Assert.NotNull(Price([Needle, Gasket], [], [donor])[FitOption.DonorPart].Offer.Obstacle);
    }

    [Fact]
    public void A_gasket_can_be_made_for_the_sheet_it_takes()
    {
        var make = Price([Gasket], [])[FitOption.MakeIt].Offer;
        var kind = PartKnowledge.Shipped.Find("bowl gasket")!;
        Assert.Equal((kind.Make!.Money, kind.Make.Minutes + kind.RenewMinutes), (make.PartsMoney, make.Minutes));
    }

    [Fact]
    public void A_supplier_who_is_in_time_comes_before_a_cheaper_one_who_is_not()
    {
        var kit = Item("K", ItemKind.Kit, 0, 20, 2, 1, Brings(Gasket)) with
        {
            Offers = [new ItemOffer("Slow", 1, 12, 9), new ItemOffer("Fast", 1, 20, 2)],
        };
        Assert.Equal(
            (20m, 2),
            (Price([Gasket], [kit])[FitOption.Kit].Offer.PartsMoney, Price([Gasket], [kit])[FitOption.Kit].Offer.WaitDays)
        );
    }
}
