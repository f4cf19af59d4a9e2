using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Projects;
using Gesamt.Core.Texts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Inquiries;

/// <summary>An inquiry comes in through a form and becomes a client and a project at Lead.</summary>
public static class Inquiry
{
    /// <summary>Keeps the answers with their questions, the source and the files. A known address never joins projects by itself: each inquiry has a client of its own until the owner says otherwise.</summary>
    /// <exception cref="InvalidException">A field is missing or not as asked.</exception>
    /// <param name="campaign">What its address said brought the visitor; a longer text is cut, since it is not theirs to mend.</param>
    public static async Task<ProjectId> ReceiveAsync(
        Desk desk,
        FormRow form,
        IReadOnlyDictionary<string, string> given,
        string? campaign
    )
    {
        var fields = StoreJson.Read<List<FormField>>(form.Fields);
        var (answers, mistakes) = FormRule.Read(fields, given);
        if (mistakes.Length > 0)
            throw new InvalidException([.. mistakes.Select(mistake => (mistake.Field, mistake.Words))]);
        var sorts = fields.ToDictionary(field => field.Key);
        var fills = answers
            .Where(answer => sorts[answer.Key].Fills is not null)
            .ToLookup(answer => sorts[answer.Key].Fills!, answer => Sizes.Value(sorts[answer.Key], answer.Text));

        return await desk.ActAsync(async act =>
        {
            var uploads = await UploadsAsync(
                desk,
                form,
                [.. answers.Where(answer => sorts[answer.Key].Sort == FieldSort.File)]
            );
            var person = new PersonRow
            {
                Name = fills["name"].FirstOrDefault() ?? fills["mail"].Concat(fills["phone"]).First(),
                Organisation = fills["organisation"].FirstOrDefault(),
                Mail = fills["mail"].FirstOrDefault()?.ToLowerInvariant(),
                Phone = fills["phone"].FirstOrDefault(),
                Address = fills["address"].FirstOrDefault(),
            };
            var project = await AddAsync(
                desk,
                form.KindId,
                person,
                new(
                    fills["title"].FirstOrDefault(),
                    fills["source"].FirstOrDefault() ?? form.Source,
                    answers.FirstOrDefault(answer => sorts[answer.Key].Sort == FieldSort.LongText)?.Text,
                    CampaignOf(campaign)
                )
            );
            var named = uploads.ToDictionary(upload => upload.PublicId, upload => upload.Name);
            var kept = answers
                .Select(answer =>
                    sorts[answer.Key].Sort == FieldSort.File
                        ? answer with
                        {
                            Text = string.Join('\n', FormRule.Lines(answer.Text).Select(id => named[id])),
                        }
                        : answer
                )
                .ToList();
            var row = new AnswersRow
            {
                ProjectId = project.Id,
                Form = form.Title,
                Items = StoreJson.Write(kept),
                At = desk.Now,
            };
            desk.Db.Answers.Add(row);
            await desk.Db.SaveChangesAsync();

            var file = await desk.OpenAsync(project.Id);
            await act.RecordAsync(
                file,
                Actor.Client,
                [
                    new Happening.InquiryCame(row.Id),
                    .. await KnownAsync(desk, file, fills),
                    .. await FilesAsync(desk, project.Id, uploads),
                ]
            );
            await FillBriefAsync(desk, file, answers);
            return project.Id;
        });
    }

    /// <summary>What is said of a new project beside its client and kind.</summary>
    public sealed record Beginning(string? Title, string? Source, string? Summary, string? Campaign = null);

    private static string? CampaignOf(string? said) =>
        Typed.OneLine(said ?? "") is { Length: > 0 } words
            ? words[..Math.Min(words.Length, HeadLimits.Campaign)]
            : null;

    /// <summary>The rows of a new client and project, without any fact.</summary>
    public static async Task<ProjectRow> AddAsync(
        Desk desk,
        KindId kindId,
        PersonRow person,
        Beginning beginning,
        bool rehearsal = false
    )
    {
        var kind =
            await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == kindId)
            ?? throw new InvalidException(("kind", "Choose a kind of work."));
        if (person.Id.Value == 0)
            desk.Db.People.Add(person);
        await desk.Db.SaveChangesAsync();
        var project = new ProjectRow
        {
            KindId = kind.Id,
            ClientId = person.Id,
            Title = beginning.Title ?? $"{kind.Name} for {person.Organisation ?? person.Name}",
            Source = beginning.Source,
            Campaign = beginning.Campaign,
            Code = Codes.New(),
            Pinned = new() { Rules = kind.Rules },
            Summary = beginning.Summary,
            Rehearsal = rehearsal,
        };
        desk.Db.AllProjects.Add(project);
        await desk.Db.SaveChangesAsync();
        return project;
    }

    private static async Task<IReadOnlyList<Happening>> KnownAsync(
        Desk desk,
        ProjectFile file,
        ILookup<string, string> fills
    )
    {
        List<Happening> known = [];
        foreach (var detail in file.Case.Kind.AllDetails.Where(detail => fills.Contains(detail.Name)))
        {
            desk.Db.Details.Add(
                new()
                {
                    ProjectId = file.Id,
                    Name = detail.Name,
                    Value = fills[detail.Name].First(),
                }
            );
            known.Add(new Happening.DetailKnown(detail.Name));
        }
        await desk.Db.SaveChangesAsync();
        if (fills["date"].FirstOrDefault() is { } date && Dates.Read(date) is { } day)
            known.Add(new Happening.DateSet(file.Case.Kind.MainDate, day, null));
        return known;
    }

    /// <summary>Parts of the brief that an answer of the form fills to begin with.</summary>
    private static async Task FillBriefAsync(Desk desk, ProjectFile file, IReadOnlyList<Answer> answers)
    {
        foreach (var part in file.Case.Kind.Brief)
            if (answers.FirstOrDefault(answer => answer.Key == part.From) is { } answer)
                desk.Db.Briefs.Add(
                    new()
                    {
                        ProjectId = file.Id,
                        Part = part.Key,
                        Text = answer.Text,
                    }
                );
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>The uploads that answers name, taken once.</summary>
    public static async Task<IReadOnlyList<UploadRow>> UploadsAsync(
        Desk desk,
        FormRow form,
        IReadOnlyList<Answer> answers
    )
    {
        List<UploadRow> taken = [];
        foreach (var answer in answers)
        foreach (var id in FormRule.Lines(answer.Text).Distinct())
        {
            var upload =
                await desk.Db.Uploads.SingleOrDefaultAsync(u => u.PublicId == id && u.FormId == form.Id && !u.Taken)
                ?? throw new InvalidException((answer.Key, "A file has not arrived. Choose it again."));
            upload.Taken = true;
            taken.Add(upload);
        }
        return taken;
    }

    /// <summary>Uploads become files the client has supplied.</summary>
    public static async Task<IReadOnlyList<Happening>> FilesAsync(
        Desk desk,
        ProjectId project,
        IReadOnlyList<UploadRow> uploads
    )
    {
        var rows = uploads
            .Select(upload => new FileRow
            {
                ProjectId = project,
                PublicId = Codes.New() + Codes.New(),
                Group = FileGroup.Supplied,
                Name = upload.Name,
                Hash = upload.Hash,
                Size = upload.Size,
                Type = upload.Type,
                At = desk.Now,
                By = Actor.Client,
            })
            .ToList();
        desk.Db.Files.AddRange(rows);
        await desk.Db.SaveChangesAsync();
        return
        [
            .. rows.SelectMany(row =>
                new Happening[] { new Happening.FileKept(row.Id, row.Group), new Happening.FileShown(row.Id) }
            ),
        ];
    }
}
