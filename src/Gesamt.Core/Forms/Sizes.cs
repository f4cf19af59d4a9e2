using System.Globalization;
using System.Text.RegularExpressions;
using Gesamt.Core.Amounts;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Forms;

/// <summary>Numbers, sizes and amounts as people write them into a form: “about 24”, “6 x 4”, “24 m²”, “1200 to 2000 €”, “3k”. What is doubtful is no number, so that it is asked: another measure than the one asked for, too.</summary>
public static partial class Sizes
{
    /// <summary>The number; a size of two or three sides is their product. Null where the text is none, is negative, could be two, or is of another measure.</summary>
    /// <param name="unit">What is asked for: “m²”, “days”, “letters”.</param>
    public static decimal? Number(string text, string? unit = null, NumberMarks? marks = null)
    {
        var sides = Times().Split(Bare(text)).Select(Written.Of).ToList();
        if (sides.Count > 3 || sides.Any(side => side is null || !Measures.Fit(unit, side.Behind, sides.Count)))
            return null;
        var numbers = sides.Select(side => side!.Number(marks)).ToList();
        return numbers.Any(number => number is null or < 0 or > 1_000_000_000)
            ? null
            : numbers.Aggregate(1m, (product, number) => product * number!.Value);
    }

    /// <summary>An amount, or the two ends of a range; null where the text is neither. Of “3-5k” it is not said what the 3 is.</summary>
    public static (decimal From, decimal To)? Amounts(string text, NumberMarks? marks = null)
    {
        var ends = To().Split(Bare(text)).Select(Written.Of).ToList();
        if (ends.Any(end => end is null) || ends.Select(end => end!.Thousands).Distinct().Count() > 1)
            return null;
        return ends.Select(end => end!.Number(marks)).ToList() switch
        {
            [{ } only] when only >= 0 => (only, only),
            [{ } from, { } to] when from >= 0 && from <= to => (from, to),
            _ => null,
        };
    }

    /// <summary>What a number or an amount was understood as, where its words say it otherwise.</summary>
    public static string? Understood(FormField field, string text)
    {
        var (read, unit) = field.Sort switch
        {
            FieldSort.Number when Number(text, field.Unit) is { } number => (
                House(number),
                field.Unit is { Length: > 0 } of ? $" {of}" : ""
            ),
            FieldSort.Amount when Amounts(text) is { } amounts => (
                amounts.From == amounts.To ? House(amounts.From) : $"{House(amounts.From)}-{House(amounts.To)}",
                ""
            ),
            _ => (text, ""),
        };
        return read == text ? null : read + unit;
    }

    /// <summary>An answer as a detail keeps it: a number plainly, anything else as it was written.</summary>
    public static string Value(FormField field, string text) =>
        field.Sort == FieldSort.Number && Number(text, field.Unit) is { } number ? Plain(number) : text;

    /// <summary>A kept detail as the house writes it: “31,5” of “31.5”.</summary>
    public static string InHouse(FormField field, string value) =>
        field.Sort == FieldSort.Number
        && decimal.TryParse(value, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? House(number)
            : value;

    /// <summary>What a doubtful number could be, as a sentence to add; empty for any other.</summary>
    public static string Doubt(string text) =>
        Times()
            .Split(Bare(text))
            .Concat(To().Split(Bare(text)))
            .Select(part => Written.Of(part)?.Digits ?? part)
            .FirstOrDefault(NumberReading.IsDoubtful)
            is { } doubtful
            ? $" “{doubtful}” can be read as {NumberReading.Readings(doubtful)}: write which."
            : "";

    private static string House(decimal number) => Plain(number).Replace('.', HouseStyle.Current.DecimalMark);

    private static string Plain(decimal number) => number.ToString("0.######", CultureInfo.InvariantCulture);

    /// <summary>Without the words that say it is not exact.</summary>
    private static string Bare(string text) => OrSo().Replace(About().Replace(text.Trim(), ""), "").Trim();

    /// <summary>One number as it is written, with the words behind it.</summary>
    /// <param name="Behind">“m²”, “letters”; empty where nothing stands there.</param>
    private sealed record Written(string Digits, bool Thousands, string Behind)
    {
        public static Written? Of(string text) =>
            Parts().Match(Bare(Square().Replace(text, "²"))) is { Success: true } parts
                ? new(
                    parts.Groups["digits"].Value.Trim(),
                    parts.Groups["thousands"].Success,
                    parts.Groups["behind"].Value.Trim(' ', '.', '/')
                )
                : null;

        public decimal? Number(NumberMarks? marks) => NumberReading.Amount(Digits, marks) * (Thousands ? 1000 : 1);
    }

    [GeneratedRegex(
        @"^(?:about|around|approx(?:imately|\.)?|roughly|circa|ca\.?|some|nearly|almost|maybe|up to|~|≈)\s*",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex About();

    [GeneratedRegex(
        @"(?<=[\d\p{L}²€$£])[\s,]*(?:or so|in total|in all|altogether|approx(?:imately|\.)?|roughly|circa|ca\.|max(?:imum)?|or less|at most)[.]?$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex OrSo();

    // what stands behind the last digit, if it has no digit of its own
    [GeneratedRegex(
        @"^(?<digits>.*\d)\s*(?<thousands>(?:k|thousand)(?!\p{L}))?(?<behind>[\p{L}²³%€$£°'’"" /.]*)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Parts();

    [GeneratedRegex(@"(?<=\d\s*[\p{L}]{1,2})2(?!\d)")]
    private static partial Regex Square();

    [GeneratedRegex(
        @"(?<=[\d\p{L}²'’""])\s*(?:×|\*|(?<![\p{L}])x(?![\p{L}])|\bby\b|\btimes\b)\s*(?=\d)",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Times();

    [GeneratedRegex(@"(?<=[\d€$£k])\s*(?:-|–|—|\bto\b)\s*(?=[\d€$£])", RegexOptions.IgnoreCase)]
    private static partial Regex To();
}
