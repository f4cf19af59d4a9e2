using Gesamt.Core;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.People;

/// <summary>When a client was last in touch, over all their projects.</summary>
public static class Contacts
{
    /// <summary>By person; nobody who never was.</summary>
    public static async Task<IReadOnlyDictionary<PersonId, Instant>> LastAsync(
        Desk desk,
        IReadOnlyCollection<PersonId> people
    ) =>
        (
            await desk
                .Db.Projects.AsNoTracking()
                .Where(p => people.Contains(p.ClientId) && p.Standing.TouchAt != null)
                .Select(p => new { p.ClientId, p.Standing.TouchAt })
                .ToListAsync()
        )
            .GroupBy(p => p.ClientId)
            .ToDictionary(g => g.Key, g => g.Max(p => p.TouchAt!.Value));
}
