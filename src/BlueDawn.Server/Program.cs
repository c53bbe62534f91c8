using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Trays;
using BlueDawn.Server.Bench;
using BlueDawn.Server.Catalogue;
using BlueDawn.Server.Cleaning;
using BlueDawn.Server.Compute;
using BlueDawn.Server.Faults;
using BlueDawn.Server.Handover;
using BlueDawn.Server.Health;
using BlueDawn.Server.Hosting;
using BlueDawn.Server.Instruments;
using BlueDawn.Server.Intake;
using BlueDawn.Server.Kits;
using BlueDawn.Server.Live;
using BlueDawn.Server.Moving;
using BlueDawn.Server.People;
using BlueDawn.Server.Problems;
using BlueDawn.Server.Rules;
using BlueDawn.Server.Sheets;
using BlueDawn.Server.Stock;
using BlueDawn.Server.Strip;
using BlueDawn.Server.Trays;
using BlueDawn.Solvers;
using BlueDawn.Store;
using BlueDawn.Store.Demo;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Npgsql;

ShippedTables.Check();

var builder = WebApplication.CreateBuilder(args);

// The build starts this program once to write the OpenAPI document: then there is no database to speak to.
var writingDocument = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

builder.Logging.ClearProviders().AddJsonConsole(options => options.UseUtcTimestamp = true);
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = BodyLimit.Usual;
});
try
{
    builder.AddListening();
}
catch (CannotStartException e)
{
    await Console.Error.WriteLineAsync($"Blue Dawn does not start. {e.Message}");
    return CannotStart;
}

builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(services =>
    StoreSetup.Source(
        services.GetRequiredService<IConfiguration>()["BLUE_DAWN_DATABASE"] is { Length: > 0 } connection
            ? connection
            : throw new CannotStartException(
                "BLUE_DAWN_DATABASE is not set. Start with ./run, or set it to a PostgreSQL connection string."
            )
    )
);
builder.Services.AddDbContext<BlueDawnDb>(
    (services, options) => StoreSetup.Configure(options, services.GetRequiredService<NpgsqlDataSource>())
);
builder.Services.ConfigureHttpJsonOptions(options =>
{
    CoreJson.AsWeb(options.SerializerOptions);
    // What comes from outside is looked at closely besides.
    options.SerializerOptions.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
    options.SerializerOptions.TypeInfoResolverChain.Insert(
        0,
        new DefaultJsonTypeInfoResolver { Modifiers = { CoreJson.KnowKinds, RequestScreening.RefuseNothing } }
    );
    options.SerializerOptions.RespectNullableAnnotations = true;
    options.SerializerOptions.RespectRequiredConstructorParameters = true;
});
builder.Services.AddBlueDawnPeople();
builder.Services.AddBlueDawnProblems();
builder.Services.AddBlueDawnHealth();
builder.Services.AddScoped<DemoScenario>();
builder.Services.AddSingleton<SetupCode>();
builder.Services.AddMemoryCache();
builder.Services.AddSingleton<AnswerMemory>();
builder.Services.AddSmallAnswers();
builder.Services.AddSingleton<IBuyingSolver, CpSatBuyingSolver>();
builder.Services.AddSingleton<ImportJobs>();
builder.Services.AddSingleton<LiveChanges>();
builder.Services.AddSingleton<KnowledgeMemory>();
builder.Services.AddSingleton<InstrumentShelf>();
if (!writingDocument)
{
    builder.Services.AddHostedService(services => services.GetRequiredService<LiveChanges>());
}

builder.Services.AddScoped<NoteWriter>();
builder.Services.AddScoped<TrayOrders>();
builder.Services.AddScoped<NoteLookups>();
builder.Services.AddOpenApi("v1", DocumentSetup.Describe);
if (!writingDocument)
{
    builder.Services.AddDataProtection().SetApplicationName("blue-dawn").PersistKeysToDbContext<BlueDawnDb>();
}

var app = builder.Build();

app.UseForwardedHeaders();
app.UseHostFiltering();
app.UseHeaders();
app.UseSmallAnswers();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseWhen(context => context.Request.IsHttps, secure => secure.UseHsts());
app.UseBodyLimit();
app.UseRequestScreening();
app.UseAuthentication();
app.UseAuthorization();
app.UseAntiforgery();

app.MapOpenApi();
app.MapBlueDawnHealth();
var api = app.MapGroup("/api");
api.MapFaultWords();
api.MapSession();
api.MapArchiveIn();
var bench = api.MapGroup("")
    .RequireAuthorization(nameof(Permission.Look))
    .AddEndpointFilter<AntiforgeryFilter>()
    .AddEndpointFilter<IdempotencyFilter>();
bench.MapLive();
bench.MapMe();
bench.MapPeople();
bench.MapSharedBenches();
bench.MapBench();
bench.MapFind();
bench.MapIntake();
bench.MapOwners();
bench.MapTrays();
bench.MapAtHand();
bench.MapPhotos();
bench.MapFaults();
bench.MapIdentify();
bench.MapSheets();
bench.MapRules();
bench.MapShop();
bench.MapKnowledge();
bench.MapArchive();
bench.MapMatch();
bench.MapFitting();
bench.MapStock();
bench.MapBuying();
bench.MapOrders();
bench.MapCatalogue();
bench.MapLedger();
bench.MapCleaning();
bench.MapBaths();
bench.MapInstruments();
bench.MapNotes();
bench.MapHandover();

// Last: a kind that is first met where it may be null would be null everywhere in the document.
api.MapCompute();
app.Map("/api/{**rest}", () =>
        TypedResults.Problem(
            statusCode: 404,
            title: "There is nothing at this address.",
            detail: "Check the address, the method, and the kind of body."
        )
    )
    .ExcludeFromDescription();

// Core for the browser and the service worker come when the server listens already: they are in no list of the build.
app.UseStaticFiles();
app.MapStaticAssets();
app.MapFallbackToFile("index.html");

if (!writingDocument)
{
    try
    {
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<BlueDawnDb>();
        var seconds = app.Configuration.GetValue("BLUE_DAWN_WAIT", 60);
        var owner = app.Configuration["BLUE_DAWN_OWNER"];
        await using var owned = owner is { Length: > 0 }
            ? new BlueDawnDb(StoreSetup.Configure(new DbContextOptionsBuilder<BlueDawnDb>(), owner).Options)
            : null;
        await StoreStart.RunAsync(
            owned ?? db,
            owned is null ? null : new NpgsqlConnectionStringBuilder(app.Configuration["BLUE_DAWN_DATABASE"]).Username,
            TimeSpan.FromSeconds(seconds),
            async () =>
            {
                await Shelf.EnsureSumAsync(db, default);
                await NameFolding.RunAsync(db, default);
                await ShopSeed.EnsureAsync(db, scope.ServiceProvider.GetRequiredService<RoleManager<IdentityRole<Guid>>>(), default);
                if (app.Configuration.GetValue<bool>("BLUE_DAWN_DEMO"))
                {
                    await scope.ServiceProvider.GetRequiredService<DemoScenario>().LoadAsync(default);
                }
                else if (app.Services.GetRequiredService<SetupCode>() is { IsOwn: true } setup && !await db.Users.AnyAsync())
                {
                    Announce.SetupCode(app.Logger, setup.Code);
                }
            },
            app.Logger,
            default
        );
    }
    catch (CannotStartException e)
    {
        await Console.Error.WriteLineAsync($"Blue Dawn does not start. {e.Message}");
        return CannotStart;
    }
}

await app.RunAsync();
return 0;

/// <summary>What whoever starts the server has to be told.</summary>
internal static partial class Announce
{
    [LoggerMessage(LogLevel.Warning, "This shop has nobody in it yet. The code to set it up with: {Code}")]
    public static partial void SetupCode(ILogger log, string code);
}

/// <summary>The server.</summary>
public partial class Program
{
    /// <summary>Exit code when it cannot start as it was asked to: trying again will not help.</summary>
    private const int CannotStart = 78;
}
