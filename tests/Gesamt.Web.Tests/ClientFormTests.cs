using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Turns;

namespace Gesamt.Web.Tests;

/// <summary>Questions put to a client: kept as they are typed, returned once, open to nobody else.</summary>
public sealed class ClientFormTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private async Task<(long Project, Visitor Owner, Visitor Client, string Page)> AskAsync(string mail)
    {
        var owner = await studio.OwnerAsync();
        var client = new Visitor(studio);
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/forms",
            new
            {
                slug = "mural-start",
                subject = "Questions",
                body = "They are here: [page link]",
            }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
        return (project, owner, client, await studio.EnterAsync(owner, client, mail));
    }

    private Task<Side> TurnAsync(long project) =>
        studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.Turn).SingleAsync()
        );

    [Fact]
    public async Task A_form_is_the_clients_turn_until_it_comes_back_and_then_the_owners()
    {
        var (project, owner, client, page) = await AskAsync("form1@lanternhouse.example");
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/forms",
                    new
                    {
                        slug = "mural-start",
                        subject = "Again",
                        body = "Again",
                    }
                )
            ).StatusCode
        );
        Assert.Contains(
            "colours",
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("forms").GetRawText()
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await client.PostAsync(
                    $"{page}/api/forms/mural-start/draft",
                    new { answers = new { key = "Ring the bell", unknown = "x" } }
                )
            ).StatusCode
        );
        var kept = (await client.GetAsync($"{page}/api"))
            .GetProperty("parts")
            .GetProperty("forms")[0]
            .GetProperty("given");
        Assert.Equal("{\"key\":\"Ring the bell\"}", kept.GetRawText());
        var wrong = JsonDocument
            .Parse(
                await (
                    await client.PostAsync(
                        $"{page}/api/forms/mural-start",
                        new { answers = new { key = "Ring the bell", water = "perhaps" } }
                    )
                ).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.Equal(["water"], wrong.GetProperty("errors").EnumerateObject().Select(e => e.Name));
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await client.PostAsync(
                    $"{page}/api/forms/mural-start",
                    new { answers = new { key = "Ring the bell", water = "yes" } }
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await client.PostAsync(
                    $"{page}/api/forms/mural-start",
                    new { answers = new { key = "Twice", water = "yes" } }
                )
            ).StatusCode
        );
        Assert.Equal(
            0,
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("forms").GetArrayLength()
        );
        Assert.Equal(Side.Yours, await TurnAsync(project));
        Assert.Contains(
            "Read the answers",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path").GetProperty("turn").GetRawText()
        );
        var answers = await studio.LookAsync(db =>
            db.Answers.Where(a => a.ProjectId == new ProjectId(project))
                .OrderByDescending(a => a.Id)
                .Select(a => a.Items)
                .FirstAsync()
        );
        Assert.Contains("Who opens the gate", answers);
    }

    [Fact]
    public async Task A_form_taken_back_or_never_asked_opens_to_nobody()
    {
        var (project, owner, client, page) = await AskAsync("form2@lanternhouse.example");
        // it is no public form, and another one was not asked
        Assert.Equal(HttpStatusCode.NotFound, (await client.AskAsync("/forms/mural-start")).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await client.PostAsync($"{page}/api/forms/feedback-mural", new { answers = new { } })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/projects/{project}/forms/mural-start/back")).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await client.PostAsync(
                    $"{page}/api/forms/mural-start",
                    new { answers = new { key = "x", water = "yes" } }
                )
            ).StatusCode
        );
        Assert.False(
            (
                await studio.LookAsync(
                    async (Gesamt.Web.Hosting.Desk desk) => (await desk.OpenAsync(new(project))).History
                )
            ).Any<Happening.FormReturned>()
        );
    }
}

/// <summary>Whole projects that are rehearsals: they live like any other, count nowhere, and nothing of them leaves the house.</summary>
public sealed class RehearsalTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task A_rehearsal_is_wound_to_its_end_and_counts_nowhere()
    {
        var owner = await studio.OwnerAsync();
        await studio.InquireAsync(new Visitor(studio), "real@lanternhouse.example");
        var kind = (await owner.GetAsync("/api/kinds")).EnumerateArray().First().GetProperty("id").GetInt64();
        var before = (await owner.GetAsync("/api/today")).GetRawText();
        var (turns, posted) = (
            (await owner.GetAsync("/api/turns")).GetRawText(),
            (await owner.GetAsync("/api/post-office")).GetArrayLength()
        );
        var made = await owner.PostAsync(
            "/api/rehearsals",
            new
            {
                kind,
                name = "Nobody Atall",
                date = "2027-09-10",
                toOwner = false,
            }
        );
        var id = JsonDocument.Parse(await made.Content.ReadAsStringAsync()).RootElement.GetProperty("id").GetInt64();
        async Task<JsonElement> WindAsync(string? to = null) =>
            JsonDocument
                .Parse(
                    await (await owner.PostAsync($"/api/projects/{id}/wind", new { to })).Content.ReadAsStringAsync()
                )
                .RootElement;
        await studio.TickAsync(); // the studio's own ticker lets it be
        Assert.Equal(0, await studio.LookAsync(db => db.Letters.CountAsync(l => l.ProjectId == new ProjectId(id))));
        List<string> clocks = [];
        // reminders are for an inquiry that was answered
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{id}/letter",
                    new { subject = "Your wall", body = "Could you measure it?" }
                )
            ).IsSuccessStatusCode
        );
        for (var i = 0; i < 12; i++)
        {
            var wound = await WindAsync();
            clocks.Add(wound.GetProperty("clock").GetString()!);
            foreach (
                var letter in await studio.LookAsync(db =>
                    db.Letters.Where(l =>
                            l.ProjectId == new ProjectId(id) && l.State == Gesamt.Store.Model.LetterState.Held
                        )
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
        }
        // thank-you at once, asked after 9 days, again after 10 more, then whether it has gone quiet
        Assert.Equal(
            4,
            await studio.LookAsync(db =>
                db.Letters.CountAsync(l =>
                    l.ProjectId == new ProjectId(id) && l.State == Gesamt.Store.Model.LetterState.Sent
                )
            )
        );
        Assert.Contains(
            "End it as gone quiet?",
            (await owner.GetAsync($"/api/projects/{id}")).GetProperty("line").GetProperty("ahead").GetRawText(),
            StringComparison.OrdinalIgnoreCase
        );
        Assert.Contains(clocks, clock => clock.StartsWith("Wed 3 Feb", StringComparison.Ordinal));
        Assert.Equal(
            (before, turns, posted),
            (
                (await owner.GetAsync("/api/today")).GetRawText(),
                (await owner.GetAsync("/api/turns")).GetRawText(),
                (await owner.GetAsync("/api/post-office")).GetArrayLength()
            )
        );
        Assert.DoesNotContain("Nobody Atall", (await owner.GetAsync("/api/register")).GetRawText());
        Assert.DoesNotContain("Nobody Atall", (await owner.GetAsync("/api/people")).GetRawText());
        Assert.Contains("Nobody Atall", (await owner.GetAsync("/api/rehearsals")).GetRawText());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync("/api/projects/1/wind", new { to = (string?)null })).StatusCode
        );
        Assert.Contains(
            "\"to\"",
            await (
                await owner.PostAsync($"/api/projects/{id}/wind", new { to = "2020-01-01T09:00:00" })
            ).Content.ReadAsStringAsync()
        );
    }

    [Fact]
    public async Task Its_letters_go_to_the_owners_own_address_if_wanted_and_to_nobody_else()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var kind = (await owner.GetAsync("/api/kinds")).EnumerateArray().First().GetProperty("id").GetInt64();
        var id = JsonDocument
            .Parse(
                await (
                    await owner.PostAsync(
                        "/api/rehearsals",
                        new
                        {
                            kind,
                            name = "Try Out",
                            date = (string?)null,
                            toOwner = true,
                        }
                    )
                ).Content.ReadAsStringAsync()
            )
            .RootElement.GetProperty("id")
            .GetInt64();
        Assert.True(
            (await owner.PostAsync($"/api/projects/{id}/wind", new { to = (string?)null })).IsSuccessStatusCode
        );
        var posted = Assert.Single((await owner.GetAsync("/api/post-office")).EnumerateArray());
        Assert.StartsWith("Rehearsal: ", posted.GetProperty("subject").GetString());
        Assert.Contains(
            (await own.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Studio.Mail))),
            posted.GetProperty("to").GetString()
        );
    }
}
