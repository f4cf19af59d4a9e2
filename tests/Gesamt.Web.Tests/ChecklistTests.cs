using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>Checklists: answered by the owner, their tasks, and what they keep from being put up.</summary>
public sealed class ChecklistTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static object Question(string key, string label, string task) =>
        new
        {
            key,
            sort = "OneOf",
            label,
            required = false,
            hint = (string?)null,
            unit = (string?)null,
            options = new[] { "yes", "no" },
            fills = (string?)null,
            shownIf = (object?)null,
            makes = new { answer = "no", title = task },
        };

    private static async Task<int> ListAsync(Visitor owner, bool beforeDraft)
    {
        var kind = (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .First(one => one.GetProperty("key").GetString() == "mural")
            .GetProperty("id")
            .GetInt64();
        var made = await owner.PostAsync(
            $"/api/kinds/{kind}/forms",
            new { title = $"Before a draft {Guid.NewGuid():n}", purpose = "Checklist" }
        );
        var id = (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt32();
        var saved = await SaveAsync(owner, id, "Before a draft is shown", beforeDraft);
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        return id;
    }

    private static Task<HttpResponseMessage> SaveAsync(
        Visitor owner,
        int id,
        string title,
        bool beforeDraft,
        int edition = 0,
        object[]? fields = null
    ) =>
        owner.SendAsync(
            HttpMethod.Put,
            $"/api/forms/{id}",
            JsonContent.Create(
                new
                {
                    title,
                    intro = "",
                    fields = fields
                        ??
                        [
                            Question("slept", "Has it lain for a night?", "Let it lie for a night"),
                            Question("spelt", "Is every word spelt right?", "Have the words read by somebody"),
                        ],
                    thanks = "",
                    goTo = (string?)null,
                    source = (string?)null,
                    closed = false,
                    edition,
                    slug = (string?)null,
                    beforeDraft,
                }
            )
        );

    private static Task<HttpResponseMessage> AnswerAsync(
        Visitor owner,
        long project,
        int list,
        int edition,
        string slept,
        string spelt
    ) =>
        owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/checklists/{list}",
            JsonContent.Create(
                new { answers = new Dictionary<string, string> { ["slept"] = slept, ["spelt"] = spelt }, edition }
            )
        );

    private static async Task<string[]> OpenAsync(Visitor owner, long project) =>
        [
            .. (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("sheet")
                .GetProperty("tasks")
                .GetProperty("open")
                .EnumerateArray()
                .Select(task => task.GetProperty("kept").GetProperty("title").GetString()!),
        ];

    [Fact]
    public async Task An_edition_that_nobody_wrote_is_a_stale_one_of_a_checklist_as_of_a_brief()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "nobody@list.example");
        var list = await ListAsync(owner, beforeDraft: false);
        Assert.Equal(HttpStatusCode.Conflict, (await AnswerAsync(owner, project, list, 7, "no", "no")).StatusCode);
        var part = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("about")
            .GetProperty("brief")
            .GetProperty("parts")[0]
            .GetProperty("key")
            .GetString();
        var brief = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/brief/{part}",
            JsonContent.Create(new { text = "Mine", edition = 7 })
        );
        Assert.Equal(HttpStatusCode.Conflict, brief.StatusCode);
    }

    [Fact] // common practice: answered “no”, then changed to “yes”: one task made, then withdrawn if untouched
    public async Task A_no_makes_its_task_once_and_a_yes_withdraws_it_while_nobody_touched_it()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "check@list.example");
        var list = await ListAsync(owner, beforeDraft: false);
        async Task SayAsync(int edition, string slept, string spelt)
        {
            var said = await AnswerAsync(owner, project, list, edition, slept, spelt);
            Assert.True(said.IsSuccessStatusCode, await said.Content.ReadAsStringAsync());
        }
        await SayAsync(0, "no", "no");
        Assert.Equal(["Let it lie for a night", "Have the words read by somebody"], await OpenAsync(owner, project));
        await SayAsync(1, "no", "yes");
        Assert.Equal(["Let it lie for a night"], await OpenAsync(owner, project));
        await SayAsync(2, "no", "no");
        var ids = await studio.LookAsync(db =>
            db.Tasks.Where(t => t.MadeFrom != null && t.ProjectId == new Gesamt.Core.ProjectId(project))
                .OrderBy(t => t.Id)
                .Select(t => t.Id.Value)
                .ToListAsync()
        );
        Assert.Equal(2, ids.Count);
        // one that was changed, and one that is done, stay whatever is answered then
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/tasks/{ids[0]}",
            JsonContent.Create(
                new
                {
                    title = "Let it lie for two nights",
                    due = (string?)null,
                    phase = (string?)null,
                }
            )
        );
        await owner.PostAsync($"/api/projects/{project}/tasks/{ids[1]}/done", new { done = true });
        await SayAsync(3, "yes", "yes");
        await SayAsync(4, "no", "no");
        Assert.Equal(["Let it lie for two nights"], await OpenAsync(owner, project));
        var stale = await AnswerAsync(owner, project, list, 4, "yes", "yes");
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
        var wrong = await AnswerAsync(owner, project, list, 5, "perhaps", "yes");
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        Assert.Contains("\"slept\"", await wrong.Content.ReadAsStringAsync());
        Assert.Contains(
            "2 of 2 answered",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("sheet")
                .GetProperty("work")
                .GetProperty("checklists")
                .GetString()
        );
    }

    [Fact]
    public async Task No_draft_is_put_up_before_its_checklist_is_gone_through_and_every_draft_asks_anew()
    {
        await using var own = new EmptyStudio();
        var (owner, client) = (await own.OwnerAsync(), new Visitor(own));
        var (project, page) = await own.ProposeAsync(owner, client, "draft@list.example");
        await own.SignedAsync(client, page);
        var list = await ListAsync(owner, beforeDraft: true);
        var kept = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/files?name=sketch.png&group=Drafts",
            new ByteArrayContent(Demo.DemoPictures.Draw("sketch.png"))
            {
                Headers = { ContentType = new("application/octet-stream") },
            }
        );
        var file = (await kept.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
        async Task<HttpResponseMessage> PutUpAsync() =>
            await owner.PostAsync(
                $"/api/projects/{project}/reviews",
                new
                {
                    files = new[] { file },
                    phase = (string?)null,
                    subject = "A draft",
                    body = "Have a look.",
                    beyond = false,
                }
            );
        async Task RefusedAsync(string why)
        {
            var refused = await PutUpAsync();
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains(why, await refused.Content.ReadAsStringAsync());
        }
        await RefusedAsync("2 questions are open");
        await AnswerAsync(owner, project, list, 0, "yes", "no");
        await RefusedAsync("one of its tasks is open");
        await AnswerAsync(owner, project, list, 1, "yes", "yes");
        var up = await PutUpAsync();
        Assert.True(up.IsSuccessStatusCode, await up.Content.ReadAsStringAsync());
        var review = await own.LookAsync(db => db.Reviews.Select(r => r.PublicId).SingleAsync());
        await client.TokenAsync($"{page}/api");
        await client.PostAsync($"{page}/api/rounds/{review}/changes", new { words = "The gulls higher, please." });
        await RefusedAsync("go through it once more");
        await own.WaitUntilAsync(
            await own.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Now)) + NodaTime.Duration.FromMinutes(5)
        );
        await AnswerAsync(owner, project, list, 2, "yes", "yes");
        var second = await PutUpAsync();
        Assert.True(second.IsSuccessStatusCode, await second.Content.ReadAsStringAsync());
        // nothing of it is ever on the client's page, and it cannot be put to them
        Assert.DoesNotContain("lain for a night", (await client.GetAsync($"{page}/api")).GetRawText());
        var slug = await own.LookAsync(db => db.Forms.Where(f => f.Id == list).Select(f => f.Slug).SingleAsync());
        var asked = await owner.PostAsync(
            $"/api/projects/{project}/forms",
            new
            {
                slug,
                subject = "x",
                body = "x",
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, asked.StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await new Visitor(own).AskAsync($"/forms/{slug}")).StatusCode);
    }

    [Fact]
    public async Task A_task_that_no_choice_makes_is_named_by_its_place()
    {
        var owner = await studio.OwnerAsync();
        var list = await ListAsync(owner, beforeDraft: false);
        var refused = await SaveAsync(
            owner,
            list,
            "Before a draft is shown",
            false,
            1,
            [
                new
                {
                    key = "a",
                    sort = "OneOf",
                    label = "Ready?",
                    required = false,
                    hint = (string?)null,
                    unit = (string?)null,
                    options = new[] { "yes", "no" },
                    fills = (string?)null,
                    shownIf = (object?)null,
                    makes = new { answer = "perhaps", title = "Make it ready" },
                },
            ]
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("fields[0].makes", await refused.Content.ReadAsStringAsync());
    }
}
