using System.Net;
using System.Net.Http.Json;
using System.Text;
using Gesamt.Core.Facts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Tests.Lives;

namespace Gesamt.Web.Tests;

/// <summary>What nobody should send: refused with a sentence, never a fault of the server.</summary>
public sealed partial class OddTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
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
}
