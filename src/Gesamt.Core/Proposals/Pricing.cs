using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>Prices a choice out of an offer, and checks both.</summary>
public static class Pricing
{
    /// <summary>The lines, totals and instalments of a choice.</summary>
    /// <param name="chosen">Keys of the lines taken besides the included ones.</param>
    /// <param name="signedOn">The day of the signature, from which the booking payment is counted; the day the page is read until then.</param>
    /// <exception cref="OfferException">A key is unknown, or a group has none or several chosen.</exception>
    /// <exception cref="InstalmentException">The price is too small for its plan.</exception>
    public static PricedChoice Of(
        Offer offer,
        IReadOnlySet<string> chosen,
        LocalDate? mainDate,
        LocalDate signedOn,
        StudioCalendar calendar
    )
    {
        if (chosen.FirstOrDefault(key => offer.Lines.All(line => line.Key != key)) is { } unknown)
            throw new OfferException("choice", $"This proposal has no line “{unknown}”.");
        var lines = offer
            .Lines.Where(line => line.Role == LineRole.Included || chosen.Contains(line.Key))
            .ToImmutableArray();
        foreach (var group in offer.Lines.Where(line => line.Role == LineRole.OneOf).GroupBy(line => line.Group))
            if (group.Count(line => chosen.Contains(line.Key)) != 1)
                throw new OfferException(
                    "choice",
                    $"Choose one of: {string.Join(", ", group.Select(line => line.Title))}."
                );
        var totals = Totals.OfLines([.. lines.Select(line => line.Priced(offer.Currency))], Money.Zero(offer.Currency));
        return new(lines, totals, Instalments(offer, totals, mainDate, signedOn, calendar));
    }

    /// <summary>The choice a client sees first: what is suggested, else the first of each group.</summary>
    public static ImmutableHashSet<string> Suggested(Offer offer) =>
        [
            .. offer.Lines.Where(line => line.Role == LineRole.Extra && line.Suggested).Select(line => line.Key),
            .. offer
                .Lines.Where(line => line.Role == LineRole.OneOf)
                .GroupBy(line => line.Group)
                .Select(group => (group.FirstOrDefault(line => line.Suggested) ?? group.First()).Key),
        ];

    /// <summary>Refuses an offer that could not be chosen from, named by field.</summary>
    /// <exception cref="OfferException">No line, an empty title, a negative price, a group of one, shares that are not 100 %.</exception>
    public static void Check(Offer offer, LocalDate today)
    {
        if (string.IsNullOrWhiteSpace(offer.Title))
            throw new OfferException("title", "A proposal needs a title.");
        if (offer.Lines.IsEmpty)
            throw new OfferException("lines", "A proposal needs at least one service.");
        if (!offer.IsValidOn(today))
            throw new OfferException("validUntil", "Valid until lies in the past; choose today or later.");
        foreach (var line in offer.Lines)
            Check(line);
        if (offer.Lines.GroupBy(line => line.Key).Any(same => same.Count() > 1))
            throw new OfferException("lines", "Two lines have the same key.");
        foreach (var group in offer.Lines.Where(line => line.Role == LineRole.OneOf).GroupBy(line => line.Group))
            if (group.Count() < 2)
                throw new OfferException(
                    "lines",
                    $"“{group.First().Title}” is a choice of one with nothing to choose from. Add another, or make it included."
                );
        if (offer.Plan.IsEmpty)
            throw new OfferException("plan", "Say when the price is due.");
        if (
            offer.Plan.Any(part => part.Share.PartsPerMillion <= 0)
            || offer.Plan.Sum(part => part.Share.PartsPerMillion) != 1_000_000
        )
            throw new OfferException("plan", "The shares must each be more than nothing and add up to 100 %.");
    }

    private static void Check(OfferLine line)
    {
        if (string.IsNullOrWhiteSpace(line.Title))
            throw new OfferException("lines", "Every service needs a title.");
        if (line.Quantity is <= 0 or > 1_000_000)
            throw new OfferException(
                "lines",
                $"The quantity of “{line.Title}” must be more than 0 and at most 1 000 000."
            );
        if (line.UnitPrice is < 0 or > 100_000_000)
            throw new OfferException("lines", $"The price of “{line.Title}” must lie between 0 and 100 000 000.");
        if (line.Role == LineRole.OneOf && string.IsNullOrWhiteSpace(line.Group))
            throw new OfferException("lines", $"“{line.Title}” needs the name of what is chosen between.");
    }

    private static ImmutableArray<PlannedInstalment> Instalments(
        Offer offer,
        Totals totals,
        LocalDate? mainDate,
        LocalDate signedOn,
        StudioCalendar calendar
    )
    {
        var parts = Amounts.Instalments.Of(totals, [.. offer.Plan.Select(part => (long)part.Share.PartsPerMillion)]);
        return [.. offer.Plan.Zip(parts, (plan, part) => Planned(plan, part, mainDate, signedOn, calendar))];
    }

    private static PlannedInstalment Planned(
        PlanPart plan,
        Instalment part,
        LocalDate? mainDate,
        LocalDate signedOn,
        StudioCalendar calendar
    )
    {
        switch (plan.Due)
        {
            case DueRule.OnBooking booking:
                return new($"{plan.Share} to book", part, signedOn.PlusDays(booking.Days), signedOn);
            case DueRule.OnHandover handover:
                return new(
                    $"{plan.Share}, due {(handover.Days == 0 ? "on handover" : $"{Span.Days(handover.Days).Words} handover")}",
                    part,
                    null,
                    null
                );
            case DueRule.OnDate fixedDate:
                return new(
                    $"{plan.Share}, due {DateWords.Long(fixedDate.Date)}",
                    part,
                    fixedDate.Date,
                    fixedDate.Date.PlusDays(-fixedDate.InvoiceDaysBefore)
                );
            case DueRule.AroundMainDate around when mainDate is { } date:
                var due = calendar.Add(date, around.Offset);
                return new(
                    $"{plan.Share}, due {DateWords.Long(due)}",
                    part,
                    due,
                    due.PlusDays(-around.InvoiceDaysBefore)
                );
            case DueRule.AroundMainDate around:
                return new(
                    $"{plan.Share}, due {(around.Offset.Count == 0 ? "on the date" : around.Offset.Words + " the date")}",
                    part,
                    null,
                    null
                );
            default:
                throw new ArgumentOutOfRangeException(nameof(plan), plan.Due, "No such due rule.");
        }
    }
}
