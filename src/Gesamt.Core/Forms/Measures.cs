namespace Gesamt.Core.Forms;

/// <summary>Measures and how people write them, so that “600 cm” is not taken for 600 m.</summary>
internal static class Measures
{
    private static readonly string[][] Known =
    [
        ["m²", "sqm", "sq m", "sq. m", "square metre", "square meter"],
        ["ft²", "sqft", "sq ft", "sq. ft", "square foot", "square feet"],
        ["m", "metre", "meter"],
        ["cm", "centimetre", "centimeter"],
        ["mm", "millimetre", "millimeter"],
        ["km", "kilometre", "kilometer"],
        ["ft", "foot", "feet", "'", "’"],
        ["in", "inch", "inches", "\""],
        ["yd", "yard"],
        ["minute", "min"],
        ["hour", "h", "hr"],
        ["day", "d"],
        ["week"],
        ["month"],
        ["year"],
        ["g", "gram"],
        ["kg", "kilo", "kilogram"],
        ["%", "per cent", "percent"],
    ];

    /// <summary>Whether what stands behind a number is what was asked for. Sides of an area are in its length.</summary>
    /// <param name="unit">What is asked for; where that is no measure, such as “letters”, any word but another measure fits.</param>
    /// <param name="sides">How many numbers are multiplied.</param>
    public static bool Fit(string? unit, string behind, int sides)
    {
        if (behind.Length == 0)
            return true;
        var (asked, given) = (Of(unit ?? ""), Of(behind));
        if (asked is null)
            return given is null || string.IsNullOrEmpty(unit);
        return given == asked || sides > 1 && given is not null && (asked, given) is ("m²", "m") or ("ft²", "ft");
    }

    /// <summary>The measure a word is; null where it is none.</summary>
    private static string? Of(string word)
    {
        var plain = word.Trim().ToLowerInvariant();
        return Known.FirstOrDefault(names => names.Any(name => plain == name || plain == $"{name}s"))?[0];
    }
}
