using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;

namespace Gesamt.Core.Invoicing;

/// <summary>What is still owed on an invoice: issued less credited less paid. What was paid ahead of any invoice counts for the earliest due.</summary>
public static class Owed
{
    public static Money On(History history, Happening.InvoiceIssued invoice)
    {
        var ahead = PaidAhead(history, invoice.Amount.Currency);
        foreach (
            var earlier in history
                .Of<Happening.InvoiceIssued>()
                .Select(issued => issued.What)
                .OrderBy(issued => issued.Due)
                .ThenBy(issued => issued.Invoice.Value)
        )
        {
            var open = Unpaid(history, earlier);
            var taken =
                open.Minor <= 0 ? Money.Zero(open.Currency)
                : open < ahead ? open
                : ahead;
            if (earlier.Invoice == invoice.Invoice)
                return open - taken;
            ahead -= taken;
        }
        return Unpaid(history, invoice);
    }

    /// <summary>Issued invoices with something still owed, earliest due first.</summary>
    public static IEnumerable<(Seen<Happening.InvoiceIssued> Invoice, Money Owed)> Open(History history) =>
        from issued in history.Of<Happening.InvoiceIssued>()
        let owed = On(history, issued.What)
        where owed.Minor > 0
        orderby issued.What.Due
        select (issued, owed);

    private static Money Unpaid(History history, Happening.InvoiceIssued invoice) =>
        invoice.Amount
        - CreditedOn(history, invoice)
        - Payments
            .InForce(history)
            .Where(payment => payment.What.Invoice == invoice.Invoice)
            .Select(payment => payment.What.Amount)
            .Sum(invoice.Amount.Currency);

    private static Money PaidAhead(History history, Currency currency) =>
        Payments
            .InForce(history)
            .Where(payment => payment.What.Invoice is null)
            .Select(payment => payment.What.Amount)
            .Sum(currency);

    /// <summary>What was credited for good: that much less is owed of the agreed price. What was credited at an end that was taken back is billed again; what was credited before an amendment, or by it, its price leaves out already.</summary>
    public static IEnumerable<Seen<Happening.InvoiceCredited>> Credits(History history)
    {
        var taken = history.Last<Happening.TakenUp>()?.Fact;
        var amended = history.Last<Happening.PriceAmended>()?.Fact;
        return history
            .Of<Happening.InvoiceCredited>()
            .Where(credit =>
                (taken is null || !credit.What.AtEnd || History.IsAfter(credit.Fact, taken))
                && (amended is null || History.IsAfter(credit.Fact, amended))
            );
    }

    /// <summary>The sum of <see cref="Credits"/>.</summary>
    public static Money Credited(History history, Currency currency) =>
        Credits(history).Select(credit => credit.What.Amount).Sum(currency);

    private static Money CreditedOn(History history, Happening.InvoiceIssued invoice) =>
        history
            .Of<Happening.InvoiceCredited>()
            .Where(credit => credit.What.Invoice == invoice.Invoice)
            .Select(credit => credit.What.Amount)
            .Sum(invoice.Amount.Currency);
}

/// <summary>Invoice numbers: per series and year, without gaps, given at issue.</summary>
public static class InvoiceNumber
{
    /// <summary>“2027-004” for the fourth invoice of 2027, “MU2027-004” in the series MU.</summary>
    public static string Of(string series, int year, int sequence) => $"{series}{year}-{sequence:000}";

    /// <summary>“C2027-001”: credit notes have a series of their own.</summary>
    public static string OfCredit(string series, int year, int sequence) => $"C{Of(series, year, sequence)}";

    /// <summary>The number after the last one of a series and year.</summary>
    /// <param name="first">Where the series begins in that year; common practice for a studio that comes with invoices of its own.</param>
    public static int Next(int? last, int first) => (last ?? first - 1) + 1;
}
