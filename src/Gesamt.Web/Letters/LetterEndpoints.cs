using Gesamt.Core;
using Gesamt.Core.Letters;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Projects;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <summary>A template with its blanks filled from the record, as the editor begins with it.</summary>
public sealed record TemplateDto(string Key, string Name, string Subject, string Body, IReadOnlyList<string> Gaps);

/// <param name="Earlier">The exchange so far, newest first.</param>
public sealed record LetterDeskDto(string To, string? Mail, string Signature, IReadOnlyList<TemplateDto> Templates, IReadOnlyList<EarlierDto> Earlier, IReadOnlyList<string> Blanks);

public sealed record EarlierDto(string Who, string When, string Subject, string Text);

public sealed record LetterTextDto(string Subject, string Body);

public sealed record PreviewDto(string Subject, string Body, IReadOnlyList<string> Gaps);

/// <param name="Letter">By which it can be taken back.</param>
public sealed record SentDto(long Letter, int HoldSeconds);

/// <param name="Subject">Null keeps what is held.</param>
public sealed record ReleaseDto(string? Subject, string? Body);

public static class LetterEndpoints
{
    public static void MapLetters(this RouteGroupBuilder api)
    {
        api.MapGet("/projects/{id:long}/letter", async (long id, Desk desk) =>
        {
            var file = await desk.OpenAsync(new(id));
            var words = await Writing.WordsAsync(desk, file);
            var templates = await desk.Db.LetterTemplates.AsNoTracking().OrderBy(t => t.Id).ToListAsync();
            var earlier = await desk.Db.Letters.AsNoTracking().Where(l => l.ProjectId == file.Id && (l.State == LetterState.Sent || l.State == LetterState.Received)).OrderByDescending(l => l.At).Take(20).ToListAsync();
            return new LetterDeskDto(file.MailContact.Name, file.MailContact.Mail, desk.Studio.Signature,
                [.. templates.Select(t => (t, Filled: Writing.Fill(t.Subject, t.Body, words))).Select(x => new TemplateDto(x.t.Key, x.t.Name, x.Filled.Subject, Shown(x.Filled.Body), x.Filled.Gaps))],
                [.. earlier.Select(l => new EarlierDto(l.FromName, Record.Short(desk, desk.Calendar.DateOf(l.At))!, l.Subject, Shown(l.Body)))], Blanks.Names);
        });

        api.MapPost("/projects/{id:long}/letter/preview", async (long id, LetterTextDto text, Desk desk) =>
        {
            var file = await desk.OpenAsync(new(id));
            var filled = Writing.Fill(text.Subject, Kept(text.Body), await Writing.WordsAsync(desk, file));
            return new PreviewDto(filled.Subject, Shown(filled.Body), filled.Gaps);
        });

        api.MapPost("/projects/{id:long}/letter", async (long id, LetterTextDto text, Desk desk, Settings settings) =>
        {
            await using var transaction = await desk.BeginAsync();
            var file = await desk.OpenAsync(new(id));
            var letter = await LettersOut.ClaimAsync(desk, file, text.Subject, Kept(text.Body), null);
            await desk.CommitAsync(transaction);
            return new SentDto(letter.Id.Value, settings.HoldSeconds);
        });

        api.MapPost("/letters/{id:long}/release", async (long id, ReleaseDto text, Desk desk, Settings settings) =>
        {
            await LettersOut.ReleaseAsync(desk, new(id), text.Subject, text.Body is null ? null : Kept(text.Body));
            return new SentDto(id, settings.HoldSeconds);
        });
        api.MapPost("/letters/{id:long}/skip", async (long id, Desk desk) =>
        {
            await LettersOut.SkipAsync(desk, new LetterId(id));
            return TypedResults.NoContent();
        });
        api.MapPost("/letters/{id:long}/take-back", async (long id, Desk desk) =>
        {
            await LettersOut.TakeBackAsync(desk, new LetterId(id));
            return TypedResults.NoContent();
        });
    }

    /// <summary>In the editor a link stands as a blank with a name, never as a mark.</summary>
    public static string Shown(string body) => body.Replace(Blanks.LinkPlaceholder, "[page link]", StringComparison.Ordinal);

    // the placeholder cannot be typed in from outside
    private static string Kept(string body) => body.Replace(Blanks.LinkPlaceholder, "", StringComparison.Ordinal);
}
