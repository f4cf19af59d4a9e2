using Gesamt.Core;
using Gesamt.Store.Search;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Search;

/// <param name="Project">The project to open; null for a person without one, or a letter that is not filed.</param>
/// <param name="Opens">The entry to open on it.</param>
/// <param name="Person">The person to open.</param>
public sealed record FoundDto(
    string Key,
    FoundSort Sort,
    long? Project,
    string Title,
    string Words,
    string? Opens,
    long? Person = null
);

/// <summary>The address of the search.</summary>
public static class SearchEndpoints
{
    private const int Most = 20,
        Few = 5;

    public static void MapSearch(this RouteGroupBuilder api) =>
        api.MapGet(
            "/search",
            async (string words, Desk desk) =>
            {
                var asked = words.Length <= 200 ? words : words[..200];
                var found = await SearchIndex.FindAsync(desk.Db, asked, Most);
                // few hits may mean a misspelt name
                if (found.Count < Few)
                    found =
                    [
                        .. found,
                        .. (await SearchIndex.FindAlikeAsync(desk.Db, asked, Few)).Where(like =>
                            found.All(hit => (hit.Sort, hit.Id) != (like.Sort, like.Id))
                        ),
                    ];
                found = await WithProjectsAsync(desk, found);
                var ids = found.Select(f => new ProjectId(f.ProjectId)).Distinct().ToList();
                var titles = await desk
                    .Db.Projects.AsNoTracking()
                    .Where(p => ids.Contains(p.Id))
                    .ToDictionaryAsync(p => p.Id.Value, p => p.Title);
                return found
                    .Select(f => new FoundDto(
                        $"{f.Sort}:{f.Id}",
                        f.Sort,
                        titles.ContainsKey(f.ProjectId) ? f.ProjectId : null,
                        f.Title.Length > 0 ? f.Title : f.Words,
                        titles.TryGetValue(f.ProjectId, out var title) && f.Sort != FoundSort.Project
                            ? $"{title}. {f.Words}".TrimEnd()
                            : f.Words,
                        f.Sort switch
                        {
                            FoundSort.Letter => $"Letter.{f.Id}",
                            FoundSort.Paper => $"Invoice.{f.Id}",
                            FoundSort.Note => $"Note.{f.Id}",
                            _ => null,
                        },
                        f.Sort == FoundSort.Person ? f.Id : null
                    ))
                    .ToList();
            }
        );

    /// <summary>People who were joined with others or taken out are not found; who is, with the newest of their projects.</summary>
    private static async Task<IReadOnlyList<Found>> WithProjectsAsync(Desk desk, IReadOnlyList<Found> found)
    {
        var people = found.Where(f => f.Sort == FoundSort.Person).Select(f => new PersonId(f.Id)).ToList();
        if (people.Count == 0)
            return found;
        var newest = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => people.Contains(p.ClientId))
            .GroupBy(p => p.ClientId)
            .Select(g => new { Person = g.Key, Project = g.Max(p => p.Id) })
            .ToDictionaryAsync(x => x.Person.Value, x => x.Project.Value);
        var gone = (
            await desk
                .Db.People.AsNoTracking()
                .Where(p => people.Contains(p.Id) && (p.MergedInto != null || p.RemovedAt != null))
                .Select(p => p.Id)
                .ToListAsync()
        )
            .Select(p => p.Value)
            .ToHashSet();
        return
        [
            .. found
                .Where(f => f.Sort != FoundSort.Person || !gone.Contains(f.Id))
                .Select(f => f.Sort == FoundSort.Person ? f with { ProjectId = newest.GetValueOrDefault(f.Id) } : f),
        ];
    }
}
