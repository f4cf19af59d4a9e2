using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Invoicing;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>Who is invoiced again and again and has paid this month and the three before; and the costs that book themselves.</summary>
internal static class EveryMonth
{
    private const int Months = 4,
        Most = 60;

    public static async Task<EveryMonthDto> OfAsync(Desk desk)
    {
        var months = Enumerable
            .Range(1 - Months, Months)
            .Select(back => desk.Today.ToYearMonth().PlusMonths(back))
            .ToList();
        var costs = await RecurringCosts.ListAsync(desk);
        return new(
            [.. months.Select(month => month.ToString("MMM", System.Globalization.CultureInfo.InvariantCulture))],
            await ClientsAsync(desk, months),
            costs,
            await RecurringCosts.MonthlyAsync(desk)
        );
    }

    private sealed record IssuedInvoice(RecurringId? Recurring, LocalDate IssuedOn, long OwedMinor, LocalDate Due);

    private static readonly Func<
        GesamtDb,
        IReadOnlyCollection<RecurringId?>,
        LocalDate,
        Task<List<IssuedInvoice>>
    > Issued = Prepared.Rows(
        (GesamtDb db, IReadOnlyCollection<RecurringId?> ids, LocalDate first) =>
            db
                .Invoices.AsNoTracking()
                .Where(i => i.Recurring != null && ids.Contains(i.Recurring) && i.IssuedOn >= first)
                .Select(i => new IssuedInvoice(i.Recurring, i.IssuedOn, i.OwedMinor, i.Due))
    );

    private static async Task<IReadOnlyList<MonthlyClientDto>> ClientsAsync(Desk desk, List<YearMonth> months)
    {
        var rows = (await GoingOn.All(desk.Db))
            .Where(one => one.Row.Every != Core.Calendar.Every.Year)
            .OrderBy(one => one.Row.Id.Value)
            .Take(Most)
            .ToList();
        var ids = rows.Select(one => (RecurringId?)one.Row.Id).ToList();
        var first = months[0].OnDayOfMonth(1);
        var invoices = (await Issued(desk.Db, ids, first)).ToLookup(
            i => i.Recurring!.Value,
            i =>
                (
                    Month: i.IssuedOn.ToYearMonth(),
                    Paid: i.OwedMinor <= 0 ? MonthPaid.Paid
                    : i.Due < desk.Today ? MonthPaid.Late
                    : MonthPaid.Sent
                )
        );
        return
        [
            .. rows.Select(one => new MonthlyClientDto(
                one.Row.ProjectId.Value,
                one.Title,
                [.. months.Select(month => Of(one.Row, month, [.. invoices[one.Row.Id]]))],
                desk.Tell(
                    () => MoneyText.Figures(StoreJson.ReadOnce<Bill>(one.Row.Bill).Sums().Totals.Payable),
                    () => ""
                )
            )),
        ];
    }

    /// <summary>Of several in one month the one that is worst off.</summary>
    private static MonthPaid Of(RecurringRow row, YearMonth month, (YearMonth Month, MonthPaid Paid)[] invoices)
    {
        var states = invoices.Where(one => one.Month == month).Select(one => one.Paid).ToList();
        return states.Contains(MonthPaid.Late) ? MonthPaid.Late
            : states.Contains(MonthPaid.Sent) ? MonthPaid.Sent
            : states.Count > 0 ? MonthPaid.Paid
            : row.Next?.ToYearMonth() == month ? MonthPaid.ToCome
            : MonthPaid.None;
    }
}
