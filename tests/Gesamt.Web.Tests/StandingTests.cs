using Gesamt.Core.Turns;
using Gesamt.Store.Projects;

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

    private static readonly (string Path, int Most)[] Views =
    [
        ("/api/turns", 4),
        ("/api/today", 29),
        // one with hours and costs
        ("/api/projects/30", 32),
        ("/api/projects/30/routines", 30),
        ("/api/projects/30/forms", 30),
        ("/api/projects/30/letter", 30),
        ("/api/projects/30/proposal", 30),
        ("/api/projects/30/as-client", 40),
        ("/api/register", 10),
        ("/api/register?year=2026&group=Kind", 10),
        ("/api/register.csv", 10),
        ("/api/reports", 14),
        ("/api/reports?by=Kind&year=all", 16),
        ("/api/reports/projects?of=Passed&gate=Lead", 6),
        ("/api/goals", 12),
        ("/api/search?words=a", 10),
        ("/api/people", 10),
        ("/api/people?longestFirst=true", 10),
        ("/api/people.csv", 10),
        ("/api/people/3", 30),
        ("/api/tray", 10),
        ("/api/slips/reading?text=call%20Ada%20on%20Friday", 10),
        ("/api/post-office", 10),
        ("/api/labels", 5),
        ("/api/kinds", 5),
        ("/api/routines", 10),
        ("/api/letter-texts", 10),
        ("/api/task-lists", 5),
        ("/api/rehearsals", 10),
        ("/api/meeting-kinds", 5),
        ("/api/imports", 5),
        ("/api/hooks", 10),
        ("/api/studio", 5),
    ];

    [Fact]
    public async Task A_screen_asks_the_database_as_often_however_many_projects_there_are()
    {
        var owner = await studio.OwnerAsync();
        var before = await CountAsync(owner);
        for (var i = 0; i < 20; i++)
            await studio.InquireAsync(new Visitor(studio), $"one-more-{i}@lanternhouse.example");
        var after = await CountAsync(owner);
        Assert.Equal(before, after);
        Assert.All(Views.Zip(after), view => Assert.InRange(view.Second.Statements, 1, view.First.Most));
    }

    [Theory] // ten years of them are counted with every look
    [InlineData("/api/money", "Projects")]
    [InlineData("/api/season", "Projects")]
    [InlineData("/api/people", "People")]
    public async Task What_is_counted_over_all_is_read_from_an_index_without_fetching_a_row(string path, string table)
    {
        var owner = await studio.OwnerAsync();
        await studio.TickAsync();
        studio.Statements.Reset();
        Assert.True((await owner.AskAsync(path)).IsSuccessStatusCode);
        var counting = studio
            .Statements.Texts.Where(text => text.Contains("COUNT(*)") && text.Contains($"FROM \"{table}\""))
            .ToList();
        Assert.NotEmpty(counting);
        foreach (var text in counting)
            Assert.All(
                await studio.LookAsync(db => PlanAsync(db, text)),
                // the few rehearsals are listed once
                step => Assert.Matches("USING (COVERING INDEX|INDEX IX_Projects_Id$)", step)
            );
    }

    /// <summary>How SQLite says it would go through the tables of a statement.</summary>
    private static async Task<List<string>> PlanAsync(Store.GesamtDb db, string text)
    {
        await db.Database.OpenConnectionAsync();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"EXPLAIN QUERY PLAN {text}";
        await using var reader = await command.ExecuteReaderAsync();
        List<string> steps = [];
        while (await reader.ReadAsync())
            if (reader.GetString(3) is var step && (step.StartsWith("SCAN") || step.StartsWith("SEARCH")))
                steps.Add(step);
        Assert.NotEmpty(steps);
        return steps;
    }

    private async Task<List<(string Path, int Statements)>> CountAsync(Visitor owner)
    {
        List<(string, int)> counts = [];
        foreach (var (path, _) in Views)
            counts.Add((path, await CountAsync(owner, path)));
        return counts;
    }

    /// <summary>What one look costs: the least of several, since the ticker asks beside it.</summary>
    private async Task<int> CountAsync(Visitor owner, string path)
    {
        var least = int.MaxValue;
        for (var look = 0; look < 5; look++)
        {
            await studio.TickAsync();
            studio.Statements.Reset();
            var answer = await owner.AskAsync(path);
            Assert.True(answer.IsSuccessStatusCode, path);
            least = Math.Min(least, studio.Statements.Count);
        }
        return least;
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public Task Several_projects_read_together_are_as_each_read_alone(bool toChange) =>
        studio.LookAsync(
            async (Hosting.Desk desk) =>
            {
                var all = await desk.Db.AllProjects.Select(p => p.Id).ToListAsync();
                var together = await desk.Db.OpenManyAsync(all, desk.Calendar, toChange);
                Assert.Equal(
                    await desk.Db.Projects.OrderBy(p => p.Id).Select(p => p.Id).ToListAsync(),
                    together.Keys.OrderBy(id => id.Value)
                );
                Assert.All(
                    together.Values,
                    file =>
                        Assert.Equal(
                            toChange ? EntityState.Unchanged : EntityState.Detached,
                            desk.Db.Entry(file.Row).State
                        )
                );
                foreach (var (id, file) in together)
                {
                    desk.Db.ChangeTracker.Clear();
                    var alone = await desk.OpenAsync(id);
                    Assert.Equal(TurnRule.Of(alone.Case, desk.Now), TurnRule.Of(file.Case, desk.Now));
                    Assert.Equal((alone.MailContact.Name, alone.MailTo), (file.MailContact.Name, file.MailTo));
                }
                return true;
            }
        );

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
