using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests;

/// <summary>What clients of a kind read to begin with: written at the kind, opened on the page.</summary>
public sealed class IntroductionTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static async Task<(long Kind, JsonObject Settings)> MuralAsync(Visitor owner)
    {
        var kind = (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .First(one => one.GetProperty("key").GetString() == "mural");
        var id = kind.GetProperty("id").GetInt64();
        var settings = (await owner.GetAsync($"/api/kinds/{id}")).GetProperty("settings");
        return (id, JsonNode.Parse(settings.GetRawText())!.AsObject());
    }

    private static object Said(string film = "", string question = "What if it rains?", string answer = "I wait.") =>
        new
        {
            text = "A wall takes five weeks.",
            film,
            questions = new[] { new { question, answer } },
        };

    private static async Task<HttpResponseMessage> SaveAsync(Visitor owner, object? introduction)
    {
        var (kind, settings) = await MuralAsync(owner);
        settings["introduction"] = introduction is null ? null : JsonSerializer.SerializeToNode(introduction);
        return await owner.SendAsync(HttpMethod.Put, $"/api/kinds/{kind}/settings", JsonContent.Create(settings));
    }

    [Fact]
    public async Task The_client_reads_it_once_its_part_is_open_as_it_was_when_the_project_began()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var saved = await SaveAsync(owner, Said(film: "www.marrin.example/film"));
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        var (project, page) = await studio.ProposeAsync(owner, client, "reads@begin.example");
        async Task<JsonElement> ShownAsync() =>
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("introduction");
        Assert.Equal(JsonValueKind.Null, (await ShownAsync()).ValueKind);
        var opened = await owner.PostAsync(
            $"/api/projects/{project}/parts",
            new { part = "Introduction", open = true }
        );
        Assert.True(opened.IsSuccessStatusCode, await opened.Content.ReadAsStringAsync());
        var shown = await ShownAsync();
        Assert.Equal("https://www.marrin.example/film", shown.GetProperty("film").GetString());
        Assert.Equal("I wait.", shown.GetProperty("questions")[0].GetProperty("answer").GetString());
        Assert.True((await SaveAsync(owner, Said(answer: "I paint."))).IsSuccessStatusCode);
        Assert.Equal("I wait.", (await ShownAsync()).GetProperty("questions")[0].GetProperty("answer").GetString());
    }

    [Fact]
    public async Task A_page_that_does_not_know_it_leaves_it_as_it_is()
    {
        var owner = await studio.OwnerAsync();
        Assert.True((await SaveAsync(owner, Said())).IsSuccessStatusCode);
        Assert.True((await SaveAsync(owner, null)).IsSuccessStatusCode);
        Assert.Equal("A wall takes five weeks.", (string?)(await MuralAsync(owner)).Settings["introduction"]!["text"]);
    }

    // the head of an MP4 (ISO/IEC 14496-12, 4.3: a box “ftyp” with its brands)
    private static readonly byte[] Mp4 =
    [
        0,
        0,
        0,
        24,
        .. "ftypisom"u8,
        0,
        0,
        2,
        0,
        .. "isommp42"u8,
        0,
        0,
        0,
        8,
        .. "mdat"u8,
    ];

    private static Task<HttpResponseMessage> FilmAsync(Visitor owner, byte[] bytes) =>
        owner.SendAsync(
            HttpMethod.Post,
            "/api/introduction-films?name=start.mp4",
            new ByteArrayContent(bytes) { Headers = { ContentType = new("application/octet-stream") } }
        );

    [Fact]
    public async Task A_film_is_kept_here_and_played_on_the_page_once_its_part_is_open()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        Assert.Equal(HttpStatusCode.BadRequest, (await FilmAsync(owner, "%PDF-1.4 no film"u8.ToArray())).StatusCode);
        var hash = (await (await FilmAsync(owner, Mp4)).Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("hash")
            .GetString();
        object With(string? film) =>
            new
            {
                text = "Watch.",
                film = "",
                questions = Array.Empty<object>(),
                filmFile = film,
                readFirst = true,
            };
        var refused = await SaveAsync(owner, With(new string('0', 64)));
        Assert.Contains("introduction.filmFile", await refused.Content.ReadAsStringAsync());
        Assert.True((await SaveAsync(owner, With(hash))).IsSuccessStatusCode);
        var (project, page) = await studio.ProposeAsync(owner, client, "film@begin.example");
        Assert.Equal(HttpStatusCode.NotFound, (await client.AskAsync($"{page}/api/introduction/film")).StatusCode);
        await owner.PostAsync($"/api/projects/{project}/parts", new { part = "Introduction", open = true });
        var film = await client.AskAsync($"{page}/api/introduction/film");
        Assert.Equal(
            ("video/mp4", "bytes"),
            (film.Content.Headers.ContentType?.MediaType, film.Headers.AcceptRanges.Single())
        );
        Assert.Equal(Mp4, await film.Content.ReadAsByteArrayAsync());
        await ReadsUntilTheStartCallAsync(owner, client, project, page);
        Assert.True((await SaveAsync(owner, Said())).IsSuccessStatusCode);
    }

    /// <summary>Booked, the page is only read until owner and client have spoken.</summary>
    private async Task ReadsUntilTheStartCallAsync(Visitor owner, Visitor client, long project, string page)
    {
        await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title = "Empty the yard",
                due = "2027-02-01",
                phase = (string?)null,
                doneBy = (string?)null,
                isClients = true,
            }
        );
        await owner.PostAsync($"/api/projects/{project}/parts", new { part = "Tasks", open = true });
        async Task<JsonElement> PageAsync() => await client.GetAsync($"{page}/api");
        Assert.False((await PageAsync()).GetProperty("readOnly").GetBoolean());
        await studio.SignedAsync(client, page);
        await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new { sort = "Countersign", words = "Isolde Marrin" }
        );
        var invoice = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        var paid = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "Paid",
                words = "",
                amount = invoice.GetProperty("owed").GetString(),
                means = "Transfer",
                invoice = invoice.GetProperty("id").GetInt64(),
            }
        );
        Assert.True(paid.IsSuccessStatusCode, await paid.Content.ReadAsStringAsync());
        var shown = await PageAsync();
        Assert.True(shown.GetProperty("readOnly").GetBoolean());
        Assert.DoesNotContain("Empty the yard", shown.GetProperty("toDo").GetRawText());
        var task = shown.GetProperty("parts").GetProperty("tasks")[0].GetProperty("id").GetString();
        var held = await client.PostAsync($"{page}/api/tasks/{task}/done", new { done = true });
        Assert.Equal(HttpStatusCode.Conflict, held.StatusCode);
        Assert.Contains("have spoken about the start", await held.Content.ReadAsStringAsync());
        await studio.WaitUntilAsync(NodaTime.Instant.FromUtc(2027, 1, 25, 12, 0));
        await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "Call", words = "We begin in March." });
        Assert.False((await PageAsync()).GetProperty("readOnly").GetBoolean());
        Assert.True((await client.PostAsync($"{page}/api/tasks/{task}/done", new { done = true })).IsSuccessStatusCode);
    }

    [Theory]
    [InlineData("javascript:alert(1)", "What?", "That.", "introduction.film")]
    [InlineData("", " ", "That.", "introduction.questions[0].question")]
    [InlineData("", "What?", "", "introduction.questions[0].answer")]
    public async Task What_is_wrong_is_named(string film, string question, string answer, string field)
    {
        var refused = await SaveAsync(await studio.OwnerAsync(), Said(film, question, answer));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains(field, await refused.Content.ReadAsStringAsync());
    }
}
