using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

/// <summary>What is due, and what a taken-back cause does to it.</summary>
public partial class PlanTests
{
    [Fact]
    public void On_time_it_acts_by_itself_or_is_held_as_its_mode_says()
    {
        (string, Happening)[] sent = [("2027-01-18 10:30", Sent()), ("2027-01-18 10:30", Began)];
        Assert.Equal(
            DueAct.Act,
            Assert.Single(DueSteps.Of(Project([Nudge(2, StepMode.ByItself)], sent), At("2027-01-20 10:30"))).Act
        );
        Assert.Equal(DueAct.Hold, Assert.Single(DueSteps.Of(Project([Nudge(2)], sent), At("2027-01-20 10:30"))).Act);
        Assert.Empty(DueSteps.Of(Project([Nudge(2)], sent), At("2027-01-20 10:29")));
    }

    [Fact]
    public void Of_letters_over_a_day_late_only_the_newest_is_held()
    {
        var project = Project(
            [Nudge(1, StepMode.ByItself), Nudge(2, StepMode.ByItself)],
            ("2027-01-18 10:30", Sent()),
            ("2027-01-18 10:30", Began)
        );
        Assert.Equal([DueAct.Skip, DueAct.Hold], DueSteps.Of(project, At("2027-02-01 09:00")).Select(due => due.Act));
    }

    [Theory]
    [InlineData("2027-01-19 10:00", StepState.Stopped), InlineData("2027-01-05 10:00", StepState.Planned)]
    public void A_rest_stops_what_was_under_way_and_nothing_that_begins_after_it(string rested, StepState state) =>
        Assert.Equal(
            state,
            Only(
                Project(
                    [Nudge(2, StepMode.AsksFirst, StopRule.Resting)],
                    ("2027-01-18 10:30", Sent()),
                    ("2027-01-18 10:30", Began),
                    (rested, new Happening.RestBegan(Date("2027-01-12")))
                )
            ).State
        );

    [Fact]
    public void What_stays_in_the_house_acts_also_when_late()
    {
        Step tasks = new(
            "tasks",
            new Timing(Cause.RunBegun, Span.None),
            new StepAction.Tasks("mural"),
            StepMode.ByItself,
            []
        );
        Assert.Equal(
            DueAct.Act,
            Assert.Single(DueSteps.Of(Project([tasks], ("2027-01-18 10:30", Began)), At("2027-02-18 10:30"))).Act
        );
    }

    [Fact]
    public void A_held_step_makes_those_that_hang_on_it_wait_and_a_skipped_one_lets_them_go()
    {
        Step first = new(
            "a",
            new Timing(Cause.RunBegun, Span.Days(1), AnyHour: true),
            new StepAction.Letter("a"),
            StepMode.AsksFirst,
            []
        );
        Step then = new(
            "b",
            new Timing(Cause.PreviousStep, Span.Days(2), AnyHour: true),
            new StepAction.Letter("b"),
            StepMode.AsksFirst,
            []
        );
        var reference = new StepRef(R, "a", 0);
        (string, Happening)[] held =
        [
            ("2027-01-18 10:00", Began),
            ("2027-01-19 10:00", new Happening.StepHeld(reference, new LetterId(1))),
        ];
        Assert.Equal(StepState.Parked, Plan.Of(Project([first, then], held))[1].State);
        Assert.Equal(
            At("2027-01-23 09:00"),
            Plan.Of(Project([first, then], [.. held, ("2027-01-21 09:00", new Happening.StepSkipped(reference))]))[
                1
            ].Due
        );
    }

    [Fact]
    public void A_payment_reminder_stops_when_its_own_invoice_is_paid()
    {
        Step remind = new(
            "remind",
            new Timing(Cause.InvoiceDue, Span.Days(1)),
            new StepAction.Letter("remind"),
            StepMode.ByItself,
            [StopRule.Paid]
        );
        Happening Issued(long id) => new Happening.InvoiceIssued(new InvoiceId(id), Eur(100), Date("2027-01-20"));
        var plan = Plan.Of(
            Project(
                [remind],
                ("2027-01-10 09:00", Began),
                ("2027-01-10 09:00", Issued(1)),
                ("2027-01-10 09:00", Issued(2)),
                ("2027-01-12 09:00", Paid(100, 1, invoice: 2))
            )
        );
        Assert.Equal([StepState.Planned, StepState.Stopped], plan.Select(step => step.State));
    }

    [Fact]
    public void Every_due_step_gets_exactly_one_act_and_acting_ends_it() =>
        Gen.Select(Gen.Int[0, 9].Array[1, 8], Gen.Bool.Array[8], Gen.Int[0, 720])
            .Sample(
                (days, asks, hours) =>
                {
                    var steps = days.Select(
                            (d, i) => Nudge(d, asks[i] ? StepMode.AsksFirst : StepMode.ByItself) with { Key = $"s{i}" }
                        )
                        .ToArray();
                    (string, Happening)[] facts = [("2027-01-04 10:00", Sent()), ("2027-01-04 10:00", Began)];
                    var now = At("2027-01-04 10:00") + Duration.FromHours(hours);
                    var due = DueSteps.Of(Project(steps, facts), now);
                    Assert.Equal(due.Length, due.Select(d => d.Step.Ref).Distinct().Count());
                    var done = due.Select(d =>
                        ("2027-02-20 10:00", (Happening)new Happening.StepDone(d.Step.Ref, null))
                    );
                    Assert.Empty(DueSteps.Of(Project(steps, [.. facts, .. done]), now));
                }
            );

    [Fact]
    public void A_held_step_whose_cause_is_taken_back_is_stopped_with_that_reason_and_keeps_its_letter()
    {
        Assert.Equal(StepState.Held, Only(Project([Welcome], BookedAndHeld)).State);
        var project = Project(
            [Welcome],
            [.. BookedAndHeld, ("2027-01-25 09:00", new Happening.PaymentChargedBack(new PaymentId(1)))]
        );
        var stopped = Assert.Single(DueSteps.Stopped(project, At("2027-01-26 09:00")));
        Assert.Equal(
            (StepState.Stopped, StopRule.CauseGone, new LetterId(7)),
            (stopped.State, stopped.Why!.Value, stopped.Letter!.Value)
        );
    }

    [Fact]
    public void A_step_stopped_for_want_of_its_cause_is_planned_again_when_the_cause_is_there_again()
    {
        (string, Happening)[] lost =
        [
            .. BookedAndHeld,
            ("2027-01-25 09:00", new Happening.PaymentChargedBack(new PaymentId(1))),
            ("2027-01-25 09:00", new Happening.StepStopped(new StepRef(R, "welcome", 0), StopRule.CauseGone)),
        ];
        Assert.Equal(StepState.Stopped, Only(Project([Welcome], lost)).State);
        var again = Only(Project([Welcome], [.. lost, ("2027-02-01 09:00", Paid(1200, 2))]));
        Assert.Equal((StepState.Planned, At("2027-02-02 09:00")), (again.State, again.Due!.Value));
    }

    [Fact]
    public void What_hangs_on_a_step_that_was_planned_again_is_not_held_any_more()
    {
        Step first = new(
            "a",
            new Timing(Cause.RunBegun, Span.Days(6), AnyHour: true),
            new StepAction.Letter("a"),
            StepMode.AsksFirst,
            []
        );
        Step then = new(
            "b",
            new Timing(Cause.PreviousStep, Span.None, AnyHour: true),
            new StepAction.Letter("b"),
            StepMode.AsksFirst,
            []
        );
        var (a, b) = (new StepRef(R, "a", 0), new StepRef(R, "b", 0));
        var plan = Plan.Of(
            Project(
                [first, then],
                ("2027-05-04 09:00", Began),
                ("2027-05-10 09:00", new Happening.StepSkipped(a)),
                ("2027-05-10 09:00", new Happening.StepHeld(b, new LetterId(7))),
                ("2027-05-11 09:00", new Happening.StepReplanned(a))
            )
        );
        Assert.Equal(
            [(StepState.Planned, (StopRule?)null), (StepState.Stopped, StopRule.CauseGone)],
            plan.Select(step => (step.State, step.Why))
        );
    }

    private static readonly Step RunsOut = new(
        "runs-out-soon",
        new Timing(Cause.ProposalRunsOut, Span.Days(-3), new LocalTime(9, 0)),
        new StepAction.Letter("runs-out-soon"),
        StepMode.AsksFirst,
        Stops(StopRule.Chosen, StopRule.Answered)
    );

    [Fact] // valid until Monday, 1 March
    public void Before_a_proposal_runs_out_it_is_told_while_it_can_still_be_chosen()
    {
        (string, Happening)[] sent = [("2027-01-18 10:30", Sent()), ("2027-01-18 10:30", Began)];
        Assert.Equal(At("2027-02-26 09:00"), Only(Project([RunsOut], sent)).Due);
        Assert.Empty(DueSteps.Of(Project([RunsOut], sent), At("2027-02-25 09:00")));
        Assert.Equal(DueAct.Hold, Assert.Single(DueSteps.Of(Project([RunsOut], sent), At("2027-02-26 09:00"))).Act);
        Assert.Equal(StepState.Stopped, Only(Project([RunsOut], [.. sent, ("2027-02-01 10:00", Accepted())])).State);
        Assert.Equal(
            StepState.Stopped,
            Only(Project([RunsOut], [.. sent, ("2027-02-01 10:00", new Happening.ProposalWithdrawn(V1))])).State
        );
    }

    [Theory]
    [InlineData("2 days before proposal runs out at 09:00"), InlineData("1 week before proposal runs out")]
    public void The_last_day_of_a_proposal_has_a_before(string when) =>
        Assert.Contains(
            "proposal runs out",
            RoutineText.Write(
                RoutineText.Read(
                    $"routine: R\nkey: r\nbegins with: proposal sent\n\nstep: s\nwhen: {when}\ndo: letter l\nmode: asks first\n"
                )
            )
        );
}
