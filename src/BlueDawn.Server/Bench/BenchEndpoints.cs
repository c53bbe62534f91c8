using System.Security.Claims;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Worksheets;
using BlueDawn.Server.People;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;

namespace BlueDawn.Server.Bench;

/// <summary>A tray as the bench lists it.</summary>
/// <param name="Number">Number on the tag.</param>
/// <param name="MachineName">Machine.</param>
/// <param name="OwnerName">Owner.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="PromisedDay">The day it is promised for.</param>
/// <param name="WaitsFor">What it waits for.</param>
/// <param name="WaitNote">More about the wait.</param>
/// <param name="Station">The station of the next step.</param>
/// <param name="LineLabel">The line it is about, or null.</param>
/// <param name="Do">The next step.</param>
/// <param name="OpenLines">Lines that are open.</param>
/// <param name="Lines">Lines in all.</param>
internal sealed record BenchTray(
    int Number,
    string MachineName,
    string OwnerName,
    string Complaint,
    DateOnly PromisedDay,
    WaitsFor WaitsFor,
    string WaitNote,
    Station Station,
    string? LineLabel,
    Sentence Do,
    int OpenLines,
    int Lines);

/// <summary>The bench.</summary>
/// <param name="Today">Today by the shop's clock.</param>
/// <param name="PromisedDays">Days from check-in offered as the promised day.</param>
/// <param name="Trays">Trays by promised day; those handed back come last, newest first.</param>
internal sealed record BenchView(DateOnly Today, int PromisedDays, IReadOnlyList<BenchTray> Trays);

internal static class BenchEndpoints
{
    private const int HandedBackShown = 20;

    public static void MapBench(this RouteGroupBuilder api) => api.MapGet("/bench", ShowAsync).WithName("getBench").WithTags("Bench");

    private static async Task<Ok<BenchView>> ShowAsync(BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, TimeProvider clock, CancellationToken cancel)
    {
        var (_, pins) = await people.MeAsync(user);
        var files = await TrayFile.OpenBenchAsync(db, HandedBackShown, cancel);
        var trays = files
            .OrderBy(file => file.Tray.WaitsFor == WaitsFor.HandedBack)
            .ThenBy(file => file.Tray.WaitsFor == WaitsFor.HandedBack ? DateOnly.MinValue : file.Tray.PromisedDay)
            .ThenBy(file => file.Tray.WaitsFor == WaitsFor.HandedBack ? -file.Tray.Number : file.Tray.Number)
            .Select(file =>
            {
                var sheet = file.Judge(pins);
                var tray = file.Tray;
                return new BenchTray(
                    tray.Number,
                    tray.Machine.Name,
                    tray.Machine.Owner.Name,
                    tray.Complaint,
                    tray.PromisedDay,
                    tray.WaitsFor,
                    tray.WaitNote,
                    sheet.Next.Station,
                    sheet.Next.LineLabel,
                    sheet.Next.Do,
                    sheet.Lines.Count(line => line.IsOpen),
                    sheet.Lines.Count);
            });
        return TypedResults.Ok(new BenchView(clock.Today(), (await TrayFile.ShopAsync(db, cancel)).PromisedDays, [.. trays]));
    }
}
