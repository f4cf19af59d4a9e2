using System.Globalization;
using System.Text.RegularExpressions;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Amounts;

/// <summary>How a place writes its numbers: the mark before the decimals, and the one that groups thousands. Spaces and apostrophes group everywhere.</summary>
public enum NumberMarks
{
    Point,
    Comma,
}

/// <summary>The one reading of numbers that people type or tables hold: “2,000”, “2 000”, “4,20”, “1.234,50”.</summary>
/// <remarks>Where a text can be read in one way only it is read so, whatever the marks; where both ways fit the marks of the place decide. Anything else is no number, and never another number.</remarks>
public static partial class NumberReading
{
    private const int Longest = 40;

    private static NumberMarks OfHouse => HouseStyle.Current.DecimalMark == ',' ? NumberMarks.Comma : NumberMarks.Point;

    /// <summary>The number; null where the text is none.</summary>
    /// <param name="marks">Of the place the text comes from; the house’s own where that is not known.</param>
    public static decimal? Of(string text, NumberMarks? marks = null)
    {
        var plain = Plain(text);
        if (plain.Length is 0 or > Longest)
            return null;
        var (point, other) = (marks ?? OfHouse) == NumberMarks.Point ? ('.', ',') : (',', '.');
        return Read(plain, point, other) ?? Read(plain, other, point);
    }

    /// <summary>Whether a text could well be two numbers: “1.500” is one and a half, or fifteen hundred.</summary>
    public static bool IsDoubtful(string text) => Doubt().IsMatch(Plain(text));

    /// <summary>What the two are, to be asked about: “1 500 or 1.5”.</summary>
    public static string Readings(string text) =>
        $"{Number(Of(text, NumberMarks.Comma))} or {Number(Of(text, NumberMarks.Point))}";

    /// <summary>An amount of money; a text that is doubtful as an amount is none. Three decimals are no doubt where the currency has them.</summary>
    public static decimal? Amount(string text, NumberMarks? marks = null, Currency? currency = null) =>
        IsDoubtful(text)
        && currency is not { Exponent: 3 }
        && Plain(text).Contains((marks ?? OfHouse) == NumberMarks.Point ? '.' : ',', StringComparison.Ordinal)
            ? null
            : Of(text, marks);

    /// <summary>Without a currency's sign or code around it, and with one kind of space and minus.</summary>
    private static string Plain(string text) =>
        Sign().Replace(Space().Replace(text.Trim(), " ").Replace('−', '-'), "").Trim();

    private static decimal? Read(string plain, char point, char group)
    {
        if (Written(point, group).Match(plain) is not { Success: true } match)
            return null;
        var digits = new string([.. match.Groups["whole"].Value.Where(char.IsAsciiDigit)]);
        return decimal.TryParse(
            $"{match.Groups["minus"].Value}{(digits.Length == 0 ? "0" : digits)}.{match.Groups["part"].Value}0",
            NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;
    }

    private static Regex Written(char point, char group) =>
        point == '.' ? PointDecimals()
        : group == '.' ? CommaDecimals()
        : throw new ArgumentOutOfRangeException(nameof(point), point, "A point or a comma.");

    private static string Number(decimal? number) =>
        number is { } known
            ? known
                .ToString("#,0.######", CultureInfo.InvariantCulture)
                .Replace(',', ' ')
                .Replace('.', HouseStyle.Current.DecimalMark)
            : "";

    // digits with one mark between every three of them, or none; a first group of “0” groups nothing
    [GeneratedRegex(
        @"^(?<minus>-?)(?:(?<whole>[1-9]\d{0,2}(?:(?<g>[, '’])\d{3})(?:\k<g>\d{3})*|\d+)(?:\.(?<part>\d*))?|\.(?<part>\d+))$"
    )]
    private static partial Regex PointDecimals();

    [GeneratedRegex(
        @"^(?<minus>-?)(?:(?<whole>[1-9]\d{0,2}(?:(?<g>[. '’])\d{3})(?:\k<g>\d{3})*|\d+)(?:,(?<part>\d*))?|,(?<part>\d+))$"
    )]
    private static partial Regex CommaDecimals();

    [GeneratedRegex(@"^-?[1-9]\d{0,2}[.,]\d{3}$")]
    private static partial Regex Doubt();

    [GeneratedRegex(@"[\s\u00a0\u2009\u202f]+")]
    private static partial Regex Space();

    [GeneratedRegex(@"^(?:[€$£¥]|[A-Z]{3}\b)\s*|\s*(?:[€$£¥]|\b[A-Z]{3})$")]
    private static partial Regex Sign();
}
