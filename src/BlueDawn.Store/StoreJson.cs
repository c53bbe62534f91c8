using System.Text.Json;
using System.Text.Json.Serialization;

namespace BlueDawn.Store;

/// <summary>How Core's records are written into jsonb columns and read back.</summary>
public static class StoreJson
{
    /// <summary>Camel case, enums as words; the kind of a reading may stand anywhere, since jsonb sorts its keys.</summary>
    public static JsonSerializerOptions Options { get; } = new(JsonSerializerDefaults.General)
    {
        PropertyNamingPolicy = JsonNamingPolicy.CamelCase,
        AllowOutOfOrderMetadataProperties = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };
}
