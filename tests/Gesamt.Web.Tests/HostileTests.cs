using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Routing;

namespace Gesamt.Web.Tests;

/// <summary>Every address there is, asked by those who should not and in ways nobody should.</summary>
public sealed class HostileTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly string[] OpenToAll = ["/api/session", "/api/{**rest}"];

    private IEnumerable<(string Method, string Pattern)> Doors(string prefix) =>
        from endpoint in studio
            .Services.GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>()
        let pattern = "/" + endpoint.RoutePattern.RawText!.TrimStart('/')
        where pattern.StartsWith(prefix, StringComparison.Ordinal) && !OpenToAll.Contains(pattern)
        from method in endpoint.Metadata.GetMetadata<Microsoft.AspNetCore.Routing.HttpMethodMetadata>()?.HttpMethods
            ?? []
        select (method, pattern);

    /// <summary>An address of that pattern, its places filled.</summary>
    private static string Filled(string pattern, string number = "1") =>
        System.Text.RegularExpressions.Regex.Replace(
            pattern,
            @"\{([a-z]+)(:[a-z]+)?\}",
            place =>
                place.Groups[2].Success
                    ? number
                    : place.Groups[1].Value switch
                    {
                        "what" => "Letter",
                        "session" => "abc",
                        var name => name,
                    }
        )
        + (
            pattern.EndsWith("/files") ? "?name=a.txt&group=Supplied"
            : pattern.EndsWith("/logo")
            || pattern.EndsWith("/picture")
            || pattern.EndsWith("/paper-files")
            || pattern.EndsWith("/imports")
            || pattern.EndsWith("/bank/statements")
            || pattern.EndsWith("/receipt")
            || pattern.Contains("/quotes/") && pattern.EndsWith("/file")
            || pattern.EndsWith("/letter-files")
            || pattern.EndsWith("/pictures")
            || pattern.EndsWith("/introduction-films")
                ? "?name=a.txt"
            : pattern.EndsWith("/reading") ? "?text=a"
            : pattern.EndsWith("/search") ? "?words=a"
            : ""
        );

    // what every client endpoint can read, so that none refuses before it has looked at the link
    private const string Any =
        """{"part":"RunSheet","to":"Show","given":true,"wording":"","chosen":[],"services":[],"words":"x","name":"x","agreed":true,"hash":"x","start":"2027-02-01T10:00:00Z","zone":"Europe/Dublin","done":true,"step":0,"edition":0,"cells":{"words":"x"},"struck":true}""";

    private static Task<HttpResponseMessage> AskAsync(Visitor visitor, string method, string path, string body = Any) =>
        visitor.SendAsync(
            new(method),
            path,
            method == "GET"
                ? null
                : new StringContent(
                    body == Any && path.Contains("/api/forms/") ? """{"answers":{}}""" : body,
                    Encoding.UTF8,
                    path.Contains("?name=")
                    || path.EndsWith("/table")
                    || path.EndsWith("/inquiries/letter")
                    || path.EndsWith("/take-over")
                    || path.EndsWith("/beside")
                        ? "application/octet-stream"
                        : "application/json"
                )
        );

    [Fact]
    public async Task No_door_of_the_owners_opens_to_a_stranger()
    {
        var stranger = new Visitor(studio);
        await stranger.TokenAsync("/api/session");
        var doors = Doors("/api/").ToList();
        Assert.True(doors.Count > 45, $"{doors.Count} doors");
        foreach (var (method, pattern) in doors)
            Assert.True(
                (await AskAsync(stranger, method, Filled(pattern))).StatusCode == HttpStatusCode.Unauthorized,
                $"{method} {pattern} opens"
            );
    }

    [Fact]
    public async Task No_door_of_a_client_page_opens_with_another_clients_link()
    {
        var owner = await studio.OwnerAsync();
        var (mona, ada) = (new Visitor(studio), new Visitor(studio));
        await studio.ProposeAsync(owner, mona, "mona3@lanternhouse.example");
        var (_, adas) = await studio.ProposeAsync(owner, ada, "ada3@lanternhouse.example");
        var doors = Doors("/p/{link}/api").ToList();
        Assert.True(doors.Count > 15, $"{doors.Count} doors");
        foreach (var (method, pattern) in doors)
            Assert.True(
                (await AskAsync(mona, method, Filled(pattern.Replace("/p/{link}", adas)))).StatusCode
                    == HttpStatusCode.Unauthorized,
                $"{method} {pattern} opens"
            );
    }

    [Theory] // whatever is sent there, the answer is a refusal that reads, never a fault of the server
    [
        InlineData("["),
        InlineData("[]"),
        InlineData("\"x\""),
        InlineData(
            "{\"sort\":7,\"to\":{},\"files\":\"x\",\"text\":[],\"answers\":3,\"words\":4,\"title\":{},\"body\":7,\"part\":\"x\",\"steps\":1,\"services\":{}}"
        ),
        InlineData("{}")
    ]
    public async Task Bodies_that_do_not_read_are_refused_everywhere(string body)
    {
        var owner = await studio.OwnerAsync();
        await studio.InquireAsync(new Visitor(studio), $"body{body.Length}@lanternhouse.example");
        foreach (
            var (method, pattern) in Doors("/api/")
                .Where(door =>
                    door.Method is "POST" or "PUT"
                    && !door.Pattern.EndsWith("end-all")
                    && !door.Pattern.EndsWith("/clock")
                )
        )
        {
            var answer = await AskAsync(owner, method, Filled(pattern), body);
            Assert.True(
                (int)answer.StatusCode < 500,
                $"{method} {pattern} with {body}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}"
            );
        }
    }

    [Theory]
    [InlineData("0"), InlineData("-1"), InlineData("9223372036854775807"), InlineData("99999999999999999999")]
    public async Task Numbers_that_name_nothing_are_answered_with_not_found(string number)
    {
        var owner = await studio.OwnerAsync();
        foreach (
            var (method, pattern) in Doors("/api/")
                .Where(door =>
                    door.Method == "GET" && door.Pattern.Contains(":long") && !door.Pattern.EndsWith("services")
                )
        )
        {
            var answer = await AskAsync(owner, method, Filled(pattern, number));
            Assert.True(
                answer.StatusCode == HttpStatusCode.NotFound,
                $"{pattern} with {number}: {(int)answer.StatusCode}"
            );
        }
    }

    [Theory] // a row for a project that is not there would break a foreign key: said before, never found out by the database
    [
        InlineData("Notes", "2027-02-01"),
        InlineData("Rows", "2027-02-01"),
        InlineData("Call", "2027-02-01"),
        InlineData("Task", null)
    ]
    public async Task What_is_written_on_a_project_that_is_not_there_is_refused(string sort, string? day)
    {
        var owner = await studio.OwnerAsync();
        var body = JsonSerializer.Serialize(
            new
            {
                sort,
                name = "x",
                title = "x",
                text = "x",
                words = "x",
                what = "x",
                supplier = "x",
                amount = "10",
                tax = "23",
                time = "1:00",
                on = day,
                due = day,
                to = "Show",
                state = "Given",
                phase = "sketch",
                part = "Whole",
                open = true,
                shown = true,
                done = true,
                removed = true,
                edition = 0,
                subject = "x",
                body = "x",
                address = "https://a.example",
                label = "x",
                lists = Array.Empty<string>(),
                files = Array.Empty<long>(),
            }
        );
        foreach (
            var (method, pattern) in Doors("/api/projects/{id:long}").Where(door => door.Method is "POST" or "PUT")
        )
        {
            var answer = await AskAsync(owner, method, Filled(pattern, "9223372036854775807"), body);
            Assert.True(
                (int)answer.StatusCode < 500,
                $"{method} {pattern}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}"
            );
        }
    }

    [Fact]
    public async Task Queries_that_say_nonsense_are_refused_or_ignored()
    {
        var owner = await studio.OwnerAsync();
        foreach (
            var query in new[]
            {
                "columns=Nonsense",
                "group=7x",
                "year=abc",
                "year=-5",
                "year=99999",
                "most=-1",
                "sort=;DROP",
                "stage=",
                "words=%25%27%22",
            }
        )
            Assert.True((int)(await owner.AskAsync($"/api/register?{query}")).StatusCode < 500, query);
        foreach (var words in new[] { "", "\"", "*", "NEAR(", "a AND", "col:x", new string('x', 5_000), "%00", "-" })
            Assert.True(
                (await owner.AskAsync($"/api/search?words={Uri.EscapeDataString(words)}")).IsSuccessStatusCode,
                words[..Math.Min(20, words.Length)]
            );
    }

    [Theory]
    [InlineData("/api/search", "words", "This is missing.")]
    [InlineData("/api/register?year=abc", "year", "“abc” is not")]
    [InlineData("/api/register?stage=No%0A%22where", "stage", "“No\n\"where” is not")]
    public async Task What_does_not_read_in_an_address_is_named(string path, string name, string words)
    {
        var answer = await (await studio.OwnerAsync()).AskAsync(path);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(
            words,
            (await answer.Content.ReadFromJsonAsync<JsonElement>())
                .GetProperty("errors")
                .GetProperty(name)[0]
                .GetString()
        );
    }

    public static TheoryData<string, object, string> Forms =>
        new()
        {
            {
                "tasks",
                new
                {
                    title = "",
                    due = (string?)null,
                    phase = (string?)null,
                },
                "title"
            },
            {
                "tasks",
                new
                {
                    title = new string('x', 5_000),
                    due = (string?)null,
                    phase = (string?)null,
                },
                "title"
            },
            {
                "tasks",
                new
                {
                    title = "Paint",
                    due = (string?)null,
                    phase = "no such phase",
                },
                "phase"
            },
            { "notes", new { text = "" }, "words" },
            { "happened", new { sort = "Call", words = "" }, "words" },
            { "happened", new { sort = "Rest", words = "" }, "words" },
            {
                "happened",
                new
                {
                    sort = "Rest",
                    words = "waiting",
                    until = "2020-01-01",
                },
                "until"
            },
            {
                "happened",
                new
                {
                    sort = "PriceAgreed",
                    amount = "-3",
                    tax = "23",
                    onBooking = "40",
                },
                "amount"
            },
            {
                "happened",
                new
                {
                    sort = "PriceAgreed",
                    amount = "1200.505",
                    tax = "23",
                    onBooking = "40",
                },
                "amount"
            },
            {
                "happened",
                new
                {
                    sort = "PriceAgreed",
                    amount = "1200",
                    tax = "230",
                    onBooking = "40",
                },
                "tax"
            },
            {
                "happened",
                new
                {
                    sort = "PriceAgreed",
                    amount = "1200",
                    tax = "23",
                    onBooking = "x",
                },
                "onBooking"
            },
            { "happened", new { sort = "Referred", words = "" }, "words" },
            { "happened", new { sort = "SignedOnPaper", file = 77 }, "file" },
            { "happened", new { sort = "Fit", on = "2099-01-01" }, "on" },
            {
                "date",
                new
                {
                    to = "2027-05-14",
                    also = Array.Empty<string>(),
                    confirmed = true,
                },
                "to"
            },
            {
                "date",
                new
                {
                    to = "9000-01-01",
                    also = Array.Empty<string>(),
                    confirmed = true,
                },
                "to"
            },
            { "phases", new { phase = "no such phase", state = "Done" }, "phase" },
            {
                "reviews",
                new
                {
                    files = new[] { 99 },
                    phase = (string?)null,
                    subject = "s",
                    body = "b",
                    beyond = false,
                },
                "files"
            },
            { "date", new { also = Array.Empty<string>(), confirmed = true }, "to" },
            { "happened", new { sort = "Whatever", words = "x" }, "sort" },
            { "letter", new { subject = "", body = "" }, "subject" },
            { "letter", new { subject = "s", body = new string('x', 60_000) }, "body" },
        };

    [Theory, MemberData(nameof(Forms))]
    public async Task A_form_filled_wrongly_names_its_field(string form, object body, string field)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"form{Guid.NewGuid():n}@lanternhouse.example");
        var answer = await owner.PostAsync($"/api/projects/{project}/{form}", body);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(
            field,
            System
                .Text.Json.JsonDocument.Parse(text)
                .RootElement.GetProperty("errors")
                .EnumerateObject()
                .Select(error => error.Name)
        );
    }

    [Fact]
    public async Task Markup_comes_back_as_text_and_nothing_is_lost()
    {
        const string Markup = "<img src=x onerror=alert(1)> & “quotes” \u0000 \u202e";
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "markup3@lanternhouse.example");
        Assert.True(
            (await owner.PostAsync($"/api/projects/{project}/notes", new { text = Markup })).IsSuccessStatusCode
        );
        var answer = await owner.AskAsync($"/api/projects/{project}");
        Assert.Equal("application/json", answer.Content.Headers.ContentType!.MediaType);
        Assert.Contains(
            Markup.Replace("\u0000 ", ""),
            (await answer.Content.ReadFromJsonAsync<System.Text.Json.JsonElement>())
                .GetProperty("line")
                .GetProperty("past")
                .EnumerateArray()
                .Select(entry => entry.GetProperty("title").GetString())
        );
    }

    [Fact]
    public async Task An_act_sent_twice_at_once_happens_once()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "twice3@lanternhouse.example");
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    owner.PostAsync(
                        $"/api/projects/{project}/tasks",
                        new
                        {
                            title = "Paint it once",
                            due = (string?)null,
                            phase = (string?)null,
                        },
                        "one-key-for-this-task"
                    )
                )
        );
        Assert.All(answers, answer => Assert.Equal(HttpStatusCode.OK, answer.StatusCode));
        Assert.Single((await Task.WhenAll(answers.Select(answer => answer.Content.ReadAsStringAsync()))).Distinct());
        Assert.Equal(1, await studio.LookAsync(db => db.Tasks.CountAsync(t => t.Title == "Paint it once")));
    }
}
