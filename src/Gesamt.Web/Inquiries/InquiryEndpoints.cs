using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Inquiries;

/// <summary>A public form as its visitor sees it.</summary>
public sealed record PublicFormDto(string Studio, string Brand, string Mail, string Title, string Intro, IReadOnlyList<FormField> Fields, string Token);

/// <param name="Answers">By the key of their field.</param>
/// <param name="Website">Left empty by people; what fills it in is no person.</param>
public sealed record InquiryDto(Dictionary<string, string> Answers, string? Website = null);

/// <summary>What happens next, and by when.</summary>
public sealed record ThanksDto(string Words, string Next);

public static class InquiryEndpoints
{
    public const string RateLimit = "inquiry";

    public static void MapInquiries(this RouteGroupBuilder forms)
    {
        forms.MapGet("/{slug}", async (string slug, Desk desk, HttpContext http, IAntiforgery antiforgery) =>
        {
            var form = await desk.Db.Forms.AsNoTracking().SingleOrDefaultAsync(f => f.Slug == slug) ?? throw new MissingException("form");
            var studio = desk.Studio;
            return new PublicFormDto(studio.Name, studio.Brand, studio.Mail, form.Title, form.Intro, StoreJson.Read<List<FormField>>(form.Fields), antiforgery.GetAndStoreTokens(http).RequestToken!);
        });

        forms.MapPost("/{slug}", async (string slug, InquiryDto inquiry, Desk desk) =>
        {
            var form = await desk.Db.Forms.AsNoTracking().SingleOrDefaultAsync(f => f.Slug == slug) ?? throw new MissingException("form");
            // a robot is told the same as a person, so that it learns nothing
            if (string.IsNullOrEmpty(inquiry.Website)) await Inquiry.ReceiveAsync(desk, form, inquiry.Answers);
            var kind = await desk.Db.Kinds.AsNoTracking().SingleAsync(k => k.Id == form.KindId);
            var reply = ReplyBy(desk.Calendar, desk.Today, StoreJson.Read<KindRules>(kind.Rules));
            return new ThanksDto("Thank you, your inquiry has arrived.",
                $"{desk.Studio.Owner} reads it and answers by {DateWords.Short(reply, desk.Today)}. A short letter is on its way to you.");
        }).RequireRateLimiting(RateLimit);
    }

    /// <summary>The day by which an answer is promised.</summary>
    public static NodaTime.LocalDate ReplyBy(StudioCalendar calendar, NodaTime.LocalDate from, KindRules kind) =>
        calendar.Add(from, new Span(kind.ReplyWithin, SpanUnit.BusinessDays));
}
