using System.Net;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>A lead that says nothing is followed up twice, then ended by the owner's OK alone; a trusted client is booked at once.</summary>
public sealed class QuietTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly Instant Begun = Instant.FromUtc(2027, 1, 25, 10, 30);

    private async Task<long> FollowedUpAsync(string mail)
    {
        var project = await studio.InquireAndAnswerAsync(mail);
        var from = await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now));
        foreach (var days in new[] { 11, 25, 39 })
        {
            await studio.WaitUntilAsync(from + Duration.FromDays(days));
            var owner = await studio.OwnerAsync();
            foreach (
                var letter in await studio.LookAsync(db =>
                    db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.State == LetterState.Held)
                        .Select(l => l.Id)
                        .ToListAsync()
                )
            )
                Assert.True(
                    (
                        await owner.PostAsync(
                            $"/api/letters/{letter.Value}/release",
                            new { subject = (string?)null, body = (string?)null }
                        )
                    ).IsSuccessStatusCode
                );
            await studio.TickAsync();
        }
        return project;
    }

    private static async Task<System.Text.Json.JsonElement> AskedAsync(Visitor owner, long project) =>
        (await owner.GetAsync("/api/today"))
            .GetProperty("ready")
            .GetProperty("asked")
            .EnumerateArray()
            .Single(one => one.GetProperty("project").GetInt64() == project);

    [Fact]
    public async Task A_quiet_lead_is_ended_by_the_owners_yes_and_kept_open_by_a_no()
    {
        var (ended, kept) = (
            await FollowedUpAsync("quiet1@lanternhouse.example"),
            await FollowedUpAsync("quiet2@lanternhouse.example")
        );
        var owner = await studio.OwnerAsync();
        // nothing ended by itself
        Assert.Equal(
            2,
            await studio.LookAsync(db =>
                db.Projects.CountAsync(p =>
                    p.Standing.Ended == null && (p.Id == new ProjectId(ended) || p.Id == new ProjectId(kept))
                )
            )
        );
        foreach (var (project, end) in new[] { (ended, true), (kept, false) })
        {
            var asked = await AskedAsync(owner, project);
            Assert.Contains("no word since the last letter", asked.GetProperty("why").GetString());
            var answer = new
            {
                run = asked.GetProperty("run").GetInt64(),
                step = asked.GetProperty("step").GetString(),
                occurrence = asked.GetProperty("occurrence").GetInt32(),
                yes = end,
            };
            Assert.Equal(
                HttpStatusCode.OK,
                (await owner.PostAsync($"/api/projects/{project}/asked", answer)).StatusCode
            );
            Assert.Equal(
                HttpStatusCode.Conflict,
                (await owner.PostAsync($"/api/projects/{project}/asked", answer)).StatusCode
            );
            // an end is taken up on the record; a no is taken back, and given again
            var again = await owner.PostAsync($"/api/projects/{project}/asked/again", answer);
            Assert.Equal(end ? HttpStatusCode.Conflict : HttpStatusCode.NoContent, again.StatusCode);
            if (end)
                continue;
            Assert.Equal(asked.GetRawText(), (await AskedAsync(owner, project)).GetRawText());
            Assert.Equal(
                HttpStatusCode.Conflict,
                (await owner.PostAsync($"/api/projects/{project}/asked/again", answer)).StatusCode
            );
            Assert.Equal(
                HttpStatusCode.OK,
                (await owner.PostAsync($"/api/projects/{project}/asked", answer)).StatusCode
            );
        }
        Assert.Equal(
            EndReason.GoneQuiet,
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(ended)).Select(p => p.Standing.Ended).SingleAsync()
            )
        );
        Assert.Null(
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(kept)).Select(p => p.Standing.Ended).SingleAsync()
            )
        );
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("asked").EnumerateArray(),
            one => one.GetProperty("project").GetInt64() == kept
        );
        // taken up again it keeps its history
        Assert.True(
            (await owner.PostAsync($"/api/projects/{ended}/happened", new { sort = "TakenUp" })).IsSuccessStatusCode
        );
        Assert.Null(
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(ended)).Select(p => p.Standing.Ended).SingleAsync()
            )
        );
        Assert.True(Begun < await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now)));
    }

    [Fact]
    public async Task A_trusted_client_is_booked_straight_away_and_owes_nothing_on_booking()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "trusted@lanternhouse.example");
        Assert.Contains(
            "\"words\"",
            await (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "BookedStraightAway",
                        amount = "900",
                        tax = "23",
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        var booked = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "BookedStraightAway",
                amount = "900",
                tax = "23",
                words = "She always pays.",
            }
        );
        Assert.True(booked.IsSuccessStatusCode, await booked.Content.ReadAsStringAsync());
        var row = await studio.LookAsync(db =>
            db.Projects.AsNoTracking().Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing).SingleAsync()
        );
        Assert.NotNull(row.BookedAt);
        Assert.Equal((Stage.Delivery, 90_000L, 0L), (row.Stage, row.NetMinor!.Value, row.OwedMinor));
    }

    [Fact]
    public async Task A_booking_taken_back_after_days_stops_what_was_held_for_it_and_the_record_opens()
    {
        await using var studio = new EmptyStudio();
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "taken-back@lanternhouse.example");
        await studio.SignedAsync(client, page);
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new { sort = "Countersign", words = "Isolde Marrin" }
                )
            ).IsSuccessStatusCode
        );
        var invoice = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "Paid",
                        amount = invoice.EnumerateObject().Last().Value.GetString(),
                        invoice = invoice.GetProperty("id").GetInt64(),
                        means = "Transfer",
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        await studio.WaitUntilAsync(
            await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now)) + Duration.FromDays(5)
        );
        owner = await studio.OwnerAsync();
        var held = await studio.LookAsync(db =>
            db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.State == LetterState.Held)
                .Select(l => l.Id)
                .ToListAsync()
        );
        Assert.NotEmpty(held);
        // a payment recorded by mistake takes no win back; the owner's word does
        var payment = await studio.LookAsync(db =>
            db.Payments.Where(p => p.ProjectId == new ProjectId(project)).Select(p => p.Id.Value).SingleAsync()
        );
        Assert.True((await owner.PostAsync($"/api/projects/{project}/payments/{payment}/void")).IsSuccessStatusCode);
        Assert.NotNull(
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.BookedAt).SingleAsync()
            )
        );
        Assert.True(
            (
                await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "NotWonAfterAll" })
            ).IsSuccessStatusCode
        );
        Assert.Null(
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.BookedAt).SingleAsync()
            )
        );
        var record = await owner.GetAsync($"/api/projects/{project}");
        Assert.Contains(
            "what they hung on was taken back",
            record.GetProperty("line").GetProperty("past").GetRawText()
        );
        Assert.True((await owner.AskAsync("/api/today")).IsSuccessStatusCode);
        Assert.True(
            await studio.LookAsync(db =>
                db.Letters.AnyAsync(l => held.Contains(l.Id) && l.State == LetterState.Stopped)
            )
        );
    }
}
