namespace BlueDawn.Server.Tests.Handover;

public class HandoverTests(Shop shop)
{
    [Fact]
    public async Task A_tray_with_something_open_is_refused_and_the_lead_can_sign_for_it()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        Task<Answer> Release(string? reason, string? userName, string? password) =>
            jory.DecideAsync(number, new { kind = "release", reason }, userName is null ? null : new { userName, password });

        var refused = await Release(null, null, null);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.Status);
        Assert.Equal(12, refused.Body.GetProperty("obstacles").GetArrayLength());
        Assert.NotEmpty((await Release("short", "ilse", "sandrigg-quay")).Error("note.reason"));
        Assert.NotEmpty((await Release("Owner takes it as it is", "jory", "sandrigg-quay")).Error("signature.userName"));
        Assert.NotEmpty((await Release("Owner takes it as it is", "ilse", "wrong")).Error("signature.password"));
        var released = await Release("Owner takes it as it is", "ilse", "sandrigg-quay");
        Assert.Equal("handedBack", released.Body.GetProperty("facts").GetProperty("waitsFor").GetString());

        var report = (await jory.GetAsync($"/api/trays/{number}/report")).Body;
        Assert.Equal("Ilse Brandt", report.GetProperty("signed").GetProperty("signedBy").GetString());
        Assert.Equal("Jory Tamblyn", report.GetProperty("releasedBy").GetString());

        // Nothing more goes in, until it is brought back; its history stays.
        Assert.Equal(HttpStatusCode.Conflict, (await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.7" })).Status);
        var version = (await jory.GetAsync($"/api/trays/{number}")).Body.Version();
        var back = await jory.NoteAsync(number, new { kind = "facts", waitsFor = "hands" }, version: version);
        Assert.Single(back.Body.Log("facts"));
        Assert.Single(back.Body.Log("release"));
        Assert.Equal(HttpStatusCode.OK, (await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.7" })).Status);
    }

    [Fact]
    public async Task A_danger_stops_every_run_and_is_signed_for_by_itself_and_leads_the_report()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        async Task Finds(string finding) =>
            Assert.Equal(
                HttpStatusCode.OK,
                (
                    await jory.NoteAsync(
                        number,
                        new
                        {
                            kind = "findings",
                            checkId = (string?)null,
                            answers = new[] { new { findingId = finding, said = "present" } },
                        }
                    )
                ).Status
            );
        Task<Answer> Release(object[]? dangers, bool notToBeRun = false) =>
            jory.DecideAsync(
                number,
                new
                {
                    kind = "release",
                    reason = "Owner takes it as it is",
                    dangers,
                    notToBeRun,
                },
                new { userName = "ilse", password = "sandrigg-quay" }
            );

        Assert.Equal(HttpStatusCode.OK, (await jory.RecordAsync(number, "proving/guards", new { seen = "guardMissing" })).Status);
        Assert.Equal(HttpStatusCode.Conflict, (await jory.RecordAsync(number, "proving/governed-speed", new { speed = "3400" })).Status);
        Assert.NotEmpty((await Release(null)).Error("note.dangers.guard"));
        object[] signed = [new { danger = "guard", reason = "The owner has the guard at home" }];

        // Fuel in the open nobody can sign for.
        await Finds("wet-at-tap");
        Assert.Equal(HttpStatusCode.Conflict, (await Release(signed, true)).Status);
        var watched = await jory.RecordAsync(
            number,
            "proving/fuel-on",
            new
            {
                minutes = "5",
                rocked = "yes",
                leak = "dry",
            }
        );
        Assert.Equal(HttpStatusCode.OK, watched.Status);

        Assert.Equal("handedBack", (await Release(signed)).Body.GetProperty("facts").GetProperty("waitsFor").GetString());
        var report = (await jory.GetAsync($"/api/trays/{number}/report")).Body;
        Assert.Equal("A guard or the spark arrester is missing", report.GetProperty("dangers")[0].GetProperty("label").GetString());
        var kept = report.GetProperty("signed").GetProperty("dangers")[0];
        var csv = await jory.Http.GetStringAsync($"/api/trays/{number}/report.csv", TestContext.Current.CancellationToken);
        Assert.Contains($"{number},report,report/danger,A guard or the spark arrester is missing", csv, StringComparison.Ordinal);
        Assert.Contains($"{number},report,report/told,“Hunts”", csv, StringComparison.Ordinal);
        Assert.Equal("The owner has the guard at home", kept.GetProperty("reason").GetString());
        Assert.Contains("Guards and spark arrester: missing", kept.GetProperty("what").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_tray_with_everything_good_goes_without_a_signature()
    {
        var jory = await shop.SignInAsync("jory");
        var tray = (await jory.GetAsync("/api/trays/28")).Body;
        var released = await jory.NoteAsync(28, new { kind = "release" }, version: tray.Version());
        Assert.Equal(HttpStatusCode.OK, released.Status);
        Assert.Equal(JsonValueKind.Null, (await jory.GetAsync("/api/trays/28/report")).Body.GetProperty("signed").ValueKind);
    }

    [Fact]
    public async Task A_report_once_handed_over_does_not_change_with_its_spec_sheet()
    {
        var jory = await shop.SignInAsync("jory");
        var before = (await jory.GetAsync("/api/trays/18/report")).Body.GetRawText();
        await Shop.ExecuteAsync(
            shop.Database,
            "update spec_sheets set sheet = jsonb_set(sheet, '{jets,0,boreMm}', '0.99') where code = 'FB12'"
        );
        try
        {
            Assert.Equal(before, (await jory.GetAsync("/api/trays/18/report")).Body.GetRawText());
        }
        finally
        {
            await Shop.ExecuteAsync(
                shop.Database,
                "update spec_sheets set sheet = jsonb_set(sheet, '{jets,0,boreMm}', '0.58') where code = 'FB12'"
            );
        }
    }

    [Fact]
    public async Task The_report_comes_as_json_and_csv_files()
    {
        var jory = await shop.SignInAsync("jory");
        using var json = await jory.Http.GetAsync("/api/trays/17/report.json", TestContext.Current.CancellationToken);
        Assert.Equal(
            "tray-17.json",
            json.Content.Headers.ContentDisposition?.FileNameStar ?? json.Content.Headers.ContentDisposition?.FileName
        );
        using var parsed = JsonDocument.Parse(await json.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        Assert.Equal(13, parsed.RootElement.GetProperty("lines").GetArrayLength());

        var csv = await jory.Http.GetStringAsync("/api/trays/17/report.csv", TestContext.Current.CancellationToken);
        var rows = csv.Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.StartsWith("tray,station,line,label,target,verdict,finding,figure,value,unit", rows[0], StringComparison.Ordinal);
        Assert.Contains(rows, row =>
            row.StartsWith("17,gauging,gauging/main-jet,Main jet,0.72 ± 0.01 mm,good,inGauge,boreLow,0.712,mm", StringComparison.Ordinal)
        );
        Assert.Contains(rows, row =>
            row.Contains("setting/hold-test", StringComparison.Ordinal) && row.Contains(",leak,0,mL/min", StringComparison.Ordinal)
        );
    }
}
