using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Spent;

/// <summary>What a project took.</summary>
/// <param name="Costs">Without tax and without what the client pays besides, by currency.</param>
internal sealed record Took(int Minutes, IReadOnlyList<Money> Costs)
{
    /// <summary>What an hour earns of a price without tax; null without hours.</summary>
    public Money? PerHour(Money net) =>
        Earned.PerHour(net, Costs.Where(cost => cost.Currency == net.Currency).Sum(net.Currency), Minutes);
}

/// <summary>Time and costs of all projects that have hours, for figures beside each other.</summary>
internal static class HourlyFigures
{
    public static Task<IReadOnlyDictionary<ProjectId, Took>> OfAllAsync(Desk desk) =>
        OfAsync(desk, desk.Db.Hours, desk.Db.Costs);

    /// <summary>Of some projects alone.</summary>
    public static Task<IReadOnlyDictionary<ProjectId, Took>> OfAsync(Desk desk, IQueryable<ProjectRow> projects) =>
        OfAsync(
            desk,
            desk.Db.Hours.Join(projects, h => h.ProjectId, p => p.Id, (h, _) => h),
            desk.Db.Costs.Join(projects, c => c.ProjectId, p => p.Id, (c, _) => c)
        );

    private static async Task<IReadOnlyDictionary<ProjectId, Took>> OfAsync(
        Desk desk,
        IQueryable<HoursRow> hours,
        IQueryable<CostRow> spent
    )
    {
        if (desk.Studio.HoursOff)
            return ImmutableDictionary<ProjectId, Took>.Empty;
        var minutes = await hours
            .Where(h => !h.Removed)
            .GroupBy(h => h.ProjectId)
            .Select(same => new { same.Key, Minutes = same.Sum(h => h.Minutes) })
            .ToDictionaryAsync(same => same.Key, same => same.Minutes);
        var costs = (
            await spent.AsNoTracking().Where(c => c.ProjectId != null && !c.Removed && !c.ChargeOn).ToListAsync()
        ).ToLookup(c => c.ProjectId!.Value, SpentView.NetAmountOf);
        return minutes.ToDictionary(one => one.Key, one => new Took(one.Value, [.. costs[one.Key]]));
    }
}
