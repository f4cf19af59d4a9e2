using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.People;

/// <summary>When a client was last in touch: a letter either way, a call or a meeting of one of their projects.</summary>
public static class Contacts
{
    public static async Task<IReadOnlyDictionary<PersonId, Instant>> LastAsync(
        Desk desk,
        IReadOnlyCollection<PersonId> people
    )
    {
        var projects = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => people.Contains(p.ClientId))
            .Select(p => new { p.Id, p.ClientId })
            .ToListAsync();
        var ids = projects.Select(p => p.Id).ToList();
        var letters = await desk
            .Db.Letters.AsNoTracking()
            .Where(l =>
                l.ProjectId != null
                && ids.Contains(l.ProjectId.Value)
                && (l.State == LetterState.Sent || l.State == LetterState.Received)
            )
            .GroupBy(l => l.ProjectId!.Value)
            .Select(g => new { g.Key, At = g.Max(l => l.At) })
            .ToListAsync();
        var spoke = await desk
            .Db.Facts.AsNoTracking()
            .Where(f =>
                ids.Contains(f.ProjectId)
                && (
                    f.Kind == nameof(Happening.CallHeld)
                    || f.Kind == nameof(Happening.MeetingHeld)
                    || f.Kind == nameof(Happening.InquiryCame)
                )
            )
            .GroupBy(f => f.ProjectId)
            .Select(g => new { g.Key, At = g.Max(f => f.Happened) })
            .ToListAsync();
        var byProject = letters.Concat(spoke).ToLookup(x => x.Key, x => x.At);
        return projects
            .SelectMany(p => byProject[p.Id].Select(at => (p.ClientId, at)))
            .GroupBy(x => x.ClientId)
            .ToDictionary(g => g.Key, g => g.Max(x => x.at));
    }
}
