using Gesamt.Core;
using Gesamt.Core.Routines;
using Gesamt.Core.Turns;
using Gesamt.Store;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Ticking;

/// <summary>Which projects have something due at an instant, and when something is due next. A rehearsal's clock is wound by hand, so nothing of one is due here.</summary>
internal static class DueNow
{
    /// <summary>A step acts.</summary>
    public static readonly Func<GesamtDb, Instant, Task<List<ProjectId>>> Steps = Prepared.Rows(
        (GesamtDb db, Instant now) =>
            db
                .PlannedSteps.Where(s =>
                    s.State == StepState.Planned && s.Due <= now && !db.RehearsalIds.Contains(s.ProjectId)
                )
                .Select(s => s.ProjectId)
                .Distinct()
    );

    /// <summary>An instalment is invoiced.</summary>
    public static readonly Func<GesamtDb, Instant, Task<List<ProjectId>>> Invoices = Prepared.Rows(
        (GesamtDb db, Instant now) => db.Projects.Where(p => p.Standing.InvoiceAt <= now).Select(p => p.Id)
    );

    /// <summary>Its standing holds no longer.</summary>
    public static readonly Func<GesamtDb, Instant, Task<List<ProjectId>>> Standings = Prepared.Rows(
        (GesamtDb db, Instant now) => db.Projects.Where(p => p.Standing.ValidUntil <= now).Select(p => p.Id)
    );

    /// <summary>Finished by then, and nobody has to look at it any more.</summary>
    public static readonly Func<GesamtDb, Instant, Task<List<ProjectId>>> PuttingAway = Prepared.Rows(
        (GesamtDb db, Instant finished) =>
            db
                .Projects.Where(p =>
                    p.Standing.FinishedAt <= finished
                    && !p.Standing.PutAway
                    && p.Standing.Turn != Side.Yours
                    && !db.Recurring.Any(r => r.ProjectId == p.Id && r.Next != null)
                )
                .Select(p => p.Id)
    );

    /// <summary>The first instant after this one at which something is due; null where nothing is known to be.</summary>
    public static async Task<Instant?> NextAsync(GesamtDb db, Instant now)
    {
        Instant? first = null;
        foreach (var next in Next)
            if (await next(db, now) is { } at && !(first < at))
                first = at;
        return first;
    }

    private static readonly Func<GesamtDb, Instant, Task<Instant?>>[] Next =
    [
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant now) =>
                db.PlannedSteps.Where(s => s.State == StepState.Planned && s.Due > now).Min(s => s.Due)
        ),
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant now) =>
                db.Projects.Where(p => p.Standing.ValidUntil > now).Min(p => p.Standing.ValidUntil)
        ),
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant now) =>
                db.Projects.Where(p => p.Standing.InvoiceAt > now).Min(p => p.Standing.InvoiceAt)
        ),
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant now) =>
                db.Meetings.Where(m => m.RemindAt > now && !db.RehearsalIds.Contains(m.ProjectId)).Min(m => m.RemindAt)
        ),
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant now) =>
                db
                    .Outbox.Where(o => o.State == OutboxState.Claimed && o.NotBefore > now)
                    .Min(o => (Instant?)o.NotBefore)
        ),
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant now) =>
                db
                    .HookCalls.Where(c => c.State == HookCallState.Waiting && c.NotBefore > now)
                    .Min(c => (Instant?)c.NotBefore)
        ),
    ];
}
