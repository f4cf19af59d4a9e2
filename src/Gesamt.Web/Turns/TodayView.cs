using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
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
    private const int CameInShown = 8,
        MostMeetings = 30,
        MostSaid = 2_000;

    /// <summary>Today, by its columns.</summary>
    public static async Task<TodayDto> OfAsync(Desk desk, KeyRing ring)
    {
        var rows = await Cards.RowsAsync(desk);
        var yours = rows.Where(row => row.Standing.Turn == Side.Yours)
            .OrderByDescending(row => row.Standing.Waits == WaitKind.AnswerInquiry)
            .ThenBy(row => row.Standing.Since)
            .ToList();
        var names = await RoutineNames.OfAsync(desk);
        var held = await HeldDays.OfAsync(desk, Week.MondayOf(desk.Today), Week.Days);
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
        return new(
            DateWords.OfToday(desk.Today),
            OpenSteps.Of(desk),
            await MoneyAsync(desk),
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
            new(
                [.. ready.Select(one => one with { LastSaid = said.GetValueOrDefault(new(one.For.Project)) })],
                [.. asked.Select(one => one with { LastSaid = said.GetValueOrDefault(new(one.Project)) })],
                await ReadyToGo.ByItselfAsync(desk, names),
                await ReadyToGo.UncertainAsync(desk),
                await desk.Db.MailAccounts.Select(a => a.Problem).SingleOrDefaultAsync(),
                await Troubles.OfAsync(desk, ring)
            ),
            new(
                Load(desk, held),
                await MeetingsAsync(desk, held),
                await TasksAsync(desk),
                await PlanSteps.DueAsync(desk),
                await CameInAsync(desk),
                await Tray.CountAsync(desk)
            )
        );
    }

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

    private static async Task<CameInListDto> CameInAsync(Desk desk)
    {
        var looked = desk.Studio.LookedAt ?? desk.Now - Duration.FromDays(3);
        var from = desk.Now - Duration.FromDays(7);
        var facts = await desk
            .Db.Facts.AsNoTracking()
            .Where(f => f.By == Actor.Client && f.Recorded >= from)
            .Where(f => !desk.Db.Rehearsals.Any(p => p.Id == f.ProjectId))
            .OrderByDescending(f => f.Recorded)
            .ThenByDescending(f => f.Id)
            .Take(60)
            .ToListAsync();
        var ids = facts.Select(f => f.ProjectId).Distinct().ToList();
        var titles = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                p.Title,
                Client = p.Client!.Name,
            })
            .ToDictionaryAsync(p => p.Id);
        var all = facts
            .Select(f =>
                (
                    f,
                    Words: desk.Tell(
                        () =>
                            CameWords(
                                FactJson.Read(f.Kind, f.Version, f.Payload),
                                titles[f.ProjectId].Client,
                                titles[f.ProjectId].Title
                            ),
                        () => Untold.Words
                    )
                )
            )
            .Where(x => x.Words is not null)
            .Select(x => new CameInDto(x.f.ProjectId.Value, x.Words!, Since(desk, x.f.Happened), x.f.Recorded > looked))
            .ToList();
        return new(
            all.Take(CameInShown).ToList(),
            Math.Max(0, all.Count - CameInShown),
            desk.Short(desk.Calendar.DateOf(from))!
        );
    }

    private static string? CameWords(Happening what, string client, string project) =>
        what switch
        {
            Happening.Unreadable => $"{Untold.Words}, {project}",
            Happening.InquiryCame => $"{client} inquired: {project}",
            Happening.FormReturned => $"{client} returned a form, {project}",
            Happening.LetterReceived { Automatic: false } => $"{client} wrote, {project}",
            Happening.ProposalOpened => $"{client} opened the proposal, {project}",
            Happening.ProposalAccepted => $"{client} chose, {project}",
            Happening.ProposalDeclined => $"{client} declined, {project}",
            Happening.ChangeAsked { Sort: AskSort.Question } => $"{client} asks about the proposal, {project}",
            Happening.ChangeAsked { Sort: AskSort.Objection } => $"{client} objects to the proposal, {project}",
            Happening.ChangeAsked => $"{client} asks for a change, {project}",
            Happening.RateSheetTicked => $"{client} ticked on the rate sheet, {project}",
            Happening.ContractAsked { Sort: AskSort.Question } => $"{client} asks about the contract, {project}",
            Happening.ContractAsked { Sort: AskSort.Objection } => $"{client} objects to the contract, {project}",
            Happening.ContractAsked => $"{client} asks for a change of the contract, {project}",
            Happening.ContractDeclined => $"{client} declined to sign, {project}",
            Happening.ContractSignedInPart => $"One of the signatures of {project} is there",
            Happening.ContractSigned => $"{client} signed, {project}",
            Happening.PaymentReceived paid => $"{MoneyText.Of(paid.Amount)} from {client}, {project}",
            Happening.Approved => $"{client} approved the work, {project}",
            Happening.RemarkLeft => $"{client} left a remark, {project}",
            Happening.ChangesAsked => $"{client} asks for changes, {project}",
            Happening.ReviewApproved => $"{client} approved a draft, {project}",
            Happening.FileKept => $"{client} sent a file, {project}",
            Happening.MeetingBooked => $"{client} chose a time, {project}",
            Happening.MeetingMoved => $"{client} moved the meeting, {project}",
            Happening.MeetingCancelled => $"{client} cancelled the meeting, {project}",
            Happening.BriefApproved => $"{client} approved the brief, {project}",
            Happening.PartAsked asked => $"{client} asks {Core.ClientPages.Sight.AskWords(asked.Part)}, {project}",
            Happening.RunSheetAgreed => $"{client} agreed to the run sheet, {project}",
            Happening.ListChanged changed => $"{client} changed {NameOf(changed)}, {project}",
            Happening.BoardApproved board => $"{client} approved the mood board “{board.Name}”, {project}",
            Happening.TestimonialApproved => $"{client} approved words to quote, {project}",
            Happening.TestimonialDeclined => $"{client} would rather not be quoted, {project}",
            Happening.LeaveGiven { To: LeaveTo.Quote } => $"{client} lets you quote them, {project}",
            Happening.LeaveGiven => $"{client} lets you show the work, {project}",
            Happening.LeaveRefused { To: LeaveTo.Quote } => $"{client} would rather not be quoted, {project}",
            Happening.LeaveRefused => $"{client} would rather not have the work shown, {project}",
            Happening.LeaveRevoked { To: LeaveTo.Quote } => $"{client} took back the leave to quote, {project}",
            Happening.LeaveRevoked => $"{client} took back the leave to show, {project}",
            Happening.BriefRemarked => $"{client} remarks on the brief, {project}",
            _ => null,
        };

    private static string NameOf(Happening.ListChanged changed) =>
        $"the {ProjectLists.SortWords(changed.Sort)} “{changed.Name}”";

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
        var received = await desk
            .Db.Payments.AsNoTracking()
            .Where(p => p.At >= start && p.GoneAt == null && !desk.Db.Rehearsals.Any(r => r.Id == p.ProjectId))
            .Select(p => new { p.AmountMinor, p.Currency })
            .ToListAsync();
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
            desk.Sum(received.Select(p => (p.AmountMinor, (string?)p.Currency))),
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
