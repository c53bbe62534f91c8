using System.Net.Http.Json;

namespace BlueDawn.Server.Tests;

/// <summary>What the server answered.</summary>
public sealed record Answer(HttpStatusCode Status, JsonElement Body)
{
    /// <summary>What is wrong with a field, in a 400.</summary>
    public string Error(string field) => Body.GetProperty("errors").GetProperty(field)[0].GetString()!;

    public string Title => Body.GetProperty("title").GetString()!;
}

/// <summary>A browser with its cookies and its antiforgery token.</summary>
public sealed class Visitor(HttpClient http)
{
    private string token = "";

    public HttpClient Http => http;

    public async Task<Answer> SignInAsync(string userName, string password)
    {
        await RefreshAsync();
        var answer = await PostAsync("/api/session", new { userName, password });
        if (answer.Status == HttpStatusCode.OK)
        {
            token = answer.Body.GetProperty("token").GetString()!;
        }

        return answer;
    }

    public async Task RefreshAsync() => token = (await GetAsync("/api/session")).Body.GetProperty("token").GetString()!;

    public Task<Answer> GetAsync(string path) => SendAsync(new HttpRequestMessage(HttpMethod.Get, path));

    public Task<Answer> DeleteAsync(string path) => SendAsync(new HttpRequestMessage(HttpMethod.Delete, path));

    /// <summary>What the next request would carry as its cookies.</summary>
    public async Task<string> CookieAsync()
    {
        using var response = await http.GetAsync("/api/session", TestContext.Current.CancellationToken);
        return string.Join("; ", response.RequestMessage!.Headers.GetValues("Cookie"));
    }

    /// <summary>Asks with somebody's cookies.</summary>
    public Task<Answer> WithCookieAsync(string cookie, string path)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, path);
        request.Headers.Add("Cookie", cookie);
        return SendAsync(request);
    }

    public Task<Answer> PostAsync(string path, object body) => SendAsync(HttpMethod.Post, path, body);

    public Task<Answer> PutAsync(string path, object body) => SendAsync(HttpMethod.Put, path, body);

    /// <summary>Records one note; the answer is the tray as it is then, or the problem.</summary>
    public async Task<Answer> NoteAsync(
        int tray,
        object note,
        Guid? id = null,
        Guid? supersedes = null,
        int? version = null,
        object? signature = null
    )
    {
        var answer = await SendNotesAsync(tray, Entry(note, id, supersedes, version, signature));
        return answer.Status == HttpStatusCode.OK ? await GetAsync($"/api/trays/{tray}") : answer;
    }

    /// <summary>Records a note decided on what stands on the tray now.</summary>
    public async Task<Answer> DecideAsync(int tray, object note, object? signature = null) =>
        await NoteAsync(tray, note, version: (await GetAsync($"/api/trays/{tray}")).Body.Version(), signature: signature);

    /// <summary>Sends entries as they are; the answer is what became of each.</summary>
    public Task<Answer> SendNotesAsync(int tray, params object[] entries) => PostAsync($"/api/trays/{tray}/notes", new { entries });

    public static object Entry(object note, Guid? id = null, Guid? supersedes = null, int? version = null, object? signature = null) =>
        new
        {
            id = id ?? Guid.CreateVersion7(),
            takenAt = DateTimeOffset.UtcNow,
            note,
            supersedes,
            version,
            signature,
        };

    /// <summary>Checks in a fresh tray with a known spec sheet and gives its number.</summary>
    public async Task<int> NewTrayAsync(string stamped = "4107")
    {
        var answer = await PostAsync("/api/trays", NewTray(Guid.CreateVersion7(), stamped));
        Assert.Equal(HttpStatusCode.Created, answer.Status);
        return answer.Body.GetProperty("number").GetInt32();
    }

    public static object NewTray(Guid id, string stamped = "4107", string complaint = "Hunts") =>
        new
        {
            trayId = id,
            entryId = Guid.CreateVersion7(),
            ownerName = "Boat Test",
            machineName = "Pump " + id.ToString("N")[..6],
            family = "floatBowl",
            complaint,
            promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(3)),
            stampedNumber = stamped,
        };

    /// <summary>Checks in a tray of this owner and machine and gives its number.</summary>
    public async Task<int> NewTrayOfAsync(string ownerName, string machineName)
    {
        var answer = await PostAsync(
            "/api/trays",
            new
            {
                trayId = Guid.CreateVersion7(),
                entryId = Guid.CreateVersion7(),
                ownerName,
                machineName,
                family = "floatBowl",
                complaint = "Hunts",
                promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(3)),
            }
        );
        Assert.Equal(HttpStatusCode.Created, answer.Status);
        return answer.Body.GetProperty("number").GetInt32();
    }

    /// <summary>Whether a line tries what the owner complained of.</summary>
    public static bool IsComplaint(JsonElement line) =>
        line.GetProperty("key").GetString()!.StartsWith("proving/complaint-", StringComparison.Ordinal);

    /// <summary>A reading of single values on a line.</summary>
    public Task<Answer> RecordAsync(int tray, string line, object values, Guid? id = null, Guid? supersedes = null) =>
        NoteAsync(tray, Reading(line, values), id, supersedes);

    public static object Reading(string line, object values) =>
        new
        {
            kind = "reading",
            line,
            typed = new
            {
                units = "metric",
                values,
                rows = Array.Empty<object>(),
            },
        };

    public async Task<Answer> SendAsync(HttpRequestMessage request)
    {
        if (token.Length > 0)
        {
            request.Headers.Add("X-Blue-Dawn-Token", token);
        }

        using var response = await http.SendAsync(request, TestContext.Current.CancellationToken);
        var text = await response.Content.ReadAsStringAsync();
        var wrong = DocumentCheck.Problem(
            request.Method.Method,
            request.RequestUri!.AbsolutePath,
            (int)response.StatusCode,
            response.Content.Headers.ContentType?.MediaType,
            text
        );
        Assert.True(wrong is null, wrong);
        return new Answer(
            response.StatusCode,
            text.StartsWith('{') || text.StartsWith('[') ? JsonSerializer.Deserialize<JsonElement>(text) : default
        );
    }

    /// <summary>How many bytes the answer to a POST takes on the wire, made small.</summary>
    public async Task<long> BytesOfPostAsync(string path, object body)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("X-Blue-Dawn-Token", token);
        request.Headers.Add("Accept-Encoding", "br");
        using var response = await http.SendAsync(request, TestContext.Current.CancellationToken);
        Assert.Equal("br", Assert.Single(response.Content.Headers.ContentEncoding));
        return (await response.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)).Length;
    }

    private Task<Answer> SendAsync(HttpMethod method, string path, object body) =>
        SendAsync(new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) });
}

internal static class TrayJson
{
    /// <summary>The line of a tray with that key.</summary>
    public static JsonElement Line(this JsonElement tray, string key) =>
        tray.GetProperty("lines").EnumerateArray().Single(line => line.GetProperty("key").GetString() == key);

    public static string Finding(this JsonElement tray, string key) =>
        tray.Line(key).GetProperty("judgement").GetProperty("finding").GetString()!;

    public static Guid StandingId(this JsonElement tray, string key) =>
        tray.Line(key).GetProperty("standing").GetProperty("entryId").GetGuid();

    public static List<JsonElement> Log(this JsonElement tray, params string[] kinds) =>
        [.. tray.GetProperty("logbook").EnumerateArray().Where(entry => kinds.Contains(entry.GetProperty("kind").GetString()))];

    public static int Version(this JsonElement tray) => tray.GetProperty("version").GetInt32();
}
