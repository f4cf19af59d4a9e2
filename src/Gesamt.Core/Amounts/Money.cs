using System.Collections.Immutable;

namespace Gesamt.Core.Amounts;

/// <summary>An amount in the minor unit of its currency (cents for EUR, yen for JPY).</summary>
/// <remarks>Adding two currencies throws <see cref="CurrencyMismatchException"/>: amounts of different currencies are never summed.</remarks>
public readonly record struct Money(long Minor, Currency Currency) : IComparable<Money>
{
    public static Money Zero(Currency currency) => new(0, currency);

    /// <summary>An amount in major units, rounded half away from zero to the minor unit.</summary>
    /// <exception cref="OverflowException">More than a 64-bit count of minor units.</exception>
    public static Money Of(decimal major, Currency currency) => new(Rounding.ToLong(major * Scale(currency)), currency);

    public static Money operator +(Money a, Money b) => new(checked(a.Minor + b.Minor), Currency.Same(a, b));

    public static Money operator -(Money a, Money b) => new(checked(a.Minor - b.Minor), Currency.Same(a, b));

    public static Money operator -(Money a) => new(checked(-a.Minor), a.Currency);

    public static bool operator <(Money a, Money b) => a.CompareTo(b) < 0;

    public static bool operator >(Money a, Money b) => a.CompareTo(b) > 0;

    public static bool operator <=(Money a, Money b) => a.CompareTo(b) <= 0;

    public static bool operator >=(Money a, Money b) => a.CompareTo(b) >= 0;

    /// <summary>This amount in major units, exact.</summary>
    public decimal Major => Minor / Scale(Currency);

    /// <summary>This amount times an exact factor, rounded half away from zero.</summary>
    public Money Times(decimal factor) => new(Rounding.ToLong(Minor * factor), Currency);

    /// <summary>Tax on this amount: round(net × rate). EN 16931, BR-CO-17.</summary>
    public Money Times(Rate rate) => Times(rate.Fraction);

    /// <summary>Shares of this amount in proportion to <paramref name="weights"/>; they add up to it exactly (largest remainder, ties to the earlier).</summary>
    /// <exception cref="ArgumentException">A weight is negative, or all are zero.</exception>
    public ImmutableArray<Money> Split(params ReadOnlySpan<long> weights)
    {
        var currency = Currency;
        return [.. LargestRemainder.Of(Minor, weights).Select(minor => new Money(minor, currency))];
    }

    public int CompareTo(Money other)
    {
        _ = Currency.Same(this, other);
        return Minor.CompareTo(other.Minor);
    }

    public override string ToString() => MoneyText.Of(this);

    private static decimal Scale(Currency currency) =>
        currency.Exponent switch
        {
            0 => 1m,
            2 => 100m,
            3 => 1_000m,
            _ => 10_000m,
        };
}

/// <summary>Sums that keep their currency also when there is nothing to add.</summary>
public static class MoneySums
{
    public static Money Sum(this IEnumerable<Money> amounts, Currency currency) =>
        amounts.Aggregate(Money.Zero(currency), (sum, amount) => sum + amount);
}

/// <summary>A tax or discount rate in parts per million: 23 % is 230 000.</summary>
public readonly record struct Rate(int PartsPerMillion)
{
    /// <summary>A rate of so many per cent, exact to four decimals.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Below 0, over 100 or finer than four decimals.</exception>
    public static Rate Percent(decimal percent)
    {
        var parts = percent * 10_000m;
        if (parts is < 0 or > 1_000_000 || parts != decimal.Truncate(parts))
            throw new ArgumentOutOfRangeException(
                nameof(percent),
                percent,
                "A rate lies between 0 and 100 % with at most four decimals."
            );
        return new((int)parts);
    }

    /// <summary>The rate as a fraction of one.</summary>
    public decimal Fraction => PartsPerMillion / 1_000_000m;

    /// <summary>The rate in per cent.</summary>
    public decimal InPercent => PartsPerMillion / 10_000m;

    public override string ToString() =>
        $"{InPercent.ToString("0.####", System.Globalization.CultureInfo.InvariantCulture)} %";
}

/// <summary>Rounding half away from zero, the only one used for money.</summary>
public static class Rounding
{
    public static long ToLong(decimal value) => decimal.ToInt64(decimal.Round(value, 0, MidpointRounding.AwayFromZero));
}
