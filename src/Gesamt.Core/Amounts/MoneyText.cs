using System.Globalization;

namespace Gesamt.Core.Amounts;

/// <summary>How an amount is written: “€ 6 642.00”, figures grouped by a narrow no-break space.</summary>
public static class MoneyText
{
    private const char NoBreak = '\u00a0';
    private const char Narrow = '\u202f';

    public static string Of(Money money) => $"{Sign(money.Currency)}{NoBreak}{Figures(money)}";

    /// <summary>The figures alone, without the currency.</summary>
    public static string Figures(Money money)
    {
        var format = (NumberFormatInfo)CultureInfo.InvariantCulture.NumberFormat.Clone();
        format.NumberGroupSeparator = Narrow.ToString();
        return money.Major.ToString("N" + money.Currency.Exponent, format);
    }

    private static string Sign(Currency currency) => currency.Code == "EUR" ? "€" : currency.Code;
}
