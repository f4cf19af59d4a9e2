using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>What is proposed until the owner says otherwise.</summary>
public static class UsualOffer
{
    private const int ValidForDays = 14;

    /// <summary>Days between the date that matters, or the handover, and the rest of the price; its invoice goes out as many before.</summary>
    private const int RestDays = 14;

    /// <summary>Two fifths are due on booking.</summary>
    public static readonly Rate OnBooking = Rate.Percent(40);

    /// <summary>The rate that most of a kind's services have, the first of several; none where there are no services.</summary>
    public static Rate Tax(IEnumerable<int> servicesPartsPerMillion) =>
        new(
            servicesPartsPerMillion
                .GroupBy(rate => rate)
                .OrderByDescending(same => same.Count())
                .Select(same => same.Key)
                .FirstOrDefault()
        );

    public static LocalDate ValidUntil(LocalDate today) => today.PlusDays(ValidForDays);

    /// <summary>The usual share on booking, the rest by the date that matters.</summary>
    public static ImmutableArray<PlanPart> Plan(KindRules kind) => Plan(OnBooking, kind, hasDate: true);

    /// <summary>A share on booking, and the rest by the date that matters; with the handover where there is none.</summary>
    public static ImmutableArray<PlanPart> Plan(Rate onBooking, KindRules kind, bool hasDate)
    {
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
                        hasDate ? new DueRule.AroundMainDate(Span.None, RestDays) : new DueRule.OnHandover(RestDays)
                    ),
                }
                : [],
        ];
    }
}
