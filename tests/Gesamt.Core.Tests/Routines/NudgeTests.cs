using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

/// <summary>Letters are true when they leave, and never two of one routine on one day.</summary>
public partial class NudgeTests
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

    [Fact] // how often somebody was nudged stands beside the age
    public void Reminders_are_counted_while_the_turn_they_remind_of_lasts()
    {
        Step[] steps =
        [
            Writes("after-3", Cause.ProposalSent, 3, StepMode.AsksFirst, StopRule.Chosen),
            Writes("after-7", Cause.ProposalSent, 7, StepMode.AsksFirst, StopRule.Chosen),
        ];
        (string, Happening)[] facts =
        [
            ("2027-01-18 09:00", Inquiry),
            ("2027-01-18 10:00", Letter(1)),
            ("2027-01-18 10:00", Fit),
            ("2027-01-19 09:00", Sent()),
            ("2027-01-19 09:00", Began),
            ("2027-01-22 09:00", new Happening.StepDone(Ref("after-3"), new LetterId(7))),
            ("2027-01-26 09:30", new Happening.StepDone(Ref("after-7"), new LetterId(8))),
        ];
        (Side, int) At(string now, params (string, Happening)[] happened)
        {
            var standing = TurnRule.Of(Project(Cause.ProposalSent, steps, happened), World.At(now));
            return (standing.Turn, standing.Nudged);
        }
        Assert.Equal((Side.Clients, 0), At("2027-01-22 08:00", facts[..5]));
        Assert.Equal((Side.Clients, 1), At("2027-01-23 08:00", facts[..6]));
        Assert.Equal((Side.Clients, 2), At("2027-01-27 08:00", facts));
        // their letter makes it the owner's; a new proposal begins a turn that nobody was nudged in
        Assert.Equal((Side.Yours, 0), At("2027-01-28 10:00", [.. facts, ("2027-01-28 09:00", Answer(9))]));
        Assert.Equal((Side.Clients, 0), At("2027-01-30 10:00", [.. facts, ("2027-01-29 09:00", Sent())]));
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
}
