using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Prices;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Spent;

/// <summary>What a project took, as its record shows it and as an invoice charges it.</summary>
internal static class SpentView
{
    private const int MostCategories = 30;

    public static async Task<SpentDto> OfAsync(Desk desk, ProjectFile file)
    {
        var (hours, costs) = await RowsAsync(desk, file.Id);
        var taken = await Taken.OfAsync(desk, file);
        var (rate, tax) = await HourAsync(desk, file, gross: false);
        return new(
            [
                .. hours.Select(row => new HoursDto(
                    row.Id.Value,
                    row.On,
                    desk.Short(row.On)!,
                    WorkTime.Words(row.Minutes),
                    row.Words,
                    taken.Of(row)
                )),
            ],
            [.. costs.Select(row => Of(desk, row, taken.Of(row)))],
            Sums(hours, costs, taken),
            await desk
                .Db.Costs.Where(c => c.Category != "" && !c.Removed)
                .Select(c => c.Category)
                .Distinct()
                .Order()
                .Take(MostCategories)
                .ToListAsync(),
            rate is { } known ? NumberText.Number(known) : "",
            NumberText.Number(tax.InPercent)
        );
    }

    /// <summary>Both in one line, “14 h 30 min, EUR 96.00 of costs”; null where there is neither.</summary>
    public static async Task<string?> LineAsync(Desk desk, ProjectFile file)
    {
        if (!file.History.Any<Happening.HoursKept>() && !file.History.Any<Happening.CostKept>())
            return null;
        var id = file.Id;
        var minutes = await desk.Db.Hours.Where(h => h.ProjectId == id && !h.Removed).SumAsync(h => h.Minutes);
        var costs = await desk
            .Db.Costs.Where(c => c.ProjectId == id && !c.Removed)
            .GroupBy(c => c.Currency)
            .Select(g => new { g.Key, Minor = g.Sum(c => c.GrossMinor) })
            .ToListAsync();
        string[] said =
        [
            .. minutes > 0 ? new[] { WorkTime.Words(minutes) } : [],
            .. costs.Select(one => $"{MoneyText.Of(new Money(one.Minor, Currency.Of(one.Key)))} of costs"),
        ];
        return said.Length == 0 ? null : string.Join(", ", said);
    }

    /// <summary>The lines of an invoice that charge some of it.</summary>
    /// <param name="each">A line for every day’s hours, or one for all of them.</param>
    /// <param name="prices">Those of the invoice.</param>
    /// <exception cref="InvalidException">No price of an hour is said, or something is charged already.</exception>
    public static async Task<SpentLinesDto> LinesAsync(
        Desk desk,
        ProjectFile file,
        (long[] Hours, long[] Costs) wanted,
        string? rate,
        bool each,
        BillPrices prices
    )
    {
        var gross = prices.Gross;
        var (hours, costs) = await RowsAsync(desk, file.Id);
        var taken = await Taken.OfAsync(desk, file);
        hours = [.. hours.Where(row => wanted.Hours.Contains(row.Id.Value) && taken.Of(row) is null).Reverse()];
        costs = [.. costs.Where(row => wanted.Costs.Contains(row.Id.Value) && taken.Of(row) is null).Reverse()];
        if (hours.Count + costs.Count < wanted.Hours.Length + wanted.Costs.Length)
            throw new InvalidException(
                ("lines", "Some of it is charged already, or was taken out. Open the list once more.")
            );
        if (hours.Count + costs.Count == 0)
            throw new InvalidException(("lines", "Tick at least one."));
        if (costs.FirstOrDefault(row => row.Currency != prices.Currency) is { } foreign)
            throw new InvalidException(
                (
                    "lines",
                    $"“{foreign.What}” was paid in {foreign.Currency}, the invoice is in {prices.Currency}. Leave it out, or write a line for it by hand."
                )
            );
        var (usual, tax) = await HourAsync(desk, file, gross);
        var price = hours.Count == 0 ? 0 : PriceOf(rate, usual);
        BillLineDto Hours(IReadOnlyList<HoursRow> rows, string title, string detail) =>
            new(
                Key("hours", rows[0].Id.Value),
                title,
                detail,
                NumberText.Number(WorkTime.Hours(rows.Sum(row => row.Minutes))),
                "hours",
                NumberText.Number(price),
                NumberText.Number(tax.InPercent),
                Hours: [.. rows.Select(row => row.Id.Value)]
            );
        var days = hours.Select(row => row.On).Concat(costs.Select(row => row.On)).ToList();
        return new(
            [
                .. hours.Count == 0 ? []
                : each ? hours.Select(row => Hours([row], Work(row.Words), DateWords.Long(row.On)))
                : [Hours(hours, Work(""), DateWords.Between(hours[0].On, hours[^1].On))],
                .. costs.Select(row => new BillLineDto(
                    Key("cost", row.Id.Value),
                    row.What,
                    DateWords.Long(row.On),
                    "1",
                    "",
                    NumberText.Number(OfferedServices.PriceIn(NetOf(row), tax, isGross: false, gross)),
                    NumberText.Number(tax.InPercent),
                    Costs: [row.Id.Value]
                )),
            ],
            days.Min(),
            days.Max()
        );
    }

    private static string Work(string words) => words.Length > 0 ? words : "Work by the hour";

    private static string Key(string sort, long id) => $"{sort}-{id}";

    private static decimal PriceOf(string? rate, decimal? usual) =>
        string.IsNullOrWhiteSpace(rate)
            ? usual
                ?? throw new InvalidException(("rate", "What does an hour cost? The price list has no price of one."))
        : NumberText.Exact(rate) is { } price and >= 0 and <= 100_000 && decimal.Round(price, 6) == price ? price
        : throw new InvalidException(
            (
                "rate",
                $"An hour’s price is a number from 0 to 100 000, such as {NumberText.Number(60)}.{NumberText.Doubt(rate)}"
            )
        );

    /// <summary>In major units, before the tax that the studio paid.</summary>
    private static decimal NetOf(CostRow row)
    {
        var (gross, rate) = (new Money(row.GrossMinor, Currency.Of(row.Currency)), new Rate(row.TaxPartsPerMillion));
        return Money.Of(gross.Major / (1 + rate.Fraction), gross.Currency).Major;
    }

    private static async Task<(IReadOnlyList<HoursRow>, IReadOnlyList<CostRow>)> RowsAsync(Desk desk, ProjectId id) =>
        (
            await desk
                .Db.Hours.AsNoTracking()
                .Where(h => h.ProjectId == id && !h.Removed)
                .OrderByDescending(h => h.On)
                .ThenByDescending(h => h.Id)
                .ToListAsync(),
            await desk
                .Db.Costs.AsNoTracking()
                .Where(c => c.ProjectId == id && !c.Removed)
                .OrderByDescending(c => c.On)
                .ThenByDescending(c => c.Id)
                .ToListAsync()
        );

    /// <summary>What an hour costs in the price list, the kind’s own first, and the tax on it; without such a price, the tax that the kind’s services mostly have.</summary>
    private static async Task<(decimal? Price, Rate Tax)> HourAsync(Desk desk, ProjectFile file, bool gross)
    {
        var services = await PriceList.OfferedAsync(desk, file.Row.KindId);
        return services.FirstOrDefault(one => UnitWords.One(one.Unit) is "hour" or "h") is { } hour
            ? (OfferedServices.Line(hour, 1, gross).UnitPrice, new(hour.TaxPartsPerMillion))
            : (null, UsualOffer.Tax([.. services.Select(one => one.TaxPartsPerMillion)]));
    }

    private static CostDto Of(Desk desk, CostRow row, string? charged)
    {
        var gross = new Money(row.GrossMinor, Currency.Of(row.Currency));
        return new(
            row.Id.Value,
            row.On,
            desk.Short(row.On)!,
            row.Payee,
            row.What,
            row.Category,
            TypedMoney.Plain(gross),
            MoneyText.Of(gross),
            NumberText.Number(new Rate(row.TaxPartsPerMillion).InPercent),
            row.ChargeOn,
            row.ReceiptName,
            charged
        );
    }

    private static SpentSumsDto Sums(IReadOnlyList<HoursRow> hours, IReadOnlyList<CostRow> costs, Taken taken)
    {
        static string? Time(IEnumerable<HoursRow> rows) =>
            rows.Sum(row => row.Minutes) is > 0 and var minutes ? WorkTime.Words(minutes) : null;
        static string? Amounts(IEnumerable<CostRow> rows) =>
            rows.GroupBy(row => row.Currency)
                .OrderBy(same => same.Key, StringComparer.Ordinal)
                .Select(same => MoneyText.Of(new Money(same.Sum(row => row.GrossMinor), Currency.Of(same.Key))))
                .ToList()
                is [_, ..] sums
                ? string.Join(", ", sums)
                : null;
        return new(
            Time(hours),
            Time(hours.Where(row => taken.Of(row) is null)),
            Amounts(costs),
            Amounts(costs.Where(row => row.ChargeOn && taken.Of(row) is null))
        );
    }
}
