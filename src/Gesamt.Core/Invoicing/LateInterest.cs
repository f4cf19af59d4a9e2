using System.Collections.Immutable;
using System.Globalization;
using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>What is asked for a payment that is late.</summary>
public abstract record LateTerms
{
    private LateTerms() { }

    public sealed record Nothing : LateTerms;

    /// <summary>So much once it is late, in major units of the invoice's currency.</summary>
    public sealed record Fixed(decimal Amount) : LateTerms;

    /// <summary>Per cent a month: 12 × rate / 365 for each day.</summary>
    public sealed record PerMonth(Rate Of) : LateTerms;

    /// <summary>Of businesses and public bodies alone (Directive 2011/7/EU): 8 percentage points above the reference rate, and 40 euro for the trouble.</summary>
    public sealed record Statutory : LateTerms;

    /// <summary>As an invoice says it; empty where nothing is asked, or not of this buyer.</summary>
    public string Words(BuyerSort buyer, Currency currency) =>
        this switch
        {
            Fixed sum => $"After the due day {MoneyText.Of(Money.Of(sum.Amount, currency))} is charged.",
            PerMonth month => $"After the due day interest of {month.Of} a month is charged, day by day.",
            Statutory when buyer != BuyerSort.Private =>
                "After the due day statutory interest is charged: 8 percentage points above the reference rate (Directive 2011/7/EU).",
            _ => "",
        };
}

/// <summary>What a client is, as far as the law of late payment asks.</summary>
public enum BuyerSort
{
    Private,
    Business,
    PublicBody,
}

/// <summary>The reference rate that holds for a half-year (Directive 2011/7/EU, article 2 (7)).</summary>
/// <param name="From">1 January or 1 July.</param>
/// <param name="Percent">May be negative.</param>
public sealed record ReferenceRate(LocalDate From, decimal Percent)
{
    /// <summary>The first day of the half-year a day lies in.</summary>
    public static LocalDate HalfYear(LocalDate day) => new(day.Year, day.Month < 7 ? 1 : 7, 1);
}

/// <summary>Days that bear interest alike.</summary>
/// <param name="Until">The last of them.</param>
/// <param name="Open">What was open on each.</param>
/// <param name="Percent">A year.</param>
public sealed record LateSpan(LocalDate From, LocalDate Until, Money Open, decimal Percent)
{
    public int Days => Period.DaysBetween(From, Until) + 1;
}

/// <summary>What can be asked for a late payment, with its working.</summary>
/// <param name="Interest">Rounded once, over all spans.</param>
/// <param name="Sum">A fixed sum; nothing for none.</param>
public sealed record LateCharge(ImmutableArray<LateSpan> Spans, Money Interest, Money Sum)
{
    public Money Total => Interest + Sum;

    /// <summary>A line for each span: “1 Apr 2024 to 30 Jun 2024, 91 days: 12.5 % a year of € 1 000.00”.</summary>
    public IEnumerable<string> Working(Func<LocalDate, string> day) =>
        Spans.Select(span =>
            $"{day(span.From)} to {day(span.Until)}, {(span.Days == 1 ? "1 day" : $"{span.Days.ToString(CultureInfo.InvariantCulture)} days")}: {NumberText.Number(span.Percent)} % a year of {MoneyText.Of(span.Open)}"
        );
}

/// <summary>Interest on late payment: simple, for each day after the due day up to and including the day of payment, stepping down with part payments. It is proposed, and never asked by itself.</summary>
public static class LateInterest
{
    private const int DaysOfYear = 365,
        PointsAbove = 8;
    private static readonly Money Trouble = Money.Of(40, Currency.Eur);

    /// <summary>What can be asked; null where nothing can: it is not late, nothing was agreed, the buyer is private, or a reference rate is not known.</summary>
    /// <param name="amount">What was open on the due day, tax included.</param>
    /// <param name="paid">What came in later, or was credited, by its day.</param>
    /// <param name="until">The last day that is counted: today, or the day of the last payment.</param>
    /// <param name="rates">Of half-years, for <see cref="LateTerms.Statutory"/>.</param>
    public static LateCharge? Of(
        LateTerms terms,
        BuyerSort buyer,
        Money amount,
        LocalDate due,
        IEnumerable<(LocalDate On, Money Amount)> paid,
        LocalDate until,
        IReadOnlyCollection<ReferenceRate> rates
    )
    {
        var none = Money.Zero(amount.Currency);
        if (until <= due || amount.Minor <= 0)
            return null;
        switch (terms)
        {
            case LateTerms.Fixed sum:
                return new([], none, Money.Of(sum.Amount, amount.Currency));
            case LateTerms.PerMonth month:
                return Charged(Spans(amount, due, paid, until, _ => 12 * month.Of.InPercent), none);
            case LateTerms.Statutory when buyer != BuyerSort.Private:
                decimal? At(LocalDate day) =>
                    rates.FirstOrDefault(rate => rate.From == ReferenceRate.HalfYear(day))?.Percent + PointsAbove;
                var spans = Spans(amount, due, paid, until, At);
                // in another currency the sum for the trouble is what the country of the debt says, which is not known here
                return Charged(spans, amount.Currency == Currency.Eur ? Trouble : none);
            default:
                return null;
        }
    }

    private static LateCharge? Charged(ImmutableArray<LateSpan>? spans, Money sum)
    {
        if (spans is not { IsEmpty: false } all)
            return null;
        var interest = all.Sum(span => span.Open.Minor * span.Percent / 100 * span.Days) / DaysOfYear;
        return new(all, new(Rounding.ToLong(Math.Max(interest, 0)), sum.Currency), sum);
    }

    /// <summary>Null where a day has no rate.</summary>
    private static ImmutableArray<LateSpan>? Spans(
        Money amount,
        LocalDate due,
        IEnumerable<(LocalDate On, Money Amount)> paid,
        LocalDate until,
        Func<LocalDate, decimal?> rate
    )
    {
        var flows = paid.OrderBy(flow => flow.On).ToList();
        // a day bears interest on what was open when it began: the day of a payment on all that was open before it
        Money OpenOn(LocalDate day) =>
            amount - flows.Where(flow => flow.On < day).Select(flow => flow.Amount).Sum(amount.Currency);
        var turns = flows
            .Select(flow => flow.On.PlusDays(1))
            .Concat(HalfYears(due, until))
            .Where(day => day > due.PlusDays(1) && day <= until)
            .Append(due.PlusDays(1))
            .Distinct()
            .Order()
            .ToList();
        List<LateSpan> spans = [];
        foreach (var (from, next) in turns.Zip(turns.Skip(1).Append(until.PlusDays(1))))
        {
            var open = OpenOn(from);
            if (open.Minor <= 0)
                continue;
            if (rate(from) is not { } percent)
                return null;
            spans.Add(new(from, next.PlusDays(-1), open, percent));
        }
        return [.. spans];
    }

    private static IEnumerable<LocalDate> HalfYears(LocalDate from, LocalDate until)
    {
        for (var day = ReferenceRate.HalfYear(from).PlusMonths(6); day <= until; day = day.PlusMonths(6))
            yield return day;
    }
}
