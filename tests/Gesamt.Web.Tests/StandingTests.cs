using Gesamt.Core.Turns;

namespace Gesamt.Web.Tests;

/// <summary>What is stored beside a project is what Core computes from its facts, at any time, over the whole demo.</summary>
public sealed class StandingTests(FullStudio studio) : IClassFixture<FullStudio>
{
    [Fact]
    public async Task The_stored_standing_equals_the_computed_one_as_time_goes_on()
    {
        await CompareAsync();
        var random = new Random(7);
        var now = Instant.FromUtc(2027, 1, 25, 10, 30);
        for (var i = 0; i < 12; i++)
        {
            now += Duration.FromMinutes(random.Next(1, 60 * 24 * 9));
            await studio.WaitUntilAsync(now);
            await CompareAsync();
        }
    }

    [Fact]
    public async Task The_demo_is_as_large_as_it_says_and_nothing_of_it_failed()
    {
        Assert.InRange(
            await studio.LookAsync(db =>
                db.Projects.CountAsync(p => p.Standing.Ended == null && p.Standing.Stage != Core.Stages.Stage.Finished)
            ),
            20,
            60
        );
        Assert.InRange(
            await studio.LookAsync(db =>
                db.Projects.CountAsync(p => p.Standing.Ended != null || p.Standing.Stage == Core.Stages.Stage.Finished)
            ),
            20,
            60
        );
        Assert.Equal(0, await studio.LookAsync(db => db.Outbox.CountAsync(o => o.Failures > 0)));
    }

    [Theory] // the number of statements does not grow with the number of projects
    [InlineData("/api/turns", 4), InlineData("/api/today", 29), InlineData("/api/projects/30", 30)]
    public async Task A_screen_asks_the_database_a_fixed_number_of_times(string path, int most)
    {
        var owner = await studio.OwnerAsync();
        await owner.GetAsync(path);
        studio.Statements.Reset();
        await owner.GetAsync(path);
        Assert.InRange(studio.Statements.Count, 1, most);
    }

    private async Task CompareAsync()
    {
        var ids = await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync());
        foreach (var id in ids)
        {
            var (stored, computed) = await studio.LookAsync(
                async (Hosting.Desk desk) =>
                {
                    var file = await desk.OpenAsync(id);
                    return (file.Row.Standing.ToCore(), TurnRule.Of(file.Case, desk.Now));
                }
            );
            // the instant up to which it holds was computed earlier, and is still ahead
            Assert.Equal(computed with { ValidUntil = null }, stored with { ValidUntil = null });
            Assert.Equal(computed.ValidUntil, stored.ValidUntil);
        }
    }
}
