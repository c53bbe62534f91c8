using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Pages;

/// <summary>
/// The JSON of a device that judges trays by itself: the same as <see cref="CoreJson.Web"/>, by code that is generated
/// when Core is compiled. A browser takes seconds to look at the classes instead. What is missing here is looked at.
/// </summary>
public static class DeviceJson
{
    /// <summary>To read snapshot with, and to write pages with.</summary>
    public static JsonSerializerOptions Options { get; } = Generated();

    private static JsonSerializerOptions Generated()
    {
        var options = CoreJson.AsWeb(
            new JsonSerializerOptions(JsonSerializerDefaults.Web) { TypeInfoResolver = new DefaultJsonTypeInfoResolver() }
        );
        options.TypeInfoResolverChain.Insert(0, PagesJson.Default.WithAddedModifier(CoreJson.KnowKinds));
        options.TypeInfoResolverChain.Insert(1, CoreJson.GeneratedKinds);
        return options;
    }
}

/// <summary>What goes in and out, generated.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(TraySnapshot))]
[JsonSerializable(typeof(List<NewEntry>))]
[JsonSerializable(typeof(IReadOnlyList<LeftOut>))]
[JsonSerializable(typeof(TrayView))]
[JsonSerializable(typeof(LedgerView))]
[JsonSerializable(typeof(CleaningView))]
[JsonSerializable(typeof(TraceView))]
[JsonSerializable(typeof(ReadingDraft))]
[JsonSerializable(typeof(DraftJudgement))]
internal sealed partial class PagesJson : JsonSerializerContext;
