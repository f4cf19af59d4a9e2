using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Core.Papers;

/// <summary>JSON in the one form of RFC 8785 (JCS), so that the same content always has the same bytes and hash.</summary>
/// <remarks>Numbers must be whole and within ±(2^53 − 1); amounts are minor units and exact decimals travel as strings, so nothing else occurs.</remarks>
public static class CanonicalJson
{
    private const long Largest = 9_007_199_254_740_991;

    /// <summary>The canonical bytes, UTF-8 without a byte order mark.</summary>
    /// <exception cref="FormatException">A number is not whole or too large to be exact.</exception>
    public static byte[] Of(JsonNode? node)
    {
        var text = new StringBuilder();
        Write(node, text);
        return Encoding.UTF8.GetBytes(text.ToString());
    }

    /// <summary>SHA-256 in lower-case hexadecimal, as sha256sum prints it.</summary>
    public static string Hash(ReadOnlySpan<byte> bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    private static void Write(JsonNode? node, StringBuilder text)
    {
        switch (node)
        {
            case JsonObject map:
                // property names are sorted by their UTF-16 code units (3.2.3)
                Join(
                    text,
                    '{',
                    '}',
                    map.OrderBy(pair => pair.Key, StringComparer.Ordinal),
                    pair =>
                    {
                        WriteString(pair.Key, text);
                        text.Append(':');
                        Write(pair.Value, text);
                    }
                );
                break;
            case JsonArray list:
                Join(text, '[', ']', list, item => Write(item, text));
                break;
            case null:
                text.Append("null");
                break;
            default:
                WriteValue(node.AsValue(), text);
                break;
        }
    }

    private static void WriteValue(JsonValue value, StringBuilder text)
    {
        switch (value.GetValueKind())
        {
            case JsonValueKind.String:
                WriteString(value.GetValue<string>(), text);
                break;
            case JsonValueKind.True:
                text.Append("true");
                break;
            case JsonValueKind.False:
                text.Append("false");
                break;
            default:
                var raw = value.ToJsonString();
                if (
                    !long.TryParse(raw, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
                    || Math.Abs(number) > Largest
                )
                    throw new FormatException($"{raw} is no whole number within ±{Largest}.");
                text.Append(number.ToString(CultureInfo.InvariantCulture));
                break;
        }
    }

    /// <summary>Escapes only what must be: quotation mark, backslash and control characters (3.2.2.2).</summary>
    private static void WriteString(string value, StringBuilder text)
    {
        text.Append('"');
        foreach (var c in value)
            text.Append(
                c switch
                {
                    '"' => "\\\"",
                    '\\' => "\\\\",
                    '\b' => "\\b",
                    '\f' => "\\f",
                    '\n' => "\\n",
                    '\r' => "\\r",
                    '\t' => "\\t",
                    < ' ' => $"\\u{(int)c:x4}",
                    _ => c.ToString(),
                }
            );
        text.Append('"');
    }

    private static void Join<T>(StringBuilder text, char open, char close, IEnumerable<T> items, Action<T> write)
    {
        text.Append(open);
        var first = true;
        foreach (var item in items)
        {
            if (!first)
                text.Append(',');
            first = false;
            write(item);
        }
        text.Append(close);
    }
}
