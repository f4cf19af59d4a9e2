using System.Text;
using CsvHelper;

namespace Gesamt.Formats.Tables;

/// <summary>A table as it was kept: its headings and rows in their order, every row as long as the headings.</summary>
/// <param name="Separator">What parts its columns; null for a workbook.</param>
public sealed record TableText(
    char? Separator,
    IReadOnlyList<string> Headings,
    IReadOnlyList<IReadOnlyList<string>> Rows
)
{
    private const int MostRows = 20_000,
        MostColumns = 60;
    private static readonly char[] Known = [',', ';', '\t', '|'];

    /// <summary>Reads a workbook, or CSV (RFC 4180) with whatever separator and of whatever of the usual encodings, as table programs write it.</summary>
    /// <exception cref="FormatException">There is no heading with rows below it, or too much of either.</exception>
    public static TableText Read(byte[] bytes, char? separator = null) =>
        Workbook.Is(bytes) ? Of(null, Workbook.Rows(bytes)) : OfText(Decode(bytes), separator);

    private static TableText OfText(string text, char? separator)
    {
        if (text.Contains('\0', StringComparison.Ordinal))
            throw new FormatException(
                "This is no table: save it as CSV or as a workbook (.xlsx), and choose that file."
            );
        var used = separator ?? SeparatorOf(text);
        return Of(used, Lines(text, used));
    }

    private static IEnumerable<IReadOnlyList<string>> Lines(string text, char separator)
    {
        using var csv = CsvReader.Create(
            new StringReader(text),
            new CsvReaderOptions
            {
                Separator = separator,
                HasHeader = false,
                SkipEmptyLines = true,
                MalformedData = CsvMalformedDataHandling.Recover,
            },
            false
        );
        while (csv.Read())
            yield return [.. Enumerable.Range(0, csv.FieldCount).Select(i => csv.GetString(i))];
    }

    private static TableText Of(char? separator, IEnumerable<IReadOnlyList<string>> lines)
    {
        List<List<string>> rows = [];
        foreach (var line in lines)
        {
            if (line.Count > MostColumns && line.Skip(MostColumns).Any(cell => cell.Trim().Length > 0))
                throw new FormatException($"At most {MostColumns} columns can be read.");
            var row = line.Take(MostColumns).Select(cell => cell.Trim()).ToList();
            if (row.Any(cell => cell.Length > 0))
                rows.Add(row);
            if (rows.Count > MostRows + 1)
                throw new FormatException($"At most {MostRows} rows can be taken over at once.");
        }
        if (rows.Count < 2)
            throw new FormatException("A first row with headings and at least one row below it are needed.");
        // a sheet is as wide as its widest row
        IReadOnlyList<string> headings =
        [
            .. rows[0].Take(separator is null ? rows[0].FindLastIndex(cell => cell.Length > 0) + 1 : rows[0].Count),
        ];
        return new(
            separator,
            headings,
            [
                .. rows.Skip(1)
                    .Select(row =>
                        (IReadOnlyList<string>)
                            [
                                .. row.Take(headings.Count),
                                .. Enumerable.Repeat("", Math.Max(0, headings.Count - row.Count)),
                            ]
                    ),
            ]
        );
    }

    /// <summary>The separator that parts the first lines into the most columns.</summary>
    private static char SeparatorOf(string text)
    {
        var first = text.Split('\n', 2)[0];
        return Known.MaxBy(separator => first.Count(c => c == separator));
    }

    /// <summary>UTF-16 where it says so or every second byte is nought; else UTF-8; else the Windows code page of the west (1252) or the middle (1250) of Europe, by the letters that stand in its words.</summary>
    private static string Decode(byte[] bytes)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        if (Wide(bytes) is { } wide)
            return wide.GetString(bytes).TrimStart('\ufeff');
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes).TrimStart('\ufeff');
        }
        catch (DecoderFallbackException)
        {
            return Encoding.GetEncoding(IsOfTheMiddle(bytes) ? 1250 : 1252).GetString(bytes);
        }
    }

    private static UnicodeEncoding? Wide(byte[] bytes)
    {
        if (bytes.Length < 4)
            return null;
        var head = bytes.AsSpan(0, Math.Min(bytes.Length, 400));
        int even = 0,
            odd = 0;
        for (var i = 0; i < head.Length; i++)
            if (head[i] == 0)
                _ = i % 2 == 0 ? even++ : odd++;
        var little = bytes is [0xff, 0xfe, ..] || odd > head.Length / 4 && even == 0;
        var big = bytes is [0xfe, 0xff, ..] || even > head.Length / 4 && odd == 0;
        return little || big ? new(bigEndian: big, byteOrderMark: true) : null;
    }

    // letters in Windows-1250 that are signs in Windows-1252: Ą Ł Ş Ż ą ł ş ľ Ľ ż Ť Ź ť
    private static readonly byte[] SignsInTheWest =
    [
        0xa5,
        0xa3,
        0xaa,
        0xaf,
        0xb9,
        0xb3,
        0xba,
        0xbe,
        0xbc,
        0xbf,
        0x8d,
        0x8f,
        0x9d,
    ];

    // č ě ř ů ő ű, which read as è ì ø ù õ û; and š ž, which both pages have, where Slavic words are
    private static readonly byte[] Middle = [0xe8, 0xec, 0xf8, 0xf9, 0xf5, 0xfb],
        Slavic = [0x9a, 0x9e, 0x8a, 0x8e];

    // å ä's neighbours of the north, ã and ç of the south-west
    private static readonly byte[] West = [0xe5, 0xc5, 0xe3, 0xc3, 0xe0, 0xc0];

    private static bool IsOfTheMiddle(byte[] bytes)
    {
        bool InWord(int i) =>
            i > 0 && char.IsAsciiLetter((char)bytes[i - 1])
            || i + 1 < bytes.Length && char.IsAsciiLetter((char)bytes[i + 1]);
        int signs = 0,
            middle = 0,
            slavic = 0,
            west = 0;
        for (var i = 0; i < bytes.Length; i++)
            if (bytes[i] >= 0x80 && InWord(i))
            {
                if (SignsInTheWest.Contains(bytes[i]))
                    signs++;
                if (Middle.Contains(bytes[i]))
                    middle++;
                if (Slavic.Contains(bytes[i]))
                    slavic++;
                if (West.Contains(bytes[i]))
                    west++;
            }
        return signs > 0
            || west == 0
                && (
                    slavic > 0 && middle > 0
                    || bytes.Contains((byte)0xf5)
                    || bytes.Contains((byte)0xfb) && slavic == 0 && middle > 1
                );
    }
}
