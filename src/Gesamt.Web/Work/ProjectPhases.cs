using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Work;

/// <param name="Was">What it was called before; null for a new one.</param>
/// <param name="Days">How many days it usually takes; null where that is not said.</param>
public sealed record ArrangedPhaseDto(string Name, string? Was, int? Days);

/// <summary>The phases of a project in their order.</summary>
public sealed record ArrangePhasesDto(ArrangedPhaseDto[] Phases);

/// <summary>Arranges the phases of one project: added, renamed, put in another order, dropped. Its kind stays as it is.</summary>
public static class ProjectPhases
{
    private const int Most = 30,
        LongestName = 60,
        MostDays = 1_000;

    /// <exception cref="InvalidException">A phase is not as it must be; it is named by its place.</exception>
    public static Task ArrangeAsync(Desk desk, ProjectId project, ArrangePhasesDto arrange) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var before = PhaseRule.Of(file.Case).Select(phase => phase.Name).ToImmutableArray();
            Check(arrange.Phases, before);
            ImmutableArray<ArrangedPhase> phases =
            [
                .. arrange.Phases.Select(phase => new ArrangedPhase(phase.Name.Trim(), phase.Was)),
            ];
            var row = await act.Db.Projects.SingleAsync(p => p.Id == project);
            row.Pinned.Rules = StoreJson.Write(
                file.Case.Kind with
                {
                    Phases = [.. arrange.Phases.Select(phase => new KindPhase(phase.Name.Trim(), phase.Days))],
                }
            );
            await CarryAsync(act, project, before, phases);
            await act.Db.SaveChangesAsync();
            // the rules that the file was read with are not those of the project any more
            await act.RecordAsync(
                await act.OpenAsync(project),
                Actor.Owner,
                new Happening.PhasesArranged(before, phases)
            );
        });

    private static void Check(ArrangedPhaseDto[] phases, ImmutableArray<string> before)
    {
        List<(string, string)> wrong = [];
        if (phases.Length > Most)
            wrong.Add(("phases", $"A project has at most {Most} phases."));
        for (var i = 0; i < phases.Length; i++)
        {
            var (name, at) = (phases[i].Name.Trim(), $"phases[{i}]");
            if (name.Length is 0 or > LongestName)
                wrong.Add(($"{at}.name", $"A phase is named in 1 to {LongestName} characters."));
            else if (phases.Take(i).Any(other => Same(other.Name.Trim(), name)))
                wrong.Add(($"{at}.name", "Another phase has this name."));
            if (phases[i].Days is < 1 or > MostDays)
                wrong.Add(($"{at}.days", $"From 1 to {MostDays} days, or nothing."));
            if (phases[i].Was is { } was && (!before.Contains(was) || phases.Take(i).Any(other => other.Was == was)))
                wrong.Add(($"{at}.name", "The phases have changed meanwhile. Load the page again."));
        }
        if (wrong.Count > 0)
            throw new InvalidException([.. wrong]);
    }

    /// <summary>What stands in a phase goes with its name; a task of one that is dropped stays without.</summary>
    private static async Task CarryAsync(
        Act act,
        ProjectId project,
        ImmutableArray<string> before,
        ImmutableArray<ArrangedPhase> phases
    )
    {
        var now = before.ToDictionary(name => name, name => phases.FirstOrDefault(phase => phase.Was == name)?.Name);
        if (now.All(pair => pair.Key == pair.Value))
            return;
        foreach (var task in await act.Db.Tasks.Where(t => t.ProjectId == project && t.Phase != null).ToListAsync())
            task.Phase = now.TryGetValue(task.Phase!, out var name) ? name : task.Phase;
        foreach (var file in await act.Db.Files.Where(f => f.ProjectId == project && f.Phase != null).ToListAsync())
            file.Phase = now.GetValueOrDefault(file.Phase!) ?? file.Phase;
        foreach (var round in await act.Db.Reviews.Where(r => r.ProjectId == project && r.Phase != null).ToListAsync())
            round.Phase = now.GetValueOrDefault(round.Phase!) ?? round.Phase;
    }

    private static bool Same(string one, string other) => string.Equals(one, other, StringComparison.OrdinalIgnoreCase);
}
