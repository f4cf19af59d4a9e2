using Gesamt.Core.Capture;
using Gesamt.Formats.People;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.People;

/// <summary>People out of a table (CSV or a workbook), by the headings of its columns.</summary>
public static class PeopleTable
{
    public const int MostBytes = 20 * 1024 * 1024;

    /// <exception cref="InvalidException">It is no table, or no column is told to be a name.</exception>
    public static async Task<ReadCardsDto> ReadAsync(Desk desk, Stream content, CancellationToken stop)
    {
        using var bytes = new MemoryStream();
        await content.CopyToAsync(bytes, stop);
        var table = TableFile.Read(bytes.ToArray());
        var columns = TableValues.Guess(table.Headings);
        if (!columns.Contains(ImportColumn.Name) && !columns.Contains(ImportColumn.Organisation))
            throw new InvalidException(
                (
                    "file",
                    "No column is called “name” or “organisation”. Read are name, organisation, mail, phone, profile and notes."
                )
            );
        return await PeopleList.TakeAsync(desk, [.. table.Rows.Select(row => CardOf(row, columns)).OfType<Card>()]);
    }

    /// <summary>Null for a row that names nobody.</summary>
    private static Card? CardOf(IReadOnlyList<string> row, IReadOnlyList<ImportColumn> columns)
    {
        string? Of(ImportColumn column) =>
            columns.ToList().IndexOf(column) is >= 0 and var at && row[at].Length > 0 ? row[at] : null;
        var (name, organisation) = (Of(ImportColumn.Name), Of(ImportColumn.Organisation));
        return (name ?? organisation) is { } called
            ? new(
                called,
                name is null ? null : organisation,
                Of(ImportColumn.Mail),
                Of(ImportColumn.Phone),
                null,
                Of(ImportColumn.Profile),
                Of(ImportColumn.Words)
            )
            : null;
    }
}
