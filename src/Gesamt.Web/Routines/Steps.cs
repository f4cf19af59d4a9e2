using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.People;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Projects;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <param name="End">Whether the project ends as gone quiet; else it stays open.</param>
public sealed record QuietAnswerDto(long Run, string Step, int Occurrence, bool End);

/// <summary>Lets the due steps of one project act, each in a short transaction of its own.</summary>
public static class Steps
{
    public static async Task<bool> ActAsync(Desk desk, ProjectId project)
    {
        var seen = await desk.OpenAsync(project);
        foreach (var due in DueRule.Of(seen.Case, desk.Now))
        {
            desk.Db.ChangeTracker.Clear();
            await ActAsync(desk, project, due);
        }
        return true;
    }

    private static async Task ActAsync(Desk desk, ProjectId project, DueStep due)
    {
        if (await WaitsAsync(desk, project, due)) return;
        // text and message are made before the transaction; it then only checks that nothing happened meanwhile
        var before = await desk.OpenAsync(project);
        var letter = due is { Act: DueAct.Act or DueAct.Hold, Step.Step.Action: StepAction.Letter action }
            ? await PrepareAsync(desk, before, due, action.Key) : null;
        var message = letter is { State: LetterState.Ready } ? Sending.Compose(desk, before.Row, letter) : null;
        var facts = before.History.Facts.Length;
        desk.Db.ChangeTracker.Clear();

        KillPoints.Reach("claiming");
        await using var transaction = await desk.BeginAsync();
        var file = await desk.OpenAsync(project);
        // something happened meanwhile, or another copy was quicker: decided again on the next tick
        if (file.History.Facts.Length != facts || await WaitsAsync(desk, project, due)) return;
        if (due.Act == DueAct.Skip) await desk.RecordAsync(file, Actor.Gesamt, new Happening.StepSkipped(due.Step.Ref));
        else if (letter is not null) await ClaimOrHoldAsync(desk, file, due, letter, message);
        else if (due.Step.Step.Action is StepAction.EndAsQuiet) await desk.RecordAsync(file, Actor.Gesamt, new Happening.StepHeld(due.Step.Ref, null));
        else if (due.Step.Step.Action is StepAction.Tasks tasks) await MakeTasksAsync(desk, file, due, tasks.Key);
        await desk.CommitAsync(transaction);
        KillPoints.Reach("claimed");
    }

    /// <summary>A letter already claimed is on its way; one to a client without a mail address waits, and the record says so.</summary>
    private static async Task<bool> WaitsAsync(Desk desk, ProjectId project, DueStep due)
    {
        if (!due.Step.Step.Action.LeavesTheHouse || due.Act == DueAct.Skip) return false;
        var key = Sending.KeyOf(due.Step.Ref);
        return await desk.Db.Outbox.AnyAsync(o => o.Key == key)
            || await desk.Db.Projects.AnyAsync(p => p.Id == project && p.Client!.Mail == null && !p.People.Any(one => one.Part == PersonPart.GetsMail && one.Person!.Mail != null));
    }

    /// <summary>The letter of a step with its own copy of the text. A gap, or a step that asks first, is held.</summary>
    private static async Task<LetterRow> PrepareAsync(Desk desk, ProjectFile file, DueStep due, string template)
    {
        var filled = await Writing.FillAsync(desk, file, template, InvoiceOf(file, due));
        var letter = Sending.NewLetter(desk, file, filled.Subject, filled.Body, byItself: due.Act == DueAct.Act);
        letter.Gaps = string.Join(", ", filled.Gaps);
        letter.State = due.Act == DueAct.Hold || filled.Gaps.Count > 0 ? LetterState.Held : LetterState.Ready;
        (letter.RunId, letter.Step, letter.Occurrence) = (due.Step.Ref.Run, due.Step.Ref.Step, due.Step.Ref.Occurrence);
        letter.InReplyTo = await LastReceivedAsync(desk, file);
        return letter;
    }

    private static async Task ClaimOrHoldAsync(Desk desk, ProjectFile file, DueStep due, LetterRow letter, byte[]? message)
    {
        desk.Db.Letters.Add(letter);
        await desk.Db.SaveChangesAsync();
        if (message is null)
        {
            await desk.RecordAsync(file, Actor.Gesamt, new Happening.StepHeld(due.Step.Ref, letter.Id));
            return;
        }
        // the key exists once: a step that was claimed before is refused by the database
        Sending.Claim(desk, letter, Sending.KeyOf(letter), message, desk.Now);
    }

    private static async Task MakeTasksAsync(Desk desk, ProjectFile file, DueStep due, string key)
    {
        var list = await desk.Db.TaskLists.AsNoTracking().SingleOrDefaultAsync(l => l.Key == key);
        List<Happening> made = [];
        foreach (var item in list is null ? [] : StoreJson.Read<List<ListedTask>>(list.Items))
        {
            var on = file.Case.MainDate is { } date ? desk.Calendar.Add(date.Date, item.Offset) : (NodaTime.LocalDate?)null;
            var task = new TaskRow { ProjectId = file.Id, Title = item.Title, Due = on, Counted = $"{item.Offset.Words} {file.Case.Kind.MainDate}", OffsetCount = item.Offset.Count, OffsetUnit = item.Offset.Unit, Phase = item.Phase };
            desk.Db.Tasks.Add(task);
            await desk.Db.SaveChangesAsync();
            made.Add(new Happening.TaskMade(task.Id, on));
        }
        await desk.RecordAsync(file, Actor.Gesamt, [.. made, new Happening.StepDone(due.Step.Ref, null)]);
    }

    /// <summary>The owner's answer to the proposal to end a project as gone quiet.</summary>
    /// <exception cref="RefusedException">It waits for no answer any more.</exception>
    public static async Task AnswerQuietAsync(Desk desk, ProjectId project, QuietAnswerDto answer)
    {
        var file = await desk.OpenAsync(project);
        var held = Plan.Of(file.Case).FirstOrDefault(step => step is { State: StepState.Held, Step.Action: StepAction.EndAsQuiet } && step.Ref == new StepRef(new(answer.Run), answer.Step, answer.Occurrence))
            ?? throw new RefusedException("Something happened meanwhile: this is not asked any more.");
        desk.Db.ChangeTracker.Clear();
        if (answer.End)
        {
            // the end stops what is still planned, this step too
            await Happened.RecordAsync(desk, project, new(HappenedSort.GoneQuiet), "", "");
            return;
        }
        await using var transaction = await desk.BeginAsync();
        await desk.RecordAsync(await desk.OpenAsync(project), Actor.Owner, new Happening.StepSkipped(held.Ref));
        await desk.CommitAsync(transaction);
    }

    private static Happening.InvoiceIssued? InvoiceOf(ProjectFile file, DueStep due) =>
        due.Step.Step.When.Cause == Cause.InvoiceDue
            ? file.History.Of<Happening.InvoiceIssued>().ElementAtOrDefault(due.Step.Ref.Occurrence).What : null;

    private static Task<string?> LastReceivedAsync(Desk desk, ProjectFile file) =>
        desk.Db.Letters.Where(l => l.ProjectId == file.Id && l.State == LetterState.Received).OrderByDescending(l => l.Id).Select(l => l.MessageId).FirstOrDefaultAsync();
}
