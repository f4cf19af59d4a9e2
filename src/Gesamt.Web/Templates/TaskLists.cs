using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <param name="Count">How long before (negative) or after the date that matters.</param>
/// <param name="DoneBy">What fulfils it when it happens; null where only a tick does.</param>
/// <param name="More">What else it brings along; null for nothing.</param>
public sealed record ListItemDto(
    string Title,
    int Count,
    SpanUnit Unit,
    string? Phase,
    Fulfilment? DoneBy = null,
    ListItemMoreDto? More = null
);

/// <summary>What else a task of a list brings along.</summary>
/// <param name="Estimate">As people write it: “3 h”, “45 min”; empty for none.</param>
/// <param name="Importance">1 to 3, 3 is high.</param>
/// <param name="Effort">1 to 3, 3 is much; null goes by the estimate.</param>
/// <param name="Finished">What counts as finished.</param>
/// <param name="IsClients">The client does it.</param>
public sealed record ListItemMoreDto(
    string Estimate,
    int? Importance,
    int? Effort,
    string Description,
    string Finished,
    string[] Steps,
    bool IsClients
);

/// <param name="UsedBy">Routines that make its tasks.</param>
public sealed record TaskListDto(
    string Key,
    string Name,
    int Edition,
    ListItemDto[] Items,
    IReadOnlyList<string> UsedBy
);

/// <summary>A list of tasks as it is saved.</summary>
public sealed record SaveTaskListDto(string Name, int Edition, ListItemDto[] Items);

/// <summary>Tasks that are made together, in their order. Tasks already made are the project's and stay as they are.</summary>
public static class TaskLists
{
    private const int MostItems = 200;

    /// <summary>All lists.</summary>
    public static async Task<IReadOnlyList<TaskListDto>> AllAsync(Desk desk)
    {
        var used = await RoutineUses.OfAsync(desk, action => (action as StepAction.Tasks)?.Key);
        return
        [
            .. (
                await desk.Db.TaskLists.AsNoTracking().Where(l => !l.Removed).OrderBy(l => l.Name).ToListAsync()
            ).Select(l => new TaskListDto(
                l.Key,
                l.Name,
                l.Edition,
                desk.Tell(() => Items(l), () => []),
                [.. used[l.Key].Distinct()]
            )),
        ];
    }

    private static ListItemDto[] Items(TaskListRow row) =>
        [
            .. StoreJson
                .Read<List<ListedTask>>(row.Items)
                .Select(item => new ListItemDto(
                    item.Title,
                    item.Offset.Count,
                    item.Offset.Unit,
                    item.Phase,
                    item.DoneBy,
                    item.More is { } more ? Of(more) : null
                )),
        ];

    private static ListItemMoreDto Of(ListedMore more) =>
        new(
            more.Minutes is { } minutes ? WorkTime.Words(minutes) : "",
            more.Importance,
            more.Effort,
            more.Description,
            more.Finished,
            more.Steps ?? [],
            more.IsClients
        );

    /// <summary>Null where nothing was said.</summary>
    private static ListedMore? More(ListItemMoreDto? more, string at, List<(string, string)> errors)
    {
        if (more is null)
            return null;
        TaskFields.CheckWeight(more.Importance, $"{at}.importance", errors);
        TaskFields.CheckWeight(more.Effort, $"{at}.effort", errors);
        TaskFields.CheckText(more.Description, $"{at}.description", errors);
        TaskFields.CheckText(more.Finished, $"{at}.finished", errors);
        TaskFields.CheckSteps(more.Steps, $"{at}.steps", errors);
        return new(
            TaskFields.Minutes(more.Estimate, $"{at}.estimate", errors),
            more.Importance,
            more.Effort,
            more.Description.Trim(),
            more.Finished.Trim(),
            [.. more.Steps.Select(step => step.Trim())],
            more.IsClients
        );
    }

    /// <exception cref="InvalidException">A task has no title, or its distance is none; it is named by its place in the list.</exception>
    public static async Task<string> SaveAsync(Desk desk, string? key, SaveTaskListDto save)
    {
        return await desk.ActAsync(async act =>
        {
            List<(string, string)> errors = [];
            if (save.Name.Trim().Length is 0 or > 80)
                errors.Add(("name", "A name of 1 to 80 characters is needed."));
            if (save.Items.Length is 0 or > MostItems)
                errors.Add(("items", $"A list has 1 to {MostItems} tasks."));
            for (var i = 0; i < save.Items.Length; i++)
            {
                if (save.Items[i].Title.Trim().Length is 0 or > 200)
                    errors.Add(($"items[{i}].title", "Write 1 to 200 characters."));
                if (save.Items[i].Count is > 3_650 or < -3_650)
                    errors.Add(($"items[{i}].count", "At most 3650."));
                if (save.Items[i].Unit is SpanUnit.Minutes or SpanUnit.Hours)
                    errors.Add(($"items[{i}].unit", "Days, business days, weeks, months or years."));
            }
            var mores = save.Items.Select((item, i) => More(item.More, $"items[{i}].more", errors)).ToList();
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            var row = key is null
                ? null
                : await desk.Db.TaskLists.SingleOrDefaultAsync(l => l.Key == key && !l.Removed)
                    ?? throw new MissingException("task list");
            if (row is null)
                desk.Db.TaskLists.Add(row = new() { Key = await NewKeyAsync(desk, save.Name), Items = "[]" });
            else if (row.Edition != save.Edition)
                throw new StaleException(new SaveTaskListDto(row.Name, row.Edition, Items(row)));
            (row.Name, row.Items) = (
                save.Name.Trim(),
                StoreJson.Write(
                    save.Items.Select(
                            (item, i) =>
                                new ListedTask(
                                    item.Title.Trim(),
                                    new Span(item.Count, item.Unit),
                                    string.IsNullOrWhiteSpace(item.Phase) ? null : item.Phase,
                                    item.DoneBy,
                                    mores[i]
                                )
                        )
                        .ToList()
                )
            );
            row.Edition++;
            await RoutineTrouble.RefreshAsync(desk);
            return row.Key;
        });
    }

    /// <summary>Puts a list away, or takes it back.</summary>
    public static async Task RemoveAsync(Desk desk, string key, bool removed)
    {
        await desk.ActAsync(async act =>
        {
            var row =
                await desk.Db.TaskLists.SingleOrDefaultAsync(l => l.Key == key)
                ?? throw new MissingException("task list");
            row.Removed = removed;
            await RoutineTrouble.RefreshAsync(desk);
        });
    }

    private static async Task<string> NewKeyAsync(Desk desk, string name)
    {
        var key = RoutineText.KeyOf(name);
        return await desk.Db.TaskLists.AnyAsync(l => l.Key == key)
            ? $"{key}-{Guid.NewGuid():n}"[..(key.Length + 7)]
            : key;
    }
}
