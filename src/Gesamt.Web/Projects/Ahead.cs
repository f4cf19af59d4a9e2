using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <summary>What lies ahead of a project: steps with their dates, tasks, invoices to come.</summary>
public static class Ahead
{
    private static readonly Func<GesamtDb, ProjectId, Task<List<OutboxRow>>> OnTheWay = Prepared.Rows(
        (GesamtDb db, ProjectId id) =>
            db.Outbox.AsNoTracking().Where(o => o.ProjectId == id && o.State == OutboxState.Claimed)
    );

    /// <summary>What is to come, in the order of its time.</summary>
    public static async Task<IReadOnlyList<AheadDto>> OfAsync(
        Desk desk,
        ProjectFile file,
        LineRows rows,
        IRoutineNames names
    )
    {
        // one that was claimed a moment ago is not among the letters read before it
        var claimed = (await OnTheWay(desk.Db, file.Id)).Where(c => rows.Letters.ContainsKey(c.LetterId)).ToList();
        var onTheWay = claimed.Select(c => rows.Letters[c.LetterId].Step).OfType<string>().ToHashSet();
        var steps = Plan.Of(file.Case)
            .Where(step => step.IsPending && !(step.State != StepState.Held && onTheWay.Contains(step.Ref.Step)))
            .Select(step =>
                (
                    step.Due,
                    desk.Tell(
                        () => Step(desk, file, rows, names, step),
                        () =>
                            new(
                                $"step:{step.Ref.Run.Value}:{step.Ref.Step}:{step.Ref.Occurrence}",
                                "",
                                "",
                                EntrySort.Notes,
                                Untold.Words,
                                Untold.Detail,
                                new("")
                            )
                    )
                )
            );
        var letters = claimed
            .Select(c =>
                (
                    (Instant?)c.NotBefore,
                    Letter(desk, rows.Letters[c.LetterId], c.NotBefore, c.LastError, c.HandOverBegan is not null)
                )
            )
            .Concat(
                rows.Letters.Values.Where(l => l is { State: LetterState.Draft, Problem: not null })
                    .Select(l =>
                        (
                            (Instant?)desk.Now,
                            new AheadDto(
                                $"letter:{l.Id.Value}",
                                "today",
                                "",
                                EntrySort.Letters,
                                $"Letter “{l.Subject}” was refused",
                                l.Problem!,
                                new("write again", Held: true, Opens: new(OpensWhat.Letter, l.Id.Value))
                            )
                        )
                    )
            );
        var tasks = file
            .Case.OpenTasks.Where(task => task.Due is not null)
            .Select(task =>
                (
                    (Instant?)desk.Calendar.StartOf(task.Due!.Value),
                    new AheadDto(
                        $"task:{task.Id.Value}",
                        Day(desk, task.Due.Value),
                        "",
                        EntrySort.Tasks,
                        task.Title,
                        task.IsClients ? $"for {rows.Client} to do" : $"{rows.Tasks[task.Id].Counted}",
                        new("task", TaskId: task.Id.Value)
                    )
                )
            );
        var invoices = Billing
            .Planned(file.Case)
            .Select(p =>
                (
                    p.On is { } on ? (Instant?)desk.Calendar.StartOf(on) : null,
                    new AheadDto(
                        $"invoice:{p.Index}",
                        p.On is { } day ? Day(desk, day) : "date unknown",
                        "",
                        EntrySort.Money,
                        $"Invoice {p.Index + 1} of {p.Of}, {MoneyText.Of(p.Amount)}",
                        p.Due is { } due ? $"due {DateWords.Short(due, desk.Today)}" : "when what it hangs on is known",
                        new(Billing.Waits(file.Case) ? "once the amendment is signed or void" : "by itself")
                    )
                )
            );
        var meetings = Core
            .Meetings.MeetingState.Of(file.History)
            .Where(m => m.IsStanding && m.End > desk.Now)
            .Select(m =>
                (
                    (Instant?)m.Start,
                    new AheadDto(
                        $"meeting:{m.Id.Value}",
                        Day(desk, desk.Calendar.DateOf(m.Start)),
                        DateWords.Time(desk.Calendar.LocalOf(m.Start).TimeOfDay),
                        EntrySort.Meetings,
                        rows.Meetings[m.Id].Name,
                        Meetings.MeetingLetters.PlaceWords(rows.Meetings[m.Id]),
                        new("meeting", Opens: new(OpensWhat.Meeting, m.Id.Value))
                    )
                )
            );
        return
        [
            .. steps
                .Concat(letters)
                .Concat(meetings)
                .Concat(tasks)
                .Concat(invoices)
                .OrderBy(pair => pair.Item1 ?? Instant.MaxValue)
                .Select(pair => pair.Item2),
        ];
    }

    private static AheadDto Step(Desk desk, ProjectFile file, LineRows rows, IRoutineNames names, PlannedStep step)
    {
        var held = step.State == StepState.Held;
        var mark = held
            ? step.Step.Action is StepAction.TellMe
                ? "not seen yet"
                : "waits for your OK"
            : step.Step.Mode == StepMode.AsksFirst || step.Step.Action.AlwaysAsks
                ? "asks first"
                : "by itself";
        var local = step.Due is { } due ? desk.Calendar.LocalOf(due) : (LocalDateTime?)null;
        var run = file.Case.Runs.First(r => r.Id == step.Ref.Run);
        var refused =
            step.Letter is { } written && rows.Letters.GetValueOrDefault(written)?.Problem is { } problem
                ? $"refused: {problem}. "
                : "";
        var detail =
            step.State == StepState.Parked
                ? $"waits{(step.WaitsFor is { } favour ? $" until {favour}" : $": {RoutineWords.When(step.Step.When, names)}")}"
                : $"{refused}{RoutineWords.When(step.Step.When, names)}{RoutineWords.Unless(step.Step)}{(step.FixedByHand ? ", its day set by hand" : "")}";
        return new(
            $"step:{step.Ref.Run.Value}:{step.Ref.Step}:{step.Ref.Occurrence}",
            step.State == StepState.Parked ? "no date yet" : Day(desk, local!.Value.Date),
            local is null || step.State == StepState.Parked ? "" : DateWords.Time(local.Value.TimeOfDay),
            EntrySort.Letters,
            step.Step.Action.AlwaysAsks && step.Step.Action is not StepAction.TellMe
                ? $"{ShortText.Capital(RoutineWords.What(step.Step.Action, names))}?"
                : ShortText.Capital(RoutineWords.What(step.Step.Action, names)),
            $"{detail}; of “{run.Routine.Name}”",
            new(
                mark,
                held,
                Opens: step.Letter is { } letter ? new(OpensWhat.Letter, letter.Value) : null,
                Step: new(step.Ref.Run.Value, step.Ref.Step, step.Ref.Occurrence, local, step.FixedByHand)
            )
        );
    }

    /// <summary>A letter on its way: for a few seconds, until its time, or until the mail server takes it.</summary>
    private static AheadDto Letter(Desk desk, LetterRow letter, Instant goes, string? error, bool leaving)
    {
        var local = desk.Calendar.LocalOf(goes);
        return new(
            $"letter:{letter.Id.Value}",
            Day(desk, local.Date),
            DateWords.Time(local.TimeOfDay),
            EntrySort.Letters,
            $"Letter “{letter.Subject}”",
            error is null
                ? $"to {letter.ToName}"
                : $"could not be handed over, tried again at {DateWords.Time(local.TimeOfDay)}: {error}",
            new(
                letter.GoesAt is null ? "on its way" : "goes later",
                Opens: new(OpensWhat.Letter, letter.Id.Value),
                Goes: leaving ? null : letter.Id.Value
            )
        );
    }

    private static string Day(Desk desk, LocalDate date) =>
        DateWords.DaysBetween(desk.Today, date) switch
        {
            0 => "today",
            1 => "tomorrow",
            _ => DateWords.Short(date, desk.Today),
        };
}
