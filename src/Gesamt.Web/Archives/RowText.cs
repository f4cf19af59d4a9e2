using System.Text.Json;

namespace Gesamt.Web.Archives;

/// <summary>Rows of an archive as texts.</summary>
internal static class RowText
{
    private static readonly byte[] Begin = "[\n"u8.ToArray(),
        Between = ",\n"u8.ToArray(),
        End = "\n]\n"u8.ToArray();

    /// <summary>Writes rows as one JSON array, a row a line.</summary>
    public static async Task WriteAsync(Stream to, IAsyncEnumerable<byte[]> rows, CancellationToken stop)
    {
        var any = false;
        await foreach (var row in rows)
        {
            await to.WriteAsync(any ? Between : Begin, stop);
            await to.WriteAsync(row, stop);
            any = true;
        }
        await to.WriteAsync(any ? End : "[]\n"u8.ToArray(), stop);
    }

    /// <summary>The same, of rows that are at hand.</summary>
    public static byte[] Array(IReadOnlyList<byte[]> rows) =>
        [.. Begin, .. rows.SelectMany((row, at) => at == 0 ? row : [.. Between, .. row]), .. End];

    /// <summary>The columns of a row: what is put together stands as JSON, nothing as an empty text.</summary>
    public static IReadOnlyList<string> Cells(byte[] row)
    {
        using var read = JsonDocument.Parse(row);
        return
        [
            .. read
                .RootElement.EnumerateObject()
                .Select(column =>
                    column.Value.ValueKind switch
                    {
                        JsonValueKind.String => column.Value.GetString()!,
                        JsonValueKind.Null => "",
                        _ => column.Value.GetRawText(),
                    }
                ),
        ];
    }
}
