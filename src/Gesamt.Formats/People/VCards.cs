using Gesamt.Core.Texts;
using System.Text;

namespace Gesamt.Formats.People;

/// <summary>A person as a vCard tells them.</summary>
public sealed record Card(string Name, string? Organisation, string? Mail, string? Phone, string? Address, string? Url, string? Note);

/// <summary>vCard 4.0 (RFC 6350) out; 3.0 and 4.0 in, lenient in what they get wrong.</summary>
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
            if (card.Organisation is { } organisation) Line(text, "ORG", Typed.OneLine(organisation));
            if (card.Mail is { } mail) Line(text, "EMAIL", Typed.OneLine(mail));
            if (card.Phone is { } phone) Line(text, "TEL;VALUE=text", Typed.OneLine(phone));
            // the whole address stands in its street part: how it parts is not known
            if (card.Address is { } address) Fold(text, $"ADR:;;{Escape(address)};;;;");
            if (card.Url is { } url) Fold(text, $"URL:{Typed.OneLine(url)}");
            if (card.Note is { Length: > 0 } note) Line(text, "NOTE", note);
            text.Append("END:VCARD\r\n");
        }
        return text.ToString();
    }

    /// <summary>All cards of a text that have a name.</summary>
    /// <exception cref="FormatException">It holds no vCard.</exception>
    public static IReadOnlyList<Card> Read(string text)
    {
        List<Card> cards = [];
        Dictionary<string, string>? present = null;
        var any = false;
        foreach (var (name, value) in Unfolded(text).Select(Parted))
            if (name == "BEGIN" && value.Equals("VCARD", StringComparison.OrdinalIgnoreCase)) (present, any) = ([], true);
            else if (name == "END" && present is not null)
            {
                if (Of(present) is { } card) cards.Add(card);
                present = null;
            }
            else present?.TryAdd(name, value); // the first of several is the preferred one, common practice
        return any ? cards : throw new FormatException("This is no vCard: it holds no BEGIN:VCARD.");
    }

    private static Card? Of(Dictionary<string, string> lines)
    {
        string? One(string name) => lines.TryGetValue(name, out var value) && Unescape(value).Trim() is { Length: > 0 } plain ? plain : null;
        string? Parts(string name, string between) => lines.TryGetValue(name, out var value)
            && string.Join(between, SplitAtSemicolons(value).Select(part => Unescape(part).Trim()).Where(part => part.Length > 0)) is { Length: > 0 } joined ? joined : null;
        // N is family; given; further; before; after
        var named = One("FN") ?? (lines.TryGetValue("N", out var n) && SplitAtSemicolons(n) is { Count: >= 2 } parts ? $"{Unescape(parts[1])} {Unescape(parts[0])}".Trim() : null) ?? Parts("ORG", ", ");
        return string.IsNullOrEmpty(named) ? null : new(named, Parts("ORG", ", "), One("EMAIL"), One("TEL")?.Replace("tel:", "", StringComparison.OrdinalIgnoreCase), Parts("ADR", ", "), One("URL"), One("NOTE"));
    }

    private static IEnumerable<string> Unfolded(string text)
    {
        var line = new StringBuilder();
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
            if (raw.Length > 0 && raw[0] is ' ' or '\t') line.Append(raw.AsSpan(1));
            else
            {
                if (line.Length > 0) yield return line.ToString();
                line.Clear().Append(raw);
            }
        if (line.Length > 0) yield return line.ToString();
    }

    /// <summary>The name without its group and parameters, and the value. A quoted parameter may hold a colon.</summary>
    private static (string Name, string Value) Parted(string line)
    {
        var quoted = false;
        var colon = -1;
        for (var i = 0; i < line.Length && colon < 0; i++)
            if (line[i] == '"') quoted = !quoted;
            else if (line[i] == ':' && !quoted) colon = i;
        if (colon < 0) return ("", "");
        var name = line[..colon].Split(';')[0];
        return (name[(name.LastIndexOf('.') + 1)..].ToUpperInvariant(), line[(colon + 1)..]);
    }

    private static List<string> SplitAtSemicolons(string value)
    {
        List<string> parts = [];
        var begins = 0;
        for (var i = 0; i < value.Length; i++)
            if (value[i] == '\\') i++; // what follows is escaped
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
        Typed.Lines(value).Replace("\\", "\\\\", StringComparison.Ordinal).Replace("\n", "\\n", StringComparison.Ordinal).Replace(",", "\\,", StringComparison.Ordinal).Replace(";", "\\;", StringComparison.Ordinal);

    private static string Unescape(string value)
    {
        var plain = new StringBuilder();
        for (var i = 0; i < value.Length; i++)
            if (value[i] == '\\' && i + 1 < value.Length) plain.Append(value[++i] is 'n' or 'N' ? '\n' : value[i]);
            else plain.Append(value[i]);
        return plain.ToString();
    }
}
