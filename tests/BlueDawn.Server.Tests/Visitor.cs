using System.Net.Http.Json;
using BlueDawn.Core.Stations;

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

    public Task<Answer> PostAsync(string path, object body) => SendAsync(HttpMethod.Post, path, body);

    public Task<Answer> PutAsync(string path, object body) => SendAsync(HttpMethod.Put, path, body);

    public Task<Answer> PatchAsync(string path, object body) => SendAsync(HttpMethod.Patch, path, body);

    /// <summary>Checks in a fresh tray with a known spec sheet and gives its number.</summary>
    public async Task<int> NewTrayAsync(string stamped = "4107")
    {
        var answer = await PostAsync("/api/trays", NewTray(Guid.CreateVersion7(), stamped));
        Assert.Equal(HttpStatusCode.Created, answer.Status);
        return answer.Body.GetProperty("number").GetInt32();
    }

    public static object NewTray(Guid id, string stamped = "4107", string complaint = "Hunts") => new
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

    /// <summary>A reading of single values on a line.</summary>
    public Task<Answer> RecordAsync(int tray, string lineKey, object values, Guid? id = null, Guid? supersedes = null) =>
        PostAsync($"/api/trays/{tray}/readings", Reading(lineKey, values, id, supersedes));

    public static object Reading(string lineKey, object values, Guid? id = null, Guid? supersedes = null) => new
    {
        id = id ?? Guid.CreateVersion7(),
        lineKey,
        takenAt = DateTimeOffset.UtcNow,
        typed = new { units = "metric", values, rows = Array.Empty<object>() },
        supersedes,
    };

    public async Task<Answer> SendAsync(HttpRequestMessage request)
    {
        if (token.Length > 0)
        {
            request.Headers.Add("X-Blue-Dawn-Token", token);
        }

        using var response = await http.SendAsync(request, TestContext.Current.CancellationToken);
        var text = await response.Content.ReadAsStringAsync();
        return new Answer(response.StatusCode, text.StartsWith('{') || text.StartsWith('[') ? JsonSerializer.Deserialize<JsonElement>(text) : default);
    }

    private Task<Answer> SendAsync(HttpMethod method, string path, object body) =>
        SendAsync(new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) });
}

internal static class TrayJson
{
    /// <summary>The line of a tray with that key.</summary>
    public static JsonElement Line(this JsonElement tray, string key) =>
        tray.GetProperty("lines").EnumerateArray().Single(line => line.GetProperty("key").GetString() == key);

    public static string Finding(this JsonElement tray, string key) => tray.Line(key).GetProperty("judgement").GetProperty("finding").GetString()!;

    public static Guid StandingId(this JsonElement tray, string key) => tray.Line(key).GetProperty("standing").GetProperty("entryId").GetGuid();

    public static List<JsonElement> Log(this JsonElement tray, string kind) =>
        [.. tray.GetProperty("logbook").EnumerateArray().Where(entry => entry.GetProperty("kind").GetString() == kind)];

    public static uint Version(this JsonElement tray) => tray.GetProperty("version").GetUInt32();
}
