using System.Globalization;
using System.Text.RegularExpressions;
using Gesamt.Core.Amounts;

namespace Gesamt.Core.Forms;

/// <summary>Numbers, sizes and amounts as people write them into a form: “about 24”, “6 x 4”, “24 m²”, “1200 to 2000 €”. What is doubtful is no number, so that it is asked.</summary>
public static partial class Sizes
{
    /// <summary>The number; a size of two or three sides is their product. Null where the text is none, is negative, or could be two.</summary>
    public static decimal? Number(string text, NumberMarks marks = NumberMarks.Point)
    {
        var sides = Times().Split(Bare(text)).Select(side => NumberReading.Amount(Bare(side), marks)).ToList();
        if (sides.Count > 3 || sides.Any(side => side is null or < 0 or > 1_000_000_000)) return null;
        return sides.Aggregate(1m, (product, side) => product * side!.Value);
    }

    /// <summary>An amount, or the two ends of a range; null where the text is neither.</summary>
    public static (decimal From, decimal To)? Amounts(string text, NumberMarks marks = NumberMarks.Point)
    {
        var ends = To().Split(Bare(text)).Select(end => NumberReading.Amount(Bare(end), marks)).ToList();
        return ends is [{ } only] && only >= 0 ? (only, only) : ends is [{ } from, { } to] && from >= 0 && from <= to ? (from, to) : null;
    }

    /// <summary>What a number or an amount was understood as, where its words say it otherwise.</summary>
    public static string? Understood(FormField field, string text)
    {
        var (read, unit) = field.Sort switch
        {
            FieldSort.Number when Number(text) is { } number => (Plain(number), field.Unit is { Length: > 0 } of ? $" {of}" : ""),
            FieldSort.Amount when Amounts(text) is { } amounts => (amounts.From == amounts.To ? Plain(amounts.From) : $"{Plain(amounts.From)}-{Plain(amounts.To)}", ""),
            _ => (text, ""),
        };
        return read == text ? null : read + unit;
    }

    /// <summary>An answer as a detail keeps it: a number plainly, anything else as it was written.</summary>
    public static string Value(FieldSort sort, string text) => sort == FieldSort.Number && Number(text) is { } number ? Plain(number) : text;

    /// <summary>What a doubtful number could be, as a sentence to add; empty for any other.</summary>
    public static string Doubt(string text) =>
        Times().Split(Bare(text)).Concat(To().Split(Bare(text))).Select(Bare).FirstOrDefault(NumberReading.IsDoubtful) is { } doubtful ? $" “{doubtful}” can be read as {NumberReading.Readings(doubtful)}: write which." : "";

    private static string Plain(decimal number) => number.ToString("0.######", CultureInfo.InvariantCulture);

    /// <summary>Without the words that say it is not exact, and without a unit behind it.</summary>
    private static string Bare(string text) => Unit().Replace(About().Replace(text.Trim(), ""), "$1").Trim();

    [GeneratedRegex(@"^(?:about|around|approx(?:imately|\.)?|roughly|circa|ca\.?|some|nearly|almost|maybe|up to|~|≈)\s*", RegexOptions.IgnoreCase)]
    private static partial Regex About();

    // what stands behind the last digit, if it has no digit of its own
    [GeneratedRegex(@"(\d)\s*[\p{L}²³%€$£°'’"" /.]*$")]
    private static partial Regex Unit();

    [GeneratedRegex(@"(?<=\d)[\s\p{L}]*?\s*(?:×|\*|(?<![\p{L}])x(?![\p{L}])|\bby\b|\btimes\b)\s*(?=\d)", RegexOptions.IgnoreCase)]
    private static partial Regex Times();

    [GeneratedRegex(@"(?<=[\d€$£])\s*(?:-|–|—|\bto\b)\s*(?=[\d€$£])", RegexOptions.IgnoreCase)]
    private static partial Regex To();
}
