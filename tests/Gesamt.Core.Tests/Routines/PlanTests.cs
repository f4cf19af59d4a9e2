using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

public partial class PlanTests
{
    private static readonly RunId R = new(1);
    private static readonly Happening Began = new Happening.RunBegan(R);

    private static Step Nudge(int days, StepMode mode = StepMode.AsksFirst, params StopRule[] stops) =>
        new(
            $"nudge-{days}",
            new Timing(Cause.ProposalSent, Span.Days(days)),
            new StepAction.Letter("nudge"),
            mode,
            [.. stops]
        );

    private static Case Project(Step[] steps, params (string, Happening)[] facts) =>
        Case(
            KindRules.Default,
            [new Run(R, new Routine("proposal", "Proposal", Cause.ProposalSent, [.. steps]))],
            facts
        );

    private static PlannedStep Only(Case project) => Assert.Single(Plan.Of(project));

    [Fact]
    public void A_step_whose_cause_is_unknown_is_parked() =>
        Assert.Equal(
            (StepState.Parked, null),
            Only(Project([Nudge(2)], ("2027-01-04 09:00", Began))) is var step ? (step.State, step.Due) : default
        );

    [Fact]
    public void Two_days_after_the_proposal_at_the_same_time_of_day() =>
        Assert.Equal(
            At("2027-01-20 10:30"),
            Only(Project([Nudge(2)], ("2027-01-18 10:30", Sent()), ("2027-01-18 10:30", Began))).Due
        );

    [Fact]
    public void A_run_is_in_it_while_something_is_to_come_taken_out_when_the_rest_was_stopped_and_else_finished()
    {
        static RunState? Of(params (string, Happening)[] more)
        {
            var project = Project(
                [Nudge(2, StepMode.AsksFirst, StopRule.Opened), Nudge(7, StepMode.AsksFirst, StopRule.Opened)],
                [("2027-01-18 10:30", Sent()), .. more]
            );
            return Plan.StateOf(project, R, Plan.Of(project));
        }
        var first = new StepRef(R, "nudge-2", 0);
        Assert.Null(Of());
        Assert.Equal(RunState.InIt, Of(("2027-01-18 10:30", Began)));
        Assert.Equal(
            RunState.TakenOut,
            Of(
                ("2027-01-18 10:30", Began),
                ("2027-01-20 10:30", new Happening.StepDone(first, null)),
                ("2027-01-21 11:00", Opened)
            )
        );
        Assert.Equal(
            RunState.Finished,
            Of(
                ("2027-01-18 10:30", Began),
                ("2027-01-20 10:30", new Happening.StepDone(first, null)),
                ("2027-01-25 10:30", new Happening.StepSkipped(new StepRef(R, "nudge-7", 0)))
            )
        );
    }

    [Fact]
    public void What_a_step_is_about_has_waited_since_its_cause_and_what_went_quiet_since_the_last_letter()
    {
        var end = new Step(
            "end",
            new Timing(Cause.ProposalSent, Span.Days(30)),
            new StepAction.EndAsQuiet(),
            StepMode.AsksFirst,
            []
        );
        var project = Project(
            [Nudge(2), end],
            ("2027-01-18 10:30", Sent()),
            ("2027-01-18 10:30", Began),
            ("2027-01-27 09:00", Letter())
        );
        Assert.Equal(
            [At("2027-01-18 10:30"), At("2027-01-27 09:00")],
            Plan.Of(project).Select(step => Plan.WaitsSince(project, step)!.Value)
        );
        var parked = Project([Nudge(2)], ("2027-01-18 10:30", Began));
        Assert.Null(Plan.WaitsSince(parked, Only(parked)));
    }

    [Fact]
    public void A_weekend_moves_it_to_monday_morning() =>
        Assert.Equal(
            At("2027-01-25 08:00"),
            Only(Project([Nudge(2)], ("2027-01-21 10:30", Sent()), ("2027-01-21 10:30", Began))).Due
        );

    [Fact]
    public void Opening_stops_a_step_held_for_an_unopened_proposal_and_the_reason_is_kept()
    {
        var held = new Happening.StepHeld(new StepRef(R, "nudge-2", 0), new LetterId(7));
        var project = Project(
            [Nudge(2, StepMode.AsksFirst, StopRule.Opened)],
            ("2027-01-18 10:30", Sent()),
            ("2027-01-18 10:30", Began),
            ("2027-01-20 10:30", held),
            ("2027-01-20 11:00", Opened)
        );
        var stopped = Only(project);
        Assert.Equal(
            (StepState.Stopped, StopRule.Opened, new LetterId(7)),
            (stopped.State, stopped.Why!.Value, stopped.Letter!.Value)
        );
        Assert.Single(DueSteps.Stopped(project, At("2027-01-26 09:00")));
    }

    [Fact] // common practice: an answer withdraws the nudges
    public void An_answer_stops_what_is_still_to_come() =>
        Assert.Equal(
            StopRule.Answered,
            Only(
                Project(
                    [Nudge(2, StepMode.ByItself, StopRule.Answered)],
                    ("2027-01-18 10:30", Sent()),
                    ("2027-01-18 10:30", Began),
                    ("2027-01-19 10:00", Answer())
                )
            ).Why
        );

    [Fact]
    public void What_came_before_the_cause_stops_nothing() =>
        Assert.Equal(
            StepState.Planned,
            Only(
                Project(
                    [Nudge(2, StepMode.ByItself, StopRule.Answered)],
                    ("2027-01-18 10:00", Answer()),
                    ("2027-01-18 10:30", Sent()),
                    ("2027-01-18 10:30", Began)
                )
            ).State
        );

    [Fact]
    public void A_new_version_has_its_own_step_and_ends_the_older_one()
    {
        var second = new Happening.ProposalSent(new VersionId(2), Date("2027-03-01"));
        var plan = Plan.Of(
            Project([Nudge(2)], ("2027-01-18 10:30", Sent()), ("2027-01-18 10:30", Began), ("2027-01-19 10:00", second))
        );
        Assert.Equal(
            [(StepState.Stopped, 0), (StepState.Planned, 1)],
            plan.Select(step => (step.State, step.Ref.Occurrence))
        );
    }

    [Fact] // common practice: planned 10th, done 14th, three days later is the 17th
    public void Days_after_the_previous_step_count_from_when_it_was_done()
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
            new Timing(Cause.PreviousStep, Span.Days(3), AnyHour: true),
            new StepAction.Letter("b"),
            StepMode.AsksFirst,
            []
        );
        var plan = Plan.Of(
            Project(
                [first, then],
                ("2027-05-04 09:00", Began),
                ("2027-05-14 09:00", new Happening.StepDone(new StepRef(R, "a", 0), null))
            )
        );
        Assert.Equal(At("2027-05-17 09:00"), plan[1].Due);
        Assert.Equal(StepState.Parked, Plan.Of(Project([first, then], ("2027-05-04 09:00", Began)))[1].State);
    }

    [Theory] // common practice: days move by days, months by calendar months
    [InlineData("2027-06-18", "2027-10-02", -60, SpanUnit.Days, 106)]
    [InlineData("2027-06-18", "2027-10-02", -4, SpanUnit.Months, 104)]
    public void A_moved_date_moves_what_hangs_on_it(string from, string to, int count, SpanUnit unit, int days)
    {
        Step step = new(
            "order",
            new Timing(Cause.NamedDate, new Span(count, unit)),
            new StepAction.Tasks("order"),
            StepMode.ByItself,
            []
        );
        Instant Due(params string[] dates) =>
            Only(
                Project(
                    [step],
                    [("2027-01-04 09:00", Began), .. dates.Select((d, i) => ($"2027-01-0{5 + i} 09:00", OpeningDay(d)))]
                )
            ).Due!.Value;
        Assert.Equal(
            days,
            DateWords.DaysBetween(World.Calendar.DateOf(Due(from)), World.Calendar.DateOf(Due(from, to)))
        );
    }

    [Theory]
    [InlineData(LateStart.Skip, StepState.Skipped, "2027-01-02 09:00")]
    [InlineData(LateStart.AtOnce, StepState.Planned, "2027-01-25 09:00")]
    public void A_step_already_past_when_the_run_begins_follows_its_late_start_rule(
        LateStart rule,
        StepState state,
        string due
    )
    {
        Step step = new(
            "order",
            new Timing(Cause.NamedDate, Span.Days(-60)),
            new StepAction.Tasks("order"),
            StepMode.ByItself,
            [],
            rule
        );
        var planned = Only(
            Project([step], ("2027-01-25 09:00", OpeningDay("2027-03-03")), ("2027-01-25 09:00", Began))
        );
        Assert.Equal((state, At(due)), (planned.State, planned.Due!.Value));
    }

    [Fact]
    public void An_end_stops_everything_pending() =>
        Assert.Equal(
            StopRule.Ended,
            Only(
                Project(
                    [Nudge(2)],
                    ("2027-01-18 10:30", Sent()),
                    ("2027-01-18 10:30", Began),
                    ("2027-01-19 09:00", new Happening.Ended(EndReason.Lost))
                )
            ).Why
        );

    [Fact]
    public void A_follow_up_of_an_inquiry_ends_when_a_proposal_takes_its_place_and_a_thank_you_does_not()
    {
        Step thanks = new(
            "thanks",
            new Timing(Cause.InquiryCame, Span.None, AnyHour: true),
            new StepAction.Letter("thanks"),
            StepMode.ByItself,
            []
        );
        Step follow = new(
            "follow",
            new Timing(Cause.InquiryCame, Span.Days(9)),
            new StepAction.Letter("follow"),
            StepMode.AsksFirst,
            [StopRule.Answered]
        );
        var plan = Plan.Of(
            Project(
                [thanks, follow],
                ("2027-01-18 10:00", Inquiry),
                ("2027-01-18 10:00", Began),
                ("2027-01-19 10:00", Sent())
            )
        );
        Assert.Equal(
            [(StepState.Planned, null), (StepState.Stopped, StopRule.Replaced)],
            plan.Select(step => (step.State, step.Why))
        );
    }

    [Fact]
    public void A_confirmation_leaves_at_any_hour_and_what_must_be_out_before_a_date_leaves_earlier()
    {
        Step thanks = new(
            "thanks",
            new Timing(Cause.InquiryCame, Span.None, AnyHour: true),
            new StepAction.Letter("thanks"),
            StepMode.ByItself,
            []
        );
        Step before = new(
            "before",
            new Timing(Cause.NamedDate, Span.Days(-3)),
            new StepAction.Letter("before"),
            StepMode.AsksFirst,
            []
        );
        var plan = Plan.Of(
            Project(
                [thanks, before],
                ("2027-01-23 22:30", Inquiry),
                ("2027-01-23 22:30", Began),
                ("2027-01-23 22:30", OpeningDay("2027-03-17"))
            )
        );
        Assert.Equal([At("2027-01-23 22:30"), At("2027-03-12 17:59")], plan.Select(step => step.Due!.Value)); // three days before is a Sunday
    }

    private static readonly Step Welcome = new(
        "welcome",
        new Timing(Cause.Booked, Span.Days(1)),
        new StepAction.Letter("welcome"),
        StepMode.AsksFirst,
        []
    );
    private static readonly Happening WelcomeHeld = new Happening.StepHeld(
        new StepRef(R, "welcome", 0),
        new LetterId(7)
    );
    private static readonly (string, Happening)[] BookedAndHeld =
    [
        ("2027-01-18 10:30", Began),
        ("2027-01-18 10:30", Accepted()),
        ("2027-01-18 10:30", Signed(Signer.Client)),
        ("2027-01-18 11:00", Signed(Signer.Owner)),
        ("2027-01-19 09:00", Paid(1200)),
        ("2027-01-20 09:00", WelcomeHeld),
    ];
}
