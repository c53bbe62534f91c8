using System.Security.Claims;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Kits;

/// <summary>An item and how it fits.</summary>
/// <param name="Item">The item with what is in it.</param>
/// <param name="OnHand">Pieces on the shelf.</param>
/// <param name="Offers">Who sells it, cheapest piece first.</param>
/// <param name="Match">How it fits.</param>
/// <param name="Instead">Numbers that took this one's place, in order; empty when it is current.</param>
/// <param name="TakesPlaceOf">Numbers whose place it took.</param>
internal sealed record ItemOffered(
    CatalogueItem Item, int OnHand, IReadOnlyList<ItemOffer> Offers, ItemMatch Match, IReadOnlyList<Supersession> Instead, IReadOnlyList<Supersession> TakesPlaceOf);

/// <summary>Kits for a tray, best fit first.</summary>
internal sealed record MatchView(string Currency, IReadOnlyList<ItemOffered> Items);

/// <summary>An old part as measured.</summary>
/// <param name="EntryId">Id of the logbook entry this makes, UUIDv7.</param>
/// <param name="Part">Which part.</param>
/// <param name="Quantity">How many there were.</param>
/// <param name="Features">Feature by feature, as typed; none takes the part's measures back.</param>
internal sealed record OldPartMeasures(Guid EntryId, string Part, int Quantity, IReadOnlyDictionary<string, string> Features);

internal static class MatchEndpoints
{
    private const int MostOffered = 24;

    public static void MapMatch(this RouteGroupBuilder api)
    {
        api.MapGet("/parts", () => TypedResults.Ok(PartKnowledge.Shipped.Parts)).WithName("getParts").WithTags("Kits");
        var tray = api.MapGroup("/trays/{number:int}").WithTags("Kits");
        tray.MapGet("/kits", ShowAsync).WithName("matchKits");
        tray.MapPost("/old-parts", MeasureAsync).WithName("measureOldPart").RequireAuthorization(PeopleSetup.AtTheBench);
    }

    private static async Task<Results<Ok<MatchView>, ProblemHttpResult>> ShowAsync(int number, BlueDawnDb db, CancellationToken cancel)
    {
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        var knowledge = PartKnowledge.Shipped;
        var wanted = file.Wanted;
        var listed = await CatalogueSearch.ListedForAsync(db, file.Numbers, cancel);
        var ids = listed.Union(await CatalogueSearch.WithPartsAsync(db, wanted, knowledge, cancel)).ToList();
        var numbers = await db.Items.Where(item => ids.Contains(item.Id)).Select(item => item.Number).ToListAsync(cancel);
        var supersessions = await CatalogueSearch.SupersessionsAsync(db, numbers, cancel);
        var successors = supersessions.Values.Select(step => step.New).Except(numbers).ToList();
        ids.AddRange(await db.Items.Where(item => successors.Contains(item.Number)).Select(item => item.Id).ToListAsync(cancel));
        var before = await db.Supersessions.AsNoTracking().Where(row => numbers.Contains(row.New)).Select(row => new Supersession(row.Old, row.New, row.Changed)).ToListAsync(cancel);
        var items = await CatalogueSearch.ItemsAsync(db, ids, cancel);
        return TypedResults.Ok(new MatchView(file.Shop.Currency, [.. items
            .Where(stocked => stocked.Item.Kind is ItemKind.Kit or ItemKind.Assortment)
            .Select(stocked => new ItemOffered(
                stocked.Item,
                stocked.OnHand,
                stocked.Offers,
                ItemMatch.Of(stocked.Item, wanted, file.Numbers, knowledge),
                Supersessions.Follow(stocked.Item.Number, supersessions),
                [.. before.Where(step => step.New == stocked.Item.Number)]))
            .Where(offered => offered.Match.Listed is not null || offered.Match.Agreeing * 2 > offered.Match.Parts.Count)
            .OrderByDescending(offered => offered.Match.Verdict)
            .ThenBy(offered => offered.Instead.Count)
            .ThenByDescending(offered => offered.Match.Listed is not null)
            .ThenByDescending(offered => offered.Match.Agreeing)
            .ThenByDescending(offered => offered.OnHand > 0)
            .ThenBy(offered => offered.Offers.Select(offer => offer.EachMoney).DefaultIfEmpty(decimal.MaxValue).First())
            .ThenBy(offered => offered.Item.Number, StringComparer.Ordinal)
            .Take(MostOffered)]));
    }

    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> MeasureAsync(
        int number, OldPartMeasures input, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (file.Entries.Any(entry => entry.Id == input.EntryId))
        {
            return TypedResults.Ok(TrayView.Of(file, pins));
        }

        if (TrayWriting.RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        var (part, problems) = Read(input, me.Units);
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var words = part.Features.Count == 0 ? $"Old {part.Part}: measures taken back" : $"Old {part.Part}: {FeatureText.Write(part.Features)}";
        db.Log(input.EntryId, file.Tray, EntryKind.PartMeasured, me, words, clock).OldPart = part;
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException e) when (TrayWriting.IsDuplicate(e))
        {
            db.ChangeTracker.Clear();
        }

        return TypedResults.Ok(TrayView.Of((await TrayFile.OpenAsync(db, number, cancel))!, pins));
    }

    private static (ItemPart Part, List<FieldProblem> Problems) Read(OldPartMeasures input, UnitSystem units)
    {
        var problems = new List<FieldProblem>();
        var features = new Dictionary<string, string>();
        if (PartKnowledge.Shipped.Find(input.Part) is not { } kind)
        {
            return (new ItemPart(input.Part, 1, features), [new FieldProblem("part", "The bench does not know that part. Pick one from the list.")]);
        }

        if (input.Quantity is < 1 or > 99)
        {
            problems.Add(new FieldProblem("quantity", "Give how many there were, from 1 to 99."));
        }

        foreach (var (name, text) in input.Features.Where(pair => pair.Value.Trim().Length > 0))
        {
            var read = kind.Features.FirstOrDefault(feature => feature.Name == name) is { } feature
                ? FeatureValue.Parse(feature, text, units)
                : Parsed<FeatureValue>.Wrong($"A {input.Part} has no such feature.");
            if (read.IsRight)
            {
                features[name] = read.Value!.Text;
            }
            else
            {
                problems.Add(new FieldProblem(name, read.Problem!));
            }
        }

        return (new ItemPart(input.Part, input.Quantity, features), problems);
    }
}
