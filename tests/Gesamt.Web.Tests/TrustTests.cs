using System.Net;
using System.Net.Http.Json;
using System.Text;

namespace Gesamt.Web.Tests;

/// <summary>Doors that must stay shut, and refusals that say why.</summary>
public sealed class TrustTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    public static TheoryData<string, string> OwnersDoors =>
        new(
            from path in new[]
            {
                "today",
                "turns",
                "projects/1",
                "projects/1/entries/Letter/1",
                "contracts/1.pdf",
                "invoices/1.pdf",
                "projects/1/letter",
                "projects/1/proposal",
                "projects/1/services",
                "post-office",
                "post-office/1",
                "clock",
                "live",
            }
            select ("GET", $"/api/{path}")
        );

    public static TheoryData<string, string> OwnersActs =>
        new(
            from path in new[]
            {
                "projects/1/happened",
                "projects/1/notes",
                "projects/1/tasks/1/done",
                "projects/1/letter",
                "projects/1/letter/preview",
                "letters/1/release",
                "letters/1/skipped",
                "letters/1/take-back",
                "projects/1/proposal/send",
                "post-office/1/answer",
                "clock",
                "today/looked",
                "session/end-all",
            }
            select ("POST", $"/api/{path}")
        );

    [Theory, MemberData(nameof(OwnersDoors)), MemberData(nameof(OwnersActs))]
    public async Task Nothing_of_the_owners_opens_without_signing_in(string method, string path)
    {
        var stranger = new Visitor(studio);
        await stranger.TokenAsync("/api/session");
        var answer = await stranger.SendAsync(new(method), path, method == "GET" ? null : JsonContent.Create(new { }));
        Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);
    }

    [Fact]
    public async Task A_write_without_token_or_key_is_refused()
    {
        var owner = await studio.OwnerAsync();
        Assert.Contains(
            "Idempotency-Key",
            await (await owner.PostAsync("/api/today/looked", key: "short")).Content.ReadAsStringAsync()
        );
        owner.Token = "made up";
        Assert.Equal(HttpStatusCode.BadRequest, (await owner.PostAsync("/api/today/looked")).StatusCode);
    }

    [Fact]
    public async Task One_clients_link_opens_nothing_of_anothers()
    {
        var owner = await studio.OwnerAsync();
        var (mona, ada) = (new Visitor(studio), new Visitor(studio));
        var (_, monas) = await studio.ProposeAsync(owner, mona, "mona2@lanternhouse.example");
        var (project, adas) = await studio.ProposeAsync(owner, ada, "ada2@lanternhouse.example");
        foreach (var door in new[] { "", "/price?choose=s", "/contract.pdf", "/invoices/1.pdf" })
            Assert.Equal(HttpStatusCode.Unauthorized, (await mona.AskAsync($"{adas}/api{door}")).StatusCode);
        foreach (var act in new[] { "opened", "accept", "change", "decline", "sign", "pay", "settle" })
            Assert.Equal(
                HttpStatusCode.Unauthorized,
                (
                    await mona.PostAsync(
                        $"{adas}/api/{act}",
                        new
                        {
                            chosen = new[] { "s" },
                            words = "x",
                            name = "x",
                            agreed = true,
                            hash = "x",
                        }
                    )
                ).StatusCode
            );
        var page = (await mona.GetAsync($"{monas}/api")).GetRawText();
        foreach (var secret in new[] { "ada2@", "Waits", "likelihood", "routine", "still-open" })
            Assert.DoesNotContain(secret, page);

        await studio.LookAsync(db =>
            db.Links.Where(l => l.ProjectId == new ProjectId(project))
                .ExecuteUpdateAsync(set => set.SetProperty(l => l.Generation, l => l.Generation + 1))
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await ada.AskAsync($"{adas}/api")).StatusCode);
    }

    [Fact]
    public async Task A_link_with_a_wrong_token_sets_no_cookie()
    {
        var (_, page) = await studio.ProposeAsync(
            await studio.OwnerAsync(),
            new Visitor(studio),
            "wrong@lanternhouse.example"
        );
        var answer = await new Visitor(studio).AskAsync($"{page}/enter/made-up");
        Assert.False(answer.Headers.Contains("Set-Cookie"));
    }

    [Fact]
    public async Task A_robot_that_fills_what_people_leave_empty_makes_no_project()
    {
        var robot = new Visitor(studio);
        await robot.TokenAsync("/forms/mural");
        var before = await studio.LookAsync(db => db.Projects.CountAsync());
        Assert.True(
            (
                await robot.PostAsync("/forms/mural", new { answers = Studio.Answers, website = "http://buy.example" })
            ).IsSuccessStatusCode
        );
        Assert.Equal(before, await studio.LookAsync(db => db.Projects.CountAsync()));
    }

    [Theory]
    [
        InlineData("mail", "no address", "A mail address"),
        InlineData("size", "big", "A number"),
        InlineData("size", "-3", "A number"),
        InlineData("date", "soon", "A date"),
        InlineData("wish", "", "is to be answered"),
        InlineData("budget", "a lot", "Choose one of"),
        InlineData("other", "x", "no such field")
    ]
    public async Task A_wrong_answer_is_named_by_its_field(string field, string text, string allowed)
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        var answer = await visitor.PostAsync(
            "/forms/mural",
            new { answers = new Dictionary<string, string>(Studio.Answers) { [field] = text } }
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        var errors = System
            .Text.Json.JsonDocument.Parse(await answer.Content.ReadAsStringAsync())
            .RootElement.GetProperty("errors");
        Assert.Contains(allowed, errors.GetProperty(field)[0].GetString());
    }

    [Fact]
    public async Task Markup_in_an_answer_reaches_the_letter_as_text()
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        await visitor.PostAsync(
            "/forms/mural",
            new
            {
                answers = new Dictionary<string, string>(Studio.Answers)
                {
                    ["name"] = "<script>alert(1)</script>",
                    ["mail"] = "markup@lanternhouse.example",
                },
            }
        );
        await studio.TickAsync();
        var raw = await studio.LookAsync(
            async (Gesamt.Web.Hosting.Desk desk) =>
            {
                var letter = await desk
                    .Db.Letters.Where(l => l.ToMail == "markup@lanternhouse.example")
                    .OrderByDescending(l => l.Id)
                    .FirstAsync();
                var file = await desk.OpenAsync(letter.ProjectId!.Value);
                return Encoding.UTF8.GetString(Gesamt.Web.Letters.Sending.Compose(desk, file.Row, letter));
            }
        );
        Assert.DoesNotContain("<script>", raw[raw.IndexOf("text/html", StringComparison.Ordinal)..]);
    }

    [Theory]
    [InlineData("{"), InlineData("[]"), InlineData("""{"answers":3}"""), InlineData("")]
    public async Task A_body_that_does_not_read_is_refused_kindly(string body)
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        var answer = await visitor.SendAsync(
            HttpMethod.Post,
            "/forms/mural",
            new StringContent(body, Encoding.UTF8, "application/json")
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
    }

    [Fact]
    public async Task A_stale_draft_is_refused_with_both_texts()
    {
        var owner = await studio.OwnerAsync();
        var (project, _) = await studio.ProposeAsync(owner, new Visitor(studio), "stale@lanternhouse.example");
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        var answer = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            JsonContent.Create(
                new
                {
                    edition = 0,
                    offer = draft.GetProperty("offer"),
                    contract = "mine",
                }
            )
        );
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Contains("theirs", await answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Every_page_carries_a_strict_policy_and_no_referrer()
    {
        var answer = await new Visitor(studio).AskAsync("/api/session");
        var policy = answer.Headers.GetValues("Content-Security-Policy").Single();
        Assert.Contains("default-src 'none'", policy);
        Assert.DoesNotContain("unsafe", policy);
        Assert.Equal("no-referrer", answer.Headers.GetValues("Referrer-Policy").Single());
    }

    [Fact]
    public async Task An_unknown_address_of_the_api_is_not_a_page() =>
        Assert.Equal(HttpStatusCode.NotFound, (await (await studio.OwnerAsync()).AskAsync("/api/nothing")).StatusCode);

    [Fact]
    public async Task Signing_out_everywhere_ends_other_windows()
    {
        var (one, other) = (await studio.OwnerAsync(), await studio.OwnerAsync());
        Assert.True((await one.PostAsync("/api/session/end-all")).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await other.AskAsync("/api/today")).StatusCode);
    }
}
