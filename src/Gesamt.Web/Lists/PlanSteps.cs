using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Waiting;
using Gesamt.Core.Work;
using Gesamt.Formats.Calendars;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Lists;

/// <summary>The steps of plans that are not done: on the day they are due, and in the owner’s feed.</summary>
public sealed class PlanSteps : IFeeds
{
    private const int Most = 500,
        DaysInFeed = 400;

    /// <summary>What is due by today, of projects that are neither over, resting nor put away.</summary>
    public static async Task<IReadOnlyList<DueStepDto>> DueAsync(Desk desk) =>
        [
            .. (await UntilAsync(desk, desk.Today))
                .OrderBy(one => one.Step.On)
                .Select(one => new DueStepDto(
                    one.List.PublicId,
                    one.Step.Entry,
                    one.Step.Column.Key,
                    TitleOf(one.Step),
                    $"{one.List.Name}, {one.Project}",
                    DateWords.Due(one.Step.On, desk.Today, false),
                    one.Step.On < desk.Today
                )),
        ];

    /// <inheritdoc/>
    public async Task<IReadOnlyList<CalendarTask>> DaysAsync(Desk desk) =>
        [
            .. (await UntilAsync(desk, desk.Today.PlusDays(DaysInFeed))).Select(one => new CalendarTask(
                $"step-{one.List.PublicId}-{one.Step.Entry}-{one.Step.Column.Key}@{desk.Studio.MailDomain}",
                one.Step.On,
                TitleOf(one.Step),
                $"{one.List.Name}, {one.Project}",
                desk.Calendar.StartOf(one.Step.On),
                null
            )),
        ];

    /// <summary>The steps of some days that are not done, each with its project.</summary>
    /// <param name="last">Included.</param>
    public static async Task<IReadOnlyList<(ProjectId Project, LocalDate On, string Words)>> WithinAsync(
        Desk desk,
        LocalDate first,
        LocalDate last
    ) =>
        [
            .. (await UntilAsync(desk, last))
                .Where(one => one.Step.On >= first)
                .Select(one => (one.List.ProjectId!.Value, one.Step.On, TitleOf(one.Step))),
        ];

    private static string TitleOf(PlanStep step) =>
        step.What.Length > 0 ? $"{step.Column.Name}: {step.What}" : step.Column.Name;

    private sealed record DueEntry(EntryRow Entry, ListRow List, string Title);

    private static readonly Func<GesamtDb, LocalDate, Task<List<DueEntry>>> Due = Prepared.Rows(
        (GesamtDb db, LocalDate until) =>
            (
                from entry in db.Entries.AsNoTracking()
                where entry.NextStep != null && entry.NextStep <= until
                join list in db.Lists on entry.ListId equals list.Id
                where !list.Removed && list.ProjectId != null
                join project in db.Projects on list.ProjectId equals (ProjectId?)project.Id
                where
                    !project.Standing.PutAway
                    && project.Standing.Ended == null
                    && project.Standing.Waits != WaitKind.Resting
                orderby entry.NextStep
                select new DueEntry(entry, list, project.Title)
            ).Take(Most)
    );

    private static async Task<List<(ListRow List, string Project, PlanStep Step)>> UntilAsync(
        Desk desk,
        LocalDate until
    )
    {
        var rows = await Due(desk.Db, until);
        return rows.SelectMany(one =>
                desk.Tell(
                    () =>
                        ListRule
                            .Steps(ProjectLists.ColumnsOf(one.List), [(one.Entry.Key, ListEntries.StateOf(one.Entry))])
                            .Where(step => !step.Done && step.On <= until)
                            .Select(step => (one.List, one.Title, step))
                            .ToList(),
                    () => []
                )
            )
            .ToList();
    }
}
