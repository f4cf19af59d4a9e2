using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests;

/// <summary>What is put to a client for review, and what their page shows.</summary>
public sealed partial class DeliveryTests
{
    [Fact]
    public async Task One_round_too_many_is_refused_until_it_is_said_to_be_meant()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "rounds@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var draft = await KeepAsync(owner, project, "Drafts");
        object Up(bool beyond) =>
            new
            {
                files = new[] { draft },
                phase = "sketch",
                subject = "A draft",
                body = "Here: [page link]",
                beyond,
            };
        for (var round = 1; round <= 3; round++)
        {
            await DoAsync(owner, project, "reviews", Up(false));
            var open = (await client.GetAsync($"{page}/api"))
                .GetProperty("parts")
                .GetProperty("drafts")
                .GetProperty("rounds")[0];
            Assert.Equal($"Sketch, round {round} of 3", open.GetProperty("title").GetString());
            Assert.Equal(round == 3, open.GetProperty("last").GetBoolean());
            var again = await owner.PostAsync($"/api/projects/{project}/reviews", Up(false));
            Assert.Contains("still with the client", await again.Content.ReadAsStringAsync());
            await DoAsync(
                client,
                page,
                $"rounds/{open.GetProperty("id").GetString()}/changes",
                new { words = "Different, please." }
            );
        }
        var refused = await owner.PostAsync($"/api/projects/{project}/reviews", Up(false));
        Assert.Contains("3 rounds were agreed and this is round 4", await refused.Content.ReadAsStringAsync());
        await DoAsync(owner, project, "reviews", Up(true));
        Assert.True(
            (await client.GetAsync($"{page}/api"))
                .GetProperty("parts")
                .GetProperty("drafts")
                .GetProperty("rounds")[0]
                .GetProperty("beyond")
                .GetBoolean()
        );
    }

    private static async Task DoAsync(Visitor client, string page, string what, object body)
    {
        var answer = await client.PostAsync($"{page}/api/{what}", body);
        Assert.True(answer.IsSuccessStatusCode, $"{what}: {await answer.Content.ReadAsStringAsync()}");
    }

    [Fact]
    public async Task The_page_seen_as_the_client_is_the_page_the_client_sees()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "same@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var before = await owner.GetAsync($"/api/projects/{project}/as-client?with=Whole");
        Assert.NotEmpty(before.GetProperty("alsoVisible").EnumerateArray());
        Assert.Equal(
            JsonValueKind.Null,
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("whole").ValueKind
        ); // looking opens nothing
        await DoAsync(owner, project, "parts", new { part = "Whole", open = true });
        Assert.Equal(
            before.GetProperty("page").GetProperty("parts").GetProperty("whole").GetRawText(),
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("whole").GetRawText()
        );
    }

    [Fact]
    public async Task Closing_the_page_ends_its_link_and_a_new_one_does_not_revive_the_old()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "closed@lanternhouse.example");
        await DoAsync(owner, project, "link", new { open = false });
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
        await DoAsync(owner, project, "link", new { open = true });
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
    }
}
