using System.Globalization;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Amounts;

/// <summary>Exact numbers to and from text: quantities, unit prices, rates.</summary>
public static class NumberText
{
    /// <summary>A number as it was typed; null for none, and for one that could well be two unless it stands as this page itself writes it.</summary>
    public static decimal? Exact(string text) =>
        NumberReading.Of(text) is { } number
        && (
            !NumberReading.IsDoubtful(text)
            || !text.Contains(HouseStyle.Current.DecimalMark, StringComparison.Ordinal)
            || Number(number) == text.Trim()
        )
            ? number
            : null;

    /// <summary>A share as it was typed, “23” or “23 %”: 0 to 100 with at most four decimals. Null for anything else.</summary>
    public static Rate? Percent(string text) =>
        Exact(text.Trim().TrimEnd('%').Trim()) is { } percent
        && percent is >= 0 and <= 100
        && decimal.Round(percent, 4) == percent
            ? Rate.Percent(percent)
            : null;

    /// <summary>What a doubtful number could be, as a sentence to add; empty for any other.</summary>
    public static string Doubt(string text) =>
        NumberReading.IsDoubtful(text) ? $" It can be read as {NumberReading.Readings(text)}: write which." : "";

    /// <summary>A number as a field of this page holds it: without groups, with the house’s mark before its decimals.</summary>
    public static string Number(decimal number) =>
        number.ToString("0.######", CultureInfo.InvariantCulture).Replace('.', HouseStyle.Current.DecimalMark);
}
