using Gesamt.Core.Invoicing;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Invoicing;

public class OwedTests
{
    private static readonly Happening.InvoiceIssued Invoice = new(new InvoiceId(1), Eur(1200), Date("2027-01-20"));

    private static Money Owed(params Happening[] facts) =>
        Core.Invoicing.Owed.On(
            Case([("2027-01-05 09:00", Invoice), .. facts.Select(f => ("2027-01-10 09:00", f))]).History,
            Invoice
        );

    [Fact]
    public void Part_payments_come_off() =>
        Assert.Equal(Eur(500), Owed(Paid(400, 1, invoice: 1), Paid(300, 2, invoice: 1)));

    [Fact]
    public void A_payment_of_another_invoice_does_not() => Assert.Equal(Eur(1200), Owed(Paid(400, 1, invoice: 2)));

    [Fact]
    public void A_payment_voided_or_charged_back_is_owed_again() =>
        Assert.Equal(
            Eur(1200),
            Owed(
                Paid(400, 1, invoice: 1),
                Paid(800, 2, invoice: 1),
                new Happening.PaymentVoided(new PaymentId(1)),
                new Happening.PaymentChargedBack(new PaymentId(2))
            )
        );

    [Fact]
    public void Open_invoices_stand_by_when_they_are_due()
    {
        var history = Case(
            ("2027-01-05 09:00", Invoice),
            ("2027-01-06 09:00", new Happening.InvoiceIssued(new InvoiceId(2), Eur(10), Date("2027-01-12"))),
            ("2027-01-06 09:00", new Happening.InvoiceIssued(new InvoiceId(3), Eur(10), Date("2027-01-11"))),
            ("2027-01-07 09:00", Paid(10, 1, invoice: 3))
        ).History;
        Assert.Equal([2L, 1L], Core.Invoicing.Owed.Open(history).Select(open => open.Invoice.What.Invoice.Value));
    }

    [Theory]
    [
        InlineData("", 2027, 4, "2027-004"),
        InlineData("", 2027, 1234, "2027-1234"),
        InlineData("MU", 2027, 4, "MU2027-004")
    ]
    public void Numbers_name_series_year_and_sequence(string series, int year, int sequence, string number) =>
        Assert.Equal(number, InvoiceNumber.Of(series, year, sequence));

    [Theory] // a studio that comes with 56 invoices of its own goes on with the 57th, and is never asked again
    [InlineData(null, 1, 1), InlineData(null, 57, 57), InlineData(57, 57, 58), InlineData(3, 57, 4)]
    public void A_series_goes_on_without_gaps_from_where_it_begins(int? last, int first, int next) =>
        Assert.Equal(next, InvoiceNumber.Next(last, first));

    [Fact]
    public void What_is_owed_is_issued_less_paid_in_any_order_of_payments() =>
        Gen.Long[1, 200_000]
            .Array[0, 8]
            .Sample(amounts =>
            {
                var payments = amounts.Select((minor, i) => Paid(minor / 100m, i + 1, invoice: 1)).ToArray();
                var expected = Eur(1200) - amounts.Select(minor => new Money(minor, Currency.Eur)).Sum(Currency.Eur);
                // more than is owed is kept as paid ahead
                var open = expected.Minor > 0 ? expected : Eur(0);
                Assert.Equal(open, Owed(payments));
                Assert.Equal(open, Owed([.. payments.Reverse()]));
                var reached = Payments.ReachedAt(
                    Case([.. payments.Select(p => ("2027-01-10 09:00", p))]).History,
                    Eur(1200)
                );
                Assert.Equal(expected.Minor <= 0, reached is not null);
            });

    [Fact]
    public void More_than_is_owed_is_paid_ahead_and_pays_the_next()
    {
        var history = Case(
            ("2027-01-05 09:00", Invoice),
            ("2027-01-10 09:00", Paid(1500, 1, invoice: 1)),
            ("2027-01-12 09:00", new Happening.InvoiceIssued(new InvoiceId(2), Eur(200), Date("2027-02-01")))
        ).History;
        Assert.Empty(Core.Invoicing.Owed.Open(history));
        Assert.Equal(Eur(100), Core.Invoicing.Owed.Ahead(history, Currency.Eur));
    }

    [Fact]
    public void What_was_given_back_without_a_credit_note_is_owed_again() =>
        Assert.Equal(
            Eur(300),
            Owed(Paid(1200, 1, invoice: 1), new Happening.PaymentRefunded(new(1), new RefundId(1), Eur(300)))
        );

    [Fact]
    public void With_a_credit_note_nothing_is_owed_for_it() =>
        Assert.Equal(
            Eur(0),
            Owed(
                Paid(1200, 1, invoice: 1),
                new Happening.InvoiceCredited(new(1), new(9), Eur(300), AtEnd: false),
                new Happening.PaymentRefunded(new(1), new RefundId(1), Eur(300), new InvoiceId(9))
            )
        );

    [Fact]
    public void A_refund_of_a_payment_that_was_charged_back_counts_no_more()
    {
        Happening[] facts =
        [
            Paid(1200, 1, invoice: 1),
            new Happening.PaymentRefunded(new(1), new RefundId(1), Eur(300)),
            new Happening.PaymentChargedBack(new(1)),
        ];
        Assert.Equal(Eur(1200), Owed(facts));
    }

    private sealed record Flow(int Sort, long Minor, int Of);

    [Fact] // whatever is billed, credited, paid and given back: what is open less what is paid ahead is all of it together
    public void Nothing_is_lost_between_what_is_open_and_what_is_paid_ahead() =>
        Gen.Select(Gen.Int[0, 5], Gen.Long[1, 300_000], Gen.Int[1, 4], (sort, minor, of) => new Flow(sort, minor, of))
            .Array[0, 14]
            .Sample(
                flows =>
                {
                    List<Happening> facts = [];
                    Dictionary<long, long> left = [];
                    long balance = 0;
                    foreach (var (flow, i) in flows.Select((flow, i) => (flow, i + 10)))
                    {
                        var amount = new Money(flow.Minor, Currency.Eur);
                        switch (flow.Sort)
                        {
                            case 0 or 1:
                                facts.Add(
                                    new Happening.InvoiceIssued(
                                        new(i),
                                        amount,
                                        Date("2027-02-01").PlusDays(i),
                                        Extra: flow.Sort == 1
                                    )
                                );
                                balance += flow.Minor;
                                break;
                            case 2 when facts.OfType<Happening.InvoiceIssued>().ElementAtOrDefault(flow.Of) is { } of:
                                facts.Add(new Happening.InvoiceCredited(of.Invoice, new(i), amount, AtEnd: false));
                                balance -= flow.Minor;
                                break;
                            case 3:
                                var on = facts.OfType<Happening.InvoiceIssued>().ElementAtOrDefault(flow.Of)?.Invoice;
                                facts.Add(new Happening.PaymentReceived(new(i), on, amount));
                                left[i] = flow.Minor;
                                balance -= flow.Minor;
                                break;
                            case 4 when left.Count > 0:
                                var (payment, most) = left.ElementAt(flow.Of % left.Count);
                                var back = Math.Min(most, flow.Minor);
                                if (back == 0)
                                    break;
                                facts.Add(new Happening.PaymentRefunded(new(payment), new(i), new(back, Currency.Eur)));
                                left[payment] = most - back;
                                balance += back;
                                break;
                            case 5 when left.Count > 0:
                                var (gone, rest) = left.ElementAt(flow.Of % left.Count);
                                facts.Add(new Happening.PaymentChargedBack(new(gone)));
                                left.Remove(gone);
                                balance += rest;
                                break;
                        }
                    }
                    var history = Case([.. facts.Select(fact => ("2027-01-10 09:00", fact))]).History;
                    var open = Core.Invoicing.Owed.Open(history).Sum(one => one.Owed.Minor);
                    var ahead = Core.Invoicing.Owed.Ahead(history, Currency.Eur).Minor;
                    Assert.Equal(balance, open - ahead);
                    // nobody is asked for money while more of theirs lies here
                    Assert.True(open == 0 || ahead == 0);
                },
                iter: 20_000
            );

    [Fact]
    public void What_was_paid_ahead_counts_for_the_earliest_due_and_then_the_next()
    {
        static Happening Issued(long id, decimal amount, string due) =>
            new Happening.InvoiceIssued(new InvoiceId(id), Eur(amount), Date(due));
        var history = Case(
            ("2027-01-04 09:00", Paid(1500)),
            ("2027-01-05 09:00", Issued(2, 1800, "2027-05-14")),
            ("2027-01-05 09:00", Issued(1, 1200, "2027-01-12"))
        ).History;
        Assert.Equal(
            [(2L, Eur(1500))],
            Gesamt.Core.Invoicing.Owed.Open(history).Select(open => (open.Invoice.What.Invoice.Value, open.Owed))
        );
        Assert.Equal(
            Eur(0),
            Gesamt.Core.Invoicing.Owed.On(history, (Happening.InvoiceIssued)Issued(1, 1200, "2027-01-12"))
        );
    }
}
