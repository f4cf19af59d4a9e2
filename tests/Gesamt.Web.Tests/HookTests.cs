using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace Gesamt.Web.Tests;

/// <summary>Other programs: told what happens, signed and tried again; reading, and bringing inquiries, with a key.</summary>
public sealed class HookTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private sealed record Call(string Id, string Timestamp, string Signature, string Body);

    /// <summary>A small receiver that answers as it is told, the last way from then on.</summary>
    private sealed class Receiver : IAsyncDisposable
    {
        private readonly WebApplication app;
        private readonly Queue<int> answers;

        private Receiver(WebApplication app, Queue<int> answers) => (this.app, this.answers) = (app, answers);

        public List<Call> Calls { get; } = [];
        public string Address => $"{app.Urls.First()}/hook";

        public static async Task<Receiver> StartAsync(params int[] answers)
        {
            var builder = WebApplication.CreateSlimBuilder();
            builder.Logging.ClearProviders();
            var app = builder.Build();
            app.Urls.Add("http://127.0.0.1:0");
            var receiver = new Receiver(app, new(answers));
            app.MapPost("/hook", receiver.TakeAsync);
            await app.StartAsync(TestContext.Current.CancellationToken);
            return receiver;
        }

        private async Task<IResult> TakeAsync(HttpRequest request)
        {
            using var reader = new StreamReader(request.Body, Encoding.UTF8);
            lock (Calls)
                Calls.Add(
                    new(
                        request.Headers["webhook-id"]!,
                        request.Headers["webhook-timestamp"]!,
                        request.Headers["webhook-signature"]!,
                        reader.ReadToEndAsync().Result
                    )
                );
            return await Task.FromResult(Results.StatusCode(answers.Count > 1 ? answers.Dequeue() : answers.Peek()));
        }

        public ValueTask DisposeAsync() => app.DisposeAsync();
    }

    private async Task<JsonElement> AddAsync(
        Visitor owner,
        string name,
        string address,
        bool inside,
        params string[] events
    )
    {
        var answer = await owner.PostAsync(
            "/api/hooks",
            new
            {
                name,
                address,
                events,
                inside,
                off = false,
                edition = 0,
            }
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonDocument
            .Parse(await answer.Content.ReadAsStringAsync())
            .RootElement.EnumerateArray()
            .Single(h => h.GetProperty("name").GetString() == name);
    }

    private async Task AdvanceAsync(Duration by) =>
        await studio.WaitUntilAsync(
            await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now)) + by
        );

    [Fact]
    public async Task A_call_is_signed_tried_again_and_taken_once_under_one_id()
    {
        await using var receiver = await Receiver.StartAsync(500, 503, 204);
        var owner = await studio.OwnerAsync();
        var hook = await AddAsync(owner, "The till", receiver.Address, inside: true, "InquiryCame");
        var project = await studio.InquireAsync(new Visitor(studio), "hook@lanternhouse.example");
        await studio.TickAsync();
        Assert.Single(receiver.Calls);
        await studio.TickAsync(); // not before its time
        Assert.Single(receiver.Calls);
        await AdvanceAsync(Duration.FromMinutes(3));
        await AdvanceAsync(Duration.FromMinutes(5));
        await AdvanceAsync(Duration.FromHours(20));
        Assert.Equal(3, receiver.Calls.Count);
        Assert.Single(receiver.Calls.Select(call => call.Id).Distinct());
        var body = JsonDocument.Parse(receiver.Calls[0].Body).RootElement;
        Assert.Equal(
            ("InquiryCame", project),
            (body.GetProperty("event").GetString(), body.GetProperty("project").GetInt64())
        );
        // the receiver's own reckoning: HMAC-SHA-256 of id.timestamp.body with the secret's bytes
        var key = Convert.FromBase64String(hook.GetProperty("secret").GetString()!["whsec_".Length..]);
        Assert.All(
            receiver.Calls,
            call =>
                Assert.Equal(
                    $"v1,{Convert.ToBase64String(HMACSHA256.HashData(key, Encoding.UTF8.GetBytes($"{call.Id}.{call.Timestamp}.{call.Body}")))}",
                    call.Signature
                )
        );
        var row = (await (await studio.OwnerAsync()).GetAsync("/api/hooks"))
            .EnumerateArray()
            .Single(h => h.GetProperty("name").GetString() == "The till");
        Assert.Equal((1, 0), (row.GetProperty("taken").GetInt32(), row.GetProperty("waiting").GetInt32()));
    }

    [Fact]
    public async Task An_address_inside_the_house_is_never_called_unless_it_is_allowed()
    {
        await using var receiver = await Receiver.StartAsync(204);
        var owner = await studio.OwnerAsync();
        // a name outside that resolves to an address inside would be refused alike; http outside is refused when it is typed
        Assert.Contains(
            "\"address\"",
            await (
                await owner.PostAsync(
                    "/api/hooks",
                    new
                    {
                        name = "Plain",
                        address = receiver.Address,
                        events = new[] { "Ended" },
                        inside = false,
                        off = false,
                        edition = 0,
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        var hook = await AddAsync(
            owner,
            "Sly",
            receiver.Address.Replace("http:", "https:", StringComparison.Ordinal),
            inside: false,
            "Ended"
        );
        var tested = JsonDocument
            .Parse(
                await (
                    await owner.PostAsync($"/api/hooks/{hook.GetProperty("id").GetInt32()}/test")
                ).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.False(tested.GetProperty("taken").GetBoolean());
        Assert.Contains("inside the house", tested.GetProperty("words").GetString());
        Assert.Empty(receiver.Calls);
    }

    [Fact]
    public async Task A_step_calls_its_hook_exactly_once_and_tells_nothing_private()
    {
        await using var receiver = await Receiver.StartAsync(200);
        var owner = await studio.OwnerAsync();
        await AddAsync(owner, "Step hook", receiver.Address, inside: true);
        var kind = (await owner.GetAsync("/api/kinds")).EnumerateArray().First().GetProperty("id").GetInt64();
        var id = JsonDocument
            .Parse(
                await (
                    await owner.PostAsync(
                        "/api/routines",
                        new
                        {
                            kind,
                            name = (string?)null,
                            text = "routine: Tell\nbegins with: approved\nstep: call\nwhen: with approved\ndo: hook \"Step hook\"\nmode: by itself",
                            copy = (int?)null,
                        }
                    )
                ).Content.ReadAsStringAsync()
            )
            .RootElement.GetProperty("id")
            .GetInt32();
        await owner.PostAsync($"/api/routines/{id}/off", new { off = false });
        var project = await studio.InquireAsync(new Visitor(studio), "stephook@lanternhouse.example");
        await studio.LookAsync(
            async (Gesamt.Web.Hosting.Desk desk) =>
            {
                await desk.ActAsync(async act =>
                    await act.RecordAsync(
                        await act.OpenAsync(new(project)),
                        Gesamt.Core.Facts.Actor.Owner,
                        new Gesamt.Core.Facts.Happening.Approved()
                    )
                );
                return true;
            }
        );
        for (var i = 0; i < 3; i++)
            await studio.TickAsync();
        await AdvanceAsync(Duration.FromHours(20)); // into sending hours
        await studio.TickAsync();
        var call = Assert.Single(receiver.Calls);
        Assert.Equal(
            ["at", "client", "event", "id", "kind", "project", "title"],
            JsonDocument.Parse(call.Body).RootElement.EnumerateObject().Select(p => p.Name).Order()
        );
    }

    [Fact]
    public async Task A_key_reads_or_brings_inquiries_as_it_may_until_it_is_ended()
    {
        var owner = await studio.OwnerAsync();
        async Task<(int Id, string Key)> MakeAsync(bool mayRead, bool mayInquire) =>
            JsonDocument
                .Parse(
                    await (
                        await owner.PostAsync(
                            "/api/keys",
                            new
                            {
                                name = "A program",
                                mayRead,
                                mayInquire,
                            }
                        )
                    ).Content.ReadAsStringAsync()
                )
                .RootElement
                is var made
                ? (made.GetProperty("id").GetInt32(), made.GetProperty("key").GetString()!)
                : default;
        Assert.Contains(
            "mayRead",
            await (
                await owner.PostAsync(
                    "/api/keys",
                    new
                    {
                        name = "x",
                        mayRead = false,
                        mayInquire = false,
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        var (reader, bringer) = (await MakeAsync(true, false), await MakeAsync(false, true));
        await studio.InquireAsync(new Visitor(studio), "open@lanternhouse.example");
        using var client = studio.CreateClient();
        async Task<HttpResponseMessage> AskAsync(string path, string? key, object? body = null, string? once = null)
        {
            var request = new HttpRequestMessage(body is null ? HttpMethod.Get : HttpMethod.Post, path)
            {
                Content = body is null ? null : JsonContent.Create(body),
            };
            if (key is not null)
                request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", key);
            if (once is not null)
                request.Headers.Add("Idempotency-Key", once);
            return await client.SendAsync(request);
        }
        Assert.Equal(HttpStatusCode.Unauthorized, (await AskAsync("/open/v1/projects", null)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await AskAsync("/open/v1/projects", "gesamt_invented")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await AskAsync("/open/v1/projects", bringer.Key)).StatusCode);
        var projects = JsonDocument
            .Parse(await (await AskAsync("/open/v1/projects", reader.Key)).Content.ReadAsStringAsync())
            .RootElement.GetProperty("items");
        Assert.NotEqual(0, projects.GetArrayLength());
        Assert.DoesNotContain("lantern.", projects.GetRawText()); // what was said is not told
        Assert.Equal(HttpStatusCode.OK, (await AskAsync("/open/v1/people", reader.Key)).StatusCode);

        var inquiry = new
        {
            kind = "mural",
            name = "From a program",
            mail = "program@lanternhouse.example",
        };
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await AskAsync("/open/v1/inquiries", reader.Key, inquiry, "once-once-1")).StatusCode
        );
        Assert.Contains(
            "Idempotency-Key",
            await (await AskAsync("/open/v1/inquiries", bringer.Key, inquiry)).Content.ReadAsStringAsync()
        );
        var (first, second) = (
            await (
                await AskAsync("/open/v1/inquiries", bringer.Key, inquiry, "once-once-2")
            ).Content.ReadAsStringAsync(),
            await (
                await AskAsync("/open/v1/inquiries", bringer.Key, inquiry, "once-once-2")
            ).Content.ReadAsStringAsync()
        );
        Assert.Equal(first, second);
        Assert.Equal(
            1,
            await studio.LookAsync(db => db.People.CountAsync(p => p.Mail == "program@lanternhouse.example"))
        );
        Assert.Contains(
            "\"kind\"",
            await (
                await AskAsync(
                    "/open/v1/inquiries",
                    bringer.Key,
                    new
                    {
                        kind = "tapestry",
                        name = "x",
                        mail = "x@lanternhouse.example",
                    },
                    "once-once-3"
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.True((await owner.SendAsync(HttpMethod.Delete, $"/api/keys/{reader.Id}", null)).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await AskAsync("/open/v1/projects", reader.Key)).StatusCode);
        // only its hash is kept
        Assert.DoesNotContain(
            bringer.Key,
            await studio.LookAsync(db => db.ApiKeys.Select(k => k.Hash + k.Begins + k.Name).ToListAsync())
        );
        Assert.Contains(
            "/open/v1/inquiries",
            await (await client.GetAsync("/openapi/v1.json")).Content.ReadAsStringAsync()
        );
    }
}
