using System.Runtime.InteropServices.JavaScript;
using System.Runtime.Versioning;
using System.Text.Json;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Trays;

namespace BlueDawn.Browser;

/// <summary>
/// Core as a page uses it: the same verdicts as the server's, from the snapshot of a tray and what is still on its way.
/// Everything goes in and out as JSON, written as the server writes it.
/// </summary>
[SupportedOSPlatform("browser")]
public static partial class CoreInTheBrowser
{
    private static readonly Dictionary<int, Folded> Open = [];

    /// <summary>Nothing to do: a page calls what it needs.</summary>
    public static void Main() { }

    /// <summary>Which Core this is.</summary>
    [JSExport]
    public static string Version() => CoreVersion.Current;

    /// <summary>Takes the snapshot of a tray, with entries that are still on their way written on top; what the rules refuse is left
    /// out.</summary>
    /// <param name="snapshot">The snapshot.</param>
    /// <param name="pending">Entries in their order.</param>
    /// <param name="by">Who took them.</param>
    /// <returns>Those that were left out, with what the rules say to them.</returns>
    [JSExport]
    public static string Take(string snapshot, string pending, string by)
    {
        var tray = JsonSerializer.Deserialize<TraySnapshot>(snapshot, DeviceJson.Options)!;
        var folded = tray.OpenWith(JsonSerializer.Deserialize<List<NewEntry>>(pending, DeviceJson.Options)!, by, DateTimeOffset.UtcNow);
        Open[tray.Head.Number] = folded;
        return JsonSerializer.Serialize(folded.LeftOut, DeviceJson.Options);
    }

    /// <summary>Puts more entries on top of a tray that has been taken.</summary>
    /// <param name="number">The tray.</param>
    /// <param name="pending">Entries in their order.</param>
    /// <param name="by">Who took them.</param>
    /// <returns>All of the tray that are left out; null when it has not been taken.</returns>
    [JSExport]
    public static string? Add(int number, string pending, string by)
    {
        if (!Open.TryGetValue(number, out var open))
        {
            return null;
        }

        var folded = open.With(JsonSerializer.Deserialize<List<NewEntry>>(pending, DeviceJson.Options)!, by, DateTimeOffset.UtcNow);
        Open[number] = folded;
        return JsonSerializer.Serialize(folded.LeftOut, DeviceJson.Options);
    }

    /// <summary>What a page asks of a tray that has been taken; null when it has not.</summary>
    /// <param name="number">The tray.</param>
    /// <param name="page">tray, ledger, cleaning, trace, or trace-alone without the shop's history.</param>
    [JSExport]
    public static string? Show(int number, string page) =>
        !Open.TryGetValue(number, out var open)
            ? null
            : page switch
            {
                "tray" => JsonSerializer.Serialize(TrayView.Of(open.Head, open.Book), DeviceJson.Options),
                "ledger" => JsonSerializer.Serialize(LedgerView.Of(open.Book), DeviceJson.Options),
                "cleaning" => JsonSerializer.Serialize(CleaningView.Of(open.Book), DeviceJson.Options),
                "trace" => JsonSerializer.Serialize(TraceView.Of(open.Book, history: true), DeviceJson.Options),
                "trace-alone" => JsonSerializer.Serialize(
                    TraceView.Of(
                        StationList.Open(open.Book.Facts, open.Book.Context with { History = Core.Shop.FaultHistory.None }, open.Book.Log),
                        history: false
                    ),
                    DeviceJson.Options
                ),
                _ => null,
            };

    /// <summary>What a reading that is being typed would say; null when the tray has not been taken or has no such line.</summary>
    /// <param name="number">The tray.</param>
    /// <param name="draft">What is typed.</param>
    [JSExport]
    public static string? Judge(int number, string draft) =>
        Open.TryGetValue(number, out var open)
        && DraftJudgement.Of(JsonSerializer.Deserialize<ReadingDraft>(draft, DeviceJson.Options)!, open.Book) is { } judged
            ? JsonSerializer.Serialize(judged, DeviceJson.Options)
            : null;
}
