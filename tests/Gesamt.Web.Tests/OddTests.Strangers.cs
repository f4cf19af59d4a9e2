using System.Net;
using System.Net.Http.Json;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>What strangers can bring about, and what they cannot.</summary>
public sealed partial class OddTests
{
    [Fact]
    public async Task An_address_that_was_kept_and_is_none_is_told_on_the_record_and_blocks_nothing_else()
    {
        var owner = await studio.OwnerAsync();
        var (bad, good) = (
            await studio.InquireAsync(new Visitor(studio), "goes@lanternhouse.example"),
            await studio.InquireAsync(new Visitor(studio), "good@lanternhouse.example")
        );
        // as an older Gesamt took it from a form
        await studio.LookAsync(db =>
            db.People.Where(p => p.Mail == "goes@lanternhouse.example")
                .ExecuteUpdateAsync(set => set.SetProperty(p => p.Mail, "a..b@lanternhouse.example"))
        );
        var record = await owner.GetAsync($"/api/projects/{bad}");
        Assert.Equal("a..b@lanternhouse.example", record.GetProperty("involved").GetProperty("badAddress").GetString());
        var refused = await owner.PostAsync($"/api/projects/{bad}/letter", new { subject = "Hello", body = "Hello." });
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains("no address that a letter can be written to", await refused.Content.ReadAsStringAsync());
        await owner.PostAsync($"/api/projects/{good}/letter", new { subject = "Good", body = "Hello." });
        await studio.TickAsync();
        Assert.Equal(
            LetterState.Sent,
            await studio.LookAsync(db => db.Letters.Where(l => l.Subject == "Good").Select(l => l.State).SingleAsync())
        );
    }

    [Fact]
    public async Task A_stranger_cannot_have_the_studio_write_links_or_letters_without_end_to_anybody()
    {
        await using var alone = new EmptyStudio();
        for (var i = 0; i < 5; i++)
        {
            var visitor = new Visitor(alone);
            await visitor.TokenAsync("/forms/mural");
            Assert.True(
                (
                    await visitor.PostAsync(
                        "/forms/mural",
                        new
                        {
                            answers = new Dictionary<string, string>(Studio.Answers)
                            {
                                ["mail"] = "victim@elsewhere.example",
                                ["name"] = "Win at https://evil.example/x\r\nBcc: more@elsewhere.example",
                            },
                        }
                    )
                ).IsSuccessStatusCode
            );
            await alone.TickAsync();
        }
        var owner = await alone.OwnerAsync();
        var sent = (await owner.GetAsync("/api/post-office?address=victim@elsewhere.example"))
            .EnumerateArray()
            .Where(l => l.GetProperty("fromStudio").GetBoolean())
            .ToList();
        Assert.Equal(3, sent.Count);
        foreach (var letter in sent)
        {
            var text = (await owner.GetAsync($"/api/post-office/{letter.GetProperty("id").GetInt64()}"))
                .GetProperty("text")
                .GetString()!;
            Assert.DoesNotContain("evil.example", text);
            Assert.DoesNotContain("https:/", text);
            Assert.DoesNotContain("\nBcc", text);
        }
        // the others ask first
        Assert.Equal(2, await alone.LookAsync(db => db.Letters.CountAsync(l => l.State == LetterState.Held)));
    }

    [Fact]
    public async Task A_name_with_a_bracket_does_not_hold_its_letter_for_ever()
    {
        var owner = await studio.OwnerAsync();
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        await visitor.PostAsync(
            "/forms/mural",
            new
            {
                answers = new Dictionary<string, string>(Studio.Answers)
                {
                    ["mail"] = "bracket@lanternhouse.example",
                    ["name"] = "[Mona ]] [price",
                },
            }
        );
        await studio.TickAsync();
        var project = await studio.LookAsync(
            async (Gesamt.Store.GesamtDb db) => (await db.Projects.MaxAsync(p => p.Id)).Value
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/letter",
                    new { subject = "Your wall", body = "Could you measure it?" }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var from = await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now));
        await studio.WaitUntilAsync(from + Duration.FromDays(11));
        owner = await studio.OwnerAsync();
        var held = await studio.LookAsync(db =>
            db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.State == LetterState.Held)
                .Select(l => l.Id)
                .SingleAsync()
        );
        var answer = await owner.PostAsync(
            $"/api/letters/{held.Value}/release",
            new { subject = (string?)null, body = (string?)null }
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_voided_contract_cannot_be_signed_and_an_approved_brief_stays_as_it_was_approved()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "voided@lanternhouse.example");
        Assert.True(
            (await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s", "n" } })).IsSuccessStatusCode
        );
        var hash = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("contract")
            .GetProperty("hash")
            .GetString();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new { sort = "Lost", words = "They went elsewhere." }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            1,
            await studio.LookAsync(db =>
                db.Facts.CountAsync(f =>
                    f.ProjectId == new ProjectId(project) && f.Kind == nameof(Happening.ContractVoided)
                )
            )
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = "Mona Delarue",
                        agreed = true,
                        hash,
                    }
                )
            ).StatusCode
        );
        Assert.Equal(
            0,
            await studio.LookAsync(db =>
                db.Facts.CountAsync(f =>
                    f.ProjectId == new ProjectId(project) && f.Kind == nameof(Happening.ContractSigned)
                )
            )
        );

        var (second, mona) = (
            await studio.InquireAsync(new Visitor(studio), "brief@lanternhouse.example"),
            new Visitor(studio)
        );
        var part = (await owner.GetAsync($"/api/projects/{second}"))
            .GetProperty("about")
            .GetProperty("brief")
            .GetProperty("parts")
            .EnumerateArray()
            .First(p => !p.GetProperty("private").GetBoolean() && p.GetProperty("use").GetString() != "Obstacle");
        async Task WriteAsync(string text) =>
            Assert.True(
                (
                    await owner.SendAsync(
                        HttpMethod.Put,
                        $"/api/projects/{second}/brief/{part.GetProperty("key").GetString()}",
                        JsonContent.Create(
                            new
                            {
                                text,
                                edition = (await owner.GetAsync($"/api/projects/{second}"))
                                    .GetProperty("about")
                                    .GetProperty("brief")
                                    .GetProperty("parts")
                                    .EnumerateArray()
                                    .First(p => p.GetProperty("key").GetString() == part.GetProperty("key").GetString())
                                    .GetProperty("edition")
                                    .GetInt32(),
                            }
                        )
                    )
                ).IsSuccessStatusCode
            );
        await WriteAsync("A lantern.");
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{second}/brief/put",
                    new { subject = "The brief", body = "Read it: [page link]" }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var own = await studio.EnterAsync(owner, mona, "brief@lanternhouse.example");
        var shown = (await mona.GetAsync($"{own}/api")).GetProperty("parts").GetProperty("brief");
        Assert.True(
            (
                await mona.PostAsync($"{own}/api/brief/approve", new { hash = shown.GetProperty("hash").GetString() })
            ).IsSuccessStatusCode
        );
        await WriteAsync("Two lanterns.");
        var approved = (await mona.GetAsync($"{own}/api")).GetProperty("parts").GetProperty("brief");
        Assert.Contains("A lantern.", approved.GetRawText());
        Assert.DoesNotContain("Two lanterns.", approved.GetRawText());
        Assert.True(
            (await owner.GetAsync($"/api/projects/{second}"))
                .GetProperty("about")
                .GetProperty("brief")
                .GetProperty("changed")
                .GetBoolean()
        );
    }

    [Fact]
    public async Task A_letter_whose_link_would_open_nothing_is_held_and_says_so()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "closed@lanternhouse.example");
        Assert.True((await owner.PostAsync($"/api/projects/{project}/link", new { open = false })).IsSuccessStatusCode);
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new { subject = "Page", body = "Look: [page link]" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("Their page is closed", await refused.Content.ReadAsStringAsync());
        // closed while it was on its way
        Assert.True((await owner.PostAsync($"/api/projects/{project}/link", new { open = true })).IsSuccessStatusCode);
        var tomorrow = await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now + Duration.FromDays(1)));
        var later = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new
            {
                subject = "Page",
                body = "Look: [page link]",
                sendAt = $"{tomorrow.InUtc().Date:uuuu-MM-dd}T12:00:00",
            }
        );
        Assert.True(later.IsSuccessStatusCode, await later.Content.ReadAsStringAsync());
        Assert.True((await owner.PostAsync($"/api/projects/{project}/link", new { open = false })).IsSuccessStatusCode);
        await studio.WaitUntilAsync(tomorrow + Duration.FromDays(1));
        var letter = await studio.LookAsync(db =>
            db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.Subject == "Page").SingleAsync()
        );
        Assert.Equal(LetterState.Draft, letter.State);
        Assert.Contains("Their page is closed", letter.Problem);
    }

    [Fact]
    public async Task Line_breaks_in_names_break_no_calendar_and_no_card()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "breaks@lanternhouse.example");
        // as an older Gesamt took it
        await studio.LookAsync(db =>
            db.People.Where(p => p.Mail == "breaks@lanternhouse.example")
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(p => p.Name, "Mona\r\nX-Evil: yes\r\nATTENDEE:mailto:evil@x.example\"; CN=b")
                        .SetProperty(p => p.Profile, "https://a.example\r\nX-Evil: yes")
                )
        );
        await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project))
                .ExecuteUpdateAsync(set => set.SetProperty(p => p.Title, "Wall\r\nX-Evil: yes"))
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/meetings",
                    new
                    {
                        kind = (await owner.GetAsync("/api/meeting-kinds"))[0].GetProperty("id").GetInt32(),
                        start = "2027-06-01T10:00:00",
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var invitation = await studio.LookAsync(db =>
            db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.Invitation != null)
                .Select(l => l.Invitation!)
                .SingleAsync()
        );
        var card = await (await owner.AskAsync("/api/people.vcf")).Content.ReadAsStringAsync();
        foreach (var text in new[] { invitation, card })
            Assert.DoesNotContain(
                text.ReplaceLineEndings("\n").Split('\n'),
                line =>
                    line.StartsWith("X-Evil", StringComparison.OrdinalIgnoreCase)
                    || line.StartsWith("ATTENDEE:mailto:evil", StringComparison.OrdinalIgnoreCase)
            );
    }
}
