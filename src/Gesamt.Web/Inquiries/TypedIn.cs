using Gesamt.Core;
using Gesamt.Core.Capture;
using Gesamt.Core.Facts;
using Gesamt.Core.People;
using Gesamt.Core.Projects;
using Gesamt.Core.Texts;
using Gesamt.Formats.Mail;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Words;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Inquiries;

/// <summary>An inquiry that came by phone, chat, at a fair or by mail, as the owner takes it down. A name and one way to reach them are enough.</summary>
/// <param name="Person">Somebody already known, whose project this is.</param>
/// <param name="Letter">A letter that belonged nowhere and is this inquiry.</param>
/// <param name="FollowUp">Whether the follow-ups of the kind begin.</param>
public sealed record NewInquiryDto(
    long Kind,
    string Name,
    string? Mail,
    string? Phone,
    string? Profile,
    string? Organisation,
    string? Title,
    string? Source,
    string? Words,
    LocalDate? Date,
    long? Person,
    long? Letter,
    bool FollowUp,
    string? Campaign = null
);

/// <summary>The number of a project just begun.</summary>
public sealed record CreatedDto(long Id);

/// <summary>A text from a mail or a chat.</summary>
public sealed record PastedDto(string Text);

/// <param name="Letter">The letter it was read from, kept in the tray until it is filed.</param>
public sealed record ReadInquiryDto(
    string? Name,
    string? Mail,
    string? Phone,
    string? Profile,
    string Words,
    long? Letter
);

/// <summary>Inquiries that do not come through a form.</summary>
public static class TypedIn
{
    private const int MostLetterBytes = 25 * 1024 * 1024;

    public static void MapTypedIn(this RouteGroupBuilder api)
    {
        api.MapPost(
            "/inquiries",
            async (NewInquiryDto inquiry, Desk desk) => new CreatedDto((await AddAsync(desk, inquiry)).Value)
        );
        api.MapPost(
            "/inquiries/read",
            (PastedDto pasted) =>
            {
                if (pasted.Text.Trim().Length is 0 or > 20_000)
                    throw new InvalidException(("text", "Paste 1 to 20 000 characters."));
                var read = PastedText.Read(pasted.Text);
                return new ReadInquiryDto(read.Name, read.Mail, read.Phone, read.Profile, pasted.Text.Trim(), null);
            }
        );
        api.MapPost(
                "/inquiries/letter",
                async (HttpContext http, Desk desk, CancellationToken stop) =>
                    await ReadLetterAsync(desk, http.Request.Body, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(MostLetterBytes))
            .Accepts<byte[]>("application/octet-stream");
        api.MapPost(
            "/letters/{id:long}/read",
            async (long id, Desk desk) => Of(await Tray.UnfiledAsync(desk, new(id)))
        );
    }

    /// <exception cref="InvalidException">There is no name, no way to reach them, or something is not as it must be; every field is named.</exception>
    public static async Task<ProjectId> AddAsync(Desk desk, NewInquiryDto inquiry)
    {
        Check(inquiry);
        return await desk.ActAsync(async act =>
        {
            var person = inquiry.Person is { } known
                ? await KnownAsync(desk, new(known))
                : new PersonRow
                {
                    Name = Typed.OneLine(inquiry.Name),
                    Organisation = Blank(inquiry.Organisation),
                    Mail = Blank(inquiry.Mail)?.ToLowerInvariant(),
                    Phone = Blank(inquiry.Phone),
                    Profile = Blank(inquiry.Profile),
                };
            var letter = inquiry.Letter is { } number ? await Tray.UnfiledAsync(desk, new(number)) : null;
            var words = BlankLines(inquiry.Words);
            var project = await Inquiry.AddAsync(
                desk,
                new(inquiry.Kind),
                person,
                new(Blank(inquiry.Title), Blank(inquiry.Source), words, Blank(inquiry.Campaign))
            );
            var file = await desk.OpenAsync(project.Id);
            List<Happening> what = [new Happening.InquiryCame(null)];
            if (words is not null && letter is null)
                what.Add(new Happening.NoteWritten(await Notes.AddAsync(desk, project.Id, NoteSort.Note, words)));
            if (inquiry.Date is { } date)
                what.Add(new Happening.DateSet(file.Case.Kind.MainDate, date, null));
            if (inquiry.FollowUp)
                what.Add(new Happening.InquiryRead(true));
            await act.RecordAsync(file, Actor.Owner, [.. what]);
            if (letter is not null)
                await Tray.FileAsync(act, file, letter);
            return project.Id;
        });
    }

    private static void Check(NewInquiryDto inquiry)
    {
        List<(string, string)> errors = [];
        if (inquiry.Person is null && inquiry.Name.Trim().Length is 0 or > 120)
            errors.Add(("name", "A name of 1 to 120 characters is needed."));
        if (
            inquiry.Person is null
            && Blank(inquiry.Mail) is null
            && Blank(inquiry.Phone) is null
            && Blank(inquiry.Profile) is null
        )
            errors.Add(
                ("mail", "One way to reach them is needed: a mail address, a phone number or a link to a profile.")
            );
        if (Blank(inquiry.Mail) is { } mail && !MailAddress.IsValid(mail))
            errors.Add(("mail", MailAddress.Allowed));
        if (Blank(inquiry.Phone) is { } phone && phone.Count(char.IsAsciiDigit) < 5)
            errors.Add(("phone", "A phone number with at least five digits."));
        if (Blank(inquiry.Profile) is { Length: > 300 })
            errors.Add(("profile", "At most 300 characters."));
        if (Blank(inquiry.Organisation) is { Length: > 160 })
            errors.Add(("organisation", "At most 160 characters."));
        if (Blank(inquiry.Title) is { Length: > HeadLimits.Title })
            errors.Add(("title", $"At most {HeadLimits.Title} characters."));
        if (Blank(inquiry.Source) is { Length: > HeadLimits.Source })
            errors.Add(("source", $"At most {HeadLimits.Source} characters."));
        if (Blank(inquiry.Campaign) is { Length: > HeadLimits.Campaign })
            errors.Add(("campaign", $"At most {HeadLimits.Campaign} characters."));
        if (BlankLines(inquiry.Words) is { Length: > 10_000 })
            errors.Add(("words", "At most 10 000 characters."));
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
    }

    private static async Task<PersonRow> KnownAsync(Desk desk, PersonId id) =>
        await desk.Db.People.SingleOrDefaultAsync(p => p.Id == id && p.MergedInto == null && p.RemovedAt == null)
        ?? throw new InvalidException(("person", "There is no such person."));

    /// <summary>A mail file is kept as a letter that belongs nowhere yet, so that nothing is lost if the rest is left for later.</summary>
    private static async Task<ReadInquiryDto> ReadLetterAsync(Desk desk, Stream content, CancellationToken stop)
    {
        using var bytes = new MemoryStream();
        await content.CopyToAsync(bytes, stop);
        IncomingLetter incoming;
        try
        {
            incoming = IncomingMail.Read(bytes.ToArray());
        }
        catch (FormatException)
        {
            throw new InvalidException(
                ("file", "This is no mail message: save the message as a file that ends in .eml and drop that.")
            );
        }
        var letter = await desk.Db.Letters.FirstOrDefaultAsync(l => l.MessageId == incoming.MessageId, stop);
        if (letter is { State: not LetterState.Unfiled })
            throw new RefusedException("This letter is filed with a project already.");
        if (letter is null)
        {
            letter = Incoming.RowOf(desk, incoming, null);
            (letter.Files, letter.Original) = (
                await Incoming.KeepAsync(desk, incoming, stop),
                await Incoming.OriginalAsync(desk, bytes.ToArray(), stop)
            );
            desk.Db.Letters.Add(letter);
            await desk.Db.SaveChangesAsync(stop);
        }
        return Of(letter);
    }

    private static ReadInquiryDto Of(LetterRow letter) =>
        new(
            letter.FromName == letter.FromMail ? null : letter.FromName,
            letter.FromMail,
            PastedText.Read(letter.Body).Phone,
            null,
            letter.Body,
            letter.Id.Value
        );

    private static string? Blank(string? text) => string.IsNullOrWhiteSpace(text) ? null : Typed.OneLine(text);

    private static string? BlankLines(string? text) => string.IsNullOrWhiteSpace(text) ? null : Typed.Lines(text);
}
