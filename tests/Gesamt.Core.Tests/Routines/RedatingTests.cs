using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

public sealed class RedatingTests
{
    private static readonly RunId RunId = new(1);

    private static Step Letter_(string key, Span offset, LateStart late = LateStart.Skip) =>
        new(
            key,
            new Timing(Cause.NamedDate, offset, new LocalTime(9, 0)),
            new StepAction.Letter(key),
            StepMode.AsksFirst,
            [],
            late
        );

    private static readonly Routine Routine = new(
        "dated",
        "Dated",
        Cause.InquiryCame,
        [
            Letter_("questionnaire", Span.Months(-4)),
            Letter_("order", Span.Days(-60)),
            Letter_("last", Span.Days(-3)),
            Letter_("thanks", Span.Days(1)),
        ]
    );

    private static Case Project(string date, params (string, Happening)[] more) =>
        Case(
            KindRules.Default,
            [new Run(RunId, Routine)],
            [
                ("2027-01-04 09:00", Inquiry),
                ("2027-01-04 09:00", OpeningDay(date)),
                ("2027-01-04 09:00", new Happening.RunBegan(RunId)),
                .. more,
            ]
        );

    private static StepRef Ref(string step) => new(RunId, step, 0);

    private static Moved.OfStep Of(IEnumerable<Moved> moved, string step) =>
        moved.OfType<Moved.OfStep>().Single(one => one.Step.Ref.Step == step);

    private static Case After(Case project, LocalDate to, Instant now, params string[] also)
    {
        var moved = Redating.Of(project, to, now);
        var facts = Redating.Facts(
            project,
            to,
            now,
            moved.Where(one => one is Moved.OfStep step && also.Contains(step.Step.Ref.Step)).ToHashSet()
        );
        return project with
        {
            History = new History(
                project.History.Facts.AddRange(
                    facts.Select((what, i) => new Fact(new FactId(1000 + i), project.Id, now, now, Actor.Owner, what))
                )
            ),
        };
    }

    // common practice: from 18 June to 2 October what is counted in days moves by 106, what is counted in months by calendar months
    [Theory]
    [InlineData("questionnaire", "2027-02-18", "2027-06-02")]
    [InlineData("order", "2027-04-19", "2027-08-03")]
    [InlineData("thanks", "2027-06-21", "2027-10-04")] // the Saturday and Sunday in between are no sending days
    public void Unsent_steps_move_with_the_date(string step, string old, string moved)
    {
        var one = Of(Redating.Of(Project("2027-06-18"), Date("2027-10-02"), At("2027-01-20 10:00")), step);
        Assert.Equal((Date(old), Fate.Moves), (one.Old!.Value, one.Fate));
        Assert.InRange(Period.Between(Date(moved), one.New!.Value, PeriodUnits.Days).Days, -3, 0); // earlier by a weekend at most, for what is counted back
    }

    [Fact]
    public void Done_steps_stay()
    {
        var project = Project("2027-06-18", ("2027-02-18 09:00", new Happening.StepDone(Ref("questionnaire"), null)));
        var one = Of(Redating.Of(project, Date("2027-10-02"), At("2027-03-01 10:00")), "questionnaire");
        Assert.Equal((Fate.Stays, one.Old), (one.Fate, one.New));
        Assert.Equal(
            StepState.Done,
            Plan.Of(After(project, Date("2027-10-02"), At("2027-03-01 10:00")))
                .Single(s => s.Ref == Ref("questionnaire"))
                .State
        );
    }

    [Fact]
    public void A_held_letter_is_planned_again()
    {
        var project = Project(
            "2027-06-18",
            ("2027-02-18 09:00", new Happening.StepHeld(Ref("questionnaire"), new LetterId(5)))
        );
        var after = Plan.Of(After(project, Date("2027-10-02"), At("2027-02-20 10:00")))
            .Single(s => s.Ref == Ref("questionnaire"));
        Assert.Equal((StepState.Planned, At("2027-06-02 09:00")), (after.State, after.Due));
    }

    [Fact]
    public void What_was_fixed_by_hand_is_asked_about_and_moves_only_if_wanted()
    {
        var project = Project(
            "2027-06-18",
            ("2027-01-10 09:00", new Happening.StepFixed(Ref("order"), Date("2027-05-05") + new LocalTime(10, 0)))
        );
        Assert.Equal(Fate.Asked, Of(Redating.Of(project, Date("2027-10-01"), At("2027-01-20 10:00")), "order").Fate);
        Assert.Equal(
            At("2027-05-05 10:00"),
            Plan.Of(After(project, Date("2027-10-01"), At("2027-01-20 10:00"))).Single(s => s.Ref == Ref("order")).Due
        );
        Assert.Equal(
            At("2027-08-02 09:00"),
            Plan.Of(After(project, Date("2027-10-01"), At("2027-01-20 10:00"), "order"))
                .Single(s => s.Ref == Ref("order"))
                .Due
        );
    }

    [Fact]
    public void A_skipped_step_stays_skipped_unless_ticked()
    {
        var project = Project("2027-06-18", ("2027-02-18 09:00", new Happening.StepSkipped(Ref("questionnaire"))));
        var now = At("2027-02-20 10:00");
        Assert.Equal(Fate.Skipped, Of(Redating.Of(project, Date("2027-10-02"), now), "questionnaire").Fate);
        Assert.Equal(
            StepState.Skipped,
            Plan.Of(After(project, Date("2027-10-02"), now)).Single(s => s.Ref == Ref("questionnaire")).State
        );
        Assert.Equal(
            StepState.Planned,
            Plan.Of(After(project, Date("2027-10-02"), now, "questionnaire"))
                .Single(s => s.Ref == Ref("questionnaire"))
                .State
        );
    }

    [Fact] // moved earlier, its new time has gone by: by its late-start rule it is left out, not sent at once
    public void A_step_that_falls_into_the_past_follows_its_late_start_rule()
    {
        var (project, now) = (Project("2027-10-02"), At("2027-05-20 10:00"));
        Assert.Equal(Fate.Past, Of(Redating.Of(project, Date("2027-06-18"), now), "order").Fate);
        var after = After(project, Date("2027-06-18"), now);
        Assert.Equal(StepState.Skipped, Plan.Of(after).Single(s => s.Ref == Ref("order")).State);
        Assert.DoesNotContain(DueSteps.Of(after, now), due => due.Step.Ref == Ref("order"));
    }

    [Fact]
    public void Counted_tasks_move_and_those_set_by_hand_are_asked_about()
    {
        var project = Project("2027-05-14")
            .With(
                new OpenTask(new TaskId(1), "Order scaffold", Date("2027-04-16"), Span.Days(-28)),
                new OpenTask(new TaskId(2), "Order paint", Date("2027-05-03"), Span.Days(-14), Fixed: true),
                new OpenTask(new TaskId(3), "Ring the council", Date("2027-03-01"))
            );
        var tasks = Redating.Of(project, Date("2027-05-28"), At("2027-02-01 10:00")).OfType<Moved.OfTask>().ToList();
        Assert.Equal(
            [(1L, Date("2027-04-30"), Fate.Moves), (2L, Date("2027-05-14"), Fate.Asked)],
            tasks.Select(t => (t.Task.Id.Value, t.New!.Value, t.Fate))
        );
    }

    [Fact] // whatever the dates: moving there and back again leaves every planned step where it was
    public void There_and_back_again_changes_nothing() =>
        Gen.Select(Gen.Int[60, 600], Gen.Int[60, 600])
            .Sample(
                (first, second) =>
                {
                    var (from, to) = (
                        Date("2027-01-20").PlusDays(first + 120),
                        Date("2027-01-20").PlusDays(second + 120)
                    );
                    if (from == to)
                        return true;
                    var project = Project(NodaTime.Text.LocalDatePattern.Iso.Format(from));
                    var back = After(After(project, to, At("2027-01-20 10:00")), from, At("2027-01-20 11:00"));
                    return Plan.Of(back)
                        .Select(s => (s.Ref, s.Due, s.State))
                        .SequenceEqual(Plan.Of(project).Select(s => (s.Ref, s.Due, s.State)));
                }
            );

    [Fact]
    public void Another_date_moves_what_hangs_on_it_alone()
    {
        var hanging = Letter_("hang", Span.Days(-7)) with
        {
            When = new Timing(Cause.NamedDate, Span.Days(-7), new LocalTime(9, 0), "hanging"),
        };
        var project = Case(
                KindRules.Default,
                [new Run(RunId, Routine with { Steps = [.. Routine.Steps, hanging] })],
                ("2027-01-04 09:00", Inquiry),
                ("2027-01-04 09:00", OpeningDay("2027-06-18")),
                ("2027-01-04 09:00", new Happening.RunBegan(RunId))
            )
            .With(new OpenTask(new(1), "Order paint", Date("2027-06-04"), Span.Days(-14)));
        var now = At("2027-01-25 10:30");
        // not known yet: it waits, and setting the date plans it
        var set = Redating.Of(project, Date("2027-06-10"), now, "hanging");
        var step = Assert.IsType<Moved.OfStep>(Assert.Single(set));
        Assert.Equal((null, Date("2027-06-03"), Fate.Moves), (step.Old, step.New!.Value, step.Fate));
        var known = project with
        {
            History = new History(
                project.History.Facts.Add(
                    new Fact(
                        new FactId(99),
                        project.Id,
                        now,
                        now,
                        Actor.Owner,
                        Redating.Facts(project, Date("2027-06-10"), now, new HashSet<Moved>(), "hanging").Single()
                    )
                )
            ),
        };
        var moved = Assert.IsType<Moved.OfStep>(Assert.Single(Redating.Of(known, Date("2027-06-14"), now, "hanging")));
        Assert.Equal((Date("2027-06-03"), Date("2027-06-07")), (moved.Old!.Value, moved.New!.Value));
        // and the date that matters leaves it where it is
        Assert.DoesNotContain(
            Redating.Of(known, Date("2027-10-02"), now),
            one => one is Moved.OfStep { Step.Ref.Step: "hang" }
        );
    }
}
