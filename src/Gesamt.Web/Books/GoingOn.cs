using Gesamt.Store;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>An invoice that comes again and has a next day, with the title of its project.</summary>
internal sealed record GoingOn(RecurringRow Row, string Title)
{
    public static readonly Func<GesamtDb, Task<List<GoingOn>>> All = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Recurring.AsNoTracking()
                .Where(r => r.Next != null)
                .Join(db.Projects, r => r.ProjectId, p => p.Id, (r, p) => new GoingOn(r, p.Title))
    );
}
