using System.Text;
using CsvHelper;

namespace Gesamt.Formats.Tables;

/// <summary>A table as it was kept: its headings and rows in their order, every row as long as the headings.</summary>
public sealed record TableText(char Separator, IReadOnlyList<string> Headings, IReadOnlyList<IReadOnlyList<string>> Rows)
{
    private const int MostRows = 20_000, MostColumns = 60;
    private static readonly char[] Known = [',', ';', '\t', '|'];

    /// <summary>Reads CSV (RFC 4180) with whatever separator and of UTF-8, or else Windows-1252, as table programs write it.</summary>
    /// <exception cref="FormatException">There is no heading with rows below it, or too much of either.</exception>
    public static TableText Read(byte[] bytes, char? separator = null)
    {
        var text = Decode(bytes);
        if (text.Contains('\0', StringComparison.Ordinal)) throw new FormatException("This is no text: save the table as CSV and choose that file.");
        var used = separator ?? SeparatorOf(text);
        List<IReadOnlyList<string>> rows = [];
        using var csv = CsvReader.Create(new StringReader(text), new CsvReaderOptions { Separator = used, HasHeader = false, SkipEmptyLines = true, MalformedData = CsvMalformedDataHandling.Recover }, false);
        while (csv.Read())
        {
            if (csv.FieldCount > MostColumns) throw new FormatException($"At most {MostColumns} columns can be read.");
            var row = Enumerable.Range(0, csv.FieldCount).Select(i => csv.GetString(i).Trim()).ToList();
            if (row.Any(cell => cell.Length > 0)) rows.Add(row);
            if (rows.Count > MostRows + 1) throw new FormatException($"At most {MostRows} rows can be taken over at once.");
        }
        if (rows.Count < 2) throw new FormatException("A first row with headings and at least one row below it are needed.");
        var headings = rows[0];
        return new(used, headings, [.. rows.Skip(1).Select(row => (IReadOnlyList<string>)[.. row.Take(headings.Count), .. Enumerable.Repeat("", Math.Max(0, headings.Count - row.Count))])]);
    }

    /// <summary>The separator that parts the first lines into the most columns.</summary>
    private static char SeparatorOf(string text)
    {
        var first = text.Split('\n', 2)[0];
        return Known.MaxBy(separator => first.Count(c => c == separator));
    }

    private static string Decode(byte[] bytes)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes).TrimStart('\ufeff');
        }
        catch (DecoderFallbackException)
        {
            return Encoding.GetEncoding(1252).GetString(bytes);
        }
    }
}
