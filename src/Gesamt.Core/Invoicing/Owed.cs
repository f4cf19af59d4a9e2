using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;

namespace Gesamt.Core.Invoicing;

/// <summary>What is still owed on an invoice: issued less credited less paid, and what was given back of it. What was paid ahead counts for the earliest due, those of the agreed price first.</summary>
public static class Owed
{
    public static Money On(History history, Happening.InvoiceIssued invoice) =>
        Of(history, invoice.Amount.Currency).Open.GetValueOrDefault(invoice.Invoice, invoice.Amount);

    /// <summary>What is owed on every issued invoice.</summary>
    public static IReadOnlyDictionary<InvoiceId, Money> OnEach(History history) =>
        history.Last<Happening.InvoiceIssued>() is { What.Amount.Currency: var currency }
            ? Of(history, currency).Open
            : new Dictionary<InvoiceId, Money>();

    /// <summary>Issued invoices with something still owed, earliest due first.</summary>
    public static IEnumerable<(Seen<Happening.InvoiceIssued> Invoice, Money Owed)> Open(History history)
    {
        var owed = OnEach(history);
        return owed.Count == 0
            ? []
            : from issued in history.Of<Happening.InvoiceIssued>()
            let open = owed[issued.What.Invoice]
            where open.Minor > 0
            orderby issued.What.Due
            select (issued, open);
    }

    /// <summary>What the client has paid ahead: more than any invoice asks for, until the next one takes it or it is given back.</summary>
    public static Money Ahead(History history, Currency currency) => Of(history, currency).Ahead;

    /// <remarks>All is gathered in one pass over the facts: a client of many years has hundreds of invoices.</remarks>
    private static (IReadOnlyDictionary<InvoiceId, Money> Open, Money Ahead) Of(History history, Currency currency)
    {
        var nothing = Money.Zero(currency);
        var (paid, ahead) = Paid(history, nothing);
        var credited = history
            .Of<Happening.InvoiceCredited>()
            .GroupBy(credit => credit.What.Invoice)
            .ToDictionary(of => of.Key, of => of.Select(credit => credit.What.Amount).Sum(currency));
        List<(Happening.InvoiceIssued What, Money Unpaid)> invoices =
        [
            .. history
                .Of<Happening.InvoiceIssued>()
                .Select(issued => issued.What)
                .OrderBy(issued => issued.Extra)
                .ThenBy(issued => issued.Due)
                .ThenBy(issued => issued.Invoice.Value)
                .Select(issued =>
                    (
                        issued,
                        issued.Amount
                            - credited.GetValueOrDefault(issued.Invoice, nothing)
                            - paid.GetValueOrDefault(issued.Invoice, nothing)
                    )
                ),
        ];
        ahead -= invoices.Where(one => one.Unpaid.Minor < 0).Select(one => one.Unpaid).Sum(currency);
        Dictionary<InvoiceId, Money> open = [];
        foreach (var (invoice, unpaid) in invoices)
        {
            var left = unpaid.Minor > 0 ? unpaid : nothing;
            var taken =
                ahead.Minor <= 0 ? nothing
                : left < ahead ? left
                : ahead;
            open[invoice.Invoice] = left - taken;
            ahead -= taken;
        }
        return (open, ahead);
    }

    /// <summary>What was paid on each invoice, less what was given back; and what was paid ahead of any.</summary>
    private static (Dictionary<InvoiceId, Money> On, Money Ahead) Paid(History history, Money nothing)
    {
        Dictionary<PaymentId, InvoiceId?> payments = [];
        Dictionary<InvoiceId, Money> on = [];
        var ahead = nothing;
        void Add(InvoiceId? invoice, Money amount)
        {
            if (invoice is { } known)
                on[known] = on.GetValueOrDefault(known, nothing) + amount;
            else
                ahead += amount;
        }
        foreach (var payment in Payments.InForce(history))
        {
            payments[payment.What.Payment] = payment.What.Invoice;
            Add(payment.What.Invoice, payment.What.Amount);
        }
        foreach (var refund in history.Of<Happening.PaymentRefunded>())
            if (payments.TryGetValue(refund.What.Payment, out var invoice))
                Add(invoice, -refund.What.Amount);
        return (on, ahead);
    }

    /// <summary>What was credited for good of the agreed price: that much less is owed of it. What an invoice besides the price was credited is its own matter. What was credited at an end that was taken back is billed again; what was credited before an amendment, or by it, its price leaves out already.</summary>
    public static IEnumerable<Seen<Happening.InvoiceCredited>> Credits(History history)
    {
        var taken = history.Last<Happening.TakenUp>()?.Fact;
        var amended = history.Last<Happening.PriceAmended>()?.Fact;
        var besides = history
            .Of<Happening.InvoiceIssued>()
            .Where(issued => issued.What.Extra)
            .Select(issued => issued.What.Invoice)
            .ToHashSet();
        return history
            .Of<Happening.InvoiceCredited>()
            .Where(credit =>
                !besides.Contains(credit.What.Invoice)
                && (taken is null || !credit.What.AtEnd || History.IsAfter(credit.Fact, taken))
                && (amended is null || History.IsAfter(credit.Fact, amended))
            );
    }

    /// <summary>The sum of <see cref="Credits"/>.</summary>
    public static Money Credited(History history, Currency currency) =>
        Credits(history).Select(credit => credit.What.Amount).Sum(currency);

    /// <summary>All that was credited of an invoice.</summary>
    public static Money CreditedOn(History history, Happening.InvoiceIssued invoice) =>
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
