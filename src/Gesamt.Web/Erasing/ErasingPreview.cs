using System.Linq.Expressions;
using Gesamt.Core;
using Gesamt.Core.Texts;
using Gesamt.Store.Backups;
using Gesamt.Store.Search;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Erasing;

/// <summary>Another project in which the name stands, too, in words of somebody else.</summary>
public sealed record NamedElsewhereDto(long Project, string Title);

/// <summary>What erasing somebody would do.</summary>
/// <param name="Goes">What would be gone, a line each.</param>
/// <param name="Stays">What the law keeps, a line each.</param>
/// <param name="Hinders">What must be done before; none when it can be done now.</param>
/// <param name="Elsewhere">Where their name stands in words that are not theirs: those stay as they are.</param>
/// <param name="Backups">What is said of backups.</param>
public sealed record ErasingDto(
    string Name,
    IReadOnlyList<string> Goes,
    IReadOnlyList<string> Stays,
    IReadOnlyList<HinderDto> Hinders,
    IReadOnlyList<NamedElsewhereDto> Elsewhere,
    string Backups
);

/// <summary>Tells beforehand what would be blanked, and what the law keeps.</summary>
public static class ErasingPreview
{
    private const int MostElsewhere = 20;

    public static async Task<ErasingDto> OfAsync(Desk desk, PersonId id, Settings settings)
    {
        var whom = await Whom.OfAsync(desk, id);
        List<string> stays = [];
        foreach (var project in whom.Projects)
        {
            var file = await desk.OpenAsync(project);
            var kept = await KeptPapersOfErased.OfAsync(desk, file);
            stays.AddRange(kept.What.Select(what => $"{ShortText.Of(file.Row.Title, 60)}. {what}"));
        }
        return new(
            whom.Name,
            await GoesAsync(desk, whom),
            stays,
            whom.Hinders,
            await ElsewhereAsync(desk, whom),
            Backups(settings)
        );
    }

    private static async Task<IReadOnlyList<string>> GoesAsync(Desk desk, Whom whom)
    {
        var projects = whom.Projects;
        List<string> goes = ["Name, addresses, phone numbers, picture and notes"];
        if (projects.Count > 0)
            goes.Add(
                projects.Count == 1
                    ? "The words of their project, its title among them"
                    : $"The words of their {projects.Count} projects, their titles among them"
            );
        await AddAsync(desk.Db.Letters, l => l.ProjectId != null && projects.Contains(l.ProjectId.Value), "letter");
        await AddAsync(desk.Db.Files, f => projects.Contains(f.ProjectId) && !f.Removed, "file");
        await AddAsync(desk.Db.Answers, a => projects.Contains(a.ProjectId), "answered form");
        await AddAsync(
            desk.Db.Notes,
            n => projects.Contains(n.ProjectId),
            "note, call or remark",
            "notes, calls and remarks"
        );
        await AddAsync(desk.Db.Meetings, m => projects.Contains(m.ProjectId), "meeting’s words", "meetings’ words");
        await AddAsync(
            desk.Db.Links,
            l => l.EndedAt == null && (projects.Contains(l.ProjectId) || whom.People.Contains(l.PersonId)),
            "link to a client page, which ends",
            "links to client pages, which end"
        );
        return goes;

        async Task AddAsync<T>(IQueryable<T> rows, Expression<Func<T, bool>> theirs, string one, string? many = null)
            where T : class
        {
            if (await rows.CountAsync(theirs) is > 0 and var count)
                goes.Add(count == 1 ? $"1 {one}" : $"{count} {many ?? $"{one}s"}");
        }
    }

    /// <summary>What is found under their name outside their own projects.</summary>
    private static async Task<IReadOnlyList<NamedElsewhereDto>> ElsewhereAsync(Desk desk, Whom whom)
    {
        var own = whom.Projects.Select(project => project.Value).ToHashSet();
        var found = (await SearchIndex.FindAsync(desk.Db, whom.Name, 200))
            .Where(hit => hit.ProjectId != 0 && !own.Contains(hit.ProjectId))
            .Select(hit => new ProjectId(hit.ProjectId))
            .Distinct()
            .Take(MostElsewhere)
            .ToList();
        var titles = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => found.Contains(p.Id))
            .Select(p => new { p.Id, p.Title })
            .ToListAsync();
        return [.. titles.Select(one => new NamedElsewhereDto(one.Id.Value, one.Title))];
    }

    private static string Backups(Settings settings) =>
        Backup.Kept(settings.BackupFolder).ToList() is { Count: > 0 } kept
            ? kept.Count == 1
                ? "The 1 backup that was made before still has all of it: take it away where it must be gone there too."
                : $"The {kept.Count} backups that were made before still have all of it: they go with time, or take them away."
            : "There is no backup here that still has it; copies kept elsewhere do.";
}
