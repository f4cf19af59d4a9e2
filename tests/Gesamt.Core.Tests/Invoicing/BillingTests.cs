using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Invoicing;

public sealed class BillingTests
{
    private static Happening Issued(long id, decimal amount, string due, int part) =>
        new Happening.InvoiceIssued(new InvoiceId(id), Eur(amount), Date(due), part);

    private static readonly (string, Happening)[] Signed_ =
    [
        ("2027-01-04 09:00", Inquiry),
        ("2027-01-04 09:00", OpeningDay("2027-05-14")),
        ("2027-01-05 09:00", Accepted()),
        ("2027-01-05 10:00", Signed(Signer.Client)),
    ];

    [Fact] // common practice: 3,000 with a deposit of 1,200 leaves 1,800 to bill
    public void The_deposit_splits_the_price_and_the_rest_is_still_to_bill()
    {
        var planned = Billing.Planned(Case([.. Signed_, ("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0))]));
        Assert.Equal([Eur(1800)], planned.Select(p => p.Amount));
        Assert.Equal((Date("2027-04-30"), Date("2027-05-14")), (planned[0].On, planned[0].Due));
    }

    [Fact]
    public void Nothing_goes_out_by_itself_before_the_client_has_signed()
    {
        Assert.Null(Billing.NextAt(Case([.. Signed_[..3]])));
        Assert.Equal(At("2027-01-05 09:00"), Billing.NextAt(Case(Signed_)));
    }

    [Fact]
    public void An_invoice_of_a_weekend_goes_out_in_the_next_sending_hours() // 1 May 2027 is a Saturday
    {
        var facts = Signed_[..1]
            .Append(("2027-01-04 09:00", OpeningDay("2027-05-15")))
            .Concat(Signed_[2..])
            .Append(("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0)));
        Assert.Equal(At("2027-05-03 08:00"), Billing.NextAt(Case([.. facts])));
    }

    [Fact]
    public void A_moved_date_moves_what_is_not_issued_and_an_issued_one_stays_away()
    {
        var moved = Case([
            .. Signed_,
            ("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0)),
            ("2027-02-01 09:00", OpeningDay("2027-05-28")),
        ]);
        Assert.Equal(
            (Date("2027-05-14"), Date("2027-05-28")),
            Billing.Planned(moved).Select(p => (p.On!.Value, p.Due!.Value)).Single()
        );
        Assert.Empty(
            Billing.Planned(
                Case([
                    .. Signed_,
                    ("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0)),
                    ("2027-04-30 09:00", Issued(2, 1800, "2027-05-14", 1)),
                ])
            )
        );
    }

    [Fact] // 500.00 of 1,200.00 was paid before the end: what was credited is owed again, not more and not less
    public void What_was_credited_at_an_end_is_billed_again_when_it_is_taken_up()
    {
        (string, Happening)[] ended =
        [
            .. Signed_,
            ("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0)),
            ("2027-01-10 09:00", Paid(500, 1, 1)),
            ("2027-02-01 09:00", new Happening.InvoiceCredited(new InvoiceId(1), new InvoiceId(2), Eur(700))),
            ("2027-02-01 09:00", new Happening.Ended(EndReason.Cancelled)),
        ];
        Assert.Empty(Billing.Planned(Case(ended)));
        var again = Case([.. ended, ("2027-03-01 09:00", new Happening.TakenUp())]);
        Assert.Equal(
            [(Eur(700), new InvoiceId(2)), (Eur(1800), null)],
            Billing.Planned(again).Select(p => (p.Amount, p.Again))
        );
        Assert.Equal(Eur(0), Owed.Credited(again.History, Currency.Eur));
        Assert.Equal(
            [Eur(1800)],
            Billing
                .Planned(
                    Case([
                        .. ended,
                        ("2027-03-01 09:00", new Happening.TakenUp()),
                        ("2027-03-02 09:00", Issued(3, 700, "2027-03-09", 0)),
                    ])
                )
                .Select(p => p.Amount)
        );
    }

    [Fact]
    public void Without_its_date_an_instalment_waits_for_it() =>
        Assert.Equal(
            [(null, null)],
            Billing
                .Planned(
                    Case([
                        ("2027-01-04 09:00", Inquiry),
                        .. Signed_[2..],
                        ("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0)),
                    ])
                )
                .Select(p => (p.On, p.Due))
        );

    [Fact]
    public void What_is_due_on_handover_is_invoiced_with_it()
    {
        Happening agreed = new Happening.PriceAgreed(
            V1,
            Eur(500),
            Eur(0),
            Eur(500),
            [new(Eur(500), new DueRule.OnHandover(14))]
        );
        var kind = KindRules.Default with { Gates = [Gate.Lead, Gate.Proposal, Gate.Delivery] };
        Assert.Null(Billing.NextAt(Case(kind, [], ("2027-01-04 09:00", Inquiry), ("2027-01-05 09:00", agreed))));
        var handed = Case(
            kind,
            [],
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-05 09:00", agreed),
            ("2027-03-01 12:00", new Happening.HandedOver())
        );
        Assert.Equal(
            (Date("2027-03-01"), Date("2027-03-15")),
            Billing.Planned(handed).Select(p => (p.On!.Value, p.Due!.Value)).Single()
        );
    }

    [Fact]
    public void An_ended_project_is_billed_no_further() =>
        Assert.Empty(
            Billing.Planned(Case([.. Signed_, ("2027-02-01 09:00", new Happening.Ended(EndReason.Cancelled))]))
        );

    [Fact]
    public void A_credit_note_takes_what_is_open_off_what_is_owed()
    {
        var history = Case([
            .. Signed_,
            ("2027-01-05 10:00", Issued(1, 1200, "2027-01-12", 0)),
            ("2027-01-08 09:00", Paid(500, invoice: 1)),
            ("2027-02-01 09:00", new Happening.InvoiceCredited(new InvoiceId(1), new InvoiceId(2), Eur(700))),
        ]).History;
        Assert.Empty(Owed.Open(history));
        Assert.Equal(Eur(700), Owed.Credited(history, Currency.Eur));
    }

    [Fact] // whatever is issued, in whatever order, what was issued and what is planned make up the price
    public void Issued_and_planned_always_make_up_the_agreed_price() =>
        Gen.Select(Gen.Decimal[10m, 90_000m], Gen.Int[1, 99], Gen.Bool, Gen.Bool)
            .Sample(
                (price, percent, first, second) =>
                {
                    var (whole, deposit) = (decimal.Round(price, 2), decimal.Round(price * percent / 100, 2));
                    List<(string, Happening)> facts =
                    [
                        ("2027-01-04 09:00", OpeningDay("2027-05-14")),
                        ("2027-01-05 09:00", Accepted(whole, deposit)),
                        ("2027-01-05 10:00", Signed(Signer.Client)),
                    ];
                    if (first)
                        facts.Add(("2027-01-06 09:00", Issued(1, deposit, "2027-01-12", 0)));
                    if (second)
                        facts.Add(("2027-01-07 09:00", Issued(2, whole - deposit, "2027-05-14", 1)));
                    var issued = (first ? deposit : 0) + (second ? whole - deposit : 0);
                    return Billing.Planned(Case([.. facts])).Select(p => p.Amount).Sum(Currency.Eur)
                        == Eur(whole - issued);
                }
            );
}
