using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Texts;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Books;
using Gesamt.Web.Erasing;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Lists;
using Gesamt.Web.Planning;
using Gesamt.Web.Routines;
using Gesamt.Web.Upkeep;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Turns;

/// <summary>What the owner needs first in the morning.</summary>
public static class TodayView
{
    private const int MostMeetings = 30,
        MostSaid = 2_000,
        MostPinned = 20;

    /// <summary>Today, by its columns.</summary>
    public static async Task<TodayDto> OfAsync(Desk desk, KeyRing ring, Disk disk)
    {
        var week = desk.BesideAsync(WeekAsync);
        var rows = await Cards.RowsAsync(desk);
        var yours = rows.Where(row => row.Standing.Turn == Side.Yours)
            .OrderByDescending(row => row.Standing.Waits == WaitKind.AnswerInquiry)
            .ThenBy(row => row.Standing.Since)
            .ToList();
        var names = await RoutineNames.OfAsync(desk);
        var ready = await ReadyToGo.LettersAsync(desk, names);
        var asked = await Asked.AllAsync(desk, names);
        var said = await LastSaidAsync(
            desk,
            [
                .. yours
                    .Select(row => row.Id)
                    .Concat(ready.Select(one => one.For.Project))
                    .Concat(asked.Select(one => one.Project))
                    .Distinct()
                    .Select(id => new ProjectId(id)),
            ]
        );
        var goes = new ReadyToGoDto(
            [.. ready.Select(one => one with { LastSaid = said.GetValueOrDefault(new(one.For.Project)) })],
            [.. asked.Select(one => one with { LastSaid = said.GetValueOrDefault(new(one.Project)) })],
            await ReadyToGo.ByItselfAsync(desk, names),
            await ReadyToGo.UncertainAsync(desk),
            await MailProblem(desk.Db),
            [.. await Troubles.OfAsync(desk, ring, disk), .. await OfferedAsync(desk)]
        );
        var (money, day) = await week;
        return new(
            DateWords.OfToday(desk.Today),
            OpenSteps.Of(desk),
            money,
            new(
                yours.Count,
                [
                    .. yours.Select(row => new TodayCardDto(
                        Cards.Of(desk, row),
                        LastWords(row, said),
                        row.Standing.Waits == WaitKind.AnswerInquiry
                    )),
                ]
            ),
            goes,
            day
        );
    }

    /// <summary>Its money and its days, which need nothing of what waits.</summary>
    private static async Task<(MoneyDto Money, DayDto Day)> WeekAsync(Desk desk)
    {
        var held = await HeldDays.OfAsync(desk, Week.MondayOf(desk.Today), Week.Days);
        return (
            await MoneyAsync(desk),
            new(
                Load(desk, held),
                await MeetingsAsync(desk, held),
                await TasksAsync(desk),
                await PlanSteps.DueAsync(desk),
                await CameIn.NewestAsync(desk),
                await Tray.CountAsync(desk),
                await PinnedAsync(desk)
            )
        );
    }

    private static readonly Func<GesamtDb, Task<string?>> MailProblem = EF.CompileAsyncQuery(
        (GesamtDb db) => db.MailAccounts.Select(a => a.Problem).SingleOrDefault()
    );

    private static async Task<string[]> OfferedAsync(Desk desk) =>
        await KeptPapersOfErased.OfferedAsync(desk) is { } offered ? [offered] : [];

    private static string LastWords(Cards.Row row, IReadOnlyDictionary<ProjectId, string> said) =>
        said.TryGetValue(new(row.Id), out var words) ? $"{row.Standing.Stage}. “{words}”"
        : row.Summary is { } summary ? ShortText.Of(summary)
        : $"{row.Standing.Stage}. {row.Client}";

    /// <summary>What each client wrote last, shortened; of a long letter no more is read than is shown.</summary>
    private static async Task<IReadOnlyDictionary<ProjectId, string>> LastSaidAsync(
        Desk desk,
        IReadOnlyList<ProjectId> projects
    )
    {
        var letters = await LastReceived(desk.Db, projects);
        return letters.ToDictionary(l => l.Project, l => ShortText.Of(l.Body));
    }

    private sealed record Said(ProjectId Project, string Body);

    private static readonly Func<GesamtDb, IReadOnlyList<ProjectId>, Task<List<Said>>> LastReceived = Prepared.Rows(
        (GesamtDb db, IReadOnlyList<ProjectId> projects) =>
            db
                .Letters.AsNoTracking()
                .Where(l => l.State == LetterState.Received)
                .Where(l => l.ProjectId != null && projects.Contains(l.ProjectId.Value))
                .Where(l =>
                    l.Id
                    == db.Letters.Where(other => other.State == LetterState.Received && other.ProjectId == l.ProjectId)
                        .OrderByDescending(other => other.Id)
                        .Select(other => other.Id)
                        .First()
                )
                .Select(l => new Said(l.ProjectId!.Value, l.Body.Substring(0, MostSaid)))
    );

    private static WeekLoadDto Load(Desk desk, HeldDays held) =>
        new(Core.Planning.Load.Summary(held.Loads), [.. held.Loads.Select(load => DayViews.Head(desk, load))]);

    private sealed record Meeting(MeetingRow Row, string Title, string Client, bool IsOpen);

    private static readonly Func<GesamtDb, Instant, Instant, Instant, IAsyncEnumerable<Meeting>> Meetings =
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant start, Instant end, Instant now) =>
                db
                    .Meetings.AsNoTracking()
                    .Where(m => !m.Cancelled && m.Start < end && (m.Start >= start || !m.Held && m.End <= now))
                    .Join(
                        db.Projects,
                        m => m.ProjectId,
                        p => p.Id,
                        (m, p) =>
                            new
                            {
                                Row = m,
                                p.Title,
                                Client = p.Client!.Name,
                                IsOpen = p.Standing.OnTable && p.Standing.Ended == null,
                            }
                    )
                    // what is over asks nothing any more; of many that ask, today's are never left out
                    .Where(r => r.Row.Start >= start || r.IsOpen)
                    .OrderByDescending(r => r.Row.Start)
                    .Take(MostMeetings)
                    .Select(r => new Meeting(r.Row, r.Title, r.Client, r.IsOpen))
        );

    private static async Task<IReadOnlyList<DayMeetingDto>> MeetingsAsync(Desk desk, HeldDays held)
    {
        var now = desk.Now;
        var (start, end) = (desk.Calendar.StartOf(desk.Today), desk.Calendar.StartOf(desk.Today.PlusDays(1)));
        var rows = await Meetings(desk.Db, start, end, now).ToListAsync();
        string Time(Instant at) => DateWords.Time(desk.Calendar.LocalOf(at).TimeOfDay);
        string When(Instant from, Instant until) =>
            from < start ? $"{desk.Short(desk.Calendar.DateOf(from))}, {Time(from)}" : $"{Time(from)} to {Time(until)}";
        return
        [
            .. rows.Select(r =>
                    (
                        r.Row.Start,
                        new DayMeetingDto(
                            r.Row.ProjectId.Value,
                            r.Row.Id.Value,
                            When(r.Row.Start, r.Row.End),
                            $"{r.Row.Name}, {r.Client}",
                            r.Title,
                            r.IsOpen && !r.Row.Held && r.Row.End <= now
                        )
                    )
                )
                .Concat(
                    held.Appointments.Where(a => a.Start < end && a.End > start)
                        .Select(a =>
                            (a.Start, new DayMeetingDto(null, a.Id, When(a.Start, a.End), a.What, a.Where, false))
                        )
                )
                .OrderBy(one => one.Start)
                .Select(one => one.Item2),
        ];
    }

    /// <summary>The owner's tasks that are due, or to be worked on by now; of a project that is over only while it asks for one.</summary>
    private static async Task<IReadOnlyList<DayTaskDto>> TasksAsync(Desk desk)
    {
        var today = desk.Today;
        var rows = await DueTasks(desk.Db, today);
        return
        [
            .. rows.OrderBy(r => r.Due ?? today)
                .Select(r => new DayTaskDto(
                    r.Id.Value,
                    r.ProjectId.Value,
                    r.Title,
                    r.Project,
                    r.Due is { } due ? DateWords.Due(due, today, false) : "",
                    r.Due < today
                )),
        ];
    }

    private sealed record DueTask(TaskId Id, ProjectId ProjectId, string Title, LocalDate? Due, string Project);

    private static readonly Func<GesamtDb, LocalDate, Task<List<DueTask>>> DueTasks = Prepared.Rows(
        (GesamtDb db, LocalDate today) =>
            db
                .Tasks.AsNoTracking()
                .Where(t =>
                    t.DoneAt == null && !t.Removed && t.PublicId == null && (t.Due <= today || t.WorkOn <= today)
                )
                .Join(
                    db.Projects.Where(p =>
                        !p.Standing.PutAway
                        && p.Standing.Waits != WaitKind.Resting
                        && (
                            p.Standing.Ended == null
                            || p.Standing.Turn == Side.Yours && p.Standing.Waits == WaitKind.TaskDue
                        )
                    ),
                    t => t.ProjectId,
                    p => p.Id,
                    (t, p) => new DueTask(t.Id, t.ProjectId, t.Title, t.Due, p.Title)
                )
    );

    /// <summary>Notes that the owner wants in sight, the newest first.</summary>
    private static async Task<IReadOnlyList<PinnedNoteDto>> PinnedAsync(Desk desk) => await Pinned(desk.Db);

    private static readonly Func<GesamtDb, Task<List<PinnedNoteDto>>> Pinned = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Notes.AsNoTracking()
                .Where(n => n.PinnedAt != null && !n.Removed)
                .OrderByDescending(n => n.PinnedAt)
                .Take(MostPinned)
                .Join(
                    db.Projects,
                    n => n.ProjectId,
                    p => p.Id,
                    (n, p) => new PinnedNoteDto(n.Id.Value, n.ProjectId.Value, p.Title, n.Text)
                )
    );

    private sealed record Net(long Minor, string? Currency);

    private static readonly Func<GesamtDb, Instant, Task<List<Net>>> Booked = Prepared.Rows(
        (GesamtDb db, Instant start) =>
            db
                .Projects.AsNoTracking()
                .Where(p => p.Standing.BookedAt >= start)
                .Select(p => new Net(p.Standing.NetMinor ?? 0, p.Standing.Currency))
    );

    private sealed record Owed(long OwedMinor, LocalDate Due, string Currency);

    private static readonly Func<GesamtDb, Task<List<Owed>>> OpenInvoices = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Invoices.AsNoTracking()
                .Where(i => i.OwedMinor > 0 && i.Sort == InvoiceSort.Invoice && i.Year > 0)
                .Select(i => new Owed(i.OwedMinor, i.Due, i.Currency))
    );

    /// <summary>The month so far: what was booked (net) and received, and what is open on invoices.</summary>
    private static async Task<MoneyDto> MoneyAsync(Desk desk)
    {
        var today = desk.Today;
        var start = desk.Calendar.StartOf(new LocalDate(today.Year, today.Month, 1));
        var booked = await Booked(desk.Db, start);
        var received = await Journal.PaidAsync(desk, new(today.Year, today.Month, 1), today);
        var open = await OpenInvoices(desk.Db);
        return new(
            today.ToString("MMMM", CultureInfo.InvariantCulture),
            booked.Count,
            desk.Sum(booked.Select(p => (p.Minor, p.Currency))),
            desk.Sum(received.Select(one => (one.Entry.Amount.Minor, (string?)one.Entry.Amount.Currency.Code))),
            desk.Sum(open.Where(i => i.Due >= today).Select(i => (i.OwedMinor, (string?)i.Currency))),
            desk.Sum(open.Where(i => i.Due < today).Select(i => (i.OwedMinor, (string?)i.Currency)))
        );
    }

    /// <summary>The time for today, the weekday for the days before, else the date.</summary>
    internal static string Since(Desk desk, Instant at)
    {
        var local = desk.Calendar.LocalOf(at);
        return local.Date == desk.Today ? DateWords.Time(local.TimeOfDay)
            : local.Date > desk.Today.PlusDays(-6) ? local.Date.ToString("ddd", CultureInfo.InvariantCulture)
            : DateWords.Short(local.Date, desk.Today);
    }
}
