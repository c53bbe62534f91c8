namespace BlueDawn.Server.Tests.Problems;

/// <summary>Runs alone: it takes the database away from the whole server.</summary>
[CollectionDefinition(nameof(PulledPlugTests), DisableParallelization = true)]
public sealed class Alone;

[Collection(nameof(PulledPlugTests))]
public class PulledPlugTests(Shop shop)
{
    [Fact]
    public async Task A_stopped_database_gets_a_clear_answer_and_loses_nothing_when_it_is_back()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var id = Guid.CreateVersion7();
        Assert.Equal(HttpStatusCode.OK, (await jory.GetAsync("/health/ready")).Status);

        shop.Relay.Stop();
        var stopped = await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71", noGo = "0.73" }, id);
        Assert.Equal((HttpStatusCode.ServiceUnavailable, "The database does not answer."), (stopped.Status, stopped.Title));
        Assert.Equal(HttpStatusCode.ServiceUnavailable, (await jory.GetAsync("/health/ready")).Status);
        Assert.Equal(HttpStatusCode.OK, (await jory.GetAsync("/health/live")).Status);
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await jory.PostAsync(
                    "/api/compute/float-mass",
                    new
                    {
                        massG = 7.1,
                        dryMassG = 6.2,
                        toleranceG = 0.3,
                    }
                )
            ).Status
        );

        shop.Relay.Start();
        var back = await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71", noGo = "0.73" }, id);
        Assert.Equal("inGauge", back.Body.Finding("gauging/main-jet"));
        Assert.Single(back.Body.Log("reading"));
        Assert.Equal(HttpStatusCode.OK, (await jory.GetAsync("/health/ready")).Status);
    }
}
