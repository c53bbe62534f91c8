using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace BlueDawn.Server.Problems;

/// <summary>
/// What no endpoint can use is refused before any of them sees it, with the field: text that no database keeps, numbers
/// that are none, nothing where a list or a map has to have something, and ids of nobody.
/// </summary>
internal static class RequestScreening
{
    /// <summary>Most letters of one text. Fields have shorter limits of their own.</summary>
    public const int LongestText = 4000;

    /// <summary>Most of one number, up or down.</summary>
    private const double LargestNumber = 1e9;
    private const int LongestName = 120;
    private const int Deepest = 32;
    private static readonly string Nobody = Guid.Empty.ToString();

    /// <summary>Looks at the address and at a body of JSON of everything that goes to /api.</summary>
    public static void UseRequestScreening(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                var request = context.Request;
                if (!request.Path.StartsWithSegments("/api"))
                {
                    await next(context);
                    return;
                }

                var refused = InAddress(request);
                if (refused is null && IsJson(request, out var charset))
                {
                    if (charset is not (null or "utf-8"))
                    {
                        await TypedResults
                            .Problem(statusCode: 415, title: "The request cannot be read.", detail: "Send JSON as UTF-8.")
                            .ExecuteAsync(context);
                        return;
                    }

                    using var body = new MemoryStream();
                    await request.Body.CopyToAsync(body, context.RequestAborted);
                    refused = InBody(body.GetBuffer().AsSpan(0, (int)body.Length));
                    body.Position = 0;
                    if (refused is null)
                    {
                        request.Body = body;
                        await next(context);
                        return;
                    }
                }

                await (refused is { } wrong ? Problem.Field(wrong.Field, wrong.Message).ExecuteAsync(context) : next(context));
            }
        );

    /// <summary>Refuses nothing inside of maps and lists, where a type says there is something.</summary>
    public static void RefuseNothing(JsonTypeInfo type)
    {
        if (type.Kind == JsonTypeInfoKind.Dictionary && type.ElementType is { IsValueType: false })
        {
            type.OnDeserialized = map =>
            {
                foreach (System.Collections.DictionaryEntry entry in (System.Collections.IDictionary)map)
                {
                    if (entry.Value is null)
                    {
                        throw new JsonException("There is nothing in it.");
                    }
                }
            };
        }
    }

    private static bool IsJson(HttpRequest request, out string? charset)
    {
        charset = null;
        if (
            request.ContentType is null
            || !MediaTypeHeaderValue.TryParse(request.ContentType, out var type)
            || type.MediaType?.EndsWith("json", StringComparison.OrdinalIgnoreCase) != true
        )
        {
            return false;
        }

        charset = type.CharSet?.Trim('"').ToLowerInvariant();
        return true;
    }

    private static (string Field, string Message)? InAddress(HttpRequest request)
    {
        if (WrongText(request.Path.Value ?? "") is { } path)
        {
            return ("address", path);
        }

        if (request.RouteValues.Values.OfType<string>().Contains(Nobody))
        {
            return ("address", EmptyId);
        }

        foreach (var (name, values) in request.Query)
        {
            foreach (var value in values)
            {
                if (WrongText(value ?? "") is { } wrong)
                {
                    return (name, wrong);
                }
            }
        }

        return null;
    }

    private const string EmptyId = "An id cannot be all zeros. Make a new one.";

    private static (string Field, string Message)? InBody(ReadOnlySpan<byte> json)
    {
        var reader = new Utf8JsonReader(json, new JsonReaderOptions { MaxDepth = Deepest });
        var places = new Stack<(string Name, bool List)>();
        var name = "";
        (string, string)? Wrong(string message) => (Where(places, name), message);
        try
        {
            while (reader.Read())
            {
                switch (reader.TokenType)
                {
                    case JsonTokenType.StartObject or JsonTokenType.StartArray:
                        places.Push((name, reader.TokenType == JsonTokenType.StartArray));
                        name = "";
                        break;
                    case JsonTokenType.EndObject or JsonTokenType.EndArray:
                        name = places.Pop().Name;
                        break;
                    case JsonTokenType.PropertyName:
                        name = reader.GetString()!;
                        if (name.Length > LongestName || WrongText(name) is not null)
                        {
                            name = "";
                            return Wrong("A field's name cannot be read.");
                        }

                        break;
                    case JsonTokenType.String:
                        var text = reader.GetString()!;
                        if ((text == Nobody ? EmptyId : WrongText(text)) is { } wrong)
                        {
                            return Wrong(wrong);
                        }

                        break;
                    case JsonTokenType.Number when !reader.TryGetDouble(out var number) || Math.Abs(number) > LargestNumber:
                        return Wrong("That is not a number anything here can have.");
                    case JsonTokenType.Null when places.TryPeek(out var place) && place.List:
                        return Wrong("There is nothing at one place of this list.");
                    default:
                        break;
                }
            }
        }
        catch (InvalidOperationException)
        {
            // Half of a letter that takes two.
            return Wrong("This text holds something that is not a letter.");
        }
        catch (JsonException)
        {
            // Said where it is read.
        }

        return null;
    }

    private static string Where(Stack<(string Name, bool List)> places, string name)
    {
        var path = string.Join('.', places.Reverse().Select(place => place.Name).Append(name).Where(part => part.Length > 0));
        return path.Length > 0 ? path : "body";
    }

    private static string? WrongText(string text)
    {
        if (text.Length > LongestText)
        {
            return $"That is too long: at most {LongestText} letters.";
        }

        if (text.Contains('\0', StringComparison.Ordinal))
        {
            return "This text holds something that is not a letter.";
        }

        foreach (var rune in text.EnumerateRunes())
        {
            if (rune == Rune.ReplacementChar)
            {
                return "This text holds something that is not a letter.";
            }
        }

        return null;
    }
}
