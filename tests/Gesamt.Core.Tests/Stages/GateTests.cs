using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Stages;

public class GateTests
{
    private static Stage StageOf(Case project) => GateRule.StageOf(GateRule.Read(project));

    private static readonly (string, Happening)[] Booked =
    [
        ("2027-01-04 09:00", Inquiry),
        ("2027-01-05 09:00", Fit),
        ("2027-01-06 09:00", Sent()),
        ("2027-01-08 09:00", Accepted()),
        ("2027-01-08 09:00", ContractSent),
        ("2027-01-08 09:05", Signed(Signer.Client)),
        ("2027-01-08 09:10", Paid(1200)),
        ("2027-01-09 10:00", Signed(Signer.Owner)),
    ];

    [Theory]
    [
        InlineData(1, Stage.Lead),
        InlineData(2, Stage.Proposal),
        InlineData(3, Stage.Proposal),
        InlineData(4, Stage.Contract)
    ]
    [InlineData(6, Stage.Contract), InlineData(7, Stage.Contract), InlineData(8, Stage.Delivery)]
    public void The_stage_follows_from_what_happened(int facts, Stage stage) =>
        Assert.Equal(stage, StageOf(Case(Booked[..facts])));

    [Fact]
    public void A_fit_that_is_taken_back_leaves_the_lead_open_and_can_be_said_again()
    {
        (string, Happening)[] facts =
        [
            ("2027-01-04 09:00", new Happening.InquiryCame(null)),
            ("2027-01-05 09:00", new Happening.MarkedFit()),
            ("2027-01-05 09:01", new Happening.FitTakenBack()),
        ];
        Assert.Equal([Lack.Fit], GateRule.Read(Case(facts))[0].Lacks);
        Assert.Equal(
            At("2027-01-06 10:00"),
            GateRule.Read(Case([.. facts, ("2027-01-06 10:00", new Happening.MarkedFit())]))[0].ClosedAt
        );
    }

    [Fact]
    public void A_gate_closes_when_its_last_condition_came_true() =>
        Assert.Equal(
            [At("2027-01-05 09:00"), At("2027-01-08 09:00"), At("2027-01-09 10:00"), At("2027-01-08 09:10")],
            GateRule.Read(Case(Booked)).Take(4).Select(gate => gate.ClosedAt!.Value)
        );

    [Fact]
    public void Lead_closes_with_a_proposal_sent_though_nobody_said_fit() =>
        Assert.Equal(Stage.Proposal, StageOf(Case(("2027-01-04 09:00", Inquiry), ("2027-01-06 09:00", Sent()))));

    [Fact]
    public void Lead_waits_for_the_details_its_kind_demands()
    {
        var kind = KindRules.Default with { Demands = ["wall size"] };
        var fit = Case(kind, [], ("2027-01-04 09:00", Inquiry), ("2027-01-05 09:00", Fit));
        Assert.Equal([Lack.Details], GateRule.Read(fit)[0].Lacks);
        var known = Case(
            kind,
            [],
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-05 09:00", Fit),
            ("2027-01-06 09:00", new Happening.DetailKnown("wall size"))
        );
        Assert.Equal(At("2027-01-06 09:00"), GateRule.Read(known)[0].ClosedAt);
    }

    [Fact]
    public void Out_of_order_evidence_waits_at_the_first_open_gate_then_passes_all()
    {
        var paidFirst = Case(
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-05 09:00", Fit),
            ("2027-01-06 09:00", Paid(1200))
        );
        Assert.Equal(Stage.Proposal, StageOf(paidFirst));
        var agreed = Case(
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-06 09:00", Paid(1200)),
            ("2027-01-07 09:00", Signed(Signer.Client)),
            ("2027-01-07 09:00", Signed(Signer.Owner)),
            ("2027-01-08 09:00", new Happening.PriceAgreed(V1, Eur(3000), Eur(1200), Eur(3000), []))
        );
        Assert.Equal(Stage.Delivery, StageOf(agreed));
    }

    [Fact]
    public void Nothing_due_on_booking_closes_payment_with_the_gate_before() =>
        Assert.Equal(
            At("2027-01-08 11:00"),
            GateRule
                .Read(
                    Case(
                        ("2027-01-08 09:00", Accepted(3000, 0)),
                        ("2027-01-08 10:00", Signed(Signer.Client)),
                        ("2027-01-08 11:00", Signed(Signer.Owner))
                    )
                )[3]
                .ClosedAt
        );

    [Fact]
    public void Part_payments_add_up_to_what_is_due() =>
        Assert.Equal(
            At("2027-01-12 09:00"),
            GateRule
                .Read(
                    Case(
                        ("2027-01-08 09:00", Accepted()),
                        ("2027-01-10 09:00", Paid(700, 1)),
                        ("2027-01-12 09:00", Paid(500, 2))
                    )
                )[3]
                .ClosedAt
        );

    [Fact] // common practice: won at the later, in either order; a chargeback reopens the gate and takes the win back
    public void Won_at_the_later_of_signature_and_payment_and_lost_by_a_chargeback()
    {
        Assert.Equal(At("2027-01-09 10:00"), Booking.WonAt(Case(Booked)));
        var paidLast = Case([.. Booked[..6], Booked[7], ("2027-01-12 12:00", Paid(1200))]);
        Assert.Equal(At("2027-01-12 12:00"), Booking.WonAt(paidLast));
        var back = Case([.. Booked, ("2027-01-20 12:00", new Happening.PaymentChargedBack(new PaymentId(1)))]);
        Assert.Null(Booking.WonAt(back));
        Assert.Equal(Stage.Payment, StageOf(back));
    }

    [Fact] // common practice: won 12,000, then on into delivery: one record, still won
    public void A_won_project_stays_won_in_delivery()
    {
        var delivered = Case([
            .. Booked,
            ("2027-03-12 12:00", new Happening.HandedOver()),
            ("2027-03-13 12:00", new Happening.Approved()),
            ("2027-03-14 12:00", Paid(1800, 2)),
        ]);
        Assert.Equal(Stage.Finished, StageOf(delivered));
        Assert.Equal(At("2027-01-09 10:00"), Booking.WonAt(delivered));
    }

    [Fact]
    public void A_waived_gate_is_closed_with_the_waiver() =>
        Assert.True(
            GateRule.Read(Case(("2027-01-04 09:00", new Happening.GateWaived(Gate.Contract))))[2]
                is { Waived: true, IsClosed: true }
        );

    [Fact]
    public void A_kind_may_drop_a_gate()
    {
        var kind = KindRules.Default with { Gates = [Gate.Lead, Gate.Proposal, Gate.Delivery] };
        Assert.Equal(
            Stage.Delivery,
            StageOf(Case(kind, [], ("2027-01-04 09:00", Inquiry), ("2027-01-08 09:00", Accepted())))
        );
    }

    private static readonly KindRules WithClosing = KindRules.Default with { ClosingSteps = ["Take photos"] };

    private static (string, Happening)[] Delivered(params (string, Happening)[] more) =>
        [
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-05 09:00", Accepted()),
            ("2027-01-05 10:00", Signed(Signer.Client)),
            ("2027-01-05 11:00", Signed(Signer.Owner)),
            ("2027-01-06 09:00", Paid(3000)),
            ("2027-05-14 09:00", new Happening.HandedOver()),
            ("2027-05-14 09:00", new Happening.TaskMade(new TaskId(1), null, Closing: true)),
            ("2027-05-15 09:00", new Happening.Approved()),
            .. more,
        ];

    [Fact]
    public void Delivery_waits_for_the_closing_steps_and_closes_with_the_last()
    {
        Assert.Equal([Lack.ClosingSteps], GateRule.Read(Case(WithClosing, [], Delivered())).Last().Lacks);
        var done = Case(WithClosing, [], Delivered(("2027-05-18 10:00", new Happening.TaskDone(new TaskId(1)))));
        Assert.Equal((Stage.Finished, At("2027-05-18 10:00")), (StageOf(done), GateRule.Read(done).Last().ClosedAt));
        Assert.Equal(
            Stage.Delivery,
            StageOf(
                Case(
                    WithClosing,
                    [],
                    Delivered(
                        ("2027-05-18 10:00", new Happening.TaskDone(new TaskId(1))),
                        ("2027-05-18 11:00", new Happening.TaskReopened(new TaskId(1)))
                    )
                )
            )
        );
    }

    [Fact]
    public void A_closing_step_that_was_taken_out_is_not_waited_for() =>
        Assert.Equal(
            Stage.Finished,
            StageOf(Case(WithClosing, [], Delivered(("2027-05-18 10:00", new Happening.TaskRemoved(new TaskId(1))))))
        );

    [Fact] // a goodwill credit note: nothing is owed by what was credited
    public void What_was_credited_is_not_owed_for_delivery()
    {
        (string, Happening)[] facts =
        [
            .. Delivered()[..4],
            ("2027-01-06 09:00", Paid(1200)),
            ("2027-05-14 09:00", new Happening.HandedOver()),
            ("2027-05-15 09:00", new Happening.Approved()),
        ];
        Assert.Equal([Lack.Balance], GateRule.Read(Case(facts)).Last().Lacks);
        Assert.Equal(
            Stage.Finished,
            StageOf(
                Case([
                    .. facts,
                    ("2027-05-20 09:00", new Happening.InvoiceCredited(new InvoiceId(2), new InvoiceId(3), Eur(1800))),
                ])
            )
        );
    }

    [Fact]
    public void Delivery_closes_on_the_day_of_the_credit_that_settled_it()
    {
        var project = Case([
            .. Booked,
            ("2027-05-14 10:00", new Happening.HandedOver()),
            ("2027-05-15 10:00", new Happening.Approved()),
            ("2027-05-20 10:00", Paid(1500, 2)),
            (
                "2027-06-01 10:00",
                new Happening.InvoiceCredited(new InvoiceId(1), new InvoiceId(2), Eur(300), AtEnd: false)
            ),
        ]);
        Assert.Equal(
            At("2027-06-01 10:00"),
            GateRule.Read(project).Single(gate => gate.Gate == Gate.Delivery).ClosedAt
        );
    }
}
