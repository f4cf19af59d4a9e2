using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

public class BeginningTests
{
    private static readonly Variant[] Variants = [new("long", 8), new("usual", 6), new("short", 3)];

    private static readonly Routine Orders = new(
        "orders",
        "Orders",
        Cause.Booked,
        [
            new("all", new Timing(Cause.NamedDate, Span.Days(-60)), new StepAction.Tasks("t"), StepMode.ByItself, []),
            new(
                "early",
                new Timing(Cause.NamedDate, Span.Months(-7)),
                new StepAction.Tasks("t"),
                StepMode.ByItself,
                [],
                In: ["long"]
            ),
        ],
        [.. Variants]
    );

    [Theory] // common practice: 8, 6, 3 months before 31 Oct 2027 are 28 Feb, 30 Apr, 31 July
    [
        InlineData("2027-02-28", "long"),
        InlineData("2027-03-01", "usual"),
        InlineData("2027-04-30", "usual"),
        InlineData("2027-05-01", "short"),
        InlineData("2027-07-31", "short")
    ]
    public void The_variant_that_asks_for_most_and_still_has_it_is_chosen(string begins, string variant)
    {
        Assert.Equal(variant, Beginning.Fitting(World.Calendar, [.. Variants], Date(begins), Date("2027-10-31"))?.Name);
        var now = Assert.IsType<Beginning.Now>(
            Beginning.Of(Case(("2027-01-04 09:00", OpeningDay("2027-10-31"))), Orders, At($"{begins} 10:00"))
        );
        Assert.Equal(variant == "long" ? 2 : 1, now.Routine.Steps.Length);
    }

    [Fact]
    public void Below_the_shortest_it_is_offered_and_never_begun_unasked()
    {
        Assert.Null(Beginning.Fitting(World.Calendar, [.. Variants], Date("2027-08-01"), Date("2027-10-31")));
        var offered = Assert.IsType<Beginning.Offered>(
            Beginning.Of(Case(("2027-01-04 09:00", OpeningDay("2027-10-31"))), Orders, At("2027-08-01 10:00"))
        );
        Assert.Equal("Orders, short", offered.Routine.Name);
    }

    [Fact]
    public void Without_the_date_it_waits() =>
        Assert.IsType<Beginning.Waits>(
            Beginning.Of(Case(("2027-01-04 09:00", Inquiry)), Orders, At("2027-08-01 10:00"))
        );

    [Fact]
    public void The_owners_choice_goes_before_what_would_fit() =>
        Assert.Equal(
            "Orders, long",
            Assert
                .IsType<Beginning.Now>(
                    Beginning.Of(
                        Case(
                            ("2027-01-04 09:00", OpeningDay("2027-10-31")),
                            ("2027-01-05 09:00", new Happening.VariantChosen("orders", "short")),
                            ("2027-01-06 09:00", new Happening.VariantChosen("orders", "long"))
                        ),
                        Orders,
                        At("2027-07-01 10:00")
                    )
                )
                .Routine.Name
        );

    [Fact]
    public void The_chosen_variant_always_has_its_time_and_the_next_longer_one_has_not() =>
        Gen.Select(Gen.Int[0, 700], Gen.Int[1, 60].Array[1, 5])
            .Sample(
                (days, months) =>
                {
                    Variant[] variants = [.. months.Distinct().Select(m => new Variant($"v{m}", m))];
                    var (begins, date) = (Date("2027-01-31"), Date("2027-01-31").PlusDays(days));
                    var chosen = Beginning.Fitting(World.Calendar, [.. variants], begins, date);
                    foreach (var variant in variants)
                        Assert.Equal(
                            variant.MonthsAhead <= (chosen?.MonthsAhead ?? -1),
                            World.Calendar.Add(date, Span.Months(-variant.MonthsAhead)) >= begins
                        );
                }
            );
}

public class ConditionTests
{
    private static readonly RunId R = new(1);

    private static Case Project(Step step, Traits traits, params (string, Happening)[] facts) =>
        Case(
            KindRules.Default,
            [new Run(R, new Routine("r", "R", Cause.InquiryCame, [step]))],
            [("2027-01-04 09:00", Inquiry), ("2027-01-04 09:00", new Happening.RunBegan(R)), .. facts]
        ) with
        {
            Traits = traits,
        };

    private static Step Asking(params Condition[] conditions) =>
        new(
            "s",
            new Timing(Cause.InquiryCame, Span.Days(2)),
            new StepAction.Letter("l"),
            StepMode.AsksFirst,
            [],
            If: [.. conditions]
        );

    [Theory]
    [
        InlineData("a fair", "30", 1),
        InlineData("A Fair", "40", 1),
        InlineData("a fair", "50", 0),
        InlineData("the web", "30", 0),
        InlineData(null, "30", 0),
        InlineData("a fair", "10\n40", 1)
    ]
    public void A_step_is_part_of_a_run_only_while_its_conditions_hold(string? source, string size, int steps) =>
        Assert.Equal(
            steps,
            Plan.Of(
                Project(
                    Asking(
                        new Condition.SourceIs(["a fair", "phone"]),
                        new Condition.AnswerIs("wall size", ["30", "40"])
                    ),
                    new(source, Traits.None.Details.Add("wall size", size))
                )
            ).Length
        );

    [Fact]
    public void What_has_acted_stays_told_when_the_answer_changes() =>
        Assert.Equal(
            StepState.Done,
            Assert
                .Single(
                    Plan.Of(
                        Project(
                            Asking(new Condition.SourceIs(["a fair"])),
                            new("the web", Traits.None.Details),
                            ("2027-01-06 09:00", new Happening.StepDone(new(R, "s", 0), null))
                        )
                    )
                )
                .State
        );

    [Fact]
    public void The_step_after_one_that_is_no_part_hangs_on_the_one_before_it()
    {
        Step first =
                new(
                    "a",
                    new Timing(Cause.InquiryCame, Span.Days(1), AnyHour: true),
                    new StepAction.Letter("l"),
                    StepMode.ByItself,
                    []
                ),
            last =
                new(
                    "c",
                    new Timing(Cause.PreviousStep, Span.Days(2), AnyHour: true),
                    new StepAction.Letter("l"),
                    StepMode.ByItself,
                    []
                );
        var project = Case(
            KindRules.Default,
            [
                new Run(
                    R,
                    new Routine("r", "R", Cause.InquiryCame, [first, Asking(new Condition.SourceIs(["nowhere"])), last])
                ),
            ],
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-04 09:00", new Happening.RunBegan(R)),
            ("2027-01-05 09:00", new Happening.StepDone(new(R, "a", 0), null))
        );
        Assert.Equal(
            [("a", StepState.Done), ("c", StepState.Planned)],
            Plan.Of(project).Select(step => (step.Ref.Step, step.State))
        );
        Assert.Equal(At("2027-01-07 09:00"), Plan.Of(project)[1].Due);
    }
}

public class FavourTests
{
    private static readonly RunId R = new(1);
    private static readonly Step Feedback = new(
        "ask",
        new Timing(Cause.Approved, Span.Days(7), new LocalTime(9, 0)),
        new StepAction.Letter("feedback"),
        StepMode.AsksFirst,
        [],
        Favour: true
    );

    private static PlannedStep Only(params (string, Happening)[] facts) =>
        Assert.Single(
            Plan.Of(
                Case(
                    KindRules.Default,
                    [new Run(R, new Routine("after", "After", Cause.Approved, [Feedback]))],
                    [
                        .. facts,
                        ("2027-03-01 10:00", new Happening.Approved()),
                        ("2027-03-01 10:00", new Happening.RunBegan(R)),
                    ]
                )
            )
        );

    private static readonly (string, Happening) Invoice = (
        "2027-02-20 10:00",
        new Happening.InvoiceIssued(new InvoiceId(1), Eur(100), Date("2027-03-20"))
    );

    [Fact]
    public void Nobody_unpaid_is_asked_and_the_step_says_so()
    {
        var step = Only(Invoice);
        Assert.Equal((StepState.Parked, "all that is due is paid", null), (step.State, step.WaitsFor, step.Due));
    }

    [Theory]
    [
        InlineData("2027-02-25 10:00", "2027-03-08 09:00"),
        InlineData("2027-03-25 10:00", "2027-03-25 10:00"),
        InlineData("2027-03-27 10:00", "2027-03-29 08:00")
    ]
    public void Once_paid_it_comes_at_its_day_or_as_soon_as_it_may(string paid, string due) =>
        Assert.Equal(
            (StepState.Planned, At(due)),
            Only(Invoice, (paid, Paid(100, 1, 1))) is var step ? (step.State, step.Due!.Value) : default
        );

    [Fact]
    public void Nobody_in_the_middle_of_a_review_is_asked() =>
        Assert.Equal(
            "the round of review is over",
            Only(("2027-02-25 10:00", new Happening.ReviewOpened(new ReviewId(1), null))).WaitsFor
        );

    [Fact]
    public void Nobody_who_objected_is_asked_before_they_are_answered()
    {
        (string, Happening)[] objected =
        [
            ("2027-02-25 10:00", Sent()),
            ("2027-02-26 10:00", new Happening.ChangeAsked(V1, new NoteId(1))),
        ];
        Assert.Equal("what they objected to is answered", Only(objected).WaitsFor);
        Assert.Equal(StepState.Planned, Only([.. objected, ("2027-02-27 10:00", Letter())]).State);
    }
}
