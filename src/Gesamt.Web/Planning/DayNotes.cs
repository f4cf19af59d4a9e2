using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Lists;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>What days name without its being work of them: what goes out, what falls due, which dates matter.</summary>
public static class DayNotes
{
    /// <summary>A note with the project it is of.</summary>
    public sealed record Of(ProjectId Project, DayNoteDto Note);

    private const int Most = 500;

    /// <summary>The notes of these days, each project's in the order of their days.</summary>
    public static async Task<IReadOnlyList<Of>> OfAsync(Desk desk, HeldDays held) =>
        [
            .. (await StepsAsync(desk, held))
                .Concat(await DueTasksAsync(desk, held))
                .Concat(await DueInvoicesAsync(desk, held))
                .Concat(await PlannedAsync(desk, held))
                .Concat(await DatesAsync(desk, held))
                .Concat(await OtherDatesAsync(desk, held))
                .OrderBy(one => one.Note.Day)
                .ThenByDescending(one => one.Note.Sort),
        ];

    /// <summary>What leaves the house by itself, or will ask.</summary>
    private static async Task<IEnumerable<Of>> StepsAsync(Desk desk, HeldDays held)
    {
        var (from, until) = (desk.Calendar.StartOf(held.First), desk.Calendar.StartOf(held.End));
        var steps = await Due(desk.Db, from, until);
        if (steps.Count == 0)
            return [];
        var names = await RoutineNames.OfAsync(desk);
        return steps.Select(told => desk.Tell(() => Step(desk, told, names), () => null)).OfType<Of>();
    }

    private static readonly Func<GesamtDb, Instant, Instant, Task<List<ToldStep>>> Due = Prepared.Rows(
        (GesamtDb db, Instant start, Instant until) =>
            ToldStep
                .Of(db)
                .Where(told => told.Row.State == StepState.Planned && told.Row.Due >= start && told.Row.Due < until)
                .OrderBy(told => told.Row.Due)
                .Take(Most)
    );

    private static Of? Step(Desk desk, ToldStep told, RoutineNames names)
    {
        if (told.Step is not { Action: { LeavesTheHouse: true } action } step)
            return null;
        var at = desk.Calendar.LocalOf(told.Row.Due!.Value);
        var asks = action.AlwaysAsks || step.Mode == StepMode.AsksFirst;
        var what = action.LetterKey is { } letter ? $"“{names.Letter(letter)}”" : RoutineWords.What(action, names);
        return new(
            told.Row.ProjectId,
            new(
                at.Date,
                asks ? DayNoteSort.Asks : DayNoteSort.ByItself,
                $"{(asks ? "asks" : "by itself")} {DateWords.Time(at.TimeOfDay)}: {what}"
            )
        );
    }

    /// <summary>Tasks that fall due and are not worked on that day; a client's stand here too.</summary>
    private static async Task<IEnumerable<Of>> DueTasksAsync(Desk desk, HeldDays held) =>
        (
            await desk
                .Db.Tasks.AsNoTracking()
                .Where(t => t.DoneAt == null && t.Due >= held.First && t.Due < held.End && !t.Removed)
                .Where(t => t.WorkOn == null || t.WorkOn != t.Due)
                .OrderBy(t => t.Due)
                .Join(
                    desk.Db.Projects.Where(p => p.Standing.OnTable),
                    t => t.ProjectId,
                    p => p.Id,
                    (t, p) =>
                        new
                        {
                            t.ProjectId,
                            t.Due,
                            t.Title,
                            IsClients = t.PublicId != null,
                            Client = p.Client!.Name,
                        }
                )
                .Take(Most)
                .ToListAsync()
        ).Select(t => new Of(
            t.ProjectId,
            new(t.Due!.Value, DayNoteSort.Due, t.IsClients ? $"due from {t.Client}: {t.Title}" : $"due: {t.Title}")
        ));

    private static async Task<IEnumerable<Of>> DueInvoicesAsync(Desk desk, HeldDays held) =>
        (
            await desk
                .Db.Invoices.AsNoTracking()
                .Where(i => i.OwedMinor > 0 && i.Sort == InvoiceSort.Invoice && i.Year > 0)
                .Where(i => i.Due >= held.First && i.Due < held.End)
                .OrderBy(i => i.Due)
                .Select(i => new
                {
                    i.ProjectId,
                    i.Due,
                    i.Number,
                })
                .Take(Most)
                .ToListAsync()
        ).Select(i => new Of(i.ProjectId, new(i.Due, DayNoteSort.Due, $"due: invoice {i.Number}")));

    /// <summary>Steps of lists that fall on these days.</summary>
    private static async Task<IEnumerable<Of>> PlannedAsync(Desk desk, HeldDays held) =>
        (await PlanSteps.WithinAsync(desk, held.First, held.End.PlusDays(-1))).Select(step => new Of(
            step.Project,
            new(step.On, DayNoteSort.Due, $"due: {step.Words}")
        ));

    /// <summary>Dates besides the one that matters, such as a fitting.</summary>
    private static async Task<IEnumerable<Of>> OtherDatesAsync(Desk desk, HeldDays held) =>
        (
            await desk
                .Db.Projects.AsNoTracking()
                .Where(p => p.Standing.OnTable && p.Standing.Dates != "[]")
                .Select(p => new { p.Id, p.Standing.Dates })
                .ToListAsync()
        ).SelectMany(p =>
            desk.Tell(() => StoreJson.Read<List<NamedDay>>(p.Dates), () => [])
                .Where(named => named.Date >= held.First && named.Date < held.End)
                .Select(named => new Of(p.Id, new(named.Date, DayNoteSort.Date, named.Name)))
        );

    private static async Task<IEnumerable<Of>> DatesAsync(Desk desk, HeldDays held) =>
        (
            await desk
                .Db.Projects.AsNoTracking()
                .Where(p => p.Standing.OnTable)
                .Where(p => p.Standing.MainDate >= held.First && p.Standing.MainDate < held.End)
                .Select(p => new
                {
                    p.Id,
                    p.Pinned.Rules,
                    p.Standing.MainDate,
                })
                .ToListAsync()
        ).Select(p => new Of(p.Id, new(p.MainDate!.Value, DayNoteSort.Date, MainDate(desk, p.Rules))));

    /// <summary>What a project calls the date that matters.</summary>
    public static string MainDate(Desk desk, string rules) =>
        desk.Tell(
            () => StoreJson.ReadOnce<KindRules>(rules).MainDate is { Length: > 0 } name ? name : "the date",
            () => "the date"
        );
}
