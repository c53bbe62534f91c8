using System.Globalization;
using System.Text.Encodings.Web;
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
    public static JsonSerializerOptions Options { get; } =
        new(JsonSerializerDefaults.General)
        {
            PropertyNamingPolicy = JsonNamingPolicy.CamelCase,
            AllowOutOfOrderMetadataProperties = true,
            Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { KnowKinds } },
        };

    /// <summary>As the server writes its answers, whoever writes them.</summary>
    public static JsonSerializerOptions Web { get; } =
        AsWeb(new JsonSerializerOptions(JsonSerializerDefaults.Web) { TypeInfoResolver = new DefaultJsonTypeInfoResolver() });

    /// <summary>Every kind of note and reading as it is written, from code that is generated: no class is looked at.</summary>
    public static IJsonTypeInfoResolver GeneratedKinds { get; } =
        JsonTypeInfoResolver.Combine([.. StationList.All.Select(station => station.Json)]).WithAddedModifier(KnowKinds);

    /// <summary>Sets a serializer up to read and write as answers of the server are written.</summary>
    /// <param name="options">The serializer's options, with a resolver of their own.</param>
    public static JsonSerializerOptions AsWeb(JsonSerializerOptions options)
    {
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.Converters.Add(new TwelveDigits());
        options.Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping;
        options.AllowOutOfOrderMetadataProperties = true;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.TypeInfoResolverChain.Insert(0, new DefaultJsonTypeInfoResolver { Modifiers = { KnowKinds } });
        return options;
    }

    /// <summary>Tells a serializer the kinds of note and reading there are, under the base class and everything between.</summary>
    /// <param name="type">What is known of a class.</param>
    public static void KnowKinds(JsonTypeInfo type)
    {
        if (!type.Type.IsAbstract)
        {
            return;
        }

        var kinds =
            type.Type.IsAssignableTo(typeof(Note)) ? StationList.Notes.Select(kind => (kind.Type, kind.Word))
            : type.Type.IsAssignableTo(typeof(Reading)) ? StationList.Readings.Select(kind => (kind.Type, kind.Word))
            : [];
        foreach (var (derived, word) in kinds.Where(kind => kind.Type.IsAssignableTo(type.Type)))
        {
            type.PolymorphismOptions ??= new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "kind" };
            type.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(derived, word));
        }
    }

    /// <summary>
    /// Numbers go out with twelve significant digits. The last ones of a logarithm differ from machine to machine, and the
    /// same reading judged on two of them says the same.
    /// </summary>
    private sealed class TwelveDigits : JsonConverter<double>
    {
        public override double Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => reader.GetDouble();

        public override void Write(Utf8JsonWriter writer, double value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(double.Parse(value.ToString("G12", CultureInfo.InvariantCulture), CultureInfo.InvariantCulture));
    }
}
