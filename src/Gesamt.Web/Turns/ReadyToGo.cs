using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Turns;

/// <summary>What is about to leave the house: what waits for an OK, what goes by itself, what may or may not have gone.</summary>
public static class ReadyToGo
{
    private const int MostReady = 50,
        MostByItself = 20,
        MostDue = 200;

    /// <summary>A held letter, and of the step it came by what tells why it is due.</summary>
    private sealed record Held(
        LetterRow Letter,
        string Title,
        string Rules,
        string? Routine,
        bool HasStep,
        Instant? WaitsSince
    );

    private static readonly Func<GesamtDb, Task<List<Held>>> HeldLetters = Prepared.Rows(
        (GesamtDb db) =>
            (
                from letter in db.Letters.AsNoTracking()
                where letter.State == LetterState.Held
                join project in db.Projects on letter.ProjectId equals (ProjectId?)project.Id
                join planned in db.PlannedSteps
                    on new
                    {
                        letter.RunId,
                        letter.Step,
                        letter.Occurrence,
                    } equals new
                    {
                        RunId = (RunId?)planned.RunId,
                        Step = (string?)planned.Step,
                        Occurrence = (int?)planned.Occurrence,
                    }
                    into steps
                from step in steps.DefaultIfEmpty()
                join begun in db.Runs on letter.RunId equals (RunId?)begun.Id into runs
                from run in runs.DefaultIfEmpty()
                orderby letter.At
                select new Held(letter, project.Title, project.Pinned.Rules, run!.Routine, step != null, step!.Since)
            ).Take(MostReady)
    );

    /// <summary>Letters that wait for an OK, the longest waiting first.</summary>
    public static async Task<IReadOnlyList<ReadyDto>> LettersAsync(Desk desk, RoutineNames names)
    {
        var held = await HeldLetters(desk.Db);
        return
        [
            .. held.Select(one =>
                desk.Tell(() => Ready(desk, one, names), () => Ready(desk, one, "", Untold.Words, "", null, false))
            ),
        ];
    }

    private static ReadyDto Ready(Desk desk, Held held, RoutineNames names) =>
        Ready(
            desk,
            held,
            held.Title,
            ShortText.Of(LetterEndpoints.Shown(held.Letter.Body)),
            held.HasStep ? Why(desk, held, names) : "",
            held.Letter.Template is { } key ? new(key, names.Letter(key)) : null,
            held.HasStep
        );

    private static ReadyDto Ready(
        Desk desk,
        Held held,
        string title,
        string preview,
        string why,
        SameSortDto? sort,
        bool canWait
    ) =>
        new(
            held.Letter.Id.Value,
            new(held.Letter.ProjectId!.Value.Value, title, held.Letter.ToName),
            $"since {TodayView.Since(desk, held.Letter.At)}",
            new(
                held.Letter.Subject,
                preview,
                held.Letter.Gaps.Length > 0 ? held.Letter.Gaps : null,
                held.Letter.Problem
            ),
            why,
            null,
            sort,
            canWait
        );

    /// <summary>“not opened for 5 days”, else when it was to go by the routine.</summary>
    private static string Why(Desk desk, Held held, RoutineNames names)
    {
        var step = ToldStep.Of(held.Routine!, held.Letter.Step!);
        var age = held.WaitsSince is { } since ? $" for {Age.Of(since, desk.Now, desk.Calendar.Zone).Long}" : "";
        if (step.Stops.Contains(StopRule.Opened))
            return $"not opened{age}";
        if (step.Stops.Contains(StopRule.Answered))
            return $"no answer{age}";
        if (step.Stops.Contains(StopRule.Chosen))
            return $"not chosen{age}";
        return RoutineWords.Why(step.When, names.For(StoreJson.ReadOnce<KindRules>(held.Rules).MainDate));
    }

    /// <summary>What leaves without asking before the day is over.</summary>
    public static async Task<IReadOnlyList<ByItselfDto>> ByItselfAsync(Desk desk, RoutineNames names)
    {
        var end = desk.Calendar.StartOf(desk.Today.PlusDays(1));
        var due = await Due(desk.Db, end);
        var ids = due.Select(told => told.Row.ProjectId).Distinct().ToList();
        var to = ids.Count == 0 ? [] : (await WithPeople(desk.Db, ids)).ToDictionary(p => p.Id);
        return
        [
            .. due.Select(told =>
                    desk.Tell(
                        () => ByItself(desk, told, to[told.Row.ProjectId], names),
                        () => new ByItselfDto(told.Row.ProjectId.Value, Time(desk, told.Row.Due), Untold.Words, "")
                    )
                )
                .OfType<ByItselfDto>()
                .Take(MostByItself),
        ];
    }

    private static readonly Func<GesamtDb, Instant, Task<List<ToldStep>>> Due = Prepared.Rows(
        (GesamtDb db, Instant end) =>
            ToldStep
                .Of(db)
                .Where(told => told.Row.State == StepState.Planned && told.Row.Due < end)
                .OrderBy(told => told.Row.Due)
                .Take(MostDue)
    );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<ProjectRow>>> WithPeople =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db
                    .Projects.AsNoTracking()
                    .Include(p => p.Client)
                    .Include(p => p.People)
                        .ThenInclude(p => p.Person)
                    .Where(p => ids.Contains(p.Id))
        );

    private static ByItselfDto? ByItself(Desk desk, ToldStep told, ProjectRow project, RoutineNames names) =>
        told.Step is { Mode: StepMode.ByItself, Action: { LeavesTheHouse: true, AlwaysAsks: false } action }
            ? new(
                project.Id.Value,
                Time(desk, told.Row.Due),
                action.LetterKey is { } letter
                    ? names.Letter(letter)
                    : ShortText.Capital(RoutineWords.What(action, names)),
                project.MailTo is null
                    ? $"{told.Title}: waits for a mail address"
                    : $"to {project.MailContact.Name}, {told.Title}"
            )
            : null;

    private static string Time(Desk desk, Instant? at) =>
        at is { } known ? DateWords.Time(desk.Calendar.LocalOf(known).TimeOfDay) : "";

    private sealed record Outgoing(
        ProjectId ProjectId,
        OutboxState State,
        string? LastError,
        string Subject,
        string Title
    );

    private static readonly Func<GesamtDb, Task<List<Outgoing>>> Uncertain = Prepared.Rows(
        (GesamtDb db) =>
            (
                from outgoing in db.Outbox.AsNoTracking()
                where
                    outgoing.State == OutboxState.Uncertain
                    || outgoing.State == OutboxState.Claimed && outgoing.Failures > 0
                join letter in db.Letters on outgoing.LetterId equals letter.Id
                join project in db.Projects on outgoing.ProjectId equals project.Id
                orderby outgoing.Id
                select new Outgoing(
                    outgoing.ProjectId,
                    outgoing.State,
                    outgoing.LastError,
                    letter.Subject,
                    project.Title
                )
            ).Take(20)
    );

    /// <summary>Letters of which nobody knows whether they went out, or that could not be handed over yet.</summary>
    public static async Task<IReadOnlyList<UncertainDto>> UncertainAsync(Desk desk)
    {
        var rows = await Uncertain(desk.Db);
        return
        [
            .. rows.Select(r => new UncertainDto(
                r.ProjectId.Value,
                r.State == OutboxState.Uncertain
                    ? $"“{r.Subject}” may have gone out"
                    : $"“{r.Subject}” could not be handed over yet: {r.LastError}",
                r.Title
            )),
        ];
    }
}
