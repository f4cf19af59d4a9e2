using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Work;

/// <summary>Lists of tasks laid on a project, each task at its distance to the date that matters.</summary>
public static class LaidLists
{
    /// <summary>Every list with the days its tasks would have here.</summary>
    public static async Task<IReadOnlyList<LaidListDto>> OfAsync(Desk desk, ProjectFile file) =>
        [
            .. (
                await desk.Db.TaskLists.AsNoTracking().Where(l => !l.Removed).OrderBy(l => l.Name).ToListAsync()
            ).Select(list => new LaidListDto(
                list.Key,
                list.Name,
                [
                    .. desk.Tell(() => Items(list), () => [])
                        .Select(item =>
                        {
                            var due = DueOf(desk, file, item);
                            return new LaidTaskDto(
                                item.Title,
                                desk.Short(due),
                                CountedOf(file, item),
                                due < desk.Today,
                                item.More?.IsClients == true
                            );
                        }),
                ]
            )),
        ];

    /// <summary>Makes the tasks of several lists, in the order of the lists and of their tasks.</summary>
    /// <exception cref="InvalidException">A list is not there, or nothing of it is wanted.</exception>
    public static Task<int> LayAsync(Desk desk, Core.ProjectId project, LayListsDto lay) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            List<Happening> made = [];
            for (var i = 0; i < lay.Lists.Length; i++)
            {
                var key = lay.Lists[i].List;
                var list =
                    await act.Db.TaskLists.AsNoTracking().SingleOrDefaultAsync(l => l.Key == key && !l.Removed)
                    ?? throw new InvalidException(($"lists[{i}].list", "There is no such task list."));
                var leave = lay.Lists[i].Leave.ToHashSet();
                made.AddRange(await MakeAsync(desk, file, list, at => !leave.Contains(at)));
            }
            if (made.Count == 0)
                throw new InvalidException(("lists", "Choose the tasks that apply."));
            await act.RecordAsync(file, Actor.Owner, [.. made]);
            return made.Count;
        });

    /// <summary>The tasks of a list. Inside the caller’s act, which records them.</summary>
    public static async Task<IReadOnlyList<Happening>> MakeAsync(
        Desk desk,
        ProjectFile file,
        TaskListRow list,
        Func<int, bool> applies
    )
    {
        var rows = Items(list).Where((_, at) => applies(at)).Select(item => RowOf(desk, file, list, item)).ToList();
        desk.Db.Tasks.AddRange(rows);
        await desk.Db.SaveChangesAsync();
        return [.. rows.Select(row => new Happening.TaskMade(row.Id, row.Due))];
    }

    private static TaskRow RowOf(Desk desk, ProjectFile file, TaskListRow list, ListedTask item)
    {
        var (dated, more) = (IsDated(file), item.More);
        return new()
        {
            ProjectId = file.Id,
            Title = item.Title,
            Due = DueOf(desk, file, item),
            Counted = CountedOf(file, item),
            OffsetCount = dated ? item.Offset.Count : null,
            OffsetUnit = dated ? item.Offset.Unit : null,
            // a list is shared by kinds: a phase that this project does not have is none here
            Phase = item.Phase is { } phase && file.Case.Kind.HasPhase(phase) ? phase : null,
            DoneBy = item.DoneBy,
            List = list.Name,
            EstimateMinutes = more?.Minutes,
            Importance = more?.Importance,
            Effort = more?.Effort,
            Description = more?.Description ?? "",
            Finished = more?.Finished ?? "",
            Steps = StoreJson.Write((more?.Steps ?? []).Select(step => new TaskStep(step)).ToList()),
            PublicId = more?.IsClients == true ? Codes.New() : null,
        };
    }

    // work without a date that matters counts from the day its list is laid
    private static LocalDate? DueOf(Desk desk, ProjectFile file, ListedTask item) =>
        (IsDated(file) ? file.Case.MainDate?.Date : desk.Today) is { } from
            ? desk.Calendar.Add(from, item.Offset)
            : null;

    private static string CountedOf(ProjectFile file, ListedTask item) =>
        $"{item.Offset.Words} {(IsDated(file) ? file.Case.Kind.MainDate : "the start")}";

    private static bool IsDated(ProjectFile file) => file.Case.Kind.MainDate.Length > 0;

    private static List<ListedTask> Items(TaskListRow list) => StoreJson.Read<List<ListedTask>>(list.Items);
}
