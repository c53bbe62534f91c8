using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Trays;

/// <summary>How Core's records are written as JSON: camel case, enums as words, and every kind of note and reading by its word.</summary>
public static class CoreJson
{
    /// <summary>For what is kept. The kind of a note may stand anywhere, since a database may sort keys.</summary>
    public static JsonSerializerOptions Options { get; } = new(JsonSerializerDefaults.General)
    {
        PropertyNamingPolicy = JsonNamingPolicy.CamelCase,
        AllowOutOfOrderMetadataProperties = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { KnowKinds } },
    };

    /// <summary>Tells a serializer the kinds of note and reading there are, under the base class and everything between.</summary>
    /// <param name="type">What is known of a class.</param>
    public static void KnowKinds(JsonTypeInfo type)
    {
        if (!type.Type.IsAbstract)
        {
            return;
        }

        var kinds = type.Type.IsAssignableTo(typeof(Note)) ? StationList.Notes.Select(kind => (kind.Type, kind.Word))
            : type.Type.IsAssignableTo(typeof(Reading)) ? StationList.Readings.Select(kind => (kind.Type, kind.Word))
            : [];
        foreach (var (derived, word) in kinds.Where(kind => kind.Type.IsAssignableTo(type.Type)))
        {
            type.PolymorphismOptions ??= new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "kind" };
            type.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(derived, word));
        }
    }
}
