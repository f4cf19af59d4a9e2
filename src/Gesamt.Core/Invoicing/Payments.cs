using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>Payments that still count: neither voided nor charged back.</summary>
public static class Payments
{
    public static IEnumerable<Seen<Happening.PaymentReceived>> InForce(History history)
    {
        var gone = history
            .Facts.Select(fact =>
                fact.What switch
                {
                    Happening.PaymentVoided voided => voided.Payment,
                    Happening.PaymentChargedBack back => back.Payment,
                    _ => (PaymentId?)null,
                }
            )
            .OfType<PaymentId>()
            .ToHashSet();
        return history.Of<Happening.PaymentReceived>().Where(payment => !gone.Contains(payment.What.Payment));
    }

    /// <summary>What was given back of payments that still count; one that was charged back has nothing left to give.</summary>
    public static IEnumerable<Seen<Happening.PaymentRefunded>> Refunds(History history)
    {
        var standing = InForce(history).Select(payment => payment.What.Payment).ToHashSet();
        return history.Of<Happening.PaymentRefunded>().Where(refund => standing.Contains(refund.What.Payment));
    }

    /// <summary>What is left of a payment to give back.</summary>
    public static Money Refundable(History history, Happening.PaymentReceived payment) =>
        payment.Amount
        - Refunds(history)
            .Where(refund => refund.What.Payment == payment.Payment)
            .Select(refund => refund.What.Amount)
            .Sum(payment.Amount.Currency);

    /// <summary>All that came in, less what was given back.</summary>
    public static Money Total(History history, Currency currency) =>
        InForce(history).Select(payment => payment.What.Amount).Sum(currency)
        - Refunds(history).Select(refund => refund.What.Amount).Sum(currency);

    /// <summary>What came in for the agreed price, less what was given back of it: what invoices besides the price took is not among it.</summary>
    public static Money TotalOfPrice(History history, Currency currency) =>
        OfPrice(history, goodwill: true).Select(flow => flow.Amount).Sum(currency);

    /// <summary>When payments for the price reached an amount; null while they do not. What was given back with a credit note is not owed again, and opens nothing.</summary>
    public static Instant? ReachedAt(History history, Money amount) =>
        ReachedAt(OfPrice(history, goodwill: false), amount, history);

    /// <summary>When payments, with what was credited and so is not owed any more, reached the agreed price; never before it was agreed.</summary>
    public static Instant? SettledAt(History history, AgreedPrice price) =>
        ReachedAt(
            OfPrice(history, goodwill: true)
                .Concat(Owed.Credits(history).Select(credit => (credit.Happened, credit.What.Amount))),
            price.Agreed,
            history
        )
            is { } at
            ? at > price.First
                ? at
                : price.First
            : null;

    /// <summary>Money for the agreed price as it came and went: of a payment on an invoice besides the price only what was more than that invoice asks for.</summary>
    /// <param name="goodwill">Whether refunds that go with a credit note are among it.</param>
    private static IEnumerable<(Instant At, Money Amount)> OfPrice(History history, bool goodwill)
    {
        var open = history
            .Of<Happening.InvoiceIssued>()
            .Where(issued => issued.What.Extra)
            .ToDictionary(
                issued => issued.What.Invoice,
                issued => issued.What.Amount - Owed.CreditedOn(history, issued.What)
            );
        Dictionary<PaymentId, Money> had = [];
        foreach (var payment in InForce(history).OrderBy(payment => payment.Happened))
        {
            var amount = payment.What.Amount;
            if (payment.What.Invoice is { } invoice && open.TryGetValue(invoice, out var asked))
            {
                var taken = asked < amount ? asked : amount;
                open[invoice] = asked - taken;
                amount -= taken;
            }
            had[payment.What.Payment] = amount;
            if (amount.Minor > 0)
                yield return (payment.Happened, amount);
        }
        foreach (var refund in Refunds(history).Where(refund => goodwill || refund.What.Note is null))
        {
            // what is given back of a payment is first what the price had of it
            var most = had[refund.What.Payment];
            var back = refund.What.Amount < most ? refund.What.Amount : most;
            had[refund.What.Payment] = most - back;
            if (back.Minor > 0)
                yield return (refund.Happened, -back);
        }
    }

    /// <summary>The last time that the sum came up to the amount, if it has not fallen below it since.</summary>
    private static Instant? ReachedAt(IEnumerable<(Instant At, Money Amount)> flows, Money amount, History history)
    {
        var sum = Money.Zero(amount.Currency);
        Instant? reached = amount.Minor <= 0 ? history.Began : null;
        foreach (var (at, part) in flows.OrderBy(flow => flow.At))
        {
            sum += part;
            if (sum < amount)
                reached = null;
            else
                reached ??= at;
        }
        return reached;
    }
}
