using System.Globalization;
using System.Text;
using System.Text.Json;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using CsvHelper;
using CsvHelper.Configuration;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Server.Handover;

internal static class HandoverEndpoints
{
    private static readonly string[] Columns =
    [
        "tray",
        "station",
        "line",
        "label",
        "target",
        "verdict",
        "finding",
        "figure",
        "value",
        "unit",
        "taken_at",
        "taken_by",
        "limits_from",
    ];

    private static readonly CsvConfiguration Csv = new(CultureInfo.InvariantCulture) { NewLine = "\r\n" };

    private static readonly JsonSerializerOptions Indented = new(StoreJson.Options) { WriteIndented = true };

    public static void MapHandover(this RouteGroupBuilder api)
    {
        var tray = api.MapGroup("/trays/{number:int}").WithTags("Handover");
        tray.MapGet(
                "/report",
                async Task<Results<Ok<HandoverReport>, ProblemHttpResult>> (int number, BlueDawnDb db, Me me, CancellationToken cancel) =>
                    await ReportAsync(db, number, me, cancel) is { } report ? TypedResults.Ok(report) : Problem.NoTray(number)
            )
            .WithName("getReport")
            .WithSummary("The handover report");
        tray.MapGet(
                "/report.json",
                async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
                    int number,
                    BlueDawnDb db,
                    Me me,
                    CancellationToken cancel
                ) =>
                    await ReportAsync(db, number, me, cancel) is { } report
                        ? TypedResults.File(
                            JsonSerializer.SerializeToUtf8Bytes(report, Indented),
                            "application/json",
                            $"tray-{number}.json"
                        )
                        : Problem.NoTray(number)
            )
            .WithName("downloadReportJson")
            .WithSummary("The handover report as a JSON file")
            .Produces<HandoverReport>(200, "application/json");
        tray.MapGet(
                "/report.csv",
                async Task<Results<FileContentHttpResult, ProblemHttpResult>> (
                    int number,
                    BlueDawnDb db,
                    Me me,
                    CancellationToken cancel
                ) =>
                    await ReportAsync(db, number, me, cancel) is { } report
                        ? TypedResults.File(Encoding.UTF8.GetBytes(ToCsv(report)), "text/csv; charset=utf-8", $"tray-{number}.csv")
                        : Problem.NoTray(number)
            )
            .WithName("downloadReportCsv")
            .WithSummary("The handover report as CSV")
            .Produces<string>(200, "text/csv");
    }

    /// <summary>The report as it was handed over, or as it would be now.</summary>
    private static async Task<HandoverReport?> ReportAsync(BlueDawnDb db, int number, Me me, CancellationToken cancel)
    {
        if (await TrayFile.OpenAsync(db, number, me.Context, cancel) is not { } file)
        {
            return null;
        }

        var handedOver = file.Book.IsHandedBack
            ? await db
                .LogbookEntries.Where(entry => entry.TrayId == file.Tray.Id && entry.Report != null)
                .OrderBy(entry => entry.RecordedAt)
                .Select(entry => entry.Report)
                .LastOrDefaultAsync(cancel)
            : null;
        return handedOver is null ? file.Report() : JsonSerializer.Deserialize<HandoverReport>(handedOver, StoreJson.Options);
    }

    /// <summary>One row for each point in words, then one row a figure, one row for a line without figures; units in a column of their own.</summary>
    private static string ToCsv(HandoverReport report)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, Csv))
        {
            foreach (var heading in Columns)
            {
                csv.WriteField(heading);
            }

            csv.NextRecord();
            // What is unsafe first, then what is said in words, chapter by chapter.
            foreach (
                var (what, words) in (report.Dangers ?? [])
                    .Select(danger => ("danger", $"{danger.Label} ({string.Join("; ", danger.Shown)})"))
                    .Concat(
                        (report.Points ?? []).Select(point =>
                            (JsonNamingPolicy.CamelCase.ConvertName(point.Chapter.ToString()), point.Words.ToString())
                        )
                    )
            )
            {
                csv.WriteField(report.Tray.TrayNumber);
                csv.WriteField("report");
                csv.WriteField($"report/{what}");
                csv.WriteField(CsvText.Guard(words));
                foreach (var _ in Columns.Skip(4))
                {
                    csv.WriteField("");
                }

                csv.NextRecord();
            }

            foreach (var line in report.Lines)
            {
                var figures =
                    line.Figures.Count == 0 ? [null] : line.Figures.Select(figure => (Figure?)new Figure(figure.Key, figure.Quantity));
                foreach (var figure in figures)
                {
                    csv.WriteField(report.Tray.TrayNumber);
                    csv.WriteField(JsonNamingPolicy.CamelCase.ConvertName(line.Station.ToString()));
                    csv.WriteField(CsvText.Guard(line.Key));
                    csv.WriteField(CsvText.Guard(line.Label));
                    csv.WriteField(CsvText.Guard(line.Target.ToString()));
                    csv.WriteField(JsonNamingPolicy.CamelCase.ConvertName(line.Verdict.ToString()));
                    csv.WriteField(CsvText.Guard(line.Finding));
                    csv.WriteField(figure?.Key);
                    csv.WriteField(figure?.Quantity.Value.ToString("0.######", CultureInfo.InvariantCulture));
                    csv.WriteField(figure is null ? null : MetricText.UnitOf(figure.Quantity.Dimension));
                    csv.WriteField(line.Standing?.TakenAt.ToUniversalTime().ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture));
                    csv.WriteField(CsvText.Guard(line.Standing?.TakenBy ?? ""));
                    csv.WriteField(CsvText.Guard(line.LimitSource ?? ""));
                    csv.NextRecord();
                }
            }
        }

        return text.ToString();
    }

    private sealed record Figure(string Key, Quantity Quantity);
}
