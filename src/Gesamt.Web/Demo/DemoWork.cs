using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Web.Briefs;
using Gesamt.Web.Checklists;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.People;
using Gesamt.Web.Planning;
using Gesamt.Web.Reviews;
using Gesamt.Web.RunSheets;
using Gesamt.Web.Spent;
using Gesamt.Web.Testimonials;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Demo;

/// <summary>What happens in the demo while the work is done: files, rounds of review, phases, dates, the handover.</summary>
public static class DemoWork
{
    private static readonly string[] Acts =
    [
        "page",
        "draft",
        "supplies",
        "puts up",
        "remarks",
        "asks changes",
        "approves draft",
        "final",
        "hands over",
        "moves date",
        "phase",
        "task",
        "theirs",
        "plan",
        "keeps",
        "checks",
        "quote",
        "put away",
        "brief",
        "detail",
        "slip",
        "label",
        "has part",
        "praise",
        "asks to quote",
        "approves words",
        "leave",
        "run sheet",
        "access",
    ];

    public static bool Knows(string act) => Acts.Contains(act);

    /// <summary>One event of the work.</summary>
    public static Task PlayAsync(Desk desk, FileVault vault, ProjectId id, DemoProject project, DemoEvent e) =>
        e.Act switch
        {
            "page" => Handover.SetPartAsync(desk, id, new(Enum.Parse<PagePart>(e.Rest), true)),
            "draft" => KeepAsync(desk, vault, id, e.Rest, FileGroup.Drafts, Actor.Owner),
            "supplies" => KeepAsync(desk, vault, id, e.Rest, FileGroup.Supplied, Actor.Client),
            "final" => KeepAsync(desk, vault, id, e.Rest, FileGroup.Final, Actor.Owner),
            "puts up" => PutUpAsync(desk, id, e.Rest.Length > 0 ? e.Rest : null),
            "remarks" => AnswerAsync(
                desk,
                id,
                project.Person,
                e.Rest,
                (row, note) => new Happening.RemarkLeft(row.Id, note)
            ),
            "asks changes" => AnswerAsync(
                desk,
                id,
                project.Person,
                e.Rest,
                (row, note) => new Happening.ChangesAsked(row.Id, note)
            ),
            "approves draft" => AnswerAsync(
                desk,
                id,
                project.Person,
                null,
                (row, _) => new Happening.ReviewApproved(row.Id, row.Phase)
            ),
            "hands over" => HandOverAsync(desk, id),
            "moves date" => MoveAsync(desk, id, int.Parse(e.Rest, CultureInfo.InvariantCulture)),
            "phase" => Handover.SetPhaseAsync(
                desk,
                id,
                new(e.Rest.Split(',')[0].Trim(), Enum.Parse<PhaseState>(e.Rest.Split(',')[1].Trim()))
            ),
            "task" => TaskAsync(desk, id, e.Rest, isClients: false),
            "theirs" => TaskAsync(desk, id, e.Rest, isClients: true),
            "plan" => PlanAsync(desk, id, e.Rest.Split(';', StringSplitOptions.TrimEntries)),
            "keeps" => AppointAsync(desk, e.Rest.Split(';', StringSplitOptions.TrimEntries)),
            "checks" => ChecksAsync(desk, id, e.Rest.Split('=', StringSplitOptions.TrimEntries)),
            "quote" => Quotes.AddAsync(desk, id, QuoteOf(desk, e.Rest.Split(';', StringSplitOptions.TrimEntries))),
            "brief" => BriefAsync(desk, id, e.Rest.Split('=', 2)),
            "detail" => ProjectBrief.SaveDetailsAsync(
                desk,
                id,
                new(new() { [e.Rest.Split('=', 2)[0].Trim()] = e.Rest.Split('=', 2)[1].Trim() })
            ),
            "slip" => DemoTalk.SlipAsync(desk, e.Rest),
            "label" => Labels.PutAsync(desk, new(e.Rest, id.Value, null, null)),
            "has part" => DemoTalk.PartAsync(desk, id, e.Rest.Split(',', StringSplitOptions.TrimEntries)),
            "praise" => Praising.AddAsync(desk, id, new(e.Rest)),
            "asks to quote" => AskToQuoteAsync(desk, id, project, e.Rest),
            "approves words" => ApproveWordsAsync(desk, id, e.Rest),
            "leave" => LeaveAsync(desk, id, e.Rest.Split(' ')),
            "run sheet" => ProjectRunSheet.LayAsync(desk, id, new(e.Rest, 0)),
            "access" => AccessAsync(desk, id, e.Rest.Split('|', StringSplitOptions.TrimEntries)),
            "put away" => Handover.PutAwayAsync(desk, id, true),
            _ => throw new FormatException($"Unknown act “{e.Act}”."),
        };

    /// <summary>“Yard key | on the hook by the till | Oona Pettigrew”.</summary>
    private static Task AccessAsync(Desk desk, ProjectId id, string[] said) =>
        GivenAccess.SaveAsync(desk, id, null, new(said[0], said[1], said[2]));

    /// <summary>“Varnish; 2; 5 h”: that task is worked on so many days from then and takes so long. One that is not there is made.</summary>
    private static async Task PlanAsync(Desk desk, ProjectId id, string[] said)
    {
        var title = said[0];
        var task =
            await desk
                .Db.Tasks.Where(t => t.ProjectId == id && t.Title == title && t.DoneAt == null && !t.Removed)
                .Select(t => (TaskId?)t.Id)
                .FirstOrDefaultAsync()
            ?? await Tasks.AddAsync(desk, id, new(title, null, null));
        if (said[1].Length > 0)
            await Tasks.WorkOnAsync(
                desk,
                id,
                task,
                desk.Today.PlusDays(int.Parse(said[1], CultureInfo.InvariantCulture))
            );
        if (said.Length > 2)
            await Tasks.EstimateAsync(desk, id, task, said[2]);
    }

    /// <summary>“Dentist; 2; 15:00; 16:00”: a time of the owner's own, so many days from then.</summary>
    private static Task AppointAsync(Desk desk, string[] said)
    {
        var day = desk.Today.PlusDays(int.Parse(said[1], CultureInfo.InvariantCulture));
        LocalTime At(string time) => LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(time).Value;
        return Appointments.SaveAsync(desk, null, new(said[0], "", day + At(said[2]), day + At(said[3])));
    }

    /// <summary>“Varnish in 3”: due so many days from then.</summary>
    private static Task TaskAsync(Desk desk, ProjectId id, string words, bool isClients)
    {
        var parts = words.Split(" in ");
        return Tasks.AddAsync(
            desk,
            id,
            new(
                string.Join(" in ", parts[..^1]),
                desk.Today.PlusDays(int.Parse(parts[^1], CultureInfo.InvariantCulture)),
                null,
                IsClients: isClients
            )
        );
    }

    /// <summary>“At the wall = no, 5.4, yes”: a checklist by its title, its answers in their order.</summary>
    private static async Task ChecksAsync(Desk desk, ProjectId id, string[] said)
    {
        var list = (await Checklist.OfAsync(desk, await desk.OpenAsync(id))).Single(list => list.Title == said[0]);
        var answers = said[1].Split(',', StringSplitOptions.TrimEntries);
        desk.Db.ChangeTracker.Clear();
        await Checklist.AnswerAsync(
            desk,
            id,
            list.Id,
            new(list.Fields.Zip(answers).ToDictionary(pair => pair.First.Key, pair => pair.Second), list.Edition)
        );
    }

    /// <summary>“Northgate Hire; Scissor lift; 492; 21”: who, what, how much, valid for so many days.</summary>
    private static KeepQuoteDto QuoteOf(Desk desk, string[] said) =>
        new(said[0], said[1], said[2], "23", desk.Today.PlusDays(int.Parse(said[3], CultureInfo.InvariantCulture)));

    private static Task AskToQuoteAsync(Desk desk, ProjectId id, DemoProject project, string words) =>
        PraiseOfProject.PutAsync(
            desk,
            id,
            new(
                words,
                $"{project.Person}, {project.Organisation}",
                UsualLetters.Testimonial.Subject,
                UsualLetters.Testimonial.Body
            )
        );

    /// <summary>The words as they were put, or others.</summary>
    private static async Task ApproveWordsAsync(Desk desk, ProjectId id, string words)
    {
        var shown = (await ClientTestimonial.ShownAsync(desk, await desk.OpenAsync(id)))!;
        desk.Db.ChangeTracker.Clear();
        await ClientTestimonial.ApproveAsync(
            desk,
            id,
            new(words.Length > 0 ? words : shown.Words.Words, shown.Words.Name, shown.Hash)
        );
    }

    /// <summary>“show given”, “quote refused”, “quote revoked”: what the client answers to a leave.</summary>
    private static Task LeaveAsync(Desk desk, ProjectId id, string[] said)
    {
        var to = Enum.Parse<LeaveTo>(said[0], ignoreCase: true);
        return said[1] == "revoked"
            ? ClientTestimonial.RevokeAsync(desk, id, to)
            : ClientTestimonial.AnswerAsync(
                desk,
                id,
                new(to, said[1] == "given", TestimonialRule.Wording(to, desk.Studio.Name))
            );
    }

    /// <summary>“wish = a dove / hops”: a part of the brief, its lines apart by strokes.</summary>
    private static async Task BriefAsync(Desk desk, ProjectId id, string[] part)
    {
        var key = part[0].Trim();
        var edition = await desk
            .Db.Briefs.Where(b => b.ProjectId == id && b.Part == key)
            .Select(b => b.Edition)
            .SingleOrDefaultAsync();
        await ProjectBrief.SaveAsync(
            desk,
            id,
            key,
            new(part[1].Trim().Replace(" / ", "\n", StringComparison.Ordinal), edition)
        );
    }

    /// <summary>“sketch-1.png, sketch”: a small picture is drawn for it.</summary>
    private static async Task KeepAsync(
        Desk desk,
        FileVault vault,
        ProjectId id,
        string rest,
        FileGroup group,
        Actor by
    )
    {
        var parts = rest.Split(',', 2, StringSplitOptions.TrimEntries);
        using var picture = new MemoryStream(DemoPictures.Draw(parts[0]));
        var row = await KeptFiles.KeepAsync(
            desk,
            vault,
            id,
            new(parts[0], new(group, group == FileGroup.Drafts ? parts.ElementAtOrDefault(1) : null), picture),
            by,
            CancellationToken.None
        );
        if (group != FileGroup.Final || parts.Length < 2)
            return;
        row.Use = parts[1];
        await desk.Db.SaveChangesAsync();
    }

    private static async Task PutUpAsync(Desk desk, ProjectId id, string? phase)
    {
        var draft = await desk
            .Db.Files.AsNoTracking()
            .Where(f => f.ProjectId == id && f.Group == FileGroup.Drafts)
            .OrderByDescending(f => f.Id)
            .Select(f => f.Id)
            .FirstAsync();
        var template = await desk.Db.LetterTemplates.AsNoTracking().SingleAsync(t => t.Key == "draft-ready");
        await Reviewing.PutUpAsync(desk, id, [draft.Value], phase, template.Subject, template.Body, beyond: false);
    }

    private static async Task AnswerAsync(
        Desk desk,
        ProjectId id,
        string person,
        string? words,
        Func<ReviewRow, NoteId, Happening> what
    )
    {
        var round = await desk
            .Db.Reviews.AsNoTracking()
            .Where(r => r.ProjectId == id)
            .OrderByDescending(r => r.Id)
            .FirstAsync();
        await Reviewing.AnswerAsync(
            desk,
            id,
            round.PublicId,
            person,
            words is null ? null : await RemarkAsync(desk, round, words),
            what
        );
    }

    /// <summary>“@410,620 A little bluer here”: pointing at a place of the first picture, in thousandths; or of the round as a whole.</summary>
    private static async Task<RemarkDto> RemarkAsync(Desk desk, ReviewRow round, string words)
    {
        if (!words.StartsWith('@'))
            return new(words);
        var (at, draft) = (words[1..words.IndexOf(' ')].Split(','), Reviewing.FilesOf(round)[0]);
        return new(
            words[(words.IndexOf(' ') + 1)..],
            new(
                await desk.Db.Files.Where(f => f.Id == draft).Select(f => f.PublicId).SingleAsync(),
                int.Parse(at[0], CultureInfo.InvariantCulture),
                int.Parse(at[1], CultureInfo.InvariantCulture)
            )
        );
    }

    private static async Task HandOverAsync(Desk desk, ProjectId id)
    {
        var finals = await desk
            .Db.Files.AsNoTracking()
            .Where(f => f.ProjectId == id && f.Group == FileGroup.Final)
            .ToListAsync();
        var template = await desk.Db.LetterTemplates.AsNoTracking().SingleAsync(t => t.Key == "handover");
        await Handover.HandOverAsync(
            desk,
            id,
            new([.. finals.Select(f => new FinalDto(f.Id.Value, f.Use))], template.Subject, template.Body)
        );
    }

    private static async Task MoveAsync(Desk desk, ProjectId id, int days)
    {
        var file = await desk.OpenAsync(id);
        desk.Db.ChangeTracker.Clear();
        await Dates.MoveAsync(desk, id, new(file.Case.MainDate!.Value.Date.PlusDays(days), [], Confirmed: true));
    }
}
