using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Formats.Files;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Projects;

/// <summary>Phases, files, rounds of review and the client page, as the record shows them.</summary>
public static class RecordWork
{
    /// <summary>The phases with how far each has come.</summary>
    public static IReadOnlyList<PhaseRowDto> Phases(Desk desk, ProjectFile file, IEnumerable<TaskRow> tasks)
    {
        var last = tasks
            .Where(task => task is { Phase: not null, Due: not null, Removed: false })
            .GroupBy(task => task.Phase!)
            .ToDictionary(group => group.Key, group => group.Max(task => task.Due!.Value));
        return
        [
            .. PhaseRule
                .Of(file.Case)
                .Select(
                    (phase, at) =>
                        new PhaseRowDto(
                            phase.Name,
                            phase.State,
                            PhaseDates(desk, phase, last),
                            file.Case.Kind.Phases.ElementAtOrDefault(at)?.Days
                        )
                ),
        ];
    }

    /// <summary>“since Mon 25 Jan”, or by when its tasks are planned.</summary>
    public static string PhaseDates(Desk desk, Phase phase, IReadOnlyDictionary<string, NodaTime.LocalDate> last)
    {
        var planned = last.TryGetValue(phase.Name, out var by) ? $"by {DateWords.Short(by, desk.Today)}" : "";
        var since = phase.Since is { } at ? DateWords.Short(desk.Calendar.DateOf(at), desk.Today) : "";
        return phase.State switch
        {
            PhaseState.Done => since,
            PhaseState.Ahead => planned,
            _ when planned.Length > 0 => $"since {since}, {planned}",
            _ => $"since {since}",
        };
    }

    /// <summary>The files of the project.</summary>
    public static IReadOnlyList<KeptFileDto> Files(Desk desk, ProjectFile file, IEnumerable<FileRow> files)
    {
        var shown = Sight.Shown(file.History);
        return
        [
            .. files
                .Where(row => !row.Removed)
                .OrderBy(row => row.Id.Value)
                .Select(row => new KeptFileDto(
                    row.Id.Value,
                    row.Name,
                    row.Group,
                    row.Phase,
                    About(desk, row),
                    row.Use,
                    shown.Contains(row.Id),
                    FileTypes.LookOf(row.Type)
                )),
        ];
    }

    /// <summary>“Before a draft: 5 of 6 answered”, each list as it was answered last; empty for none.</summary>
    public static string Checklists(ProjectFile file, IReadOnlyDictionary<int, string> forms) =>
        string.Join(
            "; ",
            file.History.Of<Happening.ChecklistAnswered>()
                .GroupBy(answered => answered.What.Form)
                .Where(same => forms.ContainsKey(same.Key))
                .Select(same => same.Last().What)
                .Select(last => $"{forms[last.Form]}: {last.Answered} of {last.Questions} answered")
        );

    /// <summary>Rounds used and included.</summary>
    public static RoundsDto Rounds(ProjectFile file) =>
        ReviewRule.Open(file.History) is { } open
            ? new(
                ReviewRule.NextRound(file.History),
                file.Case.Kind.Rounds,
                open.Id.Value,
                $"{ReviewRule.Title(null, open.Round!.Value, file.Case.Kind.Rounds)} is with the client"
            )
            : new(ReviewRule.NextRound(file.History), file.Case.Kind.Rounds, null, null);

    /// <summary>What the client’s page shows, and what it could.</summary>
    public static IReadOnlyList<PagePartDto> Parts(Desk desk, ProjectFile file) =>
        [
            .. Enum.GetValues<PagePart>()
                .Select(part => new PagePartDto(
                    part,
                    Sight.OpenSince(file.History, part) is { } since
                        ? DateWords.Short(desk.Calendar.DateOf(since), desk.Today)
                        : null
                )),
        ];

    /// <summary>Whether the client’s own link was ended.</summary>
    public static Task<bool> LinkEndedAsync(Desk desk, ProjectFile file) =>
        LinkEnded(desk.Db, file.Id, file.Row.ClientId);

    private static readonly Func<GesamtDb, ProjectId, PersonId, Task<bool>> LinkEnded = EF.CompileAsyncQuery(
        (GesamtDb db, ProjectId project, PersonId client) =>
            db.Links.Any(link => link.ProjectId == project && link.PersonId == client && link.EndedAt != null)
    );

    /// <summary>“draft 2, sketch, 1.4 MB, Mon 25 Jan”.</summary>
    public static string About(Desk desk, FileRow row)
    {
        string[] parts =
        [
            row.Group == FileGroup.Drafts ? $"draft {row.Version}"
            : row is { Group: FileGroup.Supplied, By: Actor.Client } ? "from the client"
            : "",
            row.Phase ?? "",
            Size(row.Size),
            DateWords.Short(desk.Calendar.DateOf(row.At), desk.Today),
        ];
        return string.Join(", ", parts.Where(part => part.Length > 0));
    }

    private static string Size(long bytes) =>
        bytes switch
        {
            < 1024 => $"{bytes} bytes",
            < 1024 * 1024 => $"{bytes / 1024} kB",
            _ => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{bytes / (1024m * 1024m):0.0} MB"),
        };
}
