using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Store;
using Gesamt.Web.Hosting;
using Gesamt.Web.Ticking;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.Logging;

namespace Gesamt.Web.Tests;

/// <summary>The real server on a real SQLite file; with the demo's projects, or only its kinds.</summary>
public class Studio(bool withProjects, string? data = null) : WebApplicationFactory<Program>
{
    public string Data { get; } = data ?? Directory.CreateTempSubdirectory("gesamt-web").FullName;

    public async Task<Visitor> OwnerAsync()
    {
        var owner = new Visitor(this);
        await owner.TokenAsync("/api/session");
        (await owner.PostAsync("/api/session", new { password = "harbour light" })).EnsureSuccessStatusCode();
        await owner.TokenAsync("/api/session");
        return owner;
    }

    public async Task TickAsync() => await Services.GetRequiredService<Ticker>().TickAsync(CancellationToken.None);

    /// <summary>Puts a message into the studio's mailbox as it came over the wire.</summary>
    public void Mail(byte[] raw) => Services.GetRequiredService<StandIns.PostOffice>().Receive(raw);

    public void Mail(string raw) => Mail(System.Text.Encoding.UTF8.GetBytes(raw));

    public async Task WaitUntilAsync(Instant now)
    {
        ((AdjustableClock)Services.GetRequiredService<TimeProvider>()).Set(now, stands: true);
        await TickAsync();
    }

    /// <summary>Lets the clock run on from where it stands, as it does wherever the studio is lived in.</summary>
    public void LetTimeGoOn()
    {
        var clock = (AdjustableClock)Services.GetRequiredService<TimeProvider>();
        clock.Set(clock.Now(), stands: false);
    }

    /// <summary>Looks into the database as it is.</summary>
    public async Task<T> LookAsync<T>(Func<Desk, Task<T>> look)
    {
        await using var scope = Services.CreateAsyncScope();
        return await look(scope.ServiceProvider.GetRequiredService<Desk>());
    }

    public Task<T> LookAsync<T>(Func<GesamtDb, Task<T>> look) => LookAsync((Desk desk) => look(desk.Db));

    public static string Root { get; } = FindRoot();

    public static readonly Dictionary<string, string> Answers = new()
    {
        ["name"] = "Mona Delarue",
        ["mail"] = "mona@lanternhouse.example",
        ["wish"] = "A lantern.",
        ["size"] = "31",
        ["date"] = "2027-05-14",
        ["consent"] = "yes",
    };

    /// <summary>Whether its folder stays when it is ended, to be started on again.</summary>
    protected virtual bool KeepsData => false;

    /// <summary>When its clock stands as it starts, as ISO 8601 in UTC.</summary>
    protected virtual string Begins => "2027-01-25T10:30:00Z";

    /// <summary>Whether every commit reaches the disk, as it does when it is run.</summary>
    protected virtual bool Flushes => false;

    /// <summary>Counts what is sent to SQLite.</summary>
    public Statements Statements { get; } = new();

    protected override void ConfigureWebHost(IWebHostBuilder builder) =>
        builder
            .UseEnvironment("Production") // as it is run
            .ConfigureServices(services =>
                services.ConfigureDbContext<GesamtDb>(options => options.AddInterceptors(Statements))
            )
            .UseSetting("Logging:LogLevel:Default", "Critical")
            // many people of a test come from one address; what the limits do is tested where they are
            .UseSetting("Gesamt:SignInsPerMinute", "10000")
            .UseSetting("Gesamt:InquiriesPerMinute", "10000")
            .UseSetting("Gesamt:ClientCallsPerMinute", "100000")
            .UseSetting("Gesamt:Mode", "Test")
            .UseSetting("Gesamt:Data", Data)
            .UseSetting("Gesamt:Flushes", Flushes ? "true" : "false")
            .UseSetting("Gesamt:Address", "http://studio.example")
            .UseSetting("Gesamt:HoldSeconds", "0")
            .UseSetting("Gesamt:DemoFiles", Path.Combine(Root, "demo"))
            .UseSetting("Gesamt:DemoProjects", withProjects ? "true" : "false")
            .UseSetting("Gesamt:Clock", Begins)
            .UseSetting("Gesamt:ClockStands", "true");

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing && !KeepsData && Directory.Exists(Data))
            Directory.Delete(Data, recursive: true);
    }

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Gesamt.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new DirectoryNotFoundException("Gesamt.slnx is above the tests.");
    }
}

/// <summary>A studio with its kinds and no projects.</summary>
public sealed class EmptyStudio() : Studio(withProjects: false, Laid.Copy(withProjects: false));

/// <summary>A studio with the whole demo.</summary>
public sealed class FullStudio() : Studio(withProjects: true, Laid.Copy(withProjects: true));

/// <summary>Folders laid once and copied for every test that begins with one.</summary>
public static class Laid
{
    private static readonly Lazy<string> Empty = new(() => Lay(withProjects: false)),
        Full = new(() => Lay(withProjects: true));

    /// <returns>A folder of one's own.</returns>
    public static string Copy(bool withProjects)
    {
        var (laid, copy) = (
            (withProjects ? Full : Empty).Value,
            Directory.CreateTempSubdirectory("gesamt-web").FullName
        );
        foreach (var path in Directory.GetFiles(laid, "*", SearchOption.AllDirectories))
        {
            var target = Path.Combine(copy, Path.GetRelativePath(laid, path));
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            File.Copy(path, target);
        }
        return copy;
    }

    private static string Lay(bool withProjects)
    {
        using var studio = new Laying(withProjects);
        _ = studio.Server;
        // the house goes on where a part of it fails, so what failed is asked for
        Assert.Empty(studio.Heard.Failures);
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(studio.Data, recursive: true);
        return studio.Data;
    }

    private sealed class Laying(bool withProjects) : Studio(withProjects)
    {
        public Failing Heard { get; } = new();

        protected override bool KeepsData => true;

        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder
                .ConfigureLogging(log => log.AddProvider(Heard))
                .UseSetting($"Logging:{nameof(Failing)}:LogLevel:Default", "Error");
        }
    }

    /// <summary>Keeps what is written down as an error.</summary>
    [ProviderAlias(nameof(Failing))]
    private sealed class Failing : ILoggerProvider, ILogger
    {
        public System.Collections.Concurrent.ConcurrentQueue<string> Failures { get; } = [];

        public ILogger CreateLogger(string categoryName) => this;

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Error;

        public void Log<TState>(
            LogLevel logLevel,
            EventId eventId,
            TState state,
            Exception? exception,
            Func<TState, Exception?, string> formatter
        ) => Failures.Enqueue($"{formatter(state, exception)} {exception}");

        public void Dispose() { }
    }
}

/// <summary>A server on a folder that is not its own: whoever made the folder takes it out, as another server may still write there.</summary>
public sealed class OnFolder(string data, Instant? at = null) : Studio(withProjects: false, data)
{
    protected override bool KeepsData => true;

    protected override string Begins => at?.ToString() ?? base.Begins;
}

/// <summary>Somebody with cookies of their own, who sends token and key as the pages do.</summary>
public sealed class Visitor(Studio studio)
{
    private readonly HttpClient client = studio.CreateClient(new() { AllowAutoRedirect = false, HandleCookies = true });

    public string Token { get; set; } = "";

    public async Task<JsonElement> TokenAsync(string path)
    {
        var answer = await GetAsync(path);
        Token = answer.GetProperty("token").GetString()!;
        return answer;
    }

    public Task<HttpResponseMessage> AskAsync(string path) => client.GetAsync(path);

    public async Task<JsonElement> GetAsync(string path)
    {
        var answer = await client.GetAsync(path);
        Assert.True(
            answer.IsSuccessStatusCode,
            $"{path}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}"
        );
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    public Task<HttpResponseMessage> PostAsync(string path, object? body = null, string? key = null) =>
        SendAsync(HttpMethod.Post, path, JsonContent.Create(WithToken(path, body ?? new { })), key);

    /// <summary>A public form carries its token beside the answers, as its page does.</summary>
    private object WithToken(string path, object body)
    {
        if (!path.StartsWith("/forms/", StringComparison.Ordinal))
            return body;
        var json = JsonSerializer.SerializeToNode(body)!.AsObject();
        json.TryAdd("token", Token);
        return json;
    }

    public Task<HttpResponseMessage> SendAsync(HttpMethod method, string path, HttpContent? content, string? key = null)
    {
        var request = new HttpRequestMessage(method, path) { Content = content };
        request.Headers.Add(Writes.TokenHeader, Token);
        request.Headers.Add(Writes.KeyHeader, key ?? Guid.NewGuid().ToString("n"));
        return client.SendAsync(request);
    }
}

/// <summary>Counts and keeps the statements that read.</summary>
public sealed class Statements : Microsoft.EntityFrameworkCore.Diagnostics.DbCommandInterceptor
{
    private readonly System.Collections.Concurrent.ConcurrentQueue<string> texts = [];

    public int Count => texts.Count;

    /// <summary>Since they were last forgotten.</summary>
    public IReadOnlyCollection<string> Texts => texts;

    public void Reset() => texts.Clear();

    public override ValueTask<Microsoft.EntityFrameworkCore.Diagnostics.InterceptionResult<System.Data.Common.DbDataReader>> ReaderExecutingAsync(
        System.Data.Common.DbCommand command,
        Microsoft.EntityFrameworkCore.Diagnostics.CommandEventData eventData,
        Microsoft.EntityFrameworkCore.Diagnostics.InterceptionResult<System.Data.Common.DbDataReader> result,
        CancellationToken cancellationToken = default
    )
    {
        texts.Enqueue(command.CommandText);
        return new(result);
    }

    public override Microsoft.EntityFrameworkCore.Diagnostics.InterceptionResult<System.Data.Common.DbDataReader> ReaderExecuting(
        System.Data.Common.DbCommand command,
        Microsoft.EntityFrameworkCore.Diagnostics.CommandEventData eventData,
        Microsoft.EntityFrameworkCore.Diagnostics.InterceptionResult<System.Data.Common.DbDataReader> result
    )
    {
        texts.Enqueue(command.CommandText);
        return result;
    }
}
