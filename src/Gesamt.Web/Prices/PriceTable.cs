using Gesamt.Core;
using Gesamt.Formats.Tables;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Prices;

/// <summary>What came in from a table.</summary>
public sealed record PricesReadDto(int Added, int Changed);

/// <summary>A price list as a table (CSV): out, and in again.</summary>
public static class PriceTable
{
    private static readonly string[] Headings =
    [
        "Service",
        "Detail",
        "Unit",
        "Price",
        "Tax %",
        "Tax included",
        "Hours",
        "Cost",
        "Text",
        "Link",
        "Price steps",
        "On the rate sheet",
        "Put away",
    ];

    public static async Task<byte[]> WriteAsync(Desk desk, KindId? kind) =>
        Csv.Write(Headings, (await PriceList.RowsAsync(desk, kind)).Select(row => Cells(PriceList.Of(row))));

    /// <summary>Takes a table over: a service of the same title is changed, another is added at the end, none is taken out. Columns are found by their headings, in any order; only the service and its price must be there.</summary>
    /// <exception cref="InvalidException">A column is missing, or a cell cannot be read; it is named by its row and column.</exception>
    public static async Task<PricesReadDto> ReadAsync(Desk desk, KindId? kind, byte[] bytes)
    {
        var table = TableFile.Read(bytes);
        int At(string heading) =>
            table.Headings.ToList().FindIndex(one => one.Equals(heading, StringComparison.OrdinalIgnoreCase));
        foreach (var needed in new[] { "Service", "Price" })
            if (At(needed) < 0)
                throw new InvalidException(
                    ("file", $"The table has no column “{needed}”. Known are: {string.Join(", ", Headings)}.")
                );
        return await desk.ActAsync(async act =>
        {
            var list = (await PriceList.RowsAsync(desk, kind)).Select(PriceList.Of).ToList();
            var (added, changed) = (0, 0);
            Dictionary<int, int> rowOf = [];
            foreach (var (cells, i) in table.Rows.Select((cells, i) => (cells, i)))
            {
                string? Cell(string heading) => At(heading) is >= 0 and var at ? cells[at].TrimStart('\'') : null;
                var known = list.FindIndex(one =>
                    one.Title.Equals(Cell("Service"), StringComparison.OrdinalIgnoreCase)
                );
                var before = known < 0 ? new ServiceDto(0, "", "", "", "0", "0") : list[known];
                var service = Merged(before, Cell);
                if (known < 0)
                {
                    list.Add(service);
                    added++;
                }
                else if (!Cells(service).SequenceEqual(Cells(before)))
                {
                    list[known] = service;
                    changed++;
                }
                rowOf[known < 0 ? list.Count - 1 : known] = i + 2;
            }
            try
            {
                await PriceList.KeepAsync(desk, kind, list);
            }
            catch (InvalidException refused)
            {
                throw new InvalidException([
                    .. refused.Errors.SelectMany(error =>
                        error.Value.Select(words => ("file", InRow(error.Key, words, rowOf)))
                    ),
                ]);
            }
            return new PricesReadDto(added, changed);
        });
    }

    /// <summary>“Row 3, unitPrice: give a number …”.</summary>
    private static string InRow(string field, string words, Dictionary<int, int> rowOf)
    {
        var inside =
            field.IndexOf('[') is > 0 and var open && field.IndexOf(']') is var close && close > open
                ? int.Parse(field[(open + 1)..close], System.Globalization.CultureInfo.InvariantCulture)
                : -1;
        return rowOf.TryGetValue(inside, out var row)
            ? $"Row {row}, {field[(field.IndexOf('.') + 1)..]}: {words}"
            : words;
    }

    private static ServiceDto Merged(ServiceDto before, Func<string, string?> cell)
    {
        var more = before.More ?? new("", "", null, [], false, "", "", false, false);
        return new(
            before.Id,
            cell("Service") ?? "",
            cell("Detail") ?? before.Detail,
            cell("Unit") ?? before.Unit,
            cell("Price") ?? before.UnitPrice,
            cell("Tax %") is { Length: > 0 } tax ? tax.TrimEnd('%', ' ') : before.Tax,
            more with
            {
                Gross = IsYes(cell("Tax included"), more.Gross),
                Hours = cell("Hours") ?? more.Hours,
                Cost = cell("Cost") ?? more.Cost,
                Text = cell("Text") ?? more.Text,
                Link = cell("Link") ?? more.Link,
                Steps = cell("Price steps") is { } steps ? StepsOf(steps) : more.Steps,
                OnRateSheet = IsYes(cell("On the rate sheet"), more.OnRateSheet),
                PutAway = IsYes(cell("Put away"), more.PutAway),
            }
        );
    }

    private static bool IsYes(string? cell, bool otherwise) =>
        cell is null ? otherwise : cell.Trim().Equals("yes", StringComparison.OrdinalIgnoreCase);

    /// <summary>“10: 120; 50: 100”, the price from a quantity on.</summary>
    private static PriceStepDto[] StepsOf(string cell) =>
        [
            .. cell.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Select(step => step.Split(':', 2, StringSplitOptions.TrimEntries))
                .Select(step => new PriceStepDto(step[0], step.ElementAtOrDefault(1) ?? "")),
        ];

    private static string[] Cells(ServiceDto service) =>
        service.More is not { } more
            ? []
            :
            [
                service.Title,
                service.Detail,
                service.Unit,
                service.UnitPrice,
                service.Tax,
                YesNo(more.Gross),
                more.Hours,
                more.Cost,
                more.Text,
                more.Link,
                string.Join("; ", more.Steps.Select(step => $"{step.From}: {step.UnitPrice}")),
                YesNo(more.OnRateSheet),
                YesNo(more.PutAway),
            ];

    private static string YesNo(bool yes) => yes ? "yes" : "no";
}
