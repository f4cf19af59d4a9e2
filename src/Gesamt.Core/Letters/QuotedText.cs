using System.Text.RegularExpressions;

namespace Gesamt.Core.Letters;

/// <summary>Earlier text that a letter quotes, in the ways of the common mail programs. Common practice.</summary>
public static partial class QuotedText
{
    /// <summary>Parts a plain text body into what was written and what is quoted.</summary>
    /// <remarks>Quoted is what stands below a line that introduces it (“On … wrote:”, “-----Original Message-----”, a block of From, Sent, To and Subject), and lines that begin with “&gt;” at either end. What was written between or below quoted lines stays.</remarks>
    public static (string Own, string Quoted) Split(string body)
    {
        var lines = Lines(body);
        var first = Below(lines);
        if (first == lines.Length)
            return Above(lines) is > 0 and var end
                ? (Joined(lines[end..]), Joined(lines[..end]))
                : (body.TrimEnd(), "");
        // a letter that is all quoted, or begins with it, says nothing of its own only if nothing stands below
        return Joined(lines[..first]) is { Length: > 0 } own ? (own, Joined(lines[first..]))
            : Above(lines) is > 0 and var top && top < lines.Length ? (Joined(lines[top..]), Joined(lines[..top]))
            : ("", Joined(lines));
    }

    /// <summary>Where what is quoted begins and goes on to the end; the number of lines when nothing is.</summary>
    private static int Below(string[] lines)
    {
        var trailing = lines.Length;
        while (trailing > 0 && IsQuotedOrEmpty(lines[trailing - 1]))
            trailing--;
        var quoted = lines[trailing..].Any(IsQuoted) ? Introduced(lines, trailing) : lines.Length;
        for (var i = 0; i < quoted; i++)
        {
            if (Original().IsMatch(lines[i]) || IsHeaderBlock(lines, i))
                return i;
            // programs that quote without a mark: all below is the earlier letter, unless it is marked and answered in between
            if (IntroducedAt(lines, i) is > 0 and var next && !lines[next..].Any(IsQuoted))
                return i;
        }
        return quoted;
    }

    /// <summary>Where a block of quoted lines at the top ends, with what introduces it; 0 when there is none.</summary>
    private static int Above(string[] lines)
    {
        var begin = Array.FindIndex(lines, line => line.Trim().Length > 0);
        if (begin < 0)
            return 0;
        if (!IsQuoted(lines[begin]))
            begin = IntroducedAt(lines, begin) is > 0 and var next ? next : lines.Length;
        while (begin < lines.Length && lines[begin].Trim().Length == 0)
            begin++;
        if (begin >= lines.Length || !IsQuoted(lines[begin]))
            return 0;
        while (begin < lines.Length && IsQuotedOrEmpty(lines[begin]))
            begin++;
        // an answer between quoted lines is left where it stands
        return lines[begin..].Any(IsQuoted) ? 0 : begin;
    }

    /// <summary>The line above quoted ones that introduces them, which may be broken into two.</summary>
    private static int Introduced(string[] lines, int first)
    {
        var at = first;
        while (at > 0 && lines[at - 1].Trim().Length == 0)
            at--;
        for (var i = Math.Max(0, at - 3); i < at; i++)
            if (IntroducedAt(lines, i) == at)
                return i;
        return at > 0 && lines[at - 1].TrimEnd().EndsWith(':') ? at - 1 : first;
    }

    /// <summary>The line after an introduction that begins at a line and has up to three; 0 when none begins there.</summary>
    private static int IntroducedAt(string[] lines, int i)
    {
        if (!Begins().IsMatch(lines[i]))
            return 0;
        var text = "";
        for (var n = 0; n < 3 && i + n < lines.Length; n++)
        {
            text = $"{text} {lines[i + n].Trim()}".Trim();
            if (Wrote().IsMatch(text))
                return i + n + 1;
        }
        return 0;
    }

    /// <summary>From, Sent or Date, To, Subject, one below the other, in the languages of Europe.</summary>
    private static bool IsHeaderBlock(string[] lines, int i) =>
        i + 2 < lines.Length
        && FromLine().IsMatch(lines[i])
        && lines.Skip(i + 1).Take(5).Count(line => OtherLine().IsMatch(line)) >= 2;

    private static bool IsQuoted(string line) => line.StartsWith('>');

    private static bool IsQuotedOrEmpty(string line) => IsQuoted(line) || line.Trim().Length == 0;

    // no byte of any encoding but a line feed ends a line here: the text was decoded before
    private static string[] Lines(string body) =>
        body.Replace("\r\n", "\n", StringComparison.Ordinal).Replace('\r', '\n').TrimEnd().Split('\n');

    private static string Joined(string[] lines) => string.Join('\n', lines).Trim('\n').TrimEnd();

    [GeneratedRegex(
        @"^\s*-{2,}\s*(Original Message|Original-Nachricht|Urspr.ngliche Nachricht|Message d'origine|Mensaje original|Messaggio originale|Oorspronkelijk bericht|Ursprungligt meddelande|Oprindelig meddelelse|Wiadomo.. oryginalna|P.vodn. zpr.va)\s*-{2,}\s*$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Original();

    [GeneratedRegex(
        @"^\s*(On|Am|Le|El|Il|Op|Den|Em|Dnia|W dniu|Dne|På|Pe|Στις|В|\d{1,2}[./ ]\d{1,2}[./ ]\d{2,4}|\d{4}-\d{2}-\d{2}|\w{2,4}[.,]? \d{1,2}[. ])",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Begins();

    // with a date or an address before it; in some languages the name stands behind the word
    [GeneratedRegex(
        @"[\d@].*\b(?:(?:wrote|a écrit|escribió|ha scritto|escreveu|napisał(?:\(a\))?|napsal(?:\(a\))?|kirjoitti|írta|έγραψε|написал(?:а|\(а\))?)|(?:schrieb|schreef|skrev)\b[^:]{0,80})\s*:\s*$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Wrote();

    [GeneratedRegex(@"^\s*\*?(From|Von|De|Da|Van|Från|Fra|Od|Lähettäjä)\*?\s*:\*?\s", RegexOptions.IgnoreCase)]
    private static partial Regex FromLine();

    [GeneratedRegex(
        @"^\s*\*?(Sent|Date|To|Cc|Subject|Gesendet|Datum|An|Betreff|Envoyé|À|Objet|Enviado|Fecha|Para|Asunto|Inviato|Data|A|Oggetto|Verzonden|Aan|Onderwerp|Skickat|Till|Ämne|Sendt|Til|Emne|Wysłano|Do|Temat|Odesláno|Komu|Předmět)\*?\s*:\*?\s",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex OtherLine();
}
