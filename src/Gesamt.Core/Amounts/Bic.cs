using System.Text.RegularExpressions;

namespace Gesamt.Core.Amounts;

/// <summary>Business identifier codes of banks (ISO 9362): four letters or digits of the party, the country, two of the place, and three of a branch or none.</summary>
public static partial class Bic
{
    public const string Allowed = "A BIC of 8 or 11 letters and digits, such as AIBKIE2D.";

    public static bool IsValid(string text) => Written(text) is { } plain && Code().IsMatch(plain);

    /// <summary>In capitals, without spaces.</summary>
    public static string Written(string text) =>
        new([.. text.Where(c => !char.IsWhiteSpace(c)).Select(char.ToUpperInvariant)]);

    [GeneratedRegex("^[A-Z0-9]{4}[A-Z]{2}[A-Z0-9]{2}([A-Z0-9]{3})?$")]
    private static partial Regex Code();
}
