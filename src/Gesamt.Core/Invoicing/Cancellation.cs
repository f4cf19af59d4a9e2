using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>What becomes of the money of a project that is cancelled, by the terms of its kind. What was billed besides the price stays as it is.</summary>
/// <param name="DaysLeft">From the day of cancelling to the date that matters; null where no date is set, and so nothing is kept.</param>
/// <param name="Kept">That share of the agreed price.</param>
/// <param name="Refunded">What was paid over it, and goes back.</param>
/// <param name="Credited">What was billed over it, and is taken back by credit notes.</param>
/// <param name="Billed">What of it was not billed yet, and is by an invoice of its own.</param>
/// <param name="Open">What is still to be paid of it.</param>
public sealed record Cancellation(
    Money Agreed,
    int? DaysLeft,
    Rate Share,
    Money Kept,
    Money Refunded,
    Money Credited,
    Money Billed,
    Money Open
)
{
    /// <summary>What it comes to when it is cancelled on a day; null where no price is agreed, or the kind has no terms.</summary>
    public static Cancellation? Of(Case project, LocalDate on)
    {
        if (project.Kind.CancelTerms.IsEmpty || AgreedPrice.Of(project.History) is not { } price)
            return null;
        int? left = project.MainDate is { } date ? Period.DaysBetween(on, date.Date) : null;
        var share = ShareAt(project.Kind.CancelTerms, left);
        var (agreed, nothing) = (price.Agreed, Money.Zero(price.Agreed.Currency));
        var kept = agreed with { Minor = Rounding.ToLong(agreed.Minor * share.Fraction) };
        var billed = BilledOfPrice(project.History, nothing);
        var paid = Payments.TotalOfPrice(project.History, agreed.Currency);
        Money Over(Money one, Money other) => one > other ? one - other : nothing;
        return new(
            agreed,
            left,
            share,
            kept,
            Over(paid, kept),
            Over(billed, kept),
            Over(kept, billed),
            Over(kept, paid)
        );
    }

    /// <summary>The share of the latest step that has come.</summary>
    private static Rate ShareAt(ImmutableArray<CancelStep> terms, int? left) =>
        left is { } days
            ? terms.Where(step => step.HoldsAt(days)).MinBy(step => step.DaysBefore)?.Keeps ?? default
            : default;

    private static Money BilledOfPrice(History history, Money nothing) =>
        history
            .Of<Happening.InvoiceIssued>()
            .Where(issued => !issued.What.Extra)
            .Select(issued => issued.What.Amount - Owed.CreditedOn(history, issued.What))
            .Aggregate(nothing, (sum, one) => sum + one);
}
