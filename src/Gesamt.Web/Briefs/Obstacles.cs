using System.Security.Cryptography;
using System.Text;
using Gesamt.Core.Briefs;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Briefs;

/// <summary>What the brief foresaw for a phase comes back as a task on the day that phase begins, once.</summary>
public sealed class Obstacles : IEars
{
    public async Task HearAsync(Act act, ProjectFile file, IReadOnlyCollection<Happening> what)
    {
        var parts = file.Case.Kind.Brief.Where(part => part.Use == BriefUse.Obstacle).Select(part => part.Key).ToList();
        if (parts.Count == 0)
            return;
        var now = file.History.Facts.Where(fact => fact.Recorded == act.Now).Select(fact => fact.Happened).ToHashSet();
        var phases = PhaseRule.Of(file.Case);
        var begun = phases
            .Where(phase => phase is { State: PhaseState.InWork, Since: { } since } && now.Contains(since))
            .Select(phase => phase.Name)
            .ToHashSet();
        if (begun.Count == 0)
            return;
        var texts = await act
            .Db.Briefs.Where(row => row.ProjectId == file.Id && parts.Contains(row.Part))
            .Select(row => row.Text)
            .ToListAsync();
        var told = await act
            .Db.Tasks.Where(task => task.ProjectId == file.Id && task.MadeFrom != null)
            .Select(task => task.MadeFrom)
            .ToHashSetAsync();
        string[] names = [.. phases.Select(phase => phase.Name)];
        foreach (var (phase, words) in texts.SelectMany(text => BriefRule.Obstacles(text, names)))
            if (phase is not null && begun.Contains(phase) && words.Length > 0 && told.Add(KeyOf(phase, words)))
                await AddAsync(act, file, phase, words);
    }

    private static async Task AddAsync(Act act, ProjectFile file, string phase, string words)
    {
        var title = ShortText.Of($"Watch out: {words}", TaskFields.LongestTitle);
        var task = new TaskRow
        {
            ProjectId = file.Id,
            Title = title,
            Description = title.EndsWith(words, StringComparison.Ordinal) ? "" : words,
            Due = act.Today,
            Phase = phase,
            MadeFrom = KeyOf(phase, words),
        };
        act.Db.Tasks.Add(task);
        await act.Db.SaveChangesAsync();
        // without ears: they are being told already
        await act.Ledger.RecordAsync(file, Actor.Gesamt, act.Now, new Happening.TaskMade(task.Id, task.Due));
    }

    private static string KeyOf(string phase, string words) =>
        TaskRow.ObstacleMark
        + Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{phase}\n{words}")))[..32];
}
