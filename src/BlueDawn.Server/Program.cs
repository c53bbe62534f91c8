using System.Net;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Trays;
using BlueDawn.Server.Bench;
using BlueDawn.Server.Catalogue;
using BlueDawn.Server.Cleaning;
using BlueDawn.Server.Compute;
using BlueDawn.Server.Faults;
using BlueDawn.Server.Handover;
using BlueDawn.Server.Health;
using BlueDawn.Server.Intake;
using BlueDawn.Server.Kits;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Stock;
using BlueDawn.Server.Strip;
using BlueDawn.Server.Trays;
using BlueDawn.Store;
using BlueDawn.Store.Demo;
using BlueDawn.Store.Stock;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

ShippedTables.Check();

var builder = WebApplication.CreateBuilder(args);

// The build starts this program once to write the OpenAPI document: then there is no database to speak to.
var writingDocument = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

builder.Logging.ClearProviders().AddJsonConsole(options => options.UseUtcTimestamp = true);
builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = BodyLimit.Usual);
if (string.IsNullOrEmpty(builder.Configuration["urls"]))
{
    builder.WebHost.UseUrls($"http://{IPAddress.Loopback}:5080");
}

builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddDbContext<BlueDawnDb>((services, options) => StoreSetup.Configure(
    options,
    services.GetRequiredService<IConfiguration>()["BLUE_DAWN_DATABASE"] is { Length: > 0 } connection
        ? connection
        : throw new InvalidOperationException("BLUE_DAWN_DATABASE is not set. Start with ./run, or set it to a PostgreSQL connection string.")));
builder.Services.ConfigureHttpJsonOptions(options =>
{
    options.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
    options.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
    options.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
    options.SerializerOptions.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
    options.SerializerOptions.TypeInfoResolverChain.Insert(0, new DefaultJsonTypeInfoResolver { Modifiers = { CoreJson.KnowKinds } });
    options.SerializerOptions.RespectNullableAnnotations = true;
    options.SerializerOptions.RespectRequiredConstructorParameters = true;
});
builder.Services.AddBlueDawnPeople();
builder.Services.AddBlueDawnProblems();
builder.Services.AddBlueDawnHealth();
builder.Services.AddScoped<DemoScenario>();
builder.Services.AddMemoryCache();
builder.Services.AddSingleton<ImportJobs>();
builder.Services.AddScoped<NoteWriter>();
builder.Services.AddScoped<NoteLookups>();
builder.Services.AddOpenApi("v1", DocumentSetup.Describe);
if (!writingDocument)
{
    builder.Services.AddDataProtection().SetApplicationName("blue-dawn").PersistKeysToDbContext<BlueDawnDb>();
}

var app = builder.Build();

app.UseExceptionHandler();
app.UseStatusCodePages();
app.Use(async (context, next) =>
{
    var headers = context.Response.Headers;
    headers.XContentTypeOptions = "nosniff";
    headers["Referrer-Policy"] = "same-origin";
    headers.ContentSecurityPolicy =
        "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";
    await next(context);
});
app.UseBodyLimit();
app.UseAuthentication();
app.UseAuthorization();
app.UseAntiforgery();

app.MapOpenApi();
app.MapBlueDawnHealth();
var api = app.MapGroup("/api");
api.MapCompute();
api.MapFaultWords();
api.MapSession();
var bench = api.MapGroup("").RequireAuthorization(nameof(May.Look)).AddEndpointFilter<AntiforgeryFilter>();
bench.MapMe();
bench.MapBench();
bench.MapIntake();
bench.MapTrays();
bench.MapPhotos();
bench.MapFaults();
bench.MapIdentify();
bench.MapMatch();
bench.MapFitting();
bench.MapStock();
bench.MapBuying();
bench.MapCatalogue();
bench.MapLedger();
bench.MapCleaning();
bench.MapBaths();
bench.MapNotes();
bench.MapHandover();
app.Map("/api/{**rest}", () => TypedResults.Problem(statusCode: 404, title: "There is nothing at this address.")).ExcludeFromDescription();
app.MapStaticAssets();
app.MapFallbackToFile("index.html");

if (!writingDocument)
{
    await using var scope = app.Services.CreateAsyncScope();
    var db = scope.ServiceProvider.GetRequiredService<BlueDawnDb>();
    await db.Database.MigrateAsync();
    await Shelf.EnsureSumAsync(db, default);
    await DemoScenario.EnsureShopAsync(db, scope.ServiceProvider.GetRequiredService<RoleManager<IdentityRole<Guid>>>(), default);
    if (app.Configuration.GetValue<bool>("BLUE_DAWN_DEMO"))
    {
        await scope.ServiceProvider.GetRequiredService<DemoScenario>().LoadAsync(default);
    }
}

await app.RunAsync();

/// <summary>The server.</summary>
public partial class Program;
