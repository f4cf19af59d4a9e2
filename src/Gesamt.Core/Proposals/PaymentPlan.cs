using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>Splits a price into the payments that were proposed. Fixed amounts come first, and shares divide what is left.</summary>
public static class PaymentPlan
{
    /// <exception cref="OfferException">The fixed amounts are more than the price, or leave nothing for the shares beside them.</exception>
    /// <exception cref="InstalmentException">The price is too small for its plan.</exception>
    /// <param name="ofRest">Whether the sums are what an amendment leaves to be invoiced.</param>
    public static ImmutableArray<PlannedInstalment> Of(Offer offer, Totals totals, PlanDates dates, bool ofRest = false)
    {
        var weights = Weights(offer, totals);
        var parts = offer.Gross ? Instalments.OfGross(totals, weights) : Instalments.Of(totals, weights);
        return [.. offer.Plan.Zip(parts, (plan, part) => Planned(offer, plan, part, dates, ofRest))];
    }

    /// <summary>Parts per million where all are shares; else minor units, of the net price or, where prices include the tax, of the gross one.</summary>
    private static long[] Weights(Offer offer, Totals totals)
    {
        if (offer.Plan.All(part => part.Amount is null))
            return [.. offer.Plan.Select(part => (long)part.Share.PartsPerMillion)];
        var whole = offer.Gross ? totals.Payable : totals.Net;
        var amounts = offer.Plan.Select(part => Money.Of(part.Amount ?? 0, offer.Currency)).ToList();
        var rest = whole - amounts.Sum(offer.Currency);
        var shared = offer.Plan.Any(part => part.Amount is null);
        if (rest.Minor < 0 || shared && rest.Minor == 0)
            throw new OfferException(
                "plan",
                $"The fixed payments come to {MoneyText.Of(whole - rest)}, and the least that can be chosen to {MoneyText.Of(whole)}{(offer.Gross ? "" : " before tax")}: nothing is left for the rest."
            );
        if (!shared && rest.Minor > 0)
            throw new OfferException(
                "plan",
                $"The fixed payments leave {MoneyText.Of(rest)} of {MoneyText.Of(whole)}{(offer.Gross ? "" : " before tax")}. Add a payment of 100 % of the rest."
            );
        if (!shared)
            return [.. amounts.Select(amount => amount.Minor)];
        var shares = rest.Split([.. offer.Plan.Select(part => (long)part.Share.PartsPerMillion)]);
        return [.. amounts.Zip(shares, (amount, share) => amount.Minor + share.Minor)];
    }

    /// <summary>What was proposed, before any date is known: “40 % to book”, “the rest, due on the opening”.</summary>
    public static IEnumerable<string> Words(Offer offer) => offer.Plan.Select(part => Words(offer, part, due: null));

    private static PlannedInstalment Planned(Offer offer, PlanPart plan, Instalment part, PlanDates dates, bool ofRest)
    {
        (LocalDate? on, LocalDate? due) = plan.Due switch
        {
            DueRule.OnBooking booking => (dates.SignedOn, dates.SignedOn.PlusDays(booking.Days)),
            DueRule.OnHandover => (null, null),
            DueRule.OnDate date => (date.Date.PlusDays(-date.InvoiceDaysBefore), date.Date),
            DueRule.AroundMainDate around => Around(dates, dates.Main, around.Offset, around.InvoiceDaysBefore),
            DueRule.AroundDate around => Around(
                dates,
                dates.Named(around.Name),
                around.Offset,
                around.InvoiceDaysBefore
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(plan), plan.Due, "No such due rule."),
        };
        return new(Words(offer, plan, due, ofRest), part, plan.Due, due, on);
    }

    private static (LocalDate? On, LocalDate? Due) Around(
        PlanDates dates,
        LocalDate? named,
        Span offset,
        int invoiceDaysBefore
    ) =>
        named is { } date && dates.Calendar.Add(date, offset) is var due
            ? (due.PlusDays(-invoiceDaysBefore), due)
            : (null, null);

    private static string Words(Offer offer, PlanPart plan, LocalDate? due, bool ofRest = false)
    {
        static string From(Span offset, string name) =>
            offset.Count == 0 ? $"on the {name}" : $"{offset.Words} the {name}";
        return SizeOf(offer, plan, ofRest)
            + plan.Due switch
            {
                DueRule.OnBooking booking when ofRest => booking.Days == 0
                    ? ", due when it is signed"
                    : $", due {Span.Days(booking.Days).Words} it is signed",
                DueRule.OnBooking => " to book",
                DueRule.OnHandover { Days: 0 } => ", due on handover",
                DueRule.OnHandover handover => $", due {Span.Days(handover.Days).Words} handover",
                DueRule.OnDate date => $", due {DateWords.Long(date.Date)}",
                _ when due is { } day => $", due {DateWords.Long(day)}",
                DueRule.AroundMainDate around => $", due {From(around.Offset, "date")}",
                DueRule.AroundDate around => $", due {From(around.Offset, around.Name)}",
                _ => "",
            };
    }

    private static string SizeOf(Offer offer, PlanPart plan, bool ofRest)
    {
        if (plan.Amount is { } amount)
            return $"{MoneyText.Figures(Money.Of(amount, offer.Currency))}{(offer.Gross ? "" : " before tax")}";
        ofRest |= offer.Plan.Any(part => part.Amount is not null);
        return !ofRest ? plan.Share.ToString()
            : plan.Share.PartsPerMillion == 1_000_000 ? "the rest"
            : $"{plan.Share} of the rest";
    }
}
