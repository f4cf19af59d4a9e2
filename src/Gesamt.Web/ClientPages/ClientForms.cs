using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.Letters;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>A form that waits for the client.</summary>
/// <param name="Given">What was typed so far.</param>
public sealed record ClientFormDto(
    string Slug,
    string Title,
    string Intro,
    IReadOnlyList<FormField> Fields,
    IReadOnlyDictionary<string, string> Given
);

/// <summary>What has been typed so far, by the key of its question.</summary>
public sealed record GivenDto(Dictionary<string, string> Answers);

/// <summary>The form a client is asked to fill in, and the letter that says so.</summary>
public sealed record AskFormDto(string Slug, string Subject, string Body);

/// <summary>A form that waits for the client.</summary>
public sealed record AskedFormDto(string Slug, string Title, string Since);

/// <param name="Choices">Forms of the project's kind that can be put to the client.</param>
public sealed record ProjectFormsDto(IReadOnlyList<AskedFormDto> Open, IReadOnlyList<Templates.ChoiceDto> Choices);

/// <summary>Questionnaires and feedback: put to the client by the owner or a routine, filled in on the client's page, kept as they are typed.</summary>
public static class ClientForms
{
    /// <summary>Forms on the client’s page.</summary>
    public static RouteGroupBuilder MapClientForms(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/forms/{slug}/draft",
            async (string slug, GivenDto given, HttpContext http, Desk desk) =>
            {
                var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                var form = await AskedAsync(desk, file, slug);
                var fields = StoreJson.Read<List<FormField>>(form.Fields);
                // kept as far as it was typed; what is wrong is said when it is sent
                var kept = given
                    .Answers.Where(pair =>
                        pair.Value.Length <= FormRule.LongLength && fields.Any(field => field.Key == pair.Key)
                    )
                    .ToDictionary();
                var row = await desk.Db.FormDrafts.SingleOrDefaultAsync(d =>
                    d.ProjectId == file.Id && d.FormId == form.Id
                );
                if (row is null)
                    desk.Db.FormDrafts.Add(
                        row = new()
                        {
                            ProjectId = file.Id,
                            FormId = form.Id,
                            Given = "",
                        }
                    );
                row.Given = StoreJson.Write(kept);
                await desk.Db.SaveChangesAsync();
                return Results.NoContent();
            }
        );
        page.MapPost(
            "/forms/{slug}",
            async (string slug, GivenDto given, HttpContext http, Desk desk) =>
            {
                await ReturnAsync(desk, ClientLink.Link(http).ProjectId, slug, given.Answers);
                return Results.NoContent();
            }
        );
        page.MapPost(
                "/forms/{slug}/files",
                async (
                    string slug,
                    string name,
                    HttpContext http,
                    Desk desk,
                    Uploads uploads,
                    CancellationToken stop
                ) =>
                {
                    var form = await AskedAsync(desk, await desk.OpenAsync(ClientLink.Link(http).ProjectId), slug);
                    desk.Db.ChangeTracker.Clear();
                    var upload = await uploads.KeepAsync(
                        desk,
                        form,
                        name,
                        http.Request.Body,
                        http.Request.ContentLength,
                        http.VisitorAddress(),
                        stop
                    );
                    return new UploadedDto(upload.PublicId, upload.Name);
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        return page;
    }

    public static void MapProjectForms(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/forms",
            async (long id, Desk desk) =>
            {
                var file = await desk.OpenAsync(new(id));
                var forms = await desk
                    .Db.Forms.AsNoTracking()
                    .Where(f => (f.Purpose == FormPurpose.Questionnaire || f.Purpose == FormPurpose.Feedback))
                    .ToListAsync();
                var open = FormsAsked.Open(file.History).ToList();
                return new ProjectFormsDto(
                    [
                        .. from asked in open
                        join form in forms on asked.What.Form equals form.Id
                        select new AskedFormDto(
                            form.Slug,
                            form.Title,
                            desk.Short(desk.Calendar.DateOf(asked.Happened))!
                        ),
                    ],
                    [
                        .. forms
                            .Where(f => f.KindId == file.Row.KindId && open.All(asked => asked.What.Form != f.Id))
                            .OrderBy(f => f.Title)
                            .Select(f => new Templates.ChoiceDto(f.Slug, f.Title)),
                    ]
                );
            }
        );
        api.MapPost(
            "/projects/{id:long}/forms",
            async (long id, AskFormDto ask, Desk desk, Settings settings) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    if (file.Case.End is not null)
                        throw new RefusedException("The project has ended. Take it up again first.");
                    var form =
                        await desk
                            .Db.Forms.AsNoTracking()
                            .SingleOrDefaultAsync(f =>
                                f.Slug == ask.Slug
                                && (f.Purpose == FormPurpose.Questionnaire || f.Purpose == FormPurpose.Feedback)
                            )
                        ?? throw new InvalidException(("slug", "Choose a form."));
                    if (FormsAsked.Open(file.History).Any(asked => asked.What.Form == form.Id))
                        throw new RefusedException("This form is with the client already.");
                    var letter = await LettersOut.ClaimAsync(act, file, ask.Subject, ask.Body, null);
                    await act.RecordAsync(file, Actor.Owner, new Happening.FormAsked(form.Id));
                    return new SentDto(letter.Id.Value, settings.HoldSeconds);
                });
            }
        );
        api.MapPost(
            "/projects/{id:long}/forms/{slug}/back",
            async (long id, string slug, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    await act.RecordAsync(
                        file,
                        Actor.Owner,
                        new Happening.FormTakenBack((await AskedAsync(desk, file, slug)).Id)
                    );
                    return TypedResults.NoContent();
                });
            }
        );
    }

    /// <summary>The forms that wait for the client, with what was typed so far.</summary>
    public static async Task<IReadOnlyList<ClientFormDto>> OpenAsync(Desk desk, ProjectFile file)
    {
        var ids = FormsAsked.Open(file.History).Select(asked => asked.What.Form).ToList();
        if (ids.Count == 0)
            return [];
        var forms = await desk.Db.Forms.AsNoTracking().Where(f => ids.Contains(f.Id)).ToListAsync();
        var drafts = await desk
            .Db.FormDrafts.AsNoTracking()
            .Where(d => d.ProjectId == file.Id)
            .ToDictionaryAsync(d => d.FormId, d => d.Given);
        return
        [
            .. from id in ids
            join form in forms on id equals form.Id
            select desk.Tell(
                () =>
                    new ClientFormDto(
                        form.Slug,
                        form.Title,
                        form.Intro,
                        StoreJson.Read<List<FormField>>(form.Fields),
                        drafts.TryGetValue(id, out var given)
                            ? desk.Tell(() => StoreJson.Read<Dictionary<string, string>>(given), () => [])
                            : []
                    ),
                () =>
                    new(
                        form.Slug,
                        form.Title,
                        $"This form cannot be shown at the moment. Write to {desk.Studio.Mail} instead.",
                        [],
                        new Dictionary<string, string>()
                    )
            ),
        ];
    }

    /// <summary>The client sends a form: its answers are kept with their questions, and fill details that were unknown.</summary>
    /// <exception cref="InvalidException">A field is missing or not as asked.</exception>
    private static async Task ReturnAsync(
        Desk desk,
        ProjectId project,
        string slug,
        IReadOnlyDictionary<string, string> given
    )
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var form = await AskedAsync(desk, file, slug);
            var fields = StoreJson.Read<List<FormField>>(form.Fields);
            var (answers, mistakes) = FormRule.Read(fields, given);
            if (mistakes.Length > 0)
                throw new InvalidException([.. mistakes.Select(mistake => (mistake.Field, mistake.Words))]);
            var sorts = fields.ToDictionary(field => field.Key);
            var uploads = await Inquiry.UploadsAsync(
                desk,
                form,
                [.. answers.Where(answer => sorts[answer.Key].Sort == FieldSort.File)]
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
                ProjectId = file.Id,
                Form = form.Title,
                Items = StoreJson.Write(kept),
                At = desk.Now,
            };
            desk.Db.Answers.Add(row);
            desk.Db.FormDrafts.RemoveRange(
                await desk.Db.FormDrafts.Where(d => d.ProjectId == file.Id && d.FormId == form.Id).ToListAsync()
            );
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                file,
                Actor.Client,
                [
                    new Happening.FormReturned(form.Id, row.Id),
                    .. await KnownAsync(desk, file, answers, sorts),
                    .. await Inquiry.FilesAsync(desk, file.Id, uploads),
                ]
            );
        });
    }

    /// <summary>Answers fill details that were unknown; one that says something else than what is known is asked about, and overwrites nothing.</summary>
    private static async Task<IReadOnlyList<Happening>> KnownAsync(
        Desk desk,
        ProjectFile file,
        IReadOnlyList<Answer> answers,
        Dictionary<string, FormField> sorts
    )
    {
        var known = await desk
            .Db.Details.Where(d => d.ProjectId == file.Id)
            .ToDictionaryAsync(d => d.Name, d => d.Value);
        var said = answers
            .Where(answer =>
                sorts[answer.Key].Fills is { } fills && file.Case.Kind.AllDetails.Any(detail => detail.Name == fills)
            )
            .Select(answer =>
                KeyValuePair.Create(sorts[answer.Key].Fills!, Sizes.Value(sorts[answer.Key], answer.Text))
            );
        var (added, contrary) = DetailsRule.Compare(known, said);
        foreach (var (name, value) in added)
            desk.Db.Details.Add(
                new()
                {
                    ProjectId = file.Id,
                    Name = name,
                    Value = value,
                }
            );
        foreach (var doubt in contrary)
            await Briefs.DetailDoubts.AskAsync(desk, file.Id, doubt);
        await desk.Db.SaveChangesAsync();
        return [.. added.Select(pair => new Happening.DetailKnown(pair.Key))];
    }

    private static async Task<FormRow> AskedAsync(Desk desk, ProjectFile file, string slug) =>
        await desk.Db.Forms.AsNoTracking().SingleOrDefaultAsync(f => f.Slug == slug) is { } form
        && FormsAsked.Open(file.History).Any(asked => asked.What.Form == form.Id)
            ? form
            : throw new MissingException("form");
}
