using System.Text.Json.Nodes;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Formats.Tables;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Invoicing;

/// <summary>What is asked of the list.</summary>
internal sealed record InvoicesQuery(
    InvoiceShow Show,
    InvoiceBy By,
    string? Words,
    long? Client,
    string? Month,
    int? Most
);

/// <summary>One list of all invoices, and the same as a table.</summary>
internal static class InvoiceList
{
    private const int Page = 200,
        MostRows = 2_000;

    private sealed record Row(InvoiceRow Invoice, string Title, PersonId Person, string Client, long Credited);

    /// <summary>A sum of a group in one currency.</summary>
    private sealed record Sum(string Key, string Currency, int Count, long Total, long Owed);

    public static async Task<InvoicesDto> OfAsync(Desk desk, InvoicesQuery query)
    {
        var asked = Asked(desk, query);
        var sums = await SumsAsync(desk, asked, query.By);
        var late = await Late(desk, asked)
            .GroupBy(i => i.Currency)
            .Select(g => new { Currency = g.Key, Owed = g.Sum(i => i.OwedMinor) })
            .ToListAsync();
        var rows = await RowsAsync(
            desk,
            Ordered(desk, asked, query.By).Take(Math.Clamp(query.Most ?? Page, 1, MostRows))
        );
        var said = await SaidAsync(desk, rows);
        var count = sums.Sum(sum => sum.Count);
        return new(
            new(
                count,
                desk.Sum(sums.Select(sum => (sum.Total, (string?)sum.Currency))),
                desk.Sum(sums.Select(sum => (sum.Owed, (string?)sum.Currency))),
                desk.Sum(late.Select(sum => (sum.Owed, (string?)sum.Currency)))
            ),
            [
                .. rows.GroupBy(row => KeyOf(desk, row, query.By))
                    .Select(group =>
                    {
                        var own = sums.Where(sum => sum.Key == group.Key).ToList();
                        return new InvoiceGroupDto(
                            NameOf(group.Key, group.First(), query.By),
                            own.Sum(sum => sum.Count),
                            desk.Sum(own.Select(sum => (sum.Total, (string?)sum.Currency))),
                            desk.Sum(own.Select(sum => (sum.Owed, (string?)sum.Currency))),
                            [.. group.Select(row => Of(desk, row, said))]
                        );
                    }),
            ],
            count - rows.Count,
            await MonthsAsync(desk),
            query.Client is { } person
                ? await desk
                    .Db.People.Where(p => p.Id == new PersonId(person))
                    .Select(p => p.Name)
                    .SingleOrDefaultAsync()
                : null
        );
    }

    /// <summary>The months in which anything was issued, the last first: each found by its own look into the index, however many invoices there are.</summary>
    private static Task<List<string>> MonthsAsync(Desk desk) =>
        desk
            .Db.Database.SqlQuery<string>(
                $"""
                WITH RECURSIVE Last(Day) AS (
                    SELECT max(IssuedOn) FROM Invoices WHERE Year > 0
                    UNION ALL
                    SELECT (SELECT max(IssuedOn) FROM Invoices WHERE Year > 0 AND IssuedOn < substr(Day, 1, 7))
                    FROM Last WHERE Day IS NOT NULL
                )
                SELECT substr(Day, 1, 7) AS Value FROM Last WHERE Day IS NOT NULL
                """
            )
            .ToListAsync();

    /// <summary>The same as a table (RFC 4180), whole, with net and tax.</summary>
    public static async Task<byte[]> CsvAsync(Desk desk, InvoicesQuery query)
    {
        var rows = await RowsAsync(desk, Ordered(desk, Asked(desk, query), query.By));
        return Csv.Write(
            [
                "Number",
                "Sort",
                "Issued",
                "Due",
                "Client",
                "Project",
                "Currency",
                "Net",
                "Tax",
                "Total",
                "Open",
                "Standing",
            ],
            rows.Select(row =>
            {
                var totals = StoreJson.Read<InvoiceSnapshot>(row.Invoice.Snapshot).Totals;
                return (IReadOnlyList<string>)
                    [
                        row.Invoice.Number,
                        row.Invoice.Sort == InvoiceSort.CreditNote ? "credit note" : "invoice",
                        LocalDatePattern.Iso.Format(row.Invoice.IssuedOn),
                        LocalDatePattern.Iso.Format(row.Invoice.Due),
                        row.Client,
                        row.Title,
                        row.Invoice.Currency,
                        MoneyText.Exact(totals.Net),
                        MoneyText.Exact(totals.Tax + totals.RoundingAmount),
                        MoneyText.Exact(totals.Payable),
                        MoneyText.Exact(totals.Payable with { Minor = row.Invoice.OwedMinor }),
                        Standing(row),
                    ];
            })
        );
    }

    private static IQueryable<InvoiceRow> Asked(Desk desk, InvoicesQuery query)
    {
        // a rehearsal's papers have no year
        var asked = desk.Db.Invoices.AsNoTracking().Where(i => i.Year > 0);
        asked = query.Show switch
        {
            InvoiceShow.Open => asked.Where(i => i.OwedMinor > 0),
            InvoiceShow.Late => Late(desk, asked),
            InvoiceShow.Paid => asked.Where(i => i.Sort == InvoiceSort.Invoice && i.OwedMinor <= 0),
            InvoiceShow.CreditNotes => asked.Where(i => i.Sort == InvoiceSort.CreditNote),
            _ => asked.Where(i => i.Sort == InvoiceSort.Invoice),
        };
        if (query.Client is { } client)
            asked = asked.Where(i =>
                desk.Db.Projects.Any(p => p.Id == i.ProjectId && p.ClientId == new PersonId(client))
            );
        if (YearMonth(query.Month) is { } month)
        {
            var (from, to) = (month.OnDayOfMonth(1), month.OnDayOfMonth(1).PlusMonths(1));
            asked = asked.Where(i => i.IssuedOn >= from && i.IssuedOn < to);
        }
        if (query.Words?.Trim() is { Length: > 0 } words)
            asked = asked.Where(i =>
                GesamtDb.Holds(i.Number, words)
                || desk.Db.Projects.Any(p =>
                    p.Id == i.ProjectId
                    && (
                        GesamtDb.Holds(p.Title, words)
                        || GesamtDb.Holds(p.Client!.Name, words)
                        || p.Client.Organisation != null && GesamtDb.Holds(p.Client.Organisation, words)
                    )
                )
            );
        return asked;
    }

    private static IQueryable<InvoiceRow> Late(Desk desk, IQueryable<InvoiceRow> asked)
    {
        var today = desk.Today;
        return asked.Where(i => i.OwedMinor > 0 && i.Due < today);
    }

    private static YearMonth? YearMonth(string? text) =>
        text is { Length: > 0 } && YearMonthPattern.Iso.Parse(text) is { Success: true, Value: var month }
            ? month
            : null;

    private static IQueryable<InvoiceRow> Ordered(Desk desk, IQueryable<InvoiceRow> asked, InvoiceBy by) =>
        by switch
        {
            InvoiceBy.Age => asked.OrderBy(i => i.Due).ThenBy(i => i.Id),
            InvoiceBy.Client => asked
                .OrderBy(i => desk.Db.Projects.Where(p => p.Id == i.ProjectId).Select(p => p.Client!.PlainName).First())
                .ThenByDescending(i => i.Id),
            _ => asked.OrderByDescending(i => i.IssuedOn).ThenByDescending(i => i.Id),
        };

    private static async Task<List<Row>> RowsAsync(Desk desk, IQueryable<InvoiceRow> asked)
    {
        var invoices = await asked.ToListAsync();
        var projects = invoices.Select(i => i.ProjectId).Distinct().ToList();
        var of = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => projects.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                p.Title,
                p.ClientId,
                Client = p.Client!.Name,
            })
            .ToDictionaryAsync(p => p.Id);
        var ids = invoices.Select(i => (InvoiceId?)i.Id).ToList();
        var credited = (
            await desk
                .Db.Invoices.AsNoTracking()
                .Where(i => i.Credits != null && ids.Contains(i.Credits))
                .Select(i => new { i.Credits, i.TotalMinor })
                .ToListAsync()
        ).ToLookup(i => i.Credits!.Value, i => i.TotalMinor);
        return
        [
            .. invoices.Select(i => new Row(
                i,
                of[i.ProjectId].Title,
                of[i.ProjectId].ClientId,
                of[i.ProjectId].Client,
                credited[i.Id].Sum()
            )),
        ];
    }

    /// <summary>Invoices of which the client says that they are paid.</summary>
    private static async Task<HashSet<long>> SaidAsync(Desk desk, List<Row> rows)
    {
        var projects = rows.Where(row => row.Invoice.OwedMinor > 0)
            .Select(row => row.Invoice.ProjectId)
            .Distinct()
            .ToList();
        return projects.Count == 0
            ? []
            :
            [
                .. (
                    await desk
                        .Db.Facts.AsNoTracking()
                        .Where(f => projects.Contains(f.ProjectId) && f.Kind == nameof(Happening.SaidToBePaid))
                        .Select(f => f.Payload)
                        .ToListAsync()
                ).Select(payload => JsonNode.Parse(payload)!["invoice"]!.GetValue<long>()),
            ];
    }

    private static async Task<List<Sum>> SumsAsync(Desk desk, IQueryable<InvoiceRow> asked, InvoiceBy by)
    {
        switch (by)
        {
            case InvoiceBy.Client:
                return
                [
                    .. (
                        await asked
                            .Join(
                                desk.Db.Projects,
                                i => i.ProjectId,
                                p => p.Id,
                                (i, p) =>
                                    new
                                    {
                                        p.ClientId,
                                        i.Currency,
                                        i.TotalMinor,
                                        i.OwedMinor,
                                    }
                            )
                            .GroupBy(i => new { i.ClientId, i.Currency })
                            .Select(g => new
                            {
                                g.Key,
                                Count = g.Count(),
                                Total = g.Sum(i => i.TotalMinor),
                                Owed = g.Sum(i => i.OwedMinor),
                            })
                            .ToListAsync()
                    ).Select(g => new Sum(ClientKey(g.Key.ClientId), g.Key.Currency, g.Count, g.Total, g.Owed)),
                ];
            case InvoiceBy.Number:
                return
                [
                    .. (
                        await asked
                            .GroupBy(i => i.Currency)
                            .Select(g => new
                            {
                                Currency = g.Key,
                                Count = g.Count(),
                                Total = g.Sum(i => i.TotalMinor),
                                Owed = g.Sum(i => i.OwedMinor),
                            })
                            .ToListAsync()
                    ).Select(g => new Sum("", g.Currency, g.Count, g.Total, g.Owed)),
                ];
            default:
                // a day at a time, so that months and ages are said here and nowhere else
                var days = await asked
                    .GroupBy(i => new { Day = by == InvoiceBy.Month ? i.IssuedOn : i.Due, i.Currency })
                    .Select(g => new
                    {
                        g.Key,
                        Count = g.Count(),
                        Total = g.Sum(i => i.TotalMinor),
                        Owed = g.Sum(i => i.OwedMinor),
                    })
                    .ToListAsync();
                return
                [
                    .. days.GroupBy(g =>
                            (Key: by == InvoiceBy.Month ? MonthKey(g.Key.Day) : AgeKey(desk, g.Key.Day), g.Key.Currency)
                        )
                        .Select(g => new Sum(
                            g.Key.Key,
                            g.Key.Currency,
                            g.Sum(day => day.Count),
                            g.Sum(day => day.Total),
                            g.Sum(day => day.Owed)
                        )),
                ];
        }
    }

    private static string KeyOf(Desk desk, Row row, InvoiceBy by) =>
        by switch
        {
            InvoiceBy.Client => ClientKey(row.Person),
            InvoiceBy.Month => MonthKey(row.Invoice.IssuedOn),
            InvoiceBy.Age => AgeKey(desk, row.Invoice.Due),
            _ => "",
        };

    private static string NameOf(string key, Row row, InvoiceBy by) => by == InvoiceBy.Client ? row.Client : key;

    private static string ClientKey(PersonId person) =>
        person.Value.ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static string MonthKey(LocalDate day) => DateWords.Month(day);

    /// <summary>By days after the due day, in the steps that bookkeepers use. Common practice.</summary>
    private static string AgeKey(Desk desk, LocalDate due) =>
        Period.DaysBetween(due, desk.Today) switch
        {
            > 90 => "more than 90 days late",
            > 60 => "61 to 90 days late",
            > 30 => "31 to 60 days late",
            > 0 => "1 to 30 days late",
            _ => "not due yet",
        };

    private static ListedInvoiceDto Of(Desk desk, Row row, HashSet<long> said)
    {
        var (invoice, currency) = (row.Invoice, Currency.Of(row.Invoice.Currency));
        var open = invoice.OwedMinor > 0;
        return new(
            invoice.Id.Value,
            invoice.Number,
            new(invoice.ProjectId.Value, row.Title, row.Person.Value, row.Client),
            DateWords.Long(invoice.IssuedOn),
            invoice.Sort == InvoiceSort.CreditNote ? "" : DateWords.Long(invoice.Due),
            MoneyText.Of(new(invoice.TotalMinor, currency)),
            open ? MoneyText.Of(new(invoice.OwedMinor, currency)) : "",
            new(
                Standing(row),
                open && invoice.Due < desk.Today ? DateWords.Due(invoice.Due, desk.Today, false) : "",
                open && said.Contains(invoice.Id.Value)
            )
        );
    }

    private static string Standing(Row row) =>
        row.Invoice switch
        {
            { Sort: InvoiceSort.CreditNote } => "credit note",
            { OwedMinor: <= 0 } when row.Credited >= row.Invoice.TotalMinor => "credited",
            { OwedMinor: <= 0 } => "paid",
            var invoice when invoice.OwedMinor < invoice.TotalMinor - row.Credited => "part paid",
            _ => "open",
        };
}
