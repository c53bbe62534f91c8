using System.Globalization;
using System.Security.Claims;
using System.Text;
using System.Text.Json;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Measures;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using CsvHelper;
using CsvHelper.Configuration;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Handover;

/// <summary>Handing a tray back.</summary>
/// <param name="EntryId">Id of the logbook entry, UUIDv7.</param>
/// <param name="Version">The version of the tray the page has seen.</param>
/// <param name="Reason">Why it may go with something open; not needed when nothing is.</param>
/// <param name="SignerUserName">The lead who signs the reason.</param>
/// <param name="SignerPassword">Their password, in place of a pen.</param>
internal sealed record Release(Guid EntryId, uint Version, string? Reason = null, string? SignerUserName = null, string? SignerPassword = null);

internal static class HandoverEndpoints
{
    private static readonly CsvConfiguration Csv = new(CultureInfo.InvariantCulture)
    {
        InjectionOptions = InjectionOptions.Escape,
        InjectionCharacters = ['=', '@', '\t', '\r'],
        NewLine = "\r\n",
    };

    private static readonly JsonSerializerOptions Indented = new(StoreJson.Options) { WriteIndented = true };

    public static void MapHandover(this RouteGroupBuilder api)
    {
        var tray = api.MapGroup("/trays/{number:int}").WithTags("Handover");
        tray.MapPost("/release", ReleaseAsync).WithName("releaseTray").RequireAuthorization(PeopleSetup.AtTheBench);
        tray.MapGet("/report", async Task<Results<Ok<HandoverReport>, ProblemHttpResult>> (int number, BlueDawnDb db, CancellationToken cancel) =>
            await ReportAsync(db, number, cancel) is { } report ? TypedResults.Ok(report) : Problem.NoTray(number)).WithName("getReport");
        tray.MapGet("/report.json", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (int number, BlueDawnDb db, CancellationToken cancel) =>
            await ReportAsync(db, number, cancel) is { } report
                ? TypedResults.File(JsonSerializer.SerializeToUtf8Bytes(report, Indented), "application/json", $"tray-{number}.json")
                : Problem.NoTray(number)).WithName("downloadReportJson");
        tray.MapGet("/report.csv", async Task<Results<FileContentHttpResult, ProblemHttpResult>> (int number, BlueDawnDb db, CancellationToken cancel) =>
            await ReportAsync(db, number, cancel) is { } report
                ? TypedResults.File(Encoding.UTF8.GetBytes(ToCsv(report)), "text/csv; charset=utf-8", $"tray-{number}.csv")
                : Problem.NoTray(number)).WithName("downloadReportCsv");
    }

    private static async Task<Results<Ok<TrayView>, ValidationProblem, ProblemHttpResult>> ReleaseAsync(
        int number, Release release, BlueDawnDb db, ClaimsPrincipal user, UserManager<Person> people, SignInManager<Person> signIn, TimeProvider clock, CancellationToken cancel)
    {
        var (me, pins) = await people.MeAsync(user);
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return Problem.NoTray(number);
        }

        if (file.Entries.Any(entry => entry.Id == release.EntryId))
        {
            return TypedResults.Ok(TrayView.Of(file, pins));
        }

        if (TrayWriting.RefuseIfHandedBack(file.Tray) is { } refused)
        {
            return refused;
        }

        var open = file.Judge(pins).Obstacles;
        SignedReason? signed = null;
        if (open.Count > 0)
        {
            if (string.IsNullOrWhiteSpace(release.Reason))
            {
                return TypedResults.Problem(
                    statusCode: 422,
                    title: open.Count == 1 ? "1 line is still open." : $"{open.Count} lines are still open.",
                    detail: "Put them right, or let the lead sign for the reason why it may go as it is.",
                    extensions: new Dictionary<string, object?> { ["obstacles"] = open });
            }

            var (problem, signer) = await SignAsync(release, people, signIn);
            if (problem is not null)
            {
                return problem;
            }

            signed = new SignedReason(release.Reason.Trim(), signer!.DisplayName, [.. open.Select(obstacle => $"{obstacle.Label}: {obstacle.Word}")]);
        }

        var report = file.Report() with { ReleasedAt = clock.GetUtcNow(), ReleasedBy = me.DisplayName, Signed = signed };
        db.Expect(file.Tray, release.Version);
        file.Tray.WaitsFor = WaitsFor.HandedBack;
        file.Tray.WaitNote = "";
        db.Log(release.EntryId, file.Tray, EntryKind.Released, me, signed is null ? "Handed back" : $"Handed back, signed by {signed.SignedBy}: {signed.Reason}", clock).Report =
            JsonSerializer.Serialize(report, StoreJson.Options);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            return await TrayWriting.ChangedMeanwhileAsync(db, number, new { waitsFor = WaitsFor.HandedBack }, cancel);
        }

        return TypedResults.Ok(TrayView.Of((await TrayFile.OpenAsync(db, number, cancel))!, pins));
    }

    /// <summary>The lead's signature: name and password, with the same lockout as signing in.</summary>
    private static async Task<(ValidationProblem? Problem, Person? Signer)> SignAsync(Release release, UserManager<Person> people, SignInManager<Person> signIn)
    {
        if (ReleaseCheck.ReasonProblem(release.Reason) is { } shortReason)
        {
            return (Problem.Field("reason", shortReason), null);
        }

        var signer = await people.FindByNameAsync((release.SignerUserName ?? "").Trim());
        if (signer is null || !await people.IsInRoleAsync(signer, Roles.Lead))
        {
            return (Problem.Field("signerUserName", "Only the lead can sign for this. Enter the lead's sign-in name."), null);
        }

        var check = await signIn.CheckPasswordSignInAsync(signer, release.SignerPassword ?? "", lockoutOnFailure: true);
        return check.Succeeded
            ? (null, signer)
            : (Problem.Field("signerPassword", check.IsLockedOut ? "Too many tries: this name is locked for ten minutes." : "That is not the lead's password."), null);
    }

    /// <summary>The report as it was handed over, or as it would be now.</summary>
    private static async Task<HandoverReport?> ReportAsync(BlueDawnDb db, int number, CancellationToken cancel)
    {
        if (await TrayFile.OpenAsync(db, number, cancel) is not { } file)
        {
            return null;
        }

        var handedOver = file.Tray.WaitsFor == WaitsFor.HandedBack
            ? file.Entries.LastOrDefault(entry => entry.Kind == EntryKind.Released)?.Report
            : null;
        return handedOver is null ? file.Report() : JsonSerializer.Deserialize<HandoverReport>(handedOver, StoreJson.Options);
    }

    /// <summary>One row a figure, one row for a line without figures; units in a column of their own.</summary>
    private static string ToCsv(HandoverReport report)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, Csv))
        {
            foreach (var heading in (string[])["tray", "station", "line", "label", "target", "verdict", "finding", "figure", "value", "unit", "taken_at", "taken_by", "limits_from"])
            {
                csv.WriteField(heading);
            }

            csv.NextRecord();
            foreach (var line in report.Lines)
            {
                var figures = line.Figures.Count == 0 ? [null] : line.Figures.Select(figure => (Figure?)new Figure(figure.Key, figure.Quantity));
                foreach (var figure in figures)
                {
                    csv.WriteField(report.Tray.TrayNumber);
                    csv.WriteField(JsonNamingPolicy.CamelCase.ConvertName(line.Station.ToString()));
                    csv.WriteField(line.Key);
                    csv.WriteField(line.Label);
                    csv.WriteField(line.Target.ToString());
                    csv.WriteField(JsonNamingPolicy.CamelCase.ConvertName(line.Verdict.ToString()));
                    csv.WriteField(line.Finding);
                    csv.WriteField(figure?.Key);
                    csv.WriteField(figure?.Quantity.Value.ToString("0.######", CultureInfo.InvariantCulture));
                    csv.WriteField(figure is null ? null : MetricText.UnitOf(figure.Quantity.Dimension));
                    csv.WriteField(line.Standing?.TakenAt.ToUniversalTime().ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture));
                    csv.WriteField(line.Standing?.TakenBy);
                    csv.WriteField(line.LimitSource);
                    csv.NextRecord();
                }
            }
        }

        return text.ToString();
    }

    private sealed record Figure(string Key, Quantity Quantity);
}
