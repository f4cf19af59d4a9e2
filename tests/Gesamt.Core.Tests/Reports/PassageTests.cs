using Gesamt.Core.Projects;
using Gesamt.Core.Reports;
using Gesamt.Core.Stages;

namespace Gesamt.Core.Tests.Reports;

public sealed class PassageTests
{
    private static (Gate, int?, bool)[] Stays(Case project) =>
        [
            .. Passage
                .Of(project)
                .Stays.Select(stay =>
                    (
                        stay.Gate,
                        stay.Until is { } until
                            ? (int?)Period.DaysBetween(World.Calendar.DateOf(stay.From), World.Calendar.DateOf(until))
                            : null,
                        stay.Left
                    )
                ),
        ];

    [Fact]
    public void Each_gate_is_stood_at_until_it_is_passed()
    {
        var project = World.Case(
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-10 09:00", World.Sent()),
            ("2027-01-26 09:00", World.Accepted()),
            ("2027-01-28 09:00", World.Signed(Signer.Client)),
            ("2027-01-28 10:00", World.Signed(Signer.Owner)),
            ("2027-02-02 09:00", World.Paid(1200))
        );
        Assert.Equal(Stage.Delivery, Passage.Of(project).Furthest);
        Assert.Equal(
            [
                (Gate.Lead, 6, true),
                (Gate.Proposal, 16, true),
                (Gate.Contract, 2, true),
                (Gate.Payment, 5, true),
                (Gate.Delivery, null, false),
            ],
            Stays(project)
        );
    }

    [Fact]
    public void An_end_is_a_leaving_and_what_follows_it_is_no_first_stay()
    {
        var project = World.Case(
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-10 09:00", World.Sent()),
            ("2027-01-30 09:00", new Happening.Ended(EndReason.GoneQuiet)),
            ("2027-03-01 09:00", new Happening.TakenUp()),
            ("2027-03-05 09:00", World.Accepted())
        );
        Assert.Equal([(Gate.Lead, 6, true), (Gate.Proposal, 20, true), (Gate.Contract, null, false)], Stays(project));
    }

    [Fact]
    public void Gates_that_close_together_are_not_stood_at()
    {
        var project = World.Case(
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-09 09:00", World.Accepted(deposit: 0)),
            ("2027-01-12 09:00", World.Signed(Signer.Client)),
            ("2027-01-12 09:00", World.Signed(Signer.Owner))
        );
        Assert.Equal([(Gate.Lead, 5, true), (Gate.Contract, 3, true), (Gate.Delivery, null, false)], Stays(project));
    }

    [Fact]
    public void What_was_passed_stays_passed_when_a_refund_opens_its_gate_again()
    {
        var project = World.Case(
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-09 09:00", World.Accepted()),
            ("2027-01-12 09:00", World.Signed(Signer.Client)),
            ("2027-01-12 09:00", World.Signed(Signer.Owner)),
            ("2027-01-20 09:00", World.Paid(1200)),
            ("2027-02-03 09:00", new Happening.PaymentChargedBack(new PaymentId(1))),
            ("2027-02-20 09:00", World.Paid(1200, id: 2))
        );
        var passage = Passage.Of(project);
        Assert.Equal(Stage.Delivery, passage.Furthest);
        // sent back: from then on it is not known how long it would have stood there
        Assert.Equal((Gate.Delivery, 14, false), Stays(project)[^1]);
    }

    [Fact]
    public void Rests_count_and_a_kind_without_a_gate_is_never_at_it()
    {
        var project = World.Case(
            KindRules.Default with
            {
                Gates = [Gate.Lead, Gate.Proposal, Gate.Payment, Gate.Delivery],
            },
            [],
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-10 09:00", World.Sent()),
            ("2027-01-12 09:00", new Happening.RestBegan(null)),
            ("2027-02-12 09:00", new Happening.RestEnded()),
            ("2027-02-14 09:00", World.Accepted())
        );
        Assert.Equal([(Gate.Lead, 6, true), (Gate.Proposal, 35, true), (Gate.Payment, null, false)], Stays(project));
    }

    [Fact]
    public void Evidence_that_is_dated_back_is_read_where_it_happened()
    {
        var facts = World.Case(("2027-01-04 09:00", World.Inquiry), ("2027-01-20 09:00", World.Sent())).History.Facts;
        var signed = new Fact(
            new FactId(9),
            new ProjectId(1),
            World.At("2027-01-11 09:00"),
            World.At("2027-01-25 09:00"),
            Actor.Owner,
            World.Accepted()
        );
        var project = World.Case() with { History = new([.. facts, signed]) };
        Assert.Equal([(Gate.Lead, 7, true), (Gate.Contract, null, false)], Stays(project));
    }

    [Fact]
    public void The_furthest_gate_equals_a_naive_recount_over_random_histories()
    {
        Happening[] all =
        [
            World.Fit,
            new Happening.FitTakenBack(),
            World.Letter(),
            World.Answer(),
            World.Sent(),
            World.Opened,
            World.Accepted(),
            World.Accepted(deposit: 0),
            World.ContractSent,
            World.Signed(Signer.Client),
            World.Signed(Signer.Owner),
            new Happening.ContractVoided(World.Contract),
            World.Paid(700, 1),
            World.Paid(1200, 2),
            World.Paid(1800, 3),
            new Happening.PaymentVoided(new(1)),
            new Happening.PaymentChargedBack(new(2)),
            new Happening.PaymentRefunded(new(3), new(1), World.Eur(900)),
            new Happening.InvoiceIssued(new(1), World.Eur(1200), World.Date("2027-03-01")),
            new Happening.InvoiceCredited(new(1), new(2), World.Eur(1200)),
            new Happening.TaskMade(new(1), null, Closing: true),
            new Happening.TaskDone(new(1)),
            new Happening.TaskReopened(new(1)),
            new Happening.HandedOver(),
            new Happening.Approved(),
            new Happening.GateWaived(Gate.Contract),
            new Happening.GateWaived(Gate.Payment),
            new Happening.NotWonAfterAll(),
            new Happening.RestBegan(null),
            new Happening.RestEnded(),
            new Happening.Ended(EndReason.Lost),
            new Happening.TakenUp(),
            World.OpeningDay("2027-08-01"),
        ];
        Gen.Select(Any.Of(all), Gen.Int[0, 40])
            .Array[0, 25]
            .Sample(said =>
            {
                var project = World.Case([
                    ("2027-01-01 09:00", World.Inquiry),
                    .. said.OrderBy(one => one.Item2)
                        .Select(one =>
                            (
                                World.Date("2027-01-01").PlusDays(one.Item2).ToString("uuuu-MM-dd", null) + " 12:00",
                                one.Item1
                            )
                        ),
                ]);
                var passage = Passage.Of(project);
                var moments = project.History.Facts.Select(fact => fact.Happened).Distinct().Order().ToList();
                var stages = moments
                    .Select(at =>
                        project with
                        {
                            History = new(project.History.Facts.Where(fact => fact.Happened <= at)),
                        }
                    )
                    .Select(then => (Stage: GateRule.StageOf(GateRule.Read(then)), Ended: then.End is not null))
                    .ToList();
                Assert.Equal(stages.Max(one => one.Stage), passage.Furthest);
                foreach (var stay in passage.Stays)
                {
                    var first = stages.FindIndex(one => one.Stage >= (Stage)stay.Gate);
                    Assert.Equal((Stage)stay.Gate, stages[first].Stage);
                    Assert.Equal(moments[first], stay.From);
                    var after = stages.FindIndex(first, one => one.Ended || one.Stage != (Stage)stay.Gate);
                    Assert.Equal(after < 0 ? null : moments[after], stay.Until);
                    Assert.Equal(
                        after >= 0 && (stages[after].Ended || stages[after].Stage > (Stage)stay.Gate),
                        stay.Left
                    );
                }
            });
    }

    [Fact]
    public void Reminders_are_counted_until_a_price_is_agreed()
    {
        var step = new Step(
            "nudge",
            new Timing(Cause.RunBegun, Span.Days(5)),
            new StepAction.Letter("nudge"),
            StepMode.AsksFirst,
            World.Stops(StopRule.Chosen)
        );
        var run = new Run(new RunId(1), new Routine("proposal", "Proposal", Cause.ProposalSent, [step]));
        Happening Nudge(long letter, int times) =>
            new Happening.StepDone(new(new RunId(1), "nudge", times), new LetterId(letter));
        (string, Happening)[] facts =
        [
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-10 09:00", World.Sent()),
            ("2027-01-15 09:00", Nudge(3, 1)),
            ("2027-01-22 09:00", Nudge(4, 2)),
        ];
        Assert.Null(Passage.ChasesBeforeYes(World.Case(KindRules.Default, [run], facts)));
        Assert.Equal(
            2,
            Passage.ChasesBeforeYes(
                World.Case(
                    KindRules.Default,
                    [run],
                    [.. facts, ("2027-01-26 09:00", World.Accepted()), ("2027-01-30 09:00", Nudge(5, 3))]
                )
            )
        );
    }
}
