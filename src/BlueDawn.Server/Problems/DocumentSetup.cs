using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace BlueDawn.Server.Problems;

/// <summary>How the interface describes itself at /openapi/v1.json; the web application's client is generated from it.</summary>
internal static class DocumentSetup
{
    public static void Describe(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new OpenApiInfo { Title = "Blue Dawn", Version = "1", Description = "The bench's own interface. Units stand in the names of fields." };
            document.Servers = [];
            return Task.CompletedTask;
        });
        // What Core works out and never leaves out is said to be there, so that no page works it out again.
        options.AddSchemaTransformer((schema, context, _) =>
        {
            foreach (var property in context.JsonTypeInfo.Properties.Where(property => property is { Set: null, IsGetNullable: false, AssociatedParameter: null } && schema.Properties?.ContainsKey(property.Name) == true))
            {
                (schema.Required ??= new HashSet<string>()).Add(property.Name);
                if (schema.Properties![property.Name] is OpenApiSchema { Type: { } type } value)
                {
                    value.Type = type & ~JsonSchemaType.Null;
                }
            }

            return Task.CompletedTask;
        });
    }
}
