using Gesamt.Core;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>Another project of the same client, and whether its page is put together with this one's.</summary>
public sealed record TogetherDto(long With, bool Together);

/// <summary>Another page of the same client.</summary>
/// <param name="Address">Lets them in; empty while the owner only looks.</param>
public sealed record OtherPageDto(string Project, string Address);

/// <summary>Several projects of one client on one page: only where the owner puts them together, and only for the client, whose pages all of them are.</summary>
public static class PagesTogether
{
    public static void MapTogether(this RouteGroupBuilder api) =>
        api.MapPost(
            "/projects/{id:long}/together",
            async (long id, TogetherDto to, Desk desk) =>
            {
                await SetAsync(desk, new(id), to);
                return TypedResults.NoContent();
            }
        );

    /// <exception cref="InvalidException">It is another client's.</exception>
    public static Task SetAsync(Desk desk, ProjectId project, TogetherDto to) =>
        desk.ActAsync(async act =>
        {
            var mine = (await act.OpenAsync(project)).Row;
            var theirs = (await act.OpenAsync(new(to.With))).Row;
            if (mine.Id == theirs.Id || mine.ClientId != theirs.ClientId || mine.Rehearsal || theirs.Rehearsal)
                throw new InvalidException(("with", "Only projects of one client stand on one page."));
            if (!to.Together)
                theirs.PageGroup = null;
            else
            {
                var group = mine.PageGroup ?? theirs.PageGroup ?? Codes.New();
                // all that either was put together with comes along
                var old = new[] { mine.PageGroup, theirs.PageGroup }.OfType<string>().ToList();
                foreach (var row in await act.Db.Projects.Where(p => old.Contains(p.PageGroup!)).ToListAsync())
                    row.PageGroup = group;
                (mine.PageGroup, theirs.PageGroup) = (group, group);
                await Links.OfAsync(act.Db, mine.Id, mine.ClientId);
                await Links.OfAsync(act.Db, theirs.Id, theirs.ClientId);
            }
            act.Touch(mine.Id);
            act.Touch(theirs.Id);
        });

    /// <summary>The other pages a client reaches from this one; a closed one is not among them.</summary>
    /// <param name="address">The address of a link; null while the owner only looks.</param>
    internal static async Task<IReadOnlyList<OtherPageDto>> OthersAsync(
        Desk desk,
        ProjectFile file,
        PersonId? person,
        Func<LinkRow, string>? address
    )
    {
        if (file.Row.PageGroup is not { } group || person is { } who && who != file.Row.ClientId)
            return [];
        var others = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => p.PageGroup == group && p.Id != file.Id && p.ClientId == file.Row.ClientId && !p.Rehearsal)
            .OrderBy(p => p.Id)
            .Join(
                desk.Db.Links.Where(l => l.EndedAt == null && l.PersonId == file.Row.ClientId),
                p => p.Id,
                l => l.ProjectId,
                (p, l) => new { p.Title, Link = l }
            )
            .ToListAsync();
        return [.. others.Select(one => new OtherPageDto(one.Title, address?.Invoke(one.Link) ?? ""))];
    }
}
