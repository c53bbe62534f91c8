using System.Collections.Concurrent;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Json.Schema;

namespace BlueDawn.Server.Tests;

/// <summary>
/// Holds every answer of these tests against the interface's document, as the build wrote it: the status has to be named
/// there, and the body has to be what it says (JSON Schema 2020-12, by JsonSchema.Net).
/// </summary>
internal static class DocumentCheck
{
    /// <summary>The document; it is read, never changed.</summary>
    public static JsonObject Document => Written.Value;

    private static readonly Lazy<JsonObject> Written = new(() =>
        JsonNode.Parse(File.ReadAllText(Path.Combine(Repository.Root, "artifacts", "openapi", "v1.json")))!.AsObject()
    );

    private static readonly Lazy<IReadOnlyList<(Regex Path, JsonObject Item)>> Paths = new(() =>
        [
            .. Document["paths"]!
                .AsObject()
                // What is fixed goes before what is a parameter.
                .OrderBy(path => path.Key.Count(letter => letter == '{'))
                .Select(path =>
                    (new Regex("^" + Regex.Replace(Regex.Escape(path.Key), @"\\\{[^/]*?}", "[^/]+") + "$"), path.Value!.AsObject())
                ),
        ]
    );

    private static readonly ConcurrentDictionary<string, JsonSchema> Schemas = new();

    /// <summary>What is wrong with an answer; null when it is as the document says.</summary>
    /// <param name="method">How it was asked.</param>
    /// <param name="path">What was asked, without its query.</param>
    /// <param name="status">What was answered.</param>
    /// <param name="mediaType">What the body is.</param>
    /// <param name="body">The body.</param>
    public static string? Problem(string method, string path, int status, string? mediaType, string body)
    {
        // The document itself is not in the document.
        if (path == "/openapi/v1.json")
        {
            return null;
        }

        // What nobody offers is not in the document, and a request that is no request is turned away before anything else.
        if (
            Paths.Value.FirstOrDefault(one => one.Path.IsMatch(path)).Item is not { } item
            || item[method.ToLowerInvariant()] is not JsonObject operation
        )
        {
            return status is 404 or 405 or 400 or 401 or 403 or 409 or 415 or 503
                ? null
                : $"{method} {path}: not in the document, answered {status}";
        }

        if (operation["responses"]![status.ToString()] is not JsonObject response)
        {
            return $"{method} {path}: {status} is not in the document";
        }

        if (response["content"] is not JsonObject content)
        {
            return body.Length == 0
                ? null
                : $"{method} {path}: {status} has a body that the document does not name: {body[..Math.Min(80, body.Length)]}";
        }

        if (mediaType is null || content[mediaType] is not JsonObject media)
        {
            return $"{method} {path}: {status} is {mediaType}, the document says {string.Join(", ", content.Select(one => one.Key))}";
        }

        if (!mediaType.EndsWith("json", StringComparison.Ordinal) || media["schema"] is not { } schema)
        {
            return null;
        }

        var shape = SchemaOf(schema);
        var answer = JsonNode.Parse(body);
        // Whether it holds is known at the first thing that does not; what does not is only worked out then.
        if (shape.Evaluate(answer, new EvaluationOptions { OutputFormat = OutputFormat.Flag }).IsValid)
        {
            return null;
        }

        var found = shape.Evaluate(answer, new EvaluationOptions { OutputFormat = OutputFormat.List });
        return $"{method} {path}: {status}: "
            + string.Join(
                "; ",
                found
                    .Details.Where(one => one.Errors is not null)
                    .Take(4)
                    .Select(one => $"{one.InstanceLocation}: {string.Join(", ", one.Errors!.Values)}")
            );
    }

    private static JsonSchema SchemaOf(JsonNode schema) => Schemas.GetOrAdd(schema.ToJsonString(), text =>
        {
            var whole = JsonNode.Parse(text)!.AsObject();
            whole["components"] = new JsonObject { ["schemas"] = Document["components"]!["schemas"]!.DeepClone() };
            return JsonSchema.FromText(whole.ToJsonString());
        });
}
