using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What a client does of their own accord.</summary>
public enum ClientAct
{
    Opens,
    Answers,
    Chooses,
    Signs,
    Pays,
    ReturnsForm,
}

/// <summary>How a client behaves in a rehearsal: days from its beginning (for a form, from when it is asked) until they act; null is never.</summary>
public sealed record ClientWays(
    int? Opens = null,
    int? Answers = null,
    int? Chooses = null,
    int? Signs = null,
    int? Pays = null,
    int? ReturnsForm = null
);

/// <summary>What became of a step in a rehearsal. Held ones are taken as if the owner said yes at once.</summary>
public enum RehearsedAct
{
    Acts,
    AsksFirst,
    Skipped,
    Stopped,
    Waits,
    Client,
}

/// <summary>One thing that happens in a rehearsal.</summary>
/// <param name="At">Null for a step that waits for what does not come.</param>
public sealed record Rehearsed(
    Instant? At,
    RehearsedAct Act,
    Step? Step = null,
    StopRule? Why = null,
    ClientAct? Client = null,
    string? WaitsFor = null
);

/// <summary>Plays a routine through as if it began on a project now: every step with its date, up to the end. Decides by the same rules as the real run, and records nothing.</summary>
public sealed class Rehearsal
{
    private static readonly RunId Run = new(long.MaxValue);

    /// <summary>Nothing goes on longer than this; a routine that would is cut there.</summary>
    private const int LongestYears = 10;

    private readonly List<Rehearsed> told = [];
    private readonly PriorityQueue<ClientAct, Instant> acts = new();
    private readonly ClientWays ways;
    private Case project;
    private Instant now;
    private long number;

    private Rehearsal(Case project, ClientWays ways, Instant from) =>
        (this.project, this.ways, now) = (project, ways, from);

    /// <summary>What would happen, in its order; what waits for ever stands last.</summary>
    /// <param name="project">Only its dates and answers count: what has happened in it already is left out.</param>
    public static ImmutableArray<Rehearsed> Play(Case project, Routine routine, ClientWays ways, Instant from)
    {
        var (pinned, cause) = Stage(project, routine, from);
        var dates = project
            .History.Facts.Where(fact => fact.What is Happening.DateSet)
            .Select(fact => fact with { Recorded = from, Happened = from });
        var rehearsal = new Rehearsal(
            project with
            {
                History = new History(dates),
                OpenTasks = [],
                Runs = [new Run(Run, pinned)],
            },
            ways,
            from
        )
        {
            number = long.MaxValue / 2,
        };
        rehearsal.Record([.. cause, new Happening.RunBegan(Run)]);
        rehearsal.Expect();
        rehearsal.PlayOn();
        return [.. rehearsal.told];
    }

    /// <summary>The steps as they would be pinned, and the fact they begin with. What cannot be made up stands for the routine's own beginning.</summary>
    private static (Routine, Happening[]) Stage(Case project, Routine routine, Instant from)
    {
        var today = project.Calendar.DateOf(from);
        var pinned = Beginning.Of(project, routine, from) switch
        {
            Beginning.Now begins => begins.Routine,
            Beginning.Offered offered => offered.Routine,
            _ => routine.Of(routine.Variants.MaxBy(variant => variant.MonthsAhead)!),
        };
        Happening[] cause = routine.Begins switch
        {
            // reminders of an inquiry are for one that was answered
            Cause.InquiryCame =>
            [
                new Happening.InquiryCame(null),
                new Happening.LetterSent(new LetterId(long.MaxValue), false),
            ],
            Cause.ProposalSent or Cause.ProposalRunsOut =>
            [
                new Happening.ProposalSent(new VersionId(long.MaxValue), today.PlusDays(30)),
            ],
            Cause.ContractSent => [new Happening.ContractSent(new VersionId(long.MaxValue))],
            Cause.InvoiceDue =>
            [
                new Happening.InvoiceIssued(
                    new InvoiceId(long.MaxValue),
                    new Money(100, Currency.Eur),
                    today.PlusDays(14)
                ),
            ],
            Cause.HandedOver => [new Happening.HandedOver()],
            Cause.Ended => [new Happening.Ended(EndReason.Lost)],
            _ => [],
        };
        if (cause.Length > 0 || routine.Begins == Cause.NamedDate)
            return (pinned, cause);
        return (
            pinned with
            {
                Steps =
                [
                    .. pinned.Steps.Select(step =>
                        step.When.Cause == routine.Begins
                            ? step with
                            {
                                When = step.When with { Cause = Cause.RunBegun },
                            }
                            : step
                    ),
                ],
            },
            []
        );
    }

    private void PlayOn()
    {
        var last = project.Calendar.Add(now, new Span(LongestYears, SpanUnit.Years));
        while (true)
        {
            while (acts.TryPeek(out var act, out var at) && at <= now)
            {
                acts.Dequeue();
                Act(act);
            }
            Stopped();
            foreach (var due in DueSteps.Of(project, now))
                Act(due);
            Stopped();
            var next = Plan.Of(project)
                .Where(step => step.State == StepState.Planned)
                .Select(step => step.Due)
                .Append(acts.TryPeek(out _, out var soonest) ? soonest : null)
                .Where(at => at > now)
                .Min();
            if (next is not { } then || then > last || project.End is not null && !FollowsEnd())
                break;
            now = then;
        }
        // what the client would still do is told only while the routine waits for it
        foreach (var step in Plan.Of(project).Where(step => step.State == StepState.Parked))
            told.Add(new(null, RehearsedAct.Waits, step.Step, WaitsFor: step.WaitsFor));
    }

    private bool FollowsEnd() => project.Runs.Any(run => StopRules.FollowsEnd(project, run.Id));

    private void Stopped()
    {
        foreach (var step in DueSteps.Stopped(project, now).ToList())
        {
            told.Add(new(now, RehearsedAct.Stopped, step.Step, step.Why));
            Record(new Happening.StepStopped(step.Ref, step.Why!.Value));
        }
    }

    private void Act(DueStep due)
    {
        var (step, reference) = (due.Step.Step, due.Step.Ref);
        if (due.Act == DueAct.Skip)
        {
            told.Add(new(now, RehearsedAct.Skipped, step));
            Record(new Happening.StepSkipped(reference));
            return;
        }
        told.Add(new(now, due.Act == DueAct.Hold ? RehearsedAct.AsksFirst : RehearsedAct.Acts, step));
        Record(
            step.Action switch
            {
                StepAction.EndAsQuiet =>
                [
                    new Happening.StepDone(reference, null),
                    new Happening.Ended(EndReason.GoneQuiet),
                ],
                StepAction.Form => [new Happening.StepDone(reference, null), new Happening.FormAsked(0)],
                _ => [new Happening.StepDone(reference, null)],
            }
        );
        if (step.Action is StepAction.Form && ways.ReturnsForm is { } days)
            acts.Enqueue(ClientAct.ReturnsForm, project.Calendar.Add(now, Span.Days(days)));
    }

    private void Act(ClientAct act)
    {
        told.Add(new(now, RehearsedAct.Client, Client: act));
        var (version, euro) = (new VersionId(long.MaxValue), new Money(100, Currency.Eur));
        Record(
            act switch
            {
                ClientAct.Opens => new Happening.ProposalOpened(version),
                ClientAct.Answers => new Happening.LetterReceived(new LetterId(long.MaxValue), false),
                ClientAct.Chooses => new Happening.ProposalAccepted(version, euro, euro, euro, []),
                ClientAct.Signs => new Happening.ContractSigned(version, Signer.Client),
                ClientAct.Pays => new Happening.PaymentReceived(
                    new PaymentId(long.MaxValue),
                    new InvoiceId(long.MaxValue),
                    euro
                ),
                ClientAct.ReturnsForm => new Happening.FormReturned(0, new AnswersId(long.MaxValue)),
                _ => throw new ArgumentOutOfRangeException(nameof(act), act, "No such act."),
            }
        );
    }

    private void Expect()
    {
        foreach (
            var (days, act) in new[]
            {
                (ways.Opens, ClientAct.Opens),
                (ways.Answers, ClientAct.Answers),
                (ways.Chooses, ClientAct.Chooses),
                (ways.Signs, ClientAct.Signs),
                (ways.Pays, ClientAct.Pays),
            }
        )
            if (days is { } after)
                acts.Enqueue(act, project.Calendar.Add(now, Span.Days(after)));
    }

    private void Record(params Happening[] what) =>
        project = project with
        {
            History = new History(
                project.History.Facts.AddRange(
                    what.Select(one => new Fact(new FactId(++number), project.Id, now, now, Actor.Gesamt, one))
                )
            ),
        };
}
