using Gesamt.Core.Texts;

namespace Gesamt.Core.People;

/// <summary>Why somebody may be somebody already known.</summary>
public enum MatchReason
{
    Mail,
    Phone,
    Name,
    Organisation,
}

/// <summary>What is compared of a person.</summary>
public sealed record Known(PersonId Id, string Name, string? Organisation, string? Mail, string? Phone);

/// <summary>Somebody who may be the same, with the reasons, strongest first.</summary>
public sealed record Match(PersonId Id, IReadOnlyList<MatchReason> Reasons);

/// <summary>Finds people who may be the same. It only offers: one planner's address may stand for many couples.</summary>
public static class Matching
{
    private const int PhoneDigits = 7;

    /// <summary>Everybody who shares a mail address, phone or name with somebody; an organisation alone counts only beside another reason.</summary>
    public static IReadOnlyList<Match> Of(Known somebody, IEnumerable<Known> others) =>
        [
            .. others
                .Where(other => other.Id != somebody.Id)
                .Select(other => new Match(other.Id, [.. Reasons(somebody, other)]))
                .Where(match => match.Reasons.Any(reason => reason != MatchReason.Organisation))
                .OrderBy(match => match.Reasons[0])
                .ThenByDescending(match => match.Reasons.Count),
        ];

    private static IEnumerable<MatchReason> Reasons(Known a, Known b)
    {
        if (Same(a.Mail?.Trim().ToLowerInvariant(), b.Mail?.Trim().ToLowerInvariant()))
            yield return MatchReason.Mail;
        if (Same(Digits(a.Phone), Digits(b.Phone)))
            yield return MatchReason.Phone;
        if (Same(Plain(a.Name), Plain(b.Name)))
            yield return MatchReason.Name;
        if (Same(Plain(a.Organisation), Plain(b.Organisation)))
            yield return MatchReason.Organisation;
    }

    /// <summary>The last seven digits: how a number is dialled, with or without its country, makes no difference. Null for fewer.</summary>
    public static string? Digits(string? phone)
    {
        var digits = new string([.. (phone ?? "").Where(char.IsAsciiDigit)]);
        return digits.Length < PhoneDigits ? null : digits[^PhoneDigits..];
    }

    /// <summary>A name without accents, case, dots and the order of its words.</summary>
    public static string? Plain(string? name)
    {
        if (string.IsNullOrWhiteSpace(name))
            return null;
        var letters = BareText.Of(name).ToCharArray();
        for (var i = 0; i < letters.Length; i++)
            if (!char.IsLetterOrDigit(letters[i]))
                letters[i] = ' ';
        var words = new string(letters).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Array.Sort(words, StringComparer.Ordinal);
        return string.Join(' ', words);
    }

    private static bool Same(string? a, string? b) => !string.IsNullOrEmpty(a) && a == b;
}
