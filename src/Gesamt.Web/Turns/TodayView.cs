using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Texts;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
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
    public static async Task<TodayDto> OfAsync(Desk desk, KeyRing ring)
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
            await desk.Db.MailAccounts.Select(a => a.Problem).SingleOrDefaultAsync(),
            [.. await Troubles.OfAsync(desk, ring), .. await OfferedAsync(desk)]
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
        var received = desk.Db.Letters.AsNoTracking().Where(l => l.State == LetterState.Received);
        var letters = await received
            .Where(l => l.ProjectId != null && projects.Contains(l.ProjectId.Value))
            .Where(l =>
                l.Id
                == received
                    .Where(other => other.ProjectId == l.ProjectId)
                    .OrderByDescending(other => other.Id)
                    .Select(other => other.Id)
                    .First()
            )
            .Select(l => new { l.ProjectId, Body = l.Body.Substring(0, MostSaid) })
            .ToListAsync();
        return letters.ToDictionary(l => l.ProjectId!.Value, l => ShortText.Of(l.Body));
    }

    private static WeekLoadDto Load(Desk desk, HeldDays held) =>
        new(Core.Planning.Load.Summary(held.Loads), [.. held.Loads.Select(load => DayViews.Head(desk, load))]);

    private static async Task<IReadOnlyList<DayMeetingDto>> MeetingsAsync(Desk desk, HeldDays held)
    {
        var now = desk.Now;
        var (start, end) = (desk.Calendar.StartOf(desk.Today), desk.Calendar.StartOf(desk.Today.PlusDays(1)));
        var rows = await desk
            .Db.Meetings.AsNoTracking()
            .Where(m => !m.Cancelled && m.Start < end && (m.Start >= start || !m.Held && m.End <= now))
            .Join(
                desk.Db.Projects,
                m => m.ProjectId,
                p => p.Id,
                (m, p) =>
                    new
                    {
                        Meeting = m,
                        p.Title,
                        Client = p.Client!.Name,
                        IsOpen = p.Standing.OnTable && p.Standing.Ended == null,
                    }
            )
            // what is over asks nothing any more; of many that ask, today's are never left out
            .Where(r => r.Meeting.Start >= start || r.IsOpen)
            .OrderByDescending(r => r.Meeting.Start)
            .Take(MostMeetings)
            .ToListAsync();
        string Time(Instant at) => DateWords.Time(desk.Calendar.LocalOf(at).TimeOfDay);
        string When(Instant from, Instant until) =>
            from < start ? $"{desk.Short(desk.Calendar.DateOf(from))}, {Time(from)}" : $"{Time(from)} to {Time(until)}";
        return
        [
            .. rows.Select(r =>
                    (
                        r.Meeting.Start,
                        new DayMeetingDto(
                            r.Meeting.ProjectId.Value,
                            r.Meeting.Id.Value,
                            When(r.Meeting.Start, r.Meeting.End),
                            $"{r.Meeting.Name}, {r.Client}",
                            r.Title,
                            r.IsOpen && !r.Meeting.Held && r.Meeting.End <= now
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
        var rows = await desk
            .Db.Tasks.AsNoTracking()
            .Where(t => t.DoneAt == null && !t.Removed && t.PublicId == null && (t.Due <= today || t.WorkOn <= today))
            .Join(
                desk.Db.Projects.Where(p =>
                    !p.Standing.PutAway
                    && p.Standing.Waits != WaitKind.Resting
                    && (
                        p.Standing.Ended == null
                        || p.Standing.Turn == Side.Yours && p.Standing.Waits == WaitKind.TaskDue
                    )
                ),
                t => t.ProjectId,
                p => p.Id,
                (t, p) =>
                    new
                    {
                        t.Id,
                        t.ProjectId,
                        t.Title,
                        t.Due,
                        Project = p.Title,
                    }
            )
            .ToListAsync();
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

    /// <summary>Notes that the owner wants in sight, the newest first.</summary>
    private static async Task<IReadOnlyList<PinnedNoteDto>> PinnedAsync(Desk desk) =>
        [
            .. (
                await desk
                    .Db.Notes.AsNoTracking()
                    .Where(n => n.PinnedAt != null && !n.Removed)
                    .OrderByDescending(n => n.PinnedAt)
                    .Take(MostPinned)
                    .Join(
                        desk.Db.Projects,
                        n => n.ProjectId,
                        p => p.Id,
                        (n, p) =>
                            new
                            {
                                n.Id,
                                n.ProjectId,
                                p.Title,
                                n.Text,
                            }
                    )
                    .ToListAsync()
            ).Select(n => new PinnedNoteDto(n.Id.Value, n.ProjectId.Value, n.Title, n.Text)),
        ];

    /// <summary>The month so far: what was booked (net) and received, and what is open on invoices.</summary>
    private static async Task<MoneyDto> MoneyAsync(Desk desk)
    {
        var today = desk.Today;
        var start = desk.Calendar.StartOf(new LocalDate(today.Year, today.Month, 1));
        var booked = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => p.Standing.BookedAt >= start)
            .Select(p => new { Net = p.Standing.NetMinor ?? 0, p.Standing.Currency })
            .ToListAsync();
        var received = await Journal.PaidAsync(desk, new(today.Year, today.Month, 1), today);
        var open = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.OwedMinor > 0 && i.Sort == InvoiceSort.Invoice && i.Year > 0)
            .Select(i => new
            {
                i.OwedMinor,
                i.Due,
                i.Currency,
            })
            .ToListAsync();
        return new(
            today.ToString("MMMM", CultureInfo.InvariantCulture),
            booked.Count,
            desk.Sum(booked.Select(p => (p.Net, p.Currency))),
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
