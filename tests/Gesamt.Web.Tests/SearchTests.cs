using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Store;
using Gesamt.Store.Search;

namespace Gesamt.Web.Tests;

/// <summary>Whatever was written in the studio is found by its words, and led to where it stands.</summary>
public sealed class SearchTests(SearchTests.Own studio) : IClassFixture<SearchTests.Own>
{
    public sealed class Own() : Studio(withProjects: false, Laid.Copy(withProjects: false));

    private async Task<List<(string Sort, string Title, string? Opens)>> FindAsync(Visitor owner, string words) =>
        [
            .. (await owner.GetAsync($"/api/search?words={Uri.EscapeDataString(words)}"))
                .EnumerateArray()
                .Select(hit =>
                    (
                        hit.GetProperty("sort").GetString()!,
                        hit.GetProperty("title").GetString()!,
                        hit.GetProperty("opens").GetString()
                    )
                ),
        ];

    [Fact]
    public async Task Briefs_answers_tasks_meeting_notes_proposals_and_contracts_are_found_by_a_word_in_them()
    {
        var owner = await studio.OwnerAsync();
        var client = new Visitor(studio);
        var (project, page) = await studio.ProposeAsync(owner, client, "sought@lanternhouse.example");
        var title = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("head")
            .GetProperty("title")
            .GetString()!;

        var answers = Assert.Single(await FindAsync(owner, "lantern sought"), hit => hit.Sort == "Answers");
        Assert.Equal(title, answers.Title);
        Assert.StartsWith("Answers.", answers.Opens);

        var proposal = Assert.Single(await FindAsync(owner, "scissor"), hit => hit.Sort == "Proposal");
        Assert.StartsWith("Proposal.", proposal.Opens);
        Assert.Equal(title, proposal.Title);

        await studio.SignedAsync(client, page);
        Assert.StartsWith(
            "Contract.",
            Assert.Single(await FindAsync(owner, "rounds of review"), hit => hit.Sort == "Contract").Opens
        );

        var part = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("about")
            .GetProperty("brief")
            .GetProperty("parts")[0];
        async Task BriefAsync(string text, int edition) =>
            Assert.True(
                (
                    await owner.SendAsync(
                        HttpMethod.Put,
                        $"/api/projects/{project}/brief/{part.GetProperty("key").GetString()}",
                        JsonContent.Create(new { text, edition })
                    )
                ).IsSuccessStatusCode
            );
        await BriefAsync("It must not look like a franchisee.", part.GetProperty("edition").GetInt32());
        Assert.Contains(("Brief", title, null), await FindAsync(owner, "franchisee"));
        await BriefAsync("It must look like nobody else.", part.GetProperty("edition").GetInt32() + 1);
        Assert.DoesNotContain(await FindAsync(owner, "franchisee"), hit => hit.Sort == "Brief");

        var task = await JsonAsync(
            await owner.PostAsync(
                $"/api/projects/{project}/tasks",
                new
                {
                    title = "Order the ultramarine",
                    due = (string?)null,
                    phase = (string?)null,
                }
            )
        );
        Assert.Contains(("Task", "Order the ultramarine", null), await FindAsync(owner, "ultramar"));
        await owner.PostAsync(
            $"/api/projects/{project}/tasks/{task.GetProperty("id").GetInt64()}/removed",
            new { removed = true }
        );
        Assert.Empty(await FindAsync(owner, "ultramar"));
        await owner.PostAsync(
            $"/api/projects/{project}/tasks/{task.GetProperty("id").GetInt64()}/removed",
            new { removed = false }
        );
        Assert.Single(await FindAsync(owner, "ultramar"));
    }

    [Fact]
    public async Task A_project_is_found_by_the_name_its_client_has_now()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "renamed@lanternhouse.example");
        var name = "Quendolin Osterhaus";
        await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var client = await db
                    .Projects.Where(p => p.Id == new Core.ProjectId(project))
                    .Select(p => p.Client!)
                    .SingleAsync();
                client.Name = name;
                return await db.SaveChangesAsync();
            }
        );
        Assert.Contains(await FindAsync(owner, "quendolin"), hit => hit.Sort == "Project");
        await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var client = await db.People.SingleAsync(p => p.Name == name);
                client.Name = "Somebody";
                return await db.SaveChangesAsync();
            }
        );
        Assert.Empty(await FindAsync(owner, "quendolin"));
    }

    [Fact]
    public async Task The_notes_of_a_meeting_are_found()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "notes@lanternhouse.example");
        await studio.LookAsync(async db =>
        {
            db.Meetings.Add(
                new()
                {
                    ProjectId = new(project),
                    PublicId = "m",
                    Name = "First call",
                    Uid = "m",
                    Zone = "Europe/Dublin",
                    End = NodaTime.Instant.FromUnixTimeSeconds(3600),
                }
            );
            return await db.SaveChangesAsync();
        });
        await studio.LookAsync(db =>
            db.Meetings.Where(m => m.Uid == "m")
                .ExecuteUpdateAsync(set => set.SetProperty(m => m.Notes, "The brother-in-law decides."))
        );
        var hit = Assert.Single(await FindAsync(owner, "brother-in-law"));
        Assert.Equal(("Meeting", "First call"), (hit.Sort, hit.Title));
    }

    [Fact]
    public async Task An_index_that_was_made_otherwise_is_made_anew_and_one_as_it_should_be_is_left()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "anew@lanternhouse.example");
        await owner.PostAsync($"/api/projects/{project}/notes", new { text = "Ask about the cornice" });
        await studio.LookAsync(async db =>
        {
            // answers that no longer read hold nothing, and stop nothing
            await db.Answers.ExecuteUpdateAsync(set => set.SetProperty(a => a.Items, a => a.Items + "]"));
            await db.Database.ExecuteSqlRawAsync("DROP TRIGGER note_search_in");
            return await db.Database.ExecuteSqlRawAsync("DELETE FROM Search");
        });
        Assert.Empty(await FindAsync(owner, "cornice"));
        await studio.LookAsync(async db =>
        {
            await SearchIndex.PrepareAsync(db);
            return 0;
        });
        Assert.Equal("Note", Assert.Single(await FindAsync(owner, "cornice")).Sort);

        await studio.LookAsync(async db =>
        {
            await db.Database.ExecuteSqlRawAsync("DELETE FROM Search");
            await SearchIndex.PrepareAsync(db);
            return 0;
        });
        Assert.Empty(await FindAsync(owner, "cornice"));
    }

    private static async Task<JsonElement> JsonAsync(HttpResponseMessage answer)
    {
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }
}
