using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>Writes the letters of due steps, before anything is claimed.</summary>
internal static class StepLetters
{
    private const int MostToOneAddress = 3;

    /// <summary>Of some due steps those that can act. A letter already claimed is on its way; one to a client without a mail address waits, and the record says so.</summary>
    public static async Task<IReadOnlyCollection<DueOf>> WithoutWaitingAsync(Desk desk, IReadOnlyCollection<DueOf> due)
    {
        var keys = due.Where(one => one.LetterKey is not null).Select(one => Sending.KeyOf(one.Step.Ref)).ToList();
        var claimed =
            keys.Count == 0
                ? []
                : await desk.Db.Outbox.Where(o => keys.Contains(o.Key)).Select(o => o.Key).ToHashSetAsync();
        return
        [
            .. due.Where(one =>
                one.LetterKey is null || one.File.MailTo is not null && !claimed.Contains(Sending.KeyOf(one.Step.Ref))
            ),
        ];
    }

    /// <summary>The letter of each step that writes one, with its own copy of the text, or the one that was put off until now. A gap, or a step that asks first, is held.</summary>
    /// <param name="due">One of each project.</param>
    public static async Task<IReadOnlyDictionary<StepRef, LetterRow>> PrepareAsync(
        Desk desk,
        IReadOnlyCollection<DueOf> due
    )
    {
        var writing = due.Where(one => one.LetterKey is not null).ToList();
        Dictionary<StepRef, LetterRow> letters = [];
        if (writing.Count == 0)
            return letters;
        var ids = writing.Select(one => one.File.Id).ToList();
        var putOff = await PutOffAsync(desk, ids);
        var answered = await LastReceivedAsync(desk, ids);
        Dictionary<(KindId, string), LetterTemplateRow> templates = [];
        foreach (var one in writing)
        {
            var step = one.Step.Ref;
            if (putOff.GetValueOrDefault(step) is not { } letter)
            {
                var template = (one.File.Row.KindId, one.LetterKey!);
                if (!templates.ContainsKey(template))
                    templates[template] = await Writing.TemplateAsync(desk, one.File.Row.KindId, one.LetterKey!);
                letter = await WriteAsync(desk, one, templates[template], letters.Values);
                letter.InReplyTo = answered.GetValueOrDefault(one.File.Id);
            }
            letters[step] = letter;
        }
        return letters;
    }

    private static async Task<LetterRow> WriteAsync(
        Desk desk,
        DueOf due,
        LetterTemplateRow template,
        IReadOnlyCollection<LetterRow> before
    )
    {
        var (file, step) = (due.File, due.Step.Ref);
        var filled = await Writing.FillAsync(desk, file, template, await StepActions.WordsAsync(desk, file, due.Step));
        var letter = Sending.NewLetter(desk, file, filled.Subject, filled.Body, byItself: due.Due.Act == DueAct.Act);
        letter.Template = due.LetterKey;
        letter.Files = [.. filled.Files, .. await StepActions.PapersAsync(desk, file, due.Step)];
        letter.Gaps = string.Join(", ", filled.Gaps);
        letter.State =
            due.Due.Act == DueAct.Hold || filled.Gaps.Count > 0 || await HasManyAsync(desk, due, letter, before)
                ? LetterState.Held
                : LetterState.Ready;
        (letter.RunId, letter.Step, letter.Occurrence) = (step.Run, step.Step, step.Occurrence);
        return letter;
    }

    /// <summary>Whether an address has had as many letters by itself as it should get in a day from inquiries: whoever fills in a form with somebody else's address must not have the studio write to them without end. Further ones ask first.</summary>
    /// <param name="before">Written in the same act.</param>
    private static async Task<bool> HasManyAsync(
        Desk desk,
        DueOf due,
        LetterRow letter,
        IReadOnlyCollection<LetterRow> before
    )
    {
        if (due.Step.Step.When.Cause is not (Cause.InquiryCame or Cause.RunBegun) || due.File.Row.Rehearsal)
            return false;
        var since = desk.Now - NodaTime.Duration.FromDays(1);
        var gone = await desk.Db.Letters.CountAsync(l =>
            l.ToMail == letter.ToMail
            && l.ByItself
            && l.Template == letter.Template
            && l.At > since
            && (l.State == LetterState.Ready || l.State == LetterState.Sent || l.State == LetterState.Uncertain)
        );
        return gone
                + before.Count(l =>
                    l.State == LetterState.Ready && l.ToMail == letter.ToMail && l.Template == letter.Template
                )
            >= MostToOneAddress;
    }

    private static async Task<Dictionary<StepRef, LetterRow>> PutOffAsync(Desk desk, List<ProjectId> projects)
    {
        var rows = await desk
            .Db.Letters.Where(l => l.State == LetterState.PutOff && projects.Contains(l.ProjectId!.Value))
            .OrderBy(l => l.Id)
            .ToListAsync();
        Dictionary<StepRef, LetterRow> letters = [];
        foreach (var row in rows)
            if (Sending.StepOf(row) is { } step)
                letters.TryAdd(step, row);
        return letters;
    }

    /// <summary>The Message-ID of the last letter that came in each project.</summary>
    private static async Task<Dictionary<ProjectId, string?>> LastReceivedAsync(Desk desk, List<ProjectId> projects) =>
        await desk
            .Db.AllProjects.Where(p => projects.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                Last = desk
                    .Db.Letters.Where(l => l.ProjectId == p.Id && l.State == LetterState.Received)
                    .OrderByDescending(l => l.Id)
                    .Select(l => l.MessageId)
                    .FirstOrDefault(),
            })
            .ToDictionaryAsync(p => p.Id, p => p.Last);
}
