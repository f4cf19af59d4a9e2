using CsvHelper;

namespace Gesamt.Formats.Tables;

/// <summary>Tables as CSV (RFC 4180), UTF-8 with a byte order mark so that table programs read names rightly.</summary>
public static class Csv
{
    /// <summary>A table with its heading. A cell that a table program would take for a formula is written behind an apostrophe.</summary>
    public static byte[] Write(IReadOnlyList<string> heading, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var memory = new MemoryStream();
        using (var csv = CsvWriter.Create(memory, new CsvWriterOptions { NewLine = "\r\n", WriteByteOrderMark = true, HasHeader = false, Injection = CsvInjection.Escape }, true))
        {
            csv.WriteRecord([.. heading]);
            foreach (var row in rows) csv.WriteRecord([.. row]);
        }
        return memory.ToArray();
    }
}
