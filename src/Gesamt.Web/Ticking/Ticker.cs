using Gesamt.Core;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Projects;
using Gesamt.Web.Books;
using Gesamt.Web.Erasing;
using Gesamt.Web.Hooks;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Meetings;
using Gesamt.Web.Papers;
using Gesamt.Web.Recurring;
using Gesamt.Web.Routines;
using Gesamt.Web.Upkeep;
using Gesamt.Web.Work;
using NodaTime;

namespace Gesamt.Web.Ticking;

/// <summary>Four loops: one fetches what comes from outside, mail and calendars; one lets due steps act, refreshes standings whose time ran out and hands over letters; one keeps papers; one keeps the house. Each sleeps until the earliest of what is due.</summary>
/// <remarks>What strangers send is read in a loop of its own, so that a message that takes long holds up no letter. Every part of a tick is tried whatever became of the others.</remarks>
public sealed class Ticker(
    IServiceScopeFactory scopes,
    Incoming incoming,
    Delivery delivery,
    Settlement settlement,
    IPaymentProvider provider,
    HookCalls hooks,
    Upkeeping upkeeping,
    Clearing clearing,
    PaperRound papers,
    Live live,
    Doorplate plate,
    TimeProvider time,
    Settings settings,
    IHostApplicationLifetime life,
    ILogger<Ticker> log
) : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(60),
        BetweenUpkeep = TimeSpan.FromMinutes(5),
        AfterStart = TimeSpan.FromMilliseconds(500);
    private readonly SemaphoreSlim fetching = new(1, 1),
        acting = new(1, 1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await StartedAsync(stoppingToken);
        // two copies may run on one folder, but only one of them ticks; a kill frees the lock
        await using var copy = await OnlyCopyAsync(stoppingToken);
        await Task.WhenAll(
            LoopAsync(FetchAsync, _ => Task.FromResult(Longest), stoppingToken, fromOutside: true),
            LoopAsync(ActAsync, SleepAsync, stoppingToken),
            LoopAsync(PapersAsync, _ => Task.FromResult(Longest), stoppingToken),
            UpkeepAsync(stoppingToken)
        );
    }

    /// <summary>Whoever waits for the first page goes before what nobody watches.</summary>
    private async Task StartedAsync(CancellationToken stop)
    {
        var started = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        await using var one = life.ApplicationStarted.Register(() => started.TrySetResult());
        await using var other = stop.Register(() => started.TrySetCanceled(stop));
        await started.Task;
        await Task.Delay(AfterStart, stop);
    }

    private async Task LoopAsync(
        Func<CancellationToken, Task> work,
        Func<CancellationToken, Task<TimeSpan>> sleep,
        CancellationToken stop,
        bool fromOutside = false
    )
    {
        var waker = live.NewWaker(ofAll: fromOutside);
        while (!stop.IsCancellationRequested)
        {
            await work(stop);
            var wait = Longest;
            await TryAsync("how long to sleep", async s => wait = await sleep(s), stop);
            await waker.WaitAsync(wait, stop);
        }
    }

    /// <summary>Not at the start, when there is enough to do.</summary>
    private async Task UpkeepAsync(CancellationToken stop)
    {
        using var timer = new PeriodicTimer(BetweenUpkeep);
        while (await timer.WaitForNextTickAsync(stop))
        {
            // another copy may have changed them
            plate.Forget();
            await upkeeping.DoDueAsync(stop);
            await TryAsync("clearing the disk", clearing.RetryAsync, stop);
        }
    }

    /// <summary>Does everything that is due at this instant, until nothing is.</summary>
    public async Task TickAsync(CancellationToken stop)
    {
        await FetchAsync(stop);
        await ActAsync(stop);
        await PapersAsync(stop);
    }

    /// <summary>In a loop of its own: an older folder has thousands to be drawn at its first start.</summary>
    private Task PapersAsync(CancellationToken stop) => TryAsync("papers", papers.KeepAsync, stop);

    /// <summary>Mail and outside calendars.</summary>
    private async Task FetchAsync(CancellationToken stop)
    {
        await fetching.WaitAsync(stop);
        try
        {
            await TryAsync("mail", incoming.FetchAsync, stop);
            await TryAsync("calendars", CalendarsAsync, stop);
        }
        finally
        {
            fetching.Release();
        }
    }

    private async Task ActAsync(CancellationToken stop)
    {
        await acting.WaitAsync(stop);
        try
        {
            // what is due is looked up at one desk; each act has its own
            await using var scope = scopes.CreateAsyncScope();
            var desk = scope.ServiceProvider.GetRequiredService<Desk>();
            Task PartAsync(string part, Func<Desk, CancellationToken, Task> work) =>
                TryAsync(part, s => work(desk, s), stop);
            // no step goes by the calendar before
            await PartAsync("computing anew", RederiveAsync);
            await TryAsync("card payments", settlement.SettleAsync, stop);
            await PartAsync("steps", StepsAsync);
            await PartAsync("invoices", InvoicesAsync);
            await PartAsync("recurring invoices", RecurringAsync);
            await PartAsync("recurring costs", CostsAsync);
            await PartAsync("charges", ChargesAsync);
            await TryAsync("reminders of meetings", RemindersAsync, stop);
            await PartAsync("standings", StandingsAsync);
            await PartAsync("putting away", PutAwayAsync);
            await TryAsync("letters", s => delivery.DeliverDueAsync(s), stop);
            await TryAsync("web hooks", hooks.CallDueAsync, stop);
            // what was handed over may have made the next step due
            await PartAsync("steps", StepsAsync);
        }
        finally
        {
            acting.Release();
        }
    }

    private Task TryAsync(string part, Func<CancellationToken, Task> work, CancellationToken stop) =>
        Independent.TryAsync(
            log,
            part,
            async s =>
            {
                HouseStyle.Current = await plate.StyleAsync();
                await work(s);
            },
            stop
        );

    /// <summary>The same act for each of several projects, or of whatever is due.</summary>
    /// <returns>Whether each was begun.</returns>
    private Task<bool> EachAsync<T>(string part, IEnumerable<T> each, Func<Desk, T, Task> act, CancellationToken stop)
        where T : notnull =>
        Independent.EachAsync(
            log,
            part,
            each,
            one =>
                InScopeAsync(async desk =>
                {
                    await act(desk, one);
                    return true;
                }),
            stop
        );

    private async Task RederiveAsync(Desk desk, CancellationToken stop)
    {
        if (await Sqlite.IsDerivedAsync(desk.Db, stop))
            return;
        await Rederiving.DoAsync(scopes, log, stop);
        live.ChangedAll();
    }

    private async Task StepsAsync(Desk desk, CancellationToken stop)
    {
        foreach (var some in (await DueNow.Steps(desk.Db, desk.Now)).Chunk(Steps.AtOnce))
            if (!await EachAsync("steps", await LeftAsync(some, stop), Steps.ActAsync, stop))
                return;
    }

    /// <summary>Lets some projects act together.</summary>
    /// <returns>Those to go on with one by one: all where one of them kept the others from acting, those that cannot be read.</returns>
    private async Task<IReadOnlyCollection<ProjectId>> LeftAsync(ProjectId[] some, CancellationToken stop)
    {
        IReadOnlyCollection<ProjectId> left = some;
        if (some.Length > 1)
            await TryAsync(
                "steps of several projects together",
                async _ =>
                    left = await InScopeAsync(async own =>
                    {
                        var files = await own.Db.OpenManyAsync(some, own.Calendar, toChange: true);
                        await Steps.ActAsync(own, [.. files.Values]);
                        return some.Except(files.Keys).ToList();
                    }),
                stop
            );
        return left;
    }

    private async Task InvoicesAsync(Desk desk, CancellationToken stop) =>
        await EachAsync("invoices", await DueNow.Invoices(desk.Db, desk.Now), InstalmentInvoices.IssueDueAsync, stop);

    private async Task RecurringAsync(Desk desk, CancellationToken stop) =>
        await EachAsync("recurring invoice", await Recurrences.DueAsync(desk), Recurrences.IssueDueAsync, stop);

    private async Task CostsAsync(Desk desk, CancellationToken stop) =>
        await EachAsync("recurring cost", await RecurringCosts.DueAsync(desk), RecurringCosts.BookDueAsync, stop);

    private async Task ChargesAsync(Desk desk, CancellationToken stop)
    {
        if (provider.Keeps.Count > 0)
            await EachAsync(
                "charge",
                await KeptMeans.DueAsync(desk),
                (own, project) => KeptMeans.ChargeDueAsync(own, provider, project),
                stop
            );
    }

    private Task CalendarsAsync(CancellationToken stop) =>
        InScopeAsync(
            async (desk, services) =>
            {
                await OutsideCalendars.RefreshAsync(desk, services.GetRequiredService<ICalendarSource>(), null, stop);
                return true;
            }
        );

    private Task RemindersAsync(CancellationToken stop) =>
        InScopeAsync(
            async (_, services) =>
            {
                await services.GetRequiredService<Scheduling>().RemindAsync(stop);
                return true;
            }
        );

    private async Task StandingsAsync(Desk desk, CancellationToken stop) =>
        await EachAsync(
            "standing",
            await DueNow.Standings(desk.Db, desk.Now),
            async (own, project) =>
                await own.ActAsync(async act =>
                    await act.RecordAsync(await own.OpenAsync(project), Core.Facts.Actor.Gesamt)
                ),
            stop
        );

    /// <summary>Finished projects that nobody has to look at any more, after the days the studio has said.</summary>
    private async Task PutAwayAsync(Desk desk, CancellationToken stop)
    {
        if (desk.Studio.PutAwayDays is not { } days)
            return;
        await EachAsync(
            "putting away",
            await DueNow.PuttingAway(desk.Db, desk.Now - Duration.FromDays(days)),
            (own, project) => Handover.PutAwayAsync(own, project, away: true, Core.Facts.Actor.Gesamt),
            stop
        );
    }

    private async Task<TimeSpan> SleepAsync(CancellationToken stop)
    {
        // what is due already was done, or waits for something other than time
        var next = await InScopeAsync(desk => DueNow.NextAsync(desk.Db, desk.Now));
        if (next is not { } at)
            return Longest;
        var wait = (at - time.Now()).ToTimeSpan();
        return wait < TimeSpan.FromMilliseconds(200) ? TimeSpan.FromMilliseconds(200)
            : wait > Longest ? Longest
            : wait;
    }

    private Task<T> InScopeAsync<T>(Func<Desk, Task<T>> act) => InScopeAsync((desk, _) => act(desk));

    private async Task<T> InScopeAsync<T>(Func<Desk, IServiceProvider, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<Desk>(), scope.ServiceProvider);
    }

    private async Task<FileStream> OnlyCopyAsync(CancellationToken stop)
    {
        var waker = live.NewWaker();
        while (true)
        {
            try
            {
                return new(
                    Path.Combine(settings.Data, "ticker.lock"),
                    FileMode.OpenOrCreate,
                    FileAccess.ReadWrite,
                    FileShare.None
                );
            }
            catch (IOException)
            {
                await waker.WaitAsync(TimeSpan.FromSeconds(5), stop);
            }
        }
    }
}
