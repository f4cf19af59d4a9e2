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
                Assert.Equal(expected, Owed(payments));
                Assert.Equal(expected, Owed([.. payments.Reverse()]));
                var reached = Payments.ReachedAt(
                    Case([.. payments.Select(p => ("2027-01-10 09:00", p))]).History,
                    Eur(1200)
                );
                Assert.Equal(expected.Minor <= 0, reached is not null);
            });

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
