using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;
using BlueDawn.Server.Compute;
using BlueDawn.Server.People;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace BlueDawn.Server.Problems;

/// <summary>How the interface describes itself at /openapi/v1.json; the web application's client is generated from it.</summary>
internal static class DocumentSetup
{
    private const string Cookie = "session";
    private const string Token = "token";
    private const string ProblemName = "ProblemDetails";
    private static readonly string[] ProblemNames = [ProblemName, "HttpValidationProblemDetails"];

    /// <summary>What a parameter says, by its name; where one name means two things, by the address too.</summary>
    private static readonly Dictionary<string, string> Parameters = new(StringComparer.Ordinal)
    {
        ["number"] = "Number on the tray's tag.",
        ["/api/stamped number"] = "Number stamped on a carburetor, as it was read.",
        ["id"] = "Its id.",
        ["code"] = "The spec sheet's code.",
        ["key"] = "The rule's key.",
        ["name"] = "File name of the table, as GET /api/shop/knowledge lists it.",
        ["/api/catalogue/imports/{id} name"] = "What the file is called.",
        ["file"] = "Which of the catalogue's files.",
        ["find"] = "What to look for in number or name.",
        ["text"] = "What to look for.",
        ["item"] = "Number of the item.",
        ["order"] = "Id of the order.",
        ["supplier"] = "Name of the supplier.",
        ["refill"] = "Whether the shelf is filled up to its reorder points besides.",
        ["bath"] = "The bath's key.",
        ["part"] = "The part's key.",
        ["renew"] = "Parts to renew; left out for all that are wanted.",
        ["history"] = "Whether what the shop has confirmed on other carburetors counts.",
        ["family"] = "The carburetor's family.",
        ["engine"] = "The engine it feeds.",
        ["choke"] = "Its choke.",
        ["owner"] = "Name of the owner.",
        ["machine"] = "Name of the machine.",
        ["after"] = "The last of those that were listed before, by id.",
        ["stamped"] = "Number stamped on it, as it was read.",
        ["plate"] = "What stands on the engine's plate.",
        ["date"] = "Its date code.",
        ["maker"] = "Its maker.",
        ["answer"] = "What was measured or seen, as trait:value.",
        ["take"] = "Sheets to take; left out to look at the file only.",
        ["decimalComma"] = "Whether a comma in a number is a decimal point.",
        ["was"] = "The version that the change was decided on.",
        ["why"] = "Why it is changed; it is kept.",
    };

    private const string FindingName = "Finding";

    /// <summary>Classes whose <c>finding</c> is one of a gauge line.</summary>
    private static readonly string[] NamesFindings = [nameof(Judgement), nameof(TraceReading)];

    private const string ProblemJson = "application/problem+json";

    private static readonly Dictionary<string, string> Tags = new(StringComparer.Ordinal)
    {
        ["Session"] = "Signing in, and how somebody likes to work.",
        ["Bench"] = "All that is on the bench.",
        ["Intake"] = "Checking in and photos.",
        ["Trays"] = "Trays, and the one way into their logbooks.",
        ["Faults"] = "Tracing what is wrong.",
        ["Kits"] = "Identifying, kits, and what is fitted.",
        ["Strip and build"] = "The ledger of parts.",
        ["Cleaning"] = "How trays are cleaned, and the baths.",
        ["Handover"] = "The report.",
        ["Stock"] = "The shelf, buying, and carburetors kept for parts.",
        ["Catalogue"] = "What is sold, in files.",
        ["Compute"] = "The bench's arithmetic by itself; no sign-in.",
        ["Live"] = "What changes.",
        ["Health"] = "Whether the server answers, for whoever watches it.",
        ["People"] = "Who works here.",
        ["Owners"] = "Whose the machines are.",
        ["Sheets"] = "Spec sheets, and how they are made.",
        ["Rules"] = "What the shop goes by.",
        ["Moving"] = "All of a shop as one file.",
        ["Instruments"] = "What measures and sends its readings.",
    };

    /// <summary>A page judges by words that Core declares: any other does not compile there.</summary>
    private static void SayFindings(OpenApiDocument document)
    {
        document.AddComponent(
            FindingName,
            new OpenApiSchema
            {
                Description = "What a gauge line can find.",
                Type = JsonSchemaType.String,
                Enum = [.. StationList.Findings.Select(one => (JsonNode)one.Id)],
            }
        );
        foreach (var name in NamesFindings)
        {
            if (document.Components!.Schemas!.TryGetValue(name, out var found) && found is OpenApiSchema { Properties: { } properties })
            {
                properties["finding"] = new OpenApiSchemaReference(FindingName, document);
            }
        }
    }

    /// <summary>What a problem says besides what RFC 9457 lists, whichever of it there is.</summary>
    private static void SayMore(OpenApiSchema problem, OpenApiDocument document)
    {
        OpenApiSchema Text(string about) => new() { Type = JsonSchemaType.String | JsonSchemaType.Null, Description = about };
        problem.Properties ??= new Dictionary<string, IOpenApiSchema>();
        problem.Properties["traceId"] = Text("The request in the server's log.");
        problem.Properties["errors"] = new OpenApiSchema
        {
            Description = "What is wrong, field by field.",
            Type = JsonSchemaType.Object | JsonSchemaType.Null,
            AdditionalProperties = new OpenApiSchema
            {
                Type = JsonSchemaType.Array,
                Items = new OpenApiSchema { Type = JsonSchemaType.String },
            },
        };
        // What stands there now, for whoever was second: rules, issues of a sheet, an owner, entries of a tray.
        problem.AdditionalPropertiesAllowed = true;
        problem.AdditionalProperties = new OpenApiSchema();
    }

    /// <summary>An enumeration is its words: that it may be left out is said where it is used, and would count twice here.</summary>
    private static void OnlyItsWords(IOpenApiSchema schema)
    {
        if (schema is OpenApiSchema { Enum: { Count: > 0 } words } enumeration)
        {
            enumeration.Enum = [.. words.Where(word => word is not null && word.GetValueKind() == JsonValueKind.String)];
            enumeration.Type = JsonSchemaType.String;
        }
    }

    /// <summary>Words of a comment that goes over several lines of code.</summary>
    private static void OnOneLine(IOpenApiSchema schema)
    {
        if (schema.Description?.Contains('\n', StringComparison.Ordinal) == true)
        {
            schema.Description = string.Join(' ', schema.Description.Split('\n', StringSplitOptions.TrimEntries));
        }

        // A property that is a reference says what it points to says.
        foreach (
            var inner in (schema.Properties?.Values ?? [])
                .Where(property => property is not OpenApiSchemaReference)
                .Concat(schema.OneOf ?? [])
        )
        {
            OnOneLine(inner);
        }
    }

    public static void Describe(OpenApiOptions options)
    {
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new OpenApiInfo
                {
                    Title = "Blue Dawn",
                    Version = "1",
                    Description = "The bench's own interface. Units stand in the names of fields.",
                };
                document.Servers = [new OpenApiServer { Url = "/", Description = "Wherever this document came from" }];
                document.Tags = new HashSet<OpenApiTag>(
                    Tags.OrderBy(tag => tag.Key, StringComparer.Ordinal)
                        .Select(tag => new OpenApiTag { Name = tag.Key, Description = tag.Value })
                );
                document.Components ??= new OpenApiComponents();
                document.Components.SecuritySchemes = new Dictionary<string, IOpenApiSecurityScheme>
                {
                    [Cookie] = new OpenApiSecurityScheme
                    {
                        Type = SecuritySchemeType.ApiKey,
                        In = ParameterLocation.Cookie,
                        Name = SessionCookies.Name,
                        Description = "Set by signing in.",
                    },
                    [Token] = new OpenApiSecurityScheme
                    {
                        Type = SecuritySchemeType.ApiKey,
                        In = ParameterLocation.Header,
                        Name = PeopleSetup.TokenHeader,
                        Description = "From getSession; sent with everything that writes.",
                    },
                };
                foreach (var schema in document.Components.Schemas?.Values ?? [])
                {
                    OnOneLine(schema);
                    OnlyItsWords(schema);
                }

                SayFindings(document);
                foreach (var name in ProblemNames)
                {
                    if (document.Components.Schemas?.TryGetValue(name, out var found) == true && found is OpenApiSchema problem)
                    {
                        SayMore(problem, document);
                    }
                }

                foreach (var (path, item) in document.Paths)
                {
                    foreach (var (method, operation) in item.Operations ?? [])
                    {
                        // A list that is left out is an empty one.
                        foreach (
                            var list in operation
                                .Parameters?.OfType<OpenApiParameter>()
                                .Where(one => one.Schema?.Type == JsonSchemaType.Array)
                                ?? []
                        )
                        {
                            list.Required = false;
                        }

                        foreach (var parameter in operation.Parameters?.OfType<OpenApiParameter>() ?? [])
                        {
                            parameter.Description ??= Parameters.GetValueOrDefault($"{path} {parameter.Name}")
                                ?? Parameters.GetValueOrDefault(parameter.Name ?? "");
                        }

                        if (Compute.Examples.Of(path) is { } example && operation.RequestBody?.Content is { } content)
                        {
                            foreach (var body in content.Values.OfType<OpenApiMediaType>())
                            {
                                body.Example = example;
                            }
                        }

                        operation.OperationId ??= $"{method.Method.ToLowerInvariant()}{path.Replace('/', '-')}";
                    }
                }

                return Task.CompletedTask;
            }
        );
        options.AddOperationTransformer(
            async (operation, context, cancel) =>
            {
                var about = context.Description.ActionDescriptor.EndpointMetadata;
                var asksWho = about.OfType<IAuthorizeData>().Any();
                var writes = context.Description.HttpMethod is not "GET";
                var problem = await context.GetOrCreateSchemaAsync(typeof(Microsoft.AspNetCore.Mvc.ProblemDetails), null, cancel);
                context.Document?.AddComponent(ProblemName, problem);
                foreach (var (status, what) in Statuses(asksWho, writes, operation))
                {
                    operation.Responses ??= [];
                    if (!operation.Responses.ContainsKey(status))
                    {
                        operation.Responses[status] = new OpenApiResponse
                        {
                            Description = what,
                            Content = new Dictionary<string, OpenApiMediaType>
                            {
                                [ProblemJson] = new() { Schema = new OpenApiSchemaReference(ProblemName, context.Document) },
                            },
                        };
                    }
                }

                var needs = new OpenApiSecurityRequirement();
                if (asksWho)
                {
                    needs[new OpenApiSecuritySchemeReference(Cookie, context.Document)] = [];
                }

                if (writes && !about.OfType<IAllowAnonymous>().Any())
                {
                    needs[new OpenApiSecuritySchemeReference(Token, context.Document)] = [];
                }

                operation.Security = needs.Count > 0 ? [needs] : [];
            }
        );
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                // Written by a converter of our own, which the document knows nothing of.
                if (
                    Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is { } inner
                        ? inner == typeof(double)
                        : context.JsonTypeInfo.Type == typeof(double)
                )
                {
                    schema.Type =
                        context.JsonTypeInfo.Type == typeof(double) ? JsonSchemaType.Number : JsonSchemaType.Number | JsonSchemaType.Null;
                    schema.Format = "double";
                }
                else if (context.JsonTypeInfo.Kind == JsonTypeInfoKind.Enumerable && context.JsonTypeInfo.ElementType == typeof(double))
                {
                    schema.Items = new OpenApiSchema { Type = JsonSchemaType.Number, Format = "double" };
                }
                else if (context.JsonTypeInfo.Kind == JsonTypeInfoKind.Dictionary && context.JsonTypeInfo.ElementType == typeof(double))
                {
                    schema.AdditionalProperties = new OpenApiSchema { Type = JsonSchemaType.Number, Format = "double" };
                }

                return Task.CompletedTask;
            }
        );
        // What Core works out and may leave out is said so where it is a kind of its own, too.
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                foreach (
                    var property in context.JsonTypeInfo.Properties.Where(property =>
                        property is { Set: null, IsGetNullable: true, AssociatedParameter: null }
                    )
                )
                {
                    if (
                        schema.Properties?.TryGetValue(property.Name, out var value) == true
                        && value is not OpenApiSchema { OneOf.Count: > 0 }
                        && value.Type?.HasFlag(JsonSchemaType.Null) != true
                    )
                    {
                        schema.Properties[property.Name] = new OpenApiSchema
                        {
                            Description = value.Description,
                            OneOf = [new OpenApiSchema { Type = JsonSchemaType.Null }, value],
                        };
                    }
                }

                return Task.CompletedTask;
            }
        );
        // What Core works out and never leaves out is said to be there, so that no page works it out again.
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                foreach (
                    var property in context.JsonTypeInfo.Properties.Where(property =>
                        property is { Set: null, IsGetNullable: false, AssociatedParameter: null }
                        && schema.Properties?.ContainsKey(property.Name) == true
                    )
                )
                {
                    (schema.Required ??= new HashSet<string>()).Add(property.Name);
                    if (schema.Properties![property.Name] is OpenApiSchema { Type: { } type } value)
                    {
                        value.Type = type & ~JsonSchemaType.Null;
                    }
                }

                return Task.CompletedTask;
            }
        );
    }

    /// <summary>What can come of any request of its kind, besides what the endpoint itself says.</summary>
    private static IEnumerable<(string Status, string What)> Statuses(bool asksWho, bool writes, OpenApiOperation operation)
    {
        yield return ("400", "Something in it cannot be used; the field is named");
        yield return ("404", "There is no such thing, or nothing here takes a body of that kind");
        if (asksWho)
        {
            yield return ("401", "Nobody is signed in");
            yield return ("403", "Not for the role of whoever is signed in");
        }

        if (writes)
        {
            yield return ("409", "Somebody else was first");
        }

        if (operation.RequestBody is not null)
        {
            yield return ("413", "Too much at once");
            yield return ("415", "Not the kind of body that belongs here");
            yield return ("422", "Something is still open");
        }

        yield return ("503", "The database does not answer; it is tried again");
    }
}
