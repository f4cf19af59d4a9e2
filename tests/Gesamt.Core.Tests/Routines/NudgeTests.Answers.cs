using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

/// <summary>Reminders of an answer, confirmations, and what an end stops.</summary>
public partial class NudgeTests
{
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
