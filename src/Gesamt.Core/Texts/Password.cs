using System.Collections.Immutable;
using System.Globalization;

namespace Gesamt.Core.Texts;

/// <summary>How a chosen password holds.</summary>
/// <param name="Allowed">Whether it can be taken.</param>
/// <param name="Words">What is wrong with it, or how strong it is.</param>
public sealed record PasswordReading(bool Allowed, string Words);

/// <summary>Which passwords an owner may choose: by length and against what is guessed first, never by sorts of characters (NIST SP 800-63B, 5.1.1.2: length, commonly used, repetitive or sequential, and words of the service and its user).</summary>
public static class Password
{
    public const int Shortest = 10;

    /// <summary>NIST asks for 64 at least; beyond this nobody types.</summary>
    public const int Longest = 200;

    private const int Strong = 16,
        FewestCharacters = 5,
        LongestRun = 4;

    // from memory: what stands at the head of published lists of leaked passwords and is long enough to be tried here
    private static readonly ImmutableArray<string> Common =
    [
        "password",
        "passwort",
        "motdepasse",
        "letmein",
        "iloveyou",
        "welcome",
        "qwerty",
        "qwertz",
        "azerty",
        "football",
        "princess",
        "sunshine",
        "superman",
        "trustno1",
        "monkey",
        "dragon",
        "master",
        "admin",
        "login",
        "secret",
        "gesamt",
    ];

    private static readonly ImmutableArray<string> Rows =
    [
        "abcdefghijklmnopqrstuvwxyz",
        "01234567890",
        "qwertyuiop",
        "qwertzuiop",
        "asdfghjkl",
        "zxcvbnm",
        "yxcvbnm",
        "azertyuiop",
    ];

    /// <param name="own">Words that are guessed first for this person: names, the studio, the mail address.</param>
    public static PasswordReading Read(string password, IEnumerable<string> own)
    {
        var length = new StringInfo(password).LengthInTextElements;
        if (length < Shortest)
            return No(
                length == 0
                    ? $"At least {Shortest} characters. A few words are easier to keep than signs."
                    : $"Too short: {Shortest - length} more character{(Shortest - length == 1 ? "" : "s")}."
            );
        if (length > Longest)
            return No($"At most {Longest} characters.");
        var plain = password.ToLowerInvariant();
        if (plain.Distinct().Count() < FewestCharacters)
            return No("Easily guessed: the same few characters over and over.");
        // what is left once the guessable parts are taken out has to stand for itself
        var rest = Runs(Without(plain, Common.Concat(Parts(own))));
        if (rest.Count(char.IsLetterOrDigit) < Shortest / 2)
            return No(
                "Easily guessed: it is a name, a common word or a row of keys. Add words that have nothing to do with you."
            );
        return new(true, length >= Strong ? "Strong." : "Enough. One more word makes it strong.");
    }

    private static PasswordReading No(string why) => new(false, why);

    private static IEnumerable<string> Parts(IEnumerable<string> own) =>
        own.SelectMany(text =>
                text.ToLowerInvariant()
                    .Split([' ', '@', '.', '-', '_', '&', ','], StringSplitOptions.RemoveEmptyEntries)
            )
            .Where(word => word.Length >= 4);

    private static string Without(string text, IEnumerable<string> words) =>
        words
            .OrderByDescending(word => word.Length)
            .Aggregate(text, (left, word) => left.Replace(word, " ", StringComparison.Ordinal));

    /// <summary>Without rows of the keyboard, the alphabet or the digits, forwards or backwards.</summary>
    private static string Runs(string text)
    {
        foreach (var row in Rows.SelectMany(row => new[] { row, new string([.. row.Reverse()]) }))
            for (var size = row.Length; size >= LongestRun; size--)
            for (var at = 0; at + size <= row.Length; at++)
                text = text.Replace(row.Substring(at, size), " ", StringComparison.Ordinal);
        return text;
    }
}
