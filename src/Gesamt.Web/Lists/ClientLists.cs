using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Lists;

/// <summary>What a client does in the lists, boards and notes that were shown to them: what they may change, they add to, change, strike out and put back; nothing is taken out by them.</summary>
public static class ClientLists
{
    public static RouteGroupBuilder MapClientLists(this RouteGroupBuilder page)
    {
        page.MapPut(
            "/lists/{list}/entries/{key}",
            async (string list, string key, SaveEntryDto save, HttpContext http, Desk desk) =>
            {
                await ListEntries.SaveAsync(desk, list, key, save, await WriterAsync(desk, http, list));
                return Results.NoContent();
            }
        );
        page.MapPost(
            "/lists/{list}/entries/{key}/struck",
            async (string list, string key, StruckDto to, HttpContext http, Desk desk) =>
            {
                await ListEntries.StrikeAsync(desk, list, key, to.Struck, await WriterAsync(desk, http, list));
                return Results.NoContent();
            }
        );
        page.MapPost(
                "/lists/{list}/pictures",
                async (
                    string list,
                    string name,
                    HttpContext http,
                    Desk desk,
                    Settings settings,
                    CancellationToken stop
                ) =>
                {
                    var by = await WriterAsync(desk, http, list);
                    await DemandRoomAsync(desk, http, settings);
                    return new EntryKeyDto(await Boards.AddPictureAsync(desk, list, name, http.Request.Body, by, stop));
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        page.MapGet(
                "/lists/{list}/pictures/{key}",
                async (string list, string key, HttpContext http, Desk desk, FileVault vault) =>
                {
                    await ShownAsync(desk, http, list);
                    return await Boards.PictureAsync(desk, vault, http, list, key, small: false);
                }
            )
            .ExcludeFromDescription();
        page.MapGet(
                "/lists/{list}/pictures/{key}/preview",
                async (string list, string key, HttpContext http, Desk desk, FileVault vault) =>
                {
                    await ShownAsync(desk, http, list);
                    return await Boards.PictureAsync(desk, vault, http, list, key, small: true);
                }
            )
            .ExcludeFromDescription();
        page.MapPost(
            "/lists/{list}/approve",
            async (string list, ApproveBoardDto approve, HttpContext http, Desk desk) =>
            {
                var (file, board) = await ShownAsync(desk, http, list);
                desk.Db.ChangeTracker.Clear();
                await Boards.ApproveAsync(desk, await desk.OpenAsync(file.Id), board, approve.Hash);
                return Results.NoContent();
            }
        );
        return page;
    }

    /// <summary>A list of this project that its client reads, while its part is open.</summary>
    /// <exception cref="MissingException">There is none, or it is not shown; both read the same.</exception>
    private static async Task<(ProjectFile, ListRow)> ShownAsync(Desk desk, HttpContext http, string list)
    {
        var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
        var row = await desk
            .Db.Lists.AsNoTracking()
            .SingleOrDefaultAsync(l =>
                l.PublicId == list && l.ProjectId == file.Id && !l.Removed && l.Reader != ListReader.Owner
            );
        return row is not null && Sight.IsOpen(file.History, ProjectLists.PartOf(row.Sort))
            ? (file, row)
            : throw new MissingException("list");
    }

    /// <exception cref="RefusedException">They may read it only.</exception>
    private static async Task<ListWriter> WriterAsync(Desk desk, HttpContext http, string list)
    {
        var (_, row) = await ShownAsync(desk, http, list);
        if (row is not { Reader: ListReader.Edited, Final: false })
            throw new RefusedException("This is yours to read; it cannot be changed here any more.");
        var person = ClientLink.Link(http).PersonId;
        var name = await desk.Db.People.Where(p => p.Id == person).Select(p => p.Name).SingleAsync();
        desk.Db.ChangeTracker.Clear();
        return new(name);
    }

    private static async Task DemandRoomAsync(Desk desk, HttpContext http, Settings settings)
    {
        var (project, since) = (ClientLink.Link(http).ProjectId, desk.Now - NodaTime.Duration.FromDays(1));
        var lists = desk.Db.Lists.Where(l => l.ProjectId == project).Select(l => l.Id);
        var bytes = await desk
            .Db.Entries.Where(e => lists.Contains(e.ListId) && e.By == Actor.Client && e.At > since)
            .SumAsync(e => e.Size);
        if (bytes > settings.ClientMegabytesPerDay * 1024 * 1024)
            throw new InvalidException(
                (
                    "file",
                    $"Pictures of at most {settings.ClientMegabytesPerDay} MB can be put here in a day. Go on tomorrow, or write to {desk.Studio.Mail}."
                )
            );
    }
}
