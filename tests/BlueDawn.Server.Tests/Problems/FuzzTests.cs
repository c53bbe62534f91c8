using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;

namespace BlueDawn.Server.Tests.Problems;

/// <summary>
/// Requests made at random from the OpenAPI document, most of them spoilt in one place: the server answers every one of
/// them, never with 5xx, and only with a status that the document names. BLUE_DAWN_FUZZ sets how many.
/// </summary>
public class FuzzTests
{
    private const int Seed = 20261127;
    private const int Usual = 400;

    private static readonly string[] Odd =
    [
        "null",
        "-0",
        "-0.0",
        "1e300",
        "-1e300",
        "1e400",
        "9223372036854775808",
        "true",
        "[]",
        "{}",
        "[null]",
        "\"\"",
        "\" \"",
        "\"a\\u0000b\"",
        "\"\\ud800\"",
        "\"00000000-0000-0000-0000-000000000000\"",
        "\"not-a-guid\"",
        "\"2026-02-30T25:00:00Z\"",
        "\"0001-01-01T00:00:00Z\"",
        "\"9999-12-31T23:59:59+14:00\"",
        "\"'; drop table trays; --\"",
        "\"=1+1\"",
        "\"٣٫٥\"",
        "\"1e9 mm\"",
        "\"½ in\"",
        "{\"kind\":null}",
        "{\"a\":null}",
        "-1",
        "0",
        "2147483647",
        "-2147483648",
        "0.1",
    ];

    [Fact]
    public void An_answer_says_what_is_in_it_and_one_with_nothing_in_it_is_204()
    {
        var document = DocumentCheck.Document;
        var silent =
            from path in document["paths"]!.AsObject()
            from operation in path.Value!.AsObject()
            from answer in operation.Value!["responses"]!.AsObject()
            where answer.Key is "200" or "201" && answer.Value!["content"] is not JsonObject { Count: > 0 }
            select $"{operation.Key} {path.Key} {answer.Key}";
        // A file in bytes, of any kind, needs no schema.
        Assert.DoesNotContain(silent, one => !one.Contains("archive.zip", StringComparison.Ordinal));
    }

    [Fact]
    public async Task No_request_whatever_is_in_it_is_answered_with_a_fault_of_the_server()
    {
        await using var shop = new Shop();
        await shop.InitializeAsync();
        var lead = await shop.SignInAsync("ilse");
        var document = DocumentCheck.Document;
        var operations = (
            from path in document["paths"]!.AsObject()
            from operation in path.Value!.AsObject()
            let id = (string?)operation.Value!["operationId"] ?? path.Key
            // These end the session that asks.
            where id is not ("signOut" or "signIn" or "signOutDevice" or "hearChanges")
            select (Method: new HttpMethod(operation.Key.ToUpperInvariant()), Path: path.Key, Operation: operation.Value!.AsObject())
        ).ToList();
        var count = int.TryParse(Environment.GetEnvironmentVariable("BLUE_DAWN_FUZZ"), CultureInfo.InvariantCulture, out var asked)
            ? asked
            : Usual;
        var random = new Random(Seed);
        var made = new Made(document, random);
        var (faults, unnamed, statuses) = (new List<string>(), new SortedSet<string>(), new SortedDictionary<int, int>());
        for (var i = 0; i < count; i++)
        {
            // Every operation gets its turn; which way it is spoilt is drawn.
            var (method, path, operation) = operations[i % operations.Count];
            var (request, told) = made.Request(method, path, operation);
            var answer = await lead.SendAsync(request);
            var status = (int)answer.Status;
            statuses[status] = statuses.GetValueOrDefault(status) + 1;
            if (status >= 500)
            {
                faults.Add($"{status} {told}");
            }

            if (operation["responses"]![status.ToString(CultureInfo.InvariantCulture)] is null)
            {
                unnamed.Add($"{status} of {method} {path}");
            }
        }

        TestContext.Current.SendDiagnosticMessage(
            $"Fuzz: {count} requests, {string.Join(", ", statuses.Select(pair => $"{pair.Key}: {pair.Value}"))}"
        );
        Assert.Empty(faults);
        Assert.Empty(unnamed);
        // Some have to get through, or nothing behind the door was tried.
        Assert.True(statuses.GetValueOrDefault(200) > count / 20, $"only {statuses.GetValueOrDefault(200)} of {count} got through");
    }

    /// <summary>Requests as the document describes them, and then spoilt.</summary>
    private sealed class Made(JsonObject document, Random random)
    {
        public (HttpRequestMessage Request, string Told) Request(HttpMethod method, string path, JsonObject operation)
        {
            var query = new List<string>();
            foreach (var parameter in (operation["parameters"] as JsonArray ?? []).OfType<JsonObject>())
            {
                var (name, schema) = ((string)parameter["name"]!, Resolve(parameter["schema"]!));
                var text = random.Next(8) == 0 ? OddText() : Known(name) ?? Plain(Any(schema, 0));
                if ((string)parameter["in"]! == "path")
                {
                    // The web server itself turns such an address away; the test's own server cannot even be asked for it.
                    text = text.Replace("\0", "", StringComparison.Ordinal);
                    path = path.Replace($"{{{name}}}", Uri.EscapeDataString(text.Length == 0 ? "x" : text), StringComparison.Ordinal);
                }
                else if (random.Next(5) > 0 || (bool?)parameter["required"] == true)
                {
                    query.Add($"{Uri.EscapeDataString(name)}={Uri.EscapeDataString(text)}");
                }
            }

            var address = query.Count > 0 ? $"{path}?{string.Join('&', query)}" : path;
            var request = new HttpRequestMessage(method, address);
            var body = "";
            if (operation["requestBody"]?["content"] is JsonObject content)
            {
                if (content["application/json"]?["schema"] is { } schema)
                {
                    var value = Any(Resolve(schema), 0);
                    body = random.Next(4) switch
                    {
                        0 => value?.ToJsonString() ?? "null",
                        1 => Cut(value?.ToJsonString() ?? "{}"),
                        _ => Spoilt(value),
                    };
                    var type = random.Next(30) switch
                    {
                        0 => "application/json; charset=utf-7",
                        1 => "text/plain",
                        2 => "application/json; charset=\"none\"",
                        _ => "application/json",
                    };
                    request.Content = new StringContent(body, Encoding.UTF8);
                    request.Content.Headers.Remove("Content-Type");
                    request.Content.Headers.TryAddWithoutValidation("Content-Type", type);
                }
                else
                {
                    var bytes = new byte[random.Next(200)];
                    random.NextBytes(bytes);
                    request.Content = new ByteArrayContent(bytes);
                    request.Content.Headers.TryAddWithoutValidation("Content-Type", content.First().Key);
                }
            }

            return (request, $"{method} {address} {(body.Length > 600 ? body[..600] : body)}");
        }

        /// <summary>What has to exist for a request to get anywhere.</summary>
        private string? Known(string name) =>
            name switch
            {
                "number" => random.Next(2) == 0 ? "27" : "31",
                "bath" => "ultrasonic",
                "item" => "OK-207",
                "file" => "items",
                _ => null,
            };

        private string OddText() =>
            random.Next(6) switch
            {
                0 => "a\0b",
                1 => new string('9', 5000),
                2 => Guid.Empty.ToString(),
                3 => "-1",
                4 => "٣",
                _ => Odd[random.Next(Odd.Length)],
            };

        private static string Plain(JsonNode? node) =>
            node is JsonValue value && value.TryGetValue<string>(out var text) ? text : node?.ToJsonString() ?? "";

        private JsonObject Resolve(JsonNode schema) =>
            (string?)schema["$ref"] is { } reference
                ? Resolve(document["components"]!["schemas"]![reference[(reference.LastIndexOf('/') + 1)..]]!)
                : schema.AsObject();

        private JsonNode? Any(JsonObject schema, int depth)
        {
            if (depth > 9)
            {
                return null;
            }

            if ((schema["oneOf"] ?? schema["anyOf"]) is JsonArray kinds)
            {
                var chosen = kinds[random.Next(kinds.Count)]!;
                return (string?)chosen["type"] == "null" ? null : Any(Resolve(chosen), depth + 1);
            }

            if (schema["enum"] is JsonArray words)
            {
                return words[random.Next(words.Count)]?.DeepClone();
            }

            var types = schema["type"] switch
            {
                JsonArray several => several.Select(type => (string)type!).ToList(),
                JsonValue one => [(string)one!],
                _ => schema["properties"] is null ? ["string"] : ["object"],
            };
            if (types.Contains("null") && random.Next(3) == 0)
            {
                return null;
            }

            return types.First(type => type != "null") switch
            {
                "object" => Map(schema, depth),
                "array" => new JsonArray([.. Enumerable.Range(0, random.Next(3)).Select(_ => Any(Resolve(schema["items"]!), depth + 1))]),
                "boolean" => random.Next(2) == 0,
                "integer" => random.Next(1, 30),
                "number" => Math.Round(random.NextDouble() * 10, 3),
                _ => (string?)schema["format"] switch
                {
                    "uuid" => Guid.CreateVersion7().ToString(),
                    "date-time" => DateTimeOffset.UtcNow.AddMinutes(-random.Next(100)).ToString("O"),
                    "date" => DateTime.UtcNow.AddDays(random.Next(10)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    _ => ((string[])["gauging/main-jet", "0.71", "main-jet", "4107", "marks", "Hunts at idle", "7.2 mm", "#70"])[
                        random.Next(8)
                    ],
                },
            };
        }

        private JsonObject Map(JsonObject schema, int depth)
        {
            var made = new JsonObject();
            foreach (var (name, of) in schema["properties"] as JsonObject ?? [])
            {
                if (schema["required"] is not JsonArray required || required.Any(one => (string)one! == name) || random.Next(3) > 0)
                {
                    made[name] = name is "trayNumber" ? 27 : Any(Resolve(of!), depth + 1);
                }
            }

            if (schema["additionalProperties"] is JsonObject values)
            {
                made[random.Next(2) == 0 ? "go" : "depth"] = Any(Resolve(values), depth + 1);
            }

            return made;
        }

        private string Cut(string text) => text[..random.Next(text.Length)];

        /// <summary>The same with one value in it, however deep, made odd.</summary>
        private string Spoilt(JsonNode? body)
        {
            const string mark = "\"@odd@\"";
            var places = new List<Action>();
            Collect(body, places);
            if (places.Count == 0)
            {
                return Odd[random.Next(Odd.Length)];
            }

            places[random.Next(places.Count)]();
            return body!.ToJsonString().Replace(mark, Odd[random.Next(Odd.Length)], StringComparison.Ordinal);
        }

        private static void Collect(JsonNode? node, List<Action> places)
        {
            switch (node)
            {
                case JsonObject map:
                    foreach (var (name, value) in map)
                    {
                        places.Add(() => map[name] = "@odd@");
                        places.Add(() => map.Remove(name));
                        Collect(value, places);
                    }

                    break;
                case JsonArray list:
                    for (var i = 0; i < list.Count; i++)
                    {
                        var at = i;
                        places.Add(() => list[at] = "@odd@");
                        Collect(list[i], places);
                    }

                    break;
                default:
                    break;
            }
        }
    }
}
