using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Store.Projects;

/// <summary>One project taken out to be decided on: its row, tracked, and what the rules need to know of it.</summary>
public sealed class ProjectFile(ProjectRow row, Case @case)
{
    public ProjectRow Row { get; } = row;
    public ProjectId Id => Row.Id;
    public Case Case { get; internal set; } = @case;
    public History History => Case.History;

    /// <inheritdoc cref="ProjectRow.MailContact"/>
    public PersonRow MailContact => Row.MailContact;

    /// <inheritdoc cref="ProjectRow.MailTo"/>
    public string? MailTo => Row.MailTo;
}

/// <summary>Reads what the rules need of projects.</summary>
public static class ProjectFiles
{
    /// <summary>All, with the rows that are read along with a project's own.</summary>
    private static IQueryable<ProjectRow> Whole(GesamtDb db) =>
        db.AllProjects.Include(p => p.Client).Include(p => p.Kind).Include(p => p.People).ThenInclude(p => p.Person);

    private static readonly Func<GesamtDb, ProjectId, Task<ProjectRow?>> One = EF.CompileAsyncQuery(
        (GesamtDb db, ProjectId id) => Whole(db).SingleOrDefault(p => p.Id == id)
    );

    private static readonly Func<GesamtDb, ProjectId, Task<List<FactRow>>> Facts = Prepared.Rows(
        (GesamtDb db, ProjectId id) => db.Facts.AsNoTracking().Where(f => f.ProjectId == id).OrderBy(f => f.Id)
    );

    private static readonly Func<GesamtDb, ProjectId, Task<List<TaskRow>>> OpenTasks = Prepared.Rows(
        (GesamtDb db, ProjectId id) =>
            db.Tasks.AsNoTracking().Where(t => t.ProjectId == id && t.DoneAt == null && !t.Removed)
    );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<ProjectRow>>> Many = Prepared.Rows(
        (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
            Whole(db).AsNoTracking().Where(p => !p.Rehearsal && ids.Contains(p.Id))
    );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<ProjectRow>>> ManyToChange =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                Whole(db).Where(p => !p.Rehearsal && ids.Contains(p.Id))
        );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<FactRow>>> FactsOfMany =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db.Facts.AsNoTracking().Where(f => ids.Contains(f.ProjectId)).OrderBy(f => f.Id)
        );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<TaskRow>>> OpenTasksOfMany =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db.Tasks.AsNoTracking().Where(t => ids.Contains(t.ProjectId) && t.DoneAt == null && !t.Removed)
        );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<RunRow>>> RunsOfMany =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db.Runs.AsNoTracking().Where(r => ids.Contains(r.ProjectId))
        );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<DetailRow>>> DetailsOfMany =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db.Details.AsNoTracking().Where(d => ids.Contains(d.ProjectId))
        );

    /// <summary>One project, tracked; null when there is none.</summary>
    public static async Task<ProjectFile?> OpenAsync(this GesamtDb db, ProjectId id, StudioCalendar calendar)
    {
        var row = await One(db, id);
        return row is null ? null : new(row, await ReadAsync(db, row, calendar));
    }

    /// <summary>The number of the last fact of each of some projects; 0 for none.</summary>
    public static async Task<IReadOnlyDictionary<ProjectId, FactId>> LastFactsAsync(
        this GesamtDb db,
        IReadOnlyCollection<ProjectId> ids
    ) =>
        await db
            .AllProjects.Where(p => ids.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                Last = db
                    .Facts.Where(f => f.ProjectId == p.Id)
                    .OrderByDescending(f => f.Id)
                    .Select(f => (FactId?)f.Id)
                    .FirstOrDefault(),
            })
            .ToDictionaryAsync(p => p.Id, p => p.Last ?? default);

    /// <summary>What the rules need of one project, from its rows as they are now.</summary>
    public static async Task<Case> ReadAsync(GesamtDb db, ProjectRow row, StudioCalendar calendar)
    {
        var facts = await Facts(db, row.Id);
        var tasks = (await OpenTasks(db, row.Id)).Select(ToCore);
        var runs = await db.OfProjectAsync<RunRow>(row.Id);
        var read = CaseOf(row, facts, tasks, runs, calendar);
        return read.Runs.Any(Asks) ? read with { Traits = await TraitsAsync(db, row) } : read;
    }

    /// <summary>What a project's steps may ask for.</summary>
    public static async Task<Traits> TraitsAsync(GesamtDb db, ProjectRow row) =>
        TraitsOf(row, await db.OfProjectAsync<DetailRow>(row.Id));

    private static Traits TraitsOf(ProjectRow row, IEnumerable<DetailRow> details) =>
        new(row.Source, details.ToImmutableDictionary(d => d.Name, d => d.Value, StringComparer.OrdinalIgnoreCase));

    private static bool Asks(Run run) => run.Routine.Steps.Any(step => !step.If.IsEmpty);

    /// <summary>Several projects to look at, in six statements however many there are. One whose rows cannot be read is left out.</summary>
    /// <param name="toChange">Their rows are tracked, to be changed.</param>
    public static async Task<IReadOnlyDictionary<ProjectId, ProjectFile>> OpenManyAsync(
        this GesamtDb db,
        IReadOnlyCollection<ProjectId> ids,
        StudioCalendar calendar,
        bool toChange = false
    )
    {
        if (ids.Count == 0)
            return ImmutableDictionary<ProjectId, ProjectFile>.Empty;
        var rows = await (toChange ? ManyToChange : Many)(db, ids);
        var facts = (await FactsOfMany(db, ids)).ToLookup(f => f.ProjectId);
        var tasks = (await OpenTasksOfMany(db, ids)).ToLookup(t => t.ProjectId);
        var runs = (await RunsOfMany(db, ids)).ToLookup(r => r.ProjectId);
        var files = new Dictionary<ProjectId, ProjectFile>();
        foreach (var row in rows)
            try
            {
                files.Add(
                    row.Id,
                    new(row, CaseOf(row, facts[row.Id], tasks[row.Id].Select(ToCore), runs[row.Id], calendar))
                );
            }
            catch (System.Text.Json.JsonException)
            {
                // whoever lists it says that it cannot be told
            }
        var asking = files.Values.Where(file => file.Case.Runs.Any(Asks)).ToDictionary(file => file.Id);
        var details = (asking.Count == 0 ? [] : await DetailsOfMany(db, asking.Keys)).ToLookup(d => d.ProjectId);
        foreach (var file in asking.Values)
            file.Case = file.Case with { Traits = TraitsOf(file.Row, details[file.Id]) };
        return files;
    }

    private static Case CaseOf(
        ProjectRow row,
        IEnumerable<FactRow> facts,
        IEnumerable<OpenTask> tasks,
        IEnumerable<RunRow> runs,
        StudioCalendar calendar
    ) =>
        new(
            row.Id,
            StoreJson.ReadOnce<KindRules>(row.Pinned.Rules),
            new History(facts.Select(ToCore)),
            [.. tasks],
            [.. runs.Select(run => new Run(run.Id, StoreJson.ReadOnce<Routine>(run.Routine)))],
            calendar
        );

    private static OpenTask ToCore(TaskRow row) =>
        new(
            row.Id,
            row.Title,
            row.Due,
            row is { OffsetCount: { } count, OffsetUnit: { } unit } ? new Span(count, unit) : null,
            row.Fixed,
            row.Closing,
            row.DoneBy,
            row.Phase
        )
        {
            Weight = row is { Importance: null, Effort: null, EstimateMinutes: null }
                ? TaskWeight.None
                : new(row.Importance, row.Effort, row.EstimateMinutes),
            IsClients = row.PublicId is not null,
        };

    public static Fact ToCore(FactRow row) =>
        new(
            row.Id,
            row.ProjectId,
            row.Happened,
            row.Recorded,
            row.By,
            FactJson.Read(row.Kind, row.Version, row.Payload)
        );

    public static ImmutableHashSet<NodaTime.LocalDate> DaysOff(this StudioRow studio) =>
        StoreJson.Read<ImmutableHashSet<NodaTime.LocalDate>>(studio.DaysOff);

    /// <summary>What its proposals begin with.</summary>
    public static OfferHabits Habits(this StudioRow studio) =>
        new(new(studio.OnBookingPartsPerMillion), studio.DueDays, studio.ValidDays);

    public static StudioCalendar Calendar(this StudioRow studio) =>
        new(NodaTime.DateTimeZoneProviders.Tzdb[studio.Zone], studio.DaysOff(), studio.SendFrom, studio.SendUntil);
}
