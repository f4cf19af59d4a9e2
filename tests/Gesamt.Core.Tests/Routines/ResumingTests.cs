using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

/// <summary>A payment recorded by mistake and taken back a week later must not let the reminders out that were missed meanwhile.</summary>
public sealed class ResumingTests
{
    private static readonly RunId RunId = new(1);

    private static Step Reminder(string key, int days) =>
        new(
            key,
            new Timing(Cause.InvoiceDue, Span.Days(days), new LocalTime(12, 0)),
            new StepAction.Letter("late"),
            StepMode.ByItself,
            Stops(StopRule.Paid)
        );

    private static readonly Routine Routine = new(
        "payment",
        "Payment",
        Cause.InvoiceDue,
        [Reminder("late-1", 1), Reminder("late-3", 3), Reminder("late-14", 14)]
    );

    private static readonly (string, Happening)[] Paid_ =
    [
        ("2027-03-01 09:00", new Happening.InvoiceIssued(new InvoiceId(1), Eur(1000), Date("2027-03-08"))),
        ("2027-03-01 09:00", new Happening.RunBegan(RunId)),
        ("2027-03-08 15:00", Paid(1000, id: 3, invoice: 1)),
        .. new[] { "late-1", "late-3", "late-14" }.Select(step =>
            ("2027-03-08 15:00", (Happening)new Happening.StepStopped(new(RunId, step, 0), StopRule.Paid))
        ),
    ];

    private static Case Project(params (string, Happening)[] more) =>
        Case(KindRules.Default, [new Run(RunId, Routine)], [.. Paid_, .. more]);

    [Fact]
    public void All_reminders_stop_in_the_moment_the_payment_is_recorded() =>
        Assert.All(
            Plan.Of(Project()),
            step => Assert.Equal((StepState.Stopped, StopRule.Paid), (step.State, step.Why!.Value))
        );

    [Fact]
    public void While_the_cause_holds_nothing_resumes() =>
        Assert.Empty(Resuming.Of(Project(), At("2027-03-15 10:00")).Ahead);

    [Fact]
    public void Voided_a_week_later_only_what_is_still_ahead_goes_on_and_the_missed_are_named()
    {
        var resuming = Resuming.Of(
            Project(("2027-03-15 10:00", new Happening.PaymentVoided(new PaymentId(3)))),
            At("2027-03-15 10:00")
        );
        Assert.Equal(["late-14"], resuming.Ahead.Select(step => step.Ref.Step));
        Assert.Equal(["late-1", "late-3"], resuming.Missed.Select(step => step.Ref.Step));
    }

    [Fact]
    public void The_missed_stay_stopped_for_good()
    {
        var after = Project(
            ("2027-03-15 10:00", new Happening.PaymentVoided(new PaymentId(3))),
            ("2027-03-15 10:00", new Happening.StepReplanned(new(RunId, "late-14", 0)))
        );
        Assert.Equal(
            [StepState.Stopped, StepState.Stopped, StepState.Planned],
            Plan.Of(after).Select(step => step.State)
        );
        Assert.Empty(DueSteps.Of(after, At("2027-03-15 10:01")));
        Assert.Equal(["late-14"], DueSteps.Of(after, At("2027-03-22 12:30")).Select(due => due.Step.Ref.Step));
    }

    [Fact] // a letter before the opening that nobody said yes to, and an opening that is then put off
    public void What_expired_with_its_date_is_ahead_again_when_the_date_is_put_off_and_is_not_missed_while_it_is_not()
    {
        var before = new Routine(
            "opening",
            "Before the opening",
            Cause.NamedDate,
            [
                new(
                    "neighbours",
                    new Timing(Cause.NamedDate, Span.Days(-3), new LocalTime(12, 0)),
                    new StepAction.Letter("neighbours"),
                    StepMode.AsksFirst,
                    Stops()
                ),
            ]
        );
        Case Opening(params (string, Happening)[] more) =>
            Case(
                KindRules.Default,
                [new Run(RunId, before)],
                [
                    ("2027-03-01 09:00", new Happening.DateSet(KindRules.Default.MainDate, Date("2027-03-12"), null)),
                    ("2027-03-01 09:00", new Happening.RunBegan(RunId)),
                    ("2027-03-09 12:00", new Happening.StepHeld(new(RunId, "neighbours", 0), new LetterId(7))),
                    ("2027-03-13 00:00", new Happening.StepStopped(new(RunId, "neighbours", 0), StopRule.Past)),
                    .. more,
                ]
            );
        var now = At("2027-03-15 10:00");
        Assert.Empty(Resuming.Of(Opening(), now).Ahead);
        Assert.Empty(Resuming.Of(Opening(), now).Missed);
        Assert.Equal(
            ["neighbours"],
            Resuming
                .Of(
                    Opening(
                        (
                            "2027-03-15 10:00",
                            new Happening.DateSet(KindRules.Default.MainDate, Date("2027-04-02"), null)
                        )
                    ),
                    now
                )
                .Ahead.Select(step => step.Ref.Step)
        );
    }

    private static readonly Routine Chain = new(
        "inquiry",
        "After an inquiry",
        Cause.InquiryCame,
        [
            Asks("still-interested", Cause.InquiryCame, 4),
            Asks("again", Cause.PreviousStep, 7),
            Asks("last", Cause.PreviousStep, 7),
        ]
    );

    private static Step Asks(string key, Cause after, int days) =>
        new(
            key,
            new Timing(after, Span.Days(days), new LocalTime(12, 0)),
            new StepAction.Letter(key),
            StepMode.ByItself,
            Stops(StopRule.Answered)
        );

    /// <summary>An inquiry of 1 March that was answered and ended the same day with all that asks after it, taken up again on a day.</summary>
    private static Case TakenUp(string at, params (string, Happening)[] meanwhile) =>
        Case(
            KindRules.Default,
            [new Run(RunId, Chain)],
            [
                ("2027-03-01 09:00", new Happening.InquiryCame(new AnswersId(1))),
                ("2027-03-01 09:00", new Happening.RunBegan(RunId)),
                ("2027-03-01 09:30", new Happening.LetterSent(new LetterId(1), false)),
                ("2027-03-01 10:00", new Happening.Ended(EndReason.Referred)),
                .. Chain.Steps.Select(step =>
                    ("2027-03-01 10:00", (Happening)new Happening.StepStopped(new(RunId, step.Key, 0), StopRule.Ended))
                ),
                .. meanwhile,
                (at, new Happening.TakenUp()),
            ]
        );

    [Theory] // what asks after the first is not planned again only to be stopped for an end that is no more
    [InlineData("2027-03-02 10:00", "", "still-interested again last", "")]
    [InlineData("2027-03-02 10:00", "a call held meanwhile", "", "")]
    [InlineData("2027-03-09 10:00", "", "", "still-interested")]
    public void A_chain_goes_on_with_its_first_or_not_at_all(string at, string meanwhile, string ahead, string missed)
    {
        var project = TakenUp(
            at,
            meanwhile.Length > 0 ? [("2027-03-01 12:00", new Happening.CallHeld(new NoteId(1)))] : []
        );
        var resuming = Resuming.Of(project, At(at));
        Assert.Equal(ahead, string.Join(" ", resuming.Ahead.Select(step => step.Ref.Step)));
        Assert.Equal(missed, string.Join(" ", resuming.Missed.Select(step => step.Ref.Step)));
    }

    [Fact] // the first of a chain was missed while all of it stood still by the owner's hand
    public void What_hangs_on_a_missed_step_goes_on_when_the_owner_says_so_and_not_when_something_merely_happens()
    {
        var stopped = Case(
            KindRules.Default,
            [new Run(RunId, Chain)],
            [
                ("2027-03-01 09:00", new Happening.InquiryCame(new AnswersId(1))),
                ("2027-03-01 09:00", new Happening.RunBegan(RunId)),
                ("2027-03-01 09:30", new Happening.LetterSent(new LetterId(1), false)),
                .. Chain.Steps.Select(step =>
                    ("2027-03-01 10:00", (Happening)new Happening.StepStopped(new(RunId, step.Key, 0), StopRule.ByHand))
                ),
            ]
        );
        var resuming = Resuming.OfStoppedByHand(stopped, At("2027-03-09 10:00"));
        Assert.Equal(["again", "last"], resuming.Ahead.Select(step => step.Ref.Step));
        Assert.Equal(["still-interested"], resuming.Missed.Select(step => step.Ref.Step));
        Assert.Empty(Resuming.Of(stopped, At("2027-03-09 10:00")).Ahead);
    }

    [Fact] // the first of a chain was to go before an opening that is over
    public void What_hangs_on_a_step_that_is_not_true_any_more_goes_on_too()
    {
        var opening = new Routine(
            "opening",
            "Around the opening",
            Cause.NamedDate,
            [Around("neighbours", Cause.NamedDate, -3), Around("thanks", Cause.PreviousStep, 7)]
        );
        var resuming = Resuming.OfStoppedByHand(
            Case(
                KindRules.Default,
                [new Run(RunId, opening)],
                [
                    ("2027-03-01 09:00", new Happening.DateSet(KindRules.Default.MainDate, Date("2027-03-12"), null)),
                    ("2027-03-01 09:00", new Happening.RunBegan(RunId)),
                    .. opening.Steps.Select(step =>
                        (
                            "2027-03-02 10:00",
                            (Happening)new Happening.StepStopped(new(RunId, step.Key, 0), StopRule.ByHand)
                        )
                    ),
                ]
            ),
            At("2027-03-15 10:00")
        );
        Assert.Equal(["thanks"], resuming.Ahead.Select(step => step.Ref.Step));
        Assert.Empty(resuming.Missed);
        Assert.Equal(["neighbours"], resuming.Skipped.Select(step => step.Ref.Step));

        static Step Around(string key, Cause after, int days) =>
            new(
                key,
                new Timing(after, Span.Days(days), new LocalTime(12, 0)),
                new StepAction.Letter(key),
                StepMode.ByItself,
                Stops()
            );
    }

    [Fact] // whenever it is taken back, nothing acts in that moment
    public void Nothing_is_let_out_at_once_whenever_it_is_voided() =>
        Gen.Int[1, 60 * 24 * 40]
            .Sample(minutes =>
            {
                var now = At("2027-03-08 15:00") + Duration.FromMinutes(minutes);
                var local = now.InZone(Dublin).ToString("uuuu-MM-dd HH:mm", null);
                var voided = Project((local, new Happening.PaymentVoided(new PaymentId(3))));
                var facts = Resuming
                    .Of(voided, now)
                    .Ahead.Select(step => (local, (Happening)new Happening.StepReplanned(step.Ref)));
                return DueSteps
                    .Of(Project([(local, new Happening.PaymentVoided(new PaymentId(3))), .. facts]), now)
                    .IsEmpty;
            });
}
