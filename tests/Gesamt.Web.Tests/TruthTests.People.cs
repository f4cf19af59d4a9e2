using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Store.Json;

namespace Gesamt.Web.Tests;

/// <summary>What is known of people is asked about, never overwritten.</summary>
public sealed partial class TruthTests
{
    [Fact]
    public async Task An_answer_that_contradicts_what_is_known_asks()
    {
        const string mail = "contrary@lanternhouse.example";
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        async Task<JsonElement> DetailAsync() =>
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("about")
                .GetProperty("details")
                .EnumerateArray()
                .First(d => d.GetProperty("name").GetString() == "wall size");
        var known = (await DetailAsync()).GetProperty("value").GetString();
        await studio.LookAsync(async db =>
        {
            var form = await db.Forms.SingleAsync(f => f.Slug == "mural-start");
            form.Fields = StoreJson.Write<List<FormField>>([
                .. StoreJson.Read<List<FormField>>(form.Fields),
                new("size", FieldSort.Number, "How large is it after all?", Unit: "m²", Fills: "wall size"),
            ]);
            return await db.SaveChangesAsync();
        });
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/forms",
                    new
                    {
                        slug = "mural-start",
                        subject = "Questions",
                        body = "They are here: [page link]",
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var page = await studio.EnterAsync(owner, client, mail);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await client.PostAsync(
                    $"{page}/api/forms/mural-start",
                    new
                    {
                        answers = new
                        {
                            key = "Ring the bell",
                            water = "yes",
                            size = "about 99",
                        },
                    }
                )
            ).StatusCode
        );

        Assert.Equal(
            (known, "99"),
            (
                (await DetailAsync()).GetProperty("value").GetString(),
                (await DetailAsync()).GetProperty("said").GetString()
            )
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/details/decide",
                    new { name = "wall size", take = true }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/details/decide",
                    new { name = "wall size", take = false }
                )
            ).StatusCode
        );
        Assert.Equal("99", (await DetailAsync()).GetProperty("value").GetString());
    }

    [Fact]
    public async Task Likeness_is_found_over_accents_case_and_order_and_a_merge_undone_leaves_later_edits()
    {
        var owner = await studio.OwnerAsync();
        async Task<long> AddAsync(string name, string mail, string? phone) => (
                await JsonAsync(
                    await owner.PostAsync(
                        "/api/people",
                        new
                        {
                            sort = "Client",
                            name,
                            greeted = (string?)null,
                            organisation = (string?)null,
                            mail,
                            phone,
                            profile = (string?)null,
                            prefers = (string?)null,
                            address = (string?)null,
                            taxNumber = (string?)null,
                            notes = "",
                            edition = 0,
                        }
                    )
                )
            ).GetProperty("id").GetInt64();
        var (one, other) = (
            await AddAsync("Zoë Gröhl-Núñez", "zoe1@like.example", "+353 87 555 0101"),
            await AddAsync("nunez GROHL zoe", "zoe2@like.example", null)
        );
        Assert.Contains(
            (await owner.GetAsync($"/api/people/{other}")).GetProperty("matches").EnumerateArray(),
            match => match.GetProperty("person").GetInt64() == one
        );
        Assert.True(
            (
                await owner.PostAsync($"/api/people/{one}/same-as/{other}", new { take = Array.Empty<string>() })
            ).IsSuccessStatusCode
        );
        var person = System.Text.Json.Nodes.JsonNode.Parse(
            (await owner.GetAsync($"/api/people/{other}")).GetProperty("details").GetRawText()
        )!;
        Assert.Equal("+353 87 555 0101", (string?)person["phone"]);
        person["address"] = "12 Later Street";
        Assert.True(
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/people/{other}",
                    System.Net.Http.Json.JsonContent.Create(person)
                )
            ).IsSuccessStatusCode
        );
        var undo = await studio.LookAsync(db => db.Joins.OrderByDescending(j => j.Id).Select(j => j.Id).FirstAsync());
        Assert.True((await owner.PostAsync($"/api/joins/{undo}/undo")).IsSuccessStatusCode);
        var after = (await owner.GetAsync($"/api/people/{other}")).GetProperty("details");
        Assert.Equal(
            ("12 Later Street", null),
            (after.GetProperty("address").GetString(), after.GetProperty("phone").GetString())
        );
    }

    [Fact]
    public async Task A_referral_names_the_colleague_that_was_chosen()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "refer@lanternhouse.example");
        var colleague = (
            await JsonAsync(
                await owner.PostAsync(
                    "/api/people",
                    new
                    {
                        sort = "Colleague",
                        name = "Ines Tolliver",
                        greeted = (string?)null,
                        organisation = "Tolliver Signs",
                        mail = "ines@tolliver.example",
                        phone = (string?)null,
                        profile = (string?)null,
                        prefers = (string?)null,
                        address = (string?)null,
                        taxNumber = (string?)null,
                        notes = "",
                        edition = 0,
                    }
                )
            )
        ).GetProperty("id").GetInt64();
        var text = (await owner.GetAsync($"/api/projects/{project}/letter?colleague={colleague}"))
            .GetProperty("templates")
            .EnumerateArray()
            .Single(t => t.GetProperty("key").GetString() == "referral");
        Assert.Contains("Ines Tolliver, Tolliver Signs, ines@tolliver.example", text.GetProperty("body").GetString());
        Assert.True(
            (
                await SayAsync(
                    owner,
                    project,
                    new
                    {
                        sort = "Referred",
                        colleague,
                        subject = "A colleague",
                        body = "Write to [colleague].",
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        Assert.True(
            await studio.LookAsync(db =>
                db.Letters.AnyAsync(l =>
                    l.ProjectId == new ProjectId(project)
                    && l.Body == "Write to Ines Tolliver, Tolliver Signs, ines@tolliver.example."
                )
            )
        );
    }
}
