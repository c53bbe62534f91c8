using System.Net.Http.Json;

namespace BlueDawn.Server.Tests.Compute;

/// <summary>A script calls these without signing in; the unit stands in every field name.</summary>
public class ComputeTests(Shop shop)
{
    [Fact]
    public async Task Jet_gauging_names_the_deciding_pin()
    {
        var answer = await shop.Visit()
            .PostAsync(
                "/api/compute/jet-gauge",
                new
                {
                    goPinMm = 0.30,
                    noGoPinMm = 0.34,
                    nominalBoreMm = 0.33,
                    toleranceMm = 0.015,
                    pinsMm = new[] { 0.315 },
                }
            );
        Assert.Equal("cannotTell", answer.Body.GetProperty("verdict").GetString());
        Assert.Equal(0.315m, answer.Body.GetProperty("decidingPin").GetProperty("diameterMm").GetDecimal());
        Assert.Equal("restricted", answer.Body.GetProperty("decidingPin").GetProperty("ifItStops").GetString());
    }

    [Fact]
    public async Task Float_level_gives_the_bend()
    {
        var answer = await shop.Visit()
            .PostAsync(
                "/api/compute/float-level",
                new
                {
                    points = new[] { new { angleDeg = 0, heightMm = 15.2 }, new { angleDeg = 180, heightMm = 15.2 } },
                    nominalHeightMm = 14,
                    toleranceMm = 0.5,
                    unevennessLimitMm = 0.4,
                    tabArmMm = 8,
                    measuringArmMm = 24,
                }
            );
        Assert.Equal(0.4, answer.Body.GetProperty("tabBendMm").GetDouble(), 9);
        Assert.False(answer.Body.GetProperty("bendTowardNeedle").GetBoolean());
    }

    [Fact]
    public async Task Float_mass_and_hold_test_answer()
    {
        var mass = await shop.Visit()
            .PostAsync(
                "/api/compute/float-mass",
                new
                {
                    massG = 7.1,
                    dryMassG = 6.2,
                    toleranceG = 0.3,
                }
            );
        Assert.Equal("takenOnFuel", mass.Body.GetProperty("verdict").GetString());
        var hold = await shop.Visit()
            .PostAsync(
                "/api/compute/hold-test",
                new
                {
                    samples = new[]
                    {
                        new { timeS = 2, pressureKPa = 48 },
                        new { timeS = 7, pressureKPa = 48 },
                        new { timeS = 12, pressureKPa = 48 },
                    },
                    testPressureKPa = 48,
                    windowS = 10,
                    dropLimitKPa = 1.5,
                    settlingS = 2,
                    testVolumeML = 20,
                    gaugeResolutionKPa = 1,
                }
            );
        Assert.Equal("held", hold.Body.GetProperty("verdict").GetString());
    }

    [Fact]
    public async Task Stamps_rings_and_reorder_points_answer_and_say_what_is_wrong()
    {
        var script = shop.Visit();
        var ranked = (
            await script.PostAsync("/api/compute/stamp", new { read = "41O7", onRecord = new[] { "4187", "4107", "9999" } })
        ).Body;
        Assert.Equal(["4107", "4187"], ranked.EnumerateArray().Select(reading => reading.GetProperty("onRecord").GetString()));
        var squeeze = (await script.PostAsync("/api/compute/o-ring-squeeze", new { size = "AS568-008", grooveMm = 1.42 })).Body;
        Assert.Equal(20.1, squeeze.GetProperty("percent").GetDouble(), 1);
        Assert.NotEmpty((await script.PostAsync("/api/compute/o-ring-squeeze", new { size = "round", grooveMm = 1.42 })).Error("size"));
        Assert.NotEmpty((await script.PostAsync("/api/compute/o-ring-squeeze", new { size = "-008", grooveMm = 0 })).Error("grooveMm"));
        Assert.Equal(5, (
                await script.PostAsync(
                    "/api/compute/reorder",
                    new
                    {
                        usePerDay = 0.5,
                        leadDays = 4,
                        serviceLevel = 0.95,
                    }
                )
            ).Body.GetProperty("point").GetInt32());
        Assert.NotEmpty(
            (
                await script.PostAsync(
                    "/api/compute/reorder",
                    new
                    {
                        usePerDay = -1,
                        leadDays = 4,
                        serviceLevel = 1,
                    }
                )
            ).Error("serviceLevel")
        );
    }

    [Theory]
    [InlineData("labourPerHour", 0)]
    [InlineData("labourPerHour", -12)]
    [InlineData("proofMin", -1)]
    [InlineData("referMin", -1)]
    public async Task A_trace_with_impossible_terms_is_refused_by_field(string field, double value)
    {
        var input = new Dictionary<string, object>
        {
            ["family"] = "floatBowl",
            ["answers"] = new[] { new { findingId = "hunts", said = "present" } },
            [field] = value,
        };
        Assert.NotEmpty((await shop.Visit().PostAsync("/api/compute/fault-trace", input)).Error(field));
    }

    [Fact]
    public async Task Measures_and_drills_can_be_looked_up()
    {
        var measure = await shop.Visit().PostAsync("/api/compute/measure", new { text = "#70", dimension = "length" });
        Assert.Equal((0.7112m, "mm"), (measure.Body.GetProperty("value").GetDecimal(), measure.Body.GetProperty("unit").GetString()));
        Assert.Equal(97, (await shop.Visit().GetAsync("/api/compute/number-drills")).Body.GetArrayLength());
    }

    [Theory]
    [InlineData("""{"goPinMm":"0.3","nominalBoreMm":0.33,"toleranceMm":0.01}""", "goPinMm")] // text in a number
    [InlineData("""{"goPinMm":-0.3,"nominalBoreMm":0.33,"toleranceMm":0.01}""", "goPinMm")]
    [InlineData("""{"goPinMm":0.4,"noGoPinMm":0.3,"nominalBoreMm":0.33,"toleranceMm":0.01}""", "noGoPinMm")]
    [InlineData("""{"goPinInch":0.012,"nominalBoreMm":0.33,"toleranceMm":0.01}""", "goPinInch")] // a unit that is not meant
    [InlineData("""{"goPinMm":0.3}""", "body")] // says which are missing
    [InlineData("""{"goPinMm":1e400,"nominalBoreMm":0.33,"toleranceMm":0.01}""", "goPinMm")]
    [InlineData("""not json""", "body")]
    public async Task Bad_input_names_its_field(string json, string field)
    {
        using var content = new StringContent(json, null, "application/json");
        using var response = await shop.Visit().Http.PostAsync("/api/compute/jet-gauge", content, TestContext.Current.CancellationToken);
        var problem = await response.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType?.MediaType);
        Assert.False(string.IsNullOrWhiteSpace(problem.GetProperty("errors").GetProperty(field)[0].GetString()));
    }

    [Fact]
    public async Task Every_computation_has_an_example_in_the_document_that_is_answered()
    {
        var document = JsonSerializer.SerializeToElement(DocumentCheck.Document);
        var asked = 0;
        foreach (
            var path in document
                .GetProperty("paths")
                .EnumerateObject()
                .Where(path => path.Name.StartsWith("/api/compute/", StringComparison.Ordinal))
        )
        {
            if (path.Value.TryGetProperty("post", out var post))
            {
                var example = post.GetProperty("requestBody").GetProperty("content").GetProperty("application/json").GetProperty("example");
                var answer = await shop.Visit().PostAsync(path.Name, example);
                Assert.True(answer.Status == HttpStatusCode.OK, $"{path.Name}: {answer.Status} {answer.Body}");
                asked++;
            }
        }

        Assert.Equal(14, asked);
    }

    [Fact]
    public async Task Every_tag_is_declared_and_every_parameter_described()
    {
        var document = JsonSerializer.SerializeToElement(DocumentCheck.Document);
        var tags = document.GetProperty("tags").EnumerateArray().Select(tag => tag.GetProperty("name").GetString()).ToHashSet();
        foreach (var path in document.GetProperty("paths").EnumerateObject())
        {
            foreach (var operation in path.Value.EnumerateObject().Where(one => one.Name is "get" or "post" or "put" or "delete"))
            {
                Assert.All(operation.Value.GetProperty("tags").EnumerateArray(), tag => Assert.Contains(tag.GetString(), tags));
                if (operation.Value.TryGetProperty("parameters", out var parameters))
                {
                    Assert.All(parameters.EnumerateArray(), one =>
                        Assert.True(
                            one.TryGetProperty("description", out var said) && said.GetString()!.Length > 5,
                            $"{operation.Name} {path.Name}: {one}"
                        )
                    );
                }
            }
        }
    }

    [Fact]
    public async Task The_document_describes_the_fields_with_their_units()
    {
        var document = await shop.Visit().GetAsync("/openapi/v1.json");
        var fields = document.Body.GetProperty("components").GetProperty("schemas").GetProperty("JetGaugeInput").GetProperty("properties");
        Assert.Contains(
            "Largest pin that goes",
            fields.GetProperty("goPinMm").GetProperty("description").GetString(),
            StringComparison.Ordinal
        );
    }
}
