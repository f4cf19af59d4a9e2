using System.Text.RegularExpressions;
using CsvHelper;

namespace Gesamt.Formats.Tables;

/// <summary>Tables as CSV (RFC 4180), UTF-8 with a byte order mark so that table programs read names rightly.</summary>
public static partial class Csv
{
    /// <summary>A table with its heading. A cell that a table program would take for a formula is written behind an apostrophe.</summary>
    public static byte[] Write(IReadOnlyList<string> heading, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var memory = new MemoryStream();
        using (var csv = To(memory))
        {
            csv.WriteRecord([.. heading.Select(Harmless)]);
            foreach (var row in rows)
                csv.WriteRecord([.. row.Select(Harmless)]);
        }
        return memory.ToArray();
    }

    /// <summary>The same for a table that is too long to be held, row by row.</summary>
    public static async Task WriteAsync(
        Stream to,
        IReadOnlyList<string> heading,
        IAsyncEnumerable<IReadOnlyList<string>> rows
    )
    {
        using var csv = To(to);
        csv.WriteRecord([.. heading.Select(Harmless)]);
        await foreach (var row in rows)
            csv.WriteRecord([.. row.Select(Harmless)]);
    }

    private static CsvWriter To(Stream stream) =>
        CsvWriter.Create(
            stream,
            new CsvWriterOptions
            {
                NewLine = "\r\n",
                WriteByteOrderMark = true,
                HasHeader = false,
            },
            true
        );

    /// <summary>What a table program would take for a formula stands behind an apostrophe; a number and a phone number with their sign do not.</summary>
    private static string Harmless(string cell) =>
        cell.Length > 0 && (cell[0] is '=' or '@' or '\t' or '\r' || cell[0] is '+' or '-' && !Plain().IsMatch(cell))
            ? $"'{cell}"
            : cell;

    // a negative number, or a phone number with its country
    [GeneratedRegex(@"^(?:-\d[\d.,\u00a0\u202f ]*|\+\d[\d /().-]{5,})$")]
    private static partial Regex Plain();
}
