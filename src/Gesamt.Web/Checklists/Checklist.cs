using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Checklists;

/// <summary>Checklists of a kind, answered by the owner on each project: a chosen answer makes its task, once; taken back, the task goes as long as nobody touched it.</summary>
public static class Checklist
{
    public static void MapChecklists(this RouteGroupBuilder api)
    {
        var lists = api.MapGroup("/projects/{id:long}/checklists");
        lists.MapGet("", async (long id, Desk desk) => await OfAsync(desk, await desk.OpenAsync(new(id))));
        lists.MapPut(
            "/{form:int}",
            async (long id, int form, AnswerChecklistDto answer, Desk desk) =>
            {
                await AnswerAsync(desk, new(id), form, answer);
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>The checklists of the project’s kind, and those answered on it while it was of another.</summary>
    public static async Task<IReadOnlyList<ChecklistDto>> OfAsync(Desk desk, ProjectFile file)
    {
        var rows = await desk
            .Db.Checklists.AsNoTracking()
            .Where(c => c.ProjectId == file.Id)
            .ToDictionaryAsync(c => c.FormId);
        var answered = rows.Keys.ToList();
        var kinds = file.Row.Kinds;
        var forms = await desk
            .Db.Forms.AsNoTracking()
            .Where(f => f.Purpose == FormPurpose.Checklist && (kinds.Contains(f.KindId) || answered.Contains(f.Id)))
            .OrderBy(f => f.Id)
            .ToListAsync();
        var tasks = (await TasksAsync(desk, file.Id)).Where(task => !task.Removed).ToList();
        return
        [
            .. forms.Select(form =>
                Of(desk, file, form, rows.GetValueOrDefault(form.Id), [.. tasks.Where(task => IsOf(task, form.Id))])
            ),
        ];
    }

    /// <summary>What keeps a draft from being put up, list by list.</summary>
    public static async Task<IReadOnlyList<string>> LacksAsync(Desk desk, ProjectFile file)
    {
        var kinds = file.Row.Kinds;
        return await desk.Db.Forms.AnyAsync(f => kinds.Contains(f.KindId) && f.BeforeDraft)
            ? [.. (await OfAsync(desk, file)).Select(list => list.Stands.Lacks).OfType<string>()]
            : [];
    }

    /// <exception cref="InvalidException">An answer is none; its question is named.</exception>
    /// <exception cref="StaleException">It was answered in another window meanwhile.</exception>
    public static Task AnswerAsync(Desk desk, ProjectId project, int formId, AnswerChecklistDto answer) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var form =
                await act
                    .Db.Forms.AsNoTracking()
                    .SingleOrDefaultAsync(f => f.Id == formId && f.Purpose == FormPurpose.Checklist)
                ?? throw new MissingException("checklist");
            var fields = StoreJson.Read<List<FormField>>(form.Fields);
            // it may be half answered: what is open is told, and only a draft waits for it
            var (_, mistakes) = FormRule.Read(
                [.. fields.Select(field => field with { Required = false })],
                answer.Answers
            );
            if (mistakes.Length > 0)
                throw new InvalidException([.. mistakes.Select(mistake => (mistake.Field, mistake.Words))]);
            var row = await act.Db.Checklists.SingleOrDefaultAsync(c => c.ProjectId == project && c.FormId == formId);
            if ((row?.Edition ?? 0) != answer.Edition)
                throw new StaleException(new AnswerChecklistDto(GivenOf(row), row?.Edition ?? 0));
            var change = ChecklistRule.Change(fields, GivenOf(row), answer.Answers);
            if (row is null)
                act.Db.Checklists.Add(
                    row = new()
                    {
                        ProjectId = project,
                        FormId = formId,
                        Given = "",
                    }
                );
            row.Given = StoreJson.Write(answer.Answers.Where(pair => pair.Value.Trim().Length > 0).ToDictionary());
            (row.At, row.Edition) = (act.Now, row.Edition + 1);
            var facts = await ApplyAsync(act, file, formId, change);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(
                file,
                Actor.Owner,
                [
                    .. facts,
                    new Happening.ChecklistAnswered(
                        formId,
                        ChecklistRule.Answered(fields, answer.Answers),
                        ChecklistRule.Questions(fields, answer.Answers).Length
                    ),
                ]
            );
        });

    private static async Task<IReadOnlyList<Happening>> ApplyAsync(
        Act act,
        ProjectFile file,
        int form,
        ChecklistChange change
    )
    {
        var tasks = (await TasksAsync(act.Desk, file.Id)).ToDictionary(task => task.MadeFrom!);
        List<Happening> facts = [];
        foreach (var field in change.Made)
        {
            var key = KeyOf(form, field.Key);
            if (!tasks.TryGetValue(key, out var task))
            {
                act.Db.Tasks.Add(
                    task = new()
                    {
                        ProjectId = file.Id,
                        Title = field.Makes!.Title.Trim(),
                        MadeFrom = key,
                    }
                );
                await act.Db.SaveChangesAsync();
            }
            else if (task.Removed)
                task.Removed = false;
            else
                continue;
            facts.Add(new Happening.TaskMade(task.Id, task.Due));
        }
        foreach (var question in change.Withdrawn)
            if (tasks.TryGetValue(KeyOf(form, question), out var task) && await IsUntouchedAsync(act.Desk, task))
            {
                task.Removed = true;
                facts.Add(new Happening.TaskRemoved(task.Id));
            }
        return facts;
    }

    private static async Task<bool> IsUntouchedAsync(Desk desk, TaskRow task) =>
        task is { Removed: false, DoneAt: null, Edition: 0 }
        && !await desk.Db.Hours.AnyAsync(h => h.TaskId == task.Id && !h.Removed);

    private static ChecklistDto Of(
        Desk desk,
        ProjectFile file,
        FormRow form,
        ChecklistRow? row,
        IReadOnlyList<TaskRow> tasks
    )
    {
        var fields = StoreJson.TryRead<List<FormField>>(form.Fields) ?? [];
        var given = GivenOf(row);
        var (answered, questions) = (
            ChecklistRule.Answered(fields, given),
            ChecklistRule.Questions(fields, given).Length
        );
        return new(
            form.Id,
            form.Title,
            form.Intro,
            fields,
            given,
            new(
                row is null
                    ? "not answered yet"
                    : $"{answered} of {questions} answered, {desk.Short(desk.Calendar.DateOf(row.At))}",
                form.BeforeDraft,
                form.BeforeDraft
                    ? Lacks(
                        form.Title,
                        questions - answered,
                        tasks.Count(task => task.DoneAt is null),
                        IsOver(file, row)
                    )
                    : null
            ),
            tasks.ToDictionary(
                task => task.MadeFrom![(task.MadeFrom!.IndexOf(':') + 1)..],
                task => new ChecklistTaskDto(task.Title, task.DoneAt is not null)
            ),
            row?.Edition ?? 0
        );
    }

    private static string? Lacks(string title, int open, int tasks, bool isOver) =>
        open > 0 ? $"“{title}”: {(open == 1 ? "one question is" : $"{open} questions are")} open."
        : tasks > 0 ? $"“{title}”: {(tasks == 1 ? "one of its tasks is" : $"{tasks} of its tasks are")} open."
        : isOver ? $"“{title}”: go through it once more, for this draft."
        : null;

    /// <summary>It was gone through for a draft that is up already.</summary>
    private static bool IsOver(ProjectFile file, ChecklistRow? row) =>
        row is not null
        && ReviewRule.Of(file.History).LastOrDefault(review => review.Round is not null) is { } last
        && last.Opened >= row.At;

    private static Dictionary<string, string> GivenOf(ChecklistRow? row) =>
        row is null ? [] : StoreJson.TryRead<Dictionary<string, string>>(row.Given) ?? [];

    private static Task<List<TaskRow>> TasksAsync(Desk desk, ProjectId project) =>
        desk.Db.Tasks.Where(t => t.ProjectId == project && t.MadeFrom != null).ToListAsync();

    private static bool IsOf(TaskRow task, int form) =>
        task.MadeFrom!.StartsWith(KeyOf(form, ""), StringComparison.Ordinal);

    private static string KeyOf(int form, string question) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{form}:{question}");
}
