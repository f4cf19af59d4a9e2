using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Stages;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>An amount of a project that is still to come, in its one place.</summary>
/// <param name="On">The day it is expected; null where that is not known.</param>
/// <param name="Words">What it is: “2027-004”, “agreed”, “62 % of € 3 200.00 (23 of 35)”.</param>
public sealed record AheadLine(
    Placed Placed,
    LocalDate? On,
    ProjectId Project,
    string Title,
    string Words,
    InvoiceId? Invoice
);

/// <summary>All that is still to come of projects: what is owed, agreed and likely.</summary>
public static class Ahead
{
    /// <summary>Of one currency.</summary>
    /// <param name="last">How far invoices that come again are counted.</param>
    public static async Task<List<AheadLine>> OfAsync(Desk desk, Currency currency, LocalDate last)
    {
        List<AheadLine> lines = [];
        await OwedAsync(desk, currency, lines);
        await AgreedAsync(desk, currency, await OnTable(desk.Db), lines);
        await AgainAsync(desk, currency, last, lines);
        return [.. lines.OrderBy(line => line.On ?? LocalDate.MaxIsoValue).ThenBy(line => line.Project.Value)];
    }

    /// <summary>Of one currency, and of projects that are not booked alone: what is likely.</summary>
    public static async Task<List<AheadLine>> LikelyAsync(Desk desk, Currency currency)
    {
        List<AheadLine> lines = [];
        await AgreedAsync(desk, currency, (await OnTable(desk.Db)).Where(row => row.BookedAt is null), lines);
        return lines;
    }

    private sealed record OpenInvoice(
        InvoiceId Id,
        ProjectId ProjectId,
        string Number,
        LocalDate Due,
        long OwedMinor,
        string Title
    );

    private static readonly Func<GesamtDb, string, Task<List<OpenInvoice>>> OpenInvoices = Prepared.Rows(
        (GesamtDb db, string currency) =>
            db
                .Invoices.AsNoTracking()
                .Where(i => i.OwedMinor > 0 && i.Sort == InvoiceSort.Invoice && i.Year > 0 && i.Currency == currency)
                .Join(
                    db.Projects,
                    i => i.ProjectId,
                    p => p.Id,
                    (i, p) => new OpenInvoice(i.Id, i.ProjectId, i.Number, i.Due, i.OwedMinor, p.Title)
                )
    );

    private sealed record Agreed(
        ProjectId Id,
        string Title,
        Stage Stage,
        Instant? BookedAt,
        string ToCome,
        string? Currency,
        LocalDate? MainDate,
        VersionId? ProposalOut
    );

    private static readonly Func<GesamtDb, Task<List<Agreed>>> OnTable = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Projects.AsNoTracking()
                .Where(p => p.Standing.OnTable && p.Standing.Ended == null)
                .Where(p => p.Standing.ToCome != "[]" || p.Standing.ProposalOut != null)
                .Select(p => new Agreed(
                    p.Id,
                    p.Title,
                    p.Standing.Stage,
                    p.Standing.BookedAt,
                    p.Standing.ToCome,
                    p.Standing.Currency,
                    p.Standing.MainDate,
                    p.Standing.ProposalOut
                ))
    );

    private static async Task OwedAsync(Desk desk, Currency currency, List<AheadLine> lines)
    {
        var code = currency.Code;
        var open = await OpenInvoices(desk.Db, code);
        foreach (var one in open)
            Add(
                desk,
                lines,
                new([], [new(one.Due, new(one.OwedMinor, currency))], [], null),
                (one.ProjectId, one.Title),
                _ => $"invoice {one.Number}",
                one.Id
            );
    }

    private static async Task AgreedAsync(
        Desk desk,
        Currency currency,
        IEnumerable<Agreed> agreed,
        List<AheadLine> lines
    )
    {
        var chances = await Chances.OfAsync(desk);
        var rows = agreed.ToList();
        var asked = await Suggested.OfAsync(desk, [.. rows.Select(row => row.ProposalOut).OfType<VersionId>()]);
        foreach (var row in rows)
        {
            var parts = desk.Tell(() => StoreJson.Read<List<ComingPayment>>(row.ToCome), () => [])
                .Select(part => new Coming(part.Due, desk.Amount(part.Minor, row.Currency)));
            // in the month of the date that matters, since nothing is agreed of its payments yet
            if (row.ProposalOut is { } version && asked.TryGetValue(version, out var total))
                parts = total.Minor > 0 ? [new(row.MainDate, total)] : [];
            var chance = chances.TryGetValue(row.Stage, out var counted) ? counted : chances[Stage.Payment];
            Add(
                desk,
                lines,
                new(
                    [],
                    [],
                    [.. parts.Where(part => part.Amount.Currency == currency)],
                    row.BookedAt is null ? chance : null
                ),
                (row.Id, row.Title),
                placed =>
                    placed.Place == Place.ToCome
                        ? "agreed, not invoiced yet"
                        : $"{row.Stage}: {chance.Percent} % of {MoneyText.Of(placed.Whole)}, "
                            + (chance.Own is null ? $"{Chances.Counted(chance)} were booked" : "as you say"),
                null
            );
        }
    }

    /// <summary>Invoices that come again, from the next one on.</summary>
    private static async Task AgainAsync(Desk desk, Currency currency, LocalDate last, List<AheadLine> lines)
    {
        var rows = await GoingOn.All(desk.Db);
        foreach (var one in rows)
        {
            var each = desk.Tell(
                () => StoreJson.ReadOnce<Bill>(one.Row.Bill).Sums().Totals.Payable,
                () => Money.Zero(currency)
            );
            if (each.Currency != currency || each.Minor <= 0)
                continue;
            for (var k = one.Row.Issued; one.Row.Recurrence.DayOf(k) is { } day && day <= last; k++)
                Add(
                    desk,
                    lines,
                    new([], [], [new(day, each)], null),
                    (one.Row.ProjectId, one.Title),
                    _ => Core.Calendar.EveryWords.Of(one.Row.Every),
                    null
                );
        }
    }

    private static void Add(
        Desk desk,
        List<AheadLine> lines,
        ProjectMoney money,
        (ProjectId Id, string Title) project,
        Func<Placed, string> words,
        InvoiceId? invoice
    )
    {
        var days = money.Owed.Concat(money.Ahead).Select(part => part.On).ToList();
        foreach (var (placed, on) in Forecast.Of(money, desk.Today).Zip(days))
            lines.Add(new(placed, on, project.Id, project.Title, words(placed), invoice));
    }
}
