using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <param name="Trouble">What keeps it off.</param>
/// <param name="InIt">Runs with something still to come.</param>
/// <param name="TakenOut">Runs that were stopped before their end.</param>
/// <param name="Failed">Letters of it that were refused, or may or may not have gone out.</param>
public sealed record RoutineRowDto(
    int Id,
    long Kind,
    string KindName,
    string Name,
    string Begins,
    int Steps,
    bool Off,
    IReadOnlyList<string> Trouble,
    int InIt,
    int Finished,
    int TakenOut,
    int Failed
);

/// <param name="Why">For one taken out: by what.</param>
public sealed record RunDto(long Project, string Title, string Client, string Began, string State, string? Why);

/// <summary>All routines over all kinds, and who is in them.</summary>
public static class RoutineList
{
    private const int MostRuns = 100;

    /// <summary>Every routine, kind by kind.</summary>
    public static async Task<IReadOnlyList<RoutineRowDto>> AllAsync(Desk desk)
    {
        var rows = await desk
            .Db.Routines.AsNoTracking()
            .Where(r => !r.Removed)
            .OrderBy(r => r.Position)
            .ThenBy(r => r.Id)
            .ToListAsync();
        var kinds = await desk
            .Db.Kinds.AsNoTracking()
            .Where(k => !k.Removed)
            .OrderBy(k => k.Position)
            .ThenBy(k => k.Name)
            .ToDictionaryAsync(k => k.Id, k => k.Name);
        var counts = await CountsAsync(desk);
        var failed = await FailedAsync(desk);
        return
        [
            .. from kind in kinds
            from row in rows
            where row.KindId == kind.Key
            let runs = counts[(row.KindId, row.Key)]
            select desk.Tell(
                () => Of(row, StoreJson.Read<Routine>(row.Routine)),
                () =>
                    Of(row, new(row.Key, row.Key, Cause.RunBegun, [])) with
                    {
                        Trouble = ["It cannot be read. Restore a backup, or take it away and make it anew."],
                    }
            ) with
            {
                KindName = kind.Value,
                InIt = Count(runs, RunState.InIt),
                Finished = Count(runs, RunState.Finished),
                TakenOut = Count(runs, RunState.TakenOut),
                Failed = failed.GetValueOrDefault((row.KindId, row.Key)),
            },
        ];
    }

    private static int Count(IEnumerable<CountRow> runs, RunState state) =>
        runs.Where(one => one.State == state.ToString()).Sum(one => one.Count);

    private static RoutineRowDto Of(RoutineRow row, Routine routine) =>
        new(
            row.Id,
            row.KindId.Value,
            "",
            routine.Name,
            RoutineNames.BeginsWords(routine.Begins),
            routine.Steps.Length,
            row.Off,
            TroubleOf(row),
            0,
            0,
            0,
            0
        );

    /// <summary>What keeps it off, a sentence each.</summary>
    public static IReadOnlyList<string> TroubleOf(RoutineRow row) =>
        row.Trouble.Split('\n', StringSplitOptions.RemoveEmptyEntries);

    /// <summary>The newest runs of a routine, with what is still to come, or by what they were taken out.</summary>
    public static async Task<IReadOnlyList<RunDto>> RunsAsync(Desk desk, KindId kind, string key)
    {
        var runs = await Runs(desk)
            .Where(r => r.KindId == kind && (r.Key == key || r.Key.StartsWith(key + "#")))
            .OrderByDescending(r => r.Run)
            .Take(MostRuns)
            .ToListAsync();
        var (ids, projects) = (runs.Select(r => r.Run).ToList(), runs.Select(r => r.ProjectId).Distinct().ToList());
        var steps = (
            await desk
                .Db.PlannedSteps.AsNoTracking()
                .Where(s => ids.Contains(s.RunId))
                .Select(s => new
                {
                    s.RunId,
                    s.State,
                    s.Due,
                })
                .ToListAsync()
        ).ToLookup(s => s.RunId);
        var facts = (
            await desk
                .Db.Facts.AsNoTracking()
                .Where(f =>
                    projects.Contains(f.ProjectId)
                    && (f.Kind == nameof(Happening.StepStopped) || f.Kind == nameof(Happening.RunBegan))
                )
                .ToListAsync()
        )
            .Select(f => (f.Recorded, What: FactJson.Read(f.Kind, f.Version, f.Payload)))
            .ToList();
        var began = facts
            .Where(f => f.What is Happening.RunBegan)
            .GroupBy(f => ((Happening.RunBegan)f.What).Run)
            .ToDictionary(g => g.Key, g => g.First().Recorded);
        var why = facts
            .Where(f => f.What is Happening.StepStopped)
            .GroupBy(f => ((Happening.StepStopped)f.What).Step.Run)
            .ToDictionary(g => g.Key, g => ((Happening.StepStopped)g.Last().What).Why);
        return
        [
            .. runs.Select(run =>
            {
                var own = steps[run.Run].ToList();
                var next = own.Where(s => s.State is StepState.Planned).Min(s => s.Due);
                var state =
                    run.Offered ? "offered"
                    : own.Any(s => s.State == StepState.Held) ? "waits for your OK"
                    : next is { } due ? $"next on {desk.Short(desk.Calendar.DateOf(due))}"
                    : own.Any(s => s.State == StepState.Parked) ? "waits for a date"
                    : run.State == RunState.TakenOut ? "taken out"
                    : "finished";
                return new RunDto(
                    run.ProjectId.Value,
                    run.Title,
                    run.Client,
                    began.TryGetValue(run.Run, out var at) ? desk.Short(desk.Calendar.DateOf(at))! : "",
                    state,
                    state == "taken out" && why.TryGetValue(run.Run, out var rule) ? RoutineWords.Word(rule) : null
                );
            }),
        ];
    }

    private sealed class RunOf
    {
        public RunId Run { get; init; }
        public ProjectId ProjectId { get; init; }
        public KindId KindId { get; init; }
        public required string Key { get; init; }
        public bool Offered { get; init; }
        public RunState? State { get; init; }
        public required string Title { get; init; }
        public required string Client { get; init; }
    }

    private static IQueryable<RunOf> Runs(Desk desk) =>
        from run in desk.Db.Runs.AsNoTracking()
        join project in desk.Db.Projects.AsNoTracking() on run.ProjectId equals project.Id
        select new RunOf
        {
            Run = run.Id,
            ProjectId = run.ProjectId,
            KindId = run.KindId,
            Key = run.Key,
            Offered = run.Offered,
            State = run.State,
            Title = project.Title,
            Client = project.Client!.Name,
        };

    private sealed record FailedRow(long KindId, string Key, int Count);

    private static async Task<Dictionary<(KindId, string), int>> FailedAsync(Desk desk) => (
            await desk
                .Db.Database.SqlQuery<FailedRow>(
                    $"""
                    WITH Failed AS (
                        SELECT RunId FROM Letters WHERE Problem IS NOT NULL AND RunId IS NOT NULL
                        UNION ALL SELECT RunId FROM Letters WHERE State = 'Uncertain' AND Problem IS NULL AND RunId IS NOT NULL)
                    SELECT p.KindId, r.Key, count(*) AS Count FROM Failed f CROSS JOIN Runs r ON r.Id = f.RunId CROSS JOIN Projects p ON p.Id = r.ProjectId
                    WHERE p.Rehearsal = 0 GROUP BY 1, 2
                    """
                )
                .ToListAsync()
        ).GroupBy(row => (new KindId(row.KindId), RoutineOf(row.Key))).ToDictionary(same => same.Key, same => same.Sum(row => row.Count));

    private sealed record CountRow(long KindId, string Key, string State, int Count);

    private static async Task<ILookup<(KindId, string), CountRow>> CountsAsync(Desk desk) =>
        (
            await desk
                .Db.Database.SqlQuery<CountRow>(
                    $"""
                    SELECT KindId, Key, State, count(*) AS Count FROM Runs
                    WHERE State IS NOT NULL AND ProjectId NOT IN (SELECT Id FROM Projects WHERE Rehearsal) GROUP BY KindId, Key, State
                    """
                )
                .ToListAsync()
        ).ToLookup(row => (new KindId(row.KindId), RoutineOf(row.Key)));

    /// <summary>The routine of a run that was begun anew: its key has a number behind a #.</summary>
    private static string RoutineOf(string key) => key.Split('#')[0];
}
