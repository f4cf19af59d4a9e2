using System.Net;
using System.Text.Json;
using Gesamt.Store;

namespace Gesamt.Web.Tests;

/// <summary>What a client gave access to, and several projects of one client on one page.</summary>
public sealed class AccessTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static async Task<JsonElement> SheetAsync(Visitor owner, long project) =>
        (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("access");

    private static object One(string what = "Site key", string place = "in the safe", string? since = null) =>
        new
        {
            what,
            place,
            givenBy = "Mona Delarue",
            since,
        };

    [Fact]
    public async Task What_was_given_is_told_with_who_and_since_when_until_it_is_handed_back()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "keys@access.example");
        var at = $"/api/projects/{project}/access";
        Assert.Equal(JsonValueKind.Null, (await SheetAsync(owner, project)).GetProperty("line").ValueKind);
        Assert.True((await owner.PostAsync(at, One(since: "2027-01-20"))).IsSuccessStatusCode);
        Assert.True(
            (
                await owner.PostAsync(
                    at,
                    new
                    {
                        what = "Drawings",
                        place = "www.drawings.example/wall",
                        givenBy = "",
                    }
                )
            ).IsSuccessStatusCode
        );
        var sheet = await SheetAsync(owner, project);
        Assert.Equal("Site key, Drawings; 1 to hand back", sheet.GetProperty("line").GetString());
        Assert.Equal(
            ["given by Mona Delarue, since Wed 20 Jan", ""],
            sheet.GetProperty("all").EnumerateArray().Select(one => one.GetProperty("about").GetString())
        );
        Assert.Equal("https://www.drawings.example/wall", sheet.GetProperty("all")[1].GetProperty("place").GetString());
        Assert.False(sheet.GetProperty("outstanding").GetBoolean());
        await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "NotAFit", words = "" });
        await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "GoneQuiet", words = "" });
        Assert.True((await SheetAsync(owner, project)).GetProperty("outstanding").GetBoolean());
        var id = sheet.GetProperty("all")[0].GetProperty("id").GetInt64();
        Assert.True((await owner.PostAsync($"{at}/{id}/back", new { back = true })).IsSuccessStatusCode);
        Assert.Equal("Site key, Drawings", (await SheetAsync(owner, project)).GetProperty("line").GetString());
        Assert.Contains(
            "Access handed back: Site key",
            (await owner.GetAsync($"/api/projects/{project}")).GetRawText()
        );
        Assert.True((await owner.PostAsync($"{at}/{id}/removed", new { removed = true })).IsSuccessStatusCode);
        Assert.Equal("Drawings", (await SheetAsync(owner, project)).GetProperty("line").GetString());
    }

    [Fact]
    public async Task What_is_wrong_is_named()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "wrong@access.example");
        foreach (var (body, field) in new[] { (One(what: " "), "what"), (One(since: "2028-01-01"), "since") })
        {
            var refused = await owner.PostAsync($"/api/projects/{project}/access", body);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        }
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await owner.PostAsync($"/api/projects/{project}/access/999/back", new { back = true })).StatusCode
        );
    }

    [Fact]
    public async Task Projects_of_one_client_lead_to_each_other_only_where_the_owner_put_them_together()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (first, page) = await studio.ProposeAsync(owner, client, "two@access.example");
        var second = await studio.InquireAsync(new Visitor(studio), "other@access.example");
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await owner.PostAsync($"/api/projects/{first}/together", new { with = second, together = true })
            ).StatusCode
        );
        await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var rows = await db.Projects.OrderBy(p => p.Id).ToListAsync();
                rows.Single(p => p.Id.Value == second).ClientId = rows.Single(p => p.Id.Value == first).ClientId;
                return await db.SaveChangesAsync();
            }
        );
        async Task<JsonElement[]> OthersAsync() =>
            [.. (await client.GetAsync($"{page}/api")).GetProperty("others").EnumerateArray()];
        Assert.Empty(await OthersAsync());
        Assert.True(
            (
                await owner.PostAsync($"/api/projects/{first}/together", new { with = second, together = true })
            ).IsSuccessStatusCode
        );
        var other = Assert.Single(await OthersAsync());
        var entered = new Visitor(studio);
        var way = new Uri(other.GetProperty("address").GetString()!).AbsolutePath;
        Assert.Equal(HttpStatusCode.Found, (await entered.AskAsync(way)).StatusCode);
        var there = await entered.GetAsync($"{way.Split("/enter/")[0]}/api");
        Assert.Single(there.GetProperty("others").EnumerateArray());
        // who only looks gets no key to it
        Assert.Equal(
            "",
            (await owner.GetAsync($"/api/projects/{first}/as-client"))
                .GetProperty("page")
                .GetProperty("others")[0]
                .GetProperty("address")
                .GetString()
        );
        await owner.PostAsync($"/api/projects/{second}/link", new { open = false });
        Assert.Empty(await OthersAsync());
        await owner.PostAsync($"/api/projects/{second}/link", new { open = true });
        Assert.Single(await OthersAsync());
        await owner.PostAsync($"/api/projects/{first}/together", new { with = second, together = false });
        Assert.Empty(await OthersAsync());
    }
}
