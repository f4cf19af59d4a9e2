using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>Lets the due steps of one project act, each in a short transaction of its own.</summary>
public static class Steps
{
    /// <summary>Lets all that is due of a project act.</summary>
    public static async Task<bool> ActAsync(Desk desk, ProjectId project)
    {
        var file = await desk.OpenAsync(project);
        HashSet<StepRef> tried = [];
        // one after another, each decided on what the one before left
        while (DueSteps.Of(file.Case, desk.Now).FirstOrDefault(due => !tried.Contains(due.Step.Ref)) is { } due)
        {
            tried.Add(due.Step.Ref);
            if (!await ActAsync(desk, file, due))
                break;
        }
        return true;
    }

    /// <returns>False when something happened meanwhile, or another copy was quicker: it is decided again on the next tick.</returns>
    private static async Task<bool> ActAsync(Desk desk, ProjectFile file, DueStep due)
    {
        if (await WaitsAsync(desk, file, due))
            return true;
        // the text is written before the act; it then only checks that nothing happened meanwhile
        var letter =
            due.Act != DueAct.Skip && due.Step.Step.Action.LetterKey is { } key
                ? await PrepareAsync(desk, file, due, key)
                : null;

        KillPoints.Reach("claiming");
        var isDone = await desk.ActAsync(async act =>
        {
            if (await act.Db.LastFactAsync(file.Id) != file.History.LastFact)
                return false;
            if (due.Act == DueAct.Skip)
                await act.RecordAsync(file, Actor.Gesamt, new Happening.StepSkipped(due.Step.Ref));
            else if (letter is not null)
                await ClaimOrHoldAsync(act, file, due, letter);
            else if (due.Act == DueAct.Hold)
                await act.RecordAsync(file, Actor.Gesamt, new Happening.StepHeld(due.Step.Ref, null));
            else
                await StepActions.DoAsync(act, file, due.Step, Actor.Gesamt);
            return true;
        });
        KillPoints.Reach("claimed");
        return isDone;
    }

    /// <summary>A letter already claimed is on its way; one to a client without a mail address waits, and the record says so.</summary>
    private static async Task<bool> WaitsAsync(Desk desk, ProjectFile file, DueStep due)
    {
        if (due.Step.Step.Action.LetterKey is null || due.Act == DueAct.Skip)
            return false;
        var key = Sending.KeyOf(due.Step.Ref);
        return file.MailTo is null || await desk.Db.Outbox.AnyAsync(o => o.Key == key);
    }

    /// <summary>The letter of a step with its own copy of the text, or the one that was put off until now. A gap, or a step that asks first, is held.</summary>
    private static async Task<LetterRow> PrepareAsync(Desk desk, ProjectFile file, DueStep due, string template)
    {
        var step = due.Step.Ref;
        if (
            await desk.Db.Letters.FirstOrDefaultAsync(l =>
                l.RunId == step.Run
                && l.Step == step.Step
                && l.Occurrence == step.Occurrence
                && l.State == LetterState.PutOff
            ) is
            { } putOff
        )
            return putOff;
        var filled = await Writing.FillAsync(desk, file, template, await StepActions.WordsAsync(desk, file, due.Step));
        var letter = Sending.NewLetter(desk, file, filled.Subject, filled.Body, byItself: due.Act == DueAct.Act);
        letter.Template = template;
        letter.Files = [.. filled.Files, .. await StepActions.PapersAsync(desk, file, due.Step)];
        letter.Gaps = string.Join(", ", filled.Gaps);
        letter.State =
            due.Act == DueAct.Hold || filled.Gaps.Count > 0 || await HasManyAsync(desk, file, due, letter)
                ? LetterState.Held
                : LetterState.Ready;
        (letter.RunId, letter.Step, letter.Occurrence) = (step.Run, step.Step, step.Occurrence);
        letter.InReplyTo = await LastReceivedAsync(desk, file);
        return letter;
    }

    private const int MostToOneAddress = 3;

    /// <summary>Whether an address has had as many letters by itself as it should get in a day from inquiries: whoever fills in a form with somebody else's address must not have the studio write to them without end. Further ones ask first.</summary>
    private static async Task<bool> HasManyAsync(Desk desk, ProjectFile file, DueStep due, LetterRow letter)
    {
        if (due.Step.Step.When.Cause is not (Cause.InquiryCame or Cause.RunBegun) || file.Row.Rehearsal)
            return false;
        var since = desk.Now - NodaTime.Duration.FromDays(1);
        return await desk.Db.Letters.CountAsync(l =>
                l.ToMail == letter.ToMail
                && l.ByItself
                && l.Template == letter.Template
                && l.At > since
                && (l.State == LetterState.Ready || l.State == LetterState.Sent || l.State == LetterState.Uncertain)
            ) >= MostToOneAddress;
    }

    private static async Task ClaimOrHoldAsync(Act act, ProjectFile file, DueStep due, LetterRow letter)
    {
        if (letter.Id.Value == 0)
            act.Db.Letters.Add(letter);
        else
            letter.State = LetterState.Held;
        await act.Db.SaveChangesAsync();
        // the key exists once: a step that was claimed before is refused by the database
        if (letter.State == LetterState.Ready)
            Sending.Claim(act, letter, Sending.KeyOf(letter), act.Now);
        else
            await act.RecordAsync(file, Actor.Gesamt, new Happening.StepHeld(due.Step.Ref, letter.Id));
    }

    private static Task<string?> LastReceivedAsync(Desk desk, ProjectFile file) =>
        desk
            .Db.Letters.Where(l => l.ProjectId == file.Id && l.State == LetterState.Received)
            .OrderByDescending(l => l.Id)
            .Select(l => l.MessageId)
            .FirstOrDefaultAsync();
}
