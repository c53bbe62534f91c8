namespace BlueDawn.Server.Tests.Kits;

public class KitTests(Shop shop)
{
    [Fact]
    public async Task A_misread_stamp_still_finds_sheet_and_kits()
    {
        var jory = await shop.SignInAsync("jory");
        var found = (await jory.GetAsync("/api/kits?stamped=41O7")).Body;
        Assert.Equal("misread", found.GetProperty("specs")[0].GetProperty("stamp").GetString());
        var exact = (await jory.GetAsync("/api/kits?stamped=4107")).Body;
        Assert.Equal("FB18", exact.GetProperty("specCode").GetString());
        var kits = exact.GetProperty("kits").EnumerateArray().ToList();
        Assert.Equal(("OK-207", "fits"), (kits[0].GetProperty("number").GetString(), kits[0].GetProperty("fit").GetProperty("verdict").GetString()));
        var thin = kits.Single(kit => kit.GetProperty("number").GetString() == "OK-207S").GetProperty("fit");
        Assert.Equal("nearMiss", thin.GetProperty("verdict").GetString());
        Assert.Contains("thickness 1.0 mm, needs 1.5 mm", thin.GetProperty("reason").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_chosen_kit_leaves_the_shelf_and_a_changed_mind_puts_it_back()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync("9-0416");
        var before = await OnShelfAsync(jory, "TK-9A");
        var chosen = await ChooseAsync(jory, number, "TK-9A");
        Assert.True(chosen.Body.GetProperty("kit").GetProperty("fromShelf").GetBoolean());
        Assert.Equal(before - 1, await OnShelfAsync(jory, "TK-9A"));
        await ChooseAsync(jory, number, "GS-80");
        Assert.Equal(before, await OnShelfAsync(jory, "TK-9A"));
    }

    [Fact]
    public async Task Of_two_trays_wanting_the_last_kit_one_has_it_and_the_other_waits_for_parts()
    {
        var jory = await shop.SignInAsync("jory");
        int[] numbers = [await jory.NewTrayAsync("4107-B"), await jory.NewTrayAsync("4107-B"), await jory.NewTrayAsync("4107-B")];
        Assert.Equal(1, await OnShelfAsync(jory, "TN-44"));
        var answers = await Task.WhenAll(numbers.Select(number => ChooseAsync(jory, number, "TN-44")));
        Assert.Single(answers, answer => answer.Body.GetProperty("kit").GetProperty("fromShelf").GetBoolean());
        Assert.Equal(2, answers.Count(answer => answer.Body.GetProperty("facts").GetProperty("waitsFor").GetString() == "parts"));
        Assert.Equal(0, await OnShelfAsync(jory, "TN-44"));
    }

    [Fact]
    public async Task A_sheet_found_by_another_stamp_is_recorded_with_it_and_a_late_choice_sees_both()
    {
        var (jory, ilse) = (await shop.SignInAsync("jory"), await shop.SignInAsync("ilse"));
        var number = await jory.NewTrayAsync("");
        var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
        var chosen = await ilse.PutAsync($"/api/trays/{number}/spec", new { entryId = Guid.CreateVersion7(), version, specCode = "FB18", stampedNumber = "4107" });
        Assert.Equal("4107", chosen.Body.GetProperty("facts").GetProperty("stampedNumber").GetString());
        Assert.Contains("stamped number 4107", chosen.Body.Log("specChosen")[0].GetProperty("what").GetProperty("text").GetString(), StringComparison.Ordinal);
        var late = await jory.PutAsync($"/api/trays/{number}/spec", new { entryId = Guid.CreateVersion7(), version, specCode = "FB12" });
        Assert.Equal((HttpStatusCode.Conflict, "FB18", "FB12"), (late.Status, late.Body.GetProperty("theirs").GetProperty("specCode").GetString(), late.Body.GetProperty("yours").GetProperty("specCode").GetString()));
    }

    [Fact]
    public async Task A_kit_or_a_sheet_that_is_not_there_is_named()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        Assert.NotEmpty((await ChooseAsync(jory, number, "no-such")).Error("kitNumber"));
        var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
        Assert.NotEmpty((await jory.PutAsync($"/api/trays/{number}/spec", new { entryId = Guid.CreateVersion7(), version, specCode = "none" })).Error("specCode"));
    }

    private static async Task<Answer> ChooseAsync(Visitor visitor, int number, string kitNumber)
    {
        var version = (await visitor.GetAsync($"/api/trays/{number}")).Body.Version();
        return await visitor.PutAsync($"/api/trays/{number}/kit", new { entryId = Guid.CreateVersion7(), version, kitNumber });
    }

    private static async Task<int> OnShelfAsync(Visitor visitor, string kit)
    {
        foreach (var spec in (string[])["TK9", "FB18"])
        {
            var offers = (await visitor.GetAsync($"/api/kits?stamped={(spec == "TK9" ? "9-0416" : "4107-B")}&spec={spec}")).Body.GetProperty("kits").EnumerateArray();
            if (offers.FirstOrDefault(offer => offer.GetProperty("number").GetString() == kit) is { ValueKind: JsonValueKind.Object } found)
            {
                return found.GetProperty("onShelf").GetInt32();
            }
        }

        throw new InvalidOperationException(kit + " is offered for neither.");
    }
}
