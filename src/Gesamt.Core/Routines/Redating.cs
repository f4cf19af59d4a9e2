using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What becomes of something that hangs on a date that moves.</summary>
/// <remarks>Stays: done or issued. Asked: fixed by hand, moves only if wanted. Skipped: was skipped, and is planned again only if wanted. Past: its new time has gone by, so its late-start rule decides.</remarks>
public enum Fate
{
    Moves,
    Stays,
    Asked,
    Skipped,
    Past,
}

/// <summary>One thing that hangs on the date, with its old and new day.</summary>
public abstract record Moved(LocalDate? Old, LocalDate? New, Fate Fate)
{
    public sealed record OfStep(PlannedStep Step, LocalDate? Old, LocalDate? New, Fate Fate) : Moved(Old, New, Fate);

    public sealed record OfTask(OpenTask Task, LocalDate? Old, LocalDate? New, Fate Fate) : Moved(Old, New, Fate);

    public sealed record OfInvoice(PlannedInvoice Invoice, LocalDate? Old, LocalDate? New, Fate Fate)
        : Moved(Old, New, Fate);
}

/// <summary>A date moves, and with it all that has not happened yet: worked out before anything is written, so that old and new dates can be shown first.</summary>
public static class Redating
{
    /// <summary>What hangs on a date and what becomes of it; earliest old day first.</summary>
    /// <param name="name">Another named date; null is the date that matters, from which alone tasks are counted.</param>
    public static ImmutableArray<Moved> Of(Case project, LocalDate to, Instant now, string? name = null)
    {
        var date = name ?? project.Kind.MainDate;
        var after = With(project, date, to, now);
        return
        [
            .. Steps(project, after, date)
                .Concat(date == project.Kind.MainDate ? Tasks(project, to) : [])
                .Concat(Invoices(project, after))
                .OrderBy(moved => moved.Old ?? LocalDate.MaxIsoValue),
        ];
    }

    /// <summary>The facts that move the date: the date itself, tasks at their new days, held letters planned again, and whatever else was asked for.</summary>
    /// <param name="also">Steps and tasks that were fixed by hand or skipped and shall move all the same.</param>
    /// <param name="name">Another named date; null is the date that matters.</param>
    public static ImmutableArray<Happening> Facts(
        Case project,
        LocalDate to,
        Instant now,
        IReadOnlySet<Moved> also,
        string? name = null
    ) =>
        [
            new Happening.DateSet(
                name ?? project.Kind.MainDate,
                to,
                project.DateNamed(name ?? project.Kind.MainDate) is { } old
                && old.TimeOfDay != StudioCalendar.DefaultTime
                    ? old.TimeOfDay
                    : null
            ),
            .. Of(project, to, now, name)
                .Select(moved =>
                    moved switch
                    {
                        Moved.OfTask { Fate: Fate.Moves } task => new Happening.TaskMoved(task.Task.Id, task.New),
                        Moved.OfTask { Fate: Fate.Asked } task when also.Contains(task) => new Happening.TaskMoved(
                            task.Task.Id,
                            task.New
                        ),
                        // a held letter was written for the old date: it is planned again and written anew
                        Moved.OfStep { Fate: Fate.Moves or Fate.Past, Step.State: StepState.Held } step =>
                            new Happening.StepReplanned(step.Step.Ref),
                        Moved.OfStep { Fate: Fate.Asked or Fate.Skipped } step when also.Contains(step) =>
                            new Happening.StepReplanned(step.Step.Ref),
                        _ => (Happening?)null,
                    }
                )
                .OfType<Happening>(),
        ];

    private static Case With(Case project, string date, LocalDate to, Instant now)
    {
        var moved = new Fact(
            new FactId(long.MaxValue),
            project.Id,
            now,
            now,
            Actor.Owner,
            new Happening.DateSet(date, to, null)
        );
        return project with { History = new History(project.History.Facts.Add(moved)) };
    }

    private static IEnumerable<Moved> Steps(Case project, Case after, string date)
    {
        // where a held or skipped step would come to lie if it were planned again
        var free = after with
        {
            History = new History(
                after.History.Facts.Where(fact =>
                    fact.What is not (Happening.StepHeld or Happening.StepSkipped or Happening.StepFixed)
                )
            ),
        };
        var (then, anew) = (
            Plan.Of(after).ToDictionary(step => step.Ref),
            Plan.Of(free).ToDictionary(step => step.Ref)
        );
        foreach (
            var step in Plan.Of(project)
                .Where(step =>
                    step.Step.When is { Cause: Cause.NamedDate, DateName: var name }
                    && (name ?? project.Kind.MainDate) == date
                )
        )
        {
            // a step whose condition fails by now is kept only by what it has done
            var planned = anew.GetValueOrDefault(step.Ref, step);
            var fate = step switch
            {
                { State: StepState.Done or StepState.Stopped } => Fate.Stays,
                { FixedByHand: true } => Fate.Asked,
                { State: StepState.Skipped } => then.GetValueOrDefault(step.Ref, step).State == StepState.Skipped
                    ? Fate.Skipped
                    : Fate.Moves,
                _ => planned.State == StepState.Skipped || planned.LateStart ? Fate.Past : Fate.Moves,
            };
            yield return new Moved.OfStep(
                step,
                Day(project, step.Due),
                fate == Fate.Stays ? Day(project, step.Due) : Day(project, planned.Due),
                fate
            );
        }
    }

    private static IEnumerable<Moved> Tasks(Case project, LocalDate to) =>
        from task in project.OpenTasks
        where task.Offset is not null
        select new Moved.OfTask(
            task,
            task.Due,
            project.Calendar.Add(to, task.Offset!.Value),
            task.Fixed ? Fate.Asked : Fate.Moves
        );

    private static IEnumerable<Moved> Invoices(Case project, Case after)
    {
        var then = Billing.Planned(after).ToDictionary(planned => planned.Index);
        return from planned in Billing.Planned(project)
            let moved = then[planned.Index]
            where planned.Due != moved.Due
            select new Moved.OfInvoice(planned, planned.On, moved.On, Fate.Moves);
    }

    private static LocalDate? Day(Case project, Instant? at) => at is { } known ? project.Calendar.DateOf(known) : null;
}
