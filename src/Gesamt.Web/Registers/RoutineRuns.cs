using Gesamt.Core;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Registers;

/// <summary>On which projects a routine runs or ran, from when to when.</summary>
internal static class RoutineRuns
{
    /// <summary>The newest run of a routine on a project.</summary>
    internal sealed record Ran(RunState State, Instant? BeganAt, Instant? OverAt);

    /// <summary>The names of all routines; one that several kinds have stands once.</summary>
    public static async Task<IReadOnlyList<string>> NamesAsync(Desk desk) =>
        [.. (await RoutinesAsync(desk)).Select(one => one.Title).Distinct().Order(StringComparer.OrdinalIgnoreCase)];

    /// <summary>By project; null where no routine is looked for.</summary>
    public static async Task<IReadOnlyDictionary<ProjectId, Ran>?> OfAsync(Desk desk, RegisterQuery query)
    {
        if (query.Routine is not { Length: > 0 } name)
            return null;
        var meant = (await RoutinesAsync(desk)).Where(one => one.Title == name).ToList();
        var (kinds, state) = (meant.Select(one => one.Kind).Distinct().ToList(), query.Run);
        var runs = await desk
            .Db.Runs.AsNoTracking()
            .Where(r => kinds.Contains(r.KindId) && r.State != null)
            .OrderBy(r => r.Id)
            .Select(r => new
            {
                r.ProjectId,
                r.KindId,
                r.Key,
                r.State,
                r.BeganAt,
                r.OverAt,
            })
            .ToListAsync();
        return runs.Where(run => meant.Contains((run.KindId, run.Key.Split('#')[0], name)))
            .GroupBy(run => run.ProjectId)
            .Select(same => (same.Key, Newest: same.Last()))
            .Where(one => state is null || one.Newest.State == state)
            .ToDictionary(
                one => one.Key,
                one => new Ran(one.Newest.State!.Value, one.Newest.BeganAt, one.Newest.OverAt)
            );
    }

    /// <summary>“in it since Mon 4 January”, “finished, Mon 4 January to Fri 8 January”.</summary>
    public static string Words(Desk desk, Ran run)
    {
        string? Day(Instant? at) => at is { } known ? desk.Short(desk.Calendar.DateOf(known)) : null;
        return run.State == RunState.InIt
            ? $"in it since {Day(run.BeganAt)}"
            : $"{(run.State == RunState.Finished ? "finished" : "taken out")}, {Day(run.BeganAt)} to {Day(run.OverAt)}";
    }

    private static async Task<List<(KindId Kind, string Key, string Title)>> RoutinesAsync(Desk desk) =>
        [
            .. (
                await desk
                    .Db.Routines.AsNoTracking()
                    .Select(r => new
                    {
                        r.KindId,
                        r.Key,
                        r.Routine,
                    })
                    .ToListAsync()
            ).Select(row =>
                (row.KindId, row.Key, desk.Tell(() => StoreJson.Read<Routine>(row.Routine).Name, () => row.Key))
            ),
        ];
}
