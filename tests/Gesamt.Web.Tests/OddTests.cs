using System.Net;
using System.Net.Http.Json;
using System.Text;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Tests.Lives;

namespace Gesamt.Web.Tests;

/// <summary>What nobody should send: refused with a sentence, never a fault of the server.</summary>
public sealed class OddTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact] // each operation of the API with bodies that are odd in one place or another
    public async Task No_operation_falls_over_whatever_is_sent()
    {
        var owner = await studio.OwnerAsync();
        for (var i = 0; i < 3; i++)
            await studio.InquireAsync(new Visitor(studio), $"odd{i}@lanternhouse.example");
        var random = new Random(4711);
        List<string> fallen = [];
        foreach (
            var operation in Operations.All.Where(o =>
                o.Method != "GET"
                && o.Path.StartsWith("/api/", StringComparison.Ordinal)
                && o.Path is not ("/api/session" or "/api/session/end-all" or "/api/clock")
                && !o.Path.StartsWith("/api/sessions", StringComparison.Ordinal)
            )
        )
            for (var i = 0; i < 12; i++)
            {
                var path =
                    System.Text.RegularExpressions.Regex.Replace(
                        operation.Path,
                        @"\{[a-z]+\}",
                        _ => $"{random.Next(1, 4)}"
                    ) + (operation.TakesBytes ? "?name=a.csv&group=Supplied" : "");
                var body = operation.Body is { } schema ? Operations.Odd(schema, random, _ => random.Next(1, 4)) : null;
                var content = operation.TakesBytes
                    ? (HttpContent)
                        new ByteArrayContent(Encoding.UTF8.GetBytes(Operations.Pick(Operations.OddWords, random)))
                    : new StringContent(body?.ToJsonString() ?? "null", Encoding.UTF8, "application/json");
                if (operation.TakesBytes)
                    content.Headers.ContentType = new("application/octet-stream");
                var answer = await owner.SendAsync(new(operation.Method), path, content);
                if ((int)answer.StatusCode >= 500)
                    fallen.Add(
                        $"{operation.Method} {path}: {(int)answer.StatusCode} with {Core.Texts.ShortText.Of(body?.ToJsonString() ?? "bytes", 300)}"
                    );
            }
        Assert.True(fallen.Count == 0, string.Join("\n", fallen.Take(40)));
    }

    [Theory]
    [
        InlineData("application/json; charset=klingon", 415),
        InlineData("application/json; charset=utf-16", 415),
        InlineData("text/plain", 404),
        InlineData("application/json; charset=utf-8", 200),
        InlineData("nonsense", 415)
    ]
    public async Task A_content_type_that_cannot_be_read_is_refused(string type, int status)
    {
        var owner = await studio.OwnerAsync();
        var content = new StringContent("{\"text\":\"Ring Ada\",\"project\":null}");
        content.Headers.Remove("Content-Type");
        content.Headers.TryAddWithoutValidation("Content-Type", type);
        Assert.Equal(status, (int)(await owner.SendAsync(HttpMethod.Post, "/api/slips", content)).StatusCode);
    }

    [Theory]
    [InlineData("text/html"), InlineData("text/calendar"), InlineData("image/*"), InlineData("nonsense")]
    public async Task A_refusal_asked_for_as_something_else_is_told_all_the_same(string accept)
    {
        var client = studio.CreateClient();
        client.DefaultRequestHeaders.TryAddWithoutValidation("Accept", accept);
        foreach (var path in new[] { "/forms/none", "/feed/none.ics", "/logo" })
        {
            var answer = await client.GetAsync(path);
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
            Assert.Contains("There is no such", await answer.Content.ReadAsStringAsync());
        }
    }

    [Fact]
    public async Task Null_inside_lists_and_answers_is_named()
    {
        var owner = await studio.OwnerAsync();
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        var form = await visitor.PostAsync(
            "/forms/mural",
            new { answers = new Dictionary<string, string?> { ["name"] = null } }
        );
        Assert.Equal(
            (HttpStatusCode.BadRequest, true),
            (form.StatusCode, (await form.Content.ReadAsStringAsync()).Contains("answers.name"))
        );
        var project = await studio.InquireAsync(new Visitor(studio), "null@lanternhouse.example");
        var date = await owner.PostAsync(
            $"/api/projects/{project}/date",
            new
            {
                to = "2027-05-14",
                also = new string?[] { "x", null },
                confirmed = true,
            }
        );
        Assert.Equal(
            (HttpStatusCode.BadRequest, true),
            (date.StatusCode, (await date.Content.ReadAsStringAsync()).Contains("also[1]"))
        );
    }

    [Theory]
    [
        InlineData("-9998-01-01"),
        InlineData("0001-01-01"),
        InlineData("1899-12-31"),
        InlineData("2200-01-01"),
        InlineData("9999-12-31"),
        InlineData("9000-01-01")
    ]
    public async Task Absurd_dates_are_refused_everywhere_with_what_is_allowed(string date)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"date{Guid.NewGuid():n}@lanternhouse.example");
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        foreach (
            var (answer, field) in new[]
            {
                (
                    await owner.PostAsync(
                        $"/api/projects/{project}/date",
                        new
                        {
                            to = date,
                            also = Array.Empty<string>(),
                            confirmed = true,
                        }
                    ),
                    "to"
                ),
                (
                    await owner.PostAsync(
                        $"/api/projects/{project}/tasks",
                        new
                        {
                            title = "Paint",
                            due = date,
                            phase = (string?)null,
                        }
                    ),
                    "due"
                ),
                (
                    await owner.PostAsync(
                        $"/api/projects/{project}/happened",
                        new
                        {
                            sort = "Rest",
                            words = "x",
                            until = date,
                        }
                    ),
                    "until"
                ),
                (
                    await owner.PostAsync(
                        $"/api/projects/{project}/meetings",
                        new { kind = 1, start = $"{date}T10:00:00" }
                    ),
                    "start"
                ),
                (
                    await owner.PostAsync(
                        "/api/inquiries",
                        new
                        {
                            kind = 1,
                            name = "Ada",
                            mail = "ada@quill.example",
                            phone = (string?)null,
                            profile = (string?)null,
                            organisation = (string?)null,
                            title = (string?)null,
                            source = (string?)null,
                            words = (string?)null,
                            date,
                            person = (long?)null,
                            letter = (long?)null,
                            followUp = false,
                        }
                    ),
                    "date"
                ),
                (
                    await visitor.PostAsync(
                        "/forms/mural",
                        new { answers = new Dictionary<string, string>(Studio.Answers) { ["date"] = date } }
                    ),
                    "date"
                ),
            }
        )
        {
            var text = await answer.Content.ReadAsStringAsync();
            Assert.True(
                answer.StatusCode == HttpStatusCode.BadRequest
                    && text.Contains("from 1900 to 2199")
                    && text.Contains($"\"{field}\""),
                $"{field}: {(int)answer.StatusCode} {text}"
            );
        }
    }

    [Fact]
    public async Task Every_answer_carries_its_policies_errors_too()
    {
        var owner = await studio.OwnerAsync();
        foreach (
            var answer in new[]
            {
                await owner.AskAsync("/"),
                await owner.AskAsync("/api/projects/999"),
                await owner.AskAsync("/api/nothing"),
                await owner.AskAsync("/forms/none"),
                await owner.PostAsync("/nothing"),
                await owner.AskAsync("/assets/none.js"),
                await owner.AskAsync("/api/today"),
                await owner.PostAsync("/api/slips", "not an object"),
            }
        )
        {
            foreach (var header in new[] { "Content-Security-Policy", "X-Content-Type-Options", "Referrer-Policy" })
                Assert.True(
                    answer.Headers.Contains(header),
                    $"{answer.RequestMessage!.RequestUri} {(int)answer.StatusCode} has no {header}"
                );
        }
    }

    [Theory]
    [
        InlineData("POST", "/nothing"),
        InlineData("PUT", "/nothing/at/all"),
        InlineData("DELETE", "/"),
        InlineData("POST", "/api/nothing"),
        InlineData("POST", "/p/none"),
        InlineData("POST", "/i/mural")
    ]
    public async Task A_write_to_no_address_is_not_found_and_never_a_page(string method, string path)
    {
        var answer = await (await studio.OwnerAsync()).SendAsync(new(method), path, JsonContent.Create(new { }));
        Assert.True((int)answer.StatusCode is 404 or 405 or 415, $"{(int)answer.StatusCode}");
        Assert.NotEqual("text/html", answer.Content.Headers.ContentType?.MediaType);
    }

    [Fact]
    public async Task Strangers_read_of_the_open_part_alone()
    {
        var description = await new Visitor(studio).GetAsync("/openapi/v1.json");
        var paths = description.GetProperty("paths").EnumerateObject().Select(p => p.Name).ToList();
        Assert.NotEmpty(paths);
        Assert.All(paths, path => Assert.StartsWith("/open/v1/", path));
        Assert.DoesNotContain("routine", description.GetRawText(), StringComparison.OrdinalIgnoreCase);
    }

    [Theory] // RFC 6052, RFC 3056, RFC 4291, RFC 4380: the inside written as an IPv6 address
    [
        InlineData("64:ff9b::7f00:1", true),
        InlineData("64:ff9b::a00:1", true),
        InlineData("2002:7f00:1::", true),
        InlineData("2002:c0a8:1::", true),
        InlineData("::127.0.0.1", true),
        InlineData("::ffff:10.0.0.1", true),
        InlineData("2001:0:5ef5:79fd:0:0:f5ff:fffe", true),
        InlineData("ff02::1", true),
        InlineData("fd00::1", true),
        InlineData("::1", true),
        InlineData("::", true)
    ]
    [
        InlineData("64:ff9b::808:808", false),
        InlineData("2002:808:808::", false),
        InlineData("2606:4700::1111", false),
        InlineData("8.8.8.8", false)
    ]
    public void The_inside_is_the_inside_however_it_is_written(string address, bool inside) =>
        Assert.Equal(inside, OutsideConnections.IsInside(IPAddress.Parse(address)));

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
