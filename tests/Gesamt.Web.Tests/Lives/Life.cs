using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Gesamt.Core.Calendar;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace Gesamt.Web.Tests.Lives;

/// <summary>Something that must never happen in a studio's life.</summary>
public sealed class LifeException(string what) : Exception(what);

/// <summary>A studio of which its life takes place over HTTP alone; the server, the file and the stand-ins are the real ones.</summary>
public sealed class LivedStudio() : Studio(withProjects: false)
{
    /// <summary>What went wrong without anybody having been told.</summary>
    public Mishaps Mishaps { get; } = new();

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        base.ConfigureWebHost(builder);
        builder
            .UseSetting("Logging:LogLevel:Default", "Error")
            .ConfigureLogging(logs => logs.ClearProviders().AddProvider(Mishaps));
        // what acts by itself does so where the life says, not at a moment of its own: a seed is the same life each time
        builder.ConfigureServices(services =>
        {
            foreach (
                var ticker in services
                    .Where(one => one.ServiceType == typeof(IHostedService) && one.ImplementationFactory is not null)
                    .ToList()
            )
                services.Remove(ticker);
        });
        builder.UseSetting("Gesamt:OpenCallsPerMinute", "100000").UseSetting("Gesamt:UploadMegabytes", "5");
    }
}

/// <summary>One studio's life: who is in it, what they know, what was said to have been done.</summary>
public sealed class Life(LivedStudio studio) : IAsyncDisposable
{
    /// <summary>Words that stand in private places alone; wherever else they are found, something leaks.</summary>
    public const string Private = "qzx-never-shown";

    private static readonly Regex Link = new(@"http://studio\.example(/p/\S+)");
    private readonly HashSet<string> entered = [];

    public LivedStudio Studio { get; } = studio;
    public Visitor Owner { get; private set; } = null!;
    public Visitor Stranger { get; } = new(studio);

    /// <summary>Client pages by their address, each with the browser that opened it.</summary>
    public Dictionary<string, Visitor> Clients { get; } = [];

    /// <summary>Projects whose client was erased.</summary>
    public HashSet<long> Erased { get; } = [];

    /// <summary>What was confirmed, and how to see that it is still there.</summary>
    public List<(string What, Func<Task<bool>> IsThere)> Confirmed { get; } = [];
    public List<string> Log { get; } = [];
    public int Requests { get; private set; }
    public Instant Now => Studio.Services.GetRequiredService<TimeProvider>().Now();
    public LocalDate Today =>
        new StudioCalendar(DateTimeZoneProviders.Tzdb["Europe/Dublin"], [], new(8, 0), new(18, 0)).DateOf(Now);

    public async Task BeginAsync()
    {
        Owner = await Studio.OwnerAsync();
        await Stranger.TokenAsync("/api/session");
    }

    public ValueTask DisposeAsync() => Studio.DisposeAsync();

    /// <summary>Sends something and sees that the server never falls over.</summary>
    public async Task<(HttpStatusCode Status, string Body)> SendAsync(
        Visitor who,
        string method,
        string path,
        object? body = null
    )
    {
        Requests++;
        HttpContent? content = body switch
        {
            null => method is "POST" or "PUT" ? JsonContent.Create(new { }) : null,
            HttpContent ready => ready,
            JsonNode json => new StringContent(json.ToJsonString(), Encoding.UTF8, "application/json"),
            _ => JsonContent.Create(body),
        };
        var answer = await who.SendAsync(new(method), path, content);
        var text = await answer.Content.ReadAsStringAsync();
        if ((int)answer.StatusCode >= 500)
            throw new LifeException(
                $"{method} {path} answers {(int)answer.StatusCode}: {text[..Math.Min(text.Length, 400)]}\n  sent: {Short(body)}\n{string.Join("\n", Studio.Mishaps.Take())}"
            );
        return (answer.StatusCode, text);
    }

    public async Task<(HttpStatusCode Status, string Body)> OwnerAsync(
        string method,
        string path,
        object? body = null
    ) => await SendAsync(Owner, method, path, body);

    public async Task<JsonElement?> LookAsync(Visitor who, string path)
    {
        var (status, body) = await SendAsync(who, "GET", path);
        return status == HttpStatusCode.OK && body.StartsWith('{') | body.StartsWith('[')
            ? JsonDocument.Parse(body).RootElement
            : null;
    }

    /// <summary>Time goes on: everything due in between happens in its order, hour by hour where much is due.</summary>
    public async Task WaitAsync(Duration duration)
    {
        var to = Now + duration;
        while (Now < to)
        {
            var next = Duration.Min(to - Now, Duration.FromHours(13));
            await Studio.WaitUntilAsync(Now + next);
        }
        // a session that was not used for two weeks has run out
        if (duration >= Duration.FromDays(1))
            await SignInAsync();
        await EnterAsync();
    }

    /// <summary>The owner signs in with the browser used before, which no stranger's guessing shuts out.</summary>
    private async Task SignInAsync()
    {
        await Owner.TokenAsync("/api/session");
        var (status, body) = await SendAsync(Owner, "POST", "/api/session", new { password = "harbour light" });
        if (status != HttpStatusCode.NoContent)
            throw new LifeException($"The owner cannot sign in: {(int)status} {body}");
        await Owner.TokenAsync("/api/session");
    }

    /// <summary>Clients open the newest link that was sent to them.</summary>
    public async Task EnterAsync()
    {
        foreach (var (id, text) in Letters())
        {
            if (!entered.Add(id))
                continue;
            foreach (Match match in Link.Matches(text))
            {
                var visitor = new Visitor(Studio);
                var answer = await visitor.AskAsync(match.Groups[1].Value);
                var page = answer.Headers.Location?.ToString() ?? "";
                if ((await visitor.AskAsync($"{page}/api")).StatusCode != HttpStatusCode.OK)
                    continue;
                await visitor.TokenAsync($"{page}/api");
                Clients[page] = visitor;
            }
        }
    }

    /// <summary>What lies in the post office, as its recipients read it.</summary>
    public List<(string Id, string Text)> Letters()
    {
        var post = Studio.Services.GetRequiredService<StandIns.PostOffice>();
        return
        [
            .. post.List(null)
                .Where(l => l.FromStudio)
                .Select(l =>
                    (l.Id.ToString(System.Globalization.CultureInfo.InvariantCulture), post.Letter(l.Id).Text)
                ),
        ];
    }

    public Task<List<long>> ProjectsAsync() =>
        Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Projects.OrderBy(p => p.Id).Select(p => p.Id.Value).ToListAsync()
        );

    private static string Short(object? body)
    {
        var text = body switch
        {
            null => "",
            HttpContent => "bytes",
            JsonNode json => json.ToJsonString(),
            _ => JsonSerializer.Serialize(body),
        };
        return text[..Math.Min(text.Length, 600)];
    }
}
