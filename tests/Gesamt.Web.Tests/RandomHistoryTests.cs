using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Turns;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using static Gesamt.Core.Facts.DueRule;

namespace Gesamt.Web.Tests;

/// <summary>Histories nobody would write, through the ledger and the ticker on a real file.</summary>
public sealed class RandomHistoryTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task The_stored_standing_equals_the_computed_one_over_random_histories()
    {
        var random = new Random(20270125);
        List<ProjectId> projects = [];
        for (var i = 0; i < 12; i++)
            projects.Add(new(await studio.InquireAsync(new Visitor(studio), $"random{i}@lanternhouse.example")));
        var now = Instant.FromUtc(2027, 1, 25, 10, 30);
        for (var step = 0; step < 60; step++)
        {
            now += Duration.FromMinutes(random.Next(1, 60 * 30));
            await studio.WaitUntilAsync(now);
            await RecordAsync(projects[random.Next(projects.Count)], random);
            if (random.Next(3) == 0)
                await studio.TickAsync();
        }
        await studio.WaitUntilAsync(now + Duration.FromDays(40));
        foreach (var project in projects)
        {
            var (stored, computed) = await studio.LookAsync(
                async (Desk desk) =>
                {
                    var file = await desk.OpenAsync(project);
                    return (file.Row.Standing.ToCore(), TurnRule.Of(file.Case, desk.Now));
                }
            );
            Assert.Equal(computed, stored);
            Assert.Equal(
                await studio.LookAsync(
                    async (Desk desk) =>
                    {
                        var file = await desk.OpenAsync(project);
                        var plan = Core.Routines.Plan.Of(file.Case);
                        return (
                            computed.IsOnTable,
                            file.History.LastTouch,
                            string.Join(
                                ' ',
                                file.Case.Runs.OrderBy(run => run.Id.Value)
                                    .Select(run => Core.Routines.Plan.StateOf(file.Case, run.Id, plan))
                            )
                        );
                    }
                ),
                await studio.LookAsync(
                    async (Desk desk) =>
                    {
                        var row = await desk.Db.Projects.AsNoTracking().SingleAsync(p => p.Id == project);
                        var runs = await desk
                            .Db.Runs.AsNoTracking()
                            .Where(r => r.ProjectId == project)
                            .OrderBy(r => r.Id)
                            .Select(r => r.State)
                            .ToListAsync();
                        return (row.Standing.OnTable, row.Standing.TouchAt, string.Join(' ', runs));
                    }
                )
            );
            var (rows, plan) = await studio.LookAsync(
                async (Desk desk) =>
                {
                    var file = await desk.OpenAsync(project);
                    var rows = await desk
                        .Db.PlannedSteps.AsNoTracking()
                        .Where(s => s.ProjectId == project)
                        .ToListAsync();
                    return (
                        rows.Select(r => (Run: r.RunId, r.Step, r.Occurrence, r.State, r.Due, r.Since)).ToList(),
                        Core.Routines.Plan.Of(file.Case)
                            .Select(s =>
                                (
                                    s.Ref.Run,
                                    s.Ref.Step,
                                    s.Ref.Occurrence,
                                    s.State,
                                    s.Due,
                                    Core.Routines.Plan.WaitsSince(file.Case, s)
                                )
                            )
                            .ToList()
                    );
                }
            );
            Assert.Equal(
                plan.OrderBy(p => p.Run.Value).ThenBy(p => p.Step).ThenBy(p => p.Occurrence),
                rows.OrderBy(r => r.Run.Value).ThenBy(r => r.Step).ThenBy(r => r.Occurrence)
            );
        }
        Assert.Equal(0, await studio.LookAsync(db => db.Outbox.CountAsync(o => o.State == OutboxState.Claimed)));
    }

    [Fact] // common practice: a title, a name, and one way to reach them; steps that need a mail address wait and say so
    public async Task The_smallest_project_waits_for_an_address_and_says_so()
    {
        var id = await studio.LookAsync(
            async (Desk desk) =>
            {
                var kind = await desk.Db.Kinds.SingleAsync(k => k.Key == "mural");
                var person = new PersonRow { Name = "Somebody at a fair", Phone = "00353 1 5550100" };
                desk.Db.People.Add(person);
                await desk.Db.SaveChangesAsync();
                var project = new ProjectRow
                {
                    KindId = kind.Id,
                    ClientId = person.Id,
                    Title = "A wall",
                    Code = Codes.New(),
                    Pinned = new() { Rules = kind.Rules },
                };
                desk.Db.AllProjects.Add(project);
                await desk.Db.SaveChangesAsync();
                await desk.ActAsync(async act =>
                    await act.RecordAsync(
                        await act.OpenAsync(project.Id),
                        Actor.Client,
                        new Happening.InquiryCame(null)
                    )
                );
                return project.Id;
            }
        );
        await studio.TickAsync();
        var owner = await studio.OwnerAsync();
        var record = await owner.GetAsync($"/api/projects/{id.Value}");
        Assert.True(record.GetProperty("involved").GetProperty("waitsForAddress").GetBoolean());
        Assert.Equal(0, await studio.LookAsync(db => db.Letters.CountAsync(l => l.ProjectId == id)));
        Assert.Contains(
            "no mail address",
            await (
                await owner.PostAsync($"/api/projects/{id.Value}/letter", new { subject = "Hello", body = "Hello" })
            ).Content.ReadAsStringAsync()
        );

        await studio.LookAsync(db =>
            db.People.Where(p => p.Name == "Somebody at a fair")
                .ExecuteUpdateAsync(set => set.SetProperty(p => p.Mail, "fair@lanternhouse.example"))
        );
        await studio.TickAsync();
        Assert.Equal(
            LetterState.Sent,
            await studio.LookAsync(db => db.Letters.Where(l => l.ProjectId == id).Select(l => l.State).SingleAsync())
        );
    }

    private async Task RecordAsync(ProjectId project, Random random) =>
        await studio.LookAsync(
            async (Desk desk) =>
            {
                var file = await desk.OpenAsync(project);
                var today = desk.Today;
                var (version, review) = (new VersionId(random.Next(1, 4)), new ReviewId(random.Next(1, 3)));
                Happening[] kinds =
                [
                    new Happening.MarkedFit(),
                    new Happening.NoAnswerNeeded(),
                    new Happening.LetterReceived(new LetterId(1), random.Next(2) == 0),
                    new Happening.LetterSent(new LetterId(1), random.Next(2) == 0),
                    new Happening.ProposalSent(version, today.PlusDays(random.Next(0, 20))),
                    new Happening.ProposalOpened(version),
                    new Happening.ProposalWithdrawn(version),
                    new Happening.ProposalAccepted(
                        version,
                        Euro(3000),
                        Euro(1200),
                        Euro(3000),
                        [
                            new(Euro(1200), new OnBooking(7)),
                            new(Euro(1800), new AroundMainDate(Core.Calendar.Span.None, 14)),
                        ]
                    ),
                    new Happening.ContractSent(version),
                    new Happening.ContractSigned(version, (Signer)random.Next(2)),
                    new Happening.InvoiceIssued(
                        new InvoiceId(random.Next(1, 3)),
                        Euro(1200),
                        today.PlusDays(random.Next(0, 14))
                    ),
                    new Happening.PaymentReceived(
                        new PaymentId(random.Next(1, 5)),
                        new InvoiceId(random.Next(1, 3)),
                        Euro(1200)
                    ),
                    new Happening.PaymentVoided(new PaymentId(random.Next(1, 5))),
                    new Happening.RestBegan(random.Next(2) == 0 ? null : today.PlusDays(random.Next(1, 30))),
                    new Happening.RestEnded(),
                    new Happening.Ended((EndReason)random.Next(6)),
                    new Happening.TakenUp(),
                    new Happening.DateSet("opening day", today.PlusDays(random.Next(-10, 90)), null),
                    new Happening.HandedOver(),
                    new Happening.Approved(),
                    new Happening.ReviewOpened(review, "sketch"),
                    new Happening.ChangesAsked(review, new NoteId(1)),
                    new Happening.RemarkLeft(review, new NoteId(1)),
                    new Happening.ReviewApproved(review, "sketch"),
                    new Happening.ReviewWithdrawn(review),
                    new Happening.InvoiceCredited(new InvoiceId(random.Next(1, 3)), new InvoiceId(9), Euro(300)),
                    new Happening.PutAway(),
                    new Happening.TakenOut(),
                    new Happening.TaskMade(new TaskId(7), today, Closing: true),
                    new Happening.TaskDone(new TaskId(7)),
                ];
                await desk.ActAsync(act => act.RecordAsync(file, Actor.Owner, kinds[random.Next(kinds.Length)]));
                return true;
            }
        );

    private static Money Euro(decimal major) => Money.Of(major, Currency.Eur);
}
