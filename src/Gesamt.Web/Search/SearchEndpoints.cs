using Gesamt.Core;
using Gesamt.Store;
using Gesamt.Store.Search;
using Gesamt.Web.Hosting;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Search;

/// <param name="Project">The project to open; null for a person without one, or a letter that is not filed.</param>
/// <param name="Opens">The entry to open on it.</param>
/// <param name="Person">The person to open.</param>
/// <param name="List">The list to open, by its name in addresses.</param>
public sealed record FoundDto(
    string Key,
    FoundSort Sort,
    long? Project,
    string Title,
    string Words,
    string? Opens,
    long? Person = null,
    string? List = null
);

/// <summary>The address of the search.</summary>
public static class SearchEndpoints
{
    private sealed record Titled(ProjectId Id, string Title);

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<Titled>>> Titles = Prepared.Rows(
        (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
            db.Projects.Where(p => ids.Contains(p.Id)).Select(p => new Titled(p.Id, p.Title))
    );

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
                var newest = await NewestAsync(desk, found);
                found =
                [
                    .. found
                        .Select(f =>
                            f.Sort == FoundSort.Person ? f with { ProjectId = newest.GetValueOrDefault(f.Id) } : f
                        )
                        // a paper is written anew with each version: one hit stands for them all
                        .DistinctBy(f =>
                            f.Sort is FoundSort.Proposal or FoundSort.Contract ? (f.Sort, f.ProjectId) : (f.Sort, f.Id)
                        ),
                ];
                var lists = await ListsAsync(desk, found);
                var ids = found.Select(f => new ProjectId(f.ProjectId)).Distinct().ToList();
                var titles = (await Titles(desk.Db, ids)).ToDictionary(p => p.Id.Value, p => p.Title);
                // what a rehearsal holds counts nowhere
                return found
                    .Where(f => f.ProjectId == 0 || titles.ContainsKey(f.ProjectId))
                    .Where(f => !InLists.Contains(f.Sort) || lists.ContainsKey((f.Sort, f.Id)))
                    .Select(f =>
                        lists.TryGetValue((f.Sort, f.Id), out var list)
                            ? Dto(f with { Title = list.Name }, titles.GetValueOrDefault(f.ProjectId)) with
                            {
                                List = list.Id,
                            }
                            : Dto(f, titles.GetValueOrDefault(f.ProjectId))
                    )
                    .ToList();
            }
        );

    /// <summary>A hit with the project it stands in; what has no name of its own is called by that.</summary>
    private static FoundDto Dto(Found found, string? project)
    {
        var of = found.Sort == FoundSort.Project || found.Title.Length == 0 ? null : project;
        return new(
            $"{found.Sort}:{found.Id}",
            found.Sort,
            project is null ? null : found.ProjectId,
            found.Title.Length > 0 ? found.Title : project ?? "",
            string.Join(". ", new[] { of, found.Words }.Where(words => !string.IsNullOrEmpty(words))),
            Opened(found.Sort) is { } what ? $"{what}.{found.Id}" : null,
            found.Sort == FoundSort.Person ? found.Id : null
        );
    }

    private static readonly FoundSort[] InLists = [FoundSort.List, FoundSort.Entry];

    /// <summary>The lists that were found, by their names or by an entry, where they were not taken out.</summary>
    private static async Task<Dictionary<(FoundSort, long), (string Id, string Name)>> ListsAsync(
        Desk desk,
        IReadOnlyList<Found> found
    )
    {
        List<long> Of(FoundSort sort) => [.. found.Where(f => f.Sort == sort).Select(f => f.Id)];
        var named = Of(FoundSort.List).ConvertAll(id => new ListId(id));
        var entries = Of(FoundSort.Entry).ConvertAll(id => new EntryId(id));
        if (named.Count + entries.Count == 0)
            return [];
        var kept = desk.Db.Lists.AsNoTracking().Where(list => !list.Removed);
        var byName = await kept.Where(list => named.Contains(list.Id))
            .Select(list => new
            {
                list.Id,
                list.PublicId,
                list.Name,
            })
            .ToListAsync();
        var byEntry = await desk
            .Db.Entries.Where(entry => entries.Contains(entry.Id))
            .Join(
                kept,
                entry => entry.ListId,
                list => list.Id,
                (entry, list) =>
                    new
                    {
                        entry.Id,
                        list.PublicId,
                        list.Name,
                    }
            )
            .ToListAsync();
        return byName
            .Select(one => ((FoundSort.List, one.Id.Value), (one.PublicId, one.Name)))
            .Concat(byEntry.Select(one => ((FoundSort.Entry, one.Id.Value), (one.PublicId, one.Name))))
            .ToDictionary(one => one.Item1, one => one.Item2);
    }

    private static OpensWhat? Opened(FoundSort sort) =>
        sort switch
        {
            FoundSort.Letter => OpensWhat.Letter,
            FoundSort.Paper => OpensWhat.Invoice,
            FoundSort.Note => OpensWhat.Note,
            FoundSort.Answers => OpensWhat.Answers,
            FoundSort.Meeting => OpensWhat.Meeting,
            FoundSort.Proposal => OpensWhat.Proposal,
            FoundSort.Contract => OpensWhat.Contract,
            _ => null,
        };

    /// <summary>The newest project of each person that was found.</summary>
    private static async Task<IReadOnlyDictionary<long, long>> NewestAsync(Desk desk, IReadOnlyList<Found> found)
    {
        var people = found.Where(f => f.Sort == FoundSort.Person).Select(f => new PersonId(f.Id)).ToList();
        return people.Count == 0
            ? new Dictionary<long, long>()
            : await desk
                .Db.Projects.AsNoTracking()
                .Where(p => people.Contains(p.ClientId))
                .GroupBy(p => p.ClientId)
                .Select(g => new { Person = g.Key, Project = g.Max(p => p.Id) })
                .ToDictionaryAsync(x => x.Person.Value, x => x.Project.Value);
    }
}
