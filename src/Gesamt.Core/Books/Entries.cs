using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Books;

/// <summary>What moved money.</summary>
public enum EntrySort
{
    /// <summary>From a client.</summary>
    Payment,

    /// <summary>Given back to a client.</summary>
    Refund,

    /// <summary>Taken back by the client's bank.</summary>
    Chargeback,

    /// <summary>From somebody who is no client.</summary>
    OtherIncome,
    Cost,
}

/// <summary>Money that moved on a day: in is positive. A transfer between accounts is none: it is neither income nor cost.</summary>
/// <param name="Account">Where it lies; null for the first account of its currency.</param>
public sealed record Entry(LocalDate On, EntrySort Sort, Money Amount, AccountId? Account);

/// <summary>What came in and went out in some days, in one currency, tax included.</summary>
/// <param name="Received">From clients, less what was given or taken back.</param>
/// <param name="Other">Other income.</param>
/// <param name="Spent">Costs, as a positive amount.</param>
public readonly record struct EntrySums(Money Received, Money Other, Money Spent)
{
    /// <summary>What is left: by as much all balances change.</summary>
    public Money Result => Received + Other - Spent;

    public static EntrySums Zero(Currency currency) =>
        new(Money.Zero(currency), Money.Zero(currency), Money.Zero(currency));

    public static EntrySums operator +(EntrySums a, EntrySums b) =>
        new(a.Received + b.Received, a.Other + b.Other, a.Spent + b.Spent);

    /// <summary>With one entry more.</summary>
    public EntrySums With(Entry entry) =>
        entry.Sort switch
        {
            EntrySort.OtherIncome => this with { Other = Other + entry.Amount },
            EntrySort.Cost => this with { Spent = Spent - entry.Amount },
            _ => this with { Received = Received + entry.Amount },
        };
}

/// <summary>Sums of entries by month; a year is the sum of its months, exactly.</summary>
public static class EntryBook
{
    /// <summary>What the entries of one currency come to.</summary>
    public static EntrySums Sum(IEnumerable<Entry> entries, Currency currency) =>
        entries
            .Where(entry => entry.Amount.Currency == currency)
            .Aggregate(EntrySums.Zero(currency), (sums, entry) => sums.With(entry));

    /// <summary>Each month from the first to the last, those without entries too.</summary>
    public static ImmutableArray<(YearMonth Month, EntrySums Sums)> ByMonth(
        IEnumerable<Entry> entries,
        Currency currency,
        YearMonth first,
        YearMonth last
    )
    {
        var of = entries.ToLookup(entry => entry.On.ToYearMonth());
        return [.. Months(first, last).Select(month => (month, Sum(of[month], currency)))];
    }

    /// <summary>The months from one to another, both included.</summary>
    public static IEnumerable<YearMonth> Months(YearMonth first, YearMonth last)
    {
        for (var month = first; month.CompareTo(last) <= 0; month = month.PlusMonths(1))
            yield return month;
    }
}
