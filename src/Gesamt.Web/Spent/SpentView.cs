using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store;
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
        var off = desk.Studio.HoursOff;
        var (hours, costs) = await RowsAsync(desk, file.Id);
        if (off)
            hours = [];
        var taken = await Taken.OfAsync(desk, file);
        var (rate, tax) = await HourAsync(desk, file, gross: false);
        var tasks = await TasksAsync(desk, hours);
        return new(
            [
                .. hours.Select(row => new HoursDto(
                    row.Id.Value,
                    row.On,
                    desk.Short(row.On)!,
                    WorkTime.Words(row.Minutes),
                    row.Words,
                    taken.Of(row),
                    row.TaskId is { } task && tasks.TryGetValue(task, out var title) ? new(task.Value, title) : null
                )),
            ],
            [.. costs.Select(row => Of(desk, row, taken.Of(row)))],
            await Quotes.OfAsync(desk, file),
            Sums(hours, costs, taken),
            new(
                await desk
                    .Db.Costs.Where(c => c.Category != "" && !c.Removed)
                    .Select(c => c.Category)
                    .Distinct()
                    .Order()
                    .Take(MostCategories)
                    .ToListAsync(),
                rate is { } known ? NumberText.Number(known) : "",
                NumberText.Number(tax.InPercent)
            ),
            Earns(desk, file, hours, costs),
            off
        );
    }

    internal static async Task<IReadOnlyDictionary<TaskId, string>> TasksAsync(Desk desk, IReadOnlyList<HoursRow> hours)
    {
        var ids = hours.Select(row => row.TaskId).OfType<TaskId>().Distinct().ToList();
        return ids.Count == 0
            ? ImmutableDictionary<TaskId, string>.Empty
            : await desk.Db.Tasks.Where(t => ids.Contains(t.Id)).ToDictionaryAsync(t => t.Id, t => t.Title);
    }

    /// <summary>All of it in one line, “14 h 30 min, EUR 62.50 an hour, EUR 96.00 of costs”; null where there is nothing.</summary>
    public static async Task<string?> LineAsync(Desk desk, ProjectFile file)
    {
        if (!file.History.Any<Happening.HoursKept>() && !file.History.Any<Happening.CostKept>())
            return null;
        var (hours, costs) = await RowsAsync(desk, file.Id);
        if (desk.Studio.HoursOff)
            hours = [];
        var minutes = hours.Sum(row => row.Minutes);
        string[] said =
        [
            .. minutes > 0 ? new[] { WorkTime.Words(minutes) } : [],
            .. Earns(desk, file, hours, costs) is { } earns ? new[] { $"{earns.SoFar} an hour" } : [],
            .. Amounts(costs) is { } spent ? new[] { $"{spent} of costs" } : [],
        ];
        return said.Length == 0 ? null : string.Join(", ", said);
    }

    /// <summary>Null without hours or an agreed price.</summary>
    private static EarnsDto? Earns(
        Desk desk,
        ProjectFile file,
        IReadOnlyList<HoursRow> hours,
        IReadOnlyList<CostRow> costs
    )
    {
        var (standing, currency) = (file.Row.Standing, desk.CurrencyOf(file));
        if (standing.NetMinor is not { } minor)
            return null;
        var took = new Took(hours.Sum(row => row.Minutes), [.. costs.Where(row => !row.ChargeOn).Select(NetAmountOf)]);
        var net = new Money(minor, currency);
        var spent = hours.Where(row => row.TaskId is not null).ToLookup(row => row.TaskId!.Value, row => row.Minutes);
        var ahead = file
            .Case.OpenTasks.Where(task => !task.IsClients)
            .Sum(task => Math.Max(0, (task.Weight.Minutes ?? 0) - spent[task.Id].Sum()));
        return took.PerHour(net) is { } soFar
            ? new(
                MoneyText.Of(soFar),
                ahead > 0 && (took with { Minutes = took.Minutes + ahead }).PerHour(net) is { } forecast
                    ? MoneyText.Of(forecast)
                    : null
            )
            : null;
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
                    NumberText.Number(OfferedServices.PriceIn(NetAmountOf(row).Major, tax, isGross: false, gross)),
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

    /// <summary>Before the tax that the studio paid.</summary>
    public static Money NetAmountOf(CostRow row) =>
        Taxes.OfGross(new(row.GrossMinor, Currency.Of(row.Currency)), new(row.TaxPartsPerMillion)).Net;

    internal static async Task<(IReadOnlyList<HoursRow> Hours, IReadOnlyList<CostRow> Costs)> RowsAsync(
        Desk desk,
        ProjectId id
    ) =>
        (
            [
                .. (await desk.Db.OfProjectAsync<HoursRow>(id))
                    .Where(h => !h.Removed)
                    .OrderByDescending(h => h.On)
                    .ThenByDescending(h => h.Id.Value),
            ],
            [
                .. (await desk.Db.OfProjectAsync<CostRow>(id))
                    .Where(c => !c.Removed)
                    .OrderByDescending(c => c.On)
                    .ThenByDescending(c => c.Id.Value),
            ]
        );

    /// <summary>What an hour costs in the price list, the kind’s own first, and the tax on it; without such a price, the tax that the kind’s services mostly have.</summary>
    private static async Task<(decimal? Price, Rate Tax)> HourAsync(Desk desk, ProjectFile file, bool gross)
    {
        var services = await PriceList.OfferedAsync(desk, file.Row.Kinds);
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
            MoneyText.Field(gross),
            MoneyText.Of(gross),
            NumberText.Number(new Rate(row.TaxPartsPerMillion).InPercent),
            row.ChargeOn,
            row.ReceiptName,
            charged
        );
    }

    private static string? Amounts(IEnumerable<CostRow> rows) =>
        rows.GroupBy(row => row.Currency)
            .OrderBy(same => same.Key, StringComparer.Ordinal)
            .Select(same => MoneyText.Of(new Money(same.Sum(row => row.GrossMinor), Currency.Of(same.Key))))
            .ToList()
            is [_, ..] sums
            ? string.Join(", ", sums)
            : null;

    private static SpentSumsDto Sums(IReadOnlyList<HoursRow> hours, IReadOnlyList<CostRow> costs, Taken taken)
    {
        static string? Time(IEnumerable<HoursRow> rows) =>
            rows.Sum(row => row.Minutes) is > 0 and var minutes ? WorkTime.Words(minutes) : null;
        return new(
            Time(hours),
            Time(hours.Where(row => taken.Of(row) is null)),
            Amounts(costs),
            Amounts(costs.Where(row => row.ChargeOn && taken.Of(row) is null))
        );
    }
}
