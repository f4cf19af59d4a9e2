using System.Collections.Immutable;
using System.Globalization;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Amounts;

/// <summary>How an amount is written in the style of the house: “€ 6 642.00”, “€ 6.642,00”.</summary>
public static class MoneyText
{
    private const char NoBreak = '\u00a0',
        Minus = '\u2212';

    private static readonly ImmutableDictionary<NumberLook, NumberFormatInfo> Formats = Enum.GetValues<NumberLook>()
        .ToImmutableDictionary(numbers => numbers, Format);

    public static string Of(Money money) => $"{Sign(money.Currency)}{NoBreak}{Figures(money)}";

    /// <summary>The figures alone, without the currency.</summary>
    public static string Figures(Money money) =>
        money.Major.ToString("N" + money.Currency.Exponent, Formats[HouseStyle.Current.Numbers]);

    /// <summary>The figures as a field of this page holds them: with all decimals of the currency, nothing between the thousands.</summary>
    public static string Field(Money money) => Exact(money).Replace('.', HouseStyle.Current.DecimalMark);

    /// <summary>The figures as tables and other programs read them: “6642.00” in every house.</summary>
    public static string Exact(Money money) =>
        money.Major.ToString($"F{money.Currency.Exponent}", CultureInfo.InvariantCulture);

    /// <summary>The figures of what came or went: “+ 2 656.80”, “− 61.00”.</summary>
    public static string Signed(Money money) =>
        money.Minor < 0 ? $"{Minus}{NoBreak}{Figures(-money)}" : $"+{NoBreak}{Figures(money)}";

    /// <summary>The figures of the major unit alone, what is behind the decimal mark left out: “6 642”.</summary>
    public static string Whole(Money money) =>
        decimal.Truncate(money.Major).ToString("N0", Formats[HouseStyle.Current.Numbers]);

    private static NumberFormatInfo Format(NumberLook numbers)
    {
        var style = HouseStyle.Plain with { Numbers = numbers };
        var format = (NumberFormatInfo)CultureInfo.InvariantCulture.NumberFormat.Clone();
        format.NumberGroupSeparator = style.GroupMark.ToString();
        format.NumberDecimalSeparator = style.DecimalMark.ToString();
        // as wide as the plus, and never taken for a hyphen
        format.NegativeSign = Minus.ToString();
        return NumberFormatInfo.ReadOnly(format);
    }

    private static string Sign(Currency currency) => currency.Code == "EUR" ? "€" : currency.Code;
}
