using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

/// <summary>Letters are true when they leave, and never two of one routine on one day.</summary>
public class NudgeTests
{
    private static readonly RunId R = new(1);
    private static readonly Happening Began = new Happening.RunBegan(R);
    private static readonly LocalTime Nine = new(9, 0);

    private static Step Writes(
        string key,
        Cause cause,
        int days,
        StepMode mode = StepMode.AsksFirst,
        params StopRule[] stops
    ) => new(key, new Timing(cause, Span.Days(days), Nine), new StepAction.Letter(key), mode, [.. stops]);

    private static Case Project(Cause begins, Step[] steps, params (string, Happening)[] facts) =>
        Case(KindRules.Default, [new Run(R, new Routine("routine", "Routine", begins, [.. steps]))], facts);

    private static StepRef Ref(string key, int occurrence = 0) => new(R, key, occurrence);

    private static PlannedStep Of(Case project, string key) => Plan.Of(project).First(step => step.Ref.Step == key);

    private static Happening Held(string key, long letter = 7) =>
        new Happening.StepHeld(Ref(key), new LetterId(letter));

    private static Happening Invoice(string due) =>
        new Happening.InvoiceIssued(new InvoiceId(1), Eur(1200), Date(due), 0);

    private static readonly Step Before = Writes("before", Cause.InvoiceDue, -3, StepMode.AsksFirst, StopRule.Paid),
        Late1 = Writes("late-1", Cause.InvoiceDue, 1, StepMode.ByItself, StopRule.Paid),
        Late3 = Writes("late-3", Cause.InvoiceDue, 3, StepMode.ByItself, StopRule.Paid),
        Late14 = Writes("late-14", Cause.InvoiceDue, 14, StepMode.ByItself, StopRule.Paid);

    // due Friday 5 February 2027: one day later is Saturday, three are Monday, and both would go on Monday
    private static readonly (string, Happening)[] DueOnFriday =
    [
        ("2027-01-20 09:00", Invoice("2027-02-05")),
        ("2027-01-20 09:00", Began),
    ];

    [Fact]
    public void Two_reminders_that_a_weekend_pushed_together_are_one_the_newer()
    {
        var project = Project(Cause.InvoiceDue, [Late1, Late3, Late14], DueOnFriday);
        Assert.Equal(
            [
                (StepState.Skipped, "2027-02-08 08:00"),
                (StepState.Planned, "2027-02-08 09:00"),
                (StepState.Planned, "2027-02-19 09:00"),
            ],
            Plan.Of(project)
                .Select(step =>
                    (step.State, World.Calendar.LocalOf(step.Due!.Value).ToString("uuuu-MM-dd HH:mm", null))
                )
        );
        Assert.Equal(["late-3"], DueSteps.Of(project, At("2027-02-08 09:30")).Select(due => due.Step.Ref.Step));
    }

    [Theory] // what the newer one said on Monday the older one does not say again on Tuesday
    [InlineData(true)]
    [InlineData(false)]
    public void What_the_newer_reminder_told_is_not_told_again_by_the_older(bool sent)
    {
        (string, Happening) told = (
            "2027-02-08 09:30",
            sent ? new Happening.StepDone(Ref("late-3"), new LetterId(7)) : new Happening.StepSkipped(Ref("late-3"))
        );
        var project = Project(Cause.InvoiceDue, [Late1, Late3, Late14], [.. DueOnFriday, told]);
        Assert.Equal(
            [StepState.Skipped, sent ? StepState.Done : StepState.Skipped, StepState.Planned],
            Plan.Of(project).Select(step => step.State)
        );
        // what was left out before the older one's time does not silence it
        Assert.Equal(
            StepState.Planned,
            Of(
                Project(
                    Cause.InvoiceDue,
                    [Late1, Late3],
                    [.. DueOnFriday, ("2027-02-01 09:00", new Happening.StepSkipped(Ref("late-3")))]
                ),
                "late-1"
            ).State
        );
    }

    [Fact] // a word to the owner is no letter: it neither silences one nor takes its place
    public void A_letter_does_not_give_way_to_what_only_the_owner_is_told()
    {
        var tell = new Step(
            "tell",
            new Timing(Cause.InvoiceDue, Span.Days(3), Nine),
            new StepAction.TellMe("Ring them."),
            StepMode.ByItself,
            [StopRule.Paid]
        );
        Assert.Equal(
            StepState.Planned,
            Of(Project(Cause.InvoiceDue, [Late1, tell, Late14], DueOnFriday), "late-1").State
        );
        var held = Project(
            Cause.InvoiceDue,
            [Late1, tell, Late14],
            [
                .. DueOnFriday,
                ("2027-02-08 08:00", Held("late-1")),
                ("2027-02-08 09:00", new Happening.StepDone(Ref("tell"), null)),
            ]
        );
        Assert.Equal(StepState.Held, Of(held, "late-1").State);
    }

    [Fact]
    public void Two_letters_that_say_different_things_go_on_different_days()
    {
        Step[] steps = [Writes("welcome", Cause.Booked, 1), Writes("questions", Cause.Booked, 3)];
        var plan = Plan.Of(
            Project(
                Cause.Booked,
                steps,
                ("2027-02-05 09:00", Accepted()),
                ("2027-02-05 09:00", Signed(Signer.Client)),
                ("2027-02-05 09:00", Signed(Signer.Owner)),
                ("2027-02-05 10:00", Paid(1200)),
                ("2027-02-05 10:00", Began)
            )
        );
        Assert.Equal([At("2027-02-08 08:00"), At("2027-02-09 09:00")], plan.Select(step => step.Due!.Value));
    }

    [Fact] // whatever the offsets and days: at most one letter of a run leaves on a day
    public void No_day_has_two_letters_of_one_routine() =>
        Gen.Select(Gen.Int[-20, 40].Array[2, 6], Gen.Int[0, 60], Gen.Bool)
            .Sample(
                (days, due, remind) =>
                {
                    StopRule[] stops = remind ? [StopRule.Paid] : [];
                    var steps = days.Select(
                            (offset, i) => Writes($"s{i}", Cause.InvoiceDue, offset, StepMode.ByItself, stops)
                        )
                        .ToArray();
                    var plan = Plan.Of(
                        Project(
                            Cause.InvoiceDue,
                            steps,
                            (
                                "2027-01-04 09:00",
                                Invoice(Date("2027-01-10").PlusDays(due).ToString("uuuu-MM-dd", null))
                            ),
                            ("2027-01-04 09:00", Began)
                        )
                    );
                    var dates = plan.Where(step => step.State == StepState.Planned)
                        .Select(step => World.Calendar.DateOf(step.Due!.Value))
                        .ToList();
                    Assert.Equal(dates.Count, dates.Distinct().Count());
                    // what remind is left out says is said by a later one on that day, and nothing else is lost
                    Assert.True(
                        remind
                            || plan.Where(step => step.Due >= At("2027-01-04 09:00"))
                                .All(step => step.State == StepState.Planned)
                    );
                },
                iter: 2_000
            );

    [Fact]
    public void What_says_that_something_is_due_waits_no_longer_than_that_day()
    {
        var project = Project(Cause.InvoiceDue, [Before], [.. DueOnFriday, ("2027-02-02 09:00", Held("before"))]);
        Assert.Empty(DueSteps.Stopped(project, At("2027-02-05 23:59")));
        var stopped = Assert.Single(DueSteps.Stopped(project, At("2027-02-06 00:00")));
        Assert.Equal((StopRule.Past, new LetterId(7)), (stopped.Why!.Value, stopped.Letter!.Value));
        Assert.Equal(At("2027-02-06 00:00"), TurnRule.Of(project, At("2027-02-05 12:00")).ValidUntil);
    }

    [Fact]
    public void A_held_reminder_gives_way_to_its_successor_and_another_letter_does_not()
    {
        Step[] steps =
        [
            Writes("first", Cause.ProposalSent, 2, StepMode.AsksFirst, StopRule.Chosen),
            Writes("second", Cause.ProposalSent, 9, StepMode.AsksFirst, StopRule.Chosen),
            Writes("other", Cause.ProposalSent, 12),
        ];
        (string, Happening)[] facts =
        [
            ("2027-01-18 10:30", Sent()),
            ("2027-01-18 10:30", Began),
            ("2027-01-20 09:00", Held("first")),
            ("2027-01-27 09:00", Held("second", 8)),
            ("2027-02-01 09:00", Held("other", 9)),
        ];
        var project = Project(Cause.ProposalSent, steps, facts);
        Assert.Equal(
            [(StepState.Stopped, (StopRule?)StopRule.Replaced), (StepState.Held, null), (StepState.Held, null)],
            Plan.Of(project).Select(step => (step.State, step.Why))
        );
    }

    private static readonly Step Still = Writes(
        "still",
        Cause.InquiryCame,
        9,
        StepMode.AsksFirst,
        StopRule.Answered,
        StopRule.Resting
    );
    private static readonly (string, Happening)[] Asked = [("2027-01-04 09:00", Inquiry), ("2027-01-04 09:00", Began)];

    [Fact] // “I have not heard from you since” is true only after the owner's own word
    public void Nobody_is_reminded_of_an_answer_while_the_owner_owes_the_next_act()
    {
        DueAct? At13(params (string, Happening)[] facts) =>
            DueSteps
                .Of(Project(Cause.InquiryCame, [Still], [.. Asked, .. facts]), At("2027-01-13 09:30"))
                .FirstOrDefault()
                ?.Act;
        Assert.Equal(DueAct.Skip, At13());
        Assert.Equal(
            DueAct.Skip,
            At13(("2027-01-04 09:01", new Happening.LetterSent(new LetterId(3), ByItself: true)))
        );
        Assert.Equal(DueAct.Hold, At13(("2027-01-05 09:00", Letter(3))));
        Assert.Equal(DueAct.Skip, At13(("2027-01-05 09:00", Letter(3)), ("2027-01-06 09:00", Fit)));
        Assert.Null(At13(("2027-01-05 09:00", Letter(3)), ("2027-01-06 09:00", new Happening.CallHeld(new NoteId(1)))));
    }

    [Fact]
    public void A_held_reminder_is_stopped_when_it_becomes_the_owners_to_act()
    {
        var project = Project(
            Cause.InquiryCame,
            [Still],
            [.. Asked, ("2027-01-05 09:00", Letter(3)), ("2027-01-13 09:00", Held("still")), ("2027-01-14 09:00", Fit)]
        );
        Assert.Equal(StopRule.NotTheirs, Assert.Single(DueSteps.Stopped(project, At("2027-01-14 09:00"))).Why);
    }

    private static IEnumerable<Happening> Answers =>
        [
            new Happening.CallHeld(new NoteId(1)),
            new Happening.MeetingBooked(new MeetingId(1), At("2027-02-02 10:00"), At("2027-02-02 11:00")),
            Accepted(),
            Signed(Signer.Client),
            Paid(10),
        ];

    [Fact]
    public void Answered_is_also_a_call_a_time_chosen_a_choice_a_signature_and_a_payment() =>
        Assert.All(
            Answers,
            what =>
                Assert.Equal(
                    StopRule.Answered,
                    Of(
                        Project(
                            Cause.ProposalSent,
                            [Writes("nudge", Cause.ProposalSent, 5, StepMode.AsksFirst, StopRule.Answered)],
                            ("2027-01-18 10:30", Sent()),
                            ("2027-01-18 10:30", Began),
                            ("2027-01-20 10:30", what)
                        ),
                        "nudge"
                    ).Why
                )
        );

    [Fact]
    public void A_reminder_changes_neither_the_age_nor_the_reason_of_what_the_owner_owes()
    {
        (string, Happening)[] facts = [.. Asked, ("2027-01-05 09:00", Letter(3))];
        var before = TurnRule.Of(Project(Cause.InquiryCame, [Still], facts), At("2027-01-13 08:00"));
        var after = TurnRule.Of(
            Project(
                Cause.InquiryCame,
                [Still],
                [
                    .. facts,
                    ("2027-01-13 09:00", Letter(9)),
                    ("2027-01-13 09:00", new Happening.StepDone(Ref("still"), new LetterId(9))),
                ]
            ),
            At("2027-01-13 10:00")
        );
        Assert.Equal((before.Turn, before.Waits, before.Since), (after.Turn, after.Waits, after.Since));
    }

    [Theory] // 20:00 is outside sending hours
    [InlineData(Cause.PaymentReceived), InlineData(Cause.ContractSigned), InlineData(Cause.InquiryCame)]
    public void What_confirms_an_act_of_the_clients_goes_at_once(Cause cause)
    {
        Step receipt = new(
            "receipt",
            new Timing(cause, Span.None),
            new StepAction.Letter("receipt"),
            StepMode.ByItself,
            []
        );
        var project = Project(
            cause,
            [receipt],
            (
                "2027-01-22 20:00",
                cause switch
                {
                    Cause.PaymentReceived => Paid(1200),
                    Cause.ContractSigned => Signed(Signer.Client),
                    _ => Inquiry,
                }
            ),
            ("2027-01-22 20:00", Began)
        );
        Assert.Equal(DueAct.Act, Assert.Single(DueSteps.Of(project, At("2027-01-22 20:00"))).Act);
    }

    [Fact] // a transfer of Tuesday typed in on Friday
    public void A_receipt_goes_also_for_a_payment_that_came_earlier()
    {
        Step receipt = new(
            "receipt",
            new Timing(Cause.PaymentReceived, Span.None),
            new StepAction.Letter("receipt"),
            StepMode.ByItself,
            []
        );
        var project = Project(Cause.InvoiceDue, [receipt], DueOnFriday);
        var paid = new Fact(
            new FactId(99),
            project.Id,
            At("2027-02-02 12:00"),
            At("2027-02-05 16:00"),
            Actor.Owner,
            Paid(1200, 1, 1)
        );
        Assert.Equal(
            DueAct.Act,
            Assert
                .Single(
                    DueSteps.Of(
                        project with
                        {
                            History = new History(project.History.Facts.Add(paid)),
                        },
                        At("2027-02-05 16:00")
                    )
                )
                .Act
        );
    }

    [Fact]
    public void Late_invoices_and_forms_are_asked_about_however_many_letters_follow()
    {
        Step[] steps =
        [
            new("bill", new Timing(Cause.ProposalSent, Span.Days(1)), new StepAction.Invoice(), StepMode.ByItself, []),
            Writes("a", Cause.ProposalSent, 2, StepMode.ByItself),
            Writes("b", Cause.ProposalSent, 3, StepMode.ByItself),
        ];
        var due = DueSteps.Of(
            Project(Cause.ProposalSent, steps, ("2027-01-04 09:00", Sent()), ("2027-01-04 09:00", Began)),
            At("2027-01-20 09:00")
        );
        Assert.Equal(
            [("bill", DueAct.Hold), ("a", DueAct.Skip), ("b", DueAct.Hold)],
            due.Select(step => (step.Step.Ref.Step, step.Act))
        );
    }

    [Fact]
    public void A_step_after_a_repeated_cause_follows_each_time()
    {
        Step[] steps =
        [
            Writes("a", Cause.PaymentReceived, 1, StepMode.ByItself),
            Writes("b", Cause.PreviousStep, 2, StepMode.ByItself),
        ];
        (string, Happening)[] facts =
        [
            ("2027-01-04 09:00", Paid(100)),
            ("2027-01-04 09:00", Began),
            ("2027-01-05 09:00", new Happening.StepDone(Ref("a"), new LetterId(1))),
            ("2027-01-07 09:00", new Happening.StepDone(Ref("b"), new LetterId(3))),
            ("2027-02-01 09:00", Paid(200, 2)),
            ("2027-02-02 09:00", new Happening.StepDone(Ref("a", 1), new LetterId(2))),
        ];
        Assert.Equal(
            [(StepState.Done, At("2027-01-07 09:00")), (StepState.Planned, At("2027-02-04 09:00"))],
            Plan.Of(Project(Cause.PaymentReceived, steps, facts))
                .Where(step => step.Ref.Step == "b")
                .Select(step => (step.State, step.Due!.Value))
        );
    }

    [Fact]
    public void Putting_away_stops_all_that_is_pending_and_taking_out_lets_what_is_ahead_go_on()
    {
        (string, Happening)[] away =
        [
            .. DueOnFriday,
            ("2027-02-02 09:00", Held("before")),
            ("2027-02-03 09:00", new Happening.PutAway()),
        ];
        var project = Project(Cause.InvoiceDue, [Before, Late14], away);
        Assert.All(Plan.Of(project), step => Assert.Equal(StopRule.PutAway, step.Why));
        var again = Project(
            Cause.InvoiceDue,
            [Before, Late14],
            [
                .. away,
                ("2027-02-03 09:00", new Happening.StepStopped(Ref("late-14"), StopRule.PutAway)),
                ("2027-02-04 09:00", new Happening.TakenOut()),
            ]
        );
        Assert.Equal("late-14", Assert.Single(Resuming.Of(again, At("2027-02-04 09:00")).Ahead).Ref.Step);
    }

    [Fact] // “I would like to agree the last details” is not said of what was handed over early
    public void What_prepares_a_handover_stops_with_it_where_it_says_so()
    {
        Step[] steps =
        [
            Writes("last-details", Cause.NamedDate, -10, StepMode.AsksFirst, StopRule.HandedOver),
            Writes("good-luck", Cause.NamedDate, -1),
        ];
        (string, Happening)[] facts =
        [
            ("2027-01-04 09:00", new Happening.DateSet(KindRules.Default.MainDate, Date("2027-04-09"), null)),
            ("2027-01-04 09:00", Began),
            ("2027-03-30 09:00", Held("last-details")),
        ];
        Assert.Equal(
            [StepState.Held, StepState.Planned],
            Plan.Of(Project(Cause.Booked, steps, facts)).Select(step => step.State)
        );
        var over = Project(Cause.Booked, steps, [.. facts, ("2027-03-31 15:00", new Happening.HandedOver())]);
        Assert.Equal(
            [(StepState.Stopped, StopRule.HandedOver), (StepState.Planned, (StopRule?)null)],
            Plan.Of(over).Select(step => (step.State, step.Why))
        );
        Assert.Equal(new LetterId(7), Assert.Single(DueSteps.Stopped(over, At("2027-03-31 15:00"))).Letter);
    }

    [Fact] // a question before the start that was never sent, and a look a month after the handover
    public void Once_it_is_finished_nothing_asks_that_was_begun_before_the_handover_and_what_follows_it_goes_on()
    {
        (string, Happening)[] open =
        [
            ("2027-02-01 09:00", new Happening.InquiryCame(null)),
            ("2027-02-01 09:00", Began),
            .. new[] { Gate.Lead, Gate.Proposal, Gate.Contract, Gate.Payment }.Select(gate =>
                ("2027-02-01 10:00", (Happening)new Happening.GateWaived(gate))
            ),
            ("2027-02-04 09:00", Held("before-start")),
            ("2027-03-01 09:00", new Happening.HandedOver()),
        ];
        Step[] steps = [Writes("before-start", Cause.InquiryCame, 3), Writes("look-again", Cause.HandedOver, 30)];
        Assert.DoesNotContain(
            Plan.Of(Project(Cause.InquiryCame, steps, open)),
            step => step.State == StepState.Stopped
        );
        var finished = Project(
            Cause.InquiryCame,
            steps,
            [.. open, ("2027-03-05 09:00", new Happening.GateWaived(Gate.Delivery))]
        );
        Assert.Equal(Stage.Finished, GateRule.StageOf(GateRule.Read(finished)));
        Assert.Equal(
            (new LetterId(7), StopRule.Finished),
            (
                Assert.Single(DueSteps.Stopped(finished, At("2027-03-05 09:00"))).Letter!.Value,
                Plan.Of(finished)[0].Why!.Value
            )
        );
        Assert.Equal(StepState.Planned, Plan.Of(finished)[1].State);
    }
}
