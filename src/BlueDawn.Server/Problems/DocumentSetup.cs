using System.Text.Json.Serialization.Metadata;
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
    };

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
                document.Tags = new HashSet<OpenApiTag>(Tags.Select(tag => new OpenApiTag { Name = tag.Key, Description = tag.Value }));
                document.Components ??= new OpenApiComponents();
                document.Components.SecuritySchemes = new Dictionary<string, IOpenApiSecurityScheme>
                {
                    [Cookie] = new OpenApiSecurityScheme
                    {
                        Type = SecuritySchemeType.ApiKey,
                        In = ParameterLocation.Cookie,
                        Name = "blue-dawn",
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
