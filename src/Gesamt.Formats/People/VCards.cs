using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Gesamt.Core.Texts;
using MimeKit.Encodings;

namespace Gesamt.Formats.People;

/// <summary>A person as a vCard tells them. Of several addresses and phones the preferred one stands first.</summary>
public sealed record Card(
    string Name,
    string? Organisation,
    string? Mail,
    string? Phone,
    string? Address,
    string? Url,
    string? Note
)
{
    /// <summary>Further mail addresses and phones, by preference.</summary>
    public ImmutableArray<string> MoreMails { get; init; } = [];
    public ImmutableArray<string> MorePhones { get; init; } = [];

    /// <summary>By which the same card is known again (RFC 6350, 6.7.6).</summary>
    public string? Uid { get; init; }

    public bool Equals(Card? other) =>
        other is not null
        && Name == other.Name
        && Organisation == other.Organisation
        && Mail == other.Mail
        && Phone == other.Phone
        && Address == other.Address
        && Url == other.Url
        && Note == other.Note
        && Uid == other.Uid
        && MoreMails.SequenceEqual(other.MoreMails)
        && MorePhones.SequenceEqual(other.MorePhones);

    public override int GetHashCode() => HashCode.Combine(Name, Organisation, Mail, Phone, Address, Url, Note, Uid);
}

/// <summary>vCard 4.0 (RFC 6350) out; 2.1, 3.0 and 4.0 in, lenient in what they get wrong.</summary>
public static class VCards
{
    private const int LongestLine = 75;

    /// <summary>One vCard after the other, in UTF-8 with CRLF, lines folded at 75 octets (RFC 6350, 3.2).</summary>
    public static string Write(IEnumerable<Card> cards)
    {
        var text = new StringBuilder();
        foreach (var card in cards)
        {
            text.Append("BEGIN:VCARD\r\nVERSION:4.0\r\n");
            Line(text, "FN", Typed.OneLine(card.Name));
            if (card.Organisation is { } organisation)
                Line(text, "ORG", Typed.OneLine(organisation));
            Several(text, "EMAIL", card.Mail, card.MoreMails);
            Several(text, "TEL;VALUE=text", card.Phone, card.MorePhones);
            // the whole address stands in its street part: how it parts is not known
            if (card.Address is { } address)
                Fold(text, $"ADR:;;{Escape(address)};;;;");
            if (card.Url is { } url)
                Fold(text, $"URL:{Typed.OneLine(url)}");
            if (card.Note is { Length: > 0 } note)
                Line(text, "NOTE", note);
            if (card.Uid is { } uid)
                Line(text, "UID", Typed.OneLine(uid));
            text.Append("END:VCARD\r\n");
        }
        return text.ToString();
    }

    /// <summary>The first is the preferred one (PREF, RFC 6350, 5.3) where there are several.</summary>
    private static void Several(StringBuilder text, string name, string? first, ImmutableArray<string> more)
    {
        if (first is null)
            return;
        Line(text, more.IsEmpty ? name : $"{name};PREF=1", Typed.OneLine(first));
        foreach (var (other, at) in more.Select((other, at) => (other, at)))
            Line(
                text,
                $"{name};PREF={Math.Min(100, at + 2).ToString(CultureInfo.InvariantCulture)}",
                Typed.OneLine(other)
            );
    }

    /// <summary>A line of a card: its name, how much it is preferred (1 most), and its value, decoded.</summary>
    private sealed record Property(string Name, int Preference, string Value);

    /// <summary>All cards of a text that have a name.</summary>
    /// <exception cref="FormatException">It holds no vCard.</exception>
    public static IReadOnlyList<Card> Read(string text)
    {
        List<Card> cards = [];
        List<Property>? present = null;
        var any = false;
        foreach (var line in Unfolded(text))
            if (Parted(line) is not { } property)
                continue;
            else if (
                property.Name == "BEGIN"
                && property.Value.Trim().Equals("VCARD", StringComparison.OrdinalIgnoreCase)
            )
                (present, any) = ([], true);
            else if (property.Name == "END" && present is not null)
            {
                if (Of(present) is { } card)
                    cards.Add(card);
                present = null;
            }
            else
                present?.Add(property);
        return any ? cards : throw new FormatException("This is no vCard: it holds no BEGIN:VCARD.");
    }

    private static Card? Of(List<Property> lines)
    {
        IEnumerable<string> All(string name) =>
            lines.Where(line => line.Name == name).OrderBy(line => line.Preference).Select(line => line.Value);
        string? One(string name) =>
            All(name).Select(value => Unescape(value).Trim()).FirstOrDefault(value => value.Length > 0);
        string? Parts(string name, string between) =>
            All(name)
                .Select(value =>
                    string.Join(
                        between,
                        SplitAtSemicolons(value).Select(part => Unescape(part).Trim()).Where(part => part.Length > 0)
                    )
                )
                .FirstOrDefault(value => value.Length > 0);
        ImmutableArray<string> Ways(string name, string scheme) =>
            [
                .. All(name)
                    .Select(value => Unescape(value).Trim().Replace(scheme, "", StringComparison.OrdinalIgnoreCase))
                    .Where(value => value.Length > 0)
                    .Distinct(StringComparer.OrdinalIgnoreCase),
            ];
        // N is family; given; further; before; after
        var named =
            One("FN")
            ?? (
                All("N").FirstOrDefault() is { } n && SplitAtSemicolons(n) is { Count: >= 2 } parts
                    ? $"{Unescape(parts[1])} {Unescape(parts[0])}".Trim()
                    : null
            )
            ?? Parts("ORG", ", ");
        if (string.IsNullOrEmpty(named))
            return null;
        var (mails, phones) = (Ways("EMAIL", "mailto:"), Ways("TEL", "tel:"));
        return new(
            named,
            Parts("ORG", ", "),
            mails.FirstOrDefault(),
            phones.FirstOrDefault(),
            Parts("ADR", ", "),
            One("URL"),
            One("NOTE")
        )
        {
            MoreMails = [.. mails.Skip(1)],
            MorePhones = [.. phones.Skip(1)],
            Uid = One("UID"),
        };
    }

    /// <summary>Lines with their continuations: folded ones (RFC 6350, 3.2), and those of vCard 2.1 that end with the “=” of quoted-printable (RFC 2045, 6.7).</summary>
    private static IEnumerable<string> Unfolded(string text)
    {
        var line = new StringBuilder();
        var goesOn = false;
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
        {
            if (goesOn)
                line.Length--;
            if (goesOn)
                line.Append(raw);
            else if (raw.Length > 0 && raw[0] is ' ' or '\t')
                line.Append(raw.AsSpan(1));
            else
            {
                if (line.Length > 0)
                    yield return line.ToString();
                line.Clear().Append(raw);
            }
            goesOn = raw.EndsWith('=') && IsQuotedPrintable(line);
        }
        if (line.Length > 0)
            yield return line.ToString();
    }

    // the parameter stands at the beginning, so that a long value is not looked through with every line
    private static bool IsQuotedPrintable(StringBuilder line) =>
        line.ToString(0, Math.Min(line.Length, 200)).Contains("QUOTED-PRINTABLE", StringComparison.OrdinalIgnoreCase);

    /// <summary>The name without its group, its preference, and the value, decoded. A quoted parameter may hold a colon. Null for what is no property.</summary>
    private static Property? Parted(string line)
    {
        var quoted = false;
        var colon = -1;
        for (var i = 0; i < line.Length && colon < 0; i++)
            if (line[i] == '"')
                quoted = !quoted;
            else if (line[i] == ':' && !quoted)
                colon = i;
        if (colon < 0)
            return null;
        var parts = line[..colon].Split(';');
        string? Parameter(string name) =>
            parts
                .Skip(1)
                .Select(part => part.Split('=', 2))
                .FirstOrDefault(pair =>
                    pair.Length == 2 && pair[0].Trim().Equals(name, StringComparison.OrdinalIgnoreCase)
                )
                ?[1].Trim('"', ' ');
        var value = line[(colon + 1)..];
        if (parts.Skip(1).Any(part => part.EndsWith("QUOTED-PRINTABLE", StringComparison.OrdinalIgnoreCase)))
            value = Decoded(value, Parameter("CHARSET"));
        var preference =
            int.TryParse(Parameter("PREF"), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number
            : parts
                .Skip(1)
                .Any(part =>
                    part.Trim().Equals("PREF", StringComparison.OrdinalIgnoreCase)
                    || part.StartsWith("TYPE=", StringComparison.OrdinalIgnoreCase)
                        && part[5..].Trim('"').Split(',').Contains("pref", StringComparer.OrdinalIgnoreCase)
                )
                ? 1
            : 101;
        return new(parts[0][(parts[0].LastIndexOf('.') + 1)..].Trim().ToUpperInvariant(), preference, value);
    }

    private static string Decoded(string value, string? charset)
    {
        var decoder = new QuotedPrintableDecoder();
        var bytes = Encoding.Latin1.GetBytes(value);
        var decoded = new byte[decoder.EstimateOutputLength(bytes.Length)];
        var length = decoder.Decode(bytes, 0, bytes.Length, decoded);
        try
        {
            return Encoding.GetEncoding(charset ?? "utf-8").GetString(decoded, 0, length);
        }
        catch (ArgumentException)
        {
            return Encoding.UTF8.GetString(decoded, 0, length);
        }
    }

    private static List<string> SplitAtSemicolons(string value)
    {
        List<string> parts = [];
        var begins = 0;
        for (var i = 0; i < value.Length; i++)
            if (value[i] == '\\')
                i++; // what follows is escaped
            else if (value[i] == ';')
            {
                parts.Add(value[begins..i]);
                begins = i + 1;
            }
        parts.Add(value[begins..]);
        return parts;
    }

    private static void Line(StringBuilder text, string name, string value) => Fold(text, $"{name}:{Escape(value)}");

    private static void Fold(StringBuilder text, string line)
    {
        var octets = 0;
        foreach (var rune in line.EnumerateRunes())
        {
            if (octets + rune.Utf8SequenceLength > LongestLine)
            {
                text.Append("\r\n ");
                octets = 1;
            }
            text.Append(rune.ToString());
            octets += rune.Utf8SequenceLength;
        }
        text.Append("\r\n");
    }

    private static string Escape(string value) =>
        Typed
            .Lines(value)
            .Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("\n", "\\n", StringComparison.Ordinal)
            .Replace(",", "\\,", StringComparison.Ordinal)
            .Replace(";", "\\;", StringComparison.Ordinal);

    private static string Unescape(string value)
    {
        var plain = new StringBuilder();
        for (var i = 0; i < value.Length; i++)
            if (value[i] == '\\' && i + 1 < value.Length)
                plain.Append(value[++i] is 'n' or 'N' ? '\n' : value[i]);
            else
                plain.Append(value[i]);
        return plain.ToString();
    }
}
