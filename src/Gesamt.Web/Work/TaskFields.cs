using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Work;

/// <summary>Writes what was said of a task into its row, each field looked at.</summary>
public static class TaskFields
{
    public const int LongestTitle = 200;
    private const int LongestWords = 4_000,
        LongestList = 60,
        MostSteps = 50;

    /// <summary>Most minutes that an estimate can say.</summary>
    private const int MostMinutes = 1_000 * 60;

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static void Write(TaskRow row, ProjectFile file, TaskDto task)
    {
        List<(string, string)> wrong = [];
        var title = task.Title.Trim();
        if (title.Length is 0 or > LongestTitle)
            wrong.Add(("title", $"A task of 1 to {LongestTitle} characters is needed."));
        if (task.Phase is not null && PhaseRule.Of(file.Case).All(phase => phase.Name != task.Phase))
            wrong.Add(("phase", $"This project has no phase “{task.Phase}”."));
        (row.Title, row.Phase, row.DoneBy) = (title, task.Phase, task.DoneBy);
        if (task.Plan is { } plan)
            Write(row, plan, wrong);
        if (task.Words is { } words)
            Write(row, words, wrong);
        if (task.IsClients is { } clients && clients != row.PublicId is not null)
            row.PublicId = clients ? Codes.New() : null;
        if (wrong.Count > 0)
            throw new InvalidException([.. wrong]);
    }

    /// <summary>An estimate as a field has it, in minutes; null for an empty field.</summary>
    public static int? Minutes(string text, string field, List<(string, string)> wrong)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        if (WorkTime.Read(text, MostMinutes) is { } minutes)
            return minutes;
        wrong.Add(
            (field, $"How long will it take? Write 3 h, {NumberText.Number(1.5m)} or 45 min.{NumberText.Doubt(text)}")
        );
        return null;
    }

    /// <summary>1 to 3, or nothing.</summary>
    public static void CheckWeight(int? weight, string field, List<(string, string)> wrong)
    {
        if (weight is < TaskWeight.Least or > TaskWeight.Most)
            wrong.Add((field, "Say 1, 2 or 3, or leave it open."));
    }

    /// <summary>Texts that go with a task.</summary>
    public static void CheckText(string text, string field, List<(string, string)> wrong)
    {
        if (text.Length > LongestWords)
            wrong.Add((field, $"At most {LongestWords} characters."));
    }

    /// <summary>The parts of a task.</summary>
    public static void CheckSteps(IReadOnlyList<string> steps, string field, List<(string, string)> wrong)
    {
        if (steps.Count > MostSteps)
            wrong.Add((field, $"At most {MostSteps} parts."));
        if (steps.Any(step => step.Trim().Length is 0 or > LongestTitle))
            wrong.Add((field, $"Each part is said in 1 to {LongestTitle} characters."));
    }

    private static void Write(TaskRow row, TaskPlanDto plan, List<(string, string)> wrong)
    {
        CheckWeight(plan.Importance, "plan.importance", wrong);
        CheckWeight(plan.Effort, "plan.effort", wrong);
        var list = plan.List.Trim();
        if (list.Length > LongestList)
            wrong.Add(("plan.list", $"A list is named in at most {LongestList} characters."));
        row.WorkOn = plan.WorkOn;
        row.EstimateMinutes = Minutes(plan.Estimate, "plan.estimate", wrong);
        (row.Importance, row.Effort) = (plan.Importance, plan.Effort);
        row.List = list.Length > 0 ? list : null;
    }

    private static void Write(TaskRow row, TaskWordsDto words, List<(string, string)> wrong)
    {
        CheckText(words.Description, "words.description", wrong);
        CheckText(words.Finished, "words.finished", wrong);
        CheckSteps([.. words.Steps.Select(step => step.Title)], "words.steps", wrong);
        (row.Description, row.Finished) = (words.Description.Trim(), words.Finished.Trim());
        row.Steps = StoreJson.Write(words.Steps.Select(step => step with { Title = step.Title.Trim() }).ToList());
    }

    /// <summary>The task as it is kept, to be changed.</summary>
    public static TaskDto Of(TaskRow row) =>
        new(
            row.Title,
            row.Due,
            row.Phase,
            row.DoneBy,
            new(
                row.WorkOn,
                row.EstimateMinutes is { } minutes ? WorkTime.Words(minutes) : "",
                row.Importance,
                row.Effort,
                row.List ?? ""
            ),
            new(row.Description, row.Finished, [.. Steps(row)]),
            row.PublicId is not null,
            row.Edition
        );

    /// <summary>Its parts in their order.</summary>
    public static IReadOnlyList<TaskStep> Steps(TaskRow row) => StoreJson.TryRead<List<TaskStep>>(row.Steps) ?? [];
}
