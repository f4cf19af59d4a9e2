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
