using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;

namespace Gesamt.Core.Books;

/// <summary>What something that comes again comes to in a month and in a year: a year has 52 weeks and 12 months. Common practice.</summary>
public static class Equivalent
{
    public static Money Yearly(Money amount, Every every) => amount.Times(TimesAYear(every));

    public static Money Monthly(Money amount, Every every) => amount.Times(TimesAYear(every) / 12m);

    private static decimal TimesAYear(Every every) =>
        every switch
        {
            Every.Week => 52,
            Every.TwoWeeks => 26,
            Every.Month => 12,
            Every.Quarter => 4,
            _ => 1,
        };
}
