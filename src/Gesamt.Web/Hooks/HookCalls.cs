using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Hooks;

/// <summary>What a web hook can be told of. A step of a routine calls it as <see cref="Step"/>.</summary>
public enum HookEvent
{
    InquiryCame,
    ProposalSent,
    ProposalAccepted,
    ContractSigned,
    PaymentReceived,
    HandedOver,
    Approved,
    Ended,
    Step,
}

/// <summary>What a web hook is told: no letters, no notes, nothing private.</summary>
/// <param name="Id">The same however often it is sent.</param>
public sealed record HookBody(
    string Id,
    HookEvent Event,
    string At,
    long Project,
    string Title,
    string Kind,
    string Client
);

/// <summary>How a test call was answered.</summary>
public sealed record HookTestDto(bool Taken, string Words);

/// <summary>Calls web hooks: queued in the transaction of what happened, signed, tried again with growing gaps for three days.</summary>
/// <remarks>Signed as the Standard Webhooks specification says (from memory): HMAC-SHA-256 over “id.timestamp.body” with the secret's bytes, in base64 behind “v1,”.</remarks>
public sealed class HookCalls(IServiceScopeFactory scopes, ILogger<HookCalls> log) : IEars, IDisposable
{
    private const int MostTries = 12;
    private const string SecretMark = "whsec_";

    private readonly HttpClient outside = new(OutsideConnections.Handler(inside: false, redirects: 0))
    {
        Timeout = TimeSpan.FromSeconds(10),
    };
    private readonly HttpClient inside = new(OutsideConnections.Handler(inside: true, redirects: 0))
    {
        Timeout = TimeSpan.FromSeconds(10),
    };

    /// <summary>Which event a fact is, if any hook may hear of it.</summary>
    public static HookEvent? EventOf(Happening what) =>
        what switch
        {
            Happening.InquiryCame => HookEvent.InquiryCame,
            Happening.ProposalSent => HookEvent.ProposalSent,
            Happening.ProposalAccepted => HookEvent.ProposalAccepted,
            Happening.ContractSigned { Signer: Core.Facts.Signer.Client } => HookEvent.ContractSigned,
            Happening.PaymentReceived => HookEvent.PaymentReceived,
            Happening.HandedOver => HookEvent.HandedOver,
            Happening.Approved => HookEvent.Approved,
            Happening.Ended => HookEvent.Ended,
            _ => null,
        };

    /// <summary>Queues what was just recorded for every hook that wants to hear of it. A rehearsal calls nobody.</summary>
    public async Task HearAsync(Act act, ProjectFile file, IReadOnlyCollection<Happening> what)
    {
        if (file.Row.Rehearsal)
            return;
        var events = what.Select(EventOf).OfType<HookEvent>().ToList();
        if (events.Count == 0)
            return;
        var hooks = await act.Db.Hooks.AsNoTracking().Where(h => !h.Off).ToListAsync();
        foreach (var hook in hooks)
        foreach (var one in events.Intersect(StoreJson.Read<HookEvent[]>(hook.Events)))
            Add(act, file, hook, one, $"fact:{file.History.LastFact.Value}:{one}:{hook.Id}");
        if (hooks.Count > 0)
            await act.Db.SaveChangesAsync();
    }

    /// <summary>Queues a step's call. Inside the caller's transaction; its key exists once.</summary>
    public static async Task QueueAsync(Act act, ProjectFile file, string name, string key)
    {
        if (
            file.Row.Rehearsal
            || await act.Db.Hooks.AsNoTracking().SingleOrDefaultAsync(h => h.Name == name && !h.Off) is not { } hook
        )
            return;
        Add(act, file, hook, HookEvent.Step, key);
        await act.Db.SaveChangesAsync();
    }

    /// <summary>Makes the calls whose time has come.</summary>
    public async Task CallDueAsync(CancellationToken stop) =>
        await Independent.EachAsync(log, "call of a web hook", await DueAsync(), id => CallAsync(id, stop), stop);

    /// <summary>Calls once, now, with an event that says it is a test.</summary>
    public async Task<HookTestDto> TestAsync(Desk desk, int id, CancellationToken stop)
    {
        var hook =
            await desk.Db.Hooks.AsNoTracking().SingleOrDefaultAsync(h => h.Id == id, stop)
            ?? throw new MissingException("web hook");
        var body = Write(new($"test-{Guid.NewGuid():n}", HookEvent.Step, At(desk.Now), 0, "A test", "", ""));
        var error = await SendAsync(hook, $"test-{Guid.NewGuid():n}", body, desk.Now, stop);
        return error is null ? new(true, "It was taken.") : new(false, error);
    }

    /// <summary>The value of the webhook-signature header.</summary>
    public static string Sign(string secret, string id, string timestamp, string body)
    {
        var key = Convert.FromBase64String(secret[SecretMark.Length..]);
        return $"v1,{Convert.ToBase64String(HMACSHA256.HashData(key, Encoding.UTF8.GetBytes($"{id}.{timestamp}.{body}")))}";
    }

    private static void Add(Act act, ProjectFile file, HookRow hook, HookEvent what, string key) =>
        act.Db.HookCalls.Add(
            new()
            {
                Key = key,
                HookId = hook.Id,
                ProjectId = file.Id,
                Event = what.ToString(),
                Body = Write(
                    new(
                        key,
                        what,
                        At(act.Now),
                        file.Id.Value,
                        file.Row.Title,
                        file.Row.Kind?.Name ?? "",
                        file.Row.Client?.Name ?? ""
                    )
                ),
                At = act.Now,
                NotBefore = act.Now,
            }
        );

    private static string Write(HookBody body) => StoreJson.Write(body);

    private static string At(Instant now) => NodaTime.Text.InstantPattern.General.Format(now);

    private async Task<List<int>> DueAsync()
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        return await Due(desk.Db, desk.Now);
    }

    private static readonly Func<GesamtDb, Instant, Task<List<int>>> Due = Prepared.Rows(
        (GesamtDb db, Instant now) =>
            db
                .HookCalls.Where(c => c.State == HookCallState.Waiting && c.NotBefore <= now)
                .OrderBy(c => c.Id)
                .Select(c => c.Id)
                .Take(100)
    );

    private async Task CallAsync(int id, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var call = await desk.Db.HookCalls.SingleAsync(c => c.Id == id, stop);
        var hook = await desk.Db.Hooks.AsNoTracking().SingleAsync(h => h.Id == call.HookId, stop);
        var error = await SendAsync(hook, call.Key, call.Body, desk.Now, stop);
        if (error is null)
            (call.State, call.LastError) = (HookCallState.Taken, null);
        else
        {
            call.Failures++;
            call.LastError = error;
            // 1, 2, 4 … minutes up to 8 hours: about three days in all
            call.NotBefore = desk.Now + Duration.FromMinutes(Math.Min(480, Math.Pow(2, call.Failures)));
            if (call.Failures >= MostTries)
                call.State = HookCallState.GivenUp;
        }
        await desk.Db.SaveChangesAsync(stop);
    }

    /// <returns>What went wrong; null when it was taken.</returns>
    private async Task<string?> SendAsync(HookRow hook, string id, string body, Instant now, CancellationToken stop)
    {
        var timestamp = now.ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture);
        using var request = new HttpRequestMessage(HttpMethod.Post, hook.Address)
        {
            Content = new StringContent(body, Encoding.UTF8, "application/json"),
        };
        request.Headers.Add("webhook-id", id);
        request.Headers.Add("webhook-timestamp", timestamp);
        request.Headers.Add("webhook-signature", Sign(hook.Secret, id, timestamp, body));
        request.Headers.Add("Idempotency-Key", id);
        try
        {
            using var answer = await (hook.Inside ? inside : outside).SendAsync(
                request,
                HttpCompletionOption.ResponseHeadersRead,
                stop
            );
            return answer.IsSuccessStatusCode ? null : $"It answers {(int)answer.StatusCode}.";
        }
        catch (TaskCanceledException) when (!stop.IsCancellationRequested)
        {
            return "It does not answer within ten seconds.";
        }
        catch (HttpRequestException e)
        {
            return e.Message;
        }
    }

    public void Dispose()
    {
        outside.Dispose();
        inside.Dispose();
    }
}
