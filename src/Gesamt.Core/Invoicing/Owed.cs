using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;

namespace Gesamt.Core.Invoicing;

/// <summary>What is still owed on an invoice: issued less credited less paid, and what was given back of it. What was paid ahead counts for the earliest due, those of the agreed price first.</summary>
public static class Owed
{
    public static Money On(History history, Happening.InvoiceIssued invoice) =>
        Of(history, invoice.Amount.Currency).Open.GetValueOrDefault(invoice.Invoice, Unpaid(history, invoice));

    /// <summary>Issued invoices with something still owed, earliest due first.</summary>
    public static IEnumerable<(Seen<Happening.InvoiceIssued> Invoice, Money Owed)> Open(History history)
    {
        if (history.Last<Happening.InvoiceIssued>() is not { What.Amount.Currency: var currency })
            return [];
        var open = Of(history, currency).Open;
        return from issued in history.Of<Happening.InvoiceIssued>()
            let owed = open[issued.What.Invoice]
            where owed.Minor > 0
            orderby issued.What.Due
            select (issued, owed);
    }

    /// <summary>What the client has paid ahead: more than any invoice asks for, until the next one takes it or it is given back.</summary>
    public static Money Ahead(History history, Currency currency) => Of(history, currency).Ahead;

    private static (IReadOnlyDictionary<InvoiceId, Money> Open, Money Ahead) Of(History history, Currency currency)
    {
        var invoices = history
            .Of<Happening.InvoiceIssued>()
            .Select(issued => (issued.What, Unpaid: Unpaid(history, issued.What)))
            .OrderBy(one => one.What.Extra)
            .ThenBy(one => one.What.Due)
            .ThenBy(one => one.What.Invoice.Value)
            .ToList();
        var ahead =
            PaidAhead(history, currency)
            - invoices.Where(one => one.Unpaid.Minor < 0).Select(one => one.Unpaid).Sum(currency);
        Dictionary<InvoiceId, Money> open = [];
        foreach (var (invoice, unpaid) in invoices)
        {
            var left = unpaid.Minor > 0 ? unpaid : Money.Zero(currency);
            var taken =
                ahead.Minor <= 0 ? Money.Zero(currency)
                : left < ahead ? left
                : ahead;
            open[invoice.Invoice] = left - taken;
            ahead -= taken;
        }
        return (open, ahead);
    }

    private static Money Unpaid(History history, Happening.InvoiceIssued invoice) =>
        invoice.Amount - CreditedOn(history, invoice) - PaidOn(history, invoice.Invoice, invoice.Amount.Currency);

    /// <summary>What was paid on an invoice, less what was given back; null for what was paid ahead of any.</summary>
    private static Money PaidOn(History history, InvoiceId? invoice, Currency currency)
    {
        var payments = Payments.InForce(history).Where(payment => payment.What.Invoice == invoice).ToList();
        var ids = payments.Select(payment => payment.What.Payment).ToHashSet();
        return payments.Select(payment => payment.What.Amount).Sum(currency)
            - Payments
                .Refunds(history)
                .Where(refund => ids.Contains(refund.What.Payment))
                .Select(refund => refund.What.Amount)
                .Sum(currency);
    }

    private static Money PaidAhead(History history, Currency currency) => PaidOn(history, null, currency);

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

    /// <summary>All that was credited of an invoice.</summary>
    internal static Money CreditedOn(History history, Happening.InvoiceIssued invoice) =>
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
