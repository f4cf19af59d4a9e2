using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The letter of progress: drafted from what was done since the last one.</summary>
public sealed class ProgressTests
{
    private static async Task<JsonElement> DraftAsync(Visitor owner, long project) =>
        (await owner.GetAsync($"/api/projects/{project}/letter"))
            .GetProperty("usual")
            .EnumerateArray()
            .Single(letter => letter.GetProperty("key").GetString() == "progress");

    private static async Task DoneAsync(Visitor owner, long project, string title, bool isClients = false)
    {
        var made = await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title,
                due = (string?)null,
                phase = (string?)null,
                isClients,
            }
        );
        var id = (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
        await owner.PostAsync($"/api/projects/{project}/tasks/{id}/done", new { done = true });
    }

    private static async Task PayAsync(Visitor owner, long project)
    {
        var open = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "Paid",
                amount = open.GetProperty("owed").GetString(),
                means = "Transfer",
                invoice = open.GetProperty("id").GetInt64(),
            }
        );
    }

    [Fact]
    public async Task It_tells_what_was_done_since_the_last_one_and_hours_only_where_the_kind_says_so()
    {
        await using var studio = new EmptyStudio();
        async Task LaterAsync(int hours) =>
            await studio.WaitUntilAsync(
                await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now)) + NodaTime.Duration.FromHours(hours)
            );
        var (owner, client, project, page) = await studio.SignedByAllAsync("progress@letter.example");
        // not booked yet there is nothing to tell, and the letter says which of its blanks nothing fills
        Assert.Equal("progress", (await DraftAsync(owner, project)).GetProperty("gaps")[0].GetString());
        await PayAsync(owner, project);
        await LaterAsync(1);
        await DoneAsync(owner, project, "Scale the drawing");
        await DoneAsync(owner, project, "Clear the wall", isClients: true);
        await owner.PostAsync($"/api/projects/{project}/phases", new { phase = "survey", state = "Done" });
        await owner.PostAsync(
            $"/api/projects/{project}/hours",
            new
            {
                on = (string?)null,
                time = "3",
                words = "drawing",
            }
        );
        var body = (await DraftAsync(owner, project)).GetProperty("body").GetString()!;
        Assert.Contains("Done so far:\n- Scale the drawing\n- Survey is done", body);
        Assert.DoesNotContain("Clear the wall", body);
        Assert.DoesNotContain("Worked", body);
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new
            {
                subject = "How it goes",
                body,
                template = "progress",
            }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
        await LaterAsync(1);
        owner = await studio.OwnerAsync();
        Assert.Equal("progress", (await DraftAsync(owner, project)).GetProperty("gaps")[0].GetString());
        await DoneAsync(owner, project, "Order the scaffold");
        var next = (await DraftAsync(owner, project)).GetProperty("body").GetString()!;
        Assert.Contains("Done since 25 January 2027:\n- Order the scaffold", next);
        Assert.DoesNotContain("Scale the drawing", next);
        // a kind of work by the hour says how long was worked
        await studio.LookAsync(async db =>
        {
            var row = await db.Projects.SingleAsync(p => p.Id == new ProjectId(project));
            row.Pinned.Rules = row.Pinned.Rules.Replace("\"tellsHours\":false", "\"tellsHours\":true");
            return await db.SaveChangesAsync();
        });
        Assert.Contains(
            "Worked since 25 January 2027: 3 h.",
            (await DraftAsync(owner, project)).GetProperty("body").GetString()
        );
        Assert.NotNull(client);
        Assert.StartsWith("/p/", page);
    }

    [Theory, InlineData(false), InlineData(true)]
    public async Task What_the_brief_foresaw_comes_back_as_a_task_when_its_phase_begins_and_no_client_reads_of_it(
        bool timeGoesOn
    )
    {
        await using var studio = new EmptyStudio();
        if (timeGoesOn)
            studio.LetTimeGoOn();
        var (owner, client, project, page) = await studio.SignedByAllAsync("obstacles@letter.example");
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/brief/obstacles",
            JsonContent.Create(new { text = "Sketch: the beams are listed\nsurvey: damp\nthe neighbour", edition = 0 })
        );
        async Task<string[]> TasksAsync() =>
            await studio.LookAsync(db =>
                db.Tasks.Where(t => t.ProjectId == new Gesamt.Core.ProjectId(project) && t.MadeFrom != null)
                    .OrderBy(t => t.Id)
                    .Select(t => $"{t.Title}, {t.Phase}, {t.Due}, {t.Description}")
                    .ToArrayAsync()
            );
        Task SetAsync(string phase, string state) =>
            owner.PostAsync($"/api/projects/{project}/phases", new { phase, state });
        Assert.Empty(await TasksAsync());
        // booked by it, the first phase begins
        await PayAsync(owner, project);
        await SetAsync("sketch", "InWork");
        string[] both =
        [
            "Watch out: damp, survey, Monday, 25 January 2027, ",
            "Watch out: the beams are listed, sketch, Monday, 25 January 2027, ",
        ];
        Assert.Equal(both, await TasksAsync());
        Assert.Contains(
            "Watch out: the beams are listed",
            (await owner.GetAsync("/api/today")).GetProperty("day").GetRawText()
        );
        // once, whatever becomes of the phase
        await SetAsync("sketch", "Resting");
        await SetAsync("sketch", "InWork");
        Assert.Equal(both, await TasksAsync());
        var task = await studio.LookAsync(async db =>
            (await db.Tasks.SingleAsync(t => t.Title.Contains("beams"))).Id.Value
        );
        await studio.WaitUntilAsync(NodaTime.Instant.FromUtc(2027, 1, 25, 11, 0));
        await owner.PostAsync($"/api/projects/{project}/tasks/{task}/done", new { done = true });
        await SetAsync("sketch", "Done");
        var body = (await DraftAsync(owner, project)).GetProperty("body").GetString()!;
        Assert.Contains("Sketch is done", body);
        Assert.DoesNotContain("beams", body);
        foreach (var part in new[] { "Whole", "Tasks" })
            await owner.PostAsync($"/api/projects/{project}/parts", new { part, open = true });
        Assert.DoesNotContain("beams", (await client.GetAsync($"{page}/api")).GetRawText());
    }
}
