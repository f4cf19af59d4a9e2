using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Work;

/// <summary>A link, or access that was given.</summary>
/// <param name="Link">Whether its place is a link.</param>
/// <param name="About">“given by Oona, since Mon 25 Jan”, “handed back Fri 12 Mar”.</param>
/// <param name="Since">Since when it is there.</param>
public sealed record AccessDto(
    long Id,
    string What,
    string Place,
    bool Link,
    string GivenBy,
    LocalDate Since,
    LocalDate? BackOn,
    string About
);

/// <summary>Links and access of a project.</summary>
/// <param name="Line">In one line; null without any.</param>
/// <param name="Outstanding">Whether the work is over and some was not handed back.</param>
public sealed record AccessListDto(string? Line, bool Outstanding, IReadOnlyList<AccessDto> All);

/// <param name="Since">Today where it is left out.</param>
public sealed record SaveAccessDto(string What, string Place, string GivenBy, LocalDate? Since = null);

/// <summary>Whether it was handed back, today.</summary>
public sealed record AccessBackDto(bool Back);

/// <summary>Links that are used often, and what a client gave access to: who, since when, and handed back at the end. No secret is kept here.</summary>
public static class GivenAccess
{
    private const int Most = 100;

    /// <summary>Read only where some was written down.</summary>
    public static async Task<AccessListDto> OfAsync(Desk desk, ProjectFile file)
    {
        if (!file.History.Any<Happening.AccessNoted>())
            return new(null, false, []);
        var rows = await desk
            .Db.Access.AsNoTracking()
            .Where(a => a.ProjectId == file.Id && !a.Removed)
            .OrderBy(a => a.Id)
            .ToListAsync();
        var isOver = file.Case.End is not null || file.Row.Standing.Stage == Stage.Finished;
        var outstanding = rows.Count(row => row is { GivenBy.Length: > 0, BackOn: null });
        return new(
            rows.Count == 0 ? null : Line(rows, outstanding),
            isOver && outstanding > 0,
            [.. rows.Select(row => Of(desk, row))]
        );
    }

    private static string Line(List<AccessRow> rows, int outstanding) =>
        outstanding > 0
            ? $"{string.Join(", ", rows.Select(row => row.What))}; {outstanding} to hand back"
            : string.Join(", ", rows.Select(row => row.What));

    private static AccessDto Of(Desk desk, AccessRow row)
    {
        string[] about =
        [
            row.GivenBy.Length > 0 ? $"given by {row.GivenBy}, since {desk.Short(row.Since)}" : "",
            row.BackOn is { } back ? $"handed back {desk.Short(back)}" : "",
        ];
        return new(
            row.Id.Value,
            row.What,
            row.Place,
            WebAddress.Is(row.Place),
            row.GivenBy,
            row.Since,
            row.BackOn,
            string.Join(", ", about.Where(part => part.Length > 0))
        );
    }

    /// <param name="id">Null for a new one.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task SaveAsync(Desk desk, ProjectId project, long? id, SaveAccessDto save) =>
        desk.ActAsync(async act =>
        {
            var what = Typed.OneLine(TypedText.Of("what", save.What, 1, 120, "What it is"));
            var place = Typed.OneLine(TypedText.Of("place", save.Place, 0, 500, "Where it is"));
            var by = Typed.OneLine(TypedText.Of("givenBy", save.GivenBy, 0, 120, "Who gave it"));
            if (save.Since > act.Today)
                throw new InvalidException(("since", "It was given today or earlier."));
            var row = id is { } known ? await OneAsync(act.Desk, project, known) : null;
            if (row is null)
            {
                if (await act.Db.Access.CountAsync(a => a.ProjectId == project && !a.Removed) >= Most)
                    throw new RefusedException($"At most {Most} of them are kept. Take one out first.");
                act.Db.Access.Add(
                    row = new()
                    {
                        ProjectId = project,
                        What = what,
                        Since = act.Today,
                    }
                );
            }
            (row.What, row.Place, row.GivenBy) = (what, WebAddress.Meant(place), by);
            row.Since = save.Since ?? row.Since;
            await act.Db.SaveChangesAsync();
            var file = await act.OpenAsync(project);
            if (file.History.Any<Happening.AccessNoted>())
                act.Touch(project);
            else
                await act.RecordAsync(file, Actor.Owner, new Happening.AccessNoted());
        });

    /// <summary>Says that it was handed back, or takes that back.</summary>
    public static Task ReturnAsync(Desk desk, ProjectId project, long id, bool back) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(act.Desk, project, id);
            if (row.BackOn is not null == back)
                return;
            row.BackOn = back ? act.Today : null;
            if (back)
                await act.RecordAsync(
                    await act.OpenAsync(project),
                    Actor.Owner,
                    new Happening.AccessReturned(row.What)
                );
            else
                act.Touch(project);
        });

    public static Task RemoveAsync(Desk desk, ProjectId project, long id, bool removed) =>
        desk.ActAsync(async act =>
        {
            (await OneAsync(act.Desk, project, id)).Removed = removed;
            act.Touch(project);
        });

    private static async Task<AccessRow> OneAsync(Desk desk, ProjectId project, long id)
    {
        var number = new AccessId(id);
        return await desk.Db.Access.SingleOrDefaultAsync(a => a.Id == number && a.ProjectId == project)
            ?? throw new MissingException("access");
    }

    public static void MapAccess(this RouteGroupBuilder api)
    {
        var access = api.MapGroup("/projects/{id:long}/access");
        access.MapGet("", async (long id, Desk desk) => await OfAsync(desk, await desk.OpenAsync(new(id))));
        access.MapPost(
            "",
            async (long id, SaveAccessDto save, Desk desk) =>
            {
                await SaveAsync(desk, new(id), null, save);
                return TypedResults.NoContent();
            }
        );
        access.MapPut(
            "/{one:long}",
            async (long id, long one, SaveAccessDto save, Desk desk) =>
            {
                await SaveAsync(desk, new(id), one, save);
                return TypedResults.NoContent();
            }
        );
        access.MapPost(
            "/{one:long}/back",
            async (long id, long one, AccessBackDto to, Desk desk) =>
            {
                await ReturnAsync(desk, new(id), one, to.Back);
                return TypedResults.NoContent();
            }
        );
        access.MapPost(
            "/{one:long}/removed",
            async (long id, long one, RemovedDto to, Desk desk) =>
            {
                await RemoveAsync(desk, new(id), one, to.Removed);
                return TypedResults.NoContent();
            }
        );
    }
}
