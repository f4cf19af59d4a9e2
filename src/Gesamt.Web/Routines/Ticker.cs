using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Web.Hooks;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Meetings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Routines;

/// <summary>The one loop: fetches mail, lets due steps act, refreshes standings whose time ran out, hands over letters. Sleeps until the earliest of what is due.</summary>
public sealed class Ticker(IServiceScopeFactory scopes, Incoming incoming, Delivery delivery, Settlement settlement, HookCalls hooks, Live live, TimeProvider time, Settings settings, ILogger<Ticker> log)
    : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60);
    private readonly SemaphoreSlim one = new(1, 1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        // two copies may run on one folder, but only one of them ticks; a kill frees the lock
        await using var copy = await OnlyCopyAsync(stoppingToken);
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await TickAsync(stoppingToken);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "A tick failed; it is tried again");
            }
            await live.WaitAsync(await SleepAsync(stoppingToken), stoppingToken);
        }
    }

    /// <summary>Does everything that is due at this instant, until nothing is.</summary>
    public async Task TickAsync(CancellationToken stop)
    {
        await one.WaitAsync(stop);
        try
        {
            await incoming.FetchAsync(stop);
            await settlement.SettleAsync(stop);
            await StepsAsync(stop);
            await InvoicesAsync(stop);
            await MeetingsAsync(stop);
            await StandingsAsync(stop);
            await delivery.DeliverDueAsync(stop);
            await hooks.CallDueAsync(stop);
            // what was handed over may have made the next step due
            await StepsAsync(stop);
        }
        finally
        {
            one.Release();
        }
    }

    private async Task StepsAsync(CancellationToken stop)
    {
        foreach (var project in await InScopeAsync(desk =>
        {
            var now = desk.Now;
            // a rehearsal's clock is wound by hand
            return desk.Db.PlannedSteps.Where(s => s.State == StepState.Planned && s.Due <= now && desk.Db.Projects.Any(p => p.Id == s.ProjectId)).Select(s => s.ProjectId).Distinct().ToListAsync(stop);
        }))
            try
            {
                await InScopeAsync(desk => Steps.ActAsync(desk, project));
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                // one project's mistake must not hold up the letters of all others
                log.LogError(e, "A step of project {Project} failed; it is tried again", project.Value);
            }
    }

    private async Task InvoicesAsync(CancellationToken stop)
    {
        foreach (var project in await InScopeAsync(desk =>
        {
            var now = desk.Now;
            return desk.Db.Projects.Where(p => p.Standing.InvoiceAt <= now).Select(p => p.Id).ToListAsync(stop);
        }))
            try
            {
                await InScopeAsync(desk => Issuing.IssueDueAsync(desk, project));
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "An invoice of project {Project} could not be issued; it is tried again", project.Value);
            }
    }

    private async Task MeetingsAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        await OutsideCalendars.RefreshAsync(desk, scope.ServiceProvider.GetRequiredService<ICalendarSource>(), null, stop);
        await scope.ServiceProvider.GetRequiredService<Scheduling>().RemindAsync();
    }

    private async Task StandingsAsync(CancellationToken stop)
    {
        foreach (var project in await InScopeAsync(desk =>
        {
            var now = desk.Now;
            return desk.Db.Projects.Where(p => p.Standing.ValidUntil <= now).Select(p => p.Id).ToListAsync(stop);
        }))
            await InScopeAsync(async desk =>
            {
                await using var transaction = await desk.BeginAsync();
                await desk.RecordAsync(await desk.OpenAsync(project), Core.Facts.Actor.Gesamt);
                await desk.CommitAsync(transaction);
                return true;
            });
    }

    private async Task<TimeSpan> SleepAsync(CancellationToken stop)
    {
        // what is due already was done, or waits for something other than time
        var next = await InScopeAsync(async desk =>
        {
            var now = desk.Now;
            Instant? step = await desk.Db.PlannedSteps.Where(s => s.State == StepState.Planned && s.Due > now).MinAsync(s => s.Due, stop);
            Instant? standing = await desk.Db.Projects.Where(p => p.Standing.ValidUntil > now).MinAsync(p => p.Standing.ValidUntil, stop);
            Instant? letter = await desk.Db.Outbox.Where(o => o.State == OutboxState.Claimed && o.NotBefore > now).Select(o => (Instant?)o.NotBefore).MinAsync(stop);
            Instant? invoice = await desk.Db.Projects.Where(p => p.Standing.InvoiceAt > now).MinAsync(p => p.Standing.InvoiceAt, stop);
            Instant? reminder = await desk.Db.Meetings.Where(m => m.RemindAt > now && desk.Db.Projects.Any(p => p.Id == m.ProjectId)).MinAsync(m => m.RemindAt, stop);
            Instant? call = await desk.Db.HookCalls.Where(c => c.State == HookCallState.Waiting && c.NotBefore > now).Select(c => (Instant?)c.NotBefore).MinAsync(stop);
            return new[] { step, standing, letter, invoice, reminder, call }.Min();
        });
        if (next is not { } at) return Longest;
        var wait = (at - time.Now()).ToTimeSpan();
        return wait < TimeSpan.FromMilliseconds(200) ? TimeSpan.FromMilliseconds(200) : wait > Longest ? Longest : wait;
    }

    private async Task<T> InScopeAsync<T>(Func<Desk, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<Desk>());
    }

    private async Task<FileStream> OnlyCopyAsync(CancellationToken stop)
    {
        while (true)
        {
            try
            {
                return new(Path.Combine(settings.Data, "ticker.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            }
            catch (IOException)
            {
                await live.WaitAsync(TimeSpan.FromSeconds(5), stop);
            }
        }
    }
}
