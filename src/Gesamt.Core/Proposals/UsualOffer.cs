using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>What a studio usually asks for.</summary>
/// <param name="OnBooking">The share due on booking.</param>
/// <param name="DueDays">Days between the date that matters, or the handover, and the rest of the price; its invoice goes out as many before.</param>
/// <param name="ValidDays">How long a proposal can be accepted.</param>
public sealed record OfferHabits(Rate OnBooking, int DueDays, int ValidDays)
{
    /// <summary>Two fifths on booking, and two weeks for everything.</summary>
    public static readonly OfferHabits Default = new(Rate.Percent(40), 14, 14);
}

/// <summary>What is proposed until the owner says otherwise.</summary>
public static class UsualOffer
{
    /// <summary>The rate that most of a kind's services have, the first of several; none where there are no services.</summary>
    public static Rate Tax(IEnumerable<int> servicesPartsPerMillion) =>
        new(
            servicesPartsPerMillion
                .GroupBy(rate => rate)
                .OrderByDescending(same => same.Count())
                .Select(same => same.Key)
                .FirstOrDefault()
        );

    public static LocalDate ValidUntil(LocalDate today, OfferHabits habits) => today.PlusDays(habits.ValidDays);

    /// <summary>The usual share on booking, and the rest by the date that matters; with the handover where there is none.</summary>
    public static ImmutableArray<PlanPart> Plan(OfferHabits habits, KindRules kind, bool hasDate)
    {
        var onBooking = habits.OnBooking;
        var rest = new Rate(1_000_000 - onBooking.PartsPerMillion);
        return
        [
            .. onBooking.PartsPerMillion > 0
                ? new[] { new PlanPart(onBooking, new DueRule.OnBooking(kind.BookingDays)) }
                : [],
            .. rest.PartsPerMillion > 0
                ? new[]
                {
                    new PlanPart(
                        rest,
                        hasDate
                            ? new DueRule.AroundMainDate(Span.None, habits.DueDays)
                            : new DueRule.OnHandover(habits.DueDays)
                    ),
                }
                : [],
        ];
    }
}
