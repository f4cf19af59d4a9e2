using System.Globalization;
using System.IO.Compression;
using System.Text;
using ExcelDataReader;

namespace Gesamt.Formats.Tables;

/// <summary>Reads workbooks of spreadsheet programs (.xlsx, ECMA-376 part 1, §18; .xls as well).</summary>
public static class Workbook
{
    // what is packed into a small file can be large beyond any table
    private const long MostUnpacked = 400L * 1024 * 1024;

    private const string Day = "yyyy-MM-dd",
        Minute = "yyyy-MM-dd HH:mm";

    private static ReadOnlySpan<byte> Package => "PK\u0003\u0004"u8;
    private static ReadOnlySpan<byte> Compound => [0xd0, 0xcf, 0x11, 0xe0];

    /// <summary>Whether bytes are a workbook, or another file packed like one.</summary>
    public static bool Is(ReadOnlySpan<byte> bytes) => bytes.StartsWith(Package) || bytes.StartsWith(Compound);

    /// <summary>The rows of its first sheet that has any, as texts: days by ISO 8601, numbers with a point and without thousands.</summary>
    /// <exception cref="FormatException">It is no workbook, or locked by a password.</exception>
    public static IEnumerable<IReadOnlyList<string>> Rows(byte[] bytes)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        using var book = Open(bytes);
        do
        {
            if (book.RowCount == 0)
                continue;
            while (Readable(book.Read))
                yield return [.. Enumerable.Range(0, book.FieldCount).Select(i => TextOf(book.GetValue(i)))];
            yield break;
        } while (Readable(book.NextResult));
    }

    private static IExcelDataReader Open(byte[] bytes) =>
        Readable(() =>
        {
            if (bytes.AsSpan().StartsWith(Package))
            {
                using var package = new ZipArchive(new MemoryStream(bytes));
                if (package.Entries.Sum(entry => entry.Length) > MostUnpacked)
                    throw new FormatException("This workbook is too large to be read. Save the table as CSV.");
            }
            return ExcelReaderFactory.CreateReader(new MemoryStream(bytes));
        });

    /// <summary>Whatever is wrong with the file, it is the file that cannot be read.</summary>
    private static T Readable<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception e) when (e is not (FormatException or OutOfMemoryException))
        {
            throw new FormatException(
                "This workbook cannot be read. Save the table as CSV, or as a workbook (.xlsx) without a password.",
                e
            );
        }
    }

    private static string TextOf(object? value) =>
        value switch
        {
            null => "",
            DateTime { TimeOfDay.Ticks: 0 } day => day.ToString(Day, CultureInfo.InvariantCulture),
            DateTime moment => moment.ToString(Minute, CultureInfo.InvariantCulture),
            double number => ((decimal)number).ToString("0.##########", CultureInfo.InvariantCulture),
            _ => Convert.ToString(value, CultureInfo.InvariantCulture) ?? "",
        };
}
