using Gesamt.Core.Calendar;
using Gesamt.Core.Forms;
using Gesamt.Core.Projects;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Inquiries;

/// <summary>A public form as its visitor sees it.</summary>
/// <param name="Token">Goes back with the answers; says that the form was opened here and not long ago.</param>
public sealed record PublicFormDto(
    string Studio,
    string Brand,
    string? Logo,
    string Mail,
    string Title,
    string Intro,
    IReadOnlyList<FormField> Fields,
    bool Closed,
    string Token
);

/// <param name="Answers">By the key of their field.</param>
/// <param name="Website">Left empty by people; what fills it in is no person.</param>
/// <param name="Campaign">What the form's address said: /i/mural?campaign=harbour+fair.</param>
public sealed record InquiryDto(
    Dictionary<string, string> Answers,
    string? Token = null,
    string? Website = null,
    string? Campaign = null
);

/// <summary>What happens next, and by when.</summary>
/// <param name="GoTo">An address of the studio's own to go on to.</param>
public sealed record ThanksDto(string Words, string Next, string? GoTo = null);

/// <summary>A file that waits for its form to be sent.</summary>
public sealed record UploadedDto(string Id, string Name);

/// <summary>Public forms. They have no session that could be forged, and stand in frames of other sites, so a token of their own takes the place of the antiforgery cookie.</summary>
public static class InquiryEndpoints
{
    public const string RateLimit = "inquiry";

    public static void MapInquiries(this RouteGroupBuilder forms)
    {
        forms.MapGet(
            "/{slug}",
            async (string slug, Desk desk, FormTokens tokens) =>
                Public(desk, await OpenAsync(desk, slug), tokens.New(slug))
        );

        forms
            .MapPost(
                "/{slug}",
                async (string slug, InquiryDto inquiry, Desk desk, FormTokens tokens) =>
                {
                    var form = await OpenAsync(desk, slug);
                    if (form.Closed)
                        throw new RefusedException(
                            $"This form is closed at the moment. Write to {desk.Studio.Mail} instead."
                        );
                    if (tokens.KeyOf(slug, inquiry.Token) is null)
                        throw new RefusedException(
                            "This form was opened too long ago. Load the page again; what you typed is kept."
                        );
                    // a robot is told the same as a person, so that it learns nothing
                    if (string.IsNullOrEmpty(inquiry.Website))
                        await Inquiry.ReceiveAsync(desk, form, inquiry.Answers, inquiry.Campaign);
                    return await ThanksAsync(desk, form);
                }
            )
            .LimitCalls(RateLimit);

        forms
            .MapPost(
                "/{slug}/files",
                async (
                    string slug,
                    string name,
                    string token,
                    Desk desk,
                    FormTokens tokens,
                    Uploads uploads,
                    HttpContext http,
                    CancellationToken stop
                ) =>
                {
                    var form = await OpenAsync(desk, slug);
                    if (form.Closed || tokens.KeyOf(slug, token) is null)
                        throw new RefusedException("This form was opened too long ago. Load the page again.");
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
            .LimitCalls(RateLimit)
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
    }

    /// <exception cref="MissingException">There is no such form.</exception>
    public static async Task<FormRow> OpenAsync(Desk desk, string slug) =>
        await desk.Db.Forms.AsNoTracking().At(slug).SingleOrDefaultAsync(f => f.Purpose == FormPurpose.Inquiry)
        ?? throw new MissingException("form");

    /// <summary>A form as strangers fill it in.</summary>
    public static PublicFormDto Public(Desk desk, FormRow form, string token)
    {
        var studio = desk.Studio;
        return new(
            studio.Name,
            studio.Brand,
            studio.Logo is null ? null : "/logo",
            studio.Mail,
            form.Title,
            form.Intro,
            StoreJson.Read<List<FormField>>(form.Fields),
            form.Closed,
            token
        );
    }

    /// <summary>What is said when it was sent.</summary>
    public static async Task<ThanksDto> ThanksAsync(Desk desk, FormRow form)
    {
        var kind = await desk.Db.Kinds.AsNoTracking().SingleAsync(k => k.Id == form.KindId);
        var reply = Promise.ReplyBy(desk.Calendar, desk.Today, StoreJson.Read<KindRules>(kind.Rules));
        return new(
            form.Thanks.Length > 0 ? form.Thanks : "Thank you, your inquiry has arrived.",
            $"{desk.Studio.Owner} reads it and answers by {DateWords.Short(reply, desk.Today)}.",
            form.GoTo
        );
    }
}
