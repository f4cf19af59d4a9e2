using System.Globalization;
using System.Text;

namespace Gesamt.Formats.Files;

/// <summary>Names of entries in a ZIP (APPNOTE 6.3, 4.4.17) that every file system takes, each once: two of one name stand beside each other as “wall.png” and “wall (2).png”.</summary>
public sealed class EntryNames(params string[] taken)
{
    // in bytes of UTF-8: what the usual file systems allow of one part, with room for a number
    private const int LongestPart = 180;

    private static readonly string[] Devices =
    [
        "CON",
        "PRN",
        "AUX",
        "NUL",
        .. Enumerable.Range(1, 9).SelectMany(number => new[] { $"COM{number}", $"LPT{number}" }),
    ];

    private readonly HashSet<string> known = new(taken, StringComparer.OrdinalIgnoreCase);

    /// <summary>A name for an entry.</summary>
    /// <param name="parts">Folders from the outside in, and the file's own name; each as anybody may have typed it.</param>
    public string Take(params string[] parts)
    {
        var folder = string.Concat(parts[..^1].Select(part => $"{Part(part)}/"));
        var name = Part(parts[^1]);
        var (tried, number) = (name, 1);
        while (!known.Add(folder + tried.Normalize(NormalizationForm.FormC)))
            tried =
                $"{Path.GetFileNameWithoutExtension(name)} ({(++number).ToString(CultureInfo.InvariantCulture)}){Path.GetExtension(name)}";
        return folder + tried;
    }

    /// <summary>A text as one part of a path: nothing in it parts, climbs, hides or names a device.</summary>
    public static string Part(string text)
    {
        var plain = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
            plain.Append(
                Rune.GetUnicodeCategory(rune)
                    is UnicodeCategory.Control
                        or UnicodeCategory.Format
                        or UnicodeCategory.LineSeparator
                        or UnicodeCategory.ParagraphSeparator
                || rune == Rune.ReplacementChar
                    ? ""
                : "/\\:*?\"<>|".Contains((char)rune.Value, StringComparison.Ordinal) && rune.IsBmp ? "-"
                : rune.ToString()
            );
        var name = plain.ToString().Trim().Trim('.').Trim();
        var ending = Path.GetExtension(name) is { Length: <= 12 } short_ ? short_ : "";
        name = $"{Cut(name[..^ending.Length], LongestPart - Encoding.UTF8.GetByteCount(ending))}{ending}";
        return name.Length == 0 ? "unnamed"
            : Devices.Contains(name.Split('.')[0].Trim(), StringComparer.OrdinalIgnoreCase) ? $"_{name}"
            : name;
    }

    private static string Cut(string text, int bytes)
    {
        var (cut, used) = (new StringBuilder(), 0);
        foreach (var rune in text.EnumerateRunes())
        {
            if ((used += rune.Utf8SequenceLength) > bytes)
                break;
            cut.Append(rune);
        }
        return cut.ToString().TrimEnd();
    }
}
