using Gesamt.Core.Amounts;

namespace Gesamt.Core.Books;

/// <summary>The tax of payments and costs.</summary>
public static class Taxes
{
    /// <summary>Net and tax of money that came for an invoice, in proportion to it: the difference of two parts of the whole, so that all payments of one invoice add up to it exactly.</summary>
    /// <param name="invoice">Its sums.</param>
    /// <param name="before">What had been paid of it.</param>
    /// <param name="amount">What came now; negative where it went back.</param>
    /// <remarks>What is more than the invoice asks for is paid ahead and has no tax yet.</remarks>
    public static Totals OfPayment(Totals invoice, Money before, Money amount)
    {
        Totals PaidOf(Money paid) => invoice.OfPart(Within(paid, invoice.Payable));
        return PaidOf(before + amount).Minus(PaidOf(before));
    }

    /// <summary>Net and tax of an amount that includes its tax: net = round(gross / (1 + rate)).</summary>
    public static TaxPart OfGross(Money gross, Rate rate)
    {
        var net = Money.Of(gross.Major / (1 + rate.Fraction), gross.Currency);
        return new(rate, net, gross - net);
    }

    private static Money Within(Money amount, Money most) =>
        amount.Minor < 0 ? Money.Zero(most.Currency)
        : amount > most ? most
        : amount;
}
