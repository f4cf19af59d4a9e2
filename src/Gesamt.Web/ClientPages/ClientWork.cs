using Gesamt.Core;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Reviews;
using Gesamt.Web.Words;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>What a client asks about a part of their page.</summary>
public sealed record AskPartDto(PagePart Part, string Words);

/// <summary>What a client does in the parts of the page that were opened: looks at drafts, fetches and sends files, says yes.</summary>
public static class ClientWork
{
    /// <summary>What a client does with the work: approves, remarks, sends files.</summary>
    public static RouteGroupBuilder MapClientWork(this RouteGroupBuilder page)
    {
        page.MapGet(
            "/files/{file}",
            async (string file, HttpContext http, Desk desk, FileVault vault) =>
                FileEndpoints.Whole(http, vault, await SeenAsync(desk, http, file))
        );
        page.MapGet(
            "/files/{file}/preview",
            async (string file, HttpContext http, Desk desk, FileVault vault) =>
                await FileEndpoints.PreviewAsync(http, vault, await SeenAsync(desk, http, file))
        );

        page.MapGet(
                "/handed-over.zip",
                async (HttpContext http, Desk desk, FileVault vault) =>
                    await HandedOverZip.OfAsync(desk, vault, await desk.OpenAsync(ClientLink.Link(http).ProjectId))
            )
            .ExcludeFromDescription();

        page.MapGet(
                "/handed-over.pdf",
                async (HttpContext http, Desk desk) =>
                    TypedResults.File(
                        await HandedOverPaper.OfAsync(desk, await desk.OpenAsync(ClientLink.Link(http).ProjectId)),
                        "application/pdf",
                        "handed-over.pdf"
                    )
            )
            .ExcludeFromDescription();

        page.MapGet(
                "/introduction/film",
                async (HttpContext http, Desk desk) =>
                {
                    var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                    return
                        Sight.IsOpen(file.History, PagePart.Introduction)
                        && file.Case.Kind.Introduction.FilmFile is { } film
                        ? await PaperFiles.ServeAsync(desk, film, http)
                        : throw new MissingException("film");
                }
            )
            .ExcludeFromDescription();

        // said by the page when the client presses the link; a mere GET may be a preview of somebody's mail program
        page.MapPost(
            "/files/{file}/fetched",
            async (string file, HttpContext http, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var row = await SeenAsync(desk, http, file);
                    var opened = await desk.OpenAsync(row.ProjectId);
                    if (
                        row.Group == FileGroup.Final
                        && !opened.History.Any<Happening.FileFetched>(f => f.File == row.Id)
                    )
                        await act.RecordAsync(opened, Actor.Client, new Happening.FileFetched(row.Id));
                    return Results.NoContent();
                });
            }
        );

        page.MapPost(
                "/files",
                async (
                    string name,
                    HttpContext http,
                    Desk desk,
                    FileVault vault,
                    Settings settings,
                    CancellationToken stop
                ) =>
                {
                    var project = ClientLink.Link(http).ProjectId;
                    if (!Sight.IsOpen((await desk.OpenAsync(project)).History, PagePart.Files))
                        throw new MissingException("part");
                    var since = desk.Now - NodaTime.Duration.FromDays(1);
                    if (
                        await desk
                            .Db.Files.Where(f => f.ProjectId == project && f.By == Actor.Client && f.At > since)
                            .SumAsync(f => f.Size, stop)
                        > settings.ClientMegabytesPerDay * 1024 * 1024
                    )
                        throw new InvalidException(
                            (
                                "file",
                                $"Files of at most {settings.ClientMegabytesPerDay} MB can be put here in a day. Go on tomorrow, or write to {desk.Studio.Mail}."
                            )
                        );
                    desk.Db.ChangeTracker.Clear();
                    await KeptFiles.KeepAsync(
                        desk,
                        vault,
                        project,
                        new(name, new(FileGroup.Supplied, null), http.Request.Body),
                        Actor.Client,
                        stop
                    );
                    return Results.NoContent();
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");

        page.MapPost(
            "/rounds/{round}/remark",
            (string round, RemarkDto said, HttpContext http, Desk desk) =>
                SayAsync(desk, http, round, said, (row, note) => new Happening.RemarkLeft(row.Id, note))
        );
        page.MapPost(
            "/rounds/{round}/changes",
            (string round, RemarkDto said, HttpContext http, Desk desk) =>
                SayAsync(desk, http, round, said, (row, note) => new Happening.ChangesAsked(row.Id, note))
        );
        page.MapPost(
            "/rounds/{round}/approve",
            (string round, HttpContext http, Desk desk, RemarkDto? said = null) =>
                SayAsync(
                    desk,
                    http,
                    round,
                    // whoever says yes need not say more
                    string.IsNullOrWhiteSpace(said?.Words)
                        ? null
                        : said,
                    (row, _) => new Happening.ReviewApproved(row.Id, row.Phase)
                )
        );

        page.MapPost(
            "/ask",
            async (AskPartDto ask, HttpContext http, Desk desk) =>
            {
                await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                    if (!Sight.IsOpen(file.History, ask.Part))
                        throw new MissingException("part");
                    var words = await Notes.AddAsync(desk, file.Id, NoteSort.Words, ask.Words);
                    await act.RecordAsync(file, Actor.Client, new Happening.PartAsked(ask.Part, words));
                });
                return Results.NoContent();
            }
        );

        page.MapPost(
            "/approve",
            async (HttpContext http, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                    if (!Sight.IsOpen(file.History, PagePart.Files) || !file.History.Any<Happening.HandedOver>())
                        throw new RefusedException("Nothing was handed over yet.");
                    if (!file.History.Any<Happening.Approved>())
                        await act.RecordAsync(file, Actor.Client, new Happening.Approved());
                    return Results.NoContent();
                });
            }
        );
        return page;
    }

    private static async Task<FileRow> SeenAsync(Desk desk, HttpContext http, string file) =>
        await KeptFiles.SeenAsync(desk, await desk.OpenAsync(ClientLink.Link(http).ProjectId), file);

    private static async Task<IResult> SayAsync(
        Desk desk,
        HttpContext http,
        string round,
        RemarkDto? words,
        Func<ReviewRow, NoteId, Happening> what
    )
    {
        var link = ClientLink.Link(http);
        var person = await desk
            .Db.People.AsNoTracking()
            .Where(p => p.Id == link.PersonId)
            .Select(p => p.Name)
            .SingleAsync();
        await Reviewing.AnswerAsync(desk, link.ProjectId, round, person, words, what);
        return Results.NoContent();
    }
}
