using Gesamt.Core;
using Gesamt.Core.Forms;
using Gesamt.Core.Projects;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>A form as its owner makes it.</summary>
/// <param name="Snippet">Set into the studio's site once; never changes.</param>
/// <param name="UsedBy">Routines that put it to clients.</param>
/// <param name="BeforeDraft">Of a checklist: whether no draft is put up before it is gone through.</param>
public sealed record FormDto(
    int Id,
    FormPurpose Purpose,
    string Slug,
    string Title,
    string Intro,
    IReadOnlyList<FormField> Fields,
    string Thanks,
    string? GoTo,
    string? Source,
    bool Closed,
    int Edition,
    string Address,
    string Snippet,
    string FrameSnippet,
    IReadOnlyList<string> UsedBy,
    bool BeforeDraft
);

/// <summary>A form as it is saved.</summary>
public sealed record SaveFormDto(
    string Title,
    string Intro,
    FormField[] Fields,
    string Thanks,
    string? GoTo,
    string? Source,
    bool Closed,
    int Edition,
    string? Slug = null,
    bool BeforeDraft = false
);

/// <summary>A form to be made.</summary>
public sealed record NewFormDto(string Title, FormPurpose Purpose = FormPurpose.Inquiry);

/// <summary>Reads and changes the public forms of a kind. Answers keep the questions they were given under.</summary>
public static class Forms
{
    private const int MostFields = 60;

    /// <summary>What an answer can fill of any record; details of the kind come to it.</summary>
    public static readonly IReadOnlyList<string> Fills =
    [
        "name",
        "organisation",
        "mail",
        "phone",
        "address",
        "title",
        "date",
        "source",
    ];

    /// <summary>The forms of a kind.</summary>
    public static async Task<IReadOnlyList<FormDto>> OfAsync(Desk desk, Doorplate plate, HttpContext http, KindId kind)
    {
        if (!await desk.Db.Kinds.AnyAsync(k => k.Id == kind))
            throw new MissingException("kind");
        var origin = plate.AddressSeenBy(http);
        var used = await RoutineUses.OfAsync(desk, action => (action as StepAction.Form)?.Slug);
        return
        [
            .. (
                await desk.Db.Forms.AsNoTracking().Where(f => f.KindId == kind).OrderBy(f => f.Id).ToListAsync()
            ).Select(row =>
                desk.Tell(() => Of(row, origin), () => Of(Untold(row), origin)) with
                {
                    UsedBy = [.. used[row.Slug].Distinct()],
                }
            ),
        ];
    }

    /// <summary>A form whose fields cannot be read, told without them.</summary>
    private static FormRow Untold(FormRow row) =>
        new()
        {
            Id = row.Id,
            KindId = row.KindId,
            Purpose = row.Purpose,
            Slug = row.Slug,
            Title = $"{row.Title} (its fields cannot be read)",
            Intro = row.Intro,
            Fields = "[]",
            Closed = row.Closed,
            BeforeDraft = row.BeforeDraft,
            Edition = row.Edition,
        };

    /// <summary>Makes a form that asks for a name and how to reach them.</summary>
    public static async Task<int> AddAsync(Desk desk, KindId kindId, string title, FormPurpose purpose)
    {
        return await desk.ActAsync(async act =>
        {
            var kind =
                await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == kindId)
                ?? throw new MissingException("kind");
            if (title.Trim().Length is 0 or > 120)
                throw new InvalidException(("title", "Write 1 to 120 characters."));
            var row = new FormRow
            {
                KindId = kindId,
                Slug = await SlugAsync(desk, title),
                Title = title.Trim(),
                Intro = "",
                Purpose = purpose,
                Fields = StoreJson.Write(
                    purpose == FormPurpose.Inquiry ? Usual(StoreJson.Read<KindRules>(kind.Rules)) : Questions(purpose)
                ),
                Closed = purpose == FormPurpose.Inquiry,
            };
            desk.Db.Forms.Add(row);
            await RoutineTrouble.RefreshAsync(desk);
            await desk.Db.SaveChangesAsync();
            return row.Id;
        });
    }

    /// <exception cref="InvalidException">A field is not as it must be; it is named by its place in the list.</exception>
    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static async Task SaveAsync(Desk desk, int id, SaveFormDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row = await desk.Db.Forms.SingleOrDefaultAsync(f => f.Id == id) ?? throw new MissingException("form");
            if (row.Edition != save.Edition)
                throw new StaleException(Of(row, ""));
            List<(string, string)> errors =
            [
                .. FormRule
                    .MistakesIn(
                        save.Fields,
                        inquiry: row.Purpose == FormPurpose.Inquiry,
                        checklist: row.Purpose == FormPurpose.Checklist
                    )
                    .Select(mistake => (mistake.Field, mistake.Words)),
            ];
            if (save.Fields.Length > MostFields)
                errors.Add(("fields", $"A form has at most {MostFields} fields."));
            if (save.Title.Trim().Length is 0 or > 120)
                errors.Add(("title", "Write 1 to 120 characters."));
            if (save.Intro.Length > 2_000)
                errors.Add(("intro", "At most 2 000 characters."));
            if (save.Thanks.Length > 500)
                errors.Add(("thanks", "At most 500 characters."));
            if (
                save.GoTo is { Length: > 0 } goTo
                && !(Uri.TryCreate(goTo, UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http")
            )
                errors.Add(("goTo", "An address that begins with https://, or nothing."));
            if (save.Slug is { } slug && slug.Trim() != row.Slug)
                await MoveAsync(desk, row, slug.Trim(), errors);
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            (row.Title, row.Intro, row.Fields, row.Thanks) = (
                save.Title.Trim(),
                save.Intro.Trim(),
                StoreJson.Write(save.Fields),
                save.Thanks.Trim()
            );
            (row.GoTo, row.Source, row.Closed) = (Blank(save.GoTo), Blank(save.Source), save.Closed);
            row.BeforeDraft = save.BeforeDraft && row.Purpose == FormPurpose.Checklist;
            row.Edition++;
        });
    }

    /// <summary>Gives a public form another address; the ones it had go on leading to it, for pages elsewhere still show them.</summary>
    private static async Task MoveAsync(Desk desk, FormRow row, string slug, List<(string, string)> errors)
    {
        if (
            row.Purpose != FormPurpose.Inquiry
            || slug.Length is 0 or > 60
            || slug.Any(c => !char.IsAsciiLetterLower(c) && !char.IsAsciiDigit(c) && c != '-')
        )
        {
            errors.Add(("slug", "1 to 60 small letters, digits and hyphens, such as my-wall."));
            return;
        }
        if (await desk.Db.Forms.At(slug).AnyAsync(other => other.Id != row.Id))
        {
            errors.Add(("slug", "Another form has this address, or had it."));
            return;
        }
        row.EarlierSlugs = string.Join(
            '\n',
            row.EarlierSlugs.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Append(row.Slug)
                .Where(old => old != slug)
        );
        row.Slug = slug;
    }

    /// <summary>Takes a form away; inquiries that came through it keep their answers.</summary>
    /// <exception cref="RefusedException">It is open: a page somewhere may still show it.</exception>
    public static async Task RemoveAsync(Desk desk, int id)
    {
        var row = await desk.Db.Forms.SingleOrDefaultAsync(f => f.Id == id) ?? throw new MissingException("form");
        if (!row.Closed && row.Purpose == FormPurpose.Inquiry)
            throw new RefusedException("Close the form first: a page somewhere may still show it.");
        desk.Db.Forms.Remove(row);
        await RoutineTrouble.RefreshAsync(desk);
    }

    /// <summary>What nearly every first form asks, and what the kind demands.</summary>
    private static List<FormField> Usual(KindRules kind) =>
        Around([
            new("wish", FieldSort.LongText, "What is it about?", true, "a few sentences are enough"),
            .. kind
                .AllDetails.Where(detail => kind.Demands.Contains(detail.Name))
                .Select((detail, i) => detail.AsField with { Key = $"detail-{i + 1}", Fills = detail.Name }),
        ]);

    /// <summary>A form’s own questions between who asks and the consent to keep the answers.</summary>
    public static List<FormField> Around(IEnumerable<FormField> own) =>
        [
            new("name", FieldSort.ShortText, "Your name", true, Fills: "name"),
            new("mail", FieldSort.Mail, "Mail address", true, "for the answer, nothing else", Fills: "mail"),
            new("phone", FieldSort.Phone, "Phone", Fills: "phone"),
            .. own,
            new("consent", FieldSort.Consent, "You may keep my answers to reply to them.", true),
        ];

    /// <summary>What a first questionnaire, checklist, or form for feedback may ask.</summary>
    private static List<FormField> Questions(FormPurpose purpose) =>
        purpose switch
        {
            FormPurpose.Feedback =>
            [
                new("went-well", FieldSort.LongText, "What went well?"),
                new("better", FieldSort.LongText, "What could have been better?"),
                new("quote", FieldSort.OneOf, "May I quote you?", true, Options: ["yes", "no"]),
            ],
            FormPurpose.Checklist =>
            [
                new("ready", FieldSort.OneOf, "Is it ready?", Options: ["yes", "no"])
                {
                    Makes = new("no", "Make it ready"),
                },
            ],
            _ => [new("question", FieldSort.LongText, "Your answer", true)],
        };

    private static FormDto Of(FormRow row, string origin) =>
        new(
            row.Id,
            row.Purpose,
            row.Slug,
            row.Title,
            row.Intro,
            StoreJson.Read<List<FormField>>(row.Fields),
            row.Thanks,
            row.GoTo,
            row.Source,
            row.Closed,
            row.Edition,
            $"{origin}/i/{row.Slug}",
            $"<script src=\"{origin}/embed/{row.Slug}.js\" async></script>",
            $"<iframe src=\"{origin}/i/{row.Slug}?embedded\" title=\"{System.Net.WebUtility.HtmlEncode(row.Title)}\" width=\"100%\" height=\"900\"></iframe>",
            [],
            row.BeforeDraft
        );

    /// <summary>An address for a form that nobody has yet.</summary>
    public static async Task<string> SlugAsync(Desk desk, string title)
    {
        var plain = string.Join(
            '-',
            new string([.. title.Trim().ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : ' ')]).Split(
                ' ',
                StringSplitOptions.RemoveEmptyEntries
            )
        );
        plain = plain.Length == 0 ? "form" : plain[..Math.Min(plain.Length, 40)].Trim('-');
        return await FreeSlugAsync(desk.Db, plain);
    }

    /// <summary>The address, or one near it where another form has it.</summary>
    public static async Task<string> FreeSlugAsync(GesamtDb db, string slug) =>
        await db.Forms.At(slug).AnyAsync() ? $"{slug}-{Codes.New()[..4]}" : slug;

    private static string? Blank(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
}
