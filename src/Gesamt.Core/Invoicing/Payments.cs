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

    public static Money Total(History history, Currency currency) =>
        InForce(history).Select(payment => payment.What.Amount).Sum(currency);

    /// <summary>When payments reached an amount; null while they do not.</summary>
    public static Instant? ReachedAt(History history, Money amount) =>
        ReachedAt(InForce(history).Select(Part), amount, history);

    /// <summary>When payments, with what was credited and so is not owed any more, reached the agreed price; never before it was agreed.</summary>
    public static Instant? SettledAt(History history, AgreedPrice price) =>
        ReachedAt(
            InForce(history)
                .Select(Part)
                .Concat(Owed.Credits(history).Select(credit => (credit.Happened, credit.What.Amount))),
            price.Agreed,
            history
        )
            is { } at
            ? at > price.First
                ? at
                : price.First
            : null;

    private static (Instant At, Money Amount) Part(Seen<Happening.PaymentReceived> payment) =>
        (payment.Happened, payment.What.Amount);

    private static Instant? ReachedAt(IEnumerable<(Instant At, Money Amount)> parts, Money amount, History history)
    {
        var sum = Money.Zero(amount.Currency);
        foreach (var (at, part) in parts.OrderBy(part => part.At))
        {
            sum += part;
            if (sum >= amount)
                return at;
        }
        return amount.Minor <= 0 ? history.Began : null;
    }
}
