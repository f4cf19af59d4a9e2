using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Stages;

public class BookingTests
{
    private static readonly (string, Happening)[] Agreed =
    [
        ("2027-01-08 09:00", Accepted()),
        ("2027-01-08 09:00", ContractSent),
    ];
    private static readonly (string, Happening)[] Signatures =
    [
        ("2027-01-09 09:00", Signed(Signer.Client)),
        ("2027-01-10 09:00", Signed(Signer.Owner)),
    ];
    private static readonly (string, Happening) Payment = ("2027-01-12 09:00", Paid(1200));

    private static Case With(WinRule rule, params (string, Happening)[] facts) =>
        Case(KindRules.Default with { Win = rule }, [], facts);

    [Theory]
    [
        InlineData(WinRule.Signature, "2027-01-10 09:00"),
        InlineData(WinRule.Payment, "2027-01-12 09:00"),
        InlineData(WinRule.Both, "2027-01-12 09:00")
    ]
    public void A_kind_is_won_by_its_own_rule(WinRule rule, string won) =>
        Assert.Equal(At(won), Booking.WonAt(With(rule, [.. Agreed, .. Signatures, Payment])));

    [Fact]
    public void A_gate_the_rule_does_not_need_stays_open_and_visible()
    {
        var project = With(WinRule.Signature, [.. Agreed, .. Signatures]);
        Assert.NotNull(Booking.WonAt(project));
        Assert.Equal(Stage.Payment, GateRule.StageOf(GateRule.Read(project)));
    }

    [Fact]
    public void One_signature_is_not_enough() =>
        Assert.Null(Booking.WonAt(With(WinRule.Signature, [.. Agreed, Signatures[0]])));

    [Fact]
    public void A_voided_contract_reopens_its_gate()
    {
        var project = With(
            WinRule.Both,
            [.. Agreed, .. Signatures, Payment, ("2027-01-20 09:00", new Happening.ContractVoided(Contract))]
        );
        Assert.Equal(Stage.Contract, GateRule.StageOf(GateRule.Read(project)));
    }

    [Fact]
    public void Not_won_after_all_takes_the_win_back() =>
        Assert.Null(
            Booking.WonAt(
                With(
                    WinRule.Both,
                    [.. Agreed, .. Signatures, Payment, ("2027-01-20 09:00", new Happening.NotWonAfterAll())]
                )
            )
        );

    [Fact]
    public void What_is_won_stays_won()
    {
        (string, Happening)[] won = [.. Agreed, .. Signatures, Payment];
        Happening[] later =
        [
            new Happening.ContractVoided(Contract),
            new Happening.PaymentVoided(new PaymentId(1)),
            Accepted(9000, 4000),
            new Happening.Ended(EndReason.Cancelled),
        ];
        Assert.All(
            later,
            what =>
                Assert.Equal(
                    At("2027-01-12 09:00"),
                    Booking.WonAt(With(WinRule.Both, [.. won, ("2027-02-01 09:00", what)]))
                )
        );
    }

    [Fact]
    public void A_payment_that_made_it_and_is_charged_back_takes_the_win_back_and_another_makes_it_anew()
    {
        (string, Happening)[] gone =
        [
            .. Agreed,
            .. Signatures,
            Payment,
            ("2027-02-01 09:00", new Happening.PaymentChargedBack(new PaymentId(1))),
        ];
        Assert.Null(Booking.WonAt(With(WinRule.Both, gone)));
        Assert.Equal(
            At("2027-02-05 09:00"),
            Booking.WonAt(With(WinRule.Both, [.. gone, ("2027-02-05 09:00", Paid(1200, 2))]))
        );
        // one that came afterwards did not make it
        Assert.NotNull(
            Booking.WonAt(
                With(
                    WinRule.Both,
                    [
                        .. Agreed,
                        .. Signatures,
                        Payment,
                        ("2027-01-20 09:00", Paid(1800, 2)),
                        ("2027-02-01 09:00", new Happening.PaymentChargedBack(new PaymentId(2))),
                    ]
                )
            )
        );
    }

    [Fact]
    public void Not_won_after_all_is_undone_by_nothing_but_a_win_anew()
    {
        (string, Happening)[] taken =
        [
            .. Agreed,
            .. Signatures,
            Payment,
            ("2027-01-20 09:00", new Happening.NotWonAfterAll()),
        ];
        Assert.Null(Booking.WonAt(With(WinRule.Both, [.. taken, ("2027-01-25 09:00", Paid(1800, 2))])));
        Assert.Equal(
            At("2027-02-02 09:00"),
            Booking.WonAt(
                With(
                    WinRule.Both,
                    [
                        .. taken,
                        ("2027-02-01 09:00", Signed(Signer.Client)),
                        ("2027-02-01 10:00", Signed(Signer.Owner)),
                        ("2027-02-02 09:00", Paid(1200, 2)),
                    ]
                )
            )
        );
    }

    [Fact]
    public void Evidence_from_outside_that_is_older_dates_the_win_back()
    {
        var history = With(WinRule.Both, [.. Agreed, .. Signatures, Payment]);
        var earlier = new Fact(
            new FactId(99),
            history.Id,
            At("2027-01-11 12:00"),
            At("2027-01-15 09:00"),
            Actor.Owner,
            Paid(1200, 2)
        );
        Assert.Equal(
            At("2027-01-11 12:00"),
            Booking.WonAt(history with { History = new History(history.History.Facts.Add(earlier)) })
        );
    }

    [Fact]
    public void A_kind_without_a_contract_is_won_by_the_payment_alone() =>
        Assert.Equal(
            At("2027-01-12 09:00"),
            Booking.WonAt(
                Case(
                    KindRules.Default with
                    {
                        Gates = [Gate.Lead, Gate.Proposal, Gate.Payment, Gate.Delivery],
                    },
                    [],
                    [.. Agreed, Payment]
                )
            )
        );

    [Fact] // whatever happened, a gate cannot have closed before the first fact or after the last
    public void Gates_close_at_instants_of_facts()
    {
        Happening[] kinds =
        [
            Inquiry,
            Fit,
            Sent(),
            Accepted(),
            ContractSent,
            Signed(Signer.Client),
            Signed(Signer.Owner),
            Paid(700),
            Paid(2300, 2),
            new Happening.HandedOver(),
            new Happening.Approved(),
            new Happening.GateWaived(Gate.Contract),
            new Happening.PaymentVoided(new PaymentId(1)),
        ];
        Gen.Select(Gen.Int[0, 900], Gen.Int[0, kinds.Length - 1])
            .Array[1, 16]
            .Sample(
                facts =>
                {
                    var start = At("2027-01-04 00:00");
                    var project = Case([
                        .. facts
                            .OrderBy(f => f.Item1)
                            .Select(f =>
                                (
                                    (start + Duration.FromHours(f.Item1))
                                        .InZone(Dublin)
                                        .ToString("uuuu-MM-dd HH:mm", null),
                                    kinds[f.Item2]
                                )
                            ),
                    ]);
                    var instants = project.History.Facts.Select(fact => fact.Happened).ToHashSet();
                    Assert.All(
                        GateRule.Read(project).Where(gate => gate.IsClosed),
                        gate => Assert.Contains(gate.ClosedAt!.Value, instants)
                    );
                    Assert.All(GateRule.Read(project), gate => Assert.Equal(gate.IsClosed, gate.Lacks.IsEmpty));
                },
                iter: 2_000
            );
    }
}
