using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>The year by month, or any other days: what came, what is owed, what is to come, what was spent.</summary>
internal static class MoneyOverview
{
    public static async Task<MoneyOverviewDto> OfAsync(Desk desk, MoneyQuery query)
    {
        var earliest = await Journal.EarliestAsync(desk);
        var range = MoneyRange.Of(desk, query, earliest);
        var movements = await Journal.OfAsync(desk, range.First, range.Last, range.As);
        var ahead = await Ahead.OfAsync(desk, range.Currency, range.Last);
        var recurs = await RecurringCosts.AheadAsync(desk, range.Currency, range.Last);
        var sums = EntryBook.Sum(movements.Select(one => one.Entry), range.Currency);
        var columns = Columns(desk, range, movements, ahead, recurs);
        return new(
            new(
                range.Title,
                range.First,
                range.Last,
                MoneyText.Of(sums.Received),
                sums.Other.Minor == 0 ? "" : MoneyText.Of(sums.Other),
                MoneyText.Of(sums.Spent),
                MoneyText.Of(sums.Result)
            ),
            Scale(columns, range.Currency),
            columns,
            Parts(ahead.Where(line => line.Placed.Month is null && IsShown(range, line)), range.Currency),
            await Owed.OfAsync(desk, ahead),
            await EveryMonth.OfAsync(desk),
            new(
                [.. Enumerable.Range(earliest.Year, Math.Max(1, desk.Today.Year - earliest.Year + 1)).Reverse()],
                await CurrenciesAsync(desk),
                await HasAccounts(desk.Db)
            ),
            await OpenLines(desk.Db)
        );
    }

    private static List<MoneyColumnDto> Columns(
        Desk desk,
        MoneyRange range,
        List<Movement> movements,
        List<AheadLine> ahead,
        List<(LocalDate On, Money Amount, RecurringCostRow Row)> recurs
    )
    {
        bool In(MoneyColumn column, LocalDate on) => on >= column.First && on <= column.Last;
        return
        [
            .. range.Columns.Select(column =>
            {
                var entries = movements.Select(one => one.Entry).Where(entry => In(column, entry.On));
                var sums = EntryBook.Sum(entries, range.Currency);
                List<MoneyPartDto> parts =
                [
                    .. Part(MoneyShow.Received, sums.Received),
                    .. Part(MoneyShow.Other, sums.Other),
                    .. Parts(
                        ahead.Where(line =>
                            IsShown(range, line) && line.Placed.Month is not null && In(column, DayOf(desk, line))
                        ),
                        range.Currency
                    ),
                    .. Part(MoneyShow.Spent, sums.Spent),
                    .. Part(
                        MoneyShow.Recurs,
                        recurs.Where(one => In(column, one.On)).Select(one => one.Amount).Sum(range.Currency)
                    ),
                ];
                return new MoneyColumnDto(
                    column.Name,
                    column.Long,
                    column.First,
                    column.Last,
                    In(column, desk.Today),
                    parts,
                    column.First <= desk.Today ? new(sums.Result.Minor, MoneyText.Of(sums.Result)) : null
                );
            }),
        ];
    }

    /// <summary>As billed, what is owed stands in its invoices already.</summary>
    internal static bool IsShown(MoneyRange range, AheadLine line) =>
        range.As == MoneyAs.Received || line.Placed.Place is Place.ToCome or Place.Likely;

    /// <summary>The day on which a line stands: today where it should have come already.</summary>
    internal static LocalDate DayOf(Desk desk, AheadLine line) => LocalDate.Max(line.On!.Value, desk.Today);

    internal static MoneyShow ShowOf(Place place) =>
        place switch
        {
            Place.Sent => MoneyShow.Sent,
            Place.Late => MoneyShow.Late,
            Place.ToCome => MoneyShow.ToCome,
            Place.Likely => MoneyShow.Likely,
            _ => MoneyShow.Received,
        };

    private static IReadOnlyList<MoneyPartDto> Parts(IEnumerable<AheadLine> lines, Currency currency) =>
        [
            .. lines
                .GroupBy(line => line.Placed.Place)
                .OrderBy(same => same.Key)
                .SelectMany(same => Part(ShowOf(same.Key), same.Select(line => line.Placed.Amount).Sum(currency))),
        ];

    private static IEnumerable<MoneyPartDto> Part(MoneyShow show, Money amount) =>
        amount.Minor == 0 ? [] : [new(show, amount.Minor, MoneyText.Of(amount))];

    /// <summary>Round steps, four or five of them, that hold the highest and the lowest column.</summary>
    private static MoneyScaleDto Scale(List<MoneyColumnDto> columns, Currency currency)
    {
        static bool IsDown(MoneyPartDto part) => part.Show is MoneyShow.Spent or MoneyShow.Recurs || part.Minor < 0;
        var top = columns.Max(column => column.Parts.Where(part => !IsDown(part)).Sum(part => part.Minor));
        var bottom = columns.Max(column => column.Parts.Where(IsDown).Sum(part => Math.Abs(part.Minor)));
        var step = Step(Math.Max(top + bottom, 1), currency);
        long Up(long most) => (most + step - 1) / step * step;
        var (above, below) = (Math.Max(Up(top), step), Up(bottom));
        List<MoneyTickDto> ticks = [];
        for (var at = -below; at <= above; at += step)
            ticks.Add(new(at, MoneyText.Whole(new(at, currency))));
        return new(above, -below, ticks);
    }

    /// <summary>1, 2 or 5 times a power of ten of the major unit.</summary>
    private static long Step(long span, Currency currency)
    {
        long unit = 1;
        for (var i = 0; i < currency.Exponent; i++)
            unit *= 10;
        for (var power = unit; ; power *= 10)
            foreach (var times in (int[])[1, 2, 5])
                if (span <= power * times * 5)
                    return power * times;
    }

    private static readonly Func<GesamtDb, Task<bool>> HasAccounts = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Accounts.Any(a => !a.Removed)
    );

    private static readonly Func<GesamtDb, Task<int>> OpenLines = EF.CompileAsyncQuery(
        (GesamtDb db) => db.BankLines.Count(l => l.State == BankLineState.Open)
    );

    private static readonly Func<GesamtDb, Task<List<string>>> Currencies = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Invoices.Where(i => i.Year > 0)
                .Select(i => i.Currency)
                .Distinct()
                .Union(db.Costs.Where(c => !c.Removed).Select(c => c.Currency).Distinct())
                .Union(db.Accounts.Where(a => !a.Removed).Select(a => a.Currency))
    );

    private static async Task<IReadOnlyList<string>> CurrenciesAsync(Desk desk)
    {
        var codes = await Currencies(desk.Db);
        return [desk.Currency.Code, .. codes.Where(code => code != desk.Currency.Code).Order(StringComparer.Ordinal)];
    }
}
