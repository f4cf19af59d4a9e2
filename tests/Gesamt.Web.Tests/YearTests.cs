using System.Net;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>A year of 50 projects on the real server and its SQLite file, ended and started again on the way: every step acts exactly once or has a named reason why not.</summary>
public sealed class YearTests
{
    private const int Projects = 50,
        Restarts = 5;
    private static readonly Instant Begin = Instant.FromUtc(2027, 1, 25, 10, 30);

    [Fact]
    public async Task A_year_of_fifty_projects_with_restarts()
    {
        var data = Directory.CreateTempSubdirectory("gesamt-year").FullName;
        try
        {
            var random = new Random(7);
            var now = Begin;
            for (var part = 0; part <= Restarts; part++)
            {
                await using var studio = new OnFolder(data);
                await studio.WaitUntilAsync(now);
                var owner = await studio.OwnerAsync();
                if (part == 0)
                    for (var i = 0; i < Projects; i++)
                        await studio.InquireAsync(new Visitor(studio), $"year{i}@lanternhouse.example");
                var end = Begin + Duration.FromDays(365d * (part + 1) / (Restarts + 1));
                while (now < end)
                {
                    // now and then the house stands still for some days
                    now += Duration.FromHours(random.Next(12) == 0 ? 24 * random.Next(2, 6) : random.Next(12, 60));
                    await studio.WaitUntilAsync(now);
                    await LiveAsync(studio, owner, random);
                }
            }
            await using var last = new OnFolder(data);
            await last.WaitUntilAsync(now);
            await CheckAsync(last);
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(data, recursive: true);
        }
    }

    /// <summary>Clients write, owners say yes or skip, and things happen.</summary>
    private static async Task LiveAsync(Studio studio, Visitor owner, Random random)
    {
        foreach (
            var letter in await studio.LookAsync(db =>
                db.Letters.Where(l => l.State == LetterState.Held).Select(l => l.Id).ToListAsync()
            )
        )
            if (random.Next(3) > 0)
                await owner.PostAsync(
                    $"/api/letters/{letter.Value}/{(random.Next(6) == 0 ? "skip" : "release")}",
                    new { subject = (string?)null, body = (string?)null }
                );
        foreach (
            var asked in (await owner.GetAsync("/api/today"))
                .GetProperty("ready")
                .GetProperty("asked")
                .EnumerateArray()
                .Take(3)
        )
            await owner.PostAsync(
                $"/api/projects/{asked.GetProperty("project").GetInt64()}/asked",
                new
                {
                    run = asked.GetProperty("run").GetInt64(),
                    step = asked.GetProperty("step").GetString(),
                    occurrence = asked.GetProperty("occurrence").GetInt32(),
                    yes = random.Next(3) > 0,
                }
            );
        for (var i = 0; i < 2; i++)
        {
            var project = new ProjectId(random.Next(1, Projects + 1));
            await studio.LookAsync(
                async (Desk desk) =>
                {
                    var file = await desk.OpenAsync(project);
                    Happening[] kinds =
                    [
                        new Happening.MarkedFit(),
                        new Happening.LetterReceived(new LetterId(1), random.Next(4) == 0),
                        new Happening.ProposalSent(new VersionId(1), desk.Today.PlusDays(20)),
                        new Happening.ProposalOpened(new VersionId(1)),
                        new Happening.RestBegan(desk.Today.PlusDays(9)),
                        new Happening.HandedOver(),
                        new Happening.Approved(),
                        new Happening.DateSet("opening day", desk.Today.PlusDays(random.Next(5, 150)), null),
                        new Happening.TakenUp(),
                    ];
                    await desk.ActAsync(act => act.RecordAsync(file, Actor.Owner, kinds[random.Next(kinds.Length)]));
                    return true;
                }
            );
        }
        await studio.TickAsync();
    }

    private static async Task CheckAsync(Studio studio)
    {
        var owner = await studio.OwnerAsync();
        var sent = await studio.LookAsync(db =>
            db.Letters.Where(l => l.Step != null && l.State == LetterState.Sent)
                .Select(l => new
                {
                    l.RunId,
                    l.Step,
                    l.Occurrence,
                    l.MessageId,
                })
                .ToListAsync()
        );
        Assert.True(sent.Count > Projects, $"{sent.Count} letters of steps");
        Assert.Equal(sent.Count, sent.Select(l => (l.RunId, l.Step, l.Occurrence)).Distinct().Count());
        Assert.Equal(
            0,
            await studio.LookAsync(db =>
                db.Outbox.CountAsync(o => o.State == OutboxState.Claimed || o.State == OutboxState.Uncertain)
            )
        );
        // what the outside world took is what was confirmed, each once
        var posted = (await owner.GetAsync("/api/post-office")).GetArrayLength();
        Assert.True(posted > 0);
        var now = await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now));
        foreach (var id in await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync()))
        {
            var plan = await studio.LookAsync(async (Desk desk) => Plan.Of((await desk.OpenAsync(id)).Case));
            Assert.All(
                plan,
                step =>
                    Assert.True(
                        step.State switch
                        {
                            StepState.Done or StepState.Skipped => step.Since is not null,
                            StepState.Stopped => step.Why is not null,
                            StepState.Planned => step.Due > now,
                            _ => true,
                        },
                        $"{id}: {step.Ref} {step.State} {step.Due}"
                    )
            );
            Assert.All(
                plan.Where(step => step is { State: StepState.Done, Step.Action: StepAction.Letter }),
                step =>
                    Assert.Contains(
                        sent,
                        l => l.RunId == step.Ref.Run && l.Step == step.Ref.Step && l.Occurrence == step.Ref.Occurrence
                    )
            );
        }
        Assert.Equal(HttpStatusCode.OK, (await owner.AskAsync("/api/today")).StatusCode);
    }
}
