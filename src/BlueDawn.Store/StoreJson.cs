using System.Text.Json;
using BlueDawn.Core.Trays;

namespace BlueDawn.Store;

/// <summary>How Core's records are written into jsonb columns and read back.</summary>
public static class StoreJson
{
    /// <summary>As Core writes them.</summary>
    public static JsonSerializerOptions Options => CoreJson.Options;
}
