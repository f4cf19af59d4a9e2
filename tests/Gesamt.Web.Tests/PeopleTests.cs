using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>People: matches, merging and splitting, parts, labels, slips, search.</summary>
public sealed partial class PeopleTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static async Task<JsonElement> JsonAsync(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonDocument.Parse(text).RootElement;
    }

    private async Task<(long Project, long Person)> InquireAsync(string name, string mail, string wish = "A lantern.")
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        Assert.True(
            (
                await visitor.PostAsync(
                    "/forms/mural",
                    new
                    {
                        answers = new Dictionary<string, string>(Studio.Answers)
                        {
                            ["name"] = name,
                            ["mail"] = mail,
                            ["wish"] = wish,
                        },
                    }
                )
            ).IsSuccessStatusCode
        );
        return await studio.LookAsync(
            async (Gesamt.Store.GesamtDb db) =>
                await db.Projects.OrderByDescending(p => p.Id).Select(p => new { p.Id, p.ClientId }).FirstAsync()
                    is var row
                    ? (row.Id.Value, row.ClientId.Value)
                    : default
        );
    }

    [Fact]
    public async Task A_planners_second_couple_is_offered_as_a_match_and_refused_for_good()
    {
        var owner = await studio.OwnerAsync();
        var (_, first) = await InquireAsync("Ann and Bea", "plan@planner.example");
        var (project, second) = await InquireAsync("Cid and Dov", "plan@planner.example");
        var record = await owner.GetAsync($"/api/projects/{project}");
        var match = Assert.Single(record.GetProperty("about").GetProperty("matches").EnumerateArray());
        Assert.Equal(
            (first, "the same mail address"),
            (match.GetProperty("person").GetInt64(), match.GetProperty("why").GetString())
        );
        Assert.Equal(second, record.GetProperty("head").GetProperty("client").GetProperty("id").GetInt64());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/people/{second}/different-from/{first}")).StatusCode
        );
        Assert.Equal(
            0,
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("about")
                .GetProperty("matches")
                .GetArrayLength()
        );
        Assert.Equal(0, (await owner.GetAsync($"/api/people/{first}")).GetProperty("matches").GetArrayLength());
    }

    [Fact]
    public async Task Merging_moves_the_projects_fills_in_what_was_unknown_and_can_be_undone()
    {
        var owner = await studio.OwnerAsync();
        var (p1, one) = await InquireAsync("Elin Vogt", "elin@harbourview.example");
        var (p2, two) = await InquireAsync("Elin Vogt", "elin.vogt@private.example");
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/people/{two}",
            JsonContent.Create(
                new
                {
                    sort = "Client",
                    name = "Elin Vogt",
                    greeted = (string?)null,
                    organisation = "Harbour View",
                    mail = "elin.vogt@private.example",
                    phone = "087 555 0111",
                    profile = (string?)null,
                    prefers = (string?)null,
                    address = (string?)null,
                    taxNumber = (string?)null,
                    notes = "",
                    edition = 0,
                }
            )
        );
        var differs = (await owner.GetAsync($"/api/projects/{p2}"))
            .GetProperty("about")
            .GetProperty("matches")[0]
            .GetProperty("differs")
            .ToString();
        Assert.Contains("elin@harbourview.example", differs);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/people/{two}/same-as/{one}", new { take = Array.Empty<string>() })).StatusCode
        );
        var kept = await owner.GetAsync($"/api/people/{one}");
        Assert.Equal(2, kept.GetProperty("projects").GetArrayLength());
        Assert.Equal(
            ("elin@harbourview.example", "087 555 0111"),
            (
                kept.GetProperty("details").GetProperty("mail").GetString(),
                kept.GetProperty("details").GetProperty("phone").GetString()
            )
        );
        // a letter from the other address is still theirs, and belongs to two projects now
        var tray = await studio.LookAsync(
            (Gesamt.Web.Hosting.Desk desk) =>
                Task.FromResult(
                    new Gesamt.Web.Letters.Incoming.Index(desk.Db, "x.example").OpenProjectsOf(
                        "elin.vogt@private.example"
                    )
                )
        );
        Assert.Equal(2, tray.Count);
        await owner.PostAsync($"/api/joins/{kept.GetProperty("joins")[0].GetProperty("undo").GetInt32()}/undo");
        Assert.Equal(
            two,
            (await owner.GetAsync($"/api/projects/{p2}"))
                .GetProperty("head")
                .GetProperty("client")
                .GetProperty("id")
                .GetInt64()
        );
        Assert.Equal(
            one,
            (await owner.GetAsync($"/api/projects/{p1}"))
                .GetProperty("head")
                .GetProperty("client")
                .GetProperty("id")
                .GetInt64()
        );
        Assert.Null(
            (await owner.GetAsync($"/api/people/{one}")).GetProperty("details").GetProperty("phone").GetString()
        );
    }

    [Fact]
    public async Task Splitting_ends_the_old_link_to_what_is_somebody_elses_and_undoing_opens_it_again()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "split@lanternhouse.example");
        var person = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("head")
            .GetProperty("client")
            .GetProperty("id")
            .GetInt64();
        Assert.Equal(HttpStatusCode.OK, (await client.AskAsync($"{page}/api")).StatusCode);
        var other = new
        {
            sort = "Client",
            name = "Somebody Else",
            greeted = (string?)null,
            organisation = (string?)null,
            mail = "else@lanternhouse.example",
            phone = (string?)null,
            profile = (string?)null,
            prefers = (string?)null,
            address = (string?)null,
            taxNumber = (string?)null,
            notes = "",
            edition = 0,
        };
        var made = (
            await JsonAsync(
                await owner.PostAsync(
                    $"/api/people/{person}/split",
                    new { projects = new[] { project }, person = other }
                )
            )
        )
            .GetProperty("id")
            .GetInt64();
        Assert.Equal(
            made,
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("head")
                .GetProperty("client")
                .GetProperty("id")
                .GetInt64()
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
        var undo = (await owner.GetAsync($"/api/people/{person}"))
            .GetProperty("joins")[0]
            .GetProperty("undo")
            .GetInt32();
        Assert.True((await owner.PostAsync($"/api/joins/{undo}/undo")).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.OK, (await client.AskAsync($"{page}/api")).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await owner.PostAsync($"/api/joins/{undo}/undo")).StatusCode);
    }

    [Fact]
    public async Task Who_reads_along_looks_and_does_not_answer_and_who_gets_the_letters_gets_them()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, _) = await studio.ProposeAsync(owner, client, "parts@lanternhouse.example");
        long Add(string name, string mail) =>
            JsonAsync(
                owner
                    .PostAsync(
                        "/api/people",
                        new
                        {
                            sort = "Client",
                            name,
                            greeted = (string?)null,
                            organisation = (string?)null,
                            mail,
                            phone = (string?)null,
                            profile = (string?)null,
                            prefers = (string?)null,
                            address = (string?)null,
                            taxNumber = (string?)null,
                            notes = "",
                            edition = 0,
                        }
                    )
                    .Result
            )
                .Result.GetProperty("id")
                .GetInt64();
        var (reader, contact) = (Add("Ray Reader", "ray@house.example"), Add("Connie Contact", "connie@house.example"));
        foreach (var (person, part) in new[] { (reader, "ReadsAlong"), (contact, "GetsMail") })
            Assert.True(
                (
                    await owner.PostAsync(
                        $"/api/projects/{project}/people",
                        new
                        {
                            person,
                            part,
                            has = true,
                        }
                    )
                ).IsSuccessStatusCode
            );

        var address = (await owner.GetAsync($"/api/projects/{project}/people/{reader}/link"))
            .GetProperty("address")
            .GetString()!
            .Replace("http://studio.example", "", StringComparison.Ordinal);
        var ray = new Visitor(studio);
        var page = (await ray.AskAsync(address)).Headers.Location!.ToString();
        await ray.TokenAsync($"{page}/api");
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await ray.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await ray.PostAsync($"{page}/api/change", new { words = "less" })).StatusCode
        );

        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/letter",
                    new { subject = "To you", body = "Here: [page link]" }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var connie = new Visitor(studio);
        var hers = await studio.EnterAsync(owner, connie, "connie@house.example");
        Assert.NotEqual(page, hers);
        Assert.True((await connie.PostAsync($"{hers}/api/change", new { words = "less" })).IsSuccessStatusCode);
        // a part taken away closes the page
        await owner.PostAsync(
            $"/api/projects/{project}/people",
            new
            {
                person = reader,
                part = "ReadsAlong",
                has = false,
            }
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await ray.AskAsync($"{page}/api")).StatusCode);
    }
}
