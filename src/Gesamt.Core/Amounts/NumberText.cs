using System.Globalization;

namespace Gesamt.Core.Amounts;

/// <summary>Exact numbers to and from text: quantities, unit prices, rates.</summary>
public static class NumberText
{
    /// <summary>A number as it was typed; null for none, and for one that could well be two unless it stands as this page itself writes it.</summary>
    public static decimal? Exact(string text) =>
        NumberReading.Of(text) is { } number
        && (
            !NumberReading.IsDoubtful(text)
            || !text.Contains('.', StringComparison.Ordinal)
            || Number(number) == text.Trim()
        )
            ? number
            : null;

    /// <summary>What a doubtful number could be, as a sentence to add; empty for any other.</summary>
    public static string Doubt(string text) =>
        NumberReading.IsDoubtful(text) ? $" It can be read as {NumberReading.Readings(text)}: write which." : "";

    public static string Number(decimal number) => number.ToString("0.######", CultureInfo.InvariantCulture);
}
