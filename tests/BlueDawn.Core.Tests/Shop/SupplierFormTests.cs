using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Shop;

/// <summary>Suppliers as a person types them.</summary>
public class SupplierFormTests
{
    [Fact]
    public void Names_and_freight_are_read_as_they_are_typed()
    {
        var (read, problems) = SupplierForm.Read([new(" Chandler at the gate ", "6,50"), new("Ferry post", "")], ["Ferry post"]);
        Assert.Empty(problems);
        Assert.Equal([new Supplier("Chandler at the gate", 6.50m), new Supplier("Ferry post", 0)], read);
    }

    [Theory]
    [InlineData("", "5", "suppliers[0].name")]
    [InlineData("ferry POST", "5", "suppliers[1].name")]
    [InlineData("Chandler", "-1", "suppliers[0].freight")]
    [InlineData("Chandler", "much", "suppliers[0].freight")]
    [InlineData("Chandler", "1.005", "suppliers[0].freight")]
    [InlineData("Chandler", "100001", "suppliers[0].freight")]
    public void What_cannot_be_meant_is_said_at_its_box(string name, string freight, string field) =>
        Assert.Equal(field, Assert.Single(SupplierForm.Read([new(name, freight), new("Ferry post", "1")], []).Problems).Field);

    [Fact]
    public void One_with_prices_in_the_catalogue_stays() =>
        Assert.Contains(
            "Ferry post has prices",
            Assert.Single(SupplierForm.Read([new("Chandler", "1")], ["Ferry post"]).Problems).Message,
            StringComparison.Ordinal
        );
}
