using System.Text.RegularExpressions;

namespace Gesamt.Core.Capture;

/// <summary>What a pasted message seems to say of whoever wrote it; a suggestion to look over, never kept unseen.</summary>
public sealed record PastedInquiry(string? Name, string? Mail, string? Phone, string? Profile);

/// <summary>Reads a message that came by chat or mail for a name and the ways to reach somebody.</summary>
public static partial class PastedText
{
    public static PastedInquiry Read(string text)
    {
        var mail = Mail().Match(text) is { Success: true } found ? found.Value.ToLowerInvariant() : null;
        var phone = Phone()
            .Matches(text)
            .Select(match => match.Value.Trim())
            .FirstOrDefault(number => number.Count(char.IsAsciiDigit) is >= 7 and <= 15);
        var profile = Link().Match(text) is { Success: true } link ? link.Value : null;
        return new(NameIn(text), mail, phone, profile);
    }

    /// <summary>A line “From: name” or “Name: …”, else “I am …” or “my name is …”, else a short last line without a sentence's end.</summary>
    private static string? NameIn(string text)
    {
        var lines = text.ReplaceLineEndings("\n")
            .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        foreach (var line in lines)
            if (
                Headed().Match(line) is { Success: true } headed
                && headed.Groups[1].Value.Trim(' ', '"') is { Length: > 0 } name
            )
                return name;
        if (Spoken().Match(text) is { Success: true } spoken)
            return spoken.Groups[1].Value;
        return lines.LastOrDefault() is { } last && Signed().IsMatch(last) ? last : null;
    }

    [GeneratedRegex(@"[\w.+-]+@[\w-]+(\.[\w-]+)+")]
    private static partial Regex Mail();

    [GeneratedRegex(@"(?<![\w.])\+?[\d(][\d\s()/.-]{5,}\d")]
    private static partial Regex Phone();

    [GeneratedRegex(@"https?://[^\s<>""]+[^\s<>"".,)]")]
    private static partial Regex Link();

    [GeneratedRegex(@"^(?:from|name|sender)\s*:\s*([^<\d@]+)", RegexOptions.IgnoreCase)]
    private static partial Regex Headed();

    [GeneratedRegex(@"\b(?:[Mm]y name is|I am|I'm|this is|This is)\s+(\p{Lu}[\p{L}'’-]+(?:\s+\p{Lu}[\p{L}'’-]+){0,3})")]
    private static partial Regex Spoken();

    [GeneratedRegex(@"^\p{Lu}[\p{L}'’-]+(\s+\p{Lu}[\p{L}'’-]+){0,3}$")]
    private static partial Regex Signed();
}
