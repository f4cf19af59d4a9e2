using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Formats.Mail;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>A file that goes with a letter.</summary>
public sealed record LetterFileDto(string Name, string Hash, long Size, string Type);

/// <summary>A template with its blanks filled from the record, as the editor begins with it.</summary>
/// <param name="Number">By which it is called up.</param>
/// <param name="OpenSubject">With its blanks as they are named.</param>
public sealed record TemplateDto(
    string Key,
    string Name,
    int? Number,
    string OpenSubject,
    string OpenBody,
    string Subject,
    string Body,
    IReadOnlyList<string> Gaps,
    IReadOnlyList<LetterFileDto> Files
);

/// <param name="Usual">What a letter that carries a paper says, where <paramref name="Templates"/> have none for it.</param>
/// <param name="Earlier">The exchange so far, newest first.</param>
/// <param name="Kept">Files of the project that can go with it.</param>
/// <param name="Tomorrow">When it would usually leave if it is sent later.</param>
/// <param name="Stays">Why it would reach nobody; null when letters leave the house.</param>
public sealed record LetterDeskDto(
    string To,
    string? Mail,
    string Signature,
    IReadOnlyList<TemplateDto> Templates,
    IReadOnlyList<TemplateDto> Usual,
    IReadOnlyList<EarlierDto> Earlier,
    IReadOnlyList<string> Blanks,
    LetterFileDto[] Kept,
    LocalDateTime Tomorrow,
    string? Stays
);

/// <summary>A letter of the same exchange.</summary>
public sealed record EarlierDto(long Id, string Who, string When, string Subject, string Text, bool FromClient);

/// <summary>A letter’s subject and text.</summary>
public sealed record LetterTextDto(string Subject, string Body);

/// <param name="SendAt">The studio's local time, for a letter that goes out later.</param>
/// <param name="Fit">Says with it that the inquiry is a fit.</param>
/// <param name="Offers">Lets the client choose a time for this kind of meeting.</param>
public sealed record SendLetterDto(
    string Subject,
    string Body,
    string? Template = null,
    LetterFileDto[]? Files = null,
    LocalDateTime? SendAt = null,
    long? Answers = null,
    bool Fit = false,
    int? Offers = null
);

/// <summary>A piece of a letter as it reads now: plain, filled from the record, or still empty.</summary>
public enum PieceSort
{
    Plain,
    Filled,
    StandBy,
    Gap,
}

/// <summary>A piece of a letter’s text: plain, or a blank and what fills it.</summary>
public sealed record PieceDto(PieceSort Sort, string Text, string? Blank);

/// <summary>A letter as it would go out.</summary>
public sealed record PreviewDto(
    string Subject,
    string Body,
    IReadOnlyList<string> Gaps,
    IReadOnlyList<PieceDto> Pieces
);

/// <param name="Letter">By which it can be taken back.</param>
public sealed record SentDto(long Letter, int HoldSeconds);

/// <param name="Subject">Null keeps what is held.</param>
public sealed record ReleaseDto(string? Subject, string? Body);

/// <summary>Until when a letter waits, in the studio’s time; with the text as it was changed.</summary>
public sealed record PutOffDto(LocalDateTime Until, string? Subject, string? Body);

/// <summary>Whether a held letter is left out.</summary>
public sealed record SkippedDto(bool Skipped);

/// <summary>All held letters that began with this text.</summary>
public sealed record ReleaseAllDto(string Template);

/// <summary>How many it were.</summary>
public sealed record CountDto(int Count);

/// <summary>The addresses of letters.</summary>
public static class LetterEndpoints
{
    public static void MapLetters(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/letter",
            (long id, long? colleague, Desk desk, MailRoom room) => DeskOfAsync(desk, room, new(id), colleague)
        );

        api.MapPost(
            "/projects/{id:long}/letter/preview",
            async (long id, LetterTextDto text, Desk desk) =>
            {
                var file = await desk.OpenAsync(new(id));
                var words = await Writing.WordsAsync(desk, file);
                var filled = Writing.Fill(text.Subject, Kept(text.Body), words);
                return new PreviewDto(
                    filled.Subject,
                    Shown(filled.Body),
                    filled.Gaps,
                    [.. LetterText.Parse(Kept(text.Body)).Pieces(Blanks.Of(words)).Select(Piece)]
                );
            }
        );

        api.MapPost(
            "/projects/{id:long}/letter",
            async (long id, SendLetterDto text, Desk desk, Settings settings) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    var written = new Written(
                        text.Subject,
                        Kept(text.Body),
                        null,
                        text.Template,
                        await FilesAsync(desk, text.Files ?? []),
                        text.SendAt is { } at ? desk.Calendar.At(at) : null,
                        text.Answers is { } answers ? new LetterId(answers) : null
                    );
                    var letter = await LettersOut.ClaimAsync(act, file, written);
                    await act.RecordAsync(file, Actor.Owner, [.. await SaidWithItAsync(desk, file, text)]);
                    return new SentDto(letter.Id.Value, settings.HoldSeconds);
                });
            }
        );
        api.MapPost(
                "/letter-files",
                async (string name, HttpContext http, FileVault vault, CancellationToken stop) =>
                {
                    var (plain, hash, size, type) = await KeptFiles.TakeAsync(vault, name, http.Request.Body, stop);
                    return new LetterFileDto(plain, hash, size, type);
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");

        MapHeld(api);
        MapThread(api);
    }

    private static async Task<LetterFileRow> FileAsync(Desk desk, LetterId letter, int file) =>
        await desk.Db.LetterFiles.AsNoTracking().SingleOrDefaultAsync(f => f.Id == file && f.LetterId == letter)
        ?? throw new MissingException("file");

    /// <summary>What the owner decides with a letter: that it is a fit, and that they should speak.</summary>
    /// <exception cref="InvalidException">There is no such meeting, or the letter does not lead to the choice of times.</exception>
    private static async Task<IReadOnlyList<Happening>> SaidWithItAsync(Desk desk, ProjectFile file, SendLetterDto said)
    {
        List<Happening> facts = [];
        if (said.Fit && file.Case.End is null && file.History.FitAt is null)
            facts.Add(new Happening.MarkedFit());
        if (said.Offers is { } kind)
        {
            if (!await desk.Db.MeetingKinds.AnyAsync(k => k.Id == kind && !k.Removed))
                throw new InvalidException(("offers", "One of the kinds of meeting."));
            if (!said.Body.Contains("page link", StringComparison.Ordinal))
                throw new InvalidException(
                    ("body", "To choose a time they need the link to their page: put [page link] into the letter.")
                );
            facts.Add(new Happening.MeetingOffered(kind));
        }
        return facts;
    }

    private static void MapHeld(RouteGroupBuilder api)
    {
        api.MapPost(
            "/letters/{id:long}/release",
            async (long id, ReleaseDto text, Desk desk, Settings settings) =>
            {
                await LettersOut.ReleaseAsync(desk, new(id), text.Subject, text.Body is null ? null : Kept(text.Body));
                return new SentDto(id, settings.HoldSeconds);
            }
        );
        api.MapPost(
            "/letters/release",
            async (ReleaseAllDto all, Desk desk) => new CountDto(await LettersOut.ReleaseAllAsync(desk, all.Template))
        );
        api.MapPost(
            "/letters/{id:long}/skipped",
            async (long id, SkippedDto to, Desk desk) =>
            {
                await (
                    to.Skipped ? LettersOut.SkipAsync(desk, new(id)) : LettersOut.HoldAgainAsync(desk, new LetterId(id))
                );
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/letters/{id:long}/later",
            async (long id, PutOffDto off, Desk desk) =>
            {
                await LettersOut.PutOffAsync(
                    desk,
                    new LetterId(id),
                    off.Until,
                    off.Subject,
                    off.Body is null ? null : Kept(off.Body)
                );
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/letters/{id:long}/take-back",
            async (long id, Desk desk) =>
            {
                await LettersOut.TakeBackAsync(desk, new LetterId(id));
                return TypedResults.NoContent();
            }
        );
    }

    private static void MapThread(RouteGroupBuilder api)
    {
        api.MapGet(
                "/projects/{id:long}/letters.mbox",
                async (long id, Desk desk) =>
                    TypedResults.File(
                        Mbox.Write(await LetterFiles.AllAsync(desk, new(id))),
                        "application/mbox",
                        $"letters-{id}.mbox"
                    )
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/letters/{id:long}.eml",
                async (long id, Desk desk) =>
                    TypedResults.File(
                        (await LetterFiles.OneAsync(desk, new(id))).Message,
                        "message/rfc822",
                        $"letter-{id}.eml"
                    )
            )
            .ExcludeFromDescription();
        // as it was laid out, in a frame that may do nothing: no script, nothing fetched, no address of this house told
        api.MapGet(
                "/letters/{id:long}/html",
                async (long id, Desk desk, HttpContext http) =>
                {
                    var letter =
                        await desk
                            .Db.Letters.AsNoTracking()
                            .SingleOrDefaultAsync(l => l.Id == new LetterId(id) && l.HasHtml)
                        ?? throw new MissingException("letter");
                    var html =
                        letter.Original is { } original
                        && desk.Vault.Has(original)
                        && IncomingMail.HtmlOf(desk.Vault.Read(original)) is { } part
                            ? HtmlView.Of(part)
                            : null;
                    http.Response.Headers.ContentSecurityPolicy =
                        "sandbox allow-popups; default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'";
                    http.Response.Headers["Referrer-Policy"] = "no-referrer";
                    return TypedResults.Content(
                        html
                            ?? "<!doctype html><p>This letter cannot be shown as it was laid out. Keep it as a mail file and open that.</p>",
                        "text/html; charset=utf-8"
                    );
                }
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/letters/{id:long}/files/{file:int}",
                async (long id, int file, Desk desk, HttpContext http) =>
                {
                    var row = await FileAsync(desk, new(id), file);
                    http.Response.Headers.ContentSecurityPolicy = "sandbox; default-src 'none'";
                    return TypedResults.File(
                        desk.Vault.Read(row.Hash),
                        "application/octet-stream",
                        Formats.Files.FileTypes.HandedOut(row.Name, row.Type)
                    );
                }
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/letters/{id:long}/files/{file:int}/preview",
                async (long id, int file, Desk desk, HttpContext http) =>
                {
                    var row = await FileAsync(desk, new(id), file);
                    return await FileEndpoints.PreviewAsync(http, desk.Vault, row.Hash, row.Type);
                }
            )
            .ExcludeFromDescription();
        api.MapPost(
                "/projects/{id:long}/letters/take-over",
                async (long id, HttpContext http, Desk desk, CancellationToken stop) =>
                    await LetterFiles.TakeOverAsync(desk, new(id), http.Request.Body, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(LetterFiles.MostBytes))
            .Accepts<byte[]>("application/octet-stream");
    }

    /// <param name="colleague">Somebody the letter is to name.</param>
    private static async Task<LetterDeskDto> DeskOfAsync(Desk desk, MailRoom room, ProjectId id, long? colleague)
    {
        var file = await desk.OpenAsync(id);
        var words = Writing.About(colleague is { } person ? await Writing.ColleagueAsync(desk, person) : null)(
            await Writing.WordsAsync(desk, file)
        );
        var templates = await desk
            .Db.LetterTemplates.AsNoTracking()
            .Include(t => t.Files)
            .Where(t => !t.Removed && (t.KindId == null || t.KindId == file.Row.KindId))
            // a kind's own words stand in the place of the shared ones
            .Where(t =>
                t.KindId != null
                || !desk.Db.LetterTemplates.Any(own =>
                    own.KindId == file.Row.KindId && own.Key == t.Key && !own.Removed
                )
            )
            .OrderBy(t => t.Number == null)
            .ThenBy(t => t.Number)
            .ThenBy(t => t.Name)
            .ToListAsync();
        var earlier = await desk
            .Db.Letters.AsNoTracking()
            .Where(l =>
                l.ProjectId == file.Id
                && (l.State == LetterState.Sent || l.State == LetterState.Received || l.State == LetterState.Kept)
            )
            .OrderByDescending(l => l.At)
            .Take(20)
            .ToListAsync();
        var kept = await desk
            .Db.Files.AsNoTracking()
            .Where(f => f.ProjectId == file.Id && !f.Removed)
            .OrderByDescending(f => f.Id)
            .Take(60)
            .ToListAsync();
        return new(
            file.MailContact.Name,
            file.MailContact.Mail,
            desk.Studio.Signature,
            [
                .. templates.Select(t =>
                    Of(new(t.Key, t.Subject, t.Body), words) with
                    {
                        Name = t.Name,
                        Number = t.Number,
                        Files = [.. t.Files.Select(f => new LetterFileDto(f.Name, f.Hash, f.Size, f.Type))],
                    }
                ),
            ],
            [
                .. UsualLetters
                    .All.Where(usual => templates.All(t => t.Key != usual.Key))
                    .Select(usual => Of(usual, words)),
            ],
            [
                .. earlier.Select(l => new EarlierDto(
                    l.Id.Value,
                    l.FromName,
                    desk.Short(desk.Calendar.DateOf(l.At))!,
                    l.Subject,
                    Shown(l.Body),
                    l.FromMail != desk.Studio.Mail
                )),
            ],
            Blanks.Names,
            [.. kept.Select(f => new LetterFileDto(f.Name, f.Hash, f.Size, f.Type))],
            desk.Today.PlusDays(1).At(new LocalTime(9, 0)),
            await room.WhyItStaysAsync(CancellationToken.None)
        );
    }

    private static TemplateDto Of(UsualLetter letter, RecordWords words)
    {
        var filled = Writing.Fill(letter.Subject, letter.Body, words);
        return new(
            letter.Key,
            letter.Subject,
            null,
            letter.Subject,
            letter.Body,
            filled.Subject,
            Shown(filled.Body),
            filled.Gaps,
            []
        );
    }

    /// <summary>Files by what their bytes are under a hash; a name alone decides nothing.</summary>
    public static async Task<IReadOnlyList<LetterFileRow>> FilesAsync(Desk desk, IEnumerable<LetterFileDto> files)
    {
        List<LetterFileRow> rows = [];
        foreach (var file in files)
        {
            if (!desk.Vault.Has(file.Hash))
                throw new InvalidException(("files", $"“{file.Name}” has not arrived. Choose it again."));
            var type =
                await KeptFiles.TypeAsync(desk.Vault, file.Hash, file.Name, CancellationToken.None)
                ?? throw new InvalidException(("files", $"“{file.Name}” is of a kind that is not kept."));
            rows.Add(
                new()
                {
                    Name = file.Name,
                    Hash = file.Hash,
                    Size = new FileInfo(desk.Vault.PathOf(file.Hash)).Length,
                    Type = type.MediaType,
                }
            );
        }
        return rows;
    }

    private static PieceDto Piece(LetterPiece piece) =>
        new(
            piece.Blank is null ? PieceSort.Plain
                : piece.Value is null ? PieceSort.Gap
                : piece.StandsBy ? PieceSort.StandBy
                : PieceSort.Filled,
            Shown(piece.Value ?? $"[{piece.Blank}]"),
            piece.Blank
        );

    /// <summary>In the editor a link stands as a blank with a name, never as a mark.</summary>
    public static string Shown(string body) =>
        body.Replace(Blanks.LinkPlaceholder, "[page link]", StringComparison.Ordinal);

    // the placeholder cannot be typed in from outside
    private static string Kept(string body) => body.Replace(Blanks.LinkPlaceholder, "", StringComparison.Ordinal);
}
