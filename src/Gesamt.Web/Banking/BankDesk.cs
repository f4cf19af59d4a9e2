using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Banking;

/// <summary>What lies on the desk of the bank: lines to be matched, and what became of the others.</summary>
internal static class BankDesk
{
    private const int Page = 60,
        Latest = 60,
        Offers = 4,
        Files = 12;

    public static async Task<BankDto> OfAsync(Desk desk)
    {
        var coming = desk.Db.BankLines.AsNoTracking().Where(l => l.State == BankLineState.Open && l.AmountMinor > 0);
        var open = await coming.OrderBy(l => l.On).ThenBy(l => l.Id).Take(Page).ToListAsync();
        var invoices = open.Count > 0 ? await BankBooking.OpenAsync(desk) : [];
        var done = await desk
            .Db.BankLines.AsNoTracking()
            .Where(l => l.State != BankLineState.Open)
            .OrderByDescending(l => l.DoneAt)
            .ThenByDescending(l => l.Id)
            .Take(Latest)
            .ToListAsync();
        var booked = await BookedAsync(desk, done);
        var costs = await CostsAsync(desk, done);
        return new(
            [.. open.Select(line => Open(desk, line, invoices))],
            open.Count < Page ? 0 : await coming.CountAsync() - open.Count,
            await desk.Db.BankLines.CountAsync(l => l.AmountMinor < 0 && l.State == BankLineState.Open),
            [.. done.Select(line => Done(desk, line, booked[line.Id], costs))],
            [
                .. (
                    await desk.Db.BankFiles.AsNoTracking().OrderByDescending(f => f.Id).Take(Files).ToListAsync()
                ).Select(f => new BankFileDto(f.Id, f.Name, desk.Short(desk.Calendar.DateOf(f.At)), f.Lines, f.New)),
            ]
        );
    }

    /// <summary>How a line would be shared out over the invoices that are ticked.</summary>
    public static async Task<BankSharesDto> SharesAsync(Desk desk, BankLineId id, long[] invoices)
    {
        var row =
            await desk.Db.BankLines.AsNoTracking().SingleOrDefaultAsync(l => l.Id == id)
            ?? throw new MissingException("line");
        var parts = await BankBooking.PartsAsync(desk, row, [.. invoices.Select(one => new InvoiceId(one))]);
        var more = parts[^1].Amount.Minor - parts[^1].Invoice.OwedMinor;
        return new(
            [.. parts.Select(part => $"{MoneyText.Of(part.Amount)} to invoice {part.Invoice.Number}")],
            more switch
            {
                > 0 => $"{MoneyText.Of(parts[^1].Amount with { Minor = more })} more than is owed stays paid ahead.",
                < 0 =>
                    $"{MoneyText.Of(parts[^1].Amount with { Minor = -more })} stays open of invoice {parts[^1].Invoice.Number}.",
                _ => "",
            }
        );
    }

    private static BankLineDto Open(Desk desk, BankLineRow row, IReadOnlyList<OpenInvoice> invoices) =>
        new(
            row.Id.Value,
            desk.Short(row.On),
            MoneyText.Of(BankBooking.Of(row).Amount),
            row.Party,
            Words(row),
            [
                .. BankMatch
                    .Of(BankBooking.Of(row), invoices)
                    .Take(Offers)
                    .Select(offer => new BankOfferDto(
                        offer.Invoice.Invoice.Value,
                        offer.Invoice.Number,
                        offer.Invoice.Payers[^1],
                        MoneyText.Of(offer.Invoice.Owed),
                        WhyOf(offer.Reason, BankBooking.Of(row).Amount, offer.Invoice.Owed)
                    )),
            ]
        );

    private static string Words(BankLineRow row) =>
        string.Join(", ", new[] { row.Text, row.Reference }.Where(text => text.Length > 0).Distinct());

    private static string WhyOf(BankReason reason, Money amount, Money owed) =>
        reason switch
        {
            BankReason.ReferenceAndAmount => "its reference and its amount",
            BankReason.Reference => amount < owed
                ? "its reference, a part of the amount"
                : "its reference, another amount",
            BankReason.NumberAndAmount => "its number and its amount",
            BankReason.PayerAndAmount => "its amount, and the client’s name",
            BankReason.Amount => "its amount",
            _ => amount < owed ? "its number, a part of the amount" : "its number, more than is open",
        };

    private static async Task<ILookup<BankLineId, (ProjectId Project, string Number)>> BookedAsync(
        Desk desk,
        List<BankLineRow> lines
    )
    {
        var ids = lines.ConvertAll(line => line.Id);
        return (
            await desk
                .Db.BankBookings.AsNoTracking()
                .Where(b => ids.Contains(b.LineId))
                .OrderBy(b => b.Id)
                .Join(desk.Db.Payments, b => b.PaymentId, p => p.Id, (b, p) => new { b.LineId, p.InvoiceId })
                .Join(
                    desk.Db.Invoices,
                    b => b.InvoiceId,
                    i => i.Id,
                    (b, i) =>
                        new
                        {
                            b.LineId,
                            i.ProjectId,
                            i.Number,
                        }
                )
                .ToListAsync()
        ).ToLookup(b => b.LineId, b => (b.ProjectId, b.Number));
    }

    private static async Task<IReadOnlyDictionary<CostId, string>> CostsAsync(Desk desk, List<BankLineRow> lines)
    {
        var ids = lines.Select(line => line.CostId).OfType<CostId>().ToList();
        return ids.Count == 0
            ? new Dictionary<CostId, string>()
            : await desk.Db.Costs.Where(c => ids.Contains(c.Id)).ToDictionaryAsync(c => c.Id, c => c.What);
    }

    private static BankDoneDto Done(
        Desk desk,
        BankLineRow row,
        IEnumerable<(ProjectId Project, string Number)> invoices,
        IReadOnlyDictionary<CostId, string> costs
    ) =>
        new(
            row.Id.Value,
            desk.Short(row.On),
            MoneyText.Of(BankBooking.Of(row).Amount),
            row.Party.Length > 0 ? row.Party : Words(row),
            [.. invoices.Select(one => new BankPaidDto(one.Project.Value, one.Number))],
            row.ByItself,
            row.CostId is { } cost ? costs.GetValueOrDefault(cost, "a cost") : ""
        );
}
